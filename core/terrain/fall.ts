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
  /** Highest ground on the way [m]: the pass that any line must cross. */
  readonly passM: number;
  /** A trench from the ground at the start, at the grade asked for. */
  readonly trench: {
    readonly gradeM: number;
    /** Ground, and depth of the trench under it, along the line. */
    readonly profile: readonly (ProfilePoint & { readonly depthM: number })[];
    readonly deepestM: number;
    readonly deepestAtM: number;
    /** How far above the outfall's ground the trench arrives [m]; below zero the outfall is too high for this grade. */
    readonly spareM: number;
  };
}

/** How much longer a way may be to save one metre of depth in the trench, for each metre of it. */
const DETOUR_PER_DEPTH = 4;

type Neighbours = (cell: number, visit: (next: number, stepM: number) => void) => void;

function neighboursOf(grid: Grid): Neighbours {
  const { ncols, nrows, z, cellM } = grid;
  return (cell, visit) => {
    const col = cell % ncols;
    const row = (cell - col) / ncols;
    for (let d = 0; d < 8; d++) {
      const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
      if (c < 0 || r < 0 || c >= ncols || r >= nrows) continue;
      const next = r * ncols + c;
      if (!Number.isNaN(z[next])) visit(next, cellM * (d & 1 ? Math.SQRT2 : 1));
    }
  };
}

/** Lowest level that some way between two cells need not rise above; Infinity when no data parts them. */
function passBetween(grid: Grid, from: number, to: number): number {
  const { z } = grid;
  const neighbours = neighboursOf(grid);
  const best = new Float64Array(z.length).fill(Infinity);
  const heap = new CellHeap();
  best[from] = z[from];
  heap.push(z[from], from);
  for (let cell = heap.pop(); cell >= 0; cell = heap.pop()) {
    if (cell === to) return best[cell];
    neighbours(cell, (next) => {
      const level = Math.max(best[cell], z[next]);
      if (level < best[next]) {
        best[next] = level;
        heap.push(level, next);
      }
    });
  }
  return Infinity;
}

/** Cheapest way at or under a pass: length, and more where the ground stands above the start. */
function wayUnder(grid: Grid, pass: number, { from, to }: { from: number; to: number }): number[] {
  const { z } = grid;
  const neighbours = neighboursOf(grid);
  const cost = new Float64Array(z.length).fill(Infinity);
  const came = new Int32Array(z.length).fill(-1);
  const heap = new CellHeap();
  cost[from] = 0;
  heap.push(0, from);
  for (let cell = heap.pop(); cell >= 0 && cell !== to; cell = heap.pop()) {
    neighbours(cell, (next, stepM) => {
      if (z[next] > pass) return;
      const rise = Math.max(0, (z[cell] + z[next]) / 2 - z[from]);
      const through = cost[cell] + stepM * (1 + DETOUR_PER_DEPTH * rise);
      if (through < cost[next]) {
        cost[next] = through;
        came[next] = cell;
        heap.push(through, next);
      }
    });
  }
  const way: number[] = [];
  for (let cell = to; cell >= 0; cell = came[cell]) way.push(cell);
  return way.reverse();
}

/**
 * The line by which water could be led from a point to an outfall, over the lowest pass between them, and the trench it
 * needs at a grade. Null when either lies off the ground or no data parts them.
 */
export function fallBetween(grid: Grid, { from, to, gradeM }: { from: Point; to: Point; gradeM: number }): FallLine | null {
  const [a, b] = [cellAt(grid, from), cellAt(grid, to)];
  if (a < 0 || b < 0 || Number.isNaN(grid.z[a]) || Number.isNaN(grid.z[b])) return null;
  const pass = passBetween(grid, a, b);
  if (!Number.isFinite(pass)) return null;
  const way = wayUnder(grid, pass, { from: a, to: b }).map((cell) => centreOf(grid, cell));
  const line = a === b ? [from, to] : simplify([from, ...way.slice(1, -1), to], 0.4 * grid.cellM);
  const lengthM = lineLength(line);
  const ground = profile(grid, line, grid.cellM);
  const start = ground[0].levelM;
  const end = ground[ground.length - 1].levelM;
  const trench = ground.map((p) => ({ ...p, depthM: Math.max(0, p.levelM - (start - gradeM * p.atM)) }));
  const deepest = trench.reduce((best, p) => (p.depthM > best.depthM ? p : best));
  return {
    fallM: start - end,
    lengthM,
    slope: lengthM > 0 ? (start - end) / lengthM : 0,
    line,
    passM: pass + grid.baseM,
    trench: { gradeM, profile: trench, deepestM: deepest.depthM, deepestAtM: deepest.atM, spareM: start - gradeM * lengthM - end },
  };
}
