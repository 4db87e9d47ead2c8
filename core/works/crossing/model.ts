import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { INLETS, INLET_IDS, type InletId } from '../../hydraulics/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { checkFields, checkLine } from '../fields.ts';

export const CROSSING_FORMS = ['culvert', 'causeway', 'dip'] as const;

/** A road over running or standing water: on pipes, as a level causeway that water runs over, or as a dip in the road. */
export interface Crossing extends WorkBase {
  readonly kind: 'crossing';
  readonly form: (typeof CROSSING_FORMS)[number];
  /** Middle of the road. */
  readonly line: Line;
  /** Two stores it lies between: its pipes then join them both ways. Left out, its bank makes a store of its own. */
  readonly joins?: readonly [string, string];
  readonly inlet: InletId;
  readonly levels: {
    readonly roadM: number;
    /** Bottom of the pipe where water goes in, and where it comes out. */
    readonly inletM: number;
    readonly outletM: number;
    /** Lowest place of the road where it dips. */
    readonly dipM: number;
  };
  readonly dimensions: {
    readonly roadWidthM: number;
    readonly sideSlopeHV: number;
    readonly barrels: number;
    readonly diameterM: number;
    /** Pipe that sticks out beyond the foot of the bank at each end. */
    readonly overhangM: number;
    /** Length of road that dips, or that water may run over. */
    readonly dipLengthM: number;
  };
  readonly roughness: number;
  readonly blockedPercent: number;
}

export const CROSSING_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.roadM', label: 'Road level', kind: 'level', min: -500, max: 9000, help: 'Top of the road over the pipe.' },
  {
    path: 'levels.inletM',
    label: 'Bottom of the pipe, in',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'So low that its top lies under the sill: it then runs full.',
    shownWhen: { path: 'dimensions.barrels', isNot: [0] },
  },
  {
    path: 'levels.outletM',
    label: 'Bottom of the pipe, out',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'A little lower: 1 % or more clears silt.',
    shownWhen: { path: 'dimensions.barrels', isNot: [0] },
  },
  {
    path: 'levels.dipM',
    label: 'Lowest road',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'Where water may run over it.',
    shownWhen: { path: 'form', isNot: ['culvert'] },
  },
  { path: 'dimensions.roadWidthM', label: 'Road width', kind: 'length', min: 0.5, max: 30, help: 'At the top.' },
  { path: 'dimensions.sideSlopeHV', label: 'Sides, out per 1 up', kind: 'number', min: 0, max: 6, help: '2 in earth.' },
  { path: 'dimensions.barrels', label: 'Pipes side by side', kind: 'count', min: 0, max: 12, help: 'None for a bare causeway or dip.' },
  {
    path: 'dimensions.diameterM',
    label: 'Pipe, inside',
    kind: 'length',
    min: 0.1,
    max: 4,
    help: '300 mm at a drive, 450 mm where it must be cleaned.',
    shownWhen: { path: 'dimensions.barrels', isNot: [0] },
  },
  {
    path: 'dimensions.overhangM',
    label: 'Overhang at each end',
    kind: 'length',
    min: 0,
    max: 5,
    help: 'Beyond the foot of the bank.',
    shownWhen: { path: 'dimensions.barrels', isNot: [0] },
  },
  {
    path: 'dimensions.dipLengthM',
    label: 'Road water may run over',
    kind: 'length',
    min: 0,
    max: 200,
    help: 'Level, hard, the same both sides.',
    shownWhen: { path: 'form', isNot: ['culvert'] },
  },
  {
    path: 'roughness',
    label: 'Roughness (Manning)',
    kind: 'number',
    min: 0.008,
    max: 0.03,
    help: 'Smooth plastic 0.011, concrete 0.013, corrugated 0.024.',
    shownWhen: { path: 'dimensions.barrels', isNot: [0] },
  },
  {
    path: 'blockedPercent',
    label: 'Blocked',
    kind: 'percent',
    min: 0,
    max: 100,
    help: 'As found.',
    shownWhen: { path: 'dimensions.barrels', isNot: [0] },
  },
];

export const CROSSING_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'form',
    label: 'It is',
    options: [
      { id: 'culvert', name: 'a road on pipes' },
      { id: 'causeway', name: 'a causeway water may run over' },
      { id: 'dip', name: 'a dip in the road' },
    ],
  },
  {
    path: 'inlet',
    shownWhen: { path: 'dimensions.barrels', isNot: [0] },
    label: 'Inlet of the pipe',
    options: INLET_IDS.map((id) => ({ id, name: INLETS[id].name })),
  },
];

/** Everything wrong with one crossing on its own. */
export function validateCrossing(crossing: Crossing): Problem[] {
  const problems: Problem[] = [...checkFields(crossing, CROSSING_FIELDS), ...checkLine(crossing, crossing.line)];
  if (!CROSSING_FORMS.includes(crossing.form)) {
    problems.push({
      code: 'crossing.form',
      what: `"${crossing.name}" is ${told(crossing.form)}`,
      field: 'form',
      do: `Choose one of ${CROSSING_FORMS.join(', ')}.`,
    });
  }
  if (!INLET_IDS.includes(crossing.inlet)) {
    problems.push({
      code: 'crossing.inlet',
      what: `inlet of "${crossing.name}" is ${told(crossing.inlet)}`,
      field: 'inlet',
      do: `Choose one of ${INLET_IDS.join(', ')}.`,
    });
  }
  const { joins } = crossing;
  const isPair =
    joins === undefined ||
    (Array.isArray(joins) && joins.length === 2 && joins.every((id) => typeof id === 'string' && id !== '') && joins[0] !== joins[1]);
  if (!isPair) {
    problems.push({
      code: 'crossing.joins',
      what: `"${crossing.name}" does not lie between two works`,
      field: 'joins',
      do: 'Name two different works, or none.',
    });
  }
  if (problems.length === 0 && crossing.levels.roadM < crossing.levels.dipM) {
    problems.push({
      code: 'crossing.levels-order',
      what: say`the lowest road of "${crossing.name}" (${amount(crossing.levels.dipM, 'reading')}) is above its road (${amount(crossing.levels.roadM, 'reading')})`,
      field: 'levels.dipM',
      do: 'Lower the dip or raise the road.',
    });
  }
  return problems;
}

/** Length of pipe it takes: road, both sides down to the pipe, and the overhang (common practice). */
export function pipeLength({ levels, dimensions }: Pick<Crossing, 'levels' | 'dimensions'>): number {
  const { roadWidthM, sideSlopeHV, overhangM } = dimensions;
  const drop = (bottomM: number): number => Math.max(0, levels.roadM - bottomM);
  return Math.max(1, roadWidthM + sideSlopeHV * (drop(levels.inletM) + drop(levels.outletM)) + 2 * overhangM);
}
