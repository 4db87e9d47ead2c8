// Depression filling by priority flood with an epsilon rise, so that every cell has a lower neighbour or is an outlet.
// Barnes, Lehman & Mulla (2014), "Priority-flood", Computers & Geosciences 62, alg. 3; here with a plain queue for raised
// cells and an uphill trace that keeps most cells out of the heap. The result does not depend on the order of work. The loop
// itself is native/fill.ts.
import type { Grid } from '../grid.ts';
import { edgeCells } from '../grid.ts';
import { openNative } from './native.ts';

/** Rise from cell to cell across a filled hollow [m]: too small to matter, large enough for float64. */
export const FILL_EPSILON_M = 1e-5;

/**
 * Least surface at or above the ground from which every cell drains to an edge cell [m above grid.baseM, float64].
 * No data stays NaN. Edge cells keep their level.
 */
export function fillDepressions(grid: Grid): Float64Array {
  const { ncols, z } = grid;
  const n = z.length;
  // `done` has a spare row and a cell at both ends, so neighbours of border cells need no bounds test.
  const pad = ncols + 1;
  const { kernels, buffer, at } = openNative([8 * n, n + 2 * pad, 12 * n, 16 * (n + 1)]);
  const [levelsAt, doneAt, spareAt, heapAt] = at;
  const levels = new Float64Array(buffer, levelsAt, n);
  const done = new Uint8Array(buffer, doneAt, n + 2 * pad);
  const seeds = new Int32Array(buffer, spareAt, n);
  levels.set(z);
  done
    .fill(0)
    .fill(1, 0, pad)
    .fill(1, n + pad);
  const edge = edgeCells(grid);
  let seeded = 0;
  for (let i = edge.indexOf(1); i >= 0; i = edge.indexOf(1, i + 1)) {
    done[i + pad] = 1;
    if (z[i] === z[i]) seeds[seeded++] = i;
  }
  kernels.fill(levelsAt, doneAt + pad, spareAt, heapAt, seeded, ncols, n, FILL_EPSILON_M);
  return levels.slice();
}
