// How near ways of water come to what is drawn: found once for each way and each thing, since both are only ever replaced.
import type { Feature, LinkFlow } from '../contract/index.ts';
import { type Line, type Point, distance, distanceToRing, nearestOnLine } from '../geometry/index.ts';

type Path = LinkFlow['path'];

/** What is found of a way and a thing, kept as long as both are. */
function kept<T extends object, R>(find: (path: Path, thing: T) => R): (path: Path, thing: T) => R {
  const byPath = new WeakMap<Path, WeakMap<T, { readonly found: R }>>();
  return (path, thing) => {
    const byThing = byPath.get(path) ?? new WeakMap<T, { readonly found: R }>();
    byPath.set(path, byThing);
    const known = byThing.get(thing) ?? { found: find(path, thing) };
    byThing.set(thing, known);
    return known.found;
  };
}

/** How far a place is from a feature [m]; infinitely from one without a shape. */
export function awayFrom({ ring, line, at }: Feature, from: Point): number {
  if (ring) return distanceToRing(ring, from);
  if (line) return nearestOnLine(from, line).distanceM;
  return at ? distance(at, from) : Infinity;
}

/** A place of a way, and how far it is from something [m]. */
export interface OnWay {
  readonly distanceM: number;
  readonly at: Point;
}

/** The nearest of several places, the first where two are as near; null of none. */
export const nearestOf = (places: readonly OnWay[]): OnWay | null =>
  places.reduce<OnWay | null>((a, b) => (a === null || b.distanceM < a.distanceM ? b : a), null);

/** Nearest place of a way to a feature; null where either has no shape. */
export const nearestOnWay = kept((path: Path, feature: Feature): OnWay | null => {
  let best: OnWay | null = null;
  for (const [x, y] of path) {
    const d = awayFrom(feature, [x, y]);
    if (d < (best?.distanceM ?? Infinity)) best = { distanceM: d, at: [x, y] };
  }
  return best;
});

/** How far below a wall people are looked for, and how near the water's way [m]: common practice, no flood study. */
export const [BELOW_M, BESIDE_M] = [600, 40];

/** The first place of a way that passes a ring so near, and how far below its beginning that is [m]; null where none does. */
export const firstBeside = kept((path: Path, ring: Line): OnWay | null => {
  const [start] = path;
  for (const [x, y] of path) {
    const distanceM = Math.hypot(x - start[0], y - start[1]);
    if (distanceM > BELOW_M) break;
    if (distanceToRing(ring, [x, y]) < BESIDE_M) return { distanceM, at: [x, y] };
  }
  return null;
});
