// Vessels: a barrel, totes, a cistern; one or several alike that stand level and are joined below.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { checkChoices, checkEntries, checkFields, choice, isShown, option } from '../fields.ts';
import { CRATE_FIELDS, type Crates, MADE_CHOICES, MORTAR_FIELDS, type Mortar } from './made.ts';

/** Area inside at a height over the floor, as it was measured. */
export interface Ledge {
  readonly heightM: number;
  readonly areaM2: number;
}

export interface Tank extends WorkBase {
  readonly kind: 'tank';
  readonly at: Point;
  readonly form: 'upright' | 'lying' | 'box' | 'cone' | 'measured';
  readonly lid: 'closed' | 'open';
  readonly wall: 'dark' | 'light';
  readonly screen: 'none' | 'mesh';
  readonly stands: 'slab' | 'blocks' | 'soil' | 'buried';
  readonly fitting: 'through' | 'glued';
  readonly draws: 'tap' | 'pump';
  readonly use: 'garden' | 'house' | 'drinking';
  readonly treated: 'none' | 'filtered';
  readonly frost: 'not-said' | 'none' | 'emptied' | 'stays';
  readonly made: 'bought' | 'mortar' | 'crates';
  readonly mortar: Mortar;
  readonly crates: Crates;
  readonly count: number;
  readonly dimensions: {
    readonly diameterM: number;
    readonly topM: number;
    readonly lengthM: number;
    readonly widthM: number;
    readonly heightM: number;
    /** Its floor over the ground; less than nothing where it is sunk. */
    readonly standM: number;
    /** Over its floor: where water comes in, where it runs over, where it is drawn off. */
    readonly inletM: number;
    readonly overflowM: number;
    readonly tapM: number;
    readonly overflowPipeM: number;
  };
  readonly ledges?: readonly Ledge[];
  readonly emptyKg?: number;
  /** Another vessel it is joined to at its foot: water stands as high in both. How wide the pipe between them is [m]. */
  readonly levelsWith?: string;
  readonly joinPipeM?: number;
  /** Depth to water at its highest in the year, from the ground. */
  readonly waterTableM?: number;
  readonly cost?: number;
}

const d = (
  key: keyof Tank['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });
const only = (...is: readonly Tank['form'][]): Pick<FieldSpec, 'shownWhen'> => ({ shownWhen: { path: 'form', is } });

const LEDGE_FIELDS: readonly FieldSpec[] = [
  { path: 'heightM', label: 'Over its floor', kind: 'length', min: 0, max: 20, help: 'Where it was measured.' },
  { path: 'areaM2', label: 'Area inside', kind: 'area', min: 0, max: 2000, help: 'As it was measured there.' },
];

export const TANK_FIELDS: readonly FieldSpec[] = [
  { path: 'count', label: 'How many alike', kind: 'count', min: 1, max: 100, help: 'Level with one another and joined at their feet.' },
  d('diameterM', 'Across, inside', { min: 0.2, max: 30, help: 'At its foot.', ...only('upright', 'lying', 'cone') }),
  d('topM', 'Across at its top', { min: 0.2, max: 30, help: 'Inside.', ...only('cone') }),
  d('lengthM', 'Long, inside', { min: 0.2, max: 60, help: 'From end to end.', ...only('lying', 'box') }),
  d('widthM', 'Wide, inside', { min: 0.2, max: 60, help: 'From side to side.', ...only('box') }),
  d('heightM', 'High, inside', { min: 0.2, max: 12, help: 'Floor to rim.', ...only('upright', 'box', 'cone', 'measured') }),
  d('standM', 'Floor over the ground', { min: -6, max: 6, help: 'High enough for a can under its tap; less than nothing where it is sunk.' }),
  d('inletM', 'Water comes in at', { min: 0.05, max: 12, help: 'Over its floor.' }),
  d('overflowM', 'Runs over at', { min: 0.05, max: 12, help: 'The lowest of its overflow pipe, over its floor: all above is lost.' }),
  d('overflowPipeM', 'Overflow pipe, inside', { min: 0.02, max: 0.6, help: 'As wide as what comes in, at least.' }),
  d('tapM', 'Drawn off at', { min: 0, max: 6, help: 'Over its floor: silt settles below.' }),
  {
    path: 'emptyKg',
    label: 'Weighs empty, each',
    kind: 'number',
    min: 0.5,
    max: 500_000,
    help: 'In kilograms, with its lid.',
    optional: { offer: 'You know what it weighs', start: 60 },
  },
  {
    path: 'waterTableM',
    label: 'Ground water stands',
    kind: 'length',
    min: 0,
    max: 50,
    help: 'Under the ground, at its highest in the year.',
    optional: { offer: 'You know how deep the ground water is', start: 3 },
    shownWhen: { path: 'stands', is: ['buried'] },
  },
  {
    path: 'joinPipeM',
    label: 'Pipe between them, inside',
    kind: 'length',
    min: 0.01,
    max: 0.6,
    help: 'At their feet, to the other vessel. Until it is known they are not counted as joined.',
    optional: { offer: 'You know the pipe between them', start: 0.05 },
    shownWhen: { path: 'levelsWith', isNot: [undefined] },
  },
  {
    path: 'cost',
    label: 'Costs, all of them',
    kind: 'number',
    min: 0,
    max: 10_000_000,
    help: 'Standing and joined, in your money.',
    optional: { offer: 'You know what it costs', start: 500 },
  },
  ...MORTAR_FIELDS,
  ...CRATE_FIELDS,
]; // prettier-ignore

export const TANK_LISTS: readonly ListSpec[] = [
  {
    path: 'ledges',
    title: 'Measured inside',
    words: { none: 'Nothing measured yet.', add: 'Add a height', remove: 'Take it away' },
    fields: LEDGE_FIELDS,
    start: (work: Tank) => ({ heightM: work.dimensions.heightM, areaM2: 1 }),
  },
];

export const TANK_CHOICES: readonly ChoiceSpec[] = [
  ...MADE_CHOICES,
  choice('form', 'Its shape', [
    option('upright', 'round and upright'),
    option('lying', 'round and lying'),
    option('box', 'a box'),
    option('cone', 'round, wider or narrower at its top'),
    option('measured', 'measured inside'),
  ]),
  choice('lid', 'Its top is', [option('closed', 'closed'), option('open', 'open')]),
  choice('wall', 'Its wall', [option('dark', 'keeps light out'), option('light', 'lets light in')]),
  choice('screen', 'Its openings are', [option('none', 'open'), option('mesh', 'screened by mesh')]),
  choice('stands', 'It stands', [
    option('slab', 'on a slab or packed gravel'),
    option('blocks', 'on blocks or a stand'),
    option('soil', 'on the soil'),
    option('buried', 'in the ground'),
  ]),
  choice('fitting', 'Its tap is', [option('through', 'bolted through its wall'), option('glued', 'glued or screwed into its wall')]),
  choice('draws', 'Water is drawn', [option('tap', 'by a tap'), option('pump', 'by a pump or bucket')]),
  choice('use', 'It is for', [option('garden', 'gardens and animals'), option('house', 'washing and flushing'), option('drinking', 'drinking')]), // prettier-ignore
  {
    ...choice('treated', 'Before it is drunk', [
      option('none', 'nothing is done to it'),
      option('filtered', 'it is filtered and disinfected'),
    ]),
    shownWhen: { path: 'use', is: ['drinking'] },
  },
  choice('frost', 'Frost', [option('not-said', 'not said yet'), option('none', 'does not come'), option('emptied', 'comes; it is emptied before'), option('stays', 'comes; it stays full')]), // prettier-ignore
];

/** Height of its rim over its floor. */
export const rimHeight = ({ form, dimensions }: Pick<Tank, 'form' | 'dimensions'>): number =>
  form === 'lying' ? dimensions.diameterM : dimensions.heightM;

function shapeFaults(work: Tank): Problem[] {
  const { name, form, ledges = [] } = work;
  if (form !== 'measured') return [];
  const heights = ledges.map((l) => l.heightM);
  if (ledges.length < 2 || heights.some((h, k) => k > 0 && h <= heights[k - 1]) || heights[0] !== 0) {
    const what = `"${name}" is measured at ${heights.length} heights${heights.length > 0 ? ': ' + heights.join(', ') + ' m' : ''}`;
    return [
      {
        code: 'tank.ledges',
        field: 'ledges',
        what,
        do: 'Give its area on the floor (0 m) and at least one height over it, from below up.',
      },
    ];
  }
  return [];
}

/** A shape that what it is made of cannot have. */
function madeFaults({ name, made, form }: Tank): Problem[] {
  if (made === 'mortar' && form !== 'upright')
    return [{ code: 'tank.mortar-form', field: 'form', what: `"${name}" is of mortar and not round and upright`, do: 'Make it round and upright: only so mesh and bar hold it.' }];
  if (made === 'crates' && form !== 'box' && form !== 'measured')
    return [{ code: 'tank.crates-form', field: 'form', what: `"${name}" is of crates and neither a box nor measured`, do: 'Make it a box, or measure the pit inside.' }];
  return [];
} // prettier-ignore

/** Levels inside it that cannot be: over its rim, or the tap over the overflow. */
function levelFaults(work: Tank): Problem[] {
  const { name, dimensions } = work;
  const rim = rimHeight(work);
  const { inletM, overflowM, tapM, overflowPipeM } = dimensions;
  const over = (key: string, label: string, valueM: number): Problem[] =>
    valueM > rim + 1e-9
      ? [
          {
            code: 'tank.over-rim',
            field: `dimensions.${key}`,
            what: say`${label} of "${name}" lies ${amount(valueM - rim, 'difference')} over its rim`,
            do: say`Give ${amount(rim, 'length')} at the most.`,
          },
        ]
      : [];
  const faults = [...over('inletM', 'the inlet', inletM), ...over('overflowM', 'the overflow', overflowM + overflowPipeM)];
  if (faults.length > 0) return faults;
  return tapM < overflowM
    ? []
    : [
        {
          code: 'tank.tap',
          field: 'dimensions.tapM',
          what: say`the tap of "${name}" lies ${amount(tapM, 'length')} over its floor, not under its overflow at ${amount(overflowM, 'length')}`,
          do: 'Set the tap lower: nothing could be drawn.',
        },
      ];
}

const isPlace = (at: unknown): boolean =>
  Array.isArray(at) && at.length === 2 && at.every((v) => typeof v === 'number' && Number.isFinite(v));

/** Everything wrong with one vessel on its own. */
export function validateTank(work: Tank): Problem[] {
  const { name } = work;
  const shape = [
    ...checkFields(work, TANK_FIELDS.filter((f) => isShown(f, work))),
    ...checkChoices(work, TANK_CHOICES),
    ...checkEntries(work, { path: 'ledges', fields: LEDGE_FIELDS, each: 'height' }),
    ...(isPlace(work.at) ? [] : [{ code: 'work.place', field: 'at', what: `the place of "${name}" is ${told(work.at)}`, do: 'Give [x, y] in metres.' }]),
  ]; // prettier-ignore
  if (shape.length > 0) return shape;
  const faults = [...shapeFaults(work), ...madeFaults(work)];
  return faults.length > 0 ? faults : levelFaults(work);
}
