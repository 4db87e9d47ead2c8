// Check dams in series: what they are, without what works them out.
import type { Descriptor, Intake } from '../../contract/index.ts';
import { type Line, type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { storeIdOf } from '../series.ts';
import { DAMS_DRAWS, DAMS_SAMPLE } from './begin.ts';
import { type CheckDams, DAMS_CHOICES, DAMS_FIELDS, inOrder, validateDams } from './model.ts';

/** As wide as a dam reaches at the least where it takes in what comes down [m]: a line drawn by hand misses the bed by as much. */
const LEAST_REACH_M = 6;

/** From bank to bank across the channel. */
function across(line: Line, { atM, bankWidthM }: { readonly atM: number; readonly bankWidthM: number }): readonly [Point, Point] {
  const { point, direction } = pointAlong(line, Math.min(atM, lineLength(line)));
  const reach = Math.max(LEAST_REACH_M, bankWidthM) / 2;
  const [nx, ny] = [-direction[1] * reach, direction[0] * reach];
  return [
    [point[0] - nx, point[1] - ny],
    [point[0] + nx, point[1] + ny],
  ];
}

export { across };

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
  validate: validateDams,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: false, wayOut: null }),
  refs: () => [],
  draws: DAMS_DRAWS,
  footprint: (work) => [work.line],
  intakes: intakesOf,
  groundKey: (work) => work.line,
};
