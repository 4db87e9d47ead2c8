import { type ScatteredPoints, rasterise, triangulate } from '../geometry/index.ts';
import { MAX_CELLS, gridFromLevels } from '../terrain/index.ts';
import { type Sheet, columnOf, numericColumns } from './columns.ts';
import { fromLonLat, requireCrs, utmCodeFor } from './crs.ts';
import { type ImportedTerrain, refuseFile } from './imported.ts';

const X = ['x', 'e', 'east', 'easting', 'xm'];
const Y = ['y', 'n', 'north', 'northing', 'ym'];
const Z = ['z', 'level', 'elevation', 'elev', 'height', 'rl', 'zm', 'levelm', 'alt', 'altitude', 'h'];
const LAT = ['lat', 'latitude'];
const LON = ['lon', 'lng', 'long', 'longitude'];
/** Cell sizes offered, near half the mean spacing of the points [m]. */
const CELLS = [0.1, 0.25, 0.5, 1, 2, 5, 10, 20, 50];

export const isSurvey = (sheet: Sheet): boolean => columnOf(sheet, Z) >= 0 || columnOf(sheet, X) >= 0 || columnOf(sheet, LAT) >= 0;

/** Survey points as x,y,z or lat,lon,z, triangulated onto a grid. */
export async function readSurvey(sheet: Sheet, wanted: string | null): Promise<ImportedTerrain> {
  const { file } = sheet;
  const z = columnOf(sheet, Z);
  const [lat, lon, x, y] = [columnOf(sheet, LAT), columnOf(sheet, LON), columnOf(sheet, X), columnOf(sheet, Y)];
  const isGeographic = lat >= 0 && lon >= 0;
  if (z < 0 || (!isGeographic && (x < 0 || y < 0))) {
    refuseFile(file, 'csv.columns', {
      what: `its header is "${sheet.headers.join(', ')}"`,
      line: 1,
      do: 'Name the columns x, y, z (metres) or lat, lon, z.',
    });
  }
  const raw = numericColumns(sheet, { x: isGeographic ? lon : x, y: isGeographic ? lat : y, z });
  if (raw.z.length < 3)
    refuseFile(file, 'survey.few', {
      what: `it has ${raw.z.length} points`,
      do: 'At least three points, not in one line, make a surface; fifty or more make a useful one.',
    });
  const notes: string[] = [];
  let crs = wanted;
  let points: ScatteredPoints = { x: raw.x, y: raw.y, z: raw.z };
  if (isGeographic) ({ points, crs } = await projected({ x: raw.x, y: raw.y, z: raw.z }, { file, wanted, notes }));
  else refuseHiddenDegrees(points, file);
  if (crs !== null && !isGeographic) crs = (await requireCrs(crs, file)).code;
  if (crs === null) notes.push('No coordinate system was given: positions are taken as local metres, and geographic exports are off.');
  return { ...surfaceOf(points, file, notes), crs };
}

/** Longitude and latitude to metres in the wanted system, or in the UTM zone of their middle. */
async function projected(
  p: ScatteredPoints,
  on: { file: string; wanted: string | null; notes: string[] },
): Promise<{ points: ScatteredPoints; crs: string }> {
  const bad = p.x.findIndex((v, i) => Math.abs(v) > 180 || Math.abs(p.y[i]) > 90);
  if (bad >= 0)
    refuseFile(on.file, 'crs.not-degrees', {
      what: `${p.y[bad]}, ${p.x[bad]} is no latitude and longitude`,
      line: bad + 2,
      do: 'If these are metres, name the columns x, y, z.',
    });
  const middle: [number, number] = [p.x.reduce((a, v) => a + v, 0) / p.x.length, p.y.reduce((a, v) => a + v, 0) / p.y.length];
  const crs = await requireCrs(on.wanted ?? utmCodeFor(middle), on.file);
  const [x, y] = [new Float64Array(p.x.length), new Float64Array(p.x.length)];
  for (let i = 0; i < x.length; i++) [x[i], y[i]] = fromLonLat(crs, [p.x[i], p.y[i]]);
  on.notes.push(`Latitudes and longitudes were projected to ${crs.code} (${crs.name}).`);
  return { points: { x, y, z: p.z }, crs: crs.code };
}

function rangeOf(list: Float64Array): [number, number] {
  return list.reduce<[number, number]>(([lo, hi], v) => [Math.min(lo, v), Math.max(hi, v)], [Infinity, -Infinity]);
}

function refuseHiddenDegrees({ x, y }: ScatteredPoints, file: string): void {
  const [[x0, x1], [y0, y1]] = [rangeOf(x), rangeOf(y)];
  const looksGeographic = x0 >= -180 && x1 <= 180 && y0 >= -90 && y1 <= 90;
  if (looksGeographic && x1 - x0 < 2 && y1 - y0 < 2) {
    refuseFile(file, 'crs.degrees', {
      what: `x from ${x0} to ${x1} and y from ${y0} to ${y1} are degrees, not metres`,
      do: 'Name the columns lat and lon, and they will be projected.',
    });
  }
}

function surfaceOf(points: ScatteredPoints, file: string, notes: string[]): Omit<ImportedTerrain, 'crs'> {
  const [[x0, x1], [y0, y1]] = [rangeOf(points.x), rangeOf(points.y)];
  const [width, height] = [x1 - x0, y1 - y0];
  const triangles = triangulate(points);
  if (triangles.length === 0 || width === 0 || height === 0) {
    refuseFile(file, 'survey.in-line', {
      what: 'all points lie in one line',
      do: 'Add points on either side of it: a surface needs width.',
    });
  }
  const spacing = Math.sqrt((width * height) / points.x.length);
  const fits = (cell: number): boolean => (width / cell) * (height / cell) <= MAX_CELLS / 4;
  const cellM = CELLS.find((c) => c >= spacing / 2.5 && fits(c)) ?? CELLS[CELLS.length - 1];
  if (!fits(cellM))
    refuseFile(file, 'survey.too-wide', {
      what: `the points spread over ${Math.round(width)} by ${Math.round(height)} m`,
      do: 'Check for a point far away from the others, or bring in one part at a time.',
    });
  // Cell corners on multiples of the cell size, so that surveys of the same land fit together.
  const west = Math.floor(x0 / cellM) * cellM;
  const south = Math.floor(y0 / cellM) * cellM;
  const ncols = Math.max(2, Math.ceil((x1 - west) / cellM));
  const nrows = Math.max(2, Math.ceil((y1 - south) / cellM));
  const frame = { ncols, nrows, x0: west + cellM / 2, y0: south + (nrows - 0.5) * cellM, stepM: cellM };
  const levels = rasterise(points, triangles, frame);
  if (levels.every((v) => Number.isNaN(v)))
    refuseFile(file, 'survey.few', { what: 'the points cover no whole cell', do: 'Survey a larger area.' });
  notes.push(`${points.x.length} points were joined into ${triangles.length / 3} triangles and laid on ${cellM} m cells.`);
  return { kind: 'terrain', grid: gridFromLevels({ ncols, nrows, cellM, west, south }, levels), source: file, notes };
}
