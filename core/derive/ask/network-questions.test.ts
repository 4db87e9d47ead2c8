import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyCommand } from '../../commands/index.ts';
import { type Case, type Project, UserError } from '../../project/index.ts';
import { readProject } from '../../project/guard.ts';
import { context } from '../../testing/ground.ts';
import { derived, noGrid, planeProject } from '../../testing/projects.ts';
import { type Tree, pathsIn, replacedAt, withFaults } from '../../testing/trees.ts';
import { BACKUP, BACKUP_SILL, CUT, DRAIN, PIPE, POND, POND_SILL, PUMP, ROAD, TRENCH, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { depthFor, tableAt } from '../../rain/index.ts';
import { asDesigned } from '../scenario/scenario.ts';
import { type SetRan, runSet } from '../set/set.ts';
import { compareCases, derive, failureOrder, usualCases, whichStorm } from '../index.ts';

const JOINED = [POND, POND_SILL, CUT, PIPE, BACKUP, BACKUP_SILL, ROAD];
const under = (project: Project, one: Omit<Case, 'id' | 'name'>): ReturnType<typeof derived>['derived'] =>
  derive({ ...project, cases: [{ id: 'c', name: 'C', ...one }] }, { registry, grids: noGrid, case: 'c' }).derived;
const store = (d: ReturnType<typeof derived>['derived'], id: string): (typeof d.stores)[number] => {
  const found = d.stores.find((s) => s.id === id);
  if (!found) throw new Error(`no store ${id}`);
  return found;
};

describe('a pond, its back-up swale and what lets them out', () => {
  const d = derived(valleyProject(JOINED)).derived;
  it('keep all water, and stand nearly level with each other', () => {
    expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
    const [a, b] = [store(d, 'pond'), store(d, 'backup')];
    expect(Math.abs((a.peakLevelM ?? 0) - (b.peakLevelM ?? 1))).toBeLessThan(0.01);
    // Joined, they hold more than the pond alone: the flood stands lower.
    const alone = store(derived(valleyProject([POND, POND_SILL, CUT, PIPE, ROAD])).derived, 'pond');
    expect(a.peakLevelM).toBeLessThan(alone.peakLevelM ?? 0);
  });
  it('tell of every outlet its peak, how long it ran, how fast its water leaves and whether that stands', () => {
    const pipe = d.outlets.find((o) => o.id === 'pipe');
    expect(pipe?.peakM3s).toBeGreaterThan(0.01);
    expect(pipe?.runsH).toBeGreaterThan(1);
    expect(pipe?.velocityMs).toBeCloseTo((pipe?.peakM3s ?? 0) / ((Math.PI / 4) * 0.04), 9);
    expect(pipe?.lining).toBe('washes');
    expect(d.outlets.map((o) => o.id)).toEqual(expect.arrayContaining(['ps', 'cut', 'bs', 'backup#mouth', 'road#pipe']));
    expect(store(d, 'pond').spillsH).toBeGreaterThan(1);
    expect(store(d, 'pond').nextDayM3).toBeLessThan(store(d, 'pond').heldM3);
  });
  it('lead where the user says, and back to where the ground does', () => {
    const to = (p: Project, outlet: string): string | undefined => derived(p).derived.links.find((l) => l.outlet === outlet)?.to;
    const plain = valleyProject(JOINED);
    expect(to(plain, 'cut')).toBe('property-edge');
    const led = applyCommand(plain, { type: 'link.set', payload: { outlet: 'cut', to: 'backup' } }, registry).project;
    expect(to(led, 'cut')).toBe('backup');
    const back = applyCommand(led, { type: 'link.set', payload: { outlet: 'cut', to: null } }, registry).project;
    expect(to(back, 'cut')).toBe('property-edge');
    // A word about a work that is gone is passed over.
    const gone = applyCommand(led, { type: 'works.remove', payload: { ids: ['backup'] } }, registry).project;
    expect(to(gone, 'cut')).toBe('property-edge');
  });
  it('go with what they hang on: sills with the pond, pumps with either store; the swale only loses its mouth', () => {
    const { project } = applyCommand(valleyProject([...JOINED, PUMP]), { type: 'works.remove', payload: { ids: ['pond'] } }, registry);
    expect(project.options[0].works.map((w) => w.id)).toEqual(['backup', 'bs', 'road']);
    expect(project.options[0].works[0]).not.toHaveProperty('joins');
  });
  it('rain on open water counts whole: more arrives than the ground alone would shed', () => {
    const [pond] = derived(valleyProject([POND, POND_SILL])).derived.stores;
    const runoff = derived(valleyProject([POND, POND_SILL])).derived.runoff.find((r) => r.of === 'pond');
    const water = 1.85 ** 2 / 0.01;
    expect((pond.inM3 ?? 0) - (runoff?.volumeM3 ?? 0)).toBeGreaterThan(
      0.5 * water * ((runoff?.rainMm ?? 0) - (runoff?.runoffMm ?? 0)) * 1e-3,
    );
  });
});

describe('cases', () => {
  const project = valleyProject(JOINED);
  const plain = derived(project).derived;
  it('never stand the pond lower when something is worse', () => {
    const worse: Omit<Case, 'id' | 'name'>[] = [
      { blockedPercent: { pipe: 100 } },
      { blockedPercent: { pipe: 50 } },
      { uncut: ['ps', 'cut'] },
      { siltedPercent: { pond: 30 } },
      { startsFull: true },
      { stormPercent: 30 },
      { ground: 'bare' },
      { morePercent: { pond: 50 } },
      { againAfterH: 12 },
    ];
    for (const one of worse) {
      const d = under(project, one);
      expect(store(d, 'pond').peakLevelM).toBeGreaterThanOrEqual((store(plain, 'pond').peakLevelM ?? 0) - 1e-4);
      expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
    }
  });
  it('say a low bank where it is: crest and freeboard are those of the low stretch', () => {
    const d = under(project, { lowBanks: [{ work: 'pond', lengthM: 4, byM: 0.3 }] });
    expect(store(d, 'pond').crestM).toBeCloseTo(106.2, 9);
    expect(d.outlets.some((o) => o.id === 'pond#case-low1')).toBe((store(d, 'pond').peakLevelM ?? 0) > 106.2);
  });
  it('stand side by side, the usual ones among them, and leave the document as it is', () => {
    const cases = usualCases(project, { registry });
    expect(cases.map((c) => c.id)).toEqual(['blocked-pipe', 'blocked-road', 'full', 'more-rain', 'two-storms', 'bare', 'silted']);
    const with_ = cases.reduce((p, one) => applyCommand(p, { type: 'case.add', payload: { case: one } }, registry).project, project);
    const before = JSON.stringify(with_);
    const rows = compareCases(with_, context());
    expect(rows.map((r) => r.case)).toEqual([null, ...cases.map((c) => c.id)]);
    expect(rows[0].stores.find((s) => s.store === 'pond')?.peakLevelM).toBe(store(plain, 'pond').peakLevelM);
    expect(rows[1].leastM).toBeLessThan(rows[0].leastM ?? 0);
    expect(JSON.stringify(with_)).toBe(before);
  });
  it.each<[string, unknown]>([
    ['a share over the whole', { id: 'c', name: 'C', blockedPercent: { pipe: 140 } }],
    ['no name', { id: 'c' }],
    ['ground nobody knows', { id: 'c', name: 'C', ground: 'lunar' }],
    ['a list where shares belong', { id: 'c', name: 'C', siltedPercent: [1] }],
  ])('with %s are refused and change nothing', (_, one) => {
    expect(() => applyCommand(project, { type: 'case.add', payload: { case: one as Case } }, registry)).toThrow(UserError);
  });
  it('that do not exist are refused by name', () => {
    expect(() => derive(project, { registry, grids: noGrid, case: 'nope' })).toThrow(UserError);
  });
});

describe('order of failure', () => {
  it('lists ways out before banks, the wall last; more rain for each', () => {
    // Over deep soil the swale is found empty: shallow, what it cannot let go stands in it and runs into the pond.
    const base = valleyProject(JOINED);
    const { steps, wrong } = failureOrder({ ...base, ground: { ...base.ground!, soilDepthM: 4 } }, context());
    const order = steps.map((s) => s.outlet);
    expect(order.indexOf('pipe')).toBeLessThan(order.indexOf('cut'));
    expect(order.indexOf('cut')).toBeLessThan(order.indexOf('backup#fuse'));
    expect(order.indexOf('backup#fuse')).toBeLessThan(order.indexOf('pond#crest'));
    expect(wrong).toEqual([]);
    const times = steps.map((s) => s.times ?? Infinity);
    expect([...times].sort((a, b) => a - b)).toEqual(times);
    // The pipe runs somewhere between the rows of the table, and says so in years.
    const pipe = steps.find((s) => s.outlet === 'pipe');
    expect(pipe?.years).toBeGreaterThan(2);
    expect(pipe?.years).toBeLessThan(20);
    expect(steps.find((s) => s.outlet === 'road#road')?.takes).toEqual(['pond']);
  });
  it('in which the wall goes before the fuse is wrong, with the millimetres to change', () => {
    const low = { ...POND, levels: { ...POND.levels, crestM: 106.2 } };
    const { wrong } = failureOrder(valleyProject([low, ...JOINED.slice(1)]), context());
    const found = wrong.find((w) => w.first === 'pond#crest' && w.before === 'backup#fuse');
    expect(found?.byM).toBeGreaterThan(0.1);
    expect(found?.byM).toBeLessThan(0.25);
    expect(found?.says).toMatch(/crest of the wall is passed before .*fuse.* lower .* by \d+\smm/);
    // Lowered by so much, the fuse goes first.
    const mended = { ...BACKUP, fuse: { ...BACKUP.fuse!, crestM: BACKUP.fuse!.crestM - (found?.byM ?? 0) } };
    const works = [low, ...JOINED.slice(1)].map((w) => (w.id === 'backup' ? mended : w));
    expect(failureOrder(valleyProject(works), context()).wrong.filter((w) => w.before === 'backup#fuse')).toEqual([]);
  });
  it('finds the storms that storms halved step by step find, each run whole by itself', () => {
    const project = valleyProject(JOINED);
    const { steps } = failureOrder(project, context());
    const rain = project.rain!;
    const set = runSet(asDesigned(project), context(), { asFound: true, isPlain: true })!;
    const stood = new Map<number, SetRan>();
    const at = (years: number): SetRan => {
      const storm = { ...rain.storm, returnYears: years };
      const raised = asDesigned({ ...project, rain: { ...rain, table: tableAt(rain.table, years), storm } });
      const known = stood.get(years) ?? runSet(raised, context(), { asFound: true, isPlain: true, startsM: set.startsM })!;
      stood.set(years, known);
      return known;
    };
    const isReached = (years: number, { store: id, kind, levelM }: (typeof steps)[number]): boolean => {
      const storm = at(years).asFound.outcomes.get(id)!.storm;
      return storm.peakLevelM + (kind === 'passed' ? storm.riseM : 0) >= levelM + 1e-4;
    };
    const within = steps.filter((s) => s.years !== null && s.years > 1.1);
    expect(within.length).toBeGreaterThan(2);
    for (const step of within) {
      let [lo, hi] = [1.1, 1000];
      for (let half = 0; half < 9; half++) {
        const mid = Math.sqrt(lo * hi);
        if (isReached(mid, step)) hi = mid;
        else lo = mid;
      }
      expect([step.outlet, step.years! / Math.sqrt(lo * hi)]).toEqual([step.outlet, expect.closeTo(1, 1)]);
      // Rain of the length that decides there, over that of the storm designed for.
      const { durationMin } = set.governing.get(step.store)!;
      const deep = (returnYears: number): number => depthFor(tableAt(rain.table, returnYears), returnYears, durationMin).depthMm;
      expect(step.times! / (deep(step.years!) / deep(rain.storm.returnYears))).toBeCloseTo(1, 9);
    }
  });
  it('asks for rain first', () => {
    expect(() => failureOrder(valleyProject(JOINED, { rain: null }), context())).toThrow(UserError);
  });
});

describe('what storm that was', () => {
  const project = valleyProject(JOINED);
  it('finds the storm whose peak stood at the mark: the design storm for its own peak', () => {
    const own = derived(project).derived;
    const told = whichStorm(project, context(), { store: 'pond', levelM: store(own, 'pond').peakLevelM ?? 0 });
    expect(Math.abs((told.years ?? 0) / 20 - 1)).toBeLessThan(0.05);
    expect(told.lowYears).toBeLessThan(told.years ?? 0);
    expect(told.highYears).toBeGreaterThan(told.years ?? 0);
    const left = told.left.find((s) => s.store === 'pond')?.freeboardM ?? 0;
    expect(Math.abs(left - (store(own, 'pond').freeboardM ?? 0))).toBeLessThan(0.02);
  });
  it('says when no storm tried leaves so high a mark, and refuses one under the floor', () => {
    expect(whichStorm(project, context(), { store: 'pond', levelM: 112 })).toMatchObject({ years: null, isUnreached: true });
    expect(() => whichStorm(project, context(), { store: 'pond', levelM: 90 })).toThrow(UserError);
    expect(() => whichStorm(project, context(), { store: 'nothing', levelM: 105 })).toThrow(UserError);
  });
});

describe('a file with one thing in its works or cases replaced', () => {
  const works = [...JOINED, TRENCH, DRAIN, PUMP];
  const cases = usualCases(valleyProject(works), { registry });
  const whole = JSON.parse(JSON.stringify({ ...valleyProject(works), cases })) as Tree;
  const paths = pathsIn(whole).filter((path) => /^(options|cases)\./.test(path));
  it('is refused in words, or can be computed without a fault', () => {
    const odd = fc.constantFrom<unknown>(
      0,
      -1,
      1e-9,
      0.5,
      7,
      104,
      109,
      1e9,
      null,
      '',
      'x',
      'pond',
      'built',
      [],
      {},
      [1, 2],
      [[1, 2]],
      true,
      ['pond', 'road'],
    );
    let taken = 0;
    fc.assert(
      fc.property(fc.constantFrom(...paths), odd, (path, value) => {
        let project: Project;
        try {
          project = readProject(replacedAt(whole, path, value), registry);
        } catch (error) {
          if (!(error instanceof UserError)) throw error;
          expect(error.problems[0].do.length).toBeGreaterThan(5);
          return;
        }
        taken++;
        const d = derived(project).derived;
        expect(withFaults(d)).not.toContain('NOT FINITE');
        expect(Math.abs(d.balance?.errorFraction ?? 0)).toBeLessThan(1e-6);
      }),
      { seed: 71, numRuns: 140 },
    );
    expect(taken).toBeGreaterThan(20);
  });
  it('a spring that feeds a pond runs through it all the time', () => {
    const fed = valleyProject([POND, POND_SILL], {
      features: [{ id: 's', kind: 'spring', at: [101, 121], flowM3s: 0.002 }],
      rain: planeProject().rain,
    });
    const [dry, wet] = [derived(valleyProject([POND, POND_SILL])), derived(fed)].map((r) => store(r.derived, 'pond').inM3 ?? 0);
    expect(wet - dry).toBeGreaterThan(30);
  });
});
