// The answer for a drain: what it leads away of what its pipes take, and how high water stands over its grates.
import type { ConduitStorm } from '../../contract/index.ts';
import { type QuantityKind, type UnitSystem, lowered, spoken } from '../../units/index.ts';
import type { Derived, DerivedStore } from '../types.ts';
import { type Piece, alarm, plain, strong } from './pieces.ts';
import { isOf } from './series.ts';
import { highestOf } from './storm-words.ts';

/** Over a grate water a shoe keeps out is nothing to speak of [m]. */
const SHOE_M = 0.05;
/** A pipe with so much of what it takes is full. */
const FULL = 0.9;

interface Telling {
  readonly derived: Derived;
  readonly q: (value: number | null, kind: QuantityKind) => string;
  readonly system: UnitSystem;
  readonly name: string;
  /** Which storm decides over a store. */
  readonly by: (store: DerivedStore) => string;
}

/** What a work that lays pipes led away once a storm ran through them; null for all others. */
export function pipedTold(id: string, telling: Telling): Piece[] | null {
  const { derived, system } = telling;
  const pipes = derived.conduits.filter((c) => c.work === id);
  if (pipes.length === 0) return null;
  const mend = derived.checks.find((c) => c.severity === 'mend' && c.on === id);
  return [
    ...carries(pipes, telling),
    ...stands(
      derived.stores.filter((s) => isOf(s, id)),
      telling,
    ),
    ...(mend ? [plain(' First mend: '), alarm(lowered(spoken(mend.said.title, system))), plain('.')] : []),
  ];
}

/** Pipes are in the order water passes them. */
function carries(pipes: readonly ConduitStorm[], { q, name }: Telling): Piece[] {
  const last = pipes[pipes.length - 1];
  const fullest = pipes.reduce((a, b) => (b.peakM3s / b.capacityM3s > a.peakM3s / a.capacityM3s ? b : a));
  const isShort = fullest.peakM3s > FULL * fullest.capacityM3s;
  return [
    plain(`${name} leads away up to `),
    strong(q(last.peakM3s, 'flow')),
    plain(' of the '),
    strong(q(last.capacityM3s, 'flow')),
    plain(' its end takes'),
    ...(isShort ? [plain('; '), alarm(`${fullest.name.replace(`${name}, `, '')} is full`)] : []),
    plain('.'),
  ];
}

/** How high water stands over the grate that has most, as usually found and at the worst. */
function stands(stores: readonly DerivedStore[], { q, name, by }: Telling): Piece[] {
  const over = (s: DerivedStore, levelM: number | null): number | null => (levelM === null || s.sillM === null ? null : levelM - s.sillM);
  const known = stores.flatMap((store) => {
    const worst = over(store, highestOf(store));
    return worst === null ? [] : [{ store, worst, found: over(store, store.peakLevelM) ?? worst }];
  });
  if (known.length === 0) return [];
  const { store, worst, found } = known.reduce((a, b) => (b.worst > a.worst ? b : a));
  // Of a hollow others stand in too its own part of the name is enough.
  const part = store.name.replace(`${name}, `, '');
  const where = stores.length > 1 ? ` of ${/^yard \d+/.exec(part)?.[0] ?? part}` : '';
  return [
    plain(' Water stands '),
    strong(q(Math.max(0, found), 'difference')),
    plain(` over the grate${where}, at the worst `),
    (worst > SHOE_M ? alarm : strong)(q(Math.max(0, worst), 'difference')),
    plain(`${by(store)}.`),
  ];
}
