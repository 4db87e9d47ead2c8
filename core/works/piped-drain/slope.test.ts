import { describe, expect, it } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { newDrain } from './create.ts';
import { measureDrain } from './ground.ts';
import type { PipedDrain } from './index.ts';
import { onSlope, sharedBy } from './slope.ts';
import { intakesOf } from './standing.ts';

describe('a grate on a slope', () => {
  // A lawn that falls 4 % to the south, a drain down it with a basin at its head and one lower down.
  const lawn = gridOf((_x, y) => 100 + 0.04 * y, { cells: 81, cellM: 0.5 });
  const basin = (atM: number, invertM: number): PipedDrain['basins'][number] => ({
    atM,
    invertM,
    pipeM: 0.1,
    grateLongM: 0.3,
    grateWideM: 0.3,
    sumpM: 0.15,
  });
  const drain = newDrain('d', 'Drain', { line: [[20, 26], [20, 8]], basins: [basin(0, 100.4), basin(8, 100.1)], levels: { outletM: 99.7 } }); // prettier-ignore
  const dished: PipedDrain = { ...drain, dimensions: { ...drain.dimensions, acrossFall: 0.05 } };
  const measured = measureDrain(dished, { grid: lawn });
  it('takes its share, less of more, and never less in all; what passes is the next one’s', () => {
    expect(measured.falls.every((f) => Math.abs(f - 0.04) < 1e-6)).toBe(true);
    expect([onSlope(measured, 0), onSlope(measured, 1)]).toEqual([0, 1]);
    const [{ takes }] = intakesOf(dished, measured);
    for (const [k, [comes, taken]] of takes!.entries()) {
      expect(taken).toBeLessThanOrEqual(comes);
      if (k > 1) expect(taken / comes).toBeLessThanOrEqual(takes![k - 1][1] / takes![k - 1][0] + 1e-12);
      if (k > 0) expect(taken).toBeGreaterThanOrEqual(takes![k - 1][1]);
    }
    // Nobody has said how the ground leads to it: as it was, all that comes.
    expect(intakesOf(drain, measured)[0].takes).toBeUndefined();
    expect(sharedBy(drain, measured, { k: 0, flowM3s: 0.01 })).toBeNull();
  });
  it('longer, wider, or in a deeper dish it takes more', () => {
    const share = (change: Partial<PipedDrain['basins'][number]>, acrossFall = 0.05): number =>
      sharedBy({ ...drain, basins: drain.basins.map((b) => ({ ...b, ...change })), dimensions: { ...drain.dimensions, acrossFall } }, measured, { k: 0, flowM3s: 0.02 })!; // prettier-ignore
    const is = share({});
    expect(share({ grateLongM: 0.6 })).toBeGreaterThan(is);
    expect(share({ grateWideM: 0.6 })).toBeGreaterThan(is);
    expect(share({}, 0.1)).toBeGreaterThan(is);
  });
  it('in the storm, nothing is lost between what it takes and what passes', () => {
    const project = (work: PipedDrain) => planeProject({ terrain: { kind: 'grid', ncols: 81, nrows: 81, west: 0, south: 0, cellM: 0.5, rows: 'north-first', z: Array.from(lawn.z, (v) => v + lawn.baseM) }, site: { crs: null, outline: [], zeroLevelM: 0 } } as never, [work]); // prettier-ignore
    const { derived: d } = derived(project(dished));
    expect(Math.abs(d.balance!.errorFraction)).toBeLessThan(1e-9);
    const past = d.links.find((l) => l.outlet === 'd#intake:past')!;
    expect(past.volumeM3!).toBeGreaterThan(0);
    const all = derived(project(drain)).derived.stores[0].inM3!;
    expect((d.stores[0].inM3! + past.volumeM3!) / all).toBeCloseTo(1, 2);
    expect(d.checks.find((c) => c.id === 'piped-drain.on-slope')?.severity).not.toBe('unknown');
  });
});
