import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { begunBy, expectFields, hostOf, landOf, NO_TRAITS, wrong } from '../../testing/guests.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, stormOf, withAt } from '../../testing/rules.ts';
import { POND, WALL, valleyAt } from '../../testing/valley.ts';
import { measureBasin, wallEarth } from '../basin/index.ts';
import {
  CREST_WIDTH,
  PIT_VOLUME,
  POND_VOLUME,
  type Pond,
  VALLEY_VOLUME,
  WALL_QUICK,
  WALL_SECTION,
  leastTopWidth,
  newPond,
  pond,
} from './index.ts';

const site = siteOf(gridOf(valleyAt, { cells: 101, cellM: 2 }));
const ONE: Pond = { ...POND, borrow: 'inside' };
const PIT: Line = [
  [80, 130],
  [100, 130],
  [100, 145],
  [80, 145],
];
const noWall: Pond = { ...ONE, wall: undefined };
const DUG: Pond = { ...noWall, pit: PIT, levels: { crestM: 112, floorM: 106 } };
const ground = measureBasin(ONE, site);
const placed = pond.place(ONE, ground, null);
const dug = pond.place(DUG, pond.measure(DUG, site, null), null);

describe('a pond', () => {
  it('lends its wall to its guests: its crest, its ground, and which way is out', () => {
    const host = placed.host!;
    expect([host.crestM, host.line, host.downhillAt(20)]).toEqual([106.5, WALL, [0, -1]]);
    expect(host.groundAt(20)).toBeCloseTo(104.05, 1);
    expect(host.floorM).toBeGreaterThan(104);
    const turned = { ...ONE, wall: [...WALL].reverse() };
    const [x, y] = pond.place(turned, pond.measure(turned, site, null), null).host!.downhillAt(5);
    expect([x + 0, y + 0]).toEqual([0, -1]);
    expect(dug.host!.downhillAt(5)).toEqual([0, -1]);
    expect(lineLength(dug.host!.line)).toBe(70);
    expect(dug.host!.groundAt(3)).toBe(dug.host!.crestM);
  });
  it('lets what tops it fall beyond its outer foot', () => {
    const store = placed.stores([])[0];
    const [crest] = store.outlets;
    // Half the crest, the back slope times the height over the outer toe, and two metres.
    const earth = wallEarth(ONE, ground.wall!)!;
    const away = ONE.dimensions.topWidthM / 2 + ONE.dimensions.backSlopeHV * earth.toeHeightM + 2;
    expect(crest.dischargeAt[1]).toBeCloseTo(81 - away, 6);
    expect(Math.abs(crest.dischargeAt[0] - 101)).toBeLessThan(3);
    expect(store.wayOutM).toBe(106.5);
    expect(placed.outlets).toEqual([]);
  });
  it('is pegged along its crest or rim, and flagged where its water will stand', () => {
    const pegs = placed.pegs(15, 105.9);
    expect(pegs.filter((p) => p.name.startsWith('crest')).map((p) => [p.name, p.x, p.levelM])).toEqual([
      ['crest 0 m', 81, 106.5],
      ['crest 15 m', 96, 106.5],
      ['crest 30 m', 111, 106.5],
      ['crest 40 m', 121, 106.5],
    ]);
    const flags = pegs.filter((p) => p.name.startsWith('water line'));
    expect(flags.length).toBeGreaterThan(4);
    for (const f of flags) expect([f.levelM, f.groundM, Math.abs(valleyAt(f.x, f.y) - 105.9) < 0.6]).toEqual([105.9, 105.9, true]);
    expect(placed.pegs(15, null).every((p) => p.name.startsWith('crest'))).toBe(true);
    const rim = dug.pegs(35, null);
    expect(rim.map((p) => [p.name, p.levelM])).toEqual([
      ['rim 0 m', 106],
      ['rim 35 m', 106],
      ['rim 70 m', 106],
    ]);
    expect(dug.pegs(35, 107).length).toBeGreaterThan(3);
    expect(dug.waterRings?.(105)).toEqual([]);
  });
  it('marks crest or rim, what lies beside its wall, and floor or lowest ground', () => {
    expect(placed.marks.map((m) => [m.id, m.role, m.path])).toEqual([
      ['pond:crest', 'crest', 'levels.crestM'],
      ['pond:ground', 'ground', null],
    ]);
    const tall = withAt(ONE, 'levels.crestM', 109);
    expect(pond.place(tall, ground, null).marks.map((m) => m.id)).toEqual(['pond:crest', 'pond:round', 'pond:ground']);
    expect(dug.marks.map((m) => [m.id, m.role])).toEqual([
      ['pond:rim', 'ground'],
      ['pond:floor', 'floor'],
    ]);
  });
  it('draws wall, key, ground and water to scale; a pit by its sides', () => {
    const shape = placed.section!(105.9);
    expect(shape.parts.map((p) => p.role)).toEqual(['earth', 'key', 'ground', 'water']);
    const [outer, left, right] = shape.parts[0].points;
    expect([left, right]).toEqual([
      [-1.25, 106.5],
      [1.25, 106.5],
    ]);
    expect(outer[0]).toBeLessThan(-1.25 - 2 * 2);
    expect(outer[1]).toBeCloseTo(106.5 + (outer[0] + 1.25) / 2, 9);
    expect(shape.parts.map((p) => p.isArea === true)).toEqual([true, true, false, false]);
    // The key is cut into the ground under the middle of the crest.
    expect(shape.parts[1].points[0][1]).toBeCloseTo(valleyAt(101, 81), 0);
    expect(shape.parts[3].points[0]).toEqual([expect.closeTo(1.25 + 3 * 0.6, 9), 105.9]);
    expect(shape.levels.map((l) => l.name)).toEqual(['crest', 'water', '1 m over', 'ground']);
    expect(placed.section!(null).levels.map((l) => l.name)).toEqual(['crest', 'ground']);
    expect(placed.section!(103).parts).toHaveLength(3);
    const pit = dug.section!(107);
    expect(pit.parts[0].points[2][1]).toBe(106);
    expect(pit.parts[0].points[1][0]).toBeCloseTo(-Math.sqrt(300) / 2, 1);
    // Its floor ends where its sides come down to it.
    const [, rim, foot] = pit.parts[0].points;
    expect(foot[0] - rim[0]).toBeCloseTo(DUG.dimensions.pitSlopeHV * (rim[1] - 106), 9);
    expect(pit.parts[0].points.map(([x]) => x)).toEqual([...pit.parts[0].points.map(([x]) => -x)].reverse());
    expect(pit.levels).toEqual([
      { name: 'full', levelM: 107 },
      { name: 'floor', levelM: 106 },
    ]);
  });
  it('tells water, earth and the crest its storm needs', () => {
    const [store] = placed.stores([
      { kind: 'sill', role: 'way', levelM: 105.9, id: 's', work: 's', name: 's', dischargeAt: [0, 0], flowAt: () => 0 },
    ]);
    const sheet = new Worksheet('pond');
    const told = placed.figures(factsOf(site, { store, storm: stormOf({ peakLevelM: 106.1 }) }), sheet);
    const at = (id: string): number | null | undefined => told.find((f) => f.id === id)?.value;
    const earth = wallEarth(ONE, ground.wall!)!;
    expect([at('earthM3'), at('heightM'), at('keyM3'), at('wallM')]).toEqual([earth.earthM3, earth.toeHeightM, earth.keyM3, earth.lengthM]);
    expect(at('waterM2')).toBe(store.waterM2);
    expect(at('buildM')).toBeCloseTo(106.5 + 0.05 * earth.heightM, 9);
    expect(at('neededCrestM')).toBe(Math.ceil(100 * (106.1 + (at('freeboardNeededM') ?? 0))) / 100);
    expect(sheet.lines.map((l) => l.formula)).toEqual([
      'pond.volume',
      'pond.valley-volume',
      'pond.wall-section',
      'pond.wall-quick',
      'pond.crest-width',
      'hydraulics.wave-hawksley',
      'hydraulics.wave-runup',
    ]);
    const dry = placed.figures(factsOf(site), new Worksheet('pond'));
    expect(dry.map((f) => f.id)).not.toContain('neededCrestM');
    expect(dry.find((f) => f.id === 'freeboardNeededM')?.value).toBeNull();
    expect(dug.figures(factsOf(site), new Worksheet('pond')).map((f) => f.id)).toEqual(['bottomM', 'waterM2', 'reachM', 'dugM3']);
  });
  it('is begun with dimensions of common practice, levels to the millimetre', () => {
    const made = newPond('p', 'New', { wall: WALL, crestM: 106.50049, floorM: 104.1 });
    expect(made).toMatchObject({ levels: { crestM: 106.5, floorM: 104.1 }, status: 'planned', borrow: 'inside' });
    expect(pond.validate(made)).toEqual([]);
    expect(newPond('p', 'New', { pit: PIT, crestM: 1, floorM: 0 })).not.toHaveProperty('wall');
  });
  it('is refused with fields out of range, nothing to hold water, or levels the wrong way round', () => {
    const wide = { ...ONE, levels: { crestM: 9000, floorM: -500 } };
    for (const { path } of pond.fields)
      if (path.startsWith('levels')) expect(wrong(pond, withAt(wide, path, 'x'))).toEqual([`work.field-missing@${path}`]);
    expectFields({ ...pond, fields: pond.fields.filter((f) => !f.path.startsWith('levels')) }, ONE);
    expect(wrong(pond, { ...noWall })).toEqual(['pond.nothing@wall']);
    expect(wrong(pond, { ...ONE, borrow: 'x' } as never)).toEqual(['pond.borrow@borrow']);
    expect(wrong(pond, { ...ONE, wall: [[1, 1]] } as never)).toEqual(['work.line@wall']);
    expect(wrong(pond, { ...DUG, pit: PIT.slice(0, 2) })).toEqual(['pond.pit@pit']);
    expect(wrong(pond, { ...DUG, pit: 'x' } as never)).toEqual(['work.line@pit']);
    expect(wrong(pond, { ...DUG, pit: PIT.slice(0, 3) })).toEqual([]);
    expect(wrong(pond, { ...ONE, levels: { crestM: 104, floorM: 104 } })).toEqual(['pond.levels-order@levels.crestM']);
    expect([hostOf(pond, ONE), pond.intakes(ONE)]).toEqual([null, [{ store: ONE.id, line: WALL }]]);
    expect(pond.footprint({ ...ONE, pit: PIT })).toEqual([WALL, [...PIT, PIT[0]]]);
    expect(pond.intakes(DUG)).toEqual([{ store: DUG.id, line: [...PIT, PIT[0]] }]);
    expect(pond.groundKey(ONE)).toEqual([WALL, null]);
    expect(pond.groundKey(withAt(ONE, 'levels.crestM', 120))).toEqual(pond.groundKey(ONE));
  });
});

describe('formulas of ponds', () => {
  it('evaluate as they read', () => {
    expect(WALL_SECTION.evaluate({ w: 2, h: 3, z1: 3, z2: 2 })).toBe(2 * 3 + (5 * 9) / 2);
    expect(WALL_QUICK.evaluate({ H: 3, L: 40, C: 2.5, S: 5 })).toBeCloseTo(0.216 * 3 * 40 * (5 + 15), 9);
    expect(VALLEY_VOLUME.evaluate({ L: 30, T: 60, H: 3 })).toBe(900);
    expect(POND_VOLUME.evaluate({ A: 1000, d: 2 })).toBe(800);
    expect(PIT_VOLUME.evaluate({ A: 1200, B: 936, C: 704, D: 2 })).toBeCloseTo((1200 + 3744 + 704) / 3, 9);
    expect(CREST_WIDTH.evaluate({ z: 5 })).toBe(4);
  });
  it('a prismoid that is a box is a box, and a valley of one third of a prism is its sixth', () => {
    expect(PIT_VOLUME.evaluate({ A: 100, B: 100, C: 100, D: 3 })).toBe(300);
  });
  it('the least crest grows with height, a step at each limit', () => {
    const ft = 0.3048;
    for (const [feet, under, over] of [
      [10, 1.8, 2.4],
      [15, 2.4, 3],
      [20, 3, 3.7],
      [25, 3.7, 4.3],
      [35, 4.3, 4.6],
    ])
      // prettier-ignore
      expect([leastTopWidth(feet * ft - 1e-6), leastTopWidth(feet * ft)]).toEqual([under, over]);
  });
});

describe('a pond to begin with', () => {
  const land = landOf({ grid: site.grid, idFor: (what) => `${what}-1` });
  const wall = (points: Line): [Pond, { levels: { sillM: number }; atM: number; host: string }] => begunBy(pond, { points }, land) as never;
  it('has a wall two metres high, its ends higher, and a sill where the ground reaches it', () => {
    const [made, sill] = wall(WALL);
    const low = made.levels.floorM;
    expect(low).toBeCloseTo(valleyAt(101, 81), 0);
    expect([made.levels.crestM - low, sill.levels.sillM - made.levels.crestM, sill.host]).toEqual([
      expect.closeTo(2, 2),
      expect.closeTo(-0.6, 9),
      'pond-1',
    ]);
    expect(valleyAt(81 + sill.atM, 81)).toBeGreaterThanOrEqual(sill.levels.sillM - 0.05);
    expect(valleyAt(81 + sill.atM - 3, 81)).toBeLessThan(sill.levels.sillM + 0.05);
  });
  it('between low ends stays under them, never under half a metre, its sill never under 0.2 m of water', () => {
    const [made, sill] = wall([[99, 81], [103, 81]]); // prettier-ignore
    const low = made.levels.floorM;
    expect([made.levels.crestM - low, sill.levels.sillM - low]).toEqual([expect.closeTo(0.5, 2), expect.closeTo(0.2, 2)]);
    const [under] = wall([[96, 81], [106, 81]]); // prettier-ignore
    expect(under.levels.crestM).toBeCloseTo(Math.min(valleyAt(96, 81), valleyAt(106, 81)) - 0.1, 1);
  });
  it('or is dug two metres under its lowest rim', () => {
    const [pit] = begunBy(pond, { how: 'pit', points: PIT }, land) as [Pond];
    expect(pit.pit).toBe(PIT);
    expect(pit.levels.crestM - pit.levels.floorM).toBeCloseTo(2.3, 6);
    for (const how of ['pond', 'pit']) expect(begunBy(pond, { how, points: [[0, 0], [900, 0], [900, 900]] }, land)).toBe('work.off-terrain'); // prettier-ignore
  });
  it('silts up and can be joined; a pit retains nothing', () => {
    expect(pond.traits(ONE)).toEqual({ ...NO_TRAITS, retains: 'wall', canSilt: true, joinable: true });
    expect(pond.traits(DUG).retains).toBe('none');
    expect([pond.refs(ONE), pond.validate(pond.sample), pond.draws.map((d) => [d.id, d.least])]).toEqual([[], [], [['pond', 2], ['pit', 3]]]); // prettier-ignore
  });
});
