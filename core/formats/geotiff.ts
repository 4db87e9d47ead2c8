import { fromArrayBuffer, writeArrayBuffer } from 'geotiff';
import { type CellsWithin, type Grid, type Part, extentOfCells } from '../terrain/index.ts';
import { type Crs, requireCrs } from './crs.ts';
import { type LevelUnit, asSaid, looksLikeDegrees } from './grid-limits.ts';
import { type ImportedTerrain, type InputFile, refuseFile } from './imported.ts';
import { isNoDataMark, onlyGround } from './levels.ts';
import { asItLies, laidFlat } from './lay-flat.ts';
import { hasSoundJpegs } from './jpeg-guard.ts';
import { DEGREES, type Foreign, datumNotes, feetSystem } from './systems.ts';
import { tiffFault } from './tiff-guard.ts';
import { type Image, cellsOf, cutTo, isInDegrees, keysOf } from './tiff-place.ts';
import { UserError } from '../project/index.ts';

// GeoTIFF 1.1 keys (OGC 19-008r4): model type 1 projected; 9001 metre.
const PROJECTED = 1;
const METRE = 9001;
const USER_DEFINED = 32767;

/** A block this large holds the largest terrain in four bands of single precision. */
const MOST_BLOCK_BYTES = 256e6;

/** A picture with those it is kept in smaller. */
export type Tiff = Awaited<ReturnType<typeof fromArrayBuffer>>;

export interface OpenTiff {
  readonly tiff: Tiff;
  /** The first of its pictures, and the largest. */
  readonly image: Image;
}

/** @throws UserError where it is no TIFF that holds together. */
export async function openTiff({ name, bytes }: InputFile): Promise<OpenTiff> {
  const fault = tiffFault(bytes);
  if (fault !== null)
    refuseFile(name, 'geotiff.unreadable', {
      what: `it is not a readable TIFF, or it is cut short: ${fault}`,
      do: 'Download or export it again.',
    });
  try {
    const { buffer, byteOffset, byteLength } = bytes;
    // A large file is not held twice.
    const isWhole = byteOffset === 0 && byteLength === buffer.byteLength;
    const tiff = await fromArrayBuffer((isWhole ? buffer : buffer.slice(byteOffset, byteOffset + byteLength)) as ArrayBuffer);
    return { tiff, image: await tiff.getImage() };
  } catch {
    return refuseFile(name, 'geotiff.unreadable', {
      what: 'it is not a readable TIFF, or it is cut short',
      do: 'Download or export it again.',
    });
  }
}

/** The code of the projected system a file names; null where it names none. */
function codeIn(image: Image): number | null {
  const code = keysOf(image).ProjectedCSTypeGeoKey;
  return typeof code === 'number' && code !== USER_DEFINED && code > 0 ? code : null;
}

/** A system in feet that a file names; null where its plan is in metres. */
export async function feetOf(image: Image, name: string): Promise<Foreign | null> {
  const code = codeIn(image);
  const feet = code === null ? null : await feetSystem(code);
  if (feet) return feet;
  const units = keysOf(image).ProjLinearUnitsGeoKey;
  if (typeof units === 'number' && units !== METRE)
    refuseFile(name, 'crs.not-metres', {
      what: `its unit of length has the code ${units}, and its system is none in feet that is known`,
      field: 'ProjLinearUnitsGeoKey',
      do: 'Convert it to a projected system in metres, or to WGS 84.',
    });
  return null;
}

/** The system in metres a file names; null where it names none. @throws UserError where nobody says which it is. */
export async function metresOf(image: Image, name: string, wanted: string | null): Promise<Crs | null> {
  const code = codeIn(image);
  if (code !== null) return requireCrs(`EPSG:${code}`, name);
  if (wanted === null && keysOf(image).GTModelTypeGeoKey === PROJECTED) {
    refuseFile(name, 'crs.unknown', {
      what: 'it is in a projected system that it does not name',
      field: 'ProjectedCSTypeGeoKey',
      do: 'Give its EPSG code when you bring it in.',
    });
  }
  return null;
}

/** The system in metres of levels, checked against what the user gave. */
async function systemOf(image: Image, name: string, wanted: string | null): Promise<string | null> {
  const own = await metresOf(image, name, wanted);
  if (own && wanted !== null && wanted !== own.code) {
    refuseFile(name, 'crs.mismatch', {
      what: `the file says ${own.code} (${own.name}), but ${wanted} was given`,
      field: 'crs',
      do: `Leave the system as the file says, or convert the file to ${wanted}.`,
    });
  }
  return own?.code ?? wanted;
}

/** What is told of the datum of a file in degrees. @throws UserError where it lies far from WGS 84. */
export function degreesNotes(image: Image, name: string): string[] {
  const key = keysOf(image).GeographicTypeGeoKey;
  return datumNotes(typeof key === 'number' && key !== USER_DEFINED ? key : null, { file: name, field: 'GeographicTypeGeoKey' });
}

/** Levels of packed numbers: the file's mark for no data is one of the numbers as packed. */
async function scaled(
  levels: Float64Array,
  image: Image,
  { band, notes }: { readonly band: number; readonly notes: string[] },
): Promise<void> {
  const mark = image.getGDALNoData();
  const told = (await image.getGDALMetadata(band)) ?? {};
  const [scale, offset] = [factorIn(told.SCALE, 1), factorIn(told.OFFSET, 0)];
  for (let i = 0; i < levels.length; i++) levels[i] = isNoDataMark(levels[i], mark) ? NaN : levels[i] * scale + offset;
  if (scale !== 1 || offset !== 0) notes.push(`Its numbers were turned into levels: times ${scale}, plus ${offset}.`);
}

export function factorIn(text: unknown, otherwise: number): number {
  const value = typeof text === 'string' ? Number(text) : NaN;
  return Number.isFinite(value) ? value : otherwise;
}

/** What the user says of it. */
interface TiffHow {
  readonly crs: string | null;
  readonly levelsIn?: LevelUnit | undefined;
  /** Which band holds the levels, from 1; it must be said where there are several. */
  readonly band?: number | undefined;
  /** Only a part of it, in its own coordinates. */
  readonly part?: Part | undefined;
}

/** The band that holds the levels, from 0. @throws UserError that asks where there are several. */
export function bandOf(image: Image, band: number | undefined, name: string): number {
  const count = image.getSamplesPerPixel();
  if (band === undefined && count > 1)
    refuseFile(name, 'bands.doubtful', { what: `it has ${count} bands`, do: 'Say which of them holds the levels.' });
  const k = (band ?? 1) - 1;
  if (!(Number.isInteger(k) && k >= 0 && k < count))
    refuseFile(name, 'bands.none', { what: `it has no band ${band ?? 1}: there ${count === 1 ? 'is 1' : `are ${count}`}`, do: 'Name one that is there, from 1.' }); // prettier-ignore
  return k;
}

const blockBytesOf = (image: Image): number => image.getTileWidth() * image.getTileHeight() * image.getBytesPerPixel();

/** Whether the blocks of a picture can be unpacked one at a time. */
export const hasSmallBlocks = (image: Image): boolean => blockBytesOf(image) > 0 && blockBytesOf(image) <= MOST_BLOCK_BYTES;

/** @throws UserError where its blocks are too large to unpack. */
export function blocksOf(image: Image, name: string): void {
  if (!hasSmallBlocks(image))
    refuseFile(name, 'geotiff.blocks', {
      what: `its blocks unpack to ${Math.round(blockBytesOf(image) / 1e6)} MB each`,
      do: 'Export it again in strips or tiles, one band alone.',
    });
}

/** A GeoTIFF of levels. @throws UserError whatever is wrong with it: its keys may hold anything. */
export async function readGeoTiff(file: InputFile, how: TiffHow, { image }: OpenTiff): Promise<ImportedTerrain> {
  try {
    return await readImage(file, how, image);
  } catch (error) {
    if (error instanceof UserError) throw error;
    return refuseFile(file.name, 'geotiff.unreadable', {
      what: 'its keys or its picture cannot be read',
      do: 'Download or export it again.',
    });
  }
}

async function readImage(file: InputFile, { crs: wanted, levelsIn, band: said, part }: TiffHow, image: Image): Promise<ImportedTerrain> {
  const { name } = file;
  const all = await cellsOf(image, name);
  const band = bandOf(image, said, name);
  const cut = cutTo(all, part ?? null, name);
  blocksOf(image, name);
  const isGeographic = isInDegrees(image);
  const { west, south } = extentOfCells(all);
  const feet = isGeographic ? null : await feetOf(image, name);
  const crs = isGeographic || feet ? null : await systemOf(image, name, wanted);
  if (!isGeographic && !feet && looksLikeDegrees({ cell: all.dx, west, south }))
    refuseFile(name, 'crs.degrees', {
      what: `cells of ${all.dx} at ${west}, ${south} are degrees, though it does not say so`,
      do: 'Export it again with its system, or convert it to the UTM zone of your land.',
    });
  const notes: string[] = [];
  if (!(await hasSoundJpegs(image, file.bytes))) truncated(name);
  const levels = await readLevels(image, { band, cut, name });
  await scaled(levels, image, { band, notes });
  const keys = keysOf(image);
  if (!inMetres(levels, { unit: keys.VerticalUnitsGeoKey, file: name, notes }))
    asSaid(levels, { said: levelsIn, isPlanInFeet: feet !== null, file: name, notes });
  onlyGround(levels, { file: name, noData: null, notes });
  if (said !== undefined && image.getSamplesPerPixel() > 1) notes.push(`Band ${said} was read as levels, as you said.`);
  if (part)
    notes.push(`${cut.cells.ncols} by ${cut.cells.nrows} of its ${all.ncols} by ${all.nrows} cells were read: the part you asked for.`);
  const lattice = { ...cut.cells, levels };
  if (feet) return laidFlat(lattice, { file: name, wanted, from: feet, notes });
  if (isGeographic) {
    notes.push(...degreesNotes(image, name));
    return laidFlat(lattice, { file: name, wanted, from: DEGREES, notes });
  }
  return asItLies(lattice, { file: name, crs, notes });
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

/** @throws UserError where its picture cannot be unpacked. */
async function readLevels(image: Image, { band, cut: { col, row, cells }, name }: { readonly band: number; readonly cut: CellsWithin; readonly name: string }): Promise<Float64Array> {
  try {
    const window = [col, row, col + cells.ncols, row + cells.nrows];
    const bands = await image.readRasters({ samples: [band], window });
    return Float64Array.from(bands[0] as ArrayLike<number>);
  } catch {
    return truncated(name);
  }
} // prettier-ignore

/** @throws UserError saying that what is packed in it cannot be unpacked. */
export const truncated = (name: string): never =>
  refuseFile(name, 'geotiff.truncated', {
    what: 'its picture data is cut short or packed in a way that is not read',
    do: 'Download or export it again, uncompressed or with deflate.',
  });

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
