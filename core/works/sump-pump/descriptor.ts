// A sump with a pump: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { SUMP_DRAWS, SUMP_SAMPLE } from './create.ts';
import { storeIdOf } from '../series.ts';
import { SUMP_CHOICES, SUMP_FIELDS, type Sump, validateSump } from './model.ts';

export const sumpDescriptor: Descriptor<Sump> = {
  kind: 'sump-pump',
  title: 'Sump with a pump',
  family: 'lift',
  sample: SUMP_SAMPLE,
  fields: SUMP_FIELDS,
  choices: SUMP_CHOICES,
  validate: validateSump,
  // Where nothing takes over, mains that go are a way out that is closed.
  traits: ({ backup }) => ({
    retains: 'none', canBlock: true, isConduit: backup === 'none', canSilt: false, isCut: false, joinable: false, wayOut: null,
    ...(backup === 'none' ? { needsMains: true } : {}),
  }),
  refs: () => [],
  draws: SUMP_DRAWS,
  corners: { paths: ['line'] },
  footprint: ({ line }) => [line],
  intakes: ({ id, line, top }) => (top === 'grate' ? [{ store: storeIdOf(id, 1), points: [line[0]] }] : []),
  groundKey: ({ line, top }) => [line, top],
}; // prettier-ignore
