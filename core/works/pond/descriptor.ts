// Pond: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { closed } from '../../geometry/index.ts';
import { COMES_BACK_REFERENCE, backRefs } from '../comes-back.ts';
import { POND_DRAWS, POND_SAMPLE } from './begin.ts';
import { POND_FIELDS, POND_CHOICES, validatePond, type Pond } from './model.ts';

export const pondDescriptor: Descriptor<Pond> = {
  kind: 'pond',
  title: 'Pond',
  family: 'store',
  sample: POND_SAMPLE,
  fields: POND_FIELDS,
  choices: POND_CHOICES,
  validate: validatePond,
  traits: ({ wall }) => ({
    retains: wall ? 'wall' : 'none',
    canBlock: false,
    isConduit: false,
    canSilt: true,
    isCut: false,
    joinable: true,
    wayOut: null,
  }),
  references: [COMES_BACK_REFERENCE],
  refs: backRefs,
  draws: POND_DRAWS,
  footprint: (work) => [...(work.wall ? [work.wall] : []), ...(work.pit ? [closed(work.pit)] : [])],
  intakes: ({ id, wall, pit = [] }) => [{ store: id, line: wall ?? closed(pit) }],
  groundKey: (work) => [work.wall ?? null, work.pit ?? null],
};
