// Swales in a set: several down a slope, each along its contour, made and changed together.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkFields, checkLines, choice, option } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';

export interface SwaleSet extends WorkBase {
  readonly kind: 'swale-set';
  /** Downhill lips along the contour, from the highest; downhill lies on their right. */
  readonly lines: readonly Line[];
  /** How they were laid apart. */
  readonly by: 'interval' | 'even' | 'storage';
  readonly spills: 'in-turn' | 'start' | 'end';
  readonly fill: 'none' | 'woodchip' | 'logs';
  readonly held: 'loose' | 'pinned';
  readonly bank: 'bare' | 'seeded';
  readonly grazed: 'no' | 'yes';
  readonly fence: 'none' | 'one-side' | 'both-sides';
  readonly dimensions: {
    /** Floor under the ground at the lip, bank over it, and where it spills over it. */
    readonly depthM: number;
    readonly bankM: number;
    readonly spillM: number;
    readonly spillLengthM: number;
    readonly floorWidthM: number;
    readonly sideSlopeHV: number;
    readonly bankTopM: number;
    readonly bankSlopeHV: number;
    /** Depth of what it is filled with, from its floor, and the share of that water finds room in. */
    readonly fillM: number;
    readonly fillVoids: number;
  };
  /** Trees and bushes along each, how many of them nurse the others, and for how many years. */
  readonly planting: {
    readonly treesApartM: number;
    readonly bushesApartM: number;
    readonly nursePercent: number;
    readonly nurseYears: number;
    readonly treeHeightM: number;
  };
  /** Where the season's wind comes from, clockwise from north [degrees]. */
  readonly windFromDeg?: number;
  readonly labour: Logged & { readonly m3PerDay: number; readonly plantsPerDay: number };
}

const d = (
  key: keyof SwaleSet['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });
const p = (
  key: keyof SwaleSet['planting'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `planting.${key}`, label, kind: 'length', ...more });
const FILLED: FieldSpec['shownWhen'] = { path: 'fill', isNot: ['none'] };

export const SET_FIELDS: readonly FieldSpec[] = [
  d('depthM', 'Floor under the ground', { min: 0.05, max: 2, help: '0.2 to 0.3 m by hand, 0.3 to 0.5 m by machine.' }),
  d('floorWidthM', 'Floor, wide', { min: 0.1, max: 6, help: 'A spade or a bucket wide, or several.' }),
  d('sideSlopeHV', 'Sides, out per 1 up', { min: 0, max: 6, kind: 'number', help: '1 to 2.' }),
  d('bankM', 'Bank over the ground', { min: 0.05, max: 2, help: 'On the lip, on average along it: what was dug, trodden in.' }),
  d('bankTopM', 'Bank, wide at its top', { min: 0.1, max: 4, help: '0.3 m and more; 0.6 m to walk on.' }),
  d('bankSlopeHV', 'Bank sides, out per 1 up', { min: 0.5, max: 6, kind: 'number', help: '1.5 by hand, 2 and more where it is mown.' }),
  d('spillM', 'Spills over the ground by', { min: 0, max: 1, kind: 'difference', help: 'None: over natural ground where the bank ends.' }),
  d('spillLengthM', 'Spill, long', { min: 0.3, max: 100, help: 'Level, grassed, on ground nobody dug.' }),
  d('fillM', 'Filled, deep', { min: 0.05, max: 2, help: 'From its floor.', shownWhen: FILLED }),
  d('fillVoids', 'Share of the fill that water finds room in', {
    min: 0.1,
    max: 0.8,
    kind: 'number',
    help: 'Woodchip 0.5, logs and brush 0.4.',
    shownWhen: FILLED,
  }),
  p('treesApartM', 'Trees apart', { min: 0, max: 50, help: 'Along each swale; nothing for none.' }),
  p('bushesApartM', 'Bushes apart', { min: 0, max: 50, help: 'Along each swale; nothing for none.' }),
  p('nursePercent', 'Of them nurse the others', {
    min: 0,
    max: 100,
    kind: 'percent',
    help: 'Fast ones that feed the soil: two or three in four at first.',
  }),
  p('nurseYears', 'Nurse trees stand', { min: 0, max: 40, kind: 'years', help: 'Then they die out or are cut for mulch.' }),
  p('treeHeightM', 'Trees grow to', { min: 0, max: 60, help: 'Tells the shelter behind them.' }),
  {
    path: 'windFromDeg',
    label: 'The season’s wind comes from',
    kind: 'number',
    min: 0,
    max: 360,
    help: 'Degrees clockwise from north: 270 is west.',
    optional: { offer: 'You know the season’s wind', start: 270 },
  },
  {
    path: 'labour.m3PerDay',
    label: 'One person digs in a day',
    kind: 'volume',
    min: 0.1,
    max: 1000,
    help: 'About 3 m³ by hand; a machine far more.',
  },
  {
    path: 'labour.plantsPerDay',
    label: 'One person plants in a day',
    kind: 'count',
    min: 1,
    max: 5000,
    help: 'About 100 with mulch and water.',
  },
  LOGGED_HOURS,
];

export const SET_CHOICES: readonly ChoiceSpec[] = [
  { ...choice('by', 'Laid apart by', [option('interval', 'the fall between them'), option('even', 'even ground above each'), option('storage', 'what runs off against room')]), help: 'How they were laid when they were drawn: to lay them another way, draw them again.' }, // prettier-ignore
  choice('spills', 'Spill at', [option('in-turn', 'one end, then the other'), option('start', 'their start'), option('end', 'their end')]),
  choice('fill', 'Filled with', [option('none', 'nothing'), option('woodchip', 'woodchip'), option('logs', 'logs and brush')]),
  {
    ...choice('held', 'What fills them', [option('loose', 'lies loose'), option('pinned', 'is staked or netted down')]),
    shownWhen: FILLED,
  },
  choice('bank', 'Banks', [option('bare', 'bare'), option('seeded', 'seeded and mulched')]),
  choice('grazed', 'Stock comes to them', [option('no', 'no'), option('yes', 'yes')]),
  choice('fence', 'Fence', [option('none', 'none'), option('one-side', 'along one side'), option('both-sides', 'along both sides')]),
];

const MOST_LINES = 100;

/** Everything wrong with one set on its own. */
export function validateSet(work: SwaleSet): Problem[] {
  const shape = [
    ...checkFields(work, SET_FIELDS),
    ...checkChoices(work, SET_CHOICES),
    ...checkLines(work, { path: 'lines', each: 'line', most: MOST_LINES }),
  ];
  if (shape.length > 0) return shape;
  const { spillM, bankM } = work.dimensions;
  if (spillM < bankM) return [];
  const what = say`"${work.name}" spills ${amount(spillM, 'difference')} over the ground, its bank is ${amount(bankM, 'length')} high`;
  return [{ code: 'swale-set.spill', field: 'dimensions.spillM', what, do: 'Let it spill lower than its bank.' }];
}

/** Length of all swales [m]. */
export const lengthOf = ({ lines }: Pick<SwaleSet, 'lines'>): number => lines.reduce((a, l) => a + lineLength(l), 0);
