// The outline of cells on a grid, through their corners.
import { type Point, signedArea } from '../geometry/index.ts';
import type { Grid } from './grid.ts';

/** Cells that bear a number. */
export interface Labelled {
  readonly label: ArrayLike<number>;
  readonly wanted: number;
  readonly members: Int32Array;
}

/** Sides of a cell by the way one goes along them with the cell at the left: its south side east, and on against the clock. */
const [EAST, NORTH, WEST, SOUTH] = [0, 1, 2, 3];
const AHEAD_COL = [1, 0, -1, 0];
const AHEAD_ROW = [0, -1, 0, 1];
/** The corner a side begins at, from the cell's north-west one. */
const FROM_COL = [0, 1, 1, 0];
const FROM_ROW = [1, 1, 0, 0];

/**
 * Outer boundary of cells that bear a number, counter-clockwise, its start not repeated; the largest piece when they fall apart.
 * Where two touch at a corner only they are of one piece. `sides`, one a cell of the grid, is clean before and after.
 */
export function outlineIn(grid: Grid, { label, wanted, members }: Labelled, sides: Uint8Array = new Uint8Array(grid.z.length)): Point[] {
  const { ncols, nrows } = grid;
  const has = (col: number, row: number): boolean =>
    col >= 0 && row >= 0 && col < ncols && row < nrows && label[row * ncols + col] === wanted;
  for (let k = 0; k < members.length; k++) {
    const i = members[k];
    // Most cells lie inside: their four neighbours say so at once. A wrapped neighbour only leads to the careful test.
    const isWithin = label[i + 1] === wanted && label[i - 1] === wanted && label[i + ncols] === wanted && label[i - ncols] === wanted;
    if (isWithin && i % ncols !== 0 && (i + 1) % ncols !== 0) continue;
    const col = i % ncols;
    const row = (i - col) / ncols;
    let bare = 0;
    if (!has(col, row + 1)) bare |= 1 << EAST;
    if (!has(col + 1, row)) bare |= 1 << NORTH;
    if (!has(col, row - 1)) bare |= 1 << WEST;
    if (!has(col - 1, row)) bare |= 1 << SOUTH;
    sides[i] = bare;
  }
  let best: Point[] = [];
  let bestArea = 0;
  for (let k = 0; k < members.length; k++) {
    for (let way = EAST; sides[members[k]] !== 0; way++) {
      if ((sides[members[k]] & (1 << way)) === 0) continue;
      const ring = ringFrom(grid, { has, sides, cell: members[k], way });
      const area = signedArea(ring);
      if (area > bestArea) [best, bestArea] = [ring, area];
    }
  }
  return best;
}

/** The ring that begins with a side of a cell, through the corners where it turns; takes the sides it goes along from those that are left. */
function ringFrom(
  grid: Grid,
  on: { readonly has: (col: number, row: number) => boolean; readonly sides: Uint8Array; readonly cell: number; readonly way: number },
): Point[] {
  const { has, sides } = on;
  const { ncols, nrows, west, south, cellM } = grid;
  const ring: Point[] = [];
  let way = on.way;
  let came = -1;
  let col = on.cell % ncols;
  let row = (on.cell - col) / ncols;
  for (;;) {
    const i = row * ncols + col;
    const bit = 1 << way;
    if ((sides[i] & bit) === 0) break;
    sides[i] &= ~bit;
    if (way !== came) ring.push([west + (col + FROM_COL[way]) * cellM, south + (nrows - row - FROM_ROW[way]) * cellM]);
    came = way;
    const right = (way + 3) & 3;
    const aheadCol = col + AHEAD_COL[way];
    const aheadRow = row + AHEAD_ROW[way];
    // To the right first: so cells that touch at a corner stay together.
    if (has(aheadCol + AHEAD_COL[right], aheadRow + AHEAD_ROW[right])) {
      col = aheadCol + AHEAD_COL[right];
      row = aheadRow + AHEAD_ROW[right];
      way = right;
    } else if (has(aheadCol, aheadRow)) {
      col = aheadCol;
      row = aheadRow;
    } else way = (way + 1) & 3;
  }
  // Where it began in the middle of a straight stretch there is no corner.
  return came === on.way ? ring.slice(1) : ring;
}
