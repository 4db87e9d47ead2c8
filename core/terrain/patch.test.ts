import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Grid, differsFrom, extentOf, gridFromLevels, levelAt, patched, usualFeather } from './index.ts';

/** A grid over a place by a law. */
const gridOf = (frame: Omit<Grid, 'z' | 'baseM'>, law: (x: number, y: number) => number): Grid =>
  gridFromLevels(
    frame,
    Float64Array.from({ length: frame.ncols * frame.nrows }, (_, i) =>
      law(frame.west + ((i % frame.ncols) + 0.5) * frame.cellM, frame.south + (frame.nrows - Math.floor(i / frame.ncols) - 0.5) * frame.cellM),
    ),
  ); // prettier-ignore
const plane = (x: number, y: number): number => 100 + 0.03 * x - 0.02 * y;
const GROUND = gridOf({ ncols: 40, nrows: 30, cellM: 5, west: 0, south: 0 }, plane);
const HERE = { ncols: 40, nrows: 30, cellM: 1, west: 60.3, south: 40.7 };

describe('a survey against the ground it lies on', () => {
  it('is told by how far it lies above it, and how far it strays from that', () => {
    const raised = differsFrom(
      GROUND,
      gridOf(HERE, (x, y) => plane(x, y) + 0.4),
    )!;
    expect(raised.cells).toBe(1200);
    expect([raised.medianM, raised.spreadM, raised.mostM]).toEqual([expect.closeTo(0.4, 4), expect.closeTo(0, 4), expect.closeTo(0, 4)]);
    // Uniform between 0 and 1: two thirds lie within 0.34 of the middle.
    const rough = differsFrom(GROUND, gridOf(HERE, (x, y) => plane(x, y) + ((x - 60.3 - 0.5) / 39)))!; // prettier-ignore
    expect([rough.medianM, rough.spreadM, rough.mostM]).toEqual([expect.closeTo(0.51, 1), expect.closeTo(0.34, 1), expect.closeTo(0.5, 1)]);
    expect(differsFrom(GROUND, gridOf({ ...HERE, west: 5000 }, plane))).toBeNull();
  });
});

describe('a survey laid into the ground', () => {
  it('keeps its own levels within, the ground’s outside, and passes from one to the other without a step', () => {
    const survey = gridOf(HERE, (x, y) => plane(x, y) + 0.5);
    const grid = patched(GROUND, survey, { shiftM: 0, featherM: 8 });
    expect(grid.cellM).toBe(1);
    expect(extentOf(grid)[0]).toBeLessThanOrEqual(0);
    expect(extentOf(grid)[2]).toBeGreaterThanOrEqual(200);
    const above = (x: number, y: number): number => levelAt(grid, [x, y]) - plane(x, y);
    for (const [x, y] of [[80, 55], [75, 60], [69.8, 55.2]] as const) expect(above(x, y)).toBeCloseTo(0.5, 3); // prettier-ignore
    for (const [x, y] of [[50, 55], [110, 80], [30, 100]] as const) expect(above(x, y)).toBeCloseTo(0, 3); // prettier-ignore
    // Halfway through it lies halfway, and nowhere on the way in it falls.
    expect(above(60.3 + 4, 55.2)).toBeCloseTo(0.25, 1);
    const way = Array.from({ length: 24 }, (_, k) => above(58 + k / 2, 55.2));
    way.slice(1).forEach((v, k) => expect(v).toBeGreaterThanOrEqual(way[k] - 1e-4));
    // Nowhere steeper than the way asks for: one and a half times its mean.
    way.slice(1).forEach((v, k) => expect(v - way[k]).toBeLessThan(0.5 * ((1.6 * 0.5) / 8) + 0.02));
  });
  it('raised by what it differs lies on the ground again', () => {
    const survey = gridOf(HERE, (x, y) => plane(x, y) - 7.25);
    const { medianM } = differsFrom(GROUND, survey)!;
    const grid = patched(GROUND, survey, { shiftM: -medianM, featherM: usualFeather(GROUND, survey) });
    for (const [x, y] of [[80, 55], [62, 42], [61, 60]] as const) expect(levelAt(grid, [x, y])).toBeCloseTo(plane(x, y), 2); // prettier-ignore
    expect(usualFeather(GROUND, survey)).toBe(7.5);
    expect(usualFeather(GROUND, gridOf({ ...HERE, ncols: 400, nrows: 300 }, plane))).toBe(10);
  });
  it('reaches beyond the ground it lies on, and fills what was not known there', () => {
    const holed = gridOf({ ncols: 40, nrows: 30, cellM: 5, west: 0, south: 0 }, (x, y) => (x > 70 && x < 80 && y > 50 && y < 60 ? NaN : plane(x, y))); // prettier-ignore
    const filled = patched(holed, gridOf(HERE, plane), { shiftM: 0, featherM: 5 });
    expect(levelAt(filled, [75, 55])).toBeCloseTo(plane(75, 55), 3);
    const beyond = patched(GROUND, gridOf({ ...HERE, west: 180 }, plane), { shiftM: 0, featherM: 5 });
    expect(levelAt(beyond, [215, 55])).toBeCloseTo(plane(215, 55), 3);
    expect(extentOf(beyond)[2]).toBeGreaterThanOrEqual(220);
  });
  it('never lies outside what the two of them say, whatever they are', () => {
    const tilt = fc.double({ min: -0.2, max: 0.2, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(tilt, tilt, tilt), fc.tuple(tilt, fc.integer({ min: 1, max: 12 }), fc.integer({ min: 0, max: 15 })), ([a, b, c], [d, cellM, featherM]) => {
        const ground = gridOf({ ncols: 20, nrows: 20, cellM: 4, west: 0, south: 0 }, (x, y) => 50 + a * x + b * y);
        const survey = gridOf({ ncols: 30, nrows: 25, cellM, west: 11, south: 13 }, (x, y) => 50 + c * x + d * y);
        const grid = patched(ground, survey, { shiftM: 0.1, featherM });
        for (let k = 0; k < 40; k++) {
          const at = [extentOf(grid)[0] + ((k * 37) % 101) / 101 * (grid.ncols * grid.cellM), extentOf(grid)[1] + ((k * 53) % 103) / 103 * (grid.nrows * grid.cellM)] as const;
          const cell = [Math.floor((at[0] - grid.west) / grid.cellM), Math.floor((at[1] - grid.south) / grid.cellM)];
          const middle = [grid.west + (cell[0] + 0.5) * grid.cellM, grid.south + (cell[1] + 0.5) * grid.cellM] as const;
          const known = [levelAt(ground, middle), levelAt(survey, middle) + 0.1].filter((v) => !Number.isNaN(v));
          const found = levelAt(grid, middle);
          expect(Number.isNaN(found)).toBe(known.length === 0);
          if (known.length === 0) continue;
          expect(found).toBeGreaterThanOrEqual(Math.min(...known) - 1e-3);
          expect(found).toBeLessThanOrEqual(Math.max(...known) + 1e-3);
        }
      }),
      { seed: 5, numRuns: 60 },
    );
  }); // prettier-ignore
  it('on far more ground than its cells could cover is laid on larger ones', () => {
    const wide = gridOf({ ncols: 50, nrows: 50, cellM: 20, west: 0, south: 0 }, plane);
    const grid = patched(wide, gridOf({ ncols: 60, nrows: 60, cellM: 1, west: 300, south: 300 }, plane), {
      shiftM: 0,
      featherM: 5,
      mostCells: 40_000,
    });
    expect(grid.ncols * grid.nrows).toBeLessThanOrEqual(40_000);
    expect(grid.cellM).toBe(5);
    expect(levelAt(grid, [330, 330])).toBeCloseTo(plane(330, 330), 2);
  });
});
