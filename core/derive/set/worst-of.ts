// Each quantity at its worst over a set, and by which storm on what ground and water.
import { type By, CONDITIONS, type Condition, type OutletStorm, type Store, type StoreStorm, type Worst } from '../../contract/index.ts';
import { type Graph, columnOf, forAll, idsOf } from '../graph/graph.ts';
import type { StoreOutcome } from '../run/outcomes.ts';
import { type Brief, type Member, greatest } from '../run/worst.ts';
import type { LeavingFlow } from '../types.ts';
import { storesOnly } from '../water/water.ts';
import { STRICT, memberName } from './member-names.ts';

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

/** A storm of a set, by what tells it from the others. */
type Named = Pick<Member, 'durationMin' | 'condition' | 'isRaised'>;

/** What differs by less than this share, or by less than this, was worked out to be the same. */
const ROUNDED = 1e-9;

/** Each quantity at its worst over the members, and by which; nothing is said of it by those where it is null. */
function worstOf<T>(members: readonly Named[], said: readonly (T | null)[], quantities: Quantities<T>): Record<string, Worst> {
  const worst: Record<string, Worst> = {};
  members.forEach(({ durationMin, condition, isRaised }, k) => {
    const one = said[k];
    if (one === null) return;
    for (const [name, valueOf, sense, only] of quantities) {
      if (only === 'raised' && !(isRaised && condition === 'found')) continue;
      if (only === 'plain' && isRaised && condition === 'found') continue;
      const value = valueOf(one);
      const known = worst[name] as Worst | undefined;
      if (value === null || (known && sense * value <= sense * known.value)) continue;
      // Worse by the last figures alone, it is as bad as the first of them, which is the most usual.
      const isAsBad = known !== undefined && Math.abs(value - known.value) <= ROUNDED * Math.max(1, Math.abs(known.value));
      worst[name] = isAsBad ? { ...known, value } : { value, durationMin, condition };
    }
  });
  return worst;
}

/** A store over a whole set. */
export interface StoreAtWorst {
  readonly worst: Record<string, Worst>;
  /** Least freeboard as found, full and blocked; by what is most usual where several are as bad. */
  readonly least: Worst | null;
  /** In what condition least is left when it is not as usually found; null where it was run in none. */
  readonly leastIn: Condition | null;
  /** How it stands under each condition at least, and in each member. */
  readonly found: readonly (Found & { readonly leftM: number })[];
  readonly peaks: readonly Found[];
}

interface Found extends By {
  readonly peakLevelM: number;
}

const NOT_RUN: StoreAtWorst = { worst: {}, least: null, leastIn: null, found: [], peaks: [] };

/** The ways out of a store over a whole set, by their ids. */
export type OutletsAtWorst = Readonly<Partial<Record<string, Record<string, Worst>>>>;

/** Stores and ways out over a whole set. */
export interface AtWorst {
  readonly storeOf: (id: string) => StoreAtWorst;
  /** Ways out by the store they let out. */
  readonly outlets: ReadonlyMap<string, OutletsAtWorst>;
}

export const NOTHING_AT_WORST: AtWorst = { storeOf: () => NOT_RUN, outlets: new Map() };

export function atWorst(members: readonly Member[], stores: readonly Store[], graph: Graph): AtWorst {
  const names = graph.step(
    'members',
    [members.map(({ durationMin, condition, isRaised }): Named => ({ durationMin, condition, isRaised }))],
    (all) => all,
  );
  const ids = idsOf(stores);
  const outcomes = members.map((m) => columnOf(ids, m.brief.outcomes, null));
  const outlets = members.map((m) => columnOf(ids, m.brief.outlets, null));
  const ofStores = graph.each('store-worst', { ids, columns: [forAll(names), ...outcomes] }, storeAtWorst).by;
  const ofOutlets = graph.each('outlets-worst', { ids, columns: [forAll(names), ...outlets] }, outletsAtWorst).by;
  return { storeOf: (id) => ofStores.get(id) ?? NOT_RUN, outlets: ofOutlets };
}

/** A store over all members, by what each says of it, in their order. */
function storeAtWorst(members: readonly Named[], ...outcomes: readonly (StoreOutcome | null)[]): StoreAtWorst {
  const storms = outcomes.map((o) => o?.storm ?? null);
  const leastIn = (isAmong: (m: Named) => boolean): Worst | null => {
    const among = members.map((m, k) => (STRICT.has(m.condition) && isAmong(m) ? storms[k] : null));
    return worstOf(members, among, LEFT).freeboardM ?? null;
  };
  const ran = members.flatMap(({ durationMin, condition }, k) => {
    const storm = storms[k];
    return storm ? [{ durationMin, condition, peakLevelM: storm.peakLevelM, leftM: storm.freeboardM }] : [];
  });
  const leastOf = (condition: Condition): StoreAtWorst['found'] => {
    const own = ran.filter((r) => r.condition === condition);
    return own.length === 0 ? [] : [greatest(own, (r) => -r.leftM)];
  };
  return {
    worst: worstOf(members, storms, STORE_QUANTITIES),
    least: leastIn(() => true),
    leastIn: leastIn((m) => m.condition !== 'found')?.condition ?? null,
    found: CONDITIONS.flatMap(leastOf),
    peaks: ran.map(({ durationMin, condition, peakLevelM }) => ({ durationMin, condition, peakLevelM })),
  };
}

/** The ways out of a store over all members, by their ids. */
function outletsAtWorst(members: readonly Named[], ...said: readonly (readonly OutletStorm[] | null)[]): OutletsAtWorst {
  const ids = new Set(said.flatMap((list) => list?.map((o) => o.id) ?? []));
  return Object.fromEntries(
    Array.from(ids, (id) => {
      const own = said.map((list) => list?.find((o) => o.id === id) ?? null);
      return [id, worstOf(members, own, OUTLET_QUANTITIES)];
    }),
  );
}

/** The worst of a place where water leaves over the whole set. */
export const exitWorst = (members: readonly Member[], id: string): Record<string, Worst> =>
  worstOf(
    members,
    members.map((m) => m.brief.exits.get(id)?.with ?? null),
    EXIT_QUANTITIES,
  );

/** Members by which what most checks hang on is at its worst: those to run first when something is dragged. */
export function governingNames({
  members,
  water,
  governing,
}: {
  readonly members: readonly Member[];
  readonly water: { readonly stores: readonly Store[] };
  readonly governing: ReadonlyMap<string, { readonly durationMin: number }>;
}): string[] {
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
