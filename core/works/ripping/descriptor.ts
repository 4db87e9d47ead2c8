// A ripping pattern: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { RIPPING_DRAWS, RIPPING_SAMPLE } from './create.ts';
import { RIPPING_CHOICES, RIPPING_FIELDS, type Ripping, validateRipping } from './model.ts';

export const rippingDescriptor: Descriptor<Ripping> = {
  kind: 'ripping',
  title: 'Ripping pattern',
  family: 'conveyance',
  sample: RIPPING_SAMPLE,
  fields: RIPPING_FIELDS,
  choices: RIPPING_CHOICES,
  validate: validateRipping,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: false, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: RIPPING_DRAWS,
  footprint: ({ line }) => [line],
  // Slots hold nothing that is counted on: what runs over the ground goes on as it did.
  intakes: () => [],
  groundKey: ({ line, ring, dimensions: { spacingM, upM, downM } }) => [line, ring ?? null, spacingM, upM, downM],
};
