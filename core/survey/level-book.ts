// A level book as it is booked in the field, reduced by height of collimation, checked by rise and fall, and closed.
import { defineFormula } from '../formula/index.ts';

const LEVEL = { unit: 'm', domain: 'finite' } as const;

export const COLLIMATION = defineFormula(
  {
    id: 'survey.collimation',
    title: 'Height of collimation',
    statement: 'HC = B + b',
    symbols: { B: { means: 'known level', ...LEVEL }, b: { means: 'back-sight on it', ...LEVEL } },
    result: { symbol: 'HC', means: 'level of the line of sight', unit: 'm' },
    source: { key: 'common-practice', locator: 'levelling, height of collimation' },
  },
  ({ B, b }) => B + b,
);

export const REDUCED_LEVEL = defineFormula(
  {
    id: 'survey.reduced-level',
    title: 'Level of a place by the staff on it',
    statement: 'L = HC − r',
    symbols: { HC: { means: 'height of collimation', ...LEVEL }, r: { means: 'inter-sight or fore-sight', ...LEVEL } },
    result: { symbol: 'L', means: 'level', unit: 'm' },
    source: { key: 'common-practice', locator: 'levelling, height of collimation' },
  },
  ({ HC, r }) => HC - r,
);

export const MISCLOSURE_ALLOWED = defineFormula(
  {
    id: 'survey.misclosure-allowed',
    title: 'What a book may miss its end by',
    statement: 'm = 0.005 · √n',
    symbols: { n: { means: 'set-ups of the instrument', unit: '', domain: 'positive' } },
    result: { symbol: 'm', means: 'misclosure', unit: 'm' },
    source: { key: 'common-practice', locator: '5 mm times the root of the set-ups, sights of 50 m; 12 mm times the root of the kilometres is about the same' },
    limits: 'For earthwork and small structures.',
  },
  ({ n }) => 0.005 * Math.sqrt(n),
); // prettier-ignore

/** A line of the book; what was not read is null. */
export interface BookRow {
  readonly backM: number | null;
  readonly interM: number | null;
  readonly foreM: number | null;
  /** A level known before: where it begins, and where it closes. */
  readonly knownM: number | null;
}

export interface ReducedBook {
  /** Level of each line, the misclosure spread [m]. */
  readonly levelsM: readonly number[];
  readonly setUps: number;
  readonly sumBackM: number;
  readonly sumForeM: number;
  /** Rises less falls from the first reading to the last [m]: where that is a fore-sight, as much as back-sights less fore-sights. */
  readonly riseM: number;
  /** Where it comes back to a known level: how far it is off there, and what it may be over so many set-ups [m]; null where it never does. */
  readonly closes: { readonly offM: number; readonly allowedM: number; readonly setUps: number } | null;
}

/** What is wrong with a line, by its place in the book. */
export interface BookProblem {
  readonly row: number;
  readonly what: string;
  readonly do: string;
}

/** What keeps a line from being reduced; null where nothing does. */
function wrongWith({ backM, interM, foreM, knownM }: BookRow, row: number): Omit<BookProblem, 'row'> | null {
  if (row === 0) {
    if (knownM === null) return { what: 'the book begins at no known level', do: 'Give the level of the first place: 100.00, if it is a peg of your own.' };
    if (backM === null || interM !== null || foreM !== null) return { what: 'the first line has no back-sight alone', do: 'Begin with the back-sight on the known level.' };
    return null;
  }
  if (interM !== null && foreM !== null) return { what: 'it has an inter-sight and a fore-sight', do: 'Keep one: a fore-sight where the instrument moves on, else an inter-sight.' };
  if (interM === null && foreM === null)
    return backM === null
      ? { what: 'nothing was read on it', do: 'Give its reading, or take the line out.' }
      : { what: 'the instrument moved to it without a fore-sight: the level is lost', do: 'Give the fore-sight that was read there before the instrument moved.' };
  return interM !== null && backM !== null ? { what: 'it has an inter-sight and a back-sight', do: 'Where the instrument moves on, book a fore-sight.' } : null;
} // prettier-ignore

/** Everything that keeps a book from being reduced. */
export const bookProblems = (rows: readonly BookRow[]): BookProblem[] =>
  rows.flatMap((row, k) => {
    const wrong = wrongWith(row, k);
    return wrong ? [{ row: k, ...wrong }] : [];
  });

/** Levels of a sound book, its misclosure spread over the set-ups. */
export function reduceBook(rows: readonly BookRow[]): ReducedBook {
  const [first, ...rest] = rows;
  const begins = first.knownM ?? NaN;
  let collimationM = COLLIMATION.evaluate({ B: begins, b: first.backM ?? NaN });
  let [sumBackM, sumForeM, riseM, before, setUps] = [first.backM ?? NaN, 0, 0, first.backM ?? NaN, 1];
  const raw = [begins];
  // How many set-ups each level was carried over.
  const carried = [0];
  let closing: number | null = null;
  for (const { backM, interM, foreM, knownM } of rest) {
    const reading = interM ?? foreM ?? NaN;
    const levelM = REDUCED_LEVEL.evaluate({ HC: collimationM, r: reading });
    raw.push(levelM);
    carried.push(setUps);
    riseM += before - reading;
    before = reading;
    if (foreM === null) continue;
    sumForeM += foreM;
    if (knownM !== null) closing = raw.length - 1;
    if (backM === null) continue;
    sumBackM += backM;
    before = backM;
    setUps++;
    collimationM = COLLIMATION.evaluate({ B: levelM, b: backM });
  }
  const over = closing === null ? 0 : carried[closing];
  const offM = closing === null ? 0 : raw[closing] - (rows[closing].knownM ?? NaN);
  return {
    levelsM: raw.map((levelM, k) => levelM - (over === 0 ? 0 : (offM / over) * carried[k])),
    setUps,
    sumBackM,
    sumForeM,
    riseM,
    closes: closing === null ? null : { offM, allowedM: MISCLOSURE_ALLOWED.evaluate({ n: over }), setUps: over },
  };
}
