// Rules on water lines at both sides of their limits.
import { describe } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, testSides, withAt } from '../../testing/rules.ts';
import { type EndStore, type LineGround, measureSupplyLine } from './ground.ts';
import { SUPPLY_LINE_RULES, type SupplyLine, newSupplyLine } from './index.ts';
import { type SupplyLineFacts, dripsOf, gives, lossAt, panelsFor, pumpPower, restHead } from './standing.ts';

const SITE = siteOf(gridOf((x) => 110 - 0.05 * x, { cells: 201, cellM: 1 }));
const ONE: SupplyLine = {
  ...newSupplyLine('line', 'Line', {
    line: [[20, 100], [120, 100]],
    levels: { drawM: 110, endM: 104.6 },
    drive: 'fall',
    serves: 'tap',
    flowM3s: 0.0003,
    endHeadM: 1,
    diameterM: 0.026,
  }),
  services: 'asked',
}; // prettier-ignore
const GROUND = measureSupplyLine(ONE, SITE);
const TANK_END: EndStore = { name: 'Cistern', floorM: 109, fullM: 111, roofM2: null };
const ROOF_END: EndStore = { name: 'Barn roof', floorM: 109.9, fullM: 109.9, roofM2: 80 };
const facts = (work: SupplyLine = ONE, ground: Partial<LineGround> = {}, change: Partial<SupplyLineFacts> = {}): SupplyLineFacts => ({
  ...factsOf(SITE),
  work,
  ground: { ...GROUND, from: TANK_END, ...ground },
  ...change,
});
const with_ = (path: string, value: unknown, of = ONE): SupplyLineFacts => facts(withAt(of, path, value));
const PUMPED: SupplyLine = { ...ONE, drive: 'pump', levels: { drawM: 104, endM: 114 } };
const SUNNY: SupplyLine = { ...PUMPED, pump: { ...PUMPED.pump, power: 'sun' } };
const DRIP: SupplyLine = { ...ONE, serves: 'drip' };

/** Ground that stands so high at its middle that the head over the pipe there is as told. */
const GIVES = gives(ONE, GROUND);
const hill = (headM: number): SupplyLineFacts => {
  const lost = lossAt(ONE.flowM3s, ONE, GROUND.lengthM);
  const groundM = GROUND.groundM.slice();
  groundM[50] = 110 - lost / 2 - headM + ONE.pipe.coverM;
  return facts(ONE, { groundM });
};
/** Waves along it: so many tops and dips. */
const waves = (count: number, work = ONE): SupplyLineFacts =>
  facts(work, { groundM: GROUND.groundM.map((g, k) => g + Math.cos((2 * Math.PI * k * (count + 0.5)) / 100 + Math.PI)) });
/** Choices by a number, for rules on what was said. */
const said =
  (path: string, words: readonly string[], of = ONE) =>
  (v: number): SupplyLineFacts =>
    with_(path, words[v], of);
const known =
  (words: readonly (number | null)[]) =>
  (v: number): number | null =>
    words[v];
const LOSS_OF = (times: number): SupplyLineFacts => {
  // The lift that makes the loss so large a share of it.
  const useful = lossAt(PUMPED.flowM3s, PUMPED, GROUND.lengthM) / times;
  return facts({ ...PUMPED, endHeadM: 0, levels: { drawM: 104, endM: 104 + useful } });
};
/** Length of drip lines at which the last lets out so much less, found by trial. */
const uneven = (less: number): SupplyLineFacts => {
  let [lo, hi] = [2, 3000];
  for (let k = 0; k < 60; k++) {
    const mid = (lo + hi) / 2;
    const at = dripsOf({ ...DRIP, drip: { ...DRIP.drip, lengthM: mid, apartM: mid / 50 } }).less;
    if (at < less) lo = mid;
    else hi = mid;
  }
  return facts({ ...DRIP, drip: { ...DRIP.drip, lengthM: lo, apartM: lo / 50 } });
};
const DRIPS = dripsOf(DRIP).allM3s;

describe('rules on water lines', () => {
  testSides<SupplyLineFacts>(SUPPLY_LINE_RULES, {
    'supply-line.fall': {
      at: (v) => with_('levels.endM', 109 - v),
      limit: (v) => (v < 0 ? 0 : 0.3),
      judged: [
        [0.31, 'fine'],
        [0.29, 'weigh', /try it with water/],
        [0.001, 'weigh'],
        [-0.001, 'mend', /It lacks 0\.00 m|It lacks/],
        [-4, 'mend', /It lacks 4\.00 m/],
      ],
      silent: [facts(PUMPED)],
    },
    'supply-line.flow': {
      at: (v) => with_('flowM3s', v),
      found: () => GIVES,
      judged: [
        [0.999 * GIVES, 'fine'],
        [1.001 * GIVES, 'weigh', /^Lay a pipe of 33 mm inside/],
        [1.99 * GIVES, 'weigh'],
        [2.01 * GIVES, 'mend', /^Lay a pipe of \d+ mm/],
        [0.9, 'mend', /^No usual pipe/],
      ],
      silent: [facts(PUMPED), with_('levels.endM', 109.5)],
    },
    'supply-line.passes-roof': {
      at: (v) => facts({ ...ONE, roofM2: 80 }, { from: { ...TANK_END, fullM: 110 } }, { burstMmPerHour: v < 0 ? null : v }),
      found: (v) => (v < 0 ? null : gives({ ...ONE, endHeadM: 0 }, GROUND)),
      judged: (() => {
        const all = (gives({ ...ONE, endHeadM: 0 }, GROUND) * 3.6e6) / 80;
        return [
          [-1, 'unknown', /rain of five minutes/],
          [0.99 * all, 'fine'],
          [1.01 * all, 'weigh', /^It brings \d+\.\d L\/min then/],
          [1.99 * all, 'weigh'],
          [2.01 * all, 'mend'],
        ];
      })(),
      silent: [facts()],
    },
    'supply-line.velocity': {
      at: (v) => with_('flowM3s', v * (Math.PI / 4) * 0.026 ** 2),
      limit: 1.5,
      judged: [
        [1.499, 'fine'],
        [1.501, 'weigh', /wider pipe/],
        [2.999, 'weigh'],
        [3.001, 'mend'],
      ],
    },
    'supply-line.pressure': {
      at: (v) => with_('pipe.standsM', restHead(ONE, facts().ground).value / v),
      found: () => restHead(ONE, facts().ground).value,
      judged: [
        [0.799, 'fine'],
        [0.801, 'weigh', /stronger pipe/],
        [0.999, 'weigh'],
        [1.001, 'mend'],
      ],
    },
    'supply-line.over-hill': {
      at: hill,
      limit: (v) => (v < 0 ? 0 : 0.3),
      judged: [
        [0.31, 'fine'],
        [0.29, 'weigh', /At 50 m along it lies too high/],
        [0.01, 'weigh'],
        [-0.01, 'mend'],
      ],
      silent: [with_('levels.endM', 110.5)],
    },
    'supply-line.vents': {
      at: (v) => (v === 0 ? facts() : waves(v)),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'weigh', /^Put a vent at \d+ m along it/],
        [3, 'weigh', /and 2 more/],
      ],
    },
    'supply-line.wet-legs': {
      at: (v) => (v === 0 ? facts() : v < 0 ? waves(-v, { ...ONE, frost: 'emptied' }) : waves(v)),
      found: (v) => Math.abs(v),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'weigh', /^Put a drain at \d+ m along it/],
        [2, 'weigh', /and 1 more/],
        [-1, 'mend'],
      ],
    },
    'supply-line.cover': {
      at: (v) => with_('pipe.coverM', v),
      limit: 0.45,
      judged: [
        [0.45, 'fine'],
        [0.449, 'weigh', /Bury it/],
        [0.05, 'weigh', /Bury it/],
        [0.049, 'weigh', /Shade it/],
      ],
    },
    'supply-line.draws': {
      at: (v) =>
        v < -2 ? facts(ONE, { from: ROOF_END }) : v < -1 ? facts(ONE, { from: null }) : with_('levels.drawM', 109 + v), // prettier-ignore
      found: (v) => (v < -1 ? null : v),
      judged: [
        [-3, 'mend', /^Barn roof keeps no water once the rain is over/],
        [-2, 'unknown', /Say which store/],
        [-0.01, 'mend', /^Draw from 109\.05/],
        [0.049, 'weigh', /^Draw from 109\.05/],
        [0.051, 'fine'],
        [2, 'fine'],
        [2.01, 'mend', /The water of Cistern never stands so high: it is let out at 111\.00 m/],
      ],
      silent: [facts({ ...ONE, serves: 'vessel' }, { from: ROOF_END })],
    },
    'supply-line.air-gap': {
      at: (v) => facts(ONE, { to: { ...TANK_END, fullM: 104.6 - v } }),
      limit: 0.026,
      judged: [
        [0.027, 'fine'],
        [0.025, 'weigh', /^End it at 104\.60 m/],
        [0.001, 'weigh'],
        [-0.001, 'mend'],
      ],
      silent: [facts()],
    },
    'supply-line.suction': {
      at: (v) => with_('pump.overM', v, { ...PUMPED, pump: { ...PUMPED.pump, stands: 'dry' } }),
      limit: 6,
      judged: [
        [6, 'fine'],
        [6.01, 'weigh', /Stand the pump lower/],
        [7, 'weigh'],
        [7.01, 'mend'],
      ],
      silent: [facts(), facts(PUMPED)],
    },
    'supply-line.pump-loss': {
      at: LOSS_OF,
      limit: 0.2,
      judged: [
        [0.199, 'fine'],
        [0.201, 'weigh', /^Lay a pipe of 33 mm inside/],
        [0.999, 'weigh'],
        [1.001, 'mend'],
      ],
      silent: [facts(), facts({ ...PUMPED, endHeadM: 0, levels: { drawM: 110, endM: 104 } })],
    },
    'supply-line.pump-power': {
      at: (v) => (v < 0 ? facts(PUMPED) : with_('pump.plateW', v, PUMPED)),
      found: (v) => (v < 0 ? null : v),
      limit: pumpPower(PUMPED, GROUND),
      judged: [
        [-1, 'unknown', /by its curve/],
        [1.001 * pumpPower(PUMPED, GROUND), 'fine'],
        [0.999 * pumpPower(PUMPED, GROUND), 'weigh', /stronger pump/],
        [0.701 * pumpPower(PUMPED, GROUND), 'weigh'],
        [0.699 * pumpPower(PUMPED, GROUND), 'mend'],
      ],
      silent: [facts()],
    },
    'supply-line.panels': {
      at: (v) => (v < 0 ? facts(SUNNY) : with_('pump.panelsW', v, SUNNY)),
      found: (v) => (v < 0 ? null : v),
      limit: panelsFor(SUNNY, GROUND),
      judged: [
        [-1, 'unknown', /note what you have/],
        [1.001 * panelsFor(SUNNY, GROUND), 'fine'],
        [0.999 * panelsFor(SUNNY, GROUND), 'weigh', /Add panels/],
        [0.701 * panelsFor(SUNNY, GROUND), 'weigh'],
        [0.699 * panelsFor(SUNNY, GROUND), 'mend'],
      ],
      silent: [facts(), facts(PUMPED)],
    },
    'supply-line.drip-even': {
      at: uneven,
      limit: 0.1,
      judged: [
        [0.0999, 'fine'],
        [0.1001, 'weigh', /shorter lines/],
        [0.1999, 'weigh'],
        [0.2001, 'mend'],
      ],
      silent: [facts()],
    },
    'supply-line.drip-flow': {
      at: (v) => with_('flowM3s', v, DRIP),
      limit: DRIPS,
      judged: [
        [1.001 * DRIPS, 'fine'],
        [0.999 * DRIPS, 'weigh', /^Ask for \d\.\d L\/min, or open a part/],
        [0.801 * DRIPS, 'weigh'],
        [0.799 * DRIPS, 'mend'],
      ],
      silent: [facts()],
    },
    'supply-line.frost': {
      at: (v) =>
        facts({
          ...ONE,
          frost: (['none', 'emptied', 'stays', 'stays', 'not-said'] as const)[v],
          pipe: { ...ONE.pipe, coverM: v === 3 ? 0.8 : 0.79 },
        }),
      found: known([1, 1, 0, 0, null]),
      judged: [
        [0, 'fine'],
        [1, 'fine'],
        [2, 'mend', /before the first frost/],
        [3, 'weigh', /how deep frost goes/],
        [4, 'unknown', /whether it freezes there/],
      ],
    },
    'supply-line.mains': {
      at: said('mains', ['none', 'gap', 'joined', 'not-said']),
      found: known([1, 1, 0, null]),
      judged: [
        [0, 'fine'],
        [1, 'fine'],
        [2, 'mend', /air gap/],
        [3, 'unknown', /joined to it/],
      ],
    },
    'supply-line.services': {
      at: said('services', ['asked', 'not-asked']),
      found: known([1, null]),
      judged: [
        [0, 'fine'],
        [1, 'unknown', /have them marked/],
      ],
      silent: [with_('pipe.coverM', 0.049)],
    },
    'supply-line.dry-run': {
      at: said('pump.stops', ['by-itself', 'by-hand'], PUMPED),
      found: known([1, 0]),
      judged: [
        [0, 'fine'],
        [1, 'weigh', /float that stops it/],
      ],
      silent: [facts()],
    },
    'supply-line.current': {
      at: said('pump.guarded', ['breaker', 'not-asked', 'none'], PUMPED),
      found: known([1, null, 0]),
      judged: [
        [0, 'fine'],
        [1, 'unknown', /try its button/],
        [2, 'mend', /licensed electrician/],
      ],
      silent: [facts()],
    },
    'supply-line.drip-filter': {
      at: said('drip.filter', ['mesh', 'none'], DRIP),
      found: known([1, 0]),
      judged: [
        [0, 'fine'],
        [1, 'mend', /Put a filter/],
      ],
      silent: [facts()],
    },
  });
});
