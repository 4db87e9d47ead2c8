import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Grid, STEP_COL, STEP_ROW, edgeCells, gridFromLevels } from '../grid.ts';
import { FILL_EPSILON_M, fillDepressions } from './fill.ts';
import { flowOf, receiverOf, straddleOf } from './flow.ts';

const rough = fc.record({ ncols: fc.integer({ min: 2, max: 17 }), nrows: fc.integer({ min: 2, max: 13 }) }).chain(({ ncols, nrows }) =>
  fc
    .array(fc.oneof({ weight: 20, arbitrary: fc.integer({ min: 0, max: 900 }) }, { weight: 1, arbitrary: fc.constant(null) }), {
      minLength: ncols * nrows,
      maxLength: ncols * nrows,
    })
    .map((levels) =>
      gridFromLevels(
        { ncols, nrows, cellM: 1, west: 0, south: 0 },
        levels.map((v) => (v === null ? null : v / 100)),
      ),
    ),
);

/** Levels of the eight neighbours, clockwise from east; NaN where there is none. */
function around({ ncols, nrows }: Grid, level: Float64Array, i: number): number[] {
  const [col, row] = [i % ncols, Math.floor(i / ncols)];
  return STEP_COL.map((dc, d) => {
    const [c, r] = [col + dc, row + STEP_ROW[d]];
    return c < 0 || r < 0 || c >= ncols || r >= nrows ? NaN : level[r * ncols + c];
  });
}

/** The filled surface by its definition: from far above, lowered until no cell changes. */
function filledPlainly(grid: Grid): Float64Array {
  const edge = edgeCells(grid);
  const f = Float64Array.from(grid.z, (z, i) => (Number.isNaN(z) || edge[i] === 1 ? z : Infinity));
  for (let changed = true; changed;) {
    changed = false;
    for (let i = 0; i < f.length; i++) {
      if (edge[i] === 1) continue;
      const lowest = Math.min(...around(grid, f, i).filter((v) => !Number.isNaN(v)));
      const level = Math.max(grid.z[i], lowest + FILL_EPSILON_M);
      if (level < f[i]) [f[i], changed] = [level, true];
    }
  }
  return f;
}

/** Direction of the steepest fall between two neighbours 45 degrees apart [degrees clockwise from east], found by trying every tenth of a degree. */
function fallLine(drops: readonly number[]): number {
  let [best, at] = [-Infinity, 0];
  for (let tenth = 0; tenth < 3600; tenth++) {
    const k = Math.floor(tenth / 450);
    const [cardinal, diagonal] = k % 2 === 0 ? [k, (k + 1) % 8] : [(k + 1) % 8, k];
    const angle = (((k % 2 === 0 ? tenth - 450 * k : 450 * (k + 1) - tenth) / 10) * Math.PI) / 180;
    const slope = drops[cardinal] * Math.cos(angle) + (drops[diagonal] - drops[cardinal]) * Math.sin(angle);
    if (slope > best) [best, at] = [slope, tenth / 10];
  }
  return at;
}

describe('the compiled loops', () => {
  it('fill to the very bits that the definition gives', () => {
    fc.assert(
      fc.property(rough, (grid) => {
        expect([...fillDepressions(grid)]).toEqual([...filledPlainly(grid)]);
      }),
      { seed: 11, numRuns: 120 },
    );
  });
  it('find the fall line that a search all round finds, wherever the steepest facet holds the steepest neighbour', () => {
    fc.assert(
      fc.property(rough, (grid) => {
        const filled = fillDepressions(grid);
        const flow = flowOf(grid, filled);
        const edge = edgeCells(grid);
        for (let i = 0; i < filled.length; i++) {
          if (edge[i] === 1) continue;
          const drops = around(grid, filled, i).map((v) => filled[i] - v);
          const slopes = drops.map((v, d) => (d % 2 === 0 ? v : v * Math.SQRT1_2));
          const steepest = slopes.indexOf(Math.max(...slopes));
          const { cardinal, diagonal, driftCardinal } = straddleOf(flow, i);
          // The steepest neighbour is always one of the two.
          expect([cardinal, diagonal].some((d) => d >= 0 && slopes[d] === slopes[steepest])).toBe(true);
          const line = fallLine(drops);
          const k = Math.floor(line / 45);
          const isBeside = steepest === k % 8 || steepest === (k + 1) % 8;
          if (!isBeside || cardinal < 0 || diagonal < 0 || drops[steepest] < 0.01) continue;
          // One of the two facets beside the steepest neighbour: here the packed angle is that of the search.
          const mine = Math.min(cardinal, diagonal) === 0 && Math.max(cardinal, diagonal) === 7 ? 7 : Math.min(cardinal, diagonal);
          if (mine !== k % 8) continue;
          const fromCardinal = k % 2 === 0 ? line - 45 * k : 45 * (k + 1) - line;
          expect((Math.asin(Math.abs(driftCardinal)) * 180) / Math.PI).toBeCloseTo(fromCardinal, 0);
        }
      }),
      { seed: 12, numRuns: 60 },
    );
  });
  it('count each cell with all that drains to it, by way of pipes too, in an order that donors lead', () => {
    fc.assert(
      fc.property(rough, fc.array(fc.tuple(fc.nat(220), fc.nat(220)), { maxLength: 6 }), (grid, pairs) => {
        const n = grid.z.length;
        const filled = fillDepressions(grid);
        const pipes = new Map(pairs.filter(([a, b]) => a < n && b < n));
        const flow = flowOf(grid, filled, pipes);
        const below = Array.from({ length: n }, (_, i) => receiverOf(flow, i));
        const count = Array.from(grid.z, (z) => (Number.isNaN(z) ? 0 : 1));
        const highestFirst = [...count.keys()].filter((i) => count[i] > 0).sort((a, b) => filled[b] - filled[a]);
        for (const i of highestFirst) if (below[i] >= 0) count[below[i]] += count[i];
        expect([...flow.cells]).toEqual(count);
        expect([...flow.jumps.keys()].every((from) => below[from] === pipes.get(from))).toBe(true);
        const place = new Map([...flow.order].map((i, at) => [i, at]));
        expect(place.size).toBe(count.filter((c) => c > 0).length);
        expect([...place].every(([i, at]) => below[i] < 0 || (place.get(below[i]) ?? -1) > at)).toBe(true);
      }),
      { seed: 13, numRuns: 150 },
    );
  });
  it('leave nothing behind: a run after others gives what it gave before', () => {
    const [large, small] = [64, 9].map((size) =>
      gridFromLevels(
        { ncols: size, nrows: size, cellM: 1, west: 0, south: 0 },
        Array.from({ length: size * size }, (_, i) => ((i * 7919) % 101) / 10),
      ),
    );
    const run = (grid: Grid) => flowOf(grid, fillDepressions(grid));
    const first = run(small);
    run(large);
    expect(run(small)).toEqual(first);
  });
});
