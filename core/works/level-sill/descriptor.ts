// Level sill: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { ON_HOST, hostRef, wayOutTraits } from '../beginning.ts';
import { SILL_CHOICES, SILL_SAMPLE, SILL_FIELDS, validateSill, type LevelSill } from './model.ts';

export const levelSillDescriptor: Descriptor<LevelSill> = {
  kind: 'level-sill',
  title: 'Level sill',
  family: 'way-out',
  sample: SILL_SAMPLE,
  fields: SILL_FIELDS,
  choices: SILL_CHOICES,
  validate: validateSill,
  traits: () => wayOutTraits('crest'),
  refs: hostRef,
  draws: [{ id: 'level-sill', name: 'Level sill', ...ON_HOST }],
  footprint: () => [],
  intakes: () => [],
  groundKey: (work) => [work.atM, work.dimensions, work.host],
};
