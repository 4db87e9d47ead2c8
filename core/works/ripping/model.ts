// A ripping pattern: slots cut into hard ground beside one key line, which lead water from the valleys out to the ridges.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { checkChoices, checkFields, checkLine, option } from '../fields.ts';

export interface Ripping extends WorkBase {
  readonly kind: 'ripping';
  /** The line all others keep their distance from; downhill lies on its right. */
  readonly line: Line;
  /** The field it stays in; left out, it goes as far up and down as said. */
  readonly ring?: Line;
  readonly soil: 'not-looked' | 'dry' | 'moist' | 'wet';
  readonly texture: 'unknown' | 'fine' | 'medium' | 'coarse';
  readonly services: 'not-asked' | 'asked';
  readonly dimensions: {
    /** Between slots, how deep they go, how wide the point is that cuts them. */
    readonly spacingM: number;
    readonly depthM: number;
    readonly pointM: number;
    readonly upM: number;
    readonly downM: number;
    /** The first, second, third time it is ripped: each a little deeper. */
    readonly season: number;
  };
  /** Lower side of the hard layer, from the ground. */
  readonly panM?: number;
  /** Rates tested beside it and in it, after how many years, and how long until half of what it gained is gone. */
  readonly besideMmPerHour?: number;
  readonly insideMmPerHour?: number;
  readonly testedAfterYears?: number;
  readonly halvesYears?: number;
  /** Days nothing grazes it after. */
  readonly restDays: number;
  readonly machine: { readonly shanks: number; readonly speedKmh: number; readonly litresAnHour: number; readonly powerKw?: number };
}

const d = (
  key: keyof Ripping['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });
const NO_FIELD: FieldSpec['shownWhen'] = { path: 'ring', is: [undefined] };

export const RIPPING_FIELDS: readonly FieldSpec[] = [
  d('spacingM', 'Slots apart', { min: 0.3, max: 10, help: '0.5 to 1 m: about twice as far as they are deep.' }),
  d('depthM', 'Deep', { min: 0.05, max: 1, help: 'A little under the hard layer; no more than 0.2 m the first time.' }),
  d('pointM', 'Point, wide', { min: 0.02, max: 0.4, kind: 'difference', help: 'Five to seven times as deep as it is wide, it smears instead of breaking.' }), // prettier-ignore
  d('upM', 'Uphill of the key line', { min: 0, max: 500, kind: 'distance', help: 'How far lines are laid.', shownWhen: NO_FIELD }),
  d('downM', 'Downhill of it', { min: 0, max: 500, kind: 'distance', help: 'How far lines are laid.', shownWhen: NO_FIELD }),
  d('season', 'Which season', { min: 1, max: 10, kind: 'count', help: 'The first time, the second ...: each goes a little deeper.' }),
  {
    path: 'panM',
    label: 'Hard layer ends',
    kind: 'length',
    min: 0.02,
    max: 1.5,
    help: 'Under the ground, by a spade or a rod: where it stops to resist.',
    optional: { offer: 'You have dug for the hard layer', start: 0.25 },
  },
  {
    path: 'besideMmPerHour',
    label: 'Rate beside it, tested',
    kind: 'intensity',
    min: 0.1,
    max: 2000,
    help: 'On the same ground, not ripped.',
    optional: { offer: 'You have tested the rate beside it', start: 10 },
  },
  {
    path: 'insideMmPerHour',
    label: 'Rate in it, tested',
    kind: 'intensity',
    min: 0.1,
    max: 5000,
    help: 'Between and over slots, the mean of several.',
    optional: { offer: 'You have tested the rate in it', start: 20 },
  },
  {
    path: 'testedAfterYears',
    label: 'Tested after',
    kind: 'years',
    min: 0,
    max: 30,
    help: 'Years since it was ripped.',
    optional: { offer: 'You know when that was', start: 1 },
  },
  {
    path: 'halvesYears',
    label: 'Half of it is gone in',
    kind: 'years',
    min: 0.2,
    max: 50,
    help: 'What you think: two years where stock comes back soon, ten where deep roots follow. A guess, told as one.',
    optional: { offer: 'You think you know how long it lasts', start: 2 },
  },
  { path: 'restDays', label: 'Not grazed for', kind: 'days', min: 0, max: 2000, help: 'Until roots have gone down the slots: 60 days of growth and more.' }, // prettier-ignore
  { path: 'machine.shanks', label: 'Shanks', kind: 'count', min: 1, max: 15, help: 'Slots cut in one pass.' },
  { path: 'machine.speedKmh', label: 'Speed, km an hour', kind: 'number', min: 0.5, max: 12, help: '3 to 5: faster turns the soil up.' },
  {
    path: 'machine.litresAnHour',
    label: 'Fuel, litres an hour',
    kind: 'number',
    min: 0.5,
    max: 80,
    help: 'As the machine takes under load.',
  },
  {
    path: 'machine.powerKw',
    label: 'Power of its engine, kW',
    kind: 'number',
    min: 3,
    max: 600,
    help: 'By its plate.',
    optional: { offer: 'You know the machine', start: 50 },
  },
];

export const RIPPING_CHOICES: readonly ChoiceSpec[] = [
  { path: 'soil', label: 'The ground at that depth is', options: [option('not-looked', 'nobody has looked'), option('dry', 'dry: a clod breaks'), option('moist', 'moist: a clod can be rolled'), option('wet', 'wet: it smears')] }, // prettier-ignore
  {
    path: 'texture',
    label: 'It is',
    options: [option('unknown', 'not said'), option('fine', 'clay'), option('medium', 'loam'), option('coarse', 'sand')],
  },
  {
    path: 'services',
    label: 'Buried cables and pipes',
    options: [option('not-asked', 'not asked yet'), option('asked', 'asked for, and marked')],
  },
];

/** Everything wrong with one pattern on its own. */
export function validateRipping(work: Ripping): Problem[] {
  const shape = [...checkFields(work, RIPPING_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, RIPPING_CHOICES)];
  if (shape.length > 0) return shape;
  const { ring, name, dimensions } = work;
  const wrong = (field: string, what: Problem['what'], advice: string): Problem[] => [
    { code: `ripping.${field}`, field, what, do: advice },
  ];
  if (ring !== undefined && !(Array.isArray(ring) && ring.length >= 3 && ring.every(isPoint)))
    return wrong('ring', `the field of "${name}" is ${told(ring)}`, 'Give three corners or more, [x, y] each.');
  if (dimensions.upM + dimensions.downM > MOST_LINES * dimensions.spacingM)
    return wrong(
      'dimensions.spacingM',
      say`"${name}" would have ${amount(Math.ceil((dimensions.upM + dimensions.downM) / dimensions.spacingM), 'count')} lines`,
      `Draw a smaller piece, or lay them wider: ${MOST_LINES} at the most.`,
    );
  return [];
}
export const MOST_LINES = 400;
const isPoint = (p: unknown): boolean => Array.isArray(p) && p.length === 2 && p.every((v) => typeof v === 'number' && Number.isFinite(v));

/** How many times as fast as the ground beside it, as tested; null while one of both is not. */
export const timesOf = ({ besideMmPerHour, insideMmPerHour }: Ripping): number | null =>
  besideMmPerHour === undefined || insideMmPerHour === undefined ? null : insideMmPerHour / besideMmPerHour;
