// Where each cell's water goes. Steepest direction by triangular facets (Tarboton 1997, Water Resources Research 33(2),
// eqs 1-6); of the two neighbours that straddle it, the one that keeps the whole path nearest to the true fall line is
// taken (least transversal deviation: Orlandini et al. 2003, WRR 39(6), with the deviation carried from the largest donor).
import type { Grid } from '../grid.ts';
import { STEP_COL, STEP_ROW, edgeCells } from '../grid.ts';

/** One receiver a cell, plus what is needed to follow a single drop more closely than its cell. */
export interface Flow {
  readonly ncols: number;
  readonly nrows: number;
  /** Direction of the receiver, 0..7 clockwise from east; -1 the water leaves here; -2 no data. */
  readonly receiver: Int8Array;
  /** Cells draining through each cell, itself included; 0 on no data. */
  readonly cells: Float64Array;
  /** Cells from highest to lowest: every cell stands after all its donors. */
  readonly order: Int32Array;
  /** The cardinal and diagonal neighbour that straddle the fall line, -1 where there is one only. */
  readonly cardinal: Int8Array;
  readonly diagonal: Int8Array;
  /** Sideways error of a step to either, in cells, clockwise positive. */
  readonly driftCardinal: Float32Array;
  readonly driftDiagonal: Float32Array;
}

interface Candidates {
  readonly cardinal: Int8Array;
  readonly diagonal: Int8Array;
  readonly driftCardinal: Float32Array;
  readonly driftDiagonal: Float32Array;
}

/** Steepest facet of one 3 x 3 window (levels by direction) into the candidate arrays at `i`. */
function steepestFacet(out: Candidates, i: number, here: number, window: Float64Array): void {
  let best = 0;
  let cardinal = -1;
  let diagonal = -1;
  let along = 0;
  let across = 0;
  for (let c = 0; c < 8; c += 2) {
    const e1 = window[c];
    const s1 = here - e1;
    for (let turn = 1; turn >= -1; turn -= 2) {
      const d = (c + turn) & 7;
      const e2 = window[d];
      const s2 = e1 - e2;
      if (s1 > 0 && s2 >= 0 && s2 <= s1) {
        const steep = s1 * s1 + s2 * s2;
        if (steep > best) {
          best = steep;
          cardinal = c;
          diagonal = s2 > 0 ? d : -1;
          along = s1;
          across = s2;
        }
      } else if (s2 > s1) {
        const drop = here - e2;
        const steep = 0.5 * drop * drop;
        if (drop > 0 && steep > best) {
          best = steep;
          cardinal = -1;
          diagonal = d;
        }
      } else if (s1 > 0 && s1 * s1 > best) {
        best = s1 * s1;
        cardinal = c;
        diagonal = -1;
      }
    }
  }
  out.cardinal[i] = cardinal;
  out.diagonal[i] = diagonal;
  if (cardinal >= 0 && diagonal >= 0) {
    const r = Math.sqrt(best);
    const turn = ((diagonal - cardinal) & 7) === 1 ? 1 : -1;
    out.driftCardinal[i] = (-turn * across) / r;
    out.driftDiagonal[i] = (turn * (along - across)) / r;
  }
}

/** Levels around an edge cell; what is missing is continued straight on from the other side, or taken as a way out. */
function edgeWindow(grid: Grid, filled: Float64Array, i: number): Float64Array {
  const { ncols, nrows } = grid;
  const col = i % ncols;
  const row = (i - col) / ncols;
  const at = (d: number): number => {
    const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
    return c < 0 || r < 0 || c >= ncols || r >= nrows ? NaN : filled[r * ncols + c];
  };
  return Float64Array.from({ length: 8 }, (_, d) => {
    const own = at(d);
    if (!Number.isNaN(own)) return own;
    const opposite = at((d + 4) & 7);
    return Number.isNaN(opposite) ? filled[i] - 1e-3 : 2 * filled[i] - opposite;
  });
}

function findCandidates(grid: Grid, filled: Float64Array, edge: Uint8Array): Candidates {
  const n = filled.length;
  const { ncols } = grid;
  const out: Candidates = {
    cardinal: new Int8Array(n).fill(-1),
    diagonal: new Int8Array(n).fill(-1),
    driftCardinal: new Float32Array(n),
    driftDiagonal: new Float32Array(n),
  };
  const w = new Float64Array(8);
  for (let i = 0; i < n; i++) {
    const here = filled[i];
    if (here !== here) continue;
    if (edge[i] === 1) {
      steepestFacet(out, i, here, edgeWindow(grid, filled, i));
      leaveOverEdge(grid, filled, out, i);
      continue;
    }
    w[0] = filled[i + 1];
    w[1] = filled[i + ncols + 1];
    w[2] = filled[i + ncols];
    w[3] = filled[i + ncols - 1];
    w[4] = filled[i - 1];
    w[5] = filled[i - ncols - 1];
    w[6] = filled[i - ncols];
    w[7] = filled[i - ncols + 1];
    steepestFacet(out, i, here, w);
  }
  return out;
}

/** An edge cell whose fall line points off the ground is an outlet; otherwise it keeps only neighbours that exist and are lower. */
function leaveOverEdge(grid: Grid, filled: Float64Array, out: Candidates, i: number): void {
  const { ncols, nrows } = grid;
  const col = i % ncols;
  const row = (i - col) / ncols;
  const exists = (d: number): boolean => {
    if (d < 0) return true;
    const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
    return c >= 0 && r >= 0 && c < ncols && r < nrows && filled[r * ncols + c] < filled[i];
  };
  if (!exists(out.cardinal[i]) || !exists(out.diagonal[i])) {
    out.cardinal[i] = -1;
    out.diagonal[i] = -1;
  }
}

/** Receivers, contributing cells and processing order of a filled surface (from fillDepressions). */
export function flowOf(grid: Grid, filled: Float64Array): Flow {
  const { ncols, nrows } = grid;
  const n = filled.length;
  const off = Int32Array.of(1, ncols + 1, ncols, ncols - 1, -1, -ncols - 1, -ncols, -ncols + 1);
  const candidates = findCandidates(grid, filled, edgeCells(grid));
  const { cardinal, diagonal, driftCardinal, driftDiagonal } = candidates;
  const waiting = new Uint8Array(n);
  for (let i = 0; i < n; i++) {
    if (cardinal[i] >= 0) waiting[i + off[cardinal[i]]]++;
    if (diagonal[i] >= 0) waiting[i + off[diagonal[i]]]++;
  }
  const receiver = new Int8Array(n).fill(-2);
  const cells = new Float64Array(n);
  const largest = new Float64Array(n);
  const drift = new Float32Array(n);
  const order = new Int32Array(n);
  let done = 0;
  let listed = 0;
  for (let i = 0; i < n; i++) {
    if (filled[i] !== filled[i]) continue;
    cells[i] = 1;
    if (waiting[i] === 0) order[listed++] = i;
  }
  // Every cell that may still donate is decided before its receiver: the candidates form a graph that only descends.
  while (done < listed) {
    const i = order[done++];
    const c = cardinal[i];
    const d = diagonal[i];
    let take = c >= 0 ? c : d;
    let error = 0;
    if (c >= 0 && d >= 0) {
      const byCardinal = drift[i] + driftCardinal[i];
      const byDiagonal = drift[i] + driftDiagonal[i];
      const isCardinal = Math.abs(byCardinal) <= Math.abs(byDiagonal);
      take = isCardinal ? c : d;
      error = isCardinal ? byCardinal : byDiagonal;
    }
    receiver[i] = take;
    if (take >= 0) {
      const r = i + off[take];
      cells[r] += cells[i];
      if (cells[i] > largest[r]) {
        largest[r] = cells[i];
        drift[r] = error;
      }
    }
    if (c >= 0 && --waiting[i + off[c]] === 0) order[listed++] = i + off[c];
    if (d >= 0 && --waiting[i + off[d]] === 0) order[listed++] = i + off[d];
  }
  return { ncols, nrows, receiver, cells, order: order.subarray(0, listed), cardinal, diagonal, driftCardinal, driftDiagonal };
}

/** True length of the step a cell's water takes, in cells: the part of it along the fall line. */
export function stepLength(flow: Flow, i: number): number {
  const d = flow.receiver[i];
  if (d < 0) return 0;
  if (flow.cardinal[i] < 0 || flow.diagonal[i] < 0) return d & 1 ? Math.SQRT2 : 1;
  const sin = Math.abs(flow.driftCardinal[i]);
  const cos = sin + Math.abs(flow.driftDiagonal[i]);
  return d & 1 ? cos + sin : cos;
}
