// What a book's columns and ways are called.
import type { BookFigure, BookTool, Placing } from '#core/survey';
import type { QuantityKind } from '#core/units';

export const TOOL_WORDS: Readonly<Record<BookTool, string>> = {
  level: 'a level and a staff',
  'water-tube': 'a water tube',
  'a-frame': 'an A-frame',
};

export const PLACING_WORDS: Readonly<Record<Placing, string>> = {
  xy: 'x and y',
  offset: 'along and beside a line',
  distances: 'two tapes, from A and B',
  angle: 'an angle and a tape, from A',
};

/** A column of figures, as it is headed. */
export interface Column {
  readonly figure: BookFigure;
  readonly head: string;
  readonly kind: QuantityKind;
}

export const PLACE_COLUMNS: Readonly<Record<Placing, readonly [Column, Column]>> = {
  xy: [
    { figure: 'p', head: 'x', kind: 'length' },
    { figure: 'q', head: 'y', kind: 'length' },
  ],
  offset: [
    { figure: 'p', head: 'along', kind: 'length' },
    { figure: 'q', head: 'to its right', kind: 'length' },
  ],
  distances: [
    { figure: 'p', head: 'from A', kind: 'length' },
    { figure: 'q', head: 'from B', kind: 'length' },
  ],
  angle: [
    { figure: 'p', head: 'degrees', kind: 'number' },
    { figure: 'q', head: 'tape', kind: 'length' },
  ],
};

const KNOWN: Column = { figure: 'knownM', head: 'known', kind: 'reading' };

export const READ_COLUMNS: Readonly<Record<BookTool, readonly Column[]>> = {
  level: [
    { figure: 'backM', head: 'back', kind: 'reading' },
    { figure: 'interM', head: 'inter', kind: 'reading' },
    { figure: 'foreM', head: 'fore', kind: 'reading' },
    KNOWN,
  ],
  'water-tube': [{ figure: 'backM', head: 'behind', kind: 'reading' }, { figure: 'foreM', head: 'ahead', kind: 'reading' }, KNOWN],
  'a-frame': [{ figure: 'riseM', head: 'rise', kind: 'difference' }, { figure: 'steps', head: 'steps', kind: 'count' }, KNOWN],
};

/** How each is read, in two sentences. */
export const TOOL_HELP: Readonly<Record<BookTool, string>> = {
  level: 'Back-sight on a known level first. Inter-sights while the level stands; where it moves on, a fore-sight, and on the same peg the back-sight from the new place. Keep both about as far. End on a known level.',
  'water-tube': 'Both ends read at one time, the water at rest, no bubbles. The end behind stands on the line above, or on the place named in “from”. End on a known level.',
  'a-frame': 'How much higher each place is than the one before, summed over the steps of the way; lower is less than nothing. Turn the frame at every other step: its own error goes out. End on a known level.',
}; // prettier-ignore
