// Terraces: rise, earth, water and walls, worked by hand and by a second computation.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Worksheet } from '../../formula/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { meanWettedArea } from '../../network/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { stabilityOf } from '../gravity/index.ts';
import { newTerraces } from './create.ts';
import { BENCH_CUT, BENCH_RISE, BENCH_WATER } from './formulas.ts';
import { type Terraces, shadowM, terraces } from './index.ts';
import { cutOf, gravelOf, hoursOf, stoneOf, topsoilOf } from './making.ts';
import { benchesOf, floorOf, heldOn, loadOf, waterOn, wayOf } from './standing.ts';

const plane = (slope: number) => siteOf(gridOf((_x, y) => 100 + slope * y, { cells: 201, cellM: 0.5 }));
const SITE = plane(0.2);
const line = (y: number): Line => [[80, y], [50, y], [20, y]]; // prettier-ignore
const ONE: Terraces = newTerraces('terraces', 'Terraces', [line(50), line(46)]);
const EARTH: Terraces = { ...ONE, riser: 'earth', dimensions: { ...ONE.dimensions, riserHV: 0.75 } };
const place = (work: Terraces, site = SITE) => terraces.place(work, terraces.measure(work, site, null), null);
const benches = (work: Terraces, site = SITE) => benchesOf(work, terraces.measure(work, site, null));

describe('published row', () => {
  // FAO Conservation Guide (Sheng), bench terraces: VI = S·Wb/(100 − S·U), as told in handbooks, from memory.
  it('on 20 %, a bench of 3 m with risers of 0.75 for 1 rises 0.706 m', () => {
    expect(BENCH_RISE.evaluate({ S: 0.2, Wb: 3, U: 0.75, i: 0 })).toBeCloseTo(0.706, 3);
    expect(benches(EARTH)[0].riseM).toBeCloseTo(0.706, 3);
    expect(BENCH_CUT.evaluate({ Wb: 3, VI: 0.706, i: 0, S: 0.2 })).toBeCloseTo((3 * 0.706) / 8, 9);
  });
});

/** Second computation: a flight of benches drawn point by point and laid on the plane; areas summed in thin upright strips. */
function strips(on: { s: number; Wb: number; U: number; i: number }): { cut: number; fill: number; rise: number } {
  const { s, Wb, U, i } = on;
  // The riser behind goes up from the inner side until it meets the ground; so, mirrored, does the one before it.
  const inner: [number, number] = [Wb / 2, -(i * Wb) / 2];
  let x = inner[0];
  while (s * x > inner[1] + (U > 0 ? (x - inner[0]) / U : Infinity) && x < 100) x += 1e-4;
  const meets = U > 0 ? x : inner[0];
  let [cut, fill] = [0, 0];
  const step = 1e-3;
  for (let at = step / 2; at < meets; at += step) {
    const bench = at <= inner[0] ? -i * at : inner[1] + (at - inner[0]) / U;
    cut += Math.max(0, s * at - bench) * step;
  }
  for (let at = -step / 2; at > -meets; at -= step) {
    const bench = at >= -inner[0] ? -i * at : -inner[1] - (-at - inner[0]) / U;
    fill += Math.max(0, bench - s * at) * step;
  }
  return { cut, fill, rise: 2 * s * meets };
}

describe('earth', () => {
  it('closes: what is cut is filled, and both are as drawn point by point, for any slope, bench, riser and fall', () => {
    fc.assert(
      fc.property(
        fc.record({
          s: fc.double({ min: 0.08, max: 0.45, noNaN: true }),
          Wb: fc.double({ min: 1, max: 6, noNaN: true }),
          U: fc.double({ min: 0.1, max: 1, noNaN: true }),
          i: fc.double({ min: -0.04, max: 0.06, noNaN: true }),
        }),
        ({ s, Wb, U, i }) => {
          const theirs = strips({ s, Wb, U, i });
          const VI = BENCH_RISE.evaluate({ S: s, Wb, U, i });
          const ours = BENCH_CUT.evaluate({ Wb, VI, i, S: s });
          expect(Math.abs(theirs.cut - theirs.fill)).toBeLessThan(0.01 * theirs.cut + 0.002);
          expect(Math.abs(ours - theirs.cut)).toBeLessThan(0.01 * ours + 0.002);
          // Where the riser meets the ground it has made half of the rise.
          expect(Math.abs(VI - theirs.rise)).toBeLessThan(0.01 * VI + 0.002);
        },
      ),
      { seed: 105, numRuns: 40 },
    );
  });
  it('stone, gravel, topsoil and hours by hand', () => {
    const all = benches(ONE);
    const riser = all[0].riserM;
    expect(riser).toBeCloseTo((0.2 * 3) / (1 - 0.2 * 0.15), 3);
    expect(cutOf(ONE, all)).toBeCloseTo((120 * 3 * riser) / 8, 2);
    expect(stoneOf(ONE, all)).toBeCloseTo(120 * 0.475 * (riser + 0.2), 2);
    expect(gravelOf(ONE, all)).toBeCloseTo(120 * 0.3 * riser, 2);
    expect(topsoilOf(ONE, all)).toBeCloseTo(120 * 3 * 0.15, 2);
    const carried = (stoneOf(ONE, all) + gravelOf(ONE, all)) * 1.72;
    const hours = ((cutOf(ONE, all) + 108) / 3) * 8 + stoneOf(ONE, all) * 8 + (carried / 0.06) * (0.08 / 2.5);
    expect(hoursOf(ONE, all)).toBeCloseTo(hours, 1);
    expect([stoneOf(EARTH, all), gravelOf(EARTH, all), topsoilOf({ ...ONE, topsoil: 'buried' }, all)]).toEqual([0, 0, 0]);
  });
});

describe('water on a bench', () => {
  it('is a strip where it is level, a wedge and a strip where it falls, as summed in slices', () => {
    expect(BENCH_WATER.evaluate({ y: 0.1, i: 0, Wb: 3 })).toBeCloseTo(0.3, 9);
    for (const [y, i] of [
      [0.05, 0.03],
      [0.09, 0.03],
      [0.2, 0.03],
      [0.1, -0.05],
    ] as const) {
      // prettier-ignore
      let sum = 0;
      for (let x = 0.0005; x < 3; x += 0.001) sum += Math.max(0, y - Math.abs(i) * x) * 0.001;
      expect(BENCH_WATER.evaluate({ y, i, Wb: 3 })).toBeCloseTo(sum, 4);
    }
  });
  it('stands to its inlets: 50 mm over a level one; inward as much as its fall more at its inner side', () => {
    const [level] = benches(ONE);
    expect(heldOn(ONE, level)).toBeCloseTo(60 * 3 * 0.05, 6);
    // Wet all over with its first water: it is dry again once its depth has gone in.
    const { stage } = place(ONE).stores([])[0];
    expect(meanWettedArea(stage, heldOn(ONE, level))).toBeCloseTo(60 * 3, 3);
    const inward = withAt(ONE, 'lie', 'inward');
    const [bench] = benches(inward);
    expect(wayOf(bench, inward) - floorOf(bench)).toBeCloseTo(0.09 + 0.05, 9);
    expect(heldOn(inward, bench)).toBeCloseTo(60 * 3 * (0.14 - 0.045), 6);
    const outward = withAt(ONE, 'lie', 'outward');
    const [out] = benches(outward);
    expect(wayOf(out, outward) - floorOf(out)).toBeCloseTo(0.05, 9);
    expect(heldOn(outward, out)).toBeCloseTo((60 * 0.05 * 0.05) / 0.06, 6);
    expect(waterOn(outward, out, floorOf(out) + 0.03).wettedM2).toBeCloseTo(60, 6);
  });
  it('each is a store: over its inlets, then its edge, onto the next one', () => {
    const [first, second] = place(ONE).stores([]);
    expect([first.id, second.id, first.name]).toEqual(['terraces', 'terraces:2', 'Terraces, bench 1']);
    expect(first.crestM - first.sillM!).toBeCloseTo(0.15, 9);
    const [inlet, edge] = first.outlets;
    expect([inlet.role, edge.role]).toEqual(['way', 'crest']);
    expect(inlet.flowAt(first.sillM! + 0.1)).toBeCloseTo(1.5 * 0.1 ** 1.5, 2);
    expect(
      place(withAt(ONE, 'dimensions.inlets', 3))
        .stores([])[0]
        .outlets[0].flowAt(first.sillM! + 0.1),
    ).toBeCloseTo(4.5 * 0.1 ** 1.5, 2);
    expect(edge.flowAt(first.crestM)).toBe(0);
    // On the bench below, above its middle, so that its intake line takes it.
    expect(inlet.dischargeAt[1]).toBeLessThan(48.5);
    expect(inlet.dischargeAt[1]).toBeGreaterThan(46);
  });
});

describe('its walls', () => {
  const known: Terraces = { ...ONE, ground: 'firm', earth: 'loam' };
  it('drained, bear earth alone: by hand, 0.7 m of loam on a base of 0.6 m', () => {
    const s = stabilityOf(loadOf(known, 0.5)!);
    // Earth 0.361 · 18 · 0.7² / 2 at 0.233 m; a trapezoid of 0.6 and 0.35 m, upright behind.
    const Ka = Math.tan((45 - 14) * (Math.PI / 180)) ** 2;
    const P = (Ka * 18 * 0.49) / 2;
    const W = 18 * 0.7 * 0.475;
    const Mr = 18 * (0.35 * 0.7 * (0.25 + 0.175) + ((0.25 * 0.7) / 2) * (0.25 * (2 / 3)));
    expect(s.sliding).toBeCloseTo((0.45 * W) / P, 6);
    expect(s.overturning).toBeCloseTo(Mr / (P * (0.7 / 3)), 6);
  });
  it('undrained, bear the water too and are far from safe; higher is never safer', () => {
    const dry = stabilityOf(loadOf(known, 1)!);
    const wet = stabilityOf(loadOf(withAt(known, 'dimensions.drainM', 0.2), 1)!);
    expect(wet.overturning).toBeLessThan(0.65 * dry.overturning);
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 2, noNaN: true }), fc.double({ min: 0.01, max: 0.5, noNaN: true }), (h, more) => {
        const [low, high] = [stabilityOf(loadOf(known, h)!), stabilityOf(loadOf(known, h + more)!)];
        expect(high.overturning).toBeLessThanOrEqual(low.overturning + 1e-9);
        expect(high.sliding).toBeLessThanOrEqual(low.sliding + 1e-9);
      }),
      { seed: 7, numRuns: 40 },
    );
  });
  it('tell nothing while nobody has dug', () => {
    expect(loadOf(ONE, 1)).toBeNull();
    expect(loadOf({ ...ONE, ground: 'firm' }, 1)).toBeNull();
    expect(loadOf({ ...ONE, earth: 'clay' }, 1)).toBeNull();
  });
  it('throw a shadow at midwinter noon as long as the sun is low', () => {
    expect(shadowM(1, 40)).toBeCloseTo(1 / Math.tan((26.56 * Math.PI) / 180), 6);
    expect(shadowM(1, -40)).toBeCloseTo(shadowM(1, 40)!, 9);
    expect(shadowM(1, 66.6)).toBeNull();
  });
});

describe('what terraces are made by', () => {
  it('lists and steps fit stone or earth', () => {
    const items = (work: Terraces): readonly string[] => place(work).quantities(factsOf(SITE)).map((q) => q.item); // prettier-ignore
    const ids = (work: Terraces): readonly string[] => place(work).buildSteps().map((s) => s.id); // prettier-ignore
    expect(items(ONE)).toEqual(['bench', 'cut', 'fill', 'topsoil', 'stone', 'stone-weight', 'gravel', 'inlet']);
    expect(items({ ...EARTH, topsoil: 'buried' })).toEqual(['bench', 'cut', 'fill', 'riser', 'inlet']);
    expect(ids(ONE)).toEqual(['peg', 'topsoil', 'found', 'wall', 'cut', 'edge', 'inlets', 'grow', 'after']);
    expect(ids({ ...EARTH, topsoil: 'buried' })).toEqual(['peg', 'bank', 'cut', 'edge', 'inlets', 'grow', 'after']);
  });
  it('pegs the middle of each bench at its level, marks its edges, draws one to scale', () => {
    const one = place(ONE);
    const pegs = one.pegs(20, null);
    expect(pegs).toHaveLength(8);
    for (const p of pegs) expect(p.levelM).toBeCloseTo(levelAt(SITE.grid, [p.x, p.y]), 2);
    expect(one.marks.map((m) => m.name)).toEqual(['Highest edge', 'Lowest edge']);
    const roles = (work: Terraces, water: number | null) => place(work).section!(water).parts.map((p) => p.role); // prettier-ignore
    expect(roles(ONE, null)).toEqual(['ground', 'cut', 'earth', 'key', 'stone', 'full']);
    expect(roles(EARTH, 200)).toEqual(['ground', 'cut', 'earth', 'full', 'water']);
    const [bench] = benches(ONE);
    const { parts } = one.section!(null);
    const wall = parts.find((p) => p.role === 'stone')!.points;
    expect(Math.max(...wall.map((p) => p[1])) - Math.min(...wall.map((p) => p[1]))).toBeCloseTo(bench.riserM + 0.2, 6);
  });
  it('tells figures with the working of the highest wall', () => {
    const sheet = new Worksheet('terraces');
    const work: Terraces = { ...ONE, ground: 'firm', earth: 'loam', latitudeDeg: 40 };
    const figures = new Map(place(work).figures(factsOf(SITE), sheet).map((f) => [f.id, f.value])); // prettier-ignore
    expect(figures.get('wonM2')).toBeCloseTo(360, 6);
    expect(figures.get('openM3')).toBeCloseTo(18, 6);
    expect(figures.get('shadowM')).toBeCloseTo(figures.get('riserM')! / Math.tan((26.56 * Math.PI) / 180), 6);
    const used = sheet.lines.map((l) => l.formula);
    expect(used.slice(0, 4)).toEqual(['terraces.rise', 'terraces.riser', 'terraces.cut', 'terraces.water']);
    expect(used).toContain('gravity.sliding');
    const plain = new Worksheet('terraces');
    place(ONE).figures(factsOf(SITE), plain);
    expect(plain.lines).toHaveLength(4);
  });
});

describe('terraces from a drawing', () => {
  const landOn = (slope: number) => ({ grid: plane(slope).grid, stores: [], nameFor: (t: string) => `${t} 1`, idFor: (w: string) => w });
  const FIELD: Line = [[20, 20], [80, 20], [80, 50], [20, 50]]; // prettier-ignore
  const begin = (how: string, points: Line, slope = 0.2) => terraces.begin({ how, points, host: null }, landOn(slope));
  it('over a slope lie along its contours, as far apart as bench and riser take', () => {
    const begun = begin('terraces', FIELD);
    if (!begun.ok) throw new Error('refused');
    const [work] = begun.works as unknown as readonly [Terraces];
    const apart = work.lines.slice(1).map((l, k) => work.lines[k][0][1] - l[0][1]);
    const [bench] = benches({ ...work, lines: work.lines.slice(0, 1) });
    for (const a of apart) expect(a).toBeCloseTo(3 + 0.15 * bench.riserM, 1);
    expect(work.lines.length).toBe(9);
    for (const l of work.lines) expect(lineLength(l)).toBeGreaterThan(55);
    expect(words(begun.said)).toMatch(/9 benches along the contour on ground of 20\.0 %/);
  });
  it('one settles on its contour', () => {
    const begun = begin('terrace', [[20, 40], [80, 43]]); // prettier-ignore
    if (!begun.ok) throw new Error('refused');
    const [{ lines }] = begun.works as unknown as readonly [Terraces];
    for (const [, y] of lines[0]) expect(y).toBeCloseTo(40, 1);
  });
  it('is refused where it is too steep, flat, or off the terrain', () => {
    const told = (how: string, points: Line, slope: number): string => {
      const begun = begin(how, points, slope);
      return begun.ok ? 'begun' : `${begun.problem.code} ${words(begun.problem.what)}`;
    };
    expect(told('terraces', FIELD, 0.49)).toBe('begun');
    expect(told('terraces', FIELD, 0.51)).toMatch(/^terraces\.steep.*51\.0 %/);
    expect(told('terrace', [[20, 40], [80, 40]], 0.51)).toMatch(/^terraces\.steep/); // prettier-ignore
    expect(told('terraces', FIELD, 0)).toMatch(/^terraces\.none/);
    expect(told('terrace', [[20, 40], [80, 40]], 0)).toMatch(/^terraces\.settle/); // prettier-ignore
    expect(told('terrace', [[20, 40], [800, 40]], 0.2)).toMatch(/^work\.off-terrain/); // prettier-ignore
  });
});

describe('what is refused', () => {
  it.each([
    ['lines', [], 'lines'],
    ['riser', 'wood', 'riser'],
    ['lie', 'up', 'lie'],
    ['dimensions.benchM', 0, 'dimensions.benchM'],
    ['dimensions.holdM', 0.25, 'dimensions.holdM'],
    ['dimensions.topM', 0.7, 'dimensions.topM'],
    ['dimensions.inlets', 0, 'dimensions.inlets'],
    ['latitudeDeg', 80, 'latitudeDeg'],
  ])('%s of %j is told at %s', (path, value, field) => {
    expect(terraces.validate(ONE)).toEqual([]);
    expect(terraces.validate(withAt(ONE, path, value)).map((p) => p.field)).toContain(field);
  });
});
