// Diversion drain: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { DIVERSION_DRAWS, DIVERSION_SAMPLE } from './begin.ts';
import { DIVERSION_FIELDS, DIVERSION_CHOICES, validateDiversion, type Diversion } from './model.ts';

export const diversionDescriptor: Descriptor<Diversion> = {
  kind: 'diversion',
  title: 'Diversion drain',
  family: 'conveyance',
  sample: DIVERSION_SAMPLE,
  fields: DIVERSION_FIELDS,
  choices: DIVERSION_CHOICES,
  validate: validateDiversion,
  traits: () => ({ retains: 'bank', canBlock: false, isConduit: false, canSilt: false, isCut: true, joinable: false, wayOut: null }),
  refs: () => [],
  draws: DIVERSION_DRAWS,
  footprint: (work) => [work.line],
  intakes: ({ id, line }) => [{ store: id, line }],
  groundKey: (work) => work.line,
};
