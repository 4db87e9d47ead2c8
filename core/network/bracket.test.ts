import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { rootAbout } from './bracket.ts';

/** Rises by pieces of very different steepness, each a metre long, the first from `low` on. */
const pieces = (slopes: readonly number[], low: number) => (level: number) => {
  let sum = low;
  slopes.forEach((slope, k) => {
    const last = k === slopes.length - 1 ? Infinity : 1;
    sum += slope * Math.min(last, Math.max(k === 0 ? -Infinity : 0, level - k));
  });
  return sum;
};

describe('the level at which a rising excess comes to nothing', () => {
  const slope = fc.integer({ min: -9, max: 4 }).map((p) => 10 ** p);
  it('is found from wherever it is looked for, however it rises', () => {
    fc.assert(
      fc.property(
        fc.array(slope, { minLength: 1, maxLength: 6 }),
        fc.double({ min: 0.001, max: 50, noNaN: true }),
        fc.double({ min: 0, max: 12, noNaN: true }),
        (slopes, short, at) => {
          let looks = 0;
          const rises = pieces(slopes, -short);
          const excess = (level: number): number => {
            looks++;
            return rises(level);
          };
          const level = rootAbout(excess, { at, f: excess(at), floor: 0, surface: slopes[0], close: 1e-9 });
          const steepest = Math.max(...slopes);
          // Near enough, or between two levels that are one to the last figures.
          expect(looks).toBeLessThan(200);
          expect(Math.abs(excess(level))).toBeLessThanOrEqual(Math.max(1e-9, 4e-12 * Math.max(1, level) * steepest));
        },
      ),
      { seed: 5, numRuns: 400 },
    );
  });
  it('is where it jumps, as where a pump starts: from hardly too little to far too much', () => {
    for (const [little, much] of [
      [1e-3, 5],
      [1e-9, 5],
      [1e-12, 1e6],
      [5, 1e-9],
    ]) {
      // prettier-ignore
      const excess = (h: number): number => (h < 1.3 ? 1e-6 * (h - 1.3) - little : h - 1.3 + much);
      const level = rootAbout(excess, { at: 0.2, f: excess(0.2), floor: 0, surface: 1e-3, close: 1e-13 });
      expect([little, Math.abs(level - 1.3) < 1e-11]).toEqual([little, true]);
    }
  });
  it('is the floor where there is too much even there', () => {
    expect(rootAbout((h) => h + 1, { at: 3, f: 4, floor: 0, surface: 1, close: 1e-9 })).toBe(0);
    expect(rootAbout((h) => h - 1, { at: 3, f: 2, floor: 0, surface: 1, close: 1e-9 })).toBeCloseTo(1, 9);
  });
});
