import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { DAY_H, type Draft, STONE_T_M3, carryHours, counted, inOrder, layingHours, line } from '../making.ts';
import { GRASS_PLANTS, LINE_STONE } from './formulas.ts';
import { type StoneLines, lengthOf } from './model.ts';
import type { Row } from './standing.ts';

/** Stone of all lines [m3]. */
export function stoneOf(work: StoneLines): number {
  const { heightM: H, baseWidthM: b, topWidthM: t, trenchM: d } = work.dimensions;
  return LINE_STONE.evaluate({ L: lengthOf(work), H, b, t, d });
}

/** Plants of all rows; none without grass. */
export function plantsOf(work: StoneLines): number {
  if (work.grass !== 'behind') return 0;
  const { plantSpacingM: s, grassRows: r } = work.dimensions;
  return work.lines.reduce((a, l) => a + GRASS_PLANTS.evaluate({ L: lineLength(l), s, r }), 0);
}

/** Hours of one person: laying, walking with stone, planting. */
export function hoursOf(work: StoneLines): number {
  const { m3PerDay, carryM, plantsPerDay } = work.labour;
  const stone = stoneOf(work);
  return layingHours(stone, m3PerDay) + carryHours(stone * STONE_T_M3, carryM) + (plantsOf(work) / plantsPerDay) * DAY_H;
}

export function quantitiesOf(work: StoneLines): QuantityLine[] {
  const stone = stoneOf(work);
  const plants = plantsOf(work);
  const { trenchM, baseWidthM, litresAPlant } = work.dimensions;
  return [
    line({ item: 'line', label: 'Lines, end to end', kind: 'length', from: 'as drawn' }, lengthOf(work), 'made'),
    line({ item: 'stone', label: 'Loose stone', kind: 'volume', from: 'section and length of every line' }, stone, 'stone'),
    line({ item: 'stone-weight', label: 'It weighs', kind: 'mass', from: 'stone with its gaps' }, stone * STONE_T_M3, 'stone'),
    line(
      { item: 'cut', label: 'Shallow trench', kind: 'volume', from: 'as wide as the lines' },
      lengthOf(work) * trenchM * baseWidthM,
      'earth',
    ),
    ...(plants > 0
      ? [
          counted({ item: 'plant', label: 'Slips of grass', from: 'length and spacing of every row' }, plants),
          line(
            { item: 'water', label: 'Water for planting', kind: 'volume', from: 'litres for each plant' },
            (plants * litresAPlant) / 1000,
            'made',
          ),
        ]
      : []),
  ];
}

export function stepsOf(work: StoneLines, rows: readonly Row[]): BuildStep[] {
  const { heightM, trenchM, endsUpM, plantSpacingM } = work.dimensions;
  const levels = rows.slice(0, 8).map(({ name, lowM }) => ({ name: `${name}: lowest ground`, levelM: lowM }));
  const plant: readonly Draft[] =
    work.grass === 'behind'
      ? [
          {
            id: 'plant',
            does: say`With the first rains plant slips ${amount(plantSpacingM, 'difference')} apart, a hand uphill of the stone, wetted in.`,
            hold: 'Look along the row: daylight through it is a gap.',
          },
        ]
      : [];
  return inOrder(
    {
      id: 'peg',
      does: 'Peg every line by level or water tube, a peg each five metres, from the highest down.',
      levels,
      hold: 'Neighbouring pegs differ by no more than a finger.',
    },
    { id: 'trench', does: say`Scratch a trench ${amount(trenchM, 'difference')} deep along the pegs, its earth uphill.` },
    {
      id: 'lay',
      does: say`Lay the largest stones on the lower side, small ones behind and between, to ${amount(heightM, 'length')}: the lowest place as high as the rest.`,
      cautions: [
        'Use what lies loose; lift with straight backs, roll what two cannot lift.',
        'Turn stones over before you lift them: what lives under them bites.',
      ],
    },
    {
      id: 'ends',
      does: say`Turn both ends uphill until they stand ${amount(endsUpM, 'difference')} higher.`,
      hold: 'Pour water behind the lowest place: it seeps through and does not run to an end.',
    },
    ...plant,
    { id: 'after', does: 'Keep stock off for a season; walk the rows after each flood, close gaps, and note the silt.' },
  );
}
