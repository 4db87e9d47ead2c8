// Walls that stand by their weight: examples worked by hand, and a second computation in thin slices.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { slicedStability } from '../../testing/gravity.ts';
import { type Load, COULOMB_PUSH, CREEP, EARTH_THRUST, RANKINE_PUSH, outlineOf, slabArea, slabsOf, stabilityOf } from './index.ts';

/** A square body of baskets, 1.5 m high and wide, water to its top. */
const SQUARE: Load = {
  body: { heightM: 1.5, baseM: 1.5, topM: 1.5, courseM: 0.5, steps: 'below' },
  weightKnM3: 16,
  poreKnM3: 0,
  headM: 0,
  tailM: 0,
  earthM: 0,
  earthKnM3: 9,
  frictionDeg: 30,
  lift: 0,
  mu: 0.6,
};

describe('a weir of baskets, 1.5 m high and wide (worked by hand: 36 kN/m on 11.04 kN/m of water)', () => {
  it('without lift: 4.9 against turning, 1.96 against sliding', () => {
    const s = stabilityOf(SQUARE);
    expect(s.overturning).toBeCloseTo(4.89, 2);
    expect(s.sliding).toBeCloseTo(1.957, 3);
  });
  it('lifted by the whole triangle: 1.63 and 1.36, pressing 39.8 kPa beyond the middle third', () => {
    const s = stabilityOf({ ...SQUARE, lift: 1 });
    expect(s.overturning).toBeCloseTo(1.63, 2);
    expect(s.sliding).toBeCloseTo(1.36, 2);
    expect(s.eccentricityM).toBeCloseTo(0.332, 3);
    expect(s.eccentricityM).toBeGreaterThan(s.sixthM);
    expect(s.pressureKpa).toBeCloseTo(39.8, 1);
  });
  it('half a metre over its crest takes sliding to 1.17; lifted, with half a metre below, it turns over', () => {
    expect(stabilityOf({ ...SQUARE, headM: 0.5 }).sliding).toBeCloseTo(1.17, 2);
    const over = stabilityOf({ ...SQUARE, headM: 0.5, tailM: 0.5, lift: 1 });
    expect(over.overturning).toBeLessThan(1);
    expect(over.pressureKpa).toBe(Infinity);
  });
});

describe('earth against a wall', () => {
  it('pushes with a third of its weight at 30 degrees; 0.297 of it where the wall is rough (Coulomb, by hand)', () => {
    expect(RANKINE_PUSH.evaluate({ phi: 30 })).toBeCloseTo(1 / 3, 9);
    expect(COULOMB_PUSH.evaluate({ phi: 30, d: 20 })).toBeCloseTo(0.297, 3);
    expect(COULOMB_PUSH.evaluate({ phi: 34, d: 0 })).toBeCloseTo(RANKINE_PUSH.evaluate({ phi: 34 }), 9);
  });
  it('a stepped wall of 2, 1.5 and 1 m: 72 kN/m, 86 kNm about its toe; 3.19 and 1.54, 55.5 kPa (by hand)', () => {
    const body = { heightM: 3, baseM: 2, topM: 1, courseM: 1, steps: 'below' } as const;
    const parts = slabsOf(body).map(slabArea);
    expect(16 * parts.reduce((a, p) => a + p.areaM2, 0)).toBeCloseTo(72, 9);
    expect(16 * parts.reduce((a, p) => a + p.areaM2 * p.armM, 0)).toBeCloseTo(86, 9);
    expect(EARTH_THRUST.evaluate({ Ka: 1 / 3, g: 18, H: 3 })).toBeCloseTo(27, 9);
    // No water: 27 kN/m at a metre; the law's water taken out by a tail as high as the wall.
    const Mo = 27;
    expect(86 / Mo).toBeCloseTo(3.19, 2);
    expect((Math.tan(Math.PI / 6) * 72) / 27).toBeCloseTo(1.54, 2);
  });
  it('seeps the longer way round, level ways by a third', () => {
    expect(CREEP.evaluate({ f: 0.6, c: 0.5, B: 3, a: 6 })).toBeCloseTo(1.2 + 1 + 3, 9);
  });
});

describe('the body of a wall', () => {
  it('of plane faces is a trapezoid, its middle as summed in a hundred courses', () => {
    const plane = { heightM: 2, baseM: 1.6, topM: 0.6, courseM: null, steps: 'below' } as const;
    const [slab] = slabsOf(plane);
    const { areaM2, armM } = slabArea(slab);
    expect(areaM2).toBeCloseTo(2.2, 9);
    const fine = slabsOf({ ...plane, courseM: 0.002 }).map(slabArea);
    const area = fine.reduce((a, p) => a + p.areaM2, 0);
    expect(area).toBeCloseTo(areaM2, 3);
    expect(fine.reduce((a, p) => a + p.areaM2 * p.armM, 0) / area).toBeCloseTo(armM, 3);
    // Leaning the other way it is its mirror.
    const other = slabArea(slabsOf({ ...plane, steps: 'above' })[0]);
    expect(other.areaM2).toBeCloseTo(areaM2, 9);
    expect(other.armM).toBeCloseTo(1.6 - armM, 9);
    expect(outlineOf([slab], { toeAt: 10, baseAt: 100 })).toEqual([[10, 100], [11, 102], [11.6, 102], [11.6, 100]]); // prettier-ignore
  });
});

const loads = fc.record({
  heightM: fc.double({ min: 0.5, max: 3, noNaN: true }),
  baseM: fc.double({ min: 1, max: 4, noNaN: true }),
  courseM: fc.constantFrom(null, 0.5, 1),
  steps: fc.constantFrom('below' as const, 'above' as const),
  headM: fc.double({ min: 0, max: 1, noNaN: true }),
  tailM: fc.double({ min: 0, max: 1.2, noNaN: true }),
  lift: fc.constantFrom(0, 0.5, 1),
  earth: fc.double({ min: 0, max: 1, noNaN: true }),
});
const loadOf = (r: {
  heightM: number;
  baseM: number;
  courseM: number | null;
  steps: 'below' | 'above';
  headM: number;
  tailM: number;
  lift: number;
  earth: number;
}): Load => ({
  ...SQUARE,
  body: { heightM: r.heightM, baseM: r.baseM, topM: Math.min(1, r.baseM), courseM: r.courseM, steps: r.steps },
  headM: r.headM,
  tailM: r.tailM,
  lift: r.lift,
  poreKnM3: 3.7,
  earthM: r.earth * r.heightM,
});

describe('against thin slices', () => {
  it('agrees with what is summed slice by slice', () => {
    fc.assert(
      fc.property(loads, (r) => {
        const load = loadOf(r);
        const [ours, theirs] = [stabilityOf(load), slicedStability(load)];
        for (const key of ['overturning', 'sliding'] as const)
          if (theirs[key] < 1e3) expect(Math.abs(ours[key] - theirs[key])).toBeLessThan(0.005 * Math.max(1, theirs[key]));
        if (Number.isFinite(theirs.eccentricityM))
          expect(Math.abs(ours.eccentricityM - theirs.eccentricityM)).toBeLessThan(0.01 * load.body.baseM);
      }),
      { seed: 1412, numRuns: 60 },
    );
  });
  it('is never safer for more water over it, more silt or more lift', () => {
    fc.assert(
      fc.property(loads, fc.double({ min: 0.01, max: 0.5, noNaN: true }), (r, more) => {
        const load = { ...loadOf(r), tailM: 0 };
        const now = stabilityOf(load);
        for (const worse of [
          { headM: load.headM + more },
          { earthM: load.earthM + more },
          { lift: Math.min(1, load.lift + more), poreKnM3: 0 },
        ]) {
          const then = stabilityOf({ ...load, ...worse });
          expect(then.overturning).toBeLessThanOrEqual(now.overturning + 1e-9);
          expect(then.sliding).toBeLessThanOrEqual(now.sliding + 1e-9);
        }
      }),
      { seed: 1413, numRuns: 80 },
    );
  });
});
