// A water line: what it is, without what works it out.
import type { Descriptor, Ref } from '../../contract/index.ts';
import { WATER_LINE_DRAWS, WATER_LINE_SAMPLE } from './create.ts';
import { WATER_LINE_CHOICES, WATER_LINE_FIELDS, WATER_LINE_LISTS, type WaterLine, validateWaterLine } from './model.ts';

const END: Pick<Ref, 'role' | 'whenGone'> = { role: 'to', whenGone: 'lets-go' };

export const waterLineDescriptor: Descriptor<WaterLine> = {
  kind: 'water-line',
  title: 'Water line',
  family: 'lift',
  sample: WATER_LINE_SAMPLE,
  fields: WATER_LINE_FIELDS,
  choices: WATER_LINE_CHOICES,
  lists: WATER_LINE_LISTS,
  references: [
    { path: 'from', title: 'Draws from', label: 'Draws from', none: 'a spring, a well or a main' },
    { path: 'to', title: 'Fills', label: 'Fills', none: 'no store: a tap or drip lines' },
  ],
  validate: validateWaterLine,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: false, isCut: false, joinable: false, wayOut: null }),
  refs: ({ from, to }) => [
    ...(from === undefined ? [] : [{ ...END, id: from, path: 'from' }]),
    ...(to === undefined ? [] : [{ ...END, id: to, path: 'to' }]),
  ],
  draws: WATER_LINE_DRAWS,
  footprint: ({ line }) => [line],
  // Nothing that runs over the ground comes into it.
  intakes: () => [],
  groundKey: ({ line, from, to }) => [line, from ?? null, to ?? null],
};
