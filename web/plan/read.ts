import type { Point } from '#core/geometry';
import type { TerrainView } from '../workers/protocol.ts';

/** Level, slope and area above at a place, from the page's copy of the ground; null off the terrain. */
export function readGround({ frame, z, areaM2 }: TerrainView, [x, y]: Point): { levelM: number; slope: number; areaM2: number } | null {
  const { ncols, nrows, cellM, west, south, baseM } = frame;
  const col = Math.floor((x - west) / cellM);
  const row = nrows - 1 - Math.floor((y - south) / cellM);
  if (col < 0 || row < 0 || col >= ncols || row >= nrows) return null;
  const at = (c: number, r: number): number => z[Math.min(nrows - 1, Math.max(0, r)) * ncols + Math.min(ncols - 1, Math.max(0, c))];
  const here = at(col, row);
  if (Number.isNaN(here)) return null;
  const [dx, dy] = [at(col + 1, row) - at(col - 1, row), at(col, row - 1) - at(col, row + 1)];
  return { levelM: here + baseM, slope: Math.hypot(dx, dy) / (2 * cellM), areaM2: areaM2[row * ncols + col] };
}
