// Level swale: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { COMES_BACK_REFERENCE, backRefs } from '../comes-back.ts';
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
  references: [COMES_BACK_REFERENCE],
  refs: (work) => [
    ...(work.joins ? [{ role: 'joins' as const, id: work.joins.store, path: 'joins', whenGone: 'lets-go' as const }] : []),
    ...backRefs(work),
  ],
  draws: SWALE_DRAWS,
  footprint: (work) => [work.line],
  intakes: ({ id, line }) => [{ store: id, line }],
  groundKey: (work) => work.line,
};
