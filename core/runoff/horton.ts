// Infiltration that slackens with wetting: Horton (1933), Philip (1957), and a constant rate after a first loss.
import { defineFormula } from '../formula/index.ts';

export interface Horton {
  readonly firstMmPerHour: number;
  readonly lastMmPerHour: number;
  readonly decayPerHour: number;
}

/** Depth the ground can have taken in after a time of plenty [mm]. */
export function hortonDepth({ firstMmPerHour: f0, lastMmPerHour: fc, decayPerHour: k }: Horton, hours: number): number {
  return fc * hours - ((f0 - fc) / k) * Math.expm1(-k * hours);
}

/** The time of plenty after which a depth has soaked in: by Newton on the rising, concave law [h]. */
function hortonTime(soil: Horton, depthMm: number): number {
  const { firstMmPerHour: f0, lastMmPerHour: fc, decayPerHour: k } = soil;
  if (depthMm <= 0 || f0 <= 0) return 0;
  // From below, a concave law is never overshot.
  let t = depthMm / f0;
  for (let n = 0; n < 60; n++) {
    const rate = fc + (f0 - fc) * Math.exp(-k * t);
    if (rate <= 1e-12) break;
    const step = (depthMm - hortonDepth(soil, t)) / rate;
    t += step;
    if (Math.abs(step) <= 1e-12 * Math.max(1, t)) break;
  }
  return t;
}

/** Rain that does not soak in, in each step [mm]. The ground slackens with what it took in, not with the clock. */
export function hortonExcess(stepsMm: Float64Array, stepH: number, soil: Horton): Float64Array {
  const out = new Float64Array(stepsMm.length);
  let t = 0;
  let soaked = 0;
  for (let i = 0; i < stepsMm.length; i++) {
    const rain = stepsMm[i];
    if (rain === 0) continue;
    const could = hortonDepth(soil, t + stepH) - soaked;
    if (rain >= could) {
      out[i] = rain - could;
      t += stepH;
      soaked += could;
    } else {
      soaked += rain;
      t = hortonTime(soil, soaked);
    }
  }
  return out;
}

/** Rain left after a first loss and a constant rate, in each step [mm]. */
export function constantExcess(
  stepsMm: Float64Array,
  stepH: number,
  of: { readonly firstMm: number; readonly rateMmPerHour: number },
): Float64Array {
  const out = new Float64Array(stepsMm.length);
  let first = of.firstMm;
  for (let i = 0; i < stepsMm.length; i++) {
    const held = Math.min(first, stepsMm[i]);
    first -= held;
    // The rate counts for the part of the step that is left when the first loss is full.
    const share = stepsMm[i] > 0 ? 1 - held / stepsMm[i] : 0;
    out[i] = Math.max(0, stepsMm[i] - held - of.rateMmPerHour * stepH * share);
  }
  return out;
}

const hortonSymbols = {
  f0: { means: 'rate at first', unit: 'mm/h', domain: 'nonNegative' },
  fc: { means: 'rate at last', unit: 'mm/h', domain: 'nonNegative' },
  k: { means: 'how fast it slackens', unit: '1/h', domain: 'positive' },
  t: { means: 'time with water to spare', unit: 'h', domain: 'nonNegative' },
} as const;

export const HORTON_RATE = defineFormula(
  {
    id: 'runoff.horton-rate',
    title: 'Slackening infiltration',
    statement: 'f = fc + (f0 − fc)·exp(−k·t)',
    symbols: hortonSymbols,
    result: { symbol: 'f', means: 'infiltration rate', unit: 'mm/h' },
    source: { key: 'chow-1988', locator: 'eq. 4.2.3 (Horton 1933)', fromMemory: true },
  },
  ({ f0, fc, k, t }) => fc + (f0 - fc) * Math.exp(-k * t),
);

export const HORTON_DEPTH = defineFormula(
  {
    id: 'runoff.horton-depth',
    title: 'Water soaked in while infiltration slackens',
    statement: 'F = fc·t + (f0 − fc)·(1 − exp(−k·t))/k',
    symbols: hortonSymbols,
    result: { symbol: 'F', means: 'depth soaked in', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'section 4.2 (Horton 1933)', fromMemory: true },
  },
  ({ f0, fc, k, t }) => hortonDepth({ firstMmPerHour: f0, lastMmPerHour: fc, decayPerHour: k }, t),
);

export const PHILIP_DEPTH = defineFormula(
  {
    id: 'runoff.philip-depth',
    title: 'Water soaked in by suction and by weight',
    statement: 'F = S·√t + K·t',
    symbols: {
      S: { means: 'sorptivity', unit: 'mm/h^0.5', domain: 'nonNegative' },
      K: { means: 'conductivity', unit: 'mm/h', domain: 'nonNegative' },
      t: { means: 'time', unit: 'h', domain: 'nonNegative' },
    },
    result: { symbol: 'F', means: 'depth soaked in', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'eq. 4.2.5 (Philip 1957)', fromMemory: true },
  },
  ({ S, K, t }) => S * Math.sqrt(t) + K * t,
);
