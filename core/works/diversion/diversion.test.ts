import { describe, expect, it } from '@jest/globals';
import { Worksheet } from '../../formula/index.ts';
import type { Line } from '../../geometry/index.ts';
import { begunBy, expectFields, hostOf, NO_TRAITS, SITE, wrong } from '../../testing/guests.ts';
import { factsOf, linkOf, siteOf, testSides, withAt, setbackCases } from '../../testing/rules.ts';
import { DRAIN } from '../../testing/valley.ts';
import { measureLip } from '../lip.ts';
import { judgeBy } from '../rules.ts';
import type { DrainFacts } from './checks.ts';
import { DIVERSION_RULES, type Diversion, diversion, evenFlow, fallOf, stands } from './index.ts';

const LINE: Line = [
  [32, 101],
  [132, 101],
];
const ONE: Diversion = {
  ...DRAIN,
  line: LINE,
  lining: 'earth',
  levels: { startM: 0.5, endM: 0 },
  dimensions: { floorWidthM: 1, sideSlopeHV: 2, depthM: 0.5, stoneM: 0.1 },
};
const ground = { ...measureLip(LINE, SITE) };
const place = (drain: Diversion) => diversion.place(drain, ground, null);
const figures = (drain: Diversion, designPeakM3s: number | null) => {
  const sheet = new Worksheet('drain');
  const list = place(drain).figures(factsOf(SITE, { designPeakM3s }), sheet);
  return { at: (id: string) => list.find((f) => f.id === id)?.value, formulas: sheet.lines.map((l) => l.formula) };
};
/** Manning's flow in a trapezoid, written out. */
const manning = (y: number, S: number, n: number): number => {
  const [b, z] = [1, 2];
  const A = (b + z * y) * y;
  return (A * (A / (b + 2 * y * Math.hypot(1, z))) ** (2 / 3) * Math.sqrt(S)) / n;
};

describe('a diversion drain', () => {
  const placed = place(ONE);
  it('carries by Manning with the roughness of its lining: earth, or stone by its size', () => {
    const earth = evenFlow(ONE, 0.3, 'tall');
    expect(manning(earth.depthM, 0.005, 0.022)).toBeCloseTo(0.3, 9);
    expect(earth.velocityMs).toBeCloseTo(0.3 / ((1 + 2 * earth.depthM) * earth.depthM), 9);
    const stone = evenFlow({ ...ONE, lining: 'stone' }, 0.3, 'tall');
    expect(manning(stone.depthM, 0.005, 0.1 ** (1 / 6) / 21.1)).toBeCloseTo(0.3, 9);
    expect(evenFlow(ONE, 0, 'tall')).toMatchObject({ depthM: 0, velocityMs: 0 });
    expect(fallOf(ONE)).toBeCloseTo(0.005, 12);
    // A drain that does not fall is taken to fall 1 in 10 000.
    expect(manning(evenFlow(withAt(ONE, 'levels.startM', -1), 0.1, 'tall').depthM, 1e-4, 0.022)).toBeCloseTo(0.1, 9);
  });
  it('runs deeper in tall grass and faster in short', () => {
    const grass: Diversion = { ...ONE, lining: 'grass' };
    const [tall, short] = [evenFlow(grass, 0.3, 'tall'), evenFlow(grass, 0.3, 'short')];
    expect(tall.depthM).toBeGreaterThan(1.2 * short.depthM);
    expect(short.velocityMs).toBeGreaterThan(1.2 * tall.velocityMs);
    for (const { depthM, n } of [tall, short]) expect(manning(depthM, 0.005, n)).toBeCloseTo(0.3, 3);
    expect([stands(ONE), stands(grass)]).toEqual([0.53, 1.52]);
    expect(stands({ ...ONE, lining: 'stone' })).toBeCloseTo(0.86 * Math.sqrt(2 * 9.81 * 1.65 * 0.1), 2);
  });
  it('stores only what runs in it: prism by prism', () => {
    const [store] = placed.stores([]);
    expect(store).toMatchObject({ work: 'drain', floorM: 0, sillM: 0, wayOutM: 0, crestM: 0.5, heldM3: 0 });
    const { levelM, volumeM3, wettedM2 } = store.stage;
    expect([levelM[0], levelM[24]]).toEqual([0, expect.closeTo(1.3, 12)]);
    for (let k = 0; k <= 24; k++) {
      expect(volumeM3[k]).toBeCloseTo((1 + 2 * levelM[k]) * levelM[k] * 100, 6);
      expect(wettedM2[k]).toBeCloseTo((1 + 4 * levelM[k]) * 100, 6);
    }
  });
  it('lets its water go at its end as it runs evenly, and over its bank when it is full', () => {
    const [end, bank] = placed.stores([])[0].outlets;
    expect(end).toMatchObject({
      id: 'drain#end',
      kind: 'rated',
      levelM: 0,
      dischargeAt: [134, 101],
      exit: { shape: 'channel', widthM: 1, sideHV: 2 },
    });
    expect(end.exit?.slope).toBeCloseTo(0.005, 12);
    for (const y of [0.1, 0.25, 0.45]) expect(end.flowAt(y) / manning(y, 0.005, 0.022)).toBeCloseTo(1, 1);
    expect(end.flowAt(0)).toBe(0);
    expect(bank).toMatchObject({ id: 'drain#bank', kind: 'bank', levelM: 0.5, dischargeAt: [82, 98] });
    expect(bank.flowAt(0.6)).toBeCloseTo(1.5 * 100 * 0.1 ** 1.5, 6);
    expect(end.exit).not.toHaveProperty('stoneM');
    expect(place({ ...ONE, lining: 'stone' }).stores([])[0].outlets[0].exit?.stoneM).toBe(0.1);
    expect([placed.host, placed.outlets]).toEqual([null, []]);
  });
  it('is pegged along an even fall, its ends among them', () => {
    const pegs = placed.pegs(30, null);
    expect(pegs.map((p) => [p.name, p.x, p.levelM])).toEqual([
      ['0 m', 32, 0.5],
      ['25 m', 57, 0.375],
      ['50 m', 82, 0.25],
      ['75 m', 107, 0.125],
      ['100 m', 132, 0],
    ]);
    for (const p of pegs) expect(p.groundM).toBeCloseTo(0, 4);
    expect(placed.pegs(500, null)).toHaveLength(2);
    expect(placed.marks.map((m) => [m.id, m.levelM, m.path])).toEqual([
      ['drain:startM', 0.5, 'levels.startM'],
      ['drain:endM', 0, 'levels.endM'],
    ]);
  });
  it('tells depth, speed and the depth it must have for its peak', () => {
    const { at, formulas } = figures(ONE, 0.3);
    const { depthM, velocityMs } = evenFlow(ONE, 0.3, 'tall');
    expect([at('depthM'), at('velocityMs'), at('peakM3s'), at('standsMs'), at('lengthM')]).toEqual([depthM, velocityMs, 0.3, 0.53, 100]);
    expect(at('neededDepthM')).toBe(Math.ceil(100 * (depthM + 0.15)) / 100);
    expect(at('cutM3')).toBeCloseTo((1 + 2 * 0.3) * 0.3 * 100, 6);
    expect(formulas).toEqual(['hydraulics.normal-depth', 'hydraulics.critical-depth', 'hydraulics.manning']);
    for (const none of [figures(ONE, null), figures(ONE, 0), figures(withAt(ONE, 'levels.startM', 0), 0.3)])
      expect([none.at('depthM'), none.formulas]).toEqual([undefined, []]);
  });
  it('draws its lower end with no more water than it holds', () => {
    expect(placed.section?.(null).parts).toHaveLength(1);
    expect(placed.section?.(-1).parts).toHaveLength(1);
    const drawn = placed.section?.(0.2);
    expect(drawn?.parts[1].points).toEqual([
      [-0.9, 0.2],
      [0.9, 0.2],
    ]);
    expect(placed.section?.(3).parts[1].points[0]).toEqual([-1.5, 0.5]);
    expect(drawn?.parts[0].points).toEqual([
      [-2.5, 0.5],
      [-1.5, 0.5],
      [-0.5, 0],
      [0.5, 0],
      [1.5, 0.5],
      [2.1, 0.5],
      [3.1, expect.closeTo(0.1, 12)],
    ]);
    expect(drawn?.levels.map((l) => l.levelM)).toEqual([0.5, 0]);
  });
  it('is refused with fields out of range, no line or a lining nobody knows', () => {
    expectFields(diversion, ONE);
    expect(wrong(diversion, { ...ONE, lining: 'gold' } as never)).toEqual(['diversion.lining@lining']);
    expect(wrong(diversion, { ...ONE, line: [[1, 1]] } as never)).toEqual(['work.line@line']);
    for (const { path, options } of diversion.choices ?? [])
      for (const { id } of options) expect(wrong(diversion, withAt(ONE, path, id))).toEqual([]);
    expect([hostOf(diversion, ONE), diversion.footprint(ONE), diversion.intakes(ONE), diversion.groundKey(ONE)]).toEqual([
      null,
      [LINE],
      [{ store: ONE.id, line: LINE }],
      LINE,
    ]);
    expect(diversion.measure(ONE, SITE, null).lengthM).toBe(100);
  });
});

describe('rules on diversion drains', () => {
  const facts = (change: Partial<DrainFacts> = {}, drain: Diversion = ONE): DrainFacts => ({
    ...factsOf(SITE, { designPeakM3s: 0.3, links: [linkOf('drain#end', 0.3, 'pond')] }),
    drain,
    ground,
    endM: 0,
    ...change,
  });
  const depth = evenFlow(ONE, 0.3, 'tall').depthM;
  const near = (kind: string, away: number): DrainFacts =>
    facts({ site: siteOf(SITE.grid, { features: [{ id: 'f', kind, at: [80, 101 + away] }] }) });
  /** A drain whose flow runs at a share of what its stone stands: the stone is found. */
  const fast = (share: number): Diversion => {
    let [lo, hi] = [0.01, 1];
    const one = (stoneM: number): Diversion => ({
      ...withAt(withAt(ONE, 'levels.startM', 6), 'dimensions.stoneM', stoneM),
      lining: 'stone',
    });
    for (let k = 0; k < 70; k++) {
      const mid = (lo + hi) / 2;
      if (evenFlow(one(mid), 0.3, 'short').velocityMs / stands(one(mid)) > share) lo = mid;
      else hi = mid;
    }
    return one((lo + hi) / 2);
  };
  /** A fall at which the flow's Froude number is so much. */
  const shooting = (froude: number): Diversion => {
    let [lo, hi] = [1e-4, 0.2];
    const one = (fall: number): Diversion => withAt(ONE, 'levels.startM', 100 * fall);
    const of = (drain: Diversion): number => {
      const y = evenFlow(drain, 0.3, 'short').depthM;
      const A = (1 + 2 * y) * y;
      return 0.3 / A / Math.sqrt((9.81 * A) / (1 + 4 * y));
    };
    for (let k = 0; k < 70; k++) {
      const mid = (lo + hi) / 2;
      if (of(one(mid)) < froude) lo = mid;
      else hi = mid;
    }
    return one((lo + hi) / 2);
  };
  const silent = [facts({ designPeakM3s: null })];
  testSides<DrainFacts>(DIVERSION_RULES, {
    'diversion.freeboard': {
      at: (v) => facts({}, withAt(ONE, 'dimensions.depthM', depth + v)),
      limit: 0.15,
      judged: [
        [0.0499, 'mend', /100 mm deeper/],
        [0.0501, 'weigh'],
        [0.1499, 'weigh'],
        [0.1501, 'fine'],
      ],
      silent,
    },
    'diversion.velocity': {
      at: (v) => facts({}, fast(v)),
      found: (v) => evenFlow(fast(v), 0.3, 'short').velocityMs,
      judged: [
        [0.999, 'fine'],
        [1.001, 'weigh', /less fall/],
        [1.249, 'weigh'],
        [1.251, 'mend'],
      ],
      silent,
    },
    'diversion.fall': {
      at: (v) => facts({}, withAt(ONE, 'levels.startM', 100 * v)),
      limit: (v) => (v < 0.002 ? 0.002 : 0.01),
      judged: [
        [-0.001, 'mend', /does not fall/],
        [0, 'mend', /does not fall/],
        [0.00199, 'weigh', /0\.2 %/],
        [0.00201, 'fine'],
        [0.00999, 'fine'],
        [0.01001, 'weigh', /nearer the contour/],
        [0.01999, 'weigh'],
        [0.02001, 'mend'],
      ],
    },
    'diversion.near-critical': {
      at: (v) => facts({}, shooting(v)),
      limit: 0.8,
      judged: [
        [0.7999, 'fine'],
        [0.8001, 'weigh', /rougher/],
      ],
      silent: [...silent, facts({ designPeakM3s: 0 })],
    },
    'diversion.end': {
      at: (v) => facts({ endM: -v }),
      limit: 0.1,
      judged: [
        [-1, 'fine'],
        [0.1, 'fine'],
        [0.1001, 'weigh', /100 mm above the ground/],
        [0.3, 'weigh'],
        [0.3001, 'mend'],
      ],
      silent: [facts({ endM: null })],
    },
    ...setbackCases('diversion', near),
  });
  it('its end should be taken by something that stands it', () => {
    const to = (end: string) =>
      judgeBy(
        DIVERSION_RULES.find((r) => r.id === 'diversion.end')!,
        facts({ links: [linkOf('drain#end', 1, end)] }),
      );
    for (const end of ['ground', 'property-edge', 'terrain-edge'])
      expect(to(end)).toMatchObject({ severity: 'weigh', do: expect.stringContaining('Spread it') });
    expect(to('pond')).toMatchObject({ severity: 'fine', at: [132, 101] });
    expect(
      judgeBy(
        DIVERSION_RULES.find((r) => r.id === 'diversion.end')!,
        facts({ links: [] }),
      ),
    ).toMatchObject({ severity: 'weigh' });
  });
});

describe('a drain to begin with', () => {
  it('runs down, 0.4 m under the ground, whichever end was drawn first', () => {
    const line: Line = [[32, 111], [132, 101]]; // prettier-ignore
    const made = {
      id: 'drain-1',
      name: 'Drain 1',
      kind: 'diversion',
      lining: 'grass',
      line,
      levels: { startM: 0.6, endM: -0.4 },
      dimensions: { floorWidthM: 1, sideSlopeHV: 3, depthM: 0.5, stoneM: 0.1 },
    };
    expect(begunBy(diversion, { points: line })).toMatchObject([made]);
    expect(begunBy(diversion, { points: [...line].reverse() })).toMatchObject([made]);
    const level: Line = [[32, 101], [132, 101]]; // prettier-ignore
    expect(begunBy(diversion, { points: level })).toMatchObject([{ line: level }]);
    expect(begunBy(diversion, { points: [[32, 101], [932, 101]] })).toBe('work.off-terrain'); // prettier-ignore
  });
  it('holds by a bank and is cut', () => {
    expect(diversion.traits(ONE)).toEqual({ ...NO_TRAITS, retains: 'bank', isCut: true });
    expect([diversion.refs(ONE), diversion.validate(diversion.sample), diversion.draws.map((d) => d.least)]).toEqual([[], [], [2]]);
    expect(diversion.fields.find((f) => f.path === 'dimensions.stoneM')?.shownWhen).toEqual({ path: 'lining', is: ['stone'] });
  });
});
