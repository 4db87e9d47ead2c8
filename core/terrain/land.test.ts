// Surfaces with one known answer: what a person would see in the rain, against closed form.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Line, Point } from '../geometry/index.ts';
import { cone, gridOf, plane, modelOf } from '../testing/grids.ts';
import {
  type Grid,
  SLOPE_CLASSES,
  areaByClass,
  breachHollows,
  cellAt,
  cellsUnder,
  classOf,
  derivativesOf,
  edgeCells,
  fillDepressions,
  firstInterceptor,
  flowOf,
  gridFromLevels,
  hillshade,
  interceptorCells,
  receiverOf,
  spreadArea,
  stageIn,
  traceDown,
  upstreamOf,
  waterIn,
  wetnessOf,
  withEdits,
} from './index.ts';

const within = (value: number, expected: number, share: number): void => expect(Math.abs(value / expected - 1)).toBeLessThan(share);
const middle = 50 * 101 + 50;
const leaving = (flow: ReturnType<typeof flowOf>): number => {
  let sum = 0;
  flow.receiver.forEach((d, i) => {
    if (d === -1) sum += flow.cells[i];
  });
  return sum;
};

const rough = fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 196, maxLength: 196 }).map((levels) =>
  gridFromLevels(
    { ncols: 14, nrows: 14, cellM: 2, west: 0, south: 0 },
    levels.map((v) => v / 20),
  ),
);

describe('derivatives', () => {
  it.each([0, 30, 45, 118, 200, 301])('slope and bearing of a plane falling at %d degrees', (degrees) => {
    const { slope, aspect, profile, plan } = derivativesOf(plane(0.12, degrees));
    expect(slope[middle]).toBeCloseTo(0.12, 5);
    // Degrees counter-clockwise from east to a compass bearing.
    const bearing = (((90 - degrees) % 360) + 360) % 360;
    expect(Math.abs(((aspect[middle] - bearing + 540) % 360) - 180)).toBeLessThan(0.05);
    expect(profile[middle]).toBeCloseTo(0, 4);
    expect(plan[middle]).toBeCloseTo(0, 4);
  });
  it('curvatures of a bowl, a dome, a trough and a valley are those of their parabolas', () => {
    const k = 0.004;
    const at = (level: (x: number, y: number) => number) => derivativesOf(gridOf(level, { cells: 101, cellM: 2 }));
    const off = 50 * 101 + 62; // 24 m east of the middle
    const bowl = at((x, y) => 100 + (k * ((x - 101) ** 2 + (y - 101) ** 2)) / 2);
    expect(bowl.profile[off]).toBeCloseTo(k, 4);
    expect(bowl.plan[off]).toBeCloseTo(k, 4);
    const dome = at((x, y) => 100 - (k * ((x - 101) ** 2 + (y - 101) ** 2)) / 2);
    expect(dome.plan[off]).toBeCloseTo(-k, 4);
    const trough = at((x) => 100 + (k * (x - 101) ** 2) / 2);
    expect(trough.profile[off]).toBeCloseTo(k, 4);
    expect(trough.plan[off]).toBeCloseTo(0, 4);
    const valley = at((x, y) => 100 + 0.05 * x + (k * (y - 101) ** 2) / 2);
    expect(valley.plan[middle]).toBeCloseTo(k, 4);
    expect(valley.profile[middle]).toBeCloseTo(0, 4);
  });
  it('wetness on a plane is the length above over the slope, in logarithm', () => {
    const grid = plane(0.08, -90, { cells: 61, cellM: 2 });
    const area = spreadArea(grid, fillDepressions(grid));
    const wetness = wetnessOf(area, derivativesOf(grid).slope, 2);
    // In the middle no edge is near: the row counts from the top.
    const i = 10 * 61 + 30;
    expect(area[i]).toBeCloseTo(11, 1);
    expect(wetness[i]).toBeCloseTo(Math.log((11 * 2) / 0.08), 1);
  });
  it('classes count every cell once and know their own limits', () => {
    const { slope } = derivativesOf(plane(0.12, 30));
    const area = areaByClass(plane(0.12, 30), slope);
    expect(area[classOf(0.12)]).toBeCloseTo(101 * 101 * 4, 6);
    expect(area.reduce((a, v) => a + v, 0)).toBeCloseTo(101 * 101 * 4, 6);
    expect(SLOPE_CLASSES.map((c) => classOf(c.toSlope))).toEqual([0, 1, 2, 3, 4, 5]);
  });
  it('light comes from where the sun stands', () => {
    for (const bearing of [45, 135, 225, 315]) {
      const towards = plane(0.3, 90 - bearing);
      const away = plane(0.3, 270 - bearing);
      const sun = { bearing, height: 40 };
      expect(hillshade(towards, sun)[middle]).toBeGreaterThan(hillshade(away, sun)[middle] + 40);
    }
  });
});

describe('multiple-flow accumulation', () => {
  it('loses no area: what is left at cells without a lower neighbour is all there is', () => {
    fc.assert(
      fc.property(rough, (grid) => {
        const filled = fillDepressions(grid);
        const area = spreadArea(grid, filled);
        let out = 0;
        for (let i = 0; i < area.length; i++) {
          const col = i % 14;
          const row = (i - col) / 14;
          let isSink = true;
          for (let r = Math.max(0, row - 1); r <= Math.min(13, row + 1); r++)
            for (let c = Math.max(0, col - 1); c <= Math.min(13, col + 1); c++) if (filled[r * 14 + c] < filled[i]) isSink = false;
          if (isSink) out += area[i];
        }
        expect(out).toBeCloseTo(196, 6);
      }),
      { seed: 61, numRuns: 80 },
    );
  });
  it('on a cone grows with the distance from the top, alike on every bearing', () => {
    const grid = cone(0.1, { cells: 201, cellM: 2 });
    const area = spreadArea(grid, fillDepressions(grid));
    const ring = (radius: number): number[] =>
      Array.from({ length: 720 }, (_, k) => {
        const a = (k * Math.PI) / 360;
        return area[cellAt(grid, [201 + radius * Math.cos(a), 201 + radius * Math.sin(a)])];
      });
    const mean = (list: number[]): number => list.reduce((a, v) => a + v, 0) / list.length;
    // Area above a metre of contour is r / 2.
    within(mean(ring(160)) / mean(ring(80)), 2, 0.02);
    for (const v of ring(160)) within(v, mean(ring(160)), 0.2);
  });
});

describe('hollows', () => {
  const bowlIn = (extra: (x: number, y: number) => number = () => 0): Grid =>
    gridOf((x, y) => 100 - 0.02 * x + Math.min(0, (((x - 61) ** 2 + (y - 61) ** 2) / 400 - 1) * 3) + extra(x, y), { cells: 61, cellM: 2 });
  it('a parabolic bowl on level ground has the depth, area and volume of its formula', () => {
    const { hollows } = modelOf(
      gridOf((x, y) => 100 + Math.min(0, (((x - 61) ** 2 + (y - 61) ** 2) / 400 - 1) * 3), { cells: 61, cellM: 2 }),
    );
    const [bowl, ...rest] = hollows;
    expect(rest).toEqual([]);
    expect(bowl.depthM).toBeCloseTo(3, 2);
    expect(bowl.spillM).toBeCloseTo(100, 2);
    within(bowl.areaM2, Math.PI * 400, 0.03);
    within(bowl.volumeM3, (Math.PI * 400 * 3) / 2, 0.01);
    expect(bowl.at).toEqual([61, 61]);
    expect(bowl.isNoise).toBe(false);
  });
  it('nested hollows under one spill are one water, its bottom the deeper one', () => {
    const dent = (x: number, y: number): number => (Math.hypot(x - 69, y - 61) < 5 ? -1.5 : Math.hypot(x - 51, y - 61) < 3 ? -0.5 : 0);
    const { hollows } = modelOf(bowlIn(dent));
    const deep = hollows.filter((h) => !h.isNoise);
    expect(deep).toHaveLength(1);
    expect(Math.hypot(deep[0].at[0] - 67, deep[0].at[1] - 61)).toBeLessThan(6);
    expect(deep[0].spillAt).not.toBeNull();
  });
  it('calls a shallow dip noise, and a plane none at all', () => {
    const dip = plane(0.05, 0);
    dip.z[middle] -= 0.15;
    const [found] = modelOf(dip).hollows;
    expect(found.isNoise).toBe(true);
    expect(modelOf(plane(0.05, 20)).hollows).toEqual([]);
  });
  it('stage table rises to the whole of it: level, area, volume, reach and shore', () => {
    const { grid, hollows } = modelOf(
      gridOf((x, y) => 100 + Math.min(0, (((x - 61) ** 2 + (y - 61) ** 2) / 400 - 1) * 3), { cells: 61, cellM: 2 }),
    );
    const [bowl] = hollows;
    const stage = stageIn(grid, bowl, { toM: bowl.spillM });
    for (let k = 1; k < stage.length; k++) {
      expect(stage[k].volumeM3).toBeGreaterThan(stage[k - 1].volumeM3);
      expect(stage[k].areaM2).toBeGreaterThanOrEqual(stage[k - 1].areaM2);
    }
    expect(stage[stage.length - 1].volumeM3).toBeCloseTo(bowl.volumeM3, 0);
    const half = waterIn(grid, bowl, { levelM: 98.5 });
    within(half.volumeM3, (Math.PI * 200 * 1.5) / 2, 0.02);
    within(half.throwbackM, Math.sqrt(200), 0.1);
    within(half.shorelineM, 2 * Math.PI * Math.sqrt(200), 0.02);
  });
  it('a cut drains a hollow that has lower ground near, and leaves one that would need too deep a cut', () => {
    const { grid, flow, hollows } = modelOf(bowlIn());
    const deep = breachHollows(grid, flow, { hollows, limits: { depthM: 5, lengthM: 100 } });
    expect(modelOf(deep).hollows.filter((h) => !h.isNoise)).toEqual([]);
    expect(deep.z.every((v, i) => v <= grid.z[i])).toBe(true);
    const kept = breachHollows(grid, flow, { hollows, limits: { depthM: 1, lengthM: 100 } });
    expect(kept.z).toEqual(grid.z);
  });
  it('cutting never raises ground and never makes more water stand', () => {
    fc.assert(
      fc.property(rough, (grid) => {
        const { flow, hollows } = modelOf(grid);
        const cut = breachHollows(grid, flow, { hollows });
        expect(Array.from(cut.z, (v, i) => v <= grid.z[i]).indexOf(false)).toBe(-1);
        const volume = (list: typeof hollows): number => list.reduce((a, h) => a + h.volumeM3, 0);
        expect(volume(modelOf(cut).hollows)).toBeLessThanOrEqual(volume(hollows) + 1e-3);
      }),
      { seed: 62, numRuns: 80 },
    );
  });
});

describe('what a survey misses', () => {
  const windrow: Line = [
    [60, 121],
    [142, 101],
  ];
  it.each([0.02, 0.1, 0.3])('a low bank across a slope of %d turns all the water that meets it', (slope) => {
    const grid = plane(slope, -90);
    const { flow } = modelOf(withEdits(grid, [{ line: windrow, heightM: 0.1 }]));
    // Straight above the middle of the bank; the bank falls to the east, so water leaves round its east end.
    const { path } = traceDown({ grid, flow }, [100, 180], () => false);
    const below = path.find(([, y]) => y < 95);
    expect(below?.[0]).toBeGreaterThan(138);
  });
  it('moves area and never loses any, whatever is drawn', () => {
    const place = fc.tuple(fc.double({ min: 2, max: 26, noNaN: true }), fc.double({ min: 2, max: 26, noNaN: true })) as fc.Arbitrary<Point>;
    const edits = fc.array(
      fc.record({ line: fc.array(place, { minLength: 2, maxLength: 4 }), heightM: fc.double({ min: -0.5, max: 0.8, noNaN: true }) }),
      { minLength: 1, maxLength: 3 },
    );
    fc.assert(
      fc.property(rough, edits, (grid, list) => {
        const { flow } = modelOf(withEdits(grid, list));
        expect(leaving(flow)).toBe(196);
      }),
      { seed: 63, numRuns: 80 },
    );
  });
  it('opened where it is open, lets the water through there again', () => {
    const grid = plane(0.1, -90);
    const opened = withEdits(grid, [{ line: windrow, heightM: 0.3, open: [[38, 46]] }]);
    const { flow } = modelOf(opened);
    const { path } = traceDown({ grid, flow }, [101, 180], () => false);
    expect(Math.abs((path.find(([, y]) => y < 95)?.[0] ?? 0) - 103)).toBeLessThan(10);
    expect(withEdits(grid, [])).toBe(grid);
  });
  it('a ditch carries what meets it to its lower end', () => {
    const grid = plane(0.1, -90);
    const ditch: Line = [
      [40, 111],
      [160, 99],
    ];
    const { flow } = modelOf(withEdits(grid, [{ line: ditch, heightM: -0.3 }]));
    const { path } = traceDown({ grid, flow }, [70, 180], () => false);
    expect(path.find(([, y]) => y < 90)?.[0]).toBeGreaterThan(150);
  });
  it('a pipe takes its water past what lies between, area and all', () => {
    const grid = plane(0.1, -90);
    const [from, to] = [cellAt(grid, [101, 151]), cellAt(grid, [151, 51])];
    const { flow } = modelOf(grid, new Map([[from, to]]));
    expect(receiverOf(flow, from)).toBe(to);
    expect(leaving(flow)).toBe(101 * 101);
    const up = upstreamOf(flow, [to]);
    expect(up.mask[from]).toBe(1);
    expect(up.members.length).toBe(flow.cells[to]);
    const { cells } = traceDown({ grid, flow }, [101, 180], () => false);
    expect(cells).toContain(to);
    // An interceptor between them never sees it.
    const label = firstInterceptor(
      flow,
      interceptorCells(grid, [
        [
          [20, 101],
          [130, 101],
        ],
      ]),
    );
    expect(label[cellAt(grid, [101, 161])]).toBe(0);
  });
  it('a pipe that would have to run uphill is left out', () => {
    const grid = plane(0.1, -90);
    const { flow } = modelOf(grid, new Map([[cellAt(grid, [101, 51]), cellAt(grid, [101, 151])]]));
    expect(flow.jumps.size).toBe(0);
    expect(leaving(flow)).toBe(101 * 101);
  });
});

describe('edges', () => {
  it('cells of a line stay on the grid, and edits off it change nothing', () => {
    const grid = plane(0.1, 0);
    const far: Line = [
      [-50, -50],
      [-10, -20],
    ];
    expect(cellsUnder(grid, far)).toHaveLength(0);
    expect(withEdits(grid, [{ line: far, heightM: 1 }]).z).toEqual(grid.z);
    expect(edgeCells(grid).filter((v) => v === 1)).toHaveLength(400);
  });
});
