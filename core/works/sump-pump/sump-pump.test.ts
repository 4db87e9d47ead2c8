import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { WorkBase } from '../../contract/index.ts';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { NO_TRAITS, begunBy, expectFields, landOf, wrong } from '../../testing/guests.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { ask as askBy } from '../../testing/ground.ts';
import { factsOf, siteOf, stormOf, withAt, words } from '../../testing/rules.ts';
import { formatQuantity } from '../../units/index.ts';
import { newDrain } from '../index.ts';
import { SUMP_CYCLE, SUMP_RUNS, SUMP_STARTS } from './formulas.ts';
import { type Sump, cycleM3, newSump, sump } from './index.ts';
import { poolAt } from '../../terrain/index.ts';
import { grateTakes, headsOf, hoursToRim, peakOf, storesOf } from './standing.ts';

const LINE: Line = [[20, 20], [30, 20]]; // prettier-ignore
const LEVELS = { floorM: 98.8, stopM: 99, startM: 99.4, rimM: 100, deliveryM: 100.2 };
const SUMP = newSump('s', 'Sump', { line: LINE, levels: LEVELS, lengthM: 12 });
const FLAT = gridOf(() => 100.02, { cells: 81, cellM: 0.5 });
const SITE = siteOf(FLAT);

describe('a pump that starts and stops', () => {
  /** Followed second by second: filled by what comes, emptied while it runs. */
  function startsIn(q: number, Q: number, V: number): number {
    let [held, runs, count] = [0, false, 0];
    for (let s = 0; s < 20 * 3600; s++) {
      held += q - (runs ? Q : 0);
      if (!runs && held >= V) [runs, count] = [true, count + 1];
      if (runs && held <= 0) runs = false;
    }
    return count / 20;
  }
  it('starts as often as one followed second by second, most often when half as much comes as it gives', () => {
    const [Q, V] = [0.002, 0.113];
    for (const q of [0.0004, 0.001, 0.0016]) {
      const told = 3600 / SUMP_CYCLE.evaluate({ Q, V, q });
      expect(Math.abs(startsIn(q, Q, V) - told)).toBeLessThan(0.06 * told);
      expect(told).toBeLessThanOrEqual(SUMP_STARTS.evaluate({ Q, V }) + 1e-9);
    }
    // 3600 · 0.002 / (4 · 0.113) by hand.
    expect(SUMP_STARTS.evaluate({ Q, V })).toBeCloseTo(15.929, 3);
    expect(3600 / SUMP_CYCLE.evaluate({ Q, V, q: Q / 2 })).toBeCloseTo(SUMP_STARTS.evaluate({ Q, V }), 9);
    expect(SUMP_CYCLE.evaluate({ Q, V, q: Q })).toBe(Infinity);
  });
  it('runs on a battery as long as its half lasts at the share of time it runs', () => {
    // 600 Wh, half used, 120 W half the time: five hours.
    expect(SUMP_RUNS.evaluate({ E: 600, u: 0.5, P: 120, q: 0.001, Q: 0.002 })).toBeCloseTo(5, 9);
    expect(SUMP_RUNS.evaluate({ E: 600, u: 0.5, P: 120, q: 0.009, Q: 0.002 })).toBeCloseTo(2.5, 9);
  });
  it('lifts against its lift and what its pipe loses, by the power that takes', () => {
    const { liftM, lossM, velocityMs, powerW } = headsOf(SUMP);
    expect([liftM, velocityMs]).toEqual([expect.closeTo(1.2, 9), expect.closeTo(0.002 / ((Math.PI / 4) * 0.0025), 9)]);
    // Blasius for a smooth pipe: f = 0.316/Re^0.25, Re = V·D/1.139e-6.
    const Re = (velocityMs * 0.05) / 1.139e-6;
    expect(lossM / (((0.316 / Re ** 0.25) * (12 / 0.05) * velocityMs ** 2) / 19.6133)).toBeCloseTo(1, 1);
    expect(powerW).toBeCloseTo((9810 * 0.002 * (liftM + lossM)) / 0.3, -1);
  });
});

describe('the pit', () => {
  const [store] = storesOf(SUMP, { pool: null });
  const A = (Math.PI / 4) * 0.36;
  it('holds its area by its depth; what lies under where it stops stays', () => {
    expect(cycleM3(SUMP)).toBeCloseTo(0.4 * A, 12);
    expect(store.heldM3).toBeCloseTo(0.2 * A, 12);
    const k = store.stage.levelM.findIndex((v) => v > 99.5);
    expect(store.stage.volumeM3[k]).toBeCloseTo(A * (store.stage.levelM[k] - 98.8), 9);
    expect([store.sillM, store.wayOutM, store.crestM, store.floorM]).toEqual([99, 99, 100, 98.8]);
  });
  it('lets out by its pump up to what that gives, and over its rim beyond', () => {
    const [lift, rim] = store.outlets;
    expect([98.9, 99, 99.2, 99.4, 101].map((v) => lift.flowAt(v))).toEqual([0, 0, expect.closeTo(0.001, 9), 0.002, 0.002]);
    expect([lift.role, rim.role, rim.flowAt(100)]).toEqual(['lift', 'rim', 0]);
    expect(rim.flowAt(100.1)).toBeCloseTo(1.5 * Math.PI * 0.6 * 0.1 ** 1.5, 9);
  });
  it('under a grate has no rim: the yard over it lets its water down through half of the grate, and takes it back', () => {
    const pool = poolAt(
      gridOf((x, y) => 100 + 0.03 * Math.hypot(x - 20, y - 20), { cells: 81, cellM: 0.5 }),
      [20, 20],
    )!;
    const [pit, yard] = storesOf(SUMP, { pool });
    expect([pit.id, pit.outlets.map((o) => o.role), yard.id, yard.outlets.map((o) => [o.role, o.to])]).toEqual(['s', ['lift'], 's:2', [['mouth', 's'], ['on', undefined]]]); // prettier-ignore
    const [grate] = yard.outlets;
    // A weir round the grate while shallow, its holes once deep (HEC-22, section 4.4.5): half of each is closed.
    expect(grate.flowAt(100.02, 99)).toBeCloseTo(1.66 * 0.5 * Math.PI * 0.6 * 0.02 ** 1.5, 9);
    expect(grate.flowAt(100.2, 99)).toBeCloseTo(0.67 * 0.5 * 0.4 * A * Math.sqrt(2 * 9.81 * 0.2), 5);
    expect(grate.flowAt(100.1, 100.2)).toBeCloseTo(-grate.flowAt(100.2, 100.1), 12);
    expect(grateTakes(SUMP, 0.02)).toBeCloseTo(grate.flowAt(100.02, 99), 9);
    expect(yard.hollow?.pool).toBe(pool);
  });
  it('stands still when mains go, unless something takes over', () => {
    expect(sump.traits(SUMP)).toEqual({ ...NO_TRAITS, canBlock: true, isConduit: true, needsMains: true });
    expect(sump.traits({ ...SUMP, backup: 'battery' })).toEqual({ ...NO_TRAITS, canBlock: true });
    expect([sump.intakes(SUMP), sump.intakes({ ...SUMP, top: 'lid' })]).toEqual([[{ store: 's:2', points: [[20, 20]] }], []]);
    const facts = {
      ...factsOf(SITE, { storm: stormOf({ peakInM3s: 0.001 }), designPeakM3s: 0.0005 }),
      work: SUMP,
      ground: { pitM: 100, endM: 100, highestM: 100, pool: null, taken: [] },
    };
    // What waits in the yard for a pump that is short still came.
    const yard = { store: storesOf(SUMP, { pool: null })[0], storm: stormOf({ peakInM3s: 0.004 }) };
    expect([peakOf(facts), peakOf({ ...facts, others: [yard] })]).toEqual([0.001, 0.004]);
    expect(hoursToRim(facts)).toBeCloseTo((A * 0.6) / 0.001 / 3600, 12);
    expect([hoursToRim({ ...facts, storm: null }), hoursToRim({ ...facts, storm: stormOf({ peakInM3s: 0 }), designPeakM3s: 0 })]).toEqual([
      null,
      null,
    ]);
  });
  it('a larger pump never lets it stand higher', () => {
    fc.assert(
      fc.property(fc.double({ min: 98.8, max: 100.5, noNaN: true }), fc.double({ min: 0.0005, max: 0.01, noNaN: true }), (level, Q) => {
        const out = (flowM3s: number): number =>
          storesOf({ ...SUMP, flowM3s }, { pool: null })[0].outlets.reduce((a, o) => a + o.flowAt(level), 0);
        expect(out(1.2 * Q)).toBeGreaterThanOrEqual(out(Q));
      }),
      { seed: 91, numRuns: 60 },
    );
  });
});

describe('measured and told', () => {
  const ground = sump.measure(
    SUMP,
    { grid: gridOf((x) => 100 + 0.1 * Math.max(0, 2 - Math.abs(x - 25)), { cells: 81, cellM: 0.5 }) },
    null,
  );
  it('its ground at the pit and over its pipe', () => {
    expect([ground.pitM, ground.endM]).toEqual([100, 100]);
    expect(ground.highestM).toBeCloseTo(100.2, 1);
    expect(() => sump.measure({ ...SUMP, line: [[20, 20], [900, 20]] }, { grid: FLAT }, null)).toThrow(/unknown ground/); // prettier-ignore
  });
  it('figures with their working, quantities, pegs, marks, steps and section', () => {
    const placed = sump.place(SUMP, ground, null);
    const sheet = new Worksheet('s');
    const facts = factsOf(SITE, { storm: stormOf({ peakInM3s: 0.001 }), designPeakM3s: 0.001 });
    const figures = new Map(placed.figures(facts, sheet).map((f) => [f.id, f.value]));
    expect(sheet.lines.map((l) => l.formula)).toEqual(['hydraulics.darcy-loss', 'hydraulics.pump-power', 'sump.cycle', 'sump.starts']);
    expect(figures.get('cycleS')).toBeCloseTo(2 * (cycleM3(SUMP) / 0.001), 6);
    const of = (work: Sump) =>
      Object.fromEntries(
        sump
          .place(work, ground, null)
          .quantities(facts)
          .map((q) => [q.item, q.likely]),
      );
    expect(of(SUMP)).toMatchObject({
      cut: expect.closeTo((Math.PI / 4) * 0.81 * 1.35, 6),
      pit: expect.closeTo(1.2, 9),
      pump: 1,
      valve: 1,
      pipe: 12,
    });
    expect(of({ ...SUMP, backup: 'battery', alarm: 'yes', valve: 'no' })).toMatchObject({ pump: 2, alarm: 1 });
    expect(placed.pegs(5, null).map((p) => [p.role, p.levelM])).toEqual([['crest', 100], ['floor', 98.8], ['invert', 100]]); // prettier-ignore
    expect(placed.marks.map((m) => m.path)).toEqual(['levels.rimM', 'levels.startM', 'levels.stopM', 'levels.floorM']);
    expect(placed.buildSteps().map((s) => s.id)).toEqual(['ask', 'dig', 'set', 'pump', 'pipe', 'try', 'after']);
    expect(placed.section!(99.5).parts.map((p) => p.role)).toEqual(['ground', 'ground', 'stone', 'full', 'water']);
    expect(sump.place({ ...SUMP, inletM: 99.6 }, ground, null).section!(null).parts.map((p) => p.role)).toContain('pipe');
  });
  it('is validated: every number, its choices, and levels in their order', () => {
    expectFields(sump, SUMP);
    const at = (path: string, value: unknown) => wrong(sump, withAt(SUMP, path, value));
    expect(at('levels.stopM', 98.7)).toEqual(['sump-pump.levels@levels.stopM']);
    expect(at('levels.startM', 99)).toEqual(['sump-pump.levels@levels.startM']);
    expect(at('levels.rimM', 99.4)).toEqual(['sump-pump.levels@levels.rimM']);
    expect([at('levels.stopM', 98.8), at('levels.rimM', 99.41)]).toEqual([[], []]);
    expect(at('backup', 'hope')).toEqual(['work.choice@backup']);
  });
});

describe('begun', () => {
  it('deep enough for the drain that ends there, else as is usual, its pipe over the ground it crosses', () => {
    const grid = gridOf((x) => 100 + 0.02 * x, { cells: 81, cellM: 0.5 });
    const first = (land = {}): Sump => (begunBy(sump, { points: LINE }, landOf({ grid, ...land })) as readonly Sump[])[0];
    expect(first()).toMatchObject({
      levels: { rimM: expect.closeTo(100.38, 2), floorM: expect.closeTo(99.18, 2), deliveryM: expect.closeTo(100.7, 2) },
    });
    expect(first().inletM).toBeUndefined();
    const drain = { id: 'd', name: 'Drain 1', lines: [[[10, 20], [19, 20]]], floorM: 99.5, fullM: 100, roofM2: null, shafts: [{ at: [10, 20], invertM: 99.7, pipeM: 0.1, to: 'd:pipe1' }] }; // prettier-ignore
    expect(first({ waters: [drain] })).toMatchObject({ inletM: 99.5, levels: { floorM: 98.75, stopM: 98.95, startM: 99.4 } });
    expect(sump.validate(first({ waters: [drain] }))).toEqual([]);
    expect(begunBy(sump, { points: [[20, 20], [900, 20]] }, landOf({ grid }))).toBe('work.off-terrain'); // prettier-ignore
  });
});

describe('at the end of a drain', () => {
  // A yard that is a bowl up to a round ridge: a basin in its middle, a pipe to a sump, its pump over the ridge.
  const bowl = Array.from({ length: 81 * 81 }, (_, i) => {
    const [x, y] = [((i % 81) + 0.5) * 0.5, (81 - Math.floor(i / 81) - 0.5) * 0.5];
    const r = Math.hypot(x - 20, y - 20);
    return 100 + 0.03 * Math.min(r, 30 - r);
  });
  const drain = newDrain('d', 'Drain', { line: [[20, 20], [26, 20]], basins: [{ atM: 0, invertM: 99.6, pipeM: 0.1, grateLongM: 0.3, grateWideM: 0.3, sumpM: 0.15 }], levels: { outletM: 99.5 }, into: 's' } as never); // prettier-ignore
  const pit: Sump = { ...newSump('s', 'Sump', { line: [[26, 20], [38, 20]], levels: { floorM: 98.75, stopM: 98.95, startM: 99.35, rimM: 100.16, deliveryM: 100.6 }, lengthM: 14, inletM: 99.5 }), top: 'lid', flowM3s: 0.03 }; // prettier-ignore
  const project = (work: Sump) => planeProject({ terrain: { kind: 'grid', ncols: 81, nrows: 81, west: 0, south: 0, cellM: 0.5, rows: 'north-first', z: bowl }, site: { crs: null, outline: [], zeroLevelM: 0 } } as never, [drain, work] as readonly object[] as WorkBase[]); // prettier-ignore
  const of = (work: Sump, works: readonly object[]) => {
    const { derived: d } = derived({ ...project(work), options: [{ ...project(work).options[0], works: works as readonly WorkBase[] }] });
    return { d, store: d.stores.find((s) => s.id === 's'), yard: d.stores.find((s) => s.id === 's:2') };
  };
  it('it lifts what comes, and nothing is lost', () => {
    const { d, store } = of(pit, [drain, pit]);
    expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
    expect(d.links.find((l) => l.outlet === 'd:pipe1#pipe')?.to).toBe('s');
    const lifted = d.links.find((l) => l.outlet === 's#pump')?.volumeM3 ?? 0;
    expect(lifted).toBeGreaterThan(0.9 * (store?.inM3 ?? Infinity) - 1);
    expect(store?.peakLevelM).toBeLessThan(100.16);
  });
  it('all its yard lets down comes to it, in the answer and day by day, and is lifted away', () => {
    const open: Sump = { ...pit, line: [[20, 20], [38, 20]], top: 'grate', levels: { ...pit.levels, rimM: 99.99 }, backup: 'battery', batteryWh: 5000 };
    const { d, yard } = of(open, [open]);
    const down = d.links.find((l) => l.outlet === 's:2#grate')?.volumeM3 ?? 0;
    expect(down).toBeGreaterThan(0.9 * (yard?.inM3 ?? Infinity));
    const comes = formatQuantity(down + (d.stores.find((s) => s.id === 's')?.inM3 ?? NaN), 'volume', 'metric');
    expect(words(d.verdicts.works)).toContain(`Sump passes the ${comes.replace(/[\u00a0\u202f]/g, ' ')} this storm brings on`);
    // A pit is no wall, and its yard no bank that should go before it.
    expect(d.checks.filter((c) => c.id === 'network.bank-before-wall' || c.id === 'network.way-out-built')).toEqual([]);
    const climate = { rainMm: Array<number>(12).fill(70), wetDays: Array<number>(12).fill(9), evaporationMm: Array<number>(12).fill(40) };
    const { stores, balance } = askBy('season', { ...project(open), options: [{ ...project(open).options[0], works: [open] }], climate }, {});
    const [own, over] = ['s', 's:2'].map((id) => stores.find((one) => one.id === id)!.told!);
    expect(own.inM3).toBeGreaterThan(0.95 * over.spilledM3);
    expect(own.spilledM3).toBeCloseTo(own.inM3, 3);
    expect(Math.abs(balance.errorM3)).toBeLessThan(1e-6);
  });
  it('when mains go water stands over its grate, unless a second pump takes over', () => {
    const open: Sump = { ...pit, line: [[20, 20], [38, 20]], top: 'grate', levels: { ...pit.levels, rimM: 99.99 } }; // prettier-ignore
    const { yard: store } = of(open, [open]);
    const { yard: kept } = of(open, [{ ...open, backup: 'battery', batteryWh: 5000 }]);
    expect(store?.worst.peakLevelM).toMatchObject({ condition: 'blocked' });
    expect(store?.worst.peakLevelM.value).toBeGreaterThan(100);
    expect(kept?.worst.peakLevelM.value).toBeLessThan(store?.worst.peakLevelM.value ?? 0);
  });
  it('when mains go while the drain still runs to it, it fills by more than when all is closed', () => {
    const { d, store } = of(pit, [drain, pit]);
    expect(d.set?.conditions ?? []).toEqual(d.set ? expect.arrayContaining(['unpowered']) : []);
    expect(store?.worst.peakLevelM).toMatchObject({ condition: 'unpowered' });
    expect(store?.worst.peakLevelM.value).toBeGreaterThan(pit.levels.rimM - 0.01);
    // With something that takes over, and with nothing but the pump that could close, there is no such case.
    for (const works of [[drain, { ...pit, backup: 'generator' as const }], [pit]]) {
      const told = of(pit, works).d.stores.flatMap((s) => Object.values(s.worst).map((w) => w.condition));
      expect(told).not.toContain('unpowered');
    }
  });
}); // prettier-ignore
