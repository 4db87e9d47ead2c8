// Marks known in two grounds, as they are typed: a name, where it stands, its level in the ground, its level by the survey.
import type { Mark } from '../terrain/index.ts';
import { numberIn, readTable } from './columns.ts';
import type { DecimalMark } from './decimals.ts';
import { refuseLines } from './imported.ts';

/** A project has hardly more than this. */
const MOST_MARKS = 200;
const NAMED_IN = 'marks';

/** Without the empty cells some programs end their lines with. */
const withoutTail = (cells: readonly string[]): readonly string[] =>
  cells.slice(0, cells.length - [...cells].reverse().findIndex((cell) => cell !== ''));

/** "Old well 500 600 12.5": what comes before the first number is the name. */
function spaced(line: string): readonly string[] {
  const words = line.split(/\s+/);
  const first = words.findIndex((word) => !Number.isNaN(numberIn(word)));
  return first > 0 ? [words.slice(0, first).join(' '), ...words.slice(first)] : words;
}

/**
 * Marks typed or pasted, one a line: a name, easting, northing, and where they are known the level in the ground and that by the
 * survey [m]. A first line of words alone names the columns. @throws UserError with the lines that cannot be used.
 */
export function readMarks(text: string, decimal?: DecimalMark): readonly Mark[] {
  const { rows } = readTable({ name: NAMED_IN, bytes: new TextEncoder().encode(text) }, decimal);
  // Words parted by spaces alone come as one.
  const lines = rows.map(({ cells, line }) => ({
    words: cells.length === 1 ? spaced(cells[0]) : withoutTail(cells),
    line,
  }));
  const isHeader = lines[0].words.every((cell) => Number.isNaN(numberIn(cell)));
  const read = (isHeader ? lines.slice(1) : lines).map(({ words, line }) => {
    const isNamed = Number.isNaN(numberIn(words[0]));
    // A level left empty between others is one that nobody gave; a place left empty is none.
    const figures = (isNamed ? words.slice(1) : words).map((cell, k) => (cell === '' && k >= 2 ? null : numberIn(cell)));
    return { name: isNamed && words[0] !== '' ? words[0].slice(0, 40) : `Mark ${line}`, figures, line };
  });
  const wrong = read.filter(({ figures }) => figures.length < 2 || figures.length > 4 || figures.some((v) => v !== null && Number.isNaN(v)));
  if (wrong.length > 0 || read.length === 0 || read.length > MOST_MARKS)
    refuseLines(
      (wrong.length > 0 ? wrong : [{ line: 1, figures: [] }]).map(({ line }) => ({
        code: 'marks.line',
        what: read.length > MOST_MARKS ? `there are ${read.length} marks` : 'it is no mark',
        where: { file: NAMED_IN, line },
        do: 'Write a name, easting, northing, the level in the ground, and the level by the survey where it was read; all in metres.',
      })),
    );
  return read.map(({ name, figures: [x, y, groundM, surveyM] }) => ({ name, at: [Number(x), Number(y)] as const, groundM: groundM ?? null, surveyM: surveyM ?? null }));
} // prettier-ignore
