import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { trapezoid } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, SEED_AT_ONCE, inOrder, line } from '../making.ts';
import { type Diversion, fallOf } from './model.ts';

/** Share of its depth that is cut; the rest is its bank, built of what is cut: common practice. */
const CUT_SHARE = 0.6;
/** Depth of a lining in median stones: common practice. */
const STONES_DEEP = 2;

/** Earth out of it, without its bank [m3]. */
export const cutM3 = ({ dimensions: { floorWidthM, sideSlopeHV, depthM } }: Diversion, lengthM: number): number =>
  trapezoid(floorWidthM, sideSlopeHV).area(CUT_SHARE * depthM) * lengthM;

export function quantitiesOf(drain: Diversion, lengthM: number): QuantityLine[] {
  const { floorWidthM, sideSlopeHV, depthM, stoneM } = drain.dimensions;
  const wall = trapezoid(floorWidthM, sideSlopeHV).perimeter(depthM) * lengthM;
  return [
    line(
      { item: 'cut', label: 'Cut', kind: 'volume', from: 'its section along its length, to six tenths of its depth' },
      cutM3(drain, lengthM),
      'earth',
    ),
    ...(drain.lining === 'grass'
      ? [line({ item: 'seed', label: 'Bed and sides to seed', kind: 'area', from: 'its outline along its length' }, wall, 'surface')]
      : []),
    ...(drain.lining === 'stone'
      ? [
          line(
            { item: 'stone', label: 'Stone of its lining', kind: 'volume', from: 'its outline along its length, two stones deep' },
            wall * STONES_DEEP * stoneM,
            'stone',
          ),
        ]
      : []),
  ];
}

export const stepsOf = (drain: Diversion): BuildStep[] => {
  const { startM, endM } = drain.levels;
  return inOrder(
    {
      id: 'end',
      does: 'Make ready the place that takes its water first: a watercourse, a pond or a level sill.',
      hold: 'No water is sent to a place that cannot stand it.',
    },
    {
      id: 'peg',
      does: say`Peg its floor from ${amount(startM, 'reading')} to ${amount(endM, 'reading')}, a fall of ${amount(fallOf(drain), 'slope')}.`,
      levels: [
        { name: 'upper end', levelM: startM },
        { name: 'lower end', levelM: endM },
      ],
      cautions: [BEFORE_DIGGING],
    },
    {
      id: 'dig',
      does: 'Dig it from its lower end upwards, so that it drains while you work; lay the earth on the lower side.',
      hold: 'Level the floor every few metres: no place may hold water.',
    },
    { id: 'bank', does: say`Roll the bank to ${amount(drain.dimensions.depthM, 'length')} over its floor.` },
    drain.lining === 'stone'
      ? { id: 'line', does: 'Lay its stone on a filter, from the toe up.' }
      : { id: 'line', does: 'Seed and mulch it, and check straw or brush across it until it is green.', cautions: [SEED_AT_ONCE] },
  );
};
