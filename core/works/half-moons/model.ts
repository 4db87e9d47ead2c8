// Half-moons and planting pits over a field: basins in rows on the contour, each with bare ground above it that feeds it.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkEntries, checkFields, checkLines } from '../fields.ts';
import { LOGGED_HOURS, type Logged } from '../labour.ts';

export const BASIN_FORMS = ['half-moon', 'pit'] as const;

/** A basin found broken. */
export interface Breach {
  /** Of which row, from the highest, and which basin, from its start. */
  readonly row: number;
  readonly number: number;
}

export interface HalfMoons extends WorkBase {
  readonly kind: 'half-moons';
  readonly form: (typeof BASIN_FORMS)[number];
  /** The contours their tips, or middles, lie on, highest first, each with downhill on its right. */
  readonly rows: readonly Line[];
  readonly crust: 'left' | 'broken';
  readonly tips: 'earth' | 'stone';
  readonly dimensions: {
    /** From tip to tip half; of a pit half its width. */
    readonly radiusM: number;
    /** Between the tips of two in a row. */
    readonly gapM: number;
    /** Inside it under the ground. */
    readonly dugM: number;
    /** Bund over the level of its tips, and how wide it is on top. */
    readonly overTipsM: number;
    readonly bundTopM: number;
    readonly bundSlopeHV: number;
  };
  /** What grows: water it needs, rain of two years in three, share that runs off, share that is used; mm and shares. */
  readonly crop: { readonly needMm?: number; readonly rainMm?: number; readonly runoffShare?: number; readonly usedShare: number };
  readonly inputs: { readonly manureKg: number; readonly fertiliserG: number; readonly restYears: number };
  readonly breaches?: readonly Breach[];
  readonly siltedPercent?: number;
  readonly labour: Logged & { readonly m3PerDay: number };
}

const MOON: FieldSpec['shownWhen'] = { path: 'form', is: ['half-moon'] };
const d = (
  key: keyof HalfMoons['dimensions'],
  label: string,
  more: Pick<FieldSpec, 'help' | 'min' | 'max'> & Partial<FieldSpec>,
): FieldSpec => ({ path: `dimensions.${key}`, label, kind: 'length', ...more });

export const MOONS_FIELDS: readonly FieldSpec[] = [
  d('radiusM', 'Radius', { min: 0.1, max: 30, help: 'Swung from a peg: 1 to 3 m for trees and grass, more for fields on gentle ground.' }),
  d('gapM', 'Between two in a row', { min: 0, max: 60, help: 'A third to half of the radius lets overflow pass.' }),
  d('dugM', 'Dug inside', { min: 0, max: 1, help: '0.15 to 0.3 m; what is dug makes the bund.' }),
  d('overTipsM', 'Bund above its tips', {
    min: 0,
    max: 1,
    help: '0.1 m or more: it must leave by the tips, not over the middle.',
    shownWhen: MOON,
  }),
  d('bundTopM', 'Top of the bund', { min: 0.05, max: 2, help: '0.1 to 0.25 m by hand.', shownWhen: MOON }),
  d('bundSlopeHV', 'Its sides, out per 1 up', { min: 0.5, max: 5, kind: 'number', help: '1 by hand; flatter in sand.', shownWhen: MOON }),
  {
    path: 'crop.needMm',
    label: 'Water the crop needs',
    kind: 'rain',
    min: 10,
    max: 3000,
    help: 'In its season: millet about 475, sorghum 525 mm.',
    optional: { offer: 'You know what the crop needs', start: 475 },
  },
  {
    path: 'crop.rainMm',
    label: 'Rain of two years in three',
    kind: 'rain',
    min: 10,
    max: 3000,
    help: 'Of the season, reached or passed in two of three.',
    optional: { offer: 'You know the rain of two years in three', start: 250 },
  },
  {
    path: 'crop.runoffShare',
    label: 'Share that runs off',
    kind: 'number',
    min: 0.02,
    max: 1,
    help: '0.1 to 0.5: 0.25 of bare crusted ground.',
    optional: { offer: 'You know what share runs off', start: 0.25 },
  },
  {
    path: 'crop.usedShare',
    label: 'Share that is used',
    kind: 'number',
    min: 0.1,
    max: 1,
    help: '0.5 to 0.75: the rest seeps too deep or dries off.',
  },
  {
    path: 'inputs.manureKg',
    label: 'Manure in each',
    kind: 'number',
    min: 0,
    max: 500,
    help: 'In kg: a barrow is about 30. It is often what is lacking.',
  },
  { path: 'inputs.fertiliserG', label: 'Fertiliser in each', kind: 'number', min: 0, max: 5000, help: 'In grams, if any.' },
  { path: 'inputs.restYears', label: 'Years without stock', kind: 'years', min: 0, max: 20, help: 'Until what is planted stands.' },
  {
    path: 'siltedPercent',
    label: 'Silt in them',
    kind: 'percent',
    min: 0,
    max: 100,
    help: 'Share of their room that is filled.',
    optional: { offer: 'Silt lies in them', start: 30 },
  },
  {
    path: 'labour.m3PerDay',
    label: 'One person moves in a day',
    kind: 'volume',
    min: 0.1,
    max: 10,
    help: 'About 1.5 m³ in crusted ground.',
  },
  LOGGED_HOURS,
];

export const MOONS_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'form',
    label: 'They are',
    options: [
      { id: 'half-moon', name: 'half-moons' },
      { id: 'pit', name: 'planting pits' },
    ],
  },
  {
    path: 'crust',
    label: 'Crust inside',
    options: [
      { id: 'broken', name: 'broken by hoe or fork' },
      { id: 'left', name: 'left as it is' },
    ],
  },
  {
    path: 'tips',
    label: 'Tips',
    options: [
      { id: 'stone', name: 'set with stone' },
      { id: 'earth', name: 'of earth' },
    ],
    shownWhen: MOON,
  },
];

export const BREACHES: ListSpec = {
  path: 'breaches',
  title: 'Broken ones',
  words: {
    none: 'None noted. Walk the rows after the first storm, and after each large one.',
    add: 'Note a broken one',
    remove: 'Mended: take it away',
  },
  fields: [
    { path: 'row', label: 'In row', kind: 'count', min: 1, max: 400, help: 'Counted from the highest.' },
    { path: 'number', label: 'Number', kind: 'count', min: 1, max: 5000, help: 'Counted from the start of that row.' },
  ],
  start: () => ({ row: 1, number: 1 }),
};

export interface Basin {
  readonly at: Point;
  /** Along its row, unit vector. */
  readonly along: Point;
}

/** From the middle of one to the middle of the next in its row [m]. */
export const pitchOf = ({ dimensions: { radiusM, gapM } }: Pick<HalfMoons, 'dimensions'>): number => 2 * radiusM + gapM;

/** Middles of a row's basins along it: every second row begins half a pitch further, so that they stand below the gaps [m]. */
export function placesIn({ rows, dimensions }: Pick<HalfMoons, 'rows' | 'dimensions'>, row: number): readonly number[] {
  const { radiusM } = dimensions;
  const pitch = pitchOf({ dimensions });
  const first = radiusM + (row % 2) * (pitch / 2);
  const room = lineLength(rows[row]) - first - radiusM;
  return room < 0 ? [] : Array.from({ length: Math.floor(room / pitch + 1e-9) + 1 }, (_, k) => first + k * pitch);
}

export const countIn = (work: Pick<HalfMoons, 'rows' | 'dimensions'>, row: number): number => placesIn(work, row).length;

/** A row's basins on the plan. */
export const basinsIn = (work: Pick<HalfMoons, 'rows' | 'dimensions'>, row: number): readonly Basin[] =>
  placesIn(work, row).map((atM) => {
    const { point, direction } = pointAlong(work.rows[row], atM);
    return { at: point, along: direction };
  });

export const countOf = (work: Pick<HalfMoons, 'rows' | 'dimensions'>): number => work.rows.reduce((a, _, k) => a + countIn(work, k), 0);
export const brokenIn = ({ breaches = [] }: HalfMoons, row: number): number =>
  new Set(breaches.filter((b) => b.row === row + 1).map((b) => b.number)).size;

/** Share of what comes to a row that one of its basins meets and holds back: broken ones let it by. */
export const shareCaught = (work: HalfMoons, row: number): number =>
  Math.min(1, ((countIn(work, row) - brokenIn(work, row)) * 2 * work.dimensions.radiusM) / Math.max(1e-9, lineLength(work.rows[row])));

/** What the law of run-on ground asks; null while crop, rain or what runs off is not said. */
export function cropOf({
  crop: { needMm: WR, rainMm: DR, runoffShare: K, usedShare: e },
}: HalfMoons): Readonly<Record<'WR' | 'DR' | 'K' | 'e', number>> | null {
  return WR === undefined || DR === undefined || K === undefined ? null : { WR, DR, K, e };
}

const [MOST_ROWS, MOST_BASINS] = [400, 20_000];

/** More or fewer basins than can be, and broken ones that are not there. */
function basinProblems(work: HalfMoons): Problem[] {
  const { rows, breaches = [], name } = work;
  const count = countOf(work);
  if (count === 0)
    return [
      {
        code: 'half-moons.basins',
        field: 'dimensions.radiusM',
        what: `no basin of "${name}" fits its rows`,
        do: 'Make them smaller, or draw a larger field.',
      },
    ];
  if (count > MOST_BASINS)
    return [
      {
        code: 'half-moons.basins',
        field: 'dimensions.radiusM',
        what: say`"${name}" has ${amount(count, 'count')} basins`,
        do: say`Give at most ${amount(MOST_BASINS, 'count')}: make them larger, or begin another field.`,
      },
    ];
  return breaches.flatMap(({ row, number }, k): Problem[] => {
    const isThere = Number.isInteger(row) && Number.isInteger(number) && row <= rows.length && number <= countIn(work, row - 1);
    if (isThere) return [];
    const what = `"${name}" has no basin ${number} in row ${row}`;
    return [
      { code: 'half-moons.breach', field: `breaches.${k}`, what, do: 'Count rows from the highest, basins from the start of their row.' },
    ];
  });
}

/** Everything wrong with one field of basins on its own. */
export function validateMoons(work: HalfMoons): Problem[] {
  const shape = [
    ...checkFields(work, MOONS_FIELDS),
    ...checkChoices(work, MOONS_CHOICES),
    ...checkLines(work, { path: 'rows', each: 'row', most: MOST_ROWS }),
    ...checkEntries(work, { ...BREACHES, each: 'broken one' }),
  ];
  return shape.length > 0 ? shape : basinProblems(work);
}
