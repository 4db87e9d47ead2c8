// What a storm sheds on each catchment: volume, peak and hydrograph, by the methods chosen.
import type { Runoff } from '../../contract/index.ts';
import { Worksheet, type WorksheetLine } from '../../formula/index.ts';
import type { OneRain, PeakMethod, Project, Rain, TimeMethod } from '../../project/index.ts';
import {
  DEPTH_BELOW,
  DEPTH_BETWEEN,
  type RainTable,
  type Storm,
  UPLIFT,
  depthFor,
  designStorm,
  peakIntensity,
  totalsOf,
} from '../../rain/index.ts';
import {
  CURVE_NUMBER_RUNOFF,
  CURVE_NUMBER_RUNOFF_005,
  type CatchmentParted,
  GRAPHICAL_PEAK,
  type LossChoice,
  MIN_CONCENTRATION_MIN,
  RATIONAL_PEAK,
  RUNOFF_ADDED,
  type Region,
  UNIT_PEAK,
  UNIT_PEAK_BY_FACTOR,
  UNIT_TIME_TO_PEAK,
  USUAL_LOSS,
  abstractionOf,
  hydrograph,
  partCatchment,
  retentionOf,
  stormCurveNumber,
  unitPeakOf,
  weighed,
} from '../../runoff/index.ts';
import { asItself } from '../graph/graph.ts';
import type { Gathered } from '../world/catchments.ts';
import { type TimeFacts, timeBy } from './concentration.ts';
import type { FlowParts } from '../world/flow-parts.ts';
import { type Surface, type SurfacePart, partsOf } from '../world/surfaces.ts';

/** Unit duration as a share of the time of concentration (NEH-630 ch. 16). */
const UNIT_SHARE = 0.133;
/** Time steps for routing [s]: fine enough for small catchments, coarse enough for a day-long storm. */
const LEAST_STEP_S = 30;
const GREATEST_STEP_S = 300;

export interface Choice extends LossChoice {
  readonly time: TimeMethod;
  readonly peak: PeakMethod;
  readonly peakFactor?: number;
}

/** How losses are worked out on the whole property. */
export const lossChoiceOf = ({ runoff }: Pick<Project, 'runoff'>): LossChoice => ({ ...USUAL_LOSS, ...runoff });

/** Methods for a catchment: its own, else the project's, else the usual ones. */
export function choiceFor(project: Pick<Project, 'runoff'>, id: string): Choice {
  return { time: 'lag', peak: 'larger', ...lossChoiceOf(project), ...project.runoff?.of?.[id] };
}

/** One step for all hydrographs of a derive [s]. */
export function stepFor(concentrationsMin: readonly number[]): number {
  const least = concentrationsMin.length === 0 ? 60 : Math.min(...concentrationsMin);
  return Math.min(GREATEST_STEP_S, Math.max(LEAST_STEP_S, Math.floor(UNIT_SHARE * least * 60)));
}

export function stormFor(rain: OneRain, stepS: number): Storm {
  return designStorm(rain.table, rain.storm, stepS / 60);
}

/** A catchment as runoff is worked out on it. */
export interface Watershed {
  readonly gathered: Gathered;
  readonly parts: readonly SurfacePart[];
  readonly curveNumber: number;
  readonly runoffC: number;
  readonly kerbyN: number;
  readonly flow: () => FlowParts;
}

/** Brings a catchment together with the kinds of ground it has. */
export function watershedOf(
  gathered: Gathered,
  surfaces: readonly Surface[],
  on: { readonly shares: readonly number[]; readonly flow: () => FlowParts },
): Watershed {
  const parts = partsOf(surfaces, on.shares);
  return {
    gathered,
    parts,
    curveNumber: weighed(parts, (soil) => soil.curveNumber),
    runoffC: weighed(parts, (soil) => soil.runoffC(gathered.catchment.meanSlope)),
    kerbyN: weighed(parts, (soil) => soil.cover.surface.kerbyN),
    flow: on.flow,
  };
}

/** Minutes in a day, and the return period sheet flow asks the day's rain of [years]. */
const [DAY_MIN, DAY_YEARS] = [1440, 2];

/** The day's rain passed one year in two; null where the table has no such row. */
function dayRainOf(table: RainTable): TimeFacts['dayRain'] {
  if (!table.returnYears.includes(DAY_YEARS)) return null;
  const { depthMm, extrapolated } = depthFor(table, DAY_YEARS, DAY_MIN);
  return { mm: depthMm, isCarried: extrapolated };
}

export function timeFactsOf(watershed: Watershed, table: RainTable): TimeFacts {
  const { gathered, curveNumber, runoffC, kerbyN, flow } = watershed;
  return { catchment: gathered.catchment, curveNumber, runoffC, kerbyN, dayRain: dayRainOf(table), parts: flow };
}

/** Time of concentration by the method chosen, by lag where that cannot be worked out; why the chosen one should not be used stays with it. */
export function concentrationOf(
  watershed: Watershed,
  on: { readonly table: RainTable; readonly choice: Choice; readonly sheet: Worksheet },
): { readonly tcMin: number; readonly unfit: readonly string[] } {
  const facts = timeFactsOf(watershed, on.table);
  const { tcMin, unfit } = timeBy(on.choice.time, facts, on.sheet);
  return { tcMin: tcMin ?? timeBy('lag', facts, on.sheet).tcMin ?? MIN_CONCENTRATION_MIN, unfit };
}

export interface CatchmentRunoff {
  readonly runoff: Runoff;
  readonly flowM3s: Float64Array;
  readonly lines: readonly WorksheetLine[];
}

/** Depth of the table for a duration with the storm's uplift, recording how it was found. */
function recordedDepth(rain: Rain, durationMin: number, sheet: Worksheet): number {
  const depth = depthFor(rain.table, rain.storm.returnYears, durationMin);
  const { between, below } = depth;
  const plain = below ? sheet.use(DEPTH_BELOW, below) : between ? sheet.use(DEPTH_BETWEEN, between) : depth.depthMm;
  const u = rain.storm.upliftPercent ?? 0;
  return u === 0 ? plain : sheet.use(UPLIFT, { P: plain, u });
}

export interface StormOn {
  readonly rain: OneRain;
  readonly storm: Storm;
  readonly choice: Choice;
}

/** Mean intensity over a time: of the table, or of the storm itself where it is its own [mm/h]. */
function intensityOver({ rain, storm }: StormOn, minutes: number, sheet: Worksheet): number {
  if (totalsOf(rain.table, rain.storm).isOwn) return peakIntensity(storm, minutes);
  return (60 * recordedDepth(rain, minutes, sheet)) / minutes;
}

/** Records how the runoff of each kind of ground was found, and their sum. */
function recordRunoff(
  watershed: Watershed,
  parted: CatchmentParted,
  on: StormOn & { readonly rainMm: number; readonly sheet: Worksheet },
): number {
  const { parts } = watershed;
  const { choice, rainMm, sheet } = on;
  const byNumber = (soil: SurfacePart['soil']): number => {
    const CN = stormCurveNumber(soil, choice);
    return choice.abstraction === '0.05'
      ? sheet.use(CURVE_NUMBER_RUNOFF_005, { P: rainMm, CN_05: CN })
      : sheet.use(CURVE_NUMBER_RUNOFF, { P: rainMm, CN });
  };
  const depths = parts.map(({ soil }, k) => (choice.loss === 'curve-number' || soil.cover.isSealed ? byNumber(soil) : parted.byPart[k]));
  if (parts.length === 1 && choice.loss === 'curve-number') return depths[0];
  const area = watershed.gathered.catchment.areaM2;
  return area === 0 ? 0 : sheet.use(RUNOFF_ADDED, { V: parts.reduce((a, p, k) => a + (p.areaM2 * depths[k]) / 1000, 0), A: area });
}

/** Rise of the coefficient for rare storms (HEC-22; handbook 2.1): straight between its rows. */
const RARE: readonly (readonly [years: number, factor: number])[] = [
  [10, 1],
  [25, 1.1],
  [50, 1.2],
  [100, 1.25],
];

export function rareFactor(years: number): number {
  if (years <= RARE[0][0]) return 1;
  const k = RARE.findIndex(([y]) => years <= y);
  if (k < 0) return RARE[RARE.length - 1][1];
  const [[y0, f0], [y1, f1]] = [RARE[k - 1], RARE[k]];
  return f0 + ((years - y0) / (y1 - y0)) * (f1 - f0);
}

interface RationalPeaks {
  readonly plain: number;
  readonly rare: number;
  /** Roofs and paving alone, which answer sooner; null without any. */
  readonly sealed: number | null;
  readonly intensity: number;
}

/** Peak by coefficient and intensity: of the whole, and of what is sealed alone where that gives more. */
function rationalPeaks(
  watershed: Watershed,
  on: StormOn,
  { tcMin, sheet }: { readonly tcMin: number; readonly sheet: Worksheet },
): RationalPeaks {
  const { parts, runoffC, gathered } = watershed;
  const areaHa = gathered.catchment.areaM2 / 1e4;
  const intensity = intensityOver(on, tcMin, sheet);
  const whole = sheet.use(RATIONAL_PEAK, { C: runoffC, i: intensity, A: areaHa });
  const hard = parts.filter((p) => p.soil.cover.isSealed);
  const sealedHa = hard.reduce((a, p) => a + p.areaM2, 0) / 1e4;
  const soon = (): number =>
    sheet.use(RATIONAL_PEAK, {
      C: weighed(hard, (soil) => soil.runoffC(0)),
      i: intensityOver(on, Math.min(tcMin, MIN_CONCENTRATION_MIN), sheet),
      A: sealedHa,
    });
  const sealed = sealedHa > 0 ? soon() : null;
  const factor = Math.min(rareFactor(on.rain.storm.returnYears), runoffC > 0 ? 1 / runoffC : 1);
  return { plain: Math.max(whole, sealed ?? 0), rare: Math.max(whole * factor, sealed ?? 0), sealed, intensity };
}

/** Region of the storm's day-long pattern; null where it has another shape. */
export function regionOf({ storm }: Rain): Region | null {
  return storm.shape?.kind === 'pattern' ? storm.shape.pattern : null;
}

/** Peak read from the curves of TR-55; null where the storm has no regional pattern. */
function graphicalPeak(
  watershed: Watershed,
  on: StormOn,
  more: { readonly tcMin: number; readonly runoffMm: number; readonly rainMm: number; readonly sheet: Worksheet },
): number | null {
  const region = regionOf(on.rain);
  const { tcMin, runoffMm, rainMm, sheet } = more;
  if (region === null || rainMm <= 0) return null;
  // The first loss of the whole, as its kinds of ground have it.
  const firstLossMm = abstractionOf(on.choice) * weighed(watershed.parts, (soil) => retentionOf(stormCurveNumber(soil, on.choice)));
  const qu = unitPeakOf(region, firstLossMm / rainMm, Math.min(10, tcMin / 60));
  return sheet.use(GRAPHICAL_PEAK, { qu, A: watershed.gathered.catchment.areaM2 / 1e6, Q: runoffMm, Fp: 1 });
}

/** The peak of a hydrograph and when it passes, counted from the beginning of the rain. */
export function peakOf(flowM3s: Float64Array, stepS: number): { readonly peakM3s: number; readonly peakAtS: number } {
  let at = 0;
  for (let i = 1; i < flowM3s.length; i++) if (flowM3s[i] > flowM3s[at]) at = i;
  return { peakM3s: flowM3s[at] ?? 0, peakAtS: (at + 1) * stepS };
}

/** Hydrograph of a catchment alone. */
export function flowOf(
  watershed: Watershed,
  { storm, choice }: StormOn,
  tcMin: number,
): { readonly flowM3s: Float64Array; readonly parted: CatchmentParted } {
  const stepS = storm.stepMin * 60;
  const parted = partCatchment(storm.stepsMm, stepS / 3600, { parts: watershed.parts, choice });
  const flowM3s = hydrograph({
    areaM2: watershed.gathered.catchment.areaM2,
    concentrationMin: tcMin,
    runoffMm: parted.runsMm,
    stepS,
    ...(choice.peakFactor === undefined ? {} : { peakFactor: choice.peakFactor }),
  });
  return { flowM3s, parted };
}

export interface Peaks {
  /** By each way; null where it cannot be worked out [m3/s]. */
  readonly by: Readonly<Record<PeakMethod, number | null>> & { readonly larger: number };
  readonly rational: RationalPeaks;
}

/** The peak of a catchment by every way to it, the working of those that are worked by hand recorded. */
export function peaksOf(
  watershed: Watershed,
  on: StormOn,
  found: {
    readonly tcMin: number;
    readonly runoffMm: number;
    readonly rainMm: number;
    readonly hydrographM3s: number;
    readonly sheet: Worksheet;
  },
): Peaks {
  const rational = rationalPeaks(watershed, on, found);
  const hydrograph = found.hydrographM3s;
  const by = {
    larger: Math.max(hydrograph, rational.rare),
    hydrograph,
    rational: rational.plain,
    'rational-rare': rational.rare,
    graphical: graphicalPeak(watershed, on, found),
  };
  return { by, rational };
}

/** Volume, peaks and hydrograph of one catchment in the design storm. */
export function runoffOf(watershed: Watershed, on: StormOn & { readonly tcMin: number }): CatchmentRunoff {
  const { rain, storm, choice, tcMin } = on;
  const { catchment } = watershed.gathered;
  const sheet = new Worksheet(catchment.of);
  const totals = totalsOf(rain.table, rain.storm);
  const rainMm = totals.isOwn ? storm.depthMm : totals.times * recordedDepth(rain, rain.storm.durationMin, sheet);
  const { flowM3s, parted } = flowOf(watershed, on, tcMin);
  const runoffMm = recordRunoff(watershed, parted, { ...on, rainMm, sheet });
  const { peakM3s, peakAtS } = peakOf(flowM3s, storm.stepMin * 60);
  const { by, rational } = peaksOf(watershed, on, { tcMin, runoffMm, rainMm, hydrographM3s: peakM3s, sheet });
  const Tp = sheet.use(UNIT_TIME_TO_PEAK, { D: storm.stepMin / 60, tc: tcMin / 60 });
  const unit = { A: catchment.areaM2 / 1e6, Q: 1, Tp };
  if (choice.peakFactor === undefined) sheet.use(UNIT_PEAK, unit);
  else sheet.use(UNIT_PEAK_BY_FACTOR, { F: choice.peakFactor, ...unit });
  return {
    flowM3s,
    lines: sheet.lines,
    runoff: asItself({
      of: catchment.of,
      rainMm,
      curveNumber: watershed.curveNumber,
      runoffC: watershed.runoffC,
      runoffMm,
      soaksMm: parted.soaksMm,
      standsMm: parted.standsMm,
      volumeM3: (runoffMm / 1000) * catchment.areaM2,
      tcMin,
      intensityMmPerHour: rational.intensity,
      rationalPeakM3s: rational.plain,
      rarePeakM3s: rational.rare,
      hydrographPeakM3s: peakM3s,
      peakAtS,
      sealedPeakM3s: rational.sealed,
      chosenPeakM3s: by[choice.peak] ?? by.larger,
      choice: { time: choice.time, peak: choice.peak, loss: choice.loss },
    }),
  };
}
