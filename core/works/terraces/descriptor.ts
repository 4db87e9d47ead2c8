// Terraces: what they are, without what works them out.
import type { Descriptor } from '../../contract/index.ts';
import { storeIdOf } from '../series.ts';
import { TERRACES_DRAWS, TERRACES_SAMPLE } from './create.ts';
import { TERRACES_CHOICES, TERRACES_FIELDS, type Terraces, validateTerraces } from './model.ts';

export const terracesDescriptor: Descriptor<Terraces> = {
  kind: 'terraces',
  title: 'Terraces',
  family: 'store',
  sample: TERRACES_SAMPLE,
  fields: TERRACES_FIELDS,
  choices: TERRACES_CHOICES,
  validate: validateTerraces,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: false, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: TERRACES_DRAWS,
  footprint: ({ lines }) => lines,
  intakes: ({ id, lines }) => lines.map((line, k) => ({ store: storeIdOf(id, k), line })),
  groundKey: (work) => work.lines,
};
