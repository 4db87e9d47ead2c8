// The bed of the channel along the line, and the channel across it as the terrain shows it.
import type { Begun, Channel, Site } from '../contract/index.ts';
import { type Line, type Point, evenlyAlong, lineLength, nearestOnLine, pointAlong } from '../geometry/index.ts';
import { type Grid, levelAt } from '../terrain/index.ts';
import { amount, say } from '../units/index.ts';
import { carryOver } from './lip.ts';

/** The bed at even stations, from the upper end. */
export interface Bed {
  readonly lengthM: number;
  readonly stepM: number;
  readonly points: readonly Point[];
  readonly bedM: Float64Array;
}

const MOST_STATIONS = 600;

/** Measures the ground along the line. @throws UnknownGround where nothing is known of it. */
export function measureBed(line: Line, { grid }: Pick<Site, 'grid'>): Bed {
  const lengthM = lineLength(line);
  const count = Math.min(MOST_STATIONS, Math.max(4, Math.ceil(lengthM / Math.max(0.5, grid.cellM / 2))));
  const stepM = lengthM / count;
  const points = evenlyAlong(line, count);
  const bedM = Float64Array.from(points, (p) => levelAt(grid, p));
  carryOver(bedM, 'No level is known under it');
  return { lengthM, stepM, points, bedM };
}

/** The bed at a distance along it, straight between stations. */
export function bedAt({ bedM, stepM }: Bed, atM: number): number {
  const place = Math.min(bedM.length - 1, Math.max(0, atM / stepM));
  const i = Math.min(bedM.length - 2, Math.floor(place));
  return bedM[i] + (bedM[i + 1] - bedM[i]) * (place - i);
}

/** A bed so much lower. */
export const lowered = (bed: Bed, byM: number): Bed => (byM === 0 ? bed : { ...bed, bedM: bed.bedM.map((v) => v - byM) });

/** As far beside a measured channel something still stands in it [m]. */
export const IN_CHANNEL_M = 3;

/** Where a place lies along a measured channel; null where it is not in it. */
export function placeIn({ line, fromM, toM }: Channel, at: Point): number | null {
  const { atM, distanceM } = nearestOnLine(at, line);
  return distanceM <= IN_CHANNEL_M && atM >= fromM - APART_M && atM <= toM + APART_M ? atM : null;
}
/** Less than this is one place [m]. */
const APART_M = 0.05;

/** A bed as it was measured in a channel; beside it and past its ends as the terrain has it. */
export function bedIn(channel: Channel, bed: Bed): Bed {
  const at = bed.points.map((p) => placeIn(channel, p));
  return { ...bed, bedM: bed.bedM.map((level, k) => (at[k] === null ? level : channel.bedAt(at[k]))) };
}

/** Mean fall along a stretch [m/m]. */
export const fallBetween = (bed: Bed, [fromM, toM]: readonly [number, number]): number =>
  (bedAt(bed, fromM) - bedAt(bed, toM)) / Math.max(1e-9, toM - fromM);

/** How much a bed rises from its lowest on the way down, and where [m]. */
export function riseOf(bed: Bed): { readonly riseM: number; readonly atM: number } {
  let [low, riseM, atM] = [bed.bedM[0], 0, 0];
  bed.bedM.forEach((level, i) => {
    low = Math.min(low, level);
    if (level - low > riseM) [riseM, atM] = [level - low, i * bed.stepM];
  });
  return { riseM, atM };
}

/** A bed that rises by more than this from its upper end on is no channel drawn from above, nor one that falls by less [m]. */
const [RISES_M, FALLS_M] = [0.5, 0.1];

/** Why nothing begins on a bed as it was drawn; null where it falls as a channel does. */
export function fallsOn(bed: Bed, code: string): Begun | null {
  const { riseM, atM } = riseOf(bed);
  if (riseM <= RISES_M && bed.bedM[0] - bed.bedM[bed.bedM.length - 1] >= FALLS_M) return null;
  return {
    ok: false,
    problem: {
      code,
      what: say`the bed as drawn rises by ${amount(riseM, 'length')} on its way down, at ${amount(atM, 'distance')}`,
      field: 'line',
      do: 'Draw it along the lowest of the channel, from its upper to its lower end.',
    },
  };
}

export interface Across {
  readonly bedWidthM: number;
  readonly bankWidthM: number;
  readonly depthM: number;
}

/** How far to each side the channel is looked for, and between which looks [m]. */
const [REACH_M, LOOK_M] = [12, 0.25];
/** As much over the lowest is still bed, and as much rise in a metre is bank [m]. */
const [FLAT_M, BANK_SLOPE] = [0.1, 0.08];

/** Rise over the bed by distance to one side, as far as it goes on rising. */
function bank(grid: Grid, at: Point, side: Point): readonly [awayM: number, riseM: number][] {
  const floor = levelAt(grid, at);
  const found: [number, number][] = [[0, 0]];
  for (let away = LOOK_M; away <= REACH_M; away += LOOK_M) {
    const level = levelAt(grid, [at[0] + side[0] * away, at[1] + side[1] * away]);
    if (Number.isNaN(level)) break;
    const rise = level - floor;
    const [, before] = found[Math.max(0, found.length - Math.round(1 / LOOK_M))];
    // Where it has risen and no longer does, its bank has ended.
    if (rise > FLAT_M && rise - before < BANK_SLOPE) break;
    found.push([away, Math.max(found[found.length - 1][1], rise)]);
  }
  return found;
}

const awayAt = (found: readonly (readonly [number, number])[], riseM: number): number =>
  found.find(([, rise]) => rise >= riseM)?.[0] ?? found[found.length - 1][0];

/** The channel across a place as the terrain shows it: no finer than its cells are. */
export function acrossAt(grid: Grid, line: Line, atM: number): Across {
  const { point, direction } = pointAlong(line, atM);
  const [left, right] = [bank(grid, point, [-direction[1], direction[0]]), bank(grid, point, [direction[1], -direction[0]])];
  const depth = Math.min(left[left.length - 1][1], right[right.length - 1][1]);
  const depthM = Math.max(0.1, depth);
  const width = (rise: number): number => awayAt(left, rise) + awayAt(right, rise);
  const bedWidthM = Math.max(0.5, width(Math.min(FLAT_M, depthM)));
  return { bedWidthM, bankWidthM: Math.max(bedWidthM, width(depthM)), depthM };
}

/** How far to each side of a line drawn by hand its bed is looked for, and how much lower a metre further off must be to be it [m]. */
const [SNAP_M, SNAP_SLOPE] = [6, 0.02];
/** Places are looked at so far apart at the least [m]. */
const SNAP_STEP_M = 2;

/** A line drawn roughly down a channel, brought onto the lowest ground across it; bends that would run back on themselves are left out. */
export function ontoBed(grid: Grid, drawn: Line): Line {
  const length = lineLength(drawn);
  const count = Math.max(2, Math.round(length / Math.max(SNAP_STEP_M, grid.cellM)));
  const found = Array.from({ length: count + 1 }, (_, k): Point => {
    const { point, direction } = pointAlong(drawn, (length * k) / count);
    let [best, least] = [point, Infinity];
    for (let off = -SNAP_M; off <= SNAP_M; off += LOOK_M) {
      const at: Point = [point[0] - direction[1] * off, point[1] + direction[0] * off];
      const level = levelAt(grid, at) + SNAP_SLOPE * Math.abs(off);
      if (level < least) [best, least] = [at, level];
    }
    return best;
  });
  return found.filter((at, k) => {
    if (k === 0 || k === count) return true;
    const [a, b] = [found[k - 1], found[k + 1]];
    return (at[0] - a[0]) * (b[0] - at[0]) + (at[1] - a[1]) * (b[1] - at[1]) > 0;
  });
}
