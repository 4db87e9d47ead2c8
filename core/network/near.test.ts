import { describe, expect, it } from '@jest/globals';
import type { Arriving, Coming } from './arrivals.ts';
import { NEAR, asItCame } from './near.ts';
import { outletRun } from './runs.ts';

const STEP_S = 60;
/** A flood that peaks at 2 m3/s, with a long tail of little. */
const FLOOD = [0, 1, 2, 1, 0.5, ...Array.from({ length: 60 }, () => 0.1)];

const arriving = (flow: readonly number[], more: Partial<Omit<Arriving, 'run'>> & { readonly id?: string } = {}): Arriving => {
  const { id = 'notch', lagS = 30, share = 1 } = more;
  return { run: outletRun(id, Float64Array.from(flow), { stepS: STEP_S, isJoint: false }), lagS, share };
};
const more = (byM3s: number, at: number): number[] => FLOOD.map((q, i) => (i === at ? q + byM3s : q));
const BEFORE: Coming = [[arriving(FLOOD)], []];
const taken = (flow: readonly number[], on: Parameters<typeof arriving>[1] = {}): boolean =>
  asItCame(BEFORE, [[arriving(flow, on)], []]) === BEFORE;

describe('what comes to stores', () => {
  it.each([
    ['the peak', 2],
    ['the rise', 1],
    ['the tail', 40],
  ])('stays as long as %s differs by less than its share of the greatest', (_, at) => {
    for (const sign of [1, -1]) {
      expect(taken(more(sign * 0.99 * NEAR * 2, at))).toBe(true);
      expect(taken(more(sign * 1.01 * NEAR * 2, at))).toBe(false);
    }
  });
  it('stays as long as its volume does, however little each step differs', () => {
    const sum = FLOOD.reduce((a, q) => a + q, 0);
    const each = (part: number): number[] => FLOOD.map((q) => q + (part * NEAR * sum) / FLOOD.length);
    expect((1.01 * NEAR * sum) / FLOOD.length).toBeLessThan(NEAR * 2);
    expect([taken(each(0.99)), taken(each(1.01)), taken(each(-0.99)), taken(each(-1.01))]).toEqual([true, false, true, false]);
  });
  it('is what comes now where anything else differs', () => {
    expect(taken(FLOOD)).toBe(true);
    expect(taken(FLOOD, { lagS: 31 })).toBe(false);
    expect(taken(FLOOD, { share: 0.9 })).toBe(false);
    expect(taken(FLOOD, { id: 'other' })).toBe(false);
    expect(taken([...FLOOD, 0])).toBe(false);
    const others: Coming[] = [[[], []], [[arriving(FLOOD)]], [[arriving(FLOOD), arriving(FLOOD)], []], [[], [arriving(FLOOD)]]];
    for (const now of others) expect(asItCame(BEFORE, now)).toBe(now);
    expect(asItCame(undefined, BEFORE)).toBe(BEFORE);
  });
  it('does not creep: it is held against what was last taken', () => {
    let last = BEFORE;
    const peaks = Array.from({ length: 40 }, (_, k) => {
      last = asItCame(last, [[arriving(more(0.2 * NEAR * 2 * k, 2))], []]);
      return Math.abs(last[0][0].run.peakM3s - (2 + 0.2 * NEAR * 2 * k));
    });
    expect(Math.max(...peaks)).toBeLessThanOrEqual(NEAR * 2.1);
    expect(last).not.toBe(BEFORE);
  });
});
