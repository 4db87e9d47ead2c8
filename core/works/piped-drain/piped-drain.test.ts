// Drains by hand: hollows, falls, grates, trees of pipes; against a second solver, and what must hold of any.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Conduit, WorkBase } from '../../contract/index.ts';
import { Graph, beginWorks, derive } from '../../derive/index.ts';
import type { Line } from '../../geometry/index.ts';
import { circle } from '../../hydraulics/index.ts';
import { conduitStore, route } from '../../network/index.ts';
import type { Project } from '../../project/index.ts';
import { poolAt, poolHolds } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { ask as askBy } from '../../testing/ground.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { words } from '../../testing/rules.ts';
import { newTank, registry } from '../index.ts';
import { newDrain } from './create.ts';
import { fallsFor, leastFall } from './falls.ts';
import { LEAST_FALL, PIPE_SPEED } from './formulas.ts';
import { measureDrain } from './ground.ts';
import { type Basin, type PipedDrain, isOpen } from './index.ts';
import { byWidth, partsOf, quantitiesOf } from './making.ts';
import { conduitsOf, grateLaw, grateTakes, pipesOf, storesOf } from './standing.ts';

/** A yard like a bowl, 0.25 m deep and 10 m to its edge, in ground that falls 1 % to the south. */
const [MIDDLE, DEEP, WIDE] = [30, 0.25, 10];
const yard = (x: number, y: number): number => 100 + 0.01 * y - DEEP * Math.max(0, 1 - Math.hypot(x - MIDDLE, y - MIDDLE) / WIDE);
const GRID = gridOf(yard, { cells: 121, cellM: 0.5 });
const Z = Array.from({ length: 121 * 121 }, (_, i) => yard(((i % 121) + 0.5) * 0.5, (121 - Math.floor(i / 121) - 0.5) * 0.5));
const PLOT: Project = planeProject(
  {
    terrain: { kind: 'grid', ncols: 121, nrows: 121, west: 0, south: 0, cellM: 0.5, rows: 'north-first', z: Z },
    site: { crs: null, outline: [[1, 1], [59, 1], [59, 59], [1, 59]], zeroLevelM: 0 },
  },
  [],
); // prettier-ignore
const CONTEXT = { registry, grids: noGrid };
const begin = (points: Line, how = 'street-drain', works: readonly WorkBase[] = []): PipedDrain =>
  beginWorks(withWorks(works), { ...CONTEXT, graph: new Graph() }, { kind: 'piped-drain', how, points }).works[0] as PipedDrain;
const withWorks = (works: readonly WorkBase[]): Project => ({ ...PLOT, options: [{ ...PLOT.options[0], works }] });
const run = (works: readonly WorkBase[], change: Partial<Project> = {}) => derive({ ...withWorks(works), ...change }, { ...CONTEXT, graph: new Graph() }).derived; // prettier-ignore
const DOWN: Line = [[30, 30], [30, 14], [30, 2]]; // prettier-ignore

describe('the hollow a basin stands in', () => {
  it('is as deep and holds as much as a cone cut by a slope', () => {
    const pool = poolAt(GRID, [31, 30])!;
    // Water runs on at the lowest of its edge, 10 m south: 100.2 m; lowest 100.05, by the slope a little beside the middle.
    expect(pool.spillM).toBeCloseTo(100.2, 1);
    expect(pool.lowM).toBeCloseTo(100.05, 1);
    // By cells of a finer grid, counted anew.
    const fine = 0.1;
    let [volume, area] = [0, 0];
    for (let x = 15; x < 45; x += fine)
      for (let y = 15; y < 45; y += fine) {
        const depth = pool.spillM - yard(x + fine / 2, y + fine / 2);
        if (depth <= 0 || Math.hypot(x - MIDDLE, y - MIDDLE) > WIDE + 0.5) continue;
        volume += depth * fine * fine;
        area += fine * fine;
      }
    const told = poolHolds(pool, pool.spillM);
    expect(told.volumeM3 / volume).toBeCloseTo(1, 1);
    expect(told.areaM2 / area).toBeCloseTo(1, 1);
    expect(poolHolds(pool, pool.lowM)).toEqual({ volumeM3: 0, areaM2: 0 });
  });
  it('on a slope is no deeper than the survey is rough; beside unknown ground water runs away; off the ground there is none', () => {
    const plane = poolAt(
      gridOf((_, y) => 100 + 0.05 * y, { cells: 61, cellM: 0.5 }),
      [15, 15],
    )!;
    expect(plane.spillM - plane.lowM).toBeLessThan(0.03);
    expect(poolAt(GRID, [-5, 3])).toBeNull();
    const hole = poolAt(gridOf((x, y) => (Math.hypot(x - 15, y - 15) > 6 ? NaN : 100 + 0.01 * Math.hypot(x - 15, y - 15)), { cells: 61, cellM: 0.5 }), [15, 15])!; // prettier-ignore
    expect(hole.spillM).toBeLessThan(100.07);
  });
  it('more water never takes less room, and its surface is what volume grows by', () => {
    const pool = poolAt(GRID, [30, 30])!;
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.6, noNaN: true }), (over) => {
        const [a, b] = [poolHolds(pool, pool.lowM + over), poolHolds(pool, pool.lowM + over + 1e-4)];
        expect(b.volumeM3).toBeGreaterThanOrEqual(a.volumeM3);
        expect((b.volumeM3 - a.volumeM3) / 1e-4).toBeLessThanOrEqual(b.areaM2 + 1e-6);
      }),
      { seed: 11, numRuns: 100 },
    );
  });
});

describe('falls', () => {
  it('that keep a pipe clean: published (handbook 4.6, computed there), n = 0.013 and 0.6 m/s', () => {
    for (const [D, percent] of [
      [0.1, 0.83],
      [0.15, 0.48],
      [0.2, 0.33],
      [0.3, 0.19],
    ] as const)
      // prettier-ignore
      expect(100 * LEAST_FALL.evaluate({ V: 0.6, n: 0.013, D })).toBeCloseTo(percent, 2);
    expect(PIPE_SPEED.evaluate({ D: 0.15, S: LEAST_FALL.evaluate({ V: 0.6, n: 0.013, D: 0.15 }), n: 0.013 })).toBeCloseTo(0.6, 9);
  });
  it('by width (IPC 704.1): 2 % to 65 mm, 1 % to 150 mm, 0.5 % from 200 mm', () => {
    expect([0.05, 0.065, 0.075, 0.1, 0.15, 0.2, 0.3].map(leastFall)).toEqual([0.02, 0.02, 0.01, 0.01, 0.01, 0.005, 0.005]);
  });
  it('found by the app: each pipe falls as much as it must, none has too little earth over it, and none could lie higher', () => {
    const drain = begin(DOWN);
    const ground = measureDrain(drain, { grid: GRID });
    const pipes = pipesOf(drain, ground);
    expect(pipes).toHaveLength(2);
    for (const p of pipes) expect(p.slope).toBeGreaterThanOrEqual(0.0099);
    // The first basin lies at the lowest ground of the yard, which is why all below lies deep.
    const [x, y] = drain.line[0];
    expect(yard(x, y)).toBeCloseTo(poolAt(GRID, [30, 30])!.lowM, 2);
    expect(drain.basins[0].invertM).toBeCloseTo(yard(x, y) - 0.3 - 0.1, 2);
    const raised = { ...drain, basins: drain.basins.map((b) => ({ ...b, invertM: b.invertM + 0.02 })) };
    expect(measureDrain(raised, { grid: GRID }).atBasins[0] - raised.basins[0].invertM - 0.1).toBeLessThan(0.3);
  });
  it('property: on any ground inverts never rise, every cover is kept, and a wider cover never lays it higher', () => {
    const levels = fc.array(fc.double({ min: 98, max: 102, noNaN: true }), { minLength: 41, maxLength: 41 });
    fc.assert(
      fc.property(levels, fc.double({ min: 2, max: 18, noNaN: true }), (heights, second) => {
        const basins: Basin[] = [0, second].map((atM) => ({ atM, invertM: 0, pipeM: 0.1, grateLongM: 0, grateWideM: 0, sumpM: 0 }));
        const ground = { lengthM: 20, stepM: 0.5, groundM: Float64Array.from(heights), atBasins: [heights[0], heights[Math.round(second * 2)]], endM: heights[40], falls: [], yards: [], taker: null }; // prettier-ignore
        const [grass, wheels] = (['grass', 'wheels'] as const).map((over) => fallsFor({ basins, over, ends: 'street' }, ground));
        expect(grass.invertsM[1]).toBeLessThanOrEqual(grass.invertsM[0] - 0.01 * second + 0.002);
        expect(grass.outletM).toBeLessThanOrEqual(grass.invertsM[1] - 0.01 * (20 - second) + 0.002);
        heights.forEach((g, k) => {
          const at = 0.5 * k;
          const [i, from] = at < second ? [grass.invertsM[0], 0] : [grass.invertsM[1], second];
          expect(g - (i - 0.01 * (at - from)) - 0.1).toBeGreaterThanOrEqual(0.3 - 0.002);
        });
        wheels.invertsM.forEach((v, k) => expect(v).toBeLessThanOrEqual(grass.invertsM[k] + 1e-9));
      }),
      { seed: 5, numRuns: 80 },
    );
  });
  it('that cannot be are refused with where and by how much, and nothing is begun', () => {
    expect(() => begin(DOWN, 'piped-drain')).toThrow(/come out \d+\smm under the ground where it ends/);
    const drain = begin(DOWN);
    const validate = (change: Partial<PipedDrain>): string =>
      registry.bind({ ...drain, ...change }).validate().map((p) => `${p.code}: ${words(p.what)}`).join(); // prettier-ignore
    expect(validate({})).toBe('');
    expect(validate({ levels: { outletM: drain.basins[1].invertM + 0.12 } })).toMatch(/piped-drain.climbs: pipe 2 of .* would climb 120 mm: from .* where it ends/);
    expect(validate({ basins: [drain.basins[0], { ...drain.basins[1], invertM: drain.basins[0].invertM + 0.2 }] })).toMatch(/pipe 1 of .* would climb 200 mm/);
    expect(validate({ basins: [...drain.basins].reverse() })).toMatch(/piped-drain.order/);
    expect(validate({ basins: [{ ...drain.basins[0], atM: 900 }] })).toMatch(/piped-drain.beyond/);
    expect(validate({ basins: [] })).toMatch(/piped-drain.basins: .* has 0 basins/);
    expect(validate({ into: drain.id })).toMatch(/piped-drain.ring/);
  }); // prettier-ignore
});

describe('a grate', () => {
  const drain = newDrain('d', 'Drain', { line: [[0, 0], [10, 0]], basins: [{ atM: 0, invertM: 99, pipeM: 0.1, grateLongM: 0.3, grateWideM: 0.3, sumpM: 0.15 }], levels: { outletM: 98.9 } }); // prettier-ignore
  const [basin] = drain.basins;
  it('takes the less of a weir round it and of its opening, half of both closed (HEC-22 ch. 4)', () => {
    // 1.66 · 0.5 · 1.2 · 0.02^1.5 and 0.67 · 0.5 · 0.036 · (2 · 9.81 · 0.2)^0.5
    expect(grateTakes(drain, basin, 0.02)).toBeCloseTo(1.66 * 0.5 * 1.2 * 0.02 ** 1.5, 9);
    expect(grateTakes(drain, basin, 0.2)).toBeCloseTo(0.67 * 0.5 * 0.036 * Math.sqrt(2 * 9.81 * 0.2), 6);
    expect(grateTakes(drain, basin, -0.1)).toBe(0);
    // What the routing asks is the same formula.
    for (const d of [0.005, 0.02, 0.05, 0.11, 0.3])
      expect(grateLaw(drain, basin, 100)(100 + d, 99)).toBeCloseTo(grateTakes(drain, basin, d), 12);
  });
  it('lets water up again where the shaft stands higher, as much as it lets down', () => {
    const law = grateLaw(drain, basin, 100);
    expect(law(100.1, 99)).toBeGreaterThan(0);
    expect(law(100.1, 100.2)).toBeCloseTo(-law(100.2, 100.1), 12);
    expect([law(99.9, 99), law(99, 99.9), law(100.1, 100.1)].map(Math.abs)).toEqual([0, 0, 0]);
    // Drowned it takes by the difference of levels.
    expect(law(100.1, 100.06)).toBeLessThan(law(100.1, 99));
  });
});

describe('pipes in a row', () => {
  const pipe = (id: string, change: Partial<Conduit>): Conduit => ({
    id, work: 'd', name: id, diameterM: 0.15, lengthM: 20, n: 0.011, inlet: 'concrete-square-headwall', upperM: 100, lowerM: 99.8,
    rimM: 101, rimLengthM: 1, shaftM2: 0.1, outletAt: [0, 0], rimAt: [0, 0], ...change,
  }); // prettier-ignore
  /** Each pipe and the one it leads to; the last leads out. */
  interface Tree {
    readonly pipes: readonly Conduit[];
    readonly parent: readonly number[];
    readonly inflow: (k: number, t: number) => number;
  }
  /** Pipes followed by small explicit steps, each by its own law and its own volumes: another way to the same levels. */
  function explicit({ pipes, parent, inflow }: Tree, stepS: number, steps: number): number[] {
    const stores = pipes.map(conduitStore);
    const volumes = pipes.map(() => 0);
    // Volumes by depth, every millimetre: depths by volume are read off between them.
    const tables = pipes.map(({ diameterM, lengthM, shaftM2 }) => {
      const { area } = circle(diameterM);
      return Float64Array.from({ length: 6001 }, (_, mm) => lengthM * area(Math.min(diameterM, mm / 1000)) + (shaftM2 * mm) / 1000);
    });
    const levelOf = (k: number): number => {
      const table = tables[k];
      let [lo, hi] = [0, table.length - 1];
      while (hi - lo > 1) {
        const mid = (lo + hi) >> 1;
        if (table[mid] <= volumes[k]) lo = mid;
        else hi = mid;
      }
      return pipes[k].upperM + (lo + (volumes[k] - table[lo]) / (table[hi] - table[lo])) / 1000;
    };
    const peaks = pipes.map(() => -Infinity);
    for (let s = 0; s < steps; s++) {
      const levels = pipes.map((_, k) => levelOf(k));
      levels.forEach((v, k) => (peaks[k] = Math.max(peaks[k], v)));
      const out = stores.map((store, k) => store.outlets[0].flowAt(levels[k], levels[parent[k]] ?? -Infinity));
      pipes.forEach((_, k) => (volumes[k] += stepS * (inflow(k, s * stepS) - out[k])));
      out.forEach((q, k) => {
        if (parent[k] >= 0) volumes[parent[k]] += stepS * q;
      });
      for (let k = 0; k < volumes.length; k++) volumes[k] = Math.max(0, volumes[k]);
    }
    return peaks;
  }
  /** The same by the network, at five seconds. */
  function routed({ pipes, parent, inflow }: Tree, steps: number): number[] {
    const stores = pipes.map((p, k) => {
      const { stage, outlets } = conduitStore(p);
      const [way] = outlets;
      const to = parent[k] >= 0 ? pipes[parent[k]].id : 'ground';
      const comes = Array.from({ length: steps + 1 }, (_, i) => inflow(k, i * 5));
      return { id: p.id, stage, inflow: comes, outlets: [{ id: way.id, to, lagS: 0, flowAt: way.flowAt, ...(parent[k] >= 0 ? { isJoint: true } : {}) }] }; // prettier-ignore
    });
    const result = route({ stores, stepS: 5, steps });
    return pipes.map((p) => result.stores.get(p.id)!.levelM.reduce((m, v) => Math.max(m, v), -Infinity));
  }
  const wave = (peak: number, t: number): number => peak * Math.max(0, Math.sin((Math.PI * t) / 1200));
  const agree = (tree: Tree): void => {
    const told = routed(tree, 260);
    explicit(tree, 0.2, 6500).forEach((level, k) => expect(Math.abs(told[k] - level)).toBeLessThan(0.01));
  };
  it.each([
    ['steep', 100, 99.2, 98.4, 0.02, 0.15],
    ['flat', 100, 99.9, 99.8, 0.008, 0.15],
    ['drowned: the lower one narrower', 100, 99.8, 99.6, 0.014, 0.11],
  ])('%s: levels as by a finer, explicit solver, within 10 mm', (...drawn) => {
    const [, a, b, c, peak, lower] = drawn;
    const pipes = [pipe('a', { upperM: a, lowerM: b }), pipe('b', { upperM: b, lowerM: c, diameterM: lower })];
    agree({ pipes, parent: [1, -1], inflow: (k, t) => (k === 0 ? wave(peak, t) : 0) });
  });
  it.each([
    ['up to eight', 3, 8, 4],
    ['forty to fifty', 40, 50, 2],
  ])(
    'trees of %s pipes, of any widths, falls and inflows, some of them drowned: within 10 mm',
    (...[, minLength, maxLength, numRuns]) => {
      const one = fc.record({ to: fc.nat(), fall: fc.double({ min: 0.002, max: 0.05, noNaN: true }), wide: fc.constantFrom(0.1, 0.15, 0.2), peak: fc.double({ min: 0, max: 0.003, noNaN: true }) }); // prettier-ignore
      fc.assert(
        fc.property(fc.array(one, { minLength, maxLength }), (drawn) => {
          const parent = drawn.map(({ to }, k) => (k === 0 ? -1 : to % k));
          const uppers: number[] = [];
          drawn.forEach(({ fall }, k) => uppers.push((k === 0 ? 100 : uppers[parent[k]]) + 20 * fall));
          const pipes = drawn.map(({ wide }, k) =>
            pipe(`p${k}`, {
              upperM: uppers[k],
              lowerM: k === 0 ? 100 : uppers[parent[k]],
              diameterM: k === 0 ? 0.2 : wide,
              rimM: uppers[k] + 5,
            }),
          );
          agree({ pipes, parent, inflow: (k, t) => wave((drawn[k].peak * 8) / maxLength, t) });
        }),
        { seed: 21, numRuns },
      );
    },
    120_000,
  );
});

describe('a drain in the storm', () => {
  const drain = begin(DOWN);
  const alone = run([drain]);
  const of = (d: ReturnType<typeof run>, id = drain.id) => d.stores.find((s) => s.id === id)!;
  it('takes what runs into the whole hollow, leads it on, and nothing is lost', () => {
    const { inM3 } = of(alone);
    // The hollow and all above it: over 300 m2 of its own.
    expect(inM3).toBeGreaterThan(3);
    const flow = (outlet: string): number => alone.links.find((l) => l.outlet === outlet)?.volumeM3 ?? 0;
    expect(flow(`${drain.id}#grate1`) / (inM3 ?? 1)).toBeGreaterThan(0.99);
    expect(alone.links.find((l) => l.outlet === `${drain.id}:pipe2#pipe`)?.to).toBe('property-edge');
    expect(Math.abs(alone.balance!.errorFraction)).toBeLessThan(1e-9);
    expect(alone.conduits.map((c) => c.id)).toEqual([`${drain.id}:pipe1`, `${drain.id}:pipe2`]);
  });
  it('blocked it stands to where the yard runs on; in the verdict what is led away and how high it stands', () => {
    const store = of(alone);
    const pool = poolAt(GRID, [30, 30])!;
    const blocked = store.worst.peakLevelM;
    expect(blocked.condition).toBe('blocked');
    expect(blocked.value).toBeGreaterThan(pool.lowM + 0.1);
    expect(store.peakLevelM!).toBeLessThan(pool.lowM + 0.05);
    expect(alone.verdicts.works).toMatch(/^Drain 1 leads away up to \d+\sL\/s of the \d+\sL\/s its end takes\. Water stands .* pipes blocked\)/);
  }); // prettier-ignore
  it('with a narrower pipe below, water never stands lower above it; with grates closed never lower over them', () => {
    const narrow = run([{ ...drain, basins: drain.basins.map((b) => ({ ...b, pipeM: 0.05 })) } as PipedDrain]);
    const closed = run([{ ...drain, dimensions: { ...drain.dimensions, closedPercent: 90 } } as PipedDrain]);
    for (const other of [narrow, closed]) expect(of(other).peakLevelM!).toBeGreaterThanOrEqual(of(alone).peakLevelM! - 1e-6);
    expect(of(narrow).peakLevelM! - of(alone).peakLevelM!).toBeGreaterThan(0.003);
    expect(narrow.conduits[0].surchargedH).toBeGreaterThan(0);
  });
  it('a branch is joined to the nearest shaft, comes in over its invert, and goes when its main goes', () => {
    const branch = begin([[20, 20], [29, 15]], 'closed-drain', [drain]); // prettier-ignore
    expect(branch.into).toBe(drain.id);
    const end = branch.line[branch.line.length - 1];
    expect(end[1]).toBeCloseTo(14, 1);
    expect(branch.levels.outletM).toBeGreaterThanOrEqual(drain.basins[1].invertM - 1e-9);
    expect(branch.basins.every((b) => !isOpen(b))).toBe(true);
    // Drawn from its lower end, or from ground that lies lower than the shaft, it still leads to that.
    expect(begin([[29, 15], [20, 20]], 'closed-drain', [drain])).toMatchObject({ into: drain.id, line: branch.line }); // prettier-ignore
    const both = run([drain, branch]);
    expect(both.links.find((l) => l.outlet === `${branch.id}#pipe`)?.to).toBe(`${drain.id}:pipe2`);
    expect(registry.bind(branch).refersTo).toEqual([drain.id]);
    // A roof led to it fills the pipe, not the yard.
    const roof = { ...(beginWorks({ ...withWorks([drain, branch]), features: [{ id: 'h', kind: 'building', ring: [[14, 18], [20, 18], [20, 26], [14, 26]] }] }, { ...CONTEXT, graph: new Graph() }, { kind: 'roof', how: 'roof-of-building', points: [[17, 20]] }).works[0]) }; // prettier-ignore
    const led = derive({ ...withWorks([drain, branch, roof]), options: [{ ...PLOT.options[0], works: [drain, branch, roof], links: { [`${roof.id}#down`]: branch.id } }] }, { ...CONTEXT, graph: new Graph() }).derived; // prettier-ignore
    const carried = led.conduits.find((c) => c.id === branch.id)!;
    expect(carried.peakM3s).toBeGreaterThan(0.0005);
    expect(of(led).inM3!).toBeLessThanOrEqual(of(both).inM3! + 0.01);
  });
  it('two that lead into each other are shown and not computed, and it is said why', () => {
    const ring = run([{ ...drain, into: 'other' } as PipedDrain, { ...drain, id: 'other', into: drain.id } as PipedDrain]);
    expect(ring.uncomputed.map((u) => u.work).sort()).toEqual([drain.id, 'other']);
    expect(ring.uncomputed[0].what).toMatch(/let one of them go/);
  });
  it('in the open its water runs on over what grows there, and is followed', () => {
    const [first] = drain.basins;
    const open = { ...drain, line: [[30, 30], [30, 2]] as Line, basins: [{ ...first, invertM: 99.9 }], ends: 'daylight' as const, levels: { outletM: 99.5 } }; // prettier-ignore
    const told = run([open]);
    expect(told.checks.find((c) => c.id === 'piped-drain.exit-velocity')?.severity).toMatch(/fine|weigh|mend/);
    expect(told.links.find((l) => l.outlet === `${drain.id}:pipe1#pipe`)?.path.length).toBeGreaterThan(1);
  });
  it('day by day its water goes down the grate and on to what takes it', () => {
    const tank = newTank('tank', 'Tank', { how: 'crate-tank', at: [30, 3] });
    const climate = { rainMm: Array<number>(12).fill(70), wetDays: Array<number>(12).fill(9), evaporationMm: Array<number>(12).fill(40) };
    const project = { ...withWorks([tank, { ...drain, into: 'tank' } as PipedDrain]), climate };
    const { stores, balance } = askBy('season', project, {});
    const of_ = (id: string) => stores.find((one) => one.id === id)!.told!;
    expect(of_(drain.id).spilledM3).toBeGreaterThan(1);
    expect(of_('tank').inM3).toBeGreaterThanOrEqual(of_(drain.id).spilledM3 - 0.01);
    expect(Math.abs(balance.errorM3)).toBeLessThan(1e-3);
  });
  it('without rain no flow is told, without ground no yard is judged', () => {
    const told = derive({ ...withWorks([drain]), rain: null }, { ...CONTEXT, graph: new Graph() }).derived;
    expect(told.conduits).toEqual([]);
    for (const id of ['piped-drain.stands', 'piped-drain.pipe', 'piped-drain.grate'])
      expect(told.checks.find((c) => c.id === id)).toMatchObject({ severity: 'unknown', value: null });
  });
});

describe('what it takes to make', () => {
  const drain = begin(DOWN);
  const ground = measureDrain(drain, { grid: GRID });
  it('earth closes: dug is filled back and left over; pipe by lengths as sold, nothing short', () => {
    const lines = quantitiesOf(drain, ground);
    const of = (item: string): number => lines.find((l) => l.item === item)?.likely ?? NaN;
    expect(of('cut')).toBeCloseTo(of('fill') + of('spoil'), 9);
    const [[d, length]] = byWidth(drain, ground);
    expect([d, 3 * of('lengths-100') >= length, 3 * (of('lengths-100') - 1) < length]).toEqual([0.1, true, true]);
    expect([of('basin'), of('lid'), of('reducer')]).toEqual([2, 0, 0]);
    const { gravelM3, pipeM3 } = partsOf(drain, ground);
    expect(gravelM3 + pipeM3).toBeCloseTo(length * 0.3 * 0.3, 9);
  });
  it('under paving and wheels by hand: a slab over its trenches, mesh in it, formwork round its grates; earth still closes', () => {
    const [[, length]] = byWidth(drain, ground);
    const of = (over: PipedDrain['over']) => new Map(quantitiesOf({ ...drain, over }, ground).map((l) => [l.item, l.likely]));
    const [grass, paving, wheels] = [of('grass'), of('paving'), of('wheels')];
    expect([grass.get('turf'), paving.get('turf')]).toEqual([expect.closeTo(0.3 * length, 9), undefined]);
    expect(['saw', 'concrete', 'mesh', 'formwork'].map((item) => grass.get(item))).toEqual([undefined, undefined, undefined, undefined]);
    expect([paving.get('concrete'), paving.get('mesh')]).toEqual([expect.closeTo(0.3 * length * 0.1, 9), undefined]);
    expect([wheels.get('concrete'), wheels.get('mesh')]).toEqual([
      expect.closeTo(0.3 * length * 0.15, 9),
      expect.closeTo(1.15 * 0.3 * length, 9),
    ]);
    const { grateLongM, grateWideM } = drain.basins[0];
    expect([wheels.get('formwork'), wheels.get('saw')]).toEqual([
      expect.closeTo(2 * 2 * (grateLongM + grateWideM), 9),
      expect.closeTo(2 * length, 9),
    ]);
    for (const items of [grass, paving, wheels]) expect(items.get('cut')).toBeCloseTo(items.get('fill')! + items.get('spoil')!, 9);
    // What the slab takes the place of is carried away.
    expect(wheels.get('spoil')! - grass.get('spoil')!).toBeCloseTo(wheels.get('concrete')!, 9);
    expect(wheels.get('cut')).toBe(grass.get('cut'));
  });
  it('two widths are told apart, with a reducer between them', () => {
    const wide = { ...drain, basins: [drain.basins[0], { ...drain.basins[1], pipeM: 0.15 }] };
    const items = quantitiesOf(wide, ground).map((l) => l.item);
    expect(items).toEqual(expect.arrayContaining(['pipe-100', 'pipe-150', 'lengths-100', 'lengths-150']));
    expect(quantitiesOf(wide, ground).find((l) => l.item === 'reducer')?.likely).toBe(1);
  });
  it('two grates in one hollow share its water: one store, two openings', () => {
    const at = (atM: number): Basin => ({ ...drain.basins[0], atM });
    const twin: PipedDrain = { ...drain, basins: [at(0), { ...at(2), invertM: drain.basins[0].invertM - 0.02 }, { ...drain.basins[1] }] };
    const own = measureDrain(twin, { grid: GRID });
    const stores = storesOf(twin, own);
    expect(stores[0].outlets.filter((o) => o.kind === 'joint')).toHaveLength(2);
    expect(stores).toHaveLength(2);
    expect(conduitsOf(twin, own).map((c) => c.to)).toEqual(['drain-1:pipe2', 'drain-1:pipe3', 'property-edge']);
    const places = own.yards[0].places;
    expect(places.length).toBeGreaterThan(100);
  });
});
