// Outlines of cells, held against cells flooded and counted; and cells gathered again and again in one room.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Point, signedArea } from '../geometry/index.ts';
import { gridOf } from '../testing/grids.ts';
import { CellRoom, edgeCells, fillDepressions, flowOf, outlineOf, setOf, shapeIn, shapeOf, slopesOf, upstreamOf } from './index.ts';

const WIDE = 9;
const grid = gridOf(() => 100, { cells: WIDE, cellM: 2 });

const STRAIGHT: readonly Point[] = [[1, 0], [-1, 0], [0, 1], [0, -1]]; // prettier-ignore
const ALL_ROUND: readonly Point[] = [...STRAIGHT, [1, 1], [1, -1], [-1, 1], [-1, -1]];

/** Cells reached from one over those that are let through. */
function flooded(from: number, ways: readonly Point[], isOpen: (cell: number) => boolean): Set<number> {
  const reached = new Set([from]);
  for (const at of reached) {
    for (const [dx, dy] of ways) {
      const [col, row] = [(at % WIDE) + dx, Math.floor(at / WIDE) + dy];
      const to = row * WIDE + col;
      if (col >= 0 && row >= 0 && col < WIDE && row < WIDE && isOpen(to)) reached.add(to);
    }
  }
  return reached;
}

/** Most cells any piece has with its holes: cells that touch at a corner are of one piece. */
function largestFilled(cells: ReadonlySet<number>): number {
  const edge = Array.from({ length: WIDE * WIDE }, (_, i) => i).filter(
    (i) => i % WIDE === 0 || i % WIDE === WIDE - 1 || i < WIDE || i >= WIDE * (WIDE - 1),
  );
  const sizes = [...cells].map((one) => {
    const piece = flooded(one, ALL_ROUND, (to) => cells.has(to));
    const outside = new Set(edge.filter((i) => !piece.has(i)).flatMap((i) => [...flooded(i, STRAIGHT, (to) => !piece.has(to))]));
    return WIDE * WIDE - outside.size;
  });
  return Math.max(0, ...sizes);
}

describe('the outline of cells', () => {
  it('goes round the largest piece with its holes, counter-clockwise, from corner to corner where it turns', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(WIDE * WIDE - 1), { minLength: 1, maxLength: 50 }), (cells) => {
        const ring = outlineOf(grid, setOf(Int32Array.from(cells), WIDE * WIDE));
        expect(signedArea(ring)).toBeCloseTo(4 * largestFilled(new Set(cells)), 9);
        ring.forEach(([x, y], k) => {
          const [before, after] = [ring[(k + ring.length - 1) % ring.length], ring[(k + 1) % ring.length]];
          // Along a row to it and along a column from it, or the other way round.
          expect([before[0] === x && after[1] === y, before[1] === y && after[0] === x].filter(Boolean)).toHaveLength(1);
        });
      }),
      { seed: 31, numRuns: 300 },
    );
  });
  it('of one cell is its four corners', () => {
    expect(outlineOf(grid, setOf(Int32Array.of(WIDE + 1), WIDE * WIDE))).toEqual([[2, 14], [4, 14], [4, 16], [2, 16]]); // prettier-ignore
    expect(outlineOf(grid, setOf(new Int32Array(0), WIDE * WIDE))).toEqual([]);
  });
});

describe('cells gathered in one room', () => {
  it('are those gathered each in a room of its own, and the room is clean after each', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(12), { minLength: 169, maxLength: 169 }),
        fc.array(fc.nat(168), { minLength: 1, maxLength: 6 }),
        (z, outlets) => {
          const rough = gridOf((x, y) => z[13 * Math.floor(y) + Math.floor(x)], { cells: 13, cellM: 1 });
          const filled = fillDepressions(rough);
          const flow = flowOf(rough, filled);
          const on = { edge: edgeCells(rough), slopes: slopesOf(rough, edgeCells(rough)) };
          const room = new CellRoom(169);
          for (const outlet of outlets) {
            const [own, shared] = [upstreamOf(flow, [outlet]), upstreamOf(flow, [outlet], room)];
            expect(shared.members).toEqual(own.members);
            const { mask: label } = shared;
            expect(shapeIn(rough, flow, { ...on, label, wanted: 1, members: shared.members, room })).toEqual(
              shapeOf(rough, flow, { ...own, ...on }),
            );
            room.clear(shared);
            expect([room.mask.some((m) => m !== 0), room.sides.some((s) => s !== 0)]).toEqual([false, false]);
          }
        },
      ),
      { seed: 32, numRuns: 60 },
    );
  });
});
