import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, inOrder, line } from '../making.ts';
import { RIP_HOURS } from './formulas.ts';
import type { RipGround } from './ground.ts';
import type { Ripping } from './model.ts';

/** Share of the time that is spent in the ground, the rest turning. */
export const IN_THE_GROUND = 0.75;

export const lengthOf = ({ slots }: RipGround): number => slots.reduce((a, s) => a + s.lengthM, 0);

/** Hours of driving. */
export const hoursOf = ({ machine: { speedKmh: v, shanks: n } }: Ripping, ground: RipGround): number =>
  RIP_HOURS.evaluate({ L: lengthOf(ground), v, n, e: IN_THE_GROUND });

/** Fuel [m3]. */
export const fuelOf = (work: Ripping, ground: RipGround): number => (hoursOf(work, ground) * work.machine.litresAnHour) / 1000;

export function quantitiesOf(work: Ripping, ground: RipGround): QuantityLine[] {
  const hours = hoursOf(work, ground);
  return [
    line({ item: 'slot', label: 'Slots, end to end', kind: 'length', from: 'every line as laid' }, lengthOf(ground), 'made'),
    line({ item: 'machine', label: 'Hours of the machine', kind: 'hours', from: 'speed, shanks and turning' }, hours, 'surface'),
    line({ item: 'fuel', label: 'Fuel', kind: 'liquid', from: 'hours by what it takes' }, fuelOf(work, ground), 'surface'),
  ];
}

export function stepsOf(work: Ripping, { slots }: RipGround): BuildStep[] {
  const { depthM, spacingM, season } = work.dimensions;
  return inOrder(
    {
      id: 'look',
      does: 'Dig to the hard layer and break a clod from it: dry it shatters, wet it smears, and then nothing is gained.',
      cautions: [BEFORE_DIGGING],
      hold: 'A clod from that depth breaks between the fingers.',
    },
    {
      id: 'peg',
      does: 'Peg the key line by level, every ten metres, and look along it: from the valley out to the ridge it falls a little or not at all.',
      levels: slots.slice(0, 1).map((s) => ({ name: 'start of the first line', levelM: s.groundM[0] })),
    },
    { id: 'first', does: say`Rip the key line ${amount(depthM, 'length')} deep, at a walk.`, hold: 'Dig across it: it is cracked to both sides, not polished.' }, // prettier-ignore
    {
      id: 'beside',
      does: say`Rip the next ones beside it, ${amount(spacingM, 'length')} apart, each beside the last: never by the contour again.`,
      cautions: [
        'Lift the shanks over gullies, roots and pipes.',
        'Across a steep slope a tractor turns over: from below, nobody beside it.',
      ],
      hold: 'Every tenth line by level: where it falls towards the valley, stop and begin from a new key line.',
    },
    { id: 'seed', does: 'Sow deep roots into the slots in the same week, and keep stock off until they stand.' },
    {
      id: 'after',
      does:
        season < 3
          ? 'Test the rate beside it and in it after the first wet season; next year rip between the slots, a little deeper.'
          : 'Test the rate beside it and in it each second year: when it is as slow again, ask what closes it.',
    },
  );
}
