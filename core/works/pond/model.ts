import type { ChoiceSpec, FieldSpec, Problem, ShownWhen, WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { COMES_BACK_FIELDS, type ComesBack } from '../comes-back.ts';
import { checkFields, checkLine } from '../fields.ts';

export const BORROWS = ['inside', 'elsewhere'] as const;

/** Water held behind an earth wall, in a pit, or in both. */
export interface Pond extends WorkBase, ComesBack {
  readonly kind: 'pond';
  /** Middle of the crest of its wall, across the valley. */
  readonly wall?: Line;
  /** Edge of its pit on the ground. */
  readonly pit?: Line;
  /** Where the earth of the wall comes from. */
  readonly borrow: (typeof BORROWS)[number];
  readonly levels: {
    /** Crest of the wall after it has settled; without a wall, the rim that must not be passed. */
    readonly crestM: number;
    /** Floor of the pit. */
    readonly floorM: number;
  };
  readonly dimensions: {
    readonly topWidthM: number;
    readonly waterSlopeHV: number;
    readonly backSlopeHV: number;
    readonly keyDepthM: number;
    readonly keyWidthM: number;
    readonly stripM: number;
    readonly pitSlopeHV: number;
  };
  readonly settlementPercent: number;
  readonly seepageMmPerDay: number;
  readonly evaporationMmPerDay: number;
  /** Clay in the earth of the wall, where it was tested. */
  readonly clayPercent?: number;
}

const WALLED: ShownWhen = { path: 'wall', isNot: [undefined] };
const DUG: ShownWhen = { path: 'pit', isNot: [undefined] };
const width = (path: string, range: readonly [number, number], words: readonly [label: string, help: string]): FieldSpec => ({
  path: `dimensions.${path}`,
  label: words[0],
  kind: 'length',
  min: range[0],
  max: range[1],
  help: words[1],
  shownWhen: WALLED,
});
const slope = (path: string, [label, help]: readonly [string, string], shownWhen = WALLED): FieldSpec => ({
  path: `dimensions.${path}`,
  label,
  kind: 'number',
  min: 0.5,
  max: 8,
  help,
  shownWhen,
});

export const POND_FIELDS: readonly FieldSpec[] = [
  {
    path: 'levels.crestM',
    label: 'Crest level',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'Top of the wall after it has settled.',
    shownWhen: WALLED,
  },
  { path: 'levels.floorM', label: 'Pit floor level', kind: 'level', min: -500, max: 9000, help: 'Bottom of what is dug.', shownWhen: DUG },
  width('topWidthM', [0.5, 20], ['Crest width', 'Wide enough for the machine that keeps it; it grows with height.']),
  slope('waterSlopeHV', ['Water side, out per 1 up', '3 where silt or clay may slump when water falls.']),
  slope('backSlopeHV', ['Outer side, out per 1 up', '2, flatter where grass is mown.']),
  width('keyDepthM', [0, 6], ['Key depth', 'Trench under the wall, down to ground that holds water.']),
  width('keyWidthM', [0, 10], ['Key width', 'Bottom of that trench: a bucket or a blade.']),
  width('stripM', [0, 1], ['Topsoil stripped', 'Taken off under the wall first, put back on its outer side last.']),
  slope('pitSlopeHV', ['Pit sides, out per 1 up', '2 in loam; 4 for a shelf a child can climb.'], DUG),
  {
    path: 'settlementPercent',
    label: 'Built higher by',
    kind: 'percent',
    min: 0,
    max: 40,
    help: '5 % rolled in layers, 10 % dumped by blade.',
    shownWhen: WALLED,
  },
  { path: 'seepageMmPerDay', label: 'Seeps a day', kind: 'rainFine', min: 0, max: 500, help: 'Up to 3 mm is good, 10 mm poor.' },
  { path: 'evaporationMmPerDay', label: 'Dries off a day', kind: 'rainFine', min: 0, max: 30, help: '0.7 of what a pan loses.' },
  {
    path: 'clayPercent',
    label: 'Clay in its earth',
    kind: 'percent',
    min: 0,
    max: 100,
    help: 'By a jar test of what the wall is built of.',
    optional: { offer: 'Note the clay you found', start: 20 },
    shownWhen: WALLED,
  },
  ...COMES_BACK_FIELDS,
];

export const POND_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'borrow',
    label: 'Earth for the wall',
    shownWhen: WALLED,
    options: [
      { id: 'inside', name: 'dug from the pond' },
      { id: 'elsewhere', name: 'from elsewhere' },
    ],
  },
];

const ringProblem = (pond: Pond): Problem[] => {
  const { pit } = pond;
  if (pit === undefined) return [];
  const own = checkLine(pond, pit);
  if (own.length > 0 || pit.length >= 3) return own.map((p) => ({ ...p, field: 'pit' }));
  return [{ code: 'pond.pit', what: `the pit of "${pond.name}" has fewer than three corners`, field: 'pit', do: 'Draw round it again.' }];
};

/** Everything wrong with one pond on its own. */
export function validatePond(pond: Pond): Problem[] {
  const problems = [
    ...checkFields(pond, POND_FIELDS),
    ...(pond.wall === undefined ? [] : checkLine(pond, pond.wall).map((p) => ({ ...p, field: 'wall' }))),
    ...ringProblem(pond),
  ];
  if (pond.wall === undefined && pond.pit === undefined) {
    problems.push({
      code: 'pond.nothing',
      what: `"${pond.name}" has neither a wall nor a pit`,
      field: 'wall',
      do: 'Draw its wall across the valley, or the edge of its pit.',
    });
  }
  if (!BORROWS.includes(pond.borrow)) {
    problems.push({
      code: 'pond.borrow',
      what: `earth for "${pond.name}" comes from ${told(pond.borrow)}`,
      field: 'borrow',
      do: `Choose one of ${BORROWS.join(', ')}.`,
    });
  }
  if (problems.length === 0 && pond.levels.crestM <= pond.levels.floorM) {
    problems.push({
      code: 'pond.levels-order',
      what: say`the crest of "${pond.name}" (${amount(pond.levels.crestM, 'reading')}) is not above its floor (${amount(pond.levels.floorM, 'reading')})`,
      field: 'levels.crestM',
      do: 'Raise the crest or lower the floor.',
    });
  }
  return problems;
}
