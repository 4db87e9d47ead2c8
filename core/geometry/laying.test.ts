// How pictures lie: worked by hand, and against the same fit by elimination.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  type Laying,
  type Pinned,
  type Point,
  cornersOf,
  fromCorner,
  laidAt,
  layingBy,
  layingThrough,
  offsOf,
  pixelAreaM2,
  withFewer,
} from './index.ts';

/** The nearest fit of x = m u - n v + p, y = -(n u + m v) + q by the normal equations of its four unknowns, eliminated. */
function fittedAnew(pins: readonly Pinned[]): [number, number, number, number] {
  const rows = pins.flatMap(({ px: [u, v], at: [x, y] }) => [
    [u, v, 1, 0, x],
    [-v, u, 0, 1, y],
  ]);
  const m = [0, 1, 2, 3].map((i) => [0, 1, 2, 3, 4].map((j) => rows.reduce((sum, r) => sum + r[i] * r[j], 0)));
  for (let k = 0; k < 4; k++) {
    const best = [...m.keys()].slice(k).reduce((a, b) => (Math.abs(m[b][k]) > Math.abs(m[a][k]) ? b : a));
    [m[k], m[best]] = [m[best], m[k]];
    for (let i = 0; i < 4; i++) if (i !== k) m[i] = m[i].map((v, j) => v - (m[i][k] / m[k][k]) * m[k][j]);
  }
  return [0, 1, 2, 3].map((k) => m[k][4] / m[k][k]) as [number, number, number, number];
}

const place = (most: number): fc.Arbitrary<Point> => fc.tuple(fc.double({ min: -most, max: most, noNaN: true }), fc.double({ min: -most, max: most, noNaN: true })); // prettier-ignore
const spread = (pins: readonly Pinned[]): number => Math.max(...pins.flatMap((p) => pins.map((q) => Math.hypot(p.px[0] - q.px[0], p.px[1] - q.px[1])))); // prettier-ignore

describe('a picture pinned by places', () => {
  it('two of them lie exactly: half a metre a pixel, its upper edge to the north', () => {
    const laying = layingBy([
      { px: [0, 0], at: [100, 240] },
      { px: [80, 40], at: [140, 220] },
    ]) as Laying;
    expect(laying.map((v) => Number(v.toFixed(9)))).toEqual([0.5, 0, 100, 0, -0.5, 240]);
    expect(laidAt(laying, [40, 20])).toEqual([120, 230]);
    expect(pixelAreaM2(laying)).toBeCloseTo(0.25, 9);
  });
  it('turned by a right angle: what is right in it lies to the north', () => {
    const laying = layingBy([
      { px: [0, 0], at: [0, 0] },
      { px: [10, 0], at: [0, 20] },
    ]) as Laying;
    // What is below in it lies to the east then.
    expect(laidAt(laying, [0, 10]).map((v) => Number(v.toFixed(9)))).toEqual([20, 0]);
  });
  it('three that cannot be met: each told by how far it is off', () => {
    const pins: Pinned[] = [
      { px: [0, 0], at: [0, 0] },
      { px: [100, 0], at: [100, 0] },
      { px: [0, 100], at: [0, -103] },
    ];
    const laying = layingBy(pins) as Laying;
    const offs = offsOf(laying, pins);
    expect(Math.max(...offs)).toBeGreaterThan(0.5);
    expect(Math.max(...offs)).toBeLessThan(3);
    expect(offsOf(layingThrough([pins[0], pins[1], pins[2]]) as Laying, pins).every((m) => m < 1e-9)).toBe(true);
  });
  it('is the nearest fit, as elimination finds it too', () => {
    const pinned = fc.record({ px: place(4000), at: place(1e5) });
    fc.assert(
      fc.property(fc.array(pinned, { minLength: 2, maxLength: 4 }), (pins) => {
        fc.pre(spread(pins) > 1);
        const laying = layingBy(pins);
        if (!laying) return;
        const [m, n, p, q] = fittedAnew(pins.map(({ px, at }) => ({ px: [px[0], px[1]], at })));
        // Of x = m u + n v + p and y = n u - m v + q, its rows counted downwards.
        const scale = 1e-6 * (1 + Math.hypot(...pins.flatMap(({ at }) => at)));
        for (const {
          px: [u, v],
        } of pins) {
          const [x, y] = laidAt(laying, [u, v]);
          expect(Math.abs(x - (m * u + n * v + p))).toBeLessThan(scale);
          expect(Math.abs(y - (n * u - m * v + q))).toBeLessThan(scale);
        }
      }),
      { seed: 311, numRuns: 300 },
    );
  });
  it('told from a pixel’s middle or its corner, in many pixels or few, lies on the same ground', () => {
    const told: Laying = [3, 4, 103.5, 4, -3, 200.5];
    const laying = fromCorner(told);
    expect(laidAt(laying, [0.5, 0.5])).toEqual(laidAt(told, [0, 0]));
    const fewer = withFewer(laying, [2, 4]);
    const [whole, few] = [cornersOf({ widthPx: 80, heightPx: 40 }), cornersOf({ widthPx: 40, heightPx: 10 })];
    expect(few.map((px) => laidAt(fewer, px))).toEqual(whole.map((px) => laidAt(laying, px)));
  });
  it('is not laid by one place, by one place twice, or by places all at one', () => {
    expect(layingBy([{ px: [1, 1], at: [0, 0] }])).toBeNull();
    expect(layingBy([{ px: [1, 1], at: [0, 0] }, { px: [1, 1], at: [5, 0] }])).toBeNull(); // prettier-ignore
    expect(layingBy([{ px: [1, 1], at: [5, 5] }, { px: [9, 1], at: [5, 5] }])).toBeNull(); // prettier-ignore
    const inLine = [0, 1, 2].map((k): Pinned => ({ px: [k, k], at: [k, 2 * k] }));
    expect(layingThrough([inLine[0], inLine[1], inLine[2]])).toBeNull();
  });
});
