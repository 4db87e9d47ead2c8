import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  COMPACTIONS,
  COVERS,
  CRACK_STORE,
  DEEP_LIMITS,
  HEALED_SHARE,
  SOIL_GROUPS,
  SOIL_ROOM,
  SOIL_SHIELD,
  type Soil,
  TEXTURES,
  TREATMENTS,
  coverAsSeen,
  coverOf,
  curveNumberOf,
  groupByRate,
  retardanceOf,
  sharesByJar,
  sharesProblem,
  soilFacts,
  textureByFeel,
  textureByShares,
  textureOf,
} from './index.ts';

const SOIL: Soil = { soilGroup: 'C', cover: 'pasture-poor', curveNumber: null, runoffC: null, infiltrationMmPerHour: 8, soilDepthM: 1.2 };

describe('texture', () => {
  it.each([
    // Places inside each class of the USDA triangle.
    [92, 5, 3, 'sand'],
    [82, 12, 6, 'loamy-sand'],
    [65, 25, 10, 'sandy-loam'],
    [40, 40, 20, 'loam'],
    [20, 65, 15, 'silt-loam'],
    [6, 88, 6, 'silt'],
    [60, 13, 27, 'sandy-clay-loam'],
    [33, 34, 33, 'clay-loam'],
    [10, 56, 34, 'silty-clay-loam'],
    [52, 6, 42, 'sandy-clay'],
    [6, 47, 47, 'silty-clay'],
    [20, 20, 60, 'clay'],
  ])('%d %% sand, %d %% silt, %d %% clay is %s', (...[sand, silt, clay, id]) => {
    expect(textureByShares({ sand, silt, clay })).toBe(id);
  });
  it('is told for every mixture there can be, clay never lighter for more clay', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 100, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (clay, share) => {
        const sand = (100 - clay) * share;
        const id = textureByShares({ sand, silt: 100 - clay - sand, clay });
        expect(TEXTURES.map((t) => t.id)).toContain(id);
        if (clay >= 40) expect(id).toMatch(/clay$/);
        if (clay < 7) expect(id).not.toMatch(/clay/);
      }),
      { seed: 11 },
    );
  });
  it('by the layers of a jar and by feel (Thien 1979) agrees with the triangle', () => {
    const shares = sharesByJar({ sandMm: 39, siltMm: 12, clayMm: 9 });
    expect(shares).toEqual({ sand: 65, silt: 20, clay: 15 });
    expect(textureByShares(shares)).toBe(textureByFeel({ ribbon: 'short', grit: 'gritty' }));
    expect(textureByFeel({ ribbon: 'no-ball', grit: 'gritty' })).toBe('sand');
    expect(textureByFeel({ ribbon: 'none', grit: 'smooth' })).toBe('loamy-sand');
    expect(textureByFeel({ ribbon: 'long', grit: 'neither' })).toBe('clay');
  });
  it('refuses shares that do not add up', () => {
    expect(sharesProblem({ sand: 40, silt: 40, clay: 21 })).toBeNull();
    expect(sharesProblem({ sand: 40, silt: 40, clay: 30 })).toBe('sand, silt and clay add up to 110 %, not 100 %');
    expect(sharesProblem({ sand: -5, silt: 80, clay: 25 })).toMatch(/between 0 and 100/);
  });
});

describe('room in the soil', () => {
  it('is its depth under the floor times the share that drains (Rawls et al. 1982, Table 2; from memory)', () => {
    // Loam: porosity 0.463, 0.270 held at 33 kPa; a metre and a half with a floor 0.5 m down leaves room for 193 mm.
    expect(SOIL_ROOM.evaluate({ p: textureOf('loam').drainable, D: 1.5, c: 0.5 })).toBeCloseTo(193, 9);
    expect(SOIL_ROOM.evaluate({ p: textureOf('sand').drainable, D: 1, c: 0 })).toBeCloseTo(346, 9);
    expect(SOIL_ROOM.evaluate({ p: 0.2, D: 0.4, c: 0.9 })).toBe(0);
  });
  it('is less than all its pores, and least in clay', () => {
    for (const t of TEXTURES) {
      expect(t.drainable).toBeGreaterThanOrEqual(textureOf('clay').drainable);
      expect(t.drainable).toBeLessThan(t.effectivePorosity);
    }
  });
});

describe('soil group by rate and depth (NEH-630 Table 7-1)', () => {
  it('has its limits at 1.417, 0.567 and 0.057 in/h (handbook row 67, P)', () => {
    expect(DEEP_LIMITS.map((v) => Number((v / 25.4).toFixed(3)))).toEqual([1.417, 0.567, 0.057]);
  });
  it.each([
    [40, 1.5, undefined, 'A'],
    [40, 0.8, undefined, 'B'],
    [20, 1.5, undefined, 'B'],
    [5, 1.5, undefined, 'C'],
    [5, 0.8, undefined, 'C'],
    [3, 0.8, undefined, 'D'],
    [1, 2, undefined, 'D'],
    [200, 0.4, undefined, 'D'],
    [40, 2, 0.8, 'B'],
  ])('%d mm/h over %d m with water at %s is %s', (...[rateMmPerHour, depthM, waterM, group]) => {
    expect(groupByRate({ rateMmPerHour, depthM, waterM }).group).toBe(group);
  });
  it('is a double one where water stands near: D, and what it would be drained', () => {
    expect(groupByRate({ rateMmPerHour: 200, depthM: 2, waterM: 0.4 })).toMatchObject({ group: 'D', drained: 'A' });
  });
  it('never gets worse for a faster rate or deeper soil', () => {
    const rank = (rate: number, depth: number): number => SOIL_GROUPS.indexOf(groupByRate({ rateMmPerHour: rate, depthM: depth }).group);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 300, noNaN: true }), fc.double({ min: 0, max: 3, noNaN: true }), (rate, depth) => {
        expect(rank(rate + 20, depth)).toBeLessThanOrEqual(rank(rate, depth));
        expect(rank(rate, depth + 0.6)).toBeLessThanOrEqual(rank(rate, depth));
      }),
      { seed: 12 },
    );
  });
});

describe('cover as it is seen', () => {
  it('takes its condition from the bare share (TR-55 Table 2-2 notes)', () => {
    const now = (barePercent: number): string => coverAsSeen(coverOf('pasture-fair'), { barePercent }).id;
    expect([now(20), now(40), now(60)]).toEqual(['pasture-good', 'pasture-fair', 'pasture-poor']);
    // Covers without conditions stay what they are; so does what is sealed.
    expect(coverAsSeen(coverOf('meadow'), { barePercent: 60 }).id).toBe('meadow');
    expect(coverAsSeen(coverOf('paved'), { barePercent: 100 }).curveNumber).toEqual([98, 98, 98, 98]);
  });
  it('stands flowing water by its height, and shields the soil by its share', () => {
    expect([800, 300, 200, 100, 30].map(retardanceOf)).toEqual([10, 7.64, 5.6, 4.44, 2.88]);
    expect(coverAsSeen(coverOf('pasture-good'), { grassMm: 200 }).strength.curveIndex).toBe(5.6);
    expect(coverAsSeen(coverOf('bare'), { grassMm: 200 }).strength.curveIndex).toBeNull();
    expect(SOIL_SHIELD.evaluate({ cover: 0 })).toBe(1);
    expect(coverAsSeen(coverOf('pasture-fair'), { barePercent: 0 }).surface.soilC).toBeCloseTo(Math.exp(-3.5), 12);
    expect(coverAsSeen(coverOf('pasture-poor'), { thatchMm: 25 }).surface.sheetN).toBe(0.24);
  });
  it('cracks 10 mm wide and 200 mm deep every 400 mm hold 5 mm: counted square by square', () => {
    const cell = 400;
    const wedges = 2 * cell * ((10 * 200) / 2); // half of the four sides of each square is its own
    expect(CRACK_STORE.evaluate({ w: 10, h: 200, s: cell })).toBeCloseTo(wedges / cell ** 2, 12);
    expect(wedges / cell ** 2).toBe(5);
  });
  it('sheds no less on heavier soil and in poorer condition, whatever the cover', () => {
    for (const cover of COVERS) {
      const [a, b, c, d] = cover.curveNumber;
      expect(a <= b && b <= c && c <= d).toBe(true);
      const family = COVERS.filter((o) => o.family === cover.family);
      const by = (name: string): number | undefined => family.find((o) => o.condition === name)?.curveNumber[2];
      const [poor, good] = [by('poor'), by('good')];
      if (poor !== undefined && good !== undefined) expect(poor).toBeGreaterThan(good);
    }
  });
});

describe('crops', () => {
  // TR-55 (1986), Table 2-2b, from memory: hydrologic soil groups A to D.
  it.each([
    ['row-straight-poor', [72, 81, 88, 91]],
    ['row-straight-good', [67, 78, 85, 89]],
    ['row-contour-poor', [70, 79, 84, 88]],
    ['row-crop', [65, 75, 82, 86]],
    ['grain-straight-poor', [65, 76, 84, 88]],
    ['grain-straight-good', [63, 75, 83, 87]],
    ['grain-contour-poor', [63, 74, 82, 85]],
    ['small-grain', [61, 73, 81, 84]],
    ['legume-straight-poor', [66, 77, 85, 89]],
    ['legume-straight-good', [58, 72, 81, 85]],
    ['fallow-residue-poor', [76, 85, 90, 93]],
    ['fallow-residue-good', [74, 83, 88, 90]],
  ])('%s', (id, numbers) => {
    expect(coverOf(id).curveNumber).toEqual(numbers);
    expect(coverOf(id).use).toBe('cultivated');
  });
  it('shed no more on the contour than in straight rows, and no more than bare fallow', () => {
    const pairs = [
      ['row-crop', 'row-straight-good'],
      ['row-contour-poor', 'row-straight-poor'],
      ['small-grain', 'grain-straight-good'],
      ['grain-contour-poor', 'grain-straight-poor'],
      ['row-straight-poor', 'bare'],
      ['fallow-residue-poor', 'bare'],
    ];
    for (const [less, more] of pairs)
      coverOf(less).curveNumber.forEach((n, k) => expect([less, n <= coverOf(more).curveNumber[k]]).toEqual([less, true]));
  });
});

describe('healing', () => {
  it('is two thirds done in four years and never comes to an end', () => {
    expect(HEALED_SHARE.evaluate({ t: 0 })).toBe(0);
    expect(HEALED_SHARE.evaluate({ t: 4 })).toBeCloseTo(1 - 1 / Math.E, 12);
    expect(HEALED_SHARE.evaluate({ t: 30 })).toBeLessThan(1);
  });
  it('never takes in less nor sheds more than now, and rest does more with every year', () => {
    fc.assert(
      fc.property(
        fc.record({
          years: fc.double({ min: 0, max: 25, noNaN: true }),
          treatment: fc.constantFrom(...TREATMENTS),
          compaction: fc.constantFrom(...COMPACTIONS),
          cover: fc.constantFrom(...COVERS.map((c) => c.id)),
          meant: fc.constantFrom(...COVERS.map((c) => c.id)),
          soilGroup: fc.constantFrom(...SOIL_GROUPS),
          curveNumber: fc.option(fc.integer({ min: 30, max: 98 })),
        }),
        ({ years, treatment, compaction, cover, meant, soilGroup, curveNumber }) => {
          const soil: Soil = { ...SOIL, soilGroup, cover, curveNumber, compaction, healing: { treatment, cover: meant } };
          const [now, then, later] = [soilFacts(soil), ...[years, years + 3].map((y) => soilFacts(soil, { as: 'healed', years: y }))];
          expect(then.infiltrationMmPerHour).toBeGreaterThanOrEqual(now.infiltrationMmPerHour);
          expect(then.curveNumber).toBeLessThanOrEqual(now.curveNumber);
          expect(then.runoffC(0.08)).toBeLessThanOrEqual(now.runoffC(0.08));
          expect(then.cover.surface.soilC).toBeLessThanOrEqual(now.cover.surface.soilC);
          if (treatment === 'rest') {
            expect(later.infiltrationMmPerHour).toBeGreaterThanOrEqual(then.infiltrationMmPerHour);
            expect(later.curveNumber).toBeLessThanOrEqual(then.curveNumber);
          }
          // With no years passed, rested ground is what it is now.
          if (treatment === 'rest') expect(soilFacts(soil, { as: 'healed', years: 0 }).curveNumber).toBeCloseTo(now.curveNumber, 12);
        },
      ),
      { seed: 13, numRuns: 300 },
    );
  });
  it('of ripping alone fades: most at once, little after ten years, the cover as it was', () => {
    const soil: Soil = { ...SOIL, compaction: 'severe', healing: { treatment: 'rip', cover: 'pasture-good' } };
    const rate = (years: number): number => soilFacts(soil, { as: 'healed', years }).infiltrationMmPerHour;
    expect(rate(0)).toBeCloseTo(3 * 8, 12);
    expect(rate(10)).toBeLessThan(1.02 * 8);
    expect(soilFacts(soil, { as: 'healed', years: 3 }).curveNumber).toBe(curveNumberOf(coverOf('pasture-poor'), 'C'));
  });
});
