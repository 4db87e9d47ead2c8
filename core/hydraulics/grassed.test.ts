// Sheets below level crests, held against a computation in feet that knows nothing of the code's own laws.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { SHEET_ENERGY, grassedHead, grassedRating, isTranquil, sheetBelow, tallerIndex } from './index.ts';

const FT = 0.3048;

/** Head in metres at a flow per metre, wholly in feet: Manning with 1.486 found by halving, roughness by the grass curves, and a weir of 2.717. */
function inFeet(slope: number, CI: number, qSI: number): number {
  const q = qSI / FT ** 2;
  const vr = Math.min(36, Math.max(0.0025 * CI ** 2.5, q));
  const n = Math.exp(CI * (0.0133 * Math.log(vr) ** 2 - 0.0954 * Math.log(vr) + 0.297) - 4.16);
  let [lo, hi] = [1e-6, 20];
  for (let k = 0; k < 80; k++) {
    const y = (lo + hi) / 2;
    if ((1.486 / n) * y ** (5 / 3) * Math.sqrt(slope) < q) lo = y;
    else hi = y;
  }
  const weir = (q / (1.5 / Math.sqrt(FT))) ** (2 / 3);
  const froude = q / lo / Math.sqrt(32.174 * lo);
  return FT * (froude < 1 ? Math.max(weir, lo + (q / lo) ** 2 / (2 * 32.174)) : weir);
}

describe('a crest over grass', () => {
  it.each([
    [0.005, 5.6],
    [0.05, 5.6],
    [0.15, 5.6],
    [0.3, 5.6],
    [0.02, 4.44],
    [0.12, 4.44],
    [0.06, 7.64],
  ])('on a slope of %p under grass of index %p stands as by feet and pounds', (slope, curveIndex) => {
    for (const q of [0.001, 0.0072, 0.02, 0.05, 0.1, 0.3])
      expect(grassedHead({ slope, curveIndex }, q) / inFeet(slope, curveIndex, q)).toBeCloseTo(1, 3);
  });
  it('worked by hand: 7.2 L/s a metre, a spreader’s usual load, on 5 % under medium grass', () => {
    // VR 0.0775 ft²/s lies below the curves' beginning 0.0025·5.6^2.5 = 0.1855: n = e^(5.6·(0.0133·2.838 + 0.0954·1.685 + 0.297) − 4.16).
    const n = Math.exp(5.6 * (0.0133 * 1.6847 ** 2 + 0.0954 * 1.6847 + 0.297) - 4.16);
    expect(n).toBeCloseTo(0.2505, 3);
    const y = ((0.0072 * n) / Math.sqrt(0.05)) ** 0.6;
    const { y: told } = sheetBelow({ slope: 0.05, curveIndex: 5.6 }, 0.0072);
    expect(told).toBeCloseTo(y, 5);
    expect(grassedHead({ slope: 0.05, curveIndex: 5.6 }, 0.0072)).toBeCloseTo(y + (0.0072 / y) ** 2 / 19.62, 5);
    // Twice the head of the bare crest, which the wider of both is asked for.
    expect((0.0072 / 1.5) ** (2 / 3)).toBeLessThan(0.52 * grassedHead({ slope: 0.05, curveIndex: 5.6 }, 0.0072));
  });
  it('is the crest’s own where the sheet shoots: on bare ground, steep', () => {
    const bare = { slope: 0.2, curveIndex: null };
    expect(isTranquil(sheetBelow(bare, 0.05).y, 0.05)).toBe(false);
    expect(grassedHead(bare, 0.05)).toBeCloseTo((0.05 / 1.5) ** (2 / 3), 12);
    expect(grassedHead(bare, 0)).toBe(0);
  });
  it('never lets more through than the crest alone, nor more under taller grass or on gentler ground, and more the higher it stands', () => {
    const slope = fc.double({ min: 0.002, max: 0.4, noNaN: true });
    const head = fc.double({ min: 0.005, max: 0.4, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(slope, slope, head, fc.constantFrom<number>(2.88, 4.44, 5.6)), ([a, b, h, curveIndex]) => {
        const at = (s: number, headM: number, CI = curveIndex): number => grassedRating({ slope: s, curveIndex: CI }).flowAt(headM);
        expect(at(a, h)).toBeLessThanOrEqual(1.5 * h ** 1.5 * (1 + 1e-3));
        expect(at(Math.min(a, b), h)).toBeLessThanOrEqual(at(Math.max(a, b), h) * (1 + 1e-3));
        expect(at(a, h, tallerIndex(curveIndex)!)).toBeLessThanOrEqual(at(a, h) * (1 + 1e-3));
        expect(at(a, 1.05 * h)).toBeGreaterThan(at(a, h));
      }),
      { seed: 3, numRuns: 300 },
    );
  });
  it('reads heads back from its rows to a tenth of a millimetre', () => {
    for (const slope of [0.01, 0.08, 0.2])
      for (let q = 0.002; q < 0.4; q *= 1.37) {
        const ground = { slope, curveIndex: 5.6 };
        const head = grassedHead(ground, q);
        const [low, high] = [head - 1e-4, head + 1e-4].map((h) => grassedRating(ground).flowAt(h));
        expect([q, low <= q, high >= q]).toEqual([q, true, true]);
      }
  });
  it('takes grass one class taller, the tallest as it is, and bare ground as bare', () => {
    expect([2.88, 4.44, 5.6, 7.64, 10, null].map(tallerIndex)).toEqual([4.44, 5.6, 7.64, 10, 10, null]);
    expect(SHEET_ENERGY.evaluate({ y: 0.1, q: 0 })).toBe(0.1);
  });
});
