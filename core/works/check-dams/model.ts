// Check dams in series down a channel: each at its own place, with its channel as it was measured there.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { checkFields, checkLine } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';

export const DAM_FORMS = ['rock', 'brush', 'log', 'sandbag'] as const;
export type DamForm = (typeof DAM_FORMS)[number];

/** One dam of the series. */
export interface Dam {
  /** Its place along the line, from the upper end. */
  readonly atM: number;
  /** From the bed to the lowest place of its notch: what holds water and silt. */
  readonly heightM: number;
  /** The channel there: its bed, its width between the tops of the banks, and how deep it is cut. */
  readonly bedWidthM: number;
  readonly bankWidthM: number;
  readonly depthM: number;
  /** Whether somebody measured that; else it was read from the terrain. */
  readonly isMeasured?: boolean;
  /** Share of the room behind it that is silt, and of its height that is gone. */
  readonly siltedPercent?: number;
  readonly lostPercent?: number;
  /** Loose stone lying near [m3]. */
  readonly rockNearM3?: number;
  /** How far its stone is carried, where that is another way than for the rest. */
  readonly carryM?: number;
  /** What was seen, or the name of a picture. */
  readonly note?: string;
}

export interface CheckDams extends WorkBase {
  readonly kind: 'check-dams';
  /** Along the bed of the channel, from its upper to its lower end. */
  readonly line: Line;
  /** The channel as measured it stands in. */
  readonly channel?: string;
  readonly form: DamForm;
  readonly dams: readonly Dam[];
  readonly dimensions: {
    /** How much higher its ends are than its notch. */
    readonly notchDepthM: number;
    readonly notchWidthM: number;
    readonly crestWidthM: number;
    readonly upSlopeHV: number;
    readonly downSlopeHV: number;
    /** Median stone, or the thickness of a log. */
    readonly pieceM: number;
    readonly sideKeyM: number;
    readonly bedKeyM: number;
    readonly apronM: number;
    /** What stakes, posts and wire hold of brush or logs: of a metre of dam, or of each log [kg]. */
    readonly heldKgM?: number;
    /** How far the bed lies under the ground of the terrain, where that does not show the channel. */
    readonly bedBelowM?: number;
  };
  readonly labour: Logged & {
    /** What one person lays in a day, and how far it is carried. */
    readonly m3PerDay: number;
    readonly carryM: number;
    /** How often they fill, and how much silt comes to all of them in a year. */
    readonly fillsAYear?: number;
    readonly siltM3AYear?: number;
  };
}

/** Heights of a dam: weighed over the first, refused over the second (common practice; Heede 1976 for loose stone) [m]. */
export const MOST_HIGH_M: Readonly<Record<DamForm, readonly [weigh: number, refuse: number]>> = {
  rock: [1, 1.5],
  brush: [0.75, 1],
  log: [0.75, 0.9],
  sandbag: [0.6, 0.9],
};

/** Farther nothing is carried by hand [m]. */
export const MOST_CARRY_M = 2000;

const d = (
  key: keyof CheckDams['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });

/** A wall of logs has no faces of its own. */
const FACED: FieldSpec['shownWhen'] = { path: 'form', is: ['rock', 'brush', 'sandbag'] };

export const DAMS_FIELDS: readonly FieldSpec[] = [
  d('notchDepthM', 'Ends above the notch', {
    min: 0.05,
    max: 1.5,
    help: 'Water that finds the end of a dam cuts round it: 0.3 m or more.',
  }),
  d('notchWidthM', 'Width of the notch', { min: 0.1, max: 20, help: 'No wider than the bed, so that water falls on the apron.' }),
  d('crestWidthM', 'Width of the crest along the flow', { min: 0.05, max: 3, help: '0.5 to 0.7 m of loose stone.', shownWhen: FACED }),
  d('upSlopeHV', 'Upper face, out per 1 up', {
    min: 0,
    max: 5,
    kind: 'number',
    help: 'Loose stone stands at 1.25 to 2.',
    shownWhen: FACED,
  }),
  d('downSlopeHV', 'Lower face, out per 1 up', {
    min: 0,
    max: 6,
    kind: 'number',
    help: 'Flatter than the upper: water runs down it.',
    shownWhen: FACED,
  }),
  d('pieceM', 'Median stone, or thickness of a log', {
    min: 0.03,
    max: 1,
    kind: 'difference',
    help: 'What water over it must not move.',
    shownWhen: { path: 'form', is: ['rock', 'log'] },
  }),
  d('sideKeyM', 'Key into each bank', { min: 0, max: 3, help: '0.6 m; 1.2 m where banks wash easily.' }),
  d('bedKeyM', 'Key into the bed', { min: 0, max: 2, help: '0.3 to 0.6 m, so that water does not find a way under it.' }),
  d('apronM', 'Apron below it', { min: 0, max: 10, help: 'Once and a half its height; longer on steep beds.' }),
  d('heldKgM', 'Stakes, posts and wire hold', {
    min: 0,
    max: 5000,
    kind: 'hold',
    help: 'Of each metre of a brush dam, or of each log: a stake half a metre in firm ground holds about 40 kg.',
    shownWhen: { path: 'form', is: ['brush', 'log'] },
    optional: { offer: 'You know how it is held down', start: 40 },
  }),
  d('bedBelowM', 'Bed under the mapped ground', {
    min: 0,
    max: 10,
    help: 'Where cells of the terrain are wider than the channel.',
    shownWhen: { path: 'channel', is: [undefined] },
    optional: { offer: 'The map does not show how deep it is', start: 0.5 },
  }),
  {
    path: 'labour.m3PerDay',
    label: 'One person lays in a day',
    kind: 'volume',
    min: 0.1,
    max: 20,
    help: 'About 1 m³ of stone that lies beside it.',
  },
  {
    path: 'labour.carryM',
    label: 'It is carried',
    kind: 'distance',
    min: 0,
    max: MOST_CARRY_M,
    help: 'From where it lies to the dam, on average.',
  },
  {
    path: 'labour.fillsAYear',
    label: 'Fills a year',
    kind: 'number',
    min: 0,
    max: 200,
    help: 'How often all of them fill: from your own log or memory.',
    optional: { offer: 'You know how often they fill', start: 4 },
  },
  {
    path: 'labour.siltM3AYear',
    label: 'Silt a year',
    kind: 'volume',
    min: 0.01,
    max: 100_000,
    help: 'What comes to all of them in a year.',
    optional: { offer: 'You know how much silt comes', start: 5 },
  },
  LOGGED_HOURS,
];

export const DAMS_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'form',
    label: 'Made of',
    options: [
      { id: 'rock', name: 'loose stone' },
      { id: 'brush', name: 'brush or wattle' },
      { id: 'log', name: 'logs' },
      { id: 'sandbag', name: 'filled bags' },
    ],
  },
];

/** What one dam says of itself, with the range of each number. */
export const DAM_FIELDS = [
  { key: 'atM', label: 'At', kind: 'distance', min: 0, max: 20_000 },
  { key: 'heightM', label: 'Height', kind: 'length', min: 0.1, max: 1.5 },
  { key: 'bedWidthM', label: 'Bed', kind: 'length', min: 0.1, max: 100 },
  { key: 'bankWidthM', label: 'Between banks', kind: 'length', min: 0.2, max: 200 },
  { key: 'depthM', label: 'Channel depth', kind: 'length', min: 0.1, max: 20 },
] as const;

const DAM_SHARES = ['siltedPercent', 'lostPercent'] as const;
/** More than anybody pegs in one channel. */
const MOST_DAMS = 400;
const MOST_NOTE = 200;

const isNumber = (v: unknown): v is number => typeof v === 'number' && Number.isFinite(v);

/** What is wrong with one dam of a series on a line of so many metres; `k` counts from 1. */
function damProblems({ work, lengthM }: { readonly work: CheckDams; readonly lengthM: number }, dam: Dam, k: number): Problem[] {
  const on = `dam ${k} of "${work.name}"`;
  const wrong = (key: string, what: Problem['what'], todo: Problem['do']): Problem[] => [
    { code: 'check-dams.dam', what, field: `dams.${k - 1}.${key}`, do: todo },
  ];
  if (typeof dam !== 'object' || dam === null) return wrong('', `${on} is ${told(dam)}`, 'Give its place, height and channel.');
  const numbers = DAM_FIELDS.flatMap(({ key, label, kind, min, max }) => {
    const value: unknown = dam[key];
    if (isNumber(value) && value >= min && value <= max) return [];
    const is = isNumber(value) ? amount(value, kind) : told(value);
    return wrong(key, say`${label} of ${on} is ${is}`, say`Give a number from ${amount(min, kind)} to ${amount(max, kind)}.`);
  });
  if (numbers.length > 0) return numbers;
  const [, most] = MOST_HIGH_M[work.form];
  const shares = DAM_SHARES.filter((key) => dam[key] !== undefined && !(isNumber(dam[key]) && dam[key] >= 0 && dam[key] <= 100));
  return [
    ...shares.flatMap((key) => wrong(key, `a share of ${on} is ${told(dam[key])}`, 'Give a number from 0 to 100.')),
    ...(dam.note !== undefined && (typeof dam.note !== 'string' || dam.note.length > MOST_NOTE)
      ? wrong('note', `the note on ${on} is not a short text`, `Give at most ${MOST_NOTE} characters.`)
      : []),
    ...(dam.rockNearM3 !== undefined && !(isNumber(dam.rockNearM3) && dam.rockNearM3 >= 0)
      ? wrong('rockNearM3', `the stone near ${on} is ${told(dam.rockNearM3)}`, 'Give how much lies there, or leave it out.')
      : []),
    ...(dam.carryM !== undefined && !(isNumber(dam.carryM) && dam.carryM >= 0 && dam.carryM <= MOST_CARRY_M)
      ? wrong(
          'carryM',
          `the carry to ${on} is ${told(dam.carryM)}`,
          say`Give a distance up to ${amount(MOST_CARRY_M, 'distance')}, or leave it out.`,
        )
      : []),
    ...(dam.atM > lengthM + 0.05
      ? wrong(
          'atM',
          say`${on} lies at ${amount(dam.atM, 'distance')}, beyond the end of its line at ${amount(lengthM, 'distance')}`,
          'Bring it nearer, or draw the line further.',
        )
      : []),
    ...(dam.bankWidthM < dam.bedWidthM
      ? wrong('bankWidthM', `${on} has a bed wider than its banks are apart`, 'Measure both again: the bed first, then from bank to bank.')
      : []),
    ...(dam.heightM > most
      ? wrong(
          'heightM',
          say`${on} is ${amount(dam.heightM, 'length')} high; ${FORM_WORDS[work.form]} is not built over ${amount(most, 'length')}`,
          'Make it lower and put one more in, or have a weir designed.',
        )
      : []),
    ...(work.dimensions.notchWidthM > dam.bedWidthM + 1e-9
      ? wrong(
          'bedWidthM',
          say`the notch is ${amount(work.dimensions.notchWidthM, 'length')} wide, the bed at ${on} ${amount(dam.bedWidthM, 'length')}`,
          'Make the notch no wider than the bed: beside it water falls on the bank.',
        )
      : []),
  ];
}

export const FORM_WORDS: Readonly<Record<DamForm, string>> = {
  rock: 'loose stone',
  brush: 'brush',
  log: 'logs',
  sandbag: 'a wall of bags',
};

/** Everything wrong with one series on its own. */
export function validateDams(work: CheckDams): Problem[] {
  const wrong = (code: string, what: string, [field, todo]: readonly [string, string]): Problem[] => [{ code, what, field, do: todo }];
  const shape = [...checkFields(work, DAMS_FIELDS), ...checkLine(work, work.line)];
  if (!DAM_FORMS.includes(work.form))
    return [
      ...shape,
      ...wrong('check-dams.form', `"${work.name}" is made of ${told(work.form)}`, ['form', `Choose one of ${DAM_FORMS.join(', ')}.`]),
    ];
  if (!Array.isArray(work.dams) || work.dams.length === 0)
    return [...shape, ...wrong('check-dams.none', `"${work.name}" has no dam`, ['dams', 'Give one dam at least, or remove the series.'])];
  if (work.dams.length > MOST_DAMS)
    return [
      ...shape,
      ...wrong('check-dams.many', `"${work.name}" has ${work.dams.length} dams`, [
        'dams',
        `Give at most ${MOST_DAMS}; begin another series.`,
      ]),
    ];
  if (shape.length > 0) return shape;
  const on = { work, lengthM: lineLength(work.line) };
  return (work.dams as readonly Dam[]).flatMap((dam, k) => damProblems(on, dam, k + 1));
}

const NONE = 0;

/** Share of a dam's height that is gone: none where nothing was noted. */
export const lostShare = ({ lostPercent = NONE }: Dam): number => lostPercent / 100;

/** Dams from the upper end down. */
export const inOrder = ({ dams }: Pick<CheckDams, 'dams'>): readonly Dam[] => [...dams].sort((a, b) => a.atM - b.atM);
