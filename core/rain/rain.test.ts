import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  type RainTable,
  alternatingBlockStorm,
  checkTable,
  depthFor,
  returnIn,
  withDuration,
  withReturn,
  withoutDuration,
  withoutReturn,
} from './index.ts';

/** Denver 10-year intensity i = 96.6/(t^0.97 + 13.90) in/h: Chow, Maidment & Mays 1988, Example 14.4.1 (handbook row 9, P). */
const denverDepthIn = (minutes: number): number => ((96.6 / (minutes ** 0.97 + 13.9)) * minutes) / 60;
const TENS = Array.from({ length: 12 }, (_, i) => 10 * (i + 1));
const DENVER: RainTable = { durationsMin: TENS, returnYears: [10], depthMm: [TENS.map((t) => 25.4 * denverDepthIn(t))] };

/** Tables whose depth rises and whose intensity falls with duration, as real ones do. */
const tables = fc
  .tuple(
    fc.array(fc.double({ min: 0.05, max: 0.9, noNaN: true }), { minLength: 4, maxLength: 4 }),
    fc.double({ min: 1, max: 30, noNaN: true }),
  )
  .map(([powers, first]): RainTable => {
    const durationsMin = [5, 15, 60, 180, 720];
    // Steeper first: on log-log paper a real table bends over.
    const falling = [...powers].sort((a, b) => b - a);
    const depths = falling.reduce<number[]>((list, n, i) => [...list, list[i] * (durationsMin[i + 1] / durationsMin[i]) ** n], [first]);
    return { durationsMin, returnYears: [10], depthMm: [depths] };
  });

describe('alternating block storm', () => {
  it('reproduces Chow, Maidment & Mays Example 14.4.1 (handbook row 11, P) to its printed digits', () => {
    const storm = alternatingBlockStorm(DENVER, { returnYears: 10, durationMin: 120 }, 10);
    const printed = [0.024, 0.033, 0.05, 0.084, 0.178, 0.693, 0.308, 0.117, 0.063, 0.04, 0.028, 0.021];
    printed.forEach((value, i) => expect(Math.abs(storm.stepsMm[i] / 25.4 - value)).toBeLessThan(0.0011));
  });
  it('conserves depth and never holds more than the table for any run of steps', () => {
    fc.assert(
      fc.property(tables, fc.integer({ min: 5, max: 720 }), fc.integer({ min: 1, max: 20 }), (table, durationMin, step) => {
        const storm = alternatingBlockStorm(table, { returnYears: 10, durationMin }, step);
        const sum = storm.stepsMm.reduce((a, v) => a + v, 0);
        expect(Math.abs(sum - depthFor(table, 10, durationMin).depthMm)).toBeLessThan(1e-9 * sum);
        for (let run = 1; run <= storm.stepsMm.length; run++) {
          const minutes = run * storm.stepMin;
          if (minutes < 5) continue;
          let [window, wettest] = [0, 0];
          storm.stepsMm.forEach((v, i) => {
            window += v - (i >= run ? storm.stepsMm[i - run] : 0);
            wettest = Math.max(wettest, window);
          });
          if (wettest > depthFor(table, 10, Math.min(durationMin, minutes)).depthMm * (1 + 1e-9))
            throw new Error(`${wettest} mm in ${minutes} min`);
        }
      }),
      { seed: 5, numRuns: 200 },
    );
  });
});

describe('depth for a duration', () => {
  it('is log-log between durations and the table itself at them', () => {
    const table: RainTable = { durationsMin: [10, 40], returnYears: [2], depthMm: [[10, 20]] };
    expect(depthFor(table, 2, 10)).toMatchObject({ depthMm: 10, extrapolated: false });
    expect(depthFor(table, 2, 20).depthMm).toBeCloseTo(Math.sqrt(200), 10); // the geometric mean, at the geometric mean duration
  });
  it('says when it goes beyond the table, and refuses a return period that is not there', () => {
    expect(depthFor(DENVER, 10, 5).extrapolated).toBe(true);
    expect(depthFor(DENVER, 10, 500).extrapolated).toBe(true);
    expect(depthFor(DENVER, 10, 33).extrapolated).toBe(false);
    expect(() => depthFor(DENVER, 50, 10)).toThrow('50 years is not a row');
  });
});

describe('checking a table', () => {
  it('finds each fault and names its place', () => {
    const codes = (t: RainTable): string[] => checkTable(t).map((p) => p.code);
    expect(codes(DENVER)).toEqual([]);
    expect(codes({ durationsMin: [10, 60], returnYears: [2], depthMm: [[9, 8]] })).toEqual(['monotonic-duration']);
    expect(codes({ durationsMin: [10], returnYears: [2, 5], depthMm: [[9], [8]] })).toEqual(['monotonic-return']);
    expect(codes({ durationsMin: [60, 10], returnYears: [2], depthMm: [[9, 9]] })).toEqual(['order']);
    expect(codes({ durationsMin: [10, 60], returnYears: [2], depthMm: [[9]] })).toEqual(['shape']);
    expect(codes({ durationsMin: [10], returnYears: [2], depthMm: [[-1]] })).toEqual(['value']);
    expect(checkTable({ durationsMin: [10, 60], returnYears: [2], depthMm: [[9, 8]] })[0]).toMatchObject({ row: 0, column: 1 });
  });
});

describe('a table typed row by row', () => {
  const two = tables.map((t): RainTable => ({ ...t, returnYears: [2, 20], depthMm: [t.depthMm[0], t.depthMm[0].map((v) => 1.7 * v)] }));
  it('stays sound with any row or column added, and is itself again when that is dropped', () => {
    fc.assert(
      fc.property(two, fc.integer({ min: 1, max: 3000 }), fc.integer({ min: 1, max: 500 }), (table, minutes, years) => {
        fc.pre(!table.durationsMin.includes(minutes) && !table.returnYears.includes(years));
        const longer = withDuration(table, minutes);
        const wider = withReturn(table, years);
        expect([...checkTable(longer), ...checkTable(wider)]).toEqual([]);
        expect(withoutDuration(longer, longer.durationsMin.indexOf(minutes))).toEqual(table);
        expect(withoutReturn(wider, wider.returnYears.indexOf(years))).toEqual(table);
      }),
      { seed: 6 },
    );
  });
  it('reads what it adds off itself', () => {
    const table: RainTable = {
      durationsMin: [10, 40],
      returnYears: [2, 50],
      depthMm: [
        [10, 20],
        [30, 60],
      ],
    };
    expect(withDuration(table, 20).depthMm[0]).toEqual([10, 14.1, 20]);
    const ten = withReturn(table, 10);
    expect(returnIn(table, ten.depthMm[1][0], 10).years).toBeCloseTo(10, 0);
  });
});
