// A level book as a table: what was booked, line by line, becomes points with levels; and a book written out again.
import Papa from 'papaparse';
import {
  type BookFigure,
  type BookLine,
  type BookTool,
  type Closing,
  type LevelBook,
  LOOK_FOR_IT,
  MOST_BOOK_LINES,
  bookProblems,
  offSaid,
  placeProblems,
  placesOf,
  reduceBook,
  refusedClosings,
  setUpsSaid,
} from '../survey/index.ts';
import { type Sheet, columnOf, numberIn, readTable, sheetOf } from './columns.ts';
import { requireCrs } from './crs.ts';
import { isBeyondEarth } from './levels.ts';
import { harmless } from './marked-up.ts';
import { type ImportedTerrain, type InputFile, refuseFile, refuseLines } from './imported.ts';
import { SURVEY_KNOWN_M } from '../terrain/index.ts';
import { X, Y } from './point-names.ts';
import { surfaceOf } from './point-surface.ts';

const NAME = ['name', 'point', 'station', 'place', 'id', 'peg'];
const FROM = ['from', 'measuredfrom'];
const NOTE = ['note', 'notes', 'remark', 'remarks'];

/** Names of the columns that hold the figures of a line. */
const COLUMNS: Readonly<Record<BookFigure, readonly string[]>> = {
  p: X,
  q: Y,
  backM: ['bs', 'back', 'backsight', 'back-sight', 'behind'],
  interM: ['is', 'inter', 'intersight', 'inter-sight', 'intermediate'],
  foreM: ['fs', 'fore', 'foresight', 'fore-sight', 'ahead'],
  riseM: ['rise', 'risem'],
  steps: ['steps'],
  knownM: ['level', 'known', 'knownlevel', 'rl', 'bm', 'benchmark', 'reducedlevel'],
};

/** Heads of the columns a book is written with, by what it was read with. */
const HEADS: Readonly<Record<BookTool, Partial<Record<BookFigure, string>>>> = {
  level: { backM: 'bs', interM: 'is', foreM: 'fs' },
  'water-tube': { backM: 'behind', foreM: 'ahead' },
  'a-frame': { riseM: 'rise', steps: 'steps' },
};

const has = (sheet: Sheet, figure: BookFigure): boolean => columnOf(sheet, COLUMNS[figure]) >= 0;

export const isLevelBook = (sheet: Sheet): boolean =>
  (has(sheet, 'backM') && has(sheet, 'foreM')) || (has(sheet, 'riseM') && has(sheet, 'knownM'));

/** What a book was read with, by its columns: a tube has an end ahead and one behind. */
function toolOf(sheet: Sheet): BookTool {
  if (has(sheet, 'riseM') && !has(sheet, 'backM')) return 'a-frame';
  return columnOf(sheet, ['behind']) >= 0 ? 'water-tube' : 'level';
}

const millimetres = (m: number): string => `${Math.round(1000 * Math.abs(m))} mm`;
const metres = (m: number): string => `${m.toFixed(3)} m`;

/** A cell of the book: empty is not read. */
function cellOf(sheet: Sheet, row: number, column: number): number | undefined {
  const cell = column < 0 ? '' : (sheet.rows[row][column] ?? '');
  if (cell === '' || cell === '-' || cell === '–') return undefined;
  const value = numberIn(cell);
  if (!Number.isNaN(value)) return value;
  return refuseFile(sheet.file, 'csv.number', {
    what: `"${cell.slice(0, 40)}" is no number`,
    line: sheet.lineOf(row),
    do: 'Give metres, or leave the cell empty.',
  });
}

/** A table as a book, with nothing reduced yet. @throws UserError where a cell is no number, or there are too many lines. */
function bookOf(sheet: Sheet): LevelBook {
  if (sheet.rows.length > MOST_BOOK_LINES)
    refuseFile(sheet.file, 'book.long', {
      what: `it has ${sheet.rows.length} lines; a book has ${MOST_BOOK_LINES} at most`,
      do: 'Bring in one book at a time, or its places with their levels as x, y, z.',
    });
  const textAt = (row: number, names: readonly string[]): string => {
    const column = columnOf(sheet, names);
    return column < 0 ? '' : (sheet.rows[row][column] ?? '');
  };
  const figures = Object.keys(COLUMNS) as BookFigure[];
  const columns = figures.map((figure) => columnOf(sheet, COLUMNS[figure]));
  const lines = sheet.rows.map((_, row): BookLine => {
    const [from, note] = [textAt(row, FROM), textAt(row, NOTE)];
    const read = figures.flatMap((figure, k) => {
      const value = cellOf(sheet, row, columns[k]);
      return value === undefined ? [] : [[figure, value] as const];
    });
    return {
      name: textAt(row, NAME) || String(row + 1),
      ...Object.fromEntries(read),
      ...(from === '' ? {} : { from }),
      ...(note === '' ? {} : { note }),
    };
  });
  return { id: 'book', name: sheet.file, tool: toolOf(sheet), placing: 'xy', side: 'right', lines };
}

/** A book pasted or read from a table. @throws UserError where it is none. */
export function readBook(input: InputFile): Pick<LevelBook, 'tool' | 'lines'> {
  const sheet = sheetOf(readTable(input).rows, input.name);
  if (!isLevelBook(sheet))
    refuseFile(input.name, 'book.columns', {
      what: `its first line is "${sheet.headers.join(', ').slice(0, 60)}"`,
      line: 1,
      do: 'Begin with the names of its columns: name, x, y, bs, is, fs, level; or behind, ahead for a water tube; or rise, steps for an A-frame.',
    });
  return bookOf(sheet);
}

/** A book as a table that reads as the same levels: its places by coordinates, however they were measured. */
export function levelBookCsv(book: LevelBook): string {
  const places = placesOf(book);
  const heads = Object.entries(HEADS[book.tool]) as [BookFigure, string][];
  const rows = book.lines.map((line, k) => [
    harmless(line.name),
    harmless(line.from ?? ''),
    ...(places[k] ?? ['', '']).map((v) => (typeof v === 'number' ? Number(v.toFixed(3)) : v)),
    ...heads.map(([figure]) => line[figure] ?? ''),
    line.knownM ?? '',
    harmless(line.note ?? ''),
  ]);
  return Papa.unparse({ fields: ['name', 'from', 'x', 'y', ...heads.map(([, head]) => head), 'level', 'note'], data: rows }, { newline: '\n' }); // prettier-ignore
}

/** How a book closes on known levels, in words. */
function closingWords(closings: readonly Closing[]): string {
  if (closings.length === 0) return 'It comes back to no known level: nothing shows whether a reading is wrong.';
  const words = closings.map(({ offM, allowedM }) => `${millimetres(offM)} off, of ${millimetres(allowedM)} allowed`);
  return `It closes ${words.join('; ')}, spread over the set-ups.`;
}

/** Sums and closings of a reduced book, in a sentence each. */
function wordsOf({ tool }: LevelBook, { setUps, sumBackM, sumForeM, riseM, closings }: ReturnType<typeof reduceBook>): string {
  const sums = {
    level: `back-sights ${metres(sumBackM)}, fore-sights ${metres(sumForeM)}; rises less falls ${metres(riseM)}`,
    'water-tube': `behind ${metres(sumBackM)}, ahead ${metres(sumForeM)}; rises less falls ${metres(riseM)}`,
    'a-frame': `rises less falls ${metres(riseM)}`,
  }[tool];
  return `${setUpsSaid(setUps)}: ${sums}. ${closingWords(closings)}`;
}

/** Ground from a level book. @throws UserError with the lines that cannot be reduced, or where it closes too far off. */
export async function readLevelBook(sheet: Sheet, wanted: string | null): Promise<ImportedTerrain> {
  const { file } = sheet;
  if (columnOf(sheet, X) < 0 || columnOf(sheet, Y) < 0)
    refuseFile(file, 'book.places', {
      what: 'it does not tell where its readings were taken',
      line: 1,
      do: 'Add columns x and y in metres: from a corner along one side and away from it.',
    });
  const book = bookOf(sheet);
  if (book.lines.length < 2) refuseFile(file, 'book.few', { what: 'nothing was read after its first line', do: 'Book the readings that followed.' });
  const problems = [...bookProblems(book), ...placeProblems(book)];
  if (problems.length > 0)
    refuseLines(problems.map(({ line, ...p }) => ({ code: 'book.line', ...p, where: { file, line: sheet.lineOf(line) } })));
  const reduced = reduceBook(book);
  const refused = refusedClosings(reduced.closings);
  if (refused.length > 0)
    refuseLines(refused.map((one) => ({ code: 'book.closes', what: offSaid(one, millimetres), do: LOOK_FOR_IT, where: { file, line: sheet.lineOf(one.line) } })));
  // Change points and marks without a place carry levels on, and are no ground.
  const placed = placesOf(book).flatMap((at, k) => (at === null ? [] : [[...at, reduced.levelsM[k], reduced.knownToM[k]] as const]));
  const column = (at: 0 | 1 | 2): Float64Array => Float64Array.from(placed, (p) => p[at]);
  if (placed.length < 3)
    refuseFile(file, 'survey.few', { what: `${placed.length} of its readings have a place`, do: 'At least three, not in one line, make a surface.' });
  const wild = reduced.levelsM.findIndex(isBeyondEarth);
  if (wild >= 0)
    refuseFile(file, 'book.line', { what: `it comes to a level of ${metres(reduced.levelsM[wild])}, where no ground lies`, line: sheet.lineOf(wild), do: 'Look for the reading above it that is wrong.' });
  const knownToM = Math.max(...placed.map((p) => p[3]));
  const notes = [
    wordsOf(book, reduced),
    `Levels are known to ${millimetres(knownToM)} at worst, against the level it begins at.`,
  ];
  const crs = wanted === null ? null : (await requireCrs(wanted, file)).code;
  if (crs === null) notes.push('No coordinate system was given: positions are taken as local metres, and geographic exports are off.');
  const surface = surfaceOf({ x: column(0), y: column(1), z: column(2) }, { file, notes });
  return { ...surface, crs, known: { ...surface.known, levelsM: Math.max(SURVEY_KNOWN_M[0], knownToM) } };
} // prettier-ignore
