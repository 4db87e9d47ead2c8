import { describe } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, stormOf, testSides, withAt } from '../../testing/rules.ts';
import { SUMP_RULES, type Sump, newSump } from './index.ts';
import { type SumpFacts, headsOf } from './standing.ts';

const SITE = siteOf(gridOf(() => 100, { cells: 81, cellM: 0.5 }));
const SUMP = newSump('s', 'Sump', {
  line: [[20, 20], [30, 20]],
  levels: { floorM: 98.8, stopM: 99, startM: 99.4, rimM: 100, deliveryM: 100.2 },
  lengthM: 12,
}); // prettier-ignore
const facts = (change: Partial<Sump> = {}, peakM3s = 0.001): SumpFacts => ({
  ...factsOf(SITE, { storm: stormOf({ peakInM3s: peakM3s }), designPeakM3s: peakM3s }),
  work: { ...SUMP, ...change },
  ground: { pitM: 100, endM: 100, highestM: 100.1, pool: null, taken: [] },
});
const noStorm: SumpFacts = { ...facts(), storm: null, designPeakM3s: null };
const at = (path: string, value: number, of: Sump = SUMP): SumpFacts => facts(withAt(of, path, value));
const AREA = (Math.PI / 4) * 0.36;
const HEAD = headsOf(SUMP).liftM + headsOf(SUMP).lossM;
const fast = (ms: number): SumpFacts => facts({ flowM3s: ms * (Math.PI / 4) * 0.0025 });
/** So many hours to the rim at the peak. */
const hours = (h: number, change: Partial<Sump> = {}): SumpFacts => facts(change, (AREA * 0.6) / h / 3600);
/** A battery that lasts so long beside the pit, at as much as the pump gives. */
const battery = (h: number): SumpFacts => {
  const wait = (AREA * 0.6) / SUMP.flowM3s / 3600;
  return facts({ backup: 'battery', batteryWh: ((h - wait) * headsOf(SUMP).powerW) / 0.5 }, SUMP.flowM3s);
};
/** Its water is let go at 30 m; the property ends there or before. */
const owned = (toM: number): SumpFacts => ({ ...facts(), site: { ...SITE, outline: [[0, 0], [toM, 0], [toM, 40], [0, 40]] } }); // prettier-ignore
const near = (awayM: number): SumpFacts => ({ ...facts(), site: { ...SITE, features: [{ id: 'h', kind: 'building', ring: [[30 + awayM, 10], [40, 10], [40, 30], [30 + awayM, 30]] }] } }); // prettier-ignore

describe('rules on a sump', () => {
  testSides<SumpFacts>(SUMP_RULES, {
    'sump-pump.keeps-up': {
      at: (v) => facts({}, v * SUMP.flowM3s),
      limit: 0.8,
      judged: [
        [0.8, 'fine'],
        [0.801, 'weigh', /Set a pump that gives 12\d\.\d L\/min/],
        [1, 'weigh'],
        [1.001, 'mend'],
      ],
      silent: [noStorm],
    },
    'sump-pump.starts': {
      at: (v) => at('levels.startM', 99 + (3600 * SUMP.flowM3s) / 4 / v / AREA),
      limit: 15,
      judged: [
        [14.99, 'fine'],
        [15.01, 'weigh', /start 425 mm over where it stops/],
        [29.99, 'weigh'],
        [30.01, 'mend'],
      ],
    },
    'sump-pump.float': {
      at: (v) => at('levels.startM', 99 + v),
      limit: 0.15,
      judged: [
        [0.1501, 'fine'],
        [0.149, 'weigh', /further apart/],
        [0.0501, 'weigh'],
        [0.049, 'mend'],
      ],
    },
    'sump-pump.inlet': {
      at: (v) => facts({ inletM: 99.4 + v }),
      limit: 0.05,
      judged: [
        [0.0501, 'fine'],
        [0.049, 'weigh', /1 mm lower/],
        [-0.0999, 'weigh'],
        [-0.101, 'mend'],
      ],
      silent: [facts()],
    },
    'sump-pump.head': {
      at: (v) => facts({ ratedHeadM: HEAD / v }),
      limit: 1,
      judged: [
        [0.999, 'fine'],
        [1.001, 'weigh', /wider pipe/],
        [1.249, 'weigh'],
        [1.251, 'mend'],
      ],
    },
    'sump-pump.velocity': {
      at: fast,
      limit: 2,
      judged: [
        [1.999, 'fine'],
        [2.001, 'weigh', /wider pipe/],
        [2.999, 'weigh'],
        [3.001, 'mend'],
      ],
    },
    'sump-pump.grit': {
      at: fast,
      limit: 0.7,
      judged: [
        [0.701, 'fine'],
        [0.699, 'weigh', /narrower pipe/],
      ],
    },
    'sump-pump.power-cut': {
      at: (v) => (v > 100 ? battery(v - 100) : v < 0 ? facts({ backup: 'battery' }) : hours(v)),
      found: (v) => (v > 100 ? v - 100 : v < 0 ? null : v),
      judged: [
        [6.01, 'fine'],
        [5.99, 'weigh', /second pump on a battery/],
        [0.501, 'weigh'],
        [0.499, 'mend'],
        [-1, 'unknown', /what its battery holds/],
        [106.01, 'fine'],
        [105.99, 'weigh', /larger battery/],
        [101.01, 'weigh'],
        [100.99, 'mend'],
      ],
      silent: [noStorm, facts({ backup: 'generator' }), facts({}, 0)],
    },
    'sump-pump.alarm': {
      at: (v) => facts({ alarm: v === 1 ? 'yes' : 'no' }),
      judged: [
        [1, 'fine'],
        [0, 'weigh', /second float/],
      ],
    },
    'sump-pump.valve': {
      at: (v) => facts({ valve: v === 1 ? 'yes' : 'no' }),
      judged: [
        [1, 'fine'],
        [0, 'mend', /check valve/],
      ],
    },
    'sump-pump.circuit': {
      at: (v) => facts({ circuit: v === 1 ? 'own' : v === 0 ? 'shared' : 'unknown' }),
      found: (v) => (v < 0 ? null : v),
      judged: [
        [1, 'fine'],
        [0, 'mend', /licensed electrician/],
        [-1, 'unknown'],
      ],
    },
    'sump-pump.goes': {
      at: (v) =>
        [
          facts({ goes: 'neighbour' }),
          facts({ goes: 'street', asked: 'asked' }),
          facts({ goes: 'sewer', asked: 'asked' }),
          facts(),
          owned(31),
          owned(29),
        ][v],
      found: (v) => [null, 1, 0, null, 1, 0][v],
      judged: [
        [0, 'unknown', /Ask whoever/],
        [1, 'fine'],
        [2, 'mend', /no foul water/],
        [3, 'unknown', /Draw the property line/],
        [4, 'fine'],
        [5, 'mend', /beyond the property line/],
      ],
    },
    'sump-pump.away': {
      at: near,
      limit: 3,
      judged: [
        [3, 'fine'],
        [2.99, 'weigh', /further from the wall/],
        [1.5, 'weigh'],
        [1.49, 'mend'],
      ],
      silent: [facts()],
    },
    'sump-pump.pipe-over': {
      at: (v) => at('levels.deliveryM', 100.1 + v),
      limit: -0.6,
      judged: [
        [-0.59, 'fine'],
        [-0.61, 'weigh', /100\.100 m as the highest/],
        [-1.19, 'weigh'],
        [-1.21, 'mend'],
      ],
    },
    'sump-pump.tried': {
      at: (v) => facts({ status: 'existing', ...(v < 0 ? {} : { triedMonths: v }) }),
      found: (v) => (v < 0 ? null : v),
      limit: 3,
      judged: [
        [3, 'fine'],
        [3.1, 'weigh', /Pour a bucket/],
        [12, 'weigh'],
        [12.1, 'mend'],
        [-1, 'unknown', /note the day/],
      ],
      silent: [facts()],
    },
  });
}); // prettier-ignore
