// Levels on a lattice brought onto square cells: straight between the four nearest centres.
import type { Point } from '../geometry/index.ts';
import { type Cells, MAX_CELLS } from '../terrain/index.ts';

/** Levels at the middles of cells. */
export interface Lattice extends Cells {
  readonly levels: Float64Array;
}

/** Square cells levels are wanted on. */
export interface Frame {
  readonly ncols: number;
  readonly nrows: number;
  readonly cellM: number;
  readonly west: number;
  readonly south: number;
}

/** Level at a place; NaN beyond the outer edge of the cells, or where one of those it lies between is not known. */
export function latticeAt({ ncols, nrows, x0, y0, dx, dy, levels }: Lattice, x: number, y: number): number {
  const [col, row] = [(x - x0) / dx, (y0 - y) / dy];
  if (!(col >= -0.5 && row >= -0.5 && col <= ncols - 0.5 && row <= nrows - 0.5)) return NaN;
  const [c, r] = [Math.min(ncols - 1, Math.max(0, col)), Math.min(nrows - 1, Math.max(0, row))];
  const [c0, r0] = [Math.min(ncols - 2, Math.floor(c)), Math.min(nrows - 2, Math.floor(r))];
  const [u, v] = [c - c0, r - r0];
  const at = r0 * ncols + c0;
  const part = (weight: number, cell: number): number => (weight === 0 ? 0 : weight * levels[cell]);
  return part((1 - u) * (1 - v), at) + part(u * (1 - v), at + 1) + part((1 - u) * v, at + ncols) + part(u * v, at + ncols + 1);
}

/** Oblong cells as square ones of their shorter side, over the same ground. */
export function squared(of: Lattice): { readonly frame: Frame; readonly levels: Float64Array } {
  const cellM = Math.min(of.dx, of.dy);
  const [west, north] = [of.x0 - of.dx / 2, of.y0 + of.dy / 2];
  const [ncols, nrows] = [Math.max(2, Math.round((of.ncols * of.dx) / cellM)), Math.max(2, Math.round((of.nrows * of.dy) / cellM))];
  const frame = { ncols, nrows, cellM, west, south: north - nrows * cellM };
  return { frame, levels: filled(frame, (x, y) => latticeAt(of, x, y)) };
}

function filled({ ncols, nrows, cellM, west, south }: Frame, levelAt: (x: number, y: number, i: number) => number): Float64Array {
  const levels = new Float64Array(ncols * nrows);
  for (let row = 0, i = 0; row < nrows; row++) {
    const y = south + (nrows - row - 0.5) * cellM;
    for (let col = 0; col < ncols; col++, i++) levels[i] = levelAt(west + (col + 0.5) * cellM, y, i);
  }
  return levels;
}

/** Places along each side of the lattice that are projected to see how far it reaches. */
const ALONG_SIDE = 24;

/** Square cells over all that a lattice in another system covers, about as large as its own. */
export function frameOver({ ncols, nrows, x0, y0, dx, dy }: Lattice, toMetres: (place: Point) => Point): Frame {
  const [west, north] = [x0 - dx / 2, y0 + dy / 2];
  const [wide, high] = [ncols * dx, nrows * dy];
  let [x1, x2, y1, y2] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let k = 0; k <= ALONG_SIDE; k++) {
    const s = k / ALONG_SIDE;
    for (const place of [[west + s * wide, north], [west + s * wide, north - high], [west, north - s * high], [west + wide, north - s * high]] as const) {
      const [x, y] = toMetres(place);
      [x1, x2, y1, y2] = [Math.min(x1, x), Math.max(x2, x), Math.min(y1, y), Math.max(y2, y)];
    }
  } // prettier-ignore
  const cellM = Number(Math.sqrt(((x2 - x1) * (y2 - y1)) / (ncols * nrows)).toPrecision(2));
  const [left, bottom] = [Math.floor(x1 / cellM) * cellM, Math.floor(y1 / cellM) * cellM];
  return { cellM, west: left, south: bottom, ncols: Math.ceil((x2 - left) / cellM), nrows: Math.ceil((y2 - bottom) / cellM) };
}

/** Places in the other system are worked out so far apart, and taken straight between: 20 mm out at 45°, 0.2 m where the zones end [m]. */
const APART_M = 1000;

/** A lattice in another system brought onto cells in metres; the caller has seen to it that there are not too many. */
export function warped(of: Lattice, frame: Frame, fromMetres: (place: Point) => Point): Float64Array {
  const { ncols, nrows, cellM, west, south } = frame;
  const step = Math.max(1, Math.min(16, Math.floor(APART_M / cellM)));
  const [across, down] = [Math.ceil(ncols / step) + 1, Math.ceil(nrows / step) + 1];
  const [xs, ys] = [new Float64Array(across * down), new Float64Array(across * down)];
  const north = south + nrows * cellM;
  for (let r = 0, i = 0; r < down; r++)
    for (let c = 0; c < across; c++, i++) [xs[i], ys[i]] = fromMetres([west + (c * step + 0.5) * cellM, north - (r * step + 0.5) * cellM]);
  const between = (list: Float64Array, at: number, [u, v]: readonly [number, number]): number =>
    (1 - v) * ((1 - u) * list[at] + u * list[at + 1]) + v * ((1 - u) * list[at + across] + u * list[at + across + 1]);
  return filled(frame, (_x, _y, i) => {
    const [row, col] = [Math.floor(i / ncols), i % ncols];
    const at = Math.floor(row / step) * across + Math.floor(col / step);
    const part = [(col % step) / step, (row % step) / step] as const;
    return latticeAt(of, between(xs, at, part), between(ys, at, part));
  });
}

export const isTooLarge = ({ ncols, nrows }: Pick<Frame, 'ncols' | 'nrows'>): boolean => ncols * nrows > MAX_CELLS;
