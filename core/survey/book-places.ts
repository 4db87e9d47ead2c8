// Where the readings of a level book were taken, by tape: along and beside a line, by two tapes, by an angle and a tape.
import { defineFormula } from '../formula/index.ts';
import type { Point } from '../geometry/index.ts';
import type { BookLine, BookProblem, LevelBook, Placing } from './level-book.ts';

const LENGTH = { unit: 'm', domain: 'nonNegative' } as const;
const BASE = { means: 'length of the base line from A to B', unit: 'm', domain: 'positive' } as const;

export const TWO_TAPES_ALONG = defineFormula(
  {
    id: 'survey.two-tapes-along',
    title: 'A place by two tapes: how far along the base line',
    statement: 'u = (a² − b² + c²) / (2 · c)',
    symbols: { a: { means: 'distance from A', ...LENGTH }, b: { means: 'distance from B', ...LENGTH }, c: BASE },
    result: { symbol: 'u', means: 'from A towards B', unit: 'm' },
    source: { key: 'common-practice', locator: 'a triangle of three known sides' },
  },
  ({ a, b, c }) => (a * a - b * b + c * c) / (2 * c),
);

export const TWO_TAPES_BESIDE = defineFormula(
  {
    id: 'survey.two-tapes-beside',
    title: 'A place by two tapes: how far beside the base line',
    statement: 'v = √(a² − u²)',
    symbols: { a: { means: 'distance from A', ...LENGTH }, u: { means: 'how far along it', unit: 'm', domain: 'finite' } },
    result: { symbol: 'v', means: 'from the base line', unit: 'm' },
    source: { key: 'common-practice', locator: 'a triangle of three known sides' },
    limits: 'Tapes that meet nearly in line tell little: a centimetre on one moves the place by decimetres.',
  },
  ({ a, u }) => Math.sqrt(Math.max(0, a * a - u * u)),
);

export const ANGLE_ALONG = defineFormula(
  {
    id: 'survey.angle-along',
    title: 'A place by an angle and a tape: how far along the base line',
    statement: 'u = d · cos φ',
    symbols: { d: { means: 'distance from A', ...LENGTH }, phi: { means: 'angle at A from B, as a clock turns', unit: 'deg', domain: 'finite' } },
    result: { symbol: 'u', means: 'from A towards B', unit: 'm' },
    source: { key: 'common-practice', locator: 'polar coordinates' },
  },
  ({ d, phi }) => d * Math.cos((phi * Math.PI) / 180),
); // prettier-ignore

export const ANGLE_BESIDE = defineFormula(
  {
    id: 'survey.angle-beside',
    title: 'A place by an angle and a tape: how far beside the base line',
    statement: 'v = d · sin φ',
    symbols: { d: { means: 'distance from A', ...LENGTH }, phi: { means: 'angle at A from B, as a clock turns', unit: 'deg', domain: 'finite' } },
    result: { symbol: 'v', means: 'to the right of the base line', unit: 'm' },
    source: { key: 'common-practice', locator: 'polar coordinates' },
  },
  ({ d, phi }) => d * Math.sin((phi * Math.PI) / 180),
); // prettier-ignore

/** Without marks of its own A is at nought and B lies on the way of x. */
const LOCAL: readonly [Point, Point] = [[0, 0], [1, 0]]; // prettier-ignore

/** Tapes that are short of each other by less than this meet where they come nearest: they sag [m]. */
const SAG_M = 0.05;

const baseLength = ([[ax, ay], [bx, by]]: readonly [Point, Point]): number => Math.hypot(bx - ax, by - ay);

const told = (m: number): string => `${m.toFixed(2)} m`;

/** Why two tapes meet nowhere. */
function apart(a: number, b: number, c: number): string | null {
  if (c - a - b > SAG_M) return `tapes of ${told(a)} and ${told(b)} do not meet: the marks are ${told(c)} apart`;
  if (Math.abs(a - b) - c > SAG_M)
    return `tapes of ${told(a)} and ${told(b)} do not meet: they differ by more than the ${told(c)} between the marks`;
  return null;
}

/** What keeps a line's place from being known. */
function wrongWithPlace({ p, q }: BookLine, { placing, baseM }: LevelBook): Omit<BookProblem, 'line'> | null {
  if (p === undefined && q === undefined) return null;
  if (p === undefined || q === undefined)
    return { what: 'of its place one figure is missing', do: 'Give both, or neither where it only carries the level on.' };
  if (placing === 'xy' || placing === 'offset') return null;
  const [tape, second] = placing === 'angle' ? [q, 0] : [p, q];
  if (tape < 0 || second < 0) return { what: 'a distance is less than nothing', do: 'Give it as it was read off the tape.' };
  const what = placing === 'distances' && baseM ? apart(p, q, baseLength(baseM)) : null;
  return what === null ? null : { what, do: 'Look for the tape that was read or booked wrong, or correct the marks.' };
}

/** Everything that keeps the places of a book from being known. */
export function placeProblems(book: LevelBook): BookProblem[] {
  const { lines, placing, baseM } = book;
  const found = lines.flatMap((one, line) => {
    const wrong = wrongWithPlace(one, book);
    return wrong ? [{ line, ...wrong }] : [];
  });
  if (baseM && placing !== 'xy' && !(baseLength(baseM) > 0))
    return [{ line: 0, what: 'marks A and B are one place', do: 'Give two marks apart from each other.' }];
  const needsMarks = placing === 'distances' && !baseM && lines.some((l) => l.p !== undefined);
  return needsMarks ? [{ line: 0, what: 'it is not told where the marks A and B are', do: 'Measure how far apart they are, and give both.' }] : found; // prettier-ignore
}

/** How far along the base line and to its right a place lies [m]. */
function beside({ p = NaN, q = NaN }: BookLine, { placing, side }: LevelBook, c: number): readonly [along: number, right: number] {
  if (placing === 'offset') return [p, q];
  if (placing === 'angle') return [ANGLE_ALONG.evaluate({ d: q, phi: p }), ANGLE_BESIDE.evaluate({ d: q, phi: p })];
  const u = TWO_TAPES_ALONG.evaluate({ a: p, b: q, c });
  const v = TWO_TAPES_BESIDE.evaluate({ a: p, u });
  return [u, side === 'right' ? v : -v];
}

/** Where each line was read [m]; null where it only carries the level on. Of a book in which `placeProblems` finds nothing. */
export function placesOf(book: LevelBook): (Point | null)[] {
  const base = book.baseM ?? LOCAL;
  const [[ax, ay], [bx, by]] = base;
  const c = baseLength(base);
  const [ex, ey] = [(bx - ax) / c, (by - ay) / c];
  return book.lines.map((line): Point | null => {
    const { p, q } = line;
    if (p === undefined || q === undefined) return null;
    if (book.placing === 'xy') return [p, q];
    const [along, right] = beside(line, book, c);
    return [ax + along * ex + right * ey, ay + along * ey - right * ex];
  });
}

/** Figures of a place told in another way; the other way round of `placesOf`. */
function figuresOf([x, y]: Point, { placing, baseM = LOCAL }: Pick<LevelBook, 'placing' | 'baseM'>): readonly [p: number, q: number] {
  if (placing === 'xy') return [x, y];
  const [[ax, ay], [bx, by]] = baseM;
  const c = baseLength(baseM);
  const [dx, dy] = [x - ax, y - ay];
  if (placing === 'distances') return [Math.hypot(dx, dy), Math.hypot(x - bx, y - by)];
  const along = (dx * (bx - ax) + dy * (by - ay)) / c;
  const right = (dx * (by - ay) - dy * (bx - ax)) / c;
  return placing === 'offset' ? [along, right] : [(Math.atan2(right, along) * 180) / Math.PI, Math.hypot(dx, dy)];
}

const NEAREST = 1e4;

/** The same places told in another way, to a tenth of a millimetre; what cannot be told so, in words. */
export function placedAs(book: LevelBook, placing: Placing): { readonly book: LevelBook } | { readonly cannot: string } {
  const [wrong] = placeProblems(book);
  if (wrong) return { cannot: `Line ${wrong.line + 1} first: ${wrong.what}. ${wrong.do}` };
  const places = placesOf(book);
  if (!places.some((at) => at !== null)) return { book: { ...book, placing } };
  if (placing === 'distances' && !book.baseM) return { cannot: 'Give the marks A and B first: tapes go out from them.' };
  const rights = places.flatMap((at) => (at ? [figuresOf(at, { ...book, placing: 'offset' })[1]] : []));
  const side = rights.some((v) => v > 0) ? 'right' : 'left';
  if (placing === 'distances' && side === 'right' && rights.some((v) => v < 0))
    return { cannot: 'Places lie on both sides of the way from A to B: two tapes tell one side only.' };
  const lines = book.lines.map((line, k): BookLine => {
    const at = places[k];
    if (!at) return line;
    const [p, q] = figuresOf(at, { ...book, placing }).map((v) => Math.round(v * NEAREST) / NEAREST);
    return { ...line, p, q };
  });
  return { book: { ...book, placing, ...(placing === 'distances' ? { side } : {}), lines } };
}

/** Places of a grid walked row by row, `perRow` to each; to and fro where `isToAndFro`. */
export function gridPlaces(count: number, { spacingM, perRow, isToAndFro }: { readonly spacingM: number; readonly perRow: number; readonly isToAndFro: boolean }): Point[] {
  return Array.from({ length: count }, (_, k): Point => {
    const [row, at] = [Math.floor(k / perRow), k % perRow];
    return [spacingM * (isToAndFro && row % 2 === 1 ? perRow - 1 - at : at), spacingM * row];
  });
} // prettier-ignore
