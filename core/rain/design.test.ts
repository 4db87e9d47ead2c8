import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  BUCKET_RAIN,
  type OneStorm,
  PURPOSES,
  type RainRecord,
  type RainTable,
  type StormShape,
  designStorm,
  eventsOf,
  patternShare,
  peakIntensity,
  returnIn,
  returnOfWettest,
  rowFor,
  stormOfEvent,
  stormProblems,
  tableFromMemory,
  checkTable,
  totalsOf,
  wettestRun,
  whichStorm,
} from './index.ts';

const TABLE: RainTable = {
  durationsMin: [5, 30, 120, 1440],
  returnYears: [2, 10, 50],
  depthMm: [
    [6, 16, 28, 66],
    [10, 26, 45, 101],
    [14, 37, 63, 137],
  ],
};
const sum = (list: ArrayLike<number>): number => Array.from(list).reduce((a, v) => a + v, 0);
const shapes = fc.oneof(
  fc.constant<StormShape>({ kind: 'blocks' }),
  fc.constant<StormShape>({ kind: 'uniform' }),
  fc
    .record({
      stepMin: fc.constantFrom(5, 15, 60),
      stepsMm: fc.array(fc.double({ min: 0, max: 9, noNaN: true }), { minLength: 1, maxLength: 24 }),
    })
    .map((s): StormShape => ({ kind: 'own', name: 'mine', ...s })),
);
const storms = fc
  .record({
    returnYears: fc.constantFrom(2, 10, 50),
    durationMin: fc.integer({ min: 5, max: 1440 }),
    shape: shapes,
    upliftPercent: fc.integer({ min: -50, max: 200 }),
    againAfterH: fc.option(fc.integer({ min: 0, max: 48 }), { nil: undefined }),
  })
  .map((s): OneStorm => s);

describe('the design storm', () => {
  it('24-hour patterns have their printed shares: TR-55 appendix B (handbook row 14, P)', () => {
    expect(patternShare('II', 12)).toBe(0.663);
    expect(patternShare('III', 12)).toBe(0.5);
    expect(patternShare('I', 10)).toBe(0.515);
    expect(patternShare('IA', 8)).toBe(0.425);
    for (const p of ['I', 'IA', 'II', 'III'] as const) {
      for (let h = 0; h < 24; h += 0.1) expect(patternShare(p, h + 0.1)).toBeGreaterThan(patternShare(p, h));
      expect([patternShare(p, 0), patternShare(p, 24)]).toEqual([0, 1]);
    }
  });
  it('conserves depth whatever its shape, step, uplift and repetition', () => {
    fc.assert(
      fc.property(storms, fc.double({ min: 0.5, max: 30, noNaN: true }), (storm, step) => {
        const made = designStorm(TABLE, storm, step);
        const { depthMm, durationMin } = totalsOf(TABLE, storm);
        const times = storm.againAfterH === undefined ? 1 : 2;
        expect(Math.abs(sum(made.stepsMm) - times * depthMm)).toBeLessThan(1e-9 * (1 + depthMm));
        expect(made.stepMin).toBeLessThanOrEqual(step + 1e-9);
        expect(Math.min(...made.stepsMm)).toBeGreaterThanOrEqual(-1e-12);
        expect(made.stepsMm.length * made.stepMin).toBeGreaterThanOrEqual(times * durationMin - 1e-6);
      }),
      { seed: 41 },
    );
  });
  it('adds its uplift to every step, and the second storm after its dry hours', () => {
    const storm: OneStorm = { returnYears: 10, durationMin: 120 };
    const [plain, more] = [designStorm(TABLE, storm, 10), designStorm(TABLE, { ...storm, upliftPercent: 20 }, 10)];
    plain.stepsMm.forEach((v, i) => expect(more.stepsMm[i]).toBeCloseTo(1.2 * v, 12));
    const twice = designStorm(TABLE, { ...storm, againAfterH: 3 }, 10);
    expect([...twice.stepsMm.subarray(0, 12)]).toEqual([...plain.stepsMm]);
    expect(sum(twice.stepsMm.subarray(12, 12 + 18))).toBe(0);
    expect([...twice.stepsMm.subarray(30)]).toEqual([...plain.stepsMm]);
  });
  it('is even where it is uniform, and the user’s own to the step', () => {
    const even = designStorm(TABLE, { returnYears: 2, durationMin: 60, shape: { kind: 'uniform' } }, 5);
    even.stepsMm.forEach((v) => expect(v).toBeCloseTo(even.depthMm / 12, 12));
    const own = designStorm(
      TABLE,
      { returnYears: 2, durationMin: 60, shape: { kind: 'own', name: 'mine', stepMin: 10, stepsMm: [1, 5, 2] } },
      10,
    );
    expect([...own.stepsMm].map((v) => Number(v.toFixed(9)))).toEqual([1, 5, 2]);
    // Finer steps only divide it.
    const fine = designStorm(
      TABLE,
      { returnYears: 2, durationMin: 60, shape: { kind: 'own', name: 'mine', stepMin: 10, stepsMm: [1, 5, 2] } },
      2,
    );
    expect(wettestRun(fine, 10)).toBeCloseTo(5, 9);
    expect(peakIntensity(fine, 10)).toBeCloseTo(30, 9);
  });
  it('knows its wettest run: never less for longer, never more than all, the whole at its length', () => {
    fc.assert(
      fc.property(storms, fc.double({ min: 1, max: 2000, noNaN: true }), (storm, minutes) => {
        const made = designStorm(TABLE, storm, 7);
        const [short, long] = [wettestRun(made, minutes), wettestRun(made, 2 * minutes)];
        expect(long).toBeGreaterThanOrEqual(short - 1e-9);
        expect(long).toBeLessThanOrEqual(2 * short + 1e-9);
        expect(wettestRun(made, made.durationMin)).toBeCloseTo(made.depthMm, 6);
      }),
      { seed: 42 },
    );
  });
  it.each([
    ['rain.storm', { returnYears: 7 }],
    ['rain.storm-duration', { durationMin: 0 }],
    ['rain.storm-duration', { durationMin: 20000 }],
    ['rain.storm-uplift', { upliftPercent: 900 }],
    ['rain.storm-again', { againAfterH: -1 }],
    ['rain.storm-shape', { shape: { kind: 'pattern', pattern: 'II' } }],
    ['rain.storm-shape', { durationMin: 1440, shape: { kind: 'pattern', pattern: 'V' } }],
    ['rain.storm-shape', { shape: { kind: 'spiral' } }],
    ['rain.storm-shape', { shape: { kind: 'own', name: '', stepMin: 0, stepsMm: [1] } }],
    ['rain.storm-shape', { shape: { kind: 'own', name: '', stepMin: 5, stepsMm: [] } }],
    ['rain.storm-shape', { shape: { kind: 'own', name: '', stepMin: 5, stepsMm: [1, -1] } }],
    ['rain.storm-shape', { shape: { kind: 'own', name: '', stepMin: 5, stepsMm: [0, 0] } }],
    ['rain.storm-shape', { shape: { kind: 'own', name: '', stepMin: 5, stepsMm: [400] } }],
    ['rain.storm-shape', { shape: { kind: 'event', name: '', stepMin: 1440, stepsMm: new Array(9).fill(3) } }],
  ])('refuses %s: %j', (code, change) => {
    const storm = { returnYears: 10, durationMin: 120, ...change } as OneStorm;
    expect(stormProblems(TABLE, storm).map((p) => p.code)).toEqual([code]);
    expect(stormProblems(TABLE, { returnYears: 10, durationMin: 120 })).toEqual([]);
  });
});

describe('rains of a record', () => {
  // Hours: 3 and 5 mm, an hour dry, 2 mm; ten dry hours; 8 mm; twenty dry hours; 1 mm.
  const record: RainRecord = {
    startMin: 0,
    stepMin: 60,
    steps: 60,
    wet: Uint32Array.of(0, 1, 3, 14, 35),
    mm: Float32Array.of(3, 5, 2, 8, 1),
    missing: new Uint32Array(0),
  };
  it('are told apart by six dry hours, deepest first, and can be designed for', () => {
    const events = eventsOf(record);
    expect(events.map((e) => [e.fromMin / 60, e.durationMin / 60, e.depthMm])).toEqual([
      [0, 4, 10],
      [14, 1, 8],
    ]);
    expect(stormOfEvent(record, events[0], 10080)).toEqual({ stepMin: 60, stepsMm: [3, 5, 0, 2], name: 'the rain of 1970-01-01' });
    expect(stormOfEvent(record, events[0], 120)).toBeNull();
  });
});

describe('what storm was that', () => {
  it('is the table’s own return period at the table’s depths, and rises with depth', () => {
    TABLE.returnYears.forEach((years, r) =>
      TABLE.durationsMin.forEach((minutes, c) => expect(returnIn(TABLE, TABLE.depthMm[r][c], minutes).years).toBeCloseTo(years, 6)),
    );
    let last = 0;
    for (let mm = 28; mm <= 63; mm += 0.5) {
      const { years, beyond } = returnIn(TABLE, mm, 120);
      expect(beyond).toBeNull();
      expect(years).toBeGreaterThanOrEqual(last);
      last = years;
    }
    expect(returnIn(TABLE, 20, 120)).toEqual({ years: 2, beyond: 'commoner' });
    expect(returnIn(TABLE, 90, 120)).toEqual({ years: 50, beyond: 'rarer' });
  });
  it('has a range that holds it, wider for a bucket than for a gauge and wider still with the table’s limits', () => {
    const reading = { depthMm: 45, durationMin: 120 } as const;
    const [gauge, bucket] = (['gauge', 'bucket'] as const).map((by) => whichStorm(TABLE, { ...reading, by }));
    expect(gauge.best.years).toBeCloseTo(10, 6);
    expect(gauge.least.years).toBeLessThan(10);
    expect(gauge.most.years).toBeGreaterThan(10);
    expect(bucket.least.years).toBeLessThan(gauge.least.years);
    expect(bucket.most.years).toBeGreaterThan(gauge.most.years);
    const scaled = (f: number) => TABLE.depthMm.map((row) => row.map((v) => f * v));
    const sure = whichStorm(TABLE, { ...reading, by: 'gauge' }, { lowMm: scaled(0.9), highMm: scaled(1.1) });
    expect(sure.withLimits).toBe(true);
    expect(sure.least.years).toBeLessThan(gauge.least.years);
    expect(sure.most.years).toBeGreaterThan(gauge.most.years);
    expect(whichStorm(TABLE, { depthMm: 3, durationMin: 2, by: 'gauge' }).extrapolated).toBe(true);
  });
  it('reads a straight bucket as its water, and a tapered one by its opening', () => {
    expect(BUCKET_RAIN.evaluate({ h: 40, D: 250, d: 250, H: 300 })).toBeCloseTo(40, 12);
    // A full cone cut to a point holds a third of its height.
    expect(BUCKET_RAIN.evaluate({ h: 300, D: 250, d: 1e-9, H: 300 })).toBeCloseTo(100, 6);
    // By numbers: slices of the frustum summed.
    const [D, d, H, h] = [300, 220, 350, 120];
    let volume = 0;
    for (let z = 0.5; z < h; z++) volume += (Math.PI / 4) * (d + ((D - d) * z) / H) ** 2;
    expect(BUCKET_RAIN.evaluate({ h, D, d, H })).toBeCloseTo(volume / ((Math.PI / 4) * D * D), 3);
  });
});

describe('a table from memory', () => {
  it('is a sound table within its limits, deeper with a wetter day and with a wetter year where no day is known', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 150, max: 4000 }),
        fc.option(fc.integer({ min: 10, max: 400 })),
        fc.integer({ min: 1, max: 80 }),
        (annualMm, wettestDayMm, years) => {
          const { table, limits } = tableFromMemory({ annualMm, wettestDayMm, years });
          expect(checkTable(table)).toEqual([]);
          table.depthMm.forEach((row, r) =>
            row.forEach((mm, c) => {
              expect(limits.lowMm[r][c]).toBeLessThanOrEqual(mm);
              expect(limits.highMm[r][c]).toBeGreaterThanOrEqual(mm);
            }),
          );
          const wetter = tableFromMemory({ annualMm: 2 * annualMm, wettestDayMm: wettestDayMm === null ? null : 2 * wettestDayMm, years });
          expect(wetter.table.depthMm[2][6]).toBeGreaterThan(table.depthMm[2][6]);
        },
      ),
      { seed: 43, numRuns: 60 },
    );
  });
  it('takes the wettest of n years for about 1.4 n years, and refuses nonsense', () => {
    const [low, middle, high] = returnOfWettest(30);
    expect(middle).toBeCloseTo(1 / (1 - 0.5 ** (1 / 30)), 9);
    expect(low < middle && middle < high).toBe(true);
    expect(() => tableFromMemory({ annualMm: 0, wettestDayMm: null, years: 5 })).toThrow('annualMm must be above 0');
    expect(tableFromMemory({ annualMm: 300, wettestDayMm: 200, years: 5 }).notes).toHaveLength(1);
  });
});

describe('advice on the return period', () => {
  it('asks for rarer storms where people are below, and names a row of the table', () => {
    const years = Object.fromEntries(PURPOSES.map((p) => [p.id, p.years]));
    expect(years.wall).toBeGreaterThan(years.soaking);
    expect(years.building).toBeGreaterThan(years.drain);
    expect([rowFor([2, 10, 50], 20), rowFor([2, 10, 50], 100), rowFor([2, 10, 50], 2)]).toEqual([50, 50, 2]);
  });
});
