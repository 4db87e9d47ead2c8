import { describe, expect, it } from '@jest/globals';
import type { Outlet } from '../../contract/index.ts';
import { Worksheet } from '../../formula/index.ts';
import { culvertHead, culvertLaw } from '../../hydraulics/index.ts';
import { begunBy, expectFields, hostOf, landOf, NO_TRAITS, othersOf, wrong } from '../../testing/guests.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, linkOf, siteOf, withAt } from '../../testing/rules.ts';
import { ROAD, valleyAt } from '../../testing/valley.ts';
import { measureBasin } from '../basin/index.ts';
import { type Crossing, crossing, pipeLength } from './index.ts';

const site = siteOf(gridOf(valleyAt, { cells: 101, cellM: 2 }));
const ONE: Crossing = {
  ...ROAD,
  levels: { roadM: 108.6, inletM: 107.15, outletM: 106.95, dipM: 108.3 },
  dimensions: { ...ROAD.dimensions, diameterM: 0.6, barrels: 2, overhangM: 0.5 },
};
const ground = measureBasin({ wall: ONE.line }, site);
const place = (one: Crossing) => crossing.place(one, ground, null);
const DIP: Crossing = { ...ONE, form: 'dip', dimensions: { ...ONE.dimensions, dipLengthM: 12 } };
const JOINED: Crossing = { ...ONE, joins: ['a', 'b'] };
const LENGTH = 4 + 2 * (1.45 + 1.65) + 1;

describe('a crossing', () => {
  const placed = place(ONE);
  const store = placed.stores([])[0];
  const pipe = store.outlets.find((o) => o.id === 'road#pipe')!;
  it('takes pipe for the road, both sides down to it and what sticks out', () => {
    expect(pipeLength(ONE)).toBeCloseTo(LENGTH, 12);
    expect(pipeLength({ levels: { ...ONE.levels, roadM: 0 }, dimensions: { ...ONE.dimensions, overhangM: 0 } })).toBe(4);
    expect(pipeLength({ levels: { ...ONE.levels, roadM: 0 }, dimensions: { ...ONE.dimensions, roadWidthM: 0.5, overhangM: 0 } })).toBe(1);
  });
  it('on pipes is a store that runs through them, then over its road', () => {
    expect(store.outlets.map((o) => [o.id, o.kind, o.levelM])).toEqual([
      ['road#pipe', 'rated', 107.15],
      ['road#road', 'bank', 108.6],
    ]);
    const law = culvertLaw({
      barrels: 2,
      diameterM: 0.6,
      lengthM: LENGTH,
      slope: 0,
      n: 0.013,
      inlet: ONE.inlet,
      inletM: 107.15,
      outletM: 106.95,
      blocked: 0,
    });
    for (const level of [107.2, 107.6, 108.2, 108.6]) expect(pipe.flowAt(level)).toBeCloseTo(law(level), 9);
    expect(
      place({ ...ONE, blockedPercent: 50 })
        .stores([])[0]
        .outlets[0].flowAt(108),
    ).toBeLessThan(0.7 * pipe.flowAt(108));
    expect(pipe).toMatchObject({ drownsM: 106.95, exit: { shape: 'pipe', slope: 0.01, widthM: 0.6 } });
    // Down the valley from its lowest place, half the pipe and two metres on.
    expect(pipe.dischargeAt[1]).toBeCloseTo(141 - LENGTH / 2 - 2, 6);
    expect(store.outlets[1].dischargeAt[1]).toBeCloseTo(141 - 5, 6);
    expect(store.outlets[1].flowAt(108.7)).toBeCloseTo(1.5 * 26 * 0.1 ** 1.5, 3);
    expect([store.wayOutM, store.crestM, store.work]).toEqual([Math.max(107.15, store.floorM), 108.6, 'road']);
  });
  it('that dips is run over where it was made to be, its whole road a hair above', () => {
    const ways = place(DIP).stores([])[0];
    expect(ways.outlets.map((o) => [o.id, o.kind, o.levelM])).toEqual([
      ['road#pipe', 'rated', 107.15],
      ['road#road', 'sill', 108.3],
      ['road#crest', 'bank', 108.601],
    ]);
    expect(ways.outlets[1].flowAt(108.4)).toBeCloseTo(1.5 * 12 * 0.1 ** 1.5, 9);
    expect(ways.outlets[1].exit).toMatchObject({ shape: 'sheet', widthM: 12, slope: 0.05 });
    expect(ways.outlets[2].flowAt(108.701)).toBeCloseTo(1.5 * 26 * 0.1 ** 1.5, 3);
    expect(ways.crestM).toBe(108.601);
    // A dip of no length is a road.
    expect(
      place({ ...ONE, form: 'dip' })
        .stores([])[0]
        .outlets.map((o) => o.id),
    ).toEqual(['road#pipe', 'road#road']);
  });
  it('between two stores only joins them, both ways', () => {
    const joined = place(JOINED);
    expect([joined.stores([]), joined.host]).toEqual([[], null]);
    expect(joined.outlets).toMatchObject([{ id: 'road#pipe', kind: 'joint', to: 'b' }]);
    expect(joined.outlets[0]).not.toHaveProperty('exit');
    expect(joined.outlets[0].flowAt(107.3, 108)).toBeLessThan(0);
    expect(joined.waterRings?.(108)).toEqual([]);
    expect(placed.waterRings?.(108).length).toBeGreaterThan(0);
    expect([hostOf(crossing, JOINED), othersOf(crossing, JOINED), crossing.intakes(JOINED)]).toEqual(['a', ['b'], []]);
    expect([hostOf(crossing, ONE), othersOf(crossing, ONE), crossing.intakes(ONE)]).toEqual([
      null,
      [],
      [{ store: 'road', line: ONE.line }],
    ]);
  });
  it('without pipes has none', () => {
    const bare = place(withAt(ONE, 'dimensions.barrels', 0));
    expect(bare.stores([])[0].outlets.map((o) => o.id)).toEqual(['road#road']);
    expect([bare.pegs(1, null), bare.marks.map((m) => m.id)]).toEqual([[], ['road:road']]);
  });
  it('hosts what lets it out along its road', () => {
    const host = placed.host!;
    expect([host.crestM, host.floorM, host.line, host.downhillAt(5)]).toEqual([108.6, 107.15, ONE.line, [0, -1]]);
    expect(host.groundAt(13)).toBeCloseTo(valleyAt(101, 141), 1);
    const turned: Crossing = { ...ONE, line: [...ONE.line].reverse() };
    const [, y] = crossing.place(turned, measureBasin({ wall: turned.line }, site), null).host!.downhillAt(5);
    expect(y).toBe(-1);
    const sill: Outlet = { ...pipe, id: 's', work: 's', levelM: 108 };
    expect(placed.stores([sill])[0].outlets.map((o) => o.id)).toContain('s');
  });
  it('takes pipe only where it has some, and road metal twice as deep where water runs over it; each is built in its order', () => {
    const items = (one: Crossing) => place(one).quantities(factsOf(site)).map((q) => [q.item, q.likely]); // prettier-ignore
    const of = (one: Crossing) => new Map(items(one) as [string, number | null][]);
    expect(of(ONE).get('pipe')).toBeCloseTo(2 * LENGTH, 9);
    expect([...of(withAt(ONE, 'dimensions.barrels', 0)).keys()]).toEqual(['fill', 'stone']);
    const { roadWidthM: wide } = ONE.dimensions;
    expect(of(DIP).get('stone')! - of(ONE).get('stone')!).toBeCloseTo(12 * wide * 0.15, 6);
    const steps = (one: Crossing) => place(one).buildSteps();
    expect(steps(ONE).map((s) => s.id)).toContain('pipe');
    expect(steps(withAt(ONE, 'dimensions.barrels', 0)).map((s) => s.id)).not.toContain('pipe');
    const relief = (one: Crossing) => steps(one).find((s) => s.id === 'relief');
    expect([relief(ONE)?.levels, relief(DIP)?.levels]).toEqual([[], [{ name: 'lowest road', levelM: 108.3 }]]);
  });
  it('is pegged at both ends of its pipe, marked at road, dip and pipe', () => {
    const pegs = placed.pegs(1, null);
    expect(pegs.map((p) => [p.name, p.levelM])).toEqual([
      ['pipe in', 107.15],
      ['pipe out', 106.95],
    ]);
    expect(pegs[0].y - pegs[1].y).toBeCloseTo(LENGTH, 6);
    expect(pegs[0].groundM).toBeCloseTo(valleyAt(101, 141), 1);
    expect(placed.marks.map((m) => m.id)).toEqual(['road:road', 'road:pipe']);
    expect(place(DIP).marks.map((m) => [m.id, m.path])).toEqual([
      ['road:road', 'levels.roadM'],
      ['road:dip', 'levels.dipM'],
      ['road:pipe', 'levels.inletM'],
    ]);
  });
  it('tells the pipe its peak needs: the least one sold under 1.2 diameters of water', () => {
    const figures = (Q: number | null, one: Crossing = ONE) => {
      const sheet = new Worksheet('road');
      const clear = Q === null ? {} : { links: [linkOf('road#pipe', Q)] };
      const list = place(one).figures(factsOf(site, { store: { ...store, wayOutM: 108 }, designPeakM3s: Q, ...clear }), sheet);
      return { at: (id: string) => list.find((f) => f.id === id)?.value, lines: sheet.lines, formulas: sheet.lines.map((l) => l.formula) };
    };
    const head = (D: number): number =>
      culvertHead({ diameterM: D, lengthM: LENGTH, slope: 0.2 / LENGTH, n: 0.013, inlet: ONE.inlet }, 0.5) / D;
    const needed = figures(1).at('neededDiameterM')!;
    expect(head(needed)).toBeLessThanOrEqual(1.2);
    const sold = [0.3, 0.375, 0.45, 0.525, 0.6, 0.75, 0.9, 1.05, 1.2, 1.5, 1.8];
    expect(head(sold[sold.indexOf(needed) - 1])).toBeGreaterThan(1.2);
    expect([figures(null).at('neededDiameterM'), figures(500).at('neededDiameterM')]).toEqual([null, null]);
    expect(figures(1).at('clearM3s')).toBeCloseTo(pipe.flowAt(108.6), 9);
    expect(figures(1, { ...ONE, blockedPercent: 90 }).at('clearM3s')).toBeCloseTo(pipe.flowAt(108.6), 9);
    expect([figures(1).at('pipeM'), figures(1).at('slope')]).toEqual([expect.closeTo(LENGTH, 9), expect.closeTo(0.2 / LENGTH, 9)]);
    expect(figures(1).at('earthM3')).toBeGreaterThan(10);
    expect(figures(1).at('reachM')).toBeGreaterThan(0);
    expect(figures(1, JOINED).at('reachM')).toBeNull();
    expect(figures(1).formulas).toEqual(['hydraulics.full-pipe', 'hydraulics.culvert-barrel']);
    // Half of it in each of two pipes of 0.6 m.
    expect(figures(1).lines[1].inputs.V).toBeCloseTo(0.5 / ((Math.PI / 4) * 0.36), 9);
    expect(figures(0).formulas).toEqual(['hydraulics.full-pipe']);
    expect(figures(1, withAt(ONE, 'levels.outletM', 107.2)).formulas).toEqual(['hydraulics.culvert-barrel']);
    expect(figures(1, withAt(ONE, 'dimensions.barrels', 0)).at('pipeM')).toBeUndefined();
  });
  it('draws road, pipe and the water before it', () => {
    expect(placed.section!(null).parts.map((p) => p.role)).toEqual(['earth', 'ground', 'pipe']);
    expect(placed.section!(107.15).parts).toHaveLength(3);
    const wet = placed.section!(108);
    expect(wet.parts[3].points[1]).toEqual([expect.closeTo(-2 - 2 * 0.6, 9), 108]);
    expect(placed.section!(109).parts[3].points[1][0]).toBe(-2);
    expect(wet.parts[0].points[0]).toEqual([expect.closeTo(-2 - 2 * 1.45, 9), 107.15]);
    expect(wet.parts[0].points[3]).toEqual([expect.closeTo(2 + 2 * 1.65, 9), 106.95]);
    expect(wet.parts[2].points[0][0]).toBeCloseTo(-2 - 2.9 - 0.5, 9);
    expect(place(withAt(ONE, 'dimensions.barrels', 0)).section!(null).parts).toHaveLength(2);
  });
  it('is refused with fields out of range, forms nobody knows, one store for two, half a pipe or a dip above its road', () => {
    expectFields({ ...crossing, fields: crossing.fields.filter((f) => !f.path.startsWith('levels')) }, ONE);
    for (const path of ['levels.roadM', 'levels.inletM', 'levels.outletM', 'levels.dipM'])
      expect(wrong(crossing, withAt(ONE, path, null))).toEqual([`work.field-missing@${path}`]);
    expect(wrong(crossing, { ...ONE, form: 'x' } as never)).toEqual(['crossing.form@form']);
    expect(wrong(crossing, { ...ONE, inlet: 'x' } as never)).toEqual(['crossing.inlet@inlet']);
    expect(wrong(crossing, { ...ONE, line: [] })).toEqual(['work.line@line']);
    for (const joins of [['a', 'a'], ['a'], ['a', ''], ['a', 3], 'ab', ['a', 'b', 'c']])
      expect(wrong(crossing, { ...ONE, joins } as never)).toEqual(['crossing.joins@joins']);
    expect(wrong(crossing, JOINED)).toEqual([]);
    expect(wrong(crossing, withAt(ONE, 'dimensions.barrels', 1.5))).toEqual(['work.field-whole@dimensions.barrels']);
    expect(wrong(crossing, withAt(ONE, 'levels.dipM', 108.61))).toEqual(['crossing.levels-order@levels.dipM']);
    expect(wrong(crossing, withAt(ONE, 'levels.dipM', 108.6))).toEqual([]);
    expect([crossing.footprint(ONE), crossing.groundKey(ONE)]).toEqual([[ONE.line], ONE.line]);
  });
});

describe('a crossing to begin with', () => {
  it('is a road 1.3 m over the lowest ground on one pipe', () => {
    const made = begunBy(crossing, { points: ONE.line }, landOf({ grid: site.grid }));
    const lowest = valleyAt(101, 141);
    const near = (m: number): unknown => expect.closeTo(lowest + m, 0);
    expect(made).toMatchObject([
      {
        id: 'crossing-1',
        kind: 'crossing',
        name: 'Crossing 1',
        form: 'culvert',
        levels: { roadM: near(1.3), inletM: near(0), outletM: near(-0.1), dipM: near(1) },
      },
    ]);
    const [{ levels }] = made as [Crossing];
    expect([levels.roadM - levels.inletM, levels.inletM - levels.outletM, levels.dipM - levels.inletM]).toEqual([
      expect.closeTo(1.3, 6),
      expect.closeTo(0.1, 6),
      expect.closeTo(1, 6),
    ]);
    expect(begunBy(crossing, { points: [[0, 0], [900, 0]] })).toBe('work.off-terrain'); // prettier-ignore
    expect(crossing.validate(crossing.sample)).toEqual([]);
  });
  it('holds as a wall does, unless it joins two stores; its pipes block', () => {
    expect(crossing.traits(ONE)).toEqual({ ...NO_TRAITS, retains: 'wall', canBlock: true, isConduit: true });
    expect(crossing.traits(withAt(ONE, 'dimensions.barrels', 0))).toEqual({ ...NO_TRAITS, retains: 'wall' });
    expect(crossing.traits(JOINED).retains).toBe('none');
    expect(crossing.refs(JOINED).map((r) => r.whenGone)).toEqual(['goes', 'goes']);
  });
});
