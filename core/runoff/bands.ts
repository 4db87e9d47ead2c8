// How sure a volume and a peak are when what the ground takes in is only known between limits.
import { randomFrom } from '../rain/index.ts';
import { type GroundPart, partCatchment } from './catchment.ts';
import { type LossChoice, type LossSoil, lossOf } from './losses.ts';
import { total } from './step-law.ts';
import { convolve, unitShares } from './unit-hydrograph.ts';

/** Limits between which the truth lies nine times in ten. */
export type Limits = readonly [low: number, high: number];

export interface DoubtfulPart extends GroundPart {
  readonly infiltration: Limits;
  readonly curveNumber: Limits;
}

export interface Band {
  /** Passed from below one time in twenty, in two, and nineteen times in twenty. */
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

export interface RunoffBands {
  readonly runoffMm: Band;
  readonly peakM3s: Band;
  readonly samples: number;
}

/** Standard normal quantile of 0.95. */
const Z95 = 1.6448536269514722;

/** Two independent standard normal numbers (Box & Muller 1958). */
function normalPair(random: () => number): readonly [number, number] {
  const r = Math.sqrt(-2 * Math.log(1 - random()));
  const angle = 2 * Math.PI * random();
  return [r * Math.cos(angle), r * Math.sin(angle)];
}

/** A soil drawn at so many standard deviations: its rate spreads by times, its curve number by differences. */
function drawn({ soil, infiltration, curveNumber }: DoubtfulPart, [a, b]: readonly [number, number]): LossSoil {
  const [low, high] = infiltration.map((v) => Math.log(Math.max(1e-6, v)));
  const rate = infiltration[1] > 0 ? Math.exp((low + high) / 2 + (a * (high - low)) / 2 / Z95) : 0;
  // Ground that takes in more than thought also has the lower number: the second draw only loosens that.
  const z = -0.7 * a + Math.sqrt(1 - 0.49) * b;
  const CN = (curveNumber[0] + curveNumber[1]) / 2 + (z * (curveNumber[1] - curveNumber[0])) / 2 / Z95;
  return { ...soil, infiltrationMmPerHour: rate, curveNumber: Math.min(100, Math.max(1, CN)) };
}

function bandOf(values: Float64Array): Band {
  values.sort();
  const at = (share: number): number => values[Math.min(values.length - 1, Math.floor(share * values.length))];
  return { low: at(0.05), middle: at(0.5), high: at(0.95) };
}

export interface BandsInput {
  readonly parts: readonly DoubtfulPart[];
  readonly choice: LossChoice;
  readonly stepsMm: Float64Array;
  readonly stepS: number;
  readonly concentrationMin: number;
  readonly peakFactor?: number;
  readonly samples: number;
  readonly seed: number;
}

/** Rain in spans of uneven length. */
interface Spans {
  readonly mm: Float64Array;
  readonly hours: Float64Array;
  /** Spans from here on are single steps, as many as `fine`. */
  readonly fineFrom: number;
  readonly fine: number;
}

/** A storm of more steps than this has those away from the peak taken together, to ten minutes: their sum is what counts there. */
const MANY_STEPS = 240;
const TOGETHER_H = 1 / 6;

/** The storm with its steps whole where the peak is made, taken together before and after. */
function spansOf(stepsMm: Float64Array, stepH: number, [from, to]: Limits): Spans {
  const [mm, hours]: [number[], number[]] = [[], []];
  const together = stepsMm.length > MANY_STEPS ? Math.max(1, Math.floor(TOGETHER_H / stepH)) : 1;
  const group = (start: number, end: number): void => {
    for (let i = start; i < end; i += together) {
      const last = Math.min(end, i + together);
      mm.push(total(stepsMm.subarray(i, last)));
      hours.push((last - i) * stepH);
    }
  };
  group(0, from);
  const fineFrom = mm.length;
  for (let i = from; i < to; i++) {
    mm.push(stepsMm[i]);
    hours.push(stepH);
  }
  group(to, stepsMm.length);
  return { mm: Float64Array.from(mm), hours: Float64Array.from(hours), fineFrom, fine: to - from };
}

/** What a soil sheds in each span, added to what is there by its share of the area; returns its sum over all spans. */
function shed(
  soil: LossSoil,
  on: { readonly choice: LossChoice; readonly spans: Spans; readonly into: Float64Array; readonly share: number },
): number {
  const { choice, spans, into, share } = on;
  const { mm, hours } = spans;
  const loss = lossOf(soil, choice);
  const law = loss.law(soil, choice);
  let room = loss.fillsHollows ? soil.cover.surface.standsMm : 0;
  let sum = 0;
  for (let i = 0; i < mm.length; i++) {
    if (mm[i] === 0) continue;
    let runs = law(mm[i], hours[i]);
    if (room > 0) {
      const held = Math.min(room, runs);
      room -= held;
      runs -= held;
    }
    into[i] += share * runs;
    sum += share * runs;
  }
  return sum;
}

/** Greatest flow of the fine spans through the unit hydrograph, for runoff of one over one step. */
function peakOf(runs: Float64Array, { fineFrom, fine }: Spans, unit: Float64Array): number {
  let peak = 0;
  for (let i = fineFrom; i < fineFrom + fine; i++) {
    let flow = 0;
    const back = Math.min(unit.length - 1, i - fineFrom);
    for (let k = 0; k <= back; k++) flow += runs[i - k] * unit[k];
    if (flow > peak) peak = flow;
  }
  return peak;
}

/** Steps kept either side of where the peak was found. */
const MARGIN = 4;
/** Deviations of the rate at which the peak's time is sought [standard deviations]. */
const LOOKED_AT = [-2.5, -1, 0, 1, 2.5];

/** Bands of runoff and peak by drawing each kind of ground many times; the same seed gives the same bands. */
export function runoffBands(input: BandsInput): RunoffBands {
  const { parts, choice, stepsMm, stepS, samples } = input;
  const random = randomFrom(input.seed);
  const stepH = stepS / 3600;
  const area = parts.reduce((a, p) => a + p.areaM2, 0);
  const unit = unitShares(input.concentrationMin, stepS, input.peakFactor);
  // The peak hardly moves in time: it is sought around where it stands with the ground at its limits and between.
  const peaks = LOOKED_AT.map((z) => {
    const runs = partCatchment(stepsMm, stepH, { parts: parts.map((p) => ({ areaM2: p.areaM2, soil: drawn(p, [z, 0]) })), choice }).runsMm;
    const flow = convolve(runs, unit);
    return flow.reduce((best, v, i) => (v > flow[best] ? i : best), 0);
  });
  const from = Math.max(0, Math.min(...peaks) - unit.length - MARGIN);
  const spans = spansOf(stepsMm, stepH, [from, Math.min(stepsMm.length, Math.max(...peaks) + MARGIN + 1)]);
  const toFlow = area / 1000 / stepS;
  const [volumes, tops] = [new Float64Array(samples), new Float64Array(samples)];
  const runs = new Float64Array(spans.mm.length);
  for (let n = 0; n < samples; n++) {
    runs.fill(0);
    for (const part of parts) {
      const soil = drawn(part, part.soil.cover.isSealed ? [0, 0] : normalPair(random));
      volumes[n] += shed(soil, { choice, spans, into: runs, share: part.areaM2 / area });
    }
    tops[n] = toFlow * peakOf(runs, spans, unit);
  }
  return { runoffMm: bandOf(volumes), peakM3s: bandOf(tops), samples };
}

/** Where no limits are given: rates that no test tells within three times; curve numbers within five: common practice. */
export const [GUESSED_SPREAD, NUMBER_SPREAD] = [3, 5];
