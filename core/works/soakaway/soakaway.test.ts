// Soakaways: what they hold, how fast they empty, what they take and say, worked by hand and by a second computation.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { newSoakaway } from './create.ts';
import { RING_VOIDS, SOAK_FALL, SOAK_HALF, SOAK_SIDES, TRENCH_AREA, TRENCH_DEPTH } from './formulas.ts';
import { type Soakaway, soakaway } from './index.ts';
import { partsOf } from './making.ts';
import { contentOf, holeOf, hoursDownTo, openOf, roomOf } from './standing.ts';

const GRID = gridOf((_x, y) => 100 + 0.05 * y, { cells: 201, cellM: 0.5 });
const SITE = siteOf(GRID);
const ALONG: Line = [[20, 50], [40, 50]]; // prettier-ignore
const TRENCH = newSoakaway('soak', 'Trench', { form: 'trench', line: ALONG });
const PIT = newSoakaway('soak', 'Pit', { form: 'pit', line: [[28, 50], [32, 50]] }); // prettier-ignore
const SHAFT = newSoakaway('soak', 'Shaft', { form: 'shaft', line: [[28, 50], [32, 50]] }); // prettier-ignore
const holeFor = (work: Soakaway) => holeOf(work, soakaway.measure(work, SITE, null));
const place = (work: Soakaway) => soakaway.place(work, soakaway.measure(work, SITE, null), null);

describe('published rows', () => {
  // Maryland Department of the Environment, Stormwater Design Manual (2000), infiltration trench: as told in handbooks, from memory.
  it('a trench for 10 m3, 1.2 m deep in ground of 13 mm/h with 0.4 of gaps has 19.76 m2 when it fills in two hours', () => {
    expect(TRENCH_AREA.evaluate({ V: 10, n: 0.4, d: 1.2, f: 13, T: 2 })).toBeCloseTo(19.76, 2);
  });
  it('is 2.34 m deep at the most to be empty in 72 h, 1.56 m in 48', () => {
    expect(TRENCH_DEPTH.evaluate({ f: 13, t: 72, n: 0.4 })).toBeCloseTo(2.34, 9);
    expect(TRENCH_DEPTH.evaluate({ f: 13, t: 48, n: 0.4 })).toBeCloseTo(1.56, 9);
  });
  it('half of the sides of a ring 1 m across and 2 m deep are 3.14 m2; half of its water is gone by them in S/2 over a f', () => {
    const a = SOAK_SIDES.evaluate({ P: Math.PI, d: 2 });
    expect(a).toBeCloseTo(Math.PI, 9);
    expect(SOAK_HALF.evaluate({ S: (Math.PI / 4) * 2, a, f: 25 })).toBeCloseTo(10, 9);
  });
  it('rings of 1 m with 0.25 m of stone round them fill 0.666 of what is dug', () => {
    // By hand: (1 + 0.4 · 1.25) / 2.25.
    expect(RING_VOIDS.evaluate({ D: 1, t: 0.25, v: 0.4 })).toBeCloseTo(1.5 / 2.25, 9);
  });
});

describe('what it holds', () => {
  it('a trench: gaps of its box; a pit: of its round; a shaft: rings and the stone round them; less what silt takes', () => {
    expect(roomOf(TRENCH, holeFor(TRENCH))).toBeCloseTo(20 * 0.6 * 1 * 0.36, 6);
    expect(roomOf(PIT, holeFor(PIT))).toBeCloseTo((Math.PI / 4) * 2.25 * 1.5 * 0.36, 6);
    expect(roomOf(SHAFT, holeFor(SHAFT))).toBeCloseTo((Math.PI / 4) * (1 + 0.36 * (1.96 - 1)) * 4, 6);
    expect(openOf(withAt(TRENCH, 'siltedPercent', 25), holeFor(TRENCH))).toBeCloseTo(0.75 * 4.32, 6);
    expect(roomOf(withAt(TRENCH, 'fill', 'open'), holeFor(withAt(TRENCH, 'fill', 'open')))).toBeCloseTo(12, 6);
  });
  it('is a store that lets go over its rim, then over its bank, and stands on its own bed', () => {
    const [store] = place(TRENCH).stores([]);
    expect(store.sillM! - store.floorM).toBeCloseTo(1, 6);
    expect(store.crestM - store.sillM!).toBeCloseTo(0.1, 6);
    expect(store.heldM3).toBeCloseTo(4.32, 6);
    const [way, bank] = store.outlets;
    expect([way.role, way.flowAt(store.sillM!), bank.role, bank.flowAt(store.crestM)]).toEqual(['way', 0, 'bank', 0]);
    expect(way.flowAt(store.sillM! + 0.1)).toBeCloseTo(1.5 * 2 * 0.1 ** 1.5, 2);
    expect(way.dischargeAt[1]).toBeLessThan(49.5);
    expect(place(TRENCH).beds!('soak')).toEqual({ line: ALONG, dugM: 1 });
    expect(store).not.toHaveProperty('seepsMmPerHour');
    expect(place({ ...TRENCH, testedMmPerHour: 60 }).stores([])[0].seepsMmPerHour).toBeCloseTo(30, 9);
  });
  it('silt lifts its floor to where its room begins', () => {
    const [store] = place({ ...TRENCH, siltedPercent: 25 }).stores([]);
    expect(store.sillM! - store.floorM).toBeCloseTo(0.75, 3);
    expect(store.heldM3).toBeCloseTo(0.75 * 4.32, 6);
  });
});

/** Second computation: water let out minute by minute by what is wet just then, its level found from its volume by hand. */
function minuteByMinute(
  box: { areaM2: number; roundM: number; fills: number; depthM: number },
  by: Soakaway['soaksBy'],
  on: { rate: number; share: number },
): number {
  const full = box.areaM2 * box.depthM * box.fills;
  let [v, t] = [full, 0];
  while (v > on.share * full && t < 60 * 24 * 60) {
    const y = v / (box.areaM2 * box.fills);
    const wet = (by === 'sides' ? 0 : box.areaM2) + (by === 'base' ? 0 : (box.roundM * y) / 2);
    v -= (wet * on.rate) / 1000 / 60;
    t++;
  }
  return t / 60;
}

describe('how long it takes', () => {
  it('agrees with water let out minute by minute, for any form, what it soaks by, rate and share', () => {
    fc.assert(
      fc.property(
        fc.record({
          of: fc.constantFrom(TRENCH, PIT, SHAFT),
          soaksBy: fc.constantFrom<Soakaway['soaksBy']>('base', 'sides', 'both'),
          rate: fc.double({ min: 8, max: 300, noNaN: true }),
          share: fc.constantFrom(0.2, 0.5, 0.8),
        }),
        ({ of, soaksBy, rate, share }) => {
          const work = { ...of, soaksBy };
          const hole = holeFor(work);
          const theirs = minuteByMinute({ ...hole, depthM: work.dimensions.depthM }, soaksBy, { rate, share });
          const ours = hoursDownTo(work, hole, { share, rateMmPerHour: rate });
          expect(Math.abs(ours - theirs)).toBeLessThan(0.02 * theirs + 0.1);
        },
      ),
      { seed: 88, numRuns: 40 },
    );
  });
  it('falls by the closed form of what is wet as it falls, by hand', () => {
    // n A = 1, b = 1, p = 1: from 3 m down to 1 m it takes ln(4/2) of a metre of water at 1 m/h.
    expect(SOAK_FALL.evaluate({ n: 0.5, A: 2, b: 1, p: 1, d: 3, h: 1, f: 1000 })).toBeCloseTo(Math.LN2, 9);
    expect(SOAK_FALL.evaluate({ n: 0.5, A: 2, b: 2, p: 0, d: 3, h: 1, f: 1000 })).toBeCloseTo(1, 9);
    const silted = { ...TRENCH, siltedPercent: 50 };
    expect(hoursDownTo(silted, holeFor(silted), { share: 0, rateMmPerHour: 20 })).toBeCloseTo((0.36 * 0.5) / 0.02, 6);
    expect(hoursDownTo(SHAFT, holeFor(SHAFT), { share: 0, rateMmPerHour: 20 })).toBe(Infinity);
  });
  it('a base alone empties in n d / f; nothing lets through at no rate', () => {
    const hole = holeFor(TRENCH);
    expect(hoursDownTo(TRENCH, hole, { share: 0, rateMmPerHour: 20 })).toBeCloseTo((0.36 * 1) / 0.02, 6);
    expect(hoursDownTo(TRENCH, hole, { share: 0, rateMmPerHour: 0 })).toBe(Infinity);
    expect(hoursDownTo({ ...TRENCH, soaksBy: 'both' }, hole, { share: 0.5, rateMmPerHour: 20 })).toBeLessThan(9);
  });
  it('is shown by the formulas it is judged by: half empty as it falls, beside the same were as much wet all the while', () => {
    const sheet = new Worksheet('soak');
    const site = { ...SITE, soilAt: () => ({ ...SITE.soilAt([0, 0])!, infiltrationMmPerHour: 20 }) };
    const figures = new Map(place(SHAFT).figures(factsOf(site), sheet).map((f) => [f.id, f.value])); // prettier-ignore
    const falls = sheet.lines.filter((l) => l.formula === 'soakaway.fall').map((l) => l.result);
    const hole = holeFor(SHAFT);
    const on = { rateMmPerHour: 20 };
    expect(falls[0]).toBeCloseTo(hoursDownTo(SHAFT, hole, { ...on, share: 0.5 }), 9);
    expect(falls[1]).toBeCloseTo(hoursDownTo(SHAFT, hole, { ...on, share: 0.02 }), 9);
    // Sides that sink with the water take ln 2 / 0.5 times as long as sides that stay.
    expect(figures.get('halfH')).toBeCloseTo(falls[0], 9);
    expect(figures.get('halfH')! / figures.get('halfSameH')!).toBeCloseTo(2 * Math.LN2, 9);
  });
  it('what lets through grows with the water at its sides, and not over its rim', () => {
    const hole = holeFor(PIT);
    const at = (level: number): number => contentOf(PIT, hole, level).wettedM2;
    expect(at(hole.floorM)).toBe(0);
    expect(at(hole.rimM)).toBeCloseTo((Math.PI * 1.5 * 1.5) / 2, 6);
    expect(at(hole.rimM + 0.3)).toBeCloseTo(at(hole.rimM), 9);
  });
});

describe('what it takes', () => {
  it('earth, stone, cloth, rings and hours by hand', () => {
    const trench = partsOf(TRENCH, holeFor(TRENCH));
    expect(trench.dugM3).toBeCloseTo(12, 3);
    expect(trench.stoneM3).toBeCloseTo(12, 9);
    expect(trench.clothM2).toBeCloseTo(1.2 * (2 * 20.6 * 1 + 12), 6);
    expect(trench.hours).toBeCloseTo((24 / 2) * 8, 2);
    const shaft = partsOf(SHAFT, holeFor(SHAFT));
    expect([shaft.rings, partsOf(withAt(SHAFT, 'dimensions.depthM', 4.1), holeFor(SHAFT)).rings]).toEqual([8, 9]);
    expect(shaft.stoneM3).toBeCloseTo((Math.PI / 4) * 4 * (1.96 - 1), 6);
    expect(partsOf(withAt(TRENCH, 'fill', 'open'), holeFor(TRENCH)).stoneM3).toBe(0);
  });
  it('lists what there is, in steps that fit it', () => {
    const items = (work: Soakaway): readonly string[] => place(work).quantities(factsOf(SITE)).map((q) => q.item); // prettier-ignore
    const ids = (work: Soakaway): readonly string[] => place(work).buildSteps().map((s) => s.id); // prettier-ignore
    expect(items(TRENCH)).toEqual(['cut', 'stone', 'stone-weight', 'cloth', 'water']);
    expect(items(SHAFT)).toEqual(['cut', 'stone', 'stone-weight', 'cloth', 'ring', 'water']);
    expect(items({ ...TRENCH, fill: 'open' })).toEqual(['cut', 'water']);
    expect(ids(TRENCH)).toEqual(['trap', 'peg', 'dig', 'stone', 'cover', 'way', 'after']);
    expect(ids({ ...PIT, fill: 'open', cover: 'none' })).toEqual(['trap', 'peg', 'dig', 'way', 'after']);
    const dig = (depthM: number) => place(withAt(TRENCH, 'dimensions.depthM', depthM)).buildSteps()[2];
    expect([dig(1.2).cautions.length, dig(1.3).cautions.length]).toEqual([0, 1]);
    expect(words(dig(1.3).does)).toContain('Dig 1.30 m deep');
  });
  it('is pegged at its floor and rim, marked and drawn to scale', () => {
    const one = place(TRENCH);
    const pegs = one.pegs(10, null);
    expect(pegs.map((p) => p.role)).toEqual(['floor', 'floor', 'floor', 'sill']);
    expect(pegs[0].groundM! - pegs[0].levelM).toBeCloseTo(1, 6);
    expect(place(PIT).pegs(10, null)).toHaveLength(2);
    expect(one.marks.map((m) => m.name)).toEqual(['Rim', 'Floor']);
    const roles = (work: Soakaway, water: number | null) => place(work).section!(water).parts.map((p) => p.role); // prettier-ignore
    expect(roles(TRENCH, null)).toEqual(['ground', 'ground', 'cut', 'stone', 'full']);
    expect(roles({ ...SHAFT, siltedPercent: 5 }, 101)).toEqual(['ground', 'ground', 'cut', 'stone', 'stone', 'earth', 'full', 'water']);
    expect(roles({ ...TRENCH, fill: 'open' }, null)).toEqual(['ground', 'ground', 'cut', 'full']);
  });
  it('tells what goes into the ground in a year, and what its owner guesses of it, only where that was said', () => {
    const read = (work: Soakaway) => new Map(place(work).figures(factsOf(SITE), new Worksheet('soak')).map((f) => [f.id, f.value])); // prettier-ignore
    const plain = read(TRENCH);
    expect([plain.get('aYearM3'), plain.get('backM3'), plain.get('backDays'), plain.get('areaNeededM2')]).toEqual([null, null, null, null]);
    const said = read({ ...TRENCH, fillsAYear: 10, comesBackPercent: 25, comesBackDays: 40 });
    expect(said.get('aYearM3')).toBeCloseTo(43.2, 6);
    expect(said.get('backM3')).toBeCloseTo(10.8, 6);
    expect(said.get('backDays')).toBe(40);
    expect(said.get('litresAnHourAYear')! / said.get('litresAnHour')!).toBeCloseTo(10, 9);
    // Ground of 20 mm/h: its safety is off already. A test of 60, divided by 2.
    expect([plain.get('rate'), read({ ...TRENCH, testedMmPerHour: 60 }).get('rate')]).toEqual([20, 30]);
    const unknown = siteOf(GRID, { soilAt: () => null });
    const figures = place(TRENCH).figures(factsOf(unknown), new Worksheet('soak'));
    expect(figures.filter((f) => ['rate', 'halfH', 'deepM'].includes(f.id)).map((f) => f.value)).toEqual([null, null, null]);
  });
});

describe('a soakaway from a drawing', () => {
  const land = { grid: GRID, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w };
  const begin = (how: string, points: Line) => soakaway.begin({ how, points, host: null }, land);
  it('lies as drawn, or across the slope through where it was clicked', () => {
    const [pit, shaft] = ['soak-pit', 'soak-shaft'].map((how) => begin(how, [[40, 60]]));
    if (!pit.ok || !shaft.ok) throw new Error('refused');
    const [one] = pit.works as unknown as readonly [Soakaway];
    expect([one.form, one.name, one.line.map(([, y]) => Math.round(1000 * y) / 1000)]).toEqual(['pit', 'Soak pit 1', [60, 60]]);
    expect(Math.abs(one.line[1][0] - one.line[0][0])).toBeCloseTo(4, 6);
    expect((shaft.works[0] as Soakaway).fill).toBe('rings');
  });
  it('is refused where the ground falls along it, or is not known', () => {
    const told = (how: string, points: Line): string => {
      const begun = begin(how, points);
      return begun.ok ? 'begun' : begun.problem.code;
    };
    expect(told('soak-trench', [[40, 40], [40, 59]])).toBe('begun'); // prettier-ignore
    expect(told('soak-trench', [[40, 40], [40, 61]])).toBe('soakaway.falls'); // prettier-ignore
    expect(told('soak-trench', [[40, 40], [400, 40]])).toBe('work.off-terrain'); // prettier-ignore
    expect(told('soak-pit', [[400, 40]])).toBe('work.off-terrain');
  });
});

describe('what is refused', () => {
  it.each([
    ['form', 'well', 'form'],
    ['fill', 'rings', 'fill'],
    ['line', [[0, 0]], 'line'],
    ['dimensions.widthM', 7, 'dimensions.widthM'],
    ['dimensions.depthM', 0, 'dimensions.depthM'],
    ['dimensions.voids', 0.9, 'dimensions.voids'],
    ['siltedPercent', 101, 'siltedPercent'],
    ['soaksBy', 'hope', 'soaksBy'],
  ])('%s of %j is told at %s', (path, value, field) => {
    expect(soakaway.validate(TRENCH)).toEqual([]);
    expect(soakaway.validate(withAt(TRENCH, path, value)).map((p) => p.field)).toContain(field);
  });
});
