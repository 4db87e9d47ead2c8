import { describe, expect, it } from '@jest/globals';
import type { Host, WorkBase } from '../../contract/index.ts';
import { coverOf } from '../../ground/index.ts';
import { begunBy, COMPANY, expectFields, HOST, hostOf, NO_TRAITS, onHost, SITE, wrong } from '../../testing/guests.ts';
import { grassedHead } from '../../hydraulics/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { SILL } from '../../testing/projects.ts';
import { factsOf, siteOf, soilOf, stormOf, testSides, words } from '../../testing/rules.ts';
import { judgeBy } from '../rules.ts';
import type { SillFacts } from './checks.ts';
import { type SillGround, measureSill } from './ground.ts';
import { type LevelSill, SILL_RULES, levelSill, sizeSill } from './index.ts';

const ONE: LevelSill = { ...SILL, levels: { sillM: 0 } };
const GROUND = measureSill(ONE, SITE, HOST);
const GRASS = coverOf('pasture-fair');

describe('a level sill', () => {
  const { placed, figure, formulas } = onHost(levelSill, ONE);
  const [outlet] = placed.outlets;
  it('lets water out by Q = C L H^1.5, none at its level, and is felt from below once water there stands over it', () => {
    expect(outlet.flowAt(0)).toBe(0);
    expect(outlet.flowAt(-0.1)).toBe(0);
    expect(outlet.flowAt(0.1)).toBeCloseTo(1.5 * 6 * 0.1 ** 1.5, 12);
    expect(outlet.flowAt(0.2)).toBeCloseTo(1.5 * 6 * 0.2 ** 1.5, 12);
    expect(outlet.flowAt(0.2, -1)).toBe(outlet.flowAt(0.2));
    // Villemonte: (1 - (H2/H1)^1.5)^0.385.
    expect(outlet.flowAt(0.2, 0.1) / outlet.flowAt(0.2)).toBeCloseTo((1 - 0.5 ** 1.5) ** 0.385, 9);
    expect(outlet.flowAt(0.1, 0.2)).toBeCloseTo(-outlet.flowAt(0.2, 0.1), 12);
    expect(outlet).toMatchObject({ id: 's1', work: 's1', name: 'East', kind: 'sill', levelM: 0, drownsM: 0 });
  });
  it('stands on its host’s line, with its ends along it and its water let go beyond the crest', () => {
    expect(GROUND.at).toEqual([152, 101]);
    expect(GROUND.ends).toEqual([
      [149, 101],
      [155, 101],
    ]);
    expect([GROUND.groundM, GROUND.hostLengthM]).toEqual([0, 140]);
    // Crest of 1 m and a cell of 2 m beyond the line; the slope is that of the ten metres below the crest.
    expect(GROUND.dischargeAt).toEqual([152, 98]);
    expect(GROUND.slopeBelow).toBeCloseTo(0.1, 6);
    expect(outlet.exit).toEqual({ at: [152, 98], slope: GROUND.slopeBelow, widthM: 6, shape: 'sheet', isFelt: true });
    // A hard lip stands clear of the grass below it.
    expect(onHost(levelSill, { ...ONE, crest: 'hard' }).placed.outlets[0].exit).not.toHaveProperty('isFelt');
    const rising = siteOf(gridOf((_x, y) => -0.1 * y, { cells: 101, cellM: 2 }));
    expect(measureSill(ONE, rising, HOST).slopeBelow).toBe(0);
    const cutOff = siteOf(gridOf((_x, y) => (y < 95 ? null : 0.1 * y), { cells: 101, cellM: 2 }));
    expect(measureSill(ONE, cutOff, HOST).slopeBelow).toBeNull();
  });
  it('is pegged at both ends and the middle, at its level', () => {
    expect(placed.pegs(10, null)).toEqual([
      { name: 'sill, one end', role: 'sill', x: 149, y: 101, levelM: 0, groundM: 0 },
      { name: 'sill, middle', role: 'sill', x: 152, y: 101, levelM: 0, groundM: 0 },
      { name: 'sill, other end', role: 'sill', x: 155, y: 101, levelM: 0, groundM: 0 },
    ]);
    expect(placed.marks).toEqual([{ id: 's1:sill', work: 's1', name: 'East', role: 'sill', levelM: 0, path: 'levels.sillM' }]);
    expect([placed.host, placed.stores([])]).toEqual([null, []]);
  });
  it('without a host lies nowhere: no way out, no pegs', () => {
    const alone = onHost(levelSill, ONE, null).placed;
    expect([alone.outlets, alone.pegs(10, null)]).toEqual([[], []]);
    expect(alone.checks(factsOf(SITE, { designPeakM3s: 0.1 }), { ...COMPANY, host: null }).map((c) => c.id)).not.toContain('sill.length');
  });
  it('tells head, velocity and length for its peak, and nothing of them before a storm is known', () => {
    const Q = 0.1;
    expect(figure('designPeakM3s', { designPeakM3s: Q })).toBe(Q);
    // Thin grass, found a class taller: below 0.0025·5.6^2.5 = 0.1855 ft²/s its roughness stays that of the curve's beginning.
    const n = Math.exp(5.6 * (0.0133 * Math.log(0.18552) ** 2 - 0.0954 * Math.log(0.18552) + 0.297) - 4.16);
    const y = (((Q / 6) * n) / Math.sqrt(0.1)) ** 0.6;
    expect(figure('headM', { designPeakM3s: Q })).toBeCloseTo(y + (Q / 6 / y) ** 2 / 19.62, 4);
    const hard = onHost(levelSill, { ...ONE, crest: 'hard' });
    expect(hard.figure('headM', { designPeakM3s: Q })).toBeCloseTo((Q / (1.5 * 6)) ** (2 / 3), 9);
    expect(hard.figure('neededLengthM', { designPeakM3s: Q })).toBeLessThan(figure('neededLengthM', { designPeakM3s: Q })!);
    expect(hard.formulas({ designPeakM3s: Q })).not.toContain('hydraulics.sheet-depth');
    expect(figure('velocityMs', { designPeakM3s: Q })).toBeGreaterThan(0.1);
    expect(figure('neededLengthM', { designPeakM3s: Q })).toBeGreaterThan(2);
    expect(formulas({ designPeakM3s: Q })).toEqual(
      expect.arrayContaining([
        'hydraulics.sill-length',
        'hydraulics.sill-head',
        'hydraulics.broad-crested-weir',
        'hydraulics.sheet-velocity',
        'hydraulics.sheet-depth',
        'hydraulics.sheet-energy',
      ]),
    );
    expect([figure('headM'), figure('groundM'), formulas()]).toEqual([undefined, 0, []]);
    expect(figure('headM', { designPeakM3s: Q, site: siteOf(SITE.grid, { soilAt: () => null }) })).toBeUndefined();
  });
  it('is refused with a field out of range, no host, or readings that are no range', () => {
    expectFields(levelSill, ONE);
    expect(wrong(levelSill, { ...ONE, host: '' })).toEqual(['sill.host@host']);
    expect(wrong(levelSill, { ...ONE, host: 3 } as never)).toEqual(['sill.host@host']);
    expect(wrong(levelSill, { ...ONE, crest: 'jelly' } as never)).toEqual(['sill.crest@crest']);
    expect(wrong(levelSill, { ...ONE, crest: 'hard' })).toEqual([]);
    expect(wrong(levelSill, { ...ONE, asFound: { lowM: 2, highM: 1 } })).toEqual(['sill.as-found@asFound']);
    expect(wrong(levelSill, { ...ONE, asFound: { lowM: NaN, highM: 1 } })).toEqual(['sill.as-found@asFound']);
    expect(wrong(levelSill, { ...ONE, asFound: { lowM: 1, highM: 'x' } } as never)).toEqual(['sill.as-found@asFound']);
    expect(wrong(levelSill, { ...ONE, asFound: { lowM: 1, highM: 1 } })).toEqual([]);
    expect([hostOf(levelSill, ONE), levelSill.footprint(ONE), levelSill.intakes(ONE)]).toEqual(['w1', [], []]);
  });
  it('is measured anew when its place or shape changes, not when its level does', () => {
    const key = (change: Partial<LevelSill>): string => JSON.stringify(levelSill.groundKey({ ...ONE, ...change }));
    expect(key({ levels: { sillM: 1 } })).toBe(key({}));
    for (const change of [{ atM: 3 }, { host: 'x' }, { dimensions: { ...ONE.dimensions, lengthM: 3 } }])
      expect(key(change)).not.toBe(key({}));
  });
});

describe('length of a sill', () => {
  const size = (change: Partial<Parameters<typeof sizeSill>[0]> = {}) =>
    sizeSill({ peakM3s: 0.2, sillToBankM: 0.4, slopeBelow: 0.02, cover: GRASS, below: null, ...change });
  it('is what the head allows: a tenth of a metre, half of sill to bank, a centimetre at the least', () => {
    expect(size().headM).toBe(0.1);
    expect(size({ sillToBankM: 0.1 }).headM).toBe(0.05);
    expect(size({ sillToBankM: -1 }).headM).toBe(0.01);
    expect(size().byHeadM).toBeCloseTo(0.2 / (1.5 * 0.1 ** 1.5), 9);
    expect(size({ sillToBankM: 0.1 }).byHeadM).toBeCloseTo(0.2 / (1.5 * 0.05 ** 1.5), 9);
  });
  it('is wider where grass below holds the sheet up deeper than the crest: so that the head is the same', () => {
    const below = { slope: 0.02, curveIndex: 5.6 };
    const grass = size({ below });
    expect([grass.governs, grass.lengthM]).toEqual(['grass', grass.byGrassM]);
    expect(grass.byGrassM!).toBeGreaterThan(1.5 * grass.byHeadM);
    expect(grassedHead(below, 0.2 / grass.lengthM)).toBeCloseTo(grass.headM, 4);
    // On steep bare ground the sheet shoots, and the crest decides.
    const steep = size({ below: { slope: 0.3, curveIndex: null } });
    expect(steep.byGrassM!).toBeCloseTo(steep.byHeadM, 2);
    expect(size().byGrassM).toBeNull();
  });
  it('is the greatest of the four, and says which governs', () => {
    const least = size({ peakM3s: 0.001 });
    expect([least.lengthM, least.governs]).toEqual([2, 'least']);
    const head = size({ sillToBankM: 0.05 });
    expect([head.lengthM, head.governs]).toEqual([head.byHeadM, 'head']);
    const fast = size({ slopeBelow: 0.049, sillToBankM: 1, cover: coverOf('pasture-poor') });
    expect(fast.governs).toBe('velocity');
    expect(fast.lengthM).toBe(fast.byVelocityM);
    expect(fast.byVelocityM).toBeGreaterThan(fast.byHeadM);
  });
  it('has no length by velocity on ground that should carry no flow', () => {
    const bare = size({ cover: coverOf('bare'), slopeBelow: 0.3 });
    expect([bare.permissibleMs, bare.byVelocityM]).toEqual([null, null]);
    expect(bare.lengthM).toBe(Math.max(2, bare.byHeadM));
  });
  it('level ground is taken to fall a thousandth', () => {
    expect(size({ slopeBelow: 0 }).byVelocityM).toBeCloseTo(size({ slopeBelow: 0.001 }).byVelocityM ?? NaN, 12);
  });
});

describe('rules on sills', () => {
  const size = { lengthM: 4, headM: 0.1, byHeadM: 4, byGrassM: null, byVelocityM: 3.5, permissibleMs: 1, governs: 'head' as const };
  const second: WorkBase = { ...ONE, id: 's2', levels: { sillM: 0.05 } } as WorkBase;
  function facts(change: Partial<SillFacts> = {}, sill: Partial<LevelSill> = {}): SillFacts {
    const one = { ...ONE, ...sill };
    return {
      ...factsOf(SITE, { storm: stormOf(), designPeakM3s: 0.1 }),
      sill: one,
      ground: GROUND,
      size,
      company: { ...COMPANY, siblings: [one] },
      ...change,
    };
  }
  const on = (change: Partial<SillGround>): Partial<SillFacts> => ({ ground: { ...GROUND, ...change } });
  const cover = (id: string, slopeBelow: number | null): SillFacts =>
    facts({ ...on({ slopeBelow }), site: siteOf(SITE.grid, { soilAt: () => soilOf({ cover: id }) }) });
  const host = (change: Partial<Host>): Partial<SillFacts> => ({ company: { ...COMPANY, host: { ...HOST, ...change } } });
  /** A second sill so much above the first, a hard one, with a head on that of so much. */
  const above = (stepM: number, headM = 0): SillFacts => {
    const over = { ...ONE, id: 's2', levels: { sillM: stepM } };
    return facts(
      { company: { ...COMPANY, siblings: [over, { ...ONE, crest: 'hard' } as LevelSill] }, designPeakM3s: 1.5 * 6 * headM ** 1.5 },
      over,
    );
  };
  /** A limit of velocity so that the sheet runs at so much of it. */
  const fast = (share: number): SillFacts => {
    const at = facts({ ...on({ slopeBelow: 0.1 }) });
    const value = judgeBy(SILL_RULES[1], at)?.value ?? NaN;
    return { ...at, size: { ...size, permissibleMs: value / share } };
  };
  const speed = judgeBy(SILL_RULES[1], facts({ ...on({ slopeBelow: 0.1 }) }))?.value ?? NaN;

  // SCS TP-61 (Chow 1959, Table 7-6): mixtures up to 10 %, annuals and bunch grass up to 5 %, sod-forming grass beyond.
  it.each([
    ['pasture-fair', 0.1, 'fine'],
    ['pasture-fair', 0.101, 'mend'],
    ['pasture-poor', 0.049, 'fine'],
    ['pasture-poor', 0.05, 'mend'],
    ['pasture-good', 0.15, 'fine'],
  ])('%s on a slope of %d is %s', (id, slope, severity) => {
    const rule = SILL_RULES.find((r) => r.id === 'sill.cover-below')!;
    const finding = judgeBy(rule, cover(id, slope));
    expect(finding?.severity).toBe(severity);
    if (severity === 'mend') expect(words(finding?.do)).toMatch(/is not to carry water on a slope of \d+(\.\d)? %: lay stone/);
  });

  testSides<SillFacts>(SILL_RULES, {
    'sill.length': {
      at: (v) => facts({}, { dimensions: { lengthM: v, crestWidthM: 1 } }),
      limit: 4,
      judged: [
        [2.7999, 'mend', /Widen it from 2\.8 m to 4\.0 m/],
        [2.8, 'weigh'],
        [3.9999, 'weigh'],
        [4, 'fine'],
      ],
      silent: [facts({ size: null }), above(0.05)],
    },
    'sill.exit-velocity': {
      at: fast,
      found: () => speed,
      judged: [
        [0.5, 'fine'],
        [1, 'fine'],
        [1.0001, 'weigh', /Widen the sill to 3\.5 m/],
        [1.25, 'weigh'],
        [1.2501, 'mend'],
      ],
      silent: [facts({ designPeakM3s: null }), facts({ size: null }), facts({ size: { ...size, permissibleMs: null } })],
    },
    'sill.cover-below': {
      at: (v) => cover('pasture-good', v),
      limit: 0.15,
      judged: [
        [0.15, 'fine'],
        [0.1501, 'weigh', /gentler ground/],
      ],
      silent: [facts({ site: siteOf(SITE.grid, { soilAt: () => null }) })],
    },
    'sill.second-step': {
      at: (v) => above(v, 0.1),
      limit: 0.1,
      judged: [
        [0.0499, 'mend', /50 mm higher, at 0\.100 m/],
        [0.05, 'weigh'],
        [0.0999, 'weigh'],
        [0.1001, 'fine'],
      ],
      silent: [facts(), { ...above(0.05), designPeakM3s: null }],
    },
    'sill.below-bank': {
      at: (v) => facts(host({ crestM: v })),
      limit: 0.2,
      judged: [
        [0.0999, 'mend', /by 100 mm/],
        [0.1, 'weigh'],
        [0.1999, 'weigh'],
        [0.2, 'fine'],
      ],
      silent: [facts({ company: { ...COMPANY, host: null } })],
    },
    'sill.above-floor': {
      at: (v) => facts(host({ floorM: -v })),
      limit: (v) => (v < 0.1 ? 0.1 : 0.5),
      judged: [
        [0, 'mend', /above the floor/],
        [0.0999, 'weigh', /hardly holds/],
        [0.1, 'fine'],
        [0.5, 'fine'],
        [0.5001, 'weigh', /wider and shallower/],
      ],
      silent: [facts({ company: { ...COMPANY, host: null } })],
    },
    'sill.out-of-level': {
      at: (v) => facts({}, { asFound: { lowM: 0, highM: v } }),
      limit: 0.01,
      judged: [
        [0.01, 'fine'],
        [0.0101, 'weigh', /Shave the high 10 mm/],
        [0.025, 'weigh'],
        [0.0251, 'mend'],
      ],
      silent: [facts(), facts({}, { status: 'pegged' })],
    },
    'sill.on-fill': {
      at: (v) => facts(on({ groundM: -v })),
      limit: 0,
      judged: [
        [-0.2, 'fine'],
        [0.03, 'fine'],
        [0.0301, 'weigh', /30 mm lower here/],
        [0.1, 'weigh'],
        [0.1001, 'mend'],
      ],
      silent: [facts(on({ groundM: null }))],
    },
    'sill.crest-width': {
      at: (v) => facts({}, { dimensions: { lengthM: 6, crestWidthM: v } }),
      limit: 1,
      judged: [
        [0.9999, 'weigh', /1 m wide/],
        [1, 'fine'],
      ],
    },
    'sill.place': {
      at: (v) => facts({}, { atM: 3 + v }),
      limit: 0,
      judged: [[-0.5, 'weigh', /0\.5 m further in/]],
      silent: [facts({}, { atM: 3 }), facts({}, { atM: 137 })],
    },
  });

  const find = (id: string, on_: SillFacts) =>
    judgeBy(
      SILL_RULES.find((r) => r.id === id)!,
      on_,
    );
  it('says what is unknown below: the ground, or a crest nobody has levelled', () => {
    for (const id of ['sill.exit-velocity', 'sill.cover-below']) {
      const found = find(id, facts(on({ slopeBelow: null })));
      expect(found).toMatchObject({ severity: 'unknown', value: null, at: [152, 98] });
      expect(words(found?.do)).toMatch(/bring in terrain/);
    }
    for (const status of ['built', 'existing'] as const)
      expect(find('sill.out-of-level', facts({}, { status }))).toMatchObject({ severity: 'unknown', value: null, limit: 0.01 });
  });
  it('bare ground carries no sheet; on steep ground poor grass does not either', () => {
    expect(find('sill.cover-below', cover('bare', 0.02))).toMatchObject({ limit: 0 });
    expect(['mend', 'weigh']).toContain(find('sill.cover-below', cover('bare', 0.02))?.severity);
    expect(words(find('sill.cover-below', cover('bare', 0.02))?.do)).toMatch(/Turf, seed and mulch/);
    const strength = coverOf('pasture-fair').strength;
    const broken = (velocity: (number | null)[], slopeBelow: number) =>
      find('sill.cover-below', {
        ...cover('pasture-fair', slopeBelow),
        site: siteOf(SITE.grid, { soilAt: () => ({ ...soilOf(), cover: { ...GRASS, strength: { ...strength, velocity } as never } }) }),
      })?.severity;
    // One figure for slopes under 5 %, one to 10 %, one above.
    expect([broken([null, 1, 1], 0.0499), broken([null, 1, 1], 0.05)]).toEqual(['mend', 'fine']);
    expect([broken([1, null, 1], 0.1), broken([1, null, 1], 0.1001), broken([1, null, 1], 0.0499)]).toEqual(['mend', 'fine', 'fine']);
    expect([broken([1, 1, null], 0.1), broken([1, 1, null], 0.1001)]).toEqual(['fine', 'mend']);
  });
  it('only the lowest of several sills is sized for the whole peak; of equals one', () => {
    const equal = { ...ONE, id: 'a' };
    const company = { ...COMPANY, siblings: [ONE, equal, { id: 'x', kind: 'pipe-outlet' } as never] };
    expect(find('sill.length', facts({ company }))).toBeNull();
    expect(find('sill.length', { ...facts({ company }), sill: equal })).not.toBeNull();
    expect(find('sill.second-step', facts({ company }))).toMatchObject({ value: 0, severity: 'mend' });
    expect(find('sill.length', facts({ company: { ...COMPANY, siblings: [second] } }))).toBeNull();
    expect(find('sill.length', facts({ company: { ...COMPANY, siblings: [] } }))).not.toBeNull();
  });
  it('a step is never judged by less than 50 mm', () => {
    expect(find('sill.second-step', above(0.04, 0.001))).toMatchObject({ limit: 0.05, severity: 'mend' });
  });
});

describe('a level sill to begin with', () => {
  it('lets its host out over a crest, and goes with it', () => {
    expect(levelSill.traits(ONE)).toEqual({ ...NO_TRAITS, canBlock: true, isCut: true, wayOut: 'crest' });
    expect(levelSill.refs(ONE)).toEqual([{ role: 'host', id: ONE.host, path: 'host', whenGone: 'goes' }]);
    expect([levelSill.draws.map((d) => [d.id, d.what, d.least, d.most]), levelSill.family]).toEqual([
      [['level-sill', 'on-host', 0, 1]],
      'way-out',
    ]);
  });
  it('is one of common practice, at its place and its level', () => {
    // 0.6 m under the crest of 0.35 m.
    expect(begunBy(levelSill, { points: [[60, 90]], host: 'store' })).toEqual([{ id: 'level-sill-1', kind: 'level-sill', name: 'Level sill', status: 'planned', host: 'store', atM: 28, levels: { sillM: -0.25 }, dimensions: { lengthM: 6, crestWidthM: 1.2 } }]); // prettier-ignore
    expect(begunBy(levelSill, { host: 'nobody' })).toBe('work.host');
    expect(levelSill.validate(levelSill.sample)).toEqual([]);
  });
});
