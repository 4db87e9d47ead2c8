// Seepage drains by hand: what seeps in, what pipe and gravel carry, how long a yard would wait; begun, taken, made.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Graph, beginWorks, derive } from '../../derive/index.ts';
import { DRAIN_SPACING } from '../../hydraulics/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { factsOf, siteOf, words } from '../../testing/rules.ts';
import { YARD_DRAIN } from '../../testing/valley-fields.ts';
import { valleyProject } from '../../testing/valley.ts';
import { registry } from '../index.ts';
import { newSeepDrain } from './create.ts';
import { CLEARS_IN, SEEP_IN } from './formulas.ts';
import { measureSeep } from './ground.ts';
import type { SeepDrain } from './index.ts';
import { quantitiesOf } from './making.ts';
import { clearsIn, depthsOf, fallOf, gravelCarries, gravelM2, intakesOf, pipeCarries, seepsIn, storesOf, takesOpen } from './standing.ts';

/** A yard like a bowl, 0.25 m deep and 10 m to its edge. */
const BOWL = gridOf((x, y) => 100 - 0.25 * Math.max(0, 1 - Math.hypot(x - 30, y - 30) / 10), { cells: 121, cellM: 0.5 });
const FLAT = gridOf(() => 100, { cells: 121, cellM: 0.5 });
const ONE = newSeepDrain('s', 'Seep', { line: [[30, 36], [30, 24]], purpose: 'yard', levels: { upperM: 99.4, outletM: 99.28 } }); // prettier-ignore
const CONTEXT = { registry, grids: noGrid };

describe('what it takes', () => {
  it('published spacing (ILRI 16, Hooghoudt): K 0.14 m/d, q 1 mm, D 5 m, h 1 m, r 0.1 m give 65.5 m', () => {
    expect(DRAIN_SPACING.evaluate({ K1: 0.14, K2: 0.14, q: 0.001, h: 1, D: 5, r: 0.1 })).toBeCloseTo(65.5, 0);
  });
  it('seeps in as it was watched, else by soil and ground water, else nobody knows; from one side across a slope', () => {
    const ground = measureSeep(ONE, { grid: FLAT });
    expect(seepsIn(ONE, ground)).toBeNull();
    expect(seepsIn({ ...ONE, seepM3s: 0.00002 }, ground)).toBe(0.00002);
    // Mean depth 0.66 m and 0.05 m of bed, water 0.3 m down: s = 0.41 m; K = 20 mm/h = 5.556e-6 m/s; q = s·K^0.5/3000.
    const wet = { ...ONE, soilMmPerHour: 20, waterTableM: 0.3 };
    expect(seepsIn(wet, ground)).toBeCloseTo((0.41 * Math.sqrt(20 / 3.6e6)) / 3000, 9);
    expect(seepsIn({ ...wet, purpose: 'slope' }, ground)).toBeCloseTo(seepsIn(wet, ground)! / 2, 12);
    expect(seepsIn({ ...wet, waterTableM: 2 }, ground)).toBe(0);
  });
  it('the inflow is that of Dupuit’s parabola, added up slice by slice over its reach', () => {
    // h² falls in a straight line from s² at R to nothing at the trench: q = K·h·dh/dx, the same at every slice.
    const [K, s] = [5e-5, 0.8];
    const R = 3000 * s * Math.sqrt(K);
    const steps = 4000;
    let head = 0;
    const q = SEEP_IN.evaluate({ K, s }) / 2;
    for (let k = 0; k < steps; k++) head = Math.sqrt(head * head + (2 * q * (R / steps)) / K);
    expect(head).toBeCloseTo(s, 6);
  });
  it('its pipe full, its gravel alone; a level one carries nothing', () => {
    const ground = measureSeep(ONE, { grid: FLAT });
    expect(fallOf(ONE, ground)).toBeCloseTo(0.01, 9);
    // (π/4)·0.01·0.025^(2/3)·0.1/0.015
    expect(pipeCarries(ONE, ground)).toBeCloseTo(((Math.PI / 4) * 0.01 * 0.025 ** (2 / 3) * 0.1) / 0.015, 9);
    expect(gravelM2(ONE)).toBeCloseTo(0.3 * 0.35 - (Math.PI / 4) * 0.01, 9);
    expect(gravelCarries(ONE, ground)).toBeCloseTo(0.01 * 0.01 * gravelM2(ONE), 12);
    expect(pipeCarries({ ...ONE, levels: { upperM: 99.4, outletM: 99.4 } }, ground)).toBe(0);
    expect(pipeCarries(ONE, ground) / gravelCarries(ONE, ground)).toBeGreaterThan(100);
  });
  it('a yard full of water waits for days: shown with its numbers; open gravel to the ground waits less', () => {
    const site = siteOf(BOWL);
    const ground = measureSeep(ONE, { grid: BOWL });
    const facts = (work: SeepDrain) => clearsIn({ ...factsOf(site), work, ground });
    // All 12 m of it lie in the bowl, 0.3 m wide, at 20 mm/h.
    expect(ground.yard!.underM).toBeCloseTo(12.5, 0);
    expect(facts(ONE)).toBeCloseTo(ground.yard!.holdsM3 / (0.02 * 0.3 * ground.yard!.underM), 6);
    expect(facts(ONE)!).toBeGreaterThan(100);
    expect(facts({ ...ONE, top: 'open' })! / facts(ONE)!).toBeCloseTo(20 / 500, 6);
    expect(clearsIn({ ...factsOf({ ...site, soilAt: () => null }), work: ONE, ground })).toBeNull();
    expect(clearsIn({ ...factsOf(site), work: ONE, ground: measureSeep(ONE, { grid: FLAT }) })).toBeNull();
    expect(CLEARS_IN.evaluate({ V: 6, f: 20, A: 3.6 })).toBeCloseTo(83.3, 1);
  });
  it('the yard it was laid in is a store: open gravel lets it out by a trench under water, no faster than pipe and gravel carry', () => {
    const ground = measureSeep(ONE, { grid: BOWL });
    const open: SeepDrain = { ...ONE, top: 'open' };
    expect(storesOf(ONE, ground).map((s) => s.outlets.map((o) => o.role))).toEqual([['on']]);
    const [yard] = storesOf(open, ground);
    expect([yard.id, yard.sillM, yard.wayOutM, yard.heldM3]).toEqual(['s', null, ground.yard!.pool.spillM, expect.closeTo(ground.yard!.holdsM3, 9)]); // prettier-ignore
    // Half a metre in an hour into 0.3 m by all 12 m of it, each half metre looked at.
    const [seeps] = yard.outlets;
    expect(seeps.flowAt(100)).toBeCloseTo((0.5 * 0.3 * 12.5) / 3600, 9);
    expect(seeps.flowAt(ground.yard!.pool.lowM)).toBe(0);
    expect(takesOpen({ ...open, levels: { upperM: 99.4, outletM: 99.4 } }, ground, 100)).toBe(0);
    expect([intakesOf(open, ground)[0].points!.length, intakesOf(open, ground)[0].store]).toEqual([ground.yard!.pool.cells.length, 's']);
    // Behind a wall or across a slope what runs passes it by; so it does where nothing fills.
    for (const none of [storesOf({ ...ONE, purpose: 'slope' }, ground), intakesOf({ ...ONE, purpose: 'wall' }, ground), storesOf(ONE, measureSeep(ONE, { grid: FLAT }))]) expect(none).toEqual([]); // prettier-ignore
  });
  it('property: more ground water, a faster soil, a deeper drain never brings less; depths are what pegs say', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(number(0.05, 1), number(1, 300), number(0, 0.6), (waterTableM, soilMmPerHour, by) => {
        const ground = measureSeep(ONE, { grid: FLAT });
        const q = (change: Partial<SeepDrain>): number => seepsIn({ ...ONE, waterTableM, soilMmPerHour, ...change }, ground)!;
        expect(q({ waterTableM: Math.max(0, waterTableM - by) })).toBeGreaterThanOrEqual(q({}) - 1e-15);
        expect(q({ soilMmPerHour: soilMmPerHour * (1 + by) })).toBeGreaterThanOrEqual(q({}) - 1e-15);
        expect(q({ levels: { upperM: 99.4 - by, outletM: 99.28 - by } })).toBeGreaterThanOrEqual(q({}) - 1e-15);
      }),
      { seed: 8, numRuns: 80 },
    );
    const placed = registry.bind(ONE).place(measureSeep(ONE, { grid: FLAT }), null);
    const pegs = placed.pegs(4, null);
    expect(pegs.map((p) => p.levelM)).toEqual([99.4, 99.36, 99.32, 99.28].map((v) => expect.closeTo(v, 9)));
  });
});

describe('a seepage drain begun', () => {
  const plane = planeProject({}, []);
  const begin = (points: readonly (readonly [number, number])[], how: string, project = plane): SeepDrain =>
    beginWorks(project, { ...CONTEXT, graph: new Graph() }, { kind: 'seep-drain', how, points }).works[0] as SeepDrain;
  it('falls from the higher end, whichever was drawn first, no shallower than is usual for what it is for', () => {
    const one = begin([[60, 140], [60, 100]], 'seep-drain'); // prettier-ignore
    const other = begin([[60, 100], [60, 140]], 'seep-drain'); // prettier-ignore
    expect(other.line).toEqual(one.line);
    expect(one.levels.upperM).toBeGreaterThan(one.levels.outletM);
    const told = derive({ ...plane, options: [{ ...plane.options[0], works: [one] }] }, { ...CONTEXT, graph: new Graph() }).derived;
    expect([told.uncomputed, told.stores]).toEqual([[], []]);
    expect(begin([[60, 100], [60, 140]], 'slope-drain').purpose).toBe('slope'); // prettier-ignore
  });
  it('its end near a drain leads into that, and a mend says where it comes in too low', () => {
    const into = begin([[160, 160], [151, 149]], 'slope-drain', valleyProject([YARD_DRAIN])); // prettier-ignore
    expect(into.into).toBe(YARD_DRAIN.id);
    const low = { ...into, levels: { upperM: 116, outletM: 115 } };
    const { checks } = derive(valleyProject([YARD_DRAIN, low]), { ...CONTEXT, graph: new Graph() }).derived;
    expect(checks.find((c) => c.id === 'seep-drain.meets')).toMatchObject({ severity: 'mend', on: low.id });
  });
  it('is refused where it climbs, is wider than its trench, leads into itself or is read beyond its end', () => {
    const wrong = (change: Partial<SeepDrain>): string => registry.bind({ ...ONE, ...change }).validate().map((p) => `${p.code}: ${words(p.what)}`).join(); // prettier-ignore
    expect(wrong({})).toBe('');
    expect(wrong({ levels: { upperM: 99, outletM: 99.05 } })).toMatch(/seep-drain.climbs: "Seep" would climb 50 mm/);
    expect(wrong({ dimensions: { ...ONE.dimensions, pipeM: 0.4 } })).toMatch(/seep-drain.width/);
    expect(wrong({ into: 's' })).toMatch(/seep-drain.ring/);
    expect(wrong({ laid: [{ atM: 13, levelM: 99 }] })).toMatch(/seep-drain.laid: reading 1 of "Seep" lies at 13/);
    expect(wrong({ laid: [{ atM: NaN, levelM: 99 }] })).toMatch(/work.field-missing/);
  });
});

describe('what it takes to make', () => {
  it('cloth by what is wrapped, gravel less the pipe, earth left over by what takes its place', () => {
    const ground = measureSeep(ONE, { grid: FLAT });
    const of = (work: SeepDrain, item: string): number | undefined => quantitiesOf(work, ground).find((q) => q.item === item)?.likely ?? undefined; // prettier-ignore
    expect(of(ONE, 'gravel')).toBeCloseTo(12 * gravelM2(ONE), 9);
    expect(of(ONE, 'cloth')).toBeCloseTo(1.2 * 12 * 2 * (0.3 + 0.35), 9);
    expect(of({ ...ONE, wrap: 'pipe' }, 'cloth')).toBeCloseTo(12 * Math.PI * 0.1, 9);
    expect([of({ ...ONE, wrap: 'none' }, 'cloth'), of({ ...ONE, wrap: 'bundle' }, 'gravel')]).toEqual([undefined, undefined]);
    expect(of(ONE, 'cut')).toBeCloseTo(12 * 0.3 * (depthsOf(ONE, ground).mean + 0.05), 9);
    expect(of(ONE, 'spoil')).toBeCloseTo(12 * 0.3 * 0.35, 9);
    expect(of(ONE, 'drain-pipe')).toBeCloseTo(12.6, 9);
  });
});
