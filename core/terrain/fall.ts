// Is there any fall at all from here to a place that may take the water, and by which line?
import { type Point, lineLength, simplify } from '../geometry/index.ts';
import { type Grid, STEP_COL, STEP_ROW, cellAt, centreOf } from './grid.ts';
import { CellHeap } from './heap.ts';
import { type ProfilePoint, profile } from './sample.ts';

export interface FallLine {
  /** Level of the start less that of the outfall [m]; below zero there is none. */
  readonly fallM: number;
  readonly lengthM: number;
  /** Fall over length along the line found [m/m]. */
  readonly slope: number;
  readonly line: readonly Point[];
  /** Highest ground on the way [m]. */
  readonly passM: number;
  /** A trench from the ground at the start, at the grade asked for. */
  readonly trench: {
    readonly gradeM: number;
    /** Ground, and depth of the trench under it, along the line. */
    readonly profile: readonly (ProfilePoint & { readonly depthM: number })[];
    readonly deepestM: number;
    readonly deepestAtM: number;
    /** Below zero: how much the outfall lies too high for the highest trench that could come to it [m]. */
    readonly spareM: number;
  };
}

/** Depths of trench are told apart down to this [m]. */
const DEPTH_STEP_M = 0.05;
/** A grade of nothing would let the search wander: water needs some. */
const LEAST_GRADE = 1e-4;
/** How far beyond the straight line a way is sought, as a share of its length, and at least [m]. */
const BESIDE_SHARE = 1;
const BESIDE_LEAST_M = 60;

interface Ask {
  readonly from: number;
  readonly to: number;
  readonly gradeM: number;
  /** Cells the way may use. */
  readonly isOpen: (col: number, row: number) => boolean;
}

interface Ways {
  /** Highest level a trench from the start can have at each cell [m above grid.baseM]; -Infinity where it cannot come. */
  readonly invert: Float64Array;
  readonly came: Int32Array;
}

/**
 * The highest trench to every cell: from the ground at the start it falls at the grade, never stands above the ground and is
 * nowhere deeper than `deepestM`. A higher trench is never worse further on, so taking the highest first is exact.
 */
function highestTrench(grid: Grid, { from, to, gradeM, isOpen }: Ask, deepestM: number): Ways {
  const { z, ncols, nrows, cellM } = grid;
  const invert = new Float64Array(z.length).fill(-Infinity);
  const came = new Int32Array(z.length).fill(-1);
  const heap = new CellHeap();
  invert[from] = z[from];
  heap.push(-z[from], from);
  for (let cell = heap.pop(); cell >= 0 && cell !== to; cell = heap.pop()) {
    const col = cell % ncols;
    const row = (cell - col) / ncols;
    for (let d = 0; d < 8; d++) {
      const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
      if (c < 0 || r < 0 || c >= ncols || r >= nrows || !isOpen(c, r)) continue;
      const next = r * ncols + c;
      const level = Math.min(invert[cell] - gradeM * cellM * (d & 1 ? Math.SQRT2 : 1), z[next]);
      // Not above what is known already, too deep, or no ground at all (NaN fails both).
      if (!(level > invert[next]) || !(z[next] - level <= deepestM)) continue;
      invert[next] = level;
      came[next] = cell;
      heap.push(-level, next);
    }
  }
  return { invert, came };
}

function wayTo(came: Int32Array, to: number): number[] {
  const way: number[] = [];
  for (let cell = to; cell >= 0; cell = came[cell]) way.push(cell);
  return way.reverse();
}

const arrives = (grid: Grid, { invert }: Ways, to: number): boolean => invert[to] >= grid.z[to] - 1e-9;

/** The way whose trench is nowhere deeper than it must be; the best attempt where no trench can arrive. Null when no data parts the ends. */
function shallowestWay(grid: Grid, ask: Ask): number[] | null {
  const free = highestTrench(grid, ask, Infinity);
  if (free.came[ask.to] < 0) return null;
  if (!arrives(grid, free, ask.to)) return wayTo(free.came, ask.to);
  let best = free;
  let [lo, hi] = [0, Math.max(...wayTo(free.came, ask.to).map((cell) => grid.z[cell] - free.invert[cell]))];
  const open = highestTrench(grid, ask, 1e-6);
  if (arrives(grid, open, ask.to)) [best, hi] = [open, 0];
  while (hi - lo > DEPTH_STEP_M) {
    const middle = (lo + hi) / 2;
    const tried = highestTrench(grid, ask, middle);
    if (arrives(grid, tried, ask.to)) [best, hi] = [tried, middle];
    else lo = middle;
  }
  return shortWay(grid, ask, hi + 1e-6) ?? wayTo(best.came, ask.to);
}

/** Lowest a trench may lie at each cell and still arrive, nowhere deeper than `deepestM`; Infinity where it cannot. The same search from the other end. */
function lowestAllowed(grid: Grid, { from, to, gradeM, isOpen }: Ask, deepestM: number): Float64Array {
  const { z, ncols, nrows, cellM } = grid;
  const allowed = new Float64Array(z.length).fill(Infinity);
  const heap = new CellHeap();
  allowed[to] = z[to];
  heap.push(z[to], to);
  for (let cell = heap.pop(); cell >= 0 && cell !== from; cell = heap.pop()) {
    const col = cell % ncols;
    const row = (cell - col) / ncols;
    const here = Math.max(allowed[cell], z[cell] - deepestM);
    for (let d = 0; d < 8; d++) {
      const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
      if (c < 0 || r < 0 || c >= ncols || r >= nrows || !isOpen(c, r)) continue;
      const before = r * ncols + c;
      const level = here + gradeM * cellM * (d & 1 ? Math.SQRT2 : 1);
      if (!(level < allowed[before]) || !(level <= z[before] + 1e-9)) continue;
      allowed[before] = level;
      heap.push(level, before);
    }
  }
  return allowed;
}

/** How much longer a way may be to save one metre of depth in the trench, for each metre of it. */
const DETOUR_PER_DEPTH = 4;

/** Of the ways whose trench arrives and is nowhere deeper than it must be, a short one with little digging; null when the search misses all. */
function shortWay(grid: Grid, ask: Ask, deepestM: number): number[] | null {
  const { z, ncols, nrows, cellM } = grid;
  const { from, to, gradeM } = ask;
  const allowed = lowestAllowed(grid, ask, deepestM);
  const cost = new Float64Array(z.length).fill(Infinity);
  const invert = new Float64Array(z.length);
  const came = new Int32Array(z.length).fill(-1);
  const heap = new CellHeap();
  cost[from] = 0;
  invert[from] = z[from];
  heap.push(0, from);
  for (let cell = heap.pop(); cell >= 0 && cell !== to; cell = heap.pop()) {
    const col = cell % ncols;
    const row = (cell - col) / ncols;
    for (let d = 0; d < 8; d++) {
      const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
      if (c < 0 || r < 0 || c >= ncols || r >= nrows) continue;
      const next = r * ncols + c;
      const stepM = cellM * (d & 1 ? Math.SQRT2 : 1);
      const level = Math.min(invert[cell] - gradeM * stepM, z[next]);
      if (!(level >= Math.max(allowed[next], z[next] - deepestM) - 1e-9)) continue;
      const through = cost[cell] + stepM * (1 + DETOUR_PER_DEPTH * (z[next] - level));
      if (through >= cost[next]) continue;
      cost[next] = through;
      invert[next] = level;
      came[next] = cell;
      heap.push(through, next);
    }
  }
  return came[to] < 0 ? null : wayTo(came, to);
}

/** Cells within reach of the straight line between two places. */
function around(grid: Grid, from: Point, to: Point): Ask['isOpen'] {
  const beside = Math.max(BESIDE_LEAST_M, BESIDE_SHARE * Math.hypot(to[0] - from[0], to[1] - from[1]));
  const [west, east] = [Math.min(from[0], to[0]) - beside, Math.max(from[0], to[0]) + beside];
  const [south, north] = [Math.min(from[1], to[1]) - beside, Math.max(from[1], to[1]) + beside];
  const [left, right] = [(west - grid.west) / grid.cellM - 1, (east - grid.west) / grid.cellM];
  const [top, bottom] = [grid.nrows - (north - grid.south) / grid.cellM - 1, grid.nrows - (south - grid.south) / grid.cellM];
  return (col, row) => col >= left && col <= right && row >= top && row <= bottom;
}

/**
 * The line by which water could be led from a point to an outfall, with the shallowest trench there is at a grade. Null when
 * either lies off the ground or no data parts them.
 */
export function fallBetween(grid: Grid, { from, to, gradeM }: { from: Point; to: Point; gradeM: number }): FallLine | null {
  const [a, b] = [cellAt(grid, from), cellAt(grid, to)];
  if (a < 0 || b < 0 || Number.isNaN(grid.z[a]) || Number.isNaN(grid.z[b])) return null;
  const cells =
    a === b ? [] : shallowestWay(grid, { from: a, to: b, gradeM: Math.max(LEAST_GRADE, gradeM), isOpen: around(grid, from, to) });
  if (!cells) return null;
  const line = simplify([from, ...cells.slice(1, -1).map((cell) => centreOf(grid, cell)), to], 0.4 * grid.cellM);
  const lengthM = lineLength(line);
  const ground = profile(grid, line, grid.cellM);
  const start = ground[0].levelM;
  const end = ground[ground.length - 1].levelM;
  let [invert, arriving] = [start, start];
  const trench = ground.map((p, k) => {
    // It falls at least at the grade asked for, and never lies above the ground.
    if (k > 0) arriving = invert - gradeM * (p.atM - ground[k - 1].atM);
    invert = Math.min(arriving, p.levelM);
    return { ...p, depthM: p.levelM - invert };
  });
  const deepest = trench.reduce((best, p) => (p.depthM > best.depthM ? p : best));
  return {
    fallM: start - end,
    lengthM,
    slope: lengthM > 0 ? (start - end) / lengthM : 0,
    line,
    passM: Math.max(...ground.map((p) => p.levelM)),
    trench: { gradeM, profile: trench, deepestM: deepest.depthM, deepestAtM: deepest.atM, spareM: arriving - end },
  };
}
