// Points without a header: three numbers a line, perhaps a number before them, perhaps words behind.
import { type Row, type Sheet, numberIn } from './columns.ts';

/** Lines looked at to see what a file is. */
const LOOKED_AT = 20;
const isNumber = (cell: string | undefined): boolean => !Number.isNaN(numberIn(cell));

/** Whether the first column only counts the points: whole numbers, each one more than the last, before three others. */
export function isCounted(rows: readonly Row[]): boolean {
  const first = rows.slice(0, LOOKED_AT).map(({ cells }) => cells);
  return first.length > 1 && first.every((cells, k) => [0, 1, 2, 3].every((c) => isNumber(cells[c])) && Number(cells[0]) === Number(first[0][0]) + k); // prettier-ignore
}

/** Whether a file begins with points at once, every line of its beginning with three numbers. */
export const isBare = (rows: readonly Row[]): boolean =>
  rows.length > 0 && rows.slice(0, LOOKED_AT).every(({ cells }) => [0, 1, 2].every((c) => isNumber(cells[c])));

/** The points as a sheet of easting, northing and level, with what was taken to be so. */
export function bareSheet(rows: readonly Row[], file: string): { readonly sheet: Sheet; readonly notes: readonly string[] } {
  const from = isCounted(rows) ? 1 : 0;
  const numbered = from === 1 ? 'the first column as numbers of the points, the next as' : 'the columns as';
  return {
    sheet: { file, headers: ['x', 'y', 'z'], rows: rows.map(({ cells }) => cells.slice(from, from + 3)), lineOf: (row) => rows[row].line },
    notes: [`It has no header: ${numbered} easting, northing and level in metres. Name them in a first line if they are others.`],
  };
}
