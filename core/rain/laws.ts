// Laws of samples and storms that take lists: moments, fits, and the blocks of a design storm.
import { defineLaw } from '../formula/index.ts';
import { PATTERNS, patternShare } from './design.ts';
import { gevByLMoments, gumbelByLMoments, lMoments } from './frequency.ts';
import { alternating } from './storm.ts';

const sample = { x: { means: 'yearly maxima', unit: 'mm', domain: 'finite', many: true } } as const;
const mean = (x: readonly number[]): number => x.reduce((a, v) => a + v, 0) / x.length;

export const SAMPLE_MEAN = defineLaw(
  {
    id: 'rain.sample-mean',
    title: 'Mean of a sample',
    statement: 'm = Σx / n',
    symbols: sample,
    result: { symbol: 'm', means: 'mean', unit: 'mm' },
    source: { key: 'geometry', locator: 'arithmetic mean' },
  },
  ({ x }) => mean(x),
);

export const SAMPLE_DEVIATION = defineLaw(
  {
    id: 'rain.sample-deviation',
    title: 'Standard deviation of a sample',
    statement: 's = √(Σ(x − m)² / (n − 1))',
    symbols: sample,
    result: { symbol: 's', means: 'standard deviation', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'Table 11.3.1', fromMemory: true },
  },
  ({ x }) => {
    if (x.length < 2) throw new RangeError(`rain.sample-deviation: x needs at least 2 values, got ${x.length}`);
    const m = mean(x);
    return Math.sqrt(x.reduce((a, v) => a + (v - m) ** 2, 0) / (x.length - 1));
  },
);

export const L_MOMENTS = defineLaw(
  {
    id: 'rain.l-moments',
    title: 'L-moments of a sample',
    statement: 'L1 = b0, L2 = 2·b1 − b0, t3 = (6·b2 − 6·b1 + b0) / L2, by unbiased weighted moments b',
    symbols: sample,
    result: { symbol: 'L1, L2, t3', means: 'first two L-moments, and L-skewness', unit: 'mm, mm, –' },
    source: { key: 'hosking-1990', locator: 'probability-weighted moments', fromMemory: true },
  },
  ({ x }) => {
    const { l1, l2, t3 } = lMoments(x);
    return [l1, l2, t3];
  },
);

export const GUMBEL_FIT = defineLaw(
  {
    id: 'rain.gumbel-fit',
    title: 'Gumbel distribution of a sample by its L-moments',
    statement: 'alpha = L2 / ln 2, u = L1 − 0.5772·alpha',
    symbols: sample,
    result: { symbol: 'u, alpha', means: 'location and scale', unit: 'mm, mm' },
    source: { key: 'hosking-1990', locator: 'Gumbel by L-moments', fromMemory: true },
  },
  ({ x }) => {
    const { location, scale } = gumbelByLMoments(lMoments(x));
    return [location, scale];
  },
);

export const GEV_FIT = defineLaw(
  {
    id: 'rain.gev-fit',
    title: 'Generalised extreme value distribution of a sample by its L-moments',
    statement:
      'c = 2/(3 + t3) − ln 2/ln 3, k = 7.859·c + 2.9554·c², alpha = L2·k / ((1 − 2^−k)·Γ(1 + k)), xi = L1 − alpha·(1 − Γ(1 + k))/k',
    symbols: sample,
    result: { symbol: 'xi, alpha, k', means: 'location, scale and shape', unit: 'mm, mm, –' },
    source: { key: 'hosking-1985', locator: 'approximation of k', fromMemory: true },
    limits: 'Fewer than twenty years say little of a third parameter.',
  },
  ({ x }) => {
    const fit = gevByLMoments(lMoments(x));
    return [fit.location, fit.scale, fit.kind === 'gev' ? fit.shape : 0];
  },
);

export const ALTERNATING_BLOCKS = defineLaw(
  {
    id: 'rain.alternating-blocks',
    title: 'Storm of alternating blocks',
    statement: 'ΔP by falling size: the greatest in the middle, then right, left, right ...',
    symbols: { P: { means: 'depth for one step, two steps and so on', unit: 'mm', domain: 'nonNegative', many: true } },
    result: { symbol: 'p', means: 'rain in each step', unit: 'mm' },
    source: { key: 'chow-1988', locator: 'section 14.4', fromMemory: true },
  },
  ({ P }) => {
    if (P.some((v, k) => k > 0 && v < P[k - 1])) throw new RangeError('rain.alternating-blocks: P must not fall from one step to the next');
    return [...alternating(P.map((v, k) => (k === 0 ? v : v - P[k - 1])))];
  },
);

export const DAY_SHARE = defineLaw(
  {
    id: 'rain.day-share',
    title: 'Share of a regional day of rain that has fallen',
    statement: 'P / P24 of the table, straight between its rows',
    symbols: {
      type: { means: 'regional storm type', unit: '', domain: 'finite', words: PATTERNS },
      t: { means: 'hour of the day', unit: 'h', domain: 'nonNegative', range: [0, 24] },
    },
    result: { symbol: 'P/P24', means: 'share fallen', unit: '' },
    source: { key: 'tr55', locator: 'appendix B', fromMemory: true },
  },
  ({ type, t }) => patternShare(type, t),
);
