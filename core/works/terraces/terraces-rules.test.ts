// Rules on terraces at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { Catchment } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, setbackCases, siteOf, soilOf, stormOf, testSides, withAt } from '../../testing/rules.ts';
import { judgeBy } from '../rules.ts';
import { stabilityOf } from '../gravity/index.ts';
import { measureLip } from '../lip.ts';
import { newTerraces } from './create.ts';
import { TERRACES_RULES, type Terraces } from './index.ts';
import { stoneOf } from './making.ts';
import { type TerracesFacts, benchesOf, loadOf, storesOf } from './standing.ts';

const plane = (slope: number) => siteOf(gridOf((_x, y) => 100 + slope * y, { cells: 201, cellM: 0.5 }));
const SITE = plane(0.2);
const line = (y: number, rise = 0): Line => [[80, y], [50, y + rise], [20, y]]; // prettier-ignore
const ONE: Terraces = newTerraces('terraces', 'Terraces', [line(50), line(46)]);
const EARTH: Terraces = { ...ONE, riser: 'earth', dimensions: { ...ONE.dimensions, riserHV: 0.75 } };
const DUG: Terraces = { ...ONE, ground: 'stiff', earth: 'loam' };
const facts = (work: Terraces = ONE, change: Partial<TerracesFacts> = {}, site = SITE): TerracesFacts => {
  const benches = benchesOf(work, work.lines.map((l) => measureLip(l, site))); // prettier-ignore
  const stores = storesOf(work, benches);
  const storm = stormOf({ peakLevelM: 0 });
  return { ...factsOf(site, { store: stores[0], storm, others: stores.map((store) => ({ store, storm })) }), work, benches, ...change };
};
const with_ = (path: string, value: unknown, of = ONE): TerracesFacts => facts(withAt(of, path, value));
const noStorm = facts(ONE, { storm: null, store: null, others: [] });
/** A wall so high: the bench that comes to it on 20 %. */
const high = (v: number, of = ONE): TerracesFacts => {
  const bench = (v * (1 - 0.2 * of.dimensions.riserHV)) / 0.2;
  const at = facts({ ...withAt(of, 'dimensions.benchM', bench), lines: [line(50)] });
  return { ...at, benches: at.benches.map((b) => ({ ...b, riserM: v })) };
};
const RISER = facts().benches[0].riserM;
/** Base at which something of how the wall stands is just so, found by halving. */
const baseAt = (valueOf: (baseM: number) => number, target: number): number => {
  let [low, up] = [0.35, 6];
  for (let k = 0; k < 60; k++) {
    const middle = (low + up) / 2;
    if (valueOf(middle) < target) low = middle;
    else up = middle;
  }
  return up;
};
const stands = (baseM: number, height = 1.1) => stabilityOf(loadOf(withAt(DUG, 'dimensions.baseM', baseM), height)!);
const wall = (baseM: number): TerracesFacts => {
  const at = facts(withAt(DUG, 'dimensions.baseM', baseM));
  return { ...at, benches: at.benches.map((b) => ({ ...b, riserM: 1.1 })) };
};
const unseen = facts();
const soil = (v: number): TerracesFacts => facts(ONE, {}, { ...SITE, soilAt: () => (v < -0.5 ? null : soilOf({ soilDepthM: 0.3 + v })) });
const catchment = (times: number): TerracesFacts => facts(ONE, { catchment: { areaM2: times * 180 } as Catchment });
const near = (kind: string, awayM: number): TerracesFacts => facts(ONE, {}, { ...SITE, features: [{ id: 'f', kind, at: [50, 46 - awayM] }] }); // prettier-ignore
/** Stone that just stays under an inlet that passes so much at its peak, by hand. */
const stoneFor = (peak: number): number => (Math.cbrt(9.81 * peak) ** 2 + 9.81 * RISER) / (0.86 ** 2 * 2 * 9.81 * 1.65);

describe('rules on terraces', () => {
  testSides<TerracesFacts>(TERRACES_RULES, {
    'terraces.slope': {
      at: (v) => facts(ONE, {}, plane(v)),
      limit: (v) => (v < 0.12 ? 0.12 : 0.36),
      judged: [
        [0.119, 'weigh', /for less work/],
        [0.121, 'fine'],
        [0.359, 'fine'],
        [0.361, 'weigh', /to trees/],
        [0.469, 'weigh'],
        [0.471, 'mend'],
      ],
    },
    'terraces.height': {
      at: (v) => high(v),
      limit: 0.9,
      judged: [
        [0.9, 'fine'],
        [0.901, 'weigh', /let a mason see it/],
        [1.2, 'weigh'],
        [1.201, 'mend', /licensed/],
      ],
    },
    'terraces.batter': {
      at: (v) => with_('dimensions.riserHV', v),
      limit: 0.125,
      judged: [
        [0.079, 'mend', /0\.1[23] for 1 up/],
        [0.081, 'weigh'],
        [0.124, 'weigh'],
        [0.125, 'fine'],
      ],
    },
    'terraces.base': {
      at: (v) => with_('dimensions.baseM', v),
      limit: (RISER + 0.2) / 2,
      judged: [
        [0.32, 'mend', /base 0\.41 m wide/],
        [0.33, 'weigh'],
        [0.408, 'weigh'],
        [0.41, 'fine'],
      ],
      silent: [facts(EARTH)],
    },
    'terraces.foundation': {
      at: (v) => with_('dimensions.foundationM', v),
      limit: 0.15,
      judged: [
        [0.059, 'mend', /0\.15 m into the ground/],
        [0.061, 'weigh'],
        [0.149, 'weigh'],
        [0.15, 'fine'],
      ],
      silent: [facts(EARTH)],
    },
    'terraces.drain': {
      at: (v) => with_('dimensions.drainM', v),
      limit: 0.3,
      judged: [
        [0.149, 'mend', /a way out there/],
        [0.15, 'weigh'],
        [0.299, 'weigh'],
        [0.3, 'fine'],
      ],
      silent: [facts(EARTH)],
    },
    'terraces.overturning': {
      at: (v) => (v === 0 ? unseen : wall(baseAt((b) => stands(b).overturning, v))),
      found: (v) => (v === 0 ? null : v),
      judged: [
        [0, 'unknown', /Dig a pit/],
        [1.49, 'mend', /Make its base/],
        [1.51, 'weigh'],
        [1.99, 'weigh'],
        [2.01, 'fine'],
      ],
      silent: [facts(EARTH)],
    },
    'terraces.sliding': {
      at: (v) => (v === 0 ? unseen : wall(baseAt((b) => stands(b).sliding, v))),
      found: (v) => (v === 0 ? null : v),
      judged: [
        [0, 'unknown', /Dig a pit/],
        [1.19, 'mend', /Make its base/],
        [1.21, 'weigh'],
        [1.49, 'weigh'],
        [1.51, 'fine'],
      ],
      silent: [facts(EARTH)],
    },
    'terraces.middle-third': {
      // Its distance from the middle, told by its share of the sixth.
      at: (v) => (v === 0 ? unseen : wall(baseAt((b) => -Math.abs(stands(b).eccentricityM) / stands(b).sixthM, -v))),
      found: (v) => {
        if (v === 0) return null;
        const b = baseAt((m) => -Math.abs(stands(m).eccentricityM) / stands(m).sixthM, -v);
        return Math.abs(stands(b).eccentricityM);
      },
      judged: [
        [0, 'unknown', /Dig a pit/],
        [0.99, 'fine'],
        [1.01, 'weigh', /Make its base/],
        [1.49, 'weigh'],
        [1.51, 'mend'],
      ],
      silent: [facts(EARTH)],
    },
    'terraces.bearing': {
      at: (v) => (v === 0 ? unseen : wall(baseAt((b) => -stands(b).pressureKpa, -v))),
      found: (v) => (v === 0 ? null : v),
      judged: [
        [0, 'unknown', /Dig a pit/],
        [149, 'fine'],
        [151, 'weigh', /Make its base/],
        [187, 'weigh'],
        [188, 'mend'],
      ],
      silent: [facts(EARTH)],
    },
    'terraces.soil': {
      at: soil,
      found: (v) => (v < -0.5 ? null : v),
      judged: [
        [-1, 'unknown', /how deep its soil/],
        [-0.001, 'mend', /too thin there/],
        [0.001, 'weigh'],
        [0.299, 'weigh'],
        [0.301, 'fine'],
      ],
    },
    'terraces.width': {
      at: (v) => with_('dimensions.benchM', v, { ...ONE, workedBy: 'machine' }),
      limit: 3.5,
      judged: [
        [2.09, 'mend', /3\.50 m wide/],
        [2.11, 'weigh'],
        [3.49, 'weigh'],
        [3.5, 'fine'],
      ],
    },
    'terraces.spacing': {
      // A bench of 3 m and its riser take 3.093 m.
      at: (v) => facts({ ...ONE, lines: [line(50), line(50 - v)] }),
      limit: 3 + 0.15 * RISER,
      judged: [
        [3.2, 'fine'],
        [2.8, 'fine'],
        [2.77, 'weigh', /take this one out/],
        [2.33, 'weigh'],
        [2.31, 'mend'],
      ],
      silent: [facts({ ...ONE, lines: [line(50)] })],
    },
    'terraces.level': {
      // A V down the slope in the middle: its mean lies half its depth over its lowest place.
      at: (v) => facts({ ...ONE, lines: [line(50, -(2 * v) / 0.2)] }),
      found: (v) => facts({ ...ONE, lines: [line(50, -(2 * v) / 0.2)] }).benches.map((b) => b.middleM - Math.min(...b.ground.groundM))[0],
      limit: 0.2,
      judged: [
        [0.19, 'fine'],
        [0.21, 'weigh', /inlet at its low place/],
        [0.48, 'weigh'],
        [0.52, 'mend'],
      ],
    },
    'terraces.tilt': {
      at: (v) => with_('dimensions.fall', Math.abs(v), { ...ONE, lie: v < 0 ? 'outward' : 'inward' }),
      found: Math.abs,
      limit: (v) => (v === -0.03 ? 0 : 0.05),
      judged: [
        [0.05, 'fine'],
        [0.051, 'weigh', /2 to 5 %/],
        [0.08, 'weigh'],
        [0.081, 'mend'],
        [-0.03, 'weigh', /Lay them level/],
        [-0.06, 'mend'],
      ],
      silent: [facts()],
    },
    'terraces.passes': {
      at: (v) => {
        const on = facts();
        const storm = stormOf({ freeboardM: v });
        return { ...on, others: on.others!.map((o, k) => (k === 1 ? { ...o, storm } : o)) };
      },
      limit: 0.05,
      judged: [
        [-0.001, 'mend', /edge 26\d mm high.*\(bench 2\)/],
        [-0.5, 'mend', /inlets wider/],
        [0, 'weigh'],
        [0.049, 'weigh'],
        [0.05, 'fine'],
      ],
      silent: [noStorm],
    },
    'terraces.inlets': {
      // Sixty metres of bench.
      at: (v) => {
        const on = facts();
        return { ...on, benches: on.benches.map((b) => ({ ...b, ground: { ...b.ground, lengthM: v } })) };
      },
      limit: 60,
      judged: [
        [60, 'fine'],
        [60.1, 'weigh', /2 inlets/],
        [100, 'weigh'],
        [100.1, 'mend'],
      ],
    },
    'terraces.stone': {
      at: (v) => {
        const on = facts(withAt(ONE, 'dimensions.stoneM', v));
        const storm = stormOf({ peakOutM3s: 0.02 });
        return { ...on, storm, others: on.others!.map((o) => ({ ...o, storm })) };
      },
      limit: stoneFor(0.02),
      judged: [
        [0.69 * stoneFor(0.02), 'mend', /under each inlet/],
        [0.71 * stoneFor(0.02), 'weigh'],
        [0.99 * stoneFor(0.02), 'weigh'],
        [1.01 * stoneFor(0.02), 'fine'],
      ],
      silent: [noStorm],
    },
    'terraces.stands': {
      // Ground of 20 mm/h.
      at: (v) => with_('dimensions.holdM', (20 * v) / 1000, withAt(ONE, 'dimensions.lipM', 1)),
      limit: 24,
      judged: [
        [0, 'fine'],
        [23.99, 'fine'],
        [24.1, 'weigh', /Let less water stand/],
        [47.99, 'weigh'],
        [48.1, 'mend'],
      ],
      silent: [facts(ONE, {}, { ...SITE, soilAt: () => null })],
    },
    'terraces.above': {
      at: catchment,
      limit: 3,
      judged: [
        [3, 'fine'],
        [3.01, 'weigh', /diversion drain above/],
        [10, 'weigh'],
        [10.1, 'mend'],
      ],
      silent: [facts()],
    },
    'terraces.topsoil': {
      at: (v) => with_('topsoil', v === 0 ? 'buried' : 'kept'),
      judged: [
        [0, 'mend', /topsoil off first/],
        [1, 'fine'],
      ],
    },
    'terraces.risers': {
      at: (v) => facts({ ...EARTH, riserGrows: v === 0 ? 'bare' : 'grass' }),
      judged: [
        [0, 'mend', /dense grass on the banks/],
        [1, 'fine'],
      ],
      silent: [facts({ ...ONE, riserGrows: 'bare' })],
    },
    'terraces.stone-near': {
      at: (v) => facts({ ...ONE, rockNearM3: v }),
      limit: stoneOf(ONE, facts().benches),
      judged: [
        [stoneOf(ONE, facts().benches) - 0.01, 'weigh', /more is needed/],
        [stoneOf(ONE, facts().benches) + 0.01, 'fine'],
      ],
      silent: [facts(), facts({ ...EARTH, rockNearM3: 1 })],
    },
    ...setbackCases<TerracesFacts>('terraces', near),
  });

  it('each way in which the highest wall does not stand offers one base, the least on which it stands in every way', () => {
    const ways = ['overturning', 'sliding', 'middle-third', 'bearing'].map((way) =>
      TERRACES_RULES.find((r) => r.id === `terraces.${way}`)!,
    );
    const judged = (baseM: number) => ways.map((rule) => judgeBy(rule, wall(baseM)));
    const bases = new Set(judged(0.35).flatMap((f) => f?.cure?.set['dimensions.baseM'] ?? []));
    expect(bases.size).toBe(1);
    const [base] = bases;
    expect(judged(base).map((f) => f?.severity)).toEqual(['fine', 'fine', 'fine', 'fine']);
    expect(judged(base - 0.1).map((f) => f?.severity)).not.toEqual(['fine', 'fine', 'fine', 'fine']);
  });
});
