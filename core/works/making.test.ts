// How much of what each work takes, by hand; and what holds for the making of all of them.
import { describe, expect, it } from '@jest/globals';
import type { BuildStep, PlacedWork, QuantityLine } from '../contract/index.ts';
import { APRON_STONE, apronOf } from '../hydraulics/index.ts';
import { derive } from '../derive/index.ts';
import { HOST, SITE, onHost } from '../testing/guests.ts';
import { derived, noGrid } from '../testing/projects.ts';
import { factsOf, linkOf, withAt, words } from '../testing/rules.ts';
import { CUT, DRAIN, EVERY_KIND, PIPE, POND, PUMP, ROAD, TRENCH, valleyProject } from '../testing/valley.ts';
import { SILL, SWALE } from '../testing/projects.ts';
import { crossing, pipeLength } from './crossing/index.ts';
import { cutSpillway } from './cut-spillway/index.ts';
import { diversion } from './diversion/index.ts';
import { levelSill } from './level-sill/index.ts';
import { measureLip } from './lip.ts';
import type { HostPlace } from './on-host.ts';
import { SPREAD, counted, inOrder, line, standingIn } from './making.ts';
import { type PipeOutlet, pipeOutlet } from './pipe-outlet/index.ts';
import { pond } from './pond/index.ts';
import { type PumpBack, pumpBack } from './pump-back/index.ts';
import { stoneTrench } from './stone-trench/index.ts';
import { swale } from './swale/index.ts';
import { registry } from './index.ts';

const amounts = ({ quantities }: PlacedWork, links: Parameters<typeof factsOf>[1] = {}): Record<string, number | null> =>
  Object.fromEntries(quantities(factsOf(SITE, links)).map((q) => [q.item, q.likely]));
const steps = ({ buildSteps }: PlacedWork): string[] => buildSteps().map((s) => s.id);
const textOf = (list: readonly BuildStep[]): string => list.flatMap((s) => [words(s.does), s.hold ?? '', ...s.cautions]).join(' ');
const near = (v: number): unknown => expect.closeTo(v, 6);

describe('an amount', () => {
  it('is told with how far it may be off, by what it is; unknown it is unknown', () => {
    const what = { item: 'cut', label: 'Cut', kind: 'volume' as const, from: 'x' };
    expect(line(what, 100, 'earth')).toEqual({ ...what, low: 85, likely: 100, high: near(115) });
    expect(line(what, null, 'stone')).toEqual({ ...what, low: null, likely: null, high: null });
    expect(counted({ item: 'pump', label: 'Pump', from: 'one' }, 2)).toMatchObject({ kind: 'count', low: 2, likely: 2, high: 2 });
    expect(Object.values(SPREAD).every((v) => v > 0 && v < 0.5)).toBe(true);
  });
  it('a deep trench, or one of unknown depth, is no place to stand in; a shallow one is not spoken of', () => {
    expect([standingIn(1.2), standingIn(1.21), standingIn(null)].map((said) => said.length)).toEqual([0, 1, 1]);
  });
  it('steps follow one another', () => {
    expect(inOrder({ id: 'a', does: 'A.' }, { id: 'b', does: 'B.', hold: 'Look.' }).map((s) => [s.id, s.after, s.hold])).toEqual([
      ['a', [], undefined],
      ['b', ['a'], 'Look.'],
    ]);
  });
});

describe('what works take', () => {
  const flat = { ...measureLip(SWALE.line, SITE) };
  const ground = {
    ...flat,
    groundM: flat.groundM.map(() => 0),
    crossSlope: flat.crossSlope.map(() => 0),
    meanGroundM: 0,
    steepestSlope: 0,
  };
  it('a swale on level ground: its ditch, its bank and the bank’s sides', () => {
    const one = { ...SWALE, levels: { floorM: -0.35, bankCrestM: 0.35 } };
    const made = swale.place(one, ground, null);
    expect(amounts(made)).toEqual({
      cut: near(140 * (0.9 * 0.35 + 1.5 * 0.35 ** 2)),
      fill: near(140 * (0.5 * 0.35 + 2 * 0.35 ** 2)),
      seed: near(140 * (0.5 + 2 * 0.35 * Math.hypot(1, 2))),
    });
    expect(amounts(swale.place(one, { ...ground, steepestSlope: 0.9 }, null))).toMatchObject({ cut: null, fill: null });
    expect(steps(made)).toEqual(['peg', 'way-out', 'strip', 'dig', 'bank', 'finish']);
    const rolled = (purpose: typeof SWALE.purpose): boolean =>
      /rolled layers/.test(textOf(swale.place({ ...one, purpose }, ground, null).buildSteps()));
    expect([rolled('soak'), rolled('convey'), rolled('hold'), rolled('spillway')]).toEqual([false, false, true, true]);
    const deep = (floorM: number): boolean =>
      /Nobody stands/.test(textOf(swale.place(withAt(one, 'levels.floorM', floorM), ground, null).buildSteps()));
    expect([deep(-1.2), deep(-1.21)]).toEqual([false, true]);
  });
  it('a sill, a cut and a trench: by their sides', () => {
    const sill = { ...SILL, levels: { sillM: 0 } };
    expect(amounts(onHost(levelSill, sill).placed)).toEqual({ turf: near(6) });
    const hard = onHost(levelSill, { ...sill, crest: 'hard' }).placed;
    expect(amounts(hard)).toEqual({ lip: near(sill.dimensions.lengthM) });
    expect([steps(onHost(levelSill, sill).placed), steps(hard)]).toEqual([
      ['peg', 'cut', 'cover'],
      ['peg', 'cut', 'lip'],
    ]);
    const cut = { ...CUT, atM: 100, levels: { sillM: -0.5 } };
    expect(amounts(onHost(cutSpillway, cut).placed)).toEqual({ cut: near((5 + 3 * 0.5) * 0.5 * 12), turf: near(5 * (12 + 10)) });
    expect(amounts(onHost(cutSpillway, withAt(cut, 'dimensions.stoneM', 0.2)).placed)).toEqual({
      cut: near(39),
      turf: near(60),
      stone: near(5 * 10 * 0.4),
    });
    expect(amounts(onHost(cutSpillway, cut, null).placed)).toMatchObject({ cut: null });
    const trench = { ...TRENCH, atM: 100, levels: { floorM: -0.4, sillM: -0.2, rockTopM: 0.1 } };
    expect(amounts(onHost(stoneTrench, trench).placed)).toEqual({ cut: near(2 * 8 * 0.3), stone: near(2 * 8 * 0.4) });
    expect(amounts(onHost(stoneTrench, trench, null).placed)).toMatchObject({ cut: null, stone: near(6.4) });
  });
  it('a pipe: itself, what stands, its filter or collars, and the apron its storm asks for', () => {
    const pipe: PipeOutlet = {
      ...PIPE,
      atM: 100,
      seal: 'none',
      levels: { sillM: 0, outletM: -1.2 },
      dimensions: { diameterM: 0.3, mouthM: 0.6, lengthM: 15 },
    };
    expect(amounts(onHost(pipeOutlet, pipe).placed)).toEqual({ pipe: 15, stone: null });
    const running = { links: [linkOf('pipe', 0.2)] };
    const apron = apronOf({ stoneM: APRON_STONE.evaluate({ Q: 0.2, D: 0.3, TW: 0 }), diameterM: 0.3 });
    expect(amounts(onHost(pipeOutlet, pipe).placed, running)).toEqual({
      pipe: 15,
      stone: near(((apron.lengthM * (0.9 + apron.endWidthM)) / 2) * apron.depthM),
    });
    expect(amounts(onHost(pipeOutlet, pipe).placed, { links: [linkOf('pipe', 0)] })).toMatchObject({ stone: null });
    expect(amounts(onHost<PipeOutlet, HostPlace>(pipeOutlet, { ...pipe, form: 'riser', seal: 'filter' }).placed)).toEqual({
      pipe: 15,
      riser: near(1.2),
      rack: 1,
      sand: near(5 * (1.3 ** 2 - Math.PI * 0.0225)),
      stone: null,
    });
    expect(amounts(onHost<PipeOutlet, HostPlace>(pipeOutlet, { ...pipe, seal: 'collars' }).placed)).toMatchObject({ collar: 3 });
  });
  it('a drain: its cut, and what its lining takes', () => {
    const drain = {
      ...DRAIN,
      line: SWALE.line,
      levels: { startM: 0.7, endM: 0 },
      dimensions: { floorWidthM: 1, sideSlopeHV: 2, depthM: 0.5, stoneM: 0.1 },
    };
    const made = (lining: 'earth' | 'grass' | 'stone') => amounts(diversion.place({ ...drain, lining }, ground, null));
    const outline = 140 * (1 + 2 * 0.5 * Math.hypot(1, 2));
    const cut = near((1 + 2 * 0.3) * 0.3 * 140);
    expect([made('earth'), made('grass'), made('stone')]).toEqual([
      { cut },
      { cut, seed: near(outline) },
      { cut, stone: near(outline * 0.2) },
    ]);
  });
  it('a crossing: its bank, its pipes and its road metal; a pump: pipe, pump and panels', () => {
    const valley = derived(valleyProject(EVERY_KIND));
    expect(valley.derived.quantities.find((q) => q.work === 'road' && q.item === 'pipe')?.quantity).toBeCloseTo(pipeLength(ROAD), 9);
    expect(valley.derived.quantities.find((q) => q.work === 'road' && q.item === 'fill')?.quantity).toBeGreaterThan(10);
    const metal = (change: object) =>
      valley.view && derived(valleyProject([{ ...ROAD, ...change }])).derived.quantities.find((q) => q.item === 'stone')?.quantity;
    expect(metal({})).toBeCloseTo(26 * 4 * 0.15, 6);
    expect(metal({ form: 'dip', dimensions: { ...ROAD.dimensions, dipLengthM: 10 } })).toBeCloseTo(10 * 4 * 0.3 + 16 * 4 * 0.15, 6);
    expect(amounts(pumpBack.place(PUMP, null, HOST))).toEqual({ pipe: 80, pump: 1 });
    const sun = onHost<PumpBack, null>(pumpBack, { ...PUMP, drive: 'sun' });
    expect(amounts(sun.placed)).toEqual({ pipe: 80, pump: 1, panels: sun.figure('arrayW') });
    expect(
      steps(crossing.place({ ...ROAD, dimensions: { ...ROAD.dimensions, barrels: 0 } }, crossing.measure(ROAD, SITE, null), null)),
    ).not.toContain('pipe');
  });
  it('a pond: earth, key, topsoil and the wall’s sides; a pit what is dug; unknown where a foot is', () => {
    const level = { ...SITE, grid: { ...SITE.grid, z: SITE.grid.z.map(() => 100 - SITE.grid.baseM) } };
    const one = { ...POND, wall: SWALE.line, levels: { crestM: 102, floorM: 100 } };
    const made = pond.place(one, pond.measure(one, level, null), null);
    const at = amounts(made);
    // 2.5 m of crest, sides of 3 and 2 to 1 over 2 m.
    expect(at.seed! / (140 * (2.5 + 2 * Math.hypot(1, 3) + 2 * Math.hypot(1, 2)))).toBeCloseTo(1, 2);
    expect(at.key).toBeCloseTo(140 * 0.8 * 3.2, 6);
    expect(at.topsoil! / (140 * (2.5 + 10) * 0.15)).toBeCloseTo(1, 2);
    expect(at).not.toHaveProperty('cut');
    expect(textOf(made.buildSteps())).toMatch(/0\.15 m to 102\.100 m, which settles to 102\.000 m/);
    expect(steps(made)).toEqual(['peg', 'strip', 'key', 'way-out', 'wall', 'finish']);
    const dug = { ...one, wall: undefined, pit: [[60, 60], [80, 60], [80, 80], [60, 80]] as const, levels: { crestM: 100, floorM: 98 } }; // prettier-ignore
    const pit = pond.place(dug, pond.measure(dug, level, null), null);
    expect(amounts(pit).cut! / ((400 + 4 * 16 * 16 + 144) / 3)).toBeCloseTo(1, 1);
    expect(steps(pit)).toEqual(['peg', 'way-out', 'dig', 'finish']);
    const blind = { ...level, grid: { ...level.grid, z: level.grid.z.map((v, i) => (Math.floor(i / 101) > 51 ? NaN : v)) } };
    const half = pond.place(one, pond.measure(one, blind, null), null);
    expect(amounts(half)).toEqual({ fill: null, key: null, topsoil: null, seed: null });
    expect(textOf(half.buildSteps())).toMatch(/5 % higher than it is to be/);
  });
});

describe('the making of every work', () => {
  const result = derive(valleyProject(EVERY_KIND.map((w) => ({ ...w, status: 'planned' }))), { registry, grids: noGrid });
  it('is told for all that is planned or pegged, and for nothing that is there', () => {
    expect(Object.keys(result.view.making).sort()).toEqual(EVERY_KIND.map((w) => w.id).sort());
    for (const status of ['existing', 'built', 'retired'] as const) {
      const there = derived(valleyProject(EVERY_KIND.map((w) => ({ ...w, status }))));
      expect([there.derived.quantities, there.view.making]).toEqual([[], {}]);
    }
  });
  it.each(EVERY_KIND.map((w) => [w.id]))(
    '%s: amounts with their geometry, steps in an order that can be followed, held where something is hidden',
    (id) => {
      const { quantities, steps: list } = result.view.making[id];
      expect(quantities.length).toBeGreaterThan(0);
      expect(new Set(quantities.map((q) => q.item)).size).toBe(quantities.length);
      for (const q of quantities) {
        expect([q.item, q.from.length > 2, q.label.length > 2]).toEqual([q.item, true, true]);
        if (q.likely !== null) expect([q.item, q.low! <= q.likely && q.likely <= q.high! && q.low! >= 0]).toEqual([q.item, true]);
      }
      expect(list.length).toBeGreaterThan(2);
      const before = new Set<string>();
      for (const s of list) {
        expect(s.after.every((a) => before.has(a))).toBe(true);
        before.add(s.id);
        expect(words(s.does)).toMatch(/\.$/);
        for (const l of s.levels) expect(Number.isFinite(l.levelM)).toBe(true);
      }
      expect(before.size).toBe(list.length);
      expect(list.some((s) => s.hold !== undefined)).toBe(true);
      expect(textOf(list)).not.toMatch(/NaN|undefined|null/);
    },
  );
  it('a way out comes before what holds water', () => {
    for (const id of ['pond', 'backup']) {
      const ids = result.view.making[id].steps.map((s) => s.id);
      expect(ids.indexOf('way-out')).toBeLessThan(ids.indexOf(id === 'pond' ? 'wall' : 'bank'));
    }
  });
  it('is told in SI in the JSON, row by row', () => {
    const units: Partial<Record<QuantityLine['kind'], string>> = {
      volume: 'm3',
      area: 'm2',
      length: 'm',
      power: 'W',
      mass: 't',
      hours: 'h',
      liquid: 'm3',
      count: '1',
    };
    const rows = result.derived.quantities;
    for (const [work, { quantities }] of Object.entries(result.view.making))
      for (const q of quantities)
        expect(rows).toContainEqual({
          work,
          item: q.item,
          quantity: q.likely,
          unit: units[q.kind],
          low: q.low,
          high: q.high,
          from: q.from,
        });
  });
  it('pegs have ids of their own, what they set and how near', () => {
    const { pegs } = result.derived;
    expect(new Set(pegs.map((p) => p.id)).size).toBe(pegs.length);
    for (const p of pegs) expect([p.id.startsWith(`${p.work}:${p.role}:`), p.toleranceM > 0 && p.toleranceM <= 0.05]).toEqual([true, true]);
    expect(pegs.filter((p) => p.work === 'ps').map((p) => [p.role, p.toleranceM])).toEqual([
      ['sill', 0.01],
      ['sill', 0.01],
      ['sill', 0.01],
    ]);
    // A level that moves keeps their ids.
    const raised = derived(valleyProject(EVERY_KIND.map((w) => (w.id === 'ps' ? withAt(w, 'levels.sillM', 105.8) : w)))).derived.pegs;
    expect(raised.filter((p) => p.work === 'ps').map((p) => p.id)).toEqual(['ps:sill:1', 'ps:sill:2', 'ps:sill:3']);
  });
});
