import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { NO_TRAITS, begunBy, expectFields, landOf, wrong } from '../../testing/guests.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { acrossAt, measureBed } from '../bed.ts';
import { HEEDE_SPACING, SIGHT_SPACING, type CheckDams, type Dam, checkDams, damsFromRows } from './index.ts';
import { hoursOf } from './making.ts';
import { byGully, bySight, toeAbove } from './spacing.ts';
import { WEDGE_VOLUME, stoneOf } from './stone.ts';
import { leakRating, roomBehind, standingDams, waterBehind } from './store.ts';

/** A gully that falls a tenth to the south: a bed a metre wide, sides of one to one, a metre and a half deep. */
const GULLY = siteOf(gridOf((x, y) => 0.1 * y + Math.min(1.5, Math.max(0, Math.abs(x - 50) - 0.5)), { cells: 201, cellM: 0.5 }));
const LINE: Line = [
  [50, 90],
  [50, 30],
];
const dam = (atM: number, change: Partial<Dam> = {}): Dam => ({ atM, heightM: 0.6, bedWidthM: 1, bankWidthM: 4, depthM: 1.5, ...change });
const series = (dams: readonly Dam[], change: Partial<CheckDams> = {}): CheckDams => ({
  id: 'dams',
  kind: 'check-dams',
  name: 'Gully',
  status: 'planned',
  line: LINE,
  form: 'log',
  dams,
  dimensions: {
    notchDepthM: 0.3,
    notchWidthM: 1,
    crestWidthM: 0.5,
    upSlopeHV: 1.25,
    downSlopeHV: 2,
    pieceM: 0.2,
    sideKeyM: 0.6,
    bedKeyM: 0.3,
    apronM: 1.2,
  },
  labour: { m3PerDay: 1, carryM: 50 },
  ...change,
});
const bed = measureBed(LINE, GULLY);
const place = (work: CheckDams) => checkDams.place(work, { bed, channel: null }, null);
const stores = (work: CheckDams) => place(work).stores([]);
const held = (work: CheckDams): number => stores(work).reduce((a, s) => a + s.heldM3, 0);
const sum = (list: readonly number[]): number => list.reduce((a, v) => a + v, 0);

describe('spacing', () => {
  it('by sight is height over slope on an even bed, and the toe of each is level with the notch below', () => {
    const places = bySight(bed, 0.6);
    expect(places[places.length - 1]).toBe(60);
    places.slice(1).forEach((at, k) => expect(at - places[k]).toBeCloseTo(6, 2));
    expect(SIGHT_SPACING.evaluate({ H: 0.6, S: 0.05 })).toBeCloseTo(12, 12);
    expect(toeAbove(bed, 60, bed.bedM[0] + 1)).toBeNull();
  });
  it.each([
    [0.9, 0.1, 30.15],
    [0.9, 0.25, 7.42],
    [1.2, 0.15, 26.97],
  ])('of %d m on %d by the gully rule is %d m (Heede & Mufich 1973; computed, C)', (H, G, expected) => {
    expect(Math.abs(HEEDE_SPACING.evaluate({ H, G }) - expected)).toBeLessThan(0.1);
  });
  it('by the gully rule goes along the bed as it is', () => {
    const places = byGully(bed, 0.6);
    expect(places[places.length - 1] - places[places.length - 2]).toBeCloseTo(HEEDE_SPACING.evaluate({ H: 0.6, G: 0.1 }), 1);
  });
  it('on a bed of two slopes stands closer where it is steeper', () => {
    const site = siteOf(gridOf((_x, y) => (y > 60 ? 3 + 0.2 * (y - 60) : 0.05 * y), { cells: 201, cellM: 0.5 }));
    const places = bySight(measureBed(LINE, site), 0.6);
    const gaps = places.slice(1).map((at, k) => [at, at - places[k]] as const);
    for (const [at, gap] of gaps) expect(gap).toBeCloseTo(at < 29.9 ? 3 : at > 42 ? 12 : gap, 1);
  });
});

describe('the channel as the terrain shows it', () => {
  it('is found across the line: bed, banks and depth', () => {
    const { bedWidthM, bankWidthM, depthM } = acrossAt(GULLY.grid, LINE, 30);
    expect(Math.abs(bedWidthM - 1.2)).toBeLessThan(0.6);
    expect(Math.abs(bankWidthM - 4)).toBeLessThan(0.8);
    expect(Math.abs(depthM - 1.5)).toBeLessThan(0.15);
  });
});

describe('water behind a dam', () => {
  const one = standingDams(series([dam(60)]), bed)[0];
  it('is the wedge on an even bed: (b·H²/2 + z·H³/3)/S, and its surface the bed and both sides over H/S', () => {
    for (const H of [0.2, 0.6, 0.9]) {
      const { volumeM3, wettedM2 } = waterBehind(one, bed, one.bedM + H);
      expect(volumeM3).toBeCloseTo(WEDGE_VOLUME.evaluate({ b: 1, z: 1, H, S: 0.1 }), 3);
      expect(wettedM2).toBeCloseTo((1 * H + H * H) / 0.1, 2);
    }
  });
  it('is what a fine sum of slices comes to, on a bed of two slopes', () => {
    const site = siteOf(gridOf((_x, y) => (y > 33 ? 1.65 + 0.2 * (y - 33) : 0.05 * y), { cells: 201, cellM: 0.5 }));
    const other = measureBed(LINE, site);
    const two = standingDams(series([dam(58)]), other)[0];
    let slices = 0;
    for (let s = 58; s > 40; s -= 0.01) {
      const y = two.notchM - (other.bedM[0] - 0) + (other.bedM[0] - levelOn(other, s - 0.005));
      if (y > 0) slices += 0.01 * (1 + y) * y;
    }
    expect(waterBehind(two, other, two.notchM).volumeM3).toBeCloseTo(slices, 3);
  });
  it('ends where the next dam stands above, and rises with the level', () => {
    const [, lower] = standingDams(series([dam(57), dam(60)]), bed);
    const cut = roomBehind(lower, bed);
    expect(cut).toBeLessThan(roomBehind(one, bed));
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1.4, noNaN: true }), fc.double({ min: 0.001, max: 0.3, noNaN: true }), (h, more) => {
        const at = (level: number) => waterBehind(lower, bed, lower.bedM + level);
        expect(at(h + more).volumeM3).toBeGreaterThan(at(h).volumeM3 - 1e-12);
        expect(at(h + more).wettedM2).toBeGreaterThanOrEqual(at(h).wettedM2 - 1e-12);
      }),
      { seed: 61, numRuns: 100 },
    );
  });
  it('loses to silt what the silt takes, and to a break what the height takes; a lower bed moves it all', () => {
    const room = roomBehind(one, bed);
    const [half] = stores(series([dam(60, { siltedPercent: 50 })]));
    expect(half.heldM3).toBeCloseTo(room / 2, 6);
    expect(half.stage.volumeM3[0]).toBe(0);
    expect(half.floorM).toBeGreaterThan(one.bedM);
    const [broken] = stores(series([dam(60, { lostPercent: 50 })]));
    expect(broken.sillM).toBeCloseTo(one.bedM + 0.3, 9);
    expect(broken.heldM3).toBeCloseTo(WEDGE_VOLUME.evaluate({ b: 1, z: 1, H: 0.3, S: 0.1 }), 3);
    const [deep] = stores(withAt(series([dam(60)]), 'dimensions.bedBelowM', 0.4));
    expect(deep.floorM).toBeCloseTo(one.bedM - 0.4, 9);
    expect(deep.heldM3).toBeCloseTo(room, 9);
  });
});

/** The bed at a distance, read straight between its stations. */
function levelOn({ bedM, stepM }: typeof bed, at: number): number {
  const i = Math.min(bedM.length - 2, Math.floor(at / stepM));
  return bedM[i] + ((at - i * stepM) / stepM) * (bedM[i + 1] - bedM[i]);
}

describe('a series', () => {
  const three = series([dam(60), dam(48), dam(54)]);
  it('is one store a dam, from the upper down, each letting go to the next', () => {
    const all = stores(three);
    expect(all.map((s) => s.id)).toEqual(['dams', 'dams:2', 'dams:3']);
    expect(all.map((s) => s.outlets.map((o) => o.to))).toEqual([
      ['dams:2', 'dams:2'],
      ['dams:3', 'dams:3'],
      [undefined, undefined],
    ]);
    for (const s of all) expect(s.crestM - s.wayOutM).toBeCloseTo(0.3, 9);
    expect(checkDams.intakes(three).map((i) => i.store)).toEqual(['dams', 'dams:2', 'dams:3']);
    expect(place(series([dam(60)])).stores([])[0].name).toBe('Gully');
  });
  it('leaves a dam the same thing when another of them is changed, but for the one that lets go to it by name', () => {
    const before = stores(three);
    const after = stores(series([dam(60, { heightM: 0.5 }), dam(48), dam(54)]));
    expect(after.map((s, k) => s === before[k])).toEqual([true, true, false]);
    expect(after[2].crestM).toBeCloseTo(before[2].crestM - 0.1, 9);
    // Another bed, or the same line lowered, is not.
    expect(stores(withAt(three, 'dimensions.bedBelowM', 0.2)).some((s) => before.includes(s))).toBe(false);
  });
  it('lets water over its notch by 1.65 L H^1.5, and over its ends as wide as the channel is there', () => {
    const [notch, ends] = stores(three)[0].outlets;
    expect(notch.flowAt(notch.levelM + 0.3)).toBeCloseTo(1.65 * 0.3 ** 1.5, 9);
    // Q 1.2 m3/s at 0.5 m wants 2.06 m (Heede; computed, C).
    expect(1.2 / 1.65 / 0.5 ** 1.5).toBeCloseTo(2.06, 2);
    // 0.9 m over the bed the channel is 2.8 m wide, a metre of it the notch.
    expect(ends.flowAt(ends.levelM + 0.1)).toBeCloseTo(1.5 * 1.8 * 0.1 ** 1.5, 9);
    expect([notch.flowAt(notch.levelM), ends.flowAt(ends.levelM)]).toEqual([0, 0]);
  });
  it('of stone leaks by its stones, the less the more silt lies in it; logs and bags hold', () => {
    const rock = { ...three, form: 'rock' as const };
    expect(stores(rock)[0].outlets.map((o) => o.role)).toEqual(['through', 'way', 'bank']);
    expect(stores(rock)[0].heldM3).toBe(0);
    const law = (change: Partial<Dam>, form: CheckDams['form'] = 'rock') => {
      const work = series([dam(60, change)], { form });
      const leak = leakRating(work, standingDams(work, bed)[0]);
      return leak && ((depthM: number) => leak.flowAt(depthM));
    };
    const [clean, half] = [law({})!, law({ siltedPercent: 50 })!];
    expect(clean(0.4)).toBeGreaterThan(0);
    expect(clean(0.4)).toBeGreaterThan(clean(0.2));
    expect(half(0.4)).toBeCloseTo(clean(0.4) / 2, 9);
    expect(law({ siltedPercent: 100 })).toBeNull();
    expect([law({}, 'log'), law({}, 'sandbag')]).toEqual([null, null]);
    expect(law({}, 'brush')!(0.4)).toBeGreaterThan(0);
  });
  it('higher notches never hold less, nor more silt more', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 0.8, noNaN: true }), fc.integer({ min: 0, max: 90 }), (heightM, siltedPercent) => {
        const at = (h: number, s: number): number => held(series([dam(50, { heightM: h, siltedPercent: s }), dam(60)]));
        expect(at(heightM + 0.05, siltedPercent)).toBeGreaterThanOrEqual(at(heightM, siltedPercent) - 1e-9);
        expect(at(heightM, siltedPercent + 5)).toBeLessThanOrEqual(at(heightM, siltedPercent) + 1e-9);
      }),
      { seed: 62, numRuns: 60 },
    );
  });
  it('takes the stone that a fine sum over its cross-section has, with keys and apron', () => {
    const work = series([dam(60)], { form: 'rock' });
    const [one] = standingDams(work, bed);
    let body = 0;
    for (let x = -3; x < 3; x += 0.001) {
      const ground = Math.max(0, Math.abs(x + 0.0005) - 0.5);
      const h = (Math.abs(x + 0.0005) < 0.5 ? 0.6 : 0.9) - ground;
      if (h > 0) body += 0.001 * (0.5 * h + (3.25 * h * h) / 2);
    }
    const { bodyM3, keysM3, apronM3, allM3 } = stoneOf(work, one);
    expect(bodyM3).toBeCloseTo(body, 2);
    expect([keysM3, apronM3]).toEqual([expect.closeTo(2 * 0.6 * 0.5 * 0.9 + 0.3 * 0.5, 9), expect.closeTo(1.2 * 0.3, 9)]);
    expect(allM3).toBeCloseTo(bodyM3 + keysM3 + apronM3, 12);
  });
  it('tells hours and litres an hour by a fill, a year and in the silt: worked by hand', () => {
    const work = series([dam(60)], { form: 'rock', labour: { m3PerDay: 1, carryM: 50, fillsAYear: 4, siltM3AYear: 1 } });
    const sheet = new Worksheet('dams');
    const list = place(work).figures(factsOf(GULLY, { designPeakM3s: 0.4 }), sheet);
    const at = (id: string): number => list.find((f) => f.id === id)?.value ?? NaN;
    const room = roomBehind(standingDams(work, bed)[0], bed);
    const stone = stoneOf(work, standingDams(work, bed)[0]).allM3;
    // Eight hours a cubic metre, and 1.72 t in barrows of 60 kg, each a hundred metres there and back at 2.5 km/h.
    const hours = 8 * stone + ((stone * 1.72) / 0.06) * (0.1 / 2.5);
    expect(at('hours')).toBeCloseTo(hours, 9);
    expect(hoursOf(work, [])).toBe(0);
    expect(at('litresAnHour')).toBeCloseTo((1000 * room) / hours, 9);
    expect(at('litresAnHourAYear')).toBeCloseTo((4000 * room) / hours, 9);
    expect(at('litresAnHourSilted')).toBeCloseTo((1000 * 0.2 * room) / hours, 9);
    expect(at('yearsToSilt')).toBeCloseTo(room, 9);
    expect(at('notchWidthM')).toBe(Math.ceil((100 * 0.4) / 1.65 / 0.3 ** 1.5) / 100);
    expect(sheet.lines.map((l) => l.formula)).toEqual([
      'check-dams.sight-spacing',
      'check-dams.gully-spacing',
      'check-dams.wedge',
      'check-dams.body',
      'hydraulics.sill-length',
    ]);
    const unknown = place(series([dam(60)])).figures(factsOf(siteOf(GULLY.grid, { soilAt: () => null })), new Worksheet('x'));
    for (const id of ['litresAnHourAYear', 'litresAnHourSilted', 'yearsToSilt']) expect(unknown.find((f) => f.id === id)?.value).toBeNull();
    expect(unknown.some((f) => f.id === 'notchWidthM')).toBe(false);
  });
  it('is pegged at every notch and both ends, marked at its highest and lowest, drawn along its bed', () => {
    const placed = place(three);
    const pegs = placed.pegs(10, null);
    expect(pegs).toHaveLength(9);
    expect(pegs[0]).toMatchObject({ name: 'Gully, dam 1, notch', role: 'sill', x: 50, y: 42, groundM: expect.closeTo(4.2, 3) });
    expect(pegs[0].levelM - pegs[0].groundM!).toBeCloseTo(0.6, 9);
    expect([pegs[1].x, pegs[2].x].map((x) => Math.abs(x - 50))).toEqual([expect.closeTo(1.4, 9), expect.closeTo(1.4, 9)]);
    expect(placed.marks.map((m) => m.id)).toEqual(['dams:notch', 'dams:3:notch']);
    const drawn = placed.section!(null);
    expect(drawn.parts.filter((p) => p.role === 'stone')).toHaveLength(3);
    expect(drawn.parts.filter((p) => p.role === 'full')).toHaveLength(3);
    expect(placed.waterRings!(0)).toHaveLength(3);
    expect(placed.host).toBeNull();
  });
  it('takes stone, brush and stakes, logs or bags, each from the same body', () => {
    const items = (form: CheckDams['form']) => place({ ...three, form }).quantities(factsOf(GULLY));
    expect(items('rock').map((q) => q.item)).toEqual(['dam', 'stone', 'stone-weight', 'cut']);
    const likely = (form: CheckDams['form'], item: string): number => items(form).find((q) => q.item === item)?.likely ?? NaN;
    expect(likely('rock', 'stone-weight')).toBeCloseTo(1.72 * likely('rock', 'stone'), 9);
    expect(likely('brush', 'brush')).toBeCloseTo(likely('rock', 'stone'), 9);
    // Five layers of 0.2 m logs, as wide as the channel is at their tops and 0.6 m into both banks, the upper two less a notch of a
    // metre; and two layers in the bed key.
    const layers = 2.6 + 3 + 3.4 + (3.8 - 1) + (4 - 1);
    expect(likely('log', 'log')).toBeCloseTo(3 * (layers + 2 * 2.2), 6);
    for (const form of ['log', 'sandbag'] as const) expect(likely(form, 'apron-stone')).toBeCloseTo(3 * 1.2 * 1 * 0.3, 6);
    // Keys dug as thick as what stands in them.
    expect([likely('log', 'cut') / 0.2, likely('brush', 'cut') / 0.5]).toEqual([expect.closeTo(4.14, 6), expect.closeTo(4.14, 6)]);
    expect(likely('brush', 'stake')).toBe(2 * Math.ceil(12 / 0.5));
    const stone = standingDams(three, bed).map((one) => stoneOf({ ...three, form: 'sandbag' }, one));
    expect(likely('sandbag', 'bag')).toBe(Math.ceil(sum(stone.map((s) => s.bodyM3 + s.keysM3)) / 0.025));
    const steps = place({ ...three, form: 'rock' }).buildSteps();
    expect(steps.map((s) => s.id)).toEqual(['above', 'peg', 'key', 'apron', 'body', 'notch', 'after']);
    expect(steps.flatMap((s) => s.cautions).join(' ')).toMatch(/holds the slope/);
  });
});

describe('beginning', () => {
  const land = landOf({ grid: GULLY.grid });
  it('spaces dams down the channel as drawn, whichever end came first, with a notch no wider than any bed', () => {
    const [work] = begunBy(checkDams, { points: [...LINE].reverse() }, land) as readonly CheckDams[];
    expect(work.line[0]).toEqual([50, 90]);
    // Drawn four metres off it lies on the bed all the same.
    const [off] = begunBy(checkDams, { points: [[53, 90], [46, 60], [52, 30]] }, land) as readonly CheckDams[]; // prettier-ignore
    for (const [x] of off.line) expect(Math.abs(x - 50)).toBeLessThan(0.6);
    expect(off.dams.length).toBe(work.dams.length);
    expect(work.dams.length).toBeGreaterThan(8);
    expect(checkDams.validate(work)).toEqual([]);
    const gaps = work.dams.slice(1).map((d, k) => d.atM - work.dams[k].atM);
    for (const gap of gaps) expect(gap).toBeCloseTo(10 * work.dams[0].heightM, 1);
    expect(work.dams.every((d) => d.isMeasured === undefined && d.depthM > 1)).toBe(true);
    const [wide] = begunBy(checkDams, { how: 'check-dams-gully', points: LINE }, land) as readonly CheckDams[];
    expect(wide.dams.length).toBeLessThan(work.dams.length);
    const [single] = begunBy(checkDams, { how: 'check-dam', points: LINE }, land) as readonly CheckDams[];
    expect(single.dams.map((d) => d.atM)).toEqual([60]);
  });
  it('says how many, and to measure them; refuses a channel that rises and ground nobody knows', () => {
    const made = checkDams.begin({ how: 'check-dams', points: LINE, host: null }, land);
    expect(made.ok && words(made.said)).toMatch(
      /^11 dams, 0\.60 m high, on the lowest ground beside your line\. Width and depth .* measure them\.$/,
    );
    const over: Line = [[50, 90], [70, 60], [50, 30]]; // prettier-ignore
    expect(begunBy(checkDams, { points: over }, land)).toBe('check-dams.rises');
    expect(begunBy(checkDams, { points: [[20, 50], [60, 50]] }, land)).toBe('check-dams.rises'); // prettier-ignore
    expect(begunBy(checkDams, { points: [[50, 90], [50, 900]] }, land)).toBe('work.off-terrain'); // prettier-ignore
  });
});

describe('what is refused', () => {
  const sound = series([dam(60), dam(50)]);
  it('has words for every field, every form and every dam', () => {
    expectFields(checkDams, sound);
    expect(checkDams.traits(sound)).toEqual({ ...NO_TRAITS, canSilt: true });
    for (const { path, options } of checkDams.choices ?? [])
      for (const { id } of options) expect(wrong(checkDams, withAt(sound, path, id))).toEqual([]);
    expect(wrong(checkDams, { ...sound, form: 'gold' as never })).toEqual(['check-dams.form@form']);
    expect(wrong(checkDams, { ...sound, dams: [] })).toEqual(['check-dams.none@dams']);
    expect(wrong(checkDams, { ...sound, dams: 'two' as never })).toEqual(['check-dams.none@dams']);
    expect(wrong(checkDams, { ...sound, dams: Array.from({ length: 401 }, () => dam(10)) })).toEqual(['check-dams.many@dams']);
    const one = (change: object): string[] => wrong(checkDams, series([dam(60), { ...dam(50), ...change }]));
    expect(one({ heightM: 0.95 })).toEqual(['check-dams.dam@dams.1.heightM']);
    expect(one({ heightM: 'low' })).toEqual(['check-dams.dam@dams.1.heightM']);
    expect(one({ bedWidthM: 0.8 })).toEqual(['check-dams.dam@dams.1.bedWidthM']);
    expect(one({ bankWidthM: 0.9 })).toEqual(['check-dams.dam@dams.1.bankWidthM']);
    expect(one({ atM: 61 })).toEqual(['check-dams.dam@dams.1.atM']);
    expect(one({ siltedPercent: 101 })).toEqual(['check-dams.dam@dams.1.siltedPercent']);
    expect(one({ lostPercent: -1 })).toEqual(['check-dams.dam@dams.1.lostPercent']);
    expect(one({ rockNearM3: -1 })).toEqual(['check-dams.dam@dams.1.rockNearM3']);
    expect(one({ note: 'x'.repeat(201) })).toEqual(['check-dams.dam@dams.1.note']);
    expect(one({ note: 'IMG 12', rockNearM3: 2, siltedPercent: 40, lostPercent: 0 })).toEqual([]);
    expect(wrong(checkDams, series([null as never]))).toEqual(['check-dams.dam@dams.0.']);
    // Loose stone may be half as high again.
    expect(wrong(checkDams, series([dam(60, { heightM: 1.5 })], { form: 'rock' }))).toEqual([]);
  });
});

describe('rows pasted from a sheet', () => {
  it('are dams as measured, with or without a heading, whatever parts their columns', () => {
    const expected = [
      { atM: 12, heightM: 0.5, bedWidthM: 1.4, bankWidthM: 3.2, depthM: 1.1, isMeasured: true },
      { atM: 20.5, heightM: 0.6, bedWidthM: 1.2, bankWidthM: 3, depthM: 1.3, siltedPercent: 40, note: 'IMG 7', isMeasured: true },
    ];
    const tabs = 'at\theight\tbed\tbanks\tdepth\n12\t0,5\t1,4\t3,2\t1,1\n20,5\t0,6\t1,2\t3\t1,3\t40\t\t\tIMG 7\n';
    expect(damsFromRows(tabs)).toEqual({ ok: true, rows: expected });
    expect(damsFromRows('12,0.5,1.4,3.2,1.1\r\n\r\n20.5,0.6,1.2,3,1.3,40,,,IMG 7')).toEqual({ ok: true, rows: expected });
    expect(damsFromRows('12;0,5;1,4;3,2;1,1')).toEqual({ ok: true, rows: [expected[0]] });
  });
  it('are not read at all where one is not, and each says where', () => {
    expect(damsFromRows('12,0.5,1.4\n13,high,1.4,3,1')).toEqual({
      ok: false,
      problems: [
        { row: 1, what: 'column 4 (between banks) is empty' },
        { row: 1, what: 'column 5 (depth) is empty' },
        { row: 2, what: '"high" in column 2 is not a number' },
      ],
    });
    expect(damsFromRows(' \n')).toMatchObject({ ok: false });
    expect(damsFromRows('at,height')).toMatchObject({ ok: false });
  });
});
