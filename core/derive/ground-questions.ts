// Questions about ground and runoff, worked out when they are asked.
import { Worksheet } from '../formula/index.ts';
import { type DesignRate, type GroundState, NOW, type Reduction, designRateOf, reduceTest, soilFacts } from '../ground/index.ts';
import {
  DEFAULT_HEALED_YEARS,
  type Ground,
  PEAK_METHODS,
  type PeakMethod,
  type Project,
  TIME_METHODS,
  fail,
  optionOf,
} from '../project/index.ts';
import {
  type DoubtfulPart,
  GUESSED_SPREAD,
  LOSSES,
  LOSS_METHODS,
  type LossMethod,
  NUMBER_SPREAD,
  type RunoffBands,
  TESTED_SPREAD,
  partRain,
  runoffBands,
} from '../runoff/index.ts';
import { designStorm } from '../rain/index.ts';
import { type Gathered, interception, pinCatchments, workCatchments } from './catchments.ts';
import { type TimeTold, timeBy } from './concentration.ts';
import type { LandContext } from './compare.ts';
import { soilLossMap } from './erosion.ts';
import { choiceFor, dayRainOf, flowOf, graphicalPeak, peakOf, rationalPeaks, stepFor, stormFor, timeFactsOf } from './hydrology.ts';
import { PEAK_TITLES, explainSpread, unfitPeak } from './method-words.ts';
import { askByName } from './questions.ts';
import { surfacesOf } from './surfaces.ts';
import { groundModel } from './terrain-steps.ts';
import { type Weather, timedIn, watershedIn, weatherOf } from './watersheds.ts';

const missing = (what: string, hint: string): never => fail('ground.missing', what, { do: hint });

function weatherFor(project: Project, context: LandContext): Weather {
  const model = groundModel(project, context) ?? missing('there is no terrain yet', 'Bring in a terrain grid or survey points first.');
  return (
    weatherOf({ project, model, memo: context.memo }) ??
    missing('rain or ground is not known yet', 'Give a rain table and describe the ground first.')
  );
}

/** The catchment of a pin or work, as a derive has it. */
function catchmentOf({ project, model, memo }: Weather, context: LandContext, of: string): Gathered {
  const bound = optionOf(project).works.map((work) => context.registry.bind(work));
  const all = [...pinCatchments(model, project, memo), ...workCatchments(model, interception(model, bound, memo), memo)];
  return (
    all.find((g) => g.catchment.of === of) ??
    fail('catchment.missing', `"${of}" has no catchment`, { do: 'Choose a pin or a work that catches water.' })
  );
}

export interface PeakTold {
  readonly method: PeakMethod;
  readonly title: string;
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
export function methodsOf(project: Project, context: LandContext, { of }: { readonly of: string }): MethodsTold {
  const weather = weatherFor(project, context);
  const { rain } = weather;
  const gathered = catchmentOf(weather, context, of);
  const timed = timedIn(weather, gathered);
  const { watershed, choice, tcMin } = timed;
  const facts = timeFactsOf(watershed, rain);
  const stepM = (tc: number): ReturnType<typeof stormFor> => stormFor(rain, stepFor([tc]));
  const day = dayRainOf(rain);
  const times = TIME_METHODS.map((method) => {
    const told = timeBy(method, facts);
    const carried = method === 'path' && day?.isCarried ? ['the day’s rain is carried on beyond your table'] : [];
    const storm = told.tcMin === null ? null : stepM(told.tcMin);
    const peakM3s =
      storm && told.tcMin !== null
        ? peakOf(flowOf(watershed, { rain, storm, choice }, told.tcMin).flowM3s, storm.stepMin * 60).peakM3s
        : null;
    return { ...told, unfit: [...told.unfit, ...carried], peakM3s };
  });
  const storm = stepM(tcMin);
  const on = { rain, storm, choice };
  const sheet = new Worksheet(of);
  const { flowM3s, parted } = flowOf(watershed, on, tcMin);
  const byHydrograph = peakOf(flowM3s, storm.stepMin * 60).peakM3s;
  const rational = rationalPeaks(watershed, on, { tcMin, sheet });
  const graphical = graphicalPeak(watershed, on, { tcMin, runoffMm: parted.runoffMm, rainMm: parted.rainMm, sheet });
  const values: Record<PeakMethod, number | null> = {
    larger: Math.max(byHydrograph, rational.plain),
    hydrograph: byHydrograph,
    rational: rational.plain,
    'rational-rare': rational.rare,
    graphical,
  };
  const words = {
    areaM2: gathered.catchment.areaM2,
    runoffMm: parted.runoffMm,
    tcMin,
    curveNumber: watershed.curveNumber,
    choice,
    returnYears: rain.storm.returnYears,
  };
  const peaks = PEAK_METHODS.map((method) => ({
    method,
    title: PEAK_TITLES[method],
    peakM3s: values[method],
    unfit: unfitPeak(method, { ...words, hasRegion: graphical !== null }),
  }));
  const losses = LOSS_METHODS.map((method): LossTold => {
    const other = flowOf(watershed, { rain, storm, choice: { ...choice, loss: method } }, tcMin);
    const { title, says } = LOSSES[method];
    return { method, title, says, runoffMm: other.parted.runoffMm, peakM3s: peakOf(other.flowM3s, storm.stepMin * 60).peakM3s };
  });
  return {
    of,
    chosen: { time: choice.time, peak: choice.peak, loss: choice.loss },
    tcMin,
    times,
    peaks,
    losses,
    spread: explainSpread({ peaks, times, losses, tcMin }),
  };
}

/** Seed and number of draws of the bands shown. */
const [BAND_SEED, BAND_SAMPLES] = [20261, 4000];

/** How sure volume and peak are, by the limits of infiltration and curve number of each kind of ground. */
export function bandsOf(
  project: Project,
  context: LandContext,
  { of, samples = BAND_SAMPLES }: { readonly of: string; readonly samples?: number },
): RunoffBands {
  const weather = weatherFor(project, context);
  const { watershed, choice, tcMin } = timedIn(weather, catchmentOf(weather, context, of));
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
    samples,
    seed: BAND_SEED,
  });
}

export interface GroundDoes {
  readonly id: string;
  readonly name: string;
  readonly now: Does;
  readonly healed: Does | null;
}

export interface Does {
  readonly rainMm: number;
  readonly soaksMm: number;
  readonly standsMm: number;
  readonly runsMm: number;
  readonly infiltrationMmPerHour: number;
  readonly curveNumber: number;
}

/** Steps of an even rain [min]. */
const EVEN_STEP_MIN = 5;

/** What each kind of ground does with a rain, now and healed: the design storm, or so much in so long. */
export function pictureOf(
  project: Project,
  _: LandContext,
  { rain }: { readonly rain: { readonly depthMm: number; readonly durationMin: number } | null },
): GroundDoes[] {
  const { ground, features } = project;
  if (!ground) return missing('the ground is not described yet', 'Describe the ground of the property first.');
  if (rain && !(rain.depthMm > 0 && rain.depthMm <= 2000 && rain.durationMin >= EVEN_STEP_MIN && rain.durationMin <= 10_080)) {
    return fail('ground.rain', 'that rain cannot be shown', { do: 'Give up to 2000 mm in 5 minutes to a week.' });
  }
  if (!rain && !project.rain) return missing('no rain is known yet', 'Give a rain table, or a depth and a time.');
  const steps = rain ? Math.max(1, Math.round(rain.durationMin / EVEN_STEP_MIN)) : 0;
  const storm = rain
    ? { stepMin: rain.durationMin / steps, stepsMm: new Float64Array(steps).fill(rain.depthMm / steps) }
    : designStorm(project.rain!.table, project.rain!.storm, 1);
  const choice = choiceFor(project, '');
  const does = (state: GroundState): Map<string, Does> =>
    new Map(
      surfacesOf({ ground, features }, state).map(({ id, facts }): [string, Does] => {
        const { runsMm, ...rest } = partRain(storm.stepsMm, storm.stepMin / 60, { soil: facts, choice });
        const { infiltrationMmPerHour, curveNumber } = facts;
        return [id, { ...rest, runsMm: runsMm.reduce((a, v) => a + v, 0), infiltrationMmPerHour, curveNumber }];
      }),
    );
  const [now, healed] = [does(NOW), does({ as: 'healed', years: ground.healedYears ?? DEFAULT_HEALED_YEARS })];
  const heals = new Set([...(ground.healing ? ['ground'] : []), ...(ground.zones ?? []).flatMap((z) => (z.healing ? [z.id] : []))]);
  return surfacesOf({ ground, features }, NOW).flatMap(({ id, name }) => {
    const own = now.get(id);
    return own ? [{ id, name, now: own, healed: heals.has(id) ? (healed.get(id) ?? null) : null }] : [];
  });
}

/** Soil loss of each cell [t/(ha yr)] or depth run off in the storm [mm], for the plan. */
export function groundLayer(project: Project, context: LandContext, layer: 'soil-loss' | 'sheds'): Float32Array {
  const model = groundModel(project, context) ?? missing('there is no terrain yet', 'Bring in a terrain grid or survey points first.');
  const weather = weatherOf({ project, model, memo: context.memo });
  const ground: Ground = project.ground ?? missing('the ground is not described yet', 'Describe the ground of the property first.');
  if (layer === 'sheds') {
    if (!weather) return missing('no rain is known yet', 'Give a rain table first.');
    const depth = new Map(
      pictureOf(project, context, { rain: null }).map((d) => [d.id, ground.as === 'healed' ? (d.healed ?? d.now) : d.now]),
    );
    const byIndex = weather.map.surfaces.map((s) => depth.get(s.id)?.runsMm ?? NaN);
    return Float32Array.from(weather.map.index, (k, i) => (Number.isNaN(model.grid.z[i]) ? NaN : byIndex[k]));
  }
  if (!ground.erosion) return missing('soil loss needs the rain of a year', 'Give it in the Ground stage, under Soil loss.');
  if (!weather) return missing('no rain is known yet', 'Give a rain table first.');
  const bound = optionOf(project).works.map((work) => context.registry.bind(work));
  const met = interception(model, bound, context.memo);
  return soilLossMap({ ...ground, erosion: ground.erosion }, { model, memo: context.memo, map: weather.map, met }).slice();
}

/** The longest way a catchment's water takes, split into parts. */
export function wayOf(
  project: Project,
  context: LandContext,
  { of }: { readonly of: string },
): ReturnType<ReturnType<typeof watershedIn>['flow']> {
  const weather = weatherFor(project, context);
  return watershedIn(weather, catchmentOf(weather, context, of)).flow();
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
export type GroundQuestions = typeof GROUND_QUESTIONS;

/** Answers a question by name. */
export const askGround = (name: string, project: Project, on: { readonly context: LandContext; readonly args: unknown }): unknown =>
  askByName(GROUND_QUESTIONS, name, { project, ...on });
