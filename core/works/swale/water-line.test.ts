// Where the water of a swale stands highest while it runs to its sills.
import { describe, expect, it } from '@jest/globals';
import type { Outlet } from '../../contract/index.ts';
import { lineLength } from '../../geometry/index.ts';
import { gatheredLine, trapezoid } from '../../hydraulics/index.ts';
import { SWALE } from '../../testing/projects.ts';
import { words } from '../../testing/rules.ts';
import { LENGTH, tilting } from '../../testing/swales.ts';
import { judgeBy } from '../rules.ts';
import { SWALE_RULES } from './index.ts';
import { type Crest, highestOn, leavingAt, riseAt, stretchesOf, tiltBy, waterLine } from './water-line.ts';

const sill = (atM: number, flowM3s: number, change: Partial<Outlet> = {}): Outlet => {
  const [from, to] = [SWALE.line[0], SWALE.line[SWALE.line.length - 1]];
  const share = atM / lineLength(SWALE.line);
  return {
    id: `s${atM}`,
    role: 'way',
    work: 's',
    name: 'Sill',
    kind: 'sill',
    levelM: SWALE.levels.floorM + 0.3,
    dischargeAt: [from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])],
    flowAt: () => flowM3s,
    ...change,
  };
};
const L = lineLength(SWALE.line);

describe('where water parts', () => {
  it('comes from both ends to a single sill', () => {
    expect(stretchesOf(100, [{ atM: 30, flowM3s: 0.1 }])).toEqual([
      { fromM: 0, toM: 30 },
      { fromM: 100, toM: 30 },
    ]);
    expect(stretchesOf(100, [{ atM: 30, flowM3s: 0 }])).toEqual([]);
  });
  it('and from between two sills, by what each takes', () => {
    // A third leaves over the first: it drains the first third of the way.
    const leaving = [
      { atM: 80, flowM3s: 0.2 },
      { atM: 20, flowM3s: 0.1 },
    ];
    const stretches = stretchesOf(90, leaving);
    expect(stretches.map((s) => [Math.round(s.fromM), s.toM])).toEqual([
      [0, 20],
      [30, 20],
      [30, 80],
      [90, 80],
    ]);
  });
  it('nowhere between two of which the first hardly takes what comes to it: the rest runs on past it', () => {
    expect(
      stretchesOf(100, [
        { atM: 50, flowM3s: 0.01 },
        { atM: 90, flowM3s: 0.19 },
      ]),
    ).toEqual([
      { fromM: 0, toM: 50 },
      { fromM: 100, toM: 90 },
    ]);
  });
});

describe('the water line of a swale', () => {
  const at = (leaving: readonly { atM: number; flowM3s: number }[], levelM = SWALE.levels.floorM + 0.4) =>
    highestOn(waterLine(SWALE, { lengthM: 200, leaving, levelM }));
  it('is that of a channel that gathers its share on the longest stretch', () => {
    const { floorWidthM, sideSlopeHV } = SWALE.dimensions;
    const reach = { section: trapezoid(floorWidthM, sideSlopeHV), lengthM: 150, slope: 0, n: 0.03 };
    const { riseM, atM } = at([{ atM: 50, flowM3s: 0.2 }]);
    expect(riseM).toBeCloseTo(gatheredLine(reach, 0.15, 0.4)[16] - 0.4, 9);
    expect(riseM).toBeGreaterThan(0.01);
    expect(atM).toBe(200);
  });
  it('tilts less the nearer the sill is to the middle, and less by two sills', () => {
    const rises = [190, 150, 100].map((atM) => at([{ atM, flowM3s: 0.2 }]).riseM);
    expect(rises[0]).toBeGreaterThan(rises[1]);
    expect(rises[1]).toBeGreaterThan(rises[2]);
    const two = at([50, 150].map((atM) => ({ atM, flowM3s: 0.1 })));
    expect(two.riseM).toBeLessThan(rises[2] / 3);
    expect(at([{ atM: 20, flowM3s: 0.2 }]).atM).toBe(200);
    expect(at([{ atM: 180, flowM3s: 0.2 }]).atM).toBe(0);
  });
  it('is level while nothing runs, and where nothing stands', () => {
    expect(at([{ atM: 100, flowM3s: 0 }]).riseM).toBe(0);
    expect(at([{ atM: 100, flowM3s: 0.2 }], SWALE.levels.floorM - 0.1).riseM).toBe(0);
  });
  it('is told by the level for its own ways out, not for mouths, and not where it opens into a pond', () => {
    const level = SWALE.levels.floorM + 0.4;
    const two = [sill(10, 0.2), sill(L / 2, 9, { kind: 'joint' })];
    expect(leavingAt(SWALE, two, level).map((l) => Math.round(l.atM))).toEqual([10]);
    const tilt = (outlets: readonly Outlet[], crests: readonly Crest[] = [{ levelM: level + 0.2 }]) =>
      tiltBy(SWALE, outlets, crests)?.(level);
    const line = waterLine(SWALE, { lengthM: L, leaving: [{ atM: 10, flowM3s: 0.2 }], levelM: level });
    const { riseM } = highestOn(line);
    expect(tilt(two)!.riseM).toBeCloseTo(riseM, 6);
    expect(tilt(two)!.leftM).toBeCloseTo(0.2 - riseM, 6);
    // A low place beside the sill has nearly all of its own left, one at the far end that much less.
    expect(tilt(two, [{ levelM: level + 0.1, fromM: 9, toM: 11 }])!.leftM).toBeCloseTo(0.1, 2);
    expect(tilt(two, [{ levelM: level + 0.1, fromM: L - 2, toM: L }])!.leftM).toBeCloseTo(0.1 - riseM, 6);
    expect(tilt(two, [{ levelM: level + 0.2 }, { levelM: level + 0.1, fromM: 9, toM: 11 }])!.leftM).toBeLessThan(0.1001);
    expect(tiltBy(SWALE, [], [])).toBeNull();
    expect(tiltBy({ ...SWALE, joins: { store: 'pond', end: 'start' } }, two, [])).toBeNull();
  });
  it('is read straight between its points, and by the last beyond them', () => {
    const line = [0, 10, 10, 30].map((atM, k) => ({ atM, riseM: [0.03, 0, 0, 0.04][k] }));
    expect([-5, 0, 5, 10, 20, 30, 99].map((x) => Number(riseAt(line, x).toFixed(6)))).toEqual([0.03, 0.03, 0.015, 0, 0.02, 0.04, 0.04]);
  });
});

describe('what takes the tilt of a water line away', () => {
  const rule = SWALE_RULES.find((r) => r.id === 'swale.far-end')!;
  const advice = (atM: readonly number[], flowM3s: number): string => words(judgeBy(rule, tilting(atM, flowM3s))?.do);
  it('is a nearer sill or two, each with what it comes to; for a sill in the middle two; for several another', () => {
    expect(advice([20], 0.4)).toMatch(/Bring the sill to the middle/);
    expect(advice([LENGTH / 2], 0.6)).toMatch(/^Let it out over two sills, a quarter in from both ends: it rises \d+ mm then/);
    expect(advice([10, 20], 0.4)).toMatch(new RegExp(`^Add a sill near ${Math.round(LENGTH)} m along it`));
    const mm = [...advice([20], 0.4).matchAll(/(\d+) mm/g)].map((m) => Number(m[1]));
    const now = 1000 * judgeBy(rule, tilting([20], 0.4))!.value!;
    expect(mm[0]).toBeLessThan(now / 2);
    expect(mm[1]).toBeLessThan(mm[0] / 3);
    expect(1000 * judgeBy(rule, tilting([LENGTH / 2], 0.4))!.value!).toBeCloseTo(mm[0], -0.3);
  });
});
