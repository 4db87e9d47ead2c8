// A piped drain: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { DRAIN_DRAWS, DRAIN_SAMPLE } from './create.ts';
import { DRAIN_CHOICES, DRAIN_FIELDS, DRAIN_LISTS, type PipedDrain, isOpen, validateDrain } from './model.ts';

export const pipedDrainDescriptor: Descriptor<PipedDrain> = {
  kind: 'piped-drain',
  title: 'Drain',
  family: 'conveyance',
  sample: DRAIN_SAMPLE,
  fields: DRAIN_FIELDS,
  choices: DRAIN_CHOICES,
  lists: DRAIN_LISTS,
  references: [{ path: 'into', title: 'Leads into', label: 'Leads into', none: 'no other work: it ends by itself' }],
  validate: validateDrain,
  traits: () => ({ retains: 'none', canBlock: true, isConduit: true, canSilt: false, isCut: false, joinable: false, wayOut: null }),
  refs: ({ into }) => (into === undefined ? [] : [{ role: 'to', id: into, path: 'into', whenGone: 'lets-go' }]),
  draws: DRAIN_DRAWS,
  corners: { paths: ['line'], along: ['basins'] },
  footprint: ({ line }) => [line],
  // What comes to its basins hangs on the hollows they lie in: told once these are measured.
  intakes: () => [],
  groundKey: ({ line, basins, into }) => [line, basins.map((b) => [b.atM, isOpen(b)]), into ?? null],
};
