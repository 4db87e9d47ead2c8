// Where each cell's water goes. Fall line by triangular facets (Tarboton 1997, Water Resources Research 33(2), eqs 1-6), of
// which only the two beside the steepest of the eight neighbours are weighed; of the two neighbours that straddle it, the one that keeps the whole path nearest to the true fall line is
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
  readonly cells: Int32Array;
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

const DIAGONAL = Math.SQRT1_2;

/** Index steps to the eight neighbours. */
export function stepsOf(ncols: number): Int32Array {
  return Int32Array.of(1, ncols + 1, ncols, ncols - 1, -1, -ncols - 1, -ncols, -ncols + 1);
}

/**
 * The two neighbours that straddle the fall line: the steepest of the eight, and the lower of the two beside it (packed as
 * steepest x 8 + other), with the drop to either. Drift arrays get the sideways error of a step to each.
 */
function straddle(out: Candidates, i: number, packed: number, dropSteepest: number, dropOther: number): void {
  const steepest = packed >> 3;
  const other = packed & 7;
  const isCardinal = (steepest & 1) === 0;
  const along = isCardinal ? dropSteepest : dropOther;
  const across = (isCardinal ? dropOther : dropSteepest) - along;
  // Outside the facet between them the fall line is the steepest direction itself.
  if (!(across > 0 && along >= across)) {
    if (isCardinal) out.cardinal[i] = steepest;
    else out.diagonal[i] = steepest;
    return;
  }
  const cardinal = isCardinal ? steepest : other;
  const diagonal = isCardinal ? other : steepest;
  const r = Math.sqrt(along * along + across * across);
  const turn = ((diagonal - cardinal) & 7) === 1 ? 1 : -1;
  out.cardinal[i] = cardinal;
  out.diagonal[i] = diagonal;
  out.driftCardinal[i] = (-turn * across) / r;
  out.driftDiagonal[i] = (turn * (along - across)) / r;
}

/** The same for a cell at the edge, from a window of levels around it. */
function straddleWindow(out: Candidates, i: number, window: Float64Array, here: number): void {
  let best = 0;
  let steepest = -1;
  for (let d = 0; d < 8; d++) {
    const drop = (here - window[d]) * (d & 1 ? DIAGONAL : 1);
    if (drop > best) {
      best = drop;
      steepest = d;
    }
  }
  if (steepest < 0) return;
  const [left, right] = [(steepest + 7) & 7, (steepest + 1) & 7];
  const other = window[left] < window[right] ? left : right;
  straddle(out, i, steepest * 8 + other, here - window[steepest], here - window[other]);
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
  const off = stepsOf(ncols);
  for (let i = 0; i < n; i++) {
    const here = filled[i];
    if (here !== here) continue;
    if (edge[i] === 1) {
      straddleWindow(out, i, edgeWindow(grid, filled, i), here);
      leaveOverEdge(grid, filled, out, i);
      continue;
    }
    let best = 0;
    let steepest = -1;
    let drop: number;
    drop = here - filled[i + 1];
    if (drop > best) {
      best = drop;
      steepest = 0;
    }
    drop = (here - filled[i + ncols + 1]) * DIAGONAL;
    if (drop > best) {
      best = drop;
      steepest = 1;
    }
    drop = here - filled[i + ncols];
    if (drop > best) {
      best = drop;
      steepest = 2;
    }
    drop = (here - filled[i + ncols - 1]) * DIAGONAL;
    if (drop > best) {
      best = drop;
      steepest = 3;
    }
    drop = here - filled[i - 1];
    if (drop > best) {
      best = drop;
      steepest = 4;
    }
    drop = (here - filled[i - ncols - 1]) * DIAGONAL;
    if (drop > best) {
      best = drop;
      steepest = 5;
    }
    drop = here - filled[i - ncols];
    if (drop > best) {
      best = drop;
      steepest = 6;
    }
    drop = (here - filled[i - ncols + 1]) * DIAGONAL;
    if (drop > best) {
      best = drop;
      steepest = 7;
    }
    if (steepest < 0) continue;
    const left = filled[i + off[(steepest + 7) & 7]];
    const right = filled[i + off[(steepest + 1) & 7]];
    const isLeft = left < right;
    const own = steepest & 1 ? best * Math.SQRT2 : best;
    straddle(out, i, steepest * 8 + ((steepest + (isLeft ? 7 : 1)) & 7), own, here - (isLeft ? left : right));
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
  const off = stepsOf(ncols);
  const candidates = findCandidates(grid, filled, edgeCells(grid));
  const { cardinal, diagonal, driftCardinal, driftDiagonal } = candidates;
  const waiting = new Uint8Array(n);
  for (let i = 0; i < n; i++) {
    if (cardinal[i] >= 0) waiting[i + off[cardinal[i]]]++;
    if (diagonal[i] >= 0) waiting[i + off[diagonal[i]]]++;
  }
  const receiver = new Int8Array(n).fill(-2);
  const cells = new Int32Array(n);
  const largest = new Int32Array(n);
  const drift = new Float32Array(n);
  const order = new Int32Array(n);
  const ready = new Int32Array(n);
  let listed = 0;
  for (let source = 0; source < n; source++) {
    if (filled[source] !== filled[source] || waiting[source] !== 0 || receiver[source] !== -2) continue;
    // Down from each cell without donors until one still waits for another: near cells are then done near in time.
    let held = 0;
    ready[held++] = source;
    while (held > 0) {
      const i = ready[--held];
      order[listed++] = i;
      const own = ++cells[i];
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
      if (take < 0) continue;
      const r = i + off[take];
      cells[r] += own;
      if (own > largest[r]) {
        largest[r] = own;
        drift[r] = error;
      }
      if (c >= 0 && --waiting[i + off[c]] === 0) ready[held++] = i + off[c];
      if (d >= 0 && --waiting[i + off[d]] === 0) ready[held++] = i + off[d];
    }
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
