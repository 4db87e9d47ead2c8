// Shaped ground to begin with, and how it is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Regrade } from './model.ts';

export const newRegrade = (
  id: string,
  name: string,
  first: Pick<Regrade, 'shape' | 'levels'> & Partial<Pick<Regrade, 'ring' | 'line' | 'byM' | 'fall' | 'towardsDeg'>>,
): Regrade => ({
  id,
  kind: 'regrade',
  name,
  status: 'planned',
  shape: first.shape,
  ...(first.ring ? { ring: first.ring } : {}),
  ...(first.line ? { line: first.line } : {}),
  after: 'lawn',
  services: 'not-asked',
  levels: first.levels,
  byM: first.byM ?? RAISED_M,
  fall: first.fall ?? LAWN_FALL,
  towardsDeg: first.towardsDeg ?? NORTH,
  dimensions: { batterHV: 4, bedWidthM: 0.3, sideHV: 5, topsoilM: 0.1 },
  labour: { m3PerDay: 3 },
});
/** First fall of a lawn, and how much ground is raised at first: common practice; towards the north until somebody says where. */
const [LAWN_FALL, RAISED_M, NORTH] = [0.02, 0.1, 0];

export const REGRADE_SAMPLE = newRegrade('regrade', 'Lawn', {
  shape: 'plane',
  ring: [[0, 0], [10, 0], [10, 6], [0, 6]],
  levels: { levelM: 100, startM: 100, endM: 100 },
}); // prettier-ignore

const ROUND = 'Draw round what is to be shaped; double-click to end.';

export const REGRADE_DRAWS: readonly DrawSpec[] = [
  { id: 'regrade-plane', name: 'Ground that falls away', what: 'ring', least: 3, hint: ROUND },
  { id: 'regrade-level', name: 'Ground made level', what: 'ring', least: 3, hint: ROUND },
  { id: 'regrade-fill', name: 'Low place filled', what: 'ring', least: 3, hint: ROUND },
  { id: 'regrade-cut', name: 'High place taken off', what: 'ring', least: 3, hint: ROUND },
  { id: 'regrade-by', name: 'Ground raised or lowered', what: 'ring', least: 3, hint: ROUND },
  { id: 'lawn-dish', name: 'Dish in a lawn', what: 'line', least: 2, hint: 'Draw it along its bed, from its upper to its lower end; double-click to end.' },
]; // prettier-ignore
