import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  type Line,
  type Point,
  closed,
  contains,
  crossing,
  crossingsAlong,
  distance,
  distanceToRing,
  evenlyAlong,
  lineLength,
  middleOf,
  nearestBetween,
  nearestOnLine,
  pointAlong,
  rasterise,
  signedArea,
  simplify,
  subLine,
  triangulate,
} from './index.ts';

const coordinate = fc.double({ min: -200, max: 200, noNaN: true });
const point = fc.tuple(coordinate, coordinate) as fc.Arbitrary<Point>;
const lines = fc.array(point, { minLength: 2, maxLength: 8 }).filter((line) => lineLength(line) > 1) as fc.Arbitrary<Line>;
/** Star-shaped rings about the origin: simple whatever the radii are. */
const rings = fc
  .array(fc.double({ min: 5, max: 100, noNaN: true }), { minLength: 3, maxLength: 12 })
  .map((radii) =>
    radii.map((r, i): Point => [r * Math.cos((2 * Math.PI * i) / radii.length), r * Math.sin((2 * Math.PI * i) / radii.length)]),
  );
const along = (line: Line, count: number): Point[] =>
  Array.from({ length: count + 1 }, (_, i) => pointAlong(line, (lineLength(line) * i) / count).point);

describe('lines', () => {
  it('are walked at their own length, and no further than their ends', () => {
    fc.assert(
      fc.property(lines, fc.double({ min: 0, max: 1, noNaN: true }), (line, share) => {
        const atM = share * lineLength(line);
        const { point: p, direction } = pointAlong(line, atM);
        expect(nearestOnLine(p, line).distanceM).toBeLessThan(1e-9);
        expect(lineLength(subLine(line, 0, atM))).toBeCloseTo(atM, 6);
        expect(Math.hypot(...direction)).toBeCloseTo(1, 9);
        expect(distance(pointAlong(line, lineLength(line) + 50).point, line[line.length - 1])).toBeLessThan(1e-9);
      }),
      { seed: 51 },
    );
  });
  it('have places at even distances, as each found by itself, corners met twice and doubled back on too', () => {
    const doubled = lines.map((line): Line => [line[0], line[0], ...line.slice(1), ...line.slice(0, -1).reverse(), line[0]]);
    fc.assert(
      fc.property(fc.oneof(lines, doubled), fc.integer({ min: 1, max: 60 }), (line, pieces) => {
        const places = evenlyAlong(line, pieces);
        const each = along(line, pieces);
        expect(places.length).toBe(pieces + 1);
        for (let k = 0; k <= pieces; k++) expect(distance(places[k], each[k])).toBeLessThan(1e-6);
      }),
      { seed: 60 },
    );
  });
  it('fall into two parts whose lengths add up, in either direction', () => {
    fc.assert(
      fc.property(lines, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (line, share) => {
        const total = lineLength(line);
        const cut = share * total;
        expect(lineLength(subLine(line, 0, cut)) + lineLength(subLine(line, cut, total))).toBeCloseTo(total, 6);
        expect(subLine(line, total, cut)).toEqual(subLine(line, cut, total).reverse());
      }),
      { seed: 52 },
    );
  });
  it('have as nearest place one that no sampled place beats', () => {
    fc.assert(
      fc.property(lines, point, (line, p) => {
        const { distanceM, atM } = nearestOnLine(p, line);
        expect(distance(p, pointAlong(line, atM).point)).toBeCloseTo(distanceM, 6);
        for (const q of along(line, 200)) expect(distance(p, q)).toBeGreaterThan(distanceM - 1e-9);
      }),
      { seed: 53, numRuns: 60 },
    );
  });
  it('are as far apart as no two sampled places come nearer, and 0 where they cross', () => {
    fc.assert(
      fc.property(lines, lines, (a, b) => {
        const { distanceM, point: p } = nearestBetween(a, b);
        expect(nearestOnLine(p, a).distanceM).toBeLessThan(1e-6);
        expect(nearestOnLine(p, b).distanceM).toBeCloseTo(distanceM, 6);
        const least = Math.min(...along(a, 150).map((q) => nearestOnLine(q, b).distanceM));
        expect(distanceM).toBeLessThan(least + 1e-9);
        expect(nearestBetween(b, a).distanceM).toBeCloseTo(distanceM, 6);
        if (crossingsAlong(a, b).length > 0) expect(distanceM).toBe(0);
      }),
      { seed: 54, numRuns: 80 },
    );
  });
  it('see a corner that pokes between their own corners', () => {
    const swale: Line = [
      [0, 0],
      [100, 0],
    ];
    const near = nearestBetween(swale, [
      [40, 30],
      [50, 2],
      [60, 30],
    ]);
    expect(near).toEqual({ distanceM: 2, point: [50, 0] });
  });
  it('cross where both pass, at every crossing and no other place', () => {
    const zigzag: Line = [
      [0, -1],
      [2, 1],
      [4, -1],
      [6, 1],
    ];
    const flat: Line = [
      [0, 0],
      [10, 0],
    ];
    expect(crossingsAlong(flat, zigzag)).toEqual([1, 3, 5]);
    expect(
      crossing(
        [flat[0], flat[1]],
        [
          [0, 1],
          [10, 1],
        ],
      ),
    ).toBeNull();
  });
  it('keep within the tolerance when simplified, and both ends', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 40 }), fc.double({ min: 0.1, max: 40, noNaN: true }), (line, tolerance) => {
        const few = simplify(line, tolerance);
        expect(few[0]).toBe(line[0]);
        expect(few[few.length - 1]).toBe(line[line.length - 1]);
        for (const p of line) expect(nearestOnLine(p, few).distanceM).toBeLessThanOrEqual(tolerance + 1e-9);
        expect(simplify(few, 0).length).toBeLessThanOrEqual(few.length);
      }),
      { seed: 55 },
    );
  });
});

describe('rings', () => {
  it('have the area of their triangles about a middle point, signed by their turn', () => {
    fc.assert(
      fc.property(rings, (ring) => {
        const fan = ring.reduce((sum, [x, y], i) => {
          const [u, v] = ring[(i + 1) % ring.length];
          return sum + (x * v - u * y) / 2;
        }, 0);
        expect(signedArea(ring)).toBeCloseTo(fan, 6);
        expect(signedArea([...ring].reverse())).toBeCloseTo(-fan, 6);
        expect(fan).toBeGreaterThan(0);
      }),
      { seed: 56 },
    );
  });
  it('hold what lies on the near side of their edge as seen from inside', () => {
    fc.assert(
      fc.property(rings, fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }), (ring, angle) => {
        const far: Point = [300 * Math.cos(angle), 300 * Math.sin(angle)];
        const ray: Line = [[0, 0], far];
        const [edgeM] = crossingsAlong(ray, closed(ring));
        fc.pre(edgeM !== undefined && crossingsAlong(ray, closed(ring)).length === 1);
        expect(contains(ring, pointAlong(ray, 0.98 * edgeM).point)).toBe(true);
        expect(contains(ring, pointAlong(ray, 1.02 * edgeM).point)).toBe(false);
        expect(distanceToRing(ring, pointAlong(ray, 0.5 * edgeM).point)).toBe(0);
        const outside = pointAlong(ray, 1.2 * edgeM).point;
        expect(distanceToRing(ring, outside)).toBeCloseTo(nearestOnLine(outside, closed(ring)).distanceM, 9);
      }),
      { seed: 57 },
    );
  });
  it('close once, and have the mean of their corners as middle', () => {
    const square: Line = [
      [0, 0],
      [4, 0],
      [4, 2],
      [0, 2],
    ];
    expect(closed(square)).toHaveLength(5);
    expect(closed(closed(square))).toHaveLength(5);
    expect(middleOf(square)).toEqual([2, 1]);
  });
});

describe('a surface through survey points', () => {
  const scattered = fc
    .array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 })), { minLength: 12, maxLength: 60 })
    .map((list) => [...new Map(list.map(([x, y]) => [`${x},${y}`, [x / 10, y / 10] as const])).values()])
    .filter((list) => list.length >= 6);
  const frame = { ncols: 41, nrows: 41, x0: 0, y0: 40, stepM: 1 };

  it('is the plane the points lie on, everywhere inside their hull and nowhere else', () => {
    fc.assert(
      fc.property(scattered, (list) => {
        const level = (x: number, y: number): number => 120 + 0.13 * x - 0.07 * y;
        const points = {
          x: Float64Array.from(list, (p) => p[0]),
          y: Float64Array.from(list, (p) => p[1]),
          z: Float64Array.from(list, (p) => level(p[0], p[1])),
        };
        const triangles = triangulate(points);
        const area = Array.from({ length: triangles.length / 3 }, (_, t) => {
          const [a, b, c] = [0, 1, 2].map((k): Point => {
            const i = triangles[3 * t + k];
            return [points.x[i], points.y[i]];
          });
          return Math.abs(signedArea([a, b, c]));
        }).reduce((sum, v) => sum + v, 0);
        const z = rasterise(points, triangles, frame);
        const off = Array.from(z, (v, i) => Math.abs(v - level(i % 41, 40 - Math.floor(i / 41)))).filter((m) => !Number.isNaN(m));
        const covered = off.length;
        expect(Math.max(0, ...off)).toBeLessThan(1e-6);
        // Cell centres inside a hull are its area to within its rim.
        expect(Math.abs(covered - area)).toBeLessThan(90);
      }),
      { seed: 58, numRuns: 60 },
    );
  });
  it('has no triangles where all points stand in a row', () => {
    const row = { x: Float64Array.of(0, 1, 2, 3), y: Float64Array.of(0, 1, 2, 3), z: Float64Array.of(1, 2, 3, 4) };
    expect(triangulate(row)).toHaveLength(0);
  });
});
