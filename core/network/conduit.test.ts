// Pipes, places where water is parted, and water that comes back out of the ground, against sums of their own.
import { describe, expect, it } from '@jest/globals';
import type { Conduit, Store } from '../contract/index.ts';
import { culvertLaw } from '../hydraulics/index.ts';
import { type RouteResult, type RoutedStore, capacityOf, conduitStore, groupsOf, route } from './index.ts';

const PIPE: Conduit = {
  id: 'a',
  work: 'drain',
  name: 'Drain',
  diameterM: 0.3,
  lengthM: 40,
  n: 0.012,
  inlet: 'concrete-square-headwall',
  upperM: 10,
  lowerM: 9.6,
  rimM: 11.2,
  rimLengthM: 3,
  shaftM2: 0.5,
  outletAt: [0, 0],
  rimAt: [0, 40],
};
const SECOND: Conduit = { ...PIPE, id: 'b', upperM: 9.6, lowerM: 9.3, rimM: 10.9, diameterM: 0.4 };
const STEPS = 720;
const STEP_S = 10;

/** A pipe as it is routed, its pipe leading somewhere. */
const routed = ({ id, stage, outlets }: Store, to: string, inflow: ArrayLike<number> = []): RoutedStore => ({
  id,
  stage,
  inflow,
  outlets: outlets.map((o, k) => ({
    id: o.id,
    to: k === 0 ? to : 'ground',
    lagS: 0,
    flowAt: o.flowAt,
    isJoint: k === 0 && to !== 'ground',
  })),
});
const run = (stores: readonly RoutedStore[], steps = STEPS): RouteResult => route({ stores, stepS: STEP_S, steps });
const steady = (q: number, steps = STEPS): Float64Array => new Float64Array(steps).fill(q);
const last = (list: ArrayLike<number>): number => list[list.length - 1];

/** Water in a round pipe by depth: the segment of a circle by its sagitta, another way than the one it is stored by. */
const segment = (h: number, d: number): number => {
  const r = d / 2;
  const y = Math.min(d, Math.max(0, h));
  return r * r * Math.acos((r - y) / r) - (r - y) * Math.sqrt(Math.max(0, 2 * r * y - y * y));
};

describe('a gravity pipe', () => {
  const store = conduitStore(PIPE);
  it('stores what stands in it, and then what stands in its shaft', () => {
    const { levelM, volumeM3 } = store.stage;
    levelM.forEach((level, k) => {
      expect(volumeM3[k]).toBeCloseTo(40 * segment(level - 10, 0.3) + 0.5 * (level - 10), 9);
    });
    expect(Array.from(levelM)).toContain(10.3);
    for (let k = 1; k < levelM.length; k++) expect([levelM[k] > levelM[k - 1], volumeM3[k] > volumeM3[k - 1]]).toEqual([true, true]);
    expect(store).toMatchObject({ id: 'a', work: 'drain', floorM: 10, wayOutM: 10, crestM: 11.2, soffitM: 10.3, heldM3: 0 });
  });
  it('passes by its barrel and its mouth, and no more than with water at its rim', () => {
    const law = culvertLaw({ ...PIPE, barrels: 1, slope: 0.01, inletM: 10, outletM: 9.6 });
    for (const level of [10.05, 10.2, 10.5, 11]) expect(store.outlets[0].flowAt(level)).toBe(law(level));
    expect(capacityOf(PIPE)).toBe(law(11.2));
    expect(store.outlets[0].flowAt(10)).toBe(0);
  });
  it('lets out what comes once it has filled, while it can; beyond that the rest runs over its rim', () => {
    const capacity = capacityOf(PIPE);
    const half = run([routed(store, 'ground', steady(capacity / 2))]);
    expect(last(half.outlets.get('a#pipe')!.flowM3s)).toBeCloseTo(capacity / 2, 5);
    expect(half.outlets.get('a#rim')!.volumeM3).toBe(0);
    expect(Math.max(...half.stores.get('a')!.levelM)).toBeLessThan(11.2);
    const twice = run([routed(store, 'ground', steady(2 * capacity))]);
    const over = last(twice.outlets.get('a#rim')!.flowM3s);
    expect(over + last(twice.outlets.get('a#pipe')!.flowM3s)).toBeCloseTo(2 * capacity, 5);
    // A little more than its capacity at the rim goes through, since water stands over the rim.
    expect(over).toBeGreaterThan(0.9 * capacity);
    expect(over).toBeLessThan(capacity);
    for (const { balance } of [half, twice]) expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-9);
  });
  it('takes in several and feels the one it leads into, as small steps worked by hand have it', () => {
    const inflow = Float64Array.from({ length: STEPS }, (_, i) => 0.08 * Math.exp(-(((i - 150) / 60) ** 2)));
    const side = Float64Array.from({ length: STEPS }, (_, i) => 0.07 * Math.exp(-(((i - 200) / 80) ** 2)));
    const stores = [
      routed(conduitStore(PIPE), 'b', inflow),
      routed(conduitStore({ ...PIPE, id: 'c' }), 'b', side),
      routed(conduitStore(SECOND), 'ground'),
    ];
    expect(groupsOf(stores)).toHaveLength(1);
    const result = run(stores);
    const [b] = result.stores.get('b')!.levelM.reduce<[number, number]>(([most, at], v, i) => (v > most ? [v, i] : [most, at]), [0, 0]);
    // Another way: levels moved forward by their own flows, a twentieth of a second at a time.
    const laws = [PIPE, PIPE, SECOND].map((p) =>
      culvertLaw({ ...p, barrels: 1, slope: (p.upperM - p.lowerM) / 40, inletM: p.upperM, outletM: p.lowerM }),
    );
    const surface = (p: Conduit, h: number): number =>
      Math.max(0.02, 40 * ((segment(h + 1e-4 - p.upperM, p.diameterM) - segment(h - p.upperM, p.diameterM)) / 1e-4)) + 0.5;
    const levels = [10, 10, 9.6];
    let most = 0;
    const dt = 0.05;
    for (let t = 0; t < STEPS * STEP_S; t += dt) {
      const at = (list: Float64Array): number => {
        const x = t / STEP_S;
        const k = Math.min(STEPS - 1, Math.floor(x));
        const before = k === 0 ? 0 : list[k - 1];
        return before + (x - k) * (list[k] - before);
      };
      const [qa, qc] = [0, 1].map((k) => laws[k](levels[k], levels[2]));
      const qb = laws[2](levels[2]);
      levels[0] += (dt * (at(inflow) - qa)) / surface(PIPE, levels[0]);
      levels[1] += (dt * (at(side) - qc)) / surface(PIPE, levels[1]);
      levels[2] += (dt * (qa + qc - qb)) / surface(SECOND, levels[2]);
      most = Math.max(most, levels[2]);
    }
    expect(most).toBeGreaterThan(10);
    expect(Math.abs(b - most)).toBeLessThan(0.01);
    expect(Math.abs(result.balance.errorFraction)).toBeLessThan(1e-9);
    expect(result.outlets.get('b#pipe')!.volumeM3 + result.outlets.get('b#rim')!.volumeM3 + result.balance.storedM3).toBeCloseTo(
      result.balance.inM3,
      5,
    );
  });
});

const pond = (id: string, to: string, more: Partial<RoutedStore['outlets'][number]> = {}): RoutedStore => ({
  id,
  stage: { levelM: Float64Array.of(0, 5), volumeM3: Float64Array.of(0, 500), wettedM2: Float64Array.of(100, 100) },
  inflow: [],
  outlets: [{ id: `${id}>`, to, lagS: 0, flowAt: (h) => 0.5 * Math.max(0, h), ...more }],
});

describe('water that is parted', () => {
  const part = (takes: (q: number) => number, past: string): RoutedStore => ({
    id: 'place',
    stage: pond('p', 'ground').stage,
    inflow: Float64Array.from({ length: STEPS }, (_, i) => (i < 200 ? 0.001 * i : 0)),
    takes,
    outlets: [
      { id: 'in', to: 'p', lagS: 0, flowAt: () => 0 },
      { id: 'past', to: past, lagS: 600, flowAt: () => 0 },
    ],
  });
  it('goes by its law, and none is lost', () => {
    const { outlets, stores, balance } = run([part((q) => Math.min(q, 0.05), 'low'), pond('p', 'ground'), pond('low', 'ground')]);
    expect(outlets.get('in')!.peakM3s).toBe(0.05);
    expect(outlets.get('past')!.peakM3s).toBeCloseTo(0.1485, 9);
    expect(outlets.get('in')!.volumeM3 + outlets.get('past')!.volumeM3).toBeCloseTo(stores.get('place')!.inM3, 9);
    expect(stores.get('low')!.inM3).toBeCloseTo(outlets.get('past')!.volumeM3, 9);
    // What runs past comes ten minutes later.
    const first = (list: ArrayLike<number>): number => Array.from(list).findIndex((q) => q > 0);
    expect(first(stores.get('low')!.inM3s) - first(outlets.get('past')!.flowM3s)).toBe(61);
    expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-9);
  });
  it('never takes more than comes, nor less than nothing', () => {
    const all = run([part(() => 9, 'ground'), pond('p', 'ground')]);
    expect(all.outlets.get('past')!.volumeM3).toBe(0);
    const none = run([part(() => -1, 'ground'), pond('p', 'ground')]);
    expect(none.outlets.get('in')!.volumeM3).toBe(0);
  });
});

describe('water let into the ground', () => {
  it('comes back in part, later, and the rest is gone for good', () => {
    const top = { ...pond('top', 'low', { share: 0.4, lagS: 1200 }), inflow: steady(0.02, 200) };
    const { outlets, stores, balance } = run([top, pond('low', 'ground')]);
    const sent = outlets.get('top>')!.volumeM3;
    expect(stores.get('low')!.inM3).toBeCloseTo(0.4 * sent, 3);
    expect(balance.leftM3).toBeCloseTo(0.6 * sent + outlets.get('low>')!.volumeM3, 6);
    expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-9);
    const from = Array.from(stores.get('low')!.inM3s).findIndex((q) => q > 0);
    expect(from).toBe(1 + 1200 / STEP_S);
  });
  it('within a ring of stores as well', () => {
    const ring = [
      { ...pond('top', 'low', { share: 0.5, lagS: 60 }), inflow: steady(0.02, 200) },
      pond('low', 'top', { share: 0.25, lagS: 60 }),
    ];
    const { balance } = run(ring);
    expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-9);
    expect(balance.leftM3).toBeGreaterThan(1);
  });
});
