// Vessels: closed forms against a numerical integral of another hand, what they say and take, what they refuse.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyCommand } from '../../commands/index.ts';
import { derive } from '../../derive/index.ts';
import { Worksheet } from '../../formula/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { route } from '../../network/index.ts';
import type { Project } from '../../project/index.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { TANK } from '../../testing/valley-fields.ts';
import { judgeBy } from '../rules.ts';
import { registry } from '../index.ts';
import { OVERFLOW_PASSES, TANK_FLOATS, TANK_PRESSES } from './formulas.ts';
import { TANK_RULES, type Tank, holdsM3, newTank, rimHeight, tank } from './index.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { joinFlow, lostM3, measureTank, oneM3, overflowPasses, storeOf } from './standing.ts';

const SITE = siteOf(gridOf(() => 100, { cells: 201, cellM: 1 }));
const ONE: Tank = { ...TANK, at: [60, 60] };
const formed = (form: Tank['form'], dimensions: Partial<Tank['dimensions']>, more: Partial<Tank> = {}): Tank => ({ ...ONE, ...more, form, dimensions: { ...ONE.dimensions, ...dimensions } }); // prettier-ignore

/** Width of a shape at a height, from its drawing, and thin slices of it: a second way to its volume. */
const AREAS: Readonly<Record<string, (t: Tank, y: number) => number>> = {
  upright: ({ dimensions: { diameterM } }) => Math.PI * (diameterM / 2) ** 2,
  lying: ({ dimensions: { diameterM: d, lengthM } }, y) => lengthM * 2 * Math.sqrt(Math.max(0, (d / 2) ** 2 - (y - d / 2) ** 2)),
  box: ({ dimensions: { lengthM, widthM } }) => lengthM * widthM,
  cone: ({ dimensions: { diameterM, topM, heightM } }, y) => Math.PI * ((diameterM + ((topM - diameterM) * y) / heightM) / 2) ** 2,
  measured: ({ ledges = [] }, y) => {
    const k = Math.max(1, ledges.findIndex((l) => l.heightM >= y)); // prettier-ignore
    const [a, b] = [ledges[k - 1], ledges[k]];
    return a.areaM2 + ((b.areaM2 - a.areaM2) * (y - a.heightM)) / (b.heightM - a.heightM);
  },
};
function sliced(t: Tank, h: number): number {
  const n = 20_000;
  let sum = 0;
  for (let k = 0; k < n; k++) sum += AREAS[t.form](t, ((k + 0.5) / n) * h);
  return (sum * h) / n;
}
const LEDGES = [
  { heightM: 0, areaM2: 6 },
  { heightM: 0.7, areaM2: 9 },
  { heightM: 1.8, areaM2: 9.5 },
];

describe('what it holds', () => {
  it.each(['upright', 'lying', 'box', 'cone', 'measured'] as const)('%s: as slices of its drawing', (form) => {
    fc.assert(
      fc.property(
        fc.record({ d: fc.double({ min: 0.4, max: 6, noNaN: true }), t: fc.double({ min: 0.4, max: 6, noNaN: true }), share: fc.double({ min: 0.02, max: 1, noNaN: true }) }), // prettier-ignore
        ({ d, t, share }) => {
          const one = formed(form, { diameterM: d, topM: t, lengthM: 2.3, widthM: 1.4 }, { ledges: LEDGES });
          const h = share * rimHeight(one);
          const expected = sliced(one, h);
          expect(Math.abs(oneM3(one, h) - expected)).toBeLessThan(1e-4 * expected + 1e-6);
        },
      ),
      { seed: 15, numRuns: 25 },
    );
  });
  it('a lying one half full holds half of its cylinder; two alike hold twice one', () => {
    const lying = formed('lying', { diameterM: 1.2, lengthM: 3 }, { count: 1 });
    expect(oneM3(lying, 0.6)).toBeCloseTo((Math.PI * 0.36 * 3) / 2, 9);
    expect(oneM3(lying, 1.2)).toBeCloseTo(Math.PI * 0.36 * 3, 9);
    expect(holdsM3({ ...lying, count: 2 }, 0.5)).toBeCloseTo(2 * holdsM3(lying, 0.5), 9);
  });
  it('is a store from floor to overflow, found full, its water under a lid; what lies under the tap is dead', () => {
    const store = storeOf(ONE, measureTank(ONE, SITE));
    expect([store.floorM, store.sillM, store.crestM]).toEqual([100.4, 100.4 + 1.66, 100.4 + 1.8]);
    expect(store.heldM3).toBeCloseTo(2 * Math.PI * 1.66, 9);
    expect(store.deadM3).toBeCloseTo(2 * Math.PI * 0.08, 9);
    expect([store.keeps, store.isCovered, store.waterM2, store.seepsMmPerHour]).toEqual([true, true, undefined, 0]);
    expect(storeOf({ ...ONE, lid: 'open' }, { groundM: 100 }).waterM2).toBeCloseTo(2 * Math.PI, 9);
    const levels = [...store.stage.levelM];
    expect(levels).toContainEqual(store.sillM);
    for (let k = 1; k < levels.length; k++) expect(store.stage.volumeM3[k]).toBeGreaterThan(store.stage.volumeM3[k - 1]);
  });
});

describe('two vessels joined at their feet', () => {
  const project = (joinPipeM: number | undefined): Project => {
    const joined = { ...ONE, id: 'b', name: 'Second', at: [64, 60] as const, count: 1, levelsWith: 'a', ...(joinPipeM === undefined ? {} : { joinPipeM }) }; // prettier-ignore
    const first: Tank = { ...ONE, id: 'a', name: 'First', count: 1 };
    return planeProject({}, [first, joined]);
  };
  const joints = (p: Project): number => derive(p, { registry, grids: noGrid }).derived.links.filter((l) => l.outlet.endsWith('#join')).length; // prettier-ignore
  it('are joined once the pipe between them is known, and not before', () => {
    expect([joints(project(undefined)), joints(project(0.05))]).toEqual([0, 1]);
  });
  it('water runs through it from the higher to the lower, as through an opening, and not under its sole', () => {
    const flow = joinFlow(0.1, 100);
    // 0.6 · π/4 · 0.01 · (2 · 9.81 · 0.5)^0.5
    expect(flow(101, 100.5)).toBeCloseTo(0.6 * (Math.PI / 400) * Math.sqrt(9.81), 9);
    expect([flow(100, 99), flow(101, 101)]).toEqual([0, 0]);
    // The lower vessel stands under the pipe: what runs is decided by the sole.
    expect(flow(101, 99)).toBe(flow(101, 100));
  });
  it('is solved with the storm: what comes to one stands as high in both', () => {
    const stage = (area: number) => ({
      levelM: Float64Array.of(100, 103),
      volumeM3: Float64Array.of(0, 3 * area),
      wettedM2: Float64Array.of(0, 0),
    });
    const flow = joinFlow(0.1, 100);
    const inflow = Array.from({ length: 600 }, (_, i) => (i < 60 ? 0.001 : 0));
    const joint = { id: 'j', to: 'b', lagS: 0, isJoint: true, flowAt: (a: number, b = 0) => (a >= b ? flow(a, b) : -flow(b, a)) };
    const run = route({ stores: [{ id: 'a', stage: stage(1), inflow, outlets: [joint] }, { id: 'b', stage: stage(4), inflow: [], outlets: [] }], stepS: 60, steps: 600 }); // prettier-ignore
    // 3.6 m3 over 1 + 4 m2.
    const ends = ['a', 'b'].map((id) => run.stores.get(id)!.levelM[600]);
    expect(ends[0]).toBeCloseTo(100 + 3.6 / 5, 4);
    expect(Math.abs(ends[0] - ends[1])).toBeLessThan(0.002);
  });
});

describe('its overflow', () => {
  it('an opening of 100 mm with 0.1 m of water over its middle passes 6.7 L/s: not enough for 200 m2 of roof', () => {
    // Handbook 6: by the law of an opening, coefficient 0.6 (computed there).
    expect(1000 * OVERFLOW_PASSES.evaluate({ D: 0.1, H: 0.15 })).toBeCloseTo(6.6, 1);
  });
  it('passes nothing at its lowest, and never less with more water over it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.03, max: 0.4, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (D, H) => {
        expect(OVERFLOW_PASSES.evaluate({ D, H: H + 0.01 })).toBeGreaterThan(OVERFLOW_PASSES.evaluate({ D, H }));
      }),
      { seed: 6, numRuns: 60 },
    );
    expect(OVERFLOW_PASSES.evaluate({ D: 0.1, H: 0 })).toBe(0);
    expect(OVERFLOW_PASSES.evaluate({ D: 0.1, H: 0.1 }) / OVERFLOW_PASSES.evaluate({ D: 0.1, H: 0.099999 })).toBeCloseTo(1, 3);
  });
  it('set too low it tells the litres lost, and raising it by its cure loses none', () => {
    const low = withAt(ONE, 'dimensions.overflowM', 1.2);
    expect(lostM3(low)).toBeCloseTo(2 * Math.PI * (1.8 - 0.11 - 0.02 - 1.2), 6);
    const facts = { ...factsOf(SITE), tank: low, ground: { groundM: 100 } };
    const { cure } = judgeBy(TANK_RULES[0], facts)!;
    const project = planeProject({}, [low]);
    const payload = { changes: [{ id: 'tank', set: cure!.set }] };
    const mended = applyCommand(project, { type: 'works.change', payload }, registry).project.options[0].works[0] as Tank;
    expect(lostM3(mended)).toBeLessThan(0.01);
    expect(overflowPasses(mended)).toBeGreaterThan(0);
  });
});

describe('what it says and takes', () => {
  it('a cubic metre on a square metre presses 9.81 kPa; 330 kg hold 0.3 m3 down by a tenth', () => {
    expect(TANK_PRESSES.evaluate({ V: 1, m: 0, A: 1 })).toBeCloseTo(9.81, 9);
    expect(TANK_FLOATS.evaluate({ m: 330, c: 0, V: 0.3 })).toBeCloseTo(1.1, 9);
  });
  it('figures of two: litres, what can be drawn, weight of each, money for 1000 L; its working is kept', () => {
    const sheet = new Worksheet('tank');
    const placed = tank.place({ ...ONE, cost: 1200, emptyKg: 140 }, { groundM: 100 }, null);
    const figures = placed.figures(factsOf(SITE), sheet);
    const valueOf = (id: string): number | null => figures.find((f) => f.id === id)!.value;
    expect(valueOf('drawnM3')).toBeCloseTo(2 * Math.PI * (1.66 - 0.08), 9);
    expect(valueOf('weighsT')).toBeCloseTo(Math.PI * 1.8 + 0.14, 9);
    expect(valueOf('pressesKPa')).toBeCloseTo((9.81 * (Math.PI * 1.8 + 0.14)) / Math.PI, 9);
    expect(valueOf('costPerLitre')).toBeCloseTo(1200 / (2 * Math.PI * 1.66), 9);
    expect(sheet.lines.map((l) => l.formula)).toEqual(['tank.upright', 'tank.overflow', 'tank.presses']);
    // Where nobody has weighed it, its water alone is told, and said to be.
    const bare = tank.place(ONE, { groundM: 100 }, null).figures(factsOf(SITE), new Worksheet('t'));
    const weighs = bare.find((f) => f.id === 'weighsT')!;
    expect(weighs.label).toBe('Water in each, to its rim');
    expect(weighs.value).toBeCloseTo(Math.PI * 1.8, 9);
    expect(placed.marks.map((m) => [m.role, m.levelM])).toEqual([['crest', 102.2], ['sill', 102.06], ['floor', 100.4]]); // prettier-ignore
  });
  it('joints are one fewer than vessels; a sunken one is dug, and nobody stands in its trench', () => {
    const count = (t: Tank, item: string): number | null | undefined => quantitiesOf(t).find((q) => q.item === item)?.likely;
    expect([count(ONE, 'joint'), count(ONE, 'screen'), count(ONE, 'cut')]).toEqual([1, 4, undefined]);
    const sunk: Tank = { ...withAt(ONE, 'dimensions.standM', -1.5), stands: 'buried' };
    expect(count(sunk, 'cut')).toBeCloseTo(2 * (Math.sqrt(Math.PI) + 1) ** 2 * 1.6, 6);
    const told = stepsOf(sunk, { groundM: 100 }).flatMap((s) => s.cautions).join(' '); // prettier-ignore
    expect(told).toMatch(/cables and pipes.*upright sides.*its air may kill/);
  });
  it('its section is its own shape, water and all', () => {
    const cone = formed('cone', { diameterM: 1, topM: 2, heightM: 1.8 });
    const { parts } = tank.place(cone, { groundM: 100 }, null).section!(100.4 + 0.9);
    const water = parts.find((p) => p.role === 'water')!.points;
    expect(Math.max(...water.map((p) => p[0]))).toBeCloseTo(0.75, 6);
    expect(Math.max(...water.map((p) => p[1]))).toBeCloseTo(101.3, 6);
  });
  it('begins as a barrel, a tote or a cistern that hold 198, 920 and 9048 L', () => {
    const litres = ['barrel', 'tote', 'cistern'].map((how) => {
      const one = newTank('t', 'T', { how, at: [0, 0] });
      return Math.round(1000 * holdsM3(one, one.dimensions.overflowM));
    });
    expect(litres).toEqual([198, 920, 9048]);
  });
});

describe('what cannot be', () => {
  it.each([
    ['an overflow over its rim', { dimensions: { ...ONE.dimensions, overflowM: 1.75 } }, 'tank.over-rim', /1\.80 m at the most/],
    ['an inlet over its rim', { dimensions: { ...ONE.dimensions, inletM: 1.9 } }, 'tank.over-rim', /at the most/],
    ['a tap over its overflow', { dimensions: { ...ONE.dimensions, tapM: 1.7 } }, 'tank.tap', /lower/],
    ['half a barrel', { count: 1.5 }, 'work.field-whole', /whole number/],
    ['nowhere', { at: [NaN, 0] }, 'work.place', /\[x, y\]/],
    ['measured at one height', { form: 'measured', ledges: [LEDGES[0]] }, 'tank.ledges', /from below up/],
    ['measured upside down', { form: 'measured', ledges: [...LEDGES].reverse() }, 'tank.ledges', /from below up/],
    ['a wall that crosses itself', { form: 'measured', ledges: [{ heightM: 0, areaM2: -1 }, LEDGES[1]] }, 'work.field-range', /from/],
  ])('%s is refused in words', (...[, change, code, says]) => {
    const [problem] = registry.bind({ ...ONE, ...change }).validate();
    expect(problem.code).toBe(code);
    expect(words(problem.do)).toMatch(says);
  }); // prettier-ignore
});
