// Rules on crossings at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import { culvertHead } from '../../hydraulics/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, linkOf, siteOf, stormOf, testSides, withAt, words, setbackCases } from '../../testing/rules.ts';
import { ROAD, valleyAt } from '../../testing/valley.ts';
import { measureBasin } from '../basin/index.ts';
import { judgeBy } from '../rules.ts';
import type { CrossingFacts } from './checks.ts';
import { CROSSING_RULES, type Crossing, crossing, pipeLength } from './index.ts';

const site = siteOf(gridOf(valleyAt, { cells: 101, cellM: 2 }));
const ONE: Crossing = {
  ...ROAD,
  levels: { roadM: 108.6, inletM: 107.15, outletM: 106.95, dipM: 108.3 },
  dimensions: { ...ROAD.dimensions, diameterM: 0.6, barrels: 2, overhangM: 0.5 },
};
const ground = measureBasin({ wall: ONE.line }, site);
const place = (one: Crossing) => crossing.place(one, ground, null);
const DIP: Crossing = { ...ONE, form: 'dip', dimensions: { ...ONE.dimensions, dipLengthM: 12 } };
const JOINED: Crossing = { ...ONE, joins: ['a', 'b'] };

describe('rules on crossings', () => {
  const clear = place(ONE).stores([])[0].outlets[0];
  const facts = (change: Partial<CrossingFacts> = {}, one: Crossing = ONE): CrossingFacts => ({
    ...factsOf(site, {
      store: place(one).stores([])[0],
      storm: stormOf({ peakLevelM: 108 }),
      designPeakM3s: 1,
      links: [linkOf('road#pipe', 1)],
    }),
    crossing: one,
    clearLaw: (level) => clear.flowAt(level),
    ...change,
  });
  const bare = withAt(ONE, 'dimensions.barrels', 0);
  const base = facts().store!;
  /** A sill beside the pipe that passes so much with water at the road. */
  const relieved = (flow: number): CrossingFacts =>
    facts({
      store: { ...base, outlets: [...base.outlets, { ...clear, id: 's', work: 's', kind: 'sill', levelM: 108.4, flowAt: () => flow }] },
    });
  const lengthM = pipeLength(ONE);
  const barrel = { lengthM, slope: 0.2 / lengthM, n: 0.013, inlet: ONE.inlet };
  /** A peak at which the water before the pipe stands so many diameters high. */
  const standing = (diameters: number): CrossingFacts => {
    let [lo, hi] = [0.01, 5];
    for (let k = 0; k < 70; k++) {
      const mid = (lo + hi) / 2;
      if (culvertHead({ ...barrel, diameterM: 0.6 }, mid) < diameters * 0.6) lo = mid;
      else hi = mid;
    }
    return facts({ designPeakM3s: lo + hi });
  };
  const area = 2 * (Math.PI / 4) * 0.36;
  const near = (kind: string, away: number): CrossingFacts =>
    facts({ site: siteOf(site.grid, { features: [{ id: 'f', kind, at: [101, 141 + away] }] }) });
  const joinedTo = (v: number): CrossingFacts => ({
    ...facts({}, JOINED),
    store: { ...base, outlets: [{ ...clear, kind: 'sill', levelM: 107.75 + v }] },
  });
  testSides<CrossingFacts>(CROSSING_RULES, {
    'crossing.relief': {
      at: relieved,
      limit: 1,
      judged: [
        [0, 'mend', /passes 1000 L\/s more/],
        [0.4999, 'mend'],
        [0.5, 'weigh'],
        [0.9999, 'weigh'],
        [1, 'fine'],
      ],
      silent: [facts({}, bare), facts({ store: null }), facts({ designPeakM3s: null })],
    },
    'crossing.headwater': {
      at: standing,
      limit: 1.2,
      judged: [
        [1.1999, 'fine'],
        [1.2001, 'weigh', /larger pipe/],
        [1.4999, 'weigh'],
        [1.5001, 'mend'],
      ],
      // A third beside the two takes its share.
      cure: (v) => (v > 1.2 ? { 'dimensions.barrels': 3 } : undefined),
      silent: [facts({}, bare), facts({ designPeakM3s: null })],
    },
    'crossing.road-freeboard': {
      at: (v) => facts({ storm: stormOf({ peakLevelM: 108.6 - v }) }),
      limit: 0.3,
      judged: [
        [-0.001, 'mend', /Raise the road by 301 mm/],
        [0.001, 'weigh'],
        [0.2999, 'weigh'],
        [0.3001, 'fine'],
      ],
      // Over the road only the answer says what to do: raised, it would be another crossing.
      cure: (v) => (v >= 0 && v < 0.3 ? { 'levels.roadM': ONE.levels.roadM + 0.3 - v } : undefined),
      silent: [facts({ storm: null }), facts({}, DIP), facts({}, JOINED)],
    },
    'crossing.pipe-top': {
      at: joinedTo,
      limit: 0,
      judged: [
        [-0.05, 'weigh', /50 mm lower/],
        [0.0001, 'fine'],
      ],
      cure: (v) => (v < 0 ? { 'levels.inletM': ONE.levels.inletM + v, 'levels.outletM': ONE.levels.outletM + v } : undefined),
      silent: [
        facts(),
        { ...joinedTo(0), store: { ...base, outlets: [{ ...clear, kind: 'bank' }] } },
        { ...joinedTo(0), store: null },
        { ...joinedTo(0), crossing: { ...bare, joins: ['a', 'b'] } },
      ],
    },
    'crossing.cover': {
      at: (v) => facts({}, withAt(ONE, 'levels.roadM', 107.75 + v)),
      limit: 0.3,
      judged: [
        [0.1499, 'mend', /Raise the road/],
        [0.1501, 'weigh'],
        [0.2999, 'weigh'],
        [0.3001, 'fine'],
      ],
      cure: (v) => (v < 0.3 ? { 'levels.roadM': 107.75 + 0.3 } : undefined),
      silent: [facts({}, bare)],
    },
    'crossing.pipe-size': {
      at: (v) => facts({}, withAt(ONE, 'dimensions.diameterM', v)),
      limit: 0.45,
      judged: [
        [0.2999, 'mend', /450 mm/],
        [0.3, 'weigh'],
        [0.4499, 'weigh'],
        [0.45, 'fine'],
      ],
      cure: (v) => (v < 0.45 ? { 'dimensions.diameterM': 0.45 } : undefined),
      silent: [facts({}, bare)],
    },
    'crossing.pipe-velocity': {
      at: (v) => facts({ links: [linkOf('road#pipe', v * area)] }),
      limit: (v) => (v < 0.3 ? 0.3 : v < 3 ? 1.5 : 3),
      judged: [
        [0.2999, 'weigh', /silt/],
        [0.3001, 'fine'],
        [1.4999, 'fine'],
        [1.5001, 'weigh', /stone/],
        [2.9999, 'weigh'],
        [3.0001, 'mend'],
      ],
      silent: [facts({}, bare), facts({ links: [] }), facts({ links: [linkOf('road#pipe', 0)] })],
    },
    'crossing.pipe-fall': {
      at: (v) => facts({}, withAt(ONE, 'levels.outletM', fallTo(v))),
      limit: 0.01,
      judged: [
        [-0.001, 'mend', /outlet lower/],
        [0.0001, 'weigh'],
        [0.0099, 'weigh'],
        [0.0101, 'fine'],
      ],
      cure: (v) =>
        v < 0.01 ? { 'levels.outletM': ONE.levels.inletM - 0.01 * pipeLength(withAt(ONE, 'levels.outletM', fallTo(v))) } : undefined,
      silent: [facts({}, bare)],
    },
    ...setbackCases('crossing', near),
  });
  it('rules on levels and sources from memory are as listed', () => {
    const ids = (which: (r: (typeof CROSSING_RULES)[number]) => boolean | undefined) => CROSSING_RULES.filter(which).map((r) => r.id).sort(); // prettier-ignore
    expect(ids((r) => r.isOfLevels)).toEqual(['crossing.pipe-top', 'crossing.road-freeboard']);
    expect(ids((r) => r.source.fromMemory)).toEqual(['crossing.headwater', 'crossing.road-freeboard']);
  });
  /** Level of the outlet at which the pipe falls so much: its length goes with it. */
  function fallTo(fall: number): number {
    let [lo, hi] = [105, 108];
    for (let k = 0; k < 60; k++) {
      const mid = (lo + hi) / 2;
      if ((107.15 - mid) / pipeLength(withAt(ONE, 'levels.outletM', mid)) > fall) lo = mid;
      else hi = mid;
    }
    return (lo + hi) / 2;
  }
  const find = (id: string, on: CrossingFacts) =>
    judgeBy(
      CROSSING_RULES.find((r) => r.id === id)!,
      on,
    );
  it('a dip of its own relieves the pipe; its own pipe, a bank or a sill at the crest do not', () => {
    const own = facts({ store: place(DIP).stores([])[0], designPeakM3s: 100 }, DIP);
    expect(find('crossing.relief', own)?.value).toBeCloseTo(1.5 * 12 * 0.301 ** 1.5, 6);
    expect(find('crossing.relief', facts())?.value).toBe(0);
    const atCrest = facts({
      store: { ...base, outlets: [...base.outlets, { ...clear, id: 's', work: 's', kind: 'sill', levelM: base.crestM, flowAt: () => 9 }] },
    });
    expect(find('crossing.relief', atCrest)?.value).toBe(0);
    const bank = facts({
      store: { ...base, outlets: [...base.outlets, { ...clear, id: 'b', work: 'b', kind: 'bank', levelM: 108, flowAt: () => 9 }] },
    });
    expect(find('crossing.relief', bank)?.value).toBe(0);
  });
  it('between two stores a level pipe is fine', () => {
    const level = { ...JOINED, levels: { ...JOINED.levels, outletM: 107.15 } };
    expect(find('crossing.pipe-fall', facts({}, level))).toMatchObject({ value: 0, limit: 0, severity: 'fine' });
    expect(find('crossing.pipe-fall', facts({}, { ...ONE, levels: level.levels }))?.severity).toBe('weigh');
  });
  it('a pipe that comes out higher than it goes in is measured by its higher end', () => {
    const risen = withAt(ONE, 'levels.outletM', 107.4);
    expect(find('crossing.cover', facts({}, risen))?.value).toBeCloseTo(108.6 - 107.4 - 0.6, 9);
    expect(words(find('crossing.pipe-fall', facts({}, risen))?.do)).toMatch(/Lay it anew/);
  });
});
