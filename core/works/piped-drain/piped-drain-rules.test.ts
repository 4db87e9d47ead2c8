// Rules on drains at both sides of their limits, on level ground at 100 m unless said.
import { describe } from '@jest/globals';
import { lineLength } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, linkOf, siteOf, stormOf, testSides, withAt } from '../../testing/rules.ts';
import { newDrain } from './create.ts';
import { leastFall } from './falls.ts';
import type { DrainGround, Taker } from './ground.ts';
import { PIPED_DRAIN_RULES, type Basin, type PipedDrain } from './index.ts';
import { type DrainFacts, grateTakes, pipeTakes, pipesOf } from './standing.ts';

const SITE = siteOf(gridOf(() => 100, { cells: 81, cellM: 0.5 }));
const BASIN: Basin = { atM: 0, invertM: 99.4, pipeM: 0.1, grateLongM: 0.3, grateWideM: 0.3, sumpM: 0.15 };
const ONE = newDrain('d', 'Drain', { line: [[5, 20], [25, 20]], basins: [BASIN], levels: { outletM: 99.2 } }); // prettier-ignore
const TWO: PipedDrain = { ...ONE, basins: [BASIN, { ...BASIN, atM: 10, invertM: 99.3 }] };
const CLOSED: PipedDrain = { ...ONE, basins: [{ ...BASIN, grateLongM: 0, grateWideM: 0 }] };
const TAKER: Taker = { name: 'Main', to: 'main:pipe2', levelM: 99.1, pipeM: 0.1, apartM: 0 };

const flat = (work: PipedDrain, change: Partial<DrainGround> = {}): DrainGround => {
  const lengthM = lineLength(work.line);
  const steps = Math.ceil(lengthM / 0.5);
  const open = work.basins.flatMap((b, k) => (b.grateLongM > 0 ? [k] : []));
  const pool = { lowM: 99.98, lowAt: [5, 20], spillM: 100.2, spillAt: [5, 30], cells: new Int32Array(1), levelM: Float64Array.of(99.98), cellM2: 0.25 } as const; // prettier-ignore
  return {
    lengthM,
    stepM: lengthM / steps,
    groundM: new Float64Array(steps + 1).fill(100),
    atBasins: work.basins.map(() => 100),
    endM: 100,
    falls: work.basins.map(() => 0),
    yards: open.length > 0 ? [{ pool, basins: open, places: [], ring: [] }] : [],
    taker: null,
    ...change,
  };
};
const facts = (work: PipedDrain = ONE, change: Partial<DrainFacts> = {}): DrainFacts => ({
  ...factsOf(SITE, { store: { id: 'd' } as never, storm: stormOf({ peakLevelM: 99.9 }) }),
  work,
  ground: flat(work),
  ...change,
});
const set = (path: string, value: unknown, of = ONE): DrainFacts => facts(withAt(of, path, value));
const basin = (k: number, change: Partial<Basin>, of = ONE): DrainFacts =>
  facts({ ...of, basins: of.basins.map((b, i) => (i === k ? { ...b, ...change } : b)) });
const peak = (peakLevelM: number, work = ONE): DrainFacts => facts(work, { storm: stormOf({ peakLevelM }) });
const noStorm = facts(ONE, { storm: null, store: null });
const taken = (change: Partial<Taker>, work: PipedDrain = { ...ONE, into: 'main' }): DrainFacts =>
  facts(work, { ground: flat(work, { taker: { ...TAKER, ...change } }) });
const pipe = (share: number, id = 'd:pipe1'): DrainFacts =>
  facts(ONE, { conduits: [{ id, work: 'd', name: 'Drain, pipe 1', peakM3s: 0.01 * share, capacityM3s: 0.01, peakLevelM: 99.5, surchargedH: 0, overM3: 0 }] }); // prettier-ignore
const near = (kind: string, awayM: number): DrainFacts => facts(ONE, { site: { ...SITE, features: [{ id: 'f', kind, at: [15, 20 + awayM] }] } }); // prettier-ignore
/** A cable across it half way, so deep. */
const buried = (depthM: number | undefined): DrainFacts => facts(ONE, { site: { ...SITE, features: [{ id: 'c', kind: 'buried-cable', name: 'the cable', line: [[15, 10], [15, 30]], ...(depthM === undefined ? {} : { depthM }) }] } }); // prettier-ignore
/** A pipe so many times as steep as its least. */
const steepAs = (share: number): DrainFacts => set('levels.outletM', 99.4 - share * leastFall(0.1) * 20);
/** A smooth pipe of 100 mm so fast, half full. */
const fastAs = (ms: number): DrainFacts => set('levels.outletM', 99.4 - 20 * ((ms * 0.011) / Math.cbrt(0.025) ** 2) ** 2);
const angled = (degrees: number): DrainFacts => {
  const turn = (degrees * Math.PI) / 180;
  return facts({ ...ONE, line: [[5, 20], [15, 20], [15 + 10 * Math.cos(turn), 20 + 10 * Math.sin(turn)]] }); // prettier-ignore
};
/** A house with one corner in the yard, and water so deep there. */
const walled = (v: number): DrainFacts => {
  const ground = flat(ONE);
  const yards = ground.yards.map((y) => ({ ...y, ring: [[0, 10], [12, 10], [12, 30], [0, 30]] as const })); // prettier-ignore
  const house = { id: 'h', kind: 'building', ring: [[10, 20], [30, 20], [30, 28], [10, 28]] as const }; // prettier-ignore
  return facts(ONE, { ground: { ...ground, yards }, site: { ...SITE, features: [house] }, storm: stormOf({ peakLevelM: 100 + v }) });
};
/** On a slope of 3 % that stands nowhere, dished by 5 %; so much comes to it in all, a quarter of it past. */
const sloped = (flowM3s: number, acrossFall: number | null = 0.05): DrainFacts => {
  const ground = flat(ONE, { falls: [0.03] });
  const pool = { ...ground.yards[0].pool, spillM: ground.yards[0].pool.lowM + 0.01 };
  const work = acrossFall === null ? ONE : withAt(ONE, 'dimensions.acrossFall', acrossFall);
  const past = { ...linkOf('d#intake:past', flowM3s / 4), role: 'past' as const };
  return {
    ...facts(work, { storm: stormOf({ peakInM3s: (3 * flowM3s) / 4 }), links: [past] }),
    ground: { ...ground, yards: [{ ...ground.yards[0], pool }] },
  };
};
/** The share a grate takes, by hand: half of a dish, half of its width, half of its length closed. */
function taken1(flowM3s: number): number {
  const [Q, Sx, SL, W, L] = [flowM3s / 2, 0.05, 0.03, 0.15, 0.15];
  const T = ((Q * 0.03) / (0.376 * Sx ** 1.67 * SL ** 0.5)) ** (1 / 2.67);
  const V = (2 * Q) / (Sx * T ** 2);
  const Eo = T <= W ? 1 : 1 - (1 - W / T) ** 2.67;
  const feet = L / 0.3048;
  const Vo = 0.3048 * (0.28 + 2.28 * feet - 0.18 * feet ** 2 + 0.01 * feet ** 3);
  const Rf = Math.max(0, 1 - 0.295 * Math.max(0, V - Vo));
  return Rf * Eo + (1 - Eo) / (1 + (0.0828 * V ** 1.8) / (Sx * L ** 2.3));
}
/** Led to the street, five litres a second coming. */
const street = (known: Partial<PipedDrain>): DrainFacts => ({ ...pipe(0.5), work: { ...ONE, ends: 'street', ...known } });
const took = grateTakes(ONE, BASIN, 0.07);
const whole = pipeTakes(ONE, flat(ONE), pipesOf(ONE, flat(ONE))[0]);
const leaving = (v: number): DrainFacts => ({
  ...pipe(0),
  conduits: [{ ...pipe(v).conduits![0], peakM3s: ((Math.PI / 4) * 0.01 * v) / 1 }],
});

describe('rules on drains', () => {
  testSides<DrainFacts>(PIPED_DRAIN_RULES, {
    'piped-drain.stands': { at: (v) => peak(99.98 + v), limit: 0.05, judged: [[0.049, 'fine'], [0.051, 'weigh', /shape the ground/], [0.149, 'weigh'], [0.151, 'mend']], silent: [facts(CLOSED), noStorm] },
    'piped-drain.threshold': {
      at: (v) => (v === 9 ? peak(100) : peak(100, { ...ONE, thresholdM: 100 + v })),
      found: (v) => (v === 9 ? null : v),
      limit: 0.15,
      judged: [[9, 'unknown', /Level the lowest door sill/], [0.151, 'fine'], [0.149, 'weigh', /1 mm short/], [0.051, 'weigh'], [0.049, 'mend']],
      silent: [facts(CLOSED), facts({ ...ONE, thresholdM: 101 }, { storm: null, store: null })],
    },
    'piped-drain.wall': {
      at: (v) => walled(v),
      limit: 0,
      judged: [[0, 'fine'], [0.01, 'weigh', /falls away from it/], [0.049, 'weigh'], [0.051, 'mend']],
      silent: [facts(CLOSED), facts(), { ...walled(0.1), storm: null, store: null }],
    }, // prettier-ignore
    'piped-drain.past': {
      at: (v) => facts(ONE, { links: [{ from: 'd', outlet: 'd#on', work: 'd', role: 'round', to: 'ground', path: [], lengthM: 0, lagS: 0, volumeM3: 100 * v, peakM3s: 0 }] }),
      limit: 0.1,
      judged: [[0.09, 'fine'], [0.11, 'weigh', /larger grate/], [0.34, 'weigh'], [0.36, 'mend']],
      silent: [facts(CLOSED), noStorm],
    },
    'piped-drain.grate': { at: (v) => facts(ONE, { storm: stormOf({ peakInM3s: v * took }) }), limit: 1, judged: [[0.99, 'fine'], [1.01, 'weigh', /Make grate 1 0\.35 m long/], [1.49, 'weigh'], [1.51, 'mend']], silent: [facts(CLOSED), noStorm] },
    'piped-drain.on-slope': {
      at: (v) => (v < 0 ? sloped(0.001, null) : sloped(v)),
      found: (v) => (v < 0 ? null : taken1(v)),
      limit: 0.7,
      judged: [
[-1, 'unknown', /how the ground is dished/],
        [0.00304, 'fine'],
        [0.00305, 'weigh', /longer along the flow/],
        [0.0197, 'weigh'],
        [0.0198, 'mend'],
      ],
      silent: [facts(), sloped(0), noStorm],
    },
    'piped-drain.pipe': { at: (v) => pipe(v), limit: 0.9, judged: [[0.89, 'fine'], [0.91, 'weigh', /9 L\/s come to it/], [0.99, 'weigh'], [1.01, 'mend']], silent: [facts(), pipe(2, 'other')] },
    'piped-drain.grate-low': { at: (v) => facts(withAt(ONE, 'dimensions.setM', 0.02 - v)), limit: 0, judged: [[-0.01, 'fine'], [0.01, 'weigh', /10 mm deeper/], [0.049, 'weigh'], [0.051, 'mend']], silent: [facts(CLOSED)] },
    'piped-drain.exit-velocity': {
      at: leaving,
      limit: 1.2192,
      judged: [[1.21, 'fine'], [1.23, 'weigh', /Lay stone/], [1.52, 'weigh'], [1.53, 'mend']],
      silent: [facts(), taken({}), facts({ ...ONE, ends: 'street' }), { ...pipe(1), site: { ...SITE, soilAt: () => null } }],
    },
    'piped-drain.outside': {
      at: (v) => (v === 9 ? facts() : facts({ ...ONE, outsideM: 99.2 - v })),
      found: (v) => (v === 9 ? null : v),
      limit: 0,
      judged: [[9, 'unknown', /how high water stands/], [0.01, 'fine'], [-0.01, 'weigh', /Put a flap/], [-0.77, 'weigh'], [-0.79, 'mend', /stands over a grate/]],
      silent: [taken({})],
    },
    'piped-drain.mouth': { at: (v) => facts({ ...ONE, mouth: v === 1 ? 'grille' : 'open' }), judged: [[1, 'fine'], [0, 'weigh', /grille or a flap/]], silent: [taken({}), facts({ ...ONE, ends: 'street' })] },
    'piped-drain.asked': { at: (v) => facts({ ...ONE, asked: v === 1 ? 'asked' : 'not-asked' }), found: (v) => (v === 1 ? 1 : null), judged: [[1, 'fine'], [0, 'unknown', /Ask whoever owns/]], silent: [taken({})] },
    'piped-drain.passes': {
      at: (v) => (v === 9 ? facts({ ...ONE, status: 'existing' }) : facts({ ...ONE, status: 'existing', passesM3s: v * whole })),
      found: (v) => (v === 9 ? null : Math.min(1, v)),
      limit: 0.8,
      judged: [[9, 'unknown', /empty a barrel/], [2, 'fine'], [0.81, 'fine'], [0.79, 'weigh', /L\/min of .* Say what you see/], [0.51, 'weigh'], [0.49, 'mend']],
      silent: [facts(), facts({ ...ONE, status: 'built' })],
    }, // prettier-ignore
    'piped-drain.fall': { at: steepAs, limit: 1, judged: [[0.999, 'fine'], [0.99, 'weigh', /Lower what lies below/], [0.51, 'weigh'], [0.49, 'mend']] },
    'piped-drain.cover': { at: (v) => facts({ ...ONE, ends: 'street', basins: [{ ...BASIN, invertM: 99.9 - v }], levels: { outletM: 99.5 - v } }), limit: 0.3, judged: [[0.3, 'fine'], [0.29, 'weigh', /deeper, or cover it/], [0.151, 'weigh'], [0.149, 'mend']] },
    'piped-drain.clean': { at: fastAs, limit: 0.6, judged: [[0.61, 'fine'], [0.59, 'weigh', /Lay pipe 1 steeper/], [0.46, 'weigh'], [0.44, 'mend']] },
    'piped-drain.steep': { at: fastAs, limit: 3, judged: [[2.99, 'fine'], [3.01, 'weigh', /with a drop/], [4.99, 'weigh'], [5.01, 'mend']] },
    'piped-drain.narrow': { at: (v) => basin(0, { pipeM: v }), limit: 0.1, judged: [[0.1, 'fine'], [0.099, 'weigh', /Take 100 mm/], [0.071, 'weigh'], [0.069, 'mend']] },
    'piped-drain.shrinks': { at: (v) => basin(1, { pipeM: 0.1 * v }, TWO), limit: 1, judged: [[1, 'fine'], [1.5, 'fine'], [0.99, 'mend', /Make what follows pipe 1 100 mm/]], found: (v) => v, silent: [facts()] },
    'piped-drain.access': { at: (v) => facts({ ...ONE, line: [[0, 0], [v, 0]] }), limit: 30, judged: [[30, 'fine'], [30.1, 'weigh', /half way along pipe 1/], [59.9, 'weigh'], [60.1, 'mend']] },
    'piped-drain.bend': { at: angled, limit: 45, judged: [[45, 'fine'], [46, 'weigh', /Set a basin there/], [67, 'weigh'], [68, 'mend']], silent: [facts()] },
    'piped-drain.sump': { at: (v) => basin(0, { sumpM: v }), limit: 0.15, judged: [[0.15, 'fine'], [0.149, 'weigh', /150 mm/], [0.051, 'weigh'], [0.049, 'mend']], silent: [facts(CLOSED)] },
    'piped-drain.meets': { at: (v) => taken({ levelM: 99.2 - v }), limit: 0, judged: [[0.01, 'fine'], [-0.0005, 'weigh'], [-0.05, 'mend', /Raise its end 50 mm/]], silent: [facts()] },
    'piped-drain.apart': { at: (v) => taken({ apartM: v }), limit: 0.5, judged: [[0.5, 'fine'], [0.6, 'weigh', /Draw its end to a shaft of Main/], [2.9, 'weigh'], [3.1, 'mend']], silent: [facts(), taken({ pipeM: null })] },
    'piped-drain.spouts': {
      at: (v) => basin(0, { sumpM: v, spouts: 1 }, CLOSED),
      limit: 0.15,
      judged: [[0.15, 'fine'], [0.149, 'weigh', /screen the gutter/], [0, 'weigh']],
      cure: (v) => (v < 0.15 ? { 'basins.0.sumpM': 0.15 } : undefined),
      silent: [facts(), basin(0, { spouts: 0, drips: 2 }, CLOSED)],
    },
    'piped-drain.roof-led': {
      at: (v) => ({ ...basin(1, { spouts: 2 }, TWO), ledTo: v === 0 ? ['d:pipe2'] : ['d:pipe1', 'other'] }),
      found: (v) => (v === 0 ? 0 : null),
      limit: 0,
      judged: [[0, 'fine'], [1, 'unknown', /leads to pipe 2/]],
      silent: [facts(), { ...facts(TWO), ledTo: [] }],
    },
    'piped-drain.street': {
      at: (v) => (v === 9 ? street({}) : street({ mayGiveM3s: 0.005 + v })),
      found: (v) => (v === 9 ? null : v),
      limit: 0,
      judged: [[9, 'unknown', /how wide its pipe is, how it falls, what runs in it already\./], [0.0001, 'fine'], [-0.002, 'mend', /^2\sL\/s too much/], [-0.0001, 'mend']],
      silent: [facts(), taken({}, { ...ONE, into: 'main', ends: 'street', mayGiveM3s: 1 }), { ...street({ mayGiveM3s: 1 }), conduits: [] }],
    },
    // It is dug 0.8 m deep where it ends.
    'piped-drain.footing': { at: (v) => near('building', 0.8 * v), limit: 1.5, judged: [[1.51, 'fine'], [1.49, 'weigh', /Keep 1\.20 m away/], [1.01, 'weigh'], [0.99, 'mend']], silent: [facts(), near('tree', 1)] },
    'piped-drain.roots': { at: (v) => near('tree', v), limit: 3, judged: [[3.01, 'fine'], [2.99, 'weigh', /Go round it/], [1.01, 'weigh'], [0.99, 'mend']], silent: [facts(), near('building', 1)] },
    // Half way along: 99.3 to 99.4 m.
    'piped-drain.crosses': {
      at: (v) => (v > 9 ? buried(undefined) : buried(v > 0 ? 0.6 - v : 0.7 - v)),
      found: (v) => (v > 9 ? null : Math.abs(v)),
      limit: 0.3,
      judged: [[0.301, 'fine'], [0.299, 'weigh', /dig there by hand/], [0.101, 'weigh'], [0.099, 'mend'], [-0.301, 'fine'], [-0.099, 'mend'], [10, 'unknown', /how deep the cable lies/]],
      silent: [facts(), near('buried-cable', 1)],
    },
    'piped-drain.services': { at: (v) => facts({ ...ONE, services: v === 1 ? 'asked' : 'not-asked' }), found: (v) => (v === 1 ? 1 : null), judged: [[1, 'fine'], [0, 'unknown', /located and marked/]] },
  }); // prettier-ignore
});
