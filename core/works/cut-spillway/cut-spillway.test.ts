import { describe, expect, it } from '@jest/globals';
import { coverOf } from '../../ground/index.ts';
import { begunBy, expectFields, HOST, hostOf, NO_TRAITS, onHost, SITE, wrong } from '../../testing/guests.ts';
import { factsOf, linkOf, siteOf, soilOf, testSides, withAt, words } from '../../testing/rules.ts';
import { CUT } from '../../testing/valley.ts';
import { exitFlow } from '../exit.ts';
import { type HostPlace, placeOnHost } from '../on-host.ts';
import { judgeBy } from '../rules.ts';
import { CUT_CONTROL, CUT_RULES, type CutSpillway, cutLaw, cutSpillway } from './index.ts';

type Facts = Parameters<(typeof CUT_RULES)[number]['find']>[0];
const ONE: CutSpillway = { ...CUT, atM: 100, levels: { sillM: 0 } };
const smooth = withAt(ONE, 'dimensions.inletLengthM', 0);
const GRASS = coverOf('pasture-good');
const site = siteOf(SITE.grid, { soilAt: () => soilOf({ cover: 'pasture-good' }) });

/** Critical flow over a trapezoid, found without the formula: the energy at the control by bisection on its depth. */
function byEnergy(bottomM: number, side: number, headM: number): number {
  const critical = (y: number): number => Math.sqrt((9.81 * ((bottomM + side * y) * y) ** 3) / (bottomM + 2 * side * y));
  const energy = (y: number): number => y + critical(y) ** 2 / (2 * 9.81 * ((bottomM + side * y) * y) ** 2);
  let [lo, hi] = [1e-9, headM];
  for (let k = 0; k < 80; k++) {
    const mid = (lo + hi) / 2;
    if (energy(mid) < headM) lo = mid;
    else hi = mid;
  }
  return critical(lo);
}

describe('a cut spillway', () => {
  const { placed, figure, formulas } = onHost(cutSpillway, ONE);
  it('passes C (b H^1.5 + 0.8 z H^2.5) over its control, within a tenth of critical flow over a trapezoid', () => {
    expect(CUT_CONTROL.evaluate({ C: 1.5, b: 5, z: 3, H: 0.3 })).toBeCloseTo(1.5 * (5 * 0.3 ** 1.5 + 0.8 * 3 * 0.3 ** 2.5), 12);
    for (const H of [0.1, 0.3, 0.6]) {
      const ratio = CUT_CONTROL.evaluate({ C: 1.7, b: 5, z: 3, H }) / byEnergy(5, 3, H);
      expect(Math.abs(ratio - 1)).toBeLessThan(0.1);
    }
  });
  it('without a way in the head of the pond is the head on the control', () => {
    const law = cutLaw(smooth);
    // Between the rows of its rating too, and below the first of them.
    for (const H of [0.005, 0.015, 0.03, 0.044, 0.3, 0.617, 1.2]) {
      expect(law(H) / CUT_CONTROL.evaluate({ C: 1.5, b: 5, z: 3, H })).toBeGreaterThan(0.97);
      expect(law(H) / CUT_CONTROL.evaluate({ C: 1.5, b: 5, z: 3, H })).toBeLessThan(1.03);
    }
    expect([law(0), law(-1)]).toEqual([0, 0]);
    expect(cutLaw({ ...smooth, levels: { sillM: 2 } })(2.3)).toBeCloseTo(law(0.3), 12);
  });
  it('long grass on the way in takes flow off, the more the longer', () => {
    const at = (inletLengthM: number): number => cutLaw(withAt(ONE, 'dimensions.inletLengthM', inletLengthM))(0.3);
    expect(at(6)).toBeLessThan(at(0));
    expect(at(30)).toBeLessThan(at(6));
    expect(at(30)).toBeGreaterThan(0.1 * at(0));
    // Less passes at less head, without a jump: the rating is worked out row by row.
    const law = cutLaw(withAt(ONE, 'dimensions.inletLengthM', 30));
    for (let H = 0.02; H < 1.5; H += 0.01) expect(law(H + 0.01)).toBeGreaterThan(law(H));
  });
  it('is a way out through a channel, of grass or of its stone', () => {
    const [outlet] = placed.outlets;
    expect(outlet).toMatchObject({ id: 'cut', work: 'cut', kind: 'rated', levelM: 0, dischargeAt: [132, 93] });
    expect(outlet.exit).toMatchObject({ shape: 'channel', widthM: 5, sideHV: 3 });
    expect(outlet.exit).not.toHaveProperty('stoneM');
    expect(onHost(cutSpillway, withAt(ONE, 'dimensions.stoneM', 0.2)).placed.outlets[0].exit?.stoneM).toBe(0.2);
    expect(onHost(cutSpillway, ONE, null).placed.outlets).toEqual([]);
    expect(outlet.flowAt(0.3)).toBeCloseTo(cutLaw(ONE)(0.3), 12);
    expect(placed.pegs(5, null)).toEqual([{ name: 'control', role: 'sill', x: 132, y: 101, levelM: 0, groundM: 0 }]);
    expect(placed.marks).toMatchObject([{ role: 'sill', levelM: 0, path: 'levels.sillM' }]);
    expect([placed.host, placed.stores([])]).toEqual([null, []]);
  });
  it('tells its cut from the ground it goes through', () => {
    const deep = onHost(cutSpillway, { ...ONE, levels: { sillM: -0.5 } });
    expect(deep.figure('cutM3')).toBeCloseTo((5 + 3 * 0.5) * 0.5 * 12, 9);
    expect(onHost(cutSpillway, { ...ONE, levels: { sillM: 0.5 } }).figure('cutM3')).toBe(0);
    expect(onHost(cutSpillway, ONE, null).figure('cutM3')).toBeNull();
  });
  it('tells head, speed and the width its peak needs', () => {
    const peak = { designPeakM3s: 1, links: [linkOf('cut', 0.8)], site };
    const head = figure('headM', peak) ?? NaN;
    expect(cutLaw(ONE)(head)).toBeCloseTo(1, 4);
    const flow = exitFlow(placed.outlets[0].exit!, 0.8, GRASS);
    expect(figure('velocityMs', peak)).toBe(flow.velocityMs);
    expect(figure('standsMs', peak)).toBe(flow.standsMs);
    expect(figure('velocityMs', { ...peak, links: [] })).toBeNull();
    expect(figure('velocityMs', { ...peak, site: siteOf(SITE.grid, { soilAt: () => null }) })).toBeNull();
    expect(formulas(peak)).toEqual(['spillway.cut-control']);
    expect([figure('headM'), figure('headM', { designPeakM3s: 0 }), figure('slopeBelow')]).toEqual([
      undefined,
      undefined,
      expect.closeTo(0.1, 5),
    ]);
  });
  it('a width found passes the peak 0.3 m under the crest and no faster than the grass stands, and is no wider than it must be', () => {
    const store = { crestM: 0.8 } as never;
    const gentle = { ...HOST, groundAt: () => 0 };
    const flat = siteOf(SITE.grid, { soilAt: () => soilOf({ cover: 'pasture-good' }) });
    const on = (Q: number, cut = ONE): number | null | undefined =>
      onHost(cutSpillway, cut, gentle).figure('neededWidthM', { designPeakM3s: Q, store, site: flat });
    const place: HostPlace = placeOnHost(100, SITE, { host: HOST, lengthM: 6 });
    const speed = (width: number, Q: number) =>
      exitFlow({ at: [0, 0], slope: place.slopeBelow, widthM: width, shape: 'channel', sideHV: 3 }, Q, GRASS);
    for (const Q of [0.3, 1, 3]) {
      const width = on(Q) ?? NaN;
      const law = (b: number): number => cutLaw(withAt(ONE, 'dimensions.bottomWidthM', b))(0.5);
      const { velocityMs, standsMs } = speed(width, Q);
      expect(law(width)).toBeGreaterThan(0.95 * Q);
      expect(velocityMs).toBeLessThanOrEqual((standsMs ?? 0) * 1.0001);
      // A fifth narrower it is too deep or too fast.
      const narrow = speed(0.8 * width, Q);
      if (width > 0.6) expect(law(0.8 * width) < Q || (narrow.velocityMs ?? 0) > (narrow.standsMs ?? 0)).toBe(true);
    }
    expect(on(1, { ...ONE, levels: { sillM: 0.5 } })).toBeNull();
    expect(on(300)).toBeNull();
    expect(onHost(cutSpillway, ONE).figure('neededWidthM', { designPeakM3s: 1, site: flat })).toBeNull();
  });
  it('draws its cut, with water no higher than the ground', () => {
    const drawn = onHost(cutSpillway, { ...ONE, levels: { sillM: -0.5 } }).placed;
    const dry = drawn.section?.(null);
    expect(dry?.parts.map((p) => p.role)).toEqual(['cut']);
    expect(dry?.parts[0].points).toEqual([
      [-5, 0],
      [-4, 0],
      [-2.5, -0.5],
      [2.5, -0.5],
      [4, 0],
      [5, 0],
    ]);
    expect(drawn.section?.(-0.3).parts[1].points).toEqual([
      [-2.5 - 3 * 0.2, -0.3],
      [2.5 + 3 * 0.2, -0.3],
    ].map(([x, y]) => [expect.closeTo(x, 9), expect.closeTo(y, 9)])); // prettier-ignore
    expect(drawn.section?.(9).parts[1].points[0][1]).toBeCloseTo(0, 9);
    expect(drawn.section?.(-0.5).parts).toHaveLength(1);
    expect(placed.section?.(null).parts[0].points[0]).toEqual([expect.closeTo(-2.5 - 0.9 - 1, 9), 0.3]);
  });
  it('is refused with fields out of range or without a host', () => {
    expectFields(cutSpillway, ONE);
    expect(wrong(cutSpillway, { ...ONE, host: '' })).toEqual(['work.host@host']);
    expect([hostOf(cutSpillway, ONE), cutSpillway.footprint(ONE), cutSpillway.intakes(ONE)]).toEqual(['pond', [], []]);
    const key = (change: Partial<CutSpillway>): string => JSON.stringify(cutSpillway.groundKey({ ...ONE, ...change }));
    expect(key({ levels: { sillM: 9 } })).toBe(key({}));
    for (const change of [{ atM: 3 }, { host: 'x' }, { dimensions: { ...ONE.dimensions, controlLengthM: 3 } }])
      expect(key(change)).not.toBe(key({}));
  });
});

describe('rules on cut spillways', () => {
  const place = placeOnHost(100, SITE, { host: HOST, lengthM: 6 });
  const outlet = onHost(cutSpillway, ONE).placed.outlets[0];
  function facts(change: Partial<Facts> = {}, cut: CutSpillway = ONE): Facts {
    return { ...factsOf(site, { links: [linkOf('cut', 1)] }), cut, place, outlet, ...change };
  }
  const { velocityMs, standsMs } = exitFlow(outlet.exit!, 1, GRASS);
  /** Stone that stands so much of what runs. */
  const stone = (share: number): Facts => {
    const ran = (stoneM: number) => exitFlow({ ...outlet.exit!, stoneM }, 1, GRASS);
    let [lo, hi] = [0.005, 1];
    for (let k = 0; k < 60; k++) {
      const mid = (lo + hi) / 2;
      const { velocityMs: v, standsMs: s } = ran(mid);
      if ((v ?? 0) / (s ?? 1) > share) lo = mid;
      else hi = mid;
    }
    return facts({ outlet: { ...outlet, exit: { ...outlet.exit!, stoneM: (lo + hi) / 2 } } });
  };
  testSides<Facts>(CUT_RULES, {
    'cut-spillway.control': {
      at: (v) => facts({}, withAt(ONE, 'dimensions.controlLengthM', v)),
      limit: 6,
      judged: [
        [2.999, 'mend', /6 m along/],
        [3, 'weigh'],
        [5.999, 'weigh'],
        [6, 'fine'],
      ],
    },
    'cut-spillway.sides': {
      at: (v) => facts({}, withAt(ONE, 'dimensions.sideSlopeHV', v)),
      limit: 3,
      judged: [
        [1.499, 'mend', /3 out/],
        [1.5, 'weigh'],
        [2.999, 'weigh'],
        [3, 'fine'],
      ],
    },
    'cut-spillway.exit-velocity': {
      at: stone,
      found: (share) => {
        const { outlet: o } = stone(share);
        return exitFlow(o.exit!, 1, GRASS).velocityMs;
      },
      judged: [
        [0.9999, 'fine'],
        [1.0001, 'weigh', /Widen it/],
        [1.2499, 'weigh'],
        [1.2501, 'mend'],
      ],
      silent: [
        facts({ links: [] }),
        facts({ outlet: { ...outlet, exit: undefined } }),
        facts({ site: siteOf(SITE.grid, { soilAt: () => null }) }),
      ],
    },
    'cut-spillway.on-fill': {
      at: (v) => facts({ outlet: { ...outlet, levelM: v } }),
      limit: 0,
      judged: [
        [-1, 'fine'],
        [0.03, 'fine'],
        [0.0301, 'weigh', /30 mm lower here/],
        [0.15, 'weigh'],
        [0.1501, 'mend'],
      ],
      silent: [facts({ place: { ...place, groundM: null } })],
    },
  });
  const speed = (change: Partial<Facts>) => judgeBy(CUT_RULES[2], facts(change));
  it('holds the speed against what grows there, unknown where the ground below is', () => {
    expect(speed({})).toMatchObject({ value: velocityMs, limit: standsMs, at: outlet.dischargeAt });
    const blind = speed({ outlet: { ...outlet, exit: { ...outlet.exit!, slope: null } } });
    expect(blind).toMatchObject({ severity: 'unknown', value: null });
    expect(words(blind?.do)).toMatch(/bring in terrain/);
  });
  it('where nothing stands flowing water a way out that runs is to mend, one that stays dry to weigh', () => {
    const bare = siteOf(SITE.grid, {
      soilAt: () => ({ ...soilOf(), cover: { ...GRASS, strength: { ...GRASS.strength, velocity: [null, null, null] } as never } }),
    });
    expect(speed({ site: bare })).toMatchObject({ severity: 'mend', limit: null });
    expect(speed({ site: bare, links: [linkOf('cut', 0)] })).toMatchObject({ severity: 'weigh', limit: null, value: 0 });
  });
});

describe('a cut spillway to begin with', () => {
  it('lets its host out over a crest, and goes with it', () => {
    expect(cutSpillway.traits(ONE)).toEqual({ ...NO_TRAITS, canBlock: true, isCut: true, wayOut: 'crest' });
    expect(cutSpillway.refs(ONE)).toEqual([{ role: 'host', id: ONE.host, path: 'host', whenGone: 'goes' }]);
    expect([cutSpillway.draws.map((d) => [d.id, d.what, d.least, d.most]), cutSpillway.family]).toEqual([
      [['cut-spillway', 'on-host', 0, 1]],
      'way-out',
    ]);
  });
  it('is one of common practice, at its place and its level', () => {
    // 0.6 m under the crest of 0.35 m.
    expect(begunBy(cutSpillway, { points: [[60, 90]], host: 'store' })).toEqual([{ id: 'cut-spillway-1', kind: 'cut-spillway', name: 'Cut spillway', status: 'planned', host: 'store', atM: 28, levels: { sillM: -0.25 }, dimensions: { bottomWidthM: 4, sideSlopeHV: 3, inletLengthM: 6, controlLengthM: 6, stoneM: 0 } }]); // prettier-ignore
    expect(begunBy(cutSpillway, { host: 'nobody' })).toBe('work.host');
    expect(cutSpillway.validate(cutSpillway.sample)).toEqual([]);
  });
});
