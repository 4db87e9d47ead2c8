// A level book as a table: what was booked, line by line, becomes points with levels.
import { type BookRow, bookProblems, reduceBook } from '../survey/index.ts';
import { type Sheet, columnOf, numberIn } from './columns.ts';
import { requireCrs } from './crs.ts';
import { type ImportedTerrain, refuseFile, refuseLines } from './imported.ts';
import { X, Y, surfaceOf } from './survey-csv.ts';

const BACK = ['bs', 'back', 'backsight', 'back-sight'];
const INTER = ['is', 'inter', 'intersight', 'inter-sight', 'intermediate'];
const FORE = ['fs', 'fore', 'foresight', 'fore-sight'];
const KNOWN = ['level', 'known', 'knownlevel', 'rl', 'bm', 'benchmark', 'reducedlevel'];

export const isLevelBook = (sheet: Sheet): boolean => columnOf(sheet, BACK) >= 0 && columnOf(sheet, FORE) >= 0;

const metres = (m: number): string => `${m.toFixed(3)} m`;
const millimetres = (m: number): string => `${Math.round(1000 * Math.abs(m))} mm`;

const counted = (setUps: number): string => `${setUps} set-up${setUps === 1 ? '' : 's'}`;

/** A cell of the book: empty is not read. */
function cellOf(sheet: Sheet, row: number, column: number): number | null {
  const cell = column < 0 ? '' : (sheet.rows[row][column] ?? '');
  if (cell === '' || cell === '-' || cell === '–') return null;
  const value = numberIn(cell);
  if (!Number.isNaN(value)) return value;
  return refuseFile(sheet.file, 'csv.number', {
    what: `"${cell.slice(0, 40)}" is no number`,
    line: sheet.lineOf(row),
    do: 'Give metres, or leave the cell empty.',
  });
}

/** Ground from a level book. @throws UserError with the lines that cannot be reduced, or where it closes too far off. */
export async function readLevelBook(sheet: Sheet, wanted: string | null): Promise<ImportedTerrain> {
  const { file } = sheet;
  const [back, inter, fore, known, x, y] = [BACK, INTER, FORE, KNOWN, X, Y].map((names) => columnOf(sheet, names));
  if (x < 0 || y < 0)
    refuseFile(file, 'book.places', {
      what: 'it does not tell where its readings were taken',
      line: 1,
      do: 'Add columns x and y in metres: from a corner along one side and away from it.',
    });
  const rows = sheet.rows.map((_, k): BookRow => ({ backM: cellOf(sheet, k, back), interM: cellOf(sheet, k, inter), foreM: cellOf(sheet, k, fore), knownM: cellOf(sheet, k, known) })); // prettier-ignore
  if (rows.length < 2) refuseFile(file, 'book.few', { what: 'nothing was read after its first line', do: 'Book the readings that followed.' });
  const problems = bookProblems(rows);
  if (problems.length > 0)
    refuseLines(problems.map(({ row, ...p }) => ({ code: 'book.line', ...p, where: { file, line: sheet.lineOf(row) } })));
  const book = reduceBook(rows);
  const { closes, setUps } = book;
  if (closes && Math.abs(closes.offM) > closes.allowedM)
    refuseFile(file, 'book.closes', {
      what: `it closes ${millimetres(closes.offM)} too ${closes.offM > 0 ? 'high' : 'low'}; over ${counted(closes.setUps)} ${millimetres(closes.allowedM)} would do`,
      do: 'Look for the reading that is wrong: a metre or a decimetre, a six for a nine, or a peg that moved. Else level it again.',
    });
  // Change points and marks without a place carry levels on, and are no ground.
  const placed = rows.flatMap((_, k) => {
    const [px, py] = [cellOf(sheet, k, x), cellOf(sheet, k, y)];
    return px === null || py === null ? [] : [[px, py, book.levelsM[k]] as const];
  });
  const column = (at: 0 | 1 | 2): Float64Array => Float64Array.from(placed, (p) => p[at]);
  if (placed.length < 3)
    refuseFile(file, 'survey.few', { what: `${placed.length} of its readings have a place`, do: 'At least three, not in one line, make a surface.' });
  const told = closes
    ? `It closes ${millimetres(closes.offM)} off, of ${millimetres(closes.allowedM)} allowed, spread over the set-ups.`
    : 'It comes back to no known level: nothing shows whether a reading is wrong.';
  const notes = [
    `${counted(setUps)}: back-sights ${metres(book.sumBackM)}, fore-sights ${metres(book.sumForeM)}; rises less falls ${metres(book.riseM)}. ${told}`,
  ];
  const crs = wanted === null ? null : (await requireCrs(wanted, file)).code;
  if (crs === null) notes.push('No coordinate system was given: positions are taken as local metres, and geographic exports are off.');
  return { ...surfaceOf({ x: column(0), y: column(1), z: column(2) }, file, notes), crs };
} // prettier-ignore
