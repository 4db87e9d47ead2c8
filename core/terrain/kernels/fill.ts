// Depression filling by priority flood with an epsilon rise, so that every cell has a lower neighbour or is an outlet.
// Barnes, Lehman & Mulla (2014), "Priority-flood", Computers & Geosciences 62, alg. 3; here with a plain queue for raised
// cells and an uphill trace that keeps most cells out of the heap. The result does not depend on the order of work.
import type { Grid } from '../grid.ts';
import { edgeCells } from '../grid.ts';
import { stepsOf } from './flow.ts';

/** Rise from cell to cell across a filled hollow [m]: too small to matter, large enough for float64. */
export const FILL_EPSILON_M = 1e-5;

function siftUp(keys: Float64Array, cells: Int32Array, from: number, key: number, cell: number): void {
  let p = from;
  while (p > 0) {
    const q = (p - 1) >> 1;
    if (keys[q] <= key) break;
    keys[p] = keys[q];
    cells[p] = cells[q];
    p = q;
  }
  keys[p] = key;
  cells[p] = cell;
}

function siftDown(keys: Float64Array, cells: Int32Array, size: number): void {
  const key = keys[size];
  const cell = cells[size];
  let p = 0;
  let c = 1;
  while (c < size) {
    if (c + 1 < size && keys[c + 1] < keys[c]) c++;
    if (keys[c] >= key) break;
    keys[p] = keys[c];
    cells[p] = cells[c];
    p = c;
    c = 2 * p + 1;
  }
  keys[p] = key;
  cells[p] = cell;
}

/**
 * Least surface at or above the ground from which every cell drains to an edge cell [m above grid.baseM, float64].
 * No data stays NaN. Edge cells keep their level.
 */
export function fillDepressions(grid: Grid): Float64Array {
  const { ncols, z } = grid;
  const n = z.length;
  const f = new Float64Array(n);
  // `closed` has a spare row and a cell at both ends, so neighbours of border cells need no bounds test.
  const pad = ncols + 1;
  const closed = new Uint8Array(n + 2 * pad).fill(1, 0, pad).fill(1, n + pad);
  const edge = edgeCells(grid);
  const off = stepsOf(ncols);
  const stack = new Int32Array(n);
  const queue = new Int32Array(n);
  const again = new Int32Array(n);
  const keys = new Float64Array(n + 1);
  const cells = new Int32Array(n + 1);
  let stacked = 0;
  let size = 0;
  let head = 0;
  let tail = 0;
  for (let i = 0; i < n; i++) {
    const v = z[i];
    f[i] = v;
    if (v !== v) closed[i + pad] = 1;
    else if (edge[i] === 1) {
      closed[i + pad] = 1;
      stack[stacked++] = i;
    }
  }
  for (;;) {
    // Uphill trace: a cell higher than a finished neighbour is finished, in any order. Written out neighbour by neighbour,
    // since this runs for every cell and a loop over offsets costs half as much again.
    let waiting = 0;
    while (stacked > 0) {
      const m = stack[--stacked];
      const limit = f[m] + FILL_EPSILON_M;
      let open = 0;
      let k: number;
      k = m + 1;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      k = m + ncols + 1;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      k = m + ncols;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      k = m + ncols - 1;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      k = m - 1;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      k = m - ncols + 1;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      k = m - ncols;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      k = m - ncols - 1;
      if (closed[k + pad] === 0) {
        if (f[k] > limit) {
          closed[k + pad] = 1;
          stack[stacked++] = k;
        } else open = 1;
      }
      if (open === 1) again[waiting++] = m;
    }
    for (let j = 0; j < waiting; j++) {
      const m = again[j];
      const at = m + pad;
      if (
        (closed[at + 1] &
          closed[at + ncols + 1] &
          closed[at + ncols] &
          closed[at + ncols - 1] &
          closed[at - 1] &
          closed[at - ncols - 1] &
          closed[at - ncols] &
          closed[at - ncols + 1]) ===
        0
      ) {
        siftUp(keys, cells, size++, f[m], m);
      }
    }
    // Next lowest cell: from the queue of raised cells while its front is not above the heap's top.
    let c: number;
    if (head < tail && (size === 0 || f[queue[head]] <= keys[0])) c = queue[head++];
    else if (size > 0) {
      c = cells[0];
      siftDown(keys, cells, --size);
    } else break;
    const limit = f[c] + FILL_EPSILON_M;
    for (let d = 0; d < 8; d++) {
      const k = c + off[d];
      if (closed[k + pad] === 1) continue;
      closed[k + pad] = 1;
      if (f[k] <= limit) {
        f[k] = limit;
        queue[tail++] = k;
      } else stack[stacked++] = k;
    }
  }
  return f;
}
