import { fromArrayBuffer, writeArrayBuffer } from 'geotiff';
import { type Grid, MAX_CELLS, MAX_CELL_M } from '../terrain/index.ts';
import { requireCrs } from './crs.ts';
import { type LevelUnit, asSaid, looksLikeDegrees, tooBig } from './grid-limits.ts';
import { type ImportedTerrain, type InputFile, refuseFile } from './imported.ts';
import { isNoDataMark, onlyGround } from './levels.ts';
import { asItLies, laidFlat } from './lay-flat.ts';
import { DEGREES, type Foreign, feetSystem } from './systems.ts';
import { tiffFault } from './tiff-guard.ts';
import { UserError } from '../project/index.ts';

// GeoTIFF 1.1 keys (OGC 19-008r4): model type 1 projected, 2 geographic; raster type 2 pixel-is-point; 9001 metre.
const PROJECTED = 1;
const GEOGRAPHIC = 2;
const PIXEL_IS_POINT = 2;
const METRE = 9001;
const USER_DEFINED = 32767;
/** Cells longer than so many of their widths are no survey of ground. */
const MOST_OBLONG = 20;

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

/** A system in feet that a file names; null where its plan is in metres. */
async function feetOf(image: Image, name: string): Promise<Foreign | null> {
  const keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>;
  const code = keys.ProjectedCSTypeGeoKey;
  const isNamed = typeof code === 'number' && code !== USER_DEFINED && code > 0;
  const feet = isNamed ? await feetSystem(code) : null;
  if (feet) return feet;
  const units = keys.ProjLinearUnitsGeoKey;
  if (typeof units === 'number' && units !== METRE)
    refuseFile(name, 'crs.not-metres', {
      what: `its unit of length has the code ${units}, and its system is none in feet that is known`,
      field: 'ProjLinearUnitsGeoKey',
      do: 'Convert it to a projected system in metres, or to WGS 84.',
    });
  return null;
}

/** The system in metres a file names, checked against what the user gave. */
async function systemOf(image: Image, name: string, wanted: string | null): Promise<string | null> {
  const keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>;
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

/** What the user says of it. */
interface TiffHow {
  readonly crs: string | null;
  readonly levelsIn?: LevelUnit | undefined;
}

/** A GeoTIFF of levels, first band. @throws UserError whatever is wrong with it: its keys may hold anything. */
export async function readGeoTiff(file: InputFile, how: TiffHow): Promise<ImportedTerrain> {
  try {
    return await readImage(file, how);
  } catch (error) {
    if (error instanceof UserError) throw error;
    return refuseFile(file.name, 'geotiff.unreadable', {
      what: 'its keys or its picture cannot be read',
      do: 'Download or export it again.',
    });
  }
}

async function readImage(file: InputFile, { crs: wanted, levelsIn }: TiffHow): Promise<ImportedTerrain> {
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
  const keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>;
  const isGeographic = keys.GTModelTypeGeoKey === GEOGRAPHIC;
  const { origin, dx, dy } = frameOf(image, name);
  const isPoint = keys.GTRasterTypeGeoKey === PIXEL_IS_POINT;
  const [x0, y0] = [origin[0] + (isPoint ? 0 : dx / 2), origin[1] - (isPoint ? 0 : dy / 2)];
  const [west, south] = [x0 - dx / 2, y0 + dy / 2 - nrows * dy];
  if (![west, south].every(Number.isFinite))
    refuseFile(name, 'geotiff.no-position', { what: 'where it lies is no number', do: 'Export it again with its position.' });
  const feet = isGeographic ? null : await feetOf(image, name);
  const crs = isGeographic || feet ? null : await systemOf(image, name, wanted);
  if (!isGeographic && !feet && looksLikeDegrees({ cell: dx, west, south }))
    refuseFile(name, 'crs.degrees', {
      what: `cells of ${dx} at ${west}, ${south} are degrees, though it does not say so`,
      do: 'Export it again with its system, or convert it to the UTM zone of your land.',
    });
  const notes: string[] = [];
  const levels = await readLevels(image, name);
  await scaled(levels, image, notes);
  if (!inMetres(levels, { unit: keys.VerticalUnitsGeoKey, file: name, notes }))
    asSaid(levels, { said: levelsIn, isPlanInFeet: feet !== null, file: name, notes });
  onlyGround(levels, { file: name, noData: null, notes });
  if (image.getSamplesPerPixel() > 1) notes.push(`It has ${image.getSamplesPerPixel()} bands; the first was read as levels.`);
  const lattice = { ncols, nrows, x0, y0, dx, dy, levels };
  if (feet) return laidFlat(lattice, { file: name, wanted, from: feet, notes });
  if (isGeographic) {
    notes.push(...datumNotes(keys.GeographicTypeGeoKey, name));
    return laidFlat(lattice, { file: name, wanted, from: DEGREES, notes });
  }
  return asItLies(lattice, { file: name, crs, notes });
}

/** Datums within two metres of WGS 84, by their EPSG codes: ETRS89, NAD83, GDA94, GDA2020, NZGD2000, SIRGAS 2000. */
const NEAR_WGS84: ReadonlySet<unknown> = new Set([4258, 4269, 4283, 7844, 4167, 4674]);
const WGS84 = 4326;

/** What is told of a datum of degrees. @throws UserError where it may lie far off. */
function datumNotes(datum: unknown, name: string): string[] {
  if (datum === WGS84) return [];
  const known = typeof datum === 'number' && datum !== USER_DEFINED;
  if (known && !NEAR_WGS84.has(datum))
    refuseFile(name, 'crs.datum', {
      what: `its degrees are on a datum (${datum}) that may lie a hundred metres off WGS 84`,
      field: 'GeographicTypeGeoKey',
      do: 'Convert it to WGS 84 or to a projected system in metres.',
    });
  return [known ? `Its datum (${datum}) was taken as WGS 84: up to two metres off.` : 'It names no datum: WGS 84 was taken.'];
}

/** Units of length by their EPSG codes, in metres: metre, foot, US survey foot. */
const UNITS: ReadonlyMap<unknown, readonly [string, number]> = new Map([
  [METRE, ['metres', 1]],
  [9002, ['feet', 0.3048]],
  [9003, ['US survey feet', 1200 / 3937]],
]);

/** Levels in another unit are turned into metres, and it is said; false where the file names no unit. */
function inMetres(
  levels: Float64Array,
  { unit, file, notes }: { readonly unit: unknown; readonly file: string; readonly notes: string[] },
): boolean {
  if (unit === undefined || unit === USER_DEFINED || unit === 0) return false;
  const [name, m] =
    UNITS.get(unit) ??
    refuseFile(file, 'levels.unit', {
      what: `its levels are in a unit with the code ${JSON.stringify(unit).slice(0, 20)}`,
      field: 'VerticalUnitsGeoKey',
      do: 'Convert them to metres.',
    });
  if (m === 1) return true;
  for (let i = 0; i < levels.length; i++) levels[i] *= m;
  notes.push(`Its levels were in ${name}; they were turned into metres.`);
  return true;
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

/** A grid as a GeoTIFF of Float32 levels; in no system where its number is null. */
export function writeGeoTiff(grid: Grid, epsg: number | null): Uint8Array {
  const levels = Float32Array.from(grid.z, (v) => (Number.isNaN(v) ? NO_DATA : v + grid.baseM));
  const buffer = writeArrayBuffer(levels, {
    width: grid.ncols,
    height: grid.nrows,
    ModelPixelScale: [grid.cellM, grid.cellM, 0],
    ModelTiepoint: [0, 0, 0, grid.west, grid.south + grid.nrows * grid.cellM, 0],
    GTRasterTypeGeoKey: 1,
    // Without a word on its system the writer would call it degrees.
    ...(epsg === null
      ? { GTModelTypeGeoKey: USER_DEFINED, ProjectedCSTypeGeoKey: USER_DEFINED }
      : { GTModelTypeGeoKey: PROJECTED, ProjectedCSTypeGeoKey: epsg }),
    GDAL_NODATA: String(NO_DATA),
  });
  return new Uint8Array(buffer);
}
