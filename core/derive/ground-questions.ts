// Questions about ground and runoff, worked out when they are asked.
import { Worksheet } from '../formula/index.ts';
import { type DesignRate, type Reduction, TESTED_SPREAD, designRateOf, reduceTest, soilFacts } from '../ground/index.ts';
import { type Ground, PEAK_METHODS, type PeakMethod, type Project, TIME_METHODS, fail, optionOf } from '../project/index.ts';
import { type Storm, designStorm } from '../rain/index.ts';
import {
  type DoubtfulPart,
  GUESSED_SPREAD,
  LOSSES,
  LOSS_METHODS,
  type LossMethod,
  NUMBER_SPREAD,
  type RunoffBands,
  runoffBands,
} from '../runoff/index.ts';
import { type Gathered, type Interception, interception, pinCatchments, workCatchments } from './catchments.ts';
import type { LandContext } from './compare.ts';
import { type TimeTold, timeBy } from './concentration.ts';
import { soilLossMap } from './erosion.ts';
import type { FlowParts } from './flow-parts.ts';
import { type GroundDoes, type RainSteps, groundsDo } from './grounds.ts';
import { flowOf, peakOf, peaksOf, runoffOf, stepFor, stormFor, timeFactsOf } from './hydrology.ts';
import { PEAK_WORDS, explainSpread, unfitPeak } from './method-words.ts';
import { askByName } from './questions.ts';
import { surfaceMap } from './surfaces.ts';
import { groundModel } from './terrain-steps.ts';
import { type Basis, type Weather, timedIn, watershedIn, weatherOf } from './watersheds.ts';

export type { Does, GroundDoes } from './grounds.ts';

const missing = (what: string, hint: string): never => fail('ground.missing', what, { do: hint });

function basisFor(project: Project, { memo, ...context }: LandContext): Basis {
  const model =
    groundModel(project, { memo, ...context }) ?? missing('there is no terrain yet', 'Bring in a terrain grid or survey points first.');
  return { project, model, memo, map: surfaceMap(project, model, memo) };
}

const weatherFor = (project: Project, context: LandContext): Weather =>
  weatherOf(basisFor(project, context)) ?? missing('rain or ground is not known yet', 'Give a rain table and describe the ground first.');

const described = (project: Project): Project & { readonly ground: Ground } => ({
  ...project,
  ground: project.ground ?? missing('the ground is not described yet', 'Describe the ground of the property first.'),
});

/** Cells that works catch water at, as a derive has them. */
const metBy = ({ project, model, memo }: Basis, { registry }: LandContext): Interception =>
  interception(
    model,
    optionOf(project).works.map((work) => registry.bind(work)),
    memo,
  );

/** The catchment of a pin or work, as a derive has it. */
function catchmentOf(weather: Weather, context: LandContext, of: string): Gathered {
  const { project, model, memo } = weather;
  const all = [...pinCatchments(model, project, memo), ...workCatchments(model, metBy(weather, context), memo)];
  return (
    all.find((g) => g.catchment.of === of) ??
    fail('catchment.missing', `"${of}" has no catchment`, { do: 'Choose a pin or a work that catches water.' })
  );
}

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
export function methodsOf(project: Project, context: LandContext, { of }: { readonly of: string }): MethodsTold {
  const weather = weatherFor(project, context);
  const { rain } = weather;
  const timed = timedIn(weather, catchmentOf(weather, context, of));
  const { watershed, choice, tcMin } = timed;
  const stormOver = (tc: number): Storm => stormFor(rain, stepFor([tc]));
  const hydrographPeak = (tc: number): number => {
    const storm = stormOver(tc);
    return peakOf(flowOf(watershed, { rain, storm, choice }, tc).flowM3s, storm.stepMin * 60).peakM3s;
  };
  const facts = timeFactsOf(watershed, rain);
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

function designSteps({ rain }: Project): RainSteps {
  if (!rain) return missing('no rain is known yet', 'Give a rain table, or a depth and a time.');
  return designStorm(rain.table, rain.storm, 1);
}

/** What each kind of ground does with a rain, now and healed: the design storm, or so much in so long. */
export function pictureOf(
  project: Project,
  _: LandContext,
  { rain }: { readonly rain: { readonly depthMm: number; readonly durationMin: number } | null },
): GroundDoes[] {
  return groundsDo(described(project), rain ? evenRain(rain) : designSteps(project));
}

/** Depth run off in the storm [mm], cell by cell. */
export function shedsLayer(project: Project, context: LandContext): Float32Array {
  const { model, map } = basisFor(described(project), context);
  const { ground } = described(project);
  const does = groundsDo(described(project), designSteps(project));
  const runs = does.map(({ now, healed }) => ((ground.as === 'healed' ? healed : null) ?? now).runsMm);
  return Float32Array.from(map?.index ?? [], (k, i) => (Number.isNaN(model.grid.z[i]) ? NaN : runs[k]));
}

/** Soil loss [t/(ha yr)], cell by cell. */
export function soilLossLayer(project: Project, context: LandContext): Float32Array {
  const { ground } = described(project);
  const erosion = ground.erosion ?? missing('soil loss needs the rain of a year', 'Give it in the Ground stage, under Soil loss.');
  const basis = basisFor(project, context);
  const { model, memo, map } = basis;
  return map ? soilLossMap(erosion, { model, memo, map, met: metBy(basis, context) }).slice() : new Float32Array();
}

/** The longest way a catchment's water takes, split into parts. */
export function wayOf(project: Project, context: LandContext, { of }: { readonly of: string }): FlowParts {
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
