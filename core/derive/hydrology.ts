import type { Catchment, Runoff } from '../contract/index.ts';
import { Worksheet } from '../formula/index.ts';
import { type Cover, coverOf, curveNumberOf, runoffCoefficientOf } from '../ground/index.ts';
import type { Ground, Rain } from '../project/index.ts';
import { DEPTH_BETWEEN, type Storm, UPLIFT, depthFor, designStorm, peakIntensity, totalsOf } from '../rain/index.ts';
import {
  CONCENTRATION_FROM_LAG,
  CURVE_NUMBER_RUNOFF,
  NRCS_LAG,
  RATIONAL_PEAK,
  UNIT_PEAK,
  UNIT_TIME_TO_PEAK,
  hydrograph,
  incrementalRunoff,
} from '../runoff/index.ts';

/** Unit duration as a share of the time of concentration (NEH-630 ch. 16). */
const UNIT_SHARE = 0.133;
/** Time steps for routing [s]: fine enough for small catchments, coarse enough for a day-long storm. */
const LEAST_STEP_S = 30;
const GREATEST_STEP_S = 300;

export interface GroundFacts {
  readonly cover: Cover;
  readonly curveNumber: number;
  readonly ground: Ground;
}

export function groundFacts(ground: Ground): GroundFacts {
  const cover = coverOf(ground.cover);
  return { cover, ground, curveNumber: ground.curveNumber ?? curveNumberOf(cover, ground.soilGroup) };
}

/** Time of concentration of a catchment [min]. */
export function concentrationOf(catchment: Catchment, { curveNumber }: GroundFacts, sheet: Worksheet): number {
  const L = sheet.use(NRCS_LAG, { l: Math.max(1, catchment.longestPathM), CN: curveNumber, Y: Math.max(0.1, 100 * catchment.meanSlope) });
  return sheet.use(CONCENTRATION_FROM_LAG, { L });
}

/** One step for all hydrographs of a derive [s]. */
export function stepFor(concentrationsMin: readonly number[]): number {
  const least = concentrationsMin.length === 0 ? 60 : Math.min(...concentrationsMin);
  return Math.min(GREATEST_STEP_S, Math.max(LEAST_STEP_S, Math.floor(UNIT_SHARE * least * 60)));
}

export function stormFor(rain: Rain, stepS: number): Storm {
  return designStorm(rain.table, rain.storm, stepS / 60);
}

export interface CatchmentRunoff {
  readonly runoff: Runoff;
  readonly flowM3s: Float64Array;
}

/** Depth of the table for a duration with the storm's uplift, recording how it was found. */
function recordedDepth(rain: Rain, durationMin: number, sheet: Worksheet): number {
  const depth = depthFor(rain.table, rain.storm.returnYears, durationMin);
  const plain = depth.between ? sheet.use(DEPTH_BETWEEN, depth.between) : depth.depthMm;
  return uplifted(rain, plain, sheet);
}

function uplifted({ storm }: Rain, depthMm: number, sheet: Worksheet): number {
  const u = storm.upliftPercent ?? 0;
  return u === 0 ? depthMm : sheet.use(UPLIFT, { P: depthMm, u });
}

/** Rain of the whole storm, and its mean intensity over the time of concentration: of the table, or of the storm itself where it is its own. */
function rainOf(
  rain: Rain,
  on: { readonly storm: Storm; readonly tcMin: number; readonly sheet: Worksheet },
): { rainMm: number; intensity: number } {
  const { storm, tcMin, sheet } = on;
  const { isOwn, times } = totalsOf(rain.table, rain.storm);
  if (isOwn) return { rainMm: storm.depthMm, intensity: peakIntensity(storm, tcMin) };
  return {
    rainMm: times * recordedDepth(rain, rain.storm.durationMin, sheet),
    intensity: (60 * recordedDepth(rain, tcMin, sheet)) / tcMin,
  };
}

/** Volume, rational peak and hydrograph of one catchment in the design storm. */
export function runoffOf(
  catchment: Catchment,
  on: { readonly rain: Rain; readonly facts: GroundFacts; readonly storm: Storm; readonly sheet: Worksheet; readonly tcMin: number },
): CatchmentRunoff {
  const { rain, facts, storm, sheet, tcMin } = on;
  const { rainMm, intensity } = rainOf(rain, { storm, tcMin, sheet });
  const runoffMm = sheet.use(CURVE_NUMBER_RUNOFF, { P: rainMm, CN: facts.curveNumber });
  const runoffC = facts.ground.runoffC ?? runoffCoefficientOf(facts.cover, facts.ground.soilGroup, catchment.meanSlope);
  const rationalPeakM3s = sheet.use(RATIONAL_PEAK, { C: runoffC, i: intensity, A: catchment.areaM2 / 1e4 });
  const stepH = storm.stepMin / 60;
  const Tp = sheet.use(UNIT_TIME_TO_PEAK, { D: stepH, tc: tcMin / 60 });
  sheet.use(UNIT_PEAK, { A: catchment.areaM2 / 1e6, Q: 1, Tp });
  const flowM3s = hydrograph({
    areaM2: catchment.areaM2,
    concentrationMin: tcMin,
    runoffMm: incrementalRunoff(storm.stepsMm, facts.curveNumber),
    stepS: storm.stepMin * 60,
  });
  return {
    flowM3s,
    runoff: {
      of: catchment.of,
      rainMm,
      curveNumber: facts.curveNumber,
      runoffC,
      runoffMm,
      volumeM3: (runoffMm / 1000) * catchment.areaM2,
      tcMin,
      intensityMmPerHour: intensity,
      rationalPeakM3s,
      hydrographPeakM3s: flowM3s.reduce((a, v) => Math.max(a, v), 0),
    },
  };
}
