// Hollows: ground that must fill before its water can go on.
import type { Point } from '../geometry/index.ts';
import { type Flow, receiverOf, stepsOf } from './kernels/flow.ts';
import { type Grid, STEP_COL, STEP_ROW, centreOf } from './grid.ts';

export interface Hollow {
  /** Deepest cell. */
  readonly bottom: number;
  readonly at: Point;
  readonly bottomM: number;
  /** Level at which it spills [m]. */
  readonly spillM: number;
  /** Where it spills: the first cell outside it that its water reaches; null where it reaches the edge of the ground. */
  readonly spillAt: Point | null;
  readonly depthM: number;
  readonly areaM2: number;
  readonly volumeM3: number;
  readonly cells: readonly number[];
  /** Too shallow or too small to be told from the noise of a survey. */
  readonly isNoise: boolean;
}

/** Shallower or smaller than this is taken as noise of the survey: common practice for lidar and GNSS grids. */
export const NOISE_DEPTH_M = 0.1;
export const NOISE_CELLS = 4;

/** A fill of less than this is the epsilon rise of the filling, not water [m]. */
const LEAST_FILL_M = 0.002;

/** All hollows of a surface, deepest first, each with its depth, area, volume and spill. `filled` is from fillDepressions of the same grid. */
export function hollowsOf(grid: Grid, filled: Float64Array, flow: Flow): Hollow[] {
  const { z, ncols, nrows } = grid;
  const off = stepsOf(ncols);
  const seen = new Uint8Array(z.length);
  const found: Hollow[] = [];
  for (let start = 0; start < z.length; start++) {
    if (seen[start] === 1 || !(filled[start] - z[start] > LEAST_FILL_M)) continue;
    const cells = [start];
    seen[start] = 1;
    for (let k = 0; k < cells.length; k++) {
      const i = cells[k];
      const col = i % ncols;
      const row = (i - col) / ncols;
      for (let d = 0; d < 8; d++) {
        const [c, r] = [col + STEP_COL[d], row + STEP_ROW[d]];
        if (c < 0 || r < 0 || c >= ncols || r >= nrows) continue;
        const j = i + off[d];
        if (seen[j] === 0 && filled[j] - z[j] > LEAST_FILL_M) {
          seen[j] = 1;
          cells.push(j);
        }
      }
    }
    found.push(describe(cells, { grid, filled, flow }));
  }
  return found.sort((a, b) => b.depthM - a.depthM);
}

function describe(cells: readonly number[], on: { grid: Grid; filled: Float64Array; flow: Flow }): Hollow {
  const { grid, filled, flow } = on;
  const { z, baseM, cellM } = grid;
  let bottom = cells[0];
  let level = Infinity;
  for (const i of cells) {
    if (z[i] < z[bottom]) bottom = i;
    if (filled[i] < level) level = filled[i];
  }
  let depth = 0;
  for (const i of cells) depth += Math.max(0, level - z[i]);
  const inside = new Set(cells);
  let out = bottom;
  while (out >= 0 && inside.has(out)) out = receiverOf(flow, out);
  const depthM = level - z[bottom];
  return {
    bottom,
    at: centreOf(grid, bottom),
    bottomM: z[bottom] + baseM,
    spillM: level + baseM,
    spillAt: out < 0 ? null : centreOf(grid, out),
    depthM,
    areaM2: cells.length * cellM ** 2,
    volumeM3: depth * cellM ** 2,
    cells,
    isNoise: depthM < NOISE_DEPTH_M || cells.length < NOISE_CELLS,
  };
}

export interface BreachLimits {
  readonly depthM: number;
  readonly lengthM: number;
}

/** Deepest and longest cut taken for a culvert or gap that the survey did not see: common practice. */
export const BREACH_LIMITS: BreachLimits = { depthM: 2, lengthM: 60 };

/** Fall from cell to cell in a cut [m]. */
const CUT_FALL_M = 1e-4;

/**
 * The surface with the rim of each hollow cut through along the way its water would go, down to ground lower than its
 * bottom: what a culvert or a gap too narrow for the survey would do. Hollows whose cut would be too deep or too long stay
 * as they are, to be filled.
 */
export function breachHollows(
  grid: Grid,
  flow: Flow,
  { hollows, limits = BREACH_LIMITS }: { hollows: readonly Hollow[]; limits?: BreachLimits },
): Grid {
  const z = Float32Array.from(grid.z);
  for (const hollow of hollows) {
    const path: number[] = [];
    let lengthM = 0;
    let rim = 0;
    let i = hollow.bottom;
    let isOut = false;
    for (let next = receiverOf(flow, i); next >= 0; next = receiverOf(flow, i)) {
      const isDiagonal = Math.abs(next - i) !== 1 && Math.abs(next - i) !== grid.ncols;
      lengthM += grid.cellM * (isDiagonal ? Math.SQRT2 : 1);
      i = next;
      if (z[i] < z[hollow.bottom] - CUT_FALL_M * (path.length + 1)) {
        isOut = true;
        break;
      }
      path.push(i);
      rim = Math.max(rim, z[i] - z[hollow.bottom]);
      if (rim > limits.depthM || lengthM > limits.lengthM) break;
    }
    // A path that runs off the ground lets water out there as well.
    const reachesEdge = receiverOf(flow, i) < 0;
    if (!(isOut || reachesEdge) || rim > limits.depthM || lengthM > limits.lengthM) continue;
    path.forEach((cell, k) => {
      z[cell] = Math.min(z[cell], z[hollow.bottom] - CUT_FALL_M * (k + 1));
    });
  }
  return { ...grid, z };
}
