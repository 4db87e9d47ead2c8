// Multiple-flow accumulation: each cell shares its water among all lower neighbours by slope times contour length
// (Quinn, Beven, Chevallier & Planchon 1991, Hydrological Processes 5, with exponent 1: lengths 0.5 and 0.354 cells).
import type { Grid } from '../grid.ts';
import { edgeCells } from '../grid.ts';
import { stepsOf } from './flow.ts';

/** Contour length over distance to a cardinal and a diagonal neighbour: 0.5 / 1 and 0.354 / 1.414. */
const CARDINAL = 0.5;
const DIAGONAL = 0.25;

/**
 * Area passing each cell of a filled surface, itself included [cells]; 0 on no data. Cells at the border or beside no data
 * pass on only to neighbours that exist; one without a lower neighbour lets its water out. Cells marked in `stops` keep what
 * comes to them.
 */
export function spreadArea(grid: Grid, filled: Float64Array, stops: ArrayLike<number> | null = null): Float64Array {
  const { ncols } = grid;
  const n = filled.length;
  const edge = edgeCells(grid);
  const off = stepsOf(ncols);
  const area = new Float64Array(n);
  const waiting = new Uint8Array(n);
  const ready = new Int32Array(n);
  let held = 0;
  for (let i = 0; i < n; i++) {
    const here = filled[i];
    if (here !== here) continue;
    area[i] = 1;
    let above = 0;
    if (edge[i] === 0) {
      if (filled[i + 1] > here) above++;
      if (filled[i + ncols + 1] > here) above++;
      if (filled[i + ncols] > here) above++;
      if (filled[i + ncols - 1] > here) above++;
      if (filled[i - 1] > here) above++;
      if (filled[i - ncols - 1] > here) above++;
      if (filled[i - ncols] > here) above++;
      if (filled[i - ncols + 1] > here) above++;
    } else {
      const col = i % ncols;
      for (let d = 0; d < 8; d++) if (isBeside(col, d, ncols) && filled[i + off[d]] > here) above++;
    }
    waiting[i] = above;
    if (above === 0) ready[held++] = i;
  }
  const share = new Float64Array(8);
  while (held > 0) {
    const i = ready[--held];
    const here = filled[i];
    let sum = 0;
    if (edge[i] === 0) {
      let v: number;
      v = here - filled[i + 1];
      sum += share[0] = v > 0 ? v * CARDINAL : 0;
      v = here - filled[i + ncols + 1];
      sum += share[1] = v > 0 ? v * DIAGONAL : 0;
      v = here - filled[i + ncols];
      sum += share[2] = v > 0 ? v * CARDINAL : 0;
      v = here - filled[i + ncols - 1];
      sum += share[3] = v > 0 ? v * DIAGONAL : 0;
      v = here - filled[i - 1];
      sum += share[4] = v > 0 ? v * CARDINAL : 0;
      v = here - filled[i - ncols - 1];
      sum += share[5] = v > 0 ? v * DIAGONAL : 0;
      v = here - filled[i - ncols];
      sum += share[6] = v > 0 ? v * CARDINAL : 0;
      v = here - filled[i - ncols + 1];
      sum += share[7] = v > 0 ? v * DIAGONAL : 0;
    } else {
      const col = i % ncols;
      for (let d = 0; d < 8; d++) {
        const v = isBeside(col, d, ncols) ? here - filled[i + off[d]] : 0;
        sum += share[d] = v > 0 ? v * (d & 1 ? DIAGONAL : CARDINAL) : 0;
      }
    }
    if (sum <= 0) continue;
    const part = stops !== null && stops[i] !== 0 ? 0 : area[i] / sum;
    for (let d = 0; d < 8; d++) {
      const s = share[d];
      if (s <= 0) continue;
      const k = i + off[d];
      area[k] += part * s;
      if (--waiting[k] === 0) ready[held++] = k;
    }
  }
  return area;
}

/** Whether a step from a column stays on the row's cells; rows beyond the grid read as undefined and are never lower or higher. */
function isBeside(col: number, d: number, ncols: number): boolean {
  const isEast = d === 0 || d === 1 || d === 7;
  const isWest = d === 3 || d === 4 || d === 5;
  return !(isEast && col === ncols - 1) && !(isWest && col === 0);
}
