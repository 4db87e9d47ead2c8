// Noise taken out of a surveyed ground, its edges kept: cells are drawn to the planes of neighbours that face the same way.
import { type Grid, gridFromLevels } from './grid.ts';

/** How strongly: cells round one whose facing is taken together, rounds in which levels follow, and most a level moves by the noise. */
export const SMOOTHINGS = { light: { reach: 2, rounds: 2, most: 2 }, medium: { reach: 3, rounds: 4, most: 3 }, strong: { reach: 5, rounds: 8, most: 4 } } as const; // prettier-ignore
export type Smoothing = keyof typeof SMOOTHINGS;

/** Facings that differ by more than this are of two faces of an edge. */
const EDGE_DEG = 15;
const EDGE_COS = Math.cos((EDGE_DEG * Math.PI) / 180);

/** Cells looked at for the noise, at most. */
const SAMPLES = 60_000;
/** A normal spread's standard deviation by its middle size; a cell less the mean of its four neighbours spreads √1.25 as much. */
const BY_MEDIAN = 1.4826 / Math.sqrt(1.25);

/**
 * Noise of a ground [m]: how far cells stand off the mean of their four neighbours, as a standard deviation by the middle of all.
 * A plane has none, whatever its slope; banks and gullies are few and move the middle little. Null where too little is known.
 */
export function noiseOf({ ncols, nrows, z }: Pick<Grid, 'ncols' | 'nrows' | 'z'>): number | null {
  const step = Math.max(1, Math.floor((ncols * nrows) / SAMPLES));
  const off: number[] = [];
  for (let i = ncols + 1; i < z.length - ncols - 1; i += step) {
    const col = i % ncols;
    if (col === 0 || col === ncols - 1) continue;
    const d = Math.abs(z[i] - (z[i - 1] + z[i + 1] + z[i - ncols] + z[i + ncols]) / 4);
    if (!Number.isNaN(d)) off.push(d);
  }
  if (off.length < 10) return null;
  off.sort((a, b) => a - b);
  return BY_MEDIAN * off[off.length >> 1];
}

/** Slopes east and north of each cell, and one over the length of the facing they make with 1 upwards. */
interface Facings {
  readonly east: Float32Array;
  readonly north: Float32Array;
  readonly upright: Float32Array;
}

const facing = (east: Float32Array, north: Float32Array): Facings => {
  const upright = new Float32Array(east.length);
  for (let i = 0; i < upright.length; i++) upright[i] = 1 / Math.sqrt(east[i] * east[i] + north[i] * north[i] + 1);
  return { east, north, upright };
};

/** Slopes of each cell, by the least squares of its eight neighbours; level where one of them is not known. */
function facings({ ncols, nrows, cellM, z }: Grid): Facings {
  const [east, north] = [new Float32Array(z.length), new Float32Array(z.length)];
  const over = 6 * cellM;
  for (let row = 1; row < nrows - 1; row++)
    for (let col = 1; col < ncols - 1; col++) {
      const i = row * ncols + col;
      const [nw, n, ne] = [z[i - ncols - 1], z[i - ncols], z[i - ncols + 1]];
      const [sw, s, se] = [z[i + ncols - 1], z[i + ncols], z[i + ncols + 1]];
      const e = (ne + z[i + 1] + se - nw - z[i - 1] - sw) / over;
      const up = (nw + n + ne - sw - s - se) / over;
      // What is not a number is not equal to itself.
      if (e === e && up === up) [east[i], north[i]] = [e, up];
    }
  return facing(east, north);
}

/** Facings as the mean of those round them that face nearly the same way. */
function drawnTogether(of: Facings, { ncols, nrows, z }: Grid, reach: number): Facings {
  const [east, north] = [new Float32Array(z.length), new Float32Array(z.length)];
  for (let row = 0; row < nrows; row++)
    for (let col = 0; col < ncols; col++) {
      const i = row * ncols + col;
      const [a, b] = [of.east[i], of.north[i]];
      const own = of.upright[i];
      let [sumE, sumN, sum] = [0, 0, 0];
      for (let r = Math.max(0, row - reach); r <= Math.min(nrows - 1, row + reach); r++)
        for (let c = Math.max(0, col - reach); c <= Math.min(ncols - 1, col + reach); c++) {
          const j = r * ncols + c;
          if (z[j] !== z[j]) continue;
          const [p, q] = [of.east[j], of.north[j]];
          const alike = (a * p + b * q + 1) * own * of.upright[j] - EDGE_COS;
          if (alike <= 0) continue;
          const weight = alike * alike;
          sumE += weight * p;
          sumN += weight * q;
          sum += weight;
        }
      [east[i], north[i]] = sum > 0 ? [sumE / sum, sumN / sum] : [a, b];
    }
  return facing(east, north);
}

/** One round: each level as its neighbours' planes carry on to it, of those that face the same way; no farther from its own than may be. */
function followed(
  levels: Float64Array<ArrayBuffer>,
  { east, north, upright }: Facings,
  on: { readonly own: Float64Array; readonly ncols: number; readonly nrows: number; readonly cellM: number; readonly mostM: number },
): Float64Array<ArrayBuffer> {
  const { own, ncols, nrows, cellM, mostM } = on;
  const next = levels.slice();
  for (let row = 0; row < nrows; row++)
    for (let col = 0; col < ncols; col++) {
      const i = row * ncols + col;
      if (levels[i] !== levels[i]) continue;
      const [a, b] = [east[i], north[i]];
      let [sum, weights] = [0, 0];
      for (let r = Math.max(0, row - 1); r <= Math.min(nrows - 1, row + 1); r++)
        for (let c = Math.max(0, col - 1); c <= Math.min(ncols - 1, col + 1); c++) {
          const j = r * ncols + c;
          if (j === i || levels[j] !== levels[j]) continue;
          const [p, q] = [east[j], north[j]];
          const alike = (a * p + b * q + 1) * upright[i] * upright[j] - EDGE_COS;
          if (alike <= 0) continue;
          const weight = alike * alike;
          sum += weight * (levels[j] + cellM * ((col - c) * p + (r - row) * q));
          weights += weight;
        }
      if (weights > 0) next[i] = Math.min(own[i] + mostM, Math.max(own[i] - mostM, sum / weights));
    }
  return next;
} // prettier-ignore

export interface Smoothed {
  readonly grid: Grid;
  /** Noise before and after, and the most a level moved [m]. */
  readonly beforeM: number;
  readonly afterM: number;
  readonly movedM: number;
}

/**
 * The ground with its noise taken out. No level moves by more than a few times the noise, so that banks and gullies stay; where too
 * little is known to tell the noise, nothing is done. After the feature-preserving smoothing of Lindsay, Francioni & Cockburn 2019
 * (from memory), its bound by the noise our own.
 */
export function smoothed(grid: Grid, how: Smoothing): Smoothed | null {
  const beforeM = noiseOf(grid);
  if (beforeM === null) return null;
  const { ncols, nrows, cellM, west, south, z, baseM } = grid;
  const { reach, rounds, most } = SMOOTHINGS[how];
  const drawn = drawnTogether(facings(grid), grid, reach);
  const own = Float64Array.from(z, (v) => v + baseM);
  let levels = own;
  for (let round = 0; round < rounds; round++) levels = followed(levels, drawn, { own, ncols, nrows, cellM, mostM: most * beforeM });
  let movedM = 0;
  for (let i = 0; i < own.length; i++) if (own[i] === own[i]) movedM = Math.max(movedM, Math.abs(levels[i] - own[i]));
  const made = gridFromLevels({ ncols, nrows, cellM, west, south }, levels);
  return { grid: made, beforeM, afterM: noiseOf(made) ?? beforeM, movedM };
}
