import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, SEED_AT_ONCE, inOrder, line } from '../making.ts';
import type { HostPlace } from '../on-host.ts';
import type { CutSpillway } from './model.ts';

/** Slope below that is lined or turfed [m], and depth of a lining in median stones: common practice. */
const [SLOPE_M, STONES_DEEP] = [10, 2];

/** How deep its control is cut into natural ground; null off the terrain [m]. */
export const depthOf = ({ levels }: Pick<CutSpillway, 'levels'>, { groundM }: HostPlace): number | null =>
  groundM === null ? null : Math.max(0, groundM - levels.sillM);

/** Earth out of the way in and the control [m3]. */
export function cutM3(cut: CutSpillway, place: HostPlace): number | null {
  const { bottomWidthM: b, sideSlopeHV: z, inletLengthM, controlLengthM } = cut.dimensions;
  const depth = depthOf(cut, place);
  return depth === null ? null : (b + z * depth) * depth * (inletLengthM + controlLengthM);
}

export function quantitiesOf(cut: CutSpillway, place: HostPlace): QuantityLine[] {
  const { bottomWidthM: b, inletLengthM, controlLengthM, stoneM } = cut.dimensions;
  const isStone = stoneM > 0;
  const grass = b * (inletLengthM + controlLengthM + (isStone ? 0 : SLOPE_M));
  return [
    line(
      { item: 'cut', label: 'Cut', kind: 'volume', from: 'its section at the control, along the way in and the control' },
      cutM3(cut, place),
      'earth',
    ),
    line(
      { item: 'turf', label: 'Bottom to turf', kind: 'area', from: isStone ? 'way in and control' : 'way in, control and 10 m below' },
      grass,
      'surface',
    ),
    ...(isStone
      ? [
          line(
            { item: 'stone', label: 'Stone below it', kind: 'volume', from: '10 m of its bottom, two stones deep' },
            b * SLOPE_M * STONES_DEEP * stoneM,
            'stone',
          ),
        ]
      : []),
  ];
}

export const stepsOf = ({ levels, dimensions }: CutSpillway): BuildStep[] =>
  inOrder(
    {
      id: 'peg',
      does: say`Peg its control, ${amount(dimensions.bottomWidthM, 'length')} wide, beside the wall on ground that was never moved.`,
      levels: [{ name: 'control', levelM: levels.sillM }],
      cautions: [BEFORE_DIGGING],
    },
    {
      id: 'cut',
      does: say`Cut it to ${amount(levels.sillM, 'reading')}, its sides ${amount(dimensions.sideSlopeHV, 'number')} out for 1 up, level for ${amount(dimensions.controlLengthM, 'length')} along the flow.`,
      levels: [{ name: 'control', levelM: levels.sillM }],
      hold: 'Level the control across and along: 10 mm at the most.',
    },
    {
      id: 'below',
      does:
        dimensions.stoneM > 0
          ? 'Lay its stone on a filter below the control, keyed in at top and toe.'
          : 'Carry it down evenly to where water may run, without a step.',
    },
    {
      id: 'cover',
      does: 'Turf its bottom and sides, or seed and pin a mat down.',
      cautions: [SEED_AT_ONCE, 'Until it is rooted, no water may reach it: leave the lower way out open.'],
    },
  );
