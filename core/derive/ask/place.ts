// What is known of a place: what a rain leaves to run off its ground.
import type { Point } from '../../geometry/index.ts';
import type { Project } from '../../project/index.ts';
import { partRain } from '../../runoff/index.ts';
import { lossChoiceOf, stormFor } from '../run/hydrology.ts';
import { rainOver } from '../set/laid.ts';
import { groundAt, stateOf, surfacesOf } from '../world/surfaces.ts';

/** Steps in which rain is parted [s]: runoff of a whole storm hardly depends on them. */
const STEP_S = 900;

/** What runs off the ground at a place in the longest storm that is looked at [mm]; null while rain or ground are not known. */
export function runsAt(project: Project, at: Point): number | null {
  const rain = rainOver(project);
  const { ground } = project;
  if (!rain || !ground) return null;
  const storm = stormFor(rain, STEP_S);
  const soil = groundAt(surfacesOf({ ...project, ground }, stateOf(ground)), at);
  return partRain(storm.stepsMm, storm.stepMin / 60, { soil, choice: lossChoiceOf(project) }).runoffMm;
}
