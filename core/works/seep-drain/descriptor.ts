// A seepage drain: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { SEEP_DRAWS, SEEP_SAMPLE } from './create.ts';
import { SEEP_CHOICES, SEEP_FIELDS, SEEP_LISTS, type SeepDrain, validateSeep } from './model.ts';

export const seepDrainDescriptor: Descriptor<SeepDrain> = {
  kind: 'seep-drain',
  title: 'Seepage drain',
  family: 'conveyance',
  sample: SEEP_SAMPLE,
  fields: SEEP_FIELDS,
  choices: SEEP_CHOICES,
  lists: SEEP_LISTS,
  references: [{ path: 'into', title: 'Leads into', label: 'Leads into', none: 'no other work: it ends by itself' }],
  validate: validateSeep,
  // Gravel open to the ground closes with fines: it is not counted on when all is blocked.
  traits: ({ top }) => ({ retains: 'none', canBlock: top === 'open', isConduit: top === 'open', canSilt: false, isCut: false, joinable: false, wayOut: null }), // prettier-ignore
  refs: ({ into }) => (into === undefined ? [] : [{ role: 'to', id: into, path: 'into', whenGone: 'lets-go' }]),
  draws: SEEP_DRAWS,
  corners: { paths: ['line'] },
  footprint: ({ line }) => [line],
  // What runs over the ground passes it by, but for the yard it was laid in: only the ground tells which.
  intakes: () => [],
  groundKey: ({ line, into }) => [line, into ?? null],
};
