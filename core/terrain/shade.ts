import type { Grid } from './grid.ts';

/**
 * Hillshade 0..255 with light from the north-west at 45 degrees (Horn 1981 slopes), softened by a second, higher light
 * so that slopes facing away keep their form. No data is 0; ground is at least 1.
 */
export function hillshade(grid: Grid, exaggeration = 2): Uint8ClampedArray {
  const { ncols, nrows, z, cellM } = grid;
  const out = new Uint8ClampedArray(z.length);
  const k = exaggeration / (8 * cellM);
  const level = (row: number, col: number, here: number): number => {
    const v = z[Math.min(nrows - 1, Math.max(0, row)) * ncols + Math.min(ncols - 1, Math.max(0, col))];
    return Number.isNaN(v) ? here : v;
  };
  for (let row = 0, i = 0; row < nrows; row++) {
    for (let col = 0; col < ncols; col++, i++) {
      const here = z[i];
      if (Number.isNaN(here)) continue;
      const [a, b, c] = [level(row - 1, col - 1, here), level(row - 1, col, here), level(row - 1, col + 1, here)];
      const [d, f] = [level(row, col - 1, here), level(row, col + 1, here)];
      const [g, h, j] = [level(row + 1, col - 1, here), level(row + 1, col, here), level(row + 1, col + 1, here)];
      const dx = (c + 2 * f + j - a - 2 * d - g) * k; // rise to the east
      const dy = (a + 2 * b + c - g - 2 * h - j) * k; // rise to the north
      const norm = 1 / Math.sqrt(1 + dx * dx + dy * dy);
      const low = (0.5 * dx - 0.5 * dy + Math.SQRT1_2) * norm; // light from the north-west, 45 degrees up
      const high = (0.1 * dx - 0.3 * dy + 0.95) * norm;
      out[i] = Math.max(1, 255 * (0.65 * Math.max(0, low) + 0.35 * high));
    }
  }
  return out;
}
