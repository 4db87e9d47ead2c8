// What happens along a line: how much runs onto each metre of it, and how far it is from level.
import { type Line, type Point, lineLength, nearestOnLine, pointAlong } from '../geometry/index.ts';
import { type Flow, receiverOf } from './kernels/flow.ts';
import { type Grid, centreOf } from './grid.ts';
import { profile } from './sample.ts';

/** A piece of a line with the area whose water first meets it there. */
export interface Stretch {
  readonly fromM: number;
  readonly toM: number;
  readonly areaM2: number;
}

export interface RunOn {
  readonly areaM2: number;
  readonly stretches: readonly Stretch[];
  /** Share of the line that gets less than a quarter of the mean [0..1]. */
  readonly starvedShare: number;
  /** Share of all water that comes onto the tenth of the line that gets most [0..1]. */
  readonly tenthShare: number;
  /** Whether it is fed evenly: common practice, less than a quarter starved and no tenth that takes half. */
  readonly isEven: boolean;
}

/**
 * Area by the cell of a set it first enters [cells]: one pass from high to low. The set's own cells count for themselves;
 * with `counted`, only cells marked there count at all.
 */
export function entering(flow: Flow, isOwn: (cell: number) => boolean, counted?: Uint8Array): Map<number, number> {
  const { order } = flow;
  const carried = new Int32Array(flow.cells.length);
  const entered = new Map<number, number>();
  for (let k = 0; k < order.length; k++) {
    const i = order[k];
    if (!counted || counted[i] === 1) carried[i] += 1;
    if (isOwn(i)) {
      entered.set(i, (entered.get(i) ?? 0) + carried[i]);
      continue;
    }
    const next = receiverOf(flow, i);
    if (next >= 0) carried[next] += carried[i];
  }
  return entered;
}

/** How a line is fed along its length, in pieces of about `stepM`. `owner` marks the line's cells with `own`. */
export function runOnto(grid: Grid, flow: Flow, on: { line: Line; owner: Int16Array; own: number; stepM: number }): RunOn {
  const { line, owner, own, stepM } = on;
  const lengthM = lineLength(line);
  const count = Math.max(1, Math.round(lengthM / stepM));
  const areas = new Float64Array(count);
  // Water that another line meets first never comes here.
  for (const [cell, cells] of entering(flow, (i) => owner[i] !== 0)) {
    if (owner[cell] !== own) continue;
    const { atM } = nearestOnLine(centreOf(grid, cell), line);
    areas[Math.min(count - 1, Math.floor((atM / lengthM) * count))] += cells * grid.cellM ** 2;
  }
  const areaM2 = areas.reduce((a, v) => a + v, 0);
  const mean = areaM2 / count;
  const starvedShare = areas.filter((v) => v < mean / 4).length / count;
  const top = [...areas].sort((a, b) => b - a).slice(0, Math.max(1, Math.round(count / 10)));
  const tenthShare = areaM2 > 0 ? top.reduce((a, v) => a + v, 0) / areaM2 : 0;
  return {
    areaM2,
    stretches: Array.from(areas, (v, k) => ({ fromM: (k * lengthM) / count, toM: ((k + 1) * lengthM) / count, areaM2: v })),
    starvedShare,
    tenthShare,
    isEven: starvedShare < 0.25 && tenthShare < 0.5,
  };
}

/** How far a line that should lie on contour is from level. */
export interface Departure {
  readonly meanM: number;
  readonly atM: Float64Array;
  /** Height above the mean [m]; NaN off the ground. */
  readonly offM: Float64Array;
  readonly highest: { readonly atM: number; readonly offM: number; readonly at: Point };
  /** Low places along it, lowest first: where water standing along the line will gather and go over. */
  readonly lows: readonly { readonly atM: number; readonly offM: number; readonly at: Point }[];
  /** Difference between the highest and the lowest place [m]. */
  readonly rangeM: number;
}

/** Departure of a line from its own mean level, every `stepM`; null when less than two places of it lie on the ground. */
export function departureOf(grid: Grid, line: Line, stepM: number): Departure | null {
  const points = profile(grid, line, stepM);
  const known = points.filter((p) => !Number.isNaN(p.levelM));
  if (known.length < 2) return null;
  const meanM = known.reduce((sum, p) => sum + p.levelM, 0) / known.length;
  const place = (p: (typeof points)[number]): { atM: number; offM: number; at: Point } => ({
    atM: p.atM,
    offM: p.levelM - meanM,
    at: pointAlong(line, p.atM).point,
  });
  // A low counts when it lies at least a centimetre under what is between it and the next low.
  const lows = lowPlaces(known.map((p) => p.levelM)).map((k) => place(known[k]));
  const highest = known.reduce((a, p) => (p.levelM > a.levelM ? p : a));
  const lowest = Math.min(...known.map((p) => p.levelM));
  return {
    meanM,
    atM: Float64Array.from(points, (p) => p.atM),
    offM: Float64Array.from(points, (p) => p.levelM - meanM),
    highest: place(highest),
    lows: lows.sort((a, b) => a.offM - b.offM),
    rangeM: highest.levelM - lowest,
  };
}

/** Rise that parts one low place from the next [m]. */
const APART_M = 0.01;

/** Indices of local minima that a rise of at least APART_M parts from each other; an end of the line may be one. */
function lowPlaces(levels: readonly number[]): number[] {
  const lows: number[] = [];
  let low = 0;
  let high = 0;
  let isSeekingLow = true;
  for (let k = 1; k < levels.length; k++) {
    if (isSeekingLow) {
      if (levels[k] < levels[low]) low = k;
      else if (levels[k] - levels[low] >= APART_M) {
        lows.push(low);
        isSeekingLow = false;
        high = k;
      }
    } else if (levels[k] > levels[high]) high = k;
    else if (levels[high] - levels[k] >= APART_M) {
      isSeekingLow = true;
      low = k;
    }
  }
  return isSeekingLow ? [...lows, low] : lows;
}
