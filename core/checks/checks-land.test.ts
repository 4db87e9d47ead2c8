// Rules on ground, rain, what was seen and what could not be computed, at both sides of their limits.
import { describe, expect, it } from '@jest/globals';
import type { Feature } from '../contract/index.ts';
import type { Line } from '../geometry/index.ts';
import { modelOf, plane } from '../testing/grids.ts';
import { testSides, words } from '../testing/rules.ts';
import { judgeBy } from '../works/rules.ts';
import {
  GROUND_RULES,
  type GroundFacts,
  RAIN_RULES,
  type RainFacts,
  SEEN_RULES,
  type SeenFacts,
  UNCOMPUTED_RULES,
  type Uncomputed,
  checkBridged,
  checkGround,
  checkPin,
  checkRain,
  checkSeen,
  checkUncomputed,
  KNOWN_RULES,
  type KnownFacts,
  checkKnown,
} from './index.ts';

describe('how near the ground is known', () => {
  testSides<KnownFacts>(KNOWN_RULES, {
    'ground.known': {
      at: (v) => ({ knownM: v, leftM: 0.3 }),
      limit: 0.15,
      judged: [
        [0.15, 'fine'],
        [0.1501, 'weigh', /may well lie 300 mm off, and 300 mm is left under its crest/],
      ],
      // Nothing is left, or there is no crest: others tell that.
      silent: [
        { knownM: 0.2, leftM: null },
        { knownM: 0.2, leftM: 0 },
        { knownM: null, leftM: -0.1 },
      ],
    },
  });
  it('is unknown where nobody has said', () => {
    expect(checkKnown('w', { knownM: null, leftM: 0.3 })).toMatchObject([{ severity: 'unknown', value: null, limit: 0.15 }]);
  });
});

describe('what the ground cannot tell', () => {
  const facts = (change: Partial<GroundFacts> = {}): GroundFacts => ({
    unfitTime: [],
    unfitPeak: [],
    tcMin: 12,
    peakM3s: 0.3,
    lossesMm: null,
    soilFullShare: null,
    isExample: false,
    isMadeUp: false,
    rate: { isTested: true, mmPerHour: 20 },
    yearsToSilt: 9,
    ...change,
  });
  testSides<GroundFacts>(GROUND_RULES, {
    'runoff.time-method': {
      at: (v) => facts({ tcMin: v, unfitTime: v > 10 ? ['too long', 'too flat'] : [] }),
      limit: null,
      judged: [
        [9, 'fine'],
        [11, 'weigh', /too long; too flat/],
      ],
    },
    'runoff.peak-method': {
      at: (v) => facts({ peakM3s: v, unfitPeak: v > 1 ? ['too large'] : [] }),
      limit: null,
      judged: [
        [0.9, 'fine'],
        [2, 'weigh', /too large/],
      ],
    },
    'runoff.losses-apart': {
      at: (v) => facts({ lossesMm: { leastMm: 40 * (1 - v / 100), mostMm: 40 } }),
      limit: 50,
      judged: [
        [50, 'fine'],
        [50.1, 'weigh', /From 20(\.0)? mm to 40(\.0)? mm runs off/],
      ],
      silent: [facts()],
    },
    'runoff.soil-full': {
      at: (v) => facts({ soilFullShare: v / 100 }),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'weigh', /Dig a hole up there/],
      ],
      silent: [facts()],
    },
    'ground.not-yours': {
      at: () => facts({ isExample: true }),
      found: () => 1,
      limit: 0,
      judged: [[1, 'mend', /Correct it under Ground/]],
      silent: [facts()],
    },
    'terrain.not-yours': {
      at: () => facts({ isMadeUp: true }),
      found: () => 1,
      limit: 0,
      judged: [[1, 'mend', /Bring in your own levels/]],
      silent: [facts()],
    },
    'ground.rate-tested': {
      at: (v) => facts({ rate: { mmPerHour: v, isTested: v > 10 } }),
      limit: null,
      judged: [
        [20, 'fine'],
        [5, 'unknown', /drive a ring/],
      ],
      silent: [facts({ rate: null })],
    },
    'ground.silt': {
      at: (v) => facts({ yearsToSilt: v }),
      limit: 5,
      judged: [
        [0.4, 'mend', /every 1 yr/],
        [1.99, 'mend'],
        [2, 'weigh'],
        [4.99, 'weigh'],
        [5, 'fine'],
      ],
      silent: [facts({ yearsToSilt: null })],
    },
  });
  it('is filed under the work', () => {
    expect(new Set(checkGround(facts(), 'w').map((c) => c.on))).toEqual(new Set(['w']));
  });
});

describe('what the rain cannot tell', () => {
  const table = (shortest: number) => ({ durationsMin: [shortest, 1440], returnYears: [20], depthMm: [[40, 90]] });
  const facts = (tcMin: number, change: { shortest?: number; storm?: object; basis?: string; set?: number[] } = {}): RainFacts => ({
    rain: {
      table: table(change.shortest ?? 60),
      storm: { returnYears: 20, durationMin: 120, ...change.storm },
      ...(change.basis ? { basis: change.basis } : {}),
    },
    durationsMin: change.set ?? null,
    runoff: { of: 'w', tcMin } as never,
  });
  const own = { shape: { kind: 'own', name: 'Mine', stepMin: 10, stepsMm: [1, 2, 3] } };
  testSides<RainFacts>(RAIN_RULES, {
    'rain.one-storm': {
      at: (v) => facts(5, v === 0 ? { set: [5, 1440] } : {}),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'weigh', /all lengths/],
      ],
    },
    'rain.set-too-short': {
      at: (v) => facts(5, { set: [5, v] }),
      limit: 1440,
      judged: [
        [1439, 'weigh', /reaches to a day/],
        [1440, 'fine'],
      ],
      silent: [facts(5)],
    },
    'rain.peak-before-table': {
      at: (v) => facts(v),
      limit: 60,
      judged: [
        [29.9, 'mend'],
        [30, 'weigh'],
        [59.9, 'weigh', /5 to 15 minutes/],
        [60, 'fine'],
      ],
      silent: [facts(5, { storm: own })],
    },
    'rain.storm-beyond-table': {
      at: (v) => facts(5, { storm: { durationMin: v } }),
      limit: (v) => (v < 60 ? 60 : 1440),
      judged: [
        [59, 'weigh', /within the table/],
        [60, 'fine'],
        [1440, 'fine'],
        [1441, 'weigh'],
      ],
      silent: [facts(5, { storm: own })],
    },
    'rain.not-yours': {
      at: () => facts(5, { basis: 'example' }),
      found: () => 1,
      limit: 0,
      judged: [[1, 'mend', /your place/]],
      silent: [facts(5), facts(5, { basis: 'memory' }), facts(5, { basis: 'table' })],
    },
    'rain.guess': {
      at: () => facts(5, { basis: 'memory' }),
      found: () => 1,
      limit: 0,
      judged: [[1, 'weigh', /twenty years/]],
      silent: [facts(5), facts(5, { basis: 'gauge' })],
    },
    'rain.even': {
      at: (v) => facts(10, { storm: { shape: { kind: 'own', name: 'Mine', stepMin: v, stepsMm: [1, 2, 3] } } }),
      limit: 10,
      judged: [
        [10, 'fine'],
        [10.1, 'weigh', /what is stored/],
      ],
      silent: [facts(10)],
    },
  });
  const find = (id: string, on: RainFacts) =>
    judgeBy(
      RAIN_RULES.find((r) => r.id === id)!,
      on,
    );
  it('a table that begins at a quarter of an hour is soon enough down to half of that, no further', () => {
    expect(find('rain.peak-before-table', facts(7.5, { shortest: 15 }))).toMatchObject({ severity: 'fine', limit: 7.5 });
    expect(find('rain.peak-before-table', facts(7.4, { shortest: 15 }))).toMatchObject({ severity: 'mend', limit: 7.5 });
    expect(find('rain.peak-before-table', facts(8, { shortest: 15.1 }))).toMatchObject({ severity: 'weigh', limit: 15.1 });
  });
  it('rain that falls evenly is as long a step as its storm', () => {
    expect(find('rain.even', facts(10, { storm: { shape: { kind: 'uniform' } } }))).toMatchObject({ value: 120, severity: 'weigh' });
    expect(checkRain(facts(10)).every((c) => c.on === 'w')).toBe(true);
  });
});

describe('what could not be computed', () => {
  const facts = (why: Uncomputed['why'], offM: number | null = null): Uncomputed => ({ work: 'w', why, said: 'What was said', offM });
  testSides<Uncomputed>(UNCOMPUTED_RULES, {
    'work.off-terrain': {
      at: (v) => facts('ground', v),
      limit: 0,
      judged: [[40, 'unknown', /Bring in terrain/]],
      silent: [facts('needs'), facts('fault')],
    },
    'work.needs-another': {
      at: () => facts('needs'),
      found: () => null,
      limit: null,
      judged: [[1, 'unknown', /that one first/]],
      silent: [facts('ground'), facts('fault')],
    },
    'work.not-computed': {
      at: () => facts('fault'),
      found: () => null,
      limit: null,
      judged: [[1, 'mend', /draw it again/]],
      silent: [facts('ground'), facts('needs')],
    },
  });
  it('is told by what was said of it; gaps and pins only where there are any', () => {
    expect(checkUncomputed(facts('ground', 3))).toMatchObject([{ on: 'w', title: 'What was said', value: 3 }]);
    expect(checkBridged('w', 0)).toEqual([]);
    expect(checkBridged('w', 2.5)).toMatchObject([
      { id: 'work.gap-in-ground', severity: 'weigh', value: 2.5, do: expect.stringContaining('2.50') },
    ]);
    expect(checkPin('k', false)).toEqual([]);
    expect(checkPin('k', true)).toMatchObject([{ id: 'pin.off-terrain', on: 'k', severity: 'unknown' }]);
  });
});

describe('what was seen against what is computed', () => {
  // Water runs to the south on a plane of a tenth.
  const model = modelOf(plane(0.1, -90));
  const facts = (feature: Partial<Feature> & { kind: string }, features: readonly Feature[] = []): SeenFacts => ({
    feature: { id: 'f', ...feature },
    grid: model.grid,
    surface: model.grid,
    filled: model.filled,
    flow: model.flow,
    features,
  });
  const arrow = (degrees: number, features: readonly Feature[] = []): SeenFacts => {
    const a = ((degrees - 90) * Math.PI) / 180;
    return facts({ kind: 'flow-arrow', line: [[101, 101], [101 + 20 * Math.cos(a), 101 + 20 * Math.sin(a)]] }, features); // prettier-ignore
  };
  const ditch = (wetEnd: 'start' | 'end', fall: number): SeenFacts =>
    facts({ kind: 'ditch', wetEnd, depthM: 0.3, line: [[60, 101 + 10 * fall], [120, 101]] }); // prettier-ignore
  const find = (id: string, on: SeenFacts) =>
    judgeBy(
      SEEN_RULES.find((r) => r.id === id)!,
      on,
    );
  it('an arrow agrees to an eighth of a turn; beyond, its likeliest cause is told', () => {
    expect(find('seen.flow-arrow', arrow(40))).toMatchObject({
      severity: 'fine',
      limit: 45,
      at: [101, 101],
      title: 'Seen and computed flow agree',
    });
    expect(find('seen.flow-arrow', arrow(50))).toMatchObject({ severity: 'weigh' });
    expect(find('seen.flow-arrow', arrow(50))?.value).toBeCloseTo(50, -1);
    expect(find('seen.flow-arrow', arrow(180))?.value).toBeCloseTo(180, -1);
    expect(words(find('seen.flow-arrow', arrow(90))?.do)).toMatch(/walk uphill/);
    const track: Feature = { id: 't', kind: 'track', name: 'Lane', line: [[90, 101], [90, 120]] }; // prettier-ignore
    expect(words(find('seen.flow-arrow', arrow(90, [track]))?.do)).toMatch(/^Lane is near/);
    expect(words(find('seen.flow-arrow', arrow(90, [{ ...track, line: [[80, 101], [80, 120]] }]))?.do)).toMatch(/walk uphill/); // prettier-ignore
    expect(find('seen.flow-arrow', facts({ kind: 'windrow', line: [[1, 1], [9, 9]] }))).toBeNull(); // prettier-ignore
    expect(find('seen.flow-arrow', facts({ kind: 'flow-arrow' }))).toBeNull();
  });
  it('on nearly level ground or in a hollow that is the cause', () => {
    const flat = modelOf(plane(0.005, -90));
    const level = { ...arrow(90), grid: flat.grid, surface: flat.grid, filled: flat.filled, flow: flat.flow };
    expect(words(find('seen.flow-arrow', level)?.do)).toMatch(/nearly level/);
    const filled = model.filled.map((v) => v + 0.03);
    expect(words(find('seen.flow-arrow', { ...arrow(90), filled })?.do)).toMatch(/hollow/);
    expect(words(find('seen.flow-arrow', { ...arrow(90), filled: model.filled.map((v) => v + 0.01) })?.do)).toMatch(/walk uphill/);
  });
  it('a ditch wet at its higher end is told', () => {
    expect(find('seen.wet-end', ditch('start', 1))).toMatchObject({
      value: expect.closeTo(1, 1),
      severity: 'weigh',
      limit: 0.025,
      at: [60, 111],
    });
    expect(find('seen.wet-end', ditch('end', 1))).toMatchObject({ value: expect.closeTo(-1, 1), severity: 'fine', at: [120, 101] });
    expect([0.024, 0.026].map((fall) => find('seen.wet-end', ditch('start', fall))?.severity)).toEqual(['fine', 'weigh']);
    expect(find('seen.wet-end', facts({ kind: 'ditch', line: [[60, 90], [120, 101]] }))).toBeNull(); // prettier-ignore
  });
  it('debris at one level was left standing, along a fall running', () => {
    const marks = (rise: number) => find('seen.debris-line', facts({ kind: 'debris-line', line: [[60, 101], [120, 101 + 10 * rise]] })); // prettier-ignore
    expect(words(marks(0.14)?.title)).toMatch(/^Water stood at 510\.17/);
    expect(words(marks(0.2)?.title)).toMatch(/^Water ran here, from 510\.30 m down to 510\.10/);
    expect(marks(0.2)?.value).toBeCloseTo(0.2, 3);
    const high = find('seen.debris-line', facts({ kind: 'debris-line', heightM: 0.5, line: [[60, 101], [120, 101]] })); // prettier-ignore
    expect(words(high?.title)).toMatch(/510\.60/);
    expect(find('seen.debris-line', facts({ kind: 'debris-line' }))).toBeNull();
    expect(find('seen.debris-line', facts({ kind: 'debris-line', line: [[-60, -101], [-120, -101]] }))).toBeNull(); // prettier-ignore
  });
  it('a pipe that the flow took falls; one that it did not is to mend', () => {
    const pipe = { kind: 'culvert', line: [[101, 121], [101, 81]] as Line }; // prettier-ignore
    expect(find('seen.led-uphill', facts(pipe))?.severity).toBe('mend');
    const cell = (y: number): number => (100 - Math.floor(y / 2)) * 101 + 50;
    const jumps = modelOf(plane(0.1, -90), new Map([[cell(121), cell(81)]]));
    expect(find('seen.led-uphill', { ...facts(pipe), flow: jumps.flow })).toMatchObject({
      severity: 'fine',
      value: expect.closeTo(4, 3),
      at: [101, 121],
    });
    expect(find('seen.led-uphill', facts({ kind: 'culvert', line: [[101, 121], [101, -81]] }))).toBeNull(); // prettier-ignore
    expect(find('seen.led-uphill', facts({ kind: 'ditch', line: [[101, 121], [101, 81]] }))).toBeNull(); // prettier-ignore
    expect(checkSeen(facts(pipe))).toMatchObject([{ on: 'f', id: 'seen.led-uphill' }]);
  });
});
