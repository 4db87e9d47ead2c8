import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  BROAD_CREST,
  APRON_STONE,
  BOX_INLETS,
  CRITICAL_DEPTH,
  CULVERT_BARREL,
  CULVERT_INLET_DROWNED,
  CULVERT_INLET_DROWNED_MITRED,
  CULVERT_INLET_FREE,
  CULVERT_INLET_FREE_MITRED,
  type Culvert,
  DARCY_LOSS,
  DROP_INLET,
  DROWNED_WEIR,
  FULL_PIPE,
  HYDRAULIC_JUMP,
  INLET_IDS,
  ISBASH,
  LINING_STONE,
  NORMAL_DEPTH,
  PUMP_POWER,
  ROCK_SEEPAGE,
  SHARP_CREST,
  SOLAR_ARRAY,
  VOID_RADIUS,
  V_NOTCH,
  WAVE_HAWKSLEY,
  WAVE_RUNUP,
  apronOf,
  backwater,
  circle,
  criticalDepth,
  culvertHead,
  culvertLaw,
  drownableSillLaw,
  fetchFreeboard,
  froude,
  crestLaw,
  grassedSillLaw,
  INLETS,
  inletHead,
  riserLaw,
  roundMouth,
  sideSlopeLaw,
  trapezoid,
  uniformFlow,
} from './index.ts';

const FT = 0.3048;
const CFS = FT ** 3;

describe('depths of flow in a channel', () => {
  it('is 3.36 ft for 400 ft³/s (Chow 1959 Example 6-2; handbook row 69, P, with 1.49)', () => {
    // The book's 1.49 for 1.486 is as good as a roughness that much smaller.
    const y = NORMAL_DEPTH.evaluate({ Q: 400 * CFS, b: 20 * FT, z: 2, S: 0.0016, n: (0.025 * 1.486) / 1.49 });
    expect(Math.abs(y / FT - 3.36)).toBeLessThan(0.01);
  });
  it('is critical at 2.15 ft with 7.66 ft/s (Example 4-2; row 70, P), at 2.22 ft with alpha 1.10 (Example 10-1; row 71, P)', () => {
    const at = (alpha: number): number => CRITICAL_DEPTH.evaluate({ Q: 400 * CFS, b: 20 * FT, z: 2, alpha });
    expect(Math.abs(at(1) / FT - 2.15)).toBeLessThan(0.01);
    expect(Math.abs((400 * CFS) / trapezoid(20 * FT, 2).area(at(1)) / FT - 7.66)).toBeLessThan(0.03);
    expect(Math.abs(at(1.1) / FT - 2.22)).toBeLessThan(0.01);
  });
  it('of a rectangle is the cube root of q²/g, of a triangle the fifth root of 2Q²/(g·z²) (handbook 4.1)', () => {
    expect(criticalDepth(trapezoid(3, 0), 2)).toBeCloseTo(Math.cbrt((2 / 3) ** 2 / 9.81), 9);
    expect(criticalDepth(trapezoid(0, 2), 0.5)).toBeCloseTo(((2 * 0.25) / (9.81 * 4)) ** 0.2, 9);
    expect(froude(trapezoid(3, 1), 2, criticalDepth(trapezoid(3, 1), 2))).toBeCloseTo(1, 6);
  });
  it.each([
    [0.1, 0.011, 0.01, 6.1],
    [0.2, 0.013, 0.005, 23.2],
    [0.3, 0.013, 0.01, 96.7],
    [0.6, 0.013, 0.01, 614],
    [0.3, 0.024, 0.01, 52.4],
  ])('a pipe of %d m with n %d at %d runs full with %d L/s (Manning; row 76, C)', (...[D, n, S, litres]) => {
    expect(Math.abs((1000 * FULL_PIPE.evaluate({ D, n, S })) / litres - 1)).toBeLessThan(0.005);
  });
  it('of a part-full pipe follow the handbook’s shares of full flow (4.1)', () => {
    const [D, on] = [0.5, { slope: 0.01, n: 0.013 }];
    const full = FULL_PIPE.evaluate({ D, n: on.n, S: on.slope });
    for (const [depth, share] of [
      [0.25, 0.137],
      [0.5, 0.5],
      [0.7, 0.837],
      [0.8, 0.977],
      [0.938, 1.076],
    ]) {
      expect(Math.abs(uniformFlow(circle(D), on, depth * D) / full - share)).toBeLessThan(0.002);
    }
  });
});

describe('the water line of a level channel', () => {
  it('is that of the closed integral for a wide one: x = (3/4·(q²/g)·y^(4/3) − 3/13·y^(13/3)) / (n²·q²) + C', () => {
    const [q, n, width] = [0.2, 0.03, 5000];
    const integral = (y: number): number => (((3 / 4) * (q * q * y ** (4 / 3))) / 9.81 - (3 / 13) * y ** (13 / 3)) / (n * n * q * q);
    const lengthM = 150;
    const depths = backwater({ section: trapezoid(width, 0), lengthM, slope: 0, n }, q * width, 0.35);
    // Distance from the lower end is the integral's difference; both must agree where the computed depth stands.
    for (const k of [3, 6, 12]) expect(Math.abs((integral(0.35) - integral(depths[k])) / ((lengthM * k) / 12) - 1)).toBeLessThan(0.01);
    expect(depths[12]).toBeGreaterThan(depths[0]);
  });
  it('is even at normal depth on a slope, and level without flow', () => {
    const section = trapezoid(1.2, 1.5);
    const [slope, n] = [0.002, 0.03];
    const y = NORMAL_DEPTH.evaluate({ Q: 0.6, b: 1.2, z: 1.5, S: slope, n });
    for (const depth of backwater({ section, lengthM: 200, slope, n }, 0.6, y)) expect(depth).toBeCloseTo(y, 6);
    expect([...backwater({ section, lengthM: 100, slope: 0.001, n }, 0, 1)].at(-1)).toBeCloseTo(0.9, 12);
  });
  it('of a thin sheet through long grass follows dy/dx = Sf / (1 - Fr²), however steep it begins', () => {
    const [section, n, lengthM] = [trapezoid(5, 3), 0.25, 30];
    for (const [q, headM] of [
      [0.0214, 0.02],
      [0.0859, 0.05],
      [0.4671, 0.15],
    ]) {
      let y = Math.max(headM, 1.0001 * criticalDepth(section, q));
      const dx = lengthM / 3e5;
      for (let k = 0; k < 3e5; k++) {
        const [area, top] = [section.area(y), section.topWidth(y)];
        const froude2 = (q * q * top) / (9.81 * area ** 3);
        const friction = ((q * n) / area) ** 2 / Math.cbrt(area / section.perimeter(y)) ** 4;
        y += (dx * friction) / Math.max(1e-3, 1 - froude2);
      }
      expect(Math.abs(backwater({ section, lengthM, slope: 0, n }, q, headM)[12] - y)).toBeLessThan(0.003);
    }
  });
});

describe('crests', () => {
  it.each([
    [0.5, 0.845],
    [0.8, 0.616],
  ])('drowned to %d keep %d (Villemonte 1947; row 79, C)', (H2, share) => {
    expect(Math.abs(DROWNED_WEIR.evaluate({ H1: 1, H2 }) - share)).toBeLessThan(0.001);
  });
  it.each([
    [0, 0.605],
    [1, 0.596],
    [2, 0.587],
  ])('sharp, 2 m long at 0.3 m with %d contractions pass %d (Francis; row 81, C)', (N, Q) => {
    expect(Math.abs(SHARP_CREST.evaluate({ L: 2, H: 0.3, N }) - Q)).toBeLessThan(0.001);
  });
  it('flow by the law of a level crest, whatever its coefficient, and let nothing pass at or below it', () => {
    const law = crestLaw({ C: 1.7, lengthM: 2.5, levelM: 10 });
    for (const H of [1e-6, 0.01, 0.3, 2]) {
      const Q = BROAD_CREST.evaluate({ C: 1.7, L: 2.5, H });
      expect(Math.abs(law(10 + H) / Q - 1)).toBeLessThan(1e-8);
    }
    expect([law(10), law(9.9), law(10.001) > 0]).toEqual([0, 0, true]);
  });
  it('flow from the higher to the lower side, never more than free, without a jump where they meet', () => {
    const law = drownableSillLaw({ lengthM: 3, levelM: 10 });
    const free = grassedSillLaw({ lengthM: 3, levelM: 10 });
    fc.assert(
      fc.property(fc.double({ min: 9, max: 11, noNaN: true }), fc.double({ min: 9, max: 11, noNaN: true }), (a, b) => {
        expect(law(a, b)).toBeCloseTo(-law(b, a), 12);
        expect(Math.abs(law(a, b))).toBeLessThanOrEqual(free(Math.max(a, b)) + 1e-12);
        expect(law(a + 0.01, b)).toBeGreaterThanOrEqual(law(a, b) - 1e-12);
        expect(law(a, b + 0.01)).toBeLessThanOrEqual(law(a, b) + 1e-12);
      }),
      { seed: 31 },
    );
    expect(law(10.3, 9.9)).toBe(free(10.3));
    expect(V_NOTCH.evaluate({ H: 1 })).toBeCloseTo(1.38, 12);
  });
  it('on ground rising to the side sum the crest strip by strip', () => {
    const slope = 0.05;
    let strips = 0;
    const [head, parts] = [0.4, 20_000];
    const width = head / slope;
    for (let k = 0; k < parts; k++) strips += (1.5 * (head - (slope * width * (k + 0.5)) / parts) ** 1.5 * width) / parts;
    expect(sideSlopeLaw({ slope, levelM: 5 })(5.4)).toBeCloseTo(strips, 5);
  });
});

describe('culverts', () => {
  // The charts' own heads are read to a tenth; the laws give 2.43, 2.03 and 2.09 at a slope of 1 %.
  it.each([
    ['concrete-square-headwall', 42, 120, 2.5, 0.06],
    ['concrete-groove-headwall', 42, 120, 2.1, 0.06],
    ['concrete-groove-projecting', 42, 120, 2.2, 0.06],
    ['corrugated-headwall', 36, 66, 1.8, 0.04],
    ['corrugated-mitred', 36, 66, 2.1, 0.04],
    ['corrugated-projecting', 36, 66, 2.2, 0.04],
  ] as const)(
    '%s of %d in at %d ft³/s needs %d diameters (HDS-5 charts 1 and 2, examples; rows 83 and 84, P)',
    (...[inlet, inches, cfs, ratio, tol]) => {
      const diameterM = (inches / 12) * FT;
      expect(Math.abs(inletHead({ diameterM, slope: 0.01, inlet }, cfs * CFS) / diameterM / ratio - 1)).toBeLessThan(tol);
    },
  );
  it('an inlet cut to the slope gains by the slope what others lose: the formula is what works are made by', () => {
    const { K, M, c, Y } = INLETS['corrugated-mitred'];
    for (const S of [0, 0.02, 0.1]) {
      const D = 0.6;
      const A = (Math.PI / 4) * D * D;
      const drowned = CULVERT_INLET_DROWNED_MITRED.evaluate({ Q: 1.2, A, D, S, c, Y });
      expect(inletHead({ diameterM: D, slope: S, inlet: 'corrugated-mitred' }, 1.2)).toBeCloseTo(drowned, 12);
      const at = (slope: number): number => inletHead({ diameterM: D, slope, inlet: 'corrugated-mitred' }, 0.2);
      const free = CULVERT_INLET_FREE_MITRED.evaluate({ Q: 0.2, A, D, S, Hc: 0, K, M });
      expect(at(S) - at(0)).toBeCloseTo(0.7 * S * D, 12);
      expect(free - CULVERT_INLET_FREE.evaluate({ Q: 0.2, A, D, S, Hc: 0, K, M })).toBeCloseTo(1.2 * S * D, 12);
    }
  });
  it.each([
    ['wingwalls-30-75', 1.75],
    ['wingwalls-90-15', 1.9],
    ['wingwalls-0', 2.05],
  ] as const)('box of 5 by 2 ft with %s at 75 ft³/s needs %d heights (HDS-5 chart 8, example; row 85, P)', (inlet, ratio) => {
    const { c, Y } = BOX_INLETS[inlet];
    const HW = CULVERT_INLET_DROWNED.evaluate({ Q: 75 * CFS, A: 10 * FT * FT, D: 2 * FT, S: 0, c, Y });
    expect(Math.abs(HW / (2 * FT) - ratio)).toBeLessThan(0.06);
  });
  it('a full barrel of 48 in, 110 ft, at 70 ft³/s loses 0.94 ft (HDS-5 chart 5, example; row 86, P)', () => {
    const D = 4 * FT;
    const V = (70 * CFS) / ((Math.PI / 4) * D * D);
    expect(Math.abs(CULVERT_BARREL.evaluate({ V, Ke: 0.5, n: 0.012, L: 110 * FT, R: D / 4 }) / FT - 0.94)).toBeLessThan(0.01);
  });

  const CULVERT: Culvert = {
    barrels: 1,
    diameterM: 0.6,
    lengthM: 12,
    slope: 0,
    n: 0.013,
    inlet: 'concrete-square-headwall',
    inletM: 100,
    outletM: 99.9,
  };
  it('undo their own heads, with a free outfall', () => {
    const law = culvertLaw(CULVERT);
    const barrel = { ...CULVERT, slope: 0.1 / 12 };
    for (const q of [0.05, 0.2, 0.5, 0.9]) expect(Math.abs(law(100 + culvertHead(barrel, q)) / q - 1)).toBeLessThan(0.02);
  });
  it('let through more with more head, less when drowned, nothing between equal levels, and run back when the far side is higher', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...INLET_IDS),
        fc.double({ min: 0.3, max: 1.2, noNaN: true }),
        fc.double({ min: -0.03, max: 0.05, noNaN: true }),
        fc.double({ min: 100, max: 103, noNaN: true }),
        fc.double({ min: 99, max: 103, noNaN: true }),
        (...[inlet, diameterM, slope, upM, downM]) => {
          const law = culvertLaw({ ...CULVERT, inlet, diameterM, outletM: 100 - slope * 12 });
          const here = law(upM, downM);
          expect(law(upM + 0.02, downM)).toBeGreaterThanOrEqual(here - 1e-9);
          expect(law(upM, downM + 0.02)).toBeLessThanOrEqual(here + 1e-9);
          expect(Math.abs(law(upM, upM))).toBeLessThan(1e-9);
          expect(Math.sign(here) * Math.sign(upM - downM)).toBeGreaterThanOrEqual(0);
          expect(law(upM)).toBeGreaterThanOrEqual(here - 1e-9);
          // Two barrels half blocked carry what one does.
          const half = culvertLaw({ ...CULVERT, inlet, diameterM, outletM: 100 - slope * 12, barrels: 2, blocked: 0.5 });
          expect(half(upM, downM)).toBeCloseTo(here, 12);
        },
      ),
      { seed: 32, numRuns: 60 },
    );
    expect(culvertLaw({ ...CULVERT, blocked: 1 })(103)).toBe(0);
  });
  it('say the same whatever was asked before', () => {
    const level = fc.constantFrom(99.95, 100, 100.2, 100.4, 100.61, 101.5, 104);
    fc.assert(
      fc.property(fc.array(fc.tuple(level, level), { minLength: 2, maxLength: 8 }), (asked) => {
        const law = culvertLaw(CULVERT);
        for (const [up, down] of asked) expect(law(up, down)).toBe(culvertLaw(CULVERT)(up, down));
      }),
      { seed: 33, numRuns: 60 },
    );
  });
  it('that rise hold water back to the level of their far end', () => {
    const rising = culvertLaw({ ...CULVERT, outletM: 100.4 });
    expect(rising(100.39)).toBe(0);
    expect(rising(100.6)).toBeGreaterThan(0);
  });
});

describe('pipes', () => {
  it('from a standing inlet pass no more than crest, mouth or pipe', () => {
    const pipe = { diameterM: 0.2, lengthM: 15, n: 0.012, outletM: 97 };
    const law = riserLaw({ crestM: 100, mouth: roundMouth(0.4), pipe });
    expect(law(100)).toBe(0);
    expect(law(100.05)).toBeCloseTo(1.7 * Math.PI * 0.4 * 0.05 ** 1.5, 12);
    expect(law(101)).toBeCloseTo(DROP_INLET.evaluate({ D: 0.2, h: 101 - 97.1, Ke: 0.5, Kb: 0.5, n: 0.012, L: 15 }), 12);
    expect(law(101, 100.9)).toBeLessThan(law(101));
    expect(riserLaw({ crestM: 100, mouth: roundMouth(0.4), pipe, blocked: 0.5 })(100.05)).toBeCloseTo(law(100.05) / 2, 12);
  });
  it('under pressure lose what Hagen and Poiseuille have where flow is smooth', () => {
    const [Q, D, L] = [2e-6, 0.02, 50];
    const hf = (128 * 1.14e-6 * L * Q) / (Math.PI * 9.81 * D ** 4);
    expect(DARCY_LOSS.evaluate({ Q, D, L, e: 1e-5 })).toBeCloseTo(hf, 12);
    expect(DARCY_LOSS.evaluate({ Q: 0.002, D: 0.05, L: 100, e: 1e-5 })).toBeGreaterThan(2);
  });
  it('take the power of handbook rows 147 and 148 (C)', () => {
    expect(Math.abs(PUMP_POWER.evaluate({ Q: 0.001, H: 20, eta: 0.5 }) - 392)).toBeLessThan(1);
    expect(Math.abs(PUMP_POWER.evaluate({ Q: 0.002, H: 25, eta: 0.45 }) - 1090)).toBeLessThan(1);
    expect(Math.abs(SOLAR_ARRAY.evaluate({ V: 5, H: 30, eta: 0.4, h: 5, PR: 0.75 }) - 272)).toBeLessThan(1);
  });
});

describe('stone and waves', () => {
  it.each([
    [2, 0.086, 0.167],
    [3, 0.193, 0.376],
  ])('stone for %d m/s is %d m calm and %d m rough (Isbash; row 98 and handbook 4.7, C)', (V, calm, rough) => {
    expect(Math.abs(ISBASH.evaluate({ V, C: 1.2, SG: 2.65 }) - calm)).toBeLessThan(0.002);
    expect(Math.abs(ISBASH.evaluate({ V, C: 0.86, SG: 2.65 }) - rough)).toBeLessThan(0.002);
  });
  it.each([
    [2, 2.37],
    [3, 3.77],
    [4.5, 5.88],
    [6, 8],
  ])('a jump at Froude %d deepens %d times (Belanger; row 100, C)', (Fr, r) => {
    expect(Math.abs(HYDRAULIC_JUMP.evaluate({ Fr }) - r)).toBeLessThan(0.01);
  });
  it('a lining of 0.4 m of water at 5 % wants 0.26 m (handbook 4.7, C)', () => {
    expect(Math.abs(LINING_STONE.evaluate({ d: 0.4, S: 0.05, SF: 1, F: 0.047, SG: 2.65 }) - 0.26)).toBeLessThan(0.005);
  });
  it('an apron follows its stone, and says when no class is large enough', () => {
    const stoneM = APRON_STONE.evaluate({ Q: 0.3, D: 0.5, TW: 0.2 });
    expect(stoneM).toBeCloseTo(0.2 * 0.5 * (0.3 / (Math.sqrt(9.81) * 0.5 ** 2.5)) ** (4 / 3) * 2.5, 12);
    expect(apronOf({ stoneM: 0.13, diameterM: 0.5 })).toEqual({
      stoneM: 0.15,
      lengthM: 2,
      depthM: 3.3 * 0.15,
      endWidthM: 1.5 + 4 / 3,
      isBeyond: false,
    });
    expect(apronOf({ stoneM: 0.8, diameterM: 0.5 }).isBeyond).toBe(true);
  });
  it('water seeps through a fill as its own law integrated step by step', () => {
    const m = VOID_RADIUS.evaluate({ D: 0.15, p: 0.4 });
    const q = ROCK_SEEPAGE.evaluate({ h1: 0.6, h2: 0.1, L: 4, m, p: 0.4 });
    // Down the fill: the slope each depth asks for must use up its length.
    let [depth, x] = [0.6, 0];
    for (const dy = 1e-5; depth > 0.1; depth -= dy) x += dy / (q / (0.4 * 5.243 * Math.sqrt(m) * (depth - dy / 2))) ** (1 / 0.54);
    expect(Math.abs(x / 4 - 1)).toBeLessThan(0.001);
  });
  it('waves of 200 m of open water run up 0.3 m, what AH-590 keeps for so much (handbook 5.3)', () => {
    const h = WAVE_HAWKSLEY.evaluate({ F: 200 });
    expect(Math.abs(h - 0.2)).toBeLessThan(0.01);
    expect(Math.abs(WAVE_RUNUP.evaluate({ h }) - fetchFreeboard(200))).toBeLessThan(0.01);
    expect([fetchFreeboard(300), fetchFreeboard(600)]).toEqual([0.46, 0.61]);
  });
});
