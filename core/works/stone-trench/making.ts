import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, standingIn, inOrder, line } from '../making.ts';
import type { HostPlace } from '../on-host.ts';
import type { StoneTrench } from './model.ts';

/** Mean level of its floor, which falls from the lip outwards [m]. */
const meanFloor = ({ levels }: Pick<StoneTrench, 'levels'>): number => (levels.floorM + levels.sillM) / 2;

/** Stone from its floor to its top [m3]. */
export const stoneM3 = (trench: StoneTrench): number => {
  const { widthM, lengthM } = trench.dimensions;
  return widthM * lengthM * Math.max(0, trench.levels.rockTopM - meanFloor(trench));
};

export function quantitiesOf(trench: StoneTrench, { groundM }: HostPlace): QuantityLine[] {
  const { widthM, lengthM } = trench.dimensions;
  const cut = groundM === null ? null : widthM * lengthM * Math.max(0, groundM - meanFloor(trench));
  return [
    line({ item: 'cut', label: 'Cut', kind: 'volume', from: 'width by length, from the ground at its lip to its floor' }, cut, 'earth'),
    line(
      { item: 'stone', label: 'Clean stone', kind: 'volume', from: 'width by length, from its floor to its top' },
      stoneM3(trench),
      'stone',
    ),
  ];
}

export const stepsOf = ({ levels, dimensions }: StoneTrench, { groundM }: HostPlace): BuildStep[] =>
  inOrder(
    {
      id: 'peg',
      does: 'Peg its lip in the side of the store and its outer end on your own land.',
      levels: [{ name: 'spill lip', levelM: levels.sillM }],
      cautions: [BEFORE_DIGGING],
    },
    {
      id: 'dig',
      does: say`Dig it from its outer end inwards, falling to ${amount(levels.floorM, 'reading')} there; leave the lip at ${amount(levels.sillM, 'reading')} till last.`,
      levels: [{ name: 'floor', levelM: levels.floorM }],
      hold: 'Level lip and floor before any stone hides them.',
      cautions: standingIn(groundM === null ? null : groundM - levels.floorM),
    },
    {
      id: 'stone',
      does: say`Fill it with clean, sharp stone of ${amount(dimensions.stoneM, 'difference')} to ${amount(levels.rockTopM, 'reading')}, the largest on top.`,
      levels: [{ name: 'top of stone', levelM: levels.rockTopM }],
      cautions: ['Earth or fines among the stone close it within a year.'],
    },
  );
