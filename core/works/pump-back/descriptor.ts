// Pump back: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { hostRef } from '../beginning.ts';
import { PUMP_FIELDS, PUMP_CHOICES, newPump, validatePump, type PumpBack } from './model.ts';

export const pumpBackDescriptor: Descriptor<PumpBack> = {
  kind: 'pump-back',
  title: 'Pump back',
  family: 'lift',
  sample: newPump('pump', 'Pump', { low: { id: 'store', floorM: 100 }, high: { id: 'upper', crestM: 110 }, lengthM: 80 }),
  fields: PUMP_FIELDS,
  choices: PUMP_CHOICES,
  references: [{ path: 'to', title: 'Lifts to', label: 'Upper store' }],
  validate: validatePump,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: true, canSilt: false, isCut: false, joinable: false, wayOut: 'lifted' }),
  refs: (work) => [...hostRef(work), { role: 'to', id: work.to, path: 'to', whenGone: 'goes' }],
  draws: [
    {
      id: 'pump',
      name: 'A pump from store to store',
      what: 'between-stores',
      least: 2,
      most: 2,
      hint: 'Click the store it takes from, then the one it lifts to.',
    },
  ],
  footprint: () => [],
  intakes: () => [],
  groundKey: () => null,
};
