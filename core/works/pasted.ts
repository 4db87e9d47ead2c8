// Rows pasted from a sheet: so many numbers each, and perhaps a note.

export interface RowProblem {
  readonly row: number;
  readonly what: string;
}

export type RowsRead<T> =
  | { readonly ok: true; readonly rows: readonly T[] }
  | { readonly ok: false; readonly problems: readonly RowProblem[] };

interface Columns<T> {
  /** What they are called, parted by commas, numbers first. */
  readonly words: string;
  readonly numbers: readonly (keyof T & string)[];
  /** So many of the numbers must be there. */
  readonly required: number;
}

/** Columns are parted by tabs or semicolons, else by commas; where they are not parted by commas a comma is a decimal one. */
function cellsOf(row: string, numbers: number): string[] {
  const by = row.includes('\t') ? '\t' : row.includes(';') ? ';' : ',';
  const cells = row.split(by).map((cell) => cell.trim());
  return by === ',' ? cells : cells.map((cell, k) => (k < numbers ? cell.replace(',', '.') : cell));
}

/**
 * Pasted rows as numbers by their columns, with what follows them; a first row without a number in its first column is a heading.
 * Nothing is read unless all of it is.
 */
export function rowsOf<T>(
  text: string,
  columns: Columns<T>,
): RowsRead<{ readonly numbers: Partial<Record<keyof T & string, number>>; readonly rest: string }> {
  const { words, numbers, required } = columns;
  const rows = text.split(/\r?\n/).map((row, k) => ({ row: k + 1, cells: cellsOf(row, numbers.length), isEmpty: row.trim() === '' }));
  const filled = rows.filter((r) => !r.isEmpty);
  const [head] = filled;
  const body = head && Number.isNaN(Number(head.cells[0])) ? filled.slice(1) : filled;
  if (body.length === 0) return { ok: false, problems: [{ row: 1, what: `there is no row: give ${words}` }] };
  const problems: RowProblem[] = [];
  const read = body.map(({ row, cells }) => {
    const given: Partial<Record<keyof T & string, number>> = {};
    numbers.forEach((key, k) => {
      const cell = cells[k] ?? '';
      if (cell === '') {
        if (k < required) problems.push({ row, what: `column ${k + 1} (${words.split(', ')[k]}) is empty` });
        return;
      }
      const value = Number(cell);
      if (Number.isFinite(value)) given[key] = value;
      else problems.push({ row, what: `"${cell.slice(0, 40)}" in column ${k + 1} is not a number` });
    });
    return { numbers: given, rest: cells.slice(numbers.length).join(', ').trim() };
  });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, rows: read };
}
