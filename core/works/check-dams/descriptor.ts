// Check dams in series: what they are, without what works them out.
import type { Descriptor, Intake } from '../../contract/index.ts';
import { across } from '../across.ts';
import { storeIdOf } from '../series.ts';
import { DAMS_DRAWS, DAMS_SAMPLE } from './begin.ts';
import { type CheckDams, DAMS_CHOICES, DAMS_FIELDS, inOrder, validateDams } from './model.ts';

/** One dam takes in what comes down to it: the lowest first in the list of none. */
const intakesOf = (work: CheckDams): readonly Intake[] =>
  inOrder(work).map((dam, k) => ({ store: storeIdOf(work.id, k), line: across(work.line, dam) }));

export const checkDamsDescriptor: Descriptor<CheckDams> = {
  kind: 'check-dams',
  title: 'Check dams',
  family: 'store',
  sample: DAMS_SAMPLE,
  fields: DAMS_FIELDS,
  choices: DAMS_CHOICES,
  references: [{ path: 'channel', title: 'Stands in', label: 'Channel as measured', among: 'channels', none: 'none: on its own line' }],
  validate: validateDams,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  refs: ({ channel }) => (channel === undefined ? [] : [{ role: 'in', id: channel, path: 'channel', whenGone: 'lets-go' }]),
  draws: DAMS_DRAWS,
  footprint: (work) => [work.line],
  intakes: intakesOf,
  groundKey: ({ line, channel }) => [line, channel ?? null],
};
