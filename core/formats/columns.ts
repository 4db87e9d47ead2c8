import Papa from 'papaparse';
import type { UserProblem } from '../project/index.ts';
import { type InputFile, refuseFile, refuseLines } from './imported.ts';
import { type DecimalMark, decimalMarkOf, plainNumber } from './decimals.ts';
import { isSpaced, spacedCells, textOf } from './text.ts';

export interface Sheet {
  readonly file: string;
  readonly headers: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Line of the file a row came from. */
  readonly lineOf: (row: number) => number;
}

/** A line with something in it. */
export interface Row {
  readonly cells: readonly string[];
  readonly line: number;
}

/** A delimited text: lines that hold anything, their numbers written plainly, and what was assumed of them. */
export interface Table {
  readonly rows: readonly Row[];
  readonly notes: readonly string[];
}

/** Longer than any line of a table, and more of them than a gauge gives in a lifetime. */
const MOST_COLUMNS = 1000;

/** Reads a delimited text: comma, semicolon, tab, or numbers parted by spaces. `decimal` is the user's word on the mark of its numbers. */
export function readTable({ name, bytes }: InputFile, decimal?: DecimalMark): Table {
  const text = textOf(bytes);
  if (text.includes('\u0000')) refuseFile(name, 'csv.binary', { what: 'it is not a text file', do: 'Export it as CSV.' });
  const lines = isSpaced(text)
    ? text.split('\n').map(spacedCells)
    : Papa.parse<string[]>(text, { delimitersToGuess: [',', ';', '\t'] }).data;
  const rows = lines
    .map((cells, i) => ({ cells: cells.map((c) => c.trim()), line: i + 1 }))
    .filter(({ cells }) => cells.some((c) => c !== ''));
  if (rows.length === 0) refuseFile(name, 'file.empty', { what: 'there is nothing in it', do: 'Choose another file.' });
  const wide = rows.find(({ cells }) => cells.length > MOST_COLUMNS);
  if (wide)
    refuseFile(name, 'csv.columns', {
      what: `a line has ${wide.cells.length} columns`,
      line: wide.line,
      do: 'Keep only the columns that are needed.',
    });
  const { mark, thousands } = decimalMarkOf(cellsOf(rows), name, decimal);
  const notes = thousands ? [`The ${mark === '.' ? 'comma' : 'point'} in "${thousands.text}" was read as standing between thousands.`] : [];
  return { rows: rows.map(({ cells, line }) => ({ cells: cells.map((c) => plainNumber(c, mark)), line })), notes };
}

function* cellsOf(rows: readonly Row[]): Generator<{ text: string; line: number }> {
  for (const { cells, line } of rows) for (const text of cells) yield { text, line };
}

export const readRows = (file: InputFile, decimal?: DecimalMark): readonly Row[] => readTable(file, decimal).rows;

/** Rows below one header line. */
export function sheetOf([head, ...rows]: readonly Row[], file: string): Sheet {
  return { file, headers: head.cells.map((h) => h.toLowerCase()), rows: rows.map((r) => r.cells), lineOf: (row) => rows[row].line };
}

/** Column of the first name that the header has; -1 when it has none. */
export function columnOf(sheet: Sheet, names: readonly string[]): number {
  return sheet.headers.findIndex((h) => names.includes(h.replace(/[\s_()]+/g, '')));
}

/** Number in a cell of a table, which has a point for decimals by now. NaN when it is not one. */
export function numberIn(cell: string | undefined): number {
  const value = cell !== undefined && /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(cell) ? Number(cell) : NaN;
  return Number.isFinite(value) ? value : NaN;
}

/** Named columns as numbers, row by row; refuses with the lines that do not hold them. */
export function numericColumns(sheet: Sheet, columns: Readonly<Record<string, number>>): Record<string, Float64Array> {
  const out: Record<string, Float64Array> = Object.fromEntries(Object.keys(columns).map((k) => [k, new Float64Array(sheet.rows.length)]));
  const problems: UserProblem[] = [];
  sheet.rows.forEach((row, r) => {
    for (const [name, column] of Object.entries(columns)) {
      const value = numberIn(row[column]);
      out[name][r] = value;
      if (!Number.isFinite(value)) {
        const cell = row[column];
        problems.push({
          code: cell === undefined || cell === '' ? 'csv.missing' : 'csv.text',
          what:
            cell === undefined || cell === ''
              ? `there is no ${sheet.headers[column]}`
              : `${sheet.headers[column]} is "${cell.slice(0, 24)}", not a number`,
          where: { file: sheet.file, line: sheet.lineOf(r), field: sheet.headers[column] },
          do: 'Correct or remove this line.',
        });
      }
    }
  });
  if (problems.length > 0) refuseLines(problems);
  return out;
}
