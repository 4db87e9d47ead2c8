import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Stage } from '../contract/index.ts';
import { ORIFICE, ORIFICE_EMPTYING, culvertLaw, drownableSillLaw } from '../hydraulics/index.ts';
import { type RouteResult, type RoutedOutlet, type RoutedStore, groupsOf, route } from './index.ts';

function tank(areaM2: number, heightM: number): Stage {
  const levelM = Float64Array.from({ length: 21 }, (_, i) => (heightM * i) / 20);
  return { levelM, volumeM3: levelM.map((h) => h * areaM2), wettedM2: levelM.map(() => areaM2) };
}
const store = (id: string, more: Partial<RoutedStore> = {}): RoutedStore => ({ id, stage: tank(100, 4), inflow: [], outlets: [], ...more });
const out = (...[id, to, flowAt, more = {}]: [string, string, RoutedOutlet['flowAt'], Partial<RoutedOutlet>?]): RoutedOutlet => ({
  id,
  to,
  lagS: 0,
  flowAt,
  ...more,
});
const level = (result: RouteResult, id: string, i: number): number => result.stores.get(id)?.levelM[i] ?? NaN;
const peakOf = (result: RouteResult, id: string): number =>
  (result.stores.get(id)?.levelM ?? new Float64Array()).reduce((a, v) => Math.max(a, v), -Infinity);

describe('emptying, against closed forms', () => {
  it('through a hole: t = 2·As·(√h1 − √h2)/(Cd·A·√2g)', () => {
    const law = (h: number): number => (h > 0 ? ORIFICE.evaluate({ Cd: 0.6, A: 0.05, h }) : 0);
    const seconds = ORIFICE_EMPTYING.evaluate({ As: 100, h1: 3, h2: 0.5, Cd: 0.6, A: 0.05 });
    const steps = Math.round(seconds / 5);
    const run = route({ stores: [store('a', { startM: 3, outlets: [out('o', 'ground', law)] })], stepS: seconds / steps, steps });
    expect(level(run, 'a', steps)).toBeCloseTo(0.5, 4);
    expect(run.balance.inM3).toBeCloseTo(300, 9);
    expect(Math.abs(run.balance.errorFraction)).toBeLessThan(1e-12);
  });
  it('over a crest: 1/√h grows by C·L·t/(2·A)', () => {
    const law = (h: number): number => (h > 0 ? 1.5 * 4 * h ** 1.5 : 0);
    const run = route({ stores: [store('a', { startM: 0.8, outlets: [out('o', 'ground', law)] })], stepS: 1, steps: 120 });
    expect(level(run, 'a', 120)).toBeCloseTo((1 / Math.sqrt(0.8) + (1.5 * 4 * 120) / 200) ** -2, 4);
  });
  it('from one tank into another: the root of their difference falls in a straight line', () => {
    const k = 0.4;
    const law = (a: number, b = 0): number => Math.sign(a - b) * k * Math.sqrt(Math.abs(a - b));
    const stores = [
      store('a', { startM: 2.5, outlets: [out('j', 'b', law, { isJoint: true })] }),
      store('b', { stage: tank(250, 4), startM: 1 }),
    ];
    const run = route({ stores, stepS: 1, steps: 400 });
    const root = Math.sqrt(1.5) - (k * (1 / 100 + 1 / 250) * 300) / 2;
    expect(Math.sqrt(level(run, 'a', 300) - level(run, 'b', 300))).toBeCloseTo(root, 4);
    // Both come to rest at their common level, and stay.
    const rest = (2.5 * 100 + 250) / 350;
    const long = route({ stores, stepS: 60, steps: 200 });
    // To a hundredth of a millimetre: solvers stop two thousandths from where they should be.
    expect(level(long, 'a', 200)).toBeCloseTo(rest, 5);
    expect(level(long, 'b', 200)).toBeCloseTo(rest, 5);
  });
});

describe('joined stores', () => {
  it('at one level act as one store of both areas', () => {
    const inflow = Array.from({ length: 120 }, (_, i) => 0.4 * Math.exp(-(((i - 30) / 12) ** 2)));
    const sill = (h: number): number => (h > 1 ? 9 * (h - 1) ** 1.5 : 0);
    const wide = drownableSillLaw({ lengthM: 200, levelM: 0.2 });
    const two = route({
      stores: [
        store('a', { inflow, startM: 1, outlets: [out('j', 'b', wide, { isJoint: true })] }),
        store('b', { stage: tank(160, 4), startM: 1, outlets: [out('s', 'ground', sill)] }),
      ],
      stepS: 60,
      steps: 240,
    });
    const one = route({
      stores: [store('c', { stage: tank(260, 4), inflow, startM: 1, outlets: [out('t', 'ground', sill)] })],
      stepS: 60,
      steps: 240,
    });
    expect(peakOf(two, 'b')).toBeCloseTo(peakOf(one, 'c'), 3);
    expect(peakOf(two, 'a')).toBeCloseTo(peakOf(one, 'c'), 3);
    expect(Math.abs(two.balance.errorFraction)).toBeLessThan(1e-12);
  });
  it('lie in one group, with loops; the rest keep their order', () => {
    const none = (): number => 0;
    const groups = groupsOf([
      store('pond', { outlets: [out('j', 'swale', none, { isJoint: true })] }),
      store('low', { outlets: [out('pump', 'top', none)] }),
      store('swale', { outlets: [out('s', 'low', none)] }),
      store('top', { outlets: [out('p', 'pond', none)] }),
      store('alone'),
      store('end'),
    ]);
    expect(groups.map((g) => g.map((s) => s.id))).toEqual([['pond', 'low', 'swale', 'top'], ['alone'], ['end']]);
  });
  it('a loop loses nothing: what is pumped back comes again', () => {
    const pump = (h: number): number => 0.02 * Math.min(1, Math.max(0, (h - 0.5) / 0.05));
    const sill = (h: number): number => (h > 1 ? 5 * (h - 1) ** 1.5 : 0);
    const run = route({
      stores: [
        store('top', { startM: 0.9, outlets: [out('s', 'low', sill, { lagS: 45 })] }),
        store('low', { startM: 2, outlets: [out('pump', 'top', pump)] }),
      ],
      stepS: 60,
      steps: 600,
    });
    expect(run.balance.leftM3).toBe(0);
    expect(run.balance.storedM3).toBeCloseTo(290, 9);
    expect(run.outlets.get('s')?.volumeM3).toBeGreaterThan(50);
  });
});

interface Spec {
  readonly area: number;
  readonly sill: number;
  readonly skip: number;
  readonly soak: boolean;
  readonly joint: number;
}
/** Random networks: each store spills further down or away; some are joined to the next by a drowned crest or a culvert. */
const networks = (most: number): fc.Arbitrary<readonly [readonly Spec[], readonly number[]]> =>
  fc
    .integer({ min: 2, max: most })
    .chain((count) =>
      fc.tuple(
        fc.array(
          fc.record({
            area: fc.integer({ min: 30, max: 900 }),
            sill: fc.double({ min: 0.1, max: 1, noNaN: true }),
            skip: fc.integer({ min: 1, max: 5 }),
            soak: fc.boolean(),
            joint: fc.integer({ min: 0, max: 3 }),
          }),
          { minLength: count, maxLength: count },
        ),
        fc.array(fc.double({ min: 0, max: 0.3, noNaN: true }), { minLength: 5, maxLength: 40 }),
      ),
    );
const pipe = culvertLaw({
  barrels: 1,
  diameterM: 0.5,
  lengthM: 10,
  slope: 0,
  n: 0.013,
  inlet: 'corrugated-projecting',
  inletM: 0.2,
  outletM: 0.2,
});
const crest = drownableSillLaw({ lengthM: 2, levelM: 0.4 });
function build(
  specs: readonly Spec[],
  rain: readonly number[],
  on: { readonly factor?: number; readonly shut?: number } = {},
): RoutedStore[] {
  return specs.map((s, i) => {
    const open = on.shut === i ? 0.3 : 1;
    const sill = out(
      `o${i}`,
      i + s.skip < specs.length ? `s${i + s.skip}` : 'property-edge',
      (h) => (h > s.sill ? open * 6 * (h - s.sill) ** 1.5 : 0),
      { lagS: 90 },
    );
    const joint = out(`j${i}`, `s${i + 1}`, s.joint === 1 ? pipe : crest, { isJoint: true });
    return store(`s${i}`, {
      stage: tank(s.area, 5),
      inflow: rain.map((q) => q * (on.factor ?? 1)),
      soakMPerS: s.soak ? 1e-5 : 0,
      outlets: (s.joint === 1 || s.joint === 2) && i + 1 < specs.length ? [sill, joint] : [sill],
    });
  });
}

describe('any network of up to 50 stores', () => {
  it('closes its mass to 1e-9, store by store too, and never stores less than nothing', () => {
    let overJoints = 0;
    fc.assert(
      fc.property(networks(50), ([specs, rain]) => {
        const run = route({ stores: build(specs, rain), stepS: 60, steps: 120 });
        expect(Math.abs(run.balance.errorFraction)).toBeLessThan(1e-9);
        for (const [id, s] of run.stores) {
          expect([Math.min(...s.levelM) >= 0, s.endM3 >= 0, s.mostM3 >= s.endM3]).toEqual([true, true, true]);
          const joined = [...run.outlets.values()].filter((o) => o.id.startsWith('j'));
          const net = joined.reduce(
            (a, o) => a + (o.id === `j${id.slice(1)}` ? -o.volumeM3 : Number(o.id.slice(1)) + 1 === Number(id.slice(1)) ? o.volumeM3 : 0),
            0,
          );
          // What comes over joints is told with what comes by itself; of one alone it is what it lets through this way.
          const overM3 = 60 * s.inM3s.reduce((a, q) => a + q, 0) - s.inM3;
          expect(overM3).toBeGreaterThan(-1e-9 * Math.max(1, s.inM3));
          const own = joined.filter((o) => o.id === `j${id.slice(1)}` || Number(o.id.slice(1)) + 1 === Number(id.slice(1)));
          const [into] = own;
          if (own.length === 1 && into.id !== `j${id.slice(1)}`) {
            const cameM3 = 60 * into.flowM3s.reduce((a, q) => a + Math.max(0, q), 0);
            expect(Math.abs(overM3 - cameM3)).toBeLessThan(1e-8 * Math.max(1, s.inM3, cameM3));
            overJoints += cameM3 > 1 ? 1 : 0;
          }
          expect(Math.abs(s.inM3 + net - s.outM3 - s.soakedM3 - s.endM3)).toBeLessThan(1e-8 * Math.max(1, s.inM3));
        }
      }),
      { seed: 41, numRuns: 60 },
    );
    expect(overJoints).toBeGreaterThan(10);
  });
  it('peaks no lower for more rain, nor for an outlet that is shut two thirds, which never lowers its own store', () => {
    fc.assert(
      fc.property(networks(16), fc.nat(15), ([specs, rain], pick) => {
        const run = (on: Parameters<typeof build>[2]): RouteResult => route({ stores: build(specs, rain, on), stepS: 60, steps: 120 });
        const [plain, more] = [run({}), run({ factor: 1.3 })];
        const k = pick % specs.length;
        const shut = run({ shut: k });
        // Shares of the step differ between the runs where outflow is quick: a tenth of a millimetre is what that moves.
        for (let i = 0; i < specs.length; i++) expect(peakOf(more, `s${i}`)).toBeGreaterThanOrEqual(peakOf(plain, `s${i}`) - 1e-4);
        expect(peakOf(shut, `s${k}`)).toBeGreaterThanOrEqual(peakOf(plain, `s${k}`) - 1e-4);
      }),
      { seed: 42, numRuns: 60 },
    );
  });
  it('moves its peaks by less than 1 % of the water when the step is halved', () => {
    fc.assert(
      fc.property(networks(12), ([specs]) => {
        const rain = Array.from({ length: 90 }, (_, i) => 0.15 * Math.exp(-(((i - 30) / 14) ** 2)));
        const finer = rain.flatMap((q, i) => [((i === 0 ? 0 : rain[i - 1]) + q) / 2, q]);
        const coarse = route({ stores: build(specs, rain), stepS: 60, steps: 150 });
        const fine = route({ stores: build(specs, finer), stepS: 30, steps: 300 });
        for (let i = 0; i < specs.length; i++) expect(Math.abs(peakOf(coarse, `s${i}`) / peakOf(fine, `s${i}`) - 1)).toBeLessThan(0.01);
      }),
      { seed: 43, numRuns: 40 },
    );
  });
  it('runs nothing uphill: a joint carries from the higher to the lower store at every step', () => {
    fc.assert(
      fc.property(networks(10), ([specs, rain]) => {
        const stores = build(specs, rain);
        const run = route({ stores, stepS: 60, steps: 90 });
        for (const { id, outlets } of stores)
          for (const o of outlets.filter((x) => x.isJoint))
            run.outlets.get(o.id)?.flowM3s.forEach((q, i) => {
              const difference = level(run, id, i + 1) - level(run, o.to, i + 1);
              if (Math.abs(q) > 1e-6) expect(q * difference).toBeGreaterThan(-1e-9);
            });
      }),
      { seed: 44, numRuns: 40 },
    );
  });
});
