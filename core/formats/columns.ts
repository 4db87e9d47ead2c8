import { strFromU8 } from 'fflate';
import Papa from 'papaparse';
import type { UserProblem } from '../project/index.ts';
import { type InputFile, refuseFile, refuseLines } from './imported.ts';

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

/** Lines of a delimited text that hold anything; comma, semicolon or tab. */
export function readRows({ name, bytes }: InputFile): Row[] {
  const text = strFromU8(bytes).replace(/^\uFEFF/, '');
  if (text.trim() === '') refuseFile(name, 'file.empty', { what: 'the file is empty', do: 'Choose another file.' });
  if (text.includes('\u0000')) refuseFile(name, 'csv.binary', { what: 'it is not a text file', do: 'Export it as CSV.' });
  const parsed = Papa.parse<string[]>(text, { delimitersToGuess: [',', ';', '\t'] });
  return parsed.data
    .map((cells, i) => ({ cells: cells.map((c) => c.trim()), line: i + 1 }))
    .filter(({ cells }) => cells.some((c) => c !== ''));
}

/** Rows below one header line. */
export function sheetOf([head, ...rows]: readonly Row[], file: string): Sheet {
  return { file, headers: head.cells.map((h) => h.toLowerCase()), rows: rows.map((r) => r.cells), lineOf: (row) => rows[row].line };
}

/** Column of the first name that the header has; -1 when it has none. */
export function columnOf(sheet: Sheet, names: readonly string[]): number {
  return sheet.headers.findIndex((h) => names.includes(h.replace(/[\s_()]+/g, '')));
}

/** Number in a cell; a decimal comma is read where the delimiter leaves it. NaN when it is not one. */
export function numberIn(cell: string | undefined): number {
  if (cell === undefined || cell === '') return NaN;
  const text = /^-?\d+,\d+$/.test(cell) ? cell.replace(',', '.') : cell;
  return /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(text) ? Number(text) : NaN;
}

/** Named columns as numbers, row by row; refuses with the lines that do not hold them. */
export function numericColumns(sheet: Sheet, columns: Readonly<Record<string, number>>): Record<string, Float64Array> {
  const out = Object.fromEntries(Object.keys(columns).map((k) => [k, new Float64Array(sheet.rows.length)]));
  const problems: UserProblem[] = [];
  sheet.rows.forEach((row, r) => {
    for (const [name, column] of Object.entries(columns)) {
      const value = numberIn(row[column]);
      out[name][r] = value;
      if (Number.isNaN(value)) {
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
