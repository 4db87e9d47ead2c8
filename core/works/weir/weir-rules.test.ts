// Rules on weirs at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { StormFacts } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { slicedStability } from '../../testing/gravity.ts';
import { gridOf } from '../../testing/grids.ts';
import { factsOf, setbackCases, siteOf, stormOf, testSides, withAt, words } from '../../testing/rules.ts';
import { judgeBy } from '../rules.ts';
import { WEIR_RULES, type Weir } from './index.ts';
import { type WeirFacts, apronFor, fallsOf, loadOf, standingWeir, weirFacts } from './standing.ts';
import { WEIR_SAMPLE } from './create.ts';
import { measureWeir } from './ground.ts';

const LINE: Line = [
  [44, 40.25],
  [56, 40.25],
];
/** A gully with a bed 3 m wide that falls a twentieth, its banks one to one and 2.5 m high. */
const gully = (x: number, y: number): number => 0.05 * y + Math.min(2.5, Math.max(0, Math.abs(x - 50) - 1.5));
const SITE = siteOf(gridOf(gully, { cells: 201, cellM: 0.5 }));
const GROUND = measureWeir(LINE, SITE);
const BED = standingWeir({ ...WEIR_SAMPLE, line: LINE }, GROUND).channel.bedM;
const ONE: Weir = {
  ...WEIR_SAMPLE,
  line: LINE,
  ground: 'gravel',
  base: 'drained',
  levels: { notchM: BED + 1, crestM: BED + 1.5 },
  notchAtM: 6,
  dimensions: { ...WEIR_SAMPLE.dimensions, notchWidthM: 2, bedWidthM: 3, baseWidthM: 2.5, foundationM: 0.5 },
};
const PEAK = 0.05;
const facts = (work: Weir = ONE, change: Partial<StormFacts> = {}, ground = GROUND): WeirFacts =>
  weirFacts(
    { ...factsOf(SITE, { storm: stormOf({ peakInM3s: PEAK, peakLevelM: work.levels.notchM }), designPeakM3s: PEAK }), ...change },
    standingWeir(work, ground),
  );
const with_ = (path: string, value: unknown, of = ONE): WeirFacts => facts(withAt(of, path, value));
/** Water so high over the notch. */
const high = (headM: number, of = ONE): WeirFacts =>
  facts(of, { storm: stormOf({ peakInM3s: PEAK, peakLevelM: of.levels.notchM + headM }) });
/** A peak by its flow, of the storm and of the method chosen alike. */
const flow = (peak: number, of = ONE): WeirFacts =>
  facts(of, { storm: stormOf({ peakInM3s: peak, peakLevelM: of.levels.notchM }), designPeakM3s: peak });
const noStorm = facts(ONE, { storm: null, designPeakM3s: null });
const unseen = withAt(ONE, 'ground', 'unknown');

/** How it stands by thin slices, for water so high over its notch. */
const sliced = (headM: number, of = ONE) => {
  const standing = standingWeir(of, GROUND);
  const falls = fallsOf(standing, PEAK)!;
  return slicedStability(loadOf(standing, { headM, tailM: falls.tailM! })!);
};
/** The head at which something by thin slices has a value: it falls, or rises, as water does. */
function headFor(value: number, of: (headM: number) => number, sense: 1 | -1): number {
  let [low, most] = [0.1, 4];
  for (let k = 0; k < 60; k++) {
    const middle = (low + most) / 2;
    if (sense * (of(middle) - value) < 0) low = middle;
    else most = middle;
  }
  return low;
}
const turning = (v: number): WeirFacts => high(headFor(v, (h) => sliced(h).overturning, -1));
const slides = withAt(ONE, 'base', 'sealed');
const sliding = (v: number): WeirFacts =>
  high(
    headFor(v, (h) => sliced(h, slides).sliding, -1),
    slides,
  );
const leaning = (v: number): WeirFacts => high(headFor(v, (h) => sliced(h).eccentricityM, 1));
const soft = withAt(slides, 'ground', 'soft');
/** Pressure by hand from slices: within the middle third or beyond it. */
const pressing = (headM: number): number => {
  const { eccentricityM: e } = sliced(headM, soft);
  const N = 16 * 0.5 * (2.5 + 1.75 + 1);
  return e <= 2.5 / 6 ? (N / 2.5) * (1 + (6 * e) / 2.5) : (2 * N) / (3 * (1.25 - e));
};
const bearsOn = (v: number): WeirFacts => high(headFor(v, pressing, 1), soft);
/** What a rule tells where the slices give it to half a hundredth: then that, else what it should be. */
const about =
  (id: string, at: (v: number) => WeirFacts) =>
  (v: number): number => {
    const value = judgeBy(
      WEIR_RULES.find((r) => r.id === id)!,
      at(v),
    )!.value!;
    return Math.abs(value / v - 1) < 0.005 ? value : v;
  };
const near = (kind: string, away: number): WeirFacts =>
  facts(ONE, { site: siteOf(SITE.grid, { features: [{ id: 'f', kind, at: [56 + away, 40.25] }] }) });
const fallsAt = (peak: number, of = ONE) => fallsOf(standingWeir(of, GROUND), peak)!;
/** The gully ends below it: nobody knows how its bed falls on. */
const edge = measureWeir(LINE, siteOf(gridOf((x, y) => (y < 30 ? NaN : gully(x, y)), { cells: 201, cellM: 0.5 })));

describe('rules on weirs', () => {
  testSides<WeirFacts>(WEIR_RULES, {
    'weir.designed': {
      at: (v) => with_('levels', { notchM: BED + v, crestM: BED + v + 0.3 }),
      limit: 1.2,
      judged: [
        [1.1999, 'fine'],
        [1.2001, 'weigh', /0\.60 m each/],
        [1.9999, 'weigh'],
        [2.0001, 'mend', /designed and signed for/],
      ],
    },
    'weir.notch': {
      at: high,
      limit: 0.5,
      judged: [
        [0.4999, 'fine'],
        [0.5001, 'weigh', /no room for a wider notch/],
        [0.6249, 'weigh'],
        [0.6251, 'mend'],
      ],
      silent: [noStorm],
    },
    'weir.ends': {
      at: (v) => with_('levels.crestM', BED + 1 + v),
      limit: 0.3,
      judged: [
        [0.1499, 'mend', /150 mm higher/],
        [0.1501, 'weigh'],
        [0.2999, 'weigh'],
        [0.3001, 'fine'],
      ],
    },
    'weir.banks': {
      at: (v) => with_('levels.crestM', GROUND.roundM - v),
      limit: 0,
      judged: [
        [-0.1001, 'mend', /Lower it by 100 mm/],
        [-0.05, 'weigh'],
        [0.0001, 'fine'],
      ],
    },
    'weir.key': {
      at: (v) => with_('dimensions.keyM', v),
      limit: 0.6,
      judged: [
        [0.2999, 'mend', /0\.60 m into both banks/],
        [0.3001, 'weigh'],
        [0.6, 'fine'],
      ],
    },
    'weir.aside': {
      at: (v) => with_('notchAtM', standingWeir(ONE, GROUND).channel.middleM + v),
      limit: 0.5,
      judged: [
        [0.4999, 'fine'],
        [0.5001, 'weigh', /Move its notch 0\.50 m/],
        [1.0001, 'mend'],
      ],
    },
    // Values are set by the slices: they agree with the law within a thousandth.
    'weir.overturning': {
      at: turning,
      found: (v) =>
        judgeBy(
          WEIR_RULES.find((r) => r.id === 'weir.overturning')!,
          turning(v),
        )!.value,
      limit: 2,
      judged: [
        [1.49, 'mend', /No base makes this one safe/],
        [1.51, 'weigh'],
        [1.99, 'weigh'],
        [2.01, 'fine'],
      ],
      silent: [noStorm],
    },
    'weir.sliding': {
      at: sliding,
      found: (v) =>
        judgeBy(
          WEIR_RULES.find((r) => r.id === 'weir.sliding')!,
          sliding(v),
        )!.value,
      limit: 1.5,
      judged: [
        [1.19, 'mend', /filter and drain/],
        [1.21, 'weigh'],
        [1.49, 'weigh'],
        [1.51, 'fine'],
      ],
      silent: [noStorm],
    },
    'weir.middle-third': {
      at: leaning,
      found: (v) =>
        judgeBy(
          WEIR_RULES.find((r) => r.id === 'weir.middle-third')!,
          leaning(v),
        )!.value,
      limit: 2.5 / 6,
      judged: [
        [0.414, 'fine'],
        [0.419, 'weigh', /No base makes this one safe/],
        [0.83, 'weigh'],
        [0.837, 'mend'],
      ],
      silent: [noStorm],
    },
    'weir.bearing': {
      at: bearsOn,
      found: about('weir.bearing', bearsOn),
      limit: 50,
      judged: [
        [49.5, 'fine'],
        [50.5, 'weigh', /No base makes this one safe/],
        [62, 'weigh'],
        [63, 'mend'],
      ],
      silent: [noStorm],
    },
    'weir.foundation': {
      at: (v) => with_('dimensions.foundationM', v),
      limit: 0.5,
      judged: [
        [0.3499, 'mend', /Found it 0\.50 m under the bed/],
        [0.3501, 'weigh'],
        [0.5, 'fine'],
      ],
      silent: [noStorm],
    },
    'weir.cutoff': {
      at: (v) => with_('dimensions.cutoffM', v),
      limit: 0.5,
      judged: [
        [0.2499, 'mend', /0\.50 m deep/],
        [0.2501, 'weigh'],
        [0.5, 'fine'],
      ],
      silent: [
        noStorm,
        with_('dimensions.apronM', 0),
        with_('ground', 'rock'),
        facts(withAt(withAt(ONE, 'levels', { notchM: BED - 0.5, crestM: BED + 1 }), 'dimensions.apronDropM', 0)),
      ],
    },
    // Way of 2f + B/3 for a metre of head.
    'weir.piping': {
      at: (v) => with_('dimensions.foundationM', (v - 2.5 / 3) / 2),
      limit: 3.5,
      judged: [
        [2.4499, 'mend', /1\.33 m under the bed/],
        [2.4501, 'weigh'],
        [3.4999, 'weigh'],
        [3.5001, 'fine'],
      ],
      silent: [with_('ground', 'rock')],
    },
    'weir.apron': {
      at: (v) => with_('dimensions.apronM', v),
      limit: apronFor(fallsAt(PEAK)),
      judged: [
        [fallsAt(PEAK).landsM - 0.001, 'mend', /Lay an apron/],
        [fallsAt(PEAK).landsM + 0.001, 'weigh'],
        [apronFor(fallsAt(PEAK)) - 0.001, 'weigh'],
        [apronFor(fallsAt(PEAK)) + 0.001, 'fine'],
      ],
      silent: [noStorm],
    },
    'weir.jump': {
      at: (v) => with_('dimensions.apronDropM', v),
      // What stands there is the tail water and the drop; what it needs grows with the drop.
      found: (v) => fallsAt(PEAK, withAt(ONE, 'dimensions.apronDropM', v)).tailM! + v,
      judged: [
        [0, 'mend', /Lay the apron 0\.\d\d m under the bed/],
        [0.09, 'weigh'],
        [0.3, 'fine'],
      ],
      silent: [noStorm],
    },
    'weir.ramp': {
      at: (v) => with_('dimensions.rampUpHV', v),
      limit: 2,
      judged: [
        [1.99, 'weigh', /Fill against its upper face/],
        [2, 'fine'],
      ],
      silent: [with_('siltedPercent', 90)],
    },
    'weir.stone': {
      at: (v) => with_('dimensions.pieceM', v),
      limit: 0.12,
      judged: [
        [0.0999, 'mend', /120 mm/],
        [0.1, 'weigh'],
        [0.12, 'fine'],
      ],
      silent: [with_('form', 'masonry')],
    },
    'weir.found': {
      at: (v) => with_('found', v === 0 ? 'sound' : 'flanked'),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'mend', /key into the bank again/],
      ],
    },
    'weir.measured': {
      at: (v) => facts({ ...ONE, ...(v === 1 ? { channel: 'measured' as const } : {}) }),
      found: (v) => (v === 1 ? 1 : null),
      limit: 1,
      judged: [
        [1, 'fine'],
        [0, 'unknown', /Measure bed, banks and the level of its bed/],
      ],
    },
    'weir.silted': {
      at: (v) => with_('siltedPercent', v),
      limit: 80,
      judged: [
        [80, 'fine'],
        [80.1, 'weigh', /Plant the silt/],
      ],
    },
    ...setbackCases('weir', near),
  });

  const said = (id: string, on: WeirFacts) => {
    const found = judgeBy(
      WEIR_RULES.find((r) => r.id === id)!,
      on,
    )!;
    return [found.severity, words(found.do)] as const;
  };
  it.each(['weir.overturning', 'weir.sliding', 'weir.middle-third', 'weir.bearing', 'weir.foundation', 'weir.cutoff', 'weir.piping'])(
    '%s is unknown until somebody has looked at what it stands on',
    (id) => expect(said(id, facts(unseen))).toEqual(['unknown', 'Dig a pit beside it down to its base and say what it stands on.']),
  );
  it.each(['weir.overturning', 'weir.cutoff', 'weir.jump'])('%s is unknown where the ground below it is not known', (id) => {
    expect(said(id, facts(ONE, {}, edge))).toEqual(['unknown', expect.stringMatching(/terrain below it/)]);
  });
  it('one that tips presses on nothing that bears, and is told so', () => {
    const [severity, told] = said('weir.bearing', flow(1, withAt(withAt(ONE, 'dimensions.baseWidthM', 0.5), 'dimensions.topWidthM', 0.5)));
    expect([severity, told]).toEqual([
      'mend',
      expect.stringMatching(/^It tips about its foot, which nothing bears\. (Make its base|No (width of )?base)/),
    ]);
  });
  it('without an apron it is founded below the greater of two laws, which differ', () => {
    const bare = withAt(ONE, 'dimensions.apronM', 0);
    const on = flow(1, bare);
    const [severity, told] = said('weir.foundation', on);
    expect(severity).toBe('mend');
    const [, least, most] = /water digs ([\d.]+) m to ([\d.]+) m/.exec(told) ?? [];
    expect(Number(most)).toBeGreaterThan(1.3 * Number(least));
    const deep = withAt(bare, 'dimensions.foundationM', Number(most) + 0.01);
    expect(said('weir.foundation', flow(1, deep))[0]).toBe('fine');
    expect(said('weir.foundation', flow(1, withAt(deep, 'dimensions.foundationM', Number(most) - 0.05)))[0]).toBe('weigh');
    // Nothing is dug in sound rock.
    expect(said('weir.foundation', flow(1, withAt(bare, 'ground', 'rock')))[0]).toBe('fine');
  });
  it('masonry is founded half as deep as it stands high; an upright face over a metre must be filled against', () => {
    const wall = { ...ONE, form: 'masonry' as const, levels: { notchM: BED + 1.4, crestM: BED + 1.8 } };
    expect(
      judgeBy(
        WEIR_RULES.find((r) => r.id === 'weir.foundation')!,
        facts(wall),
      ),
    ).toMatchObject({ severity: 'weigh', limit: 0.7 });
    expect(said('weir.ramp', facts(withAt(wall, 'dimensions.rampUpHV', 0)))[0]).toBe('mend');
  });
  it('where the bed has room a wider notch is offered, and takes the peak', () => {
    const narrow = withAt(withAt(ONE, 'levels.crestM', BED + 1.3), 'dimensions.notchWidthM', 1);
    const on = flow(0.6, narrow);
    const { cure, severity } = judgeBy(
      WEIR_RULES.find((r) => r.id === 'weir.notch')!,
      on,
    )!;
    expect(severity).not.toBe('fine');
    const wide = cure!.set['dimensions.notchWidthM'];
    expect(wide).toBeCloseTo(0.6 / 1.65 / 0.3 ** 1.5, 2);
    expect(said('weir.notch', flow(0.6, withAt(narrow, 'dimensions.notchWidthM', wide)))[0]).toBe('fine');
  });
  it('each way in which it does not stand offers one base, the least on which it stands in every way', () => {
    const ways = ['weir.overturning', 'weir.sliding', 'weir.middle-third', 'weir.bearing'];
    const narrow = withAt(withAt({ ...slides, ground: 'firm' as const }, 'dimensions.topWidthM', 0.5), 'dimensions.baseWidthM', 0.8);
    const found = ways.map((id) =>
      judgeBy(
        WEIR_RULES.find((r) => r.id === id)!,
        flow(0.2, narrow),
      ),
    );
    const bases = found.flatMap((f) => f?.cure?.set['dimensions.baseWidthM'] ?? []);
    expect(bases.length).toBeGreaterThan(1);
    expect(new Set(bases).size).toBe(1);
    const on = (baseM: number): readonly string[] =>
      ways.map((id) => said(id, flow(0.2, withAt(narrow, 'dimensions.baseWidthM', baseM)))[0]);
    expect(on(bases[0])).toEqual(['fine', 'fine', 'fine', 'fine']);
    expect(on(bases[0] - 0.1)).not.toEqual(['fine', 'fine', 'fine', 'fine']);
  });
  it('a wall nothing makes safe is not told to grow', () => {
    expect(said('weir.sliding', high(6))[1]).toMatch(/No base makes this one safe/);
  });
});
