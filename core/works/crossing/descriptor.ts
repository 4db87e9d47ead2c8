// Crossing: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { CROSSING_DRAWS, CROSSING_SAMPLE } from './begin.ts';
import { CROSSING_FIELDS, CROSSING_CHOICES, validateCrossing, type Crossing } from './model.ts';

export const crossingDescriptor: Descriptor<Crossing> = {
  kind: 'crossing',
  title: 'Crossing',
  family: 'road',
  sample: CROSSING_SAMPLE,
  fields: CROSSING_FIELDS,
  choices: CROSSING_CHOICES,
  validate: validateCrossing,
  traits: ({ dimensions, joins }) => ({
    retains: joins ? 'none' : 'wall',
    canBlock: dimensions.barrels > 0,
    isConduit: dimensions.barrels > 0,
    canSilt: false,
    isCut: false,
    joinable: false,
    wayOut: null,
  }),
  refs: ({ joins }) =>
    joins
      ? [
          { role: 'host', id: joins[0], path: 'joins', whenGone: 'goes' },
          { role: 'to', id: joins[1], path: 'joins', whenGone: 'goes' },
        ]
      : [],
  draws: CROSSING_DRAWS,
  footprint: (work) => [work.line],
  intakes: ({ id, line, joins }) => (joins ? [] : [{ store: id, line }]),
  groundKey: (work) => work.line,
};
