// Rules on heads of gullies at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, soilOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { judgeBy } from '../rules.ts';
import { HEAD_SAMPLE } from './create.ts';
import { measureHead } from './ground.ts';
import { HEAD_RULES, type Headcut } from './index.ts';
import { type HeadFacts, standingHead } from './standing.ts';

/** Ground that falls a fiftieth to the south, and breaks off two metres at y = 50. */
const SITE = siteOf(gridOf((_x, y) => 100 + 0.02 * y - (y < 50 ? 2 : 0), { cells: 201, cellM: 0.5 }));
const LINE: Line = [
  [47, 50.5],
  [53, 50.5],
];
const ONE: Headcut = { ...HEAD_SAMPLE, line: LINE, above: 'healed', soil: 'firm', levels: { lipM: 101, footM: 99 } };
const GROUND = measureHead(LINE, SITE);
const facts = (head: Headcut = ONE, change: Partial<HeadFacts> = {}): HeadFacts => ({
  ...factsOf(SITE, { storm: stormOf({ peakInM3s: 0.06 }), designPeakM3s: 0.06 }),
  standing: standingHead(head, GROUND),
  ...change,
});
const with_ = (path: string, value: unknown, of = ONE): HeadFacts => facts(withAt(of, path, value));
/** So much over each metre of a lip or chute, by storm and method alike. */
const flow = (q: number, of = ONE): HeadFacts => {
  const peak = q * standingHead(of, GROUND).overM;
  return facts(of, { storm: stormOf({ peakInM3s: peak }), designPeakM3s: peak });
};
const noStorm = (of = ONE): HeadFacts => facts(of, { storm: null, designPeakM3s: null });
const BATTER = withAt(ONE, 'form', 'batter');
const ROCK = withAt(ONE, 'form', 'rock');
const GRASS = withAt(withAt(ONE, 'form', 'grass'), 'dimensions.slopeHV', 20);
const PLUG = withAt(ONE, 'form', 'plug');
/** By hand: on a slope of a third, q for a stone of so many metres. */
const qFor = (stoneM: number): number => (8.07e-6 * (1000 * stoneM) ** 1.89) / (1 / 3) ** 0.58;
const depthFor = (lift: number): number => (lift * 120 * 0.4 * 0.4) / 1000 / 0.4;
const overFor = (depth: number): number => 1.5 * depth ** 1.5;
const firm = soilOf({ cover: 'pasture-good' });
const grassy = (q: number): HeadFacts => ({ ...flow(q, GRASS), site: { ...SITE, soilAt: () => firm } });
const speed = (on: HeadFacts): number =>
  judgeBy(
    HEAD_RULES.find((r) => r.id === 'headcut.grass')!,
    on,
  )!.value!;
/** A flow at which the grass of the chute has a speed. */
function grassFlow(velocity: number): HeadFacts {
  let [low, most] = [1e-4, 5];
  for (let k = 0; k < 60; k++) {
    const middle = (low + most) / 2;
    if (speed(grassy(middle)) < velocity) low = middle;
    else most = middle;
  }
  return grassy(most);
}
const STANDS = judgeBy(
  HEAD_RULES.find((r) => r.id === 'headcut.grass')!,
  grassy(0.01),
)!.limit!;
const dug = (q: number): number => {
  const H = 2 + Math.cbrt(q / 1.5) ** 2;
  return Math.max(1.9 * H ** 0.225 * q ** 0.54, (4.75 * H ** 0.2 * q ** 0.57) / 3 ** 0.32);
};
function flowDigging(depth: number): HeadFacts {
  let [low, most] = [1e-6, 5];
  for (let k = 0; k < 70; k++) {
    const middle = (low + most) / 2;
    if (dug(middle) < depth) low = middle;
    else most = middle;
  }
  return flow(low);
}
/** Read 100 mm of rain apart, so far moved that it reaches 10 m off in so many years of 500 mm. */
const reaching = (years: number): HeadFacts =>
  facts({ ...ONE, threatM: 10, yearRainMm: 500, readings: [{ toLipM: 20, rainMm: 0 }, { toLipM: 20 - 10 / years / 5, rainMm: 100 }] }); // prettier-ignore

describe('rules on heads of gullies', () => {
  testSides<HeadFacts>(HEAD_RULES, {
    'headcut.above': {
      at: (v) => with_('above', v === 1 ? 'healed' : v === 0.5 ? 'resting' : 'bare', ROCK),
      limit: 1,
      judged: [
        [1, 'fine'],
        [0.5, 'weigh', /Wait until it has healed/],
        [0, 'mend', /cut nothing back until it has healed/],
      ],
    },
    'headcut.batter': {
      at: (v) => with_('dimensions.slopeHV', v, BATTER),
      limit: 1.5,
      judged: [
        [1.2499, 'mend', /Cut it back to 1\.5/],
        [1.2501, 'weigh'],
        [1.5, 'fine'],
      ],
      silent: [facts(ROCK)],
    },
    'headcut.over-seed': {
      at: (v) => flow(v, BATTER),
      limit: 0.002,
      judged: [
        [0.00199, 'fine'],
        [0.00201, 'weigh', /Draw a drain above it/],
        [0.00499, 'weigh'],
        [0.00501, 'mend'],
      ],
      silent: [noStorm(BATTER), facts(ROCK)],
    },
    'headcut.chute-slope': {
      at: (v) => with_('dimensions.slopeHV', 1 / v, ROCK),
      limit: 1 / 3,
      judged: [
        [1 / 3, 'fine'],
        [0.334, 'weigh', /3 out for each 1 up/],
        [0.3999, 'weigh'],
        [0.4001, 'mend'],
      ],
      silent: [facts(BATTER)],
    },
    'headcut.stone': {
      at: (v) => flow(qFor(0.2 / v), ROCK),
      found: () => 0.2,
      judged: [
        [1.001, 'fine'],
        [0.999, 'weigh', /Lay stone of 20[01] mm, twice as thick/],
        [0.9001, 'weigh'],
        [0.8999, 'mend'],
      ],
      silent: [noStorm(ROCK), facts(BATTER)],
    },
    'headcut.grass': {
      at: grassFlow,
      limit: STANDS,
      judged: [
        [STANDS - 0.001, 'fine'],
        [STANDS + 0.001, 'weigh', /wider or flatter/],
        [1.2 * STANDS - 0.001, 'weigh'],
        [1.2 * STANDS + 0.001, 'mend'],
      ],
      silent: [noStorm(GRASS), facts(BATTER)],
    },
    'headcut.sides': {
      // 60 L/s over a chute of 3 m.
      at: (v) => with_('dimensions.sideM', Math.cbrt(0.02 / 1.5) ** 2 + v, ROCK),
      limit: 0.15,
      judged: [
        [-0.0001, 'mend', /Build its sides to 207 mm over the lip/],
        [0.0001, 'weigh'],
        [0.1499, 'weigh'],
        [0.1501, 'fine'],
      ],
      silent: [noStorm(ROCK)],
    },
    'headcut.apron': {
      at: (v) => with_('dimensions.apronM', v, ROCK),
      limit: 3,
      judged: [
        [1.4999, 'mend', /3\.00 m long/],
        [1.5001, 'weigh'],
        [3, 'fine'],
      ],
      silent: [facts(BATTER), facts()],
    },
    'headcut.floats': {
      at: (v) => flow(overFor(depthFor(v)), PLUG),
      limit: 0.8,
      judged: [
        [0.7999, 'fine'],
        [0.8001, 'weigh', /Stake it to hold 1\skg\/m/],
        [0.9999, 'weigh'],
        [1.0001, 'mend'],
      ],
      silent: [noStorm(PLUG), facts()],
    },
    'headcut.scour': {
      at: flowDigging,
      limit: 0.3,
      judged: [
        [0.2999, 'fine'],
        [0.3001, 'weigh', /digs 0\.\d\d m to 0\.30 m there/],
        [1.9999, 'weigh'],
        [2.0001, 'mend'],
      ],
      silent: [noStorm(), facts(ROCK), facts(BATTER)],
    },
    'headcut.reaches': {
      at: reaching,
      limit: 30,
      judged: [
        [9.999, 'mend', /It moves 200 mm for each 100 mm of rain/],
        [10.001, 'weigh'],
        [29.999, 'weigh'],
        [30.001, 'fine'],
      ],
      silent: [facts()],
    },
    'headcut.designed': {
      at: (v) => with_('levels.footM', 101 - v),
      limit: 2,
      judged: [
        [2, 'fine'],
        [2.0001, 'weigh', /designed and signed for/],
        [3.9999, 'weigh'],
        [4.0001, 'mend'],
      ],
    },
  });

  const said = (id: string, on: HeadFacts) => {
    const found = judgeBy(
      HEAD_RULES.find((r) => r.id === id)!,
      on,
    )!;
    return [found.severity, words(found.do)] as const;
  };
  it.each([
    ['headcut.above', withAt(ONE, 'above', 'unknown'), /bare, resting or covered/],
    ['headcut.batter', withAt(BATTER, 'soil', 'unknown'), /Look at its face/],
    ['headcut.scour', withAt(ONE, 'soil', 'unknown'), /Look at its face/],
    ['headcut.reaches', { ...ONE, threatM: 10 }, /read it at least twice/],
    ['headcut.reaches', { ...ONE, threatM: 10, readings: [{ toLipM: 20, rainMm: 0 }, { toLipM: 19, rainMm: 50 }] }, /how much rain a year brings/], // prettier-ignore
    ['headcut.reaches', { ...ONE, threatM: 10, yearRainMm: 500, readings: [{ toLipM: 20, rainMm: 0 }, { toLipM: 19, rainMm: 0 }] }, /read it at least twice/], // prettier-ignore
  ] as const)('%s is unknown, not fine, while nobody has looked', (id, head, says) => {
    expect(said(id, facts(head))).toEqual(['unknown', expect.stringMatching(says)]);
  });
  it('beside a lip that is no chute the ground is read where it ends: level with it, water goes round', () => {
    const { cure, ...found } = judgeBy(
      HEAD_RULES.find((r) => r.id === 'headcut.sides')!,
      facts(),
    )!;
    expect([found.severity, words(found.do), cure]).toEqual([
      'mend',
      expect.stringMatching(/Draw it on to where the ground beside it/),
      undefined,
    ]);
    const dished = siteOf(gridOf((x, y) => 100 + 0.02 * y + 0.06 * Math.abs(x - 50) - (y < 50 ? 2 : 0), { cells: 201, cellM: 0.5 }));
    const held = standingHead({ ...ONE, levels: { lipM: 101.02, footM: 99 } }, measureHead(LINE, dished));
    expect(held.sideM).toBeCloseTo(3 * 0.06, 1);
    expect(said('headcut.sides', facts(ONE, { standing: { ...held, sideM: 0.3 } }))[0]).toBe('fine');
  });
  it('what is laid in weighs what it does dry where nobody weighed it: bales float before logs do', () => {
    const lift = (change: object): number => judgeBy(HEAD_RULES.find((r) => r.id === 'headcut.floats')!, flow(0.02, { ...PLUG, ...change }))!.value!; // prettier-ignore
    expect(lift({ plug: 'bale' }) / lift({ plug: 'brush' })).toBeCloseTo(150 / 120, 9);
    expect(lift({ plug: 'log' })).toBeLessThan(lift({ plug: 'brush' }));
    expect(lift({ dimensions: { ...PLUG.dimensions, plugKgM3: 240 } })).toBeCloseTo(lift({ plug: 'bale' }) / 2, 9);
  });
  it('one that stands still reaches nothing', () => {
    const still: Headcut = { ...ONE, threatM: 10, yearRainMm: 500, readings: [{ toLipM: 20, rainMm: 0 }, { toLipM: 20, rainMm: 300 }] }; // prettier-ignore
    expect(said('headcut.reaches', facts(still))).toEqual(['fine', 'Nothing.']);
  });
  it('bare ground above is to be weighed where nothing is cut, and mended where something is', () => {
    for (const form of ['left', 'plug'] as const) expect(said('headcut.above', facts({ ...ONE, form, above: 'bare' }))[0]).toBe('weigh');
    for (const form of ['batter', 'rock', 'grass'] as const)
      expect(said('headcut.above', facts({ ...ONE, form, above: 'bare' }))[0]).toBe('mend');
  });
  it.each([GRASS, PLUG])('under grass and below what is laid in the apron is once and a half the drop', (of) => {
    const at = (apronM: number) => said('headcut.apron', with_('dimensions.apronM', apronM, withAt(of, 'levels.footM', 99.4)));
    expect([at(2.4)[0], at(2.399)[0], at(1.201)[0]]).toEqual(['fine', 'weigh', 'weigh']);
    expect(at(1.199)).toEqual(['mend', expect.stringMatching(/Lay an apron 2\.40 m long/)]);
  });
  it('a face of sand is laid flatter than one of hard clay', () => {
    const at = (soil: string, slopeHV: number) =>
      said('headcut.batter', facts(withAt(withAt(BATTER, 'soil', soil), 'dimensions.slopeHV', slopeHV)))[0];
    expect([at('loose', 2), at('loose', 1.9), at('firm', 1.5), at('hard', 1), at('hard', 0.7)]).toEqual([
      'fine',
      'weigh',
      'fine',
      'fine',
      'mend',
    ]);
  });
  it('grass that is not to carry water on such a slope is no chute', () => {
    const steep = withAt(GRASS, 'dimensions.slopeHV', 3);
    expect(said('headcut.grass', facts(steep))).toEqual(['mend', expect.stringMatching(/not to carry water on a slope of 33\.3 %/)]);
  });
});
