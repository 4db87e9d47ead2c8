import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { MAX_CELLS } from '#core/terrain';
import { canComeIn, cellsIn, moved, partAtFirst, partBetween, sharesOf, sizeM, type Seen } from './part.ts';

const WIDE: Seen = { cells: { ncols: 10_000, nrows: 5000, x0: 1000.5, y0: 6999.5, dx: 1, dy: 1 }, metresPer: [1, 1] };
const ALL = { west: 1000, south: 2000, east: 11_000, north: 7000 };
const small = (ncols: number, nrows: number): Seen => ({ ...WIDE, cells: { ...WIDE.cells, ncols, nrows } });
const share = fc.tuple(fc.double({ min: -0.2, max: 1.2, noNaN: true }), fc.double({ min: -0.2, max: 1.2, noNaN: true }));

describe('a part of an overview', () => {
  it('is as large as can come in at first, in the middle, and never all of what is too much', () => {
    const part = partAtFirst(WIDE);
    expect(canComeIn(WIDE, part)).toBe(true);
    expect(cellsIn(WIDE, part)).toBeGreaterThan(0.95 * MAX_CELLS);
    expect([(part.west + part.east) / 2, (part.south + part.north) / 2]).toEqual([6000, 4500]);
    // What has few enough cells as it lies may have too many laid flat.
    expect(cellsIn(small(100, 60), partAtFirst(small(100, 60)))).toBe(90 * 54);
    expect(canComeIn(WIDE, ALL)).toBe(false);
    expect(cellsIn(WIDE, ALL)).toBe(50_000_000);
  });
  it('can come in from two by two cells to the most there may be', () => {
    const of = (ncols: number, nrows: number): boolean => canComeIn(WIDE, { ...ALL, east: 1000 + ncols, south: 7000 - nrows });
    expect([of(2, 2), of(1, 4), of(4, 1), of(4000, 4000), of(4001, 4000), of(4000, 4001)]).toEqual([
      true,
      false,
      false,
      true,
      false,
      false,
    ]);
    // An edge beyond the other is no part.
    expect(canComeIn(WIDE, { ...ALL, east: 500 })).toBe(false);
  });
  it('lies between two places whichever is first, within the picture, and is found on it again', () => {
    expect(partBetween(WIDE, [0.5, 0.2], [0.1, 0.6])).toEqual({ west: 2000, east: 6000, north: 6000, south: 4000 });
    fc.assert(
      fc.property(share, share, (a, b) => {
        const part = partBetween(WIDE, a, b);
        expect(part).toEqual(partBetween(WIDE, b, a));
        const { west, south, east, north } = ALL;
        expect(part.west >= west && part.east <= east && part.south >= south && part.north <= north && part.west <= part.east).toBe(true);
        const [[x1, y1], [x2, y2]] = sharesOf(WIDE, part);
        const back = partBetween(WIDE, [x1, y1], [x2, y2]);
        for (const edge of ['west', 'south', 'east', 'north'] as const) expect(back[edge]).toBeCloseTo(part[edge], 6);
      }),
      { seed: 5, numRuns: 200 },
    );
  });
  it('keeps its size when it is moved, and stays within the picture', () => {
    fc.assert(
      fc.property(share, share, share, (a, b, by) => {
        const part = partBetween(WIDE, a, b);
        const then = moved(WIDE, part, by);
        expect(then.east - then.west).toBeCloseTo(part.east - part.west, 6);
        expect(then.north - then.south).toBeCloseTo(part.north - part.south, 6);
        expect(then.west).toBeGreaterThanOrEqual(ALL.west - 1e-6);
        expect(then.north).toBeLessThanOrEqual(ALL.north + 1e-6);
      }),
      { seed: 6, numRuns: 200 },
    );
    expect(moved(WIDE, partBetween(WIDE, [0.2, 0.2], [0.4, 0.4]), [0.1, 0]).west).toBeCloseTo(4000, 6);
  });
  it('is measured on the ground by what its units are there', () => {
    expect(sizeM({ ...WIDE, metresPer: [55_660, 111_320] }, { west: 20, south: 59.5, east: 21, north: 60.5 })).toEqual([55_660, 111_320]);
    expect(sizeM(WIDE, ALL)).toEqual([10_000, 5000]);
  });
});
