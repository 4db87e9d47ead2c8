import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, setbackCases, siteOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { judgeBy } from '../rules.ts';
import { lowered, measureBed } from '../bed.ts';
import type { DamsFacts } from './checks.ts';
import { DAMS_RULES, type CheckDams, type Dam, checkDams } from './index.ts';
import { stoneOf } from './stone.ts';
import { standingDams, storesOf } from './store.ts';

const LINE: Line = [
  [50, 90],
  [50, 30],
];
const GULLY = siteOf(gridOf((x, y) => 0.1 * y + Math.min(1.5, Math.max(0, Math.abs(x - 50) - 0.5)), { cells: 201, cellM: 0.5 }));
const dam = (atM: number, change: Partial<Dam> = {}): Dam => ({ atM, heightM: 0.6, bedWidthM: 1, bankWidthM: 4, depthM: 1.5, ...change });
const ROCK: CheckDams = {
  id: 'dams',
  kind: 'check-dams',
  name: 'Gully',
  status: 'planned',
  line: LINE,
  form: 'rock',
  dams: [dam(54), dam(60)],
  dimensions: {
    notchDepthM: 0.3,
    notchWidthM: 1,
    crestWidthM: 0.5,
    upSlopeHV: 1.25,
    downSlopeHV: 2,
    pieceM: 0.3,
    sideKeyM: 0.6,
    bedKeyM: 0.3,
    apronM: 1.1,
  },
  labour: { m3PerDay: 1, carryM: 50 },
};
const facts = (work: CheckDams = ROCK, change: Partial<DamsFacts> = {}, site = GULLY): DamsFacts => {
  const bed = lowered(measureBed(work.line, site), 0);
  const dams = standingDams(work, bed);
  const stores = storesOf(work, bed);
  const storm = stormOf({ peakInM3s: 0.1 });
  return {
    ...factsOf(site, { store: stores[0], storm, others: stores.map((store) => ({ store, storm })), designPeakM3s: 0.1 }),
    work,
    bed,
    channel: null,
    dams,
    needsM3: (one) => stoneOf(work, one).allM3,
    ...change,
  };
};
const with_ = (path: string, value: unknown, of = ROCK): DamsFacts => facts(withAt(of, path, value));
const ofDam = (change: Partial<Dam>, of = ROCK): DamsFacts => facts({ ...of, dams: [dam(54), dam(60, change)] });
/** The lower dam so far down that the pool of it ends so much below the foot of the upper. */
const bare = (m: number): DamsFacts => facts({ ...ROCK, dams: [dam(54 - 10 * m), dam(60)] });
/** A channel measured along the same line. */
const CHANNEL = { work: 'reach', line: LINE, fromM: 0, toM: 60, isMeasured: true, bedAt: (m: number) => 9 - 0.1 * m, acrossAt: () => ({ bedWidthM: 1, bankWidthM: 4, depthM: 1.5 }) }; // prettier-ignore
/** A peak that stands so deep in the notch. */
const deep = (headM: number): DamsFacts => {
  const peak = 1.65 * headM ** 1.5;
  const { store, others } = facts();
  const storm = stormOf({ peakInM3s: peak });
  return facts(ROCK, { designPeakM3s: peak, storm, store, others: others!.map((o) => ({ ...o, storm })) });
};
const onSlope = (slope: number): DamsFacts =>
  facts({ ...ROCK, dams: [dam(60)] }, {}, siteOf(gridOf((_x, y) => slope * y, { cells: 201, cellM: 0.5 })));
/** One place of the bed stands so much over the place before it. */
const bump = (m: number): DamsFacts => {
  const on = facts();
  const bedM = on.bed.bedM.slice();
  bedM[20] = bedM[19] + m;
  return { ...on, bed: { ...on.bed, bedM } };
};
const near = (kind: string, away: number): DamsFacts =>
  facts(ROCK, { site: siteOf(GULLY.grid, { features: [{ id: 'f', kind, at: [50 + away, 60] }] }) });
const noStorm = facts(ROCK, { designPeakM3s: null, storm: null, store: null, others: [] });
/** What both dams take, so that as much or less lies near. */
const NEEDS = standingDams(ROCK, measureBed(LINE, GULLY)).reduce((a, one) => a + stoneOf(ROCK, one).allM3, 0);

describe('rules on check dams', () => {
  testSides<DamsFacts>(DAMS_RULES, {
    'check-dams.height': {
      at: (v) => ofDam({ heightM: v }),
      limit: 1,
      judged: [
        [1, 'fine'],
        [1.01, 'weigh', /loose stone to 1\.00 m, and put one more between \(dam 2\)/],
      ],
    },
    // Silt lies at seven tenths of a tenth: over 6 m and what is bare, 0.42 m and more.
    'check-dams.sight': {
      at: bare,
      judged: [
        [0, 'fine'],
        [1.4, 'fine'],
        [1.5, 'weigh', /Dam 2 ends its pool 1500 mm below the foot of the one above/],
        [5, 'mend'],
      ],
      silent: [facts({ ...ROCK, dams: [dam(60)] })],
    },
    'check-dams.ends': {
      at: (v) => with_('dimensions.notchDepthM', v),
      limit: 0.3,
      judged: [
        [0.149, 'mend', /151 mm higher/],
        [0.15, 'weigh'],
        [0.299, 'weigh'],
        [0.3, 'fine'],
      ],
    },
    'check-dams.in-reach': {
      at: (v) => facts(ROCK, { channel: { ...CHANNEL, toM: v === 0 ? 60 : v === 1 ? 59 : 50 } }),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'mend', /measure the channel further/],
        [2, 'mend'],
      ],
      silent: [facts()],
    },
    'check-dams.notch': {
      at: deep,
      limit: 0.3,
      judged: [
        [0.2999, 'fine'],
        [0.3001, 'weigh', /Widen the notch to 1\.0\d m, which is more than the bed/],
        [0.3749, 'weigh'],
        [0.3751, 'mend'],
      ],
      silent: [noStorm],
    },
    'check-dams.in-channel': {
      at: (v) => ofDam({ depthM: 0.9 + v }),
      limit: 0,
      judged: [
        [-0.101, 'mend', /101 mm lower, or its ends \(dam 2\)/],
        [-0.099, 'weigh'],
        [0.001, 'fine'],
      ],
    },
    'check-dams.side-key': {
      at: (v) => with_('dimensions.sideKeyM', v),
      limit: 0.6,
      judged: [
        [0.299, 'mend', /Dig it 0\.60 m into both banks\./],
        [0.3, 'weigh'],
        [0.599, 'weigh'],
        [0.6, 'fine'],
      ],
    },
    'check-dams.bed-key': {
      at: (v) => with_('dimensions.bedKeyM', v),
      limit: 0.3,
      judged: [
        [0.149, 'mend', /0\.30 m into the bed/],
        [0.15, 'weigh'],
        [0.299, 'weigh'],
        [0.3, 'fine'],
      ],
    },
    'check-dams.apron': {
      at: (v) => with_('dimensions.apronM', v),
      limit: 0.9,
      judged: [
        [0.449, 'mend', /Lay an apron 0\.90 m long/],
        [0.451, 'weigh'],
        [0.899, 'weigh'],
        [0.9, 'fine'],
      ],
    },
    'check-dams.crest-width': {
      at: (v) => with_('dimensions.crestWidthM', v),
      limit: 0.5,
      judged: [
        [0.299, 'mend', /Make its crest 0\.50 m wide/],
        [0.301, 'weigh'],
        [0.499, 'weigh'],
        [0.5, 'fine'],
      ],
      silent: [facts({ ...ROCK, form: 'log' })],
    },
    // A log of 0.3 m: 70.7 kg of water lifts each metre, it weighs 42.4 kg; at four fifths 45.9 kg must hold it.
    'check-dams.floats': {
      at: (v) => with_('dimensions.heldKgM', v, { ...ROCK, form: 'log' }),
      found: (v) => (0.0225 * Math.PI * 1000) / (0.0225 * Math.PI * 600 + v),
      limit: 0.8,
      judged: [
        [46, 'fine'],
        [45.9, 'weigh', /Hold each log down with 46 kg\/m: more stakes/],
        [28.3, 'weigh'],
        [28.2, 'mend'],
      ],
      silent: [facts(), facts({ ...ROCK, form: 'sandbag' })],
    },
    // 0.1 m3/s over a metre: (9.81 · 0.1)^(1/3) = 0.994 m/s; 0.994² / (2 · 9.81 · 0.86² · 1.65) = 41 mm.
    'check-dams.stone': {
      at: (v) => with_('dimensions.pieceM', v),
      limit: (9.81 * 0.1) ** (2 / 3) / (2 * 9.81 * 0.86 ** 2 * 1.65),
      judged: [
        [0.0329, 'mend', /stone of 42 mm/],
        [0.0331, 'weigh'],
        [0.0411, 'weigh'],
        [0.0413, 'fine'],
      ],
      silent: [noStorm, facts({ ...ROCK, form: 'log' })],
    },
    'check-dams.gradient': {
      at: onSlope,
      limit: 0.2,
      judged: [
        [0.19, 'fine'],
        [0.21, 'weigh', /chute or masonry steps there;/],
        [0.31, 'mend'],
      ],
    },
    'check-dams.rises': {
      at: bump,
      judged: [
        [0.1, 'fine'],
        [0.2, 'weigh', /draw it along the lowest of the channel/],
        [0.6, 'mend'],
      ],
    },
    'check-dams.measured': {
      at: (n) => facts({ ...ROCK, dams: [dam(54, { isMeasured: n > 0 }), dam(60, { isMeasured: n > 1 })] }),
      limit: 2,
      judged: [
        [2, 'fine'],
        [1, 'unknown', /paste them on its sheet/],
      ],
    },
    'check-dams.condition': {
      at: (v) => ofDam({ lostPercent: v }),
      limit: 5,
      judged: [
        [5, 'fine'],
        [5.1, 'weigh', /before the next rain \(dam 2\)/],
        [25, 'weigh'],
        [25.1, 'mend'],
      ],
    },
    'check-dams.silted': {
      at: (v) => ofDam({ siltedPercent: v }),
      limit: 80,
      judged: [
        [80, 'fine'],
        [81, 'weigh', /Plant the silt/],
      ],
    },
    'check-dams.stone-near': {
      at: (v) => facts({ ...ROCK, dams: [dam(54, { rockNearM3: 0 }), dam(60, { rockNearM3: (v / 100) * NEEDS })] }),
      limit: 100,
      judged: [
        [49.9, 'mend', /must be carried in.*Never prise stone from the slope/],
        [50.1, 'weigh'],
        [99.9, 'weigh'],
        [100.1, 'fine'],
      ],
      silent: [facts(), facts({ ...ROCK, form: 'log', dams: [dam(60, { rockNearM3: 1 })] })],
    },
    ...setbackCases('check-dams', near),
  });
  const find = (id: string, on: DamsFacts) =>
    judgeBy(
      DAMS_RULES.find((r) => r.id === id)!,
      on,
    );
  it('asks what holds a dam of wood until somebody says it, for the highest of brush', () => {
    // 0.6 m high: 0.5 · 0.6 + 3.25 · 0.36 / 2 = 0.885 m2; of 150 kg/m3 a quarter is wood: 221 kg lift, 133 kg weigh.
    const brush: CheckDams = { ...ROCK, form: 'brush', dams: [dam(54, { heightM: 0.4 }), dam(60)] };
    const unknown = find('check-dams.floats', facts(brush));
    expect(unknown).toMatchObject({ value: null, severity: 'unknown', cure: { set: { 'dimensions.heldKgM': 144 } } });
    expect(words(unknown?.do)).toMatch(/^Hold it down with 144 kg\/m, or say what stakes, posts and wire hold\.$/);
    expect(find('check-dams.floats', with_('dimensions.heldKgM', 0, brush))?.value).toBeCloseTo(1000 / 600, 9);
    expect(find('check-dams.floats', with_('dimensions.heldKgM', 144, brush))?.severity).toBe('fine');
  });
  it('asks for a longer apron on a steep bed, for its highest dam', () => {
    expect(find('check-dams.apron', facts({ ...ROCK, dams: [dam(54), dam(60, { heightM: 0.8 })] }))?.limit).toBeCloseTo(1.2, 9);
    expect(find('check-dams.apron', onSlope(0.16))?.limit).toBeCloseTo(1.05, 9);
  });
  it('widens the notch where the bed has room for it, by the dam that has most to pass', () => {
    const wide: CheckDams = { ...ROCK, dams: [dam(54, { bedWidthM: 3 }), dam(60, { bedWidthM: 3 })] };
    const on = facts(wide);
    const [first, second] = on.others!;
    const peaks = { ...on, others: [first, { ...second, storm: stormOf({ peakInM3s: 0.5 }) }] };
    const found = find('check-dams.notch', peaks);
    expect(found?.value).toBeCloseTo((0.5 / 1.65) ** (2 / 3), 9);
    expect(found?.cure).toMatchObject({ work: 'dams', set: { 'dimensions.notchWidthM': 1.845 } });
    expect(words(found?.do)).toMatch(/^Widen the notch to 1\.84 m\.$/);
    expect(deepest(peaks)).toBe(2);
  });
  it('is told of one dam without its number', () => {
    const gone = (form: CheckDams['form']): string =>
      words(find('check-dams.condition', facts({ ...ROCK, form, dams: [dam(60, { lostPercent: 50 })] }))?.do);
    expect(gone('rock')).toMatch(/^Lay its stone back .* next rain\.$/);
    expect(gone('brush')).toMatch(/^Drive its stakes anew .* next rain\.$/);
  });
  it('has a formula list of its own', () => {
    expect(checkDams.formulas.map((f) => f.id)).toEqual([
      'check-dams.sight-spacing',
      'check-dams.gully-spacing',
      'check-dams.wedge',
      'check-dams.body',
      'check-dams.floats',
    ]);
  });
});

/** How many dams pass more than a tenth of a cubic metre a second, counted from the upper. */
const deepest = ({ others = [] }: DamsFacts): number => others.findIndex((o) => (o.storm?.peakInM3s ?? 0) > 0.1) + 1;
