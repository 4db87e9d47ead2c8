// Swales in a set: what they are, without what works them out.
import type { Descriptor } from '../../contract/index.ts';
import { storeIdOf } from '../series.ts';
import { SET_DRAWS, SET_SAMPLE } from './create.ts';
import { SET_CHOICES, SET_FIELDS, type SwaleSet, validateSet } from './model.ts';

export const swaleSetDescriptor: Descriptor<SwaleSet> = {
  kind: 'swale-set',
  title: 'Swales in a set',
  family: 'store',
  sample: SET_SAMPLE,
  fields: SET_FIELDS,
  choices: SET_CHOICES,
  validate: validateSet,
  traits: () => ({ retains: 'bank', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: SET_DRAWS,
  footprint: ({ lines }) => lines,
  intakes: ({ id, lines }) => lines.map((line, k) => ({ store: storeIdOf(id, k), line })),
  groundKey: ({ lines }) => lines,
};
