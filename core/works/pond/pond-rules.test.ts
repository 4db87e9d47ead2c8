// Rules on ponds at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { Outlet, Store } from '../../contract/index.ts';
import { Worksheet } from '../../formula/index.ts';
import type { Line, Point } from '../../geometry/index.ts';
import { COMPANY } from '../../testing/guests.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, stormOf, testSides, withAt, words, setbackCases } from '../../testing/rules.ts';
import { POND, valleyAt } from '../../testing/valley.ts';
import { basinOf, measureBasin, wallEarth } from '../basin/index.ts';
import { judgeBy } from '../rules.ts';
import { freeboardNeeded } from './checks.ts';
import { POND_RULES, type Pond, pond } from './index.ts';
import type { PondFacts } from './place-checks.ts';

const site = siteOf(gridOf(valleyAt, { cells: 101, cellM: 2 }));
const ONE: Pond = { ...POND, borrow: 'inside' };
const PIT: Line = [
  [80, 130],
  [100, 130],
  [100, 145],
  [80, 145],
];
const ground = measureBasin(ONE, site);
const placed = pond.place(ONE, ground, null);

const PIPED = { at: [101, 70], slope: 0.05, widthM: 0.3, shape: 'pipe' } as const;

describe('rules on ponds', () => {
  const earth = wallEarth(ONE, ground.wall!)!;
  const basin = basinOf(ONE, ground);
  const bare = placed.stores([])[0];
  const way = (levelM: number, change: Partial<Outlet> = {}): Outlet => ({
    ...bare.outlets[0],
    id: `w${levelM}`,
    kind: 'sill',
    levelM,
    ...change,
  });
  const withWays = (...ways: Outlet[]): Store => placed.stores(ways)[0];
  const facts = (change: Partial<PondFacts> = {}, one: Pond = ONE): PondFacts => ({
    ...factsOf(site, { store: withWays(way(105.9), way(106.1)), storm: stormOf({ peakLevelM: 106 }) }),
    pond: one,
    ground,
    basin,
    earth,
    company: COMPANY,
    ...change,
  });
  const store = (change: Partial<Store>): Partial<PondFacts> => ({ store: { ...bare, ...change } });
  const tall = (m: number): Partial<PondFacts> => ({ earth: { ...earth, toeHeightM: m } });
  const near = (kind: string, away: number): PondFacts =>
    facts({ site: siteOf(site.grid, { features: [{ id: 'f', kind, at: [101, 81 - away] }] }) });
  const needed = freeboardNeeded(
    placed.figures(factsOf(site, { store: withWays(way(106)) }), new Worksheet('p')).find((f) => f.id === 'reachM')!.value!,
  );
  const outline = (v: number): Point[] => [
    [10, 81 - v],
    [192, 81 - v],
    [192, 192],
    [10, 192],
  ];
  const noEarth = facts({ earth: null });
  testSides<PondFacts>(POND_RULES, {
    'pond.foot-unknown': {
      at: () => facts({ earth: null }),
      found: () => null,
      limit: null,
      judged: [[0, 'unknown', /reaches both feet/]],
      silent: [facts(), facts({ earth: null, ground: { ...ground, wall: null } })],
    },
    'pond.freeboard': {
      at: (v) => facts({}, withAt(ONE, 'levels.crestM', 106 + v)),
      limit: needed,
      judged: [
        [needed - 0.02, 'mend', /Raise the crest by 20 mm/],
        [needed - 1e-6, 'mend'],
        [needed + 1e-6, 'fine'],
      ],
      cure: (v) => (v < needed ? { 'levels.crestM': 106 + needed } : undefined),
      silent: [facts({ storm: null }), facts({ ground: { ...ground, wall: null } })],
    },
    'pond.way-out': {
      at: (n) =>
        facts({ store: withWays(...Array.from({ length: n }, (_v, k) => way(105.5 + 0.1 * k, { kind: k === 0 ? 'rated' : 'sill' }))) }),
      limit: 2,
      judged: [
        [0, 'mend', /beside the wall/],
        [1, 'weigh', /second/],
        [2, 'fine'],
      ],
      silent: [facts({ store: null })],
    },
    'pond.auxiliary-height': {
      at: (v) => facts({ store: withWays(way(105, { exit: PIPED }), way(106.5 - v)) }),
      limit: 0.6,
      judged: [
        [-0.01, 'mend'],
        [0, 'weigh', /by 600 mm; many farms/],
        [0.5999, 'weigh'],
        [0.6001, 'fine'],
      ],
      cure: (v) => (v < 0.6 ? { 'levels.crestM': 106.5 - v + 0.6 } : undefined),
      silent: [facts({ store: null }), facts({ store: withWays(way(105, { exit: PIPED })) }), facts({ ground: { ...ground, wall: null } })],
    },
    'pond.pipe-below': {
      at: (v) => facts({ store: withWays(way(105.9), way(105.9 - v, { exit: PIPED, name: 'Pipe' })) }),
      limit: 0.15,
      judged: [
        [-0.05, 'weigh', /200 mm higher, or Pipe as much lower/],
        [0.1499, 'weigh'],
        [0.1501, 'fine'],
      ],
      cure: (v) => (v < 0.15 ? { 'levels.sillM': 105.9 - v + 0.15 } : undefined),
      silent: [facts({ store: null }), facts(), facts({ store: withWays(way(105, { exit: PIPED })) })],
    },
    'pond.ends': {
      at: (v) => facts({ ground: { ...ground, roundM: 106.5 + v } }),
      limit: 0,
      judged: [
        [-0.7, 'mend', /700 mm higher/],
        [-0.6001, 'mend'],
        [-0.5999, 'weigh'],
        [-0.0001, 'weigh'],
        [0, 'fine'],
      ],
      silent: [facts({ store: null }), facts({ ground: { ...ground, wall: null } })],
    },
    'pond.top-width': {
      at: (v) => facts(tall(2), withAt(ONE, 'dimensions.topWidthM', v)),
      limit: 1.8,
      judged: [
        [1.0799, 'mend', /1\.80 m wide/],
        [1.0801, 'weigh'],
        [1.7999, 'weigh'],
        [1.8, 'fine'],
      ],
      cure: (v) => (v < 1.8 ? { 'dimensions.topWidthM': 1.8 } : undefined),
      silent: [noEarth],
    },
    'pond.sides': {
      at: (v) => facts({}, { ...ONE, dimensions: { ...ONE.dimensions, waterSlopeHV: v - 2, backSlopeHV: 2 } }),
      limit: 5,
      judged: [
        [3.999, 'mend', /Flatten/],
        [4, 'weigh'],
        [4.999, 'weigh'],
        [5, 'fine'],
      ],
      cure: (v) => (v < 5 ? { 'dimensions.waterSlopeHV': 3, 'dimensions.backSlopeHV': 2 } : undefined),
      silent: [noEarth],
    },
    'pond.key': {
      at: (v) => facts({}, withAt(ONE, 'dimensions.keyDepthM', v)),
      limit: 0.6,
      judged: [
        [0.2999, 'mend', /a blade wide/],
        [0.3, 'weigh'],
        [0.5999, 'weigh'],
        [0.6, 'fine'],
      ],
      cure: (v) => (v < 0.6 ? { 'dimensions.keyDepthM': 0.6, 'dimensions.keyWidthM': Math.max(1, ONE.dimensions.keyWidthM) } : undefined),
      silent: [noEarth],
    },
    'pond.settlement': {
      at: (v) => facts({}, { ...ONE, settlementPercent: v }),
      limit: 5,
      judged: [
        [1.99, 'mend', /5 % higher/],
        [2, 'weigh'],
        [4.99, 'weigh'],
        [5, 'fine'],
      ],
      cure: (v) => (v < 5 ? { settlementPercent: 5 } : undefined),
      silent: [noEarth],
    },
    'pond.clay': {
      at: (v) => facts({}, { ...ONE, clayPercent: v }),
      limit: 20,
      judged: [
        [9.99, 'mend', /better earth/],
        [10, 'weigh'],
        [19.99, 'weigh'],
        [20, 'fine'],
      ],
      silent: [noEarth],
    },
    'pond.regulated': {
      at: (v) => facts({ ...tall(v), ...store({ heldM3: 100 }) }),
      limit: 3,
      judged: [
        [3, 'fine', /whether a permit/],
        [3.001, 'weigh', /engineer design it/],
        [14.99, 'weigh'],
        [15, 'mend', /large dams/],
      ],
      silent: [noEarth, facts({ store: null })],
    },
    'pond.losses': {
      at: (v) => facts({}, { ...ONE, seepageMmPerDay: v }),
      limit: 3,
      judged: [
        [3, 'fine'],
        [3.01, 'weigh', /burrow/],
        [10, 'weigh'],
        [10.01, 'mend'],
      ],
    },
    'pond.borrow': {
      at: (v) => facts({ basin: { ...basin, dugM3: (v * (earth.earthM3 + earth.keyM3)) / 0.9 - earth.keyM3 } }),
      found: (v) => (v * (earth.earthM3 + earth.keyM3)) / 0.9,
      limit: (earth.earthM3 + earth.keyM3) / 0.9,
      judged: [
        [0.5, 'weigh', /more from the pond/],
        [0.9499, 'weigh'],
        [0.9501, 'fine'],
      ],
      silent: [noEarth, facts({}, { ...ONE, borrow: 'elsewhere' })],
    },
    'pond.depth': {
      at: (v) => facts(store({ floorM: 0, wayOutM: v })),
      limit: 1.8,
      judged: [
        [1.799, 'weigh', /Deepen a quarter/],
        [1.8, 'fine', /Fence it/],
      ],
      silent: [facts({ store: null })],
    },
    'pond.catchment': {
      at: (v) => facts({ ...store({ waterM2: 500 }), catchment: { areaM2: 500 * v } as never }),
      limit: (v) => (v > 100 ? 100 : 10),
      judged: [
        [9.99, 'weigh', /more ground/],
        [10, 'fine'],
        [100, 'fine'],
        [100.1, 'weigh', /silt/],
      ],
      silent: [
        facts(),
        facts({ ...store({ waterM2: 0 }), catchment: { areaM2: 1 } as never }),
        facts({ store: null, catchment: { areaM2: 1 } as never }),
      ],
    },
    'pond.boundary-distance': {
      at: (v) => facts({ site: siteOf(site.grid, { outline: outline(v) }) }),
      limit: 3,
      judged: [
        [1.499, 'mend', /boundary/],
        [1.5, 'weigh'],
        [2.999, 'weigh'],
        [3, 'fine'],
      ],
      silent: [facts()],
    },
    'pond.tree-distance': {
      at: (v) => near('tree', v),
      limit: 5,
      judged: [
        [1.99, 'mend', /too near/],
        [2, 'weigh'],
        [4.99, 'weigh'],
        [5, 'fine'],
      ],
      silent: [facts(), near('well', 1), facts({ site: near('tree', 1).site }, { ...ONE, wall: undefined, pit: PIT })],
    },
    ...setbackCases('pond', near),
  });
  it('rules on levels and sources from memory are as listed; a pit keeps from the boundary by its own edge', () => {
    const ids = (which: (r: (typeof POND_RULES)[number]) => boolean | undefined) => POND_RULES.filter(which).map((r) => r.id).sort(); // prettier-ignore
    expect(ids((r) => r.isOfLevels)).toEqual(['pond.auxiliary-height', 'pond.ends', 'pond.freeboard', 'pond.pipe-below', 'pond.way-out']);
    expect(ids((r) => r.source.fromMemory)).toEqual(['pond.auxiliary-height', 'pond.catchment', 'pond.depth', 'pond.freeboard', 'pond.key', 'pond.pipe-below', 'pond.settlement', 'pond.sides', 'pond.top-width']); // prettier-ignore
    const boundary = POND_RULES.find((r) => r.id === 'pond.boundary-distance')!;
    const pit = (toM: number): PondFacts => facts({ site: siteOf(site.grid, { outline: [[10, 10], [100 + toM, 10], [100 + toM, 190], [10, 190]] }) }, { ...ONE, wall: undefined, pit: PIT }); // prettier-ignore
    expect([pit(2), pit(-1)].map((f) => judgeBy(boundary, f)?.value)).toEqual([expect.closeTo(2, 9), 0]);
  });
  const find = (id: string, on: PondFacts) =>
    judgeBy(
      POND_RULES.find((r) => r.id === id)!,
      on,
    );
  it('pipes alone are no way out, nor is one at the crest', () => {
    const pipe = way(105.5, { kind: 'rated', exit: { at: [0, 0], slope: 0.1, widthM: 0.2, shape: 'pipe' } });
    const piped = find('pond.way-out', facts({ store: withWays(pipe, { ...pipe, id: 'p2' }) }));
    expect(piped).toMatchObject({ value: 2, severity: 'mend' });
    expect(words(piped?.do)).toMatch(/Pipes clog/);
    expect(find('pond.way-out', facts({ store: withWays(pipe, way(106)) }))?.severity).toBe('fine');
    expect(find('pond.way-out', facts({ store: withWays(way(106.5)) }))?.value).toBe(0);
    expect(find('pond.way-out', facts({ store: withWays({ ...pipe, kind: 'joint' }) }))?.value).toBe(0);
  });
  it('a side steeper than 2 to 1 or a narrow key is told whatever the rest', () => {
    expect(find('pond.sides', facts({}, { ...ONE, dimensions: { ...ONE.dimensions, waterSlopeHV: 4, backSlopeHV: 1.99 } }))?.severity).toBe(
      'mend',
    );
    const narrow = find('pond.key', facts({}, withAt(ONE, 'dimensions.keyWidthM', 0.99)));
    expect([narrow?.severity, words(narrow?.do)]).toEqual(['weigh', expect.stringMatching(/a blade wide/)]);
    expect(find('pond.key', facts({}, withAt(ONE, 'dimensions.keyWidthM', 1)))?.severity).toBe('fine');
  });
  it('clay nobody has tested is unknown', () => {
    const untested: Pond = { ...ONE, clayPercent: undefined };
    expect(find('pond.clay', facts({}, untested))).toMatchObject({ severity: 'unknown', value: null, limit: 20 });
  });
  it('names the law a wall passes, height and water together', () => {
    const at = (heightM: number, heldM3: number) => find('pond.regulated', facts({ ...tall(heightM), ...store({ heldM3 }) }));
    for (const [heightM, heldM3, law] of [
      [1.83, 61_700, 'United States'],
      [7.62, 18_500, 'United States'],
      [0.5, 10_000, 'Wales'],
      [15, 5, 'large dams'],
    ] as const)
      expect([at(heightM, heldM3)?.severity, words(at(heightM, heldM3)?.do)]).toEqual(['mend', expect.stringContaining(law)]);
    expect(at(2, 9999)?.severity).toBe('fine');
    expect(at(7.62, 9999)?.severity).toBe('weigh');
  });
  it('with no sill, ground beside the wall at its crest is to mend only where it lies lower', () => {
    const at = (roundM: number) => find('pond.ends', facts({ store: withWays(), ground: { ...ground, roundM } }))?.severity;
    expect([at(106.49), at(106.5), at(106.51)]).toEqual(['mend', 'mend', 'fine']);
  });
  it('a wall or pit across the boundary is at no distance from it', () => {
    const across = facts({ site: siteOf(site.grid, { outline: outline(-1) }) });
    expect(find('pond.boundary-distance', across)).toMatchObject({ value: 0, severity: 'mend' });
    const pit = { ...ONE, pit: PIT.map(([x, y]): Point => [x, y + 60]) };
    expect(find('pond.boundary-distance', facts({ site: siteOf(site.grid, { outline: outline(30) }) }, pit))?.value).toBe(0);
  });
  it('freeboard grows with open water: what waves run up, and never less than a foot', () => {
    expect(freeboardNeeded(0)).toBeGreaterThanOrEqual(0.3);
    for (let reach = 10; reach < 1000; reach += 30) expect(freeboardNeeded(reach + 30)).toBeGreaterThanOrEqual(freeboardNeeded(reach));
  });
});
