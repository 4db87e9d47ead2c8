// The set of storms: which durations, on what ground and water, and that the worst of it is the worst.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Check, WorkBase } from '../../contract/index.ts';
import { textureOf } from '../../ground/index.ts';
import type { Project, Rain } from '../../project/index.ts';
import { LIP_M, SILL, SWALE, noGrid, planeProject } from '../../testing/projects.ts';
import { ROOF, YARD_DRAIN } from '../../testing/valley-fields.ts';
import { PIPE, POND, POND_SILL, ROAD, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph, derive } from '../index.ts';
import { asDesigned } from '../scenario/scenario.ts';
import type { Derived, DeriveResult } from '../types.ts';
import { runSet } from './set.ts';

const TABLE = { durationsMin: [10, 30, 60, 120, 720, 1440], returnYears: [2, 20], depthMm: [[8, 13, 17, 22, 38, 46], [15, 25, 33, 42, 74, 92]] }; // prettier-ignore
const RAIN: Rain = { table: TABLE, storm: { returnYears: 20 } };
const VALLEY: readonly WorkBase[] = [POND, POND_SILL, PIPE];
const graph = new Graph();
const run = (project: Project, asked: Partial<Parameters<typeof derive>[1]> = {}): DeriveResult =>
  derive(project, { registry, grids: noGrid, graph, ...asked });
const inValley = (rain: Partial<Rain> = {}, change: Partial<Project> = {}, works = VALLEY): Project =>
  valleyProject(works, { rain: { ...RAIN, ...rain }, ...change });
const storm = (change: Partial<Rain['storm']>): Partial<Rain> => ({ storm: { ...RAIN.storm, ...change } });
const storeOf = (d: Derived, id = 'pond'): Derived['stores'][number] => d.stores.find((s) => s.id === id)!;
const checkOf = (d: Derived, id: string, on: string): Check | undefined => d.checks.find((c) => c.id === id && c.on === on);

const WHOLE = run(inValley()).derived;

describe('the set', () => {
  it('goes from the time of concentration to the end of the table, in all conditions', () => {
    // By lag the valley's catchment answers in less than ten minutes.
    expect(WHOLE.set).toEqual({
      returnYears: 20,
      durationsMin: [5, 10, 15, 30, 60, 120, 180, 360, 720, 1440],
      conditions: ['found', 'full', 'blocked', 'wet', 'bare'],
    });
  });
  it('has no blocked pipes where there are none, and one condition where there is no work', () => {
    expect(run(inValley({}, {}, [POND, POND_SILL])).derived.set?.conditions).toEqual(['found', 'full', 'wet', 'bare']);
    expect(run(inValley({}, {}, [])).derived.set?.conditions).toEqual(['found']);
  });
  it('is what the user says where he names lengths, and none where one storm is asked for', () => {
    expect(run(inValley(storm({ durationsMin: [30, 720] }))).derived.set?.durationsMin).toEqual([30, 720]);
    const one = run(inValley(storm({ durationMin: 120 }))).derived;
    expect(one.set).toBeNull();
    expect(checkOf(one, 'rain.one-storm', 'pond')?.severity).toBe('weigh');
    expect(checkOf(WHOLE, 'rain.one-storm', 'pond')?.severity).toBe('fine');
    expect(run(inValley(storm({ shape: { kind: 'pattern', pattern: 'II' } }))).derived.set).toBeNull();
  });
});

describe('the worst of the set', () => {
  const members = (['found', 'full', 'blocked', 'wet', 'bare'] as const).flatMap((condition) =>
    [5, 60, 1440].map((durationMin) => ({ condition, durationMin })),
  );
  it.each(members)('is never less than $condition in $durationMin min', ({ condition, durationMin }) => {
    const conditions = condition === 'found' ? [] : [condition];
    // One storm by itself, worked out without any set; it finds things as a storm of its own length leaves them.
    const { derived: alone } = run(inValley(storm({ durationMin })), { conditions: [...conditions, 'found'] });
    const [here, worst] = [storeOf(alone), storeOf(WHOLE).worst];
    expect(worst.peakLevelM.value).toBeGreaterThanOrEqual(here.peakLevelM! - 1e-9);
    expect(worst.freeboardM.value).toBeLessThanOrEqual(here.freeboardM! + 1e-9);
    expect(worst.spilledM3.value).toBeGreaterThanOrEqual(here.spilledM3! - 1e-9);
    expect(worst.peakOutM3s.value).toBeGreaterThanOrEqual(here.peakOutM3s! - 1e-9);
    for (const outlet of alone.outlets)
      expect(WHOLE.outlets.find((o) => o.id === outlet.id)!.worst.peakM3s.value).toBeGreaterThanOrEqual(outlet.peakM3s - 1e-9);
  });
  it('names the storm by which it is so: that storm alone comes to the same', () => {
    const { peakLevelM } = storeOf(WHOLE).worst;
    const conditions = [peakLevelM.condition];
    const alone = run(inValley(storm({ durationMin: peakLevelM.durationMin })), { conditions }).derived;
    expect(storeOf(alone).worst.peakLevelM.value).toBeCloseTo(peakLevelM.value, 9);
  });
  it('the plain members are of the storm in which it stood highest as found', () => {
    const levels = WHOLE.set!.durationsMin.map((durationMin) => {
      const one = inValley({ storm: { ...RAIN.storm, durationsMin: [durationMin, 1440].slice(durationMin === 1440 ? 1 : 0) } });
      return storeOf(derive(one, { registry, grids: noGrid, graph }, { shownMin: durationMin }).derived).peakLevelM!;
    });
    expect(storeOf(WHOLE).peakLevelM).toBe(Math.max(...levels));
  });
  it.each(['larger', 'hydrograph'] as const)(
    'by the %s peak a store is run on wet and bare ground in the lengths that came near to deciding for it as found, and the longest',
    (peak) => {
      // A roof sheds as fast in ten minutes as in a day; the road's water comes to the pond.
      const { view, derived: d } = run(inValley({}, { runoff: { peak } }, [...VALLEY, ROOF, ROAD]));
      const told = (id: string, condition: string) => view.peaks[id].filter((p) => p.condition === condition);
      const lengths = (id: string, condition: string): number[] => told(id, condition).map((p) => p.durationMin);
      const nearIn = (id: string, condition: string): number[] => {
        const rises = told(id, condition).map((p) => ({ ...p, riseM: p.peakLevelM - storeOf(d, id).startM! }));
        const most = Math.max(...rises.map((r) => r.riseM));
        return rises.flatMap((r) => (r.riseM >= 0.95 * most ? [r.durationMin] : []));
      };
      const together = (...lists: number[][]): number[] => [...new Set(lists.flat())].sort((x, y) => x - y);
      const [pond, road, roof] = ['pond', 'road', 'roof'].map((id) => nearIn(id, 'found'));
      for (const condition of ['wet', 'bare']) {
        expect(lengths('pond', condition)).toEqual(together(pond, [1440]));
        expect(lengths('road', condition)).toEqual(together(road, pond, [1440]));
        expect(lengths('roof', condition)).toEqual(together(roof));
      }
      expect([roof.includes(10), pond.includes(10), pond.includes(60)]).toEqual([true, false, peak === 'larger']);
      // Choked, it runs over the road in hours as in a day: that says nothing of it on other ground.
      expect([nearIn('road', 'blocked').includes(720), lengths('road', 'bare').includes(720)]).toEqual([true, peak === 'larger']);
    },
  );
  it('a pipe is run there in all the lengths that came near to deciding for it, and in the longest', () => {
    const scenario = asDesigned(inValley({}, {}, [YARD_DRAIN]));
    const { members, water } = runSet(scenario, { registry, grids: noGrid, graph: new Graph() })!;
    const told = (id: string, condition: string) =>
      members.flatMap(({ brief, ...by }) => (by.condition === condition ? { ...by, storm: brief.outcomes.get(id)?.storm } : []));
    const pipes = water.stores.filter((s) => s.soffitM !== undefined);
    let short = 0;
    for (const { id } of pipes) {
      const rises = told(id, 'found').map(({ durationMin, storm }) => ({ durationMin, riseM: storm!.peakLevelM - storm!.startM }));
      const most = Math.max(...rises.map((r) => r.riseM));
      const near = new Set([...rises.filter((r) => r.riseM >= 0.95 * most).map((r) => r.durationMin), 1440]);
      for (const condition of ['wet', 'bare']) {
        const ran = new Set(told(id, condition).flatMap((m) => (m.storm ? [m.durationMin] : [])));
        expect([id, condition, [...near].filter((d) => !ran.has(d))]).toEqual([id, condition, []]);
      }
      short += near.size - 1;
    }
    expect([pipes.length > 1, short > 0]).toEqual([true, true]);
  });
  it('what is fine as found and not when blocked says so; bare ground alone only asks to be weighed', () => {
    // A pipe that passes nearly all of it, and a short sill high above: with the pipe closed the sill must do.
    const wide = { ...PIPE, dimensions: { ...PIPE.dimensions, diameterM: 0.6 } };
    const high = { ...POND_SILL, levels: { sillM: 106.15 }, dimensions: { lengthM: 1, crestWidthM: 1.2 } };
    const project = inValley({}, {}, [POND, high, wide]);
    const { checks } = run(project).derived;
    const said = checks.filter((c) => c.condition !== undefined);
    expect(checkOf(run(project).derived, 'pond.freeboard', 'pond')?.condition).toBe('blocked');
    const usual = run(project, { conditions: ['found'] }).derived;
    for (const { id, on, severity, condition } of said) {
      if (condition === 'wet' || condition === 'bare') expect(severity).toBe('weigh');
      for (const c of usual.checks.filter((u) => u.id === id && u.on === on)) expect(c.severity).not.toBe('mend');
    }
    expect(storeOf(usual).freeboardM!).toBeGreaterThan(storeOf(run(project).derived).least!.value + 0.1);
  });
  it('one storm alone is judged on wet and on bare ground too', () => {
    const one = run(inValley(storm({ durationMin: 120 })));
    // A crest that leaves half a millimetre more than is asked as found and full, and less on wet or bare ground.
    const crest = POND.levels.crestM - (storeOf(one.derived).least!.value - 0.3) + 0.0005;
    const low = run(
      inValley(storm({ durationMin: 120 }), {}, [{ ...POND, levels: { ...POND.levels, crestM: crest } } as WorkBase, POND_SILL, PIPE]),
    );
    const check = checkOf(low.derived, 'pond.freeboard', 'pond');
    expect(check?.severity).toBe('weigh');
    expect(['wet', 'bare']).toContain(check?.condition);
  });
  it('keeps the worst of each place where water leaves, and of what a way out runs on', () => {
    for (const { worst, with: now, id } of WHOLE.exits) expect([id, worst.peakM3s.value >= now.peakM3s]).toEqual([id, true]);
    expect(Math.max(...WHOLE.exits.map((e) => e.worst.peakM3s.value / Math.max(1e-9, e.with.peakM3s)))).toBeGreaterThan(1.1);
    for (const o of WHOLE.outlets) if (o.lining === 'washes') expect(o.liningAtWorst).toBe('washes');
  });
  it('raises levels where a peak is chosen that is more than the hydrograph’s, and tells the volume that takes', () => {
    const by = (peak: 'hydrograph' | 'rational'): Derived['stores'][number] =>
      storeOf(run(inValley(storm({ durationMin: 120, before: 'dry' }), { runoff: { peak } })).derived);
    const [plain, raised] = [by('hydrograph'), by('rational')];
    expect(raised.peakLevelM).toBe(plain.peakLevelM);
    expect(raised.least!.value).toBeLessThan(plain.least!.value - 0.01);
    expect(raised.worst.raisedInM3.value).toBeGreaterThan(1.05 * raised.inM3!);
    expect(plain.worst.raisedInM3).toBeUndefined();
  });
  it('a wider set never makes a verdict milder', () => {
    const RANK = { fine: 0, unknown: 1, weigh: 2, mend: 3 };
    const worstBy = (d: Derived): Map<string, number> => {
      const by = new Map<string, number>();
      for (const { id, on, severity } of d.checks) by.set(`${id} ${on}`, Math.max(by.get(`${id} ${on}`) ?? 0, RANK[severity]));
      return by;
    };
    const narrow = worstBy(run(inValley(storm({ durationsMin: [60, 120] }))).derived);
    const wide = worstBy(run(inValley(storm({ durationsMin: [30, 60, 120, 720] }))).derived);
    // What the set itself is told by: it grows less short.
    for (const [key, rank] of narrow) if (!key.startsWith('rain.set')) expect([key, wide.get(key)! >= rank]).toEqual([key, true]);
  });
  it('a longer table never lowers a level', () => {
    const shorter = { ...TABLE, durationsMin: TABLE.durationsMin.slice(0, 4), depthMm: TABLE.depthMm.map((row) => row.slice(0, 4)) };
    const less = run(inValley({ table: shorter })).derived;
    expect(storeOf(less).worst.peakLevelM.value).toBeLessThanOrEqual(storeOf(WHOLE).worst.peakLevelM.value + 1e-9);
    expect(checkOf(less, 'rain.set-too-short', 'pond')?.severity).toBe('weigh');
  });
});

describe('a long storm', () => {
  // A closed form: all that a plane sheds in a long even storm leaves over the sill at the rate it comes, and 24 hours of it fill
  // what two hours do not.
  it('fills a swale that a short one leaves half empty', () => {
    const project = (storms: Partial<Rain['storm']>): Project =>
      planeProject({ rain: { ...RAIN, storm: { ...RAIN.storm, before: 'dry', ...storms } } });
    const peak = (p: Project): number => run(p).derived.stores[0].peakLevelM!;
    expect(peak(project({ durationMin: 10 }))).toBeLessThan(SILL.levels.sillM);
    expect(peak(project({ durationMin: 1440 }))).toBeGreaterThan(SILL.levels.sillM);
    const set = run(project({})).derived.stores[0];
    expect(set.worst.peakLevelM).toMatchObject({ durationMin: 1440 });
    expect(set.holds).toBe(false);
  });
});

describe('where the water of a store is found', () => {
  const start = (works: readonly WorkBase[], change: Partial<Project> = {}, id = 'pond'): number =>
    storeOf(run(valleyProject(works, { rain: { ...RAIN, storm: { ...RAIN.storm, durationMin: 120 } }, ...change })).derived, id).startM!;
  const plane = (change: Partial<Project> = {}, swale: object = {}): Derived['stores'][number] =>
    run(planeProject(change, [{ ...SWALE, ...swale }, SILL])).derived.stores[0];
  const rain = (before: 'dry' | 'usual' | 'wet'): Partial<Project> => ({
    rain: { ...RAIN, storm: { returnYears: 20, durationMin: 1440, before } },
  });

  it('a pond that seeps little begins at its lowest way out', () => {
    expect(start([POND, POND_SILL])).toBeCloseTo(POND_SILL.levels.sillM, 9);
    expect(start([POND, POND_SILL, PIPE])).toBeCloseTo(PIPE.levels.sillM, 9);
  });
  it('a pond that loses its water in two days begins empty of it', () => {
    const leaky = { ...POND, seepageMmPerDay: 2400 };
    expect(start([leaky, POND_SILL])).toBeLessThan(105);
  });
  it('a swale begins with what a day of soaking leaves: 24 times its rate lower than it stood', () => {
    // Floor to sill 350 mm; at 5 mm/h a day takes 120 mm off what stands: 230 mm are left, wherever the water is a box.
    const slow = { ...planeProject().ground!, infiltrationMmPerHour: 5 };
    const upright = { dimensions: { ...SWALE.dimensions, sideSlopeHV: 0 } };
    const { startM, floorM } = plane({ ...rain('usual'), ground: slow }, upright);
    expect(startM! - floorM).toBeGreaterThan(0.2);
    expect(startM! - floorM).toBeLessThan(0.235);
    const wet = plane({ ...rain('wet'), ground: slow }, upright);
    // Six hours take 30 mm.
    expect(wet.startM! - wet.floorM).toBeGreaterThan(0.3);
    expect(plane({ ...rain('dry'), ground: slow }, upright).startM).toBeCloseTo(floorM, 9);
  });
  it('a swale on ground that takes in fast begins empty; one made to hold begins full', () => {
    const fast = { ...planeProject().ground!, infiltrationMmPerHour: 40, soilDepthM: 3 };
    expect(plane({ ...rain('usual'), ground: fast }).startM).toBeCloseTo(LIP_M - 0.35, 9);
    expect(plane({ ...rain('dry'), ground: fast }, { purpose: 'hold' }).startM).toBeCloseTo(SILL.levels.sillM, 9);
  });
  it('a swale over shallow soil stays full of what the soil has no room for; in a dry spell that has moved on', () => {
    const { drainable } = textureOf('loam');
    const upright = { dimensions: { ...SWALE.dimensions, sideSlopeHV: 0 } };
    const shallow = (soilDepthM: number, before: 'dry' | 'usual' = 'usual'): Derived['stores'][number] =>
      plane({ ...rain(before), ground: { ...planeProject().ground!, soilDepthM } }, upright);
    const deep = shallow(9);
    expect(deep.soilShortM3).toBe(0);
    expect(deep.drainDownH).toBeGreaterThan(0);
    expect(deep.startM).toBeCloseTo(deep.floorM, 3);
    const { soilShortM3, drainDownH, startM, heldM3, stage, wayOutM } = shallow(0.8);
    const wetted = stage.reduce((a, s) => (s.levelM <= wayOutM + 1e-9 ? s.wettedM2 : a), 0);
    // 0.8 m of soil, the floor 0.35 m down: 0.45 m of loam under what it wets.
    expect(soilShortM3! / heldM3).toBeGreaterThan(0);
    expect(Math.abs((heldM3 - soilShortM3!) / (0.45 * drainable * wetted) - 1)).toBeLessThan(0.03);
    expect(drainDownH).toBeNull();
    const standing = (m: number): number => {
      const k = stage.findIndex((s) => s.levelM >= m);
      const [a, b] = [stage[k - 1], stage[k]];
      return a.volumeM3 + ((b.volumeM3 - a.volumeM3) * (m - a.levelM)) / (b.levelM - a.levelM);
    };
    // A day at 20 mm/h would have emptied it: what stays is what the soil has no room for.
    expect(Math.abs(standing(startM!) - soilShortM3!)).toBeLessThan(0.01 * heldM3);
    expect(shallow(0.8, 'dry').startM).toBeCloseTo(LIP_M - 0.35, 9);
    // On rock nothing soaks in at all.
    expect(shallow(0.3).soilShortM3).toBeCloseTo(heldM3, 9);
  });
  it('a spring that brings more than soaks away keeps a swale full', () => {
    const spring = { id: 'spring', kind: 'spring', at: [101, 150] as const, flowM3s: 0.002 };
    const fed = plane({ ...rain('usual'), features: [spring] });
    expect(fed.startM).toBeCloseTo(SILL.levels.sillM, 9);
    // And it never dries.
    expect(fed.drainDownH).toBeNull();
  });
  it('is what the user says, kept to what the store can hold', () => {
    const said = (levelM: number): Derived['stores'][number] => {
      const p = planeProject(rain('dry'));
      return run({ ...p, options: [{ ...p.options[0], starts: { w1: levelM } }] }).derived.stores[0];
    };
    expect(said(LIP_M - 0.2).startM).toBeCloseTo(LIP_M - 0.2, 9);
    expect(said(LIP_M + 50).startM).toBeCloseTo(said(LIP_M - 0.2).crestM, 9);
  });
  it('starting fuller never lowers a level, nor does blocking a way out', () => {
    fc.assert(
      fc.property(fc.double({ min: 104.1, max: 106, noNaN: true }), fc.double({ min: 0, max: 0.4, noNaN: true }), (levelM, more) => {
        const peak = (start: number, blockedPercent: number): number => {
          const p = inValley(storm({ durationsMin: [120] }), {}, [POND, POND_SILL, { ...PIPE, blockedPercent } as WorkBase]);
          return storeOf(run({ ...p, options: [{ ...p.options[0], starts: { pond: start } }] }).derived).peakLevelM!;
        };
        expect(peak(levelM + more, 0)).toBeGreaterThanOrEqual(peak(levelM, 0) - 1e-6);
        expect(peak(levelM, 60)).toBeGreaterThanOrEqual(peak(levelM, 0) - 1e-6);
      }),
      { seed: 13, numRuns: 12 },
    );
  });
});

describe('where only the inside is asked for', () => {
  it('stores and their ways out do what they do in the whole run, and nothing is told of what leaves', () => {
    const scenario = asDesigned(inValley());
    const ran = (isInside: boolean) => runSet(scenario, { registry, grids: noGrid, graph: new Graph() }, { asFound: true, isPlain: true, isInside })!; // prettier-ignore
    const [whole, inside] = [ran(false), ran(true)];
    expect([...inside.asFound.outcomes].map(([id, o]) => [id, o.storm])).toEqual(
      [...whole.asFound.outcomes].map(([id, o]) => [id, o.storm]),
    );
    expect(inside.asFound.outlets).toEqual(whole.asFound.outlets);
    expect([whole.asFound.leaving.length > 0, inside.asFound.leaving]).toEqual([true, []]);
  });
});

describe('while something is dragged', () => {
  it('the storms that decided last give the same levels as the whole set, and say that they are not all', () => {
    const whole = run(inValley());
    const { first, starts } = whole.view;
    const quick = derive(
      inValley(),
      { registry, grids: noGrid, graph },
      { only: new Set(first), startsM: new Map(Object.entries(starts)) },
    );
    expect([whole.view.isWhole, quick.view.isWhole]).toEqual([true, false]);
    expect(first.length).toBeLessThan(6);
    expect(storeOf(quick.derived).peakLevelM).toBe(storeOf(whole.derived).peakLevelM);
    expect(storeOf(quick.derived).least).toEqual(storeOf(whole.derived).least);
  });
  it('storms of another set say nothing: then all are run', () => {
    const quick = derive(inValley(), { registry, grids: noGrid, graph }, { only: new Set(['found:77', 'full:5']) });
    expect(quick.view.isWhole).toBe(true);
    expect(quick.derived).toEqual(WHOLE);
  });
  it('another storm can be shown; what is judged stays', () => {
    const shown = derive(inValley(), { registry, grids: noGrid, graph }, { shownMin: 60 });
    expect(storeOf(shown.derived).peakLevelM).toBe(
      shown.view.peaks.pond.find((p) => p.durationMin === 60 && p.condition === 'found')!.peakLevelM,
    );
    expect(shown.derived.checks).toEqual(WHOLE.checks);
    expect(storeOf(shown.derived).worst).toEqual(storeOf(WHOLE).worst);
  });
});
