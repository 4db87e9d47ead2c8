import { describe, expect, it } from '@jest/globals';
import { type Grid, SMOOTHINGS, type Smoothing, gridFromLevels, noiseOf, smoothed } from './index.ts';

/** Evenly spread between -1 and 1, by a seed. */
function random(seed: number): () => number {
  let a = seed;
  return () => {
    a = (Math.imul(a, 1664525) + 1013904223) >>> 0;
    return a / 2 ** 31 - 1;
  };
}
/** Of a normal spread, near enough: twelve even ones less their mean. */
const normal = (next: () => number) => (): number => Array.from({ length: 12 }, next).reduce((a, v) => a + v, 0) / 2;

const N = 80;
const gridOf = (law: (x: number, y: number) => number): Grid =>
  gridFromLevels({ ncols: N, nrows: N, cellM: 1, west: 0, south: 0 }, Float64Array.from({ length: N * N }, (_, i) => law(i % N, N - 1 - Math.floor(i / N)))); // prettier-ignore
const plane = (x: number, y: number): number => 50 + 0.08 * x - 0.05 * y;
const noisy = (law: (x: number, y: number) => number, sigmaM: number): Grid => {
  const next = normal(random(9));
  return gridOf((x, y) => law(x, y) + sigmaM * next());
};
const HOWS = Object.keys(SMOOTHINGS) as Smoothing[];
const levelIn = ({ z, baseM }: Grid, x: number, y: number): number => z[(N - 1 - y) * N + x] + baseM;
/** Root of the mean square off a law, the rim left out. */
const off = (grid: Grid, law: (x: number, y: number) => number): number => {
  let [sum, count] = [0, 0];
  for (let x = 4; x < N - 4; x++) for (let y = 4; y < N - 4; y++, count++) sum += (levelIn(grid, x, y) - law(x, y)) ** 2;
  return Math.sqrt(sum / count);
};

describe('the noise of a ground', () => {
  it('is that put into it, whatever its slope, and nothing on a plane', () => {
    for (const sigmaM of [0.02, 0.1]) expect(noiseOf(noisy(plane, sigmaM))).toBeCloseTo(sigmaM, sigmaM > 0.05 ? 2 : 3);
    expect(noiseOf(gridOf(plane))).toBeLessThan(1e-4);
    expect(noiseOf(gridFromLevels({ ncols: 3, nrows: 3, cellM: 1, west: 0, south: 0 }, new Float64Array(9)))).toBeNull();
  });
});

describe('ground that is smoothed', () => {
  it('comes nearer to the ground under its noise the stronger it is, and no level moves by more than is told', () => {
    const grid = noisy(plane, 0.05);
    const before = off(grid, plane);
    const after = HOWS.map((how) => smoothed(grid, how)!);
    const offs = after.map(({ grid: made }) => off(made, plane));
    expect(offs[0]).toBeLessThan(0.6 * before);
    expect(offs[1]).toBeLessThan(offs[0]);
    expect(offs[2]).toBeLessThan(offs[1]);
    expect(offs[2]).toBeLessThan(0.35 * before);
    after.forEach(({ movedM, beforeM, afterM, grid: made }, k) => {
      expect(beforeM).toBeCloseTo(0.05, 2);
      expect(afterM).toBeLessThan(beforeM / 2);
      expect(movedM).toBeLessThanOrEqual(SMOOTHINGS[HOWS[k]].most * beforeM + 1e-6);
      const moves = Array.from(made.z, (v, i) => Math.abs(v + made.baseM - grid.z[i] - grid.baseM));
      expect(Math.max(...moves)).toBeCloseTo(movedM, 4);
    });
  });
  it('keeps a bank, and the floor of a ditch', () => {
    const bank = (x: number, y: number): number => plane(x, y) + (x >= 40 ? 1.2 : 0);
    const ditch = (x: number, y: number): number => plane(x, y) - (Math.abs(x - 40) <= 2 ? 0.6 : 0);
    for (const how of HOWS) {
      const made = smoothed(noisy(bank, 0.03), how)!.grid;
      const step = Array.from({ length: 40 }, (_, k) => levelIn(made, 42, 20 + k) - levelIn(made, 37, 20 + k) - 5 * 0.08);
      expect(step.reduce((a, v) => a + v, 0) / 40).toBeCloseTo(1.2, 1);
      const floor = smoothed(noisy(ditch, 0.03), how)!.grid;
      const deep = Array.from({ length: 40 }, (_, k) => plane(40, 20 + k) - levelIn(floor, 40, 20 + k));
      expect(deep.reduce((a, v) => a + v, 0) / 40).toBeGreaterThan(0.5);
    }
  });
  it('is the same where there is no noise, and knows no more than before', () => {
    const flat = smoothed(gridOf(plane), 'strong')!;
    expect(flat.movedM).toBeLessThan(1e-3);
    const holed = gridOf((x, y) => (x > 30 && x < 36 && y > 30 && y < 40 ? NaN : plane(x, y)));
    const made = smoothed(holed, 'medium')!.grid;
    holed.z.forEach((v, i) => expect(Number.isNaN(made.z[i])).toBe(Number.isNaN(v)));
    expect(off({ ...made, z: made.z.map((v, i) => (Number.isNaN(v) ? gridOf(plane).z[i] + gridOf(plane).baseM - made.baseM : v)) }, plane)).toBeLessThan(0.02);
  }); // prettier-ignore
});
