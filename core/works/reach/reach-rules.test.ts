import { describe } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { trapezoid, uniformFlow } from '../../hydraulics/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, stormOf, testSides } from '../../testing/rules.ts';
import { measureBed } from '../bed.ts';
import { REACH_RULES, type Reach, type ReachSection, newReach } from './index.ts';
import { type ReachFacts, atPeak, standingReach } from './standing.ts';
import { storesOf } from './store.ts';

const LINE: Line = [[50, 90], [50, 30]]; // prettier-ignore
const SITE = siteOf(gridOf((_x, y) => 0.01 * y + 8.1, { cells: 201, cellM: 0.5 }));
const section = (atM: number, bedM: number, change: Partial<ReachSection> = {}): ReachSection => ({ atM, bedM, bedWidthM: 1, leftOutM: 1.5, leftHighM: 1.5, rightOutM: 1.5, rightHighM: 1.5, ...change }); // prettier-ignore
const EVEN: Reach = {
  ...newReach('reach', 'Gully', { line: LINE, runs: 'gully', sections: [section(0, 9), section(30, 8.7), section(60, 8.4)] }),
  rough: 'pools',
  bedIs: 'stiff-clay',
};
const facts = (change: Partial<Reach> = {}, peakM3s = 0.5): ReachFacts => {
  const standing = standingReach({ ...EVEN, ...change }, measureBed(LINE, SITE));
  const others = storesOf(standing).map((store) => ({ store, storm: stormOf({ peakInM3s: peakM3s }) }));
  return { ...factsOf(SITE, { store: others[0].store, storm: others[0].storm, others, designPeakM3s: peakM3s }), standing };
};
const noStorm: ReachFacts = { ...facts(), store: null, storm: null, others: [], designPeakM3s: null };
/** The flow that runs so deep, evenly. */
const flowAt = (y: number): number => uniformFlow(trapezoid(1, 1), { slope: 0.01, n: 0.04 }, y);
/** The flow that runs so fast, evenly, found by halving. */
function flowOf(speed: number): number {
  let [low, high] = [0, 5];
  for (let k = 0; k < 60; k++) {
    const y = (low + high) / 2;
    if (flowAt(y) / ((1 + y) * y) < speed) low = y;
    else high = y;
  }
  return flowAt(low);
}
const ofMiddle = (change: Partial<ReachSection>): ReachFacts =>
  facts({ sections: [section(0, 9), section(30, 8.7, change), section(60, 8.4)] });
/** On a slope at which its fastest section is so far off critical. */
function offCritical(off: number): ReachFacts {
  const shallow = { leftHighM: 1, leftOutM: 1, rightHighM: 1, rightOutM: 1 };
  const on = (slope: number): ReachFacts => facts({ sections: [0, 30, 60].map((at) => section(at, 9 - slope * at, shallow)) }, 2);
  let [low, high] = [0.001, 0.02];
  for (let k = 0; k < 60; k++) {
    const slope = (low + high) / 2;
    if (Math.max(...(atPeak(on(slope)) ?? []).map((at) => at.froude)) < 1 - off) low = slope;
    else high = slope;
  }
  return on(low);
}

describe('rules on a channel as it is', () => {
  testSides<ReachFacts>(REACH_RULES, {
    'reach.carries': {
      at: (v) => (v > 9 ? facts({ rough: 'unknown' }) : facts({}, flowAt(1.5 - v))),
      found: (v) => (v > 9 ? null : v),
      judged: [
        [10, 'unknown', /what it looks like/],
        [0.151, 'fine'],
        [0.149, 'weigh', /1 mm short \(section \d\)/],
        [0.001, 'weigh'],
        [-0.001, 'mend', /151 mm short/],
      ],
      silent: [noStorm],
    },
    'reach.bed': {
      at: (v) => (v > 9 ? facts({ rough: 'unknown' }) : v > 8 ? facts({ bedIs: 'unknown' }, flowOf(v - 8)) : facts({}, flowOf(v))),
      found: (v) => (v > 9 ? null : v > 8 ? v - 8 : v),
      judged: [
        [10, 'unknown', /what it looks like/],
        [8.5, 'unknown', /what its bed is of/],
        [1.1429, 'fine'],
        [1.1431, 'weigh', /check dams/],
        [1.714, 'weigh'],
        [1.715, 'mend'],
      ],
      silent: [noStorm, facts({ bedIs: 'rock' })],
    },
    'reach.silts': {
      at: (v) => facts({ runs: 'ditch' }, flowOf(v)),
      limit: 0.6,
      judged: [
        [0.601, 'fine'],
        [0.599, 'weigh', /It will silt up/],
      ],
      silent: [facts(), { ...noStorm, standing: facts({ runs: 'ditch' }).standing }],
    },
    'reach.steady': {
      at: offCritical,
      limit: 0.2,
      judged: [
        [0.201, 'fine'],
        [0.199, 'weigh', /half its depth more of bank/],
      ],
      silent: [noStorm, facts({}, 0)],
    },
    'reach.rises': {
      at: (v) => facts({ sections: [section(0, 9), section(30, 9 + v), section(60, 8.4)] }),
      limit: 0.05,
      judged: [
        [0, 'fine'],
        [0.049, 'fine'],
        [0.051, 'weigh', /rises by 51 mm \(stretch 1\)/],
        [0.299, 'weigh'],
        [0.301, 'mend'],
      ],
    },
    'reach.drops': {
      at: (v) => facts({ sections: [section(0, 9.3), section(1, 9.3 - v), section(60, 8.4)] }),
      limit: 0.5,
      judged: [
        [0.499, 'fine'],
        [0.501, 'weigh', /falls 0\.50 m there \(stretch 1\)/],
      ],
      silent: [facts({ bedIs: 'rock' })],
    },
    'reach.banks': {
      at: (v) => ofMiddle({ leftHighM: v, leftOutM: 0.9 * v }),
      limit: 1.5,
      judged: [
        [1.5, 'fine'],
        [1.51, 'weigh', /section 2/],
        [3, 'weigh'],
        [3.01, 'mend'],
      ],
      silent: [facts({ bedIs: 'rock' })],
    },
    'reach.measured': {
      at: (v) => facts({ known: v === 1 ? 'levelled' : v === 0 ? 'taped' : 'terrain' }),
      found: (v) => (v < 0 ? null : v),
      judged: [
        [1, 'fine'],
        [0, 'weigh', /Level its bed/],
        [-1, 'unknown', /Tape each section/],
      ],
    },
    'reach.datum': {
      at: (v) => facts({ sections: [section(0, 9), section(30, 8.7 - v), section(60, 8.4)] }),
      limit: 0.5,
      judged: [
        [0.499, 'fine'],
        [0.501, 'weigh', /0\.50 m apart \(section 2\)/],
        [1.999, 'weigh'],
        [2.001, 'mend'],
      ],
    },
    // Twice as wide carries about so much more; told by the ratio of both.
    'reach.alike': {
      at: (v) => ofMiddle({ bedWidthM: v }),
      found: (v) => Math.max(conveys(v) / conveys(1), conveys(1) / conveys(v)),
      limit: 1.4,
      judged: [
        [1, 'fine'],
        [1.6, 'fine'],
        [2.2, 'weigh', /one more section between them/],
        [0.2, 'weigh'],
      ],
    },
    'reach.fed': {
      at: (v) => ({ ...facts(), catchment: { of: 'reach', areaM2: v, meanSlope: 0.1, longestPathM: 10, farthest: [0, 0], touchesTerrainEdge: false, ring: [] } }), // prettier-ignore
      limit: 200,
      judged: [
        [200, 'fine'],
        [199, 'weigh', /see under Land/],
      ],
      silent: [facts()],
    },
    'reach.permission': {
      at: () => facts({ runs: 'creek', clearM: 0.1 }),
      judged: [[0, 'weigh', /Ask who watches/]],
      silent: [facts({ runs: 'creek' }), facts({ clearM: 0.1 })],
    },
  });
});

/** Conveyance at a metre and a half, by hand. */
function conveys(b: number): number {
  const A = (b + 1.5) * 1.5;
  return (A * (A / (b + 3 * Math.SQRT2)) ** (2 / 3)) / 0.04;
}
