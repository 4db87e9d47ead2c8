import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  type RainRecord,
  DAY_MIN,
  civil,
  dailyOf,
  dateText,
  daysTo,
  durationsOf,
  eventsOf,
  fixedIntervalFactor,
  frequencyOf,
  seasonsOf,
  yearOf,
  yearlyMaxima,
  yearsOf,
} from './index.ts';

describe('the calendar', () => {
  it('is the platform’s own, in both directions, over four centuries', () => {
    fc.assert(
      fc.property(fc.integer({ min: daysTo(1800, 1, 1), max: daysTo(2200, 12, 31) }), (day) => {
        const date = new Date(day * 864e5);
        expect(civil(day)).toEqual({ year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() });
        expect(dateText(day)).toBe(date.toISOString().slice(0, 10));
        const { year, month, day: d } = civil(day);
        expect(daysTo(year, month, d)).toBe(day);
      }),
      { seed: 61, numRuns: 400 },
    );
  });
  it('knows no day that is not, and years that begin in any month', () => {
    expect([daysTo(2023, 2, 29), daysTo(2024, 13, 1), daysTo(2024, 4, 31)]).toEqual([NaN, NaN, NaN]);
    expect(Number.isNaN(daysTo(2024, 2, 29))).toBe(false);
    expect([yearOf(daysTo(2024, 9, 30), 10), yearOf(daysTo(2024, 10, 1), 10)]).toEqual([2023, 2024]);
  });
});

/** Records of six-hour steps over a little more than two years, with gaps. */
const records = fc
  .record({
    start: fc.integer({ min: 0, max: 600 }),
    rain: fc.array(fc.tuple(fc.integer({ min: 0, max: 3199 }), fc.integer({ min: 1, max: 500 })), { minLength: 4, maxLength: 60 }),
    gap: fc.integer({ min: 0, max: 3100 }),
  })
  .map(({ start, rain, gap }): RainRecord => {
    const steps = 3200;
    const by = new Map(rain.filter(([s]) => s < gap || s >= gap + 40).map(([s, mm]) => [s, mm / 10]));
    const wet = [...by.keys()].sort((a, b) => a - b);
    return {
      startMin: start * DAY_MIN,
      stepMin: 360,
      steps,
      wet: Uint32Array.from(wet),
      mm: Float32Array.from(wet, (s) => by.get(s) ?? 0),
      missing: Uint32Array.of(gap, gap + 40),
    };
  });

describe('yearly maxima', () => {
  it('are those of a search over every run of every year', () => {
    fc.assert(
      fc.property(records, fc.constantFrom(1, 2, 4, 12), (record, span) => {
        const years = yearsOf(dailyOf(record));
        const dense = new Float64Array(record.steps + span);
        record.wet.forEach((s, k) => (dense[s] = record.mm[k]));
        const best = new Map<number, number>();
        for (let s = 0; s < record.steps; s++) {
          const year = yearOf(Math.floor((record.startMin + s * 360) / DAY_MIN), 1);
          let sum = 0;
          for (let j = 0; j < span; j++) sum += dense[s + j];
          // A run is counted from the wet step it begins with.
          if (dense[s] > 0) best.set(year, Math.max(best.get(year) ?? 0, sum));
        }
        const got = yearlyMaxima(record, { durationMin: 360 * span, years });
        const whole = years.filter((y) => y.known >= 0.9 && best.has(y.year));
        expect(got.map((m) => m.year)).toEqual(whole.map((y) => y.year));
        got.forEach((m) => {
          expect(m.measuredMm).toBeCloseTo(best.get(m.year) ?? NaN, 3);
          expect(m.mm).toBeCloseTo(fixedIntervalFactor(span) * m.measuredMm, 9);
        });
      }),
      { seed: 62, numRuns: 120 },
    );
  });
  it('are asked only of whole steps, and corrected as WMO-168 says (from memory)', () => {
    const record = fc.sample(records, { seed: 1, numRuns: 1 })[0];
    expect(() => yearlyMaxima(record, { durationMin: 500, years: [] })).toThrow('no whole number');
    expect(durationsOf(record)).toEqual([360, 720, 1440, 2880, 4320]);
    expect([1, 2, 3, 4, 5, 8, 9, 24, 25].map(fixedIntervalFactor)).toEqual([1.13, 1.04, 1.03, 1.03, 1.02, 1.02, 1.01, 1.01, 1]);
  });
});

describe('a wet season about the new year', () => {
  /** Rain from November to February alone, its greatest day on the last of December and another on the first of January. */
  const daily = (wettest: readonly (readonly [number, number, number, number])[]): RainRecord => {
    const from = daysTo(2000, 1, 1);
    const days = daysTo(2012, 1, 1) - from;
    const mm: number[] = Array.from({ length: days }, (_, k) => ([11, 12, 1, 2].includes(civil(from + k).month) ? 2 : 0.1));
    for (const [y, m, d, v] of wettest) mm[daysTo(y, m, d) - from] = v;
    return { startMin: from * DAY_MIN, stepMin: DAY_MIN, steps: days, wet: Uint32Array.from(mm, (_, k) => k), mm: Float32Array.from(mm), missing: new Uint32Array() }; // prettier-ignore
  };
  it('is not cut in two: both of its great rains are of one year', () => {
    const record = daily([
      [2004, 12, 20, 90],
      [2005, 1, 20, 80],
    ]);
    const { firstMonth, years, fits } = frequencyOf(record);
    // The driest turn of months lies between March and October.
    expect(firstMonth).toBeGreaterThanOrEqual(4);
    expect(firstMonth).toBeLessThanOrEqual(10);
    const maxima = fits.find((f) => f.durationMin === DAY_MIN)!.maxima.filter((m) => m.measuredMm > 50);
    // By the calendar they would be two.
    expect(maxima.map((m) => m.measuredMm)).toEqual([90]);
    expect(years.filter((y) => y.known > 0.99).length).toBe(11);
  });
  it('elsewhere the calendar does', () => {
    const even = daily([]);
    const mm = even.mm.map((_, k) => 1 + (k % 3));
    expect(frequencyOf({ ...even, mm }).firstMonth).toBe(1);
  });
});

describe('days, rains and seasons', () => {
  it('hold all the rain there is, whichever way it is summed', () => {
    fc.assert(
      fc.property(records, (record) => {
        const total = record.mm.reduce((a, v) => a + v, 0);
        const daily = dailyOf(record);
        expect(daily.mm.reduce((a, v) => a + v, 0)).toBeCloseTo(total, 3);
        expect(daily.known.reduce((a, v) => a + v, 0)).toBeCloseTo((3200 - 40) / 4, 6);
        expect(yearsOf(daily).reduce((a, y) => a + y.totalMm, 0)).toBeCloseTo(total, 3);
        expect(eventsOf(record, 0).reduce((a, e) => a + e.depthMm, 0)).toBeCloseTo(total, 3);
        const { longestDry, bunched, wettestDay } = seasonsOf(daily);
        expect(wettestDay?.mm).toBeCloseTo(Math.max(...daily.mm), 6);
        if (bunched !== null) expect(bunched).toBeGreaterThanOrEqual(0.1 - 1e-9);
        // No day of the longest dry spell is wet, nor unknown.
        const from = (longestDry?.fromDay ?? 0) - daily.firstDay;
        const to = from + (longestDry?.days ?? 0);
        expect(Math.max(0, ...daily.mm.slice(from, to))).toBeLessThan(1);
        expect(Math.min(1, ...daily.known.slice(from, to))).toBeGreaterThanOrEqual(0.9);
      }),
      { seed: 63, numRuns: 100 },
    );
  });
  it('a dry season over the new year is one spell, not two halves', () => {
    // Four years; wet every other day from April to September, dry from October to March.
    const days = Array.from({ length: daysTo(1974, 1, 1) }, (_, d) => d).filter(
      (d) => d % 2 === 0 && civil(d).month >= 4 && civil(d).month <= 9,
    );
    const record: RainRecord = {
      startMin: 0,
      stepMin: DAY_MIN,
      steps: daysTo(1974, 1, 1),
      wet: Uint32Array.from(days),
      mm: new Float32Array(days.length).fill(8),
      missing: new Uint32Array(0),
    };
    const { usualDryDays, longestDry } = seasonsOf(dailyOf(record));
    expect(usualDryDays).toBeGreaterThanOrEqual(181);
    expect(usualDryDays).toBeLessThanOrEqual(longestDry?.days ?? 0);
  });
  it('say nothing of a year that is even, or too short to know', () => {
    const steps = 3 * 365;
    const even: RainRecord = {
      startMin: 0,
      stepMin: DAY_MIN,
      steps,
      wet: Uint32Array.from({ length: steps / 5 }, (_, k) => 5 * k),
      mm: new Float32Array(steps / 5).fill(10),
      missing: new Uint32Array(0),
    };
    const seasons = seasonsOf(dailyOf(even));
    expect([seasons.finishBy, seasons.onsets]).toEqual([null, []]);
    expect(seasons.longestDry?.days).toBe(4);
    expect(seasons.halfInDays).toBeCloseTo(37, 0);
    const short = seasonsOf(dailyOf({ ...even, steps: 60, wet: even.wet.slice(0, 12), mm: even.mm.slice(0, 12) }));
    expect([short.yearsKnown, short.finishBy, short.usualDryDays]).toEqual([0, null, null]);
  });
});
