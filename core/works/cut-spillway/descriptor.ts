// Cut spillway: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { ON_HOST, hostRef, wayOutTraits } from '../beginning.ts';
import { checkFields } from '../fields.ts';
import { checkHost } from '../on-host.ts';
import { CUT_FIELDS, newCut, type CutSpillway } from './model.ts';

export const cutSpillwayDescriptor: Descriptor<CutSpillway> = {
  kind: 'cut-spillway',
  title: 'Cut spillway',
  family: 'way-out',
  sample: newCut({ id: 'cut', name: 'Cut spillway', host: 'store', status: 'planned', atM: 10, sillM: 101 }),
  fields: CUT_FIELDS,
  validate: (work) => [...checkFields(work, CUT_FIELDS), ...checkHost(work)],
  traits: () => wayOutTraits('crest'),
  refs: hostRef,
  draws: [{ id: 'cut-spillway', name: 'Cut spillway', ...ON_HOST }],
  footprint: () => [],
  intakes: () => [],
  groundKey: (work) => [work.atM, work.dimensions.controlLengthM, work.host],
};
