import { describe } from '@jest/globals';
import type { Feature } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { PoolGround } from '../../terrain/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, testSides } from '../../testing/rules.ts';
import { REGRADE_RULES, type Regrade, newRegrade } from './index.ts';
import { type RegradeFacts, measureRegrade } from './standing.ts';

const RING: Line = [[20, 20], [30, 20], [30, 30], [20, 30]]; // prettier-ignore
const FLAT = gridOf(() => 100, { cells: 100, cellM: 0.5 });
const LAWN = newRegrade('lawn', 'Lawn', {
  shape: 'plane',
  ring: RING,
  levels: { levelM: 100, startM: 100, endM: 100 },
  fall: 0.05,
  towardsDeg: 270,
});
const facts = (change: Partial<Regrade> = {}, features: readonly Feature[] = [], grid = FLAT): RegradeFacts => {
  const work = { ...LAWN, ...change };
  return { ...factsOf(siteOf(grid, { features })), work, ground: measureRegrade(work, { grid }) };
};
const dims = (change: Partial<Regrade['dimensions']>): Partial<Regrade> => ({ dimensions: { ...LAWN.dimensions, ...change } });
const DISH: Partial<Regrade> = { shape: 'dish', line: [[10, 25], [40, 25]] }; // prettier-ignore
const dish = (fall: number): RegradeFacts => facts({ ...DISH, levels: { levelM: 100, startM: 99.9, endM: 99.9 - 30 * fall } });
/** A wall along the east side of the lawn. */
const HOUSE: Feature = { id: 'h', kind: 'building', ring: [[30, 18], [38, 18], [38, 32], [30, 32]] }; // prettier-ignore
/** The lawn falls so much away from it: at its wall as high as the ground. */
const fromWall = (fall: number, change: Partial<Regrade> = {}): RegradeFacts =>
  facts({ shape: 'plane', ring: [[30, 20], [30, 30], [20, 30], [20, 20]], fall: Math.abs(fall), towardsDeg: fall < 0 ? 90 : 270, ...change }, [HOUSE]); // prettier-ignore
const by = (byM: number, change: Partial<Regrade> = {}): Partial<Regrade> => ({ shape: 'by', byM, ...change });
const near = (kind: string, awayM: number): RegradeFacts => facts({}, [{ id: 'f', kind, at: [30 + awayM, 25] }]);
const pooled = (deepM: number): RegradeFacts => {
  const on = facts();
  const pool: PoolGround = {
    lowM: 100,
    lowAt: [25, 25],
    spillM: 100 + deepM,
    spillAt: [30, 25],
    cells: new Int32Array(1),
    levelM: new Float64Array(1),
    cellM2: 1,
  };
  return { ...on, ground: { ...on.ground, pool: deepM === 0 ? null : pool } };
};
const moved = (cutM3: number, fillM3: number): RegradeFacts => {
  const on = facts();
  return { ...on, ground: { ...on.ground, moved: { ...on.ground.moved, cutM3, fillM3 } } };
};
/** The lawn lies so far inside the boundary; raised by 0.1 m its batter reaches 0.4 m out. */
const inside = (awayM: number): RegradeFacts => {
  const on = facts(by(0.1));
  const outline: Line = [[0, 0], [30 + awayM, 0], [30 + awayM, 50], [0, 50]]; // prettier-ignore
  return { ...on, site: { ...on.site, outline } };
};

describe('rules on shaped ground', () => {
  testSides<RegradeFacts>(REGRADE_RULES, {
    'regrade.fall': {
      at: (v) => facts({ fall: v }),
      limit: 0.02,
      judged: [
        [0.02, 'fine'],
        [0.0199, 'weigh', /fall 2\.0 % or more/],
        [0.01, 'weigh'],
        [0.0099, 'mend'],
      ],
      silent: [facts({ shape: 'level' })],
    },
    'regrade.away': {
      at: fromWall,
      limit: 0.05,
      judged: [
        [0.0501, 'fine'],
        [0.0499, 'weigh', /away from that wall/],
        [0.001, 'weigh'],
        [-0.001, 'mend'],
      ],
      silent: [facts(), facts({}, [{ ...HOUSE, ring: HOUSE.ring!.map(([x, y]) => [x + 4, y]) }])],
    },
    'regrade.sill': {
      at: (v) => fromWall(0.05, { levels: { levelM: 100, startM: 100, endM: 100 }, thresholdM: 100 + v }),
      limit: 0.15,
      judged: [
        [0.1501, 'fine'],
        [0.149, 'weigh', /1 mm too high/],
        [0.0501, 'weigh'],
        [0.049, 'mend'],
      ],
      silent: [facts()],
    },
    'regrade.pools': {
      at: pooled,
      limit: 0.02,
      judged: [
        [0, 'fine'],
        [0.0199, 'fine'],
        [0.0201, 'weigh', /Water stands 20 mm deep/],
        [0.0499, 'weigh'],
        [0.0501, 'mend'],
      ],
    },
    'regrade.batter': {
      at: (v) => facts(by(0.4, dims({ batterHV: v }))),
      limit: 3,
      judged: [
        [3, 'fine'],
        [2.99, 'weigh', /3 out for 1 up/],
        [1.5, 'weigh'],
        [1.49, 'mend'],
      ],
      silent: [facts(by(0.3, dims({ batterHV: 1 }))), dish(0.05)],
    },
    'regrade.balance': {
      at: (v) => (v < 0 ? moved(0, -v / 1.1) : moved(v, 0)),
      found: Math.abs,
      limit: 2,
      judged: [
        [2, 'fine'],
        [2.01, 'weigh', /left over/],
        [-2.01, 'weigh', /wanting/],
      ],
    },
    'regrade.footing': {
      at: (v) => fromWall(0.0001, by(-v)),
      limit: 0.15,
      judged: [
        [0.1499, 'fine'],
        [0.1501, 'weigh', /how deep the footing lies/],
        [0.2999, 'weigh'],
        [0.3001, 'mend'],
      ],
      silent: [facts(by(-1))],
    },
    'regrade.boundary': {
      at: (v) => (v > 9 ? facts() : inside(v)),
      found: (v) => (v > 9 ? null : v - 0.4),
      limit: 0.5,
      judged: [
        [0.901, 'fine'],
        [0.899, 'weigh', /off the boundary/],
        [0.401, 'weigh'],
        [0.399, 'mend'],
        [10, 'unknown', /Draw the property line/],
      ],
    },
    'regrade.roots': {
      at: (v) => near('tree', v),
      limit: 3,
      judged: [
        [3, 'fine'],
        [2.9, 'weigh', /under its crown/],
        [1, 'weigh'],
        [0.9, 'mend'],
      ],
      silent: [facts()],
    },
    'regrade.septic': {
      at: (v) => near('septic', v),
      limit: 3,
      judged: [
        [3, 'fine'],
        [2.9, 'weigh', /Neither earth nor wheels/],
        [1, 'weigh'],
        [0.9, 'mend'],
      ],
      silent: [facts()],
    },
    // Twice its area by its edge, in cells of half a metre.
    'regrade.seen': {
      at: (v) => facts({ ring: [[20, 20], [20 + v, 20], [20 + v, 30], [20, 30]] }), // prettier-ignore
      found: (v) => (2 * 10 * v) / (2 * (10 + v)) / 0.5,
      limit: 2,
      judged: [
        [1.2, 'fine'],
        [1.05, 'weigh', /finer survey/],
      ],
    },
    'regrade.topsoil': {
      at: (v) => facts(dims({ topsoilM: v })),
      limit: 0.1,
      judged: [
        [0.1, 'fine'],
        [0.099, 'weigh', /put 100 mm back/],
      ],
      silent: [facts({ after: 'paving' }), facts({ after: 'gravel' })],
    },
    'regrade.services': {
      at: (v) => facts({ services: v === 1 ? 'asked' : 'not-asked' }),
      found: (v) => (v === 1 ? 1 : null),
      judged: [
        [1, 'fine'],
        [0, 'unknown', /located and marked/],
      ],
    },
  });
});
