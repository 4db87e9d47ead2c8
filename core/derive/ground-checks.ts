import type { Check } from '../contract/index.ts';
import { checkGround } from '../checks/index.ts';
import type { Project } from '../project/index.ts';
import { unfitPeak } from './method-words.ts';
import type { GroundUnder } from './soak.ts';
import type { DerivedErosion } from './types.ts';
import type { Hydrology } from './watersheds.ts';

/** Checks of one work on the methods chosen for its catchment and on the ground above and under it. */
export function groundChecks(
  id: string,
  on: {
    readonly project: Project;
    readonly hydrology: Hydrology;
    readonly under: ReadonlyMap<string, GroundUnder>;
    readonly erosion: DerivedErosion | null;
  },
): Check[] {
  const { rain } = on.project;
  const timed = on.hydrology.timed.get(id);
  const runoff = on.hydrology.runoff.get(id)?.runoff;
  const under = on.under.get(id);
  if (!rain || !timed || !runoff || !under) return [];
  return checkGround(
    {
      unfitTime: timed.unfit,
      unfitPeak: unfitPeak(timed.choice.peak, { timed, rain, runoffMm: runoff.runoffMm }),
      tcMin: runoff.tcMin,
      peakM3s: runoff.chosenPeakM3s,
      isTested: under.isTested,
      rateMmPerHour: under.rateMmPerHour,
      yearsToSilt: on.erosion?.works.find((w) => w.of === id)?.yearsToFifth ?? null,
    },
    id,
  );
}
