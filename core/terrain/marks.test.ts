// A survey brought to the zero of a ground by marks known in both.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { gridFromLevels, levelAt, shiftByMarks, type Mark } from './index.ts';

const plane = (z: (x: number, y: number) => number): ReturnType<typeof gridFromLevels> =>
  gridFromLevels(
    { ncols: 20, nrows: 20, cellM: 1, west: 0, south: 0 },
    Float64Array.from({ length: 400 }, (_, k) => z((k % 20) + 0.5, 19.5 - Math.floor(k / 20))),
  );
const ground = plane((x, y) => 100 + 0.1 * x + 0.05 * y);
const survey = plane((x, y) => 50 + 0.1 * x + 0.05 * y);
const mark = (name: string, groundM: number | null, surveyM: number | null): Mark => ({ name, at: [10, 10], groundM, surveyM });

describe('a level shift by common marks', () => {
  it('is the mean of what they differ by, with what is left at each', () => {
    // Differences 2.010, 2.030, 1.990: mean 2.010, left 0, +20 and -20 mm, standard deviation 20 mm.
    const found = shiftByMarks([mark('a', 12.01, 10), mark('b', 13.03, 11), mark('c', 13.99, 12)], ground, survey);
    expect(found.shiftM).toBeCloseTo(2.01, 12);
    expect(found.held.map((h) => Number(h.offM.toFixed(6)))).toEqual([0, 0.02, -0.02]);
    expect(found.spreadM).toBeCloseTo(0.02, 12);
    expect([found.odd, found.lacking]).toEqual([null, []]);
  });

  it('levels nobody gave are read where the mark stands; where there are none it lacks them', () => {
    const found = shiftByMarks([mark('peg', null, null), { ...mark('off', null, 7), at: [30, 10] }, { ...mark('given', 61, 11), at: [99, 99] }], ground, survey);
    expect(found.held.map((h) => [h.name, Number((h.groundM - h.surveyM).toFixed(9))])).toEqual([['peg', 50], ['given', 50]]); // prettier-ignore
    expect(found.held[0].groundM).toBeCloseTo(levelAt(ground, [10, 10]), 12);
    expect(found.lacking.map((m) => m.name)).toEqual(['off']);
    expect(shiftByMarks([], ground, survey).shiftM).toBeNaN();
    expect(shiftByMarks([mark('one', 12, 10)], ground, survey)).toMatchObject({ shiftM: 2, spreadM: null, odd: null });
  });

  it('names one that agrees with none of the others, on either side of the limit', () => {
    // The others lie 10 mm apart: mean 2.005, standard deviation 7.07 mm; three times that and 20 mm are 41.2 mm.
    const by = (differs: number): string | undefined =>
      shiftByMarks([mark('a', 2, 0), mark('b', 2.01, 0), mark('c', 2.005 + differs, 0)], ground, survey).odd?.name;
    expect([by(0.0411), by(0.0413), by(-0.0413)]).toEqual([undefined, 'c', 'c']);
    // Of two that differ nobody can say which is right.
    expect(shiftByMarks([mark('a', 2, 0), mark('b', 5, 0)], ground, survey).odd).toBeNull();
  });

  it('property: nothing else leaves less at the marks, and what is left cancels out', () => {
    const level = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(level, level), { minLength: 2, maxLength: 12 }), fc.double({ min: -1, max: 1, noNaN: true }), (list, by) => {
        const { shiftM, held, spreadM } = shiftByMarks(list.map(([g, s], k) => mark(`m${k}`, g, s)), ground, survey);
        const left = (shift: number): number => list.reduce((sum, [g, s]) => sum + (g - s - shift) ** 2, 0);
        expect(left(shiftM)).toBeLessThanOrEqual(left(shiftM + by) + 1e-9);
        expect(Math.abs(held.reduce((sum, h) => sum + h.offM, 0))).toBeLessThan(1e-9);
        // The spread by sums of squares, another way.
        const n = list.length;
        const d = list.map(([g, s]) => g - s);
        const byPairs = d.reduce((sum, a, i) => sum + d.slice(i + 1).reduce((t, b) => t + (a - b) ** 2, 0), 0) / (n * (n - 1));
        expect(spreadM).toBeCloseTo(Math.sqrt(byPairs), 9);
      }),
      { numRuns: 200, seed: 5 },
    );
  });
}); // prettier-ignore
