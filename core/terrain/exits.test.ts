import { describe, expect, it } from '@jest/globals';
import { gridOf, modelOf, plane } from '../testing/grids.ts';
import { NO_GROUND, cellAt, centreOf, exitsOf, flowPath, nearestExit, upstreamOf } from './index.ts';

const SIZE = { cells: 60, cellM: 2 };
/** A property in the middle of the map. */
function inside(grid: ReturnType<typeof plane>, [from, to]: readonly [number, number]): Uint8Array {
  return Uint8Array.from(grid.z, (_, i) => {
    const [x, y] = centreOf(grid, i);
    return x > from && x < to && y > from && y < to ? 1 : 0;
  });
}

describe('where water leaves', () => {
  it('a valley leaves at one place, with all its ground', () => {
    const grid = gridOf((x, y) => 100 + 0.05 * y + 0.1 * Math.abs(x - 60), SIZE);
    const { flow } = modelOf(grid);
    const exits = exitsOf(grid, flow, inside(grid, [20, 100]));
    expect(exits[0].isPlace).toBe(true);
    expect(Math.abs(exits[0].at[0] - 60)).toBeLessThan(3);
    expect(Math.abs(exits[0].at[1] - 21)).toBeLessThan(2);
    const set = upstreamOf(flow, exits[0].cells);
    expect(exits[0].areaM2).toBe(set.members.length * 4);
  });
  it('a plane leaves along its whole line: no single place is told', () => {
    const grid = plane(0.1, -90, SIZE);
    const exits = exitsOf(grid, modelOf(grid).flow, inside(grid, [20, 100]));
    expect(exits).toHaveLength(1);
    expect(exits[0].isPlace).toBe(false);
    // What comes from above the property leaves through it too: 40 columns of 50 rows.
    expect(exits[0].areaM2).toBe(40 * 50 * 4);
  });
  it.each([33, 200, 275])('every drop inside is told once, on a slope falling to %d degrees and on rough ground', (degrees) => {
    const smooth = plane(0.08, degrees, SIZE);
    const rough = gridOf((x, y) => 100 + 0.04 * y + Math.sin(x / 7) * Math.cos(y / 9), SIZE);
    for (const grid of [smooth, rough]) {
      const { flow } = modelOf(grid);
      const mine = inside(grid, [20, 100]);
      const exits = exitsOf(grid, flow, mine);
      const seen = new Uint8Array(mine.length);
      for (const { cells } of exits) {
        const { members } = upstreamOf(flow, cells);
        for (const i of members) {
          expect(seen[i]).toBe(0);
          seen[i] = 1;
        }
      }
      for (let i = 0; i < mine.length; i++) if (mine[i] === 1 && flow.receiver[i] !== NO_GROUND) expect(seen[i]).toBe(1);
    }
  });
  it('water that crosses the line and comes back has not left', () => {
    const grid = gridOf((x, y) => 100 + 0.05 * y + 0.2 * Math.abs(x - 60), SIZE);
    const { flow } = modelOf(grid);
    const notched = inside(grid, [20, 100]).map((v, i) => {
      const [, y] = centreOf(grid, i);
      return y > 55 && y < 65 ? 0 : v;
    });
    const exits = exitsOf(grid, flow, notched);
    expect(exits.filter((e) => e.isPlace && Math.abs(e.at[0] - 60) < 3).map((e) => Math.round(e.at[1]))).toEqual([21]);
    expect(nearestExit(grid, exits, [61, 10])).toBe(0);
    expect(nearestExit(grid, [], [61, 10])).toBe(-1);
  });
});

describe('the way down', () => {
  it('is as long as the slope and falls all the way', () => {
    const grid = plane(0.1, -90, SIZE);
    const { flow } = modelOf(grid);
    const path = flowPath({ grid, flow }, [60, 119], () => true);
    expect(path.cells[0]).toBe(cellAt(grid, [60, 119]));
    expect(path.atM[path.atM.length - 1]).toBeCloseTo(118, 6);
    path.levelM.forEach((z, k) => expect(k === 0 || z < path.levelM[k - 1]).toBe(true));
    expect(flowPath({ grid, flow }, [60, 119], (cell) => grid.z[cell] + grid.baseM > 505).cells.length).toBeLessThan(path.cells.length);
  });
});
