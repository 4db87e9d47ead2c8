// The hollow a place lies in: what must fill before water there runs on.
import type { Point } from '../geometry/index.ts';
import { type Grid, STEP_COL, STEP_ROW, cellAt, centreOf } from './grid.ts';
import { CellHeap } from './heap.ts';

export interface PoolGround {
  /** Its lowest ground, where its water runs on, and how high it then stands [m]. */
  readonly lowM: number;
  readonly lowAt: Point;
  readonly spillM: number;
  readonly spillAt: Point;
  /** Cells that lie under water then, lowest first, and their levels [m]. */
  readonly cells: Int32Array;
  readonly levelM: Float64Array;
  readonly cellM2: number;
}

/** Steps lower than this are the roughness of a survey, not a way out [m]. */
const ROUGH_M = 0.015;
/** More cells than a yard has are not followed. */
const MOST_CELLS = 60_000;

/** The lowest cell within a cell and a half of a place; -1 where no level is known. */
function lowestNear(grid: Grid, at: Point): number {
  const { ncols, nrows, z } = grid;
  const middle = cellAt(grid, at);
  if (middle < 0 || Number.isNaN(z[middle])) return -1;
  let best = middle;
  const [col, row] = [middle % ncols, Math.floor(middle / ncols)];
  for (let d = 0; d < 8; d++) {
    const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
    if (c >= 0 && r >= 0 && c < ncols && r < nrows && z[r * ncols + c] < z[best]) best = r * ncols + c;
  }
  return best;
}

/** Downhill from a cell by its lowest neighbour, to where none is lower. */
function bottomBelow({ ncols, nrows, z }: Grid, from: number): number {
  let cell = from;
  for (let step = 0; step < ncols + nrows; step++) {
    let next = cell;
    const [col, row] = [cell % ncols, Math.floor(cell / ncols)];
    for (let d = 0; d < 8; d++) {
      const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
      if (c >= 0 && r >= 0 && c < ncols && r < nrows && z[r * ncols + c] < z[next]) next = r * ncols + c;
    }
    if (next === cell) return cell;
    cell = next;
  }
  return cell;
}

interface Filled {
  readonly cells: number[];
  readonly level: number;
  readonly spill: number;
}

/** Fills from a cell outwards, the lowest cell first, until one lies lower than the water. */
function filledFrom({ ncols, nrows, z }: Grid, start: number): Filled {
  const heap = new CellHeap();
  const isSeen = new Set([start]);
  heap.push(z[start], start);
  const cells: number[] = [];
  let [level, spill] = [-Infinity, start];
  while (cells.length < MOST_CELLS) {
    const next = heap.pop();
    if (next < 0) break;
    // Beyond what is known water runs away: such a place is numbered after all cells.
    const isOut = next >= z.length;
    const cell = isOut ? next - z.length : next;
    spill = cell;
    if (isOut || z[cell] < level - ROUGH_M) break;
    level = Math.max(level, z[cell]);
    cells.push(cell);
    const [col, row] = [cell % ncols, Math.floor(cell / ncols)];
    for (let d = 0; d < 8; d++) {
      const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
      const beside = r * ncols + c;
      const isKnown = c >= 0 && r >= 0 && c < ncols && r < nrows && !Number.isNaN(z[beside]);
      if (!isKnown) heap.push(-Infinity, z.length + cell);
      else if (!isSeen.has(beside)) {
        isSeen.add(beside);
        heap.push(z[beside], beside);
      }
    }
  }
  return { cells, level, spill };
}

/** Dips of a survey that are slid over on the way down, at the most. */
const MOST_DIPS = 60;

/** The hollow in whose water a cell comes to lie; on a slope what little stands about it. */
function hollowOf(grid: Grid, start: number): Filled {
  const { z } = grid;
  let from = start;
  for (let k = 0; k < MOST_DIPS; k++) {
    const bottom = bottomBelow(grid, from);
    const found = filledFrom(grid, bottom);
    const isHollow = found.level - z[bottom] > ROUGH_M;
    if (isHollow) {
      if (found.cells.includes(start)) return found;
      break;
    }
    if (found.spill === from || z[found.spill] >= z[bottom]) break;
    from = found.spill;
  }
  return filledFrom(grid, start);
}

/**
 * The hollow a place lies in, filled from its bottom outwards by the lowest cell first until one lies lower than the water (Barnes
 * 2014, priority flood, for one hollow). On a slope nothing fills and it is no deeper than the survey is rough. Ground nobody knows
 * lets water out. Null where no level is known at the place itself.
 */
export function poolAt(grid: Grid, at: Point): PoolGround | null {
  const { z, baseM } = grid;
  const start = lowestNear(grid, at);
  if (start < 0) return null;
  const found = hollowOf(grid, start);
  const cells = Int32Array.from(found.cells).sort((a, b) => z[a] - z[b]);
  return {
    lowM: z[cells[0]] + baseM,
    lowAt: centreOf(grid, cells[0]),
    spillM: found.level + baseM,
    spillAt: centreOf(grid, found.spill),
    cells,
    levelM: Float64Array.from(cells, (cell) => z[cell] + baseM),
    cellM2: grid.cellM ** 2,
  };
}

/** Water in a hollow up to a level, and its surface [m3, m2]: over where it runs on it stands straight up. */
export function poolHolds({ levelM, cellM2 }: PoolGround, upToM: number): { readonly volumeM3: number; readonly areaM2: number } {
  let [depths, wet] = [0, 0];
  for (; wet < levelM.length && levelM[wet] < upToM; wet++) depths += upToM - levelM[wet];
  return { volumeM3: depths * cellM2, areaM2: wet * cellM2 };
}

/** Hollows found from two places are one where the lowest of either lies in the other, and both run on at the same level. */
export const isSamePool = (a: PoolGround, b: PoolGround): boolean =>
  Math.abs(a.spillM - b.spillM) < SAME_SPILL_M && (a.cells.includes(b.cells[0]) || b.cells.includes(a.cells[0]));
const SAME_SPILL_M = 0.02;
