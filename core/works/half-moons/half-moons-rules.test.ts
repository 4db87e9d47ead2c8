// Rules on half-moons and pits at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, soilOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { measureLip } from '../lip.ts';
import { judgeBy } from '../rules.ts';
import { FIRST, newMoons } from './create.ts';
import { MOONS_RULES, type HalfMoons } from './index.ts';
import { type MoonsFacts, basinAreaM2, rowsOf, storesOf } from './standing.ts';

const plane = (slope: number) => siteOf(gridOf((_x, y) => 100 + slope * y, { cells: 401, cellM: 0.25 }));
const SITE = plane(0.04);
const line = (y: number, tilt = 0): Line => [
  [20, y],
  [80, y + tilt],
];
const ONE: HalfMoons = {
  ...newMoons('moons', 'Moons', { ...FIRST['half-moons'], rows: [line(50), line(40)] }),
  crop: { needMm: 475, rainMm: 250, runoffShare: 0.25, usedShare: 0.5 },
};
const PITS: HalfMoons = { ...newMoons('pits', 'Pits', { ...FIRST['pits'], rows: [line(50), line(49)] }), crop: ONE.crop };
const facts = (work: HalfMoons = ONE, change: Partial<MoonsFacts> = {}, site = SITE): MoonsFacts => {
  const rows = rowsOf(work, work.rows.map((l) => measureLip(l, site))); // prettier-ignore
  const stores = storesOf(work, rows);
  const storm = stormOf({ freeboardM: 1 });
  return { ...factsOf(site, { store: stores[0], storm, others: stores.map((store) => ({ store, storm })) }), work, rows, ...change };
};
const with_ = (path: string, value: unknown, of = ONE): MoonsFacts => facts(withAt(of, path, value));
const storms = (change: Parameters<typeof stormOf>[0], of = ONE): MoonsFacts => {
  const on = facts(of);
  const storm = stormOf(change);
  return { ...on, storm, others: on.others!.map((o) => ({ ...o, storm })) };
};
const noStorm = (of = ONE): MoonsFacts => facts(of, { storm: null, store: null, others: [] });
/** Rows so far apart that each part planted has so much run-on ground. */
const apart = (ratio: number): MoonsFacts => facts({ ...ONE, rows: [line(60), line(60 - ((ratio + 1) * basinAreaM2(ONE)) / 5)] });
/** The second row runs so far off the contour that the tips of one, 4 m apart on 4 %, differ by so much. */
const uneven = (m: number): MoonsFacts => {
  const sine = m / 0.16;
  return facts({ ...ONE, rows: [line(99), [[20, 39], [20 + 58 * Math.sqrt(1 - sine * sine), 39 + 58 * sine]]] }); // prettier-ignore
};
const value = (id: string, on: MoonsFacts): number =>
  judgeBy(
    MOONS_RULES.find((r) => r.id === id)!,
    on,
  )!.value!;
const about =
  (id: string, at: (v: number) => MoonsFacts, within: number) =>
  (v: number): number => {
    const is = value(id, at(v));
    return Math.abs(is - v) < within ? is : v;
  };
const ratioNeeded = (475 - 250) / (250 * 0.25 * 0.5);
const soaking = (hours: number): MoonsFacts => {
  // 0.2 m dug and 2 m on 4 %: 0.28 m in its middle.
  const soil = { ...soilOf(), infiltrationMmPerHour: 280 / hours };
  return facts(ONE, { site: { ...SITE, soilAt: () => soil } });
};

describe('rules on half-moons and pits', () => {
  testSides<MoonsFacts>(MOONS_RULES, {
    'half-moons.slope': {
      at: (v) => facts(ONE, {}, plane(v)),
      limit: 0.05,
      judged: [
        [0.0499, 'fine'],
        [0.0501, 'weigh', /Make them smaller there \(row [12]\)/],
        [0.0999, 'weigh'],
        [0.1001, 'mend'],
      ],
    },
    'half-moons.level': {
      at: uneven,
      found: about('half-moons.level', uneven, 0.003),
      limit: 0.05,
      judged: [
        [0.047, 'fine'],
        [0.055, 'weigh', /Swing them anew from pegs on the contour \(row 2\)/],
        [0.147, 'weigh'],
        [0.154, 'mend'],
      ],
      silent: [facts(PITS)],
    },
    'half-moons.run-on': {
      at: apart,
      found: about('half-moons.run-on', apart, 0.02),
      limit: (v) => (v > 2 * ratioNeeded ? 2 : 1) * ratioNeeded,
      judged: [
        [0.69 * ratioNeeded, 'mend', /7\.20 parts of run-on ground for one/],
        [0.71 * ratioNeeded, 'weigh'],
        [0.99 * ratioNeeded, 'weigh'],
        [1.01 * ratioNeeded, 'fine'],
        [1.98 * ratioNeeded, 'fine'],
        [2.02 * ratioNeeded, 'weigh', /Twice what the crop asks/],
      ],
    },
    'half-moons.gap': {
      at: (v) => with_('dimensions.gapM', v),
      limit: 2 / 3,
      judged: [
        [0.222, 'mend', /Leave 0\.67 m between two/],
        [0.2223, 'weigh'],
        [0.6666, 'weigh'],
        [0.6667, 'fine'],
      ],
      silent: [facts(PITS)],
    },
    'half-moons.over-tips': {
      at: (v) => with_('dimensions.overTipsM', v),
      limit: 0.1,
      judged: [
        [0.0499, 'mend', /100 mm over their tips/],
        [0.05, 'weigh'],
        [0.1, 'fine'],
      ],
      silent: [facts(PITS)],
    },
    'half-moons.height': {
      at: (v) => with_('dimensions.overTipsM', v - 0.08),
      limit: 0.5,
      judged: [
        [0.4999, 'fine'],
        [0.5001, 'weigh', /Make them smaller/],
        [0.7999, 'weigh'],
        [0.8001, 'mend'],
      ],
      silent: [facts(PITS)],
    },
    'half-moons.passes': {
      at: (v) => storms({ freeboardM: v }),
      limit: 0.05,
      judged: [
        [-0.001, 'mend', /201 mm over their tips|wider gaps/],
        [0, 'weigh'],
        [0.0499, 'weigh'],
        [0.05, 'fine'],
      ],
      silent: [noStorm()],
    },
    'half-moons.tips': {
      at: (v) => ({ ...storms({ spilledM3: 3 }, withAt(ONE, 'tips', v === 1 ? 'stone' : 'earth')) }),
      limit: 1,
      judged: [
        [1, 'fine'],
        [0, 'mend', /a few flat stones/],
      ],
      silent: [facts(PITS)],
    },
    'half-moons.drains': {
      at: soaking,
      found: about('half-moons.drains', soaking, 0.05),
      limit: 48,
      judged: [
        [47.9, 'fine'],
        [48.1, 'weigh', /shallower, or plant on the bund/],
        [71.9, 'weigh'],
        [72.1, 'mend'],
      ],
      silent: [facts(ONE, { site: { ...SITE, soilAt: () => null } })],
    },
    'half-moons.crust': {
      at: (v) => with_('crust', v === 1 ? 'broken' : 'left'),
      limit: 1,
      judged: [
        [1, 'fine'],
        [0, 'mend', /hoe or fork/],
      ],
    },
    'half-moons.manure': {
      at: (v) => with_('inputs.manureKg', v * basinAreaM2(ONE)),
      limit: 3,
      judged: [
        [2.999, 'weigh', /Put 18\.9 kg of manure in each/],
        [3.0001, 'fine'],
      ],
    },
    'half-moons.rest': {
      at: (v) => with_('inputs.restYears', v),
      limit: 1,
      judged: [
        [0.9, 'weigh', /keep stock off for a season/],
        [1, 'fine'],
      ],
    },
    // Twelve in the first row, eleven in the second.
    'half-moons.broken': {
      at: (v) => facts({ ...ONE, breaches: Array.from({ length: Math.round((v * 23) / 100) }, (_, k) => ({ row: 1, number: k + 1 })) }),
      limit: 0,
      judged: [
        [0, 'fine'],
        [100 / 23, 'weigh', /Mend 1, the highest first/],
        [200 / 23, 'mend'],
      ],
    },
    'half-moons.silted': {
      at: (v) => facts({ ...ONE, siltedPercent: v }),
      limit: 50,
      judged: [
        [50, 'fine'],
        [50.1, 'weigh', /silt onto the bund/],
      ],
    },
  });

  const said = (id: string, on: MoonsFacts) => {
    const found = judgeBy(
      MOONS_RULES.find((r) => r.id === id)!,
      on,
    )!;
    return [found.severity, words(found.do)] as const;
  };
  it('large ones are for gentler ground', () => {
    const large = facts(withAt(ONE, 'dimensions.radiusM', 7), {}, plane(0.03));
    expect(said('half-moons.slope', large)[0]).toBe('weigh');
    expect(said('half-moons.slope', facts(ONE, {}, plane(0.03)))[0]).toBe('fine');
  });
  it('what feeds them is unknown until the crop is told, and with one row alone', () => {
    for (const crop of [
      { runoffShare: 0.25, usedShare: 0.5 },
      { needMm: 475, rainMm: 250, usedShare: 0.5 },
      { needMm: 475, runoffShare: 0.25, usedShare: 0.5 },
    ])
      expect(said('half-moons.run-on', facts({ ...ONE, crop }))).toEqual([
        'unknown',
        expect.stringMatching(/what share of it runs off there/),
      ]);
    expect(said('half-moons.run-on', facts({ ...ONE, rows: [line(50)] }))).toEqual(['unknown', expect.stringMatching(/second row/)]);
  });
  it('earth tips are to be weighed where nothing overflows, and pits that fill are told so', () => {
    expect(said('half-moons.tips', storms({ spilledM3: 0 }, withAt(ONE, 'tips', 'earth')))[0]).toBe('weigh');
    expect(said('half-moons.passes', storms({ freeboardM: -0.01 }, PITS))).toEqual([
      'mend',
      expect.stringMatching(/They fill and run over/),
    ]);
  });
  it('ground that takes nothing in drowns what is planted', () => {
    const soil = { ...soilOf(), infiltrationMmPerHour: 0 };
    expect(said('half-moons.drains', facts(ONE, { site: { ...SITE, soilAt: () => soil } }))).toEqual(['mend', expect.stringMatching(/Nothing soaks in there/)]); // prettier-ignore
  });
});
