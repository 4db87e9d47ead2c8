// Stone lines: what they are, without what works them out.
import type { Descriptor } from '../../contract/index.ts';
import { LINES_DRAWS, LINES_SAMPLE } from './create.ts';
import { storeIdOf } from '../series.ts';
import { GAPS, LINES_CHOICES, LINES_FIELDS, type StoneLines, validateLines } from './model.ts';

export const stoneLinesDescriptor: Descriptor<StoneLines> = {
  kind: 'stone-lines',
  title: 'Stone lines',
  family: 'store',
  sample: LINES_SAMPLE,
  fields: LINES_FIELDS,
  choices: LINES_CHOICES,
  lists: [GAPS],
  validate: validateLines,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: LINES_DRAWS,
  footprint: ({ lines }) => lines,
  intakes: ({ id, lines }) => lines.map((line, k) => ({ store: storeIdOf(id, k), line })),
  groundKey: (work) => work.lines,
};
