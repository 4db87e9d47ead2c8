import { type GridHow, readAsciiGrid } from './ascii-grid.ts';
import { bareSheet, isBare } from './bare-points.ts';
import { type Row, readTable, sheetOf } from './columns.ts';
import type { DecimalMark } from './decimals.ts';
import { PICTURE_ENDINGS, UserError, WORLD_ENDINGS, unforeseen } from '../project/index.ts';
import type { Part } from '../terrain/index.ts';
import { requireCrs } from './crs.ts';
import { isGeoJson, readGeoJson } from './geojson.ts';
import { readDxf } from './dxf.ts';
import { readGeoPackage } from './geopackage.ts';
import { openTiff, readGeoTiff } from './geotiff.ts';
import type { LevelUnit } from './grid-limits.ts';
import { type Imported, type ImportedPicture, type ImportedShapes, type ImportedTerrain, type InputFile, refuseFile } from './imported.ts';
import { readLas } from './las.ts';
import { isLevelBook, readLevelBook } from './level-book.ts';
import { readMarkup } from './markup.ts';
import { readPicture } from './picture.ts';
import { isColourTiff, readColourTiff } from './picture-tiff.ts';
import { parseJson } from './project-file.ts';
import { groundOfShapes } from './shape-ground.ts';
import { isGauge, readGauge } from './gauge-csv.ts';
import { isRain, readRainTable } from './rain-csv.ts';
import { type PointsSaid, isNamedInFull, isSurvey, readSurvey } from './survey-csv.ts';
import { pointSheet, tableOf } from './point-table.ts';
import { readShapefile } from './shapefile.ts';
import { textOf } from './text.ts';
import { withBeside } from './tiff-beside.ts';
import { mapParts } from './zip.ts';

export const isTiff = (b: Uint8Array): boolean => (b[0] === 0x49 && b[1] === 0x49) || (b[0] === 0x4d && b[1] === 0x4d);

/** What the user says of a file that it does not say itself. */
export interface ImportHow {
  /** The system it is in. */
  readonly crs?: string | null;
  /** The mark for decimals in its numbers. */
  readonly decimal?: DecimalMark;
  /** What is drawn is taken as ground, by the levels it bears, or as things on it; left out, as things. */
  readonly as?: 'terrain' | 'features';
  /** What the levels of a grid are in that does not name their unit; left out, metres. */
  readonly levelsIn?: LevelUnit;
  /** Which band of a GeoTIFF holds its levels, from 1. */
  readonly band?: number;
  /** Only a part of a GeoTIFF, in its own coordinates. */
  readonly part?: Part;
  /** What the columns of a table of points hold, and what their codes make of them. */
  readonly points?: PointsSaid;
  /** Where a table of points does not name its columns, or has words that change what it is, that is asked instead of guessed. */
  readonly asks?: true;
}

/** What draws points, lines and areas; null for other files. */
async function drawnIn(file: InputFile, ending: string, wanted: string | null): Promise<ImportedShapes | null> {
  if (ending === 'gpx' || ending === 'kml' || ending === 'kmz') return readMarkup(file, wanted);
  if (ending === 'dxf') return readDxf(file, wanted);
  if (ending === 'gpkg') return readGeoPackage(file, wanted);
  if (ending === 'zip') return readShapefile(file, wanted);
  if (ending === 'shp')
    return refuseFile(file.name, 'shp.alone', {
      what: 'it is one part of several',
      do: 'Pack the .shp with its .dbf and .prj into one zip.',
    });
  if (ending === 'geojson' || (ending === 'json' && isGeoJson(parseJson(file.name, file.bytes)))) return readGeoJson(file, wanted);
  return null;
}

/**
 * Understands a terrain, survey or rain file by what is in it.
 * @throws UserError saying what is wrong, where and what to do: also for what nobody foresaw.
 */
export async function importFile(file: InputFile, how: ImportHow = {}): Promise<Imported> {
  try {
    return await understood(file, how);
  } catch (error) {
    if (error instanceof UserError) throw error;
    throw new UserError([{ ...unforeseen(`reading ${file.name}`), where: { file: file.name } }]);
  }
}

/** @throws UserError that asks, where only a guess would tell what is in a table of points. */
function askOf(rows: readonly Row[], name: string): void {
  const { columns } = tableOf(rows, name);
  const isNamed = isNamedInFull(sheetOf(rows, name));
  const changes = columns.some(({ holds, codes }) => holds === 'code' && codes.some((one) => one.likely !== 'spot'));
  if (isNamed && !changes) return;
  refuseFile(name, 'points.doubtful', {
    what: isNamed ? 'it has words beside its points' : 'it does not name its columns in the usual words',
    do: 'Say what they are.',
  });
}

/** Points in a table: as their columns were said to be, as these are named, or as three numbers a line without names. */
async function readPoints(rows: readonly Row[], { name, wanted, notes }: { readonly name: string; readonly wanted: string | null; readonly notes: readonly string[] }, { points, asks, levelsIn }: ImportHow): Promise<Imported> {
  if (asks && !points) askOf(rows, name);
  const how = { ...points, wanted, levelsIn };
  const named = points?.columns ? pointSheet(rows, name).sheet : sheetOf(rows, name);
  const bare = !points?.columns && !isSurvey(named) && isBare(rows) ? bareSheet(rows, name) : null;
  const read = await readSurvey(bare?.sheet ?? named, how);
  return { ...read, notes: [...notes, ...(bare?.notes ?? []), ...read.notes] };
} // prettier-ignore

type AnyGrid = GridHow & Parameters<typeof readGeoTiff>[1];

const endingIn = (endings: readonly string[]): RegExp => new RegExp(`\\.(${endings.join('|')})$`, 'i');
const GRID_ENDING = /\.(asc|grd|tiff?)$/i;

/** The one grid in a zip, with the .prj beside it, a TIFF with what lies beside it written into it; null where there is none. @throws UserError where there are several. */
export async function gridIn(file: InputFile): Promise<{ readonly inner: InputFile; readonly prj: Uint8Array | undefined } | null> {
  const parts = mapParts(file, endingIn(['shp', 'asc', 'grd', 'tiff?', 'prj', ...WORLD_ENDINGS]));
  const grids = Object.keys(parts).filter((entry) => GRID_ENDING.test(entry));
  if (grids.length === 0 || Object.keys(parts).some((entry) => /\.shp$/i.test(entry))) return null;
  const [entry, ...others] = grids;
  if (others.length > 0)
    refuseFile(file.name, 'zip.several', {
      what: `there are ${grids.length} grids in it: ${grids.slice(0, 3).join(', ')}`,
      do: 'Bring in one of them, with its .prj; a project has one ground.',
    });
  const inner = { name: nameIn(entry), bytes: parts[entry] };
  const own = entry.toLowerCase().replace(/\.[^.]*$/, '');
  const beside = (is: RegExp): string | undefined =>
    Object.keys(parts).find((one) => is.test(one) && one.toLowerCase().replace(/\.[^.]*$/, '') === own);
  const [prjName, worldName] = [beside(/\.prj$/i), beside(WORLD_ENDING)];
  const prj = prjName === undefined ? undefined : parts[prjName];
  if (!isTiff(inner.bytes)) return { inner, prj };
  const world = worldName === undefined ? null : { name: nameIn(worldName), bytes: parts[worldName] };
  return { inner: await withBeside(inner, { world, prj: prj ?? null }), prj };
}

const nameIn = (entry: string): string => entry.split('/').pop() ?? entry;

/** @throws UserError where a band, or a part, of something else than a GeoTIFF of levels is asked for. */
function wholeOnly(name: string, { band, part }: AnyGrid): void {
  if (band !== undefined || part !== undefined)
    refuseFile(name, 'file.whole-only', { what: 'bands and parts are only of a GeoTIFF of levels', do: 'Bring it in as a whole.' });
}

/** A GeoTIFF of levels, or of colours: then it is a picture, unless one of its bands is said to hold levels. */
async function readAnyTiff(file: InputFile, how: AnyGrid): Promise<ImportedTerrain | ImportedPicture> {
  const opened = await openTiff(file);
  if (how.band !== undefined || !isColourTiff(opened)) return readGeoTiff(file, how, opened);
  wholeOnly(file.name, how);
  return readColourTiff(file, how.crs, opened);
}

async function zippedGrid(file: InputFile, how: AnyGrid): Promise<ImportedTerrain | ImportedPicture | null> {
  const found = await gridIn(file);
  if (!found) return null;
  const { inner, prj } = found;
  if (isTiff(inner.bytes)) return readAnyTiff(inner, how);
  wholeOnly(inner.name, how);
  return readAsciiGrid(inner, { ...how, ...(prj ? { prj: textOf(prj) } : {}) });
}

const [PICTURE_ENDING, WORLD_ENDING] = [PICTURE_ENDINGS, WORLD_ENDINGS].map(endingIn);

/** A picture with what lies beside it, alone or packed into one zip; null where it is none. */
async function pictureIn(file: InputFile, ending: string, wanted: string | null): Promise<ImportedPicture | null> {
  if (PICTURE_ENDING.test(file.name)) return readPicture(file, { world: null, prj: null }, wanted);
  if (ending !== 'zip') return null;
  const parts = mapParts(file, endingIn([...PICTURE_ENDINGS, ...WORLD_ENDINGS, 'prj']));
  const named = (is: RegExp): InputFile[] =>
    Object.entries(parts).flatMap(([entry, bytes]) => (is.test(entry) ? [{ name: entry.split('/').pop() ?? entry, bytes }] : []));
  const [[picture, ...others], [world], [prj]] = [named(PICTURE_ENDING), named(WORLD_ENDING), named(/\.prj$/i)];
  // A map packed with its pictures is no picture.
  if (picture === undefined || others.length > 0 || world === undefined) return null;
  return readPicture(picture, { world, prj: prj?.bytes ?? null }, wanted);
}

async function understood(file: InputFile, how: ImportHow): Promise<Imported> {
  const { name, bytes } = file;
  const { crs = null, decimal, as, levelsIn, band, part } = how;
  if (bytes.length === 0) refuseFile(name, 'file.empty', { what: 'the file is empty', do: 'Choose another file.' });
  const wanted = crs === null || crs.trim() === '' ? null : (await requireCrs(crs, name)).code;
  const ending = name.toLowerCase().split('.').pop() ?? '';
  const grid: AnyGrid = { crs: wanted, levelsIn, band, part };
  if (!isTiff(bytes) && ending !== 'zip') wholeOnly(name, grid);
  const zipped = ending === 'zip' ? await zippedGrid(file, grid) : null;
  if (zipped) return zipped;
  const picture = await pictureIn(file, ending, wanted);
  if (picture) {
    wholeOnly(name, grid);
    return picture;
  }
  const drawn = await drawnIn(file, ending, wanted);
  if (drawn) return as === 'terrain' ? groundOfShapes(drawn) : drawn;
  if (ending === 'las' || ending === 'laz') return readLas(file, { crs: wanted, levelsIn });
  if (isTiff(bytes) || ending === 'tif' || ending === 'tiff') return readAnyTiff(file, grid);
  if (ending === 'asc' || ending === 'grd') return readAsciiGrid(file, grid);
  if (ending === 'csv' || ending === 'txt' || ending === 'tsv' || ending === 'xyz') {
    if (/^\s*ncols\b/i.test(textOf(bytes.subarray(0, 200)))) return readAsciiGrid(file, grid);
    const { rows, notes } = readTable(file, decimal);
    const sheet = sheetOf(rows, name);
    const noted = <T extends Imported>(read: T): T => ({ ...read, notes: [...notes, ...read.notes] });
    if (isGauge(sheet)) return noted(readGauge(sheet));
    if (isRain(rows)) return noted(readRainTable(rows, name));
    if (isLevelBook(sheet)) return noted(await readLevelBook(sheet, wanted));
    if (isSurvey(sheet) || isBare(rows) || how.points || how.asks) return readPoints(rows, { name, wanted, notes }, how);
    return refuseFile(name, 'csv.columns', {
      what: `its header is "${sheet.headers.join(', ').slice(0, 80)}"`,
      line: 1,
      do: 'For a survey name the columns x, y, z or lat, lon, z; for rain duration_min and the return periods; for a gauge date and precipitation.',
    });
  }
  return refuseFile(name, 'file.kind', {
    what: `files ending in .${ending} are not read`,
    do: 'Bring in a GeoTIFF (.tif), an ASCII grid (.asc), a point cloud (.las), a CSV of survey points, rain depths or a rain gauge, or what was drawn or walked as .geojson, .kml, .kmz, .gpx, .dxf, .gpkg or a zipped shapefile; a photograph or a scan as .png or .jpg.',
  });
}
