// The head of a gully: where water drops into it and eats its way uphill, and what is done about it.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkEntries, checkFields, checkLine } from '../fields.ts';

export const HEAD_FORMS = ['left', 'batter', 'rock', 'grass', 'plug'] as const;
export const HEAD_ABOVE = ['unknown', 'bare', 'resting', 'healed'] as const;
export const HEAD_SOILS = ['unknown', 'loose', 'firm', 'hard'] as const;
export const PLUGS = ['bale', 'log', 'brush'] as const;

/** What was read at the fixed mark. */
export interface Reading {
  /** From the mark to the lip [m]. */
  readonly toLipM: number;
  /** Rain since the reading before [mm]. */
  readonly rainMm: number;
}

export interface Headcut extends WorkBase {
  readonly kind: 'headcut';
  /** Along its lip, from side to side. */
  readonly line: Line;
  readonly form: (typeof HEAD_FORMS)[number];
  readonly above: (typeof HEAD_ABOVE)[number];
  readonly soil: (typeof HEAD_SOILS)[number];
  readonly plug: (typeof PLUGS)[number];
  readonly levels: { readonly lipM: number; readonly footM: number };
  readonly dimensions: {
    /** Where water is let over: the bottom of a chute. */
    readonly chuteWidthM: number;
    /** How high the sides of a chute stand over its lip. */
    readonly sideM: number;
    /** Face after it is cut back or lined, out per 1 up. */
    readonly slopeHV: number;
    readonly stoneM: number;
    readonly apronM: number;
    /** Of what is laid into it: thickness, weight for its room, and what stakes or wire hold of it for each metre. */
    readonly plugM: number;
    readonly plugKgM3?: number;
    readonly heldKgM: number;
  };
  readonly readings?: readonly Reading[];
  /** What it runs towards, and the rain of a year. */
  readonly threatM?: number;
  readonly yearRainMm?: number;
  readonly labour: { readonly m3PerDay: number; readonly carryM: number };
}

const LINED: FieldSpec['shownWhen'] = { path: 'form', is: ['rock', 'grass'] };
const CUT: FieldSpec['shownWhen'] = { path: 'form', is: ['batter', 'rock', 'grass'] };
const STONE: FieldSpec['shownWhen'] = { path: 'form', is: ['rock', 'grass', 'plug'] };
const PLUGGED: FieldSpec['shownWhen'] = { path: 'form', is: ['plug'] };

const d = (
  key: keyof Headcut['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });

export const HEAD_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.lipM', label: 'Level of its lip', kind: 'level', min: -500, max: 9000, help: 'The lowest place water comes over.' },
  { path: 'levels.footM', label: 'Level of its foot', kind: 'level', min: -500, max: 9000, help: 'The floor of the gully below the drop.' },
  d('chuteWidthM', 'Width of the chute', { min: 0.5, max: 60, help: 'Wide is thin, thin is slow.', shownWhen: LINED }),
  d('sideM', 'Sides above the lip', {
    min: 0.05,
    max: 3,
    help: 'Of the chute, with wings: what goes over beside it makes a second head.',
    shownWhen: LINED,
  }),
  d('slopeHV', 'Its face, out per 1 up', {
    min: 0.25,
    max: 40,
    kind: 'number',
    help: '1.5 to 2 seeded; 3 and flatter of stone; 10 and flatter under grass.',
    shownWhen: CUT,
  }),
  d('stoneM', 'Median stone', {
    min: 0.03,
    max: 1.5,
    kind: 'difference',
    help: 'Of a chute or an apron: what water there must not move.',
    shownWhen: STONE,
  }),
  d('apronM', 'Apron at its foot', {
    min: 0,
    max: 40,
    help: 'Level stone where the water lands, past the end of the chute or of what is laid in.',
    shownWhen: STONE,
  }),
  d('plugM', 'Thickness of a bale or log', { min: 0.05, max: 2, help: 'As it lies.', shownWhen: PLUGGED }),
  d('plugKgM3', 'It weighs', {
    min: 20,
    max: 2000,
    kind: 'density',
    help: 'As it was weighed; else straw bales are taken as 120 kg/m³, dry logs as 600, pressed brush as 150.',
    shownWhen: PLUGGED,
    optional: { offer: 'You have weighed one', start: 150 },
  }),
  d('heldKgM', 'Stakes and wire hold', {
    min: 0,
    max: 1000,
    kind: 'hold',
    help: 'For each metre of it: a stake driven half a metre into firm ground holds about 40 kg.',
    shownWhen: PLUGGED,
  }),
  {
    path: 'threatM',
    label: 'To what it runs towards',
    kind: 'distance',
    min: 0.1,
    max: 5000,
    help: 'A wall, a track, a house, a fence: from the lip.',
    optional: { offer: 'Something stands uphill of it', start: 20 },
  },
  {
    path: 'yearRainMm',
    label: 'Rain of a year',
    kind: 'rain',
    min: 10,
    max: 10_000,
    help: 'Of a usual year there.',
    optional: { offer: 'You know the rain of a year', start: 500 },
  },
  {
    path: 'labour.m3PerDay',
    label: 'One person moves in a day',
    kind: 'volume',
    min: 0.1,
    max: 30,
    help: 'About 3 m³ of earth, 1 m³ of stone laid.',
  },
  { path: 'labour.carryM', label: 'Stone is carried', kind: 'distance', min: 0, max: 2000, help: 'From where it lies, on average.' },
];

const option = (id: string, name: string): { readonly id: string; readonly name: string } => ({ id, name });

export const HEAD_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'form',
    label: 'What is done',
    options: [
      option('left', 'left as it is: the ground above is rested'),
      option('batter', 'led round it, cut back, seeded and mulched'),
      option('rock', 'a chute of stone'),
      option('grass', 'a chute of grass'),
      option('plug', 'bales, logs or brush laid in'),
    ],
  },
  {
    path: 'above',
    label: 'The ground above it',
    options: [
      option('unknown', 'nobody has said'),
      option('bare', 'bare, or grazed as before'),
      option('resting', 'resting, cover is coming'),
      option('healed', 'covered: it sheds what it should'),
    ],
  },
  {
    path: 'soil',
    label: 'Its face is of',
    options: [
      option('unknown', 'not looked at yet'),
      option('loose', 'sand or silt'),
      option('firm', 'firm loam or clay'),
      option('hard', 'hard clay, gravel, rotten rock'),
    ],
  },
  {
    path: 'plug',
    label: 'Laid in',
    options: [option('bale', 'bales'), option('log', 'logs'), option('brush', 'pressed brush')],
    shownWhen: PLUGGED,
  },
];

export const READINGS: ListSpec = {
  path: 'readings',
  title: 'Read at a fixed mark',
  words: {
    none: 'Nothing read yet. Drive a steel peg well uphill of the lip, and measure to the lip after each wet month.',
    add: 'Note a reading',
    remove: 'Take it away',
  },
  fields: [
    { path: 'toLipM', label: 'From the mark to the lip', kind: 'length', min: 0, max: 1000, help: 'By tape, along the way it eats.' },
    { path: 'rainMm', label: 'Rain since the reading before', kind: 'rain', min: 0, max: 20_000, help: '0 for the first.' },
  ],
  start: ({ readings = [] }: Headcut) => ({
    toLipM: readings[readings.length - 1]?.toLipM ?? FIRST_MARK_M,
    rainMm: readings.length === 0 ? NO_RAIN_MM : A_MONTH_MM,
  }),
};
/** A first peg stands so far off; nothing has rained before it, and a wet month brings about so much. */
const [FIRST_MARK_M, NO_RAIN_MM, A_MONTH_MM] = [10, 0, 100];

/** What a cubic metre weighs where nobody weighed it: common practice for what is dry, which floats first [kg]. */
const PLUG_KG_M3: Readonly<Record<Headcut['plug'], number>> = { bale: 120, log: 600, brush: 150 };
export const plugWeight = ({ plug, dimensions }: Headcut): number => dimensions.plugKgM3 ?? PLUG_KG_M3[plug];

export const dropOf = ({ levels }: Pick<Headcut, 'levels'>): number => levels.lipM - levels.footM;
/** Whether water lands on stone laid for it. */
export const hasApron = (head: Pick<Headcut, 'form'>): boolean => isChute(head) || head.form === 'plug';
/** Whether water runs down it by design. */
export const isChute = ({ form }: Pick<Headcut, 'form'>): boolean => form === 'rock' || form === 'grass';

/** Everything wrong with one head on its own. */
export function validateHead(head: Headcut): Problem[] {
  const shape = [
    ...checkFields(head, HEAD_FIELDS),
    ...checkLine(head, head.line),
    ...checkChoices(head, HEAD_CHOICES),
    ...checkEntries(head, { ...READINGS, each: 'reading' }),
  ];
  if (shape.length > 0 || dropOf(head) > 0) return shape;
  return [
    {
      code: 'headcut.levels-order',
      what: say`the lip of "${head.name}" (${amount(head.levels.lipM, 'reading')}) is not above its foot (${amount(head.levels.footM, 'reading')})`,
      field: 'levels.footM',
      do: 'Lower the foot or raise the lip: without a drop there is no head.',
    },
  ];
}
