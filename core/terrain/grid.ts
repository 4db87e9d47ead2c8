import type { Point } from '../geometry/index.ts';

/**
 * A terrain raster. `west` and `south` are the outer corner of the south-west cell, so cell (col, row) covers
 * west + col·cellM to west + (col+1)·cellM. Levels are stored as Float32 above `baseM`: at 100 m of relief that
 * keeps 0.01 mm. No data is NaN.
 */
export interface Grid {
  readonly ncols: number;
  readonly nrows: number;
  readonly cellM: number;
  readonly west: number;
  readonly south: number;
  readonly baseM: number;
  readonly z: Float32Array;
}

/** Largest raster accepted whole. */
export const MAX_CELLS = 16_000_000;

/** Largest cell accepted [m]: works of a few metres on coarser ground tell nothing. */
export const MAX_CELL_M = 1000;

/** No ground lies lower or higher, with room for local zeros [m]: what does is a mark for no data, or another unit. */
export const LEVEL_LOWEST_M = -500;
export const LEVEL_HIGHEST_M = 9000;

/** Neighbour steps, clockwise from east; even are cardinal, odd diagonal. Rows run down. */
export const STEP_COL = [1, 1, 0, -1, -1, -1, 0, 1] as const;
export const STEP_ROW = [0, 1, 1, 1, 0, -1, -1, -1] as const;

/** Builds a grid from levels in m (north first, NaN or null for no data). */
export function gridFromLevels(frame: Omit<Grid, 'z' | 'baseM'>, levels: ArrayLike<number | null>): Grid {
  let min = Infinity;
  for (let i = 0; i < levels.length; i++) {
    const v = levels[i];
    if (v !== null && v < min) min = v;
  }
  const baseM = Number.isFinite(min) ? Math.floor(min) : 0;
  const z = new Float32Array(levels.length);
  for (let i = 0; i < levels.length; i++) {
    const v = levels[i];
    z[i] = v === null ? NaN : v - baseM;
  }
  const { ncols, nrows, cellM, west, south } = frame;
  return { ncols, nrows, cellM, west, south, baseM, z };
}

/** A number for each cell of a grid. Written out: `Float32Array.from` with a function walks an iterator, and takes ten times as long. */
export function perCell({ z }: Pick<Grid, 'z'>, of: (cell: number) => number): Float32Array {
  const numbers = new Float32Array(z.length);
  for (let i = 0; i < numbers.length; i++) numbers[i] = of(i);
  return numbers;
}

/** Index of the cell a point lies in; -1 outside the grid. */
export function cellAt(grid: Grid, [x, y]: Point): number {
  const col = Math.floor((x - grid.west) / grid.cellM);
  const row = grid.nrows - 1 - Math.floor((y - grid.south) / grid.cellM);
  return col < 0 || row < 0 || col >= grid.ncols || row >= grid.nrows ? -1 : row * grid.ncols + col;
}

/** Centre of a cell. */
export function centreOf(grid: Grid, cell: number): Point {
  const col = cell % grid.ncols;
  const row = (cell - col) / grid.ncols;
  return [grid.west + (col + 0.5) * grid.cellM, grid.south + (grid.nrows - row - 0.5) * grid.cellM];
}

/** West, south, east and north edge [m]. */
export function extentOf(grid: Grid): [number, number, number, number] {
  return [grid.west, grid.south, grid.west + grid.ncols * grid.cellM, grid.south + grid.nrows * grid.cellM];
}

/** Marks cells on the border of the grid or beside no-data: water there may leave, or more may come from beyond. */
export function edgeCells({ ncols, nrows, z }: Grid): Uint8Array {
  const edge = new Uint8Array(z.length);
  edge.fill(1, 0, ncols).fill(1, z.length - ncols);
  for (let row = 1; row < nrows - 1; row++) {
    edge[row * ncols] = 1;
    edge[row * ncols + ncols - 1] = 1;
  }
  if (!z.includes(NaN)) return edge;
  for (let i = 0; i < z.length; i++) if (z[i] !== z[i]) markAround(edge, i, { ncols, nrows });
  return edge;
}

function markAround(edge: Uint8Array, i: number, { ncols, nrows }: { ncols: number; nrows: number }): void {
  const col = i % ncols;
  const row = (i - col) / ncols;
  for (let r = Math.max(0, row - 1); r <= Math.min(nrows - 1, row + 1); r++) {
    for (let c = Math.max(0, col - 1); c <= Math.min(ncols - 1, col + 1); c++) edge[r * ncols + c] = 1;
  }
}
