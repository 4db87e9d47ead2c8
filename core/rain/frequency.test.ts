import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import frechetQuantile from '@stdlib/stats-base-dists-frechet-quantile';
import gumbelQuantile from '@stdlib/stats-base-dists-gumbel-quantile';
import {
  AREAL_REDUCTION,
  CHANCE,
  type Distribution,
  GUMBEL_DEPTH,
  GUMBEL_FACTOR,
  GUMBEL_LOCATION,
  GUMBEL_SCALE,
  PARTIAL_RETURN,
  WENZEL_INTENSITY,
  bootstrapBand,
  chanceBelow,
  depthOfReturn,
  fitCurve,
  gamma,
  gevByLMoments,
  gumbelByLMoments,
  gumbelSuffices,
  lMoments,
  plottingPositions,
  quantile,
  randomFrom,
  returnOf,
} from './index.ts';

/** Chicago 10-minute yearly maxima 1913-1947 [in]: Chow, Maidment & Mays 1988, Table 12.2.1 (handbook row 1, P). */
const CHICAGO = [
  0.49, 0.66, 0.36, 0.58, 0.41, 0.47, 0.74, 0.53, 0.76, 0.57, 0.8, 0.66, 0.68, 0.68, 0.61, 0.88, 0.49, 0.33, 0.96, 0.94, 0.8, 0.62, 0.71,
  1.11, 0.64, 0.52, 0.64, 0.34, 0.7, 0.57, 0.92, 0.66, 0.65, 0.63, 0.6,
];
/** Mean and standard deviation (n - 1). */
function momentsOf(values: readonly number[]): { mean: number; sd: number } {
  const mean = values.reduce((a, v) => a + v, 0) / values.length;
  return { mean, sd: Math.sqrt(values.reduce((a, v) => a + (v - mean) ** 2, 0) / (values.length - 1)) };
}
const TEN_DAYS = [38, 52, 61, 45, 70, 49, 83, 57, 41, 66];

const near = (value: number, expected: number, tolerance: number): void =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(tolerance);

describe('published frequency values', () => {
  it('Gumbel by moments: Chow, Maidment & Mays Example 12.2.1 (handbook rows 1 and 2, P)', () => {
    const { mean, sd } = momentsOf(CHICAGO);
    near(mean, 0.649, 0.001);
    near(sd, 0.177, 0.001);
    const alpha = GUMBEL_SCALE.evaluate({ s: sd });
    const u = GUMBEL_LOCATION.evaluate({ m: mean, alpha });
    near(alpha, 0.138, 0.001);
    near(u, 0.569, 0.001);
    [
      [5, 0.78],
      [10, 0.88],
      [50, 1.11],
    ].forEach(([T, x]) => {
      near(GUMBEL_DEPTH.evaluate({ u, alpha, T }), x, 0.005);
      near(depthOfReturn({ kind: 'gumbel', location: u, scale: alpha }, T), x, 0.005);
    });
  });
  it('frequency factor: Chow, Maidment & Mays Example 12.3.1 (handbook row 3, P), and the same depth by it', () => {
    near(GUMBEL_FACTOR.evaluate({ T: 5 }), 0.719, 0.001);
    const { mean, sd } = momentsOf(CHICAGO);
    const alpha = GUMBEL_SCALE.evaluate({ s: sd });
    const u = GUMBEL_LOCATION.evaluate({ m: mean, alpha });
    near(mean + sd * GUMBEL_FACTOR.evaluate({ T: 10 }), GUMBEL_DEPTH.evaluate({ u, alpha, T: 10 }), 1e-9);
  });
  it('L-moments of the same record (handbook row 4, computed by Hosking 1990)', () => {
    const l = lMoments(CHICAGO);
    near(l.l1, 0.64886, 1e-5);
    near(l.l2, 0.09948, 1e-5);
    near(l.t3, 0.07125, 1e-5);
    const d = gumbelByLMoments(l);
    near(d.scale, 0.14352, 1e-5);
    near(d.location, 0.56602, 1e-5);
    [
      [10, 0.889],
      [50, 1.126],
      [100, 1.226],
    ].forEach(([T, x]) => near(depthOfReturn(d, T), x, 0.001));
  });
  it('Gumbel and GEV of ten wettest days (handbook row 6, computed)', () => {
    const l = lMoments(TEN_DAYS);
    near(l.l1, 56.2, 1e-9);
    near(l.l2, 8.3778, 1e-4);
    near(l.t3, 0.14125, 1e-5);
    const [gumbel, gev] = [gumbelByLMoments(l), gevByLMoments(l)];
    [
      [2, 53.65],
      [10, 76.42],
      [100, 104.82],
    ].forEach(([T, x]) => near(depthOfReturn(gumbel, T), x, 0.02));
    expect(gev).toMatchObject({ kind: 'gev', shape: expect.closeTo(0.0454, 4) as unknown as number });
    near(depthOfReturn(gev, 10), 76.4, 0.02);
    near(depthOfReturn(gev, 100), 101.72, 0.02);
  });
  it('Langbein 1949 (row 7), risk (row 8), areal reduction of Leclerc & Schaake 1972 (row 13), computed', () => {
    near(PARTIAL_RETURN.evaluate({ T: 2 }), 1.443, 0.001);
    near(PARTIAL_RETURN.evaluate({ T: 5 }), 4.481, 0.001);
    near(PARTIAL_RETURN.evaluate({ T: 10 }), 9.491, 0.001);
    near(CHANCE.evaluate({ T: 50, n: 25 }), 0.3965, 1e-4);
    near(AREAL_REDUCTION.evaluate({ t: 24, A: 10 }), 0.992, 0.001);
    near(AREAL_REDUCTION.evaluate({ t: 1, A: 10 }), 0.968, 0.001);
  });
  it('Denver 10-year intensities: Chow, Maidment & Mays Example 14.4.1 (handbook row 9, P)', () => {
    const printed = [
      [10, 4.158],
      [20, 3.002],
      [30, 2.357],
      [60, 1.443],
      [120, 0.82],
    ];
    printed.forEach(([t, i]) => near(WENZEL_INTENSITY.evaluate({ c: 96.6, e: 0.97, f: 13.9, t }), i, 0.001));
  });
});

describe('distributions', () => {
  it('have the quantiles of an independent library (@stdlib: Gumbel, and Fréchet for a heavy tail)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.999, noNaN: true }),
        fc.record({
          location: fc.double({ min: 5, max: 90, noNaN: true }),
          scale: fc.double({ min: 1, max: 30, noNaN: true }),
          shape: fc.double({ min: -0.45, max: -0.01, noNaN: true }),
        }),
        (p, { location, scale, shape }) => {
          expect(quantile({ kind: 'gumbel', location, scale }, p)).toBeCloseTo(gumbelQuantile(p, location, scale), 8);
          // A GEV with k below 0 is a Fréchet law with exponent 1/|k|, scale α/|k| and its lower end at ξ - α/|k|.
          const s = scale / -shape;
          const own = quantile({ kind: 'gev', location, scale, shape }, p);
          expect(Math.abs(own / frechetQuantile(p, 1 / -shape, s, location - s) - 1)).toBeLessThan(1e-9);
        },
      ),
      { seed: 21 },
    );
  });
  it('go from depth to return period and back, and know their greatest value', () => {
    const shapes: Distribution[] = [
      { kind: 'gumbel', location: 40, scale: 9 },
      { kind: 'gev', location: 40, scale: 9, shape: 0.2 },
      { kind: 'gev', location: 40, scale: 9, shape: -0.2 },
    ];
    for (const d of shapes) for (const T of [1.5, 2, 10, 100, 1000]) expect(returnOf(d, depthOfReturn(d, T)) / T).toBeCloseTo(1, 6);
    expect(returnOf(shapes[1], 40 + 9 / 0.2 + 1)).toBe(Infinity);
    expect(chanceBelow(shapes[2], 40 - 9 / 0.2 - 1)).toBe(0);
    expect(() => depthOfReturn(shapes[0], 1)).toThrow('above 1 year');
  });
  it('are found again from samples drawn of known parameters', () => {
    for (const shape of [-0.2, 0.15]) {
      const random = randomFrom(99);
      const truth: Distribution = { kind: 'gev', location: 50, scale: 12, shape };
      const sample = Array.from({ length: 20_000 }, () => quantile(truth, Math.min(0.9999999, Math.max(1e-9, random()))));
      const fit = gevByLMoments(lMoments(sample));
      expect(fit).toMatchObject({ kind: 'gev' });
      near(fit.location, 50, 0.4);
      near(fit.scale, 12, 0.4);
      near((fit as { shape: number }).shape, shape, 0.02);
      near(depthOfReturn(fit, 100) / depthOfReturn(truth, 100), 1, 0.03);
    }
  });
  it('have L-moments that move and stretch with the sample', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 100, noNaN: true }), { minLength: 4, maxLength: 40 }),
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        (values, move, stretch) => {
          const [a, b] = [lMoments(values), lMoments(values.map((v) => move + stretch * v).reverse())];
          expect(b.l1).toBeCloseTo(move + stretch * a.l1, 6);
          expect(b.l2).toBeCloseTo(stretch * a.l2, 6);
          expect(a.l2).toBeGreaterThanOrEqual(-1e-9);
          if (a.l2 > 1e-3) expect(Math.abs(a.t3)).toBeLessThanOrEqual(1 + 1e-9);
        },
      ),
      { seed: 22 },
    );
  });
  it('gamma is the factorial between whole numbers', () => {
    for (const [x, g] of [
      [1, 1],
      [5, 24],
      [0.5, Math.sqrt(Math.PI)],
      [1.5, Math.sqrt(Math.PI) / 2],
    ])
      expect(gamma(x)).toBeCloseTo(g, 12);
  });
});

describe('which distribution fits', () => {
  const share = (shape: number): number => {
    const random = randomFrom(17);
    const truth: Distribution = shape === 0 ? { kind: 'gumbel', location: 50, scale: 12 } : { kind: 'gev', location: 50, scale: 12, shape };
    let kept = 0;
    for (let k = 0; k < 300; k++) {
      const sample = Array.from({ length: 60 }, () => quantile(truth, Math.max(1e-9, random())));
      if (gumbelSuffices(gevByLMoments(lMoments(sample)), 60)) kept++;
    }
    return kept / 300;
  };
  it('keeps Gumbel nine times in ten where it is true, and seldom where the tail is heavy or ends', () => {
    expect(share(0)).toBeGreaterThan(0.85);
    expect(share(0)).toBeLessThan(0.95);
    expect(share(-0.4)).toBeLessThan(0.15);
    expect(share(0.4)).toBeLessThan(0.15);
  });
});

describe('plotting positions', () => {
  it('give the greatest of n years about 1.8 n years, and fall with rank', () => {
    const plotted = plottingPositions(TEN_DAYS);
    expect(plotted[0]).toEqual({ value: 83, returnYears: 10.12 / 0.56 });
    expect(plotted.every((p, i) => i === 0 || (p.value <= plotted[i - 1].value && p.returnYears < plotted[i - 1].returnYears))).toBe(true);
  });
});

describe('bootstrap band', () => {
  const how = { kind: 'gumbel', returnYears: [2, 10, 100], draws: 400, seed: 3, confidence: 0.9 } as const;
  it('is the same for the same seed, holds the fit, and widens with rarity and with less data', () => {
    const band = bootstrapBand(CHICAGO, how);
    expect(bootstrapBand(CHICAGO, how)).toEqual(band);
    expect(bootstrapBand(CHICAGO, { ...how, seed: 4 })).not.toEqual(band);
    const fit = gumbelByLMoments(lMoments(CHICAGO));
    band.forEach((b) => {
      expect(b.low).toBeLessThan(depthOfReturn(fit, b.returnYears));
      expect(b.high).toBeGreaterThan(depthOfReturn(fit, b.returnYears));
    });
    const widths = band.map((b) => b.high - b.low);
    expect(widths[0] < widths[1] && widths[1] < widths[2]).toBe(true);
    const few = bootstrapBand(CHICAGO.slice(0, 9), how);
    expect(few[2].high - few[2].low).toBeGreaterThan(widths[2]);
  });
  it('holds the truth about as often as it says', () => {
    const truth: Distribution = { kind: 'gumbel', location: 50, scale: 12 };
    const random = randomFrom(5);
    let held = 0;
    const trials = 120;
    for (let k = 0; k < trials; k++) {
      const sample = Array.from({ length: 40 }, () => quantile(truth, random()));
      const [b] = bootstrapBand(sample, { ...how, returnYears: [10], draws: 300, seed: k });
      if (b.low <= depthOfReturn(truth, 10) && depthOfReturn(truth, 10) <= b.high) held++;
    }
    // Nine in ten are promised; percentile bands of 40 values hold a little less (Efron 1979 says as much).
    expect(held / trials).toBeGreaterThan(0.8);
    expect(held / trials).toBeLessThan(0.97);
  });
});

describe('the intensity curve', () => {
  it('finds the constants that made a table, with nothing left over', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 200, max: 3000, noNaN: true }),
        fc.integer({ min: 0, max: 40 }),
        fc.double({ min: 0.45, max: 0.95, noNaN: true }),
        (a, b, n) => {
          const durationsMin = [5, 10, 15, 30, 60, 120, 360, 1440];
          const depthMm = [durationsMin.map((t) => ((a / (t + b) ** n) * t) / 60)];
          const curve = fitCurve({ durationsMin, returnYears: [10], depthMm }, 0);
          expect(curve?.worst).toBeLessThan(0.002);
          expect(curve?.n).toBeCloseTo(n, 2);
        },
      ),
      { seed: 23, numRuns: 60 },
    );
  });
  it('shows what does not fit, and says nothing of fewer than three durations', () => {
    const durationsMin = [10, 30, 60, 120];
    const curve = fitCurve({ durationsMin, returnYears: [10], depthMm: [[12, 20, 40, 42]] }, 0);
    expect(curve?.residual[2]).toBeGreaterThan(0.1);
    expect(curve?.residual[1]).toBeLessThan(-0.05);
    expect(fitCurve({ durationsMin: [10, 60], returnYears: [2], depthMm: [[9, 20]] }, 0)).toBeNull();
  });
});
