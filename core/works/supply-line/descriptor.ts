// A water line: what it is, without what works it out.
import type { Descriptor, Ref } from '../../contract/index.ts';
import { SUPPLY_LINE_DRAWS, SUPPLY_LINE_SAMPLE } from './create.ts';
import { SUPPLY_LINE_CHOICES, SUPPLY_LINE_FIELDS, SUPPLY_LINE_LISTS, type SupplyLine, validateSupplyLine } from './model.ts';

const END: Pick<Ref, 'role' | 'whenGone'> = { role: 'to', whenGone: 'lets-go' };

export const supplyLineDescriptor: Descriptor<SupplyLine> = {
  kind: 'supply-line',
  title: 'Water line',
  family: 'lift',
  sample: SUPPLY_LINE_SAMPLE,
  fields: SUPPLY_LINE_FIELDS,
  choices: SUPPLY_LINE_CHOICES,
  lists: SUPPLY_LINE_LISTS,
  references: [
    { path: 'from', title: 'Draws from', label: 'Draws from', none: 'a spring, a well or a main' },
    { path: 'to', title: 'Fills', label: 'Fills', none: 'no store: a tap or drip lines' },
  ],
  validate: validateSupplyLine,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: false, isCut: false, joinable: false, wayOut: null }),
  refs: ({ from, to }) => [
    ...(from === undefined ? [] : [{ ...END, id: from, path: 'from' }]),
    ...(to === undefined ? [] : [{ ...END, id: to, path: 'to' }]),
  ],
  draws: SUPPLY_LINE_DRAWS,
  corners: { paths: ['line'] },
  footprint: ({ line }) => [line],
  // Nothing that runs over the ground comes into it.
  intakes: () => [],
  groundKey: ({ line, from, to }) => [line, from ?? null, to ?? null],
};
