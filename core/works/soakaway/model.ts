// Soakaways: a trench, a pit or a shaft that takes water in, holds it in its gaps and lets it into the ground below.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMES_BACK_FIELDS, type ComesBack } from '../comes-back.ts';
import { checkChoices, checkFields, checkLine, choice, option } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';

export interface Soakaway extends WorkBase, ComesBack {
  readonly kind: 'soakaway';
  readonly form: 'trench' | 'pit' | 'shaft';
  readonly fill: 'stone' | 'open' | 'rings';
  /** Along a trench; of a pit or a shaft, the line over which water is led to it, itself in the middle. */
  readonly line: Line;
  /** What of it still lets water through as it ages: its base, half of its sides, or both. */
  readonly soaksBy: 'base' | 'sides' | 'both';
  readonly trap: 'none' | 'strip' | 'sump';
  readonly wrap: 'none' | 'cloth';
  readonly cover: 'none' | 'grate' | 'buried';
  /** Water led straight to what lies under the soil: whether those who look after it were asked. */
  readonly asked: 'not-asked' | 'allowed';
  readonly dimensions: {
    readonly depthM: number;
    /** Width of a trench; width across of a pit, or inside its rings. */
    readonly widthM: number;
    /** Share of its stone that water fills, and stone laid round its rings. */
    readonly voids: number;
    readonly surroundM: number;
    /** Where it lets go on its lower side, and the bank elsewhere. */
    readonly wayWidthM: number;
    readonly bermM: number;
    /** What the tested rate is divided by, for ground that closes with the years. */
    readonly safety: number;
  };
  /** Rate found in a hole as deep as it. */
  readonly testedMmPerHour?: number;
  /** Depth to water at its highest in the year, from the ground. */
  readonly waterTableM?: number;
  readonly siltedPercent?: number;
  /** How often a year it fills, and what of that the owner thinks comes out again below, and when: a guess. */
  readonly fillsAYear?: number;
  readonly labour: Logged & { readonly m3PerDay: number };
}

const d = (
  key: keyof Soakaway['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });
const noted = (path: keyof Soakaway, label: string, more: Pick<FieldSpec, 'help' | 'min' | 'max' | 'kind' | 'optional'>): FieldSpec => ({
  path,
  label,
  ...more,
});

export const SOAKAWAY_FIELDS: readonly FieldSpec[] = [
  d('depthM', 'Deep', { min: 0.2, max: 30, help: 'From the lowest ground at it to its floor.' }),
  d('widthM', 'Wide', { min: 0.1, max: 20, help: 'A trench: a bucket’s width. A pit: across it, or inside its rings.' }),
  d('voids', 'Share of its stone that water fills', {
    min: 0.1,
    max: 0.6,
    kind: 'number',
    help: '0.35 to 0.40 for clean stone of one size.',
    shownWhen: { path: 'fill', isNot: ['open'] },
  }),
  d('surroundM', 'Stone round its rings', { min: 0, max: 1, help: '0.2 m or more.', shownWhen: { path: 'fill', is: ['rings'] } }),
  d('wayWidthM', 'It lets go over', { min: 0.3, max: 100, help: 'How wide, on its lower side, once it is full.' }),
  d('bermM', 'Bank elsewhere', { min: 0, max: 0.6, help: 'Of what was dug, so that it lets go in one place.' }),
  d('safety', 'Tested rate divided by', {
    min: 1,
    max: 10,
    kind: 'number',
    help: '2 where it can be cleaned, 5 and more where it cannot or people live below.',
    shownWhen: { path: 'testedMmPerHour', isNot: [undefined] },
  }),
  noted('testedMmPerHour', 'Rate in a hole as deep', {
    kind: 'intensity',
    min: 0.1,
    max: 5000,
    help: 'As it was found, the slowest of three fillings.',
    optional: { offer: 'You have tested it at its depth', start: 40 },
  }),
  noted('waterTableM', 'Ground water stands', {
    kind: 'length',
    min: 0,
    max: 200,
    help: 'Under the ground, at its highest in the year.',
    optional: { offer: 'You know how deep the ground water is', start: 4 },
  }),
  noted('siltedPercent', 'Silt in it', {
    kind: 'percent',
    min: 0,
    max: 100,
    help: 'Share of its room.',
    optional: { offer: 'Silt lies in it', start: 10 },
  }),
  noted('fillsAYear', 'It fills', {
    kind: 'number',
    min: 0,
    max: 200,
    help: 'Times in a usual year.',
    optional: { offer: 'You know how often it fills', start: 8 },
  }),
  ...COMES_BACK_FIELDS,
  {
    path: 'labour.m3PerDay',
    label: 'One person digs in a day',
    kind: 'volume',
    min: 0.1,
    max: 400,
    help: 'About 2 m³ by hand; a machine far more.',
  },
  LOGGED_HOURS,
];

export const SOAKAWAY_CHOICES: readonly ChoiceSpec[] = [
  choice('form', 'It is', [option('trench', 'a trench'), option('pit', 'a pit'), option('shaft', 'a shaft to a deeper layer')]),
  choice('fill', 'Filled with', [
    option('stone', 'clean stone'),
    option('open', 'nothing: open'),
    option('rings', 'nothing, lined with rings'),
  ]),
  { ...choice('soaksBy', 'Counted on to let water through', [
    option('base', 'its base alone'),
    option('sides', 'half of its sides alone'),
    option('both', 'its base and half of its sides'),
  ]), help: 'Silt closes the base first: one school counts half of the sides alone, another the base alone, neither both.' }, // prettier-ignore
  choice('trap', 'Before it, silt is kept by', [option('none', 'nothing'), option('strip', 'a strip of dense grass'), option('sump', 'a sump that is emptied')]), // prettier-ignore
  { ...choice('wrap', 'Round its stone', [option('none', 'nothing'), option('cloth', 'filter cloth on sides and top')]), shownWhen: { path: 'fill', isNot: ['open'] } }, // prettier-ignore
  choice('cover', 'Over it', [option('none', 'nothing'), option('grate', 'a grate or lid that carries'), option('buried', 'stone or soil to the ground')]), // prettier-ignore
  { ...choice('asked', 'Those who look after ground water', [option('not-asked', 'not asked yet'), option('allowed', 'were asked, and allow it')]), shownWhen: { path: 'form', is: ['shaft'] } }, // prettier-ignore
];

/** Everything wrong with one soakaway on its own. */
export function validateSoakaway(work: Soakaway): Problem[] {
  const shape = [...checkFields(work, SOAKAWAY_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, SOAKAWAY_CHOICES)];
  if (shape.length > 0) return shape;
  const { form, fill, name, dimensions } = work;
  if (form === 'trench' && fill === 'rings') {
    const what = `"${name}" is a trench lined with rings`;
    return [{ code: 'soakaway.fill', field: 'fill', what, do: 'Fill a trench with stone or leave it open, or make it a pit.' }];
  }
  if (form === 'trench' && dimensions.widthM > 6) {
    const what = say`"${name}" is a trench ${amount(dimensions.widthM, 'length')} wide`;
    return [
      { code: 'soakaway.width', field: 'dimensions.widthM', what, do: 'Make it 6 m wide at the most, or draw a pond or a rain garden.' },
    ];
  }
  return [];
}
