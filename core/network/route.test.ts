import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Stage } from '../contract/index.ts';
import { DRAIN_DOWN, type RoutedStore, addDelayed, cascadeOrder, delayedLength, meanWettedArea, route } from './index.ts';

const FT = 0.3048;
const CFS = FT ** 3;

/** Tank with upright sides. */
function tank(areaM2: number, heightM: number, steps = 20): Stage {
  const levelM = Float64Array.from({ length: steps + 1 }, (_, i) => (heightM * i) / steps);
  return { levelM, volumeM3: levelM.map((h) => h * areaM2), wettedM2: levelM.map(() => areaM2) };
}

/** The same over a cleft that holds next to nothing in its lowest part: what a channel's bed leaves behind a wall. */
function clefted(areaM2: number, heightM: number, cleftM: number): Stage {
  const stage = tank(areaM2, heightM);
  const volumeM3 = stage.levelM.map((h, k) => k * 1e-9 + areaM2 * Math.max(0, h - cleftM));
  return { ...stage, volumeM3 };
}

/** Head-discharge table of CMM Example 8.2.1: feet and cfs, every half foot. */
const RATING = [0, 3, 8, 17, 30, 43, 60, 78, 97, 117, 137, 156, 173, 190, 205, 218, 231, 242, 253, 264, 275];
const rated = (level: number): number => {
  const at = Math.min(19, Math.max(0, level / (0.5 * FT)));
  const k = Math.min(19, Math.floor(at));
  return (RATING[k] + (RATING[k + 1] - RATING[k]) * (level / (0.5 * FT) - k)) * CFS;
};

describe('level-pool routing', () => {
  it('reproduces Chow, Maidment & Mays Examples 8.2.1 and 8.2.2 (handbook 9.1, P)', () => {
    const inflowCfs = [60, 120, 180, 240, 300, 360, 320, 280, 240, 200, 160, 120, 80, 40, 0, 0, 0, 0, 0];
    const store: RoutedStore = {
      id: 'pond',
      stage: tank(43560 * FT * FT, 10 * FT),
      inflow: inflowCfs.map((q) => q * CFS),
      outlets: [{ id: 'pipe', to: 'ground', lagS: 0, flowAt: rated }],
    };
    const { stores, balance } = route({ stores: [store], stepS: 600, steps: 19 });
    const out = Array.from(stores.get('pond')?.outM3s ?? [], (q) => q / CFS);
    const printed: [number, number][] = [
      [1, 2.4],
      [2, 17.1],
      [3, 61.1],
      [5, 182.2],
      [6, 230.3],
      [7, 259.3],
      [8, 270],
      [9, 267.4],
      [10, 254.9],
      [12, 206.9],
      [13, 168.5],
      [14, 124.1],
      [15, 79.8],
      [17, 32.7],
      [18, 22.8],
      [19, 16.2],
    ];
    // The book's columns are rounded to 0.1 cfs and its 2S/dt + Q table to 1 cfs.
    for (const [j, q] of printed) expect(Math.abs(out[j] - q)).toBeLessThan(0.7);
    expect(Math.max(...out)).toBeCloseTo(270, 0);
    const peakFt = Math.max(...(stores.get('pond')?.levelM ?? [])) / FT;
    expect(Math.abs(peakFt - 9.77)).toBeLessThan(0.02);
    expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-9);
  });
  it('empties a linear reservoir as e^(-t/k)', () => {
    const k = 3600;
    const store: RoutedStore = {
      id: 'a',
      stage: tank(1000, 5),
      inflow: [1, ...Array.from({ length: 400 }, () => 0)],
      outlets: [{ id: 'o', to: 'ground', lagS: 0, flowAt: (h) => (1000 * h) / k }],
    };
    const run = route({ stores: [store], stepS: 30, steps: 400 }).stores.get('a');
    // The tank's sides stand straight and its floor is at nothing: what it holds goes with its level.
    const h = run?.levelM ?? new Float64Array();
    expect(h[300] / h[60]).toBeCloseTo(Math.exp((-240 * 30) / k), 4);
  });
});

const weir = (id: string, to: string, level: number): RoutedStore['outlets'][number] => ({
  id,
  to,
  lagS: 90,
  flowAt: (h) => (h > level ? 6 * (h - level) ** 1.5 : 0),
});

/** Random cascades: each store spills to one further down or away. */
const cascades = fc
  .integer({ min: 1, max: 12 })
  .chain((count) =>
    fc.tuple(
      fc.array(
        fc.record({
          area: fc.integer({ min: 20, max: 500 }),
          sill: fc.double({ min: 0, max: 1, noNaN: true }),
          skip: fc.integer({ min: 1, max: 4 }),
          soak: fc.boolean(),
        }),
        { minLength: count, maxLength: count },
      ),
      fc.array(fc.double({ min: 0, max: 0.4, noNaN: true }), { minLength: 3, maxLength: 40 }),
    ),
  );
interface Spec {
  readonly area: number;
  readonly sill: number;
  readonly skip: number;
  readonly soak: boolean;
  readonly cleftM?: number;
}
const storesOf = (specs: readonly Spec[], rain: readonly number[], factor = 1): RoutedStore[] =>
  specs.map((s, i) => ({
    id: `s${i}`,
    stage: s.cleftM === undefined ? tank(s.area, 3) : clefted(s.area, 3, s.cleftM),
    inflow: rain.map((q) => q * factor),
    soakMPerS: s.soak ? 1e-5 : 0,
    outlets: [weir(`o${i}`, i + s.skip < specs.length ? `s${i + s.skip}` : 'property-edge', s.sill)],
  }));

describe('a cascade', () => {
  it('closes its mass to 1e-9 and never stores less than nothing', () => {
    fc.assert(
      fc.property(cascades, ([specs, rain]) => {
        const result = route({ stores: storesOf(specs, rain), stepS: 60, steps: 120 });
        expect(Math.abs(result.balance.errorFraction)).toBeLessThan(1e-9);
        const { inM3, storedM3, soakedM3, leftM3 } = result.balance;
        expect(Math.abs(inM3 - storedM3 - soakedM3 - leftM3)).toBeLessThanOrEqual(1e-9 * Math.max(1, inM3));
        for (const run of result.stores.values()) {
          expect([Math.min(...run.levelM) >= 0, run.endM3 >= 0, run.mostM3 >= run.endM3]).toEqual([true, true, true]);
          // What comes is told step by step, though several of them may be taken as one.
          expect(Math.abs(60 * run.inM3s.reduce((a, q) => a + q, 0) - run.inM3)).toBeLessThan(1e-9 * Math.max(1, run.inM3));
        }
      }),
      { seed: 8, numRuns: 120 },
    );
  });
  it('lets nothing out of a store whose water never rose to its way out', () => {
    fc.assert(
      fc.property(cascades, fc.constantFrom(0.15, 0.3, 0.6), ([all, rain], cleftM) => {
        const specs = all.map((s) => ({ ...s, cleftM, sill: cleftM + 0.01 + s.sill }));
        const { stores, outlets } = route({ stores: storesOf(specs, rain), stepS: 60, steps: 120 });
        specs.forEach(({ sill }, i) => {
          const [run, { volumeM3, peakM3s }] = [stores.get(`s${i}`)!, outlets.get(`o${i}`)!];
          const rose = Math.max(...run.levelM) > sill;
          expect([i, volumeM3 > 1e-9 * run.inM3, peakM3s > 0]).toEqual([i, rose, rose]);
        });
      }),
      { seed: 81, numRuns: 200 },
    );
  });
  it('fills a weir pool over a narrow bed to its notch before anything runs, and then passes on what comes', () => {
    // By hand: 40 L/s for 100 min bring 240 m3; 100 m2 over the bed hold 80 m3 up to the notch.
    const notch = { id: 'o', to: 'ground', lagS: 0, flowAt: (h: number) => (h > 1.4 ? 1.5 * (h - 1.4) ** 1.5 : 0), fromM: 1.4 };
    const pool: RoutedStore = { id: 'a', stage: clefted(100, 3, 0.6), inflow: new Float64Array(100).fill(0.04), outlets: [notch] };
    const { stores, outlets } = route({ stores: [pool], stepS: 60, steps: 100 });
    const run = stores.get('a')!;
    // At an even rate, half in the first step: full in the thirty-fourth.
    const passes = Array.from(outlets.get('o')!.flowM3s);
    expect([passes.slice(0, 32).every((q) => q === 0), passes[32] < 1e-4, passes[34] > 1e-3]).toEqual([true, true, true]);
    // The notch passes 40 L/s under a head of (0.04 / 1.5)^(2/3).
    expect(run.levelM[100] - 1.4).toBeCloseTo((0.04 / 1.5) ** (2 / 3), 3);
    expect(run.endM3).toBeCloseTo(80 + 100 * (0.04 / 1.5) ** (2 / 3), 1);
  });
  it('never peaks lower for more rain', () => {
    fc.assert(
      fc.property(cascades, ([specs, rain]) => {
        const less = route({ stores: storesOf(specs, rain), stepS: 60, steps: 120 });
        const more = route({ stores: storesOf(specs, rain, 1.3), stepS: 60, steps: 120 });
        for (const [id, run] of less.stores)
          expect(Math.max(...(more.stores.get(id)?.levelM ?? []))).toBeGreaterThanOrEqual(Math.max(...run.levelM) - 1e-9);
      }),
      { seed: 9, numRuns: 60 },
    );
  });
  it('moves its peaks by less than 1 % when the step is halved', () => {
    const rain = Array.from({ length: 60 }, (_, i) => 0.2 * Math.exp(-(((i - 20) / 8) ** 2)));
    const finer = rain.flatMap((q, i) => [((i === 0 ? 0 : rain[i - 1]) + q) / 2, q]);
    const specs = [
      { area: 100, sill: 0.4, skip: 1, soak: false },
      { area: 150, sill: 0.5, skip: 1, soak: false },
    ];
    const peak = (stores: RoutedStore[], stepS: number): number =>
      Math.max(...(route({ stores, stepS, steps: 7200 / stepS }).stores.get('s1')?.outM3s ?? []));
    const [coarse, fine] = [peak(storesOf(specs, rain), 60), peak(storesOf(specs, finer), 30)];
    expect(Math.abs(coarse / fine - 1)).toBeLessThan(0.01);
  });
  it('routes each store after those that spill into it', () => {
    const order = cascadeOrder([
      { id: 'low', stage: tank(1, 1), inflow: [], outlets: [] },
      { id: 'top', stage: tank(1, 1), inflow: [], outlets: [weir('a', 'mid', 0)] },
      { id: 'mid', stage: tank(1, 1), inflow: [], outlets: [weir('b', 'low', 0)] },
    ]).map((s) => s.id);
    expect(order).toEqual(['top', 'mid', 'low']);
  });
});

describe('soil that is full', () => {
  it('takes what it has room for and not a drop more: a tank worked by hand', () => {
    // 100 m2 under a steady 10 L/s for 100 min bring 60 m3; at 36 mm/h 1 L/s soaks until 2 m3 are in, half an hour later.
    const stage = tank(100, 3);
    const stores: RoutedStore[] = [
      { id: 'a', stage, startM: 0.1, inflow: Array.from({ length: 100 }, () => 0.01), soakMPerS: 1e-5, soakRoomM3: 2, outlets: [] },
    ];
    const run = route({ stores, stepS: 60, steps: 100 }).stores.get('a')!;
    expect(run.soakedM3).toBeCloseTo(2, 12);
    const heldM3 = (step: number): number => 100 * (run.levelM[step] - run.levelM[0]) + 10;
    expect(heldM3(30)).toBeCloseTo(10 + 18 - 0.3 - 1.8, 0);
    expect(heldM3(100) - heldM3(40)).toBeCloseTo(60 * 60 * 0.01, 9);
    expect([run.endM3, run.mostM3]).toEqual([expect.closeTo(heldM3(100), 9), run.endM3]);
  });
  it('once it is full, what is told to run out is what the way out passes, and nothing that soaked before', () => {
    const out = { id: 'o', to: 'ground', lagS: 0, flowAt: (levelM: number) => 0.02 * Math.max(0, levelM - 0.1) };
    const store: RoutedStore = { id: 'a', stage: tank(100, 3), startM: 0.1, inflow: Array.from({ length: 100 }, () => 0.01), soakMPerS: 1e-5, soakRoomM3: 2, outlets: [out] }; // prettier-ignore
    const run = route({ stores: [store], stepS: 60, steps: 100 }).stores.get('a')!;
    for (const k of [10, 20, 50, 99]) expect(run.outM3s[k]).toBeCloseTo(out.flowAt(run.levelM[k]), 9);
  });
  it('never soaks more than its room, loses no water, and stands no lower for having less', () => {
    fc.assert(
      fc.property(cascades, fc.double({ min: 0, max: 5, noNaN: true }), ([specs, rain], room) => {
        const withRoom = (soakRoomM3: number): RoutedStore[] => storesOf(specs, rain).map((s) => ({ ...s, soakRoomM3 }));
        const result = route({ stores: withRoom(room), stepS: 60, steps: 120 });
        const { inM3, storedM3, soakedM3, leftM3 } = result.balance;
        expect(Math.abs(inM3 - storedM3 - soakedM3 - leftM3)).toBeLessThanOrEqual(1e-9 * Math.max(1, inM3));
        const roomy = route({ stores: withRoom(2 * room + 1), stepS: 60, steps: 120 });
        for (const [id, run] of result.stores) {
          expect(run.soakedM3).toBeLessThanOrEqual(room + 1e-12);
          expect(Math.max(...run.levelM)).toBeGreaterThanOrEqual(Math.max(...(roomy.stores.get(id)?.levelM ?? [])) - 1e-9);
        }
      }),
      { seed: 21, numRuns: 80 },
    );
  });
});

describe('drain-down', () => {
  it('of a tank with upright sides is depth over rate', () => {
    const stage = tank(50, 2);
    expect(meanWettedArea(stage, 60)).toBeCloseTo(50, 6);
    expect(DRAIN_DOWN.evaluate({ V: 60, f: 20, A: meanWettedArea(stage, 60) })).toBeCloseTo(60, 6);
  });
  it('of a V-shaped ditch is also depth over rate: each level falls at the same speed', () => {
    const levelM = Float64Array.from({ length: 401 }, (_, i) => i / 400);
    const stage: Stage = { levelM, volumeM3: levelM.map((h) => h * h), wettedM2: levelM.map((h) => 2 * h) };
    expect(DRAIN_DOWN.evaluate({ V: 0.64, f: 10, A: meanWettedArea(stage, 0.64) })).toBeCloseTo(80, 0);
  });
});

describe('a flow that arrives later', () => {
  it('keeps its volume and comes its lag later, between steps too', () => {
    const flow = Float64Array.from([0, 2, 6, 4, 0]);
    const centre = (q: Float64Array): number => q.reduce((a, v, i) => a + v * i, 0) / q.reduce((a, v) => a + v, 0);
    for (const lagS of [0, 60, 90, 601]) {
      const late = new Float64Array(delayedLength(flow, lagS, 60));
      addDelayed(late, flow, { s: lagS, stepS: 60 });
      expect(late.reduce((a, v) => a + v, 0)).toBeCloseTo(12, 12);
      expect(centre(late) - centre(flow)).toBeCloseTo(lagS / 60, 9);
    }
  });
});

describe('steps taken as one', () => {
  /** Upright, so much of it over a way out as a linear reservoir: what stands above it falls by the same share in the same time. */
  const linear = (change: Partial<RoutedStore> & { readonly perS?: number; readonly fromM?: number } = {}) => {
    let asked = 0;
    const { perS = 1 / 3600, fromM = 0, ...more } = change;
    const flowAt = (level: number): number => {
      asked++;
      return 100 * perS * Math.max(0, level - fromM);
    };
    const store: RoutedStore = {
      id: 'a',
      stage: tank(100, 2),
      inflow: [],
      outlets: [{ id: 'way', to: 'ground', lagS: 0, flowAt }],
      ...more,
    };
    const { stores, outlets, balance } = route({ stores: [store], stepS: 30, steps: 2000 });
    return { run: stores.get('a')!, way: outlets.get('way')!, balance, asked };
  };
  it.each([
    [3600, 1500],
    [300, 500],
  ])('follow what empties by its share in %d s to the last film, most of it in few of them', (emptiesS, most) => {
    const { run, asked, balance } = linear({ startM: 0.8, perS: 1 / emptiesS });
    for (let i = 0; i <= 2000; i++) {
      const level = 0.8 * Math.exp((-30 * i) / emptiesS);
      // Half a millimetre is let bend at most, a hundredth of one where hardly anything stands.
      expect([i, Math.abs(run.levelM[i] - level) < (level > 0.001 ? 3e-4 : 3e-5)]).toEqual([i, true]);
    }
    expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-12);
    // Three looks a step at 2000 steps would be 6000.
    expect(asked).toBeLessThan(most);
  });
  it('let nothing through a way out before the step in which its store fills to it', () => {
    // A tenth of a litre a second raises it by 30 um a step: 10.01 mm are full in step 333.
    const inflow = new Float64Array(2000).fill(0.0001);
    const { run, way } = linear({ inflow, fromM: 0.01001, perS: 1e-7 });
    const first = way.flowM3s.findIndex((q) => q > 0);
    const full = run.levelM.findIndex((level) => level > 0.01001);
    expect([first, full]).toEqual([full - 1, Math.ceil(0.01001 / 3e-5 + 0.5)]);
  });
});
