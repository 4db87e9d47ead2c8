// Works that take in a share, lay pipes, let water into the ground or make several stores, through the whole chain.
import { describe, expect, it } from '@jest/globals';
import type { BoundWork, Conduit, Outlet, PlacedWork, Store } from '../../contract/index.ts';
import type { Derived } from '../types.ts';
import { LIP_M, SILL, SWALE, noGrid, planeProject } from '../../testing/projects.ts';
import type { Project } from '../../project/index.ts';
import { type Registry, registry } from '../../works/index.ts';
import { context } from '../../testing/ground.ts';
import { compareCases, derive, failureOrder, whichStorm } from '../index.ts';

const LOWER = { ...SWALE, id: 'w2', name: 'Lower', line: [[32, 61], [172, 61]] as [number, number][], levels: { floorM: 105.75, bankCrestM: 106.45 } }; // prettier-ignore
const LOW_SILL = { ...SILL, id: 's2', host: 'w2', levels: { sillM: 106.1 } };
const WORKS = [SWALE, SILL, LOWER, LOW_SILL];

/** The registry with works changed on their way. */
const changing = (
  base: Registry,
  isMeant: (id: string) => boolean,
  { bound, placed }: { readonly bound: (b: BoundWork) => Partial<BoundWork>; readonly placed?: (p: PlacedWork) => Partial<PlacedWork> },
): Registry => ({
  ...base,
  bind: (work) => {
    const own = base.bind(work);
    if (!isMeant(work.id)) return own;
    const place: BoundWork['place'] = (ground, host) => {
      const made = own.place(ground, host);
      return { ...made, ...placed?.(made) };
    };
    return { ...own, place, ...bound(own) };
  },
});
/** No rain falls on the stores themselves: what comes is what the ground sheds and what is sent. */
const ROOFED = changing(registry, () => true, {
  bound: () => ({}),
  placed: ({ stores }) => ({ stores: (guests) => stores(guests).map(({ waterM2: _, ...store }) => store) }),
});
/** The same with one work changed. */
const changed = (id: string, bound: (b: BoundWork) => Partial<BoundWork>, placed?: (p: PlacedWork) => Partial<PlacedWork>): Registry =>
  changing(ROOFED, (own) => own === id, { bound, ...(placed ? { placed } : {}) });
/** Stores are found empty. */
const DRY: Partial<Project> = { rain: { ...planeProject().rain!, storm: { ...planeProject().rain!.storm, before: 'dry' } } };
const run = (using: Registry): Derived => derive(planeProject(DRY, WORKS), { registry: using, grids: noGrid }).derived;
const PLAIN = run(ROOFED);
const storeOf = (d: Derived, id: string): Derived['stores'][number] => d.stores.find((s) => s.id === id)!;

describe('an intake that takes a share', () => {
  const half = run(changed('w1', ({ intakes }) => ({ intakes: intakes.map((i) => ({ ...i, takes: [[1, 0.5]] as const })) })));
  it('leaves the rest to run on to the next work, and none is lost', () => {
    const whole = PLAIN.runoff.find((r) => r.of === 'w1')!.volumeM3;
    expect(storeOf(half, 'w1').inM3).toBeCloseTo(whole / 2, 4);
    const own = PLAIN.runoff.find((r) => r.of === 'w2')!.volumeM3;
    const spilled = half.links.find((l) => l.outlet === 's1')!.volumeM3!;
    expect(storeOf(half, 'w2').inM3).toBeCloseTo(own + whole / 2 + spilled, 1);
    expect(half.links.find((l) => l.role === 'past')).toMatchObject({ from: 'w1', to: 'w2', volumeM3: expect.closeTo(whole / 2, 4) });
    expect(Math.abs(half.balance!.errorFraction)).toBeLessThan(1e-9);
    expect(half.catchments).toEqual(PLAIN.catchments);
  });
  it('takes what its law says of what comes from above as well', () => {
    const none = run(changed('w2', ({ intakes }) => ({ intakes: intakes.map((i) => ({ ...i, takes: [] })) })));
    expect(storeOf(none, 'w2').inM3).toBe(0);
    const past = none.links.find((l) => l.role === 'past')!;
    expect(past.to).toBe('property-edge');
    const [exit] = none.exits;
    expect(exit.with.volumeM3).toBeGreaterThan(past.volumeM3! * 0.99);
    expect(Math.abs(none.balance!.errorFraction)).toBeLessThan(1e-9);
  });
  it('has no say in what is led to its store by a pipe or by the user', () => {
    const shut = changed('w2', ({ intakes }) => ({ intakes: intakes.map((i) => ({ ...i, takes: [] })) }));
    const project = planeProject({}, WORKS);
    const [option] = project.options;
    const led = derive({ ...project, options: [{ ...option, links: { s1: 'w2' } }] }, { registry: shut, grids: noGrid }).derived;
    const spilled = led.links.find((l) => l.outlet === 's1')!.volumeM3!;
    expect(spilled).toBeGreaterThan(1);
    expect(storeOf(led, 'w2').inM3).toBeCloseTo(spilled, 3);
    expect(Math.abs(led.balance!.errorFraction)).toBeLessThan(1e-9);
  });
  it('holds up what it lets pass', () => {
    const late = (delayS: number): number => {
      const d = derive(planeProject({}, WORKS), {
        registry: changed('w1', ({ intakes }) => ({ intakes: intakes.map((i) => ({ ...i, takes: [], delayS })) })),
        grids: noGrid,
      });
      const { inM3s, stepS } = d.view.series.find((s) => s.id === 'w2')!;
      let at = 0;
      inM3s.forEach((q, i) => (at = q > inM3s[at] ? i : at));
      return at * stepS;
    };
    expect(late(3600) - late(0)).toBeGreaterThan(1500);
  });
});

describe('works smaller than a cell', () => {
  const dots = (widthM: number): Registry =>
    changed('w1', () => ({ intakes: [{ store: 'w1', points: [[61, 101], [101, 101], [141, 101]], widthM }] })); // prettier-ignore
  it('take of the water of their cells what is as wide as they are', () => {
    const [one, narrow] = [run(dots(2)), run(dots(0.5))];
    // Three columns of cells of two metres up to the top of the plane.
    expect(one.catchments.find((c) => c.of === 'w1')!.areaM2).toBe(3 * 2 * 102);
    expect(storeOf(narrow, 'w1').inM3).toBeCloseTo(storeOf(one, 'w1').inM3! / 4, 4);
    // By a law besides, it is the law of what its width meets.
    const halved = changed('w1', () => ({
      intakes: dots(0.5)
        .bind(SWALE)
        .intakes.map((i) => ({ ...i, takes: [[1, 0.5]] as const })),
    }));
    expect(storeOf(run(halved), 'w1').inM3).toBeCloseTo(storeOf(one, 'w1').inM3! / 8, 4);
    expect(narrow.links.find((l) => l.role === 'past')!.to).toBe('w2');
    expect(Math.abs(narrow.balance!.errorFraction)).toBeLessThan(1e-9);
  });
});

const DRAIN: Conduit = {
  id: 'w1/drain',
  work: 'w1',
  name: 'Drain',
  diameterM: 0.06,
  lengthM: 30,
  n: 0.012,
  inlet: 'concrete-square-headwall',
  upperM: 107.5,
  lowerM: 107,
  rimM: 108.5,
  rimLengthM: 2,
  shaftM2: 0.4,
  outletAt: [101, 80],
  rimAt: [101, 95],
};
/** The swale's sill leads into a pipe. */
const piped = (conduit: Conduit): Registry => {
  const laid = changed(
    'w1',
    () => ({}),
    () => ({ conduits: [conduit] }),
  );
  return {
    ...laid,
    bind: (work) => {
      const own = laid.bind(work);
      if (work.id !== 's1') return own;
      return {
        ...own,
        place: (g, h) => {
          const made = own.place(g, h);
          return { ...made, outlets: made.outlets.map((o): Outlet => ({ ...o, to: conduit.id })) };
        },
      };
    },
  };
};

describe('a work that lays a pipe', () => {
  const small = run(piped(DRAIN));
  const wide = run(piped({ ...DRAIN, diameterM: 0.6 }));
  it('leads water through it, and over its rim where it takes no more', () => {
    expect(small.links.find((l) => l.outlet === 's1')!.to).toBe('w1/drain');
    const [told] = small.conduits;
    expect(told).toMatchObject({ id: 'w1/drain', work: 'w1' });
    expect([told.overM3 > 0, told.surchargedH > 0, told.peakLevelM > 108.5, told.peakM3s / told.capacityM3s > 0.9]).toEqual([
      true,
      true,
      true,
      true,
    ]);
    const [free] = wide.conduits;
    expect([free.overM3, free.surchargedH, free.peakM3s < free.capacityM3s]).toEqual([0, 0, true]);
    for (const d of [small, wide]) {
      expect(Math.abs(d.balance!.errorFraction)).toBeLessThan(1e-9);
      // Both the pipe and its rim run down to the work below.
      expect(d.links.filter((l) => l.from === 'w1/drain' && l.peakM3s! > 0).every((l) => l.to === 'w2')).toBe(true);
      expect(storeOf(d, 'w2').inM3).toBeCloseTo(storeOf(PLAIN, 'w2').inM3!, 0);
    }
  });
  it('is no store of its own: nothing is said to hold or to be held in it', () => {
    expect(small.stores.map((s) => s.id)).toEqual(['w1', 'w2']);
    const on = { ...context(), registry: piped(DRAIN) };
    expect(derive(planeProject({}, WORKS), on).view.order).toEqual(['w1', 'w2']);
    expect(compareCases(planeProject({}, WORKS), on)[0].stores.map((row) => row.store)).toEqual(['w1', 'w2']);
    const order = failureOrder(planeProject({}, WORKS), on);
    expect([...new Set(order.steps.map((step) => step.store))].sort()).toEqual(['w1', 'w2']);
    const mark = whichStorm(planeProject({}, WORKS), on, { store: 'w1', levelM: LIP_M + 0.05 });
    expect(mark.left.map((row) => row.store)).toEqual(['w1', 'w2']);
  });
});

describe('water that goes into the ground', () => {
  const back = (returns: Outlet['returns']): Derived =>
    run(
      changed(
        's1',
        () => ({}),
        ({ outlets }) => ({ outlets: outlets.map((o) => ({ ...o, ...(returns ? { returns } : {}) })) }),
      ),
    );
  it('comes out again in part where its work says', () => {
    const d = back({ to: 'w2', share: 0.25, lagS: 1800 });
    const link = d.links.find((l) => l.outlet === 's1')!;
    expect(link).toMatchObject({ to: 'w2', share: 0.25, lagS: 1800 });
    const own = PLAIN.runoff.find((r) => r.of === 'w2')!.volumeM3;
    expect(storeOf(d, 'w2').inM3).toBeCloseTo(own + 0.25 * link.volumeM3!, 1);
    expect(Math.abs(d.balance!.errorFraction)).toBeLessThan(1e-9);
  });
  it('counts by what of it comes where a way out below must pass it', () => {
    // All full when it begins: the one condition it is judged by then, with what comes raised to the peaks chosen.
    const full = derive(planeProject(DRY, WORKS), { registry: ROOFED, grids: noGrid, conditions: ['full'] }).derived;
    const peakM3s = full.outlets.find((o) => o.id === 's1')!.worst.peakM3s.value;
    const rational = PLAIN.runoff.find((r) => r.of === 'w2')!.rarePeakM3s;
    const designOf = (returns: Outlet['returns']): number =>
      derive(planeProject(DRY, WORKS), {
        registry: changed('s1', () => ({}), ({ outlets }) => ({ outlets: outlets.map((o) => ({ ...o, ...(returns ? { returns } : {}) })) })), // prettier-ignore
        grids: noGrid,
        conditions: ['full'],
      }).view.figures.s2.find((f) => f.id === 'designPeakM3s')!.value!;
    expect(designOf(undefined)).toBeCloseTo(rational + peakM3s, 9);
    expect(designOf({ to: 'w2', share: 0.25, lagS: 0 })).toBeCloseTo(rational + 0.25 * peakM3s, 9);
  });
  it('stays there where what it would come out in is gone', () => {
    const d = back({ to: 'gone', share: 0.25, lagS: 1800 });
    expect(d.links.find((l) => l.outlet === 's1')).toMatchObject({ to: 'ground' });
    expect(d.exits.every((e) => e.with.volumeM3 >= 0)).toBe(true);
  });
});

describe('a work that makes several stores', () => {
  const box = (id: string, like: Store): Store => ({
    ...like,
    id,
    name: id,
    outlets: like.outlets.filter((o) => o.kind === 'bank').map((o) => ({ ...o, id: `${id}#${o.id}` })),
  });
  const two = run(
    changed(
      'w1',
      ({ intakes }) => ({ intakes: [...intakes, { store: 'w1/row', points: [[101, 141]] }] }), // prettier-ignore
      ({ stores }) => ({ stores: (guests) => stores(guests).flatMap((s) => [s, box('w1/row', s)]) }),
    ),
  );
  it('has each of them caught, routed, told and judged by itself', () => {
    expect(two.stores.map((s) => s.id)).toEqual(['w1', 'w1/row', 'w2']);
    expect(two.catchments.map((c) => c.of)).toEqual(['w1', 'w1/row', 'w2']);
    const [main, row] = two.stores;
    expect(row.inM3).toBeGreaterThan(0);
    expect(main.inM3! + row.inM3!).toBeCloseTo(
      storeOf(PLAIN, 'w1').inM3! + (two.links.find((l) => l.from === 'w1/row' && l.to === 'w1')?.volumeM3 ?? 0),
      1,
    );
    expect(Math.abs(two.balance!.errorFraction)).toBeLessThan(1e-9);
    // Its guests let out the first.
    expect(two.links.find((l) => l.outlet === 's1')!.from).toBe('w1');
  });
});
