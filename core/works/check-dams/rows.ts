// Dams as they were measured, pasted from a sheet: one a row.
import { type RowsRead, rowsOf } from '../pasted.ts';
import type { Dam } from './model.ts';

export const ROW_COLUMNS = 'at, height, bed, between banks, depth, silted %, lost %, stone near, note';
const NUMBERS = ['atM', 'heightM', 'bedWidthM', 'bankWidthM', 'depthM', 'siltedPercent', 'lostPercent', 'rockNearM3'] as const;
const REQUIRED = 5;

/** Dams of pasted rows in metres and per cent. Nothing is read unless all of it is. */
export function damsFromRows(text: string): RowsRead<Dam> {
  const read = rowsOf<Dam>(text, { words: ROW_COLUMNS, numbers: NUMBERS, required: REQUIRED });
  if (!read.ok) return read;
  // What is required of a row is there.
  const rows = read.rows.map(({ numbers, rest }) => ({ ...numbers, isMeasured: true, ...(rest === '' ? {} : { note: rest }) }) as Dam);
  return { ok: true, rows };
}
