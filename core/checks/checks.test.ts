// Rules on overflow, on one store among others and where water leaves, at both sides of their limits, and the arithmetic they share.
import { describe, expect, it } from '@jest/globals';
import type { Feature, LinkFlow, Outlet, Store, Traits, WorkBase } from '../contract/index.ts';
import type { Line } from '../geometry/index.ts';
import { linkOf, stormOf, testSides, words } from '../testing/rules.ts';
import { judgeBy } from '../works/rules.ts';
import {
  EXIT_RULES,
  type ExitFacts,
  NETWORK_RULES,
  type StoreFacts,
  WAY_RULES,
  type WayFacts,
  checkExit,
  checkStore,
  checkWay,
  chosenOutlets,
  headAlone,
  nearestOnWay,
  stepAbove,
} from './index.ts';

const path: LinkFlow['path'] = [
  [0, 100, 9],
  [0, 50, 5],
  [0, 0, 0],
];
const ring = (x: number, y: number): Line => [
  [x, y],
  [x + 4, y],
  [x + 4, y + 4],
  [x, y + 4],
];
const thing = (kind: string, shape: Partial<Feature>): readonly Feature[] => [{ id: 'f', kind, ...shape }];

describe('where overflow goes', () => {
  const link: LinkFlow = { ...linkOf('s1', 0.5, 'property-edge'), path };
  const facts = (change: Partial<WayFacts> = {}): WayFacts => ({
    missing: [],
    link,
    name: 'Sill',
    features: [],
    peakWithoutM3s: 0.4,
    ...change,
  });
  const beside = (kind: string) => (v: number) => facts({ features: thing(kind, { ring: ring(v, 48) }) });
  const receptor = (kind: string, [mend, weigh]: readonly [number, number]) => ({
    at: beside(kind),
    limit: weigh,
    judged: [
      [mend - 0.001, 'mend' as const],
      [mend, 'weigh' as const],
      [weigh - 0.001, 'weigh' as const],
      [weigh, 'fine' as const],
    ] as const,
    silent: [facts(), facts({ features: thing('building', { ring: ring(1, 48) }) })],
  });
  testSides<WayFacts>(WAY_RULES, {
    'way.neighbour': {
      at: (v) => facts({ link: { ...link, peakM3s: v } }),
      limit: 0.4,
      judged: [
        [0, 'fine', /^Nothing in this storm/],
        [0.4, 'weigh', /Less than before/],
        [0.4001, 'weigh', /More than before/],
      ],
      silent: [facts({ link: { ...link, to: 'ground' } }), facts({ link: { ...link, peakM3s: null } })],
    },
    'way.building': {
      at: beside('building'),
      limit: 5,
      judged: [
        [1.999, 'mend', /clear of the building/],
        [2, 'weigh'],
        [4.999, 'weigh'],
        [5, 'fine'],
      ],
      silent: [facts(), facts({ link: { ...link, path: [] }, features: thing('building', { ring: ring(1, 48) }) }), beside('well')(1)],
    },
    'way.terrain-edge': {
      at: () => facts({ link: { ...link, to: 'terrain-edge' } }),
      found: () => 1,
      limit: 0,
      judged: [[1, 'weigh', /outline/]],
      silent: [facts()],
    },
    'way.well': receptor('well', [5, 15]),
    'way.septic': receptor('septic', [5, 15]),
    'way.pool': receptor('pool', [1, 5]),
    'way.road': {
      at: beside('road'),
      limit: 2,
      judged: [
        [0.001, 'weigh', /hard dip/],
        [1.999, 'weigh'],
        [2, 'fine'],
      ],
      silent: [facts()],
    },
  });
  const find = (id: string, on: WayFacts) =>
    judgeBy(
      WAY_RULES.find((r) => r.id === id)!,
      on,
    );
  it('says where, and what is not known of before', () => {
    expect(find('way.neighbour', facts())?.at).toEqual([0, 0]);
    expect(find('way.neighbour', facts({ link: { ...link, path: [] } }))?.at).toBeNull();
    expect(words(find('way.neighbour', facts({ peakWithoutM3s: null }))?.do)).toMatch(/not known/);
    expect(find('way.building', beside('building')(3))?.at).toEqual([0, 50]);
    expect(find('way.road', facts({ features: thing('track', { line: [[-5, 50], [5, 50]] }) }))).toMatchObject({ value: 0, at: [0, 50] }); // prettier-ignore
    const two = [...thing('well', { at: [9, 50] }), ...thing('well', { at: [4, 0] })];
    expect(find('way.well', facts({ features: two }))).toMatchObject({ value: 4, at: [0, 0] });
    expect(find('way.terrain-edge', facts({ link: { ...link, to: 'terrain-edge' } }))?.at).toEqual([0, 0]);
  });
  it('is filed under the work it leaves', () => {
    expect(checkWay(facts({ link: { ...link, role: 'through' } }))).toEqual([]);
    const checks = checkWay(facts({ link: { ...link, outlet: 'w1#bank', work: 'w1' } }));
    expect(checks.map((c) => [c.id, c.on])).toEqual([['way.neighbour', 'w1']]);
  });
  it('the nearest place of a way to a ring, a line or a point', () => {
    const near = (shape: Partial<Feature>) => nearestOnWay(path, { id: 'f', kind: 'x', ...shape });
    expect(near({ ring: ring(3, -2) })).toEqual({ distanceM: 3, at: [0, 0] });
    expect(near({ line: [[7, 0], [7, 200]] })).toEqual({ distanceM: 7, at: [0, 100] }); // prettier-ignore
    expect(near({ at: [3, 104] })).toEqual({ distanceM: 5, at: [0, 100] });
    expect(near({})).toBeNull();
  });
});

describe('one store among others', () => {
  const law =
    (levelM: number) =>
    (at: number): number =>
      1.5 * 4 * Math.max(0, at - levelM) ** 1.5;
  const out = (levelM: number, change: Partial<Outlet> = {}): Outlet => ({
    id: `o${levelM}`,
    role: 'way',
    work: `o${levelM}`,
    name: `Way ${levelM}`,
    kind: 'rated',
    levelM,
    dischargeAt: [0, 0],
    flowAt: law(levelM),
    ...change,
  });
  const store: Store = {
    id: 'p',
    work: 'p',
    name: 'Pond',
    floorM: 0,
    sillM: 1,
    wayOutM: 1,
    crestM: 2,
    heldM3: 100,
    stage: { levelM: Float64Array.of(0, 1, 2, 3), volumeM3: Float64Array.of(0, 100, 300, 700), wettedM2: Float64Array.of(1, 1, 1, 1) },
    outlets: [out(1), out(2, { kind: 'bank' })],
  };
  const WALL: Traits = { retains: 'wall', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: true, wayOut: null };
  const work = (status: WorkBase['status'] = 'planned', retains: Traits['retains'] = 'wall'): StoreFacts['work'] => ({
    status,
    traits: { ...WALL, retains },
  });
  const facts = (change: Partial<StoreFacts> = {}): StoreFacts => ({
    missing: [],
    store,
    work: work(),
    works: new Map([
      ['o1', work('planned', 'none')],
      ['q', work()],
    ]),
    stores: new Map([['p', store]]),
    storm: stormOf(),
    designPeakM3s: 0.1,
    links: [{ ...linkOf('o1', 0.1), path }],
    features: [],
    readyH: null,
    ...change,
  });
  /** A second way out so much above the first, and a head on the first of so much. */
  const stepped = (v: number, headM = 0.2, change: Partial<Outlet> = {}): StoreFacts =>
    facts({
      store: { ...store, outlets: [out(1, change), out(1 + v, { id: 'second', kind: 'sill' }), out(2, { kind: 'bank' })] },
      storm: stormOf({ peakOutM3s: 1.5 * 4 * headM ** 1.5 }),
    });
  const built = (status: WorkBase['status']): StoreFacts => facts({ work: work('built'), works: new Map([['o1', work(status, 'none')]]) });
  const wall = (crestM: number): StoreFacts => {
    const joint = out(0.5, { kind: 'joint', to: 'q', drownsM: 0 });
    return facts({ store: { ...store, outlets: [...store.outlets, joint] }, stores: new Map([['q', { ...store, work: 'q', crestM }]]) });
  };
  const house = (x: number): Partial<StoreFacts> => ({ features: thing('building', { ring: ring(x, 48) }) });
  /** A store below that has room for so much between its way out and its crest. */
  const below = (heldM3: number, change: Partial<Store> = {}): StoreFacts =>
    facts({
      store: { ...store, heldM3 },
      links: [linkOf('o1', 0.1, 'q')],
      stores: new Map([['q', { ...store, work: 'q', floorM: -5, ...change }]]),
    });
  testSides<StoreFacts>(NETWORK_RULES, {
    'network.spill-order': {
      at: (v) => stepped(v),
      limit: 0.2,
      judged: [
        [0.0499, 'mend', /Set Way 1\.0\d+ 150 mm higher than it is, or Way 1 as much lower/],
        [0.0501, 'weigh'],
        [0.1999, 'weigh'],
        [0.2001, 'fine'],
      ],
      silent: [
        facts(),
        { ...stepped(0.1), storm: null },
        stepped(0.1, 0.2, { kind: 'sill' }),
        stepped(0.1, 0.2, { role: 'round' }),
        stepped(0.1, 0.2, { role: 'through' }),
        stepped(0.1, 0.2, { exit: { at: [0, 0], slope: 0, widthM: 1, shape: 'pipe' } }),
      ],
    },
    'network.way-out-built': {
      at: (n) => built(n > 0 ? 'built' : 'planned'),
      limit: 1,
      judged: [
        [0, 'mend', /rough level way out/],
        [1, 'fine'],
      ],
      silent: [facts(), facts({ work: work('pegged') })],
    },
    'network.bank-before-wall': {
      at: (v) => wall(2 + v),
      limit: 0.05,
      judged: [
        [-0.1, 'mend', /by 150 mm, or raise the crest of Pond/],
        [0, 'mend'],
        [0.0199, 'mend'],
        [0.0201, 'weigh'],
        [0.0499, 'weigh'],
        [0.0501, 'fine'],
      ],
      silent: [facts(), { ...wall(2), stores: new Map() }],
    },
    'network.ready-again': {
      at: (v) => facts({ readyH: v }),
      limit: 24,
      judged: [
        [24, 'fine'],
        [24.01, 'weigh', /low pipe/],
        [72, 'weigh'],
        [72.01, 'mend'],
      ],
      silent: [facts(), facts({ readyH: 99, store: { ...store, outlets: [out(2, { kind: 'bank' })] } })],
    },
    'network.led-uphill': {
      // Its way out at 1; the one it is led to stands so much lower.
      at: (v) =>
        facts({ links: [{ ...linkOf('o1', 0.1, 'q'), lengthM: 0 }], stores: new Map([['q', { ...store, id: 'q', wayOutM: 1 - v }]]) }),
      limit: 0.1,
      judged: [
        [-0.001, 'mend', /rise/],
        [0.001, 'weigh'],
        [0.099, 'weigh'],
        [0.101, 'fine'],
      ],
      silent: [facts(), facts({ links: [{ ...linkOf('o1', 0.1, 'q'), lengthM: 30 }], stores: new Map([['q', { ...store, wayOutM: 9 }]]) })],
    },
    'network.house-below': {
      at: (v) => facts(house(v)),
      found: (v) => (v < 40 ? 50 : 600),
      limit: 600,
      judged: [
        [39.999, 'mend', /licensed engineer/],
        [40, 'fine', /^Nothing within the map/],
      ],
      silent: [
        facts(),
        facts({ ...house(1), links: [] }),
        facts({ ...house(1), work: work('planned', 'bank') }),
        facts({ ...house(1), work: work('planned', 'none') }),
        facts({ ...house(1), store: { ...store, heldM3: 49.9 } }),
      ],
    },
    'network.wall-below': {
      at: (v) => below(v),
      limit: 200,
      judged: [
        [200, 'fine'],
        [200.1, 'weigh', /room for 200 m³/],
      ],
      silent: [
        facts(),
        { ...below(900), work: work('planned', 'bank') },
        below(900, { floorM: 0 }),
        { ...below(900), stores: new Map() },
        { ...below(900), works: new Map() },
      ],
    },
  });
  const find = (id: string, on: StoreFacts) =>
    judgeBy(
      NETWORK_RULES.find((r) => r.id === id)!,
      on,
    );
  it('ways out that were made are told lowest first, equal ones by their id', () => {
    const ways = chosenOutlets({
      outlets: [out(2), out(1, { id: 'b' }), out(1, { id: 'a', kind: 'sill' }), out(0, { kind: 'bank' }), out(0, { kind: 'joint' })],
    });
    expect(ways.map((o) => o.id)).toEqual(['a', 'b', 'o2']);
  });
  it('head is the law turned round; a step is never under 50 mm', () => {
    expect(headAlone(out(3), 1.5 * 4 * 0.3 ** 1.5)).toBeCloseTo(0.3, 9);
    expect(headAlone(out(3), 1e9)).toBeCloseTo(2, 9);
    expect(stepAbove(out(3), 1.5 * 4 * 0.3 ** 1.5)).toBeCloseTo(0.3, 9);
    expect(stepAbove(out(3), 0)).toBe(0.05);
  });
  it('the worst of several steps is told', () => {
    const ways = [out(1), out(1.3, { id: 'b' }), out(1.34, { id: 'c' })];
    const many = { ...stepped(0.1, 0.1), store: { ...store, outlets: ways } };
    expect(find('network.spill-order', many)).toMatchObject({ value: expect.closeTo(0.04, 9), severity: 'mend' });
  });
  it('a way out is set higher by the decision it stands by', () => {
    const by = (change: Partial<Outlet>) => {
      const outlets = [out(1), out(1.1, { id: 'second', ...change })];
      return find('network.spill-order', { ...stepped(0.1), store: { ...store, outlets } })?.cure?.set;
    };
    expect(Object.keys(by({ levelBy: 'levels.notchM' }) ?? {})).toEqual(['levels.notchM']);
    expect(Object.keys(by({}) ?? {})).toEqual(['levels.sillM']);
    expect(by({ role: 'over' })).toBeUndefined();
  });
  it('a house is looked for as far as six hundred metres down', () => {
    const far = (y: number) => find('network.house-below', facts({ links: [{ ...linkOf('o1', 1), path: [[0, 0, 9], [0, -y, 0]] }], features: thing('building', { ring: ring(3, -y) }) })); // prettier-ignore
    expect([far(600)?.value, far(601)?.severity]).toEqual([600, 'fine']);
    // Of two the nearer, whichever way leads there and whichever was drawn first.
    const path = [[0, 0, 9], [0, -100, 8], [0, -300, 7]] as const; // prettier-ignore
    const links = ['o1', 'o2'].map((id) => ({ ...linkOf(id, 1), path }));
    for (const [a, b] of [
      [-300, -100],
      [-100, -300],
    ]) {
      const features = [...thing('building', { ring: ring(3, a) }), ...thing('building', { ring: ring(3, b) })];
      expect(find('network.house-below', facts({ links, features }))).toMatchObject({ value: 100, at: [0, -100] });
    }
    expect(find('network.house-below', facts({ ...house(1), store: { ...store, heldM3: 50 } }))?.severity).toBe('mend');
  });
  it('an existing store needs a way out that is there; one that leads into itself is none below', () => {
    expect(find('network.way-out-built', { ...built('existing'), work: work('existing') })?.severity).toBe('fine');
    expect(find('network.wall-below', { ...below(900), links: [linkOf('o1', 0.1, 'p')], works: new Map([['p', work()]]) })).toBeNull();
  });
  it('is filed under its own work', () => {
    for (const check of checkStore(stepped(0.1))) expect(check.on).toBe('p');
  });
});

describe('where water leaves', () => {
  const at = (v: number): ExitFacts => ({ id: 'e', at: [1, 2], withoutM3s: 1, withM3s: v });
  testSides<ExitFacts>(EXIT_RULES, {
    'network.exit-peak': {
      at,
      limit: 1,
      judged: [
        [0.5, 'fine'],
        [1.0101, 'fine'],
        [1.0102, 'weigh', /more than with nothing built/],
        [1.101, 'weigh'],
        [1.1011, 'mend'],
      ],
    },
  });
  it('is told at its place', () => {
    expect(checkExit(at(2))).toMatchObject([{ id: 'network.exit-peak', on: 'e', at: [1, 2] }]);
  });
  it('says how much leaves where how much did', () => {
    const [check] = checkExit({ ...at(0.42), withoutM3s: 0.012 });
    expect(check.title.replace(/\s/g, ' ')).toBe('420 L/s leaves where 12 L/s did');
  });
});
