import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { DAY_H, type Draft, counted, inOrder, line } from '../making.ts';
import { MOON_EARTH } from './formulas.ts';
import type { HalfMoons } from './model.ts';
import { type Row, basinAreaM2 } from './standing.ts';

/** Stone at both tips of one [m3]: common practice. */
const TIP_STONE_M3 = 0.05;

/** Earth in the bund of one in a row; of a pit what is dug [m3]. */
export function earthOf({ form, dimensions }: HalfMoons, { slope: S }: Pick<Row, 'slope'>): number {
  const { radiusM: r, dugM, overTipsM: f, bundTopM: t, bundSlopeHV: z } = dimensions;
  return form === 'pit' ? Math.PI * r * r * dugM : MOON_EARTH.evaluate({ r, S, f, t, z });
}

export interface MoonParts {
  readonly count: number;
  readonly earthM3: number;
  readonly dugM3: number;
  readonly manureT: number;
  readonly fertiliserKg: number;
  readonly personDays: number;
}

/** What all of them take. */
export function partsOf(work: HalfMoons, rows: readonly Row[]): MoonParts {
  const count = rows.reduce((a, r) => a + r.count, 0);
  const earthM3 = rows.reduce((a, r) => a + r.count * earthOf(work, r), 0);
  const dugM3 = count * basinAreaM2(work) * work.dimensions.dugM;
  return {
    count,
    earthM3,
    dugM3,
    manureT: (count * work.inputs.manureKg) / 1000,
    fertiliserKg: (count * work.inputs.fertiliserG) / 1000,
    // What is dug makes the bund; whichever is more is moved.
    personDays: Math.max(earthM3, dugM3) / work.labour.m3PerDay,
  };
}

export const hoursOf = (work: HalfMoons, rows: readonly Row[]): number => partsOf(work, rows).personDays * DAY_H;

export function quantitiesOf(work: HalfMoons, rows: readonly Row[]): QuantityLine[] {
  const { count, earthM3, dugM3, manureT, fertiliserKg } = partsOf(work, rows);
  const isMoon = work.form === 'half-moon';
  return [
    counted({ item: 'basin', label: isMoon ? 'Half-moons' : 'Pits', from: 'rows and their pitch' }, count),
    line({ item: 'cut', label: 'To dig inside', kind: 'volume', from: 'area and depth of each' }, dugM3, 'earth'),
    ...(isMoon
      ? [line({ item: 'bank', label: 'Bunds', kind: 'volume', from: 'sections along each arc on its own slope' }, earthM3, 'earth')]
      : []),
    ...(isMoon && work.tips === 'stone'
      ? [
          line(
            { item: 'stone', label: 'Stone at the tips', kind: 'volume', from: 'a few flat stones a tip' },
            count * TIP_STONE_M3,
            'stone',
          ),
        ]
      : []),
    ...(manureT > 0 ? [line({ item: 'manure', label: 'Manure', kind: 'mass', from: 'so much in each' }, manureT, 'made')] : []),
    ...(fertiliserKg > 0
      ? [line({ item: 'fertiliser', label: 'Fertiliser', kind: 'mass', from: 'so much in each' }, fertiliserKg / 1000, 'made')]
      : []),
  ];
}

export function stepsOf(work: HalfMoons, rows: readonly Row[]): BuildStep[] {
  const { radiusM, gapM, dugM, overTipsM } = work.dimensions;
  const levels = rows.slice(0, 8).map(({ name, tipsM }) => ({ name: `${name}: tips`, levelM: tipsM }));
  const rest: Draft = { id: 'rest', does: 'Keep stock off for as long as was agreed, and say so to all who pass with theirs.' };
  const after: Draft = {
    id: 'after',
    does: 'After the first storm walk the rows from the top: mend what broke, lower or stone the tips above it.',
  };
  if (work.form === 'pit') {
    return inOrder(
      { id: 'peg', does: 'Lay a cord along the contour for the first row, and shift it downhill row by row.', levels },
      {
        id: 'dig',
        does: say`In the dry season dig pits ${amount(2 * radiusM, 'difference')} wide and ${amount(dugM, 'difference')} deep, each below the gap of the row above, earth on the lower side.`,
      },
      { id: 'feed', does: say`Put ${amount(work.inputs.manureKg, 'number')} kg of manure in each before the rains, covered with earth.` },
      { id: 'sow', does: 'Sow with the first good rain.', hold: 'Is the pit wet to a hand below its floor?' },
      rest,
      after,
    );
  }
  return inOrder(
    {
      id: 'peg',
      does: 'Find the contour of the highest row by water tube or level, and peg it.',
      levels,
      hold: 'Neighbouring pegs differ by no more than a finger.',
    },
    {
      id: 'swing',
      does: say`From a peg each ${amount(2 * radiusM + gapM, 'length')} swing a radius of ${amount(radiusM, 'length')} downhill and scratch the arc; its tips lie on the contour. The next row begins half a step further.`,
      hold: 'A water tube says both tips of each are level.',
    },
    { id: 'crust', does: 'Break the crust inside, a hand deep, and leave it rough.' },
    {
      id: 'bund',
      does: say`Dig ${amount(dugM, 'difference')} inside and build the bund with it, trodden in layers, ${amount(overTipsM, 'difference')} higher than its tips all along.`,
      hold: 'A level from tip over the middle to tip: the middle stands higher, never lower.',
    },
    {
      id: 'tips',
      does:
        work.tips === 'stone'
          ? 'Set both tips with flat stones at the level they let go.'
          : 'Tread both tips firm at the level they let go.',
    },
    { id: 'feed', does: say`Put ${amount(work.inputs.manureKg, 'number')} kg of manure in each, worked in before the rains.` },
    { id: 'plant', does: 'Plant trees on the inner foot of the bund, grass or crops inside, with the first good rain.' },
    rest,
    after,
  );
}
