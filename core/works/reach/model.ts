// A channel as it was measured: its bed by a few levels, and what it is like across at each of them.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkEntries, checkFields, checkLine, choice, option } from '../fields.ts';

export const RUNS = ['gully', 'creek', 'ditch'] as const;
export const ROUGH = ['unknown', 'earth', 'grassy', 'dense', 'clean', 'stony', 'pools', 'weedy', 'boulders', 'brush'] as const;
export const BED_IS = ['unknown', 'fine-sand', 'sandy-loam', 'silt-loam', 'firm-loam', 'stiff-clay', 'fine-gravel', 'coarse-gravel', 'cobbles', 'hardpan', 'grass', 'rock'] as const; // prettier-ignore

/** The channel across one place: its bed, and both banks as tape and level have them, looking downstream. */
export interface ReachSection {
  /** Along the line, from its upper end. */
  readonly atM: number;
  readonly bedM: number;
  readonly bedWidthM: number;
  /** From the edge of the bed to the top of the bank: away, and up. */
  readonly leftOutM: number;
  readonly leftHighM: number;
  readonly rightOutM: number;
  readonly rightHighM: number;
}

export interface Reach extends WorkBase {
  readonly kind: 'reach';
  /** Along its bed, from its upper to its lower end. */
  readonly line: Line;
  readonly runs: (typeof RUNS)[number];
  /** Where what is told of it comes from: read off the terrain, taped across, or levelled too. */
  readonly known: 'terrain' | 'taped' | 'levelled';
  readonly rough: (typeof ROUGH)[number];
  readonly bedIs: (typeof BED_IS)[number];
  readonly sections: readonly ReachSection[];
  /** Manning's roughness, where somebody knows it better than by its look. */
  readonly roughness?: number;
  /** Silt to be taken off its bed. */
  readonly clearM?: number;
  readonly labour: { readonly m3PerDay: number };
}

/** Manning's roughness by what it looks like: Chow 1959, Table 5-6, as rows of it that mean the same (excavated, then natural). */
export const ROUGHNESS: Readonly<Record<Exclude<Reach['rough'], 'unknown'>, number>> = {
  earth: 0.022,
  grassy: 0.03,
  dense: 0.08,
  clean: 0.03,
  stony: 0.035,
  pools: 0.04,
  weedy: 0.07,
  boulders: 0.05,
  brush: 0.1,
};
export const roughnessOf = ({ rough, roughness }: Pick<Reach, 'rough' | 'roughness'>): number | null =>
  roughness ?? (rough === 'unknown' ? null : ROUGHNESS[rough]);
/** While nobody has said water is followed as in the roughest of them, where it stands highest: what is fine then is fine however it looks. */
export const FOLLOWED_BY = ROUGHNESS.brush;

/** What a bed stands in clear water [m/s]: Fortier and Scobey 1926 as in Chow 1959, Table 7-3; grass as mixed on up to 5 %, Table 7-6. Rock stands all of it. */
export const BED_STANDS_MS: Readonly<Record<Exclude<Reach['bedIs'], 'unknown'>, number>> = {
  'fine-sand': 0.457,
  'sandy-loam': 0.533,
  'silt-loam': 0.61,
  'firm-loam': 0.762,
  'stiff-clay': 1.143,
  'fine-gravel': 0.762,
  'coarse-gravel': 1.219,
  cobbles: 1.524,
  hardpan: 1.829,
  grass: 1.524,
  rock: Infinity,
};

const LENGTH = { min: 0, max: 100, kind: 'length' } as const;

export const REACH_FIELDS: readonly FieldSpec[] = [
  {
    path: 'roughness',
    label: 'Manning’s roughness',
    kind: 'number',
    min: 0.015,
    max: 0.25,
    help: 'Where a flow was measured in it, what that comes to.',
    optional: { offer: 'You know its roughness better', start: 0.04 },
  },
  {
    path: 'clearM',
    label: 'Taken off its bed',
    kind: 'difference',
    min: 0.01,
    max: 2,
    help: 'Silt dug out all along; its banks stay.',
    optional: { offer: 'It is to be cleared of silt', start: 0.1 },
  },
  { path: 'labour.m3PerDay', label: 'One person digs in a day', kind: 'volume', min: 0.1, max: 100, help: 'About 3 m³ by hand out of a wet bed.' },
]; // prettier-ignore

export const REACH_CHOICES: readonly ChoiceSpec[] = [
  choice('runs', 'It is', [
    option('gully', 'a gully: dry but for storms'),
    option('creek', 'a creek: water most of the year'),
    option('ditch', 'a dug ditch'),
  ]),
  choice('known', 'What is told of it', [
    option('terrain', 'is read off the terrain'),
    option('taped', 'was taped across; its bed is the terrain’s'),
    option('levelled', 'was taped across and its bed levelled'),
  ]),
  choice('rough', 'It looks', [
    option('unknown', 'nobody has said'),
    option('earth', 'dug, weathered earth'),
    option('grassy', 'dug, some grass and weeds'),
    option('dense', 'dug, never mown, dense weeds'),
    option('clean', 'natural, clean and straight'),
    option('stony', 'natural, stones and weeds'),
    option('pools', 'natural, winding, pools'),
    option('weedy', 'natural, slow, weedy, deep pools'),
    option('boulders', 'steep, cobbles and boulders'),
    option('brush', 'grown in with brush'),
  ]),
  choice('bedIs', 'Its bed is of', [
    option('unknown', 'nobody has looked'),
    option('fine-sand', 'fine sand'),
    option('sandy-loam', 'sandy loam'),
    option('silt-loam', 'silt loam'),
    option('firm-loam', 'firm loam'),
    option('stiff-clay', 'stiff clay'),
    option('fine-gravel', 'fine gravel'),
    option('coarse-gravel', 'coarse gravel'),
    option('cobbles', 'cobbles'),
    option('hardpan', 'hardpan or shale'),
    option('grass', 'grass, a closed sward'),
    option('rock', 'sound rock'),
  ]),
];

export const SECTIONS = {
  path: 'sections',
  title: 'Sections',
  each: 'section',
  words: {
    none: 'No section: measure it across at two places at least.',
    add: 'Another section',
    remove: 'Take it away',
  },
  fields: [
    { path: 'atM', label: 'At', kind: 'distance', min: 0, max: 20_000, help: 'Along its line, from the upper end.' },
    { path: 'bedM', label: 'Bed', kind: 'level', min: -500, max: 9000, help: 'Its lowest place there.' },
    { path: 'bedWidthM', label: 'Bed, wide', kind: 'length', min: 0.05, max: 100, help: 'The flat of it.' },
    { path: 'leftOutM', label: 'Left bank, out', help: 'From the edge of the bed to over the top of the bank, level; looking downstream.', ...LENGTH },
    { path: 'leftHighM', label: 'Left bank, up', help: 'Its top over the bed.', ...LENGTH, min: 0.05, max: 20 },
    { path: 'rightOutM', label: 'Right bank, out', help: 'As on the left.', ...LENGTH },
    { path: 'rightHighM', label: 'Right bank, up', help: 'Its top over the bed.', ...LENGTH, min: 0.05, max: 20 },
  ],
  heads: ['at', 'bed', 'wide', '', 'left', '', 'right'],
  start: (work: Reach) => between(work),
} satisfies ListSpec; // prettier-ignore

/** Sections from the upper end down. */
export const inOrder = ({ sections }: Pick<Reach, 'sections'>): readonly ReachSection[] => [...sections].sort((a, b) => a.atM - b.atM);

const NUMBERS = ['atM', 'bedM', 'bedWidthM', 'leftOutM', 'leftHighM', 'rightOutM', 'rightHighM'] as const;
const toMm = (m: number): number => Math.round(1000 * m) / 1000;

/** Between two sections, so much of the way. */
export function mixed(a: ReachSection, b: ReachSection, share: number): ReachSection {
  const part = (key: (typeof NUMBERS)[number]): number => a[key] + (b[key] - a[key]) * share;
  return {
    atM: part('atM'),
    bedM: part('bedM'),
    bedWidthM: part('bedWidthM'),
    leftOutM: part('leftOutM'),
    leftHighM: part('leftHighM'),
    rightOutM: part('rightOutM'),
    rightHighM: part('rightHighM'),
  };
}

/** One more where two stand farthest apart, as it would be between them. */
function between(work: Reach): Record<(typeof NUMBERS)[number], number> {
  const all = inOrder(work);
  const gap = (k: number): number => all[k + 1].atM - all[k].atM;
  const widest = all.slice(1).reduce((best, _, k) => (gap(k) > gap(best) ? k : best), 0);
  const made = mixed(all[widest], all[widest + 1], HALF);
  return { ...made, ...Object.fromEntries(NUMBERS.map((key) => [key, toMm(made[key])])) };
}
const HALF = 0.5;

/** Fewer tell no fall, more were never measured; nearer than this two are one [m]. */
export const [LEAST_SECTIONS, MOST_SECTIONS, APART_M] = [2, 100, 0.5];

function wrongSections(work: Reach): Problem[] {
  const wrong = (what: Problem['what'], todo: string, field = 'sections'): Problem[] => [{ code: 'reach.sections', what, field, do: todo }];
  const { name, sections, line } = work;
  const count = Array.isArray(sections) ? sections.length : 0;
  if (count < LEAST_SECTIONS || count > MOST_SECTIONS)
    return wrong(say`"${name}" has ${amount(count, 'count')} sections`, `Give ${LEAST_SECTIONS} to ${MOST_SECTIONS}: one at either end at the least.`);
  const shape = checkEntries(work, SECTIONS);
  if (shape.length > 0) return shape;
  const length = lineLength(line);
  const beyond = sections.findIndex((s) => s.atM > length + 0.05);
  if (beyond >= 0)
    return wrong(
      say`section ${amount(beyond + 1, 'count')} of "${name}" lies at ${amount(sections[beyond].atM, 'distance')}, beyond its end at ${amount(length, 'distance')}`,
      'Bring it nearer, or draw the line further.',
      `sections.${beyond}.atM`,
    );
  const sorted = inOrder(work);
  const close = sorted.slice(1).findIndex((s, k) => s.atM - sorted[k].atM < APART_M);
  return close < 0
    ? []
    : wrong(say`two sections of "${name}" stand at ${amount(sorted[close].atM, 'distance')} and ${amount(sorted[close + 1].atM, 'distance')}`, 'Keep one of them: they are one place.');
} // prettier-ignore

/** Everything wrong with one reach on its own. */
export function validateReach(work: Reach): Problem[] {
  const shape = [...checkFields(work, REACH_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, REACH_CHOICES)];
  return shape.length > 0 ? shape : wrongSections(work);
}
