// Questions about ground and runoff, worked out when they are asked.
import { Worksheet } from '../../formula/index.ts';
import { type DesignRate, type Reduction, TESTED_SPREAD, designRateOf, reduceTest, soilFacts } from '../../ground/index.ts';
import { type Ground, PEAK_METHODS, type PeakMethod, type Project, TIME_METHODS, fail } from '../../project/index.ts';
import { type Storm, designStorm } from '../../rain/index.ts';
import {
  type DoubtfulPart,
  GUESSED_SPREAD,
  LOSSES,
  LOSS_METHODS,
  type LossMethod,
  NUMBER_SPREAD,
  type RunoffBands,
  runoffBands,
} from '../../runoff/index.ts';
import { perCell } from '../../terrain/index.ts';
import { type RoomContext, rainOver } from '../set/laid.ts';
import { type TimeTold, timeBy } from '../run/concentration.ts';
import { flowOf, peakOf, peaksOf, runoffOf, stepFor, stormFor, timeFactsOf } from '../run/hydrology.ts';
import { type Timed, type Weather, timedIn, watershedIn, weatherOf } from '../run/watersheds.ts';
import { asDesigned } from '../scenario/scenario.ts';
import { soilLossMap } from '../tell/erosion.ts';
import { type GroundDoes, type RainSteps, groundsDo } from '../tell/grounds.ts';
import { PEAK_WORDS, explainSpread, unfitPeak } from '../tell/method-words.ts';
import { type Water, waterOf } from '../water/water.ts';
import type { Gathered } from '../world/catchments.ts';
import type { FlowParts } from '../world/flow-parts.ts';
import { type World, worldOf } from '../world/world.ts';

export type { Does, GroundDoes } from '../tell/grounds.ts';

const missing = (what: string, hint: string): never => fail('ground.missing', what, { do: hint });

const landOf = (project: Project, context: RoomContext): World =>
  worldOf(project, context) ?? missing('there is no terrain yet', 'Bring in a terrain grid or survey points first.');

/** The weather on the land, with the works that catch its water. */
interface Asked extends Weather {
  readonly water: Water;
}

function weatherFor(project: Project, context: RoomContext): Asked {
  const world = landOf(project, context);
  const weather =
    weatherOf(rainOver(project), { ...world, runoff: project.runoff, graph: context.graph }) ??
    missing('rain or ground is not known yet', 'Give a rain table and describe the ground first.');
  return { ...weather, water: waterOf(asDesigned(project), world, context) };
}

const described = (project: Project): Project & { readonly ground: Ground } => ({
  ...project,
  ground: project.ground ?? missing('the ground is not described yet', 'Describe the ground of the property first.'),
});

/** The catchment of a pin or work, as a derive has it. */
function catchmentOf({ water }: Asked, of: string): Gathered {
  return (
    water.catchments.find((g) => g.catchment.of === of) ??
    fail('catchment.missing', `"${of}" has no catchment`, { do: 'Choose a pin or a work that catches water.' })
  );
}

/** A catchment with its time of concentration, as a derive has it. */
const timedFor = (weather: Asked, of: string): Timed => timedIn(weather, catchmentOf(weather, of), of);

export interface PeakTold {
  readonly method: PeakMethod;
  readonly title: string;
  readonly says: string;
  readonly peakM3s: number | null;
  readonly unfit: readonly string[];
}

export interface LossTold {
  readonly method: LossMethod;
  readonly title: string;
  readonly says: string;
  readonly runoffMm: number;
  readonly peakM3s: number;
}

export interface MethodsTold {
  readonly of: string;
  readonly chosen: { readonly time: string; readonly peak: PeakMethod; readonly loss: LossMethod };
  readonly tcMin: number;
  readonly times: readonly (TimeTold & { readonly peakM3s: number | null })[];
  readonly peaks: readonly PeakTold[];
  readonly losses: readonly LossTold[];
  /** Why the peaks differ. */
  readonly spread: string;
}

/** Every method on one catchment, side by side. */
export function methodsOf(project: Project, context: RoomContext, { of }: { readonly of: string }): MethodsTold {
  const weather = weatherFor(project, context);
  const { rain } = weather;
  const timed = timedFor(weather, of);
  const { watershed, choice, tcMin } = timed;
  const stormOver = (tc: number): Storm => stormFor(rain, stepFor([tc]));
  const hydrographPeak = (tc: number): number => {
    const storm = stormOver(tc);
    return peakOf(flowOf(watershed, { rain, storm, choice }, tc).flowM3s, storm.stepMin * 60).peakM3s;
  };
  const facts = timeFactsOf(watershed, rain.table);
  const times = TIME_METHODS.map((method) => {
    const told = timeBy(method, facts);
    return { ...told, peakM3s: told.tcMin === null ? null : hydrographPeak(told.tcMin) };
  });
  const storm = stormOver(tcMin);
  const losses = LOSS_METHODS.map((method): LossTold => {
    const { parted, flowM3s } = flowOf(watershed, { rain, storm, choice: { ...choice, loss: method } }, tcMin);
    const { title, says } = LOSSES[method];
    return { method, title, says, runoffMm: parted.runoffMm, peakM3s: peakOf(flowM3s, storm.stepMin * 60).peakM3s };
  });
  const { runoff } = runoffOf(watershed, { rain, storm, choice, tcMin });
  const { by } = peaksOf(
    watershed,
    { rain, storm, choice },
    { ...runoff, hydrographM3s: runoff.hydrographPeakM3s, sheet: new Worksheet(of) },
  );
  const peaks = PEAK_METHODS.map((method) => ({
    method,
    ...PEAK_WORDS[method],
    peakM3s: by[method],
    unfit: unfitPeak(method, { timed, rain, runoffMm: runoff.runoffMm }),
  }));
  const chosen = { time: choice.time, peak: choice.peak, loss: choice.loss };
  return { of, chosen, tcMin, times, peaks, losses, spread: explainSpread({ peaks, times, losses, tcMin }) };
}

/** Seed and number of draws of the bands shown. */
const [BAND_SEED, BAND_SAMPLES] = [20261, 4000];

/** How sure volume and peak are, by the limits of infiltration and curve number of each kind of ground. */
export function bandsOf(
  project: Project,
  context: RoomContext,
  { of, samples = BAND_SAMPLES }: { readonly of: string; readonly samples?: number },
): RunoffBands {
  const weather = weatherFor(project, context);
  const { watershed, choice, tcMin } = timedFor(weather, of);
  const storm = stormFor(weather.rain, stepFor([tcMin]));
  const parts = watershed.parts.map(({ soil, areaM2 }): DoubtfulPart => {
    const { infiltrationRange, infiltrationMmPerHour, curveNumberRange, rateFrom } = soil.soil;
    const spread = rateFrom === undefined ? GUESSED_SPREAD : TESTED_SPREAD;
    const [low, high] = infiltrationRange ?? [infiltrationMmPerHour / spread, infiltrationMmPerHour * spread];
    const number = soil.curveNumber;
    // Limits given for the ground as it is now go along with it as it heals.
    const shift = number - soilFacts(soil.soil).curveNumber;
    return {
      soil,
      areaM2,
      infiltration: [low * soil.rateFactor, high * soil.rateFactor],
      curveNumber: curveNumberRange
        ? [curveNumberRange[0] + shift, curveNumberRange[1] + shift]
        : [number - NUMBER_SPREAD, Math.min(100, number + NUMBER_SPREAD)],
    };
  });
  return runoffBands({
    parts,
    choice,
    stepsMm: storm.stepsMm,
    stepS: storm.stepMin * 60,
    concentrationMin: tcMin,
    ...(choice.peakFactor === undefined ? {} : { peakFactor: choice.peakFactor }),
    samples,
    seed: BAND_SEED,
  });
}

/** Steps of an even rain [min], and the most that can be shown. */
const EVEN_STEP_MIN = 5;
const [MOST_RAIN_MM, MOST_RAIN_MIN] = [2000, 10_080];

function evenRain({ depthMm, durationMin }: { readonly depthMm: number; readonly durationMin: number }): RainSteps {
  if (!(depthMm > 0 && depthMm <= MOST_RAIN_MM && durationMin >= EVEN_STEP_MIN && durationMin <= MOST_RAIN_MIN)) {
    return fail('ground.rain', 'that rain cannot be shown', { do: `Give up to ${MOST_RAIN_MM} mm in 5 minutes to a week.` });
  }
  const steps = Math.round(durationMin / EVEN_STEP_MIN);
  return { stepMin: durationMin / steps, stepsMm: new Float64Array(steps).fill(depthMm / steps) };
}

function designSteps(project: Project): RainSteps {
  const rain = rainOver(project);
  if (!rain) return missing('no rain is known yet', 'Give a rain table, or a depth and a time.');
  return designStorm(rain.table, rain.storm, 1);
}

/** What each kind of ground does with a rain, now and healed: the design storm, or so much in so long. */
export function pictureOf(
  project: Project,
  _: RoomContext,
  { rain }: { readonly rain: { readonly depthMm: number; readonly durationMin: number } | null },
): GroundDoes[] {
  return groundsDo(described(project), rain ? evenRain(rain) : designSteps(project));
}

/** Depth run off in the storm [mm], cell by cell. */
export function shedsLayer(project: Project, context: RoomContext): Float32Array {
  const { model, map } = landOf(described(project), context);
  const { ground } = described(project);
  const does = groundsDo(described(project), designSteps(project));
  const runs = does.map(({ now, healed }) => ((ground.as === 'healed' ? healed : null) ?? now).runsMm);
  return map ? perCell(model.grid, (i) => (Number.isNaN(model.grid.z[i]) ? NaN : runs[map.index[i]])) : new Float32Array(0);
}

/** Soil loss [t/(ha yr)], cell by cell. */
export function soilLossLayer(project: Project, context: RoomContext): Float32Array {
  const { ground } = described(project);
  const erosion = ground.erosion ?? missing('soil loss needs the rain of a year', 'Give it in the Ground stage, under Soil loss.');
  const world = landOf(project, context);
  const { graph } = context;
  const { met } = waterOf(asDesigned(project), world, context);
  return world.map ? soilLossMap(erosion, { model: world.model, graph, map: world.map, met }).slice() : new Float32Array();
}

/** The longest way a catchment's water takes, split into parts. */
export function wayOf(project: Project, context: RoomContext, { of }: { readonly of: string }): FlowParts {
  const weather = weatherFor(project, context);
  return watershedIn(weather, catchmentOf(weather, of), of).flow();
}

export interface TestTold extends Reduction {
  readonly id: string;
  readonly design: DesignRate | null;
}

/** What every field test comes to. */
export function testsOf({ ground }: Project): TestTold[] {
  return (ground?.tests ?? []).map((test) => ({ id: test.id, ...reduceTest(test), design: designRateOf(test) }));
}

export const GROUND_QUESTIONS = { methods: methodsOf, bands: bandsOf, picture: pictureOf, way: wayOf, tests: testsOf } as const;
