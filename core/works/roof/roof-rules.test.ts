// Rules on roofs at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, linkOf, siteOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { ROOF } from '../../testing/valley-fields.ts';
import { judgeBy } from '../rules.ts';
import { RISK, type RoofFacts, neededFlow } from './checks.ts';
import { ROOF_RULES, type Roof, areaOf } from './index.ts';
import { downFlow, gutterFlow, gutterOf, measureRoof, storeOf } from './standing.ts';

const SITE = siteOf(gridOf(() => 100, { cells: 201, cellM: 1 }));
const ONE: Roof = { ...ROOF, ring: [[60, 60], [72, 60], [72, 68], [60, 68]] }; // prettier-ignore
const facts = (roof: Roof = ONE, change: Partial<RoofFacts> = {}): RoofFacts => {
  const ground = measureRoof(roof, SITE);
  return { ...factsOf(SITE, { store: storeOf(roof, ground), storm: stormOf(), burstMmPerHour: 120, links: [linkOf('roof#down', 0, 'tank')] }), roof, ground, ...change }; // prettier-ignore
};
const with_ = (path: string, value: unknown): RoofFacts => facts(withAt(ONE, path, value));
const NO_GUTTER = facts({ ...ONE, gutter: 'none' });
/** Rain under which a part carries so much of what comes. */
const rainFor = (carriesM3s: number) => (share: number): RoofFacts => facts(ONE, { burstMmPerHour: (120 * carriesM3s) / share / neededFlow(facts())! }); // prettier-ignore
const near = (kind: string, awayM: number): RoofFacts => facts(ONE, { site: { ...SITE, features: [{ id: 'f', kind, at: [66, 60 - awayM] }] } }); // prettier-ignore
const said =
  <T>(path: string, values: readonly T[]): ((v: number) => RoofFacts) =>
  (v) =>
    with_(path, values[v]);

describe('rules on roofs', () => {
  testSides<RoofFacts>(ROOF_RULES, {
    'roof.caught': {
      at: said('gutter', ['none', 'half-round']),
      limit: 1,
      judged: [
        [0, 'mend', /Hang a gutter/],
        [1, 'fine'],
      ],
    },
    'roof.gutter': {
      at: rainFor(2 * gutterFlow(ONE)),
      limit: 1,
      judged: [
        [0.699, 'mend', /Add a downpipe/],
        [0.701, 'weigh'],
        [0.999, 'weigh', /carries .* of the/],
        [1.001, 'fine'],
      ],
      silent: [NO_GUTTER, facts(ONE, { burstMmPerHour: null }), facts(ONE, { burstMmPerHour: 0 })],
    },
    'roof.outlets': {
      at: rainFor(2 * downFlow(ONE, gutterOf(ONE).deepM)),
      limit: 1,
      judged: [
        [0.699, 'mend', /rain head/],
        [0.701, 'weigh'],
        [0.999, 'weigh'],
        [1.001, 'fine'],
      ],
      silent: [NO_GUTTER, facts(ONE, { burstMmPerHour: null })],
    },
    'roof.runs-over': {
      at: (v) => facts(ONE, { storm: stormOf({ freeboardM: v }) }),
      limit: 0.01,
      judged: [
        [-0.001, 'mend', /farthest/],
        [0, 'weigh'],
        [0.0099, 'weigh'],
        [0.01, 'fine'],
      ],
      silent: [NO_GUTTER, facts(ONE, { storm: null })],
    },
    'roof.leads': {
      at: (v) => facts(ONE, { links: [linkOf('roof#down', 0, ['ground', 'tank'][v])] }),
      limit: 1,
      judged: [
        [0, 'weigh', /five metres from the wall/],
        [1, 'fine'],
      ],
      silent: [NO_GUTTER, facts(ONE, { links: [] })],
    },
    'roof.fall': {
      at: (v) => (v === 99 ? with_('fallPercent', undefined) : with_('fallPercent', v)),
      found: (v) => (v === 99 ? null : v),
      limit: 0.2,
      judged: [
        [99, 'unknown', /bucket/],
        [-0.01, 'mend', /2 to 5 mm a metre/],
        [0, 'weigh'],
        [0.199, 'weigh'],
        [0.2, 'fine'],
      ],
      silent: [NO_GUTTER],
    },
    'roof.screen': {
      at: said('screen', ['none', 'mesh']),
      limit: 1,
      judged: [
        [0, 'weigh', /where a hand reaches/],
        [1, 'fine'],
      ],
      silent: [NO_GUTTER],
    },
    'roof.first-flush': {
      at: (v) => with_('dimensions.firstFlushMm', v),
      limit: 0.5,
      judged: [
        [0, 'weigh', /0\.5 mm go/],
        [0.49, 'weigh'],
        [0.5, 'fine'],
      ],
      silent: [NO_GUTTER],
    },
    'roof.covering': {
      at: said('covering', ['thatch', 'glazed-tile']),
      limit: 1,
      judged: [
        [0, 'weigh', /laboratory/],
        [1, 'fine'],
      ],
    },
    'roof.trees': {
      at: (v) => near('tree', v),
      limit: 5,
      judged: [
        [0.5, 'weigh', /leaf fall/],
        [4.99, 'weigh'],
        [5, 'fine'],
      ],
      silent: [facts(), near('well', 1), facts({ ...ONE, gutter: 'none' }, { site: near('tree', 1).site })],
    },
    'roof.downpipe-section': {
      at: (v) => with_('dimensions.downpipeM', Math.sqrt((v * areaOf(ONE) * 4) / Math.PI / 2) / 100),
      limit: 0.7,
      judged: [
        [0.3499, 'mend', /wider ones/],
        [0.3501, 'weigh'],
        [0.6999, 'weigh'],
        [0.7001, 'fine'],
      ],
      silent: [NO_GUTTER],
    },
    'roof.spacing': {
      at: (v) => with_('dimensions.gutterLengthM', 2 * v),
      limit: 12,
      judged: [
        [12, 'fine'],
        [12.01, 'weigh', /both sides/],
        [20, 'weigh'],
        [20.01, 'mend'],
      ],
      silent: [NO_GUTTER],
    },
  });
  it('a gutter that would let water in must be as good as the others at a finger under its rim', () => {
    const rule = ROOF_RULES.find((r) => r.id === 'roof.runs-over')!;
    expect(judgeBy(rule, facts({ ...ONE, risk: 'inside' }, { storm: stormOf({ freeboardM: 0.005 }) }))?.severity).toBe('mend');
  });
  it('what a gutter must carry grows with the harm an overflow does', () => {
    const needs = (risk: Roof['risk']): number => neededFlow(facts({ ...ONE, risk }))!;
    for (const risk of ['door', 'inside', 'never'] as const) expect(needs(risk) / needs('eaves')).toBeCloseTo(RISK[risk], 9);
    expect(
      words(
        judgeBy(
          ROOF_RULES.find((r) => r.id === 'roof.leads')!,
          facts(ONE, { links: [] }),
        )?.do,
      ),
    ).toBe('');
  });
});
