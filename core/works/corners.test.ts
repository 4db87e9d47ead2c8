// Corners moved by hand, and what stands along the line.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { WorkBase } from '../contract/index.ts';
import { type Line, lineLength, pointAlong } from '../geometry/index.ts';
import { EVERY_KIND } from '../testing/valley.ts';
import { cornersOf, keptAlong, movedCorner } from './corners.ts';
import { valueAt } from './fields.ts';
import { catalogue, registry } from './index.ts';

const LINE: Line = [[0, 0], [10, 0], [10, 20]]; // prettier-ignore

describe('corners', () => {
  it('by hand: what lies half way along a stretch stays half way, what lies at a corner stays at it', () => {
    const after: Line = [[0, 0], [30, 0], [10, 20]]; // prettier-ignore
    const far = Math.hypot(20, 20);
    expect([0, 5, 10, 20, 30].map((v) => keptAlong(LINE, after, v))).toEqual([0, 15, 30, expect.closeTo(30 + far / 2, 9), expect.closeTo(30 + far, 9)]); // prettier-ignore
    // What was rounded a hair past the end stands at the end, and is never put beyond it.
    expect(keptAlong(LINE, after, 30.0004)).toBeCloseTo(30 + far, 9);
    const end = { id: 'd', kind: 'x', name: 'D', status: 'planned', line: LINE, basins: [{ atM: 30 }] } as WorkBase;
    const moved = movedCorner(end, { paths: ['line'], along: ['basins'] }, { path: 'line', k: 1, to: [30, 0] });
    expect(moved['basins.0.atM']).toBe(Math.floor(1000 * (30 + far)) / 1000);
    const drain = { id: 'd', kind: 'x', name: 'D', status: 'planned', line: LINE, basins: [{ atM: 5 }, { atM: 10 }] } as WorkBase;
    expect(movedCorner(drain, { paths: ['line'], along: ['basins'] }, { path: 'line', k: 1, to: [30.00049, 0] })).toEqual({
      line: [[0, 0], [30, 0], [10, 20]], 'basins.0.atM': 15, 'basins.1.atM': 30,
    }); // prettier-ignore
  });
  it('property: places go with their stretch, and order is kept', () => {
    const number = fc.double({ min: -50, max: 50, noNaN: true });
    const place = fc.double({ min: 0, max: 30, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(number, number), place, place, ([x, y], a, b) => {
        const after: Line = [[0, 0], [x, y], [10, 20]]; // prettier-ignore
        const [lo, hi] = [Math.min(a, b), Math.max(a, b)];
        expect(keptAlong(LINE, after, lo)).toBeLessThanOrEqual(keptAlong(LINE, after, hi) + 1e-9);
        expect(keptAlong(LINE, after, hi)).toBeLessThanOrEqual(lineLength(after) + 1e-9);
        // The same share of the same stretch, seen as a place.
        const share = a <= 10 ? a / 10 : (a - 10) / 20;
        const [from, to] = a <= 10 ? [after[0], after[1]] : [after[1], after[2]];
        const at = pointAlong(after, keptAlong(LINE, after, a)).point;
        if (lineLength(after) > 1 && Math.hypot(to[0] - from[0], to[1] - from[1]) > 0.1)
          expect(Math.hypot(at[0] - (from[0] + share * (to[0] - from[0])), at[1] - (from[1] + share * (to[1] - from[1])))).toBeLessThan(
            1e-3,
          );
      }),
      { seed: 93, numRuns: 80 },
    );
  });
  it('of every kind that has any can be moved, and moved back to what it was', () => {
    const movable = EVERY_KIND.filter((w) => catalogue.describe(w).corners);
    expect(movable.map((w) => w.kind).sort()).toEqual(['piped-drain', 'reach', 'regrade', 'seep-drain', 'sump-pump', 'supply-line'].sort());
    for (const work of movable) {
      const spec = catalogue.describe(work).corners!;
      const [first] = cornersOf(work, spec);
      const moved = apply(work, movedCorner(work, spec, { path: first.path, k: first.k, to: [first.at[0] + 0.4, first.at[1] + 0.3] }));
      expect(registry.bind(moved).validate()).toEqual([]);
      const back = apply(moved, movedCorner(moved, spec, { path: first.path, k: first.k, to: first.at }));
      expect(valueAt(back, first.path)).toEqual(valueAt(work, first.path));
      for (const list of spec.along ?? [])
        (valueAt(work, list) as readonly { atM: number }[]).forEach(({ atM }, n) => {
          expect(valueAt(back, `${list}.${n}.atM`)).toBeCloseTo(atM, 2);
        });
    }
  });
});

/** A copy with values at dotted paths. */
function apply(work: WorkBase, set: Readonly<Record<string, unknown>>): WorkBase {
  const copy = JSON.parse(JSON.stringify(work)) as Record<string, unknown>;
  for (const [path, value] of Object.entries(set)) {
    const keys = path.split('.');
    const last = keys.pop()!;
    (keys.reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], copy) as Record<string, unknown>)[last] = value;
  }
  return copy as unknown as WorkBase;
}
