import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { contours as d3contours } from 'd3-contour';
import fc from 'fast-check';
import { lineLength, nearestOnLine, signedArea, type Point } from '../geometry/index.ts';
import { cone, gridOf, plane } from '../testing/grids.ts';
import {
  type Grid,
  cellAt,
  cellsUnder,
  centreOf,
  contourLines,
  edgeCells,
  fillDepressions,
  firstInterceptor,
  flowOf,
  gridFromLevels,
  hillshade,
  shadedByThemselves,
  interceptorCells,
  levelAt,
  levelsEvery,
  partedBy,
  profile,
  refineContours,
  settleOnContour,
  shapeOf,
  slopesOf,
  statsOf,
  traceDown,
  upstreamOf,
} from './index.ts';

const modelOf = (grid: Grid) => {
  const filled = fillDepressions(grid);
  const edge = edgeCells(grid);
  return { grid, filled, flow: flowOf(grid, filled), edge, slopes: slopesOf(grid, edge) };
};
const linesOf = (c: ReturnType<typeof contourLines>): { level: number; line: Point[] }[] =>
  Array.from(c.levelM, (level, k) => ({
    level,
    line: Array.from({ length: c.starts[k + 1] - c.starts[k] }, (_, i): Point => [
      c.xy[2 * (c.starts[k] + i)],
      c.xy[2 * (c.starts[k] + i) + 1],
    ]),
  }));
const outlets = (receiver: Int8Array): number[] => Array.from(receiver, (d, i) => (d === -1 ? i : -1)).filter((i) => i >= 0);

/** The 87 x 61 volcano of vega-datasets (10 m cells), read from the package. */
function volcano(): Grid {
  const path = join(process.cwd(), 'node_modules/vega-datasets/data/volcano.json');
  const { width, height, values } = JSON.parse(readFileSync(path, 'utf8')) as { width: number; height: number; values: number[] };
  return gridFromLevels({ ncols: width, nrows: height, cellM: 10, west: 0, south: 0 }, values);
}

/** Random small terrains with hollows and holes in the data. */
const roughGrid = fc
  .integer({ min: 4, max: 14 })
  .chain((cells) =>
    fc
      .array(fc.oneof({ weight: 12, arbitrary: fc.integer({ min: 0, max: 40 }) }, { weight: 1, arbitrary: fc.constant(null) }), {
        minLength: cells * cells,
        maxLength: cells * cells,
      })
      .map((levels) => gridFromLevels({ ncols: cells, nrows: cells, cellM: 1, west: 0, south: 0 }, levels)),
  );

describe('filling hollows', () => {
  it('never lowers, keeps edges, is idempotent and leaves every inner cell a lower neighbour', () => {
    fc.assert(
      fc.property(roughGrid, (grid) => {
        const { filled, edge, flow } = modelOf(grid);
        const again = fillDepressions({ ...grid, z: Float32Array.from(filled) });
        const broken = Array.from(grid.z, (z, i) => {
          if (Number.isNaN(z)) return Number.isNaN(filled[i]);
          const stays = Math.abs(again[i] - filled[i]) < 1e-3; // float32 storage of the epsilon steps
          return stays && (edge[i] === 1 ? filled[i] === z : filled[i] >= z && flow.receiver[i] >= 0);
        }).indexOf(false);
        expect(broken).toBe(-1);
      }),
      { seed: 7, numRuns: 150 },
    );
  });
  it('fills a closed hollow to its lowest rim', () => {
    const grid = gridOf((x, y) => (Math.hypot(x - 11, y - 11) < 4 ? 1 : x > 9 && x < 13 && y < 9 ? 3 : 5), { cells: 11, cellM: 2 });
    const { filled } = modelOf(grid);
    expect(filled[cellAt(grid, [11, 11])] + grid.baseM).toBeCloseTo(3, 3);
  });
});

describe('flow', () => {
  it.each([0, 10, 22.5, 30, 45, 72.3, 117, 193.7, 290, 351])(
    'a path on a plane falling at %d degrees stays within two cells of the fall line',
    (degrees) => {
      const { grid, flow } = modelOf(plane(0.07, degrees));
      const a = (degrees * Math.PI) / 180;
      const from: Point = [101 - 70 * Math.cos(a), 101 - 70 * Math.sin(a)];
      const { path, cells } = traceDown({ grid, flow }, from, () => false);
      const off = (x: number, y: number): number => Math.abs((x - from[0]) * Math.sin(a) - (y - from[1]) * Math.cos(a));
      expect(path.length).toBeGreaterThan(40);
      for (const i of cells) expect(off(...centreOf(grid, i))).toBeLessThan(2 * grid.cellM);
      // Receivers, shared by all paths, keep the same promise.
      for (let i = cellAt(grid, from); flow.receiver[i] >= 0;) {
        const d = flow.receiver[i];
        i += [1, 102, 101, 100, -1, -102, -101, -100][d];
        expect(off(...centreOf(grid, i))).toBeLessThan(2 * grid.cellM);
      }
    },
  );
  it('measures the longest path on a plane along the fall line at any angle, within 1 % and a cell', () => {
    for (const degrees of [0, 22.5, 45, 63]) {
      const { grid, flow, edge, slopes } = modelOf(plane(0.1, degrees));
      const a = (degrees * Math.PI) / 180;
      const pin: Point = [101 + 40 * Math.cos(a), 101 + 40 * Math.sin(a)];
      const shape = shapeOf(grid, flow, { ...upstreamOf(flow, [cellAt(grid, pin)]), edge, slopes });
      // From the pin's cell back up the fall line to the edge of the grid.
      const back = Math.min(pin[0] / Math.cos(a), Math.sin(a) === 0 ? Infinity : pin[1] / Math.sin(a));
      expect(Math.abs(shape.longestPathM - back)).toBeLessThan(0.01 * back + 2 * grid.cellM);
      expect(shape.meanSlope).toBeCloseTo(0.1, 4);
      expect(shape.touchesTerrainEdge).toBe(true);
    }
  });
  it('gives a ring on a cone the area inside it, within 1 %', () => {
    const { grid, flow, edge, slopes } = modelOf(cone(0.1, { cells: 301, cellM: 2 }));
    const ring = Array.from({ length: 721 }, (_, k): Point => [
      301 + 200 * Math.cos((k * Math.PI) / 360),
      301 + 200 * Math.sin((k * Math.PI) / 360),
    ]);
    const set = upstreamOf(flow, cellsUnder(grid, ring));
    const shape = shapeOf(grid, flow, { ...set, edge, slopes });
    const area = Math.PI * 201 ** 2; // the ring's own cells reach half a cell beyond it
    expect(Math.abs(shape.areaM2 / area - 1)).toBeLessThan(0.01);
    expect(Math.abs(signedArea(shape.ring) / area - 1)).toBeLessThan(0.01);
    expect(shape.touchesTerrainEdge).toBe(false);
    expect(Math.abs(shape.meanSlope / 0.1 - 1)).toBeLessThan(0.01);
  });
  it('gathers a paraboloid bowl at its bottom and counts every cell once', () => {
    const { flow } = modelOf(gridOf((x, y) => 100 - ((x - 61) ** 2 + (y - 61) ** 2) / 500, { cells: 61, cellM: 2 }));
    expect(outlets(flow.receiver).reduce((sum, i) => sum + flow.cells[i], 0)).toBe(61 * 61);
  });
  it('partitions any terrain among its outlets, and each cell stands after its donors in the order', () => {
    fc.assert(
      fc.property(roughGrid, (grid) => {
        const { flow } = modelOf(grid);
        const seen = new Uint8Array(grid.z.length);
        for (const i of outlets(flow.receiver)) for (const m of upstreamOf(flow, [i]).members) seen[m]++;
        expect(Array.from(grid.z, (z, i) => seen[i] === (Number.isNaN(z) ? 0 : 1)).indexOf(false)).toBe(-1);
        expect(flow.order.length).toBe(statsOf(grid).cells - statsOf(grid).noData);
      }),
      { seed: 11, numRuns: 100 },
    );
  });
  it('partitions the volcano grid among all its edge outlets', () => {
    const { grid, flow } = modelOf(volcano());
    const seen = new Uint8Array(grid.z.length);
    for (const i of outlets(flow.receiver)) for (const m of upstreamOf(flow, [i]).members) seen[m]++;
    expect(Array.from(seen).every((n) => n === 1)).toBe(true);
  });
});

describe('interceptors', () => {
  it('never leak: nothing upstream of a line across a plane gets below it, at any angle', () => {
    fc.assert(
      fc.property(fc.double({ min: 20, max: 70, noNaN: true }), fc.double({ min: -30, max: 30, noNaN: true }), (degrees, tilt) => {
        const { grid, flow } = modelOf(plane(0.08, degrees, { cells: 61, cellM: 2 }));
        // Right across the grid, roughly on contour.
        const a = ((degrees + 90 + tilt) * Math.PI) / 180;
        const line: Point[] = [
          [61 - 120 * Math.cos(a), 61 - 120 * Math.sin(a)],
          [61 + 120 * Math.cos(a), 61 + 120 * Math.sin(a)],
        ];
        const label = firstInterceptor(flow, interceptorCells(grid, [line]));
        const own = new Set(cellsUnder(grid, line));
        const fall: Point = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
        const normal: Point = [-Math.sin(a), Math.cos(a)];
        const downhill = Math.sign(normal[0] * fall[0] + normal[1] * fall[1]);
        const leak = Array.from(label).findIndex((k, i) => {
          const [x, y] = centreOf(grid, i);
          const below = ((x - 61) * normal[0] + (y - 61) * normal[1]) * downhill;
          // Above the line every drop is caught, but for those that leave over the side of the grid first.
          return below > 4 && !own.has(i) && k !== 0;
        });
        expect(leak).toBe(-1);
      }),
      { seed: 3, numRuns: 40 },
    );
  });
  it('counts a strip above a line on a plane to within the row of cells it lies on', () => {
    const { grid, flow } = modelOf(plane(0.1, -90));
    const [members] = partedBy(
      flow,
      firstInterceptor(
        flow,
        interceptorCells(grid, [
          [
            [32, 101],
            [172, 101],
          ],
        ]),
      ),
      1,
    );
    expect(members.length * 4).toBe(140 * 102); // 140 m wide, 101 m to the top edge and half the line's own row
  });
  it('gives a shared cell to the first line and lets the upper of two lines take the water', () => {
    const { grid, flow } = modelOf(plane(0.1, -90));
    const label = firstInterceptor(
      flow,
      interceptorCells(grid, [
        [
          [20, 51],
          [180, 51],
        ],
        [
          [20, 151],
          [180, 151],
        ],
      ]),
    );
    expect(label[cellAt(grid, [101, 181])]).toBe(2);
    expect(label[cellAt(grid, [101, 101])]).toBe(1);
    expect(label[cellAt(grid, [101, 31])]).toBe(0);
  });
});

describe('contours', () => {
  it('of a cone are circles of the right length, within 1 %', () => {
    const lines = linesOf(contourLines(cone(0.1, { cells: 201, cellM: 2 }), { firstM: 485, intervalM: 5, count: 3 }));
    expect(lines.map((l) => l.level)).toEqual([485, 490, 495]);
    for (const { level, line } of lines) {
      const radius = (500 - level) / 0.1;
      expect(Math.abs(lineLength(line) / (2 * Math.PI * radius) - 1)).toBeLessThan(0.01);
    }
  });
  it('have exactly their level on the surface, and join every crossing of the volcano that d3-contour finds', () => {
    const grid = volcano();
    const levels = levelsEvery(grid, 10);
    const ours = linesOf(contourLines(grid, levels));
    for (const { level, line } of ours) for (const p of line) expect(levelAt(grid, p)).toBeCloseTo(level, 4);
    const values = Array.from(grid.z, (v) => v + grid.baseM);
    for (let k = 0; k < levels.count; k++) {
      const level = levels.firstM + k * levels.intervalM + 0.5; // off the integers of the data, where ties are a matter of taste
      const mine = new Set(
        linesOf(contourLines(grid, { firstM: level, intervalM: 1, count: 1 })).flatMap(({ line }) =>
          line.map(([x, y]) => `${x.toFixed(3)},${y.toFixed(3)}`),
        ),
      );
      const [theirs] = d3contours().size([87, 61]).thresholds([level])(values);
      const inside = theirs.coordinates.flat(2).filter(([x, y]) => x > 0.5 && y > 0.5 && x < 86.5 && y < 60.5);
      expect(inside.length).toBeGreaterThan(level > 190 ? 0 : 4);
      for (const [x, y] of inside) {
        const [a, b] = [10 * x, 10 * (61 - y)];
        expect(mine.has(`${a.toFixed(3)},${b.toFixed(3)}`)).toBe(true);
      }
    }
  });
  it('grow smoother with a point in each piece, and stay exactly on their level', () => {
    const grid = cone(0.1, { cells: 61, cellM: 2 });
    const rough = contourLines(grid, { firstM: 496, intervalM: 1, count: 3 });
    const fine = refineContours(grid, rough);
    expect(fine.xy.length).toBeGreaterThan(1.9 * rough.xy.length);
    const chords = linesOf(rough);
    linesOf(fine).forEach(({ level, line }, k) => {
      for (const p of line) expect(levelAt(grid, p)).toBeCloseTo(level, 3);
      // The circle is longer than its chords: what is added brings the line nearer to it.
      const circle = (2 * Math.PI * (500 - level)) / 0.1;
      expect(lineLength(line)).toBeGreaterThanOrEqual(lineLength(chords[k].line) - 1e-6);
      expect(Math.abs(lineLength(line) - circle)).toBeLessThan(Math.abs(lineLength(chords[k].line) - circle) + 0.01);
    });
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 100, maxLength: 100 }), (levels) => {
        const any = gridFromLevels({ ncols: 10, nrows: 10, cellM: 2, west: 0, south: 0 }, levels);
        const some = linesOf(refineContours(any, contourLines(any, { firstM: 10.25, intervalM: 7, count: 4 })));
        for (const { level, line } of some) for (const p of line) expect(Math.abs(levelAt(any, p) - level)).toBeLessThan(1e-3);
      }),
      { seed: 17, numRuns: 60 },
    );
  });
  it('through a place pass through it, on any ground', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 100, maxLength: 100 }),
        fc.tuple(fc.double({ min: 2.1, max: 17.9, noNaN: true }), fc.double({ min: 2.1, max: 17.9, noNaN: true })),
        (levels, at) => {
          const grid = gridFromLevels({ ncols: 10, nrows: 10, cellM: 2, west: 0, south: 0 }, levels);
          const levelM = levelAt(grid, at);
          const lines = linesOf(contourLines(grid, { firstM: levelM, intervalM: 1, count: 1 }));
          // Inside one cell the bilinear ground may bend: within a cell is as near as a straight piece can come.
          const near = Math.min(...lines.map(({ line }) => nearestOnLine(at, line).distanceM));
          fc.pre(lines.length > 0);
          expect(near).toBeLessThan(2);
        },
      ),
      { seed: 13, numRuns: 200 },
    );
  });
  it('end at no data instead of crossing it', () => {
    const grid = gridOf((x, y) => (Math.abs(x - 21) < 4 ? null : y), { cells: 21, cellM: 2 });
    const lines = linesOf(contourLines(grid, { firstM: 20, intervalM: 1, count: 1 }));
    expect(lines.length).toBe(2);
    for (const { line } of lines) expect(line.every(([x]) => x < 18 || x > 24)).toBe(true);
  });
  it('draw a rough line onto the contour through its first point', () => {
    const grid = cone(0.1, { cells: 201, cellM: 2 });
    const settled = settleOnContour(grid, [
      [101, 201],
      [120, 250],
      [180, 290],
    ]);
    if (!settled.ok) throw new Error(settled.why);
    expect(settled.levelM).toBeCloseTo(490, 1);
    for (const { levelM } of profile(grid, settled.line, 3)) expect(Math.abs(levelM - settled.levelM)).toBeLessThan(0.02);
    const [x, y] = settled.line[settled.line.length - 1];
    expect(nearestOnLine([180, 290], settled.line).atM).toBeCloseTo(lineLength(settled.line), 0);
    expect(Math.hypot(x - 201, y - 201)).toBeCloseTo(100, 0);
  });
  it('say why a line cannot settle', () => {
    expect(
      settleOnContour(plane(0.1, 0), [
        [-50, 10],
        [20, 20],
      ]),
    ).toEqual({ ok: false, why: 'off-terrain' });
    expect(
      settleOnContour(
        gridOf(() => 5, { cells: 9, cellM: 2 }),
        [
          [5, 5],
          [9, 9],
        ],
      ),
    ).toMatchObject({ ok: false });
  });
});

describe('levels shaded by themselves', () => {
  it('look the same in whatever unit they are, and tell what they run between', () => {
    const levels = Float32Array.from({ length: 400 }, (_, i) => 5 * Math.sin((i % 20) / 3) + 3 * Math.cos(Math.floor(i / 20) / 4));
    levels[7] = NaN;
    const size = { ncols: 20, nrows: 20 };
    const [metres, tenths] = [shadedByThemselves(levels, size), shadedByThemselves(levels.map((v) => 10 * v + 100), size)]; // prettier-ignore
    metres.shade.forEach((v, i) => expect(Math.abs(v - tenths.shade[i])).toBeLessThanOrEqual(1));
    expect(metres.shade[7]).toBe(0);
    expect(new Set(metres.shade).size).toBeGreaterThan(50);
    const known = [...levels].filter((v) => !Number.isNaN(v));
    expect(metres.between).toEqual([Math.min(...known), Math.max(...known)]);
    expect(shadedByThemselves(levels.map(() => NaN), size)).toEqual({ shade: new Uint8ClampedArray(400), between: null }); // prettier-ignore
    // Level ground is lit evenly, not divided by nothing.
    expect(new Set(shadedByThemselves(levels.map(() => 4), size).shade).size).toBe(1); // prettier-ignore
  });
});

describe('hillshade', () => {
  it('lights slopes that face north-west more than slopes that face south-east', () => {
    const middle = 50 * 101 + 50;
    expect(hillshade(plane(0.3, 135))[middle]).toBeGreaterThan(hillshade(plane(0.3, -45))[middle] + 40);
  });
});
