// Shaped ground: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { REGRADE_DRAWS, REGRADE_SAMPLE } from './create.ts';
import { REGRADE_CHOICES, REGRADE_FIELDS, type Regrade, drawnOf, reshapesOf, validateRegrade } from './model.ts';

export const regradeDescriptor: Descriptor<Regrade> = {
  kind: 'regrade',
  title: 'Shaped ground',
  family: 'conveyance',
  sample: REGRADE_SAMPLE,
  fields: REGRADE_FIELDS,
  choices: REGRADE_CHOICES,
  validate: validateRegrade,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: false, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: REGRADE_DRAWS,
  corners: { paths: ['ring', 'line'] },
  footprint: (work) => [drawnOf(work)],
  intakes: () => [],
  reshapes: reshapesOf,
  groundKey: reshapesOf,
};
