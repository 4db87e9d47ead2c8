import type { Check } from '../../contract/index.ts';
import { checkGround } from '../../checks/index.ts';
import type { DerivedErosion } from '../types.ts';
import type { OneRain } from '../../project/index.ts';
import { designStorm } from '../../rain/index.ts';
import { type GroundPart, LOSS_METHODS, lossOf, partCatchment, partRain, soilRoomMm } from '../../runoff/index.ts';
import type { CatchmentRunoff } from '../run/hydrology.ts';
import type { Timed } from '../run/watersheds.ts';
import type { GroundUnder } from '../water/soak.ts';
import { columnOf, forAll, idsOf } from '../graph/graph.ts';
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

/** A store whose catchment is ground, with what runs off it. */
interface Caught {
  readonly id: string;
  readonly work: string;
  readonly timed: Timed;
  readonly runoff: CatchmentRunoff;
}

/** Stores whose catchments are ground. On a roof, or paving over a covered store, nothing soaks in, and no way to a time of concentration is chosen. */
const caughtIn = ({ water, run }: Told): Caught[] =>
  water.stores.flatMap(({ id, work, sheds, isCovered, waterM2 }) => {
    const timed = run.hydrology.timed.get(id);
    const runoff = run.hydrology.runoff.get(id);
    const isRoof = sheds !== undefined || (isCovered === true && waterM2 !== undefined);
    return timed && runoff && !isRoof ? [{ id, work, timed, runoff }] : [];
  });

/** Checks of the methods chosen for what each store catches, and of the ground above and under it, by store. */
export function groundChecks(told: Told, erosion: DerivedErosion | null): ReadonlyMap<string, readonly Check[]> {
  const { project, run, water, graph } = told;
  const { rain } = run;
  if (!rain) return new Map();
  const stores = caughtIn(told);
  const isExample = project.ground?.isExample === true;
  const isMadeUp = project.terrain?.isMadeUp === true;
  const years = new Map(erosion?.works.map((w) => [w.of, w.yearsToFifth] as const));
  const ids = idsOf(stores);
  const timed = stores.map((s) => s.timed);
  const losses = graph.each('losses', { ids, columns: [timed, forAll(rain)] }, lossesIn).all;
  const full = graph.each('soil-full', { ids, columns: [timed, forAll(rain)] }, fullIn).all;
  return graph.each(
    'ground-checks',
    {
      ids,
      columns: [
        forAll(rain),
        timed,
        stores.map((s) => s.runoff),
        // A work that stands on no line of its own asks for no rate.
        columnOf(ids, water.under, null),
        columnOf(ids, years, null),
        losses,
        full,
        stores.map((s) => s.work),
        forAll(isExample),
        forAll(isMadeUp),
      ],
      isSettled: true,
    },
    groundJudged,
  ).by;
}

type GroundReads = [
  rain: OneRain,
  timed: Timed,
  runoff: CatchmentRunoff,
  under: GroundUnder | null,
  yearsToSilt: number | null,
  lossesMm: ReturnType<typeof lossesIn>,
  soilFullShare: number | null,
  work: string,
  isExample: boolean,
  isMadeUp: boolean,
];

function groundJudged(...[rain, timed, { runoff }, under, yearsToSilt, lossesMm, soilFullShare, work, ...said]: GroundReads): Check[] {
  const [isExample, isMadeUp] = said;
  const { tcMin, chosenPeakM3s, runoffMm } = runoff;
  return checkGround(
    {
      unfitTime: timed.unfit,
      unfitPeak: unfitPeak(timed.choice.peak, { timed, rain, runoffMm }),
      tcMin,
      peakM3s: chosenPeakM3s,
      lossesMm,
      soilFullShare,
      isExample,
      isMadeUp,
      rate: under && { isTested: under.isTested, mmPerHour: under.rateMmPerHour },
      yearsToSilt,
    },
    work,
  );
}
