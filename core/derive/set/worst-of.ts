// Each quantity at its worst over a set, and by which storm on what ground and water.
import type { OutletStorm, StoreStorm, Worst } from '../../contract/index.ts';
import { type Brief, type Member, greatest } from '../run/worst.ts';
import type { LeavingFlow } from '../types.ts';
import { storesOnly } from '../water/water.ts';
import { STRICT, type SetRan, memberName } from './set.ts';

/** Runs a quantity is told of as found: as it runs off, where it is a matter of what is caught, or raised to the peaks chosen. */
type Runs = 'plain' | 'raised';
type Quantity<T> = readonly [name: string, of: (storm: T) => number | null, sense: 1 | -1, only?: Runs];
type Quantities<T> = readonly Quantity<T>[];

/** What is told of a store at its worst, whether more or less is worse, and of which runs where not of all. */
const STORE_QUANTITIES: Quantities<StoreStorm> = [
  ['peakLevelM', (s) => s.peakLevelM, 1],
  ['riseM', (s) => s.riseM, 1],
  ['freeboardM', (s) => s.freeboardM, -1],
  ['spilledM3', (s) => s.spilledM3, 1, 'plain'],
  ['heldShare', (s) => (s.inM3 > 0 ? Math.max(0, 1 - s.spilledM3 / s.inM3) : null), -1, 'plain'],
  ['inM3', (s) => s.inM3, 1, 'plain'],
  ['raisedInM3', (s) => s.inM3, 1, 'raised'],
  ['peakInM3s', (s) => s.peakInM3s, 1],
  ['peakOutM3s', (s) => s.peakOutM3s, 1],
  ['spillsH', (s) => s.spillsH, 1],
  ['firstSpillS', (s) => s.firstSpillS, -1, 'plain'],
  ['nextDayM3', (s) => s.nextDayM3, 1, 'plain'],
];
const OUTLET_QUANTITIES: Quantities<OutletStorm> = [
  ['peakM3s', (o) => o.peakM3s, 1],
  ['volumeM3', (o) => o.volumeM3, 1, 'plain'],
  ['runsH', (o) => o.runsH, 1],
  ['velocityMs', (o) => o.velocityMs, 1],
];

const EXIT_QUANTITIES: Quantities<LeavingFlow> = [
  ['peakM3s', (e) => e.peakM3s, 1],
  ['volumeM3', (e) => e.volumeM3, 1, 'plain'],
];
const LEFT: Quantities<StoreStorm> = STORE_QUANTITIES.filter(([name]) => name === 'freeboardM');

const valueIn = ({ outcomes }: Brief, id: string, of: (storm: StoreStorm) => number): number => {
  const storm = outcomes.get(id)?.storm;
  return storm ? of(storm) : -Infinity;
};

/** Each quantity at its worst over the members, and by which. */
function worstOf<T>(members: readonly Member[], of: (brief: Brief) => T | undefined, quantities: Quantities<T>): Record<string, Worst> {
  const worst: Record<string, Worst> = {};
  for (const { brief, durationMin, condition, isRaised } of members) {
    const one = of(brief);
    if (one === undefined) continue;
    for (const [name, valueOf, sense, only] of quantities) {
      if (only === 'raised' && !(isRaised && condition === 'found')) continue;
      if (only === 'plain' && isRaised && condition === 'found') continue;
      const value = valueOf(one);
      const known = worst[name] as Worst | undefined;
      if (value === null || (known && sense * value <= sense * known.value)) continue;
      worst[name] = { value, durationMin, condition };
    }
  }
  return worst;
}

/** The worst of a store over the whole set. */
export const storeWorst = (members: readonly Member[], id: string): Record<string, Worst> =>
  worstOf(members, (b) => b.outcomes.get(id)?.storm, STORE_QUANTITIES);
/** Least freeboard of a store as found, full and blocked; by what is most usual where several are as bad. */
export const leastLeft = (members: readonly Member[], id: string): Worst | null => {
  const strict = members.filter((m) => STRICT.has(m.condition));
  return worstOf(strict, (b) => b.outcomes.get(id)?.storm, LEFT).freeboardM ?? null;
};
/** The worst of a place where water leaves over the whole set. */
export const exitWorst = (members: readonly Member[], id: string): Record<string, Worst> =>
  worstOf(members, (b) => b.exits.get(id)?.with, EXIT_QUANTITIES);
/** The worst of a way out over the whole set. */
export const outletWorst = (members: readonly Member[], id: string): Record<string, Worst> =>
  worstOf(members, (b) => b.outlets.get(id), OUTLET_QUANTITIES);

/** Members by which what most checks hang on is at its worst: those to run first when something is dragged. */
export function governingNames({ members, water, governing }: Pick<SetRan, 'members' | 'water' | 'governing'>): string[] {
  // What is shown is shown as found.
  const names = new Set([...governing.values()].map(({ durationMin }) => memberName({ durationMin, condition: 'found' })));
  // The hardest first, so that what is as bad in several is run in one.
  const strict = members.filter((m) => STRICT.has(m.condition)).reverse();
  if (strict.length === 0) return [];
  for (const { id } of storesOnly(water.stores)) {
    for (const quantity of [(s: StoreStorm) => -s.freeboardM, (s: StoreStorm) => s.peakOutM3s])
      names.add(memberName(greatest(strict, ({ brief }) => valueIn(brief, id, quantity))));
  }
  return [...names];
}
