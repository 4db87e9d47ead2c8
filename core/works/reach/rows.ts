// Sections as they stand in a field book, pasted: one a row.
import { type RowsRead, rowsOf } from '../pasted.ts';
import type { ReachSection } from './model.ts';

export const SECTION_COLUMNS = 'at, bed level, bed width, left out, left up, right out, right up';
const NUMBERS = ['atM', 'bedM', 'bedWidthM', 'leftOutM', 'leftHighM', 'rightOutM', 'rightHighM'] as const;

/** Sections of pasted rows in metres. Nothing is read unless all of it is. */
export function sectionsFromRows(text: string): RowsRead<ReachSection> {
  const read = rowsOf<ReachSection>(text, { words: SECTION_COLUMNS, numbers: NUMBERS, required: NUMBERS.length });
  // What is required of a row is there.
  return read.ok ? { ok: true, rows: read.rows.map(({ numbers }) => numbers as ReachSection) } : read;
}
