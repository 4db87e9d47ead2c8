// Level swale: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { SWALE_DRAWS, SWALE_SAMPLE } from './begin.ts';
import { SWALE_FIELDS, SWALE_CHOICES, LOW_PLACES, validateSwale, type Swale } from './model.ts';

export const swaleDescriptor: Descriptor<Swale> = {
  kind: 'swale',
  title: 'Level swale',
  family: 'store',
  sample: SWALE_SAMPLE,
  fields: SWALE_FIELDS,
  choices: SWALE_CHOICES,
  lists: [LOW_PLACES],
  validate: validateSwale,
  traits: () => ({ retains: 'bank', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: true, wayOut: null }),
  refs: ({ joins }) => (joins ? [{ role: 'joins', id: joins.store, path: 'joins', whenGone: 'lets-go' }] : []),
  draws: SWALE_DRAWS,
  footprint: (work) => [work.line],
  intakes: ({ id, line }) => [{ store: id, line }],
  groundKey: (work) => work.line,
};
