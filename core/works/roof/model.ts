// A roof that is caught: its plane from above, what it is covered with, its gutter and downpipes.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, signedArea } from '../../geometry/index.ts';
import { checkChoices, checkFields, checkLine, choice, option } from '../fields.ts';

export interface Roof extends WorkBase {
  readonly kind: 'roof';
  /** Its edge from above, overhang and all. */
  readonly ring: Line;
  readonly covering: 'metal' | 'glazed-tile' | 'concrete-tile' | 'shingle' | 'thatch' | 'planted';
  readonly gutter: 'half-round' | 'box' | 'none';
  /** What an overflowing gutter does: how much surer than usual it must be. */
  readonly risk: 'eaves' | 'door' | 'inside' | 'never';
  readonly screen: 'none' | 'mesh' | 'head';
  readonly dimensions: {
    /** Eaves over the ground, and how much higher its ridge stands. */
    readonly eavesM: number;
    readonly riseM: number;
    readonly gutterM: number;
    /** All of its gutters together, and what its downpipes are. */
    readonly gutterLengthM: number;
    readonly downpipes: number;
    readonly downpipeM: number;
    readonly firstFlushMm: number;
  };
  readonly fallPercent?: number;
  /** In the user's money. */
  readonly cost?: number;
  readonly labour: { readonly mPerDay: number };
}

const d = (
  key: keyof Roof['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });
const HAS_GUTTER = { path: 'gutter', isNot: ['none'] } as const;

export const ROOF_FIELDS: readonly FieldSpec[] = [
  d('eavesM', 'Eaves over the ground', { min: 0.3, max: 40, help: 'A tank beside it must stand lower than this.' }),
  d('riseM', 'Ridge over the eaves', { min: 0, max: 20, help: 'Wind drives rain against half of it. None for a flat roof.' }),
  d('gutterM', 'Gutter, across', { min: 0.05, max: 0.5, help: 'A half round of 125 mm is usual.', shownWhen: HAS_GUTTER }),
  d('gutterLengthM', 'Gutters, all together', { min: 0.5, max: 500, help: 'Along the eaves that are caught.', shownWhen: HAS_GUTTER }),
  d('downpipes', 'Downpipes', { min: 1, max: 40, kind: 'count', help: 'Each with an even share of the gutter.', shownWhen: HAS_GUTTER }),
  d('downpipeM', 'Downpipe, inside', { min: 0.03, max: 0.4, help: '75 to 100 mm.', shownWhen: HAS_GUTTER }),
  d('firstFlushMm', 'First of each rain let go', { min: 0, max: 5, kind: 'rainFine', help: '0.5 of a clean roof, 2 under trees or dust.' }),
  {
    path: 'fallPercent',
    label: 'Fall of the gutter',
    kind: 'percent',
    min: -5,
    max: 10,
    help: 'Towards its downpipe: 0.2 to 0.5. Less than nothing where it falls away from it.',
    optional: { offer: 'You have measured its fall', start: 0.3 },
    shownWhen: HAS_GUTTER,
  },
  {
    path: 'cost',
    label: 'Costs, all of it',
    kind: 'number',
    min: 1,
    max: 1e7,
    help: 'In your money: sheet, frame, gutters and downpipes; of a roof that stands already, what catching it takes.',
    optional: { offer: 'You know what it costs', start: 300 },
  },
  { path: 'labour.mPerDay', label: 'Gutter one person hangs in a day', kind: 'length', min: 1, max: 200, help: 'About 15 m, brackets and downpipes with it.' },
]; // prettier-ignore

export const ROOF_CHOICES: readonly ChoiceSpec[] = [
  choice('covering', 'Covered with', [
    option('metal', 'metal sheet'),
    option('glazed-tile', 'glazed or slate tiles'),
    option('concrete-tile', 'concrete or clay tiles'),
    option('shingle', 'bitumen shingle or felt'),
    option('thatch', 'thatch'),
    option('planted', 'soil with plants'),
  ]),
  choice('gutter', 'Gutter', [option('half-round', 'half round'), option('box', 'box'), option('none', 'none yet')]),
  choice('risk', 'Where it runs over, water', [
    option('eaves', 'falls clear of the eaves'),
    option('door', 'falls on a door or a path'),
    option('inside', 'comes into the building'),
    option('never', 'must never come in: records, a clinic'),
  ]),
  choice('screen', 'Leaves are kept out by', [
    option('none', 'nothing'),
    option('mesh', 'mesh over the gutter'),
    option('head', 'a rain head with a screen'),
  ]),
];

/** What runs down of the rain on it over years: wetting, splash and what dries (handbook 6; middle of the ranges told). */
export const COVERING_SHARE: Readonly<Record<Roof['covering'], number>> = {
  metal: 0.92,
  'glazed-tile': 0.85,
  'concrete-tile': 0.78,
  shingle: 0.82,
  thatch: 0.2,
  planted: 0.45,
};

export const areaOf = ({ ring }: Pick<Roof, 'ring'>): number => Math.abs(signedArea(ring));

/** A roof smaller than a table, or larger than a hangar, is a slip of the hand [m2]. */
const [LEAST_M2, MOST_M2] = [0.5, 20_000];

/** Everything wrong with one roof on its own. */
export function validateRoof(work: Roof): Problem[] {
  const shape = [...checkFields(work, ROOF_FIELDS), ...checkLine(work, work.ring).map((p) => ({ ...p, field: 'ring' })), ...checkChoices(work, ROOF_CHOICES)]; // prettier-ignore
  if (shape.length > 0) return shape;
  const { name, ring } = work;
  const area = areaOf(work);
  if (ring.length < 3 || area < LEAST_M2 || area > MOST_M2) {
    const what = `"${name}" covers ${area.toFixed(1)} m²`;
    return [{ code: 'roof.area', field: 'ring', what, do: 'Draw its edge from above: three corners at least, 0.5 to 20 000 m².' }];
  }
  return [];
}
