// Where each cell's water goes. Fall line by triangular facets (Tarboton 1997, Water Resources Research 33(2), eqs 1-6), of
// which only the two beside the steepest of the eight neighbours are weighed; of the two neighbours that straddle it, the one
// that keeps the whole path nearest to the true fall line is taken (least transversal deviation: Orlandini et al. 2003, WRR 39(6), with the deviation carried from the largest donor).
import type { Grid } from '../grid.ts';
import { STEP_COL, STEP_ROW, edgeCells } from '../grid.ts';
import { openNative } from './native.ts';

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
  /** Where each fall line lies between the two neighbours that straddle it, packed (see SINGLE); read it with straddleOf. */
  readonly facet: Uint16Array;
  /** Cells whose water is led elsewhere (a pipe, a roof's downspout), with the cell where it comes out. */
  readonly jumps: ReadonlyMap<number, number>;
}

/** Receiver codes that are no direction. */
export const LEAVES = -1;
export const NO_GROUND = -2;
export const JUMPS = 8;

// A facet in 16 bits. The top four: k = 0..7 for a fall line between directions k and k + 1, either of which may be taken, or
// SINGLE + d where only direction d will do. The low twelve: tangent of its angle from the cardinal one, in TANGENT_PARTS.
const SINGLE = 8;
const TANGENT_BITS = 12;
const TANGENT_PARTS = (1 << TANGENT_BITS) - 1;
const NONE = 0xffff;
/** While flow is worked out: the water of this cell is led elsewhere. */
const LED = 0xfffe;

/** Sideways error is counted in whole parts of a cell, so that the choice between two neighbours needs no branch. */
const DRIFT_PARTS = 65536;
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

/** By the top four bits of a facet: its cardinal and diagonal direction (the same where there is one only) and which way the diagonal lies. */
const KINDS = ((): { readonly cardinal: Int8Array; readonly diagonal: Int8Array; readonly turn: Int8Array } => {
  const [cardinal, diagonal, turn] = [new Int8Array(16), new Int8Array(16), new Int8Array(16)];
  for (let k = 0; k < 8; k++) {
    const odd = k & 1;
    cardinal[k] = (k + odd) & 7;
    diagonal[k] = (k + 1 - odd) & 7;
    turn[k] = 1 - 2 * odd;
    cardinal[SINGLE + k] = diagonal[SINGLE + k] = k;
  }
  return { cardinal, diagonal, turn };
})();

function anglesOf(facet: number): { readonly sin: number; readonly cos: number } {
  const tangent = (facet & TANGENT_PARTS) / TANGENT_PARTS;
  const cos = 1 / Math.sqrt(1 + tangent * tangent);
  return { sin: tangent * cos, cos };
}

/** Sideways error of a step to the cardinal and to the diagonal neighbour, pair by pair of tangent, without its sign [DRIFT_PARTS]. */
const DRIFTS = Int32Array.from({ length: 2 * (TANGENT_PARTS + 1) }, (_, j) => {
  const { sin, cos } = anglesOf(j >> 1);
  return Math.round(DRIFT_PARTS * ((j & 1) === 0 ? sin : cos - sin));
});

/** Length along the fall line of a step to the cardinal and to the diagonal neighbour, pair by pair of tangent [cells]. */
const LENGTHS = Float64Array.from({ length: 2 * (TANGENT_PARTS + 1) }, (_, j) => {
  const { sin, cos } = anglesOf(j >> 1);
  return (j & 1) === 0 ? cos : cos + sin;
});

/** Unpacks a cell's facet; a direction that is not there is -1. */
export function straddleOf({ facet }: Flow, i: number): Straddle {
  const code = facet[i];
  if (code === NONE) return { cardinal: -1, diagonal: -1, driftCardinal: 0, driftDiagonal: 0 };
  const kind = code >> TANGENT_BITS;
  const d = kind & 7;
  if (kind >= SINGLE) return { cardinal: d & 1 ? -1 : d, diagonal: d & 1 ? d : -1, driftCardinal: 0, driftDiagonal: 0 };
  const { sin, cos } = anglesOf(code);
  const turn = KINDS.turn[kind];
  return { cardinal: KINDS.cardinal[kind], diagonal: KINDS.diagonal[kind], driftCardinal: -turn * sin, driftDiagonal: turn * (cos - sin) };
}

/** Facet of a fall line between the steepest of the eight neighbours and the better of the two beside it. */
function packed(steepest: number, isLeft: boolean, { along, across }: { readonly along: number; readonly across: number }): number {
  const parts = Math.round((TANGENT_PARTS * across) / along);
  return ((isLeft ? (steepest + 7) & 7 : steepest) << TANGENT_BITS) | parts;
}

/** The facet of an edge cell, or NONE for an outlet: one whose fall line points off the ground. `levels` are those around it, NaN where there is none; `window` is room for what is taken instead. */
function edgeFacet(here: number, levels: Float64Array, window: Float64Array): number {
  let best = 0;
  let steepest = -1;
  for (let d = 0; d < 8; d++) {
    // What is missing is continued straight on from the other side, or taken as a way out.
    const opposite = levels[(d + 4) & 7];
    window[d] = levels[d] === levels[d] ? levels[d] : opposite === opposite ? 2 * here - opposite : here - 1e-3;
    const drop = (here - window[d]) * (d & 1 ? DIAGONAL : 1);
    if (drop > best) {
      best = drop;
      steepest = d;
    }
  }
  if (steepest < 0 || !(levels[steepest] < here)) return NONE;
  const isLeft = window[(steepest + 7) & 7] < window[(steepest + 1) & 7];
  const other = (steepest + (isLeft ? 7 : 1)) & 7;
  const isCardinal = (steepest & 1) === 0;
  const along = here - window[isCardinal ? steepest : other];
  const across = here - window[isCardinal ? other : steepest] - along;
  if (!(across > 0 && along >= across)) return (SINGLE | steepest) << TANGENT_BITS;
  return levels[other] < here ? packed(steepest, isLeft, { along, across }) : NONE;
}

// The descent keeps four numbers of a cell side by side, so that a step down touches few cache lines: its sideways error, the
// cells above, the largest donor, and how often it is named by cells that may yet send it water.
const WAITING = 3;

/** Facets of the cells at the border or beside no data, and NONE where there is no ground. */
function findEdgeFacets(grid: Grid, filled: Float64Array, facet: Uint16Array): void {
  const { ncols, nrows } = grid;
  const edge = edgeCells(grid);
  const levels = new Float64Array(8);
  const window = new Float64Array(8);
  for (let i = edge.indexOf(1); i >= 0; i = edge.indexOf(1, i + 1)) {
    facet[i] = NONE;
    if (filled[i] !== filled[i]) continue;
    const col = i % ncols;
    const row = (i - col) / ncols;
    for (let d = 0; d < 8; d++) {
      const c = col + STEP_COL[d];
      const r = row + STEP_ROW[d];
      levels[d] = c < 0 || r < 0 || c >= ncols || r >= nrows ? NaN : filled[r * ncols + c];
    }
    facet[i] = edgeFacet(filled[i], levels, window);
  }
}

/** Jumps that lead downhill on the filled surface: any other would let water run in a circle. */
function soundJumps(filled: Float64Array, jumps: ReadonlyMap<number, number>): Map<number, number> {
  return new Map([...jumps].filter(([from, to]) => filled[to] < filled[from]));
}

/** Receivers, contributing cells and processing order of a filled surface (from fillDepressions). The loops over all cells are native/flow.ts. */
export function flowOf(grid: Grid, filled: Float64Array, led: ReadonlyMap<number, number> = NO_JUMPS): Flow {
  const { ncols, nrows } = grid;
  const n = filled.length;
  const jumps = led.size === 0 ? NO_JUMPS : soundJumps(filled, led);
  const places = [8 * n, 2 * n + 2, 16 * n, 32, 4 * DRIFTS.length, 8 * jumps.size, n, 4 * n, 4 * n];
  const { kernels, buffer, at } = openNative(places);
  const [levelsAt, facetAt, stateAt, offAt, driftsAt, jumpsAt, receiverAt, orderAt, spareAt] = at;
  new Float64Array(buffer, levelsAt, n).set(filled);
  new Int32Array(buffer, offAt, 8).set(stepsOf(ncols));
  new Int32Array(buffer, driftsAt, DRIFTS.length).set(DRIFTS);
  new Int32Array(buffer, jumpsAt, 2 * jumps.size).set([...jumps].flat());
  const facet = new Uint16Array(buffer, facetAt, n);
  const state = new Int32Array(buffer, stateAt, 4 * n).fill(0);
  const receiver = new Int8Array(buffer, receiverAt, n).fill(NO_GROUND);
  kernels.findFacets(levelsAt, facetAt, ncols, n);
  findEdgeFacets(grid, filled, facet);
  for (const [from, to] of jumps) {
    facet[from] = LED;
    state[4 * to + WAITING]++;
  }
  kernels.countWaiting(facetAt, stateAt, offAt, n);
  const listed = kernels.descend(levelsAt, facetAt, stateAt, offAt, driftsAt, jumpsAt, jumps.size, receiverAt, orderAt, spareAt, n);
  kernels.takeCells(stateAt, spareAt, n);
  for (const from of jumps.keys()) facet[from] = NONE;
  const cells = new Int32Array(buffer, spareAt, n).slice();
  const order = new Int32Array(buffer, orderAt, listed).slice();
  return { ncols, nrows, receiver: receiver.slice(), cells, order, facet: facet.slice(), jumps };
}

/** Cells by the cell they are led to; null when none is. */
export function sourcesOf(jumps: ReadonlyMap<number, number>): Map<number, number[]> | null {
  if (jumps.size === 0) return null;
  const led = new Map<number, number[]>();
  for (const [from, to] of jumps) led.set(to, [...(led.get(to) ?? []), from]);
  return led;
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
  return facetLength(flow.facet[i], d);
}

/** The same from a cell's facet and the direction its water takes. */
export function facetLength(facet: number, direction: number): number {
  if (facet >= SINGLE << TANGENT_BITS) return direction & 1 ? Math.SQRT2 : 1;
  return LENGTHS[((facet & TANGENT_PARTS) << 1) | (direction & 1)];
}
