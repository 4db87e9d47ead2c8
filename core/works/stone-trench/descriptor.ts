// Stone-filled trench: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { ON_HOST, hostRef, wayOutTraits } from '../beginning.ts';
import { checkFields } from '../fields.ts';
import { checkHost } from '../on-host.ts';
import { TRENCH_FIELDS, newTrench, type StoneTrench } from './model.ts';

export const stoneTrenchDescriptor: Descriptor<StoneTrench> = {
  kind: 'stone-trench',
  title: 'Stone-filled trench',
  family: 'way-out',
  sample: newTrench({ id: 'trench', name: 'Stone-filled trench', host: 'store', status: 'planned', atM: 10, sillM: 101 }),
  fields: TRENCH_FIELDS,
  validate: (work) => [...checkFields(work, TRENCH_FIELDS), ...checkHost(work)],
  traits: () => wayOutTraits('through'),
  refs: hostRef,
  draws: [{ id: 'stone-trench', name: 'Stone-filled trench', ...ON_HOST }],
  footprint: () => [],
  intakes: () => [],
  groundKey: (work) => [work.atM, work.dimensions.lengthM, work.host],
};
