// Each rule on swales at both sides of its limits. The lip lies at level 0, so that differences of levels are exact.
import { describe, expect, it } from '@jest/globals';
import type { Feature } from '../../contract/index.ts';
import type { Line, Point } from '../../geometry/index.ts';
import { linkOf, siteOf, soilOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { SWALE0, facts, flowFor, ground, sill, site, tilting } from '../../testing/swales.ts';
import { judgeBy } from '../rules.ts';
import { mouthLevel } from './join-checks.ts';
import { reachOf, tiltOf } from './joint.ts';
import { SWALE_RULES, type Swale, contentAt, storeOf } from './index.ts';
import type { SwaleFacts } from './place-checks.ts';

const low = (levelM: number): Partial<Swale> => ({ lowPlaces: [{ atM: 84, lengthM: 6, levelM }] });
const box = (x: number, y: number): Line => [
  [x, y],
  [x + 6, y],
  [x + 6, y + 5],
  [x, y + 5],
];
const at = (kind: string, shape: Partial<Feature>): SwaleFacts['site'] => siteOf(site.grid, { features: [{ id: 'f', kind, ...shape }] });
const OUTLINE: Line = [
  [10, 10],
  [192, 10],
  [192, 192],
  [10, 192],
];
const slope = (s: number): Partial<SwaleFacts> => ({ ground: { ...ground, steepestSlope: s } });
const joined: Partial<Swale> = { joins: { store: 'pond', end: 'start' } };
const fused = (crestM: number, groundM = 0): SwaleFacts => {
  const swale: Swale = { ...SWALE0, fuse: { fromM: 30, toM: 38, crestM } };
  const under = { ...ground, groundM: ground.groundM.map(() => groundM) };
  return { ...facts({}, swale), ground: under, store: { ...storeOf(swale, under, [sill(0)]), sillM: 0 } };
};
const emptying = (hours: number | null, purpose: Swale['purpose'] = 'soak'): SwaleFacts =>
  facts({ storm: stormOf({ drainDownH: hours }) }, { purpose });
const leaning = (off: number): SwaleFacts =>
  facts({ ground: { ...ground, groundM: ground.groundM.map((_, i) => (i === 7 ? off : i === 3 ? -off / 2 : 0)) } });
/** Ground at both ends so far under the crest that a bank up a slope of 0.1 takes so many metres. */
const running = (metres: number, end: 'first' | 'last' = 'first'): SwaleFacts => {
  const last = ground.groundM.length - 1;
  const i = end === 'first' ? 0 : last;
  const groundM = ground.groundM.map((_, k) => (k === i ? 0.35 - metres * 0.1 : 0.35));
  return facts({ ground: { ...ground, groundM, crossSlope: ground.crossSlope.map(() => 0.1) } });
};
const catchment = (touchesTerrainEdge: boolean): SwaleFacts =>
  facts({ catchment: { of: 'w1', areaM2: 1, meanSlope: 0.1, longestPathM: 1, farthest: [0, 0], touchesTerrainEdge, ring: [] } });
/** A mouth through which so little runs that its water line is level. */
const mouth = (freeboardM: number): SwaleFacts =>
  facts({ storm: stormOf({ peakLevelM: 0.35 - freeboardM }), links: [linkOf('w1#mouth', 0)] }, joined);

describe('rules on swales', () => {
  testSides(SWALE_RULES, {
    'swale.way-out': {
      at: (n) =>
        facts({
          store: storeOf(
            SWALE0,
            ground,
            Array.from({ length: n }, (_, k) => sill(0.1 * k, { kind: k === 1 ? 'rated' : 'sill' })),
          ),
        }),
      limit: 1,
      judged: [
        [0, 'mend', /Add a level sill/],
        [1, 'fine'],
        [2, 'fine'],
      ],
      silent: [facts({ store: null })],
    },
    'swale.low-bank': {
      at: (v) => facts({}, low(v)),
      limit: 0.1,
      judged: [
        [-0.045, 'mend', /Raise 6\.0 m of bank by 395 mm/],
        [0, 'mend'],
        [0.0499, 'mend'],
        [0.05, 'weigh', /by 300 mm/],
        [0.0999, 'weigh'],
        [0.1, 'fine', /Raise/],
      ],
      silent: [facts(), facts({}, low(0.35)), facts({ store: null }, low(0))],
    },
    'swale.far-end': {
      // By how much more or less than 50 mm the far end rises, from a sill 20 m from the start.
      at: (v) => tilting([20], flowFor(v)),
      limit: 0.05,
      judged: [
        [0, 'fine'],
        [0.0499, 'fine'],
        [0.0501, 'weigh', /Bring the sill to the middle: it rises \d+ mm then. Or let it out over two/],
      ],
      silent: [
        facts({ store: storeOf(SWALE0, ground, []) }),
        facts({}, joined),
        facts({ store: null }),
        { ...tilting([20], 0.1), storm: null },
      ],
    },
    'swale.bank-freeboard': {
      at: (v) => facts({ storm: stormOf({ freeboardM: v }) }),
      limit: 0.15,
      judged: [
        [-0.02, 'mend', /Raise the bank crest by 170 mm/],
        [0.0999, 'mend'],
        [0.1, 'weigh', /by 50 mm/],
        [0.1499, 'weigh'],
        [0.15, 'fine'],
      ],
      cure: (v) => (v < 0.15 ? { 'levels.bankCrestM': SWALE0.levels.bankCrestM + 0.15 - v } : undefined),
      silent: [facts({ storm: null })],
    },
    'swale.held-volume': {
      at: (v) => {
        const { store } = facts();
        return facts({ storm: stormOf({ inM3: (store?.heldM3 ?? 0) / v }) });
      },
      limit: 1,
      judged: [
        [0.4, 'weigh', /more by length or width/],
        [0.9999, 'weigh'],
        [1, 'fine'],
      ],
      silent: [facts({ store: null }), facts({ storm: null }), facts({ storm: stormOf({ inM3: 0 }) })],
    },
    'swale.drain-down': {
      at: (v) => emptying(v),
      limit: 48,
      judged: [
        [48, 'fine'],
        [48.01, 'weigh', /wider and shallower/],
        [72, 'weigh'],
        [72.01, 'mend'],
      ],
      silent: [emptying(200, 'hold'), facts({ storm: null })],
    },
    'swale.ground-slope': {
      at: (v) => facts(slope(v)),
      limit: 0.15,
      judged: [
        [0.15, 'fine'],
        [0.1501, 'weigh', /geotechnical/],
        [0.2, 'weigh'],
        [0.2001, 'mend'],
      ],
    },
    'swale.cut-daylight': {
      at: (v) => facts(slope(v / 2)),
      limit: 0.8,
      judged: [
        [0.8, 'weigh', /steeper/],
        [0.9999, 'weigh'],
        [1, 'mend'],
      ],
      silent: [facts(slope(0.3999))],
    },
    'swale.soil-depth': {
      at: (v) => facts({ site: siteOf(site.grid, { soilAt: () => soilOf({ soilDepthM: v + 0.35 }) }) }),
      limit: 0.6,
      judged: [
        [-0.01, 'mend', /Dig shallower/],
        [0, 'weigh'],
        [0.5999, 'weigh'],
        [0.6001, 'fine'],
      ],
      silent: [facts({ site: siteOf(site.grid, { soilAt: () => null }) })],
    },
    'swale.on-contour': {
      at: leaning,
      limit: 0.1,
      judged: [
        [0.1, 'fine'],
        [0.1001, 'weigh', /contour/],
        [0.3, 'weigh'],
        [0.3001, 'mend'],
      ],
    },
    'swale.ends': {
      at: (v) => running(v),
      limit: 15,
      judged: [
        [14.99, 'fine', /for 15 m at the start and 0 m at the end\.$/],
        [15.01, 'weigh', /long, because/],
        [39.99, 'weigh'],
        [40.01, 'mend'],
      ],
    },
    'swale.earth-balance': {
      at: (v) => {
        // A bank of upright ground: the cut is the ditch's, the bank is scaled by its length of top.
        const cut = 0.9 * 0.35 + 1.5 * 0.35 * 0.35;
        const level = { ...ground, crossSlope: ground.crossSlope.map(() => 0), steepestSlope: 0 };
        const bank = (cut * 0.9) / v;
        const bankTopM = bank / 0.35 - 2 * 0.35;
        return facts({ ground: level }, withAt(SWALE0, 'dimensions.bankTopM', bankTopM));
      },
      limit: 1,
      judged: [
        [0.5, 'weigh', /About 70 m³ more/],
        [0.9499, 'weigh'],
        [0.9501, 'fine'],
      ],
      silent: [facts(slope(0.9))],
    },
    'swale.mouth-freeboard': {
      at: mouth,
      limit: 0.3,
      judged: [
        [0.1999, 'mend', /Widen the swale/],
        [0.2001, 'weigh'],
        [0.2999, 'weigh'],
        [0.3001, 'fine'],
      ],
      silent: [facts(), facts({ links: [] }, joined), facts({ storm: null, links: [linkOf('w1#mouth', 0)] }, joined)],
    },
    'swale.fuse': {
      at: (v) => fused(0.35 - v),
      limit: 0.05,
      judged: [
        [0.0199, 'mend', /Lower its crest by 30 mm/],
        [0.0201, 'weigh'],
        [0.0499, 'weigh'],
        [0.0501, 'fine', /^Nothing\. Gone, it lets 1971 L\/s through/],
      ],
      cure: (v) => (v < 0.05 ? { 'fuse.crestM': fused(0.35).swale.levels.bankCrestM - 0.05 } : undefined),
      silent: [facts(), fused(0.35), { ...fused(0.2), store: null }],
    },
    'swale.joined-bank': {
      at: (n) => facts({}, { ...joined, ...(n > 0 ? { fuse: { fromM: 1, toM: 2, crestM: 0.3 } } : {}) }),
      limit: 1,
      judged: [
        [0, 'weigh', /fuse/],
        [1, 'fine'],
      ],
      silent: [facts()],
    },
    'swale.building-distance': {
      at: (v) => facts({ site: at('building', { ring: box(60, 101 + v) }) }),
      limit: 5,
      judged: [
        [2.999, 'mend', /2\.0 m further away/],
        [3, 'weigh'],
        [4.999, 'weigh'],
        [5, 'fine'],
      ],
      silent: [facts(), facts({ site: at('well', { ring: box(60, 103) }) })],
    },
    'swale.boundary-distance': {
      at: (v) => facts({ site: siteOf(site.grid, { outline: OUTLINE.map(([x, y]): Point => [x, y === 10 ? 101 - v : y]) }) }),
      limit: 3,
      judged: [
        [1.499, 'mend', /boundary/],
        [1.5, 'weigh'],
        [2.999, 'weigh'],
        [3, 'fine'],
      ],
      silent: [facts()],
    },
    'swale.track-crossing': {
      at: () => facts({ site: at('track', { line: [[100, 80], [100, 120]] }) }), // prettier-ignore
      found: () => 1,
      limit: 0,
      judged: [[1, 'weigh', /hard hump/]],
      silent: [facts(), facts({ site: at('track', { line: [[100, 80], [100, 90]] }) })], // prettier-ignore
    },
    'swale.well-distance': {
      at: (v) => facts({ site: at('well', { at: [100, 101 + v] }) }),
      limit: 30,
      judged: [
        [14.99, 'mend', /15 m too near/],
        [15, 'weigh'],
        [29.99, 'weigh'],
        [30, 'fine'],
      ],
      silent: [facts(), facts({ site: at('septic', { at: [100, 102] }) })],
    },
    'swale.septic-distance': {
      at: (v) => facts({ site: at('septic', { ring: box(60, 101 + v) }) }),
      limit: 15,
      judged: [
        [9.99, 'mend'],
        [10, 'weigh'],
        [14.99, 'weigh'],
        [15, 'fine'],
      ],
      silent: [facts()],
    },
    'swale.catchment-edge': {
      at: (v) => catchment(v > 0),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'weigh', /ridge/],
      ],
      silent: [facts({ catchment: null })],
    },
  });

  const find = (id: string, on: SwaleFacts) =>
    judgeBy(
      SWALE_RULES.find((r) => r.id === id)!,
      on,
    );
  it('a spillway swale keeps twice the freeboard, and times to empty go by purpose', () => {
    const spillway = (v: number) => find('swale.bank-freeboard', facts({ storm: stormOf({ freeboardM: v }) }, { purpose: 'spillway' }));
    expect([0.199, 0.2, 0.299, 0.3].map((v) => spillway(v)?.severity)).toEqual(['mend', 'weigh', 'weigh', 'fine']);
    const hours = (v: number, purpose: Swale['purpose']) => find('swale.drain-down', emptying(v, purpose))?.severity;
    expect([hours(24, 'convey'), hours(24.1, 'convey'), hours(36.1, 'convey')]).toEqual(['fine', 'weigh', 'mend']);
    expect([hours(72, 'spillway'), hours(72.1, 'spillway')]).toEqual(['fine', 'weigh']);
    const full = (drainDownH: number) => find('swale.drain-down', facts({ storm: stormOf({ drainDownH, soilShortM3: 32 }) }));
    expect([full(20), full(73)].map((f) => [f?.severity, f?.value])).toEqual([
      ['weigh', null],
      ['mend', null],
    ]);
    expect(words(full(20)?.do)).toMatch(/soil under it is full before it is empty: 32 m³ stay/);
    expect(find('swale.drain-down', emptying(null))).toMatchObject({ severity: 'mend', value: null, limit: 48 });
  });
  it('mends a low place before it raises the bank', () => {
    const found = find('swale.bank-freeboard', facts({ storm: stormOf({ freeboardM: 0 }) }, low(0.2)));
    expect(words(found?.do)).toMatch(/low place at 84/);
    expect(found?.cure).toBeUndefined();
    expect(find('swale.bank-freeboard', facts({ storm: stormOf({ freeboardM: 0.5 }) }, low(0.2)))?.do).toMatch(/^Nothing/);
  });
  it('says where: the low place, the deepest soil, the worst of the contour, the end that runs far, the mouth', () => {
    expect(find('swale.low-bank', facts({}, low(0)))?.at).toEqual([32 + 84, 101]);
    expect(words(find('swale.low-bank', facts({}, low(0)))?.title)).toMatch(/0 mm below the sill at 84/);
    expect(words(find('swale.low-bank', facts({}, low(0.06)))?.title)).toMatch(/only 60 mm above the sill/);
    const shallow = siteOf(site.grid, { soilAt: ([x]) => soilOf({ soilDepthM: Math.abs(x - ground.points[9][0]) < 0.1 ? 0.5 : 2 }) });
    expect(find('swale.soil-depth', facts({ site: shallow }))?.at).toEqual(ground.points[9]);
    expect(find('swale.on-contour', leaning(0.2))?.at).toEqual([32 + ground.atM[7], 101]);
    expect(find('swale.ends', running(20, 'first'))?.at).toEqual([32, 101]);
    expect(find('swale.ends', running(20, 'last'))?.at).toEqual([172, 101]);
    expect(find('swale.mouth-freeboard', mouth(0.25))?.at).toEqual([32, 101]);
    const other = { ...mouth(0.25), swale: { ...SWALE0, joins: { store: 'pond', end: 'end' } } } as SwaleFacts;
    expect(find('swale.mouth-freeboard', other)?.at).toEqual([172, 101]);
  });
  it('of two ends alike the first is told; rules on levels and sources from memory are as listed', () => {
    const even = {
      ...running(20),
      ground: { ...ground, groundM: ground.groundM.map(() => 0), crossSlope: ground.crossSlope.map(() => 0.1) },
    };
    expect(find('swale.ends', even)?.at).toEqual([32, 101]);
    expect(SWALE_RULES.filter((r) => r.isOfLevels).map((r) => r.id).sort()).toEqual(['swale.bank-freeboard', 'swale.far-end', 'swale.fuse', 'swale.low-bank', 'swale.mouth-freeboard', 'swale.way-out']); // prettier-ignore
    expect(SWALE_RULES.flatMap((r) => (r.source.fromMemory ? [r.id] : [])).sort()).toEqual(['swale.far-end', 'swale.mouth-freeboard']);
  });
  it('judges a low place against the crest where there is no sill', () => {
    const bare = facts({ store: storeOf({ ...SWALE0, ...low(0.3) }, ground, []) }, low(0.3));
    expect(find('swale.low-bank', bare)).toMatchObject({ severity: 'mend' });
    expect(find('swale.low-bank', bare)?.value).toBeCloseTo(-0.05, 12);
  });
  it('a fuse on low ground would drain what the sill holds', () => {
    const drains = (m: number) => find('swale.fuse', fused(0.25, -m));
    expect([0.0999, 0.1001, 0.2999, 0.3001].map((m) => drains(m)?.severity)).toEqual(['fine', 'weigh', 'weigh', 'mend']);
    expect(words(drains(0.2)?.do)).toMatch(/200 mm under the sill/);
  });
  it('does not count a sill as high as the bank as a way out', () => {
    expect(find('swale.way-out', facts({ store: storeOf(SWALE0, ground, [sill(0.35)]) }))).toMatchObject({ value: 0, severity: 'mend' });
    expect(find('swale.way-out', facts({ store: storeOf(SWALE0, ground, [sill(0.349)]) }))).toMatchObject({ value: 1 });
  });
  it('a building over the line or a swale outside the property is at no distance', () => {
    const inside = facts({ site: at('building', { ring: box(30, 98) }) });
    expect(find('swale.building-distance', inside)).toMatchObject({ value: 0, at: SWALE0.line[0] });
    const outside = siteOf(site.grid, { outline: box(0, 0) });
    expect(find('swale.boundary-distance', facts({ site: outside }))).toMatchObject({ value: 0, severity: 'mend', at: SWALE0.line[0] });
    const two: Feature[] = [
      { id: 'a', kind: 'building', ring: box(60, 111) },
      { id: 'b', kind: 'building', ring: box(90, 105) },
    ];
    expect(find('swale.building-distance', facts({ site: siteOf(site.grid, { features: two }) }))?.value).toBeCloseTo(4, 9);
  });
});

describe('the mouth of a swale', () => {
  it('stands higher than the sill by the friction of the way between, none without flow or water', () => {
    const swale: Swale = { ...SWALE0, joins: { store: 'pond', end: 'start' } };
    expect(reachOf(swale, [sill(0, { dischargeAt: [140, 96] })])).toBeCloseTo(108, 9);
    expect(reachOf({ ...swale, joins: { store: 'pond', end: 'end' } }, [sill(0, { dischargeAt: [140, 96] })])).toBeCloseTo(32, 9);
    expect(reachOf(swale, [sill(0, { kind: 'bank' })])).toBe(70);
    expect(reachOf(swale, [sill(0, { dischargeAt: [32, 96] })])).toBe(2);
    expect(tiltOf(swale, { reachM: 60, flowM3s: 0, lowM: 0 })).toBe(0);
    expect(tiltOf(swale, { reachM: 60, flowM3s: 0.1, lowM: -0.35 })).toBe(0);
    const tilt = (flowM3s: number, reachM = 60): number => tiltOf(swale, { reachM, flowM3s, lowM: 0.1 });
    // By Manning at the depth of the way out: slope (Q n / (A R^2/3))^2, an upper bound on the fall since depth grows upstream.
    const [b, z, y] = [0.9, 1.5, 0.45];
    const area = (b + z * y) * y;
    const radius = area / (b + 2 * y * Math.hypot(1, z));
    const bound = 60 * ((0.1 * 0.03) / (area * radius ** (2 / 3))) ** 2;
    expect(tilt(0.1)).toBeGreaterThan(0.7 * bound);
    expect(tilt(0.1)).toBeLessThan(bound);
    expect(tilt(0.2)).toBeGreaterThan(2 * tilt(0.1));
    expect(tilt(0.1, 120)).toBeGreaterThan(1.5 * tilt(0.1));
    const store = storeOf(swale, ground, [sill(0)]);
    const storm = stormOf({ peakLevelM: 0.1 });
    const level = mouthLevel({ swale, store, storm, links: [linkOf('w1#mouth', 0.1)] });
    expect(level).toBeCloseTo(0.1 + tiltOf(swale, { reachM: 108, flowM3s: 0.1, lowM: 0.1 }), 12);
    expect(contentAt(swale, ground, -0.35).volumeM3).toBe(0);
  });
});
