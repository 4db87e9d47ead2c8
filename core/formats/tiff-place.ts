// Where the cells of a GeoTIFF lie in its own coordinates, and which of them are asked for.
import type { fromArrayBuffer } from 'geotiff';
import { type Cells, type CellsWithin, MAX_CELLS, MAX_CELL_M, type Part, cellsWithin, extentOfCells, isTerrain } from '../terrain/index.ts';
import { tooBig } from './grid-limits.ts';
import { refuseFile } from './imported.ts';

export type Image = Awaited<ReturnType<Awaited<ReturnType<typeof fromArrayBuffer>>['getImage']>>;

// GeoTIFF 1.1 keys (OGC 19-008r4): model type 2 geographic; raster type 2 pixel-is-point.
const GEOGRAPHIC = 2;
const PIXEL_IS_POINT = 2;
/** Cells longer than so many of their widths are no survey of ground. */
const MOST_OBLONG = 20;

export const keysOf = (image: Image): Record<string, unknown> => (image.getGeoKeys() ?? {}) as Record<string, unknown>;

export const isInDegrees = (image: Image): boolean => keysOf(image).GTModelTypeGeoKey === GEOGRAPHIC;

/** All cells of a picture. @throws UserError where it does not say where it lies, or makes no terrain. */
export async function cellsOf(image: Image, name: string): Promise<Cells> {
  await northUp(image, name);
  const [ncols, nrows] = [image.getWidth(), image.getHeight()];
  if (ncols < 2 || nrows < 2)
    refuseFile(name, 'grid.size', { what: `${ncols} x ${nrows} cells make no terrain`, do: 'At least 2 x 2 cells are needed.' });
  const { origin, dx, dy } = frameOf(image, name);
  const isPoint = keysOf(image).GTRasterTypeGeoKey === PIXEL_IS_POINT;
  const [x0, y0] = [origin[0] + (isPoint ? 0 : dx / 2), origin[1] - (isPoint ? 0 : dy / 2)];
  if (![x0 - dx / 2, y0 + dy / 2 - nrows * dy].every(Number.isFinite))
    refuseFile(name, 'geotiff.no-position', { what: 'where it lies is no number', do: 'Export it again with its position.' });
  return { ncols, nrows, x0, y0, dx, dy };
}

/** @throws UserError where a matrix turns it, or has it stand on its head: cells would lie elsewhere than they are. */
async function northUp(image: Image, name: string): Promise<void> {
  if (!image.fileDirectory.hasTag('ModelTransformation')) return;
  const m = Array.from((await image.fileDirectory.loadValue('ModelTransformation')) as ArrayLike<number>, Number);
  if (m[1] === 0 && m[4] === 0 && m[0] > 0 && m[5] < 0) return;
  refuseFile(name, 'geotiff.turned', {
    what: 'it lies turned, or upside down, on the ground',
    do: 'Export it again with north up and rows from north to south.',
  });
}

/** The upper left corner, or the middle of that cell, and how wide and high cells are, in the file's own unit. */
function frameOf(image: Image, name: string): { origin: number[]; dx: number; dy: number } {
  try {
    const origin = image.getOrigin();
    const [dx, dy] = image.getResolution().map(Math.abs);
    if (!(dx > 0 && dx <= MAX_CELL_M && dy > 0 && dy <= MAX_CELL_M) || Math.max(dx, dy) > MOST_OBLONG * Math.min(dx, dy)) {
      refuseFile(name, 'grid.not-square', {
        what: `its cells are ${dx} by ${dy}`,
        do: `Resample it to square cells of up to ${MAX_CELL_M} m.`,
      });
    }
    return { origin, dx, dy };
  } catch (error) {
    if (error instanceof Error && error.name === 'UserError') throw error;
    return refuseFile(name, 'geotiff.no-position', {
      what: 'it does not say where it lies (no tie point or pixel scale)',
      do: 'Export it as a GeoTIFF with its position, or as an ASCII grid.',
    });
  }
}

/** The cells that lie in a part, or all of them. @throws UserError where there are none, or too many. */
export function cutTo(all: Cells, part: Part | null, name: string): CellsWithin {
  const { west, south, east, north } = extentOfCells(all);
  const covers = `${west} to ${east} and ${south} to ${north}`;
  const cut = part ? cellsWithin(all, part) : { col: 0, row: 0, cells: all };
  const { ncols, nrows } = cut.cells;
  if (isTerrain(cut.cells)) return cut;
  if (ncols * nrows > MAX_CELLS)
    tooBig(
      name,
      ncols * nrows,
      part ? 'Bring in a smaller part of it.' : `Bring in a part of it: your land and all that drains to it. It covers ${covers}.`,
    );
  return refuseFile(name, 'grid.part', {
    what: `hardly a cell of it lies in the part asked for; it covers ${covers}`,
    do: 'Name a part in its own coordinates: west, south, east, north.',
  });
}
