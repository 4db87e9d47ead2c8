// A swale begun, validated, measured and placed: its ways out, pegs, marks and the mouth between two stores.
import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { NO_TRAITS, SITE, begunBy, expectFields, landOf, wrong } from '../../testing/guests.ts';
import { SWALE } from '../../testing/projects.ts';
import { factsOf, withAt } from '../../testing/rules.ts';
import { measureLip } from '../lip.ts';
import { mouthFlow, swale, type Swale } from './index.ts';

const ONE: Swale = { ...SWALE, levels: { floorM: -0.35, bankCrestM: 0.35 } };
const lip = measureLip(ONE.line, SITE);
/** The lip exactly level. */
const ground = { ...lip, groundM: lip.groundM.map(() => 0), meanGroundM: 0 };
const place = (one: Swale = ONE) => swale.place(one, ground, null);
const store = (one: Swale = ONE) => place(one).stores([])[0];

describe('a swale placed', () => {
  it('lends its line, levels and slope to what lets it out', () => {
    const host = place().host!;
    expect([host.line, host.floorM, host.crestM, host.downhillAt(20), host.groundAt(20)]).toEqual([ONE.line, -0.35, 0.35, [0, -1], 0]);
    expect(host.crossSlope).toBeCloseTo(0.1, 5);
    expect(place().outlets).toEqual([]);
  });
  it('is pegged at its floor from end to end, the last place among them', () => {
    expect(place().pegs(60, null).map((p) => [p.name, p.x, p.y, p.levelM, p.groundM])).toEqual([
      ['0 m', 32, 101, -0.35, 0],
      ['60 m', 92, 101, -0.35, 0],
      ['120 m', 152, 101, -0.35, 0],
      ['140 m', 172, 101, -0.35, 0],
    ]); // prettier-ignore
    expect(place().pegs(70, null)).toHaveLength(3);
    expect(
      place()
        .pegs(52.5, null)
        .map((p) => p.name),
    ).toEqual(['0 m', '52.5 m', '105 m', '140 m']);
  });
  it('marks crest, ground and floor, and each low place by itself', () => {
    expect(place().marks.map((m) => [m.id, m.role, m.levelM, m.path])).toEqual([
      ['w1:crest', 'crest', 0.35, 'levels.bankCrestM'],
      ['w1:ground', 'ground', 0, null],
      ['w1:floor', 'floor', -0.35, 'levels.floorM'],
    ]);
    const low = { atM: 10, lengthM: 3, levelM: 0.1 };
    const marks = (lowPlaces: Swale['lowPlaces']) => place({ ...ONE, lowPlaces }).marks.filter((m) => m.role === 'low').map((m) => [m.name, m.levelM]); // prettier-ignore
    expect(marks([low])).toEqual([['Low bank', 0.1]]);
    expect(marks([low, { ...low, levelM: 0.05 }, { ...low, levelM: 0.4 }])).toEqual([
      ['Low bank 1', 0.05],
      ['Low bank 2', 0.1],
    ]);
  });
  it('is passed first where its bank is lowest: fuse, low places, then the whole crest', () => {
    const one: Swale = { ...ONE, lowPlaces: [{ atM: 84, lengthM: 6, levelM: 0.2 }], fuse: { fromM: 30, toM: 38, crestM: 0.25 } };
    const made = store(one);
    expect(made.outlets.map((o) => [o.id, o.role, o.kind, o.levelM])).toEqual([
      ['w1#low1', 'low', 'bank', 0.2],
      ['w1#fuse', 'fuse', 'bank', 0.25],
      ['w1#bank', 'bank', 'bank', 0.35],
    ]);
    const [low, fuse, bank] = made.outlets;
    // Beyond the outer foot: the top, and both sides of the bank over the lip.
    const out = 101 - (0.5 + 2 * 2 * 0.35);
    expect(low.dischargeAt).toEqual([116, expect.closeTo(out, 9)]);
    expect(fuse.dischargeAt[0]).toBe(32 + 34);
    expect([low.flowAt(0.3), fuse.flowAt(0.35), bank.flowAt(0.45)]).toEqual([6, 8, 140].map((L) => expect.closeTo(1.5 * L * 0.1 ** 1.5, 9))); // prettier-ignore
    expect([made.crestM, made.wayOutM, made.sillM]).toEqual([0.2, 0.2, null]);
    expect(store({ ...one, fuse: { fromM: 30, toM: 38, crestM: 0.35 } }).outlets).toHaveLength(2);
    expect(store({ ...one, lowPlaces: [{ atM: 1, lengthM: 1, levelM: -9 }] }).wayOutM).toBe(-0.35);
  });
  it('where the ground is lowest its crest is passed', () => {
    const dipped = { ...ground, groundM: ground.groundM.map((_, i) => (i === 50 ? -0.1 : 0)) };
    expect(swale.place(ONE, dipped, null).stores([])[0].outlets[0].dischargeAt[0]).toBeCloseTo(32 + dipped.atM[50], 9);
  });
  it('tells length, ground, earth and the crest that uses all of it, with the formulas it used', () => {
    const sheet = new Worksheet('w1');
    const at = new Map(
      place()
        .figures(factsOf(SITE), sheet)
        .map((f) => [f.id, f.value]),
    );
    expect([at.get('lengthM'), at.get('groundM')]).toEqual([140, 0]);
    expect(at.get('cutM3')).toBeGreaterThan(140 * 0.35 * 0.9);
    expect(at.get('balancedCrestM')).toBeGreaterThan(0);
    expect(sheet.lines.map((l) => l.formula)).toEqual(['works.swale-cut-area', 'works.swale-bank-area', 'works.swale-water-area']);
    const steep = { ...ground, meanSlope: 0.7 };
    const over = new Worksheet('w1');
    swale.place(ONE, steep, null).figures(factsOf(SITE), over);
    expect(over.lines.map((l) => l.formula)).toEqual(['works.swale-water-area']);
  });
});

describe('a swale that opens into a pond', () => {
  const joined: Swale = { ...ONE, joins: { store: 'pond', end: 'end' } };
  it('has a mouth through which water runs both ways, by its levels', () => {
    const mouth = store(joined).outlets.find((o) => o.role === 'mouth')!;
    expect(mouth).toMatchObject({ id: 'w1#mouth', kind: 'joint', levelM: -0.35, to: 'pond', drownsM: -Infinity, dischargeAt: [172, 101] });
    expect(store({ ...joined, joins: { store: 'pond', end: 'start' } }).outlets.find((o) => o.role === 'mouth')?.dischargeAt).toEqual([
      32, 101,
    ]);
    const there = mouth.flowAt(0, -0.2);
    expect(there).toBeGreaterThan(0.01);
    expect(mouth.flowAt(-0.2, 0)).toBeCloseTo(-there, 12);
    expect(mouth.flowAt(0, 0)).toBe(0);
    expect(mouth.flowAt(-0.35)).toBe(0);
    // It is no way out: what is held is told without it.
    expect(store(joined).wayOutM).toBe(0.35);
  });
  it('carries by friction of its bed and what its mouth takes, no more once the lower end is under two thirds', () => {
    const flow = mouthFlow(ONE, 60);
    const [high, low] = [0.35, 0.3];
    const section = (y: number) => ({ area: (0.9 + 1.5 * y) * y, perimeter: 0.9 + 2 * y * Math.hypot(1, 1.5) });
    const mean = section((high + low) / 2);
    const conveyance = (mean.area * (mean.area / mean.perimeter) ** (2 / 3)) / 0.03;
    const expected = Math.sqrt((high - low) / (60 / conveyance ** 2 + 1.5 / (2 * 9.81 * section(low).area ** 2)));
    expect(flow(0, -0.05)).toBeCloseTo(expected, 6);
    expect(flow(0, -0.3)).toBeCloseTo(flow(0, -0.35 + (2 / 3) * 0.35), 9);
    expect([flow(-0.4, -0.5), flow(0, 0), flow(-0.1, 0)]).toEqual([0, 0, 0]);
  });
});

describe('a swale as it is said', () => {
  it('is refused with fields out of range, levels the wrong way round, or a purpose nobody knows', () => {
    expectFields({ ...swale, fields: swale.fields.filter((f) => !f.path.startsWith('levels')) }, ONE);
    expect(wrong(swale, withAt(ONE, 'levels.floorM', null))).toEqual(['work.field-missing@levels.floorM']);
    expect(wrong(swale, withAt(ONE, 'levels.bankCrestM', -0.35))).toEqual(['swale.levels-order@levels.bankCrestM']);
    expect(wrong(swale, withAt(ONE, 'levels.bankCrestM', -0.349))).toEqual([]);
    expect(wrong(swale, withAt(ONE, 'purpose', 'x'))).toEqual(['swale.purpose@purpose']);
    expect(wrong(swale, withAt(ONE, 'line', []))).toEqual(['work.line@line']);
  });
  it('or with low places, a mouth or a fuse that are none', () => {
    const low = (change: object): string[] => wrong(swale, withAt(ONE, 'lowPlaces', [{ atM: 0, lengthM: 1, levelM: 2, ...change }]));
    expect(low({})).toEqual([]);
    for (const change of [{ atM: -1 }, { lengthM: 0 }, { levelM: NaN }, { atM: 'x' }])
      expect(low(change)).toEqual(['swale.low-place@lowPlaces.0']);
    const joins = (value: unknown): string[] => wrong(swale, withAt(ONE, 'joins', value));
    for (const end of ['start', 'end']) expect(joins({ store: 'p', end })).toEqual([]);
    for (const none of [null, {}, { store: 'p' }, { store: '', end: 'start' }, { store: 3, end: 'start' }, { store: 'p', end: 'middle' }])
      expect(joins(none)).toEqual(['swale.joins@joins']);
    const fuse = (change: object | null): string[] =>
      wrong(swale, withAt(ONE, 'fuse', change && { fromM: 0, toM: 5, crestM: 0.2, ...change }));
    expect(fuse({})).toEqual([]);
    for (const none of [null, { fromM: -1 }, { toM: 0 }, { crestM: 'x' }, { toM: NaN }]) expect(fuse(none)).toEqual(['swale.fuse@fuse']);
  });
  it('retains by a bank, silts up, lets go of a pond that is taken away', () => {
    expect(swale.traits(ONE)).toEqual({ ...NO_TRAITS, retains: 'bank', canSilt: true, joinable: true });
    expect(swale.refs(ONE)).toEqual([]);
    expect(swale.refs({ ...ONE, joins: { store: 'p', end: 'end' } })).toEqual([
      { role: 'joins', id: 'p', path: 'joins', whenGone: 'lets-go' },
    ]);
    expect([swale.footprint(ONE), swale.intakes(ONE), swale.groundKey(ONE)]).toEqual([
      [ONE.line],
      [{ store: 'w1', line: ONE.line }],
      ONE.line,
    ]);
    expect([swale.validate(swale.sample), swale.draws.map((d) => [d.id, d.isFirst])]).toEqual([[], [['swale', true]]]);
    expect(swale.choices?.[0].options.find((o) => o.id === 'spillway')?.name).toBe('be a spillway');
    const [list] = swale.lists!;
    expect((list.start as (of: Swale) => object)(ONE)).toEqual({ atM: 20, lengthM: 5, levelM: 0.25 });
  });
  it('begins on the contour through its first point, its sill four metres from its end or in the middle of a short one', () => {
    const drawn: Line = [[32, 101], [172, 95]]; // prettier-ignore
    const [made, sill] = begunBy(swale, { points: drawn }) as [Swale, { atM: number; levels: { sillM: number }; host: string }];
    expect([made.id, made.name, sill.host]).toEqual(['swale-1', 'Swale 1', 'swale-1']);
    expect([made.levels.floorM, sill.levels.sillM, made.levels.bankCrestM]).toEqual([-0.35, 0, 0.35].map((v) => expect.closeTo(v, 3))); // prettier-ignore
    expect(sill.atM).toBeCloseTo(lineLength(made.line) - 4, 2);
    const [short, middle] = begunBy(swale, { points: [[32, 101], [38, 101]] }) as [Swale, { atM: number }]; // prettier-ignore
    expect(middle.atM).toBeCloseTo(lineLength(short.line) / 2, 2);
    expect(begunBy(swale, { points: [[932, 101], [940, 101]] })).toBe('swale.settle'); // prettier-ignore
    expect(begunBy(swale, { points: drawn }, landOf({ grid: { ...SITE.grid, z: SITE.grid.z.map(() => 1) } }))).toBe('swale.settle');
  });
});
