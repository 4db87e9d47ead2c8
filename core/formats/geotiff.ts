import { fromArrayBuffer, writeArrayBuffer } from 'geotiff';
import { type Grid, MAX_CELLS, MAX_CELL_M, gridFromLevels } from '../terrain/index.ts';
import { refuseDegrees, tooBig } from './ascii-grid.ts';
import { requireCrs } from './crs.ts';
import { type ImportedTerrain, type InputFile, refuseFile } from './imported.ts';
import { isNoDataMark, onlyGround } from './levels.ts';
import { tiffFault } from './tiff-guard.ts';
import { UserError } from '../project/index.ts';

// GeoTIFF 1.1 keys (OGC 19-008r4): model type 1 projected, 2 geographic; raster type 2 pixel-is-point; 9001 metre.
const PROJECTED = 1;
const GEOGRAPHIC = 2;
const PIXEL_IS_POINT = 2;
const METRE = 9001;
const USER_DEFINED = 32767;

/** A block this large holds the largest terrain in four bands of single precision. */
const MOST_BLOCK_BYTES = 256e6;

type Image = Awaited<ReturnType<Awaited<ReturnType<typeof fromArrayBuffer>>['getImage']>>;

async function openImage({ name, bytes }: InputFile): Promise<Image> {
  const fault = tiffFault(bytes);
  if (fault !== null)
    refuseFile(name, 'geotiff.unreadable', {
      what: `it is not a readable TIFF, or it is cut short: ${fault}`,
      do: 'Download or export it again.',
    });
  try {
    const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    return await (await fromArrayBuffer(buffer)).getImage();
  } catch {
    return refuseFile(name, 'geotiff.unreadable', {
      what: 'it is not a readable TIFF, or it is cut short',
      do: 'Download or export it again.',
    });
  }
}

/** The system a file names, checked against what the user gave. */
async function systemOf(image: Image, name: string, wanted: string | null): Promise<string | null> {
  const keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>;
  if (keys.GTModelTypeGeoKey === GEOGRAPHIC) {
    refuseFile(name, 'crs.degrees', {
      what: 'its coordinates are longitude and latitude in degrees',
      field: 'GTModelTypeGeoKey',
      do: 'Convert it to a projected system in metres, such as the UTM zone of your land.',
    });
  }
  const units = keys.ProjLinearUnitsGeoKey;
  if (typeof units === 'number' && units !== METRE) {
    refuseFile(name, 'crs.not-metres', {
      what: `its unit of length has the code ${units}; only metres (9001) are read`,
      field: 'ProjLinearUnitsGeoKey',
      do: 'Convert it to a projected system in metres.',
    });
  }
  const code = keys.ProjectedCSTypeGeoKey;
  if (typeof code === 'number' && code !== USER_DEFINED && code > 0) {
    const own = await requireCrs(`EPSG:${code}`, name);
    if (wanted !== null && wanted !== own.code) {
      refuseFile(name, 'crs.mismatch', {
        what: `the file says ${own.code} (${own.name}), but ${wanted} was given`,
        field: 'crs',
        do: `Leave the system as the file says, or convert the file to ${wanted}.`,
      });
    }
    return own.code;
  }
  if (wanted === null && keys.GTModelTypeGeoKey === PROJECTED) {
    refuseFile(name, 'crs.unknown', {
      what: 'it is in a projected system that it does not name',
      field: 'ProjectedCSTypeGeoKey',
      do: 'Give its EPSG code when you bring it in.',
    });
  }
  return wanted;
}

/** Levels of packed numbers: the file's mark for no data is one of the numbers as packed. */
async function scaled(levels: Float64Array, image: Image, notes: string[]): Promise<void> {
  const mark = image.getGDALNoData();
  const told = (await image.getGDALMetadata(0)) ?? {};
  const [scale, offset] = [factorIn(told.SCALE, 1), factorIn(told.OFFSET, 0)];
  for (let i = 0; i < levels.length; i++) levels[i] = isNoDataMark(levels[i], mark) ? NaN : levels[i] * scale + offset;
  if (scale !== 1 || offset !== 0) notes.push(`Its numbers were turned into levels: times ${scale}, plus ${offset}.`);
}

function factorIn(text: unknown, otherwise: number): number {
  const value = typeof text === 'string' ? Number(text) : NaN;
  return Number.isFinite(value) ? value : otherwise;
}

/** A GeoTIFF of levels, first band. @throws UserError whatever is wrong with it: its keys may hold anything. */
export async function readGeoTiff(file: InputFile, wanted: string | null): Promise<ImportedTerrain> {
  try {
    return await readImage(file, wanted);
  } catch (error) {
    if (error instanceof UserError) throw error;
    return refuseFile(file.name, 'geotiff.unreadable', {
      what: 'its keys or its picture cannot be read',
      do: 'Download or export it again.',
    });
  }
}

async function readImage(file: InputFile, wanted: string | null): Promise<ImportedTerrain> {
  const { name } = file;
  const image = await openImage(file);
  const [ncols, nrows] = [image.getWidth(), image.getHeight()];
  if (ncols * nrows > MAX_CELLS) tooBig(name, ncols * nrows);
  if (ncols < 2 || nrows < 2)
    refuseFile(name, 'grid.size', { what: `${ncols} x ${nrows} cells make no terrain`, do: 'At least 2 x 2 cells are needed.' });
  const blockBytes = image.getTileWidth() * image.getTileHeight() * image.getBytesPerPixel();
  if (!(blockBytes > 0 && blockBytes <= MOST_BLOCK_BYTES))
    refuseFile(name, 'geotiff.blocks', {
      what: `its blocks unpack to ${Math.round(blockBytes / 1e6)} MB each`,
      do: 'Export it again in strips or tiles, one band alone.',
    });
  const { origin, cellM } = frameOf(image, name);
  const crs = await systemOf(image, name, wanted);
  const keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>;
  const shift = keys.GTRasterTypeGeoKey === PIXEL_IS_POINT ? cellM / 2 : 0;
  const west = origin[0] - shift;
  const south = origin[1] + shift - nrows * cellM;
  if (![west, south].every(Number.isFinite))
    refuseFile(name, 'geotiff.no-position', { what: 'where it lies is no number', do: 'Export it again with its position.' });
  refuseDegrees(name, { cell: cellM, west, south });
  const levels = await readLevels(image, name);
  const notes =
    crs === null ? ['The file names no coordinate system: positions are taken as local metres, and geographic exports are off.'] : [];
  await scaled(levels, image, notes);
  onlyGround(levels, { file: name, noData: null, notes });
  if (image.getSamplesPerPixel() > 1) notes.push(`It has ${image.getSamplesPerPixel()} bands; the first was read as levels.`);
  return { kind: 'terrain', grid: gridFromLevels({ ncols, nrows, cellM, west, south }, levels), crs, source: name, notes };
}

function frameOf(image: Image, name: string): { origin: number[]; cellM: number } {
  try {
    const origin = image.getOrigin();
    const [dx, dy] = image.getResolution();
    const cellM = Math.abs(dx);
    if (!(cellM > 0 && cellM <= MAX_CELL_M) || Math.abs(Math.abs(dy) - cellM) > 0.001 * cellM) {
      refuseFile(name, 'grid.not-square', {
        what: `its cells are ${Math.abs(dx)} by ${Math.abs(dy)}`,
        do: `Resample it to square cells of up to ${MAX_CELL_M} m.`,
      });
    }
    return { origin, cellM };
  } catch (error) {
    if (error instanceof Error && error.name === 'UserError') throw error;
    return refuseFile(name, 'geotiff.no-position', {
      what: 'it does not say where it lies (no tie point or pixel scale)',
      do: 'Export it as a GeoTIFF with its position, or as an ASCII grid.',
    });
  }
}

async function readLevels(image: Image, name: string): Promise<Float64Array> {
  try {
    const bands = await image.readRasters({ samples: [0] });
    return Float64Array.from(bands[0] as ArrayLike<number>);
  } catch {
    return refuseFile(name, 'geotiff.truncated', {
      what: 'its picture data is cut short or packed in a way that is not read',
      do: 'Download or export it again, uncompressed or with deflate.',
    });
  }
}

const NO_DATA = -9999;

/** A grid as a GeoTIFF of Float32 levels in a projected system. */
export function writeGeoTiff(grid: Grid, epsg: number): Uint8Array {
  const levels = Float32Array.from(grid.z, (v) => (Number.isNaN(v) ? NO_DATA : v + grid.baseM));
  const buffer = writeArrayBuffer(levels, {
    width: grid.ncols,
    height: grid.nrows,
    ModelPixelScale: [grid.cellM, grid.cellM, 0],
    ModelTiepoint: [0, 0, 0, grid.west, grid.south + grid.nrows * grid.cellM, 0],
    GTModelTypeGeoKey: PROJECTED,
    GTRasterTypeGeoKey: 1,
    ProjectedCSTypeGeoKey: epsg,
    GDAL_NODATA: String(NO_DATA),
  });
  return new Uint8Array(buffer);
}
