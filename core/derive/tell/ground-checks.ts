import type { Check } from '../../contract/index.ts';
import { checkGround } from '../../checks/index.ts';
import type { DerivedErosion } from '../types.ts';
import type { Told } from './facts.ts';
import { unfitPeak } from './method-words.ts';

/** Checks of one work on the methods chosen for what its store catches, and on the ground above and under it. */
export function groundChecks(work: string, store: string, on: { readonly told: Told; readonly erosion: DerivedErosion | null }): Check[] {
  const { project, run, water, graph } = on.told;
  const timed = run.hydrology.timed.get(store);
  const runoff = run.hydrology.runoff.get(store);
  const under = water.under.get(store);
  if (!project.rain || !timed || !runoff || !under) return [];
  const yearsToSilt = on.erosion?.works.find((w) => w.of === store)?.yearsToFifth ?? null;
  return graph.step(`ground-checks:${store}`, [project.rain, { timed, runoff, under, yearsToSilt }, work], (rain, known, id) => {
    const { tcMin, chosenPeakM3s, runoffMm } = known.runoff.runoff;
    return checkGround(
      {
        unfitTime: known.timed.unfit,
        unfitPeak: unfitPeak(known.timed.choice.peak, { timed: known.timed, rain, runoffMm }),
        tcMin,
        peakM3s: chosenPeakM3s,
        isTested: known.under.isTested,
        rateMmPerHour: known.under.rateMmPerHour,
        yearsToSilt: known.yearsToSilt,
      },
      id,
    );
  });
}
