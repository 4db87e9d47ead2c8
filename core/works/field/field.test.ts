// Rows along the contour over an area.
import { describe, expect, it } from '@jest/globals';
import { type Line, contains, lineLength, nearestOnLine } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { inside, rowsOver, riseAcross } from './index.ts';

const BOX: Line = [[20, 20], [80, 20], [80, 80], [20, 80]]; // prettier-ignore
const PLANE = gridOf((x, y) => 100 + 0.04 * y + 0.01 * x, { cells: 101, cellM: 1 });
/** A hillside that bends about a spur, its slope growing downhill. */
const BENT = gridOf((x, y) => 100 + 0.02 * y + 0.0006 * y * y - 0.001 * (x - 50) ** 2, { cells: 101, cellM: 1 });

describe('rows over an area', () => {
  it('on a plane lie as far apart as they were asked to, half a space below its top', () => {
    const rows = rowsOver(BOX, PLANE, { apart: () => 10 });
    const fall = Math.hypot(0.04, 0.01);
    expect(rows.length).toBeGreaterThan(4);
    for (let k = 1; k < rows.length; k++) expect((rows[k - 1].levelM - rows[k].levelM) / fall).toBeCloseTo(10, 1);
    expect((levelAt(PLANE, [79.5, 79.5]) - rows[0].levelM) / fall).toBeCloseTo(5, 0);
    for (const { slope } of rows) expect(slope).toBeCloseTo(fall, 4);
  });
  it('are level, inside, and none is a scrap', () => {
    for (const grid of [PLANE, BENT])
      for (const { line, levelM } of rowsOver(BOX, grid, { apart: () => 8 })) {
        expect(lineLength(line)).toBeGreaterThanOrEqual(6);
        // Downhill is on the right of each.
        expect(riseAcross(line, grid)).toBeLessThan(0);
        for (const p of line) {
          expect(Math.abs(levelAt(grid, p) - levelM)).toBeLessThan(0.03);
          expect(p[0]).toBeGreaterThan(19.9);
          expect(p[1]).toBeLessThan(80.1);
        }
      }
  });
  it('come closer as the ground steepens, where the space asked for does', () => {
    const rows = rowsOver(BOX, BENT, { apart: (slope) => 0.5 / slope });
    const levels = [...new Set(rows.map((r) => r.levelM))];
    for (let k = 2; k < levels.length; k++) expect(levels[k - 1] - levels[k]).toBeCloseTo(0.5, 2);
  });
  it('where contours run together the lower is left out, so that what stands on rows does not meet', () => {
    // A slope that steepens fourfold to one side: its contours fan out.
    const fan = gridOf((x, y) => 100 + (0.02 + 0.0012 * x) * y, { cells: 101, cellM: 1 });
    const near = (leastM: number): number => {
      const rows = rowsOver(BOX, fan, { apart: () => 6, leastM });
      return Math.min(
        ...rows.flatMap((r, k) =>
          rows.slice(k + 1).flatMap((o) => (o.levelM === r.levelM ? [] : r.line.map((p) => nearestOnLine(p, o.line).distanceM))),
        ),
      );
    };
    expect(near(0)).toBeLessThan(5);
    expect(near(5.5)).toBeGreaterThan(5.2);
  });
  it('are none on flat or unknown ground', () => {
    expect(
      rowsOver(
        BOX,
        gridOf(() => 5, { cells: 101, cellM: 1 }),
        { apart: () => 10 },
      ),
    ).toEqual([]);
    expect(
      rowsOver(
        BOX,
        gridOf(() => NaN, { cells: 101, cellM: 1 }),
        { apart: () => 10 },
      ),
    ).toEqual([]);
  });
  it('a line is cut to what lies inside a ring, however often it leaves it', () => {
    const horseshoe: Line = [[0, 0], [60, 0], [60, 50], [40, 50], [40, 20], [20, 20], [20, 50], [0, 50]]; // prettier-ignore
    const parts = inside([[-10, 40], [70, 40]], horseshoe); // prettier-ignore
    expect(parts.map((p) => lineLength(p))).toEqual([20, 20]);
    for (const part of parts) expect(contains(horseshoe, [(part[0][0] + part[1][0]) / 2, 40])).toBe(true);
    expect(riseAcross([[30, 30], [60, 30]], gridOf(() => NaN, { cells: 101, cellM: 1 }))).toBeNull(); // prettier-ignore
  });
});
