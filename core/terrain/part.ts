// Cells of a picture of levels in whatever unit it has, and a part of them.
import { MAX_CELLS } from './grid.ts';

/** Cells as they lie: the middle of the first column and of the first row, which is the northernmost, and how wide and high they are. */
export interface Cells {
  readonly ncols: number;
  readonly nrows: number;
  readonly x0: number;
  readonly y0: number;
  readonly dx: number;
  readonly dy: number;
}

/** A part of a picture, in the coordinates of its cells. */
export interface Part {
  readonly west: number;
  readonly south: number;
  readonly east: number;
  readonly north: number;
}

/** What cells cover, to their outer edges. */
export const extentOfCells = ({ ncols, nrows, x0, y0, dx, dy }: Cells): Part => ({
  west: x0 - dx / 2,
  south: y0 + dy / 2 - nrows * dy,
  east: x0 - dx / 2 + ncols * dx,
  north: y0 + dy / 2,
});

/** The cells of a part, and the column and the row they begin at; fewer than one of them where the part lies beside them. */
export interface CellsWithin {
  readonly col: number;
  readonly row: number;
  readonly cells: Cells;
}

/** The cells whose middles lie in a part. */
export function cellsWithin(all: Cells, part: Part): CellsWithin {
  const { ncols, nrows, x0, y0, dx, dy } = all;
  const { west, north } = extentOfCells(all);
  const first = (from: number): number => Math.max(0, Math.ceil(from - 0.5));
  const count = (from: number, to: number, most: number): number => Math.max(0, Math.min(most - 1, Math.floor(to - 0.5)) - from + 1);
  const [col, row] = [first((part.west - west) / dx), first((north - part.north) / dy)];
  const [cols, rows] = [count(col, (part.east - west) / dx, ncols), count(row, (north - part.south) / dy, nrows)];
  return { col, row, cells: { ncols: cols, nrows: rows, x0: x0 + col * dx, y0: y0 - row * dy, dx, dy } };
}

/** Whether cells are enough to make terrain of, and not too many. */
export const isTerrain = ({ ncols, nrows }: Pick<Cells, 'ncols' | 'nrows'>): boolean =>
  ncols >= 2 && nrows >= 2 && ncols * nrows <= MAX_CELLS;
