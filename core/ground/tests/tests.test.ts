import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  AUGER_HOLE,
  DESIGN_RATE,
  type FieldTest,
  PERCOLATION,
  RING_DIVISOR,
  type Reading,
  SOAKAGE_PIT,
  TEST_KINDS,
  designRateOf,
  isSettledBy,
  reduceTest,
  safetyFor,
  settledBy,
  soilGroupBy,
  testKind,
  testProblems,
} from './index.ts';

const sizesOf = (kind: string): Record<string, number> => Object.fromEntries((testKind(kind)?.sizes ?? []).map((s) => [s.id, s.start]));
const test = (kind: string, readings: Reading[], more: Partial<FieldTest> = {}): FieldTest => ({
  id: 't',
  kind,
  name: 'T',
  zone: null,
  sizes: sizesOf(kind),
  readings,
  ...more,
});
/** A ring read every ten minutes, topped up to 100 mm each time, falling so much between. */
const ring = (falls: readonly number[], kind = 'double-ring'): FieldTest =>
  test(
    kind,
    [100, ...falls.map((f) => 100 - f)].map((mm, k) => ({ min: 10 * k, mm, ...(k > 0 ? { refilledMm: 100 } : {}) })),
  );

const SOIL = { soilGroup: 'D', cover: 'bare', curveNumber: null, runoffC: null, infiltrationMmPerHour: 3, soilDepthM: 1.5 } as const;

describe('what a test settles', () => {
  // 30 mm/h tested over 1.5 m of soil is group B (14.4 to 36 mm/h, NEH-630 Table 7-1); half of it, as designed with, would just be.
  const tested = ring([14, 9, 6.5, 5.2, 5, 4.8]);
  it('is the rate after its safety factor, its limits, and the group by the rate before', () => {
    const settled = settledBy(tested, SOIL);
    expect(settled).toMatchObject({ rateFrom: 't', soilGroup: 'B' });
    expect(settled?.infiltrationMmPerHour).toBeCloseTo(15, 9);
    expect(settled?.infiltrationRange.map((v) => v.toFixed(6))).toEqual(['10.000000', '22.500000']);
    expect(isSettledBy(tested, SOIL)).toBe(false);
    expect(isSettledBy(tested, { ...SOIL, ...settled })).toBe(true);
    expect(isSettledBy(ring([14, 9, 6.5, 5.2, 6, 5.8]), { ...SOIL, ...settled })).toBe(false);
    expect(settledBy(test('double-ring', []), SOIL)).toBeNull();
  });
  it('is asked for the group only while the soil names it', () => {
    const soil = { ...SOIL, infiltrationMmPerHour: 12 };
    expect(soilGroupBy(soil, [tested])).toMatchObject({ group: 'C', isTested: false });
    expect(soilGroupBy({ ...soil, rateFrom: 't' }, [tested])).toMatchObject({ group: 'B', isTested: true });
    // Rock within half a metre makes any soil D.
    expect(soilGroupBy({ ...soil, rateFrom: 't', soilDepthM: 0.4 }, [tested]).group).toBe('D');
  });
});

describe('rings', () => {
  it('a double ring steadies at its fall: 5 mm in 10 minutes is 30 mm/h, over two 15', () => {
    const found = reduceTest(ring([14, 9, 6.5, 5.2, 5, 4.8]));
    expect(found.isSteady).toBe(true);
    expect(found.rateMmPerHour).toBeCloseTo(30, 9);
    expect(found.intervals.map((i) => Math.round(i.rateMmPerHour))).toEqual([84, 54, 39, 31, 30, 29]);
    const design = designRateOf(ring([14, 9, 6.5, 5.2, 5, 4.8]));
    expect(design?.safety).toBe(2);
    expect(design?.rateMmPerHour).toBeCloseTo(15, 9);
  });
  it('says that it is not steady yet, and takes the least meanwhile', () => {
    const found = reduceTest(ring([14, 9, 6.5]));
    expect(found.isSteady).toBe(false);
    expect(found.rateMmPerHour).toBeCloseTo(39, 9);
    expect(found.says).toMatch(/last three differ by 42 %/);
    expect(reduceTest(ring([14])).says).toBe('Not steady yet: at least 2 more readings.');
    expect(reduceTest(ring([]))).toMatchObject({ rateMmPerHour: null, says: 'Two readings at least are needed.' });
  });
  it('a single ring of 100 mm radius, 50 mm in, 50 mm of water divides by 2.24 (handbook 3.3, C)', () => {
    expect(RING_DIVISOR.evaluate({ H: 5, d: 5, a: 10, α: 0.12 })).toBeCloseTo(2.24, 2);
    const falls = [5, 5, 5];
    const single = { ...ring(falls, 'single-ring'), sizes: { radiusM: 0.1, drivenM: 0.05, suction: 0.12 } };
    const H = (10 + 9.5) / 2;
    expect(reduceTest(single).rateMmPerHour).toBeCloseTo(30 / RING_DIVISOR.evaluate({ H, d: 5, a: 10, α: 0.12 }), 9);
    // Water spreads under one ring, so the ground itself is slower than what the ring loses.
    expect(reduceTest(single).rateMmPerHour).toBeLessThan(30);
  });
  it('ground that takes nothing reads as nothing, not as no result', () => {
    expect(reduceTest(ring([0, 0, 0]))).toMatchObject({ rateMmPerHour: 0, isSteady: true });
  });
});

describe('holes', () => {
  it('a percolation hole overstates the ground: the plain fall is (r + 2H)/r times more', () => {
    const found = reduceTest(
      test('percolation', [0, 30, 60, 90].map((min, k) => ({ min, mm: 200 - 20, ...(k < 3 ? { refilledMm: 200 } : {}) })).slice(0, 4)),
    );
    const raw = 40;
    expect(found.intervals[2].fallMmPerHour).toBeCloseTo(raw, 9);
    expect(found.rateMmPerHour).toBeCloseTo((raw * 100) / (100 + 2 * 190), 9);
    expect(PERCOLATION.evaluate({ dH: 20, t: 30, r: 100, H: 190 })).toBeCloseTo(found.rateMmPerHour ?? 0, 9);
  });
  it('an auger hole falls by the law it is read with, so any stretch of its curve gives back the same conductivity', () => {
    // dh/dt = −K (1 + 2h/r): the wetted sides and base drink at K (inverse auger hole, gradient one).
    const [K, r, h0] = [36, 50, 400];
    const at = (min: number): number => (h0 + r / 2) * Math.exp((-2 * K * min) / 60 / r) - r / 2;
    const readings = [0, 4, 9, 15, 22].map((min) => ({ min, mm: at(min) }));
    const found = reduceTest(test('auger', readings));
    // 1.15 stands for ln(10)/2 = 1.1513.
    for (const interval of found.intervals) expect(interval.rateMmPerHour / K).toBeCloseTo(1.15 / (Math.LN10 / 2), 9);
    expect(found.isSteady).toBe(true);
    expect(AUGER_HOLE.evaluate({ r, h0, h1: at(4), t: 4 })).toBeCloseTo(K, 0);
  });
});

describe('soakage pit', () => {
  const fill = (from: number, minutes: number): Reading[] => [
    { min: from, mm: 1000 },
    { min: from + minutes / 2, mm: 750 },
    { min: from + (3 * minutes) / 2, mm: 250 },
  ];
  it('2 x 0.6 m, a metre deep, 90 minutes from three quarters to one: 2.92e-5 m/s (BRE 365; handbook row 66, C)', () => {
    expect(Math.abs(SOAKAGE_PIT.evaluate({ V: 0.6, a: 3.8, t: 5400 }) / 3.6e6 - 2.92e-5)).toBeLessThan(1e-6);
    const found = reduceTest(test('pit', fill(0, 90)));
    expect((found.rateMmPerHour ?? 0) / 3.6e6).toBeCloseTo(0.6 / (3.8 * 5400), 12);
    expect(found.isSteady).toBe(false);
    expect(found.says).toBe('Fill it twice more: the slowest of three counts.');
  });
  it('takes the slowest of three fillings', () => {
    const three = [...fill(0, 60), ...fill(200, 90), ...fill(400, 120)].map((r, k) =>
      k % 3 === 2 && k < 8 ? { ...r, refilledMm: 1000 } : r,
    );
    // A refill is the first reading of the next filling: what was read at its own time stands at the brim.
    const found = reduceTest(test('pit', three));
    expect(found).toMatchObject({ isSteady: true, says: 'The slowest of three fillings.' });
    expect((found.rateMmPerHour ?? 0) / 3.6e6).toBeCloseTo(0.6 / (3.8 * 7200), 12);
  });
});

describe('safety', () => {
  it('by area and harm (CIRIA 753), and divides', () => {
    expect([safetyFor(80, 'none'), safetyFor(500, 'nuisance'), safetyFor(5000, 'nuisance'), safetyFor(50, 'damage')]).toEqual([
      1.5, 3, 5, 10,
    ]);
    expect(DESIGN_RATE.evaluate({ K: 45, SF: 3 })).toBe(15);
  });
});

describe('any test', () => {
  it('scales with time, is never negative, and a slower fall never reads faster', () => {
    const falls = fc.array(fc.double({ min: 0.5, max: 60, noNaN: true }), { minLength: 3, maxLength: 9 });
    fc.assert(
      fc.property(falls, fc.constantFrom('double-ring', 'single-ring', 'percolation', 'auger'), (list, kind) => {
        const own = ring(list, kind);
        const slower = { ...own, readings: own.readings.map((r) => ({ ...r, min: 2 * r.min })) };
        const [a, b] = [reduceTest(own).rateMmPerHour ?? -1, reduceTest(slower).rateMmPerHour ?? -1];
        expect(a).toBeGreaterThan(0);
        expect(b / a).toBeCloseTo(0.5, 9);
        expect(testProblems(own)).toEqual([]);
      }),
      { seed: 21, numRuns: 100 },
    );
  });
  const good = ring([5, 5, 5]);
  const with_ = (k: number, change: object): FieldTest => ({
    ...good,
    readings: good.readings.map((r, i) => (i === k ? { ...r, ...change } : r)),
  });
  it.each<[string, unknown]>([
    ['test.kind', { ...good, kind: 'bucket' }],
    ['test.size', { ...good, kind: 'single-ring', sizes: { radiusM: 15, drivenM: 0.05, suction: 0.12 } }],
    ['test.safety', { ...good, safety: 0 }],
    ['test.readings', { ...good, readings: 'many' }],
    ['test.time', with_(0, { min: -1 })],
    ['test.order', with_(2, { min: 10 })],
    ['test.depth', with_(1, { mm: NaN })],
    ['test.rise', with_(1, { mm: 120 })],
    ['test.refill', with_(1, { refilledMm: 20 })],
  ])('%s is refused with what, where and what to do', (code, bad) => {
    const [problem] = testProblems(bad as FieldTest, 'ground.tests.0');
    expect(problem.code).toBe(code);
    expect(problem.field).toMatch(/^ground\.tests\.0\./);
    expect(problem.what.length).toBeGreaterThan(10);
    expect(problem.do.length).toBeGreaterThan(10);
  });
  it('has sizes that begin within their bounds', () => {
    for (const { sizes } of TEST_KINDS) for (const s of sizes) expect(s.start >= s.min && s.start <= s.max).toBe(true);
  });
});
