// Tanks of mortar and of crates: published rows, what they take by hand, days, and what cannot be.
import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { SILL, SWALE, derived, planeProject } from '../../testing/projects.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { judgeBy } from '../rules.ts';
import { registry } from '../index.ts';
import { crateKg, crateParts, crateSteps } from './crates.ts';
import { BAR_NEEDED, CRATE_ROOM, HOOP_PULL, MORTAR_STRESS } from './formulas.ts';
import { TANK_RULES, type Tank, holdsM3, newTank, tank } from './index.ts';
import { quantitiesOf } from './making.ts';
import { daysToFull, mortarKg, mortarParts, mortarSteps } from './mortar.ts';
import { storeOf } from './standing.ts';

const SITE = siteOf(gridOf(() => 100, { cells: 201, cellM: 1 }));
const MORTAR: Tank = newTank('m', 'Mortar', { how: 'mortar-tank', at: [60, 60] });
const CRATES: Tank = newTank('c', 'Crates', { how: 'crate-tank', at: [60, 60] });
const amountOf = (tank: Tank, item: string): number | null | undefined => quantitiesOf(tank).find((q) => q.item === item)?.likely;

describe('published rows (handbook 6, computed there)', () => {
  it('2.5 m of water in a tank of 1.5 m radius pull 36.8 kN/m: 263 mm2/m of steel at 140 MPa, 0.92 MPa in 40 mm', () => {
    const T = HOOP_PULL.evaluate({ h: 2.5, r: 1.5 });
    expect(T).toBeCloseTo(36.8, 1);
    expect(BAR_NEEDED.evaluate({ T, fs: 140 })).toBeCloseTo(263, 0);
    expect(MORTAR_STRESS.evaluate({ T, t: 40 })).toBeCloseTo(0.92, 2);
  });
  it('5 m3 in crates ask for 5.26 m3, in gravel for 14.3', () => {
    expect(CRATE_ROOM.evaluate({ V: 5, n: 0.95 })).toBeCloseTo(5.26, 2);
    expect(CRATE_ROOM.evaluate({ V: 5, n: 0.35 })).toBeCloseTo(14.3, 1);
  });
});

describe('a tank of mortar', () => {
  it('its mortar by rings cut open, its cement, sand and water as heavy as its mortar', () => {
    const p = mortarParts(MORTAR);
    // Outer less inner cylinder, and a cap by its radius of curvature: other forms of the same.
    expect(p.wallM3).toBeCloseTo(Math.PI * (1.35 ** 2 - 1.3 ** 2) * 2, 9);
    const [r, rise] = [1.35, 2 * 1.35 * 0.2];
    const R = (r * r + rise * rise) / 2 / rise;
    expect(p.topM3).toBeCloseTo(2 * Math.PI * R * rise * 0.04, 9);
    expect(p.slabM3).toBeCloseTo(((Math.PI * 3 ** 2) / 4) * 0.1, 9);
    const slabCement = p.slabM3 * 1.1 * 300;
    const cement = p.cementKg - slabCement;
    const sand = p.sandKg - 2 * slabCement;
    expect(cement + sand + 0.45 * cement).toBeCloseTo((p.wallM3 + p.topM3) * 1.1 * 2200, 6);
    expect(amountOf(MORTAR, 'cement')).toBe(Math.ceil(p.cementKg / 50));
    expect(amountOf(MORTAR, 'mortar-coat')).toBeCloseTo(p.wallM3 / 3, 9);
  });
  it('its own weight is told with its water', () => {
    const figures = tank.place(MORTAR, { groundM: 100 }, null).figures(factsOf(SITE), new Worksheet('m'));
    const { label, value } = figures.find((f) => f.id === 'weighsT')!;
    expect([label, value]).toEqual(['Each weighs, full', expect.closeTo(Math.PI * 1.3 ** 2 * 2 + mortarKg(MORTAR) / 1000, 9)]);
  });
  it('several alike are so many times one, but for the form; nothing is short', () => {
    const three = { ...MORTAR, count: 3 };
    for (const key of ['wallM3', 'slabM3', 'topM3', 'cementKg', 'barM', 'meshM2'] as const)
      expect(mortarParts(three)[key]).toBeCloseTo(3 * mortarParts(MORTAR)[key], 6);
    expect(mortarKg(three)).toBeCloseTo(mortarKg(MORTAR), 6);
    expect(amountOf(three, 'form')).toBe(amountOf(MORTAR, 'form'));
    for (const item of ['mortar', 'concrete', 'cement', 'sand', 'stone-slab', 'netting', 'bar', 'form', 'tap', 'screen'])
      expect(amountOf(MORTAR, item)).toBeGreaterThan(0);
  });
  it('an open one has no top and is sooner full; its days follow one another', () => {
    const open: Tank = { ...MORTAR, lid: 'open' };
    expect([mortarParts(open).topM3, daysToFull(MORTAR) - daysToFull(open)]).toEqual([0, 2]);
    const days = mortarSteps(MORTAR, { groundM: 100 }).flatMap((s) => [...words(s.does).matchAll(/Day (\d+)/g)].map((m) => Number(m[1])));
    expect(days).toEqual([...days].sort((a, b) => a - b));
    expect(daysToFull(MORTAR)).toBe(2 + 2 + 3 + 2 + 14 + 4);
    expect(words(mortarSteps(MORTAR, { groundM: 100 }).at(-1)!.does)).toMatch(/whom to ask/);
  });
  it('sunk it stays down by its own weight, which nobody need say', () => {
    const sunk: Tank = { ...withAt(MORTAR, 'dimensions.standM', -1.9), stands: 'buried', waterTableM: 1.5 };
    const rule = TANK_RULES.find((r) => r.id === 'tank.floats')!;
    const found = judgeBy(rule, { ...factsOf(SITE), tank: sunk, ground: { groundM: 100 } })!;
    expect(found.value).toBeCloseTo(mortarKg(sunk) / 1000 / (Math.PI * 1.3 ** 2 * 0.4), 6);
  });
});

describe('crates in a pit', () => {
  it('water fills its share of them; soil and liner by the sides of a box', () => {
    expect(holdsM3(CRATES, 1.06)).toBeCloseTo(4 * 2.4 * 1.06 * 0.95, 9);
    const p = crateParts(CRATES);
    expect(p.dugM3).toBeCloseTo(4.6 * 3 * 1.9, 9);
    expect(p.cratesM3).toBeCloseTo(4 * 2.4 * 1.2, 9);
    expect(p.linerM2).toBeCloseTo((2 * 9.6 + 2 * 6.4 * 1.2) * 1.075 * 1.1, 9);
    expect(p.underlayM2).toBeCloseTo(2 * p.linerM2, 9);
    expect(crateKg(CRATES)).toBeCloseTo(45 * 11.52 + 1600 * 9.6 * 0.6, 6);
  });
  it('an old pool is not dug but drilled through; its shape by what was measured inside', () => {
    const pool: Tank = { ...withAt(CRATES, 'crates.pit', 'old-pool'), form: 'measured', ledges: [{ heightM: 0, areaM2: 12 }, { heightM: 0.8, areaM2: 20 }, { heightM: 1.2, areaM2: 24 }] }; // prettier-ignore
    expect(crateParts(pool).dugM3).toBe(0);
    expect(amountOf(pool, 'cut')).toBeUndefined();
    expect(holdsM3(pool, 1.2)).toBeCloseTo(0.95 * (16 * 0.8 + 22 * 0.4), 9);
    expect(words(crateSteps(pool, { groundM: 100 })[1].does)).toMatch(/drill its floor through/);
    expect(registry.bind(pool).validate()).toEqual([]);
  });
  it('paving above brings its rain; without any none falls in', () => {
    expect(storeOf(CRATES, { groundM: 100 }).waterM2).toBeUndefined();
    expect(storeOf(withAt(CRATES, 'crates.pavedM2', 30), { groundM: 100 })).toMatchObject({ waterM2: 30, isCovered: true });
  });
  it('paving takes its rain off the ground it lies on: what runs to the swale below is less by as much', () => {
    const over = (pavedM2: number): Tank => withAt({ ...CRATES, at: [101, 151] as const }, 'crates.pavedM2', pavedM2);
    const catches = (tank: Tank, store: string): number => derived(planeProject({}, [SWALE, SILL, tank])).derived.catchments.find((c) => c.of === store)?.areaM2 ?? 0; // prettier-ignore
    const bare = catches(over(0), 'w1');
    expect(bare).toBeGreaterThan(1000);
    // Nine cells of two metres.
    expect(bare - catches(over(36), 'w1')).toBeCloseTo(36, 6);
    expect([catches(over(0), 'c'), catches(over(36), 'c')]).toEqual([0, 36]);
    // It is paving, and asked nothing about soil.
    const { checks } = derived(planeProject({}, [SWALE, SILL, over(36)])).derived;
    for (const [on, isAsked] of [
      ['w1', true],
      ['c', false],
    ] as const)
      expect(checks.some((c) => c.on === on && /^(ground|runoff)\./.test(c.id))).toBe(isAsked);
    expect(checks.filter((c) => c.on === 'c').length).toBeGreaterThan(10);
  });
});

describe('what cannot be', () => {
  it.each([
    [
      'a lying tank of mortar',
      { ...MORTAR, form: 'lying', dimensions: { ...MORTAR.dimensions, diameterM: 2.6 } },
      'tank.mortar-form',
      /round and upright/,
    ],
    ['a round tank of crates', { ...CRATES, form: 'upright' }, 'tank.crates-form', /a box/],
    ['half a coat', withAt(MORTAR, 'mortar.coats', 2.5), 'work.field-whole', /whole number/],
    ['a wall of a hair', withAt(MORTAR, 'mortar.wallM', 0.001), 'work.field-range', /from/],
  ])('%s is refused in words', (...[, tank, code, says]) => {
    const [problem] = registry.bind(tank).validate();
    expect(problem.code).toBe(code);
    expect(words(problem.do)).toMatch(says);
  });
});
