// The head of a gully: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { HEAD_DRAWS, HEAD_SAMPLE } from './create.ts';
import { type Headcut, HEAD_CHOICES, HEAD_FIELDS, READINGS, validateHead } from './model.ts';

export const headcutDescriptor: Descriptor<Headcut> = {
  kind: 'headcut',
  title: 'Gully head',
  family: 'conveyance',
  sample: HEAD_SAMPLE,
  fields: HEAD_FIELDS,
  choices: HEAD_CHOICES,
  lists: [READINGS],
  validate: validateHead,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: false, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: HEAD_DRAWS,
  footprint: (work) => [work.line],
  intakes: ({ id, line }) => [{ store: id, line }],
  groundKey: (work) => work.line,
};
