import { type ScatteredPoints, rasterise, triangulate } from '../geometry/index.ts';
import { MAX_CELLS, awayFrom, gridFromLevels, growthOf } from '../terrain/index.ts';
import { type Sheet, columnOf, numericColumns } from './columns.ts';
import { fromLonLat, requireCrs, utmCodeFor } from './crs.ts';
import { type ImportedTerrain, refuseFile, refuseLines } from './imported.ts';
import { oddLevels } from './levels.ts';

/** Names of columns that tell where. */
export const X = ['x', 'e', 'east', 'easting', 'eastings', 'xm', 'xcoord', 'eastingm'];
export const Y = ['y', 'n', 'north', 'northing', 'northings', 'ym', 'ycoord', 'northingm'];
const Z = [
  'z',
  'level',
  'elevation',
  'elev',
  'ele',
  'height',
  'rl',
  'zm',
  'levelm',
  'alt',
  'altitude',
  'h',
  'elevm',
  'elem',
  'elevationm',
  'heightm',
  'altm',
  'altitudem',
  'reducedlevel',
];
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
  const notes: string[] = [];
  const all = numericColumns(sheet, { x: isGeographic ? lon : x, y: isGeographic ? lat : y, z }) as unknown as ScatteredPoints;
  const raw = atOnePlace(onGround(all, sheet, notes), sheet, notes);
  if (raw.z.length < 3)
    refuseFile(file, 'survey.few', {
      what: `it has ${raw.z.length} points`,
      do: 'At least three points, not in one line, make a surface; fifty or more make a useful one.',
    });
  let crs = wanted;
  let points: ScatteredPoints = { x: raw.x, y: raw.y, z: raw.z };
  if (isGeographic) ({ points, crs } = await projected({ x: raw.x, y: raw.y, z: raw.z }, { file, wanted, notes }));
  else refuseHiddenDegrees(points, file);
  if (crs !== null && !isGeographic) crs = (await requireCrs(crs, file)).code;
  if (crs === null) notes.push('No coordinate system was given: positions are taken as local metres, and geographic exports are off.');
  return { ...surfaceOf(points, file, notes), crs };
}

/** Points but for those whose level is a mark for none; a level far from all the rest is a slip and is refused with its line. */
function onGround(points: ScatteredPoints, sheet: Sheet, notes: string[]): Kept {
  const { marks, apart } = oddLevels(Float64Array.from(points.z));
  if (apart.length > 0) {
    refuseLines(
      apart.map((i) => ({
        code: 'survey.level',
        what: `a level of ${points.z[i]} m is far from all the others, or from any ground on earth`,
        where: { file: sheet.file, line: sheet.lineOf(i) },
        do: 'Correct it, or take the line out. Levels are in metres.',
      })),
    );
  }
  if (marks.length > 0) notes.push(`${marks.length} points with ${points.z[marks[0]]}, a mark for no level, were left out.`);
  const left = new Set(marks);
  const rows = Array.from({ length: points.z.length }, (_, i) => i).filter((i) => !left.has(i));
  return pointsAt(points, rows);
}

interface Kept extends ScatteredPoints {
  readonly rows: readonly number[];
}

const pointsAt = ({ x, y, z }: ScatteredPoints, rows: readonly number[]): Kept => {
  const take = (list: ArrayLike<number>): Float64Array => Float64Array.from(rows, (i) => list[i]);
  return { x: take(x), y: take(y), z: take(z), rows };
};

/** A surface has one level a place: points that share one are told, and their mean is taken. */
function atOnePlace(points: Kept, sheet: Sheet, notes: string[]): ScatteredPoints {
  const first = new Map<string, number>();
  const z = Float64Array.from(points.z);
  const counts = new Uint32Array(z.length).fill(1);
  const kept: number[] = [];
  let [doubled, told] = [0, ''];
  for (let i = 0; i < z.length; i++) {
    const key = `${points.x[i]},${points.y[i]}`;
    const before = first.get(key);
    if (before === undefined) {
      first.set(key, i);
      kept.push(i);
      continue;
    }
    if (points.z[i] !== points.z[before] && doubled++ === 0)
      told = `lines ${sheet.lineOf(points.rows[before])} and ${sheet.lineOf(points.rows[i])}: ${points.z[before]} and ${points.z[i]} m`;
    counts[before]++;
    z[before] += (points.z[i] - z[before]) / counts[before];
  }
  if (doubled > 0)
    notes.push(
      `${doubled} point${doubled === 1 ? '' : 's'} at the place of another with a different level (${told}): the mean was taken. Check which is right.`,
    );
  return kept.length === z.length ? points : pointsAt({ x: points.x, y: points.y, z }, kept);
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

/** Scattered levels joined into triangles and laid on square cells; what was done is added to the notes. */
export function surfaceOf(
  points: ScatteredPoints,
  file: string,
  notes: string[],
): Omit<ImportedTerrain, 'crs' | 'known'> & Required<Pick<ImportedTerrain, 'known'>> {
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
  const square = { ncols, nrows, cellM, west, south };
  const known = { levelsM: null, growsBy: growthOf(points, triangles), away: awayFrom(points, square, levels), blends: null };
  return { kind: 'terrain', grid: gridFromLevels(square, levels), source: file, notes, known };
}
