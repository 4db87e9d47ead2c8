// Who lies below, at both sides of each class's least return periods, which are written here a second time.
import { describe, expect, it } from '@jest/globals';
import { type Below, HAZARDS, type Hazard, type Store, type Traits } from '../contract/index.ts';
import { testSides, words } from '../testing/rules.ts';
import { judgeBy } from '../works/rules.ts';
import { HAZARD_CLASSES, HAZARD_RULES, type HazardFacts, checkHazard, crestYears } from './index.ts';

const WALL = { retains: 'wall' } as Traits;
const BANK = { retains: 'bank' } as Traits;
const NO_ONE: Below = { said: null, seen: { hazard: 'nobody', feature: null, name: '', alongM: 0, at: null } };
const HOUSE: Below = { said: null, seen: { hazard: 'building', feature: 'f', name: 'Mill', alongM: 120, at: [3, 4] } };
const UNKNOWN: Below = { said: null, seen: null };
const said = (hazard: Hazard, below: Below = NO_ONE): Below => ({ ...below, said: hazard });

/** A store that holds so much to its crest, a metre up. */
const storeOf = (volumeM3: number): Store =>
  ({
    work: 'w',
    crestM: 1,
    outlets: [],
    stage: { levelM: Float64Array.of(0, 1, 2), volumeM3: Float64Array.of(0, volumeM3, 3 * volumeM3), wettedM2: Float64Array.of(1, 1, 1) },
  }) as unknown as Store;
const facts = (change: Partial<HazardFacts> = {}): HazardFacts => ({
  missing: [],
  store: storeOf(400),
  traits: WALL,
  below: NO_ONE,
  years: 20,
  crest: null,
  breach: null,
  ...change,
});
const rule = (id: string): (typeof HAZARD_RULES)[number] => HAZARD_RULES.find((r) => r.id === id)!;

describe('who lies below', () => {
  testSides<HazardFacts>(HAZARD_RULES, {
    'hazard.class': {
      at: (v) => facts({ store: storeOf(v) }),
      found: () => null,
      limit: null,
      judged: [[50, 'weigh', /shows nobody in the way of its flood. Walk it, beyond your line too/]],
      silent: [facts({ store: storeOf(49.9) })],
    },
    'hazard.ways-out': {
      at: (v) => facts({ years: v }),
      limit: 10,
      judged: [
        [9.9, 'mend', /Design for 1 in 10 years/],
        [10, 'fine'],
      ],
    },
    'hazard.crest': {
      at: (v) => facts({ crest: { years: 50, leftM: v, by: null } }),
      limit: 0,
      judged: [
        [-0.001, 'mend', /with nobody below it must stand/],
        [0, 'fine'],
      ],
      silent: [facts()],
    },
  });
  it('is weighed until someone has said so, and where less is said than the map shows', () => {
    const judged = (below: Below) => judgeBy(rule('hazard.class'), facts({ below }));
    expect(judged(UNKNOWN)).toMatchObject({ severity: 'unknown' });
    expect(judged(HOUSE)).toMatchObject({ severity: 'weigh', at: [3, 4] });
    expect(words(judged(HOUSE)!.do)).toMatch(/Mill, 120 m down .* whether people sleep/);
    const breach = { outlet: 'b', volumeM3: 1, heightM: 1, widthM: 1, formsS: 1, peakM3s: 6.2, seenM3s: 9, peakAtS: 1 };
    for (const below of [UNKNOWN, NO_ONE, HOUSE])
      expect(words(judgeBy(rule('hazard.class'), facts({ below, breach }))!.do)).toMatch(
        /If it goes, about 6200 L\/s comes down, roughly\.$/,
      );
    expect(judged(said('building', HOUSE))).toMatchObject({ severity: 'fine', at: null });
    expect(judged(said('homes', HOUSE))!.severity).toBe('fine');
    expect(judged(said('track', HOUSE))).toMatchObject({ severity: 'weigh', at: [3, 4] });
    expect(judged(said('nobody', UNKNOWN))!.severity).toBe('fine');
  });
  it('offers to raise the crest that is passed, where somebody set it: not a fuse, nor the ground beside a wall', () => {
    const crest = { years: 50, leftM: -0.042, by: null };
    const passed = (...outlets: readonly object[]) =>
      judgeBy(rule('hazard.crest'), facts({ crest, store: { ...storeOf(400), outlets } as unknown as Store }))?.cure;
    // 42 mm over 10 m of bank and 0.542 m over 2 m of sill, at 1.5: 0.129 and 1.197 m3/s; all of it over the sill stands 0.580 m deep.
    const over = (lengthM: number, atM: number) => (m: number) => 1.5 * lengthM * Math.max(0, m - atM) ** 1.5;
    const top = { kind: 'bank', role: 'crest', work: 'w', levelM: 1, levelBy: 'levels.crestM', flowAt: over(10, 1) };
    const sill = { kind: 'sill', levelM: 0.5, flowAt: over(2, 0.5) };
    expect(passed(top, sill)).toMatchObject({ work: 'w', set: { 'levels.crestM': 1.081 } });
    // Nothing but the bank lets it out: raising it alone does not help.
    expect(passed(top)).toBeUndefined();
    expect(passed(top, sill, { ...top, role: 'round', levelM: 0.9, levelBy: undefined })).toBeUndefined();
    expect(passed(top, sill, { ...top, role: 'fuse', levelM: 0.9 })).toBeUndefined();
  });
  // Ways out, crest of a wall, crest of a bank.
  const LEAST: Record<Hazard, readonly [number, number, number]> = {
    nobody: [10, 50, 20],
    track: [20, 100, 50],
    building: [50, 200, 100],
    homes: [100, 1000, 200],
  };
  it.each(HAZARDS.map((h) => [h, LEAST[h]] as const))('%s asks for %j years', (hazard, [ways, wall, bank]) => {
    const judged = (years: number) => judgeBy(rule('hazard.ways-out'), facts({ below: said(hazard), years }))!;
    expect(judged(ways - 1)).toMatchObject({ severity: 'mend', limit: ways });
    expect(judged(ways)).toMatchObject({ severity: 'fine', limit: ways });
    expect([crestYears(said(hazard), WALL), crestYears(said(hazard), BANK)]).toEqual([wall, bank]);
  });
  it('asks for no less where more is at risk', () => {
    expect(HAZARD_CLASSES.map((c) => c.id)).toEqual(HAZARDS);
    HAZARD_CLASSES.slice(1).forEach((c, k) => {
      const milder = HAZARD_CLASSES[k];
      expect(c.waysYears).toBeGreaterThan(milder.waysYears);
      expect(c.wallYears).toBeGreaterThan(milder.wallYears);
      expect(c.bankYears).toBeGreaterThan(milder.bankYears);
      expect(c.wallYears).toBeGreaterThan(c.waysYears);
    });
  });
  it('is not fine while nobody has said and the map does not show, unless it would be for anyone', () => {
    const ways = (years: number) => judgeBy(rule('hazard.ways-out'), facts({ below: UNKNOWN, years }))!.severity;
    expect([9, 10, 99, 100].map(ways)).toEqual(['mend', 'unknown', 'unknown', 'fine']);
    const crest = (leftM: number | null) =>
      judgeBy(rule('hazard.crest'), facts({ below: UNKNOWN, crest: { years: 50, leftM, by: null } }))!;
    expect([crest(-0.1), crest(0.1), crest(null)].map((c) => c.severity)).toEqual(['mend', 'unknown', 'unknown']);
  });
  it('says so where the rain does not tell: a storm of one’s own, a crest beyond the table', () => {
    expect(judgeBy(rule('hazard.ways-out'), facts({ years: null }))).toMatchObject({ severity: 'unknown', value: null, limit: 10 });
    const beyond = judgeBy(rule('hazard.crest'), facts({ below: said('homes'), crest: { years: 1000, leftM: null, by: null } }))!;
    expect(beyond).toMatchObject({ severity: 'unknown', value: null });
    expect(words(beyond.do)).toMatch(/reaches 1 in 1000 years, or have it judged by a licensed engineer/);
  });
  it('is asked of what holds water above others, and filed under its work', () => {
    expect(new Set(checkHazard(facts()).map((c) => c.on))).toEqual(new Set(['w']));
    expect(checkHazard(facts({ traits: { retains: 'none' } as Traits, years: 1 }))).toEqual([]);
  });
});
