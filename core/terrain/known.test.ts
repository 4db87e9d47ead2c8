// How near the ground is known: against looking at every reading, an elimination of its own, and ground that is known by formula.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type ScatteredPoints, rasterise, triangulate } from '../geometry/index.ts';
import { type Grid, gridFromLevels } from './grid.ts';
import { type SurveyKnown, awayFrom, growthOf, knownAt, knownOver, knownUnder, everyCellRead } from './known.ts';
import { blendsOf } from './patch.ts';

const pointsOf = (list: readonly (readonly [x: number, y: number, z: number])[]): ScatteredPoints => {
  const take = (k: 0 | 1 | 2): Float64Array => Float64Array.from(list, (p) => p[k]);
  return { x: take(0), y: take(1), z: take(2) };
};
/** Numbers between 0 and 1 that are the same each time. */
function chance(seed: number): () => number {
  let s = seed;
  return () => (s = (s * 16807) % 2147483647) / 2147483647;
}

describe('distance to the nearest reading', () => {
  it('is that of the nearest of all, or of one hardly farther', () => {
    const place = fc.tuple(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: 0, max: 40, noNaN: true }));
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 30 }), (places) => {
        const frame = { ncols: 30, nrows: 20, cellM: 2, west: 0, south: 0 };
        const away = awayFrom(pointsOf(places.map(([x, y]) => [x, y, 0])), frame, new Float64Array(600));
        const off = Array.from({ length: 600 }, (_, i) => {
          const [x, y] = [2 * ((i % 30) + 0.5), 2 * (20 - Math.floor(i / 30) - 0.5)];
          return away.z[i] + away.baseM - Math.min(...places.map(([px, py]) => Math.hypot(px - x, py - y)));
        });
        expect(Math.min(...off)).toBeGreaterThan(-1e-4);
        expect(Math.max(...off)).toBeLessThan(0.5);
      }),
      { seed: 5, numRuns: 60 },
    );
  });

  it('is told only where the survey reaches', () => {
    const away = awayFrom(pointsOf([[1, 1, 0]]), { ncols: 2, nrows: 2, cellM: 1, west: 0, south: 0 }, [NaN, 5, 5, 5]);
    expect([...away.z].map((v) => v + away.baseM)).toEqual([
      NaN,
      Math.fround(Math.SQRT1_2),
      Math.fround(Math.SQRT1_2),
      Math.fround(Math.SQRT1_2),
    ]);
  });
});

describe('how much less near ground between readings is known', () => {
  const scattered = (seed: number, level: (x: number, y: number) => number, spanM = 100): ScatteredPoints => {
    const next = chance(seed);
    return pointsOf(Array.from({ length: 400 }, () => [next() * spanM, next() * spanM] as const).map(([x, y]) => [x, y, level(x, y)]));
  };
  const growth = (points: ScatteredPoints): number | null => growthOf(points, triangulate(points));

  it('is nothing on a plane, and the same however steep or high it lies', () => {
    expect(growth(scattered(3, () => 250))).toBeCloseTo(0, 9);
    expect(growth(scattered(3, (x, y) => 900 + 0.2 * x - 0.11 * y))).toBeCloseTo(0, 9);
  });

  it('grows with how wavy the ground is, in proportion to its height', () => {
    const wave = (heightM: number) => growth(scattered(7, (x, y) => heightM * Math.sin(x / 6) * Math.cos(y / 5))) ?? NaN;
    expect(wave(1)).toBeGreaterThan(0.005);
    expect(wave(3)).toBeCloseTo(3 * wave(1), 6);
  });

  it('is half of the median of a chessboard of bumps, by a second reckoning', () => {
    // On a square net of 10 m every reading stands 1 m over or under its four nearest; planes through them are level by symmetry.
    const net = pointsOf(Array.from({ length: 225 }, (_, k) => [10 * (k % 15) + 1e-4 * ((k * 7) % 5), 10 * Math.floor(k / 15) + 1e-4 * ((k * 3) % 7), (k % 15 + Math.floor(k / 15)) % 2] as const)); // prettier-ignore
    const found = growth(net) ?? NaN;
    // Of its neighbours four lie 10 m away on the other level and up to four 14.1 m on its own: weighed by one over the square, 1 : 1/2.
    const least = 1.4826 * (4 / (4 + 0.5 * 4)) / 10; // prettier-ignore
    expect(found).toBeGreaterThan(least - 0.02);
    expect(found).toBeLessThan(1.4826 / 10 + 0.02);
  });

  it('holds two times in three on the surface that is made of the readings, against the ground they were taken from', () => {
    for (const seed of [11, 23, 71]) {
      const level = (x: number, y: number): number => 2 * Math.sin(x / 9 + seed) + 1.5 * Math.cos(y / 7 + x / 20);
      const points = scattered(seed, level);
      const frame = { ncols: 80, nrows: 80, cellM: 1, west: 10, south: 10 };
      const levels = rasterise(points, triangulate(points), { ...frame, x0: 10.5, y0: 89.5, stepM: 1 });
      const away = awayFrom(points, frame, levels);
      const growsBy = growth(points) ?? NaN;
      const isWithin = Array.from(
        levels,
        (z, i) => Math.abs(z - level(10.5 + (i % 80), 89.5 - Math.floor(i / 80))) <= growsBy * (away.z[i] + away.baseM),
      );
      const share = isWithin.filter(Boolean).length / isWithin.length;
      expect(share).toBeGreaterThan(2 / 3);
      expect(share).toBeLessThan(0.97);
    }
  });

  it('is not known of a few readings, nor of readings that tell only of themselves', () => {
    expect(growth(pointsOf([[0, 0, 1], [10, 0, 2], [0, 10, 3], [10, 10, 1], [5, 6, 2]]))).toBeNull(); // prettier-ignore
    const next = chance(5);
    expect(growth(pointsOf(Array.from({ length: 100 }, () => [next(), next(), 500 * next()] as const)))).toBeNull();
  });
});

describe('how near a place is known', () => {
  const frame = { ncols: 10, nrows: 10, cellM: 1, west: 0, south: 0 };
  const away = (m: number, until = 10): SurveyKnown['away'] =>
    gridFromLevels(
      frame,
      Float64Array.from({ length: 100 }, (_, i) => (i % 10 < until ? m : NaN)),
    );
  const survey = (change: Partial<SurveyKnown> = {}): SurveyKnown => ({
    levelsM: 0.03,
    growsBy: 0.01,
    away: away(4),
    blends: null,
    ...change,
  });

  it('is by its readings and how far they lie, the two squared and added', () => {
    expect(knownAt([survey()], [5, 5])).toBeCloseTo(0.05, 6);
    expect(knownAt([survey({ away: null })], [5, 5])).toBe(0.03);
  });
  it('is by the last survey that has a say there', () => {
    const surveys = [survey({ levelsM: 2, away: null }), survey({ away: away(0, 5), levelsM: 0.02 })];
    expect(knownAt(surveys, [2, 5])).toBeCloseTo(0.02, 9);
    expect(knownAt(surveys, [7, 5])).toBe(2);
    expect(knownAt(surveys, [70, 5])).toBe(2);
  });
  it('is unknown where nobody has said, or readings do not tell of what lies between them', () => {
    expect(knownAt([], [5, 5])).toBeNull();
    expect(knownAt([survey({ levelsM: null })], [5, 5])).toBeNull();
    expect(knownAt([survey({ away: null }), survey({ levelsM: null })], [5, 5])).toBeNull();
    expect(knownAt([survey({ growsBy: null, away: away(1) })], [5, 5])).toBe(0.03);
    expect(knownAt([survey({ growsBy: null, away: away(1.01) })], [5, 5])).toBeNull();
  });
  it('where it passes into what lies under it is that of the less known of the two, in either order, and unknown where one is', () => {
    const over = survey({ away: away(0), levelsM: 0.02, blends: blendsOf(away(0) as Grid, 2) });
    const by = (levelsM: number | null) => [0.5, 1.5, 2.5].map((x) => knownAt([survey({ levelsM, away: null }), over], [x, 5.5]));
    // The middles of cells lie 0.5, 1.5 and 2.5 m within its edge.
    expect(by(2)).toEqual([2, 2, 0.02]);
    expect(by(0.001)).toEqual([0.02, 0.02, 0.02]);
    expect(by(null)).toEqual([null, null, 0.02]);
    expect(knownAt([over], [0.5, 5.5])).toBeNull();
  });
  it('under lines is that of the worst place, and unknown where any place is', () => {
    const surveys = [survey({ away: away(0, 5), levelsM: 0.02 })];
    expect(knownUnder([survey({ levelsM: 2, away: null }), ...surveys], [[[1, 5], [8, 5]]], 1)).toBe(2); // prettier-ignore
    expect(knownUnder(surveys, [[[1, 5], [4, 5]]], 1)).toBeCloseTo(0.02, 9); // prettier-ignore
    expect(knownUnder(surveys, [[[1, 5], [8, 5]]], 1)).toBeNull(); // prettier-ignore
    expect(knownUnder(surveys, [[[1, 5]]], 1)).toBeCloseTo(0.02, 9);
    expect(knownUnder(surveys, [], 1)).toBeNull();
  });
  it('of a survey whose every cell is a reading is told where it reaches', () => {
    const reach = everyCellRead(gridFromLevels({ ...frame, ncols: 2, nrows: 1 }, [205, NaN]));
    expect([reach.baseM, ...reach.z]).toEqual([0, 0, NaN]);
    expect([[0.5, 0.5], [1.5, 0.5]].map(([x, y]) => knownAt([survey({ growsBy: null, away: reach })], [x, y]))).toEqual([0.03, null]); // prettier-ignore
  });
  it('over the ground is told where there is ground', () => {
    const ground = gridFromLevels({ ...frame, ncols: 2, nrows: 1 }, [5, NaN]);
    expect([...knownOver([survey({ away: null })], ground)]).toEqual([Math.fround(0.03), NaN]);
  });
});
