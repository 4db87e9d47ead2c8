// Things a survey misses, cut into or set upon the surface along a line. A raster cell is wider than a windrow or a ditch, so
// both are set against their neighbours' ground: a bank of 0.1 m stops water on a slope whose cells step by 0.4 m.
import { type Line, subLine } from '../geometry/index.ts';
import { type Grid, STEP_COL, STEP_ROW } from './grid.ts';
import { cellsUnder } from './intercept.ts';

export interface LineEdit {
  readonly line: Line;
  /** Above zero: a bank of that height stands here. Below: a ditch of that depth runs here [m]. */
  readonly heightM: number;
  /** Stretches of the line that stand open: nothing is changed there (distances along it, m). */
  readonly open?: readonly (readonly [fromM: number, toM: number])[];
}

/** Least fall from a ditch's side into it [m]. */
const INTO_DITCH_M = 0.005;

/** Highest (sign 1) or lowest (-1) ground around a cell that is not under the line, its own included. */
function neighbourGround(grid: Grid, i: number, on: { own: ReadonlySet<number>; sign: 1 | -1 }): number {
  const { ncols, nrows, z } = grid;
  const col = i % ncols;
  const row = (i - col) / ncols;
  let best = z[i] * on.sign;
  for (let d = 0; d < 8; d++) {
    const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
    if (c < 0 || r < 0 || c >= ncols || r >= nrows) continue;
    const k = r * ncols + c;
    if (!on.own.has(k) && z[k] * on.sign > best) best = z[k] * on.sign;
  }
  return best * on.sign;
}

/** Cells of an edit that it really changes: those under the line, its open stretches left out. */
export function cellsOf(grid: Grid, edit: LineEdit): Int32Array {
  const cells = cellsUnder(grid, edit.line);
  const open = edit.open ?? [];
  if (open.length === 0) return cells;
  const opened = new Set(open.flatMap(([from, to]) => [...cellsUnder(grid, subLine(edit.line, from, to))]));
  return cells.filter((i) => !opened.has(i));
}

/** The grid with all edits made, in order; the grid itself when there are none. Levels off the ground stay no data. */
export function withEdits(grid: Grid, edits: readonly LineEdit[]): Grid {
  if (edits.length === 0) return grid;
  const z = Float32Array.from(grid.z);
  for (const edit of edits) {
    const cells = cellsOf(grid, edit);
    const own = new Set(cells);
    for (const i of cells) {
      if (Number.isNaN(grid.z[i])) continue;
      if (edit.heightM >= 0) z[i] = Math.max(z[i], neighbourGround(grid, i, { own, sign: 1 }) + edit.heightM);
      else z[i] = Math.min(z[i], grid.z[i] + edit.heightM, neighbourGround(grid, i, { own, sign: -1 }) - INTO_DITCH_M);
    }
  }
  return { ...grid, z };
}
