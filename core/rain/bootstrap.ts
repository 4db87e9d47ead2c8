// How sure a fit is: the sample drawn again and again, each time fitted anew.
import { type Distribution, depthOfReturn, gevByLMoments, gumbelByLMoments, lMoments } from './frequency.ts';

/** Whole numbers below 2^32 from a seed, always the same (mulberry32). */
export function randomFrom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

export interface Band {
  readonly returnYears: number;
  readonly low: number;
  readonly high: number;
}

export interface BootstrapHow {
  readonly kind: Distribution['kind'];
  readonly returnYears: readonly number[];
  readonly draws: number;
  readonly seed: number;
  /** Share of draws within the band. */
  readonly confidence: number;
}

/** A fit by L-moments of the wanted kind. */
export const fitBy = (kind: Distribution['kind'], values: ArrayLike<number>): Distribution =>
  kind === 'gumbel' ? gumbelByLMoments(lMoments(values)) : gevByLMoments(lMoments(values));

/**
 * Confidence band of the depths of return periods: `draws` samples with replacement, each fitted, and the middle
 * `confidence` of their depths (percentile method, Efron 1979). The same seed gives the same band.
 */
export function bootstrapBand(values: ArrayLike<number>, { kind, returnYears, draws, seed, confidence }: BootstrapHow): Band[] {
  const n = values.length;
  const random = randomFrom(seed);
  const depths = returnYears.map(() => new Float64Array(draws));
  const sample = new Float64Array(n);
  for (let k = 0; k < draws; k++) {
    let isFlat = true;
    for (let i = 0; i < n; i++) {
      sample[i] = values[Math.floor(random() * n)];
      if (sample[i] !== sample[0]) isFlat = false;
    }
    // One value drawn n times has no spread to fit: it stands for itself.
    const fit = isFlat ? null : fitBy(kind, sample);
    returnYears.forEach((years, r) => (depths[r][k] = fit ? depthOfReturn(fit, years) : sample[0]));
  }
  const tail = (1 - confidence) / 2;
  return returnYears.map((years, r) => {
    const sorted = depths[r].sort();
    return { returnYears: years, low: atShare(sorted, tail), high: atShare(sorted, 1 - tail) };
  });
}

/** Value at a share of a rising list, straight between neighbours. */
export function atShare(sorted: ArrayLike<number>, share: number): number {
  const place = share * (sorted.length - 1);
  const below = Math.floor(place);
  const above = Math.min(sorted.length - 1, below + 1);
  return sorted[below] + (place - below) * (sorted[above] - sorted[below]);
}
