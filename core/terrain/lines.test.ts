// Surfaces with one known answer: lines, walls and places on them, against closed form.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { contours as d3contours } from 'd3-contour';
import fc from 'fast-check';
import { type Line, contains } from '../geometry/index.ts';
import { gridOf, plane, modelOf } from '../testing/grids.ts';
import {
  type Grid,
  departureOf,
  entering,
  fallBetween,
  firstInterceptor,
  gridFromLevels,
  interceptorCells,
  placesOf,
  ridgeLines,
  runOnto,
  storageBehind,
  valleyLines,
  wallSize,
  waterIn,
  withEdits,
} from './index.ts';

const within = (value: number, expected: number, share: number): void => expect(Math.abs(value / expected - 1)).toBeLessThan(share);

/** Valley falling to the west (x = 0) at `s` along and `t` across, its floor along y = 101. */
const vValley = (s: number, t: number): Grid => gridOf((x, y) => 100 + s * x + t * Math.abs(y - 101), { cells: 101, cellM: 2 });

const rough = fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 196, maxLength: 196 }).map((levels) =>
  gridFromLevels(
    { ncols: 14, nrows: 14, cellM: 2, west: 0, south: 0 },
    levels.map((v) => v / 20),
  ),
);

describe('along a line', () => {
  const line: Line = [
    [41, 101],
    [161, 101],
  ];
  const fed = (grid: Grid) => {
    const { flow } = modelOf(grid);
    const owner = interceptorCells(grid, [line]);
    return { flow, owner, run: runOnto(grid, flow, { line, owner, own: 1, stepM: 10 }) };
  };
  it('a plane feeds every metre alike', () => {
    const { run } = fed(plane(0.1, -90));
    expect(run.areaM2).toBe(120 * 102);
    expect(run.isEven).toBe(true);
    expect(run.starvedShare).toBe(0);
    for (const s of run.stretches) within(s.areaM2, 10 * 102, 0.21);
  });
  it('a bank above one half starves it, and a valley floods one tenth', () => {
    const banked = fed(
      withEdits(plane(0.1, -90), [
        {
          line: [
            [20, 131],
            [102, 120],
          ],
          heightM: 0.5,
        },
      ]),
    ).run;
    expect(banked.starvedShare).toBeGreaterThan(0.3);
    expect(banked.isEven).toBe(false);
    const valley = fed(gridOf((x, y) => 100 + 0.05 * y + 0.3 * Math.abs(x - 101), { cells: 101, cellM: 2 })).run;
    expect(valley.tenthShare).toBeGreaterThan(0.5);
    expect(valley.isEven).toBe(false);
  });
  it('counts exactly the cells that a first interceptor gives it', () => {
    fc.assert(
      fc.property(rough, (grid) => {
        const { flow } = modelOf(grid);
        const owner = interceptorCells(grid, [
          [
            [4, 14],
            [24, 14],
          ],
          [
            [4, 20],
            [24, 20],
          ],
        ]);
        const label = firstInterceptor(flow, owner);
        const entered = entering(flow, (i) => owner[i] !== 0);
        for (const own of [1, 2]) {
          let sum = 0;
          for (const [cell, cells] of entered) if (owner[cell] === own) sum += cells;
          expect(sum).toBe(label.filter((k) => k === own).length);
        }
      }),
      { seed: 64, numRuns: 60 },
    );
  });
  it('departs from level by its fall on a plane, low at its lower end', () => {
    const found = departureOf(
      plane(0.1, -90),
      [
        [40, 101],
        [140, 91],
      ],
      2,
    );
    expect(found?.rangeM).toBeCloseTo(1, 4);
    expect(found?.lows).toHaveLength(1);
    expect(found?.lows[0].atM).toBeCloseTo(Math.hypot(100, 10), 6);
    expect(found?.lows[0].offM).toBeCloseTo(-0.5, 2);
    expect(found?.highest.atM).toBe(0);
  });
  it('names each place where water would gather along it, lowest first', () => {
    const wavy = gridOf((x) => 100 + 0.1 * Math.cos((2 * Math.PI * (x - 1)) / 40), { cells: 101, cellM: 2 });
    const found = departureOf(
      wavy,
      [
        [1, 101],
        [161, 101],
      ],
      1,
    );
    expect(found?.lows.map((l) => Math.round(l.atM / 10) * 10).sort((a, b) => a - b)).toEqual([20, 60, 100, 140]);
    expect(
      departureOf(
        wavy,
        [
          [-50, 5],
          [-20, 5],
        ],
        1,
      ),
    ).toBeNull();
  });
});

describe('falls', () => {
  it('down a plane: straight there, no trench, the fall of the slope', () => {
    const grid = plane(0.05, -90);
    const found = fallBetween(grid, { from: [101, 181], to: [101, 21], gradeM: 0.01 });
    expect(found?.fallM).toBeCloseTo(8, 3);
    expect(found?.lengthM).toBeCloseTo(160, 0);
    expect(found?.trench.deepestM).toBe(0);
    expect(found?.trench.spareM).toBeGreaterThan(0);
  });
  it('past a ridge: over its saddle, with the trench the saddle needs', () => {
    // A ridge across, 3 m high, with a saddle of 1 m at x = 151.
    const grid = gridOf((x, y) => 100 + 0.01 * y + Math.max(0, 1 - Math.abs(y - 101) / 20) * Math.min(3, 1 + Math.abs(x - 151) / 10), {
      cells: 101,
      cellM: 2,
    });
    const found = fallBetween(grid, { from: [101, 181], to: [101, 21], gradeM: 0.005 });
    expect(found?.passM).toBeCloseTo(102.01, 1);
    const crossing = found?.line.reduce((a, p) => (Math.abs(p[1] - 101) < Math.abs(a[1] - 101) ? p : a));
    expect(Math.abs((crossing?.[0] ?? 0) - 151)).toBeLessThan(8);
    // From 101.81 m at 5 mm/m the trench passes the saddle about 0.5 m lower than it began.
    expect(found?.trench.deepestM).toBeGreaterThan(0.3);
    expect(found?.trench.deepestM).toBeLessThan(0.9);
  });
  it('says by how much an outfall is too high', () => {
    const found = fallBetween(plane(0.05, -90), { from: [101, 21], to: [101, 61], gradeM: 0.01 });
    expect(found?.fallM).toBeCloseTo(-2, 3);
    expect(found?.trench.spareM).toBeCloseTo(-2.4, 2);
  });
  it('a trench always falls, never stands above the ground, and avoids what would sink it under its outfall', () => {
    fc.assert(
      fc.property(rough, fc.double({ min: 0, max: 0.03, noNaN: true }), (grid, gradeM) => {
        const found = fallBetween(grid, { from: [3, 3], to: [25, 23], gradeM });
        const trench = found?.trench.profile ?? [];
        expect(trench.length).toBeGreaterThan(2);
        trench.forEach((p, k) => {
          expect(p.depthM).toBeGreaterThanOrEqual(0);
          const before = trench[k - 1];
          if (before) expect(p.levelM - p.depthM).toBeLessThanOrEqual(before.levelM - before.depthM - gradeM * (p.atM - before.atM) + 1e-9);
        });
      }),
      { seed: 66, numRuns: 60 },
    );
    // Across a valley to a place on the other side that lies above its floor: along the hill, not down and up again.
    const valley = gridOf((x, y) => 100 + 0.2 * x + 0.25 * Math.abs(y - 101), { cells: 101, cellM: 2 });
    const round = fallBetween(valley, { from: [61, 161], to: [55, 51], gradeM: 0.003 });
    expect(round?.trench.spareM).toBeGreaterThanOrEqual(0);
    expect(Math.max(...(round?.line.map(([x]) => x) ?? []))).toBeGreaterThan(100);
  });
  it('knows of none off the ground or across no data', () => {
    const split = gridOf((x, y) => (Math.abs(x - 61) < 4 ? null : 100 + 0.1 * y), { cells: 61, cellM: 2 });
    expect(fallBetween(split, { from: [20, 60], to: [100, 60], gradeM: 0.01 })).toBeNull();
    expect(fallBetween(split, { from: [-20, 60], to: [100, 60], gradeM: 0.01 })).toBeNull();
  });
});

describe('storage behind a wall line', () => {
  const wall: Line = [
    [61, 31],
    [61, 171],
  ];
  const H = 2.5;
  it.each([
    [0.05, 0.1],
    [0.03, 0.2],
    [0.08, 0.08],
  ])('across a valley of %d along and %d across: level, area, volume, throwback and shore of its pyramid', (s, t) => {
    const grid = vValley(s, t);
    const floor = 100 + s * 62;
    const found = storageBehind(grid, wall, floor + H);
    within(found?.at.volumeM3 ?? 0, H ** 3 / (3 * s * t), 0.06);
    within(found?.at.areaM2 ?? 0, H ** 2 / (s * t), 0.06);
    within(found?.at.throwbackM ?? 0, H / s, 0.06);
    within(found?.at.shorelineM ?? 0, 2 * Math.hypot(H / s, H / t), 0.08);
  });
  it('holds no more than its ends do, and a wall on a plane holds what its own ends turn back', () => {
    const short = storageBehind(
      vValley(0.05, 0.1),
      [
        [61, 81],
        [61, 121],
      ],
      120,
    );
    expect(short?.fullM).toBeCloseTo(100 + 0.05 * 62 + 0.1 * 20, 0);
    expect(short?.at.levelM).toBe(short?.fullM);
    expect(
      storageBehind(plane(0.1, -90), [
        [60, 101],
        [140, 101],
      ]),
    ).toBeNull();
  });
  it('counts the earth of a wall by its sections', () => {
    // Level ground 2 m below the crest: 40 m of w·h + 5·h²/2.
    const size = wallSize(
      gridOf(() => 100, { cells: 41, cellM: 2 }),
      [
        [21, 41],
        [61, 41],
      ],
      102,
    );
    within(size.earthM3, 40 * (2.5 * 2 + (5 * 4) / 2), 1e-6);
    expect(size).toMatchObject({ highestM: 2 });
    expect(size.lengthM).toBeCloseTo(40, 6);
  });
});

describe('the crater of the volcano grid (vega-datasets, read from the package)', () => {
  const path = join(process.cwd(), 'node_modules/vega-datasets/data/volcano.json');
  const { width, height, values } = JSON.parse(readFileSync(path, 'utf8')) as { width: number; height: number; values: number[] };
  const grid = gridFromLevels({ ncols: width, nrows: height, cellM: 10, west: 0, south: 0 }, values);
  const { hollows } = modelOf(grid);
  const crater = hollows[0];
  /** Area below a level inside the crater, from d3-contour's polygons of the ground turned upside down [m2]. */
  const areaBelow = (level: number): number => {
    const [found] = d3contours().size([width, height]).thresholds([-level])(values.map((v) => -v));
    const [cx, cy] = [crater.at[0] / 10, height - crater.at[1] / 10];
    const ringArea = (ring: number[][]): number =>
      ring.reduce((sum, [x, y], i) => sum + x * ring[(i + 1) % ring.length][1] - ring[(i + 1) % ring.length][0] * y, 0) / 2;
    const holds = (ring: number[][]): boolean => contains(ring as unknown as Line, [cx, cy]);
    const polygon = found.coordinates.find((p) => holds(p[0]));
    return polygon ? Math.abs(polygon.reduce((sum, ring) => sum + ringArea(ring), 0)) * 100 : 0;
  };
  it('has the water surface that d3-contour draws, and the volume of its surfaces one above the other', () => {
    expect(crater.depthM).toBeGreaterThan(3);
    const levels = [0.4, 0.6, 0.8].map((share) => crater.bottomM + share * crater.depthM);
    for (const level of levels) within(waterIn(grid, crater, { levelM: level }).areaM2, areaBelow(level), 0.1);
    // Surfaces summed by the midpoint rule over forty layers.
    const top = levels[2];
    const steps = 40;
    let volume = 0;
    for (let k = 0; k < steps; k++)
      volume += (areaBelow(crater.bottomM + ((k + 0.5) * (top - crater.bottomM)) / steps) * (top - crater.bottomM)) / steps;
    within(waterIn(grid, crater, { levelM: top }).volumeM3, volume, 0.1);
  });
});

describe('places', () => {
  const found = (grid: Grid, leastM2 = 3000) => {
    const { flow } = modelOf(grid);
    return placesOf(grid, flow, valleyLines(grid, flow, leastM2));
  };
  it('a key point where a valley turns from 18 to 5 per cent, and no other', () => {
    const bed = (x: number): number => (x < 121 ? 0.05 * x : 0.05 * 121 + 0.18 * (x - 121));
    const places = found(gridOf((x, y) => 100 + bed(x) + 0.15 * Math.abs(y - 101), { cells: 101, cellM: 2 }));
    const keys = places.filter((p) => p.kind === 'key-point');
    expect(keys).toHaveLength(1);
    expect(Math.abs(keys[0].at[0] - 121)).toBeLessThan(8);
    expect(Math.abs(keys[0].at[1] - 101)).toBeLessThan(3);
    expect(keys[0].facts.slopeAbove).toBeGreaterThan(0.15);
    expect(keys[0].facts.slopeBelow).toBeLessThan(0.07);
  });
  it('none on a valley of one slope, and nothing at all on a plane', () => {
    expect(found(vValley(0.08, 0.2)).filter((p) => p.kind === 'key-point')).toEqual([]);
    expect(found(plane(0.08, -90))).toEqual([]);
  });
  it('a choke where the sides of a flat valley come together', () => {
    // Sides 40 m apart upstream, pinched to 6 m at x = 61.
    const grid = gridOf(
      (x, y) => {
        const half = x > 61 ? Math.min(20, 3 + (x - 61) * 0.6) : Math.min(20, 3 + (61 - x) * 0.6);
        return 100 + 0.02 * x + Math.max(0, Math.abs(y - 101) - half) * 0.6;
      },
      { cells: 101, cellM: 2 },
    );
    const [choke] = found(grid).filter((p) => p.kind === 'choke');
    expect(Math.abs(choke.at[0] - 61)).toBeLessThan(10);
    expect(choke.facts.heldM3 / choke.facts.earthM3).toBeGreaterThan(3);
    expect(choke.wall).toHaveLength(2);
  });
  it('a gully head at the step in the bed of a cut, and none on a smooth bed', () => {
    const bed = (x: number, y: number): number => {
      const base = 100 + 0.03 * x + 0.04 * Math.abs(y - 101);
      return Math.abs(y - 101) < 2.5 && x < 120 ? base - 1.5 : base;
    };
    const [head] = found(gridOf(bed, { cells: 101, cellM: 2 })).filter((p) => p.kind === 'gully-head');
    expect(Math.abs(head.at[0] - 121)).toBeLessThan(5);
    expect(head.facts.dropM).toBeGreaterThan(1);
    expect(found(vValley(0.03, 0.04)).filter((p) => p.kind === 'gully-head')).toEqual([]);
  });
  it('valley lines run along the valley floor and ridge lines along the ridge', () => {
    const grid = gridOf((x, y) => 100 + 0.05 * x + 3 * Math.cos((Math.PI * (y - 101)) / 60), { cells: 101, cellM: 2 });
    const { flow } = modelOf(grid);
    const [main] = valleyLines(grid, flow, 2500);
    // The cosine is lowest 60 m to either side of the middle, highest in it.
    for (const [, y] of main.points.slice(3)) expect(Math.abs(Math.abs(y - 101) - 60)).toBeLessThan(6);
    const ridge = ridgeLines(grid, 2500).find((r) => r.points.some(([, y]) => Math.abs(y - 101) < 3));
    expect(ridge?.points.length).toBeGreaterThan(30);
    expect(valleyLines(plane(0.1, -90), modelOf(plane(0.1, -90)).flow, 3000)).toEqual([]);
  });
});
