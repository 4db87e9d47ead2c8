// Ground that is shaped: made level, sloped, filled, taken off, dished. Outside what is drawn a batter runs out to the ground that
// was there before.
import { type Line, type Point, closed, contains, evenlyAlong, lineLength, nearestOnLine, pointAlong } from '../geometry/index.ts';
import { type Grid, cellAt, centreOf } from './grid.ts';

interface InRing {
  readonly ring: Line;
  /** Slope of its batter, out per 1 up. */
  readonly batterHV: number;
}

/** level: made so · fill, cut: nowhere under it, or over it · plane: so high at a place, falling so much east and north · by: so much higher · dish: hollowed out along a line. */
export type Reshape =
  | (InRing & { readonly what: 'level' | 'fill' | 'cut'; readonly levelM: number })
  | (InRing & { readonly what: 'plane'; readonly at: Point; readonly levelM: number; readonly fall: Point })
  | (InRing & { readonly what: 'by'; readonly byM: number })
  | {
      readonly what: 'dish';
      readonly line: Line;
      readonly startM: number;
      readonly endM: number;
      readonly bedWidthM: number;
      readonly sideHV: number;
    };

/** Batters longer than this are no batters [m]. */
const LONGEST_M = 40;

type Ringed = Exclude<Reshape, { readonly what: 'dish' }>;
/** Ground at a place [m]; NaN where none is known. */
export type LevelAt = (at: Point) => number;

/** What the ground is to be at a place within a ring. */
function targetAt(shape: Ringed, at: Point, before: LevelAt): number {
  switch (shape.what) {
    case 'plane':
      return shape.levelM - (at[0] - shape.at[0]) * shape.fall[0] - (at[1] - shape.at[1]) * shape.fall[1];
    case 'by':
      return before(at) + shape.byM;
    case 'fill':
      return Math.max(before(at), shape.levelM);
    case 'cut':
      return Math.min(before(at), shape.levelM);
    case 'level':
      return shape.levelM;
  }
}

/** Ground between as steep as a batter may run up and down from the edge. */
function battered(shape: Ringed, groundM: number, on: { readonly edgeM: number; readonly awayM: number }): number {
  const drop = on.awayM / shape.batterHV;
  const [low, high] = [on.edgeM - drop, on.edgeM + drop];
  // What is only filled takes nothing off beside it, and what is only cut fills nothing.
  if (shape.what === 'fill') return Math.max(groundM, low);
  if (shape.what === 'cut') return Math.min(groundM, high);
  return Math.min(high, Math.max(low, groundM));
}

/** Rings as lines that return to their start: asked for at every place. */
const edges = new WeakMap<Line, Line>();
function edgeOf(ring: Line): Line {
  const known = edges.get(ring);
  if (known) return known;
  const made = closed(ring);
  edges.set(ring, made);
  return made;
}

function inRing(shape: Ringed, at: Point, before: LevelAt): number {
  if (contains(shape.ring, at)) return targetAt(shape, at, before);
  const groundM = before(at);
  const ring = edgeOf(shape.ring);
  const { atM, distanceM: awayM } = nearestOnLine(at, ring);
  if (awayM > LONGEST_M) return groundM;
  const isFlat = shape.what !== 'plane' && shape.what !== 'by';
  const edgeM = isFlat ? shape.levelM : targetAt(shape, pointAlong(ring, atM).point, before);
  return Number.isNaN(edgeM) ? groundM : battered(shape, groundM, { edgeM, awayM });
}

/** Ground at a place after it is shaped; the ground before where the shape does not reach. NaN where none is known. */
export function shapedAt(shape: Reshape, at: Point, before: LevelAt): number {
  const groundM = before(at);
  if (Number.isNaN(groundM)) return groundM;
  if (shape.what !== 'dish') return inRing(shape, at, before);
  const { atM, distanceM } = nearestOnLine(at, shape.line);
  const whole = lineLength(shape.line);
  const bedM = shape.startM + ((shape.endM - shape.startM) * atM) / whole;
  return Math.min(groundM, bedM + Math.max(0, distanceM - shape.bedWidthM / 2) / shape.sideHV);
}

/** Its edge is looked at in so many places. */
const EDGE = 64;

/** West, south, east and north of all a shape may reach on some ground. */
export function reachOf(shape: Reshape, before: LevelAt): readonly [number, number, number, number] {
  const points = shape.what === 'dish' ? shape.line : closed(shape.ring);
  const steepHV = shape.what === 'dish' ? shape.sideHV : shape.batterHV;
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const box = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const;
  // As far as the highest change along its edge asks for, with a share more: ground beside it may fall away.
  const edge = evenlyAlong(points, EDGE);
  const changes = edge.map((p) => {
    const level = before(p);
    if (Number.isNaN(level)) return 0;
    if (shape.what === 'dish') return level - Math.min(shape.startM, shape.endM);
    return Math.abs((shape.what === 'fill' || shape.what === 'cut' ? shape.levelM : targetAt(shape, p, before)) - level);
  });
  const beside = shape.what === 'dish' ? shape.bedWidthM / 2 : 0;
  const away = beside + Math.min(LONGEST_M, 1 + 3 * steepHV * Math.max(0, ...changes));
  return [box[0] - away, box[1] - away, box[2] + away, box[3] + away];
}

/** One shape laid on a grid, cell by cell. */
function laidOn(grid: Grid, shape: Reshape): Grid {
  const { ncols, nrows, cellM, west, south, baseM } = grid;
  const before: LevelAt = (at) => {
    const cell = cellAt(grid, at);
    return cell < 0 ? NaN : grid.z[cell] + baseM;
  };
  const [x0, y0, x1, y1] = reachOf(shape, before);
  const z = Float32Array.from(grid.z);
  const [left, right] = [Math.max(0, Math.floor((x0 - west) / cellM)), Math.min(ncols - 1, Math.floor((x1 - west) / cellM))];
  // Rows run down from the north.
  const top = south + nrows * cellM;
  const [first, last] = [Math.max(0, Math.floor((top - y1) / cellM)), Math.min(nrows - 1, Math.floor((top - y0) / cellM))];
  for (let row = first; row <= last; row++)
    for (let col = left; col <= right; col++) {
      const cell = row * ncols + col;
      if (!Number.isNaN(z[cell])) z[cell] = shapedAt(shape, centreOf(grid, cell), before) - baseM;
    }
  return { ...grid, z };
}

/** A grid with shapes laid on it, one after the other; the grid itself where there are none. */
export const reshaped = (grid: Grid, shapes: readonly Reshape[]): Grid => shapes.reduce(laidOn, grid);

/** Earth moved by one shape on some ground [m3], over which areas [m2], and how deep at most [m]. */
export interface Moved {
  readonly cutM3: number;
  readonly fillM3: number;
  readonly cutM2: number;
  readonly fillM2: number;
  readonly deepestCutM: number;
  readonly highestFillM: number;
}

/** Sampled so many times across its reach: finer than cells, which small shapes have few of. */
const SAMPLES = 100;
/** Less is no change [m]. */
const NOTHING_M = 1e-4;

/** Sums what is cut and filled on a fine raster over all a shape reaches. */
export function movedBy(shape: Reshape, before: LevelAt): Moved {
  const [x0, y0, x1, y1] = reachOf(shape, before);
  const [dx, dy] = [(x1 - x0) / SAMPLES, (y1 - y0) / SAMPLES];
  const each = dx * dy;
  let [cutM3, fillM3, cutM2, fillM2, deepestCutM, highestFillM] = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < SAMPLES; i++)
    for (let k = 0; k < SAMPLES; k++) {
      const at: Point = [x0 + (i + 0.5) * dx, y0 + (k + 0.5) * dy];
      const change = shapedAt(shape, at, before) - before(at);
      if (change > NOTHING_M) {
        fillM3 += change * each;
        fillM2 += each;
        highestFillM = Math.max(highestFillM, change);
      } else if (change < -NOTHING_M) {
        cutM3 -= change * each;
        cutM2 += each;
        deepestCutM = Math.max(deepestCutM, -change);
      }
    }
  return { cutM3, fillM3, cutM2, fillM2, deepestCutM, highestFillM };
}
