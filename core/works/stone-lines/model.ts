// Porous lines of stone along the contour, with a dense row of grass behind: they slow water and drop silt, and let it through.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkEntries, checkFields, checkLines } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';

export const ROW_GRASS = ['none', 'behind'] as const;

/** Where the grass of a row was found missing. */
export interface Gap {
  /** Of which line, from the highest. */
  readonly row: number;
  readonly atM: number;
  readonly widthM: number;
}

export interface StoneLines extends WorkBase {
  readonly kind: 'stone-lines';
  readonly lines: readonly Line[];
  readonly grass: (typeof ROW_GRASS)[number];
  readonly dimensions: {
    readonly heightM: number;
    readonly baseWidthM: number;
    readonly topWidthM: number;
    readonly trenchM: number;
    readonly pieceM: number;
    /** How much higher than the line its ends are carried, uphill. */
    readonly endsUpM: number;
    readonly plantSpacingM: number;
    readonly grassRows: number;
    readonly litresAPlant: number;
  };
  readonly gaps?: readonly Gap[];
  readonly siltedPercent?: number;
  readonly rockNearM3?: number;
  readonly labour: Logged & { readonly m3PerDay: number; readonly carryM: number; readonly plantsPerDay: number };
}

const PLANTED: FieldSpec['shownWhen'] = { path: 'grass', is: ['behind'] };
const d = (
  key: keyof StoneLines['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });

export const LINES_FIELDS: readonly FieldSpec[] = [
  d('heightM', 'Height', { min: 0.1, max: 0.8, help: '0.25 to 0.3 m: enough to slow water, not to hold it.' }),
  d('baseWidthM', 'Width at the ground', { min: 0.1, max: 2, help: '0.35 to 0.4 m.' }),
  d('topWidthM', 'Width at the top', { min: 0, max: 1.5, help: 'Nothing for a ridge of single stones.' }),
  d('trenchM', 'Set into the ground', { min: 0, max: 0.4, help: '0.05 to 0.1 m, so that water does not find a way under it.' }),
  d('pieceM', 'Median stone', { min: 0.03, max: 0.6, kind: 'difference', help: 'Larger pieces downhill, small ones behind them.' }),
  d('endsUpM', 'Ends carried up', { min: 0, max: 2, help: 'Turned uphill by as much as it is high, so that water stays behind it.' }),
  d('plantSpacingM', 'Plants apart', {
    min: 0.05,
    max: 2,
    help: '0.15 m closes in a season; a gap lets through what the row should spread.',
    shownWhen: PLANTED,
  }),
  d('grassRows', 'Rows of grass', { min: 1, max: 6, kind: 'count', help: 'Two, staggered, close sooner than one.', shownWhen: PLANTED }),
  d('litresAPlant', 'Water for each plant', {
    min: 0,
    max: 50,
    kind: 'number',
    help: 'Litres, until it has taken: about 5 in a dry start.',
    shownWhen: PLANTED,
  }),
  {
    path: 'siltedPercent',
    label: 'Silt behind it',
    kind: 'percent',
    min: 0,
    max: 100,
    help: 'Share of its height that is filled.',
    optional: { offer: 'Silt lies behind them', start: 30 },
  },
  {
    path: 'rockNearM3',
    label: 'Loose stone near',
    kind: 'volume',
    min: 0,
    max: 100_000,
    help: 'What lies loose on the field and beside it: never prised from a slope it holds.',
    optional: { offer: 'You have counted the stone', start: 10 },
  },
  {
    path: 'labour.m3PerDay',
    label: 'One person lays in a day',
    kind: 'volume',
    min: 0.1,
    max: 20,
    help: 'About 1.5 m³ of stone that lies beside it.',
  },
  { path: 'labour.carryM', label: 'It is carried', kind: 'distance', min: 0, max: 2000, help: 'From where it lies, on average.' },
  {
    path: 'labour.plantsPerDay',
    label: 'One person plants in a day',
    kind: 'count',
    min: 1,
    max: 5000,
    help: 'About 400 slips in loosened, wet ground.',
    shownWhen: PLANTED,
  },
  LOGGED_HOURS,
];

export const LINES_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'grass',
    label: 'Grass',
    options: [
      { id: 'none', name: 'stone alone' },
      { id: 'behind', name: 'a dense row behind the stone' },
    ],
  },
];

export const GAPS: ListSpec = {
  path: 'gaps',
  title: 'Gaps found',
  words: {
    none: 'No gap noted. Walk the rows after the first season, and after each flood.',
    add: 'Note a gap',
    remove: 'Closed: take it away',
  },
  fields: [
    { path: 'row', label: 'In line', kind: 'count', min: 1, max: 400, help: 'Counted from the highest.' },
    { path: 'atM', label: 'At', kind: 'length', min: 0, max: 20_000, help: 'From the start of that line.' },
    { path: 'widthM', label: 'Wide', kind: 'length', min: 0.05, max: 1000, help: 'Where nothing grows or no stone lies.' },
  ],
  start: () => ({ row: 1, atM: 5, widthM: 0.5 }),
};

/** More than anybody lays as one. */
const MOST_LINES = 400;

/** Gaps where no line lies. */
function gapProblems({ lines, gaps = [], name }: StoneLines): Problem[] {
  return gaps.flatMap(({ row, atM }, k): Problem[] => {
    const line: Line | undefined = lines[row - 1];
    if (!Number.isInteger(row) || !line) {
      const what = `gap ${k + 1} of "${name}" lies in line ${row}, of ${lines.length}`;
      return [{ code: 'stone-lines.gap', field: `gaps.${k}.row`, what, do: 'Count lines from the highest.' }];
    }
    if (atM <= lineLength(line) + 0.05) return [];
    const what = say`gap ${amount(k + 1, 'count')} of "${name}" lies at ${amount(atM, 'length')}, its line is ${amount(lineLength(line), 'length')} long`;
    return [{ code: 'stone-lines.gap', field: `gaps.${k}.atM`, what, do: 'Measure from the start of that line.' }];
  });
}

/** Everything wrong with one set of lines on its own. */
export function validateLines(work: StoneLines): Problem[] {
  const shape = [
    ...checkFields(work, LINES_FIELDS),
    ...checkChoices(work, LINES_CHOICES),
    ...checkLines(work, { path: 'lines', each: 'line', most: MOST_LINES }),
    ...checkEntries(work, { ...GAPS, each: 'gap' }),
  ];
  if (shape.length > 0) return shape;
  const gaps = gapProblems(work);
  if (gaps.length > 0 || work.dimensions.topWidthM <= work.dimensions.baseWidthM) return gaps;
  return [
    {
      code: 'stone-lines.widths',
      what: say`"${work.name}" is ${amount(work.dimensions.topWidthM, 'length')} wide at its top, ${amount(work.dimensions.baseWidthM, 'length')} at the ground`,
      field: 'dimensions.topWidthM',
      do: 'Make it no wider at the top than at the ground.',
    },
  ];
}

/** Length of all lines [m]. */
export const lengthOf = ({ lines }: Pick<StoneLines, 'lines'>): number => lines.reduce((a, l) => a + lineLength(l), 0);
