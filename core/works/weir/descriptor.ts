// A weir across a gully: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { WEIR_DRAWS, WEIR_SAMPLE } from './create.ts';
import { WEIR_CHOICES, WEIR_FIELDS, type Weir, validateWeir } from './model.ts';

export const weirDescriptor: Descriptor<Weir> = {
  kind: 'weir',
  title: 'Weir',
  family: 'store',
  sample: WEIR_SAMPLE,
  fields: WEIR_FIELDS,
  choices: WEIR_CHOICES,
  validate: validateWeir,
  traits: () => ({ retains: 'wall', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: WEIR_DRAWS,
  footprint: (work) => [work.line],
  intakes: ({ id, line }) => [{ store: id, line }],
  groundKey: (work) => work.line,
};
