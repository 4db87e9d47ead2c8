// Roofs: what they catch and send, by hand; their gutters against what is published; in the network by a second computation.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { derive } from '../../derive/index.ts';
import { Worksheet } from '../../formula/index.ts';
import { DOWNPIPE, HALF_ROUND_GUTTER } from '../../hydraulics/index.ts';
import type { Project } from '../../project/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { ROOF, TANK } from '../../testing/valley-fields.ts';
import { type Tank, registry } from '../index.ts';
import { newSheet } from './create.ts';
import { GUTTER_OUTLET, ROOF_FLOW, ROOF_IN_WIND } from './formulas.ts';
import { type Roof, areaOf, newRoof, roof } from './index.ts';
import { flushM3, quantitiesOf } from './making.ts';
import { downFlow, gutterFlow, measureRoof, storeOf } from './standing.ts';

const SITE = siteOf(gridOf((_x, y) => 100 + 0.02 * y, { cells: 201, cellM: 1 }));
const ONE: Roof = { ...ROOF, ring: [[60, 60], [72, 60], [72, 68], [60, 68]] }; // prettier-ignore

describe('published rows', () => {
  // EN 12056-3, Table 8 and the eq. of half-round gutters, from memory.
  it('a downpipe of 100 mm a third full passes 10.7 L/s; a half round of 125 mm carries 1.36 L/s', () => {
    expect(DOWNPIPE.evaluate({ D: 100, f: 0.33, kb: 0.25 })).toBeCloseTo(10.7, 1);
    expect(HALF_ROUND_GUTTER.evaluate({ A: (Math.PI * 125 ** 2) / 8 })).toBeCloseTo(1.36, 2);
  });
  // EN 12056-3, Table 7, from memory: both laws of an outlet meet at half its width.
  it('an outlet lets down as a crest up to half its width of water, as an opening above', () => {
    const at = (h: number): number => GUTTER_OUTLET.evaluate({ D: 80, h });
    expect(at(40)).toBeCloseTo((80 * 40 ** 1.5) / 7500, 9);
    expect(at(40.0001) / at(40)).toBeCloseTo(1, 2);
    expect(at(60)).toBeCloseTo((80 * 80 * Math.sqrt(60)) / 15000, 9);
  });
  it('150 m2 let a millimetre go: 150 L', () => {
    const big = newRoof('r', 'R', { ring: [[0, 0], [15, 0], [15, 10], [0, 10]] }); // prettier-ignore
    expect(1000 * flushM3(big)).toBeCloseTo(150, 9);
  });
  it('200 m2 in 150 mm/h send 8.33 L/s', () => {
    expect(ROOF_FLOW.evaluate({ i: 150, A: 200, k: 1 })).toBeCloseTo(8.333, 3);
    expect(ROOF_IN_WIND.evaluate({ P: 96, H: 2, W: 24 })).toBe(120);
  });
});

describe('what it is', () => {
  it('its area from above whichever way it was drawn, gutters along its two long sides, a downpipe to 12 m', () => {
    const made = newRoof('r', 'R', { ring: [...ONE.ring].reverse() });
    expect([areaOf(made), made.dimensions.gutterLengthM, made.dimensions.downpipes]).toEqual([96, 24, 2]);
  });
  it('sheet on blocks is low, of one slope with one gutter along its longest side, and sound', () => {
    const sheet = newSheet('s', 'Sheet', [[0, 0], [8, 0], [8, 3], [0, 3]]); // prettier-ignore
    expect(sheet).toMatchObject({ status: 'planned', dimensions: { eavesM: 0.5, gutterLengthM: 8, downpipes: 1 } });
    expect(registry.bind(sheet).validate()).toEqual([]);
  });
  it('a store that holds next to nothing: gutter from sole to rim, downpipes at its sole, then over its rim', () => {
    const store = storeOf(ONE, measureRoof(ONE, SITE));
    expect(store.crestM).toBeCloseTo(100 + 0.02 * 59 + 3, 2);
    expect(store.crestM - store.floorM).toBeCloseTo(0.075, 9);
    expect([store.waterM2, store.heldM3, store.sheds]).toEqual([96, 0, { share: 0.92, firstFlushMm: 1 }]);
    const [down, rim] = store.outlets;
    expect([down.role, rim.role, down.flowAt(store.floorM), rim.flowAt(store.crestM)]).toEqual(['down', 'eaves', 0, 0]);
    expect(down.flowAt(store.crestM)).toBeCloseTo(2 * downFlow(ONE, 0.075), 9);
    expect(rim.flowAt(store.crestM + 0.05)).toBeCloseTo(1.7 * 24 * 0.05 ** 1.5, 9);
    expect(down.dischargeAt[1]).toBeLessThan(60);
  });
  it('a screened rain head lets down half; never more than its downpipe does', () => {
    expect(downFlow({ ...ONE, screen: 'head' }, 0.04)).toBeCloseTo(downFlow(ONE, 0.04) / 2, 9);
    expect(downFlow(ONE, 5)).toBeCloseTo(DOWNPIPE.evaluate({ D: 100, f: 0.33, kb: 0.25 }) / 1000, 9);
  });
  it('a long gutter carries less than a short one', () => {
    const long = withAt(ONE, 'dimensions.gutterLengthM', 40);
    expect(gutterFlow(long)).toBeLessThan(gutterFlow(withAt(ONE, 'dimensions.gutterLengthM', 7)));
    expect(gutterFlow(withAt(ONE, 'dimensions.gutterLengthM', 7))).toBeCloseTo(HALF_ROUND_GUTTER.evaluate({ A: (Math.PI * 150 ** 2) / 8 }) / 1000, 9); // prettier-ignore
  });
  it('25 mm on 96 m2 of metal bring 2208 L; its working is kept', () => {
    const ground = measureRoof(ONE, SITE);
    const sheet = new Worksheet('roof');
    const figures = roof.place(ONE, ground, null).figures(factsOf(SITE, { burstMmPerHour: 132 }), sheet);
    const valueOf = (id: string): number | null => figures.find((f) => f.id === id)!.value;
    expect(valueOf('rainM3')).toBeCloseTo(0.92 * 0.025 * 96, 9);
    expect(valueOf('neededM3s')).toBeCloseTo((132 * (96 + (0.8 * 24) / 2)) / 3.6e6, 9);
    expect(sheet.lines.map((l) => l.formula)).toEqual(['roof.in-wind', 'roof.flow', 'season.first-flush', 'roof.gutter-outlet', 'hydraulics.roof-yield']); // prettier-ignore
  });
  it('brackets every 0.6 m and at each downpipe, two clips a pipe at least', () => {
    const count = (item: string): number | null | undefined => quantitiesOf(ONE).find((q) => q.item === item)?.likely;
    expect([count('bracket'), count('clip'), count('downpipe'), count('mesh')]).toEqual([42, 4, 6, 24]);
    expect(quantitiesOf({ ...ONE, gutter: 'none' }).map((q) => q.item)).toEqual(['roof']);
  });
  it.each([
    ['two corners', { ring: [[0, 0], [10, 0]] }, 'roof.area'],
    ['a table', { ring: [[0, 0], [0.5, 0], [0.5, 0.5]] }, 'roof.area'],
    ['half a downpipe', { dimensions: { ...ONE.dimensions, downpipes: 1.5 } }, 'work.field-whole'],
    ['eaves in the ground', { dimensions: { ...ONE.dimensions, eavesM: 0 } }, 'work.field-range'],
    ['a roof of gold', { covering: 'gold' }, 'work.choice'],
  ])('refuses %s in words', (_, change, code) => {
    const [problem] = registry.bind({ ...ONE, ...change }).validate();
    expect(problem.code).toBe(code);
    expect(words(problem.do).length).toBeGreaterThan(10);
  }); // prettier-ignore
});

/** A plane with a house, its roof caught or not, and a cistern it leads to or not. */
const house = (works: readonly Roof[], links: Readonly<Record<string, string>> = {}): Project => {
  const project = planeProject({ features: [{ id: 'h', kind: 'building', ring: ONE.ring }] }, [
    ...works,
    { ...TANK, at: [58, 57] } as Tank,
  ]);
  return { ...project, options: [{ ...project.options[0], links }] };
};
const ran = (project: Project) => derive(project, { registry, grids: noGrid }, { shownMin: 120 }).derived;

describe('in the network', () => {
  it('rain on it alone comes to it, to the litre, and runs to where it is led: what ran over the ground there goes by', () => {
    const { stores, runoff, balance } = ran(house([ONE], { 'roof#down': 'tank' }));
    const [own, tank] = ['roof', 'tank'].map((id) => stores.find((s) => s.id === id)!);
    const { rainMm } = runoff.find((r) => r.of === 'roof')!;
    expect(own.worst.inM3.value).toBeGreaterThanOrEqual((rainMm / 1000) * 96 - 1e-6);
    expect(own.inM3).toBeCloseTo((runoff.find((r) => r.of === 'roof')!.rainMm / 1000) * 96, 3);
    expect(tank.inM3).toBeCloseTo(own.spilledM3!, 3);
    expect(Math.abs(balance!.errorFraction)).toBeLessThan(1e-9);
  });
  it('led nowhere, its water falls beside the wall and leaves by the ground', () => {
    const { links, stores } = ran(house([ONE]));
    expect(links.find((l) => l.outlet === 'roof#down')?.to).not.toBe('tank');
    expect(stores.find((s) => s.id === 'tank')!.inM3).toBe(0);
  });
  it('a larger roof never brings less, whatever its shape', () => {
    fc.assert(
      fc.property(fc.double({ min: 3, max: 30, noNaN: true }), fc.double({ min: 1.01, max: 2, noNaN: true }), (side, times) => {
        const at = (s: number): Roof => ({ ...ONE, ring: [[60, 60], [60 + s, 60], [60 + s, 66], [60, 66]] }); // prettier-ignore
        const [a, b] = [side, side * times].map((s) => storeOf(at(s), measureRoof(at(s), SITE)));
        expect(b.waterM2!).toBeGreaterThan(a.waterM2!);
      }),
      { seed: 12, numRuns: 40 },
    );
  });
});
