// Rules on stone lines at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { measureLip } from '../lip.ts';
import { judgeBy } from '../rules.ts';
import { newLines } from './create.ts';
import { LINES_RULES, type StoneLines } from './index.ts';
import { stoneOf } from './making.ts';
import { type LinesFacts, rowsOf, storesOf, topOf } from './standing.ts';

const plane = (slope: number) => siteOf(gridOf((_x, y) => 100 + slope * y, { cells: 201, cellM: 0.5 }));
const SITE = plane(0.04);
const line = (y: number, rise = 0): Line => [
  [20, y],
  [50, y + rise],
  [80, y],
];
const ONE: StoneLines = newLines('lines', 'Lines', [line(50), line(40)]);
const facts = (work: StoneLines = ONE, change: Partial<LinesFacts> = {}, site = SITE): LinesFacts => {
  const rows = rowsOf(work, work.lines.map((l) => measureLip(l, site))); // prettier-ignore
  const stores = storesOf(work, rows);
  const storm = stormOf({ peakLevelM: 0 });
  return { ...factsOf(site, { store: stores[0], storm, others: stores.map((store) => ({ store, storm })) }), work, rows, ...change };
};
const with_ = (path: string, value: unknown, of = ONE): LinesFacts => facts(withAt(of, path, value));
/** Water so high over the top of the first line at its peak. */
const over = (headM: number): LinesFacts => {
  const on = facts();
  const storm = stormOf({ peakLevelM: topOf(on.rows[0], ONE) + headM });
  return { ...on, storm, others: on.others!.map((o, k) => (k === 0 ? { ...o, storm } : o)) };
};
/** By hand: stone that stays in a sheet at its critical depth, turned round to the head that moves it. */
const headFor = (stoneM: number): number => {
  const V = 0.86 * Math.sqrt(2 * 9.81 * 1.65 * stoneM);
  return Math.cbrt((V ** 3 / 9.81 / 1.5) ** 2);
};
const noStorm = facts(ONE, { storm: null, store: null, others: [] });
const NEEDS = stoneOf(ONE);
/** What a rule tells where the ground gives it to a few millimetres only: then that, else what it should be. */
const about =
  (id: string, at: (v: number) => LinesFacts) =>
  (v: number): number => {
    const value = judgeBy(
      LINES_RULES.find((r) => r.id === id)!,
      at(v),
    )!.value!;
    return Math.abs(value - v) < 0.003 ? value : v;
  };
const spaced = (v: number): LinesFacts => facts({ ...ONE, lines: [line(50), line(50 - v)] });
const departs = (v: number): LinesFacts => facts({ ...ONE, lines: [line(50), line(40, v / 0.04)] });

describe('rules on stone lines', () => {
  testSides<LinesFacts>(LINES_RULES, {
    'stone-lines.slope': {
      at: (v) => facts(ONE, {}, plane(v)),
      found: (v) => v,
      limit: 0.05,
      judged: [
        [0.0499, 'fine'],
        [0.0501, 'weigh', /terraces or half-moons there \(line [12]\)/],
        [0.0799, 'weigh'],
        [0.0801, 'mend'],
      ],
    },
    'stone-lines.height': {
      at: (v) => with_('dimensions.heightM', v),
      limit: (v) => (v > 0.4 ? 0.4 : 0.25),
      judged: [
        [0.149, 'mend', /0\.25 m high/],
        [0.151, 'weigh'],
        [0.249, 'weigh'],
        [0.25, 'fine'],
        [0.4, 'fine'],
        [0.401, 'weigh', /0\.30 m high/],
        [0.601, 'mend'],
      ],
    },
    // Ten metres apart from 2 to 5 %, a seventh and three fifths more.
    'stone-lines.spacing': {
      at: spaced,
      found: about('stone-lines.spacing', spaced),
      limit: 10,
      judged: [
        [11.499, 'fine'],
        [11.501, 'weigh', /one more between: 10 m apart/],
        [15.99, 'weigh'],
        [16.01, 'mend'],
      ],
      silent: [facts({ ...ONE, lines: [line(50)] })],
    },
    'stone-lines.departure': {
      at: departs,
      found: about('stone-lines.departure', departs),
      limit: 0.1,
      judged: [
        [0.0999, 'fine'],
        [0.104, 'weigh', /along it \(line 2\): peg it again by level/],
        [0.2499, 'weigh'],
        [0.256, 'mend'],
      ],
    },
    'stone-lines.ends': {
      at: (v) => with_('dimensions.endsUpM', 0.25 + v),
      limit: 0,
      judged: [
        [-0.1501, 'mend', /251 mm uphill/],
        [-0.149, 'weigh'],
        [0.0001, 'fine'],
      ],
    },
    'stone-lines.stone': {
      at: (v) => over(headFor(0.15 / v)),
      found: () => 0.15,
      judged: [
        [1.001, 'fine'],
        [0.999, 'weigh', /Lay stone of 15[01] mm where water goes over/],
        [0.7001, 'weigh'],
        [0.6999, 'mend'],
      ],
      silent: [noStorm],
    },
    'stone-lines.trench': {
      at: (v) => with_('dimensions.trenchM', v),
      limit: 0.05,
      judged: [
        [0.0199, 'mend', /50 mm into the ground/],
        [0.0201, 'weigh'],
        [0.05, 'fine'],
      ],
    },
    'stone-lines.width': {
      at: (v) => with_('dimensions.baseWidthM', v),
      limit: 0.35,
      judged: [
        [0.2449, 'mend', /0\.35 m wide/],
        [0.2451, 'weigh'],
        [0.3501, 'fine'],
      ],
    },
    'stone-lines.grass': {
      at: (v) => with_('dimensions.plantSpacingM', v),
      limit: 0.15,
      judged: [
        [0.15, 'fine'],
        [0.1501, 'weigh', /Plant 150 mm apart/],
        [0.3, 'weigh'],
        [0.3001, 'mend'],
      ],
      silent: [with_('grass', 'none')],
    },
    'stone-lines.gaps': {
      at: (v) => facts({ ...ONE, gaps: [{ row: 1, atM: 3, widthM: 0.1 }, { row: 2, atM: 7, widthM: v }] }), // prettier-ignore
      limit: 0.3,
      judged: [
        [0.3, 'fine'],
        [0.301, 'weigh', /line 2, 7\.00 m along/],
        [1, 'weigh'],
        [1.01, 'mend'],
      ],
      silent: [facts()],
    },
    'stone-lines.silted': {
      at: (v) => facts({ ...ONE, siltedPercent: v }),
      limit: 80,
      judged: [
        [80, 'fine'],
        [80.1, 'weigh', /one more course/],
      ],
    },
    'stone-lines.stone-near': {
      at: (v) => facts({ ...ONE, rockNearM3: v }),
      limit: NEEDS,
      judged: [
        [NEEDS, 'fine'],
        [NEEDS - 2, 'weigh', /2\.0 m³ more is to be carried/],
      ],
      silent: [facts()],
    },
  });
  it('with one line no line is counted', () => {
    const one = { ...ONE, lines: [line(50, 4)] };
    const found = judgeBy(
      LINES_RULES.find((r) => r.id === 'stone-lines.departure')!,
      facts(one),
    )!;
    expect(words(found.do)).toMatch(/Water gathers (0\.00|\d+(\.\d+)?) m along it: peg/);
  });
});
