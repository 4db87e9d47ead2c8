import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type BookRow, MISCLOSURE_ALLOWED, bookProblems, reduceBook } from './index.ts';

const row = (change: Partial<BookRow>): BookRow => ({ backM: null, interM: null, foreM: null, knownM: null, ...change });
const WORKED = [row({ backM: 1.425, knownM: 100 }), row({ foreM: 2.31, backM: 1.118 }), row({ foreM: 0.642 })];

/** The same by rises and falls, as another surveyor would book it: each reading against the one before it. */
function byRiseAndFall(rows: readonly BookRow[]): number[] {
  let [level, before] = [rows[0].knownM!, rows[0].backM!];
  return [
    level,
    ...rows.slice(1).map(({ interM, foreM, backM }) => {
      const here = interM ?? foreM!;
      level += before - here;
      before = backM ?? here;
      return level;
    }),
  ];
}

describe('a level book', () => {
  // Handbook section 7 (computed there): HI 101.425 from 100.000 and 1.425; 2.310 gives 99.115; +1.118 - 0.642 gives 99.591.
  it('gives the levels of the worked one', () => {
    const { levelsM, setUps, sumBackM, sumForeM, riseM, closes } = reduceBook(WORKED);
    expect(levelsM.map((v) => v.toFixed(3))).toEqual(['100.000', '99.115', '99.591']);
    expect([setUps, sumBackM - sumForeM, riseM, closes]).toEqual([2, expect.closeTo(-0.409, 9), expect.closeTo(-0.409, 9), null]);
  });
  it('agrees with rises and falls, and its sums with its ends, for any ground and any set-ups', () => {
    const reading = fc.integer({ min: 0, max: 4999 }).map((mm) => mm / 1000);
    const turn = fc.record({ inters: fc.array(reading, { maxLength: 6 }), fore: reading, back: reading });
    fc.assert(
      fc.property(fc.array(turn, { minLength: 1, maxLength: 8 }), reading, (turns, back) => {
        const rows = [
          row({ backM: back, knownM: 50 }),
          ...turns.flatMap(({ inters, fore, back: next }, k) => [...inters.map((interM) => row({ interM })), row({ foreM: fore, ...(k < turns.length - 1 ? { backM: next } : {}) })]),
        ];
        const book = reduceBook(rows);
        byRiseAndFall(rows).forEach((level, k) => expect(book.levelsM[k]).toBeCloseTo(level, 9));
        expect(book.sumBackM - book.sumForeM).toBeCloseTo(book.levelsM[rows.length - 1] - 50, 9);
        expect(book.riseM).toBeCloseTo(book.sumBackM - book.sumForeM, 9);
        expect(book.setUps).toBe(turns.length);
      }),
      { seed: 41, numRuns: 200 },
    );
  }); // prettier-ignore
  it('that closes off is spread over its set-ups, so that it ends where it should', () => {
    // Three set-ups there and back to the same peg: each reads 2 mm too low.
    const rows = [row({ backM: 1.5, knownM: 10 }), row({ interM: 1.2 }), row({ foreM: 1.002, backM: 1.4 }), row({ foreM: 1.602, backM: 1.3 }), row({ foreM: 1.602, knownM: 10 })];
    const { levelsM, closes } = reduceBook(rows);
    expect(closes).toEqual({ offM: expect.closeTo(-0.006, 9), allowedM: expect.closeTo(0.005 * Math.sqrt(3), 12), setUps: 3 });
    expect(levelsM).toEqual([10, expect.closeTo(10.302, 9), expect.closeTo(10.5, 9), expect.closeTo(10.3, 9), expect.closeTo(10, 9)]);
    // What is levelled after it closed is carried on from there.
    const more = reduceBook([...rows.slice(0, 4), row({ foreM: 1.602, knownM: 10, backM: 1 }), row({ interM: 0.5 })]);
    expect(more.levelsM[5]).toBeCloseTo(10.5, 2);
    expect([more.setUps, more.closes]).toEqual([4, closes]);
  }); // prettier-ignore
  it('allows 5 mm, times the root of the set-ups', () => {
    expect([1, 4, 9].map((n) => MISCLOSURE_ALLOWED.evaluate({ n }))).toEqual([0.005, 0.01, 0.015]);
  });
  it('says what is wrong with each line', () => {
    expect(bookProblems(WORKED)).toEqual([]);
    const wrong = (k: number, change: Partial<BookRow>): string[] =>
      bookProblems(WORKED.map((r, i) => (i === k ? row(change) : r))).map((p) => `${p.row} ${p.what}`);
    expect(wrong(0, { backM: 1.4 })).toEqual(['0 the book begins at no known level']);
    expect(wrong(0, { knownM: 100 })).toEqual(['0 the first line has no back-sight alone']);
    expect(wrong(0, { knownM: 100, backM: 1, foreM: 1 })).toEqual(['0 the first line has no back-sight alone']);
    expect(wrong(1, { interM: 1, foreM: 1 })).toEqual(['1 it has an inter-sight and a fore-sight']);
    expect(wrong(1, { interM: 1, backM: 1 })).toEqual(['1 it has an inter-sight and a back-sight']);
    expect(wrong(1, { backM: 1 })).toEqual(['1 the instrument moved to it without a fore-sight: the level is lost']);
    expect(wrong(2, {})).toEqual(['2 nothing was read on it']);
  });
});
