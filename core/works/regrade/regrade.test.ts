import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '../../contract/index.ts';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { NO_TRAITS, begunBy, expectFields, landOf, wrong } from '../../testing/guests.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { factsOf, siteOf, withAt } from '../../testing/rules.ts';
import { EARTH_BALANCE } from './formulas.ts';
import { type Regrade, drawnOf, fallOf, newRegrade, regrade, reshapesOf } from './index.ts';
import { afterAt, areaOf, measureRegrade, narrowestM } from './standing.ts';

const RING: Line = [[20, 20], [30, 20], [30, 30], [20, 30]]; // prettier-ignore
const FLAT = gridOf(() => 100, { cells: 100, cellM: 0.5 });
const LAWN = newRegrade('lawn', 'Lawn', { shape: 'plane', ring: RING, levels: { levelM: 100, startM: 100, endM: 100 }, towardsDeg: 90 });
const DISH = newRegrade('dish', 'Dish', { shape: 'dish', line: [[10, 25], [40, 25]], levels: { levelM: 100, startM: 99.85, endM: 99.55 } }); // prettier-ignore
const RAISED: Regrade = { ...LAWN, shape: 'by', byM: 0.5 };
const placed = (work: Regrade, grid = FLAT) => regrade.place(work, measureRegrade(work, { grid }), null);

describe('what it makes of the ground', () => {
  it('is told by its shape, in data alone', () => {
    expect(reshapesOf(RAISED)).toEqual([{ what: 'by', ring: RING, batterHV: 4, byM: 0.5 }]);
    expect(reshapesOf({ ...LAWN, shape: 'fill' })).toEqual([{ what: 'fill', ring: RING, batterHV: 4, levelM: 100 }]);
    expect(reshapesOf(DISH)).toEqual([{ what: 'dish', line: DISH.line, startM: 99.85, endM: 99.55, bedWidthM: 0.3, sideHV: 5 }]);
    expect(reshapesOf(LAWN)).toMatchObject([{ what: 'plane', at: [20, 20], levelM: 100 }]);
    expect(regrade.reshapes!(LAWN)).toEqual(regrade.groundKey(LAWN));
  });
  it('falls by the compass', () => {
    const to = (towardsDeg: number) => fallOf({ fall: 0.02, towardsDeg }).map((v) => Math.round(1e6 * v) / 1e6);
    expect([to(0), to(90), to(180), to(270)]).toEqual([[0, 0.02], [0.02, 0], [0, -0.02], [-0.02, -0]].map((p) => p.map((v) => expect.closeTo(v, 9)))); // prettier-ignore
  });
  it('catches no water, stores none, and stands on its outline', () => {
    expect([regrade.intakes(LAWN), regrade.refs(LAWN), regrade.traits(LAWN)]).toEqual([[], [], NO_TRAITS]);
    expect(regrade.footprint(LAWN)).toEqual([[...RING, RING[0]]]);
    expect(drawnOf(DISH)).toBe(DISH.line);
    expect(placed(LAWN).stores([])).toEqual([]);
  });
});

describe('measured and told', () => {
  it('its earth, by the ground as surveyed: what is left over when fill is trodden in', () => {
    const ground = measureRegrade(RAISED, { grid: gridOf(() => 7, { cells: 100, cellM: 0.5 }), surveyed: FLAT });
    expect(ground.moved.highestFillM).toBeCloseTo(0.5, 9);
    expect(areaOf(RAISED, ground)).toBe(100);
    expect(narrowestM(RAISED, ground)).toBeCloseTo(5, 9);
    expect(narrowestM(DISH, measureRegrade(DISH, { grid: FLAT }))).toBeGreaterThan(1.8);
    expect(EARTH_BALANCE.evaluate({ C: 11, F: 10, k: 1.1 })).toBeCloseTo(0, 12);
    const sheet = new Worksheet('lawn');
    const figures = new Map(
      regrade
        .place(RAISED, ground, null)
        .figures(factsOf(siteOf(FLAT)), sheet)
        .map((f) => [f.id, f]),
    );
    expect(sheet.lines.map((l) => l.formula)).toEqual(['regrade.balance']);
    expect(figures.get('leftM3')).toMatchObject({ label: 'Earth wanting', value: 1.1 * ground.moved.fillM3 });
    // Three cubic metres a day: what is brought, and topsoil off and on again.
    expect(figures.get('hours')!.value).toBeCloseTo(((1.1 * ground.moved.fillM3 + 0.2 * ground.moved.fillM2) / 3) * 8, 6);
  });
  it('its quantities: cut and fill, what is over or wanting as it lies loose', () => {
    const of = (work: Regrade) =>
      Object.fromEntries(
        placed(work)
          .quantities(factsOf(siteOf(FLAT)))
          .map((q) => [q.item, q.likely]),
      );
    const up = of(RAISED);
    expect(up['cut']).toBe(0);
    expect(up['borrow']! / up['fill']!).toBeCloseTo(1.1 * 1.25, 9);
    expect(up['spoil']).toBeUndefined();
    const down = of({ ...RAISED, byM: -0.5, after: 'paving', dimensions: { ...RAISED.dimensions, topsoilM: 0 } });
    expect(down['spoil']! / down['cut']!).toBeCloseTo(1.25, 9);
    expect([down['topsoil'], down['seed'], up['seed']! > 100]).toEqual([undefined, undefined, true]);
  });
  it('its pegs with the ground as it is and as it will be, its marks, steps and section', () => {
    const pegs = placed(LAWN).pegs(5, null);
    expect(pegs[1]).toMatchObject({
      name: 'Lawn, corner 2',
      x: 30,
      y: 20,
      levelM: expect.closeTo(99.8, 9),
      groundM: expect.closeTo(100, 6),
    });
    expect(pegs.length).toBeGreaterThan(10);
    expect(placed(DISH).pegs(5, null)).toHaveLength(7);
    expect(placed(DISH).pegs(5, null)[6].levelM).toBeCloseTo(99.55, 9);
    expect(placed(DISH).marks.map((m) => m.path)).toEqual(['levels.startM', 'levels.endM']);
    expect([placed(LAWN).marks[0].name, placed(RAISED).marks]).toEqual(['First corner', []]);
    expect(
      placed(LAWN)
        .buildSteps()
        .map((s) => s.id),
    ).toEqual(['ask', 'peg', 'strip', 'move', 'grade', 'cover', 'after']);
    const [before, after] = placed(RAISED).section!(null).parts;
    expect(before.points.every(([, z]) => Math.abs(z - 100) < 1e-4)).toBe(true);
    expect(Math.max(...after.points.map(([, z]) => z))).toBeCloseTo(100.5, 6);
    expect(afterAt(DISH, measureRegrade(DISH, { grid: FLAT }), [25, 25])).toBeCloseTo(99.7, 9);
  });
});

describe('begun', () => {
  const grid = gridOf((x, y) => 100 - 0.05 * (x - 25) + 0.01 * (y - 25), { cells: 100, cellM: 0.5 });
  const first = (how: string, points: Line = RING, change = {}): Regrade =>
    (begunBy(regrade, { how, points }, landOf({ grid, ...change })) as readonly Regrade[])[0];
  it('falls the way the ground does, from its highest corner', () => {
    const plane = first('regrade-plane');
    expect(plane).toMatchObject({ shape: 'plane', fall: 0.02, towardsDeg: 135, levels: { levelM: expect.closeTo(100.3, 2) } });
    expect(plane.ring![0]).toEqual([20, 30]);
  });
  it('falls away from a wall beside it, from its corner there', () => {
    const plane = first('regrade-plane', RING, { buildings: [[[32, 18], [40, 18], [40, 32], [32, 32]]] }); // prettier-ignore
    expect(plane.towardsDeg).toBe(270);
    expect(plane.ring![0][0]).toBe(30);
    expect(first('regrade-plane', RING, { buildings: [[[42, 18], [48, 18], [48, 32]]] }).towardsDeg).toBe(135); // prettier-ignore
  });
  it('level where it balances, cut to the lowest of its edge, filled to where a hollow runs over', () => {
    expect(first('regrade-level').levels.levelM).toBeCloseTo(100, 2);
    expect(first('regrade-cut').levels.levelM).toBeCloseTo(99.7, 2);
    const bowl = gridOf((x, y) => 100 + 0.02 * Math.hypot(x - 25, y - 25) - (x > 32 ? 0.05 : 0), { cells: 100, cellM: 0.5 });
    const filled = first('regrade-fill', RING, { grid: bowl });
    expect(filled.levels.levelM).toBeGreaterThan(100.08);
    expect(filled.levels.levelM).toBeLessThan(100.2);
    expect(first('regrade-by')).toMatchObject({ shape: 'by', byM: 0.1 });
  });
  it('a dish runs down from its higher end, a hundredth at the least', () => {
    const dish = first('lawn-dish', [[40, 25], [10, 25]]); // prettier-ignore
    expect(dish.line).toEqual([[10, 25], [40, 25]]); // prettier-ignore
    expect(dish.levels.startM - dish.levels.endM).toBeCloseTo(1.5, 2);
    const flat = first('lawn-dish', [[10, 25], [40, 25]], { grid: FLAT }); // prettier-ignore
    expect(flat.levels).toMatchObject({ startM: 99.85, endM: 99.55 });
    expect(begunBy(regrade, { how: 'lawn-dish', points: [[10, 25], [900, 25]] }, landOf({ grid }))).toBe('work.off-terrain'); // prettier-ignore
  });
});

describe('validated', () => {
  it('every number of it, its choices, and an outline or a line', () => {
    expectFields(regrade, LAWN);
    expect(regrade.validate(DISH)).toEqual([]);
    expect(wrong(regrade, { ...LAWN, ring: RING.slice(0, 2) })).toEqual(['regrade.ring@ring']);
    expect(wrong(regrade, withAt(LAWN, 'ring', undefined))[0]).toMatch(/@ring$/);
    expect(wrong(regrade, withAt(DISH, 'line', [[1, 1]]))[0]).toMatch(/@line$/);
    expect(wrong(regrade, { ...LAWN, shape: 'mound' as 'by' })).toContain('work.choice@shape');
  });
});

describe('on the map', () => {
  const area = (works: readonly Regrade[], change = {}): { readonly pin: number; readonly hollows: number } => {
    const project = planeProject({ pins: [{ id: 'p', name: 'Pin', at: [101, 61] }], ...change } as never, works as readonly object[] as WorkBase[]);
    const { derived: d } = derived(project);
    return { pin: d.catchments.find((c) => c.of === 'p')!.areaM2, hollows: d.hollows.length };
  };
  // A trough across the slope above the pin, wide and deep enough for cells of two metres, leading its water off to the west.
  const trough: Regrade = { ...newRegrade('t', 'Trough', { shape: 'dish', line: [[150, 81], [40, 81]], levels: { levelM: 108, startM: 106.6, endM: 105.4 } }), dimensions: { batterHV: 4, bedWidthM: 4, sideHV: 3, topsoilM: 0.1 } }; // prettier-ignore
  it('water follows it at once; not while it is retired, nor twice where the survey shows it', () => {
    const without = area([]).pin;
    expect(area([trough]).pin).toBeLessThan(0.5 * without);
    expect(area([{ ...trough, status: 'built' }]).pin).toBe(area([trough]).pin);
    expect([area([{ ...trough, status: 'retired' }]).pin, area([{ ...trough, status: 'existing' }]).pin]).toEqual([without, without]);
  });
  it('a pit dug is a hollow that was not there', () => {
    const pit: Regrade = { ...newRegrade('pit', 'Pit', { shape: 'by', ring: [[90, 90], [110, 90], [110, 110], [90, 110]], levels: { levelM: 100, startM: 100, endM: 100 } }), byM: -3 }; // prettier-ignore
    expect([area([]).hollows, area([pit]).hollows]).toEqual([0, 1]);
  });
  it('each option has its own ground, and the survey stays what it was', () => {
    const project = planeProject({ pins: [{ id: 'p', name: 'Pin', at: [101, 61] }] } as never, []);
    const [bare] = project.options;
    const both = { ...project, options: [bare, { ...bare, id: 'shaped', name: 'Shaped', works: [trough] as readonly object[] as WorkBase[] }] };
    const of = (active: string): number => derived({ ...both, activeOption: active }).derived.catchments.find((c) => c.of === 'p')!.areaM2;
    expect(of('shaped')).toBeLessThan(0.5 * of(bare.id));
    expect(derived({ ...both, activeOption: 'shaped' }).derived.checks.find((c) => c.id === 'regrade.seen')).toMatchObject({ on: 't' });
  });
}); // prettier-ignore
