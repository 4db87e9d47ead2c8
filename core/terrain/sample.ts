import type { Line, Point } from '../geometry/index.ts';
import { distance, pointAlong } from '../geometry/index.ts';
import type { Grid } from './grid.ts';
import { cellAt } from './grid.ts';

/**
 * Level of the ground at a point [m], bilinear between cell centres, NaN outside or on no data. Along a line between
 * two neighbouring centres it is linear, so contours drawn by the contour kernel have exactly their level.
 */
export function levelAt(grid: Grid, point: Point): number {
  const { ncols, nrows, cellM, west, south, z, baseM } = grid;
  const cell = cellAt(grid, point);
  if (cell < 0) return NaN;
  const u = Math.min(ncols - 1, Math.max(0, (point[0] - west) / cellM - 0.5));
  const v = Math.min(nrows - 1, Math.max(0, nrows - 0.5 - (point[1] - south) / cellM));
  const col = Math.min(ncols - 2, Math.floor(u));
  const row = Math.min(nrows - 2, Math.floor(v));
  if (col < 0 || row < 0) return z[cell] + baseM;
  const [fu, fv] = [u - col, v - row];
  const i = row * ncols + col;
  const north = z[i] * (1 - fu) + z[i + 1] * fu;
  const southern = z[i + ncols] * (1 - fu) + z[i + ncols + 1] * fu;
  const level = north * (1 - fv) + southern * fv;
  return (Number.isNaN(level) ? z[cell] : level) + baseM;
}

/** Slope vector of the ground at a point [m/m, uphill], by central differences over `reachM`. */
export function gradientAt(grid: Grid, [x, y]: Point, reachM = grid.cellM): Point {
  const difference = (a: Point, b: Point): number => {
    const [up, down, here] = [levelAt(grid, a), levelAt(grid, b), levelAt(grid, [x, y])];
    if (!Number.isNaN(up - down)) return (up - down) / (2 * reachM);
    if (!Number.isNaN(up)) return (up - here) / reachM;
    return Number.isNaN(down) ? NaN : (here - down) / reachM;
  };
  return [difference([x + reachM, y], [x - reachM, y]), difference([x, y + reachM], [x, y - reachM])];
}

export interface ProfilePoint {
  readonly atM: number;
  readonly point: Point;
  readonly levelM: number;
}

/** A profile has no more places than this, however long its line. */
const MOST_PLACES = 20_000;

/** Ground levels along a line at even steps no longer than `stepM` (longer on very long lines), both ends included. */
export function profile(grid: Grid, line: Line, stepM: number): ProfilePoint[] {
  let length = 0;
  for (let i = 1; i < line.length; i++) length += distance(line[i - 1], line[i]);
  const count = Math.min(MOST_PLACES, Math.max(1, Math.ceil(length / stepM)));
  return Array.from({ length: count + 1 }, (_, i) => {
    const atM = (length * i) / count;
    const { point } = pointAlong(line, atM);
    return { atM, point, levelM: levelAt(grid, point) };
  });
}
