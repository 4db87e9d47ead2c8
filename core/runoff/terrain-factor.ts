// The terrain factor of soil loss from the grid: slope length by the ground above each cell, cut off where a work catches water.
import { type Flow, type Grid, JUMPS, stepsOf } from '../terrain/index.ts';
import { PLOT_M, lengthExponent, steepnessOf } from './soil-loss.ts';

/** Longest way water runs before it gathers into rills and channels the equation does not know [m] (RUSLE; handbook 5.10). */
export const LONGEST_SLOPE_M = 120;

/** Where slope length starts anew: cells that catch what runs (0 elsewhere). */
export interface SlopeBreaks {
  readonly owner: ArrayLike<number>;
}

/** Ground above each cell since the last break [cells], itself left out. */
function aboveSince({ receiver, jumps, order, ncols, cells }: Flow, owner: ArrayLike<number> | null): Float32Array {
  const above = new Float32Array(cells.length);
  const off = stepsOf(ncols);
  for (let k = 0; k < order.length; k++) {
    const i = order[k];
    const d = receiver[i];
    // A break passes nothing on, and water led in a pipe wears no ground.
    if (d < 0 || d === JUMPS || (owner !== null && owner[i] !== 0) || jumps.has(i)) continue;
    above[i + off[d]] += above[i] + 1;
  }
  return above;
}

/**
 * Terrain factor of every cell, NaN without ground: slope length by Desmet & Govers (1996, Journal of Soil and Water
 * Conservation 51) with the exponent and steepness of the revised equation. Cells whose water falls cornerwise count their
 * width as the diagonal.
 */
export function terrainFactor(on: {
  readonly grid: Grid;
  readonly flow: Flow;
  readonly slopes: Float32Array;
  readonly breaks: SlopeBreaks | null;
}): Float32Array {
  const { grid, flow, slopes, breaks } = on;
  const { cellM, z } = grid;
  const above = aboveSince(flow, breaks ? breaks.owner : null);
  const longest = LONGEST_SLOPE_M / cellM;
  const factor = new Float32Array(z.length).fill(NaN);
  for (let i = 0; i < z.length; i++) {
    if (z[i] !== z[i]) continue;
    const d = flow.receiver[i];
    const width = d >= 0 && d < JUMPS && (d & 1) === 1 ? Math.SQRT2 : 1;
    const m = lengthExponent(slopes[i]);
    // In cells: the ground entering over the width it enters by is the length run so far.
    const from = Math.min(above[i] / width, longest);
    const length = ((from + 1) ** (m + 1) - from ** (m + 1)) * (cellM / PLOT_M) ** m;
    factor[i] = length * steepnessOf(slopes[i]);
  }
  return factor;
}
