// What holds for every technique of the list, whichever they are: a new one is held to it by its two lines.
import { describe, expect, it } from '@jest/globals';
import type { BoundWork, DescribedWork, Host, Outlet, PlacedWork, Site, Store, WorkBase } from '../contract/index.ts';
import { Worksheet } from '../formula/index.ts';
import type { Point } from '../geometry/index.ts';
import type { Grid } from '../terrain/index.ts';
import { gridOf } from '../testing/grids.ts';
import { factsOf, siteOf, stormOf, withAt } from '../testing/rules.ts';
import { EVERY_KIND, valleyAt } from '../testing/valley.ts';
import { valueAt } from './fields.ts';
import { catalogue, registry } from './index.ts';

const GRID = gridOf(valleyAt, { cells: 101, cellM: 2 });

interface Made {
  readonly bound: BoundWork;
  readonly placed: PlacedWork;
  readonly store: Store | null;
}

/** Ground is measured once for what is measured alike: what is looked at here are levels and sizes. */
const measured = new Map<string, unknown>();
function groundOf(one: BoundWork, site: Site, host: Host | null): unknown {
  const key = JSON.stringify([one.work.id, one.groundKey, host?.work.id, site.grid.west]);
  if (!measured.has(key)) measured.set(key, one.measure(site, host));
  return measured.get(key);
}

/** All works put on a grid, hosts first, each with the ways out of its guests. */
function place(works: readonly WorkBase[], grid: Grid): ReadonlyMap<string, Made> {
  const site = siteOf(grid);
  const bound = works.map((w) => registry.bind(w));
  const made = new Map<string, PlacedWork>();
  for (const one of [...bound].sort((a, b) => Number(a.hostId !== null) - Number(b.hostId !== null))) {
    const host: Host | null = one.hostId === null ? null : (made.get(one.hostId)?.host ?? null);
    made.set(one.work.id, one.place(groundOf(one, site, host), host));
  }
  return new Map(
    bound.map((one): [string, Made] => {
      const placed = made.get(one.work.id)!;
      const guests = bound.filter((g) => g.hostId === one.work.id).flatMap((g) => made.get(g.work.id)!.outlets);
      return [one.work.id, { bound: one, placed, store: placed.stores(guests)[0] ?? null }];
    }),
  );
}

const BASE = place(EVERY_KIND, GRID);
const outletsOf = ({ placed, store }: Made): readonly Outlet[] => store?.outlets ?? placed.outlets;
const instead = (work: WorkBase): WorkBase[] => EVERY_KIND.map((w) => (w.id === work.id ? work : w));

/** Members by whether more of them makes a store larger, an opening wider, or closes it. */
const LARGER = /floorWidthM|pitSlopeHV$/;
const WIDER = /dimensions\.(lengthM|bottomWidthM|widthM|diameterM|barrels|dipLengthM|mouthM)$|^flowM3s$/;

describe.each(registry.kinds.map((kind) => [kind]))('%s', (kind) => {
  const works = EVERY_KIND.filter((w) => w.kind === kind);
  const each = (run: (made: Made, work: WorkBase) => void): void => works.forEach((w) => run(BASE.get(w.id)!, w));
  it('stands among the works of the valley, sound', () => {
    expect(works.length).toBeGreaterThan(0);
    each(({ bound }) => expect([bound.validate(), bound.title.length > 3, bound.fields.length > 0]).toEqual([[], true, true]));
  });
  it('has a number in its range at every field, and a known word at every choice', () => {
    each(({ bound }, work) => {
      for (const { path, min, max, label, help, optional } of bound.fields) {
        // What may be left out is looked at where its form offers it.
        const value = (valueAt(work, path) ?? optional?.start) as number;
        expect([path, value >= min && value <= max, label !== '' && help !== '']).toEqual([path, true, true]);
      }
      for (const { path, options, usual } of bound.choices) expect(options.map((o) => o.id)).toContain(valueAt(work, path) ?? usual);
    });
  });
  it('where a crest says what sets it, that is its level itself, which a mend may set', () => {
    each((here, work) => {
      for (const { levelBy, levelM } of outletsOf(here)) if (levelBy !== undefined) expect(valueAt(work, levelBy)).toBeCloseTo(levelM, 9);
    });
  });
  it('moved by whole cells with its ground gives the same store, ways out, pegs and figures there', () => {
    const [dx, dy] = [8000, -1200];
    const shift = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.length === 2 && value.every((v) => typeof v === 'number')
          ? [value[0] + dx, value[1] + dy]
          : value.map(shift)
        : value;
    const moved = EVERY_KIND.map((w) => Object.fromEntries(Object.entries(w).map(([k, v]) => [k, shift(v)])) as unknown as WorkBase);
    const there = place(moved, { ...GRID, west: dx, south: dy });
    each((here, work) => {
      const now = there.get(work.id)!;
      expect(now.store?.heldM3 ?? 0).toBeCloseTo(here.store?.heldM3 ?? 0, 5);
      const back = ([x, y]: Point): number[] => [x - dx, y - dy];
      outletsOf(here).forEach((o, k) => {
        const other = outletsOf(now)[k];
        expect([other.id, other.levelM]).toEqual([o.id, expect.closeTo(o.levelM, 6)]);
        back(other.dischargeAt).forEach((v, i) => expect(v).toBeCloseTo(o.dischargeAt[i], 5));
        for (const over of [0.1, 0.5]) expect(other.flowAt(o.levelM + over)).toBeCloseTo(o.flowAt(o.levelM + over), 5);
      });
      const pegs = [here, now].map((m) => m.placed.pegs(10, m.store?.wayOutM ?? null));
      expect(pegs[1].map((p) => [p.name, p.levelM])).toEqual(pegs[0].map((p) => [p.name, expect.closeTo(p.levelM, 5)]));
      pegs[1].forEach((p, k) => expect(Math.hypot(p.x - dx - pegs[0][k].x, p.y - dy - pegs[0][k].y)).toBeLessThan(1e-4));
      const figures = [here, now].map((m) =>
        m.placed.figures(factsOf(siteOf(GRID), { store: m.store }), new Worksheet('w')).map((f) => f.value),
      );
      figures[0].forEach((v, k) => (v === null ? expect(figures[1][k]).toBeNull() : expect(figures[1][k]).toBeCloseTo(v, 4)));
    });
  });
  it('a wider floor or a flatter side never holds less; a higher crest never leaves less freeboard', () => {
    each(({ bound, store }, work) => {
      if (!store) return;
      for (const { path, max } of bound.fields.filter((f) => LARGER.test(f.path))) {
        const value = valueAt(work, path) as number;
        // Steeper sides of a pit hold more; a wider floor does.
        const more = path.endsWith('pitSlopeHV') ? 0.8 * value : Math.min(max, 1.3 * value);
        expect(place(instead(withAt(work, path, more)), GRID).get(work.id)!.store!.heldM3).toBeGreaterThanOrEqual(store.heldM3 - 1e-9);
      }
      for (const path of ['levels.crestM', 'levels.bankCrestM', 'levels.roadM']) {
        const value = valueAt(work, path);
        if (typeof value !== 'number') continue;
        const higher = place(instead(withAt(work, path, value + 0.2)), GRID).get(work.id)!.store!;
        expect(higher.crestM - higher.wayOutM).toBeGreaterThanOrEqual(store.crestM - store.wayOutM - 1e-9);
      }
    });
  });
  it('its ways out pass nothing at their level, never less at a higher one, and not less when wider or less blocked', () => {
    each((made, work) => {
      for (const out of outletsOf(made)) {
        // Routing does not even ask below it.
        for (const under of [0, 0.01, 0.3, 2])
          expect([out.id, Math.abs(out.flowAt(out.levelM - under, out.levelM - 5))]).toEqual([out.id, 0]);
        let before = 0;
        for (let over = 0.02; over < 1; over += 0.02) {
          const flow = out.flowAt(out.levelM + over, out.levelM - 5);
          expect(flow).toBeGreaterThanOrEqual(before - 1e-9);
          before = flow;
        }
      }
      const flowOf = (one: WorkBase, id: string): number => {
        const out = [...place(instead(one), GRID).values()].flatMap((m) => outletsOf(m)).find((o) => o.id === id);
        return out?.flowAt(out.levelM + 0.4, out.levelM - 5) ?? 0;
      };
      const own = outletsOf(made).filter((o) => o.work === work.id && o.kind !== 'bank');
      for (const { id } of own) {
        const now = flowOf(work, id);
        for (const { path, max } of made.bound.fields.filter((f) => WIDER.test(f.path))) {
          // A longer way through stone or pipe passes less, not more.
          if (path.endsWith('lengthM') && work.kind !== 'level-sill') continue;
          const value = valueAt(work, path) as number;
          expect([
            path,
            flowOf(withAt(work, path, Math.min(max, path.endsWith('barrels') ? value + 1 : 1.4 * value)), id) >= now - 1e-9,
          ]).toEqual([path, true]);
        }
        if (valueAt(work, 'blockedPercent') === undefined) continue;
        const [half, whole] = [50, 100].map((share) => flowOf(withAt(work, 'blockedPercent', share), id));
        expect([half < now, whole < 1e-9]).toEqual([true, true]);
      }
    });
  });
  it('speaks of its own levels, in numbers, and draws what is finite', () => {
    each(({ placed, store }, work) => {
      for (const mark of placed.marks) {
        expect([mark.work, Number.isFinite(mark.levelM)]).toEqual([work.id, true]);
        if (mark.path !== null) expect(valueAt(work, mark.path)).toBe(mark.levelM);
      }
      const shape = placed.section?.(store?.wayOutM ?? null);
      for (const [x, y] of (shape?.parts ?? []).flatMap((p) => p.points))
        expect([Number.isFinite(x), Number.isFinite(y)]).toEqual([true, true]);
      const sheet = new Worksheet(work.id);
      const figures = placed.figures(factsOf(siteOf(GRID), { store, storm: stormOf({ peakLevelM: 106 }), designPeakM3s: 0.4 }), sheet);
      for (const f of figures) expect([f.id, f.value === null || Number.isFinite(f.value)]).toEqual([f.id, true]);
      expect(new Set(figures.map((f) => f.id)).size).toBe(figures.length);
    });
  });
});

it('says of every kind without its engine what it says with it', () => {
  expect(catalogue.kinds).toEqual(registry.kinds);
  expect(catalogue.draws).toEqual(registry.draws);
  for (const work of EVERY_KIND) {
    const { measure, place } = registry.bind(work);
    const bound = registry.bind(work);
    expect([typeof measure, typeof place]).toEqual(['function', 'function']);
    const told = (of: DescribedWork): unknown[] => [
      [of.title, of.fields, of.choices, of.references, of.traits, of.refs, of.hostId, of.refersTo, of.footprint, of.intakes, of.groundKey],
      of.validate(),
      of.lists.map((l) => [l.path, l.start()]),
    ];
    expect(told(catalogue.describe(work))).toEqual(told(bound));
    expect(catalogue.describe(work)).not.toHaveProperty('place');
    expect(catalogue.title(work.kind)).toBe(registry.title(work.kind));
  }
});

it('calls a work by its form where its forms go by names of their own, else by its kind', () => {
  const called = (work: object): string => catalogue.describe(work as WorkBase).title;
  const of = (kind: string): WorkBase => EVERY_KIND.find((w) => w.kind === kind)!;
  expect(['half-moon', 'pit'].map((form) => called({ ...of('half-moons'), form }))).toEqual(['Half-moons', 'Planting pits']);
  expect(['trench', 'pit', 'shaft'].map((form) => called({ ...of('soakaway'), form }))).toEqual([
    'Soak trench',
    'Soak pit',
    'Recharge shaft',
  ]);
  expect(called(of('terraces'))).toBe(catalogue.title('terraces'));
});

it('knows its kinds and no other', () => {
  expect(registry.kinds.map((k) => registry.has(k))).toEqual(registry.kinds.map(() => true));
  expect(registry.has('toString')).toBe(false);
  expect(() => registry.bind({ ...EVERY_KIND[0], kind: 'moat' })).toThrow('unknown kind of work "moat"');
  expect(() => registry.workType()).toThrow();
});
