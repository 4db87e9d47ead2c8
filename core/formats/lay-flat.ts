// Levels in degrees or in feet, brought onto square cells in metres: the system wanted, else the UTM zone of their middle.
import type { Point } from '../geometry/index.ts';
import { MAX_CELL_M, gridFromLevels } from '../terrain/index.ts';
import { tooBig } from './grid-limits.ts';
import { fromLonLat, requireCrs, toLonLat, utmCodeFor } from './crs.ts';
import { type ImportedTerrain, refuseFile } from './imported.ts';
import { type Lattice, frameOver, isTooLarge, squared, warped } from './resample.ts';
import type { Foreign } from './systems.ts';

/** Between these latitudes a zone can be laid flat. */
const [LOWEST_LAT, HIGHEST_LAT] = [-80, 84];

export async function laidFlat(of: Lattice, { file, wanted, from, notes }: { readonly file: string; readonly wanted: string | null; readonly from: Foreign; readonly notes: string[] }): Promise<ImportedTerrain> {
  const { ncols, nrows, x0, y0, dx, dy } = of;
  const [east, south] = [x0 + (ncols - 1) * dx, y0 - (nrows - 1) * dy];
  const corners = ([[x0, y0], [east, south]] as const).map(from.toLonLat);
  const isOnEarth = ([lon, lat]: Point): boolean => lon >= -180 && lon <= 180 && lat >= LOWEST_LAT && lat <= HIGHEST_LAT;
  if (!corners.every(isOnEarth))
    refuseFile(file, 'crs.not-degrees', {
      what: from.isDegrees
        ? `${south} to ${y0} and ${x0} to ${east} are no latitudes and longitudes that can be laid flat`
        : `${x0} to ${east} and ${south} to ${y0} lie nowhere in ${from.said}`,
      field: 'crs',
      do: 'Check its system, or convert it to metres.',
    });
  const middle = from.toLonLat([(x0 + east) / 2, (y0 + south) / 2]);
  const crs = await requireCrs(wanted ?? utmCodeFor(middle), file);
  const frame = frameOver(of, (place) => fromLonLat(crs, from.toLonLat(place)));
  if (!Number.isFinite(frame.ncols * frame.nrows))
    refuseFile(file, 'crs.far', {
      what: `it lies too far from where ${crs.code} (${crs.name}) is laid out`,
      field: 'crs',
      do: 'Leave the system out, or give that of your land.',
    });
  if (isTooLarge(frame)) tooBig(file, frame.ncols * frame.nrows);
  if (frame.cellM > MAX_CELL_M)
    refuseFile(file, 'grid.coarse', { what: `its cells are about ${frame.cellM} m wide`, do: `Bring in a finer one: up to ${MAX_CELL_M} m.` });
  notes.unshift(`Its ${from.said} were laid flat in ${crs.code} (${crs.name}), on cells of ${frame.cellM} m.`);
  const levels = warped(of, frame, (place) => from.fromLonLat(toLonLat(crs, place)));
  return { kind: 'terrain', grid: gridFromLevels(frame, levels), crs: crs.code, source: file, notes };
} // prettier-ignore

const isSquare = (dx: number, dy: number): boolean => Math.abs(dy - dx) <= 0.001 * dx;

/** Levels in metres as they lie, oblong cells made square. */
export function asItLies(of: Lattice, { file, crs, notes }: { readonly file: string; readonly crs: string | null; readonly notes: string[] }): ImportedTerrain {
  const { ncols, nrows, x0, y0, dx, dy, levels } = of;
  if (crs === null) notes.unshift('The file names no coordinate system: positions are taken as local metres, and geographic exports are off.');
  if (isSquare(dx, dy)) {
    const frame = { ncols, nrows, cellM: dx, west: x0 - dx / 2, south: y0 + dy / 2 - nrows * dy };
    return { kind: 'terrain', grid: gridFromLevels(frame, levels), crs, source: file, notes };
  }
  const made = squared(of);
  if (isTooLarge(made.frame)) tooBig(file, made.frame.ncols * made.frame.nrows);
  notes.push(`Its cells of ${dx} by ${dy} m were made square, ${made.frame.cellM} m, straight between their middles.`);
  return { kind: 'terrain', grid: gridFromLevels(made.frame, made.levels), crs, source: file, notes };
} // prettier-ignore
