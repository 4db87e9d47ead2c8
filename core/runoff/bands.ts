// How sure a volume and a peak are when what the ground takes in is only known between limits.
import { randomFrom } from '../rain/index.ts';
import type { GroundPart } from './catchment.ts';
import { type LossChoice, type LossSoil, partRain } from './losses.ts';
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
  readonly samples: number;
  readonly seed: number;
}

/** Greatest value of a convolution within a window of its steps: the part of `convolve` a peak needs. */
function peakWithin(values: Float64Array, unit: Float64Array, [from, to]: Limits): number {
  let peak = 0;
  for (let i = from; i <= to; i++) {
    let flow = 0;
    const last = Math.min(unit.length - 1, i);
    for (let k = Math.max(0, i - values.length + 1); k <= last; k++) flow += values[i - k] * unit[k];
    if (flow > peak) peak = flow;
  }
  return peak;
}

/** Bands of runoff and peak by drawing each kind of ground many times; the same seed gives the same bands. */
export function runoffBands(input: BandsInput): RunoffBands {
  const { parts, choice, stepsMm, stepS, samples } = input;
  const random = randomFrom(input.seed);
  const area = parts.reduce((a, p) => a + p.areaM2, 0);
  const unit = unitShares(input.concentrationMin, stepS);
  const runs = new Float64Array(stepsMm.length);
  const shed = (soils: readonly LossSoil[]): number => {
    let whole = 0;
    runs.fill(0);
    soils.forEach((soil, p) => {
      const share = parts[p].areaM2 / area;
      const own = partRain(stepsMm, stepS / 3600, { soil, choice }).runsMm;
      for (let i = 0; i < runs.length; i++) {
        runs[i] += share * own[i];
        whole += share * own[i];
      }
    });
    return whole;
  };
  // The peak hardly moves in time: it is sought around where it stands with the ground at its limits and between.
  const peaks = [-2.5, -1, 0, 1, 2.5].map((z) => {
    shed(parts.map((p) => drawn(p, [z, 0])));
    const flow = convolve(runs, unit);
    return flow.indexOf(Math.max(...flow));
  });
  const window: Limits = [Math.max(0, Math.min(...peaks) - 4), Math.min(runs.length + unit.length - 2, Math.max(...peaks) + 4)];
  const toFlow = area / 1000 / stepS;
  const [volumes, tops] = [new Float64Array(samples), new Float64Array(samples)];
  for (let n = 0; n < samples; n++) {
    volumes[n] = shed(parts.map((p) => drawn(p, p.soil.cover.isSealed ? [0, 0] : normalPair(random))));
    tops[n] = toFlow * peakWithin(runs, unit, window);
  }
  return { runoffMm: bandOf(volumes), peakM3s: bandOf(tops), samples };
}

/** Where no limits are given: rates known by a test within half, else within three times; curve numbers within five: common practice. */
export const [TESTED_SPREAD, GUESSED_SPREAD, NUMBER_SPREAD] = [1.5, 3, 5];
