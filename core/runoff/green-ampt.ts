// Infiltration behind a wetting front (Green & Ampt 1911), as in Chow, Maidment & Mays (1988) sections 4.3 and 4.4.
import { defineFormula } from '../formula/index.ts';
import type { StepLaw } from './step-law.ts';

export interface GreenAmpt {
  readonly conductivityMmPerHour: number;
  /** Suction at the front times the share of the soil it fills [mm]. */
  readonly suctionMm: number;
}

/** Less than this is nothing to a gauge or a plant [mm], and would only be lost in rounding. */
const NOTHING_MM = 1e-9;

/** Depth that has soaked in after a time under ponded water, from a depth already soaked in: the implicit law by Newton [mm]. */
export function soakedAfter({ conductivityMmPerHour: K, suctionMm: s }: GreenAmpt, hours: number, fromMm = 0): number {
  const byWeight = K * hours;
  if (!(byWeight > NOTHING_MM)) return fromMm;
  if (s <= NOTHING_MM) return fromMm + byWeight;
  // x − s·ln(1 + x/(F0 + s)) = K·t is convex in what is added, x: from above (e^y >= 1 + y + y²/2) Newton closes in without overshooting.
  let x = byWeight + Math.sqrt(2 * s * byWeight);
  for (let k = 0; k < 60; k++) {
    const step = (x - s * Math.log1p(x / (fromMm + s)) - byWeight) / ((fromMm + x) / (fromMm + s + x));
    x -= step;
    if (Math.abs(step) <= 1e-12 * Math.max(1, x)) break;
  }
  return fromMm + Math.max(0, x);
}

/** Rain that does not soak in, step after step. Water that ponds runs off; between bursts the front stands still. */
export function greenAmptLaw(soil: GreenAmpt): StepLaw {
  const { conductivityMmPerHour: K, suctionMm: s } = soil;
  let F = 0;
  return (rain, hours) => {
    const intensity = rain / hours;
    if (intensity <= K) {
      F += rain;
      return 0;
    }
    // The depth at which the soil can just take this intensity: until then all soaks in.
    const ponding = (K * s) / (intensity - K);
    const before = Math.max(0, Math.min(rain, ponding - F));
    const soaked = soakedAfter(soil, hours - before / intensity, F + before) - F;
    const taken = Math.min(rain, soaked);
    F += taken;
    return rain - taken;
  };
}

const soilSymbols = {
  K: { means: 'effective conductivity', unit: 'mm/h', domain: 'positive' },
  s: { means: 'suction at the wetting front times the share of soil it fills', unit: 'mm', domain: 'nonNegative' },
} as const;

export const GREEN_AMPT_DEPTH = defineFormula(
  {
    id: 'runoff.green-ampt-depth',
    title: 'Water soaked in under a pond',
    statement: 'F − s·ln(1 + F/s) = K·t',
    symbols: { ...soilSymbols, t: { means: 'time under ponded water', unit: 'h', domain: 'nonNegative' } },
    result: { symbol: 'F', means: 'depth soaked in', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'eq. 4.3.8', fromMemory: true },
  },
  ({ K, s, t }) => soakedAfter({ conductivityMmPerHour: K, suctionMm: s }, t),
);

export const GREEN_AMPT_RATE = defineFormula(
  {
    id: 'runoff.green-ampt-rate',
    title: 'Rate at which ponded ground takes water',
    statement: 'f = K · (1 + s/F)',
    symbols: { ...soilSymbols, F: { means: 'depth soaked in so far', unit: 'mm', domain: 'positive' } },
    result: { symbol: 'f', means: 'infiltration rate', unit: 'mm/h' },
    source: { key: 'chow-1988', locator: 'eq. 4.3.7', fromMemory: true },
  },
  ({ K, s, F }) => K * (1 + s / F),
);

export const PONDING_TIME = defineFormula(
  {
    id: 'runoff.ponding-time',
    title: 'Time until water stands',
    statement: 'tp = K·s / (i·(i − K)) when i > K',
    symbols: { ...soilSymbols, i: { means: 'steady rain', unit: 'mm/h', domain: 'positive' } },
    result: { symbol: 'tp', means: 'time', unit: 'h' },
    source: { key: 'chow-1988', locator: 'eq. 4.4.2', fromMemory: true },
    limits: 'Rain no heavier than K never stands: the result is then endless.',
  },
  ({ K, s, i }) => (i > K ? (K * s) / (i * (i - K)) : Infinity),
);
