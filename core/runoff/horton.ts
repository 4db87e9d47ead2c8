// Infiltration that slackens with wetting: Horton (1933), Philip (1957), and a constant rate after a first loss.
import { defineFormula } from '../formula/index.ts';
import type { StepLaw } from './step-law.ts';

export interface Horton {
  readonly firstMmPerHour: number;
  readonly lastMmPerHour: number;
  readonly decayPerHour: number;
}

/** From here on the rate is its last, to a millionth part: exp(−14). */
const SPENT = 14;

/** Depth the ground can have taken in after a time of plenty [mm]. */
export function hortonDepth({ firstMmPerHour: f0, lastMmPerHour: fc, decayPerHour: k }: Horton, hours: number): number {
  return fc * hours - ((f0 - fc) / k) * Math.expm1(-k * hours);
}

/** The time of plenty after which a depth has soaked in, later than one known: by Newton on the rising, concave law [h]. */
function hortonTime(
  { f0, fc, k }: { readonly f0: number; readonly fc: number; readonly k: number },
  depthMm: number,
  fromH: number,
): number {
  // From below, a concave law is never overshot.
  let t = fromH;
  for (let n = 0; n < 60; n++) {
    const left = Math.exp(-k * t);
    const rate = fc + (f0 - fc) * left;
    if (rate <= 1e-12) break;
    const step = (depthMm - (fc * t + ((f0 - fc) / k) * (1 - left))) / rate;
    t += step;
    if (Math.abs(step) <= 1e-9 * Math.max(1, t)) break;
  }
  return t;
}

/** Rain that does not soak in, step after step. The ground slackens with what it took in, not with the clock. */
export function hortonLaw(soil: Horton): StepLaw {
  const { firstMmPerHour: f0, lastMmPerHour: fc, decayPerHour: k } = soil;
  let t = 0;
  let soaked = 0;
  return (rain, hours) => {
    if (k * t > SPENT && rain <= fc * hours) {
      soaked += rain;
      t += rain / fc;
      return 0;
    }
    const could = hortonDepth(soil, t + hours) - soaked;
    if (rain >= could) {
      t += hours;
      soaked += could;
      return rain - could;
    }
    soaked += rain;
    t = hortonTime({ f0, fc, k }, soaked, t);
    return 0;
  };
}

/** Rain left after a first loss and a constant rate, step after step. */
export function constantLaw(of: { readonly firstMm: number; readonly rateMmPerHour: number }): StepLaw {
  let first = of.firstMm;
  return (rain, hours) => {
    const held = Math.min(first, rain);
    first -= held;
    // The rate counts for the part of the step that is left when the first loss is full.
    return Math.max(0, rain - held - of.rateMmPerHour * hours * (1 - held / rain));
  };
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
