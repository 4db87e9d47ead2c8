import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  type RainTable,
  alternatingBlockStorm,
  checkTable,
  depthCurve,
  depthFor,
  isSet,
  longestOf,
  returnIn,
  setDurations,
  stormProblems,
  wettestRun,
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
  it('asked at every step of a storm it is the same, in whichever order, on the table, between and beyond', () => {
    fc.assert(
      fc.property(
        tables,
        fc.array(fc.double({ min: 0.2, max: 3000, noNaN: true }), { minLength: 1, maxLength: 20 }),
        (table, durations) => {
          const onCurve = depthCurve(table, 10);
          for (const t of [...durations, ...table.durationsMin]) {
            const { depthMm } = depthFor(table, 10, t);
            expect(Math.abs(onCurve(t) - depthMm)).toBeLessThan(1e-9 * depthMm);
          }
        },
      ),
      { seed: 21, numRuns: 60 },
    );
    const one: RainTable = { durationsMin: [60], returnYears: [10], depthMm: [[30]] };
    expect([0, 30, 60, 240].map(depthCurve(one, 10))).toEqual([0, ...[30, 60, 240].map((t) => depthFor(one, 10, t).depthMm)]);
  });
  it('says when it goes beyond the table, and refuses a return period that is not there', () => {
    expect(depthFor(DENVER, 10, 5).extrapolated).toBe(true);
    expect(depthFor(DENVER, 10, 500).extrapolated).toBe(true);
    expect(depthFor(DENVER, 10, 33).extrapolated).toBe(false);
    expect(() => depthFor(DENVER, 50, 10)).toThrow('50 years is not a row');
  });
});

describe('rain shorter than a table begins with', () => {
  /** By the law i = 1200/(t + 10)^0.8: a curve fits it exactly. */
  const byLaw = (t: number): number => (1200 * t) / 60 / (t + 10) ** 0.8;
  const curved = { durationsMin: [30, 60, 120, 360, 1440], returnYears: [20], depthMm: [[30, 60, 120, 360, 1440].map(byLaw)] };
  it('goes on by the curve that fits the table', () => {
    for (const t of [5, 10, 20]) {
      const found = depthFor(curved, 20, t);
      expect(found.extrapolated).toBe(true);
      expect(found.depthMm / byLaw(t)).toBeCloseTo(1, 2);
    }
    // And meets the table where it begins.
    expect(depthFor(curved, 20, 29.999).depthMm).toBeCloseTo(byLaw(30), 2);
  });
  it('by daily depths alone goes on by the one-third rule, and its hydrograph has that peak', () => {
    const daily = { durationsMin: [1440, 2880], returnYears: [20], depthMm: [[100, 125]] };
    // P = P24 · (t/24)^(1/3): an hour has 34.7 mm of a day's 100.
    expect(depthFor(daily, 20, 60).depthMm).toBeCloseTo(100 * (1 / 24) ** (1 / 3), 9);
    const storm = alternatingBlockStorm(daily, { returnYears: 20, durationMin: 1440 }, 5);
    // One rule for the storm and for the rational method's intensity: the wettest ten minutes of it are the depth of ten minutes.
    for (const t of [5, 10, 30, 60, 360]) expect(wettestRun(storm, t)).toBeCloseTo(depthFor(daily, 20, t).depthMm, 6);
    expect(storm.stepsMm.reduce((a, v) => a + v, 0)).toBeCloseTo(100, 9);
  });
});

describe('the lengths of a set', () => {
  const table = (last: number): RainTable => ({ durationsMin: [10, last], returnYears: [20], depthMm: [[10, 50]] });
  const set = (last: number, tc: number, storm: object = {}): readonly number[] =>
    setDurations(table(last), { returnYears: 20, ...storm }, tc);
  it('begin at or below the time of concentration, five minutes at least, and end with the table, three days at most', () => {
    expect(set(1440, 14)).toEqual([10, 15, 30, 60, 120, 180, 360, 720, 1440]);
    expect(set(1440, 15)[0]).toBe(15);
    expect(set(1440, 2)[0]).toBe(5);
    expect(set(90, 6)).toEqual([5, 10, 15, 30, 60, 90]);
    expect(set(2880, 200)).toEqual([180, 360, 720, 1440, 2880]);
    expect(set(10_000, 1440)).toEqual([1440, 2880, 4320]);
    // A catchment slower than the table is long is judged by its longest.
    expect(set(60, 500)).toEqual([60]);
    expect(set(1440, 6, { durationsMin: [20, 40] })).toEqual([20, 40]);
  });
  it('are one storm alone where its length is settled or its own', () => {
    const own = { kind: 'own', name: 'Mine', stepMin: 10, stepsMm: [1, 2, 3] } as const;
    const one = { returnYears: 20, durationMin: 90 };
    expect([isSet({ returnYears: 20 }), isSet(one), isSet({ returnYears: 20, shape: own })]).toEqual([true, false, false]);
    const lengths = [{ returnYears: 20 }, one, { returnYears: 20, shape: own }].map((s) => longestOf(table(1440), s));
    expect(lengths).toEqual([1440, 90, 30]);
  });
  it.each<[string, object, RegExp]>([
    ['beyond the table', { durationsMin: [60, 2000] }, /duration 2 of the set is 2000 min, and the rain table tells of 5 to 1440/],
    ['under any catchment', { durationsMin: [1] }, /duration 1 of the set is 1 min/],
    ['reversed', { durationsMin: [60, 30] }, /duration 2 of the set, 30 min, follows 60/],
    ['twice the same', { durationsMin: [60, 60] }, /follows 60/],
    ['absurd', { durationsMin: [Infinity] }, /duration 1 of the set/],
    ['not numbers', { durationsMin: ['60'] }, /duration 1 of the set is "60"/],
    ['none', { durationsMin: [] }, /a set of 0 durations/],
    ['no list', { durationsMin: 60 }, /a set of no durations/],
    ['beside one storm', { durationsMin: [60], durationMin: 60 }, /one duration and a set/],
  ])('%s is refused in words', (_, storm, says) => {
    const [problem, ...more] = stormProblems(table(1440), { returnYears: 20, ...storm });
    expect(more).toEqual([]);
    expect(problem.what).toMatch(says);
    expect(problem.code).toBe('rain.storm-set');
    expect(problem.field).toMatch(/^rain\.storm\.durationsMin/);
    expect(problem.do.length).toBeGreaterThan(20);
  });
  it('says how wet it was before in words that are known', () => {
    const [problem] = stormProblems(table(1440), { returnYears: 20, before: 'soggy' } as never);
    expect(problem).toMatchObject({ code: 'rain.storm-before', do: 'Give one of dry, usual, wet.' });
    expect(stormProblems(table(1440), { returnYears: 20, before: 'wet' })).toEqual([]);
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
