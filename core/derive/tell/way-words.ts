// Ways out, and by which water leaves first, in words.
import type { OutletRole } from '../../contract/index.ts';
import type { QuantityKind } from '../../units/index.ts';
import type { Derived, DerivedStore } from '../types.ts';
import { type Piece, alarm, plain, strong } from './pieces.ts';

/** What a way out is to the work that makes it: its name, and how water takes it. */
export const WAY_WORDS: Readonly<Record<OutletRole, { readonly name: string; readonly by: string }>> = {
  way: { name: 'crest', by: 'over its crest' },
  end: { name: 'end', by: 'over its end' },
  mouth: { name: 'mouth', by: 'out of its mouth' },
  pipe: { name: 'pipe', by: 'through its pipe' },
  road: { name: 'road', by: 'over its road' },
  crest: { name: 'crest', by: 'over its crest' },
  rim: { name: 'rim', by: 'over its rim' },
  bank: { name: 'bank', by: 'over its bank' },
  round: { name: 'side, round the wall', by: 'round its wall' },
  low: { name: 'low bank', by: 'over its low bank' },
  through: { name: 'through it', by: 'through it' },
  fuse: { name: 'fuse', by: 'over its fuse' },
  lift: { name: 'pump', by: 'by its pump' },
  past: { name: 'past its intake', by: 'past its intake' },
  down: { name: 'downpipes', by: 'down its pipes' },
  eaves: { name: 'eaves', by: 'over its eaves' },
  over: { name: 'overflow', by: 'by its overflow' },
  on: { name: 'grates and on over the ground', by: 'over its grates and on over the ground' },
};

/** Ways nobody made: where one is lowest, water leaves where it should not. */
const NOT_MEANT: ReadonlySet<OutletRole> = new Set(['low', 'round', 'bank', 'crest', 'rim', 'eaves']);
/** Levels nearer to each other than this are one [m]. */
const SAME_M = 1e-6;

/** At what level water leaves a store first, and by which way. */
export function leavesFirst(
  store: DerivedStore,
  on: { readonly outlets: Derived['outlets']; readonly name: string; readonly q: (value: number | null, kind: QuantityKind) => string },
): Piece[] {
  const { outlets, name, q } = on;
  const { sillM, wayOutM, crestM } = store;
  if (sillM === null)
    return [plain(`${name} `), alarm('has no sill'), plain(`: water would leave over the bank at ${q(wayOutM, 'level')}.`)];
  const first = [plain(`In ${name} water leaves first at `), strong(q(wayOutM, 'level'))];
  if (wayOutM >= sillM)
    return [...first, plain(', over its sill; the bank crest stands '), strong(`${q(crestM - sillM, 'difference')} above it`), plain('.')];
  const lowest = outlets.find((o) => o.store === store.id && Math.abs(o.levelM - wayOutM) < SAME_M);
  const under = `${q(sillM - wayOutM, 'difference')} below its sill`;
  const by = lowest ? `, ${WAY_WORDS[lowest.role].by}` : '';
  return [...first, plain(`${by}, `), !lowest || NOT_MEANT.has(lowest.role) ? alarm(under) : strong(under), plain('.')];
}
