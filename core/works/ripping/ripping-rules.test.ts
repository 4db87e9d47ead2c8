// Rules on ripping patterns at both sides of their limits.
import { describe } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, siteOf, soilOf, testSides, withAt } from '../../testing/rules.ts';
import { newRipping } from './create.ts';
import { type Slot, measureRipping } from './ground.ts';
import { RIPPING_RULES, type Ripping } from './index.ts';
import type { RipFacts } from './standing.ts';

const SITE = siteOf(gridOf((_x, y) => 100 + 0.05 * y, { cells: 201, cellM: 0.5 }));
const ONE: Ripping = newRipping('rip', 'Rip', { line: [[30, 50], [70, 50]], reachM: 2 }); // prettier-ignore
const facts = (work: Ripping = ONE, change: Partial<RipFacts> = {}, site = SITE): RipFacts => ({
  ...factsOf(site),
  work,
  ground: measureRipping(work, site),
  ...change,
});
const with_ = (path: string, value: unknown, of = ONE): RipFacts => facts(withAt(of, path, value));
const slots = (change: Partial<Slot>): RipFacts => {
  const on = facts();
  return { ...on, ground: { ...on.ground, slots: on.ground.slots.map((s, k) => (k === 1 ? { ...s, ...change } : s)) } };
};
const falls = (fall: number): RipFacts => slots({ leads: [{ fromM: 0, toM: 20, fall, at: [40, 50] }] });
const POWERED: Ripping = { ...ONE, texture: 'fine', machine: { ...ONE.machine, powerKw: 50 } };
/** By hand: three shanks 20 cm deep in clay at 4 km/h. */
const NEEDS_KW = ((226 + 1.8 * 16) * 3 * 20 * 4) / 3600 / 0.6;
const soil = (v: number): RipFacts => facts(ONE, {}, { ...SITE, soilAt: () => (v < -0.5 ? null : soilOf({ soilDepthM: 0.2 + v })) });
const ditch = (awayM: number): RipFacts => {
  // The lowest line lies 1.6 m below the key line.
  const y = 50 - 1.6 - awayM;
  const line = [[30, y], [70, y]] as const; // prettier-ignore
  return facts(ONE, {}, { ...SITE, features: [{ id: 'f', kind: 'ditch', line }] });
};

describe('rules on ripping patterns', () => {
  testSides<RipFacts>(RIPPING_RULES, {
    'ripping.direction': {
      at: falls,
      limit: 0,
      judged: [
        [0.002, 'fine'],
        [-0.00099, 'fine'],
        [-0.00101, 'weigh', /10 mm in 10 m back into the valley \(line 2 from the top\)/],
        [-0.00499, 'weigh'],
        [-0.00501, 'mend'],
      ],
      silent: [facts()],
    },
    'ripping.along': {
      at: (v) => slots({ steepest: v }),
      limit: 0.01,
      judged: [
        [0.01, 'fine'],
        [0.0101, 'weigh', /Leave that part out/],
        [0.03, 'weigh'],
        [0.0301, 'mend'],
      ],
    },
    'ripping.slope': {
      at: (v) => {
        const on = facts();
        return { ...on, ground: { ...on.ground, slope: v } };
      },
      limit: 0.15,
      judged: [
        [0.15, 'fine'],
        [0.151, 'weigh', /no machine across it/],
        [0.25, 'weigh'],
        [0.251, 'mend'],
      ],
    },
    'ripping.pan': {
      at: (v) => (v < -0.15 ? facts() : with_('panM', 0.2 - v)),
      found: (v) => (v < -0.15 ? null : v),
      judged: [
        [-0.2, 'unknown', /Push a rod/],
        [-0.101, 'mend', /next season/],
        [-0.099, 'weigh'],
        [0.019, 'weigh'],
        [0.021, 'fine'],
      ],
    },
    'ripping.depth': {
      at: (v) => with_('dimensions.depthM', v, withAt(ONE, 'dimensions.season', 2)),
      limit: 0.3,
      judged: [
        [0.299, 'fine'],
        [0.301, 'weigh', /0\.30 m deep this time/],
        [0.449, 'weigh'],
        [0.451, 'mend'],
      ],
    },
    'ripping.critical': {
      at: (v) => with_('dimensions.pointM', 0.2 / v),
      limit: 6,
      judged: [
        [5.99, 'fine'],
        [6.01, 'weigh', /wider point/],
        [8.99, 'weigh'],
        [9.01, 'mend'],
      ],
    },
    'ripping.spacing': {
      at: (v) => with_('dimensions.spacingM', 0.2 * v),
      limit: 5,
      judged: [
        [4.99, 'fine'],
        [5.01, 'weigh', /1\.00 m apart/],
        [9.99, 'weigh'],
        [10.01, 'mend'],
      ],
    },
    'ripping.rock': {
      at: soil,
      found: (v) => (v < -0.5 ? null : v),
      judged: [
        [-1, 'unknown', /how deep its soil/],
        [-0.001, 'mend', /0\.10 m deep/],
        [0.001, 'weigh'],
        [0.099, 'weigh'],
        [0.101, 'fine'],
      ],
    },
    'ripping.dry': {
      at: (v) => with_('soil', ['not-looked', 'wet', 'moist', 'dry'][v]),
      found: (v) => (v === 0 ? null : v === 3 ? 1 : 0),
      judged: [
        [0, 'unknown', /break a clod/],
        [1, 'mend', /dry season/],
        [2, 'weigh', /half as far/],
        [3, 'fine'],
      ],
    },
    'ripping.services': {
      at: (v) => with_('services', v === 0 ? 'not-asked' : 'asked'),
      found: (v) => (v === 0 ? null : 1),
      judged: [
        [0, 'unknown', /cables and pipes/],
        [1, 'fine'],
      ],
    },
    'ripping.gully': {
      at: ditch,
      limit: 5,
      judged: [
        [1.99, 'mend', /lift the shanks/],
        [2.01, 'weigh'],
        [4.99, 'weigh'],
        [5.01, 'fine'],
      ],
      silent: [facts()],
    },
    'ripping.power': {
      at: (v) => (v === 0 ? facts({ ...POWERED, texture: 'unknown' }) : with_('machine.powerKw', v, POWERED)),
      found: (v) => (v === 0 ? null : v),
      judged: [
        [0, 'unknown', /clay, loam or sand/],
        [0.69 * NEEDS_KW, 'mend', /Take 2 shanks/],
        [0.3 * NEEDS_KW, 'mend', /larger machine/],
        [0.71 * NEEDS_KW, 'weigh', /Take 2 shanks/],
        [0.99 * NEEDS_KW, 'weigh'],
        [1.01 * NEEDS_KW, 'fine'],
      ],
      silent: [facts()],
    },
    'ripping.rest': {
      at: (v) => with_('restDays', v),
      limit: 60,
      judged: [
        [19, 'mend', /60 days/],
        [20, 'weigh'],
        [59, 'weigh'],
        [60, 'fine'],
      ],
    },
    'ripping.gained': {
      at: (v) => (v === 0 ? facts({ ...ONE, status: 'built' }) : facts({ ...ONE, besideMmPerHour: 10, insideMmPerHour: 10 * v })),
      found: (v) => (v === 0 ? null : v),
      judged: [
        [0, 'unknown', /Set rings/],
        [0.8, 'weigh', /what closes it/],
        [1.49, 'weigh'],
        [1.5, 'fine'],
      ],
      silent: [facts(), facts({ ...ONE, besideMmPerHour: 10 })],
    },
  });
});
