// Dams as they were measured, pasted from a sheet: one a row.
import type { Dam } from './model.ts';

export interface RowProblem {
  readonly row: number;
  readonly what: string;
}

export type RowsRead =
  { readonly ok: true; readonly dams: readonly Dam[] } | { readonly ok: false; readonly problems: readonly RowProblem[] };

export const ROW_COLUMNS = 'at, height, bed, between banks, depth, silted %, lost %, stone near, note';
const NUMBERS = ['atM', 'heightM', 'bedWidthM', 'bankWidthM', 'depthM', 'siltedPercent', 'lostPercent', 'rockNearM3'] as const;
const REQUIRED = 5;

/** Columns are parted by tabs or semicolons, else by commas; where they are not parted by commas a comma is a decimal one. */
function cellsOf(row: string): string[] {
  const by = row.includes('\t') ? '\t' : row.includes(';') ? ';' : ',';
  const cells = row.split(by).map((cell) => cell.trim());
  return by === ',' ? cells : cells.map((cell, k) => (k < NUMBERS.length ? cell.replace(',', '.') : cell));
}

/**
 * Dams of pasted rows in metres and per cent; a first row without a number in its first column is a heading. Nothing is read unless
 * all of it is.
 */
export function damsFromRows(text: string): RowsRead {
  const rows = text.split(/\r?\n/).map((row, k) => ({ row: k + 1, cells: cellsOf(row), isEmpty: row.trim() === '' }));
  const filled = rows.filter((r) => !r.isEmpty);
  const [head] = filled;
  const body = head && Number.isNaN(Number(head.cells[0])) ? filled.slice(1) : filled;
  if (body.length === 0) return { ok: false, problems: [{ row: 1, what: `there is no row: give ${ROW_COLUMNS}` }] };
  const problems: RowProblem[] = [];
  const dams = body.map(({ row, cells }): Dam => {
    const given = NUMBERS.map((key, k) => {
      const cell = cells[k] ?? '';
      const value = cell === '' ? null : Number(cell);
      if (value === null && k < REQUIRED) problems.push({ row, what: `column ${k + 1} (${ROW_COLUMNS.split(', ')[k]}) is empty` });
      if (value !== null && !Number.isFinite(value))
        problems.push({ row, what: `"${cell.slice(0, 40)}" in column ${k + 1} is not a number` });
      return [key, value] as const;
    });
    const note = cells.slice(NUMBERS.length).join(', ').trim();
    const said = Object.fromEntries(given.filter(([, value]) => value !== null)) as unknown as Dam;
    return { ...said, isMeasured: true, ...(note === '' ? {} : { note }) };
  });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, dams };
}
