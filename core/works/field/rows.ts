// Rows along the contour over an area, from its highest ground down: what stone lines, half-moons and swales in a set begin with.
import { type Line, type Point, contains, lineLength, nearestOnLine, pointAlong, subLine } from '../../geometry/index.ts';
import { type Grid, centreOf, contourLines, levelAt } from '../../terrain/index.ts';

import { LEAST_LONG_M, inside } from './lines.ts';

export interface FieldRow {
  /** Downhill lies on its right. */
  readonly line: Line;
  readonly levelM: number;
  /** Mean fall across it [m/m]. */
  readonly slope: number;
}

/** Ground flatter than this has no contour to speak of [m/m]. */
const LEAST_SLOPE = 0.003;
const MOST_ROWS = 200;
/** Rows may lie as near to each other as their contours do, unless a least is said. */
const NO_LEAST_M = 0;
/** How many rows up a contour may come near one. */
const ABOVE_ROWS = 4;

/** Part of a grid about a ring, with some cells round it. */
function about(grid: Grid, ring: Line): Grid {
  const { ncols, nrows, cellM, west, south, z } = grid;
  const xs = ring.map((p) => p[0]);
  const ys = ring.map((p) => p[1]);
  const clamp = (v: number, most: number): number => Math.min(most, Math.max(0, v));
  const left = clamp(Math.floor((Math.min(...xs) - west) / cellM) - 3, ncols - 1);
  const right = clamp(Math.ceil((Math.max(...xs) - west) / cellM) + 3, ncols - 1);
  const low = clamp(Math.floor((Math.min(...ys) - south) / cellM) - 3, nrows - 1);
  const high = clamp(Math.ceil((Math.max(...ys) - south) / cellM) + 3, nrows - 1);
  const [width, height] = [right - left + 1, high - low + 1];
  const top = nrows - 1 - high;
  const part = new Float32Array(width * height);
  for (let row = 0; row < height; row++) part.set(z.subarray((top + row) * ncols + left, (top + row) * ncols + right + 1), row * width);
  return { ...grid, ncols: width, nrows: height, west: west + left * cellM, south: south + low * cellM, z: part };
}

/** Mean rise across a line from its left to its right, looked at a cell to both sides [m/m]; null where no side is known. */
export function riseAcross(line: Line, grid: Grid): number | null {
  const length = lineLength(line);
  const count = Math.max(2, Math.ceil(length / grid.cellM));
  const reach = Math.max(2, 1.5 * grid.cellM);
  const falls = Array.from({ length: count }, (_, k) => {
    const { point, direction } = pointAlong(line, (length * (k + 0.5)) / count);
    const [nx, ny] = [direction[1] * reach, -direction[0] * reach];
    return (levelAt(grid, [point[0] + nx, point[1] + ny]) - levelAt(grid, [point[0] - nx, point[1] - ny])) / (2 * reach);
  }).filter((v) => !Number.isNaN(v));
  if (falls.length === 0) return null;
  return falls.reduce((a, v) => a + v, 0) / falls.length;
}

/** Highest and lowest ground inside a ring; null where none is known. */
function levelsIn(ring: Line, grid: Grid): readonly [number, number] | null {
  let [lowest, highest] = [Infinity, -Infinity];
  for (let i = 0; i < grid.z.length; i++) {
    if (Number.isNaN(grid.z[i]) || !contains(ring, centreOf(grid, i))) continue;
    const level = grid.z[i] + grid.baseM;
    [lowest, highest] = [Math.min(lowest, level), Math.max(highest, level)];
  }
  return highest >= lowest ? [lowest, highest] : null;
}

const contourAt = (levelM: number, ring: Line, grid: Grid): Line[] => {
  const { xy, starts } = contourLines(grid, { firstM: levelM, intervalM: 1, count: 1 });
  return Array.from({ length: starts.length - 1 }, (_, k): Point[] =>
    Array.from({ length: starts[k + 1] - starts[k] }, (__, p): Point => [xy[2 * (starts[k] + p)], xy[2 * (starts[k] + p) + 1]]),
  )
    .filter((line) => line.length > 1 && lineLength(line) >= LEAST_LONG_M)
    .flatMap((line) => inside(line, ring));
};

/** Looks along a row, from one to the next [m]. */
const LOOK_M = 0.5;

/** Stretches of a line that stay so far from others. */
export function clearOf(line: Line, others: readonly Line[], leastM: number): Line[] {
  if (others.length === 0 || leastM <= 0) return [line];
  const length = lineLength(line);
  const count = Math.max(2, Math.ceil(length / LOOK_M));
  const isClear = Array.from({ length: count + 1 }, (_, k) => {
    const { point } = pointAlong(line, (length * k) / count);
    return others.every((other) => nearestOnLine(point, other).distanceM >= leastM);
  });
  const stretches: Line[] = [];
  for (let from = 0; from <= count; from++) {
    if (!isClear[from]) continue;
    let to = from;
    while (to < count && isClear[to + 1]) to++;
    if ((length * (to - from)) / count >= LEAST_LONG_M) stretches.push(subLine(line, (length * from) / count, (length * to) / count));
    from = to;
  }
  return stretches;
}

/**
 * Rows on the contour over an area, highest first, each as far below the one above as `apart` says for the slope there [m along the
 * ground]. Half a space of ground is left above the first; where contours come closer than `leastM` the lower row is left out.
 */
export function rowsOver(
  ring: Line,
  whole: Grid,
  { apart, leastM = NO_LEAST_M }: { readonly apart: (slope: number) => number; readonly leastM?: number },
): readonly FieldRow[] {
  const grid = about(whole, ring);
  const levels = levelsIn(ring, grid);
  if (!levels) return [];
  const [lowest, highest] = levels;
  const rows: FieldRow[] = [];
  let slope = LEAST_SLOPE;
  /** What lies along a level, with the mean fall across it. */
  const at = (levelM: number, above: readonly Line[]): readonly FieldRow[] =>
    contourAt(levelM, ring, grid)
      .flatMap((all) => clearOf(all, above, leastM))
      .flatMap((line): FieldRow[] => {
        const across = riseAcross(line, grid);
        return across === null || Math.abs(across) < LEAST_SLOPE
          ? []
          : [{ line: across > 0 ? [...line].reverse() : line, levelM, slope: Math.abs(across) }];
      });
  const mean = (found: readonly FieldRow[]): number => found.reduce((a, r) => a + r.slope, 0) / found.length;
  // The slope of the first is that of ground about a quarter down.
  const first = at(highest - (highest - lowest) / 4, []);
  if (first.length > 0) slope = mean(first);
  for (let level = highest - (apart(slope) * slope) / 2; level > lowest && rows.length < MOST_ROWS; level -= apart(slope) * slope) {
    const above = rows.filter((r) => r.levelM < level + ABOVE_ROWS * apart(slope) * slope).map((r) => r.line);
    const found = at(level, above);
    if (found.length > 0) slope = mean(found);
    rows.push(...found);
  }
  return rows.slice(0, MOST_ROWS);
}

/** The longest contour through the middle of what lies in a ring, downhill on its right; null where none is long enough. */
export function keyContour(ring: Line, whole: Grid): Line | null {
  const grid = about(whole, ring);
  const levels = levelsIn(ring, grid);
  if (!levels) return null;
  const found = contourAt((levels[0] + levels[1]) / 2, ring, grid);
  const line = found.reduce<Line | null>((best, l) => (best === null || lineLength(l) > lineLength(best) ? l : best), null);
  const across = line && riseAcross(line, grid);
  if (!line || across === null || Math.abs(across) < LEAST_SLOPE) return null;
  return across > 0 ? [...line].reverse() : line;
}
