// Rules on rain gardens at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, setbackCases, siteOf, soilOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { judgeBy } from '../rules.ts';
import { newGarden } from './create.ts';
import { GARDEN_RULES, type RainGarden } from './index.ts';
import { type GardenFacts, basinsOf, measureGarden, storesOf } from './standing.ts';

const SITE = siteOf(gridOf((_x, y) => 100 + 0.03 * y, { cells: 201, cellM: 0.5 }));
const LINE: Line = [
  [50, 60],
  [50, 54],
  [50, 46],
];
const ONE: RainGarden = {
  ...newGarden('garden', 'Garden', { line: LINE, basins: [{ areaM2: 8, overflowM: 101.78 }, { areaM2: 8, overflowM: 101.6 }] }), // prettier-ignore
  rateMmPerHour: 20,
};
const facts = (work: RainGarden = ONE, change: Partial<GardenFacts> = {}): GardenFacts => {
  const ground = measureGarden(work, SITE);
  const basins = basinsOf(work, ground);
  const stores = storesOf(work, basins);
  const storm = stormOf({ freeboardM: 1, peakOutM3s: 0.001 });
  return {
    ...factsOf(SITE, { store: stores[0], storm, others: stores.map((store) => ({ store, storm })) }),
    work,
    basins,
    endFall: ground.endFall,
    ...change,
  };
};
const with_ = (path: string, value: unknown, of = ONE): GardenFacts => facts(withAt(of, path, value));
/** The second basin lets go at another level. */
const second = (overflowM: number): GardenFacts => facts({ ...ONE, basins: [ONE.basins[0], { areaM2: 8, overflowM }] });
const storms = (change: Parameters<typeof stormOf>[0], of = ONE): GardenFacts => {
  const on = facts(of);
  const storm = stormOf(change);
  return { ...on, storm, others: on.others!.map((o) => ({ ...o, storm })) };
};
const noStorm = (of = ONE): GardenFacts => facts(of, { storm: null, store: null, others: [] });
const ran = (volumeM3: number): GardenFacts => facts(ONE, { runoff: { volumeM3 } as GardenFacts['runoff'] });
const edge = basinsOf(ONE, measureGarden(ONE, SITE)).map((b) => b.edgeM);
/** By hand: what moves stone of 100 mm over 0.8 m of rock. */
const peakFor = (stoneM: number): number => ((0.86 * Math.sqrt(2 * 9.81 * 1.65 * stoneM)) ** 3 / 9.81) * 0.8;
/** By hand: Manning's law for a thin sheet on ground that falls 3 %, turned round. */
const overDrive = (depthM: number): GardenFacts =>
  storms({ peakOutM3s: ((depthM ** (5 / 3) * Math.sqrt(0.03)) / 0.015) * 0.8 }, withAt(ONE, 'lastOver', 'drive'));
const near = (kind: string, away: number): GardenFacts =>
  facts(ONE, { site: siteOf(SITE.grid, { features: [{ id: 'f', kind, at: [50 + away, 54] }] }) });

describe('rules on rain gardens', () => {
  testSides<GardenFacts>(GARDEN_RULES, {
    'rain-garden.soaks': {
      at: (v) => facts({ ...ONE, rateMmPerHour: 150 / v }),
      limit: 24,
      judged: [
        [24, 'fine'],
        [24.1, 'weigh', /Let water stand 149 mm/],
        [47.9, 'weigh'],
        [48.1, 'mend'],
      ],
      silent: [facts({ ...ONE, rateMmPerHour: undefined }, { site: { ...SITE, soilAt: () => null } })],
    },
    'rain-garden.tested': {
      at: (v) => facts({ ...ONE, rateMmPerHour: v === 0 ? undefined : v }),
      found: (v) => (v === 0 ? null : v),
      limit: null,
      judged: [
        [20, 'fine'],
        [0, 'unknown', /fill it twice/],
      ],
    },
    'rain-garden.steps': {
      at: (v) => second(101.78 - v),
      limit: 0.05,
      judged: [
        [0.0199, 'mend', /overflow of basin 2 31 mm lower/],
        [0.0201, 'weigh'],
        [0.0499, 'weigh'],
        [0.0501, 'fine'],
      ],
      silent: [facts({ ...ONE, line: LINE.slice(1), basins: [{ areaM2: 8, overflowM: 101.6 }] })],
    },
    'rain-garden.bank': {
      at: (v) => with_('dimensions.bermM', v),
      limit: 0.1,
      judged: [
        [0.0499, 'mend', /100 mm over its overflow/],
        [0.05, 'weigh'],
        [0.1, 'fine'],
      ],
    },
    'rain-garden.passes': {
      at: (v) => storms({ freeboardM: v, peakOutM3s: 0.06 }),
      limit: 0.05,
      judged: [
        [-0.001, 'mend', /Lay its rock 1\.26 m wide \(basin 1\)/],
        [0, 'weigh'],
        [0.0499, 'weigh'],
        [0.05, 'fine'],
      ],
      silent: [noStorm()],
    },
    'rain-garden.rock': {
      at: (v) => storms({ peakOutM3s: peakFor(0.1 / v) }),
      found: () => 0.1,
      judged: [
        [1.001, 'fine'],
        [0.999, 'weigh', /Lay stone of 10[01] mm at each overflow/],
        [0.7001, 'weigh'],
        [0.6999, 'mend'],
      ],
      silent: [noStorm()],
    },
    // 0.15 m and a quarter of 0.3 m: 16 m2 hold 3.6 m3.
    'rain-garden.area': {
      at: (v) => ran((0.225 * 16) / v),
      found: () => 16,
      judged: [
        [1.0001, 'fine'],
        [0.999, 'weigh', /It holds 2\.4 m³ of 3\.6 m³/],
      ],
      silent: [facts()],
    },
    'rain-garden.depth': {
      at: (v) => with_('dimensions.pondM', v),
      limit: 0.2,
      judged: [
        [0.2, 'fine'],
        [0.201, 'weigh', /stand 200 mm and make it wider/],
        [0.3, 'weigh'],
        [0.301, 'mend'],
      ],
    },
    'rain-garden.filled': {
      at: (v) => second(edge[1] + v),
      limit: 0.2,
      judged: [
        [0.1999, 'fine'],
        [0.205, 'weigh', /Set the overflow of basin 2 5 mm lower/],
        [0.3999, 'weigh'],
        [0.4001, 'mend'],
      ],
    },
    'rain-garden.soil': {
      at: (v) => with_('dimensions.mediaM', v),
      limit: 0.3,
      judged: [
        [0.299, 'weigh', /0\.30 m deep/],
        [0.3, 'fine'],
      ],
    },
    'rain-garden.turf': {
      at: (v) => with_('turf', v === 1 ? 'smothered' : 'left'),
      limit: 1,
      judged: [
        [1, 'fine'],
        [0, 'mend', /card and mulch/],
      ],
    },
    'rain-garden.mulch': {
      at: (v) => with_('dimensions.mulchM', v),
      limit: 0.05,
      judged: [
        [0.049, 'weigh', /50 mm of mulch/],
        [0.05, 'fine'],
      ],
    },
    'rain-garden.plants': {
      at: (v) => with_('plants', v === 1 ? 'zoned' : 'one'),
      limit: 1,
      judged: [
        [1, 'fine'],
        [0, 'weigh', /stands wet on the floor/],
      ],
    },
    'rain-garden.drive': {
      at: overDrive,
      limit: 0.01,
      judged: [
        [0.0099, 'fine'],
        [0.0101, 'weigh', /under the drive by a pipe/],
        [0.0299, 'weigh'],
        [0.0301, 'mend'],
      ],
      silent: [noStorm(withAt(ONE, 'lastOver', 'drive')), facts()],
    },
    ...setbackCases('rain-garden', near),
  });
  const said = (id: string, on: GardenFacts) => {
    const found = judgeBy(
      GARDEN_RULES.find((r) => r.id === id)!,
      on,
    )!;
    return [found.severity, words(found.do)] as const;
  };
  it('without a test of its own the ground there tells how fast it soaks; ground that takes nothing is refused', () => {
    const on = (rate: number) =>
      facts({ ...ONE, rateMmPerHour: undefined }, { site: { ...SITE, soilAt: () => ({ ...soilOf(), infiltrationMmPerHour: rate }) } });
    expect(judgeBy(GARDEN_RULES[0], on(5))).toMatchObject({ severity: 'weigh', value: 30 });
    expect(said('rain-garden.soaks', on(0))).toEqual(['mend', expect.stringMatching(/Nothing soaks in there/)]);
  });
  it('how deep it runs over a drive is unknown where the ground of the drive is', () => {
    const on = { ...overDrive(0.02), endFall: null };
    expect(said('rain-garden.drive', on)).toEqual(['unknown', expect.stringMatching(/its fall tells how deep/)]);
    // The map ends a metre past the place where the last lets go.
    const line: Line = [[50, 12], [50, 6], [50, 1.5]]; // prettier-ignore
    expect(measureGarden({ ...ONE, line }, SITE).endFall).toBeNull();
    expect(measureGarden(ONE, SITE).endFall).toBeCloseTo(0.03, 3);
  });
  it('where no rock is wide enough the bank is to be higher; unplanted ones are told what to plant', () => {
    expect(said('rain-garden.passes', storms({ freeboardM: -0.1, peakOutM3s: 3 }))[1]).toMatch(/Build its bank higher \(basin 1\)/);
    expect(said('rain-garden.plants', with_('plants', 'none'))[1]).toMatch(/rushes and sedges/);
  });
});
