import type { Check } from '../contract/index.ts';
import { checkGround } from '../checks/index.ts';
import type { Project } from '../project/index.ts';
import { timeBy } from './concentration.ts';
import { dayRainOf, regionOf, timeFactsOf } from './hydrology.ts';
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
  const { watershed, choice } = timed;
  const carried = choice.time === 'path' && dayRainOf(rain)?.isCarried ? ['the day’s rain is carried on beyond your table'] : [];
  const { areaM2 } = watershed.gathered.catchment;
  const words = { areaM2, runoffMm: runoff.runoffMm, tcMin: runoff.tcMin, curveNumber: watershed.curveNumber };
  return checkGround(
    {
      unfitTime: [...timeBy(choice.time, timeFactsOf(watershed, rain)).unfit, ...carried],
      unfitPeak: unfitPeak(choice.peak, { ...words, choice, returnYears: rain.storm.returnYears, hasRegion: regionOf(rain) !== null }),
      tcMin: runoff.tcMin,
      peakM3s: runoff.chosenPeakM3s,
      isTested: under.isTested,
      rateMmPerHour: under.rateMmPerHour,
      yearsToSilt: on.erosion?.works.find((w) => w.of === id)?.yearsToFifth ?? null,
    },
    id,
  );
}
