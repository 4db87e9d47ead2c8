import { describe, expect, it } from '@jest/globals';
import { edgeCells, firstInterceptor, interceptorCells, slopesOf } from '../terrain/index.ts';
import { modelOf, plane } from '../testing/grids.ts';
import {
  DELIVERY,
  ERODIBILITY,
  LONGEST_SLOPE_M,
  RAIN_EROSIVITY,
  RUSLE_LENGTH,
  RUSLE_STEEPNESS,
  SOIL_LOSS,
  USLE_TERRAIN,
  contourPractice,
  type TerrainFactors,
  terrainFactor,
  terrainFactors,
} from './index.ts';

const FT = 0.3048;
const factor = (λ: number, S: number): number => RUSLE_LENGTH.evaluate({ λ, S }) * RUSLE_STEEPNESS.evaluate({ s: S });

describe('factors of soil loss', () => {
  it.each([
    [2, 0.201],
    [4, 0.4],
    [6, 0.673],
    [8, 0.992],
    [10, 1.37],
    [12, 1.8],
    [16, 2.84],
    [20, 4.08],
  ])('100 ft at %d %%: LS %d (AH-537 Table 3; handbook row 134, P)', (percent, LS) => {
    expect(Math.abs(USLE_TERRAIN.evaluate({ λ: 100 * FT, S: percent / 100 }) - LS)).toBeLessThan(0.005);
  });
  it('200 ft at 8 %: 1.41, by its equation 1.40 (AH-537 Table 3; row 135, P)', () => {
    expect(Math.abs(USLE_TERRAIN.evaluate({ λ: 200 * FT, S: 0.08 }) - 1.41)).toBeLessThan(0.01);
  });
  it('50 m at 10 %: 1.79 revised, 1.75 of the older; 26.8 t/ha/yr (handbook 5.10, row 137, C)', () => {
    const LS = factor(50, 0.1);
    expect(Math.abs(LS - 1.79)).toBeLessThan(0.005);
    expect(Math.abs(USLE_TERRAIN.evaluate({ λ: 50, S: 0.1 }) - 1.75)).toBeLessThan(0.005);
    expect(Math.abs(SOIL_LOSS.evaluate({ R: 5000, K: 0.03, LS, C: 0.2, P: 0.5 }) - 26.8)).toBeLessThan(0.1);
  });
  it('rain of 600 and 1000 mm: 1435 and 3474 (Renard & Freimund 1994; row 138, C), without a jump between its two laws', () => {
    expect(Math.abs(RAIN_EROSIVITY.evaluate({ P: 600 }) - 1435)).toBeLessThan(2);
    expect(Math.abs(RAIN_EROSIVITY.evaluate({ P: 1000 }) - 3474)).toBeLessThan(2);
    expect(Math.abs(RAIN_EROSIVITY.evaluate({ P: 850 }) / RAIN_EROSIVITY.evaluate({ P: 849.999 }) - 1)).toBeLessThan(0.02);
  });
  it('silt is worn off most, more clay and humus hold it', () => {
    const K = (silt: number, clay: number, OM: number): number => ERODIBILITY.evaluate({ silt, clay, OM, s: 2, p: 3 });
    expect(K(60, 15, 2)).toBeGreaterThan(K(30, 15, 2));
    expect(K(60, 15, 4)).toBeLessThan(K(60, 15, 1));
    expect(K(60, 40, 2)).toBeLessThan(K(60, 15, 2));
  });
  it('work on the contour helps most at 3 to 8 %, and beyond 25 % not at all', () => {
    expect([0.01, 0.05, 0.1, 0.22, 0.3].map(contourPractice)).toEqual([0.6, 0.5, 0.6, 0.9, 1]);
  });
  it('a smaller catchment delivers more of what it loses, never more than all', () => {
    expect(DELIVERY.evaluate({ A: 0.1 })).toBeGreaterThan(DELIVERY.evaluate({ A: 1 }));
    expect(DELIVERY.evaluate({ A: 1e-6 })).toBe(1);
  });
});

describe('terrain factor of a grid', () => {
  const factorOf = (slope: number, degrees: number, lines: [number, number][][] = []): { ls: Float32Array; cells: number } => {
    const grid = plane(slope, degrees, { cells: 51, cellM: 2 });
    const { flow, filled } = modelOf(grid);
    const owner = lines.length > 0 ? interceptorCells(grid, lines) : null;
    if (owner) expect(firstInterceptor(flow, owner).some((v) => v > 0)).toBe(true);
    return { ls: terrainFactor({ grid, filled, flow, slopes: slopesOf(grid, edgeCells(grid)), stops: owner }), cells: 51 };
  };
  const column = (ls: Float32Array, rows: readonly number[]): number => rows.reduce((a, r) => a + ls[r * 51 + 25], 0) / rows.length;
  const range = (from: number, to: number): number[] => Array.from({ length: to - from }, (_, k) => from + k);
  it.each([0.05, 0.1, 0.25])('down a plane of %d its mean is that of one slope of the same length', (slope) => {
    // Falling south: row 0 is the top, and 51 cells of 2 m are 102 m.
    const { ls } = factorOf(slope, -90);
    expect(column(ls, range(0, 51)) / factor(102, slope)).toBeCloseTo(1, 3);
    expect(column(ls, range(0, 20)) / factor(40, slope)).toBeCloseTo(1, 3);
  });
  it('wears an even slope evenly whichever way it faces', () => {
    const { ls } = factorOf(0.1, -67);
    // Well inside, cells at one distance from the top: along a row nearly across the fall.
    const along = range(20, 31).map((c) => ls[25 * 51 + c]);
    expect(Math.max(...along) / Math.min(...along)).toBeLessThan(1.12);
  });
  it('starts anew below a line that catches water', () => {
    const whole = factorOf(0.1, -90).ls;
    const cut = factorOf(0.1, -90, [
      [
        [0, 51],
        [102, 51],
      ],
    ]).ls;
    const below = range(30, 51);
    expect(column(cut, below)).toBeLessThan(0.8 * column(whole, below));
    expect(column(cut, range(0, 20))).toBe(column(whole, range(0, 20)));
  });
  it('is the same from nothing and from what it was with the line elsewhere', () => {
    const grid = plane(0.12, -70, { cells: 51, cellM: 2 });
    const { flow, filled } = modelOf(grid);
    const at = (y: number): TerrainFactors['factor' | 'area'][] => {
      const stops = interceptorCells(grid, [[[10, y], [80, y + 4]]]); // prettier-ignore
      const on = { grid, filled, flow, slopes: slopesOf(grid, edgeCells(grid)), stops };
      const fresh = terrainFactors(on);
      const kept = last && { factor: last.factor.slice(), area: last.area.slice() };
      const now = terrainFactors(on, last);
      // What it went on from stays what it was.
      expect(last).toEqual(kept);
      last = now;
      expect(now).toEqual(fresh);
      return [now.factor, now.area];
    };
    let last: TerrainFactors | null = null;
    const [first] = at(60);
    const [second] = at(57);
    expect(second).not.toEqual(first);
    expect(at(60)[0]).toEqual(first);
  });
  it('goes on no longer than water stays a sheet, however far it comes', () => {
    const grid = plane(0.1, -90, { cells: 151, cellM: 2 });
    const { flow, filled } = modelOf(grid);
    const ls = terrainFactor({ grid, filled, flow, slopes: slopesOf(grid, edgeCells(grid)), stops: null });
    const at = (m: number): number => ls[Math.floor(m / 2) * 151 + 75];
    expect(at(290)).toBeCloseTo(at(LONGEST_SLOPE_M + 4), 4);
    expect(at(LONGEST_SLOPE_M - 4)).toBeLessThan(at(LONGEST_SLOPE_M + 4));
  });
});
