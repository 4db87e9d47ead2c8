// Where each cell's water goes. Fall line by triangular facets (Tarboton 1997, Water Resources Research 33(2), eqs 1-6), of
// which only the two beside the steepest of the eight neighbours are weighed; of the two neighbours that straddle it, the one that keeps the whole path nearest to the true fall line is
// taken (least transversal deviation: Orlandini et al. 2003, WRR 39(6), with the deviation carried from the largest donor).
import type { Grid } from '../grid.ts';
import { STEP_COL, STEP_ROW, edgeCells } from '../grid.ts';

/** One receiver a cell, plus what is needed to follow a single drop more closely than its cell. */
export interface Flow {
  readonly ncols: number;
  readonly nrows: number;
  /** Direction of the receiver, 0..7 clockwise from east; LEAVES, NO_GROUND or JUMPS. */
  readonly receiver: Int8Array;
  /** Cells draining through each cell, itself included; 0 on no data. */
  readonly cells: Int32Array;
  /** Cells from highest to lowest: every cell stands after all its donors. */
  readonly order: Int32Array;
  /** The neighbours that straddle the fall line: steepest direction, then HAS_OTHER, then IS_CLOCKWISE; NONE where there is none. */
  readonly pair: Uint8Array;
  /** Sine of the angle between the fall line and the cardinal one of the pair. */
  readonly sine: Float32Array;
  /** Cells whose water is led elsewhere (a pipe, a roof's downspout), with the cell where it comes out. */
  readonly jumps: ReadonlyMap<number, number>;
}

/** Receiver codes that are no direction. */
export const LEAVES = -1;
export const NO_GROUND = -2;
export const JUMPS = 8;

const HAS_OTHER = 8;
const IS_CLOCKWISE = 16;
const NONE = 255;
const DIAGONAL = Math.SQRT1_2;
const NO_JUMPS: ReadonlyMap<number, number> = new Map();

/** Index steps to the eight neighbours. */
export function stepsOf(ncols: number): Int32Array {
  return Int32Array.of(1, ncols + 1, ncols, ncols - 1, -1, -ncols - 1, -ncols, -ncols + 1);
}

/** The two neighbours a drop may take next, with the sideways error of a step to each [cells, clockwise positive]. */
export interface Straddle {
  readonly cardinal: number;
  readonly diagonal: number;
  readonly driftCardinal: number;
  readonly driftDiagonal: number;
}

/** Unpacks a cell's pair; a direction that is not there is -1. */
export function straddleOf({ pair, sine }: Flow, i: number): Straddle {
  const code = pair[i];
  if (code === NONE) return { cardinal: -1, diagonal: -1, driftCardinal: 0, driftDiagonal: 0 };
  const steepest = code & 7;
  const isCardinal = (steepest & 1) === 0;
  if ((code & HAS_OTHER) === 0) {
    return { cardinal: isCardinal ? steepest : -1, diagonal: isCardinal ? -1 : steepest, driftCardinal: 0, driftDiagonal: 0 };
  }
  const other = (steepest + (code & IS_CLOCKWISE ? 1 : 7)) & 7;
  const turn = ((code & IS_CLOCKWISE) !== 0) === isCardinal ? 1 : -1;
  const sin = sine[i];
  const cos = Math.sqrt(1 - sin * sin);
  return {
    cardinal: isCardinal ? steepest : other,
    diagonal: isCardinal ? other : steepest,
    driftCardinal: -turn * sin,
    driftDiagonal: turn * (cos - sin),
  };
}

/** Levels around an edge cell; what is missing is continued straight on from the other side, or taken as a way out. */
function edgeWindow({ ncols, nrows }: Grid, filled: Float64Array, i: number): Float64Array {
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

/** The pair of an edge cell. One whose fall line points off the ground is an outlet. */
function edgePair(grid: Grid, filled: Float64Array, i: number): { code: number; sin: number } {
  const { ncols, nrows } = grid;
  const window = edgeWindow(grid, filled, i);
  const here = filled[i];
  let best = 0;
  let steepest = -1;
  for (let d = 0; d < 8; d++) {
    const drop = (here - window[d]) * (d & 1 ? DIAGONAL : 1);
    if (drop > best) {
      best = drop;
      steepest = d;
    }
  }
  if (steepest < 0) return { code: NONE, sin: 0 };
  const col = i % ncols;
  const row = (i - col) / ncols;
  const exists = (d: number): boolean => {
    const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
    return c >= 0 && r >= 0 && c < ncols && r < nrows && filled[r * ncols + c] < here;
  };
  const isLeft = window[(steepest + 7) & 7] < window[(steepest + 1) & 7];
  const other = (steepest + (isLeft ? 7 : 1)) & 7;
  const isCardinal = (steepest & 1) === 0;
  const along = here - window[isCardinal ? steepest : other];
  const across = here - window[isCardinal ? other : steepest] - along;
  if (!exists(steepest)) return { code: NONE, sin: 0 };
  if (!(across > 0 && along >= across)) return { code: steepest, sin: 0 };
  if (!exists(other)) return { code: NONE, sin: 0 };
  return { code: steepest | HAS_OTHER | (isLeft ? 0 : IS_CLOCKWISE), sin: across / Math.sqrt(along * along + across * across) };
}

/** Pair and sine of every cell. Written out neighbour by neighbour: a loop over offsets costs twice as much here. */
function findPairs(grid: Grid, filled: Float64Array, out: { readonly pair: Uint8Array; readonly sine: Float32Array }): void {
  const { ncols } = grid;
  const { pair, sine } = out;
  const edge = edgeCells(grid);
  const n = filled.length;
  for (let i = 0; i < n; i++) {
    const here = filled[i];
    if (here !== here) continue;
    if (edge[i] === 1) {
      const { code, sin } = edgePair(grid, filled, i);
      pair[i] = code;
      sine[i] = sin;
      continue;
    }
    const e = here - filled[i + 1];
    const se = here - filled[i + ncols + 1];
    const s = here - filled[i + ncols];
    const sw = here - filled[i + ncols - 1];
    const w = here - filled[i - 1];
    const nw = here - filled[i - ncols - 1];
    const no = here - filled[i - ncols];
    const ne = here - filled[i - ncols + 1];
    // The largest drop of each kind, then the steeper of the two.
    let c = 0;
    let bestC = e;
    if (s > bestC) {
      bestC = s;
      c = 2;
    }
    if (w > bestC) {
      bestC = w;
      c = 4;
    }
    if (no > bestC) {
      bestC = no;
      c = 6;
    }
    let d = 1;
    let bestD = se;
    if (sw > bestD) {
      bestD = sw;
      d = 3;
    }
    if (nw > bestD) {
      bestD = nw;
      d = 5;
    }
    if (ne > bestD) {
      bestD = ne;
      d = 7;
    }
    let along: number;
    let across: number;
    let code: number;
    if (bestC >= bestD * DIAGONAL) {
      if (bestC <= 0) continue;
      const left = c === 0 ? ne : c === 2 ? se : c === 4 ? sw : nw;
      const right = c === 0 ? se : c === 2 ? sw : c === 4 ? nw : ne;
      along = bestC;
      across = (left > right ? left : right) - bestC;
      code = left > right ? c | HAS_OTHER : c | HAS_OTHER | IS_CLOCKWISE;
    } else {
      if (bestD <= 0) continue;
      const left = d === 1 ? e : d === 3 ? s : d === 5 ? w : no;
      const right = d === 1 ? s : d === 3 ? w : d === 5 ? no : e;
      along = left > right ? left : right;
      across = bestD - along;
      code = left > right ? d | HAS_OTHER : d | HAS_OTHER | IS_CLOCKWISE;
    }
    // Outside the facet between them the fall line is the steepest direction itself.
    if (across > 0 && along >= across) {
      pair[i] = code;
      sine[i] = across / Math.sqrt(along * along + across * across);
    } else pair[i] = code & 7;
  }
}

/** Jumps that lead downhill on the filled surface: any other would let water run in a circle. */
function soundJumps(filled: Float64Array, jumps: ReadonlyMap<number, number>): Map<number, number> {
  return new Map([...jumps].filter(([from, to]) => filled[to] < filled[from]));
}

/** How many cells may yet send each cell water: those with it in their pair, and jumps that end there. */
function countWaiting(pair: Uint8Array, off: Int32Array, jumps: ReadonlyMap<number, number>): Uint8Array | Int32Array {
  // Eight neighbours fit a byte; a whole roof may be led to one cell.
  const waiting = jumps.size === 0 ? new Uint8Array(pair.length) : new Int32Array(pair.length);
  for (let i = 0; i < pair.length; i++) {
    const code = pair[i];
    if (code === NONE) continue;
    const d = code & 7;
    waiting[i + off[d]]++;
    if (code & HAS_OTHER) waiting[i + off[(d + (code & IS_CLOCKWISE ? 1 : 7)) & 7]]++;
  }
  for (const to of jumps.values()) waiting[to]++;
  return waiting;
}

// What the descent keeps of a cell, side by side in one array so that a step down touches few cache lines. Float32 counts
// exactly up to 2^24 cells, above the largest grid accepted.
const DRIFT = 0;
const CELLS = 1;
const LARGEST = 2;

/** By pair code: which way the diagonal lies of the cardinal (0: there is one neighbour only), and the cardinal and diagonal direction. */
const CHOICES = ((): { turn: Int8Array; choice: Int8Array } => {
  const turn = new Int8Array(32);
  const choice = new Int8Array(64);
  for (let code = 0; code < 32; code++) {
    const first = code & 7;
    const isCardinal = (first & 1) === 0;
    const clockwise = (code & IS_CLOCKWISE) !== 0;
    const second = code & HAS_OTHER ? (first + (clockwise ? 1 : 7)) & 7 : first;
    turn[code] = code & HAS_OTHER ? (clockwise === isCardinal ? 1 : -1) : 0;
    choice[2 * code] = isCardinal ? first : second;
    choice[2 * code + 1] = isCardinal ? second : first;
  }
  return { turn, choice };
})();

/** Receivers, contributing cells and processing order of a filled surface (from fillDepressions). */
export function flowOf(grid: Grid, filled: Float64Array, led: ReadonlyMap<number, number> = NO_JUMPS): Flow {
  const { ncols, nrows } = grid;
  const n = filled.length;
  const off = stepsOf(ncols);
  const pair = new Uint8Array(n).fill(NONE);
  const sine = new Float32Array(n);
  findPairs(grid, filled, { pair, sine });
  const jumps = led.size === 0 ? NO_JUMPS : soundJumps(filled, led);
  for (const from of jumps.keys()) pair[from] = NONE;
  const waiting = countWaiting(pair, off, jumps);
  const receiver = new Int8Array(n).fill(NO_GROUND);
  const state = new Float32Array(4 * n);
  const order = new Int32Array(n);
  const ready = new Int32Array(n);
  const { turn, choice } = CHOICES;
  const leap = Int32Array.from(choice, (d) => off[d]);
  let listed = 0;
  for (let source = 0; source < n; source++) {
    if (waiting[source] !== 0 || receiver[source] !== NO_GROUND || filled[source] !== filled[source]) continue;
    // Down from each cell without donors until one still waits for another: near cells are then done near in time.
    let held = 0;
    ready[held++] = source;
    while (held > 0) {
      const i = ready[--held];
      order[listed++] = i;
      const own = (state[4 * i + CELLS] += 1);
      const code = pair[i];
      if (code === NONE) {
        const to = jumps.size > 0 ? jumps.get(i) : undefined;
        receiver[i] = to === undefined ? LEAVES : JUMPS;
        if (to === undefined) continue;
        state[4 * to + CELLS] += own;
        if (--waiting[to] === 0) ready[held++] = to;
        continue;
      }
      const sin = sine[i];
      const turned = turn[code];
      const byCardinal = state[4 * i + DRIFT] - turned * sin;
      const byDiagonal = state[4 * i + DRIFT] + turned * (Math.sqrt(1 - sin * sin) - sin);
      const pick = 2 * code + (Math.abs(byCardinal) <= Math.abs(byDiagonal) ? 0 : 1);
      receiver[i] = choice[pick];
      const r = i + leap[pick];
      const error = (pick & 1) === 0 ? byCardinal : byDiagonal;
      const other = i + leap[pick ^ 1];
      state[4 * r + CELLS] += own;
      if (own > state[4 * r + LARGEST]) {
        state[4 * r + LARGEST] = own;
        state[4 * r + DRIFT] = turned === 0 ? 0 : error;
      }
      if (other !== r && --waiting[other] === 0) ready[held++] = other;
      if (--waiting[r] === 0) ready[held++] = r;
    }
  }
  const cells = new Int32Array(n);
  for (let i = 0; i < n; i++) cells[i] = state[4 * i + CELLS];
  return { ncols, nrows, receiver, cells, order: order.subarray(0, listed), pair, sine, jumps };
}

/** Cell that a cell's water goes to next; -1 where it leaves. */
export function receiverOf({ receiver, ncols, jumps }: Flow, i: number): number {
  const d = receiver[i];
  if (d < 0) return -1;
  return d === JUMPS ? (jumps.get(i) ?? -1) : i + STEP_ROW[d] * ncols + STEP_COL[d];
}

/** True length of the step a cell's water takes, in cells: the part of it along the fall line. */
export function stepLength(flow: Flow, i: number): number {
  const d = flow.receiver[i];
  if (d < 0) return 0;
  if (d === JUMPS) {
    const to = flow.jumps.get(i) ?? i;
    return Math.hypot((to % flow.ncols) - (i % flow.ncols), Math.floor(to / flow.ncols) - Math.floor(i / flow.ncols));
  }
  if ((flow.pair[i] & HAS_OTHER) === 0) return d & 1 ? Math.SQRT2 : 1;
  const sin = flow.sine[i];
  const cos = Math.sqrt(1 - sin * sin);
  return d & 1 ? cos + sin : cos;
}
