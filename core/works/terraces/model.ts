// Terraces: level ground won from a slope, bench below bench, each held by a wall of dry stone or a bank of earth.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkFields, checkLines, choice, option } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';
import type { FootingName } from '../gravity/index.ts';

export interface Terraces extends WorkBase {
  readonly kind: 'terraces';
  /** Middles of its benches along the contour, where cut meets fill, from the highest; downhill lies on their right. */
  readonly lines: readonly Line[];
  readonly riser: 'stone' | 'earth';
  readonly lie: 'level' | 'inward' | 'outward';
  /** What the walls stand on, and the earth behind them; unknown while nobody has dug. */
  readonly ground: FootingName | 'unknown';
  readonly earth: 'unknown' | 'sand' | 'loam' | 'clay';
  readonly topsoil: 'kept' | 'buried';
  readonly riserGrows: 'bare' | 'grass' | 'shrubs';
  readonly grows: 'nothing' | 'grass' | 'crops' | 'trees';
  readonly workedBy: 'hand' | 'animals' | 'machine';
  readonly dimensions: {
    readonly benchM: number;
    /** Its riser, out per 1 up. */
    readonly riserHV: number;
    /** Fall across a bench that is not level [m/m]. */
    readonly fall: number;
    /** Edge over the bench's outer side; and how deep water may stand over that side before it runs over the inlets. */
    readonly lipM: number;
    readonly holdM: number;
    readonly inletM: number;
    readonly inlets: number;
    /** Stone at the foot of each inlet. */
    readonly stoneM: number;
    /** Of a wall of stone: base, top, how deep it stands, gravel behind it, and its weight with its gaps. */
    readonly baseM: number;
    readonly topM: number;
    readonly foundationM: number;
    readonly drainM: number;
    readonly topsoilM: number;
  };
  /** Of the place, for the shadow of a wall at midwinter noon. */
  readonly latitudeDeg?: number;
  readonly rockNearM3?: number;
  readonly labour: Logged & { readonly earthM3PerDay: number; readonly wallM3PerDay: number; readonly carryM: number };
}

const STONE: FieldSpec['shownWhen'] = { path: 'riser', is: ['stone'] };
const d = (
  key: keyof Terraces['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });

export const TERRACES_FIELDS: readonly FieldSpec[] = [
  d('benchM', 'Bench', { min: 0.5, max: 30, help: 'From the foot of the riser behind to its outer edge.' }),
  d('riserHV', 'Riser, out per 1 up', { min: 0, max: 2, kind: 'number', help: 'A wall 0.15; a bank of earth 0.75 and more.' }),
  d('fall', 'Fall across a bench', { min: 0, max: 0.15, kind: 'slope', help: '2 to 5 % where it is not level.', shownWhen: { path: 'lie', isNot: ['level'] } }), // prettier-ignore
  d('lipM', 'Edge over its outer side', { min: 0, max: 0.6, help: '0.15 m and more: water leaves by the inlets alone.' }),
  d('holdM', 'Water may stand over its outer side', {
    min: 0,
    max: 0.4,
    kind: 'difference',
    help: 'None where crops drown; 50 to 100 mm in dry country.',
  }),
  d('inletM', 'An inlet, wide', { min: 0.2, max: 10, help: 'Where water goes down to the next bench, over stone.' }),
  d('inlets', 'Inlets of a bench', { min: 1, max: 40, kind: 'count', help: 'One at each low place, and one in each 60 m.' }),
  d('stoneM', 'Stone under an inlet', { min: 0.03, max: 0.6, kind: 'difference', help: 'What falls on it must not move it.' }),
  d('baseM', 'Wall, wide at its base', { min: 0.2, max: 4, help: 'Half of its height and more.', shownWhen: STONE }),
  d('topM', 'Wide at its top', { min: 0.2, max: 3, help: '0.3 to 0.4 m.', shownWhen: STONE }),
  d('foundationM', 'Set into the ground', { min: 0, max: 2, help: '0.2 m and more, on ground nobody has loosened.', shownWhen: STONE }),
  d('drainM', 'Gravel behind it', {
    min: 0,
    max: 1.5,
    help: '0.3 m to its foot; without it water pushes with the earth.',
    shownWhen: STONE,
  }),
  d('topsoilM', 'Topsoil', { min: 0, max: 0.6, help: 'Taken off first, and spread again.', shownWhen: { path: 'topsoil', is: ['kept'] } }),
  {
    path: 'latitudeDeg',
    label: 'Latitude',
    kind: 'number',
    min: -66,
    max: 66,
    help: 'Degrees, south below nothing: tells the shadow of a wall at noon in midwinter.',
    optional: { offer: 'You wonder about shade', start: 40 },
  },
  {
    path: 'rockNearM3',
    label: 'Loose stone near',
    kind: 'volume',
    min: 0,
    max: 100_000,
    help: 'What lies loose: never prised from the slope above.',
    optional: { offer: 'You have counted the stone', start: 20 },
    shownWhen: STONE,
  },
  {
    path: 'labour.earthM3PerDay',
    label: 'One person moves in a day',
    kind: 'volume',
    min: 0.1,
    max: 1000,
    help: 'About 3 m³ of earth by hand; a machine far more.',
  },
  {
    path: 'labour.wallM3PerDay',
    label: 'One person lays in a day',
    kind: 'volume',
    min: 0.1,
    max: 20,
    help: 'About 1 m³ of wall.',
    shownWhen: STONE,
  },
  {
    path: 'labour.carryM',
    label: 'Stone is carried',
    kind: 'distance',
    min: 0,
    max: 2000,
    help: 'From where it lies, on average.',
    shownWhen: STONE,
  },
  LOGGED_HOURS,
];

export const TERRACES_CHOICES: readonly ChoiceSpec[] = [
  choice('riser', 'Held by', [option('stone', 'walls of dry stone'), option('earth', 'banks of earth')]),
  { ...choice('lie', 'Benches lie', [option('level', 'level: water soaks where it falls'), option('inward', 'falling into the slope'), option('outward', 'falling outward')]), help: 'Level in dry country, into the slope where rain is heavy; outward only on thin soil in gentle rain.' }, // prettier-ignore
  { ...choice('ground', 'Walls stand on', [option('unknown', 'nobody has dug'), option('soft', 'soft clay'), option('firm', 'firm clay'), option('stiff', 'stiff clay'), option('sand', 'sand'), option('gravel', 'dense gravel'), option('rock', 'rock')]), shownWhen: STONE }, // prettier-ignore
  { ...choice('earth', 'Earth behind them', [option('unknown', 'nobody has dug'), option('sand', 'sand or gravel'), option('loam', 'loam'), option('clay', 'clay')]), shownWhen: STONE }, // prettier-ignore
  choice('topsoil', 'Topsoil', [option('kept', 'taken off first, and spread again'), option('buried', 'buried under the fill')]),
  { ...choice('riserGrows', 'On the risers', [option('bare', 'nothing'), option('grass', 'dense grass'), option('shrubs', 'shrubs with roots')]), shownWhen: { path: 'riser', is: ['earth'] } }, // prettier-ignore
  choice('grows', 'On the benches', [
    option('nothing', 'nothing yet'),
    option('grass', 'grass'),
    option('crops', 'crops'),
    option('trees', 'trees'),
  ]),
  choice('workedBy', 'Worked by', [option('hand', 'hand'), option('animals', 'animals'), option('machine', 'machine')]),
];

const MOST_LINES = 200;

/** Everything wrong with one set of terraces on its own. */
export function validateTerraces(work: Terraces): Problem[] {
  const shape = [
    ...checkFields(work, TERRACES_FIELDS),
    ...checkChoices(work, TERRACES_CHOICES),
    ...checkLines(work, { path: 'lines', each: 'bench', most: MOST_LINES }),
  ];
  if (shape.length > 0) return shape;
  const { lipM, holdM, topM, baseM } = work.dimensions;
  if (holdM > lipM)
    return [
      {
        code: 'terraces.hold',
        field: 'dimensions.holdM',
        what: say`water may stand ${amount(holdM, 'difference')} over the outer side of "${work.name}", its edge is ${amount(lipM, 'difference')} high`,
        do: 'Let water stand no higher than its edge.',
      },
    ];
  if (work.riser === 'stone' && topM > baseM)
    return [
      {
        code: 'terraces.widths',
        field: 'dimensions.topM',
        what: say`the wall of "${work.name}" is ${amount(topM, 'length')} wide at its top, ${amount(baseM, 'length')} at its base`,
        do: 'Make it no wider at the top than at its base.',
      },
    ];
  return [];
}

/** Length of all benches [m]. */
export const lengthOf = ({ lines }: Pick<Terraces, 'lines'>): number => lines.reduce((a, l) => a + lineLength(l), 0);

/** Fall of a bench into the slope [m/m]: none where it is level, less than none where it falls outward. */
export const inwardOf = ({ lie, dimensions: { fall } }: Pick<Terraces, 'lie' | 'dimensions'>): number =>
  lie === 'level' ? LEVEL : lie === 'inward' ? fall : -fall;
const LEVEL = 0;
