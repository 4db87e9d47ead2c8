// Vessels joined at their feet: two alike are one of both, two of different shape by hand.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { dayStore as store, dry } from '../testing/day-stores.ts';
import { type UseOrder, balanceDays, balanceJoined, errorOf, sumsOf } from './index.ts';

describe('vessels joined at their feet', () => {
  const UPRIGHT = { levelM: Float64Array.of(0, 1, 2), volumeM3: Float64Array.of(0, 2, 4), areaM2: Float64Array.of(2, 2, 2), roomM3: 3.6 };
  const rain = fc.array(fc.double({ min: 0, max: 4, noNaN: true }), { minLength: 60, maxLength: 60 });
  it('two alike are one of both: water comes to one and is asked of the other, and nothing differs', () => {
    fc.assert(
      fc.property(rain, fc.double({ min: 0, max: 2, noNaN: true }), fc.constantFrom<UseOrder>('after', 'before'), (mm, asks, order) => {
        const none = mm.map(() => 0);
        const a = store(mm, none, { ...UPRIGHT, id: 'a', joins: [1], deadM3: 0.2 });
        const b = store(none, mm.map(() => asks), { ...UPRIGHT, id: 'b', deadM3: 0.2, spills: [{ to: 0, share: 1, lagDays: 0 }] }); // prettier-ignore
        const both = { volumeM3: Float64Array.of(0, 4, 8), areaM2: Float64Array.of(4, 4, 4), roomM3: 7.2, deadM3: 0.4 };
        const one = store(mm, mm.map(() => asks), both); // prettier-ignore
        const pair = balanceJoined([a, b], dry(60), order);
        const [whole] = balanceJoined([one], dry(60), order).runs;
        for (let i = 0; i < 60; i++) {
          expect(pair.runs[0].volumeM3[i] + pair.runs[1].volumeM3[i]).toBeCloseTo(whole.volumeM3[i], 9);
          expect(pair.runs[0].volumeM3[i]).toBeCloseTo(pair.runs[1].volumeM3[i], 9);
          expect(pair.runs[1].usedM3[i]).toBeCloseTo(whole.usedM3[i], 9);
          expect(pair.runs[0].spilledM3[i]).toBeCloseTo(whole.spilledM3[i], 9);
        }
        for (const run of pair.runs) expect(Math.abs(errorOf(sumsOf(run)))).toBeLessThan(1e-9);
        // What went from one to the other left the one and came to the other.
        const [of, to] = pair.runs.map(sumsOf);
        const came = mm.reduce((s, v) => s + v, 0);
        expect(Math.abs(of.inM3 + to.inM3 - came - of.liftedM3 - to.liftedM3)).toBeLessThan(1e-9);
      }),
      { seed: 4, numRuns: 50 },
    );
  });
  it('of different shape they stand at one level: a wide low one and a thin high one, by hand; the lower overflow decides', () => {
    // 2 m2 and 0.5 m2, the second on a floor half a metre higher and with its overflow a metre over that.
    const wide = store([2, 0, 0], [0, 0, 0.5], { ...UPRIGHT, id: 'wide', joins: [1] });
    const thin = store([0, 3, 0], [0, 0, 0], { id: 'thin', levelM: Float64Array.of(0.5, 2.5), volumeM3: Float64Array.of(0, 1), areaM2: Float64Array.of(0.5, 0.5), roomM3: 0.5 }); // prettier-ignore
    const { runs, leftM3 } = balanceJoined([wide, thin], dry(3));
    // 2 m3: 2h + 0.5(h − 0.5) = 2, h = 0.9. Then 3 m3 more: both stand at 1.5 at the most, 3 + 0.5, and 1.5 run over at the thin one.
    expect(runs[0].volumeM3[0]).toBeCloseTo(1.8, 9);
    expect(runs[1].volumeM3[0]).toBeCloseTo(0.2, 9);
    expect([runs[0].volumeM3[1], runs[1].volumeM3[1], runs[1].spilledM3[1], leftM3[0][1]].map((v) => Number(v.toFixed(9)))).toEqual([
      3, 0.5, 1.5, 1.5,
    ]);
    // Half a cubic metre is drawn: 2h + 0.5(h − 0.5) = 3, both fall to 1.3.
    expect(runs[0].volumeM3[2]).toBeCloseTo(2.6, 9);
    expect(runs[1].volumeM3[2]).toBeCloseTo(0.4, 9);
    expect(runs[0].usedM3[2]).toBe(0.5);
  });
  it('stores that are not joined are as they were', () => {
    const alone = [store([3, 0], [1, 1]), store([1, 2], [0, 3], { id: 't' })];
    expect(balanceJoined(alone, dry(2))).toEqual(balanceDays(alone, dry(2)));
  });
});
