import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Point, lineLength } from '../../geometry/index.ts';
import { SILL, SWALE, LIP_M } from '../../testing/projects.ts';
import { cone, gridOf, plane } from '../../testing/grids.ts';
import { settleOnContour } from '../../terrain/index.ts';
import {
  SWALE_BANK,
  SWALE_CUT,
  SWALE_WATER,
  type Section,
  balancedCrest,
  contentAt,
  cutWidth,
  earthOf,
  measureLip,
  newSwale,
  sectionOutline,
  storeOf,
  waterSection,
} from './index.ts';

const sections = fc.record({
  floorWidthM: fc.double({ min: 0.3, max: 4, noNaN: true }),
  sideSlopeHV: fc.double({ min: 0, max: 3, noNaN: true }),
  bankTopM: fc.double({ min: 0.2, max: 2, noNaN: true }),
  bankSlopeHV: fc.double({ min: 0.5, max: 3, noNaN: true }),
  lipDepthM: fc.double({ min: 0.05, max: 1, noNaN: true }),
  crossSlope: fc.double({ min: 0.006, max: 0.3, noNaN: true }),
});

/** Area between two heights over a fine comb of verticals: an independent way to every section formula. */
function combArea(low: (x: number) => number, high: (x: number) => number, [from, to]: readonly [number, number]): number {
  const count = 4000;
  let sum = 0;
  for (let i = 0; i < count; i++) {
    const x = from + ((i + 0.5) * (to - from)) / count;
    sum += Math.max(0, high(x) - low(x));
  }
  return (sum * (to - from)) / count;
}

/** Bottom of ditch and ground uphill of the lip (u = distance uphill), and the bank's inner face downhill. */
function bottom(s: Section, u: number): number {
  const { floorWidthM: b, sideSlopeHV: z, lipDepthM: h, crossSlope } = s;
  if (u < 0) return h - u / s.bankSlopeHV;
  const down = z * h;
  if (u <= down) return z === 0 ? 0 : h - u / z;
  if (u <= down + b) return 0;
  const side = z === 0 ? Infinity : (u - down - b) / z;
  return Math.min(side, h + crossSlope * u);
}

describe('swale section', () => {
  it('bank of handbook row 102: B 0.4, top 0.5, sides 2, slope 0.10 (C)', () => {
    expect(Math.abs(SWALE_BANK.evaluate({ B: 0.4, w: 0.5, zb: 2, s: 0.1 }) - 0.7956)).toBeLessThan(0.0001);
  });
  it('cut on level ground is b·h + z·h²; a steeper cross slope only adds', () => {
    expect(SWALE_CUT.evaluate({ b: 0.9, z: 1.5, h: 0.35, s: 0 })).toBeCloseTo(0.9 * 0.35 + 1.5 * 0.35 ** 2, 12);
    expect(SWALE_CUT.evaluate({ b: 0.9, z: 1.5, h: 0.35, s: 0.2 })).toBeGreaterThan(
      SWALE_CUT.evaluate({ b: 0.9, z: 1.5, h: 0.35, s: 0.1 }),
    );
  });
  it('cut, bank and water equal the area under a fine comb, for any section', () => {
    fc.assert(
      fc.property(sections, fc.double({ min: 0.02, max: 1.6, noNaN: true }), (s, depth) => {
        fc.pre(s.crossSlope * s.sideSlopeHV < 0.9 && s.crossSlope * s.bankSlopeHV < 0.9);
        const { floorWidthM: b, sideSlopeHV: z, bankSlopeHV: zb, bankTopM: w, lipDepthM: h, crossSlope } = s;
        const width = cutWidth({ b, z, h, s: crossSlope });
        const cut = combArea(
          (u) => bottom(s, u),
          (u) => h + crossSlope * u,
          [0, width],
        );
        expect(Math.abs(SWALE_CUT.evaluate({ b, z, h, s: crossSlope }) - cut)).toBeLessThan(0.002 * Math.max(0.1, cut));
        const water = combArea(
          (u) => bottom(s, u),
          () => depth,
          [-zb * depth - 0.01, Math.max(width, (depth - h) / crossSlope) + 0.01],
        );
        expect(Math.abs(waterSection(s, depth).areaM2 - water)).toBeLessThan(0.004 * Math.max(0.1, water));
        const top = zb * h + w + 0.01;
        const outer = (x: number): number => Math.min(x / zb, h, h - (x - zb * h - w) / zb);
        const bank = combArea((x) => -crossSlope * x, outer, [0, (zb * h + top) / (1 - crossSlope * zb) + 0.1]);
        expect(Math.abs(SWALE_BANK.evaluate({ B: h, w, zb, s: crossSlope }) - bank)).toBeLessThan(0.003 * Math.max(0.1, bank));
      }),
      { seed: 21, numRuns: 30 },
    );
  });
  it('water surface width is how fast the area grows', () => {
    fc.assert(
      fc.property(sections, fc.double({ min: 0.02, max: 1.5, noNaN: true }), (s, depth) => {
        const grown = (waterSection(s, depth + 1e-5).areaM2 - waterSection(s, depth - 1e-5).areaM2) / 2e-5;
        expect(Math.abs(grown / waterSection(s, depth).widthM - 1)).toBeLessThan(1e-3);
      }),
      { seed: 22, numRuns: 100 },
    );
  });
  it('refuses sides that never meet the ground, naming what is wrong', () => {
    expect(() => SWALE_CUT.evaluate({ b: 1, z: 4, h: 0.3, s: 0.3 })).toThrow('s·z must be < 1');
    expect(() => SWALE_BANK.evaluate({ B: 0.3, w: 0.5, zb: 4, s: 0.3 })).toThrow('s·zb must be < 1');
  });
  it('draws ground, cut and bank that meet at the lip', () => {
    const o = sectionOutline({ ...SWALE.dimensions, lipDepthM: 0.35, crossSlope: 0.1 }, { lipM: LIP_M, crestM: LIP_M + 0.35, aroundM: 1 });
    expect(o.cut[0]).toEqual(o.bank[0]);
    expect(o.cut[1][1]).toBeCloseTo(LIP_M - 0.35, 9);
    expect(o.bank[1][1]).toBeCloseTo(LIP_M + 0.35, 9);
  });
});

describe('a swale on the ground', () => {
  const grid = plane(0.1, -90);
  // The plane of the test grid at y = 101 m.
  const lip = 500 + 0.1 * -0 + 0.1 * 101;
  const swale = { ...SWALE, levels: { floorM: lip - 0.35, bankCrestM: lip + 0.35 } };
  const ground = measureLip(swale.line, { grid });

  it('finds slope and downhill side whichever way it is drawn', () => {
    expect(ground.meanSlope).toBeCloseTo(0.1, 4);
    expect(ground.downhillSide).toBe(1);
    const back = measureLip([...swale.line].reverse(), { grid });
    expect(back.downhillSide).toBe(-1);
    expect(back.meanSlope).toBeCloseTo(0.1, 4);
  });
  it('holds section area times length', () => {
    const area = SWALE_WATER.evaluate({ b: 0.9, z: 1.5, h: 0.35, s: 0.1, zb: 2, Hw: 0.35 });
    expect(contentAt(swale, ground, lip).volumeM3).toBeCloseTo(140 * area, 2);
  });
  it('never holds less for a higher level, and its way out is the lowest of sill, low place and bank', () => {
    const sillAt = (levelM: number) => [
      { id: 's', role: 'way' as const, work: 's', name: 's', kind: 'sill' as const, levelM, dischargeAt: [0, 0] as Point, flowAt: () => 0 },
    ];
    const store = storeOf(swale, ground, sillAt(lip));
    expect(store.wayOutM).toBeCloseTo(lip, 9);
    for (let i = 1; i < store.stage.volumeM3.length; i++) {
      expect(store.stage.volumeM3[i]).toBeGreaterThan(store.stage.volumeM3[i - 1]);
      expect(store.stage.wettedM2[i]).toBeGreaterThanOrEqual(store.stage.wettedM2[i - 1]);
    }
    const slumped = storeOf({ ...swale, lowPlaces: [{ atM: 84, lengthM: 6, levelM: lip - 0.045 }] }, ground, sillAt(lip));
    expect(slumped.wayOutM).toBeCloseTo(lip - 0.045, 9);
    expect(slumped.heldM3).toBeLessThan(store.heldM3);
    expect(slumped.sillM).toBeCloseTo(lip, 9);
    expect(storeOf(swale, ground, []).wayOutM).toBeCloseTo(lip + 0.35, 9);
  });
  it('balances: at the balanced crest the bank takes the cut after shrinking (handbook 7)', () => {
    const crest = balancedCrest(swale, ground) ?? NaN;
    const { cutM3, bankM3 } = earthOf({ ...swale, levels: { ...swale.levels, bankCrestM: crest } }, ground);
    expect(Math.abs((bankM3 ?? 0) / ((cutM3 ?? 0) * 0.9) - 1)).toBeLessThan(1e-6);
  });
  it('says nothing of earth where the hill is as steep as its sides', () => {
    const steep = measureLip(swale.line, { grid: gridOf((_x, y) => 0.8 * y, { cells: 101, cellM: 2 }) });
    expect(earthOf({ ...swale, levels: { floorM: 80, bankCrestM: 81.2 } }, steep)).toEqual({ cutM3: null, bankM3: null });
  });
  it('is drawn with its sill on natural ground, the floor below and the bank above', () => {
    const hill = cone(0.1, { cells: 201, cellM: 2 });
    const settled = settleOnContour(hill, [
      [101, 201],
      [180, 290],
    ]);
    if (!settled.ok) throw new Error(settled.why);
    const [made, sill] = newSwale({ swale: 'a', sill: 'b' }, 'New', { ...settled, sillAtM: lineLength(settled.line) - 4 });
    expect(sill.host).toBe(made.id);
    expect(sill.levels.sillM).toBeCloseTo(settled.levelM, 3);
    expect(made.levels.floorM).toBeLessThan(sill.levels.sillM);
    expect(made.levels.bankCrestM).toBeGreaterThan(sill.levels.sillM);
    expect(SILL.kind).toBe(sill.kind);
  });
});
