// A table of points as somebody wrote it down: what its columns hold, as guessed or as said.
import { type DecimalMark } from './decimals.ts';
import { isBare, isCounted } from './bare-points.ts';
import { type Row, type Sheet, columnOf, numberIn, readTable, sheetOf } from './columns.ts';
import { type InputFile, refuseFile } from './imported.ts';
import { type Code, codesOf } from './point-codes.ts';
import { CODE, LAT, LON, X, Y, Z } from './point-names.ts';

/** What a column of points may hold. */
export const HOLDS = ['x', 'y', 'z', 'lon', 'lat', 'code', 'none'] as const;
export type Holds = (typeof HOLDS)[number];

/** A column with what it is called, its first cells, what it likely holds, and the codes in it where they may be such. */
export interface PointColumn {
  readonly header: string | null;
  readonly cells: readonly string[];
  readonly holds: Holds;
  readonly codes: readonly Code[];
}

export interface PointTable {
  readonly columns: readonly PointColumn[];
  readonly points: number;
}

/** Lines shown, columns that may be chosen among, codes that are told apart, and how long one may be. */
const [SHOWN, MOST_SHOWN_COLUMNS, MOST_CODES, LONGEST_CODE] = [4, 12, 60, 40];
const NAMES: readonly (readonly [Holds, readonly string[]])[] = [['lat', LAT], ['lon', LON], ['x', X], ['y', Y], ['z', Z], ['code', CODE]]; // prettier-ignore

/** Whether columns say where each point is, and how high. */
export function isPlaced(holds: readonly Holds[]): boolean {
  const has = (one: Holds): boolean => holds.filter((h) => h === one).length === 1;
  return has('z') && ((has('x') && has('y')) || (has('lon') && has('lat')));
}

/** Whether a first line is no point but names: fewer of its cells are numbers than of the line below. */
function hasHeader([first, second]: readonly Row[]): boolean {
  const numbers = (row: Row | undefined): number => row?.cells.filter((cell) => !Number.isNaN(numberIn(cell))).length ?? 0;
  return numbers(first) === 0 || numbers(first) < numbers(second) - 1;
}

/** Codes in a column of words; none where there are too many to be such. */
function codesIn(texts: readonly (string | undefined)[]): readonly Code[] {
  if (texts.every((text) => text === undefined || text === '' || !Number.isNaN(numberIn(text)))) return [];
  const codes = codesOf(texts);
  return codes.length <= MOST_CODES && codes.every(({ code }) => code.length <= LONGEST_CODE) ? codes : [];
}

/** By the names of columns where these say it; else east, north and level in the order numbers stand in. */
function guessed(columns: readonly Omit<PointColumn, 'holds'>[], named: Sheet | null, isFirstCounting: boolean): Holds[] {
  const holds = columns.map((): Holds => 'none');
  if (named)
    for (const [what, names] of NAMES) {
      const at = columnOf(named, names);
      if (at >= 0 && at < holds.length) holds[at] = what;
    }
  if (!isPlaced(holds)) {
    const isNumbers = (c: (typeof columns)[number]): boolean => c.cells.length > 0 && c.cells.every((cell) => !Number.isNaN(numberIn(cell)));
    const free = columns.flatMap((c, k) => (isNumbers(c) && !(k === 0 && isFirstCounting) ? [k] : []));
    if (free.length >= 3) ['x', 'y', 'z'].forEach((what, k) => (holds[free[k]] = what as Holds));
  }
  if (!holds.includes('code')) {
    const words = columns.findIndex((c, k) => holds[k] === 'none' && c.codes.length > 0 && c.codes.some(({ count }) => count > 1));
    if (words >= 0) holds[words] = 'code';
  }
  return holds;
} // prettier-ignore

/** Rows of points without the line of names, as a sheet. */
export function pointSheet(rows: readonly Row[], file: string): { readonly sheet: Sheet; readonly isNamed: boolean } {
  const isNamed = hasHeader(rows);
  if (isNamed) return { sheet: sheetOf(rows, file), isNamed };
  const width = rows.reduce((most, { cells }) => Math.max(most, cells.length), 0);
  const headers = Array.from({ length: width }, (_, k) => `column ${k + 1}`);
  return { sheet: { file, headers, rows: rows.map((r) => r.cells), lineOf: (row) => rows[row].line }, isNamed };
}

/** What the columns of a table of points are likely to hold. @throws UserError where it is none. */
export function tableOf(rows: readonly Row[], file: string): PointTable {
  const { sheet, isNamed } = pointSheet(rows, file);
  const few = sheet.rows.slice(0, SHOWN);
  const plain = sheet.headers
    .slice(0, MOST_SHOWN_COLUMNS)
    .map((header, k) => ({
      header: isNamed ? header : null,
      cells: few.map((cells) => cells[k] ?? ''),
      codes: codesIn(sheet.rows.map((cells) => cells[k])),
    }));
  if (plain.filter(({ cells }) => cells.some((cell) => !Number.isNaN(numberIn(cell)))).length < 3)
    refuseFile(file, 'csv.columns', {
      what: 'fewer than three of its columns are numbers',
      do: 'A survey has a line for each point, with its easting, northing and level, or latitude, longitude and level.',
    });
  const holds = guessed(plain, isNamed ? sheet : null, isBare(rows) && isCounted(rows));
  return { columns: plain.map((column, k) => ({ ...column, holds: holds[k] })), points: sheet.rows.length };
}

/** A file of points looked over before it is read. @throws UserError where it is none. */
export const pointTable = (file: InputFile, decimal?: DecimalMark): PointTable => tableOf(readTable(file, decimal).rows, file.name);
