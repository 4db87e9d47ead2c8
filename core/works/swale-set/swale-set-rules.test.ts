// Rules on swales in a set at both sides of their limits.
import { describe } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, linkOf, setbackCases, siteOf, stormOf, testSides, withAt } from '../../testing/rules.ts';
import { measureLip } from '../lip.ts';
import { newSet } from './create.ts';
import { SET_RULES, type SwaleSet } from './index.ts';
import { type SetFacts, earthOf, rowsOf, storesOf } from './standing.ts';

const plane = (slope: number) => siteOf(gridOf((_x, y) => 100 + slope * y, { cells: 401, cellM: 0.5 }));
const SITE = plane(0.08);
const line = (y: number, dip = 0): Line => [[80, y], [50, y - dip], [20, y]]; // prettier-ignore
const ONE: SwaleSet = newSet('set', 'Set', { lines: [line(60), line(48), line(36)], by: 'even' });
const facts = (work: SwaleSet = ONE, change: Partial<SetFacts> = {}, site = SITE): SetFacts => {
  const rows = rowsOf(work, work.lines.map((l) => measureLip(l, site))); // prettier-ignore
  const stores = storesOf(work, rows);
  const storm = stormOf();
  return { ...factsOf(site, { store: stores[0], storm, others: stores.map((store) => ({ store, storm })) }), work, rows, ...change };
};
const with_ = (path: string, value: unknown, of = ONE): SetFacts => facts(withAt(of, path, value));
const noStorm = facts(ONE, { storm: null, store: null, others: [] });
/** What the storm did to the second of them. */
const second = (change: Parameters<typeof stormOf>[0]): SetFacts => {
  const on = facts();
  return { ...on, others: on.others!.map((o, k) => (k === 1 ? { ...o, storm: stormOf(change) } : o)) };
};
const near = (kind: string, awayM: number): SetFacts => facts(ONE, {}, { ...SITE, features: [{ id: 'f', kind, at: [50, 36 - awayM] }] }); // prettier-ignore
const alone = facts({ ...ONE, lines: [line(60)] });
/** By hand: 0.3048 (0.6 · 8 + 2) of fall on 8 %. */
const VI = 0.3048 * 6.8;
/** Fall between two lips as their ground was read from the grid. */
const pairFall = (v: number): number => {
  const [above, below] = facts({ ...ONE, lines: [line(180), line(180 - v / 0.08)] }).rows;
  return above.lipM - below.lipM;
};
/** Sides so upright that what is dug makes so much of the bank: found by the width of the floor. */
const LIPS = ONE.lines.map((l) => measureLip(l, SITE));
const dug = (share: number): SetFacts => {
  const of = (b: number): number => {
    const work = withAt(ONE, 'dimensions.floorWidthM', b);
    const earths = rowsOf(work, LIPS).map((r) => earthOf(work, r)!);
    return (0.9 * earths.reduce((sum, e) => sum + e.cutM3, 0)) / earths.reduce((sum, e) => sum + e.bankM3, 0);
  };
  let [low, high] = [0.1, 6];
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2;
    if (of(middle) < share) low = middle;
    else high = middle;
  }
  return with_('dimensions.floorWidthM', high);
};

/** Ways of the water of all three, so many of which run past the next; the lowest lets go to the ground. */
const passing = (past: number): SetFacts['links'] =>
  ['set', 'set:2', 'set:3'].map((from, k) => ({ ...linkOf(`${from}#spill`, 0.01, k < past || k === 2 ? 'ground' : `set:${k + 2}`), from }));

describe('rules on swales in a set', () => {
  testSides<SetFacts>(SET_RULES, {
    'swale-set.slope': {
      at: (v) => facts(ONE, {}, plane(v)),
      limit: 0.15,
      judged: [
        [0.149, 'fine'],
        [0.151, 'weigh', /terraces or lines of stone/],
        [0.199, 'weigh'],
        [0.201, 'mend'],
      ],
    },
    'swale-set.interval': {
      at: (v) => facts({ ...ONE, lines: [line(180), line(180 - v / 0.08)] }),
      found: (v) => pairFall(v),
      judged: [
        [1.09 * VI, 'fine'],
        [1.11 * VI, 'weigh', /one more between them \(number 2\)/],
        [1.59 * VI, 'weigh'],
        [1.61 * VI, 'mend'],
      ],
      silent: [alone, facts({ ...ONE, by: 'storage' })],
    },
    'swale-set.even': {
      at: (v) => facts({ ...ONE, lines: [line(60), line(50), line(50 - 10 * v)] }),
      limit: 1.5,
      judged: [
        [1.49, 'fine'],
        [1.51, 'weigh', /Take one out.*\(number 2\).*\(number 3\)/],
        [2.49, 'weigh'],
        [2.51, 'mend'],
      ],
      silent: [alone, facts({ ...ONE, by: 'interval' })],
    },
    'swale-set.room': {
      at: (v) => second({ inM3: 100, spilledM3: v }),
      limit: 50,
      judged: [
        [50, 'fine'],
        [50.1, 'weigh', /deeper or wider.*\(number 2\)/],
      ],
      silent: [noStorm],
    },
    'swale-set.freeboard': {
      at: (v) => second({ freeboardM: v, peakOutM3s: 0.9 }),
      limit: 0.1,
      judged: [
        [0.019, 'mend', /Make each spill 7\.90 m long/],
        [0.021, 'weigh'],
        [0.099, 'weigh'],
        [0.1, 'fine'],
      ],
      silent: [noStorm],
    },
    'swale-set.hands-on': {
      at: (v) => facts(ONE, { links: passing(v) }),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'weigh', /other end.*\(number 1\)/],
        [2, 'weigh'],
      ],
      silent: [facts(), facts({ ...ONE, lines: [line(60)] }, { links: passing(1) })],
    },
    'swale-set.soaks': {
      // Ground of 20 mm/h.
      at: (v) => with_('dimensions.depthM', 0.02 * v),
      limit: 48,
      judged: [
        [47.9, 'fine'],
        [48.1, 'weigh', /0\.96 m deep/],
        [71.9, 'weigh'],
        [72.1, 'mend'],
      ],
      silent: [facts(ONE, {}, { ...SITE, soilAt: () => null })],
    },
    'swale-set.level': {
      // A dip in the middle: its mean lies half of it over its lowest place.
      at: (v) => facts({ ...ONE, lines: [line(60, (2 * v) / 0.08)] }),
      found: (v) => {
        const [row] = facts({ ...ONE, lines: [line(60, (2 * v) / 0.08)] }).rows;
        return row.lipM - Math.min(...row.ground.groundM);
      },
      limit: 0.1,
      judged: [
        [0.095, 'fine'],
        [0.105, 'weigh', /along the contour/],
        [0.24, 'weigh'],
        [0.26, 'mend'],
      ],
    },
    'swale-set.earth': {
      at: dug,
      limit: (v) => (v > 1.4 ? 1.4 : 0.9),
      judged: [
        [0.89, 'weigh', /makes a bank of/],
        [0.91, 'fine'],
        [1.39, 'fine'],
        [1.41, 'weigh', /makes a bank of/],
      ],
    },
    'swale-set.floats': {
      at: (v) =>
        facts({ ...ONE, fill: 'logs', held: v === 0 ? 'loose' : 'pinned', dimensions: { ...ONE.dimensions, fillM: v === 1 ? 0.26 : 0.2 } }),
      found: (v) => (v === 2 ? 1 : 0),
      judged: [
        [0, 'mend', /Stake or net/],
        [1, 'weigh', /a hand under the spill/],
        [2, 'fine'],
      ],
      silent: [facts()],
    },
    'swale-set.seeded': {
      at: (v) => with_('bank', v === 0 ? 'bare' : 'seeded'),
      judged: [
        [0, 'mend', /Seed and mulch/],
        [1, 'fine'],
      ],
    },
    'swale-set.nursed': {
      at: (v) => with_('planting.nursePercent', v),
      found: (v) => (v >= 50 ? 1 : 0),
      judged: [
        [49, 'weigh', /half or more/],
        [50, 'fine'],
      ],
      silent: [facts(withAt(withAt(ONE, 'planting.treesApartM', 0), 'planting.nursePercent', 0))],
    },
    'swale-set.fenced': {
      at: (v) => facts({ ...ONE, grazed: 'yes', fence: (['none', 'one-side', 'both-sides'] as const)[v] }),
      found: (v) => (v === 2 ? 1 : 0),
      judged: [
        [0, 'mend', /both sides/],
        [1, 'weigh', /other side too/],
        [2, 'fine'],
      ],
      silent: [facts()],
    },
    ...setbackCases<SetFacts>('swale-set', near),
  });
});
