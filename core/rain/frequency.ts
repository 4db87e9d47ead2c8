// How rare a rain is: moments, L-moments, the two distributions of yearly maxima, plotting positions and chances.
import { defineFormula } from '../formula/index.ts';

/** First L-moments of a sample and the ratio that tells its skew. */
export interface LMoments {
  readonly l1: number;
  readonly l2: number;
  readonly l3: number;
  /** L-skewness l3 / l2; NaN for a sample without spread. */
  readonly t3: number;
}

/**
 * L-moments of a sample in any order, by unbiased probability-weighted moments (Hosking 1990, J. R. Stat. Soc. B 52).
 * @throws RangeError for fewer than three values: the third moment needs them.
 */
export function lMoments(values: ArrayLike<number>): LMoments {
  const n = values.length;
  if (n < 3) throw new RangeError(`L-moments need at least 3 values, not ${n}`);
  const x = Float64Array.from(values).sort();
  let [b0, b1, b2] = [0, 0, 0];
  for (let j = 0; j < n; j++) {
    b0 += x[j];
    b1 += (j / (n - 1)) * x[j];
    b2 += ((j * (j - 1)) / ((n - 1) * (n - 2))) * x[j];
  }
  [b0, b1, b2] = [b0 / n, b1 / n, b2 / n];
  const [l2, l3] = [2 * b1 - b0, 6 * b2 - 6 * b1 + b0];
  return { l1: b0, l2, l3, t3: l3 / l2 };
}

const EULER = 0.5772156649015329;

export type Distribution =
  | { readonly kind: 'gumbel'; readonly location: number; readonly scale: number }
  /** `shape` is Hosking's k: above 0 the rain has a greatest value, below 0 its tail is heavier than Gumbel's. */
  | { readonly kind: 'gev'; readonly location: number; readonly scale: number; readonly shape: number };

/** Gumbel distribution by L-moments (Hosking 1990). */
export function gumbelByLMoments({ l1, l2 }: LMoments): Distribution {
  const scale = l2 / Math.LN2;
  return { kind: 'gumbel', location: l1 - EULER * scale, scale };
}

/** Generalised extreme value distribution by L-moments (Hosking, Wallis & Wood 1985, Technometrics 27: their k within 9e-4 for -0.5 < t3 < 0.5). */
export function gevByLMoments({ l1, l2, t3 }: LMoments): Distribution {
  const c = 2 / (3 + t3) - Math.LN2 / Math.log(3);
  const shape = 7.859 * c + 2.9554 * c * c;
  if (Math.abs(shape) < 1e-6) return { ...gumbelByLMoments({ l1, l2, l3: 0, t3 }), kind: 'gumbel' };
  const g = gamma(1 + shape);
  const scale = (l2 * shape) / ((1 - 2 ** -shape) * g);
  return { kind: 'gev', location: l1 - (scale * (1 - g)) / shape, scale, shape };
}

/**
 * Whether a fitted shape may be chance, so that Gumbel's two parameters do: |k|·√(n/0.5633) below 1.645, nine times in ten where
 * Gumbel is true (Hosking, Wallis & Wood 1985, section 5; from memory).
 */
export const gumbelSuffices = (gev: Distribution, n: number): boolean =>
  gev.kind === 'gumbel' || Math.abs(gev.shape) * Math.sqrt(n / 0.5633) < 1.645;

/** Gamma function of a real number above 0 (Lanczos with g = 7, nine terms: relative error under 1e-14). */
export function gamma(x: number): number {
  if (x < 0.5) return Math.PI / (Math.sin(Math.PI * x) * gamma(1 - x));
  const terms = [
    676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012,
    9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  const z = x - 1;
  const t = z + 7.5;
  const sum = terms.reduce((a, c, i) => a + c / (z + i + 1), 0.99999999999980993);
  return Math.sqrt(2 * Math.PI) * t ** (z + 0.5) * Math.exp(-t) * sum;
}

/** Value not exceeded with probability `p` in a year. */
export function quantile(d: Distribution, p: number): number {
  const y = -Math.log(-Math.log(p));
  if (d.kind === 'gumbel') return d.location + d.scale * y;
  return d.location + (d.scale / d.shape) * (1 - Math.exp(-d.shape * y));
}

/** Depth of a return period of yearly maxima [the sample's unit]. @throws RangeError unless it is above 1 year. */
export function depthOfReturn(d: Distribution, years: number): number {
  if (!(years > 1)) throw new RangeError(`a return period of yearly maxima is above 1 year, not ${years}`);
  return quantile(d, 1 - 1 / years);
}

/** Chance that a year's greatest stays at or below `value`. */
export function chanceBelow(d: Distribution, value: number): number {
  const s = (value - d.location) / d.scale;
  if (d.kind === 'gumbel') return Math.exp(-Math.exp(-s));
  const inner = 1 - d.shape * s;
  if (inner <= 0) return d.shape > 0 ? 1 : 0;
  return Math.exp(-(inner ** (1 / d.shape)));
}

/** Return period of a value [years]; Infinity above the greatest a bounded distribution knows. */
export function returnOf(d: Distribution, value: number): number {
  const above = 1 - chanceBelow(d, value);
  return above <= 0 ? Infinity : 1 / above;
}

/** A yearly maximum with the return period its rank suggests. */
export interface Plotted {
  readonly value: number;
  readonly returnYears: number;
}

/** Plotting positions, greatest first, by Gringorten's rule for Gumbel paper: T = (n + 0.12) / (m - 0.44). */
export function plottingPositions(values: ArrayLike<number>): Plotted[] {
  const n = values.length;
  return Array.from(values)
    .sort((a, b) => b - a)
    .map((value, i) => ({ value, returnYears: (n + 0.12) / (i + 1 - 0.44) }));
}

export const GUMBEL_FACTOR = defineFormula(
  {
    id: 'rain.gumbel-factor',
    title: 'Frequency factor of the Gumbel distribution',
    statement: 'K = -(√6/π) · (0.5772 + ln ln(T / (T - 1)))',
    symbols: { T: { means: 'return period', unit: 'years', domain: 'positive', range: [1.01, 1000] } },
    result: { symbol: 'K', means: 'standard deviations above the mean', unit: '1' },
    source: { key: 'chow-1988', locator: 'eq. 12.3.8', fromMemory: true },
    limits: 'Yearly maxima; T above 1 year.',
  },
  ({ T }) => -(Math.sqrt(6) / Math.PI) * (EULER + Math.log(Math.log(T / (T - 1)))),
);

export const GUMBEL_SCALE = defineFormula(
  {
    id: 'rain.gumbel-scale',
    title: 'Scale of the Gumbel distribution by moments',
    statement: 'alpha = √6 · s / π',
    symbols: { s: { means: 'standard deviation of the yearly maxima', unit: 'mm', domain: 'positive' } },
    result: { symbol: 'alpha', means: 'scale of the fit', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'section 12.2', fromMemory: true },
  },
  ({ s }) => (Math.sqrt(6) * s) / Math.PI,
);

export const GUMBEL_LOCATION = defineFormula(
  {
    id: 'rain.gumbel-location',
    title: 'Location of the Gumbel distribution by moments',
    statement: 'u = m - 0.5772 · alpha',
    symbols: {
      m: { means: 'mean of the yearly maxima', unit: 'mm', domain: 'finite' },
      alpha: { means: 'scale of the fit', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 'u', means: 'location of the fit', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'section 12.2', fromMemory: true },
  },
  ({ m, alpha }) => m - EULER * alpha,
);

export const GUMBEL_DEPTH = defineFormula(
  {
    id: 'rain.gumbel-depth',
    title: 'Rain of a return period by Gumbel',
    statement: 'x = u - alpha · ln(-ln(1 - 1/T))',
    symbols: {
      u: { means: 'location of the fit', unit: 'mm', domain: 'finite' },
      alpha: { means: 'scale of the fit', unit: 'mm', domain: 'positive' },
      T: { means: 'return period', unit: 'years', domain: 'positive', range: [1.01, 1000] },
    },
    result: { symbol: 'x', means: 'rain depth', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'section 12.2', fromMemory: true },
    limits: 'Yearly maxima; T above 1 year. Beyond two to three times the years of record it is a guess.',
  },
  ({ u, alpha, T }) => u - alpha * Math.log(-Math.log(1 - 1 / T)),
);

export const GEV_DEPTH = defineFormula(
  {
    id: 'rain.gev-depth',
    title: 'Rain of a return period by the generalised extreme value distribution',
    statement: 'x = xi + (alpha/k) · (1 - (-ln(1 - 1/T))^k)',
    symbols: {
      xi: { means: 'location of the fit', unit: 'mm', domain: 'finite' },
      alpha: { means: 'scale of the fit', unit: 'mm', domain: 'positive' },
      k: { means: 'shape of the fit, not 0', unit: '1', domain: 'finite', range: [-0.5, 0.5] },
      T: { means: 'return period', unit: 'years', domain: 'positive', range: [1.01, 1000] },
    },
    result: { symbol: 'x', means: 'rain depth', unit: 'mm' },
    source: { key: 'hosking-1985', locator: 'eq. 1 and section 3', fromMemory: true },
    limits: 'Yearly maxima; at least about 20 years of record. Beyond two to three times the years of record it is a guess.',
  },
  ({ xi, alpha, k, T }) => xi + (alpha / k) * (1 - (-Math.log(1 - 1 / T)) ** k),
);

export const PARTIAL_RETURN = defineFormula(
  {
    id: 'rain.partial-duration',
    title: 'Return period among all great rains from that of yearly maxima',
    statement: 'Tp = 1 / (ln T - ln(T - 1))',
    symbols: { T: { means: 'return period of yearly maxima', unit: 'years', domain: 'positive', range: [1.01, 1000] } },
    result: { symbol: 'Tp', means: 'return period counting every great rain', unit: 'years' },
    source: { key: 'langbein-1949', locator: 'eq. 1', fromMemory: true },
  },
  ({ T }) => 1 / (Math.log(T) - Math.log(T - 1)),
);

export const CHANCE = defineFormula(
  {
    id: 'rain.chance-in-years',
    title: 'Chance that a rain is passed at least once in some years',
    statement: 'R = 1 - (1 - 1/T)^n',
    symbols: {
      T: { means: 'return period', unit: 'years', domain: 'positive', range: [1, 10000] },
      n: { means: 'years looked at', unit: 'years', domain: 'nonNegative' },
    },
    result: { symbol: 'R', means: 'chance', unit: '1' },
    source: { key: 'chow-1988', locator: 'eq. 12.1.4', fromMemory: true },
  },
  ({ T, n }) => 1 - (1 - 1 / T) ** n,
);

export const AREAL_REDUCTION = defineFormula(
  {
    id: 'rain.areal-reduction',
    title: 'Share of a point rain that falls on the average over an area',
    statement: 'ARF = 1 - exp(-1.1·t^0.25) + exp(-1.1·t^0.25 - 0.01·A)',
    symbols: {
      t: { means: 'duration', unit: 'h', domain: 'positive', range: [0.5, 24] },
      A: { means: 'area', unit: 'mi²', domain: 'nonNegative', range: [0, 400] },
    },
    result: { symbol: 'ARF', means: 'share', unit: '1' },
    source: { key: 'leclerc-1972', locator: 'fit to the curves of TP-40', fromMemory: true },
    limits: 'Below 25 km² (10 mi²) take 1.',
  },
  ({ t, A }) => 1 - Math.exp(-1.1 * t ** 0.25) + Math.exp(-1.1 * t ** 0.25 - 0.01 * A),
);
