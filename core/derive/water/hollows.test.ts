// Several works in one hollow: one water, counted once, let out by all of them.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Condition, WorkBase } from '../../contract/index.ts';
import { derived, noGrid, planeProject } from '../../testing/projects.ts';
import { derive } from '../derive.ts';
import { verdict } from '../tell/verdict.ts';
import { type PipedDrain, type Sump, newDrain, newSeepDrain, newSump, registry } from '../../works/index.ts';

const [CELLS, CELL_M] = [81, 0.5];
// A yard like a bowl: up to a round ridge at 15 m, beyond which the ground falls away.
const BOWL = Array.from({ length: CELLS * CELLS }, (_, i) => {
  const [x, y] = [((i % CELLS) + 0.5) * CELL_M, (CELLS - Math.floor(i / CELLS) - 0.5) * CELL_M];
  const r = Math.hypot(x - 20, y - 20);
  return 100 + 0.03 * Math.min(r, 30 - r);
});
const grate = (atM: number, invertM: number) => ({ atM, invertM, pipeM: 0.1, grateLongM: 0.3, grateWideM: 0.3, sumpM: 0.15 });
const drain = (id: string, x: number, pipeM = 0.1): PipedDrain =>
  newDrain(id, `Drain ${id}`, { line: [[x, 20], [x, 2]], basins: [{ ...grate(0, 99.6), pipeM }], levels: { outletM: 99.4 } } as never); // prettier-ignore
const [EAST, WEST] = [drain('e', 21), drain('w', 19)];
const sump = (id: string): Sump => ({
  ...newSump(id, 'Sump', { line: [[20, 21], [38, 21]], levels: { floorM: 98.8, stopM: 99, startM: 99.4, rimM: 100.02, deliveryM: 100.8 }, lengthM: 20 }),
  backup: 'battery', batteryWh: 5000, flowM3s: 0.01,
}); // prettier-ignore
const seep = newSeepDrain('h', 'Holed pipe', { line: [[24, 20], [16, 20]], purpose: 'yard', levels: { upperM: 99.5, outletM: 99.42 } }); // prettier-ignore

const projectOf = (...works: readonly WorkBase[]) =>
  planeProject(
    {
      terrain: { kind: 'grid', ncols: CELLS, nrows: CELLS, west: 0, south: 0, cellM: CELL_M, rows: 'north-first', z: BOWL },
      site: { crs: null, outline: [], zeroLevelM: 0 },
    },
    works,
  );
const of = (...works: readonly WorkBase[]) => derived(projectOf(...works)).derived;
const highest = (d: ReturnType<typeof of>): number => Math.max(...d.stores.map((s) => s.worst.peakLevelM.value));
const yardsIn = (d: ReturnType<typeof of>) => d.stores.filter((s) => !s.name.endsWith('pit'));

describe('works in one hollow', () => {
  it('have one store between them, of the first, with the grates of all and one edge to run on over', () => {
    const d = of(EAST, WEST, sump('p'), seep);
    const [yard, ...none] = yardsIn(d);
    expect([yard.id, yard.work, yard.alsoOf, none]).toEqual(['e', 'e', ['w', 'p', 'h'], []]);
    expect(yard.name).toBe('Drain e and Drain w and Sump, yard and Holed pipe, yard');
    const roles = d.links.filter((l) => l.from === 'e').map((l) => [l.role, l.to]);
    for (const to of ['e:pipe1', 'w:pipe1', 'p']) expect(roles).toContainEqual(['mouth', to]);
    expect(d.outlets.filter((o) => o.role === 'on').length).toBeLessThanOrEqual(1);
    expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
  });
  it('each have an answer of their own: a drain by its pipes, a holed drain by its checks, a sump by its pit', () => {
    const d = of(EAST, seep, sump('p'));
    const words = (selected: string): string =>
      verdict('works', projectOf(EAST, seep, sump('p')), { derived: d, system: 'metric', selected })
        .map((p) => p.text)
        .join('');
    expect(words('e')).toMatch(/^Drain e leads away up to/);
    expect(words('h')).toMatch(/^Holed pipe: of \d+ checks/);
    expect(words('p')).toMatch(/^Sump passes the/);
  });
  it('hold its water once: the bowl by hand, and a dish about each lowest grate', () => {
    const [one, two] = [of(EAST), of(EAST, WEST)].map((d) => d.stores[0].stage);
    const at = (stage: typeof one, level: number): number => {
      const k = stage.findIndex((s) => s.levelM >= level);
      const [a, b] = [stage[k - 1], stage[k]];
      return a.volumeM3 + ((level - a.levelM) / (b.levelM - a.levelM)) * (b.volumeM3 - a.volumeM3);
    };
    // A cone of 3 %: π·d³/(3·0.03²), as far as half-metre cells have it.
    for (const depth of [0.25, 0.4]) expect(at(one, 100 + depth) / ((Math.PI * depth ** 3) / (3 * 0.03 ** 2))).toBeCloseTo(1, 1);
    const dish = at(two, 100.4) - at(one, 100.4);
    expect(dish).toBeGreaterThan(0.3);
    expect(dish).toBeLessThan(0.4);
  });
  it('begin where somebody said, of whichever of them it was said', () => {
    const project = projectOf(EAST, WEST);
    const begun = (starts: Record<string, number>) => derived({ ...project, options: [{ ...project.options[0], starts }] }).derived.stores[0].startM; // prettier-ignore
    expect([begun({ w: 100.2 }), begun({ e: 100.1 }), begun({ e: 100.1, w: 100.2 })]).toEqual([100.2, 100.1, 100.2]);
  });
  it('let nothing out through gravel that is open to the ground once all is blocked', () => {
    const open = { ...seep, top: 'open' as const };
    expect(registry.bind(open).traits).toMatchObject({ canBlock: true, isConduit: true });
    expect(registry.bind(seep).traits).toMatchObject({ canBlock: false, isConduit: false });
    const peak = (work: WorkBase, conditions: readonly Condition[]): number =>
      derive(projectOf(work), { registry, grids: noGrid, conditions }).derived.stores[0].peakLevelM!;
    // Closed it stands as under grass, open lower.
    expect(peak(open, ['blocked'])).toBeCloseTo(peak(seep, []), 9);
    expect(peak(open, [])).toBeLessThan(peak(open, ['blocked']));
  });
  it('keep the sill somebody said: a guess of another work is not put in its place', () => {
    const said = { ...EAST, thresholdM: 100.9 };
    const crest = (...works: readonly WorkBase[]) => of(...works).stores[0].crestM;
    expect([crest(said, WEST), crest(WEST, said), crest(said, { ...WEST, thresholdM: 100.8 } as WorkBase)]).toEqual([100.9, 100.9, 100.8]);
    expect(crest(EAST, WEST)).toBeCloseTo(crest(EAST), 9);
  });
  it('stand alike in whichever order they were drawn, and each is judged by that water', () => {
    const [one, other] = [of(EAST, WEST), of(WEST, EAST)];
    expect(highest(one)).toBeCloseTo(highest(other), 4);
    const stands = (d: ReturnType<typeof of>, on: string) => d.checks.find((c) => c.id === 'piped-drain.stands' && c.on === on)?.value;
    expect(stands(one, 'w')).toBeCloseTo(stands(other, 'w')!, 3);
    expect(stands(one, 'w')).toBeGreaterThan(0);
    // What both lead away together is what comes.
    const led = (d: ReturnType<typeof of>) => d.links.filter((l) => l.role === 'pipe').map((l) => l.volumeM3!);
    expect(Math.min(...led(one))).toBeGreaterThan(0.3 * Math.max(...led(one)));
    expect(one.catchments.filter((c) => c.of === 'e' || c.of === 'w').map((c) => c.of)).toEqual(['e']);
  });
  it('a sump in the yard of a drain that leads into it stands no higher for the water between the two', () => {
    const pit = sump('p');
    const into = { ...EAST, line: [[21, 20], [20.2, 21]], basins: [grate(0, 99.6)], levels: { outletM: 99.5 }, into: 'p' } as never as PipedDrain; // prettier-ignore
    const d = of(into, pit);
    expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
    expect(yardsIn(d).map((s) => s.id)).toEqual(['e']);
    expect(highest(d)).toBeLessThan(highest(of(pit)) + 1e-3);
    // No yard stands lower than the pit below it lets it.
    const dead = of(into, { ...pit, backup: 'none' } as Sump);
    expect(highest(dead)).toBeGreaterThan(highest(d));
  });
  it('property: one more drain never lets water stand higher', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(number(0.08, 0.3), number(17, 23), (pipeM, x) => {
        expect(highest(of(EAST, drain('w', x, pipeM)))).toBeLessThan(highest(of(EAST)) + 1e-3);
      }),
      { seed: 92, numRuns: 8 },
    );
  });
});
