// A channel as measured: what it is, without what works it out.
import type { Descriptor, Intake } from '../../contract/index.ts';
import { across } from '../across.ts';
import { storeIdOf } from '../series.ts';
import { REACH_DRAWS, REACH_SAMPLE } from './create.ts';
import { REACH_CHOICES, REACH_FIELDS, type Reach, SECTIONS, inOrder, validateReach } from './model.ts';

/** What comes down to the lower end of each stretch is in it. */
const intakesOf = (work: Reach): readonly Intake[] =>
  inOrder(work)
    .slice(1)
    .map(({ atM, bedWidthM, leftOutM, rightOutM }, k) => ({
      store: storeIdOf(work.id, k),
      line: across(work.line, { atM, bankWidthM: bedWidthM + leftOutM + rightOutM }),
    }));

export const reachDescriptor: Descriptor<Reach> = {
  kind: 'reach',
  title: 'Channel as it is',
  family: 'conveyance',
  sample: REACH_SAMPLE,
  fields: REACH_FIELDS,
  choices: REACH_CHOICES,
  lists: [SECTIONS],
  validate: validateReach,
  traits: () => ({
    retains: 'none',
    canBlock: false,
    isConduit: false,
    canSilt: false,
    isCut: false,
    joinable: false,
    isChannel: true,
    wayOut: null,
  }),
  refs: () => [],
  draws: REACH_DRAWS,
  corners: { paths: ['line'], along: ['sections'] },
  footprint: (work) => [work.line],
  intakes: intakesOf,
  groundKey: (work) => work.line,
};
