import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Host, Outlet } from '../contract/index.ts';
import type { Grid } from '../terrain/index.ts';
import { POND, POND_SILL, TRENCH, WALL, valleyAt } from '../testing/valley.ts';
import { BACKUP } from '../testing/valley.ts';
import { backwater, trapezoid } from '../hydraulics/index.ts';
import { basinOf, measureBasin, storeOf, waterAt, wallEarth } from '../works/basin/index.ts';
import { cutLaw } from '../works/cut-spillway/index.ts';
import { trenchLaw } from '../works/stone-trench/index.ts';
import { mouthFlow } from '../works/swale/index.ts';
import {
  CREST_WIDTH,
  PIT_VOLUME,
  POND_VOLUME,
  type Pond,
  VALLEY_VOLUME,
  WALL_QUICK,
  WALL_SECTION,
  leastTopWidth,
  newPond,
  pond,
} from '../works/pond/index.ts';

const FT = 0.3048;

function gridOf(levelAt: (x: number, y: number) => number, cellM = 2, cells = 101): Grid {
  const z = Float32Array.from({ length: cells * cells }, (_, i) => {
    const [col, row] = [i % cells, Math.floor(i / cells)];
    return levelAt((col + 0.5) * cellM, (cells - row - 0.5) * cellM) - 100;
  });
  return { ncols: cells, nrows: cells, cellM, west: 0, south: 0, z, baseM: 100 };
}
const VALLEY = gridOf(valleyAt);
const DUG: Pond = { ...newPond('dug', 'Dug', { crestM: 100.5, floorM: 100 - 12 * FT }), borrow: 'elsewhere' };
const thin = (change: Partial<Pond['dimensions']> = {}): Pond => ({
  ...POND,
  dimensions: { ...POND.dimensions, topWidthM: 0.5, waterSlopeHV: 0.5, backSlopeHV: 0.5, ...change },
});
const brims: Outlet[] = [
  { id: 'b', role: 'crest', work: 'pond', name: 'b', kind: 'bank', levelM: 106.5, dischargeAt: [0, 0], flowAt: () => 0 },
];

describe('formulas of ponds and walls', () => {
  it('a pond of 3.2 acres, 12.5 ft deep holds 16 acre-feet (AH-590 1997; handbook row 106, P)', () => {
    const acre = 43_560 * FT ** 2;
    expect(POND_VOLUME.evaluate({ A: 3.2 * acre, d: 12.5 * FT }) / (acre * FT)).toBeCloseTo(16, 9);
  });
  it('a pit of 12 ft, bottom 40 by 100 ft, sides 2 to 1 is 3 612 yd³ (AH-590, example; row 107, P)', () => {
    const [A, B, C] = [88 * 148, 64 * 124, 40 * 100];
    expect([A, 4 * B]).toEqual([13_024, 31_744]);
    const cubic = PIT_VOLUME.evaluate({ A: A * FT ** 2, B: B * FT ** 2, C: C * FT ** 2, D: 12 * FT }) / (3 * FT) ** 3;
    expect(Math.abs(cubic - 3612)).toBeLessThan(1);
  });
  it('a wall 3 m high, 2.4 m wide, 3 to 1 and 2 to 1 has 29.7 m²; built 5 % higher 32.4 (row 109, C)', () => {
    expect(WALL_SECTION.evaluate({ w: 2.4, h: 3, z1: 3, z2: 2 })).toBeCloseTo(29.7, 9);
    expect(Math.abs(WALL_SECTION.evaluate({ w: 2.4, h: 3.15, z1: 3, z2: 2 }) - 32.4)).toBeLessThan(0.05);
  });
  it('of FAO I&D 64: 2 678 m³ of earth, 6 000 m³ of water (row 110, C); USBR’s crest of a 6.25 m dam is 4.25 m (row 111, C)', () => {
    expect(Math.abs(WALL_QUICK.evaluate({ C: 3, H: 5, L: 80, S: 5 }) - 2678)).toBeLessThan(1);
    expect(VALLEY_VOLUME.evaluate({ L: 60, T: 150, H: 4 })).toBe(6000);
    expect(CREST_WIDTH.evaluate({ z: 6.25 })).toBeCloseTo(4.25, 9);
    expect([2, 4, 5, 7, 9, 12].map(leastTopWidth)).toEqual([1.8, 2.4, 3, 3.7, 4.3, 4.6]);
  });
});

describe('water behind a wall across a V-shaped valley', () => {
  const ground = measureBasin({ wall: WALL }, { grid: VALLEY });
  it('is H³/(3·S·s), its surface H²/(S·s): floor falling at S, sides rising at s (closed form)', () => {
    const basin = basinOf(thin(), ground);
    for (const level of [105.6, 106, 106.4]) {
      const H = level - 104.05;
      const { volumeM3, surfaceM2, reachM } = waterAt(basin, level);
      // The foot of even a thin wall and cells of 2 m take a few per cent.
      expect(Math.abs(volumeM3 / (H ** 3 / (3 * 0.05 * 0.2)) - 1)).toBeLessThan(0.07);
      expect(Math.abs(surfaceM2 / (H ** 2 / (0.05 * 0.2)) - 1)).toBeLessThan(0.06);
      expect(Math.abs(reachM - H / 0.05)).toBeLessThan(2.5);
    }
  });
  it('goes round the ends where the ground stands as high as they do, to a cell of 2 m on a side of 20 %', () => {
    expect(Math.abs(ground.roundM - 108.05)).toBeLessThan(0.41);
    expect(ground.wall?.waterSide).toBe(1);
    expect(ground.bottomM).toBeLessThan(104.4);
  });
  it('is less for a wall with flatter sides, whose foot stands in it, and never less for a higher level', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 4, noNaN: true }), fc.double({ min: 104.2, max: 106.4, noNaN: true }), (slope, level) => {
        const [steep, flat] = [basinOf(thin(), ground), basinOf(thin({ waterSlopeHV: slope }), ground)];
        expect(waterAt(flat, level).volumeM3).toBeLessThanOrEqual(waterAt(steep, level).volumeM3 + 1e-6);
        expect(waterAt(flat, level + 0.05).volumeM3).toBeGreaterThanOrEqual(waterAt(flat, level).volumeM3);
      }),
      { seed: 61, numRuns: 40 },
    );
  });
  it('is a store: held below its lowest way out, with a stage table that rises', () => {
    const basin = basinOf(POND, ground);
    const sill: Outlet = { ...brims[0], id: 's', kind: 'sill', levelM: 105.9 };
    const store = storeOf(POND, { basin, brims }, [sill]);
    expect(store).toMatchObject({ sillM: 105.9, wayOutM: 105.9, crestM: 106.5 });
    expect(store.heldM3).toBeCloseTo(waterAt(basin, 105.9).volumeM3, 9);
    const { volumeM3 } = store.stage;
    for (let k = 1; k < volumeM3.length; k++) expect(volumeM3[k]).toBeGreaterThan(volumeM3[k - 1]);
    expect(storeOf(POND, { basin, brims }, []).sillM).toBeNull();
  });
});

describe('earth of a wall', () => {
  it('on level ground is its section times its length, with what it is built higher and what was stripped', () => {
    const flat = gridOf(() => 100);
    const line = [
      [40, 100],
      [140, 100],
    ] as const;
    const { wall } = measureBasin({ wall: line }, { grid: flat });
    const work: Pond = {
      ...POND,
      wall: line,
      levels: { crestM: 103, floorM: 99 },
      settlementPercent: 0,
      dimensions: { ...POND.dimensions, topWidthM: 2.4, stripM: 0 },
    };
    const earth = wallEarth(work, wall!)!;
    expect(Math.abs(earth.earthM3 / (29.7 * 100) - 1)).toBeLessThan(0.005);
    expect(earth.heightM).toBeCloseTo(3, 6);
    const built = wallEarth({ ...work, settlementPercent: 5, dimensions: { ...work.dimensions, stripM: 0.2 } }, wall!)!;
    expect(Math.abs(built.earthM3 / (29.7 * 105 + 0.2 * (2.4 + 15) * 100) - 1)).toBeLessThan(0.005);
    expect(built.stripM3).toBeCloseTo(0.2 * 17.4 * 100, -1);
    expect(earth.keyM3).toBeCloseTo(100 * 0.8 * 3.2, 6);
  });
  it('across a valley is the integral over its height, and more than on level ground of the same height', () => {
    const { wall } = measureBasin({ wall: WALL }, { grid: VALLEY });
    const work: Pond = { ...POND, settlementPercent: 0, dimensions: { ...POND.dimensions, stripM: 0 } };
    // The ground falls 5 % across the section: each side meets it at z/(1 ∓ 0.05·z) out for 1 up.
    const [zu, zd] = [3 / (1 + 0.15), 2 / (1 - 0.1)];
    let sum = 0;
    const [steps, half] = [4000, (106.5 - 104.05) / 0.2];
    for (let k = 0; k < steps; k++) {
      const x = -half + ((k + 0.5) * 2 * half) / steps;
      const h = 106.5 - 104.05 - 0.2 * Math.abs(x);
      const w = 2.5;
      // Over the level top the ground falls w·5 %; beyond it two triangles on falling ground.
      const [hu, hd] = [h - (0.05 * w) / 2, h + (0.05 * w) / 2];
      sum += ((w * h + (zu * hu * hu) / 2 + (zd * hd * hd) / 2) * 2 * half) / steps;
    }
    expect(Math.abs(wallEarth(work, wall!)!.earthM3 / sum - 1)).toBeLessThan(0.03);
  });
});

describe('a pit', () => {
  const flat = gridOf(() => 100);
  const pit = [
    [80, 80],
    [80 + 148 * FT, 80],
    [80 + 148 * FT, 80 + 88 * FT],
    [80, 80 + 88 * FT],
  ] as const;
  it('dug as AH-590’s example holds what its prismoid does, to a hundredth', () => {
    const work: Pond = { ...DUG, pit };
    const ground = measureBasin(work, { grid: flat });
    const basin = basinOf(work, ground);
    expect(Math.abs(basin.dugM3 / (3612 * (3 * FT) ** 3) - 1)).toBeLessThan(0.012);
    expect(Math.abs(waterAt(basin, 100).volumeM3 / basin.dugM3 - 1)).toBeLessThan(1e-6);
    expect(ground.rim?.lowestM).toBeCloseTo(100, 6);
  });
});

describe('ways out', () => {
  it('a cut spillway passes less the longer the grass on its way in, and nothing below its control', () => {
    const cut = { levels: { sillM: 105 }, dimensions: { bottomWidthM: 5, sideSlopeHV: 3, inletLengthM: 0, controlLengthM: 6, stoneM: 0 } };
    const long = { ...cut, dimensions: { ...cut.dimensions, inletLengthM: 30 } };
    expect(cutLaw(cut)(105)).toBe(0);
    for (const head of [0.1, 0.3, 0.6]) {
      const bare = 1.5 * (5 * head ** 1.5 + 0.8 * 3 * head ** 2.5);
      expect(Math.abs(cutLaw(cut)(105 + head) / bare - 1)).toBeLessThan(0.01);
      expect(cutLaw(long)(105 + head)).toBeLessThan(cutLaw(cut)(105 + head));
      // AH-590's upper bound for the control section (handbook 4.3): 1.705·0.9·H^1.5 a metre.
      expect(cutLaw(long)(105 + head)).toBeLessThan(1.705 * (5 + 3 * head) * head ** 1.5);
    }
  });
  it('a stone trench seeps below the top of its stone and runs over above it', () => {
    const law = trenchLaw(TRENCH);
    expect(law(105.8)).toBe(0);
    expect(law(106)).toBeGreaterThan(0);
    expect(law(106)).toBeLessThan(0.1);
    expect(law(106.3)).toBeGreaterThan(1.5 * 2 * 0.2 ** 1.5);
    expect(trenchLaw({ ...TRENCH, dimensions: { ...TRENCH.dimensions, stoneM: 0.3 } })(106)).toBeGreaterThan(law(106));
  });
  it('sits on natural ground at the end of the wall', () => {
    const ground = pond.measure(POND, { grid: VALLEY }, null);
    const host = pond.place(POND, ground, null).host as Host;
    expect(Math.abs(host.groundAt(POND_SILL.atM) - (104.05 + 0.2 * 14))).toBeLessThan(0.15);
    expect(host.downhillAt(20)[1]).toBeLessThan(-0.99);
  });
});

describe('a swale joined to a pond', () => {
  it('carries to its far sill what the water line followed step by step says', () => {
    const flow = mouthFlow(BACKUP, 60);
    const section = trapezoid(1.5, 1.5);
    for (const [high, low] of [
      [106, 105.9],
      [106.05, 105.95],
      [105.9, 105.86],
    ]) {
      const q = flow(high, low);
      const [first, ...rest] = backwater({ section, lengthM: 60, slope: 0, n: 0.03 }, q, low - 105.3);
      const mouth = rest[rest.length - 1] + (1.5 * (q / section.area(first)) ** 2) / (2 * 9.81);
      // Friction by one mean depth and losses at the mouth: within an eighth of the tilt.
      expect(Math.abs((mouth - first) / (high - low) - 1)).toBeLessThan(0.125);
    }
    expect(flow(105.2, 105)).toBe(0);
    expect(flow(106, 106)).toBe(0);
  });
});
