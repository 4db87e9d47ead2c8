// Rules on vessels at both sides of their limits.
import { describe } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, linkOf, siteOf, stormOf, testSides, withAt } from '../../testing/rules.ts';
import { TANK } from '../../testing/valley-fields.ts';
import { TANK_RULES, type Tank, holdsM3, newTank } from './index.ts';
import { type TankFacts, baseM, footM2, measureTank, oneM3, overflowPasses, storeOf } from './standing.ts';

const SITE = siteOf(gridOf(() => 100, { cells: 201, cellM: 1 }));
const ONE: Tank = { ...TANK, at: [60, 60] };
const facts = (tank: Tank = ONE, change: Partial<TankFacts> = {}): TankFacts => {
  const ground = measureTank(tank, SITE);
  return { ...factsOf(SITE, { store: storeOf(tank, ground), storm: stormOf({ peakInM3s: 0.001, inM3: 4 }), links: [linkOf('tank#over', 0, 'garden')] }), tank, ground, ...change }; // prettier-ignore
};
const with_ = (path: string, value: unknown, of = ONE): TankFacts => facts(withAt(of, path, value));
const said = (path: string, values: readonly string[], of = ONE): ((v: number) => TankFacts) => (v) => with_(path, values[v], of); // prettier-ignore
const MORTAR: Tank = { ...ONE, made: 'mortar', count: 1 };
const mortar = (path: string, value: unknown): TankFacts => with_(path, value, MORTAR);
const CRATES: Tank = { ...newTank('tank', 'Crates', { how: 'crate-tank', at: [60, 60] }) };
const crates = (path: string, value: unknown): TankFacts => with_(path, value, CRATES);
const BURIED: Tank = { ...withAt(ONE, 'dimensions.standM', -1.5), stands: 'buried', emptyKg: 300, waterTableM: 1 };
const house = (awayM: number): Partial<TankFacts> => ({
  links: [linkOf('tank#over', 0, 'ground')],
  site: { ...SITE, features: [{ id: 'h', kind: 'building', ring: [[60 + awayM, 50], [70 + awayM, 50], [70 + awayM, 70], [60 + awayM, 70]] }] }, // prettier-ignore
});
/** A share of its whole room lost over the overflow: upright, so by height. */
const lost = (share: number): TankFacts => with_('dimensions.overflowM', 1.8 - 0.11 - 0.02 - 1.8 * share);

/** Joined to what is no vessel. */
const ASTRAY: Tank = { ...ONE, levelsWith: 'roof', joinPipeM: 0.05 };
/** Beside another vessel, whose overflow lies so much lower. */
const BESIDE = { name: 'Old tank', floorM: 100.4, fullM: 100.4 + 1.66 };
const beside = (tank: Tank, lowerM = 0): TankFacts =>
  facts({ ...tank, levelsWith: 'old' }, { ground: { ...measureTank(tank, SITE), beside: { ...BESIDE, fullM: BESIDE.fullM - lowerM } } });

describe('rules on vessels', () => {
  testSides<TankFacts>(TANK_RULES, {
    'tank.join-pipe': {
      at: (v) => (v < -1 ? facts(ASTRAY) : beside(v < 0 ? ONE : { ...ONE, joinPipeM: v })),
      found: (v) => (v < 0 ? null : v),
      limit: 0.05,
      judged: [
        [-2, 'unknown', /keeps no water there/],
        [-1, 'unknown', /not counted as joined/],
        [0.019, 'mend', /^Join them by 50 mm/],
        [0.021, 'weigh'],
        [0.049, 'weigh'],
        [0.05, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.join-overflow': {
      at: (v) => beside({ ...ONE, joinPipeM: 0.05 }, v),
      limit: 0.05,
      judged: [
        [0, 'fine'],
        [0.049, 'fine'],
        [0.051, 'weigh', /320 L of it are never filled: .* raise the overflow of Old tank/],
        [0.299, 'weigh'],
        [0.301, 'mend'],
      ],
      silent: [facts()],
    },
    'tank.overflow-low': {
      at: lost,
      limit: 0.05,
      judged: [
        [0.0499, 'fine'],
        [0.0501, 'weigh', /raise the overflow to 1\.67 m/],
        [0.1499, 'weigh'],
        [0.1501, 'mend', /L are lost each time/],
      ],
    },
    'tank.overflow-passes': {
      at: (v) => facts(ONE, { storm: stormOf({ peakInM3s: (2 * overflowPasses(ONE)) / v }) }),
      limit: 1,
      judged: [
        [0.799, 'mend', /wider pipe/],
        [0.801, 'weigh'],
        [0.999, 'weigh'],
        [1.001, 'fine'],
      ],
      silent: [facts(ONE, { storm: null }), facts(ONE, { storm: stormOf({ peakInM3s: 0 }) })],
    },
    'tank.overflow-leads': {
      at: (v) => [facts(ONE, house(2.9)), facts(ONE, house(3.1)), facts()][v],
      found: (v) => (v === 2 ? 1 : 0),
      limit: 1,
      judged: [
        [0, 'mend', /from a building/],
        [1, 'weigh', /rain garden/],
        [2, 'fine'],
      ],
      silent: [facts(ONE, { links: [] })],
    },
    'tank.fills': {
      at: (v) => facts(ONE, { storm: stormOf({ inM3: holdsM3(ONE, 1.66) / v }) }),
      limit: 0.5,
      judged: [
        [0.0999, 'mend', /more room would supply/],
        [0.1001, 'weigh'],
        [0.4999, 'weigh'],
        [0.5001, 'fine'],
      ],
      silent: [facts(ONE, { storm: null }), facts(ONE, { storm: stormOf({ inM3: 0 }) })],
    },
    'tank.silt': {
      at: (v) => with_('dimensions.tapM', v),
      limit: 0.075,
      judged: [
        [0.0299, 'mend', /75 mm over its floor/],
        [0.03, 'weigh'],
        [0.0749, 'weigh'],
        [0.075, 'fine'],
      ],
    },
    'tank.can': {
      at: (v) => with_('dimensions.standM', v - 0.08),
      limit: 0.4,
      judged: [
        [-0.01, 'mend', /needs a pump/],
        [0.01, 'weigh', /does not fit under/],
        [0.399, 'weigh'],
        [0.401, 'fine'],
      ],
      silent: [facts({ ...ONE, draws: 'pump' })],
    },
    'tank.presses': {
      // On soil: 25 kPa are 2.55 m of water, less its own weight; under nothing by its water alone, nobody having weighed it.
      at: (v) => {
        const kg = v < 0 ? 0 : 200;
        const h = Math.abs(v) / 9.81 - kg / 1000 / footM2(ONE);
        const soil: Tank = { ...ONE, stands: 'soil', dimensions: { ...ONE.dimensions, heightM: h } };
        return facts(v < 0 ? soil : { ...soil, emptyKg: kg });
      },
      found: (v) => (v < -22.73 && v > -25 ? null : Math.abs(v)),
      limit: 25,
      judged: [
        [24.99, 'fine'],
        [25.01, 'weigh', /packed bed/],
        [37.49, 'weigh'],
        [37.51, 'mend'],
        [-22.72, 'fine'],
        [-22.74, 'unknown', /weighs empty/],
        [-24.99, 'unknown'],
        [-25.01, 'weigh'],
      ],
      silent: [facts(BURIED)],
    },
    'tank.topples': {
      at: (v) => with_('dimensions.heightM', v * baseM(ONE) - 0.4),
      limit: 2,
      judged: [
        [1.999, 'fine'],
        [2.001, 'weigh', /two straps/],
        [2.999, 'weigh'],
        [3.001, 'mend'],
      ],
      silent: [facts(BURIED)],
    },
    'tank.floats': {
      // 0.5 m of it stand in the ground water.
      at: (v) => (v < 0 ? facts({ ...BURIED, ...[{ waterTableM: undefined }, { emptyKg: undefined }][-v - 1] }) : v === 9 ? facts({ ...BURIED, waterTableM: 2 }) : facts({ ...BURIED, emptyKg: v * 1000 * oneM3(BURIED, 0.5) })), // prettier-ignore
      found: (v) => (v < 0 || v === 9 ? null : v),
      limit: 1.1,
      judged: [
        [-1, 'unknown', /ground water stands/],
        [-2, 'unknown', /weighs empty/],
        [0.999, 'mend', /Anchor/],
        [1.001, 'weigh'],
        [1.099, 'weigh'],
        [1.101, 'fine'],
        [9, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.lid': {
      at: said('lid', ['open', 'closed']),
      limit: 1,
      judged: [
        [0, 'mend', /locks/],
        [1, 'fine'],
      ],
    },
    'tank.screen': {
      at: said('screen', ['none', 'mesh']),
      limit: 1,
      judged: [
        [0, 'mend', /mesh of 1 mm/],
        [1, 'fine'],
      ],
    },
    'tank.light': {
      at: said('wall', ['light', 'dark']),
      limit: 1,
      judged: [
        [0, 'weigh', /dark/],
        [1, 'fine'],
      ],
    },
    'tank.fitting': {
      at: said('fitting', ['glued', 'through']),
      limit: 1,
      judged: [
        [0, 'weigh', /bolted/],
        [1, 'fine'],
      ],
      silent: [facts({ ...ONE, draws: 'pump' })],
    },
    'tank.frost': {
      at: said('frost', ['stays', 'emptied', 'not-said']),
      found: (v) => (v === 2 ? null : v),
      judged: [
        [0, 'mend', /before the first hard frost/],
        [1, 'fine'],
        [2, 'unknown', /whether it freezes there/],
      ],
      silent: [facts(), facts({ ...BURIED, frost: 'stays' })],
    },
    'tank.drinking': {
      at: said('treated', ['none', 'filtered'], { ...ONE, use: 'drinking' }),
      limit: 1,
      judged: [
        [0, 'mend', /disinfect/],
        [1, 'fine'],
      ],
      silent: [facts(), facts({ ...ONE, use: 'house' })],
    },
    'tank.unlicensed': {
      at: (v) => mortar('dimensions.overflowM', v),
      limit: 2,
      judged: [
        [2, 'fine'],
        [2.01, 'weigh', /engineer/],
        [2.5, 'weigh'],
        [2.51, 'mend'],
      ],
      silent: [facts()],
    },
    'tank.hoop-steel': {
      // 5 mm are 19.63 mm2; needed are 9.81 · 1.66 · 1000 / 140.
      at: (v) => mortar('mortar.barApartM', (Math.PI * 25) / 4 / (v * ((9.81 * 1.66 * 1000) / 140))),
      limit: 1.25,
      judged: [
        [0.999, 'mend', /Tie the hoops every/],
        [1.001, 'weigh'],
        [1.249, 'weigh'],
        [1.251, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.mortar-stress': {
      at: (v) => mortar('mortar.wallM', (9.81 * 1.66) / v / 1000),
      limit: 1,
      judged: [
        [0.999, 'fine'],
        [1.001, 'weigh', /thicker/],
        [1.599, 'weigh'],
        [1.601, 'mend'],
      ],
      silent: [facts()],
    },
    'tank.wall': {
      at: (v) => mortar('mortar.wallM', v),
      limit: 0.04,
      judged: [
        [0.0299, 'mend', /40 mm/],
        [0.03, 'weigh'],
        [0.0399, 'weigh'],
        [0.04, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.coats': {
      at: (v) => mortar('mortar.wallM', 3 * v),
      limit: 0.02,
      judged: [
        [0.0199, 'fine'],
        [0.0201, 'weigh', /more coats/],
        [0.0299, 'weigh'],
        [0.0301, 'mend'],
      ],
      silent: [facts()],
    },
    'tank.mix': {
      at: (v) => mortar('mortar.sand', v),
      limit: 3,
      judged: [
        [3, 'fine'],
        [3.01, 'weigh', /three to one/],
        [3.5, 'weigh'],
        [3.51, 'mend'],
      ],
      silent: [facts()],
    },
    'tank.cure': {
      at: (v) => mortar('mortar.cureDays', v),
      limit: 14,
      judged: [
        [6.9, 'mend', /14 days under sacks/],
        [7, 'weigh'],
        [13.9, 'weigh'],
        [14, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.sunk-tap': {
      at: (v) => facts({ ...withAt(MORTAR, 'dimensions.standM', -0.5), dimensions: { ...MORTAR.dimensions, standM: -0.5, tapM: 0.5 + v } }),
      limit: 0.15,
      judged: [
        [-0.01, 'mend', /hand pump/],
        [0.01, 'weigh'],
        [0.149, 'weigh'],
        [0.151, 'fine'],
      ],
      silent: [facts(), facts(MORTAR), facts({ ...withAt(MORTAR, 'dimensions.standM', -0.5), draws: 'pump' })],
    },
    'tank.crate-cover': {
      at: (v) => crates('crates.coverM', v),
      limit: 0.5,
      judged: [
        [0.29, 'mend', /deeper/],
        [0.3, 'weigh'],
        [0.49, 'weigh'],
        [0.5, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.crate-depth': {
      at: (v) => crates('dimensions.standM', -1.2 - v),
      limit: 0.6,
      judged: [
        [0.5, 'mend', /0\.10 m deeper/],
        [0.594, 'mend'],
        [0.596, 'fine'],
        [0.9, 'fine'],
      ],
      silent: [facts(), crates('crates.pit', 'old-pool')],
    },
    'tank.underlay': {
      at: said('crates.underlay', ['none', 'cloth'], CRATES),
      limit: 1,
      judged: [
        [0, 'mend', /felt/],
        [1, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.crate-trap': {
      at: said('crates.trap', ['none', 'sump'], CRATES),
      limit: 1,
      judged: [
        [0, 'mend', /filter or a sump/],
        [1, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.lap': {
      at: (v) => crates('crates.lapM', v),
      limit: 0.15,
      judged: [
        [0.09, 'mend', /150 mm/],
        [0.1, 'weigh'],
        [0.149, 'weigh'],
        [0.15, 'fine'],
      ],
      silent: [facts()],
    },
    'tank.crate-footing': {
      // 1.9 m deep with its sand, 2.4 m wide.
      at: (v) => facts(CRATES, { site: house(1.2 + 1.9 * v).site! }),
      limit: 1.5,
      judged: [
        [0.99, 'mend', /half its depth/],
        [1.01, 'weigh'],
        [1.49, 'weigh'],
        [1.51, 'fine'],
      ],
      silent: [facts(), facts(CRATES)],
    },
  });
});
