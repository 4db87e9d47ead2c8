// Rain gardens: areas by published rows, cones by hand, a chain that hands on.
import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { newGarden } from './create.ts';
import { GARDEN_AREA, GARDEN_FACTOR, SOAK_DEPTH } from './formulas.ts';
import { type RainGarden, acrossBasin, rainGarden } from './index.ts';
import { partsOf } from './making.ts';
import { basinsOf, heldBy, measureGarden } from './standing.ts';

const GRID = gridOf((_x, y) => 100 + 0.03 * y, { cells: 201, cellM: 0.5 });
const SITE = siteOf(GRID);
const LINE: Line = [
  [50, 60],
  [50, 54],
  [50, 46],
];
const ONE: RainGarden = newGarden('garden', 'Garden', { line: LINE, basins: [{ areaM2: 8, overflowM: 101.78 }, { areaM2: 6, overflowM: 101.6 }] }); // prettier-ignore
const place = (work: RainGarden) => rainGarden.place(work, rainGarden.measure(work, SITE, null), null);
const basins = (work: RainGarden) => basinsOf(work, measureGarden(work, SITE));

describe('how large (rows of the handbook)', () => {
  it('2.25 m3 of a roof want 15 m2 at 0.15 m, 9.38 with 0.3 m of soil (by hand)', () => {
    const V = 100 * 0.9 * 0.025;
    expect(GARDEN_AREA.evaluate({ V, d: 0.15, n: 0.3, m: 0 })).toBeCloseTo(15, 9);
    expect(GARDEN_AREA.evaluate({ V, d: 0.15, n: 0.3, m: 0.3 })).toBeCloseTo(9.375, 9);
  });
  it('1000 ft2 on silty soil, 6 to 7 in, near: 250 ft2 (Bannerman & Considine 2003, size factors; from memory)', () => {
    const factor = (soil: 'sandy' | 'silty' | 'clayey', inches: '3-5' | '6-7' | '8', distance: 'near' | 'far') =>
      GARDEN_FACTOR.evaluate({ area: 1000, soil, inches, distance });
    expect(factor('silty', '6-7', 'near')).toBeCloseTo(250, 9);
    expect(factor('clayey', '3-5', 'near')).toBeCloseTo(430, 9);
    expect(factor('sandy', '8', 'far')).toBeCloseTo(30, 9);
  });
  it('20 mm/h take 0.48 m in a day', () => expect(SOAK_DEPTH.evaluate({ f: 20, t: 24 })).toBeCloseTo(0.48, 9));
});

describe('a basin', () => {
  it('holds a cone cut off, and its soil', () => {
    const [basin] = basins(ONE);
    const [R, r] = [Math.sqrt(8 / Math.PI), Math.sqrt(8 / Math.PI) - 0.45];
    const cone = ((Math.PI * 0.15) / 3) * (R * R + R * r + r * r);
    const soil = 0.25 * Math.PI * r * r * 0.3;
    expect(heldBy(ONE, basin, 101.78).volumeM3).toBeCloseTo(cone + soil, 9);
    expect(heldBy(ONE, basin, 101.63).volumeM3).toBeCloseTo(soil, 9);
    expect(heldBy(ONE, basin, 101.63 - 0.15).volumeM3).toBeCloseTo(soil / 2, 9);
    expect(heldBy(ONE, basin, 101).volumeM3).toBe(0);
    // Its soil is wet over the whole floor from its first water.
    expect([101.33, 101.4, 101.63].map((level) => heldBy(ONE, basin, level).wettedM2 / (Math.PI * r * r))).toEqual([1, 1, 1]);
  });
  it('summed in thin sheets holds the same', () => {
    const [basin] = basins(ONE);
    let sum = heldBy(ONE, basin, basin.floorM).volumeM3;
    for (let k = 0; k < 3000; k++) {
      const y = ((k + 0.5) * 0.15) / 3000;
      sum += (Math.PI * (basin.radiusM - 3 * (0.15 - y)) ** 2 * 0.15) / 3000;
    }
    expect(heldBy(ONE, basin, 101.78).volumeM3).toBeCloseTo(sum, 6);
  });
  it('is caught across its width, square to the way on', () => {
    const [[ax, ay], [bx, by]] = acrossBasin(ONE, 0);
    expect(Math.hypot(bx - ax, by - ay)).toBeCloseTo(2 * Math.sqrt(8 / Math.PI), 9);
    expect([ay, by]).toEqual([60, 60]);
  });
});

describe('a chain', () => {
  it('hands on over rock from one to the next, the last to its end; a tested rate is its own', () => {
    const [first, last] = place(ONE).stores([]);
    expect(first.outlets[0]).toMatchObject({ to: 'garden:2', levelM: 101.78 });
    expect(last.outlets[0]).not.toHaveProperty('to');
    expect(last.outlets[0].dischargeAt).toEqual([50, 46]);
    expect(first.outlets[0].flowAt(101.88)).toBeCloseTo(1.5 * 0.8 * 0.1 ** 1.5, 9);
    expect(first.crestM - first.wayOutM).toBeCloseTo(0.15, 9);
    expect(first).not.toHaveProperty('seepsMmPerHour');
    expect(place({ ...ONE, rateMmPerHour: 12 }).stores([])[1].seepsMmPerHour).toBe(12);
    expect(place(ONE).beds!('garden:2')!.dugM).toBeCloseTo(101.62 - 101.45, 2);
  });
  it('never holds less for deeper soil, more water or more voids', () => {
    const held = (work: RainGarden) => place(work).stores([]).reduce((a, s) => a + s.heldM3, 0); // prettier-ignore
    const wider: RainGarden = { ...ONE, basins: [{ areaM2: 12, overflowM: 101.78 }, ONE.basins[1]] };
    for (const more of [withAt(ONE, 'dimensions.mediaM', 0.5), withAt(ONE, 'dimensions.voids', 0.35), wider])
      expect(held(more)).toBeGreaterThan(held(ONE));
  });
});

describe('what it takes', () => {
  it('digging, soil, mulch, rock and plants by hand', () => {
    const own = withAt(ONE, 'basins', [{ areaM2: 8, overflowM: 101.78 }, { areaM2: 8, overflowM: 101.6 }]); // prettier-ignore
    const { areaM2, mediaM3, rockM3, plants, dugM3 } = partsOf(own, basins(own));
    const under = Math.PI * (Math.sqrt(8 / Math.PI) - 0.45) ** 2;
    expect(areaM2).toBe(16);
    expect(mediaM3).toBeCloseTo(2 * under * 0.3, 9);
    expect(rockM3).toBeCloseTo(2 * 0.8 * 0.2, 9);
    expect(plants.slice(0, 2)).toEqual([Math.ceil(8 * under), Math.ceil(4 * (16 - 2 * under))]);
    const cone = (0.15 / 3) * (8 + under + Math.sqrt(8 * under));
    expect(dugM3).toBeCloseTo(2 * cone + 8 * (101.8 - 101.78 + (101.62 - 101.6)) + 2 * under * 0.06, 2);
  });
  it('card where turf is smothered, plants where they are zoned; steps to smother first', () => {
    const items = (work: RainGarden) => place(work).quantities(factsOf(SITE)).map((q) => q.item); // prettier-ignore
    expect(items(ONE)).toEqual(['cut', 'media', 'mulch', 'stone', 'card', 'plant-wet', 'plant-both', 'plant-dry']);
    expect(items({ ...ONE, turf: 'left', plants: 'none' })).toEqual(['cut', 'media', 'mulch', 'stone']);
    expect(place(ONE).buildSteps().map((s) => s.id)).toEqual(['smother', 'peg', 'dig', 'loosen', 'bank', 'rock', 'plant', 'after']); // prettier-ignore
    expect(place({ ...ONE, turf: 'left' }).buildSteps()[0].id).toBe('peg');
    expect(words(place(ONE).buildSteps()[2].does)).toContain('150 mm under its overflow');
  });
  it('pegs floor, overflow and bank of each, and marks the overflows that may be moved', () => {
    const pegs = place(ONE).pegs(5, null);
    expect(pegs.map((p) => p.role)).toEqual(['floor', 'sill', 'crest', 'crest', 'floor', 'sill', 'crest', 'crest']);
    expect(pegs[1].y).toBeCloseTo(60 - Math.sqrt(8 / Math.PI), 9);
    expect(place(ONE).marks.map((m) => [m.name, m.path])).toEqual([
      ['First overflow', 'basins.0.overflowM'],
      ['Last overflow', 'basins.1.overflowM'],
    ]);
    const { parts } = place(ONE).section!(null);
    expect(parts.map((p) => p.role)).toEqual(['ground', 'earth', 'cut', 'full', 'earth', 'cut', 'full']);
  });
  it('tells figures with their working', () => {
    const sheet = new Worksheet('garden');
    const facts = factsOf(SITE, { runoff: { volumeM3: 4.5 } as never });
    const figures = new Map(place({ ...ONE, rateMmPerHour: 10 }).figures(facts, sheet).map((f) => [f.id, f.value])); // prettier-ignore
    expect(figures.get('areaNeededM2')).toBeCloseTo(4.5 / 0.225, 9);
    expect(figures.get('deepM')).toBeCloseTo(0.24, 9);
    expect(sheet.lines.map((l) => l.formula)).toEqual(['rain-garden.area', 'rain-garden.depth']);
  });
});

describe('from a drawing', () => {
  const land = { grid: GRID, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w };
  const begin = (points: Line, there = land) => rainGarden.begin({ how: 'rain-garden', points, host: null }, there);
  it('each place but the last is a basin at its ground, lower than the one before', () => {
    const begun = begin([[50, 70], [50, 66], [51, 62], [52, 50]]); // prettier-ignore
    if (!begun.ok) throw new Error('refused');
    const [work] = begun.works as unknown as readonly [RainGarden];
    expect(rainGarden.validate(work)).toEqual([]);
    expect(work.basins.map((b) => b.overflowM)).toEqual([102.1, 101.98, 101.86]);
    // Four metres apart they are begun smaller than they would be alone.
    for (const b of work.basins) expect(b.areaM2).toBeLessThan(8.1);
    const flat = begin([[50, 70], [54, 70], [58, 70]]); // prettier-ignore
    if (!flat.ok) throw new Error('refused');
    const [level] = flat.works as unknown as readonly [RainGarden];
    expect(level.basins[0].overflowM - level.basins[1].overflowM).toBeCloseTo(0.05, 9);
  });
  it('is refused where the next lies higher, or off the terrain', () => {
    const code = (points: Line): string => {
      const begun = begin(points);
      return begun.ok ? 'begun' : begun.problem.code;
    };
    expect(code([[50, 60], [50, 66]])).toBe('rain-garden.rises'); // prettier-ignore
    expect(code([[50, 60], [50, 660]])).toBe('work.off-terrain'); // prettier-ignore
  });
});

describe('what is refused', () => {
  it.each([
    ['basins', [], 'basins'],
    ['basins', 3, 'basins'],
    ['basins', [{ areaM2: 8, overflowM: 101 }, { areaM2: 'wide', overflowM: 101 }], 'basins.1.areaM2'], // prettier-ignore
    ['basins', [{ areaM2: 0.6, overflowM: 101 }, { areaM2: 6, overflowM: 100.9 }], 'basins.0.areaM2'], // prettier-ignore
    ['basins', [{ areaM2: 40, overflowM: 101 }, { areaM2: 40, overflowM: 100.9 }], 'basins.1.areaM2'], // prettier-ignore
    ['turf', 'burnt', 'turf'],
    ['dimensions.voids', 0.9, 'dimensions.voids'],
    ['rateMmPerHour', 0, 'rateMmPerHour'],
  ])('%s of %j is told at %s', (path, value, field) => {
    expect(rainGarden.validate(ONE)).toEqual([]);
    expect(rainGarden.validate(withAt(ONE, path, value)).map((p) => p.field)).toContain(field);
  });
});
