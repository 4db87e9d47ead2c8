import type { Grid } from './grid.ts';

export interface Sun {
  /** Compass bearing of the light [degrees]. */
  readonly bearing: number;
  /** Height of the light above the horizon [degrees]. */
  readonly height: number;
}

export const NORTH_WEST_SUN: Sun = { bearing: 315, height: 45 };

const known = (level: number, otherwise: number): number => (Number.isNaN(level) ? otherwise : level);

/**
 * Hillshade 0..255 (Horn 1981 slopes), softened by a second, higher light from the same side so that slopes facing away
 * keep their form. No data is 0; ground is at least 1.
 */
export function hillshade(grid: Grid, sun = NORTH_WEST_SUN, exaggeration = 2): Uint8ClampedArray {
  const { ncols, nrows, z, cellM } = grid;
  const [bearing, height] = [(sun.bearing * Math.PI) / 180, (sun.height * Math.PI) / 180];
  const [toEast, toNorth, up] = [Math.sin(bearing) * Math.cos(height), Math.cos(bearing) * Math.cos(height), Math.sin(height)];
  const out = new Uint8ClampedArray(z.length);
  const k = exaggeration / (8 * cellM);
  // Neighbours are written out in plain variables: this runs for every cell before anything of the ground is seen.
  for (let row = 0, i = 0; row < nrows; row++) {
    const above = (row > 0 ? row - 1 : 0) * ncols;
    const own = row * ncols;
    const below = (row < nrows - 1 ? row + 1 : row) * ncols;
    for (let col = 0; col < ncols; col++, i++) {
      const here = z[i];
      if (Number.isNaN(here)) continue;
      const west = col > 0 ? col - 1 : 0;
      const east = col < ncols - 1 ? col + 1 : col;
      const a = known(z[above + west], here);
      const b = known(z[above + col], here);
      const c = known(z[above + east], here);
      const d = known(z[own + west], here);
      const f = known(z[own + east], here);
      const g = known(z[below + west], here);
      const h = known(z[below + col], here);
      const j = known(z[below + east], here);
      const dx = (c + 2 * f + j - a - 2 * d - g) * k; // rise to the east
      const dy = (a + 2 * b + c - g - 2 * h - j) * k; // rise to the north
      const norm = 1 / Math.sqrt(1 + dx * dx + dy * dy);
      // Ground that rises towards the light turns away from it.
      const low = (up - toEast * dx - toNorth * dy) * norm;
      const high = (0.95 - 0.3 * (toEast * dx + toNorth * dy)) * norm;
      out[i] = Math.max(1, 255 * (0.65 * Math.max(0, low) + 0.35 * high));
    }
  }
  return out;
}

/** Mean step from cell to cell that shows the form of a picture well, whatever its numbers are. */
const SHOWN_STEP = 0.12;

/** Hillshade of levels whose unit nobody knows yet, by their own mean step from cell to cell; and what they run between, null where there are none. */
export function shadedByThemselves(
  levels: Float32Array,
  { ncols, nrows }: Pick<Grid, 'ncols' | 'nrows'>,
): { readonly shade: Uint8ClampedArray; readonly between: readonly [least: number, most: number] | null } {
  let [least, most, sum, count] = [Infinity, -Infinity, 0, 0];
  for (let i = 0; i < levels.length; i++) {
    const here = levels[i];
    if (Number.isNaN(here)) continue;
    [least, most] = [Math.min(least, here), Math.max(most, here)];
    const step = i % ncols > 0 ? Math.abs(here - levels[i - 1]) : NaN;
    if (!Number.isNaN(step)) [sum, count] = [sum + step, count + 1];
  }
  const grid: Grid = { ncols, nrows, z: levels.map((v) => v - least), cellM: 1, west: 0, south: 0, baseM: 0 };
  const shade = hillshade(grid, NORTH_WEST_SUN, sum > 0 ? (SHOWN_STEP * count) / sum : 1);
  return { shade, between: least > most ? null : [least, most] };
}
