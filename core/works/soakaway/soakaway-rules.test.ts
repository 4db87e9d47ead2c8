// Rules on soakaways at both sides of their limits.
import { describe } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, setbackCases, siteOf, soilOf, stormOf, testSides, withAt } from '../../testing/rules.ts';
import { measureLip } from '../lip.ts';
import { newSoakaway } from './create.ts';
import { SOAKAWAY_RULES, type Soakaway } from './index.ts';
import { type SoakawayFacts, holeOf, storeOf } from './standing.ts';

const plane = (slope: number, along = 0) => siteOf(gridOf((x, y) => 100 + slope * y + along * x, { cells: 201, cellM: 0.5 }));
const SITE = plane(0.05);
const ONE = newSoakaway('soak', 'Trench', { form: 'trench', line: [[20, 50], [40, 50]] }); // prettier-ignore
const facts = (work: Soakaway = ONE, change: Partial<SoakawayFacts> = {}, site = SITE): SoakawayFacts => {
  const hole = holeOf(work, measureLip(work.line, site));
  return { ...factsOf(site, { store: storeOf(work, hole), storm: stormOf() }), work, hole, ...change };
};
const with_ = (path: string, value: unknown, of = ONE): SoakawayFacts => facts(withAt(of, path, value));
/** Ground that lets half of a trench, or all but a trace of it, through its base in so many hours. */
const halfIn = (hours: number): SoakawayFacts => facts({ ...ONE, testedMmPerHour: (2 * 0.5 * 360) / hours });
const emptyIn = (hours: number): SoakawayFacts => facts({ ...ONE, testedMmPerHour: (2 * 0.98 * 360) / hours });
const near = (kind: string, awayM: number): SoakawayFacts => {
  const at = [30, 50 - awayM] as const;
  return facts(ONE, {}, { ...SITE, features: [{ id: 'f', kind, at }] });
};
const noStorm = facts(ONE, { storm: null, store: null });
const SHAFT = newSoakaway('soak', 'Shaft', { form: 'shaft', line: [[28, 50], [32, 50]] }); // prettier-ignore
const deep = (v: number, of = ONE): SoakawayFacts => with_('dimensions.depthM', v, of);
const soil = (v: number): SoakawayFacts => facts(ONE, {}, { ...SITE, soilAt: () => soilOf({ soilDepthM: v }) });

describe('rules on soakaways', () => {
  testSides<SoakawayFacts>(SOAKAWAY_RULES, {
    'soakaway.half': {
      at: halfIn,
      limit: 24,
      judged: [
        [23.99, 'fine'],
        [24.01, 'weigh', /shallower and longer/],
        [47.99, 'weigh'],
        [48.01, 'mend'],
      ],
      silent: [facts(ONE, {}, { ...SITE, soilAt: () => null })],
    },
    'soakaway.empties': {
      at: emptyIn,
      limit: 48,
      judged: [
        [47.9, 'fine'],
        [48.1, 'weigh', /several small ones/],
        [71.9, 'weigh'],
        [72.1, 'mend'],
      ],
      silent: [facts(ONE, {}, { ...SITE, soilAt: () => null })],
    },
    'soakaway.tested': {
      at: (v) => (v === 0 ? facts() : with_('testedMmPerHour', v)),
      found: (v) => (v === 0 ? null : v),
      limit: 13,
      judged: [
        [0, 'unknown', /fill it three times/],
        [6.99, 'mend', /takes in too little/],
        [7, 'weigh'],
        [12.99, 'weigh'],
        [13, 'fine'],
      ],
    },
    'soakaway.safety': {
      at: (v) => with_('dimensions.safety', v, { ...ONE, testedMmPerHour: 50 }),
      limit: 2,
      judged: [
        [1.49, 'mend', /by 2/],
        [1.5, 'weigh'],
        [1.99, 'weigh'],
        [2, 'fine'],
      ],
      silent: [facts()],
    },
    'soakaway.room': {
      at: (v) => facts(ONE, { storm: stormOf({ spilledM3: v }) }),
      found: () => 4.32,
      judged: [
        [0, 'fine'],
        [0.004, 'fine'],
        [0.005, 'weigh', /run over it/],
        [50, 'weigh', /50 m³ of 100 m³/],
      ],
      silent: [noStorm],
    },
    'soakaway.passes': {
      at: (v) => facts(ONE, { storm: stormOf({ freeboardM: v }) }),
      limit: 0.05,
      judged: [
        [-0.01, 'mend', /bank 0\.1[89] m high/],
        [-0.6, 'mend', /way over wider/],
        [0, 'weigh', /bank 0\.17 m high/],
        [0.049, 'weigh'],
        [0.05, 'fine'],
      ],
      silent: [noStorm],
    },
    'soakaway.trap': {
      at: (v) => with_('trap', ['none', 'strip', 'sump'][v]),
      found: (v) => (v === 0 ? 0 : 1),
      judged: [
        [0, 'mend', /strip of dense grass/],
        [1, 'fine'],
        [2, 'fine'],
      ],
    },
    'soakaway.wrap': {
      at: (v) => with_('wrap', v === 0 ? 'none' : 'cloth'),
      judged: [
        [0, 'weigh', /none on its floor/],
        [1, 'fine'],
      ],
      silent: [facts({ ...ONE, fill: 'open', wrap: 'none' })],
    },
    'soakaway.cover': {
      at: (v) => with_('cover', v === 0 ? 'none' : 'grate', { ...ONE, fill: 'open' }),
      judged: [
        [0, 'mend', /a child cannot lift/],
        [1, 'fine'],
      ],
      silent: [facts({ ...ONE, cover: 'none' }), deep(0.6, { ...ONE, fill: 'open', cover: 'none' })],
    },
    'soakaway.asked': {
      at: (v) => facts({ ...SHAFT, asked: v === 0 ? 'not-asked' : 'allowed' }),
      found: (v) => (v === 0 ? null : 1),
      judged: [
        [0, 'unknown', /look after ground water/],
        [1, 'fine'],
      ],
      silent: [facts()],
    },
    'soakaway.water-table': {
      at: (v) => (v < 0 ? facts() : facts({ ...ONE, waterTableM: 1 + v })),
      found: (v) => (v < 0 ? null : v),
      limit: 1.2,
      judged: [
        [-1, 'unknown', /wettest month/],
        [0.59, 'mend', /Dig it 0\.39 m deep/],
        [0.3, 'mend', /too high there/],
        [0.601, 'weigh'],
        [1.199, 'weigh'],
        [1.2, 'fine'],
      ],
    },
    'soakaway.rock': {
      at: (v) => (v < 0 ? facts(ONE, {}, { ...SITE, soilAt: () => null }) : soil(1 + v)),
      found: (v) => (v < 0 ? null : v),
      judged: [
        [-1, 'unknown', /how deep its soil/],
        [0.29, 'mend', /Dig it 0\.69 m deep/],
        [0.301, 'weigh'],
        [0.599, 'weigh'],
        [0.601, 'fine'],
      ],
      silent: [facts(SHAFT)],
    },
    'soakaway.slope': {
      at: (v) => facts(ONE, {}, plane(v)),
      limit: 0.15,
      judged: [
        [0.149, 'fine'],
        [0.151, 'weigh', /gentler ground/],
        [0.199, 'weigh'],
        [0.201, 'mend'],
      ],
    },
    'soakaway.level': {
      at: (v) => facts(ONE, {}, plane(0.05, v / 20)),
      limit: 0.2,
      judged: [
        [0.199, 'fine'],
        [0.201, 'weigh', /each level/],
        [0.599, 'weigh'],
        [0.601, 'mend'],
      ],
      silent: [facts(SHAFT)],
    },
    'soakaway.voids': {
      at: (v) => with_('dimensions.voids', v),
      limit: 0.4,
      judged: [
        [0.4, 'fine'],
        [0.401, 'weigh', /Count on 0\.40/],
        [0.45, 'weigh'],
        [0.451, 'mend'],
      ],
      silent: [facts({ ...ONE, fill: 'open' })],
    },
    'soakaway.digging': {
      at: (v) => deep(v),
      limit: 1.2,
      judged: [
        [1.2, 'fine'],
        [1.21, 'weigh', /hold its sides/],
        [3, 'weigh'],
        [3.01, 'mend', /who sink wells/],
      ],
    },
    'soakaway.silted': {
      at: (v) => with_('siltedPercent', v),
      limit: 10,
      judged: [
        [10, 'fine'],
        [10.1, 'weigh', /Empty its trap/],
      ],
    },
    ...setbackCases<SoakawayFacts>('soakaway', near),
  });
});
