// What techniques begin with: ground under what was drawn, and a first way out on natural ground.
import type { Begun, Land, Ref, StoreSeen, Traits, WorkBase } from '../contract/index.ts';
import { type Point, contains, evenlyAlong, lineLength, nearestOnLine } from '../geometry/index.ts';
import { levelAt } from '../terrain/index.ts';

/** Levels to the millimetre, as they are set out. */
export const mm = (m: number): number => Math.round(m * 1000) / 1000;

/** Ground along a line, from end to end, two metres apart at most; null where some of it is not known. */
export function groundUnder(line: readonly Point[], { grid }: Pick<Land, 'grid'>): number[] | null {
  const length = lineLength(line);
  const count = Math.max(8, Math.ceil(length / 2));
  const levels = evenlyAlong(line, count).map((at) => levelAt(grid, at));
  return levels.some((v) => Number.isNaN(v)) ? null : levels;
}

export const offTerrain = (what: string): Begun => ({
  ok: false,
  problem: { code: 'work.off-terrain', what: `part of ${what} lies off the terrain`, do: 'Draw it inside the terrain.' },
});

export const begun = (...works: [WorkBase, ...WorkBase[]]): Begun => ({ ok: true, works });

/** A work that lets out one store and goes with it. */
export const hostRef = ({ host }: { readonly host: string }): readonly Ref[] => [
  { role: 'host', id: host, path: 'host', whenGone: 'goes' },
];

/** A way out that is a guest of what stores. */
export const wayOutTraits = (wayOut: 'crest' | 'through', change: Partial<Traits> = {}): Traits => ({
  retains: 'none',
  canBlock: true,
  isConduit: false,
  canSilt: false,
  isCut: true,
  joinable: false,
  wayOut,
  ...change,
});

/** What every drawing of a way out is: a place along the work it lets out. */
export const ON_HOST = { what: 'on-host', least: 0, most: 1, hint: 'Click where it is to be along the work it lets out.' } as const;

/** Step a second way out stands above the first where the head on it is not known yet [m]. */
const LEAST_STEP_M = 0.05;
/** First way out under the crest [m]: common practice for a small wall. */
const UNDER_CREST_M = 0.6;

/** Level of the next way out: the first under the crest, others above the highest by the head on the first, 50 mm at the least. */
function nextSillM({ sillsM, crestM, peakLevelM }: StoreSeen): number {
  const [lowest] = sillsM;
  if (lowest === undefined) return mm(crestM - UNDER_CREST_M);
  const head = Math.max(LEAST_STEP_M, peakLevelM === null ? LEAST_STEP_M : peakLevelM - lowest);
  return mm(Math.min(crestM - LEAST_STEP_M, sillsM[sillsM.length - 1] + head));
}

/** Where along a store natural ground first stands at a level, beside the water so that the cut stays shallow; a quarter in from an end where it never does. */
function placeAt(store: StoreSeen, levelM: number): number {
  const length = lineLength(store.line);
  const count = Math.max(8, Math.ceil(length));
  const along = Array.from({ length: count + 1 }, (_, k) => (length * k) / count);
  const high = along.filter((atM) => store.groundAt(atM) >= levelM);
  // Ways out take turns at the ends: two at one place would go together.
  const fromEnd = store.guests.length % 2 === 0;
  const middle = length / 2;
  const side = high.filter((atM) => (fromEnd ? atM > middle : atM <= middle));
  const found = (side.length > 0 ? side : high).reduce<number | null>(
    (best, atM) => (best === null || Math.abs(atM - middle) < Math.abs(best - middle) ? atM : best),
    null,
  );
  return found ?? (fromEnd ? 0.75 : 0.25) * length;
}

export interface FirstWayOut {
  readonly id: string;
  readonly name: string;
  readonly host: string;
  readonly status: 'planned';
  readonly atM: number;
  readonly sillM: number;
}

/** The store whose water or line lies nearest to a place. */
export function storeNear(at: Point, stores: readonly StoreSeen[]): StoreSeen | null {
  let best: StoreSeen | null = null;
  let least = Infinity;
  for (const store of stores) {
    const d = store.rings.some((ring) => contains(ring, at)) ? 0 : nearestOnLine(at, store.line).distanceM;
    if (d < least) [best, least] = [store, d];
  }
  return best;
}

/** A way out of the store that was named, or that lies nearest to the place: where, and at what level it begins. */
export function beginWayOut(
  drawn: { readonly points: readonly Point[]; readonly host: string | null },
  land: Land,
  make: { readonly kind: string; readonly title: string; readonly work: (first: FirstWayOut) => WorkBase },
): Begun {
  const [at] = drawn.points;
  const store = drawn.host === null ? (at ? storeNear(at, land.stores) : null) : (land.stores.find((s) => s.id === drawn.host) ?? null);
  if (!store) {
    return {
      ok: false,
      problem: {
        code: 'work.host',
        what: drawn.host === null ? 'there is no store to let out' : `"${drawn.host}" stores no water`,
        field: 'host',
        do: 'Draw a swale or a pond first, or name one that stores water.',
      },
    };
  }
  const sillM = nextSillM(store);
  const atM = mm(at ? nearestOnLine(at, store.line).atM : placeAt(store, sillM));
  const count = store.guests.filter((g) => g.kind === make.kind).length;
  const name = count === 0 ? make.title : `${make.title} ${count + 1}`;
  return begun(make.work({ id: land.idFor(make.kind), name, host: store.id, status: 'planned', atM, sillM }));
}
