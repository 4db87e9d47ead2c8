// Swales in a set: spacing by three rules, what they hold, what they take, worked by hand and by a second computation.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { newSet } from './create.ts';
import { INTERVAL, INTERVAL_HUDSON, LEE, STORAGE_APART, apartByInterval } from './formulas.ts';
import { type SwaleSet, swaleSet } from './index.ts';
import { partsOf } from './making.ts';
import { balancedBank, contentAt, earthOf, fillOf, heldIn, rowsOf } from './standing.ts';

const SLOPE = 0.08;
const SITE = siteOf(gridOf((_x, y) => 100 + SLOPE * y, { cells: 201, cellM: 0.5 }));
const line = (y: number): Line => [[80, y], [50, y], [20, y]]; // prettier-ignore
const ONE: SwaleSet = newSet('set', 'Set', { lines: [line(60), line(48)], by: 'even' });
const measured = (work: SwaleSet) => swaleSet.measure(work, SITE, null);
const place = (work: SwaleSet) => swaleSet.place(work, measured(work), null);
const rows = (work: SwaleSet) => rowsOf(work, measured(work));

describe('published rows', () => {
  // ASAE S268, terraces, as told in handbooks, from memory: at 5 %, x 0.6 and y 2 in feet, 5 ft (1.52 m) of fall, 30.5 m apart.
  it('on 5 % the fall between is 1.52 m and they lie 30.5 m apart', () => {
    expect(INTERVAL.evaluate({ x: 0.6 * 0.3048, S: 5, y: 2 * 0.3048 })).toBeCloseTo(1.524, 3);
    expect(apartByInterval(0.05)).toBeCloseTo(30.48, 2);
  });
  // Hudson (1981), Soil Conservation, as told in handbooks, from memory: (S + f)/2 feet.
  it('in southern Africa at 6 % and f 4 it is 5 ft', () => {
    expect(INTERVAL_HUDSON.evaluate({ S: 6, f: 4 })).toBeCloseTo(5 * 0.3048, 9);
  });
  it('half a square metre of water a metre takes what runs off 20 m at 25 mm; a row of 8 m shelters 80 m when met squarely, 40 at 30°', () => {
    expect(STORAGE_APART.evaluate({ A: 0.5, Q: 25 })).toBeCloseTo(20, 9);
    expect(LEE.evaluate({ H: 8, a: 90 })).toBeCloseTo(80, 9);
    expect(LEE.evaluate({ H: 8, a: -30 })).toBeCloseTo(40, 9);
  });
});

/** Second computation: the section laid out point by point, water summed in thin upright strips. */
function strips(work: SwaleSet, overFloorM: number): { water: number; fill: number } {
  const { depthM: h, floorWidthM: b, sideSlopeHV: z, bankM, bankSlopeHV: zb, fillM } = work.dimensions;
  const ground = (x: number): number => h - SLOPE * x;
  const bed = (x: number): number => {
    // x downhill from the lip; the floor is level nought.
    if (x >= 0) return Math.min(ground(x) + Infinity, Math.max(ground(x), h + Math.min(bankM, x / zb)));
    const inner = x >= -z * h ? h + x / z : x >= -z * h - b ? 0 : (-z * h - b - x) / z;
    return Math.min(inner, ground(x));
  };
  let [water, fill] = [0, 0];
  for (let x = -12; x < zb * bankM; x += 0.001) {
    water += Math.max(0, overFloorM - bed(x)) * 0.001;
    if (x < 0) fill += Math.max(0, Math.min(overFloorM, fillM) - bed(x)) * 0.001;
  }
  return { water, fill };
}

describe('what one holds', () => {
  it('is as summed strip by strip, at any level, filled or not', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.55, noNaN: true }),
        fc.double({ min: 0.05, max: 0.3, noNaN: true }),
        fc.double({ min: 0.3, max: 0.6, noNaN: true }),
        (over, fillM, fillVoids) => {
          const work: SwaleSet = { ...ONE, fill: 'woodchip', dimensions: { ...ONE.dimensions, fillM, fillVoids } };
          const [row] = rows(work);
          const theirs = strips(work, over);
          const open = contentAt({ ...work, fill: 'none' }, row, row.floorM + over).volumeM3 / 60;
          expect(Math.abs(open - theirs.water)).toBeLessThan(0.01 * theirs.water + 0.002);
          const filled = contentAt(work, row, row.floorM + over).volumeM3 / 60;
          const expected = theirs.water - (1 - fillVoids) * theirs.fill;
          expect(Math.abs(filled - expected)).toBeLessThan(0.01 * expected + 0.003);
        },
      ),
      { seed: 31, numRuns: 25 },
    );
  });
  it('spills in turn at one end and the other, on ground nobody dug, and over its bank above', () => {
    const [first, second] = place(ONE).stores([]);
    const at = (k: number): number => place(ONE).stores([])[k].outlets[0].dischargeAt[0];
    // Lines run from east to west: the first spills at its end, the second at its start.
    expect([at(0), at(1)]).toEqual([expect.closeTo(20 + 12, 1), expect.closeTo(80 - 12, 1)]);
    const spilling = (spills: SwaleSet['spills']) => place({ ...ONE, spills }).stores([]).map((s) => s.outlets[0].dischargeAt[0] < 50); // prettier-ignore
    expect([spilling('start'), spilling('end')]).toEqual([[false, false], [true, true]]); // prettier-ignore
    expect(first.sillM! - first.floorM).toBeCloseTo(0.3, 9);
    expect(first.crestM - first.sillM!).toBeCloseTo(0.3, 9);
    expect(first.heldM3).toBeCloseTo(heldIn(ONE, rows(ONE)[0]), 9);
    expect(first.outlets.map((o) => o.role)).toEqual(['way', 'bank']);
    expect(first.outlets[0].flowAt(first.sillM! + 0.1) / (1.5 * 4 * 0.1 ** 1.5)).toBeCloseTo(1, 1);
    expect([second.id, second.name]).toEqual(['set:2', 'Set, swale 2']);
  });
});

describe('earth', () => {
  it('of a bank that takes just what is dug is nine tenths of it', () => {
    const bankM = balancedBank(ONE, rows(ONE))!;
    const work = withAt(ONE, 'dimensions.bankM', bankM);
    const earth = earthOf(work, rows(work)[0])!;
    expect(earth.bankM3 / earth.cutM3).toBeCloseTo(0.9, 3);
    const steep = withAt(ONE, 'dimensions.sideSlopeHV', 13);
    expect([earthOf(steep, rows(steep)[0]), balancedBank(steep, rows(steep)), partsOf(steep, rows(steep)).hours]).toEqual([
      null,
      null,
      null,
    ]);
  });
  it('plants, fence, fill and hours by hand', () => {
    const work: SwaleSet = { ...ONE, fill: 'logs', fence: 'both-sides' };
    const parts = partsOf(work, rows(work));
    // 60 m each: a tree each 4 m, a bush each 1.5 m, both ends planted.
    expect([parts.trees, parts.bushes, parts.nurses]).toEqual([2 * 16, 2 * 41, Math.round(0.6 * 114)]);
    expect(parts.fenceM).toBeCloseTo(240, 6);
    expect(parts.fillM3).toBeCloseTo(2 * fillOf(work, rows(work)[0]), 6);
    expect(parts.hours).toBeCloseTo(((parts.cutM3! + parts.fillM3) / 3) * 8 + (114 / 100) * 8, 6);
    expect(partsOf(withAt(ONE, 'planting.treesApartM', 0), rows(ONE)).trees).toBe(0);
  });
  it('lists and steps fit what was chosen', () => {
    const items = (work: SwaleSet): readonly string[] => place(work).quantities(factsOf(SITE)).map((q) => q.item); // prettier-ignore
    const ids = (work: SwaleSet): readonly string[] => place(work).buildSteps().map((s) => s.id); // prettier-ignore
    expect(items(ONE)).toEqual(['ditch', 'cut', 'bank', 'seed', 'tree', 'bush', 'nurse']);
    expect(items({ ...ONE, fill: 'woodchip', fence: 'one-side' })).toEqual([
      'ditch',
      'cut',
      'bank',
      'seed',
      'chip',
      'tree',
      'bush',
      'nurse',
      'fence',
    ]);
    expect(ids(ONE)).toEqual(['peg', 'top', 'dig', 'spill', 'seed', 'plant', 'after']);
    const bare = { ...ONE, planting: { ...ONE.planting, treesApartM: 0, bushesApartM: 0 }, fill: 'logs', fence: 'one-side' } as const;
    expect(ids(bare)).toEqual(['peg', 'top', 'dig', 'spill', 'fill', 'seed', 'fence', 'after']);
    expect(words(place(ONE).buildSteps()[5].does)).toMatch(/nurse trees first; cut those for mulch after 7 yr/);
  });
});

describe('what a set tells', () => {
  it('is pegged along every lip and at every spill, marked at its highest and lowest, drawn to scale', () => {
    const one = place(ONE);
    const pegs = one.pegs(20, null);
    expect(pegs.map((p) => p.role).filter((r) => r === 'sill')).toHaveLength(2);
    expect(pegs).toHaveLength(10);
    for (const p of pegs) expect(p.groundM!).toBeCloseTo(levelAt(SITE.grid, [p.x, p.y]), 2);
    expect(one.marks.map((m) => m.name)).toEqual(['Highest spill', 'Lowest spill']);
    const roles = (work: SwaleSet, water: number | null) => place(work).section!(water).parts.map((p) => p.role); // prettier-ignore
    expect(roles(ONE, null)).toEqual(['ground', 'cut', 'earth', 'full']);
    expect(roles({ ...ONE, fill: 'logs' }, 104.7)).toEqual(['ground', 'cut', 'earth', 'stone', 'full', 'water']);
  });
  it('tells both schools of spacing, and shelter only where the wind is known', () => {
    const read = (work: SwaleSet) => new Map(place(work).figures(factsOf(SITE), new Worksheet('set')).map((f) => [f.id, f.value])); // prettier-ignore
    const plain = read(ONE);
    expect(plain.get('byAsae')).toBeCloseTo(0.3048 * (0.6 * 8 + 2), 4);
    expect(plain.get('byHudson')).toBeCloseTo((0.3048 * (8 + 4.5)) / 2, 4);
    expect([plain.get('leeM'), plain.get('byRoom')]).toEqual([null, null]);
    // Rows run east to west: a wind from the north meets them squarely, one from the west along them.
    expect(read({ ...ONE, windFromDeg: 0 }).get('leeM')).toBeCloseTo(80, 6);
    expect(read({ ...ONE, windFromDeg: 270 }).get('leeM')).toBeCloseTo(0, 6);
  });
});

describe('a set from a drawing', () => {
  const land = { grid: SITE.grid, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w, runsMm: (): number | null => 25 };
  const FIELD: Line = [[20, 5], [80, 5], [80, 95], [20, 95]]; // prettier-ignore
  const begin = (how: string, change: Partial<typeof land> = {}) =>
    swaleSet.begin({ how, points: FIELD, host: null }, { ...land, ...change });
  const apart = (how: string): readonly number[] => {
    const begun = begin(how);
    if (!begun.ok) throw new Error('refused');
    const { lines } = begun.works[0] as SwaleSet;
    return lines.slice(1).map((l, k) => lines[k][0][1] - l[0][1]);
  };
  it('lies apart by the fall between, by even ground, or by what runs off', () => {
    for (const a of apart('swales-interval')) expect(a).toBeCloseTo(apartByInterval(SLOPE), 0);
    for (const a of apart('swales-even')) expect(a).toBeCloseTo(12, 1);
    // A square metre of ditch as it is begun, full to the ground, over 25 mm.
    const [row] = rows(ONE);
    for (const a of apart('swales-storage')) expect(a).toBeCloseTo(heldIn(ONE, row) / 60 / 0.025, 0);
    const begun = begin('swales-even');
    expect(begun.ok && words(begun.said)).toMatch(/7 swales along the contour, 0\.96 m of fall/);
  });
  it('is refused where nobody knows what runs off, on flat and on steep ground', () => {
    const told = (how: string, change: Partial<typeof land>): string => {
      const begun = begin(how, change);
      return begun.ok ? 'begun' : begun.problem.code;
    };
    const grid = (slope: number) => gridOf((_x, y) => 100 + slope * y, { cells: 201, cellM: 0.5 });
    expect(told('swales-storage', { runsMm: () => null })).toBe('swale-set.unknown');
    expect(told('swales-interval', { runsMm: () => null })).toBe('begun');
    expect(told('swales-even', { grid: grid(0) })).toBe('swale-set.none');
    expect([told('swales-even', { grid: grid(0.24) }), told('swales-even', { grid: grid(0.26) })]).toEqual(['begun', 'swale-set.steep']);
  });
});

describe('what is refused', () => {
  it.each([
    ['lines', [[[0, 0]]], 'lines.0'],
    ['by', 'luck', 'by'],
    ['dimensions.spillM', 0.3, 'dimensions.spillM'],
    ['dimensions.depthM', 0, 'dimensions.depthM'],
    ['planting.nursePercent', 120, 'planting.nursePercent'],
    ['windFromDeg', 400, 'windFromDeg'],
  ])('%s of %j is told at %s', (path, value, field) => {
    expect(swaleSet.validate(ONE)).toEqual([]);
    expect(swaleSet.validate(withAt(ONE, path, value)).map((x) => x.field)).toContain(field);
  });
});
