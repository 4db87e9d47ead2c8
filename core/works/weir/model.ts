// A weir across a gully, of baskets of stone or of masonry: it holds the bed, and water falls over its notch.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkFields, checkLine } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';

export const WEIR_FORMS = ['gabion', 'masonry'] as const;
export const WEIR_GROUNDS = ['unknown', 'soft', 'firm', 'stiff', 'sand', 'gravel', 'rock'] as const;
export const WEIR_BASES = ['bare', 'drained', 'sealed'] as const;
export const WEIR_FACES = ['open', 'sealed'] as const;
export const WEIR_CHANNELS = ['terrain', 'measured'] as const;
export const WEIR_FOUND = ['sound', 'flanked', 'undermined', 'burst'] as const;

export interface Weir extends WorkBase {
  readonly kind: 'weir';
  /** Along its crest, from bank to bank. */
  readonly line: Line;
  readonly form: (typeof WEIR_FORMS)[number];
  /** What it stands on, as a pit down to its base showed. */
  readonly ground: (typeof WEIR_GROUNDS)[number];
  /** What is under its base: nothing, a filter and drain, or rock it is bedded on. */
  readonly base: (typeof WEIR_BASES)[number];
  /** Whether water finds its way through baskets. */
  readonly face: (typeof WEIR_FACES)[number];
  /** How its bed and banks are known; left out, by the terrain. */
  readonly channel?: (typeof WEIR_CHANNELS)[number];
  readonly steps: 'below' | 'above';
  readonly found: (typeof WEIR_FOUND)[number];
  readonly levels: {
    /** Lowest place of the notch, and its ends. */
    readonly notchM: number;
    readonly crestM: number;
  };
  /** Middle of the notch, along the line. */
  readonly notchAtM: number;
  readonly dimensions: {
    readonly notchWidthM: number;
    /** Of the channel, between the feet of its banks. */
    readonly bedWidthM: number;
    readonly topWidthM: number;
    readonly baseWidthM: number;
    readonly courseM: number;
    readonly foundationM: number;
    readonly keyM: number;
    readonly apronM: number;
    /** How far the apron lies under the bed, and how deep its lower end is cut off. */
    readonly apronDropM: number;
    readonly cutoffM: number;
    readonly pieceM: number;
    /** Fill against its faces, out per 1 up; none where 0. */
    readonly rampUpHV: number;
    readonly rampDownHV: number;
  };
  /** Share of the room behind it that is silt. */
  readonly siltedPercent?: number;
  readonly labour: Logged & { readonly m3PerDay: number; readonly carryM: number };
}

const d = (
  key: keyof Weir['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });
const level = (key: keyof Weir['levels'], label: string, help: string): FieldSpec => ({
  path: `levels.${key}`,
  label,
  kind: 'level',
  min: -500,
  max: 9000,
  help,
});

export const WEIR_FIELDS: readonly FieldSpec[] = [
  level('notchM', 'Notch level', 'The lowest place of its crest: water and silt come to lie to here.'),
  level('crestM', 'Level of its ends', '0.3 m or more over the notch, and under the banks.'),
  {
    path: 'notchAtM',
    label: 'Middle of the notch',
    kind: 'distance',
    min: 0,
    max: 500,
    help: 'Along its line: over the middle of the bed, or one bank is worn away.',
  },
  d('notchWidthM', 'Width of the notch', { min: 0.3, max: 60, help: 'As wide as the bed lets it be: water falls thinner.' }),
  d('bedWidthM', 'Bed of the channel', { min: 0.3, max: 100, help: 'Between the feet of its banks, measured there.' }),
  d('topWidthM', 'Width at the top', { min: 0.3, max: 6, help: 'One basket, 1 m; masonry 0.5 m.' }),
  d('baseWidthM', 'Width of the base', { min: 0.3, max: 12, help: 'About its height from the base up; its safety says how much.' }),
  d('courseM', 'Height of a course', {
    min: 0.25,
    max: 1,
    help: 'Baskets are 0.5 or 1 m high.',
    shownWhen: { path: 'form', is: ['gabion'] },
  }),
  d('foundationM', 'Base under the bed', { min: 0, max: 5, help: 'Deeper than water digs, or it is undermined.' }),
  d('keyM', 'Key into each bank', { min: 0, max: 8, help: 'The bank is not an abutment: water goes round what only leans on it.' }),
  d('apronM', 'Length of the apron', { min: 0, max: 40, help: 'Past where the water lands and jumps.' }),
  d('apronDropM', 'Apron under the bed', { min: 0, max: 3, help: 'Sunk, it keeps a pool for the water to fall into.' }),
  d('cutoffM', 'Cut-off at its lower end', { min: 0, max: 5, help: 'Under the apron: below it the bed is dug out.' }),
  d('pieceM', 'Stone', {
    min: 0.05,
    max: 1,
    kind: 'difference',
    help: 'In baskets once and a half the mesh or more; on the apron what stays.',
  }),
  d('rampUpHV', 'Fill above it, out per 1 up', { min: 0, max: 10, kind: 'number', help: '3 lets a surge ride over; 0 for none.' }),
  d('rampDownHV', 'Stone below it, out per 1 up', { min: 0, max: 10, kind: 'number', help: '4 leads water down; 0 for an open fall.' }),
  {
    path: 'siltedPercent',
    label: 'Silt behind it',
    kind: 'percent',
    min: 0,
    max: 100,
    help: 'Share of its room that is filled.',
    optional: { offer: 'Silt lies behind it', start: 50 },
  },
  {
    path: 'labour.m3PerDay',
    label: 'One person lays in a day',
    kind: 'volume',
    min: 0.1,
    max: 20,
    help: 'About 1 m³, baskets tied and stone packed by hand.',
  },
  { path: 'labour.carryM', label: 'Stone is carried', kind: 'distance', min: 0, max: 2000, help: 'From where it lies, on average.' },
  LOGGED_HOURS,
];

const option = <T extends string>(id: T, name: string): { readonly id: T; readonly name: string } => ({ id, name });

export const WEIR_CHOICES: readonly ChoiceSpec[] = [
  { path: 'form', label: 'Built of', options: [option('gabion', 'baskets of stone'), option('masonry', 'masonry')] },
  {
    path: 'ground',
    label: 'Stands on',
    options: [
      option('unknown', 'not looked at yet'),
      option('soft', 'soft clay or silt'),
      option('firm', 'firm loam or clay'),
      option('stiff', 'stiff clay'),
      option('sand', 'sand'),
      option('gravel', 'dense gravel'),
      option('rock', 'sound rock'),
    ],
  },
  {
    path: 'base',
    label: 'Under its base',
    options: [
      option('bare', 'nothing: all of the water lifts it'),
      option('drained', 'filter and drain'),
      option('sealed', 'bedded on rock'),
    ],
  },
  {
    path: 'face',
    label: 'Its upper face',
    options: [option('open', 'open: water seeps through'), option('sealed', 'sealed with cloth or clay')],
    shownWhen: { path: 'form', is: ['gabion'] },
  },
  {
    path: 'channel',
    label: 'Bed and banks',
    usual: 'terrain',
    options: [option('terrain', 'read from the terrain'), option('measured', 'measured there')],
  },
  { path: 'steps', label: 'Stepped', options: [option('below', 'on the lower side'), option('above', 'on the upper side')] },
  {
    path: 'found',
    label: 'Found',
    options: [
      option('sound', 'sound, or not built yet'),
      option('flanked', 'water goes round it'),
      option('undermined', 'water goes under it'),
      option('burst', 'its baskets or stones are open'),
    ],
  },
];

/** Whether water finds a way past what it was built to hold. */
export const isBreached = ({ found }: Weir): boolean => found !== 'sound';

/** Height of a course; masonry has plane faces. */
export const courseOf = ({ form, dimensions }: Weir): number | null => (form === 'gabion' ? dimensions.courseM : null);

/** Everything wrong with one weir on its own. */
export function validateWeir(work: Weir): Problem[] {
  const shape = [...checkFields(work, WEIR_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, WEIR_CHOICES)];
  if (shape.length > 0) return shape;
  const wrong = (isWrong: boolean, field: string, says: Pick<Problem, 'what' | 'do'>): Problem[] =>
    isWrong ? [{ code: 'weir.shape', field, ...says }] : [];
  const { levels, dimensions, notchAtM } = work;
  const { notchWidthM, bedWidthM, topWidthM, baseWidthM } = dimensions;
  const length = lineLength(work.line);
  return [
    ...wrong(levels.notchM >= levels.crestM, 'levels.notchM', {
      what: say`the notch of "${work.name}" (${amount(levels.notchM, 'reading')}) is not below its ends (${amount(levels.crestM, 'reading')})`,
      do: 'Lower the notch or raise the ends.',
    }),
    ...wrong(notchWidthM > bedWidthM + 1e-9, 'dimensions.notchWidthM', {
      what: say`the notch of "${work.name}" is ${amount(notchWidthM, 'length')} wide, its bed ${amount(bedWidthM, 'length')}`,
      do: 'Make the notch no wider than the bed: beside it water falls on the bank.',
    }),
    ...wrong(topWidthM > baseWidthM + 1e-9, 'dimensions.baseWidthM', {
      what: say`"${work.name}" is ${amount(topWidthM, 'length')} wide at its top and ${amount(baseWidthM, 'length')} at its base`,
      do: 'Make the base as wide as the top at the least.',
    }),
    ...wrong(notchAtM - notchWidthM / 2 < 0 || notchAtM + notchWidthM / 2 > length, 'notchAtM', {
      what: say`the notch of "${work.name}" reaches past an end of its line of ${amount(length, 'distance')}`,
      do: 'Move the notch inwards, or draw the line further into the banks.',
    }),
  ];
}
