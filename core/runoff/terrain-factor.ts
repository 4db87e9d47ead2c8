// The terrain factor of soil loss from the grid: slope length by the ground above each cell, cut off where a work catches water.
import { type Flow, type Grid, spreadArea, straddleOf } from '../terrain/index.ts';
import { PLOT_M, lengthExponent, steepnessOf } from './soil-loss.ts';

/** Longest way water runs before it gathers into rills and channels the equation does not know [m] (RUSLE; handbook 5.10). */
export const LONGEST_SLOPE_M = 120;

/** Width of a cell across its fall line [cells]: 1 along the rows, the diagonal cornerwise. */
function widthOf(flow: Flow, i: number): number {
  const { cardinal, diagonal, driftCardinal } = straddleOf(flow, i);
  if (cardinal < 0 && diagonal < 0) return 1;
  if (cardinal < 0) return Math.SQRT2;
  const sin = Math.abs(driftCardinal);
  return sin + Math.sqrt(1 - sin * sin);
}

export interface Sloping {
  readonly grid: Grid;
  readonly filled: Float64Array;
  readonly flow: Flow;
  readonly slopes: Float32Array;
  /** Where slope length starts anew: cells that catch what runs (0 elsewhere). */
  readonly stops: ArrayLike<number> | null;
}

/** Terrain factors with the ground above each cell [cells] they were worked out from. */
export interface TerrainFactors {
  readonly factor: Float32Array;
  readonly area: Float64Array;
}

/**
 * Terrain factor of every cell, NaN without ground: slope length by Desmet & Govers (1996, Journal of Soil and Water
 * Conservation 51) with the exponent and steepness of the revised equation. What runs onto a cell is shared among lower
 * neighbours, so that an even slope wears evenly; a cell that catches water passes nothing on. Where as much ground lies above a
 * cell as `before`, on the same ground, its factor is the same.
 */
export function terrainFactors(on: Sloping, before: TerrainFactors | null = null): TerrainFactors {
  const { grid, filled, flow, slopes, stops } = on;
  const { cellM, z } = grid;
  const area = spreadArea(grid, filled, stops);
  const longest = LONGEST_SLOPE_M / cellM;
  const factor = before ? before.factor.slice() : new Float32Array(z.length).fill(NaN);
  for (let i = 0; i < z.length; i++) {
    if (z[i] !== z[i] || (before && area[i] === before.area[i])) continue;
    const m = lengthExponent(slopes[i]);
    // In cells: the ground entering over the width it enters by is the length run so far.
    const from = Math.min((area[i] - 1) / widthOf(flow, i), longest);
    const length = ((from + 1) ** (m + 1) - from ** (m + 1)) * (cellM / PLOT_M) ** m;
    factor[i] = length * steepnessOf(slopes[i]);
  }
  return { factor, area };
}

/** The same, the factors alone. */
export const terrainFactor = (on: Sloping): Float32Array => terrainFactors(on).factor;
