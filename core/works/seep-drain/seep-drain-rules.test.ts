// Rules on seepage drains at both sides of their limits, on level ground at 100 m unless said.
import { describe } from '@jest/globals';
import { DRAIN_SPACING } from '../../hydraulics/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { poolAt } from '../../terrain/index.ts';
import { factsOf, siteOf, testSides, withAt } from '../../testing/rules.ts';
import { newSeepDrain } from './create.ts';
import type { SeepGround } from './ground.ts';
import { SEEP_DRAIN_RULES, type SeepDrain } from './index.ts';
import { type SeepFacts, pipeCarries } from './standing.ts';

const SITE = siteOf(gridOf(() => 100, { cells: 81, cellM: 0.5 }));
/** A bowl under nobody's yard: rules read only what its yard holds. */
const POOL = poolAt(
  gridOf((x, y) => 99 + 0.01 * Math.hypot(x - 20, y - 20), { cells: 81, cellM: 0.5 }),
  [20, 20],
)!;
const ONE = newSeepDrain('s', 'Seep', { line: [[5, 20], [25, 20]], purpose: 'yard', levels: { upperM: 99.5, outletM: 99.3 } }); // prettier-ignore
const GROUND: SeepGround = { lengthM: 20, stepM: 0.5, groundM: new Float64Array(41).fill(100), yard: null, taken: [], taker: null };
const facts = (work: SeepDrain = ONE, change: Partial<SeepFacts> = {}): SeepFacts => ({
  ...factsOf(SITE),
  work,
  ground: GROUND,
  ...change,
});
const set = (path: string, value: unknown, of = ONE): SeepFacts => facts(withAt(of, path, value));
const taken = (levelM: number): SeepFacts => facts({ ...ONE, into: 'd' }, { ground: { ...GROUND, taker: { name: 'Drain', levelM } } });
const near = (kind: string, awayM: number): SeepFacts => facts(ONE, { site: { ...SITE, features: [{ id: 'f', kind, at: [15, 20 + awayM] }] } }); // prettier-ignore
/** A pipe across it half way, so deep. */
const buried = (depthM: number | undefined): SeepFacts => facts(ONE, { site: { ...SITE, features: [{ id: 'p', kind: 'buried-pipe', name: 'the pipe', line: [[15, 10], [15, 30]], ...(depthM === undefined ? {} : { depthM }) }] } }); // prettier-ignore
/** A yard that seeps away in so long: 20 m of trench 0.3 m wide at 20 mm/h let 0.12 m3 through in an hour. */
const standing = (hours: number, work = ONE): SeepFacts => facts(work, { ground: { ...GROUND, yard: { deepM: 0.2, holdsM3: 0.12 * hours, underM: 20, pool: POOL } } }); // prettier-ignore
const choices = (path: string, words: readonly string[], of: Partial<SeepDrain> = {}) => (v: number): SeepFacts => facts({ ...withAt(ONE, path, words[v]), ...of }); // prettier-ignore
/** How far apart they may lie: mean depth 0.6 m less 0.3 m. */
const MAY_M = DRAIN_SPACING.evaluate({ K1: 0.48, K2: 0.48, q: 0.007, h: 0.3, D: 1, r: 0.15 });
const said = (v: number): number | null => (v === 0 ? 1 : 0);

describe('rules on seepage drains', () => {
  testSides<SeepFacts>(SEEP_DRAIN_RULES, {
    'seep-drain.flood': { at: (v) => standing(v), limit: 12, judged: [[11.9, 'fine'], [12.1, 'weigh', /set basins and whole pipe/], [23.9, 'weigh'], [24.1, 'mend']], silent: [facts(), facts(ONE, { ...standing(5), site: { ...SITE, soilAt: () => null } })] },
    'seep-drain.takes': {
      at: (v) => (v === 9 ? facts() : facts({ ...ONE, seepM3s: (v * pipeCarries(ONE, GROUND)) / 20 })),
      found: (v) => (v === 9 ? null : v),
      limit: 0.67,
      judged: [[9, 'unknown', /leave it overnight/], [0.66, 'fine'], [0.68, 'weigh', /seep in/], [0.99, 'weigh'], [1.01, 'mend']],
    },
    // Its floor lies 0.65 m under the ground on average.
    'seep-drain.below-water': { at: (v) => facts({ ...ONE, waterTableM: 0.65 - v }), limit: 0.2, judged: [[0.21, 'fine'], [0.19, 'weigh', /0\.01 m deeper/], [0.01, 'weigh'], [-0.01, 'mend']], silent: [facts(), facts({ ...ONE, waterTableM: 0.4, seepM3s: 0.0001 })] },
    'seep-drain.fall': { at: (v) => set('levels.outletM', 99.5 - 20 * v), limit: 0.005, judged: [[0.005, 'fine'], [0.0049, 'weigh', /Lower its end to 99\.40 m/], [0.0021, 'weigh'], [0.0019, 'mend']] },
    'seep-drain.sags': {
      at: (v) => facts({ ...ONE, laid: [{ atM: 4, levelM: 99.4 + v }, { atM: 0, levelM: 99.5 }, { atM: 2, levelM: 99.4 }] }),
      limit: 0.005,
      judged: [[0.004, 'fine'], [0.006, 'weigh', /at 4\.00 m before it is covered/], [0.014, 'weigh'], [0.016, 'mend']],
      silent: [facts(), facts({ ...ONE, laid: [{ atM: 0, levelM: 99 }] })],
    },
    'seep-drain.cover': { at: (v) => facts({ ...ONE, levels: { upperM: 99.9 - v, outletM: 99.7 - v } }), limit: 0.3, judged: [[0.3, 'fine'], [0.29, 'weigh', /0\.01 m deeper there/], [0.11, 'weigh'], [0.09, 'mend']] },
    'seep-drain.pipe': { at: (v) => set('dimensions.pipeM', v), limit: 0.1, judged: [[0.1, 'fine'], [0.099, 'weigh', /Take 100 mm/], [0.05, 'weigh'], [0.049, 'mend']], silent: [facts({ ...ONE, wrap: 'bundle' })] },
    'seep-drain.gravel': { at: (v) => set('dimensions.widthM', 0.1 + 2 * v), limit: 0.075, judged: [[0.075, 'fine'], [0.07, 'weigh', /Dig it 0\.25 m wide/], [0.031, 'weigh'], [0.029, 'mend']], silent: [facts({ ...ONE, wrap: 'bundle' })] },
    'seep-drain.wrap': {
      at: (v) => {
        const [soil, wrap] = ([['sand', 'pipe'], ['clay', 'none'], ['silt', 'none'], ['silt', 'pipe'], ['clay', 'bundle'], ['not-known', 'gravel'], ['clay', 'gravel'], ['sand', 'bundle'], ['sand', 'none']] as const)[v];
        return facts({ ...ONE, soil, wrap });
      },
      found: (v) => [1, 0, 0, 0, 0, null, 1, 1, 0][v],
      judged: [[0, 'fine'], [1, 'weigh', /cracks falls into it/], [2, 'mend', /wash into it/], [3, 'mend', /a sock closes/], [4, 'weigh', /little gravel/], [5, 'unknown', /wet pinch/], [6, 'fine'], [7, 'fine'], [8, 'mend']],
    },
    'seep-drain.roof': { at: choices('downspouts', ['none', 'sump', 'straight', 'not-said']), found: (v) => [1, 0, 0, null][v], judged: [[0, 'fine'], [1, 'weigh', /empty the sump/], [2, 'mend', /whole pipe of its own/], [3, 'unknown', /where the downspouts end/]] },
    'seep-drain.spacing': {
      at: (v) => (v === 9 ? facts({ ...ONE, apartM: 10 }) : facts({ ...ONE, soilMmPerHour: 20, apartM: v * MAY_M })),
      found: (v) => (v === 9 ? null : v),
      limit: 1,
      judged: [[9, 'unknown', /hole test below/], [0.99, 'fine'], [1.01, 'weigh', /apart, or deeper/], [1.49, 'weigh'], [1.51, 'mend']],
      silent: [facts()],
    },
    'seep-drain.meets': { at: (v) => taken(99.3 - v), limit: 0, judged: [[0.01, 'fine'], [-0.0005, 'weigh'], [-0.04, 'mend', /Raise its end 40 mm/]], silent: [facts()] },
    'seep-drain.end': { at: (v) => facts({ ...ONE, levels: { upperM: 100.2 - v, outletM: 100 - v } }), limit: 0.1, judged: [[0.09, 'fine'], [0.11, 'weigh', /0\.11 m under the ground/], [0.19, 'weigh'], [0.21, 'mend']], silent: [taken(99)] },
    // It is dug 0.75 m deep at its end.
    'seep-drain.footing': { at: (v) => near('building', 0.75 * v), limit: 1.5, judged: [[1.51, 'fine'], [1.49, 'weigh', /Keep 1\.13 m away/], [1.01, 'weigh'], [0.99, 'mend']], silent: [facts(), facts({ ...ONE, purpose: 'footing' }, near('building', 1).site ? { site: near('building', 1).site } : {})] },
    'seep-drain.roots': { at: (v) => near('tree', v), limit: 3, judged: [[3.01, 'fine'], [2.99, 'weigh', /whole pipe/], [1.01, 'weigh'], [0.99, 'mend']], silent: [facts()] },
    'seep-drain.septic': { at: (v) => near('septic', v), limit: 10, judged: [[10.01, 'fine'], [9.99, 'weigh', /away from the field/], [5.01, 'weigh'], [4.99, 'mend']], silent: [facts()] },
    'seep-drain.mouth': { at: choices('mouth', ['grille', 'open']), found: said, judged: [[0, 'fine'], [1, 'weigh', /grille/]], silent: [taken(99)] },
    'seep-drain.asked': { at: choices('asked', ['asked', 'not-asked']), found: (v) => (v === 0 ? 1 : null), judged: [[0, 'fine'], [1, 'unknown', /Ask whoever/]], silent: [taken(99)] },
    // Half way along from 99.35 m, under the gravel, to 99.7 m over it.
    'seep-drain.crosses': {
      at: (v) => (v > 9 ? buried(undefined) : buried(v > 0 ? 0.3 - v : 0.65 - v)),
      found: (v) => (v > 9 ? null : Math.abs(v)),
      limit: 0.3,
      judged: [[0.301, 'fine'], [0.299, 'weigh', /dig there by hand/], [0.101, 'weigh'], [0.099, 'mend'], [-0.301, 'fine'], [-0.099, 'mend'], [10, 'unknown', /how deep the pipe lies/]],
      silent: [facts(), near('buried-pipe', 1)],
    },
    'seep-drain.services': { at: choices('services', ['asked', 'not-asked']), found: (v) => (v === 0 ? 1 : null), judged: [[0, 'fine'], [1, 'unknown', /located and marked/]] },
  }); // prettier-ignore
});
