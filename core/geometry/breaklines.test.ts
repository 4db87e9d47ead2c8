// A surface along the lines it breaks at, and cut to where it was read.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type ScatteredPoints, alongBreaklines, contains, cutTo, rasterise, triangulate } from './index.ts';

const pointsOf = (list: readonly (readonly [number, number, number])[]): ScatteredPoints => {
  const [x, y, z] = [0, 1, 2].map((member) => Float64Array.from(list, (p) => p[member]));
  return { x, y, z };
};

/** Whether a side is one of the triangles, by its two ends. */
function isSide(triangles: Uint32Array, a: number, b: number): boolean {
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [...triangles.subarray(t, t + 3)];
    if (corners.includes(a) && corners.includes(b)) return true;
  }
  return false;
}

/** All sides a line is made of once places were put along it: its own points in the order they lie in. */
function sidesAlong({ x, y }: ScatteredPoints, a: number, b: number): (readonly [number, number])[] {
  const [dx, dy] = [x[b] - x[a], y[b] - y[a]];
  const share = (k: number): number => ((x[k] - x[a]) * dx + (y[k] - y[a]) * dy) / (dx * dx + dy * dy);
  const on = Array.from(x, (_, k) => k)
    .filter((k) => Math.abs((x[k] - x[a]) * dy - (y[k] - y[a]) * dx) < 1e-9 * (dx * dx + dy * dy) && share(k) > -1e-12 && share(k) < 1 + 1e-12)
    .sort((p, q) => share(p) - share(q));
  return on.slice(1).map((k, i) => [on[i], k] as const);
} // prettier-ignore

describe('a surface along breaklines', () => {
  // A ditch of a V from west to east: banks at y 0 and 20 a metre above its bed at y 10, read at five places along the bed and, closer, along banks.
  const bed = [0, 25, 50, 75, 100].map((x) => [x, 10, 9] as const);
  const banks = Array.from({ length: 41 }, (_, k) => [2.5 * k, 20 * (k % 2), 10] as const);
  const near = Array.from({ length: 20 }, (_, k) => [5 * k + 2.5, k % 2 === 0 ? 8 : 12, 9.2] as const);
  const read = pointsOf([...bed, ...banks, ...near]);
  const frame = { ncols: 90, nrows: 1, x0: 5, y0: 10, stepM: 1 };
  const along = (points: ScatteredPoints): Float64Array => rasterise(points, triangulate(points), frame);

  it('runs down the bed of a ditch, which triangles between nearest points alone would dam', () => {
    const dammed = along(read);
    expect(Math.max(...dammed)).toBeGreaterThan(9.1);
    const lined = alongBreaklines(read, [[0, 1, 2, 3, 4]], 0.1);
    expect([...along(lined)].every((level) => Math.abs(level - 9) < 1e-9)).toBe(true);
    // Points that were read come first and stay as they were.
    expect([...lined.z.subarray(0, read.z.length)]).toEqual([...read.z]);
  });

  it('puts nothing where nearest points already follow the line, and stops where two cross', () => {
    const plain = pointsOf([[0, 0, 1], [10, 0, 1], [20, 0, 1], [5, 30, 2], [15, 30, 2]]); // prettier-ignore
    expect(alongBreaklines(plain, [[0, 1, 2]], 0.1).x).toHaveLength(5);
    // prettier-ignore
    const crossed = pointsOf([[0, 0, 0], [10, 10, 0], [2, 7, 5], [8, 3, 5]]);
    // prettier-ignore
    const put = alongBreaklines(crossed, [[0, 1], [2, 3]], 0.5).x.length - 4;
    expect(put).toBeGreaterThan(0);
    expect(put).toBeLessThan(80);
  });

  it('property: every line that crosses no other is made of sides of the triangles, straight in level between its ends', () => {
    const place = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 50 }));
    fc.assert(
      fc.property(fc.uniqueArray(place, { minLength: 6, maxLength: 60, selector: ([x, y]) => `${x},${y}` }), fc.nat(400), (list, at) => {
        // Two parallel lines through the points, so that they cross nowhere.
        const ends = [[-50, at, 3], [450, at + 40, 7], [-50, at + 5.5, 8], [450, at + 45.5, 1]] as const; // prettier-ignore
        const points = pointsOf([...ends, ...list]);
        const made = alongBreaklines(points, [[0, 1], [2, 3]], 1e-3); // prettier-ignore
        const triangles = triangulate(made);
        const sides = [sidesAlong(made, 0, 1), sidesAlong(made, 2, 3)];
        expect(sides.flat().every(([a, b]) => isSide(triangles, a, b))).toBe(true);
        // A place that was put has the level between the line's ends; one that was read keeps its own.
        for (let k = points.x.length; k < made.x.length; k++) {
          const share = (made.x[k] + 50) / 500;
          const straight = [3 + 4 * share, 8 - 7 * share].map((level) => Math.abs(made.z[k] - level));
          const through = list.some(([x, y]) => [at, at + 5.5].some((from) => Math.abs(y - from - (40 * (x + 50)) / 500) < 1e-3));
          if (!through) expect(Math.min(...straight)).toBeLessThan(1e-9);
        }
      }),
      { numRuns: 150, seed: 7 },
    );
  });
});

describe('a surface cut to its edge', () => {
  it('property: keeps a cell where its middle lies in the ring, as asked of each by itself, and tells how many it lost', () => {
    const corner = fc.tuple(fc.double({ min: -3, max: 33, noNaN: true }), fc.double({ min: -3, max: 23, noNaN: true }));
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 12 }), fc.array(corner, { minLength: 3, maxLength: 5 }), (ring, other) => {
        const frame = { ncols: 30, nrows: 20, x0: 0.5, y0: 19.5, stepM: 1 };
        const levels = Float64Array.from({ length: 600 }, (_, k) => (k % 7 === 0 ? NaN : 5));
        const before = levels.filter((v) => !Number.isNaN(v)).length;
        const cut = cutTo(levels, frame, [ring, other]);
        expect(levels.filter((v) => !Number.isNaN(v))).toHaveLength(before - cut);
        const isIn = (k: number): boolean => {
          const at = [0.5 + (k % 30), 19.5 - Math.floor(k / 30)] as const;
          return contains(ring, at) !== contains(other, at);
        };
        expect([...levels].findIndex((level, k) => Number.isNaN(level) === (k % 7 !== 0 && isIn(k)))).toBe(-1);
      }),
      { numRuns: 100, seed: 11 },
    );
  });
});
