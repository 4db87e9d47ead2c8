// First and second derivatives of the ground, cell by cell: slope, aspect, curvature and the wetness index.
import type { Grid } from './grid.ts';

/** The nine levels around a cell; a missing neighbour is continued straight on from the other side, or is the cell's own. */
export function windowAt({ ncols, nrows, z }: Grid, i: number, into: Float64Array): void {
  const col = i % ncols;
  const row = (i - col) / ncols;
  const here = z[i];
  for (let dr = -1; dr <= 1; dr++) {
    for (let dc = -1; dc <= 1; dc++) {
      const [c, r] = [col + dc, row + dr];
      const own = c < 0 || r < 0 || c >= ncols || r >= nrows ? NaN : z[r * ncols + c];
      const [oc, or] = [col - dc, row - dr];
      const opposite = oc < 0 || or < 0 || oc >= ncols || or >= nrows ? NaN : z[or * ncols + oc];
      const mirrored = Number.isNaN(opposite) ? here : 2 * here - opposite;
      into[(dr + 1) * 3 + dc + 1] = Number.isNaN(own) ? mirrored : own;
    }
  }
}

export interface Derivatives {
  /** Steepest slope [m/m] (Horn 1981, Proc. IEEE 69(1)). */
  readonly slope: Float32Array;
  /** Compass bearing of the fall line [degrees clockwise from north]; NaN on level ground. */
  readonly aspect: Float32Array;
  /** Curvature along the fall line [1/m]: positive where a slope grows gentler downhill (hollow), negative where it steepens. */
  readonly profile: Float32Array;
  /** Curvature across the fall line [1/m]: positive where water draws together (valley), negative where it parts (ridge). */
  readonly plan: Float32Array;
}

/**
 * Slope, aspect and curvatures of every cell; NaN on no data.
 * Curvature by the partial quartic of Zevenbergen & Thorne (1987, Earth Surface Processes and Landforms 12, eqs 3-15), with
 * the signs turned so that both are positive where water gathers.
 */
export function derivativesOf(grid: Grid): Derivatives {
  const { z, cellM: L } = grid;
  const n = z.length;
  const [slope, aspect] = [new Float32Array(n).fill(NaN), new Float32Array(n).fill(NaN)];
  const [profile, plan] = [new Float32Array(n).fill(NaN), new Float32Array(n).fill(NaN)];
  const w = new Float64Array(9);
  for (let i = 0; i < n; i++) {
    const here = z[i];
    if (here !== here) continue;
    windowAt(grid, i, w);
    // Rise to the east and to the north.
    const east = (w[2] + 2 * w[5] + w[8] - w[0] - 2 * w[3] - w[6]) / (8 * L);
    const north = (w[0] + 2 * w[1] + w[2] - w[6] - 2 * w[7] - w[8]) / (8 * L);
    slope[i] = Math.sqrt(east * east + north * north);
    if (slope[i] > 0) aspect[i] = ((Math.atan2(-east, -north) * 180) / Math.PI + 360) % 360;
    const D = ((w[3] + w[5]) / 2 - here) / (L * L);
    const E = ((w[1] + w[7]) / 2 - here) / (L * L);
    const F = (-w[0] + w[2] + w[6] - w[8]) / (4 * L * L);
    const G = (w[5] - w[3]) / (2 * L);
    const H = (w[1] - w[7]) / (2 * L);
    const g2 = G * G + H * H;
    profile[i] = g2 < 1e-12 ? 0 : (2 * (D * G * G + E * H * H + F * G * H)) / g2;
    plan[i] = g2 < 1e-12 ? 0 : (2 * (D * H * H + E * G * G - F * G * H)) / g2;
  }
  return { slope, aspect, profile, plan };
}

/** Slopes under this are taken as this in the wetness index: on a level it would have no end [m/m]. */
const LEAST_SLOPE = 0.001;

/**
 * Topographic wetness index ln(a / tan b) (Beven & Kirkby 1979, Hydrological Sciences Bulletin 24), a being the area above
 * per metre of contour. `area` in cells, from spreadArea.
 */
export function wetnessOf(area: ArrayLike<number>, slope: ArrayLike<number>, cellM: number): Float32Array {
  const wetness = new Float32Array(slope.length).fill(NaN);
  for (let i = 0; i < slope.length; i++) {
    const s = slope[i];
    if (s === s) wetness[i] = Math.log((area[i] * cellM) / Math.max(LEAST_SLOPE, s));
  }
  return wetness;
}
