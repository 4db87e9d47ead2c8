import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Line, Point } from '../geometry/index.ts';
import { gridOf } from '../testing/grids.ts';
import { type Reshape, levelAt, movedBy, reshaped, shapedAt } from './index.ts';

const RING: Line = [[20, 20], [30, 20], [30, 30], [20, 30]]; // prettier-ignore
const flat = (): number => 100;
const slope = ([x, y]: Point): number => 100 + 0.05 * (x - 25) + 0.02 * (y - 25);
const by = (byM: number, batterHV = 4): Reshape => ({ what: 'by', ring: RING, byM, batterHV });
const at = (shape: Reshape, x: number, y: number): number => shapedAt(shape, [x, y], flat);

describe('a shape at a place', () => {
  it('is as high as it says within, as steep as its batter beside, and the ground as it was beyond', () => {
    expect([at(by(0.5), 25, 25), at(by(0.5), 31, 25), at(by(0.5), 32.1, 25), at(by(-0.5), 31, 25)]).toEqual([100.5, 100.25, 100, 99.75]);
    // Round a corner by the distance from it.
    expect(at(by(0.5), 31, 31)).toBeCloseTo(100.5 - Math.SQRT2 / 4, 9);
    const level: Reshape = { what: 'level', ring: RING, levelM: 99.8, batterHV: 2 };
    expect([at(level, 25, 25), at(level, 30.2, 25), at(level, 31, 25)]).toEqual([99.8, expect.closeTo(99.9, 9), 100]);
  });
  it('falls as a plane does, from its corner the way it is told', () => {
    const plane: Reshape = { what: 'plane', ring: RING, batterHV: 4, at: [20, 20], levelM: 100, fall: [0.03, -0.01] };
    expect(at(plane, 28, 20.001)).toBeCloseTo(100 - 0.24, 4);
    expect(at(plane, 20.001, 28)).toBeCloseTo(100.08, 4);
  });
  it('that only fills takes nothing off, nor one that only cuts fills anything, beside it either', () => {
    fc.assert(
      fc.property(fc.double({ min: 10, max: 40, noNaN: true }), fc.double({ min: 10, max: 40, noNaN: true }), fc.double({ min: 98, max: 102, noNaN: true }), (x, y, levelM) => {
        const ground = slope([x, y]);
        const [fill, cut] = (['fill', 'cut'] as const).map((what) => shapedAt({ what, ring: RING, levelM, batterHV: 3 }, [x, y], slope));
        expect(fill).toBeGreaterThanOrEqual(ground);
        expect(cut).toBeLessThanOrEqual(ground);
        const isIn = x > 20 && x < 30 && y > 20 && y < 30;
        if (isIn) expect([fill, cut]).toEqual([Math.max(ground, levelM), Math.min(ground, levelM)]);
      }),
      { seed: 81, numRuns: 300 },
    ); // prettier-ignore
  });
  it('hollows a dish along its line: its bed by how far along, its sides by how far off', () => {
    const dish: Reshape = { what: 'dish', line: [[10, 25], [40, 25]], startM: 99.9, endM: 99.6, bedWidthM: 1, sideHV: 5 }; // prettier-ignore
    expect([at(dish, 25, 25), at(dish, 25, 26), at(dish, 25, 27.5)]).toEqual([expect.closeTo(99.75, 9), expect.closeTo(99.85, 9), 100]);
  });
  it('knows nothing where no ground is known', () => {
    expect(shapedAt(by(0.5), [25, 25], () => NaN)).toBeNaN();
  });
});

describe('earth moved', () => {
  it('raising flat ground is the area by the height, the batter along its edge and a cone at its corners', () => {
    const { fillM3, cutM3, fillM2, highestFillM } = movedBy(by(0.5), flat);
    expect(fillM3 / (100 * 0.5 + 40 * 0.5 * 0.5 * 4 * 0.5 + (Math.PI * (0.5 * 4) ** 2 * 0.5) / 3)).toBeCloseTo(1, 2);
    expect(fillM2 / (100 + 40 * 2 + Math.PI * 4)).toBeCloseTo(1, 1);
    expect([cutM3, highestFillM]).toEqual([0, expect.closeTo(0.5, 9)]);
  });
  it('a slope made level at its mean is cut as much as it is filled', () => {
    const { cutM3, fillM3 } = movedBy({ what: 'level', ring: RING, levelM: 100, batterHV: 1000 }, slope);
    const steep = movedBy({ what: 'level', ring: RING, levelM: 100, batterHV: 0.5 }, slope);
    expect(Math.abs(steep.cutM3 - steep.fillM3)).toBeLessThan(0.02 * steep.cutM3);
    expect(cutM3).toBeGreaterThan(steep.cutM3);
    expect(fillM3).toBeGreaterThan(steep.fillM3);
  });
  it('a dish is its section by its length, and its round ends', () => {
    const dish: Reshape = { what: 'dish', line: [[10, 25], [40, 25]], startM: 99.8, endM: 99.8, bedWidthM: 1, sideHV: 5 }; // prettier-ignore
    const ends = (Math.PI * 0.2 * (0.5 ** 2 + 0.5 * 1.5 + 1.5 ** 2)) / 3;
    expect(movedBy(dish, flat).cutM3 / (30 * (1 * 0.2 + 5 * 0.04) + ends)).toBeCloseTo(1, 1);
  });
});

describe('a grid with shapes on it', () => {
  const grid = gridOf((x, y) => slope([x, y]), { cells: 100, cellM: 0.5 });
  it('has them one after the other, and is itself without any', () => {
    expect(reshaped(grid, [])).toBe(grid);
    const twice = reshaped(grid, [by(0.5), { what: 'cut', ring: RING, levelM: 100.3, batterHV: 4 }]);
    expect(levelAt(twice, [25, 25])).toBeCloseTo(100.3, 3);
    expect(levelAt(twice, [45, 45])).toBeCloseTo(levelAt(grid, [45, 45]), 6);
    expect(levelAt(grid, [25, 25])).toBeCloseTo(100, 3);
  });
  it('comes to what is moved by the finer raster', () => {
    const shape = by(-0.4, 3);
    const after = reshaped(grid, [shape]);
    const cut = grid.z.reduce((a, v, k) => a + (v - after.z[k]) * 0.25, 0);
    expect(cut / movedBy(shape, (p) => levelAt(grid, p)).cutM3).toBeCloseTo(1, 1);
  });
  it('leaves what is not known unknown', () => {
    const holed = { ...grid, z: grid.z.slice() };
    holed.z[50 * 100 + 50] = NaN;
    expect(reshaped(holed, [by(0.5)]).z[50 * 100 + 50]).toBeNaN();
  });
});
