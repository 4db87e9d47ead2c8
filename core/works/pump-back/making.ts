import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { counted, inOrder, line } from '../making.ts';
import type { PumpBack } from './model.ts';

/** `arrayW`: panels at their peak; null where it runs by mains. */
export const quantitiesOf = ({ pipe }: PumpBack, arrayW: number | null): QuantityLine[] => [
  line({ item: 'pipe', label: 'Pipe', kind: 'length', from: 'all of it, up and along' }, pipe.lengthM, 'made'),
  counted({ item: 'pump', label: 'Pump and motor', from: 'one' }, 1),
  ...(arrayW === null
    ? []
    : [line({ item: 'panels', label: 'Panels, at their peak', kind: 'power', from: 'water a day, lift and loss' }, arrayW, 'made')]),
];

export const stepsOf = ({ drive, levels }: PumpBack): BuildStep[] =>
  inOrder(
    {
      id: 'pipe',
      does: say`Lay the pipe to ${amount(levels.deliveryM, 'reading')}, its end above the highest water there.`,
      levels: [{ name: 'pipe ends', levelM: levels.deliveryM }],
      hold: 'An end under water is a siphon: it runs the other way.',
    },
    {
      id: 'pump',
      does: say`Set the pump so that it stops at ${amount(levels.stopM, 'reading')}.`,
      levels: [{ name: 'stops', levelM: levels.stopM }],
      cautions: [
        drive === 'mains'
          ? 'Mains beside water: a licensed electrician connects it.'
          : 'Panels cannot be switched off in the sun: follow the maker’s order of connecting.',
      ],
    },
    { id: 'try', does: 'Run it for an hour and read flow and level; note both.' },
  );
