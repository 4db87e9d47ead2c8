// What techniques share: fields and lines, the ground under a line and below a way out, how fast water leaves, judging by limits.
import { describe, expect, it } from '@jest/globals';
import type { FieldSpec, Rule } from '../contract/index.ts';
import { coverOf, permissibleVelocity } from '../ground/index.ts';
import { gridOf } from '../testing/grids.ts';
import { HOST, SITE } from '../testing/guests.ts';
import { words } from '../testing/rules.ts';
import { exitFlow, grassChannel, stoneRoughness, stoneStands } from './exit.ts';
import { checkFields, checkLine, valueAt } from './fields.ts';
import { carryOver, downhillAt, groundAlong, measureLip } from './lip.ts';
import { NOWHERE, checkHost, pegAt, placeOnHost } from './on-host.ts';
import { gradeMax, gradeMin, judgeBy, runRules } from './rules.ts';
import { nearestFeature } from './setbacks.ts';
import { UnknownGround, footingOf, unknownUnder } from './unknown-ground.ts';

describe('judging', () => {
  it('is inclusive of both limits, whichever way it goes', () => {
    expect([0.99, 1, 1.99, 2].map((v) => gradeMin(v, 1, 2))).toEqual(['mend', 'weigh', 'weigh', 'fine']);
    expect([1, 1.01, 2, 2.01].map((v) => gradeMax(v, 1, 2))).toEqual(['fine', 'weigh', 'weigh', 'mend']);
  });
  const rule: Rule<{ n: number }> = {
    id: 'a.b',
    title: 'Title',
    why: 'Why',
    unit: 'm',
    kind: 'length',
    sense: 'min',
    source: { key: 'geometry' },
    needs: ['rain', 'ground'],
    applies: ({ n }) => n > 0,
    find: ({ n }) => (n > 9 ? null : { severity: 'fine', value: n, limit: 1, do: 'Nothing.' }),
  };
  it('says nothing of what it is not about, and names all that is missing', () => {
    expect(judgeBy(rule, { n: 0, missing: ['rain'] })).toBeNull();
    expect(judgeBy(rule, { n: 10 })).toBeNull();
    expect(judgeBy(rule, { n: 2 })).toMatchObject({ value: 2, severity: 'fine' });
    const both = judgeBy(rule, { n: 2, missing: ['ground', 'rain'] });
    expect(both).toMatchObject({ severity: 'unknown', value: null, limit: null });
    expect(words(both?.do)).toMatch(/^Give the rain.*Describe the ground/);
    expect(judgeBy({ ...rule, needs: ['rain'] }, { n: 2, missing: ['ground'] })?.severity).toBe('fine');
    expect(judgeBy({ ...rule, needs: undefined }, { n: 2, missing: ['ground', 'rain'] })?.severity).toBe('fine');
  });
  it('becomes a check under its subject, with the finding’s own title and place where it has them', () => {
    expect(runRules([rule], { n: 10 }, 'w')).toEqual([]);
    expect(runRules([rule], { n: 3 }, 'w')).toMatchObject([{ id: 'a.b', on: 'w', title: 'Title', at: null, value: 3, do: 'Nothing.' }]);
    const placed: Rule<object> = {
      ...rule,
      needs: undefined,
      applies: undefined,
      find: () => ({ severity: 'weigh', value: 1, limit: 2, at: [1, 2], title: 'Own', do: 'Do.' }),
    };
    expect(runRules([placed], {}, 'w')).toMatchObject([{ title: 'Own', at: [1, 2], said: { title: 'Own', do: 'Do.' } }]);
  });
});

describe('fields and lines', () => {
  const spec: FieldSpec = { path: 'a.b', label: 'Depth', kind: 'length', min: 1, max: 2, help: '' };
  const problems = (value: unknown) => checkFields({ id: 'w', name: 'W', a: { b: value } } as never, [spec]);
  it('are found at a path, or not at all', () => {
    expect([valueAt({ a: { b: 3 } }, 'a.b'), valueAt({ a: 3 }, 'a.b'), valueAt(null, 'a'), valueAt({ a: null }, 'a.b')]).toEqual([
      3,
      undefined,
      undefined,
      undefined,
    ]);
  });
  it('must be numbers in their range, both ends included', () => {
    expect([problems(1), problems(2)]).toEqual([[], []]);
    expect(problems(0.999)).toMatchObject([{ code: 'work.field-range', field: 'a.b' }]);
    expect(problems(2.001)).toMatchObject([{ code: 'work.field-range' }]);
    expect(words(problems(3)[0].what)).toMatch(/Depth of "W" is 3\.00 m, outside 1\.00 m to 2\.00 m/);
    expect(problems('1')).toMatchObject([{ code: 'work.field-missing', field: 'a.b' }]);
  });
  it('a line has two places or more, in metres, and some length but not too much', () => {
    const codes = (line: unknown): string[] => checkLine({ name: 'W' }, line).map((p) => p.code);
    expect(codes([[0, 0], [1, 0]])).toEqual([]); // prettier-ignore
    for (const none of [
      undefined,
      'x',
      [],
      [[0, 0]],
      [[0, 0], [1]],
      [
        [0, 0],
        [1, NaN],
      ],
      [
        [0, 0],
        [1, 2, 3],
      ],
      [[0, 0], 'x'],
      [
        [0, 0],
        ['1', 2],
      ],
    ])
      // prettier-ignore
      expect(codes(none)).toEqual(['work.line']);
    expect(codes([[0, 0], [20_000, 0]])).toEqual([]); // prettier-ignore
    expect(codes([[0, 0], [20_000.1, 0]])).toEqual(['work.line-length']); // prettier-ignore
    expect(codes([[3, 4], [3, 4]])).toEqual(['work.line-length']); // prettier-ignore
    expect(codes([[3, 4], [3, 4], [3, 5]])).toEqual([]); // prettier-ignore
  });
});

describe('how fast water leaves', () => {
  const grass = coverOf('pasture-good');
  it('from a pipe is flow over bore; over a sheet is Manning’s; dry is still', () => {
    const pipe = { at: [0, 0] as const, slope: 0.02, widthM: 0.4, shape: 'pipe' as const };
    expect(exitFlow(pipe, 0.1, grass).velocityMs).toBeCloseTo(0.1 / (Math.PI * 0.04), 12);
    expect(exitFlow({ ...pipe, slope: null }, 0.1, grass)).toMatchObject({ velocityMs: expect.closeTo(0.7957, 3), standsMs: null });
    expect(exitFlow(pipe, 0, grass).velocityMs).toBe(0);
    const stone = { ...pipe, shape: 'sheet' as const, widthM: 4, stoneM: 0.1 };
    const n = 0.1 ** (1 / 6) / 21.1;
    expect(exitFlow(stone, 0.2, grass).velocityMs).toBeCloseTo((0.05 ** (2 / 3) * (Math.sqrt(0.02) / n)) ** 0.6, 9);
    expect(exitFlow({ ...stone, slope: 0 }, 0.2, grass).velocityMs).toBeCloseTo((0.05 ** (2 / 3) * (Math.sqrt(0.001) / n)) ** 0.6, 9);
    expect(exitFlow({ ...stone, slope: null }, 0.2, grass).velocityMs).toBeNull();
    expect([stoneRoughness(0.1), exitFlow(stone, 0.2, grass).standsMs]).toEqual([n, stoneStands(0.1)]);
  });
  it('what stands is the cover’s, by its slope, or the stone’s', () => {
    const sheet = { at: [0, 0] as const, slope: 0.02, widthM: 4, shape: 'sheet' as const };
    expect(exitFlow(sheet, 0.2, grass).standsMs).toBe(permissibleVelocity(grass, 0.02));
    expect(exitFlow({ ...sheet, slope: null }, 0, grass)).toEqual({ velocityMs: 0, standsMs: null });
    expect(stoneStands(0.2)).toBeCloseTo(0.86 * Math.sqrt(2 * 9.81 * 1.65 * 0.2), 3);
  });
  it('in a channel of grass goes by the flow’s own roughness; of stone or bare ground by theirs', () => {
    const channel = { at: [0, 0] as const, slope: 0.03, widthM: 3, shape: 'channel' as const, sideHV: 3 };
    const { depthM, velocityMs, n } = grassChannel({ widthM: 3, sideHV: 3, slope: 0.03, curveIndex: grass.strength.curveIndex! }, 0.5);
    expect(exitFlow(channel, 0.5, grass).velocityMs).toBeCloseTo(velocityMs, 9);
    expect(velocityMs * (3 + 3 * depthM) * depthM).toBeCloseTo(0.5, 6);
    const radius = ((3 + 3 * depthM) * depthM) / (3 + 2 * depthM * Math.sqrt(10));
    expect((radius ** (2 / 3) * Math.sqrt(0.03)) / n / velocityMs).toBeCloseTo(1, 3);
    const faster = exitFlow({ ...channel, stoneM: 0.05 }, 0.5, grass).velocityMs!;
    expect(faster).toBeGreaterThan(velocityMs);
    expect(exitFlow(channel, 0.5, coverOf('bare')).velocityMs).toBeGreaterThan(velocityMs);
    // Without sides it is cut upright: deeper and a little slower than with them on the same bottom.
    expect(exitFlow({ ...channel, sideHV: undefined, stoneM: 0.05 }, 0.5, grass).velocityMs).not.toBeCloseTo(faster, 4);
    expect(grassChannel({ widthM: 3, sideHV: 3, slope: 0.03, curveIndex: 5.6 }, 0)).toMatchObject({ depthM: 0, velocityMs: 0 });
  });
});

describe('the ground under a line', () => {
  it('is measured at even stations with the slope across, whichever way the line runs', () => {
    const lip = measureLip(HOST.line, SITE);
    expect([lip.lengthM, lip.atM.length, lip.stepM, lip.downhillSide]).toEqual([140, 141, 1, 1]);
    expect(lip.meanSlope).toBeCloseTo(0.1, 5);
    expect(downhillAt(HOST.line, lip, 30)).toEqual([0, -1]);
    expect(measureLip([...HOST.line].reverse(), SITE).downhillSide).toBe(-1);
    const bent = gridOf((x, y) => 0.1 * y + (x > 100 ? 1 : 0), { cells: 101, cellM: 2 });
    const over = measureLip(HOST.line, { grid: bent });
    expect(groundAlong(over, 10.5)).toBeCloseTo((over.groundM[10] + over.groundM[11]) / 2, 9);
    expect([groundAlong(over, -4), groundAlong(over, 999)]).toEqual([over.groundM[0], over.groundM[140]]);
    expect(measureLip([[32, 101], [33, 101]], SITE).atM).toHaveLength(5); // prettier-ignore
    expect(measureLip([[2, 101], [200, 101]], { grid: { ...SITE.grid, cellM: 2 } }).atM.length).toBeLessThanOrEqual(161); // prettier-ignore
  });
  it('one side tells the slope where the other is not known', () => {
    const half = gridOf((_x, y) => (y < 100 ? null : 0.1 * y), { cells: 101, cellM: 2 });
    const lip = measureLip(HOST.line, { grid: half });
    expect(lip.meanSlope).toBeGreaterThan(0.02);
    expect(() => measureLip(HOST.line, { grid: gridOf(() => null, { cells: 101, cellM: 2 }) })).toThrow(UnknownGround);
  });
  it('gaps take the level before them, or the first after', () => {
    const list = Float64Array.of(NaN, 1, NaN, NaN, 4);
    carryOver(list, 'x');
    expect([...list]).toEqual([1, 1, 1, 1, 4]);
    expect(() => carryOver(Float64Array.of(NaN), 'no level')).toThrow(UnknownGround);
  });
  it('is told where it is not known: off the terrain, without levels, or partly', () => {
    const at = (line: [number, number][], grid = SITE.grid) => unknownUnder(footingOf(line, grid));
    expect(at([[32, 101], [172, 101]])).toBeNull(); // prettier-ignore
    expect(words(at([[300, 101], [340, 101]])!)).toBe('Off the terrain, 98 m beyond its edge'); // prettier-ignore
    expect(words(at([[172, 101], [232, 101]])!)).toMatch(/Partly off the known ground: from 29\.5 m to 60\.0 m/); // prettier-ignore
    const holed = gridOf((x) => (x > 80 && x < 90 ? null : 1), { cells: 101, cellM: 2 });
    expect(words(at([[32, 101], [132, 101]], holed)!)).toMatch(/Partly/); // prettier-ignore
    expect(at([[81, 101], [88, 101]], holed)).toBe('On ground the terrain has no level for'); // prettier-ignore
    const narrow = gridOf((x) => (x > 80 && x < 82 ? null : 1), { cells: 101, cellM: 2 });
    const footing = footingOf([[32, 101], [132, 101]], narrow); // prettier-ignore
    expect([unknownUnder(footing), footing.bridgedM > 1, footing.bridgedM < 6]).toEqual([null, true, true]);
    expect(footingOf([[32, 101], [81, 101]], narrow).unknown.length).toBeGreaterThan(0); // prettier-ignore
  });
});

describe('a place on a host', () => {
  it('is nowhere without one', () => {
    expect(placeOnHost(3, SITE, { host: null, lengthM: 1 })).toBe(NOWHERE);
    expect(pegAt(NOWHERE, { name: 'x', role: 'sill', levelM: 1 })).toEqual([]);
    expect(checkHost({ name: 'W', host: 'p' })).toEqual([]);
    for (const host of ['', undefined, 3]) expect(checkHost({ name: 'W', host })).toMatchObject([{ code: 'work.host', field: 'host' }]);
  });
});

describe('what stands near', () => {
  const ring = [[0, 0], [4, 0], [4, 4], [0, 4]] as [number, number][]; // prettier-ignore
  const outline = [[10, 0], [20, 0], [20, 10], [10, 10], [10, 0]] as [number, number][]; // prettier-ignore
  it('is the nearest of rings, lines and points; 0 within or around; none without any', () => {
    const near = (...features: object[]) =>
      nearestFeature(
        outline,
        features.map((f, k) => ({ id: `${k}`, kind: 'x', ...f })),
      );
    expect(near()).toBeNull();
    expect(near({ ring })?.distanceM).toBe(6);
    expect(near({ ring }, { at: [9, 5] })?.distanceM).toBe(1);
    expect(near({ at: [9, 5] }, { ring })?.distanceM).toBe(1);
    expect(near({ line: [[25, 0], [25, 9]] })?.distanceM).toBe(5); // prettier-ignore
    expect(near({ at: [15, 5] })?.distanceM).toBe(0);
    expect(near({ ring: [[0, -9], [40, -9], [40, 40], [0, 40]] })?.distanceM).toBe(0); // prettier-ignore
    expect(near({})).toBeNull();
    expect(near({ line: [[1, 1]] })).toBeNull();
  });
  it('a line that goes round something does not hold it: only a ring has an inside', () => {
    const bent = [[10, 0], [20, 0], [20, 10], [10, 10]] as [number, number][]; // prettier-ignore
    expect(nearestFeature(bent, [{ id: 'f', kind: 'x', at: [17, 5] }])?.distanceM).toBe(3);
  });
});
