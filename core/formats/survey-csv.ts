// Survey points in a table: x,y,z or lat,lon,z with a line for each, perhaps with words that say what was read there.
import type { ScatteredPoints } from '../geometry/index.ts';
import { type Sheet, columnOf, numericColumns } from './columns.ts';
import { fromLonLat, requireCrs, utmCodeFor } from './crs.ts';
import { type LevelUnit, asSaid } from './grid-limits.ts';
import { type ImportedTerrain, refuseFile, refuseLines } from './imported.ts';
import { oddLevels } from './levels.ts';
import { type CodeUses, codeKey, codesOf, linesIn } from './point-codes.ts';
import { CODE, LAT, LON, X, Y, Z } from './point-names.ts';
import { rangeOf, surfaceOf } from './point-surface.ts';
import { type Holds, isPlaced } from './point-table.ts';

export const isSurvey = (sheet: Sheet): boolean => columnOf(sheet, Z) >= 0 || columnOf(sheet, X) >= 0 || columnOf(sheet, LAT) >= 0;

/** What the user says of a table of points. */
export interface PointsSaid {
  /** What each column holds; left out, as its header names it. */
  readonly columns?: readonly Holds[];
  /** What the points of each code are; those of codes left out as is likely. */
  readonly codes?: CodeUses;
}

export interface SurveyHow extends PointsSaid {
  readonly wanted: string | null;
  readonly levelsIn?: LevelUnit | undefined;
}

interface Columns {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly code: number;
  readonly isGeographic: boolean;
}

/** Columns as they were said to be. @throws UserError where they do not place a point. */
function columnsSaid(said: readonly Holds[], { file }: Sheet): Columns {
  if (!isPlaced(said))
    refuseFile(file, 'csv.columns', {
      what: `its columns are said to be ${said.join(', ')}`,
      do: 'One column each holds x, y and z, or lon, lat and z.',
    });
  const at = (one: Holds): number => said.indexOf(one);
  const isGeographic = at('lat') >= 0 && at('lon') >= 0;
  return { x: at(isGeographic ? 'lon' : 'x'), y: at(isGeographic ? 'lat' : 'y'), z: at('z'), code: at('code'), isGeographic };
}

/** Whether the names of columns alone say where each point is, and how high. */
export const isNamedInFull = (sheet: Sheet): boolean => columnsByName(sheet) !== null;

/** Columns by their names; null where these do not place a point. */
function columnsByName(sheet: Sheet): Columns | null {
  const z = columnOf(sheet, Z);
  const [lat, lon, x, y] = [columnOf(sheet, LAT), columnOf(sheet, LON), columnOf(sheet, X), columnOf(sheet, Y)];
  const isGeographic = lat >= 0 && lon >= 0;
  if (z < 0 || (!isGeographic && (x < 0 || y < 0))) return null;
  return { x: isGeographic ? lon : x, y: isGeographic ? lat : y, z, code: columnOf(sheet, CODE), isGeographic };
}

/** @throws UserError where the names of columns do not place a point. */
function columnsNamed(sheet: Sheet): Columns {
  return (
    columnsByName(sheet) ??
    refuseFile(sheet.file, 'csv.columns', {
      what: `its header is "${sheet.headers.join(', ')}"`,
      line: 1,
      do: 'Name the columns x, y, z (metres) or lat, lon, z.',
    })
  );
}

/** Without the points that are said to be no ground, and what the codes of the others make of them. */
function coded(sheet: Sheet, code: number, { uses, notes }: { readonly uses: CodeUses; readonly notes: string[] }): { readonly sheet: Sheet; readonly uses: CodeUses } {
  if (code < 0 && Object.keys(uses).length > 0)
    refuseFile(sheet.file, 'survey.code', { what: 'none of its columns holds words for what was read', do: 'Say which column does, or leave the words out.' });
  if (code < 0) return { sheet, uses: {} };
  const said = new Map(Object.entries(uses).map(([name, use]) => [codeKey(name), use]));
  const met = codesOf(sheet.rows.map((cells) => cells[code]));
  for (const name of said.keys())
    if (!met.some((one) => codeKey(one.code) === name))
      refuseFile(sheet.file, 'survey.code', {
        what: `no point of it bears the code "${name.slice(0, 40)}"`,
        do: `Say what its codes are: ${met.slice(0, 12).map((one) => one.code.slice(0, 20)).join(', ') || 'it has none'}.`,
      });
  const all = Object.fromEntries(met.map((one) => [codeKey(one.code), said.get(codeKey(one.code)) ?? one.likely]));
  const rows = sheet.rows.flatMap((cells, row) => (all[codeKey(cells[code])] === 'leave' ? [] : [row]));
  const left = sheet.rows.length - rows.length;
  if (left > 0) notes.push(`${left === 1 ? '1 point that is no ground was' : `${left} points that are no ground were`} left out: ${met.filter((one) => all[codeKey(one.code)] === 'leave').map((one) => one.code).join(', ')}.`);
  return { sheet: { ...sheet, rows: rows.map((row) => sheet.rows[row]), lineOf: (k) => sheet.lineOf(rows[k]) }, uses: all };
} // prettier-ignore

/** Survey points as x,y,z or lat,lon,z, triangulated onto a grid. */
export async function readSurvey(whole: Sheet, how: SurveyHow): Promise<ImportedTerrain> {
  const { file } = whole;
  const { wanted, levelsIn } = how;
  const columns = how.columns ? columnsSaid(how.columns, whole) : columnsNamed(whole);
  const { isGeographic } = columns;
  const notes: string[] = [];
  const { sheet, uses } = coded(whole, columns.code, { uses: how.codes ?? {}, notes });
  const all = numericColumns(sheet, { x: columns.x, y: columns.y, z: columns.z }) as unknown as ScatteredPoints;
  asSaid(all.z, { said: levelsIn, isPlanInFeet: false, file, notes });
  const raw = atOnePlace(onGround(all, sheet, notes), sheet, notes);
  if (raw.z.length < 3)
    refuseFile(file, 'survey.few', {
      what: `it has ${raw.z.length} points`,
      do: 'At least three points, not in one line, make a surface; fifty or more make a useful one.',
    });
  const follows = followedIn(all, raw, linesIn(sheet.rows.map((cells) => cells[columns.code]), uses)); // prettier-ignore
  let crs = wanted;
  let points: ScatteredPoints = { x: raw.x, y: raw.y, z: raw.z };
  if (isGeographic) ({ points, crs } = await projected({ x: raw.x, y: raw.y, z: raw.z }, { file, wanted, notes }));
  else refuseHiddenDegrees(points, file);
  if (crs !== null && !isGeographic) crs = (await requireCrs(crs, file)).code;
  if (crs === null) notes.push('No coordinate system was given: positions are taken as local metres, and geographic exports are off.');
  const rings = follows.rings.map((ring) => ring.map((k) => [points.x[k], points.y[k]] as const));
  // Between its points the edge of a survey lies on no ground that was read: it cuts, and nothing follows it.
  return { ...surfaceOf(points, { file, notes }, { lines: follows.lines, rings }), crs };
}

/** Lines and rings by the places of their points among those that are kept: points at one place became one, marks for none are left out. */
function followedIn(all: ScatteredPoints, kept: ScatteredPoints, by: ReturnType<typeof linesIn>): { readonly lines: readonly (readonly number[])[]; readonly rings: readonly (readonly number[])[] } {
  if (by.lines.length + by.rings.length === 0) return by;
  const places = new Map(Array.from(kept.x, (x, k) => [`${x},${kept.y[k]}`, k]));
  const among = (rows: readonly number[]): number[] =>
    rows.flatMap((row) => places.get(`${all.x[row]},${all.y[row]}`) ?? []).filter((k, i, list) => i === 0 || k !== list[i - 1]);
  const alone = (ring: number[]): number[] => (ring[0] === ring[ring.length - 1] ? ring.slice(0, -1) : ring);
  return { lines: by.lines.map(among).filter((l) => l.length > 1), rings: by.rings.map(among).map(alone).filter((r) => r.length > 2) };
} // prettier-ignore

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
