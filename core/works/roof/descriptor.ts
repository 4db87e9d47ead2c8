// A roof that is caught: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { closed } from '../../geometry/index.ts';
import { ROOF_DRAWS, ROOF_SAMPLE } from './create.ts';
import { ROOF_CHOICES, ROOF_FIELDS, type Roof, validateRoof } from './model.ts';

export const roofDescriptor: Descriptor<Roof> = {
  kind: 'roof',
  title: 'Roof that is caught',
  family: 'store',
  sample: ROOF_SAMPLE,
  fields: ROOF_FIELDS,
  choices: ROOF_CHOICES,
  validate: validateRoof,
  traits: () => ({
    retains: 'none',
    canBlock: false,
    isConduit: false,
    canSilt: false,
    isCut: false,
    joinable: false,
    wayOut: null,
    standsAlone: true,
  }),
  refs: () => [],
  draws: ROOF_DRAWS,
  footprint: ({ ring }) => [closed(ring)],
  intakes: ({ id, ring }) => [{ store: id, roof: ring }],
  groundKey: ({ ring }) => ring,
};
