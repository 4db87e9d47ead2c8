// Soakaways: what they are, without what works them out.
import type { Descriptor } from '../../contract/index.ts';
import { COMES_BACK_REFERENCE, backRefs } from '../comes-back.ts';
import { SOAKAWAY_DRAWS, SOAKAWAY_NAMES, SOAKAWAY_SAMPLE } from './create.ts';
import { SOAKAWAY_CHOICES, SOAKAWAY_FIELDS, type Soakaway, validateSoakaway } from './model.ts';

export const soakawayDescriptor: Descriptor<Soakaway> = {
  kind: 'soakaway',
  title: 'Soakaway',
  titleOf: ({ form }) => SOAKAWAY_NAMES[form],
  family: 'store',
  sample: SOAKAWAY_SAMPLE,
  fields: SOAKAWAY_FIELDS,
  choices: SOAKAWAY_CHOICES,
  validate: validateSoakaway,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  references: [COMES_BACK_REFERENCE],
  refs: backRefs,
  draws: SOAKAWAY_DRAWS,
  footprint: ({ line }) => [line],
  intakes: ({ id, line }) => [{ store: id, line }],
  groundKey: ({ line }) => line,
};
