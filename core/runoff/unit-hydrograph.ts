import { defineFormula } from '../formula/index.ts';

/** NRCS standard dimensionless unit hydrograph, peak rate factor 484 (NEH-630 ch. 16, Table 16-1; from memory). */
const T_RATIO = [
  0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.3, 1.4, 1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.2, 2.4, 2.6, 2.8, 3, 3.2, 3.4, 3.6,
  3.8, 4, 4.5, 5,
];
const Q_RATIO = [
  0, 0.03, 0.1, 0.19, 0.31, 0.47, 0.66, 0.82, 0.93, 0.99, 1, 0.99, 0.93, 0.86, 0.78, 0.68, 0.56, 0.46, 0.39, 0.33, 0.28, 0.207, 0.147,
  0.107, 0.077, 0.055, 0.04, 0.029, 0.021, 0.015, 0.011, 0.005, 0,
];

/** Peak rate factor of the standard hydrograph, and between which it may be chosen: flat wet land to steep (NEH-630 ch. 16; from memory). */
export const PEAK_FACTOR = 484;
export const [LEAST_PEAK_FACTOR, MOST_PEAK_FACTOR] = [100, 600];

/** Γ(x + 1) by Stirling's series from where it is good to nine figures, and down from there. */
function factorial(x: number): number {
  if (x < 8) return factorial(x + 1) / (x + 1);
  return Math.sqrt(2 * Math.PI * x) * (x / Math.E) ** x * Math.exp(1 / (12 * x) - 1 / (360 * x ** 3) + 1 / (1260 * x ** 5));
}

const shapes = new Map<number, number>();

/**
 * Exponent of the gamma hydrograph q/qp = (t/Tp · e^(1 − t/Tp))^m of a peak rate factor: the factor is 645.33 over the area under
 * it, e^m·Γ(m+1)/m^(m+1) (NEH-630 ch. 16, appendix; from memory).
 */
export function gammaExponent(factor: number): number {
  const known = shapes.get(factor);
  if (known !== undefined) return known;
  let [lo, hi] = [0.05, 12];
  for (let k = 0; k < 60; k++) {
    const m = (lo + hi) / 2;
    // The steeper it is, the less lies under it.
    if (645.33 / ((Math.E ** m * factorial(m)) / m ** (m + 1)) < factor) lo = m;
    else hi = m;
  }
  shapes.set(factor, (lo + hi) / 2);
  return (lo + hi) / 2;
}

/** Flow under this share of the peak is as good as none. */
const TAIL = 1e-3;

/** Times to peak until a hydrograph of a factor has run out. */
function spanOf(factor: number): number {
  if (factor === PEAK_FACTOR) return 5;
  const m = gammaExponent(factor);
  let ratio = 2;
  while ((ratio * Math.exp(1 - ratio)) ** m > TAIL) ratio += 0.25;
  return ratio;
}

/** Flow ratio q/qp at t/Tp for a peak rate factor: the standard table for 484, else the gamma hydrograph. */
function ratioOf(factor: number): (ratio: number) => number {
  if (factor === PEAK_FACTOR) return dimensionlessFlow;
  const m = gammaExponent(factor);
  return (ratio) => (ratio <= 0 ? 0 : (ratio * Math.exp(1 - ratio)) ** m);
}

/** Flow ratio q/qp of the dimensionless unit hydrograph at t/Tp, straight between its published points. */
export function dimensionlessFlow(ratio: number): number {
  if (ratio <= 0 || ratio >= 5) return 0;
  let k = 1;
  while (T_RATIO[k] < ratio) k++;
  const share = (ratio - T_RATIO[k - 1]) / (T_RATIO[k] - T_RATIO[k - 1]);
  return Q_RATIO[k - 1] + share * (Q_RATIO[k] - Q_RATIO[k - 1]);
}

export const UNIT_TIME_TO_PEAK = defineFormula(
  {
    id: 'runoff.unit-time-to-peak',
    title: 'Time to peak of the unit hydrograph',
    statement: 'Tp = D/2 + 0.6·tc',
    symbols: {
      D: { means: 'unit duration', unit: 'h', domain: 'positive' },
      tc: { means: 'time of concentration', unit: 'h', domain: 'positive' },
    },
    result: { symbol: 'Tp', means: 'time to peak', unit: 'h' },
    source: { key: 'neh630-16', locator: 'eq. 16-9', fromMemory: true },
  },
  ({ D, tc }) => D / 2 + 0.6 * tc,
);

export const UNIT_PEAK = defineFormula(
  {
    id: 'runoff.unit-peak',
    title: 'Peak of the unit hydrograph',
    statement: 'qp = 0.208 · A · Q / Tp',
    symbols: {
      A: { means: 'catchment area', unit: 'km²', domain: 'nonNegative' },
      Q: { means: 'runoff depth', unit: 'mm', domain: 'nonNegative' },
      Tp: { means: 'time to peak', unit: 'h', domain: 'positive' },
    },
    result: { symbol: 'qp', means: 'peak flow', unit: 'm³/s' },
    source: { key: 'neh630-16', locator: 'eq. 16-6 in SI', fromMemory: true },
    limits: 'Peak rate factor 484; flat or very steep land differs (100 to 600).',
  },
  ({ A, Q, Tp }) => (0.208 * A * Q) / Tp,
);

export const UNIT_PEAK_BY_FACTOR = defineFormula(
  {
    id: 'runoff.unit-peak-by-factor',
    title: 'Peak of the unit hydrograph of another peak rate factor',
    statement: 'qp = 0.208 · F/484 · A · Q / Tp',
    symbols: {
      F: { means: 'peak rate factor', unit: '', domain: 'positive', range: [LEAST_PEAK_FACTOR, MOST_PEAK_FACTOR] },
      A: { means: 'catchment area', unit: 'km²', domain: 'nonNegative' },
      Q: { means: 'runoff depth', unit: 'mm', domain: 'nonNegative' },
      Tp: { means: 'time to peak', unit: 'h', domain: 'positive' },
    },
    result: { symbol: 'qp', means: 'peak flow', unit: 'm³/s' },
    source: { key: 'neh630-16', locator: 'peak rate factors', fromMemory: true },
  },
  ({ F, A, Q, Tp }) => (((0.208 * F) / PEAK_FACTOR) * A * Q) / Tp,
);

export interface HydrographInput {
  readonly areaM2: number;
  readonly concentrationMin: number;
  /** Runoff in each step [mm]. */
  readonly runoffMm: Float64Array;
  readonly stepS: number;
  readonly peakFactor?: number;
}

/**
 * Share of a step's runoff that has left by each later step: the dimensionless unit hydrograph, its ordinates scaled so that
 * they add up to one. The step should be at most 0.133 tc (NEH-630 ch. 16).
 */
export function unitShares(concentrationMin: number, stepS: number, peakFactor = PEAK_FACTOR): Float64Array {
  const peakS = stepS / 2 + 0.6 * concentrationMin * 60;
  const span = Math.max(1, Math.ceil((spanOf(peakFactor) * peakS) / stepS));
  const unit = new Float64Array(span);
  const flowAt = ratioOf(peakFactor);
  let sum = 0;
  for (let k = 0; k < span; k++) {
    unit[k] = flowAt(((k + 1) * stepS) / peakS);
    sum += unit[k];
  }
  if (sum === 0) {
    unit[0] = 1; // a catchment quicker than the step: it leaves as it falls
    sum = 1;
  }
  for (let k = 0; k < span; k++) unit[k] /= sum;
  return unit;
}

/** Each value spread over the later ones by the shares of a unit: the sum of all. */
export function convolve(values: Float64Array, unit: Float64Array): Float64Array {
  const out = new Float64Array(values.length + unit.length - 1);
  // Most of a storm's hours send nothing yet, or no more.
  let first = 0;
  while (first < values.length && values[first] === 0) first++;
  let last = values.length - 1;
  while (last > first && values[last] === 0) last--;
  const ends = Math.min(out.length, last + unit.length);
  for (let j = first; j < ends; j++) {
    const to = Math.min(last, j);
    let sum = 0;
    for (let i = Math.max(first, j - unit.length + 1); i <= to; i++) sum += values[i] * unit[j - i];
    out[j] = sum;
  }
  return out;
}

/** Flow at the end of each step [m3/s]: runoff through the unit hydrograph. Its discrete volume is exactly area x runoff. */
export function hydrograph({ areaM2, concentrationMin, runoffMm, stepS, peakFactor }: HydrographInput): Float64Array {
  const toFlow = areaM2 / 1000 / stepS;
  const flow = convolve(runoffMm, unitShares(concentrationMin, stepS, peakFactor));
  for (let i = 0; i < flow.length; i++) flow[i] *= toFlow;
  return flow;
}
