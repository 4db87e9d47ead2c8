// What was there, what there will be, and what lies near.
import type { StormFacts } from '../../contract/index.ts';
import { type Line, type Point, closed, contains, evenlyAlong, lineLength, middleOf, signedArea } from '../../geometry/index.ts';
import { type Grid, type Moved, type PoolGround, levelAt, movedBy, poolAt, cellAt, reachOf, shapedAt } from '../../terrain/index.ts';
import { type Regrade, drawnOf, isDish, reshapesOf } from './model.ts';

/** What measuring finds: by the ground as surveyed, and as all works leave it. */
export interface RegradeGround {
  readonly surveyed: Grid;
  readonly finished: Grid;
  readonly moved: Moved;
  /** The deepest hollow left where it was shaped; null where nothing stands. */
  readonly pool: PoolGround | null;
}

export interface RegradeFacts extends StormFacts {
  readonly work: Regrade;
  readonly ground: RegradeGround;
}

/** Hollows are looked for at so many places each way. */
const LOOKS = 7;

/** The hollow that stands deepest of those met at places all over it, on the finished ground. */
function deepestPool(work: Regrade, finished: Grid): PoolGround | null {
  const drawn = drawnOf(work);
  const along = isDish(work) ? evenlyAlong(drawn, LOOKS ** 2 - 1) : placesIn(drawn);
  let best: PoolGround | null = null;
  const seen = new Set<number>();
  for (const at of along) {
    // What lies in a hollow that was found is no other.
    if (seen.has(cellAt(finished, at))) continue;
    const pool = poolAt(finished, at);
    for (const cell of pool?.cells ?? []) seen.add(cell);
    if (pool && (best === null || pool.spillM - pool.lowM > best.spillM - best.lowM)) best = pool;
  }
  return best;
}

/** Places evenly over a ring. */
export function placesIn(ring: Line): Point[] {
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)];
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const [dx, dy] = [(Math.max(...xs) - x0) / LOOKS, (Math.max(...ys) - y0) / LOOKS];
  const all = Array.from({ length: LOOKS ** 2 }, (_, k): Point => [x0 + ((k % LOOKS) + 0.5) * dx, y0 + (Math.floor(k / LOOKS) + 0.5) * dy]);
  return all.filter((p) => contains(ring, p));
} // prettier-ignore

/** Ground before it is shaped: as surveyed. */
export const beforeAt = ({ surveyed }: Pick<RegradeGround, 'surveyed'>, at: Point): number => levelAt(surveyed, at);

/** Ground after, by this work alone, at the place itself: finer than cells are. */
export const afterAt = (work: Regrade, { surveyed }: Pick<RegradeGround, 'surveyed'>, at: Point): number =>
  reshapesOf(work).reduce((_, shape) => shapedAt(shape, at, (p) => levelAt(surveyed, p)), levelAt(surveyed, at));

export function measureRegrade(work: Regrade, { grid, surveyed = grid }: { readonly grid: Grid; readonly surveyed?: Grid }): RegradeGround {
  const [shape] = reshapesOf(work);
  return { surveyed, finished: grid, moved: movedBy(shape, (p) => levelAt(surveyed, p)), pool: deepestPool(work, grid) };
}

/** Area that is shaped, its batters left out; of a dish as wide as it is cut [m2]. */
export const areaOf = (work: Regrade, { moved }: Pick<RegradeGround, 'moved'>): number =>
  isDish(work) ? moved.cutM2 : Math.abs(signedArea(work.ring ?? []));

/** Narrowest it is, roughly [m]: of a ring its area by half its edge, of a dish from lip to lip. */
export function narrowestM(work: Regrade, ground: RegradeGround): number {
  const drawn = drawnOf(work);
  return isDish(work)
    ? ground.moved.cutM2 / Math.max(0.1, lineLength(drawn))
    : (2 * areaOf(work, ground)) / Math.max(0.1, lineLength(drawn));
}

/** A line through it along which it is told: of a dish its bed, else from its first corner through its middle and past it. */
export function throughIt(work: Regrade, { surveyed }: RegradeGround): Line {
  if (isDish(work)) return drawnOf(work);
  const ring = work.ring ?? [];
  const [a, m] = [ring[0], middleOf(ring)];
  const [x0, y0, x1, y1] = reachOf(reshapesOf(work)[0], (p) => levelAt(surveyed, p));
  const length = Math.hypot(m[0] - a[0], m[1] - a[1]) || 1;
  const reach = Math.hypot(x1 - x0, y1 - y0) / 2;
  const [ux, uy] = [(m[0] - a[0]) / length, (m[1] - a[1]) / length];
  return [[m[0] - ux * reach, m[1] - uy * reach], [m[0] + ux * reach, m[1] + uy * reach]];
} // prettier-ignore

/** Edge of all that changes: its outline, and the batters by it. */
export const edgeOf = (work: Regrade): Line => (isDish(work) ? drawnOf(work) : closed(work.ring ?? []));
