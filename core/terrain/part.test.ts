import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Cells, MAX_CELLS, cellsWithin, extentOfCells, isTerrain } from './index.ts';

describe('a part of cells', () => {
  it('holds those whose middles lie in it: counted one by one', () => {
    const cells = fc.record({ ncols: fc.integer({ min: 2, max: 9 }), nrows: fc.integer({ min: 2, max: 9 }), dx: fc.constantFrom(1, 2.5, 0.001), dy: fc.constantFrom(1, 4) }); // prettier-ignore
    const edge = fc.double({ min: -3, max: 12, noNaN: true });
    fc.assert(
      fc.property(cells, fc.tuple(edge, edge, edge, edge), (of, [a, b, c, d]) => {
        const all: Cells = { ...of, x0: 500, y0: 800 };
        const { west, north } = extentOfCells(all);
        const [x1, x2] = [west + Math.min(a, b) * of.dx, west + Math.max(a, b) * of.dx];
        const [y1, y2] = [north - Math.max(c, d) * of.dy, north - Math.min(c, d) * of.dy];
        const cols = Array.from({ length: of.ncols }, (_, k) => 500 + k * of.dx).filter((x) => x >= x1 && x <= x2);
        const rows = Array.from({ length: of.nrows }, (_, k) => 800 - k * of.dy).filter((y) => y >= y1 && y <= y2);
        const found = cellsWithin(all, { west: x1, east: x2, south: y1, north: y2 });
        expect([found.cells.ncols, found.cells.nrows]).toEqual([cols.length, rows.length]);
        if (cols.length > 0) expect(found.cells.x0).toBeCloseTo(cols[0], 9);
        if (rows.length > 0) expect(found.cells.y0).toBeCloseTo(rows[0], 9);
      }),
      { seed: 8, numRuns: 500 },
    );
  });
  it('holds all of them within what they cover, and none where an edge is no number', () => {
    const all: Cells = { ncols: 10, nrows: 5, x0: 5, y0: 95, dx: 10, dy: 10 };
    expect(extentOfCells(all)).toEqual({ west: 0, south: 50, east: 100, north: 100 });
    expect(cellsWithin(all, extentOfCells(all))).toEqual({ col: 0, row: 0, cells: all });
    expect(isTerrain(cellsWithin(all, { ...extentOfCells(all), east: NaN }).cells)).toBe(false);
  });
  it('is terrain from two by two cells to the most there may be, and neither less nor more', () => {
    const side = Math.sqrt(MAX_CELLS);
    const sizes = [[2, 2], [1, 4], [4, 1], [side, side], [side, side + 1], [2, MAX_CELLS / 2], [2, MAX_CELLS / 2 + 1]] as const; // prettier-ignore
    expect(sizes.map(([ncols, nrows]) => isTerrain({ ncols, nrows }))).toEqual([true, false, false, true, false, true, false]);
  });
});
