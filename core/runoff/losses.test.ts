import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { COVERS, type Soil, soilFacts } from '../ground/index.ts';
import {
  CURVE_NUMBER_RUNOFF_005,
  DRY_CURVE_NUMBER,
  GREEN_AMPT_DEPTH,
  GREEN_AMPT_RATE,
  HORTON_DEPTH,
  HORTON_RATE,
  LOSS_METHODS,
  PHILIP_DEPTH,
  PONDING_TIME,
  SEALED_CURVE_NUMBER,
  SEALED_RUNOFF,
  SMALL_ABSTRACTION_NUMBER,
  USUAL_LOSS,
  WETNESSES,
  WET_CURVE_NUMBER,
  constantLaw,
  curveNumberWhen,
  excessOf,
  greenAmptLaw,
  hortonLaw,
  partCatchment,
  partRain,
  retentionOf,
  runoffDepth,
  soakedAfter,
  soilRoomMm,
  weighed,
} from './index.ts';

const IN = 25.4;
const sum = (list: Float64Array): number => list.reduce((a, v) => a + v, 0);
const SOIL: Soil = { soilGroup: 'B', cover: 'pasture-fair', curveNumber: null, runoffC: null, infiltrationMmPerHour: 10, soilDepthM: 1.5 };
const soil = (change: Partial<Soil> = {}) => soilFacts({ ...SOIL, ...change });

describe('curve numbers of dry and wet ground', () => {
  it.each([
    [75, 57, 88],
    [80, 63, 91],
    [70, 51, 85],
    [60, 40, 78],
    [90, 78, 96],
  ])('%d is %d dry and %d wet (NEH-630 Table 10-1; handbook row 28, P)', (average, dry, wet) => {
    expect(curveNumberWhen('dry', average)).toBe(dry);
    expect(curveNumberWhen('wet', average)).toBe(wet);
    expect(curveNumberWhen('average', average)).toBe(average);
    // The fitted laws of Chow et al. are within two of the table.
    expect(Math.abs(DRY_CURVE_NUMBER.evaluate({ CN: average }) - dry)).toBeLessThan(2);
    expect(Math.abs(WET_CURVE_NUMBER.evaluate({ CN: average }) - wet)).toBeLessThan(2);
  });
  it('83.8 wet is 92.25, retention 0.841 in, and 5 in leave 4.12 in (CMM Example 5.5.2; row 22, P)', () => {
    const CN = WET_CURVE_NUMBER.evaluate({ CN: 83.8 });
    expect(Math.abs(CN - 92.25)).toBeLessThan(0.02);
    expect(Math.abs(retentionOf(CN) / IN - 0.841)).toBeLessThan(0.003);
    expect(Math.abs(runoffDepth(5 * IN, CN) / IN - 4.116)).toBeLessThan(0.01);
  });
  it.each([
    [60, 45.9],
    [75, 65.3],
    [80, 72.4],
    [90, 86.9],
  ])('%d becomes %d for a first loss of 0.05 S (Hawkins et al. 2002; row 26, C)', (CN, expected) => {
    expect(Math.abs(SMALL_ABSTRACTION_NUMBER.evaluate({ CN }) - expected)).toBeLessThan(0.1);
  });
  it.each([
    [1, 0.089],
    [5, 2.231],
  ])('%d in on CN_05 65.31 leave %d in (row 27, C)', (P, Q) => {
    expect(Math.abs(CURVE_NUMBER_RUNOFF_005.evaluate({ P: P * IN, CN_05: 65.31 }) / IN - Q)).toBeLessThan(0.005);
  });
  it('rise with wetness whatever they are', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 100, noNaN: true }), fc.double({ min: 0, max: 5, noNaN: true }), (CN, more) => {
        const [dry, average, wet] = WETNESSES.map((w) => curveNumberWhen(w, CN));
        expect(dry <= average + 1e-9 && average <= wet + 1e-9).toBe(true);
        expect(curveNumberWhen('wet', Math.min(100, CN + more))).toBeGreaterThanOrEqual(wet - 1e-9);
      }),
      { seed: 31 },
    );
  });
});

describe('several kinds of ground', () => {
  const part = (curveNumber: number, areaM2: number) => ({ soil: soil({ curveNumber }), areaM2 });
  it('75 ac of 70, 100 ac of 80 and 75 ac of 74 weigh 75 (TR-55 Example 2-2; row 18, P)', () => {
    const mean = weighed([part(70, 75), part(80, 100), part(74, 75)], (s) => s.curveNumber);
    expect(Math.abs(mean - 75.2)).toBeLessThan(0.1);
  });
  it('soils B and C with five covers weigh 83.8, and 5 in leave 3.25 in (CMM Example 5.5.1; row 21, P)', () => {
    const covers: [share: number, b: number, c: number][] = [
      [40, 72, 81],
      [12, 85, 90],
      [18, 98, 98],
      [8, 61, 74],
      [8, 69, 79],
      [14, 98, 98],
    ];
    const mean = weighed(
      covers.flatMap(([share, b, c]) => [part(b, share / 2), part(c, share / 2)]),
      (s) => s.curveNumber,
    );
    expect(Math.abs(mean - 83.8)).toBeLessThan(0.05);
    expect(Math.abs(runoffDepth(5 * IN, mean) / IN - 3.25)).toBeLessThan(0.01);
  });
  it('a fifth sealed over 61 is 68 connected, 66 with three quarters over lawn (TR-55 Figures 2-3, 2-4; row 20, P)', () => {
    expect(Math.abs(SEALED_CURVE_NUMBER.evaluate({ CN_p: 61, I: 20, R: 0 }) - 68)).toBeLessThan(0.5);
    expect(Math.abs(SEALED_CURVE_NUMBER.evaluate({ CN_p: 61, I: 20, R: 0.75 }) - 66)).toBeLessThan(0.5);
    expect(SEALED_CURVE_NUMBER.evaluate({ CN_p: 61, I: 50, R: 1 })).toBe(SEALED_CURVE_NUMBER.evaluate({ CN_p: 61, I: 50, R: 0 }));
  });
  it('40 % sealed, 25 mm on a hectare: 102.5 m³ (Schueler 1987; row 31, C)', () => {
    expect(Math.abs(SEALED_RUNOFF.evaluate({ I: 40, P: 25, A: 1 }) - 102.5)).toBeLessThan(0.1);
  });
  it('shed more added up than by their mean number: the law bends upward', () => {
    const storm = Float64Array.of(10, 20, 10);
    const parts = [{ soil: soil({ cover: 'paved' }), areaM2: 300 }, part(60, 700)];
    const added = partCatchment(storm, 1, { parts, choice: USUAL_LOSS }).runoffMm;
    expect(added).toBeCloseTo(0.3 * runoffDepth(40, 98) + 0.7 * runoffDepth(40, 60), 10);
    expect(added).toBeGreaterThan(
      runoffDepth(
        40,
        weighed(parts, (s) => s.curveNumber),
      ),
    );
  });
});

describe('Green-Ampt', () => {
  // Silt loam at 30 % saturation: effective porosity 0.486, suction 166.8 mm, K 6.5 mm/h (CMM Table 4.3.1).
  const K = 6.5;
  const s = 166.8 * 0.486 * 0.7;
  const silt = { conductivityMmPerHour: K, suctionMm: s };
  it('suction times filled porosity 56.8 mm; after an hour F 31.7 mm and f 18.1 mm/h (CMM Example 4.3.1; row 57, P)', () => {
    expect(Math.abs(s / 10 - 5.68)).toBeLessThan(0.01);
    const F = GREEN_AMPT_DEPTH.evaluate({ K, s, t: 1 });
    expect(Math.abs(F / 10 - 3.17)).toBeLessThan(0.01);
    expect(Math.abs(GREEN_AMPT_RATE.evaluate({ K, s, F }) / 10 - 1.81)).toBeLessThan(0.01);
  });
  it('stands after 10.5 h at 1 cm/h and 0.17 h at 5 cm/h, with 10.5 and 0.85 cm in (CMM Example 4.4.1; row 58, P)', () => {
    const slow = PONDING_TIME.evaluate({ K, s, i: 10 });
    expect(Math.abs(slow - 10.5)).toBeLessThan(0.1);
    const fast = PONDING_TIME.evaluate({ K, s, i: 50 });
    expect(Math.abs(fast - 0.17)).toBeLessThan(0.005);
    expect(Math.abs(5 * fast - 0.85)).toBeLessThan(0.01);
    expect(PONDING_TIME.evaluate({ K, s, i: 6 })).toBe(Infinity);
  });
  it('5 cm/h for an hour: F 3.02 cm, f 1.87 cm/h (CMM Example 4.4.2; row 59, P), in one step or in sixty', () => {
    for (const steps of [1, 60]) {
      const rain = new Float64Array(steps).fill(50 / steps);
      const F = 50 - sum(excessOf(greenAmptLaw(silt), rain, 1 / steps));
      expect(Math.abs(F / 10 - 3.02)).toBeLessThan(0.01);
      expect(Math.abs(GREEN_AMPT_RATE.evaluate({ K, s, F }) / 10 - 1.87)).toBeLessThan(0.01);
    }
  });
  it('obeys its own law for any soil and time, and adds up over parts of it', () => {
    const numbers = [
      fc.double({ min: 0.05, max: 200, noNaN: true }),
      fc.oneof(fc.constant(0), fc.double({ min: 0.01, max: 300, noNaN: true })),
    ] as const;
    fc.assert(
      fc.property(...numbers, fc.double({ min: 0.001, max: 48, noNaN: true }), (k, suction, hours) => {
        const law = { conductivityMmPerHour: k, suctionMm: suction };
        const F = soakedAfter(law, hours);
        const left = suction === 0 ? F : F - suction * Math.log1p(F / suction);
        // Where little has soaked in the two terms nearly cancel, so the test is on their scale.
        expect(Math.abs(left - k * hours)).toBeLessThan(1e-9 * Math.max(1, F));
        expect(Math.abs(soakedAfter(law, hours / 2, soakedAfter(law, hours / 2)) - F)).toBeLessThan(1e-7 * Math.max(1, F));
      }),
      { seed: 32 },
    );
  });
});

describe('Horton and Philip', () => {
  it.each([
    [0.5, 0.835, 0.783],
    [1, 0.568, 1.112],
    [2, 0.531, 1.65],
  ])('f0 3, fc 0.53, k 4.182: after %d h f %d in/h and F %d in (CMM ch. 4 data; row 63, C)', (t, f, F) => {
    const inputs = { f0: 3 * IN, fc: 0.53 * IN, k: 4.182, t };
    expect(Math.abs(HORTON_RATE.evaluate(inputs) / IN - f)).toBeLessThan(0.002);
    expect(Math.abs(HORTON_DEPTH.evaluate(inputs) / IN - F)).toBeLessThan(0.002);
  });
  it('sorptivity 5 cm/h^½ and K 0.4 cm/h: 3.74 cm in half an hour (CMM Example 4.2.1; row 62, P)', () => {
    expect(Math.abs(PHILIP_DEPTH.evaluate({ S: 50, K: 4, t: 0.5 }) / 10 - 3.74)).toBeLessThan(0.01);
  });
  it('under plenty of rain the excess is rain less its depth law; under little nothing runs', () => {
    const law = { firstMmPerHour: 76, lastMmPerHour: 13.5, decayPerHour: 4.182 };
    const rain = new Float64Array(24).fill(20);
    const soaked = 480 - sum(excessOf(hortonLaw(law), rain, 1 / 12));
    expect(soaked).toBeCloseTo(HORTON_DEPTH.evaluate({ f0: 76, fc: 13.5, k: 4.182, t: 2 }), 9);
    expect(sum(excessOf(hortonLaw(law), new Float64Array(24).fill(1), 1 / 12))).toBe(0);
  });
  it('takes its first rate and slackening from the choice where it has them', () => {
    const rain = new Float64Array(12).fill(10);
    const runs = (more: object): number =>
      sum(partRain(rain, 1 / 12, { soil: soil(), choice: { ...USUAL_LOSS, loss: 'horton', ...more } }).runsMm);
    expect(runs({ hortonTimes: 9 })).toBeLessThan(runs({}));
    expect(runs({ hortonDecay: 20 })).toBeGreaterThan(runs({}));
    expect(runs({ hortonTimes: 1 })).toBeCloseTo(
      sum(partRain(rain, 1 / 12, { soil: soil(), choice: { ...USUAL_LOSS, loss: 'constant' } }).runsMm),
      9,
    );
  });
  it('a constant rate takes its first loss, then so much a step', () => {
    expect([...excessOf(constantLaw({ firstMm: 6, rateMmPerHour: 8 }), Float64Array.of(4, 10, 2), 0.5)]).toEqual([0, 10 - 2 - 4 * 0.8, 0]);
  });
});

const storms = fc.array(fc.double({ min: 0, max: 25, noNaN: true }), { minLength: 1, maxLength: 40 });
const choices = fc.record({
  loss: fc.constantFrom(...LOSS_METHODS),
  wetness: fc.constantFrom(...WETNESSES),
  abstraction: fc.constantFrom('0.2' as const, '0.05' as const),
});
const soils = fc.record({
  cover: fc.constantFrom(...COVERS.map((c) => c.id)),
  soilGroup: fc.constantFrom('A' as const, 'B' as const, 'C' as const, 'D' as const),
  infiltrationMmPerHour: fc.double({ min: 0, max: 120, noNaN: true }),
});

describe('every loss', () => {
  it('parts the rain into what soaks, stands and runs, to 1e-9, none of them below nothing', () => {
    fc.assert(
      fc.property(storms, choices, soils, (mm, choice, change) => {
        const parted = partRain(Float64Array.from(mm), 0.1, { soil: soil(change), choice });
        const rain = mm.reduce((a, v) => a + v, 0);
        expect(Math.abs(parted.soaksMm + parted.standsMm + sum(parted.runsMm) - rain)).toBeLessThanOrEqual(1e-9 * Math.max(1, rain));
        expect(Math.min(parted.soaksMm, parted.standsMm, ...parted.runsMm)).toBeGreaterThanOrEqual(-1e-12);
        parted.runsMm.forEach((v, i) => expect(v).toBeLessThanOrEqual(mm[i] + 1e-9));
      }),
      { seed: 33, numRuns: 300 },
    );
  });
  it('ends when the soil is full: 0.1 m of loam that drains a fifth holds 19.3 mm, wet two fifths of it; the number knows its own end', () => {
    const mm = Float64Array.of(30, 30);
    const soaks = (loss: 'constant' | 'horton' | 'green-ampt', wetness: 'average' | 'wet' = 'average'): number => {
      const choice = { ...USUAL_LOSS, loss, wetness };
      return partRain(mm, 2, { soil: soil({ soilDepthM: 0.1 }), choice }).soaksMm;
    };
    for (const loss of ['constant', 'horton', 'green-ampt'] as const) expect([loss, soaks(loss).toFixed(6)]).toEqual([loss, '19.300000']);
    expect(soaks('constant', 'wet')).toBeCloseTo(0.4 * 19.3, 9);
    expect(soilRoomMm(soil({ soilDepthM: 0.1 }), { wetness: 'dry' })).toBeCloseTo(1.4 * 19.3, 9);
    const byNumber = (soilDepthM: number) => partRain(mm, 2, { soil: soil({ soilDepthM }), choice: USUAL_LOSS }).runoffMm;
    expect(byNumber(0.1)).toBe(byNumber(9));
  });
  it('lets no less run on shallower soil', () => {
    fc.assert(
      fc.property(storms, choices, soils, fc.double({ min: 0, max: 0.5, noNaN: true }), (...[mm, choice, change, soilDepthM]) => {
        const runs = (m: number): number =>
          sum(partRain(Float64Array.from(mm), 0.1, { soil: soil({ ...change, soilDepthM: m }), choice }).runsMm);
        expect(runs(soilDepthM)).toBeGreaterThanOrEqual(runs(soilDepthM + 0.1) - 1e-9);
      }),
      { seed: 36, numRuns: 150 },
    );
  });
  it('lets no less run for more rain, on wetter ground, or where less soaks in', () => {
    const runs = (mm: readonly number[], choice: typeof USUAL_LOSS, change: Partial<Soil>): number =>
      sum(partRain(Float64Array.from(mm), 0.1, { soil: soil(change), choice }).runsMm);
    fc.assert(
      fc.property(storms, choices, soils, (mm, choice, change) => {
        const own = runs(mm, choice, change);
        expect(
          runs(
            mm.map((v) => 1.2 * v),
            choice,
            change,
          ),
        ).toBeGreaterThanOrEqual(own - 1e-9);
        expect(runs(mm, { ...choice, wetness: 'wet' }, change)).toBeGreaterThanOrEqual(own - 1e-9);
        expect(runs(mm, choice, { ...change, infiltrationMmPerHour: 0.6 * change.infiltrationMmPerHour })).toBeGreaterThanOrEqual(
          own - 1e-9,
        );
      }),
      { seed: 34, numRuns: 200 },
    );
  });
  it('sheds no more once the ground has healed', () => {
    fc.assert(
      fc.property(storms, choices, soils, fc.double({ min: 0, max: 20, noNaN: true }), (...[mm, choice, change, years]) => {
        const own: Soil = { ...SOIL, ...change, compaction: 'severe', healing: { treatment: 'rip-and-rest', cover: 'pasture-good' } };
        const run = (facts: ReturnType<typeof soilFacts>): number =>
          sum(partRain(Float64Array.from(mm), 0.1, { soil: facts, choice }).runsMm);
        expect(run(soilFacts(own, { as: 'healed', years }))).toBeLessThanOrEqual(run(soilFacts(own)) + 1e-9);
      }),
      { seed: 35, numRuns: 200 },
    );
  });
});
