// Rain tables as people have them: one line a duration, one column a return period; depths or intensities, mm or inches; also
// the layout of public frequency services, with lines of words above each block and blocks of confidence limits.
import { type RainTable, type TableLimits, checkTable } from '../rain/index.ts';
import type { UserProblem } from '../project/index.ts';
import { type Row, numberIn } from './columns.ts';
import { type ImportedRain, refuseFile, refuseLines } from './imported.ts';

/** What the user says of a table that does not say it itself. */
export interface TableHow {
  readonly unit?: 'mm' | 'in';
  readonly holds?: 'depth' | 'intensity';
}

const MM_PER_INCH = 25.4;
const UNIT_MINUTES: Readonly<Record<string, number>> = {
  m: 1,
  min: 1,
  mins: 1,
  minute: 1,
  minutes: 1,
  h: 60,
  hr: 60,
  hrs: 60,
  hour: 60,
  hours: 60,
  d: 1440,
  day: 1440,
  days: 1440,
};

/** Minutes of "5-min:", "24 h", "3-day" or a bare number in the header's unit; NaN when it is no duration. */
export function durationIn(cell: string, bareMinutes: number): number {
  const match = /^(\d+(?:\.\d+)?)[\s-]*([a-z]*)\.?:?$/i.exec(cell.trim());
  if (!match) return NaN;
  const unit = match[2] === '' ? bareMinutes : UNIT_MINUTES[match[2].toLowerCase()];
  return unit === undefined ? NaN : numberIn(match[1]) * unit;
}

/** Years of a column's head: "10", "10 yr", "1 in 10", "T10"; NaN when it is none. */
function yearsIn(cell: string): number {
  return numberIn(
    cell
      .toLowerCase()
      .replace(/\s*(-?year|-?yr|y|a)s?$/, '')
      .replace(/^(1\s*(in|\/|:)\s*|t\s*=?\s*)/, ''),
  );
}

type BlockKind = 'depths' | 'upper' | 'lower';

interface Block {
  readonly kind: BlockKind;
  readonly head: Row;
  readonly years: readonly number[];
  readonly bareMinutes: number;
  readonly rows: Row[];
}

/** A line whose first cell says what the first column holds and whose others are return periods. */
const isHead = ({ cells }: Row): boolean => {
  const rest = cells.slice(1).filter((c) => c !== '');
  const says = /^(dur|min|hours?\b|h$|days?$)|\b(ari|aep|return|years?)\b/i.test(cells[0]) && Number.isNaN(durationIn(cells[0], 1));
  return says && rest.length > 0 && rest.every((c) => yearsIn(c) > 0);
};

/** Whether rows hold a rain table: a head of durations against return periods. */
export const isRain = (rows: readonly Row[]): boolean =>
  rows.slice(0, 40).some((r) => isHead(r) || /^duration/i.test(r.cells[0]) || /^(hours?|minutes?|min)$/i.test(r.cells[0]));

const bareMinutesOf = (cell: string): number =>
  /(^|[^a-z])(h|hr|hrs|hour|hours)([^a-z]|$)/i.test(cell.replace(/_/g, ' ')) ? 60 : /day/i.test(cell) ? 1440 : 1;

const kindOf = (words: string): BlockKind | null =>
  /upper|high/i.test(words) ? 'upper' : /lower|low\b/i.test(words) ? 'lower' : /estimate|depth|intensit/i.test(words) ? 'depths' : null;

/** Rows in blocks, each under its head; words above a head say what the block holds. */
function blocksOf(rows: readonly Row[], file: string): { blocks: Block[]; words: string } {
  const blocks: Block[] = [];
  const words: string[] = [];
  let kind: BlockKind = 'depths';
  for (const row of rows) {
    const text = row.cells.join(' ');
    const open = blocks[blocks.length - 1];
    if (isHead(row)) {
      blocks.push({
        kind: kindOf(row.cells[0]) ?? kind,
        head: row,
        years: row.cells
          .slice(1)
          .filter((c) => c !== '')
          .map(yearsIn),
        bareMinutes: bareMinutesOf(row.cells[0]),
        rows: [],
      });
      words.push(row.cells[0]);
    } else if (open && !Number.isNaN(durationIn(row.cells[0], open.bareMinutes))) open.rows.push(row);
    else if (/^duration|^(hours?|minutes?|min)$/i.test(row.cells[0]) && row.cells.length > 1) {
      const bad = row.cells.slice(1).findIndex((c) => !(yearsIn(c) > 0));
      refuseFile(file, 'rain.columns', {
        what: `column ${bad + 2} is headed "${row.cells[bad + 1]}"`,
        line: row.line,
        do: 'Head each column after the first with its return period in years: duration_min, 2, 10, 20, 100.',
      });
    } else if (open && row.cells.filter((c) => !Number.isNaN(numberIn(c))).length > 1) {
      refuseFile(file, 'rain.duration', {
        what: `"${row.cells[0].slice(0, 24)}" is no duration`,
        line: row.line,
        do: 'Begin the line with a duration: 30, 30-min, 2 h or 1 day.',
      });
    } else {
      words.push(text);
      kind = kindOf(text) ?? kind;
    }
  }
  return { blocks, words: words.join('\n') };
}

interface Meaning {
  readonly factor: number;
  readonly isIntensity: boolean;
  readonly notes: readonly string[];
}

/** Unit and kind of the numbers, from the words of the file or from what the user says. */
function meaningOf(words: string, file: string, how: TableHow): Meaning {
  const inches = /\bin(ch(es)?)?\b(?!\s*\d)|in\/h|"/i.test(words.replace(/1\s*in\s*\d+/gi, ''));
  const metric = /\bmm\b|_mm|millimet/i.test(words);
  if (inches && metric && how.unit === undefined) {
    refuseFile(file, 'rain.units', {
      what: 'it speaks of both millimetres and inches',
      do: 'Say which: keep one unit in the file, or choose it when pasting.',
    });
  }
  const unit = how.unit ?? (inches ? 'in' : 'mm');
  const isIntensity = (how.holds ?? (/intensit|\/\s*h|per hour|mmh/i.test(words) ? 'intensity' : 'depth')) === 'intensity';
  const notes: string[] = [];
  if (how.unit === undefined && !inches && !metric) notes.push('Nothing in it names a unit: the numbers were taken as millimetres.');
  if (unit === 'in') notes.push('Inches were turned into millimetres.');
  if (isIntensity) notes.push('Intensities were turned into depths.');
  if (/partial\s*duration/i.test(words)) {
    notes.push(
      'It counts every great rain, not only the greatest of each year: a 2-year depth of it is about 1 in 2.5 years of yearly maxima; from 10 years on the two agree.',
    );
  }
  return { factor: unit === 'in' ? MM_PER_INCH : 1, isIntensity, notes };
}

/** Depths of a block by return period and duration [mm], both rising. */
function depthsOf(block: Block, file: string, { factor, isIntensity }: Meaning): { table: RainTable; lineOf: (column: number) => number } {
  const problems: UserProblem[] = [];
  const durations = block.rows.map((r) => durationIn(r.cells[0], block.bareMinutes));
  const cell = (r: number, k: number): number => {
    const text = block.rows[r].cells[k + 1];
    const value = numberIn(text);
    if (Number.isNaN(value)) {
      const isMissing = text === undefined || text === '';
      problems.push({
        code: isMissing ? 'csv.missing' : 'csv.text',
        what: isMissing ? `there is no depth for ${block.years[k]} years` : `"${text.slice(0, 24)}" is not a number`,
        where: { file, line: block.rows[r].line, field: String(block.years[k]) },
        do: 'Correct or remove this line.',
      });
    }
    return factor * (isIntensity ? (value * durations[r]) / 60 : value);
  };
  const order = durations.map((_, i) => i).sort((a, b) => durations[a] - durations[b]);
  const yearOrder = block.years.map((_, i) => i).sort((a, b) => block.years[a] - block.years[b]);
  const table = {
    durationsMin: order.map((r) => durations[r]),
    returnYears: yearOrder.map((k) => block.years[k]),
    depthMm: yearOrder.map((k) => order.map((r) => cell(r, k))),
  };
  if (problems.length > 0) refuseLines(problems);
  return { table, lineOf: (column) => block.rows[order[column]].line };
}

/** Confidence limits, where both blocks have the shape of the table. */
function limitsOf(table: RainTable, blocks: readonly RainTable[]): TableLimits | null {
  const isSame = (t: RainTable): boolean =>
    t.durationsMin.join() === table.durationsMin.join() && t.returnYears.join() === table.returnYears.join();
  return blocks.length === 2 && blocks.every(isSame) ? { lowMm: blocks[0].depthMm, highMm: blocks[1].depthMm } : null;
}

/** A rain table from rows of a file or of a paste. @throws UserError saying what is wrong, where and what to do. */
export function readRainTable(rows: readonly Row[], file: string, how: TableHow = {}): ImportedRain {
  const { blocks, words } = blocksOf(rows, file);
  const main = blocks.find((b) => b.kind === 'depths') ?? blocks[0];
  if (!main) {
    return refuseFile(file, 'rain.columns', {
      what: 'no line heads the columns with return periods',
      do: 'Begin with a line such as duration_min, 2, 10, 20, 100 and give one line a duration below it.',
    });
  }
  if (main.rows.length === 0)
    refuseFile(file, 'rain.empty', { what: 'it has a header but no depths', line: main.head.line, do: 'Give one line a duration.' });
  const meaning = meaningOf(words, file, how);
  const { table, lineOf } = depthsOf(main, file, meaning);
  const problems = checkTable(table).map((p) => ({
    code: `rain.${p.code}`,
    what: p.what,
    where: { file, ...(p.column === undefined ? {} : { line: lineOf(p.column) }) },
    do: 'Correct the table: depth never falls with duration or return period.',
  }));
  if (problems.length > 0) refuseLines(problems);
  const others = (['lower', 'upper'] as const)
    .flatMap((kind) => blocks.filter((b) => b.kind === kind && b.rows.length > 0).slice(0, 1))
    .map((b) => depthsOf(b, file, meaning).table);
  const limits = limitsOf(table, others);
  const notes = [...meaning.notes];
  if (limits) notes.push('Its confidence limits are kept.');
  else if (others.length > 0) notes.push('Its confidence limits do not match the table and were left out.');
  return { kind: 'rain', table, limits, source: file, notes };
}

/** The table as CSV, in the layout that readRainTable reads. */
export function writeRainTable(table: RainTable): string {
  const head = ['duration_min', ...table.returnYears.map(String)];
  const rows = table.durationsMin.map((d, c) => [d, ...table.depthMm.map((row) => row[c])]);
  return [head, ...rows].map((r) => r.join(',')).join('\n') + '\n';
}
