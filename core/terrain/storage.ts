// Level, area and volume of the water a wall line would hold back.
import { type Line, lineLength, nearestOnLine } from '../geometry/index.ts';
import { fillDepressions } from './kernels/fill.ts';
import { flowOf } from './kernels/flow.ts';
import { contourLines } from './kernels/contour.ts';
import { type Grid, STEP_COL, STEP_ROW, centreOf } from './grid.ts';
import { withEdits } from './edits.ts';
import { type Hollow, hollowsOf } from './hollows.ts';
import { cellsUnder } from './intercept.ts';
import { profile } from './sample.ts';

export interface WaterAt {
  readonly levelM: number;
  readonly areaM2: number;
  readonly volumeM3: number;
  /** Furthest water from the wall [m]; from the deepest place where there is no wall. */
  readonly throwbackM: number;
  /** Length of the water's edge on the ground, the wall left out [m]. */
  readonly shorelineM: number;
}

export interface WallStorage {
  /** Highest level the line can hold before water goes round it [m]. */
  readonly fullM: number;
  /** Level asked for, or the highest it can hold when that is lower or none was asked for. */
  readonly at: WaterAt;
  readonly stage: readonly WaterAt[];
  readonly wall: WallSize;
  /** Outline cells of the water at the level, for drawing. */
  readonly cells: readonly number[];
}

export interface WallSize {
  /** Length of wall that stands in or above ground lower than its crest [m]. */
  readonly lengthM: number;
  readonly highestM: number;
  readonly earthM3: number;
}

/** An earth wall of common practice: crest 2.5 m wide for a machine, 3 to 1 towards the water and 2 to 1 behind. */
const CREST_WIDTH_M = 2.5;
const SIDES_HV = 5;
/** Crest above the water [m]: the farm habit, common practice. */
const WALL_FREEBOARD_M = 1;
/** Height at which a wall cannot be passed in the search for what it could hold [m]. */
const UNPASSABLE_M = 1000;
const STAGES = 12;

/** Earth in a wall along a line with its crest at a level, section by section: w·h + (sum of sides)·h²/2. */
export function wallSize(grid: Grid, line: Line, crestM: number): WallSize {
  const stepM = Math.max(0.25, Math.min(grid.cellM / 2, lineLength(line) / 20));
  const points = profile(grid, line, stepM);
  const piece = lineLength(line) / Math.max(1, points.length - 1);
  let [lengthM, highestM, earthM3] = [0, 0, 0];
  points.forEach(({ levelM }, k) => {
    const h = Math.max(0, crestM - levelM);
    if (!(h > 0)) return;
    const share = (k === 0 || k === points.length - 1 ? 0.5 : 1) * piece;
    lengthM += share;
    highestM = Math.max(highestM, h);
    earthM3 += share * (CREST_WIDTH_M * h + (SIDES_HV * h * h) / 2);
  });
  return { lengthM, highestM, earthM3 };
}

/** Water in a hollow at a level no higher than its spill. */
export function waterIn(grid: Grid, hollow: Hollow, on: { levelM: number; wall?: Line }): WaterAt {
  const level = on.levelM - grid.baseM;
  const wet = hollow.cells.filter((i) => grid.z[i] < level);
  const { cellM } = grid;
  let depth = 0;
  let far = 0;
  for (const i of wet) {
    depth += level - grid.z[i];
    const at = centreOf(grid, i);
    far = Math.max(far, on.wall ? nearestOnLine(at, on.wall).distanceM : Math.hypot(at[0] - hollow.at[0], at[1] - hollow.at[1]));
  }
  return {
    levelM: on.levelM,
    areaM2: wet.length * cellM ** 2,
    volumeM3: depth * cellM ** 2,
    throwbackM: wet.length === 0 ? 0 : far + cellM / 2,
    shorelineM: shoreline(grid, wet, on),
  };
}

/** Length of the contour at the water's level round its cells; cells under the wall are no shore. */
function shoreline(grid: Grid, wet: readonly number[], { levelM, wall }: { levelM: number; wall?: Line }): number {
  const { ncols, nrows } = grid;
  if (wet.length === 0) return 0;
  // Only the water and one ring of ground around it, in a window of their own.
  let [left, right, top, bottom] = [ncols, 0, nrows, 0];
  for (const i of wet) {
    const col = i % ncols;
    const row = (i - col) / ncols;
    [left, right, top, bottom] = [Math.min(left, col), Math.max(right, col), Math.min(top, row), Math.max(bottom, row)];
  }
  [left, right, top, bottom] = [
    Math.max(0, left - 1),
    Math.min(ncols - 1, right + 1),
    Math.max(0, top - 1),
    Math.min(nrows - 1, bottom + 1),
  ];
  const [width, height] = [right - left + 1, bottom - top + 1];
  const z = new Float32Array(width * height).fill(NaN);
  const put = (col: number, row: number): void => {
    if (col >= left && col <= right && row >= top && row <= bottom) z[(row - top) * width + col - left] = grid.z[row * ncols + col];
  };
  for (const i of wet) {
    const col = i % ncols;
    const row = (i - col) / ncols;
    put(col, row);
    for (let d = 0; d < 8; d++) put(col + STEP_COL[d], row + STEP_ROW[d]);
  }
  for (const i of wall ? cellsUnder(grid, wall) : []) {
    const col = i % ncols;
    const row = (i - col) / ncols;
    if (col >= left && col <= right && row >= top && row <= bottom) z[(row - top) * width + col - left] = NaN;
  }
  const south = grid.south + (nrows - 1 - bottom) * grid.cellM;
  const window: Grid = { ...grid, ncols: width, nrows: height, west: grid.west + left * grid.cellM, south, z };
  const { xy, starts } = contourLines(window, { firstM: levelM, intervalM: 1, count: 1 });
  let total = 0;
  for (let k = 0; k + 1 < starts.length; k++) {
    for (let p = starts[k] + 1; p < starts[k + 1]; p++) total += Math.hypot(xy[2 * p] - xy[2 * p - 2], xy[2 * p + 1] - xy[2 * p - 1]);
  }
  return total;
}

/** Stage table of a hollow, from its bottom to a level. */
export function stageIn(grid: Grid, hollow: Hollow, on: { toM: number; wall?: Line }): WaterAt[] {
  return Array.from({ length: STAGES + 1 }, (_, k) =>
    waterIn(grid, hollow, { ...on, levelM: hollow.bottomM + ((on.toM - hollow.bottomM) * k) / STAGES }),
  );
}

/** The hollow a wall along a line would make, up to where water goes round its ends; null where it closes the ground nowhere. */
export function basinBehind(
  grid: Grid,
  line: Line,
): { readonly cells: readonly number[]; readonly fullM: number; readonly hollow: Hollow } | null {
  const own = cellsUnder(grid, line);
  const walled = withEdits(grid, [{ line, heightM: UNPASSABLE_M }]);
  const filled = fillDepressions(walled);
  const beside = new Set<number>();
  for (const i of own) for (let d = 0; d < 8; d++) beside.add(i + STEP_ROW[d] * grid.ncols + STEP_COL[d]);
  const [held] = hollowsOf(walled, filled, flowOf(walled, filled))
    .filter((h) => h.cells.some((i) => beside.has(i)) && h.spillM < grid.baseM + UNPASSABLE_M)
    .sort((a, b) => b.volumeM3 - a.volumeM3);
  return held ? { cells: held.cells, fullM: held.spillM, hollow: held } : null;
}

/**
 * What a wall along a line would hold back, up to a level (or up to where water goes round its ends). Null when nothing
 * gathers behind it: it does not close the ground anywhere.
 */
export function storageBehind(grid: Grid, line: Line, levelM?: number): WallStorage | null {
  const basin = basinBehind(grid, line);
  if (!basin) return null;
  const { fullM, hollow: held } = basin;
  const wanted = Math.min(levelM ?? fullM, fullM);
  return {
    fullM,
    at: waterIn(grid, held, { levelM: wanted, wall: line }),
    stage: stageIn(grid, held, { toM: wanted, wall: line }),
    wall: wallSize(grid, line, wanted + WALL_FREEBOARD_M),
    cells: held.cells.filter((i) => grid.z[i] < wanted - grid.baseM),
  };
}
