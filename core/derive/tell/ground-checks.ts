import type { Check } from '../../contract/index.ts';
import { checkGround } from '../../checks/index.ts';
import type { DerivedErosion } from '../types.ts';
import type { OneRain } from '../../project/index.ts';
import { designStorm } from '../../rain/index.ts';
import { type GroundPart, LOSS_METHODS, lossOf, partCatchment, partRain, soilRoomMm } from '../../runoff/index.ts';
import type { Timed } from '../run/watersheds.ts';
import type { Told } from './facts.ts';
import { unfitPeak } from './method-words.ts';

/** Less than this is no runoff to compare [mm], and the steps it is worked out in [min]. */
const [LEAST_MM, STEP_MIN] = [5, 5];

/** What runs off a catchment in a storm by each way of losses: the least and the most. */
function lossesIn({ watershed, choice }: Timed, rain: OneRain): { readonly leastMm: number; readonly mostMm: number } | null {
  const { stepsMm, stepMin } = designStorm(rain.table, rain.storm, STEP_MIN);
  const depths = LOSS_METHODS.map((loss) => {
    const { parts } = watershed;
    return partCatchment(stepsMm, stepMin / 60, { parts, choice: { ...choice, loss } }).runoffMm;
  });
  const [leastMm, mostMm] = [Math.min(...depths), Math.max(...depths)];
  return mostMm < LEAST_MM ? null : { leastMm, mostMm };
}

/** How near to full is full [mm]. */
const FULL_MM = 1e-6;

/** Share of a catchment whose soil is full before a storm ends; null where the way of losses knows no such thing. */
function fullIn({ watershed: { parts }, choice }: Timed, rain: OneRain): number | null {
  const ends = parts.filter(({ soil }) => lossOf(soil, choice).endsFull);
  if (ends.length === 0) return null;
  const { stepsMm, stepMin } = designStorm(rain.table, rain.storm, STEP_MIN);
  const area = (list: readonly GroundPart[]): number => list.reduce((a, p) => a + p.areaM2, 0);
  const full = ends.filter(({ soil }) => {
    const { soaksMm } = partRain(stepsMm, stepMin / 60, { soil, choice });
    return soaksMm >= soilRoomMm(soil, choice) - FULL_MM;
  });
  return area(full) / area(parts);
}

/** Checks of one work on the methods chosen for what its store catches, and on the ground above and under it. */
export function groundChecks(work: string, store: string, on: { readonly told: Told; readonly erosion: DerivedErosion | null }): Check[] {
  const { project, run, water, graph } = on.told;
  const timed = run.hydrology.timed.get(store);
  const runoff = run.hydrology.runoff.get(store);
  // A work that stands on no line of its own asks for no rate.
  const under = water.under.get(store) ?? null;
  // A roof, or paving over a covered store, is no ground: nothing of it soaks in, and no way to a time of concentration is chosen for it.
  const isRoof = water.stores.some((s) => s.id === store && (s.sheds !== undefined || (s.isCovered === true && s.waterM2 !== undefined)));
  if (!run.rain || !timed || !runoff || isRoof) return [];
  const lossesMm = graph.step(`losses:${store}`, [timed, run.rain], lossesIn);
  const soilFullShare = graph.step(`soil-full:${store}`, [timed, run.rain], fullIn);
  const isExample = project.ground?.isExample === true;
  const yearsToSilt = on.erosion?.works.find((w) => w.of === store)?.yearsToFifth ?? null;
  return graph.step(
    `ground-checks:${store}`,
    [run.rain, { timed, runoff, under, yearsToSilt, isExample, lossesMm, soilFullShare }, work],
    (rain, known, id) => {
      const { tcMin, chosenPeakM3s, runoffMm } = known.runoff.runoff;
      return checkGround(
        {
          unfitTime: known.timed.unfit,
          unfitPeak: unfitPeak(known.timed.choice.peak, { timed: known.timed, rain, runoffMm }),
          tcMin,
          peakM3s: chosenPeakM3s,
          lossesMm: known.lossesMm,
          soilFullShare: known.soilFullShare,
          isExample: known.isExample,
          rate: known.under && { isTested: known.under.isTested, mmPerHour: known.under.rateMmPerHour },
          yearsToSilt: known.yearsToSilt,
        },
        id,
      );
    },
  );
}
