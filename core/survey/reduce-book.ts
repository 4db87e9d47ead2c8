// A level book reduced: levels by height of collimation or leg by leg, held against known ones, what it is off spread over the set-ups.
import { defineFormula } from '../formula/index.ts';
import { placeProblems } from './book-places.ts';
import { type BookProblem, type BookTool, type LevelBook, bookProblems, bookedLines, lineFrom } from './level-book.ts';

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

export const TUBE_LEVEL = defineFormula(
  {
    id: 'survey.tube-level',
    title: 'Level of a place by a water tube',
    statement: 'L = P + b − a',
    symbols: {
      P: { means: 'level of the place behind', ...LEVEL },
      b: { means: 'water on the staff behind', ...LEVEL },
      a: { means: 'water on the staff ahead', ...LEVEL },
    },
    result: { symbol: 'L', means: 'level', unit: 'm' },
    source: { key: 'common-practice', locator: 'water stands as high at both ends of a hose without bubbles' },
  },
  ({ P, b, a }) => P + b - a,
);

export const MISCLOSURE_ALLOWED = defineFormula(
  {
    id: 'survey.misclosure-allowed',
    title: 'What a book may miss a known level by',
    statement: 'm = k · √n',
    symbols: {
      k: { means: 'what one set-up may be off: 0.005 by level or water tube, 0.010 by A-frame', unit: 'm', domain: 'positive' },
      n: { means: 'set-ups', unit: '', domain: 'positive' },
    },
    result: { symbol: 'm', means: 'misclosure', unit: 'm' },
    source: { key: 'common-practice', locator: '5 mm times the root of the set-ups, sights of 50 m; 12 mm times the root of the kilometres is about the same; 10 mm a set-up by A-frame, 3 to 5 by a water tube of 20 to 30 m' },
    limits: 'For earthwork and small structures.',
  },
  ({ k, n }) => k * Math.sqrt(n),
); // prettier-ignore

/** What one set-up may be off [m]: common practice, as the formula tells. */
export const PER_SET_UP_M: Readonly<Record<BookTool, number>> = { level: 0.005, 'water-tube': 0.005, 'a-frame': 0.01 };

/** Where a book comes to a level known before. */
export interface Closing {
  readonly line: number;
  /** How far its own level there is above the known one, what it may be, and over how many set-ups [m]. */
  readonly offM: number;
  readonly allowedM: number;
  readonly setUps: number;
}

export interface ReducedBook {
  /** Level of each line, what it is off spread [m]. */
  readonly levelsM: readonly number[];
  /** How near each is known, the first taken for true [m]. */
  readonly knownToM: readonly number[];
  /** Each line against the reading before it [m]; null for the first. */
  readonly risesM: readonly (number | null)[];
  /** Line of sight after each back-sight [m]; null where none was read. */
  readonly collimationM: readonly (number | null)[];
  readonly setUps: number;
  readonly sumBackM: number;
  readonly sumForeM: number;
  /** Rises less falls from the first reading to the last [m]: where that is a fore-sight, as much as back-sights less fore-sights. */
  readonly riseM: number;
  /** Where it comes to known levels; empty where nothing holds it. */
  readonly closings: readonly Closing[];
}

/** How a line's level hangs on that of another. */
interface Leg {
  readonly from: number;
  readonly riseM: number;
  /** Legs of one set-up of the instrument share what it is off. */
  readonly setUp: number;
  readonly setUps: number;
}

/** Legs of staff and level: all that was read from one set-up hangs on its back-sight. */
function legsBySights({ lines }: LevelBook): readonly Leg[] {
  const legs: Leg[] = [{ from: 0, riseM: 0, setUp: 0, setUps: 0 }];
  let [from, setUp, backM] = [0, 1, lines[0].backM ?? NaN];
  lines.slice(1).forEach(({ backM: back, interM, foreM }, k) => {
    const HC = COLLIMATION.evaluate({ B: 0, b: backM });
    legs.push({ from, riseM: REDUCED_LEVEL.evaluate({ HC, r: interM ?? foreM ?? NaN }), setUp, setUps: 1 });
    if (back === undefined) return;
    [from, backM] = [k + 1, back];
    setUp++;
  });
  return legs;
}

/** Legs of tube or frame: each line hangs on another, by a set-up of its own or several steps. */
const legsOneByOne = ({ lines, tool }: LevelBook): readonly Leg[] =>
  lines.map(({ backM = NaN, foreM = NaN, riseM = NaN, steps = NaN }, line): Leg => {
    if (line === 0) return { from: 0, riseM: 0, setUp: 0, setUps: 0 };
    const from = lineFrom(lines, line);
    const rise = tool === 'a-frame' ? riseM : TUBE_LEVEL.evaluate({ P: 0, b: backM, a: foreM });
    return { from, riseM: rise, setUp: line, setUps: tool === 'a-frame' ? steps : 1 };
  });

/** What is added to a set-up no known level has been held against [m]. */
const AS_READ = 0;

/** Levels by legs, each set-up corrected by what it was found off. */
function levelled(legs: readonly Leg[], startM: number, correctedM: ReadonlyMap<number, number>): number[] {
  const levels = [startM];
  for (const { from, riseM, setUp } of legs.slice(1)) levels.push(levels[from] + riseM + (correctedM.get(setUp) ?? AS_READ));
  return levels;
}

/** What known levels say of the set-ups that lead to them: how far the book is off there, and each set-up's part of it. */
function held(book: LevelBook, legs: readonly Leg[], startM: number): Pick<ReducedBook, 'closings'> & { readonly correctedM: ReadonlyMap<number, number>; readonly knownToM: readonly number[] } {
  const perSetUpM = PER_SET_UP_M[book.tool];
  const correctedM = new Map<number, number>();
  const closings: Closing[] = [];
  /** Of lines on a way that was closed: how near their level is known, as a square. */
  const settled = new Map<number, number>([[0, 0]]);
  book.lines.forEach(({ knownM }, line) => {
    if (line === 0 || knownM === undefined) return;
    const way: number[] = [];
    for (let at = line; !settled.has(at); at = legs[at].from) way.unshift(at);
    const free = way.filter((at) => !correctedM.has(legs[at].setUp));
    const over = free.reduce((sum, at) => sum + legs[at].setUps, 0);
    const offM = levelled(legs, startM, correctedM)[line] - knownM;
    const setUps = Math.max(1, over);
    closings.push({ line, offM, allowedM: MISCLOSURE_ALLOWED.evaluate({ k: perSetUpM, n: setUps }), setUps });
    for (const at of free) correctedM.set(legs[at].setUp, (-offM * legs[at].setUps) / over);
    let gone = 0;
    for (const at of way) {
      gone += free.includes(at) ? legs[at].setUps : 0;
      settled.set(at, over === 0 ? 0 : perSetUpM ** 2 * gone * (1 - gone / over));
    }
  });
  const squares: number[] = [];
  legs.forEach(({ from, setUps }, line) => squares.push(settled.get(line) ?? squares[from] + perSetUpM ** 2 * setUps));
  return { closings, correctedM, knownToM: squares.map(Math.sqrt) };
} // prettier-ignore

/** Each line against the reading before it, as rises and falls are booked: another way to the same levels. */
function risesBySights({ lines }: LevelBook): (number | null)[] {
  let before = lines[0].backM ?? NaN;
  return lines.map(({ backM, interM, foreM }, line) => {
    if (line === 0) return null;
    const reading = interM ?? foreM ?? NaN;
    const rise = before - reading;
    before = backM ?? reading;
    return rise;
  });
}

const sumOf = (list: readonly (number | null | undefined)[]): number =>
  list.reduce<number>((sum, v) => (typeof v === 'number' ? sum + v : sum), 0);

/** Levels of a book in which `bookProblems` finds nothing. */
export function reduceBook(book: LevelBook): ReducedBook {
  const { lines, tool } = book;
  const isSighted = tool === 'level';
  const legs = isSighted ? legsBySights(book) : legsOneByOne(book);
  const startM = lines[0].knownM ?? NaN;
  const { closings, correctedM, knownToM } = held(book, legs, startM);
  const levelsM = levelled(legs, startM, correctedM);
  const risesM = isSighted ? risesBySights(book) : legs.map(({ riseM }, line) => (line === 0 ? null : riseM));
  const sighted = (line: number): number | null => {
    const { backM } = lines[line];
    return isSighted && backM !== undefined ? COLLIMATION.evaluate({ B: levelsM[line], b: backM }) : null;
  };
  return {
    levelsM,
    knownToM,
    risesM,
    collimationM: lines.map((_, line) => sighted(line)),
    setUps: isSighted ? lines.filter((l) => l.backM !== undefined).length : sumOf(legs.map((l) => l.setUps)),
    sumBackM: sumOf(lines.map((l) => l.backM)),
    sumForeM: sumOf(lines.map((l) => l.foreM)),
    riseM: sumOf(risesM),
    closings,
  };
}

export const setUpsSaid = (setUps: number): string => `${setUps} set-up${setUps === 1 ? '' : 's'}`;

/** What to do with a book that is farther off than may be. */
export const LOOK_FOR_IT =
  'Look for the reading that is wrong: a metre or a decimetre, a six for a nine, or a peg that moved. Else level it again.';

/** Closings that are farther off than may be: a book with one is not used. */
export const refusedClosings = (closings: readonly Closing[]): readonly Closing[] =>
  closings.filter(({ offM, allowedM }) => Math.abs(offM) > allowedM);

/** Where a book is off and by how much, in the reader's words for lengths. */
export const offSaid = ({ offM, allowedM, setUps }: Closing, told: (m: number) => string): string =>
  `it closes ${told(Math.abs(offM))} too ${offM > 0 ? 'high' : 'low'}; over ${setUpsSaid(setUps)} ${told(allowedM)} would do`;

/** A book as far as it is booked. */
export interface LookedThrough {
  /** What keeps its levels or places from being known, in the order of its lines. */
  readonly problems: readonly BookProblem[];
  /** Its lines up to the first whose level cannot be known; null where that is the first of all. */
  readonly reduced: ReducedBook | null;
  /** Whether all that is booked is in it. */
  readonly isWhole: boolean;
}

/** Reduces a book that may still be written: as far as that goes. */
export function lookThrough(book: LevelBook): LookedThrough {
  const lines = bookedLines(book.lines);
  const wrong = bookProblems({ ...book, lines });
  const sound = wrong.length > 0 ? Math.min(...wrong.map((p) => p.line)) : lines.length;
  const problems = [...wrong, ...placeProblems(book)].sort((a, b) => a.line - b.line);
  return { problems, reduced: sound === 0 ? null : reduceBook({ ...book, lines: lines.slice(0, sound) }), isWhole: problems.length === 0 };
}
