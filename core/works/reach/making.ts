import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { counted, inOrder, layingHours, line } from '../making.ts';
import type { Standing } from './standing.ts';

/** Silt off its bed, as wide as that is [m3]. */
export const clearedM3 = ({ reach, stretches }: Standing): number =>
  reach.clearM === undefined
    ? 0
    : stretches.reduce((a, { upper, lower, lengthM }) => a + (lengthM * (upper.section.bedWidthM + lower.section.bedWidthM)) / 2, 0) *
      reach.clearM;

export function quantitiesOf(standing: Standing): QuantityLine[] {
  const cut = clearedM3(standing);
  const sections = counted({ item: 'section', label: 'Sections to measure', from: 'as listed' }, standing.cuts.length);
  if (cut <= 0) return [sections];
  return [
    sections,
    line({ item: 'cut', label: 'Silt to dig out', kind: 'volume', from: 'width of its bed by what is taken off it' }, cut, 'earth'),
    line({ item: 'labour', label: 'Hours of one person', kind: 'hours', from: 'what one person digs in a day' }, layingHours(cut, standing.reach.labour.m3PerDay), 'surface'),
  ];
} // prettier-ignore

export function stepsOf({ reach, cuts }: Standing): BuildStep[] {
  const last = cuts[cuts.length - 1];
  return inOrder(
    { id: 'walk', does: 'Walk it from its lower end up. Look where it bends, narrows, falls over a step, and how high old drift hangs.', cautions: ['Never while rain falls on the land above; never under a bank that is undercut.'] },
    { id: 'measure', does: 'At each section stretch a tape across at right angles. Read the bed, the edge of the bed and the top of both banks.', hold: 'The last section is read again from the bench mark: it closes.' },
    ...(reach.clearM === undefined
      ? []
      : [
          {
            id: 'clear',
            does: say`Dig ${amount(reach.clearM, 'difference')} off the bed from the lower end up, no deeper than it was; leave the foot of both banks as it grows.`,
            levels: [{ name: 'bed at its lower end', levelM: last.section.bedM }],
            hold: 'A level on the bed each 10 m: no hump is left behind.',
            cautions: ['Spoil lies back from the edge by twice the depth of the channel: it slides back in, and takes the bank along.'],
          },
        ]),
    { id: 'after', does: 'After the first great rain mark how high it stood at each section, and write it down: that is what the next reckoning is held against.' },
  );
} // prettier-ignore
