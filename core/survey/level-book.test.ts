import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  type BookLine,
  type LevelBook,
  MISCLOSURE_ALLOWED,
  PLACINGS,
  bookedLines,
  lookThrough,
  placedAs,
  bookProblems,
  gridPlaces,
  placeProblems,
  placesOf,
  refusedClosings,
  reduceBook,
} from './index.ts';

const line = (read: Partial<BookLine>): BookLine => ({ name: '', ...read });
const book = (lines: readonly BookLine[], change: Partial<LevelBook> = {}): LevelBook => ({ id: 'b', name: 'Book', tool: 'level', placing: 'xy', side: 'right', lines, ...change }); // prettier-ignore
const WORKED = [line({ backM: 1.425, knownM: 100 }), line({ foreM: 2.31, backM: 1.118 }), line({ foreM: 0.642 })];
const mm = (least: number, most: number): fc.Arbitrary<number> => fc.integer({ min: least, max: most }).map((v) => v / 1000);

describe('a level book', () => {
  // Handbook section 7 (computed there): HI 101.425 from 100.000 and 1.425; 2.310 gives 99.115; +1.118 - 0.642 gives 99.591.
  it('gives the levels of the worked one, by both ways of booking', () => {
    const { levelsM, collimationM, risesM, setUps, sumBackM, sumForeM, riseM, closings } = reduceBook(book(WORKED));
    expect(levelsM.map((v) => v.toFixed(3))).toEqual(['100.000', '99.115', '99.591']);
    expect(collimationM).toEqual([expect.closeTo(101.425, 9), expect.closeTo(100.233, 9), null]);
    expect(risesM).toEqual([null, expect.closeTo(-0.885, 9), expect.closeTo(0.476, 9)]);
    expect([setUps, sumBackM - sumForeM, riseM, closings]).toEqual([2, expect.closeTo(-0.409, 9), expect.closeTo(-0.409, 9), []]);
  });
  it('agrees with rises and falls, and its sums with its ends, for any ground and any set-ups', () => {
    const reading = mm(0, 4999);
    const turn = fc.record({ inters: fc.array(reading, { maxLength: 6 }), fore: reading, back: reading });
    fc.assert(
      fc.property(fc.array(turn, { minLength: 1, maxLength: 8 }), reading, (turns, back) => {
        const lines = [
          line({ backM: back, knownM: 50 }),
          ...turns.flatMap(({ inters, fore, back: next }, k) => [...inters.map((interM) => line({ interM })), line({ foreM: fore, ...(k < turns.length - 1 ? { backM: next } : {}) })]),
        ];
        const { levelsM, risesM, sumBackM, sumForeM, riseM, setUps } = reduceBook(book(lines));
        risesM.forEach((rise, k) => expect(k === 0 ? levelsM[0] : levelsM[k - 1] + rise!).toBeCloseTo(levelsM[k], 9));
        expect(sumBackM - sumForeM).toBeCloseTo(levelsM[lines.length - 1] - 50, 9);
        expect(riseM).toBeCloseTo(sumBackM - sumForeM, 9);
        expect(setUps).toBe(turns.length);
      }),
      { seed: 41, numRuns: 200 },
    );
  }); // prettier-ignore
  it('that closes off is spread over its set-ups, so that it ends where it should, and each level says how near it is known', () => {
    // Three set-ups there and back to the same peg: each reads 2 mm too low.
    const lines = [line({ backM: 1.5, knownM: 10 }), line({ interM: 1.2 }), line({ foreM: 1.002, backM: 1.4 }), line({ foreM: 1.602, backM: 1.3 }), line({ foreM: 1.602, knownM: 10 })];
    const { levelsM, closings, knownToM } = reduceBook(book(lines));
    expect(closings).toEqual([{ line: 4, offM: expect.closeTo(-0.006, 9), allowedM: expect.closeTo(0.005 * Math.sqrt(3), 12), setUps: 3 }]);
    expect(levelsM).toEqual([10, expect.closeTo(10.302, 9), expect.closeTo(10.5, 9), expect.closeTo(10.3, 9), expect.closeTo(10, 9)]);
    // Between two known levels the middle is known worst; what hangs on one set-up beside the way by that set-up alone.
    expect(knownToM).toEqual([0, 0.005, expect.closeTo(0.005 * Math.sqrt(2 / 3), 9), expect.closeTo(0.005 * Math.sqrt(2 / 3), 9), 0]);
    // What is levelled after it closed is carried on from there.
    const more = reduceBook(book([...lines.slice(0, 4), line({ foreM: 1.602, knownM: 10, backM: 1 }), line({ interM: 0.5 })]));
    expect(more.levelsM[5]).toBeCloseTo(10.5, 9);
    expect([more.setUps, more.closings, more.knownToM[5]]).toEqual([4, closings, 0.005]);
    // A known level on the way holds the part before it, and what comes after is held from there.
    const twice = reduceBook(book([...lines.slice(0, 2), { ...lines[2], knownM: 10.5 }, lines[3], lines[4]]));
    expect(twice.closings.map((c) => [c.line, c.setUps, Math.round(1e6 * c.offM)])).toEqual([[2, 1, -2000], [4, 2, -4000]]);
    expect(twice.levelsM[3]).toBeCloseTo(10.3, 9);
    // An inter-sight on a known level tells of its set-up as a fore-sight does.
    const checked = reduceBook(book([lines[0], line({ interM: 1.198, knownM: 10.3 }), line({ foreM: 1.5, knownM: 10.003 })]));
    expect(checked.closings.map((c) => [c.line, Math.round(1e6 * c.offM)])).toEqual([[1, 2000], [2, -5000]]);
    expect(checked.levelsM).toEqual([10, expect.closeTo(10.3, 9), expect.closeTo(9.998, 9)]);
  }); // prettier-ignore
  it('allows 5 mm by level and tube, 10 mm by frame, times the root of the set-ups', () => {
    expect([1, 4, 9].map((n) => MISCLOSURE_ALLOWED.evaluate({ k: 0.005, n }))).toEqual([0.005, 0.01, 0.015]);
    const there = [line({ knownM: 5 }), line({ riseM: 0.3, steps: 4 }), line({ riseM: -0.31, steps: 5, knownM: 5 })];
    const [{ allowedM, setUps, offM }] = reduceBook(book(there, { tool: 'a-frame' })).closings;
    expect([allowedM, setUps, offM]).toEqual([expect.closeTo(0.03, 12), 9, expect.closeTo(-0.01, 9)]);
    // What may be is used, and a hair more is not.
    const off = (m: number): number => refusedClosings(reduceBook(book([line({ backM: 1, knownM: 5 }), line({ foreM: 1 - m, knownM: 5 })])).closings).length;
    expect([off(0.00499), off(0.00501), off(-0.00499), off(-0.00501)]).toEqual([0, 1, 0, 1]);
    // Spread by steps, not by lines.
    expect(reduceBook(book(there, { tool: 'a-frame' })).levelsM).toEqual([5, expect.closeTo(5.3 + 0.01 * (4 / 9), 9), expect.closeTo(5, 9)]);
  }); // prettier-ignore
  it('by a water tube goes leg by leg, from wherever the end behind stands', () => {
    const lines = [
      line({ name: 'sill', knownM: 100 }),
      line({ name: 'a', backM: 1, foreM: 0.8 }),
      line({ name: 'b', backM: 1.1, foreM: 1.4 }),
      line({ name: 'c', from: 'a', backM: 0.9, foreM: 0.65 }),
      line({ name: 'sill again', from: 'b', backM: 0.9, foreM: 0.796, knownM: 100 }),
      line({ name: 'd', from: 'b', backM: 1, foreM: 1 }),
    ];
    const { levelsM, closings, risesM } = reduceBook(book(lines, { tool: 'water-tube' }));
    expect(closings.map((c) => [c.setUps, Math.round(1e6 * c.offM)])).toEqual([[3, 4000]]);
    // A third of 4 mm off each leg of the way round; what hangs beside it goes along with the place it hangs on.
    expect(levelsM.map((v) => Math.round(1e5 * (v - 100)))).toEqual([0, 19867, -10267, 44867, 0, -10267]);
    expect(risesM).toEqual([null, expect.closeTo(0.2, 9), expect.closeTo(-0.3, 9), expect.closeTo(0.25, 9), expect.closeTo(0.104, 9), expect.closeTo(0, 9)]);
  }); // prettier-ignore
  it('says what is wrong with each line', () => {
    expect(bookProblems(book(WORKED))).toEqual([]);
    const wrong = (k: number, change: Partial<BookLine>): string[] =>
      bookProblems(book(WORKED.map((l, i) => (i === k ? line(change) : l)))).map((p) => `${p.line} ${p.what}`);
    expect(wrong(0, { backM: 1.4 })).toEqual(['0 the book begins at no known level']);
    expect(wrong(0, { knownM: 100 })).toEqual(['0 the first line has no back-sight alone']);
    expect(wrong(0, { knownM: 100, backM: 1, foreM: 1 })).toEqual(['0 the first line has no back-sight alone']);
    expect(wrong(1, { interM: 1, foreM: 1 })).toEqual(['1 it has an inter-sight and a fore-sight']);
    expect(wrong(1, { interM: 1, backM: 1 })).toEqual(['1 it has an inter-sight and a back-sight']);
    expect(wrong(1, { backM: 1 })).toEqual(['1 the instrument moved to it without a fore-sight: the level is lost']);
    expect(wrong(2, {})).toEqual(['2 nothing was read on it']);
    expect(wrong(2, { foreM: 100 })).toEqual([]);
    expect(wrong(2, { foreM: 100.1 })).toEqual(['2 100.1 m is more than can be read at once']);
    expect(wrong(2, { interM: -100.1 })).toEqual(['2 -100.1 m is more than can be read at once']);
    expect(wrong(2, { foreM: 1, knownM: 9000 })).toEqual([]);
    expect(wrong(2, { foreM: 1, knownM: 9001 })).toEqual(['2 9001 m is no level of any ground']);
    expect(wrong(2, { foreM: 1, knownM: -501 })).toEqual(['2 -501 m is no level of any ground']);
    const leg = (tool: 'water-tube' | 'a-frame', read: Partial<BookLine>): string[] =>
      bookProblems(book([line({ name: 'A', knownM: 1 }), line(read)], { tool })).map((p) => `${p.line} ${p.what}`);
    expect(leg('water-tube', { backM: 1, foreM: 1 })).toEqual([]);
    expect(leg('water-tube', { backM: 1 })).toEqual(['1 one end of the tube was not read']);
    expect(leg('water-tube', { foreM: 1, backM: 1, from: 'B' })).toEqual(['1 no line above is called "B"']);
    expect(leg('a-frame', { riseM: 0.1, steps: 1, from: 'A' })).toEqual([]);
    expect(leg('a-frame', { steps: 2 })).toEqual(['1 it has no rise']);
    expect(leg('a-frame', { riseM: 0.1 })).toEqual(['1 it is not told over how many steps']);
    expect(leg('a-frame', { riseM: 0.1, steps: 0 })).toEqual(['1 0 is no number of steps']);
    expect(leg('a-frame', { riseM: 0.1, steps: 1.5 })).toEqual(['1 1.5 is no number of steps']);
  });
});

describe('places by tape', () => {
  const at = (p: number, q: number, change: Partial<LevelBook>): number[] =>
    placesOf(book([line({ p, q })], change))[0]!.map((v) => Number(v.toFixed(6)));
  it('lie along and beside a line, by two tapes, by an angle and a tape', () => {
    // A base line that runs north from (10, 20): east is to its right.
    const baseM = [
      [10, 20],
      [10, 30],
    ] as const;
    expect(at(3, 4, {})).toEqual([3, 4]);
    expect(at(3, 4, { placing: 'offset', baseM })).toEqual([14, 23]);
    expect(at(3, -4, { placing: 'offset' })).toEqual([3, 4]);
    expect(at(90, 5, { placing: 'angle', baseM })).toEqual([15, 20]);
    expect(at(0, 5, { placing: 'angle', baseM })).toEqual([10, 25]);
    // Sides of 6 and 8 on a base of 10 stand at right angles: 3.6 along it, 4.8 beside.
    expect(at(6, 8, { placing: 'distances', baseM })).toEqual([14.8, 23.6]);
    expect(at(6, 8, { placing: 'distances', baseM, side: 'left' })).toEqual([5.2, 23.6]);
  });
  it('by two tapes are as far from both marks as was read, wherever these are', () => {
    const far = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(far, far, far), fc.tuple(far, far, far), ([ax, ay, bx], [by, x, y]) => {
        fc.pre(Math.hypot(bx - ax, by - ay) > 1);
        const [a, b] = [Math.hypot(x - ax, y - ay), Math.hypot(x - bx, y - by)];
        const [place] = placesOf(book([line({ p: a, q: b })], { placing: 'distances', baseM: [[ax, ay], [bx, by]] }));
        expect(Math.hypot(place![0] - ax, place![1] - ay)).toBeCloseTo(a, 4);
        expect(Math.hypot(place![0] - bx, place![1] - by)).toBeCloseTo(b, 4);
      }),
      { seed: 7, numRuns: 200 },
    );
  }); // prettier-ignore
  it('are refused where tapes do not meet or a figure is missing', () => {
    const wrong = (read: Partial<BookLine>, change: Partial<LevelBook>): string[] => placeProblems(book([line(read)], change)).map((p) => p.what);
    const tapes = { placing: 'distances', baseM: [[0, 0], [10, 0]] } as const;
    expect(wrong({}, tapes)).toEqual([]);
    expect(wrong({ p: 1 }, {})).toEqual(['of its place one figure is missing']);
    expect(wrong({ p: 4.96, q: 5 }, tapes)).toEqual([]);
    expect(wrong({ p: 4.94, q: 5 }, tapes)).toEqual(['tapes of 4.94 m and 5.00 m do not meet: the marks are 10.00 m apart']);
    expect(wrong({ p: 25.04, q: 15 }, tapes)).toEqual([]);
    expect(wrong({ p: 25.06, q: 15 }, tapes)).toEqual(['tapes of 25.06 m and 15.00 m do not meet: they differ by more than the 10.00 m between the marks']);
    expect(wrong({ p: -1, q: 5 }, tapes)).toEqual(['a distance is less than nothing']);
    expect(wrong({ p: -20, q: 5 }, { placing: 'angle' })).toEqual([]);
    expect(wrong({ p: 20, q: -5 }, { placing: 'angle' })).toEqual(['a distance is less than nothing']);
    expect(wrong({ p: 5, q: 5 }, { placing: 'distances' })).toEqual(['it is not told where the marks A and B are']);
    expect(wrong({ p: 5, q: 5 }, { placing: 'offset', baseM: [[1, 1], [1, 1]] })).toEqual(['marks A and B are one place']);
  }); // prettier-ignore
  it('told in another way are the same places, or it is said why not', () => {
    const far = mm(-40_000, 40_000);
    fc.assert(
      fc.property(fc.array(fc.tuple(far, mm(1, 40_000)), { minLength: 1, maxLength: 5 }), fc.constantFrom(...PLACINGS), fc.constantFrom(...PLACINGS), (xys, one, other) => {
        // A base line that runs west: what is north of it lies to its right.
        const first = book([line({ knownM: 1 }), ...xys.map(([p, q]) => line({ p, q }))], { baseM: [[5, 0], [-7, 0]] });
        const told = placedAs(first, one);
        const again = 'book' in told ? placedAs(told.book, other) : told;
        if (!('book' in again)) throw new Error(again.cannot);
        expect(again.book.placing).toBe(other);
        expect(placesOf(again.book)[0]).toBeNull();
        xys.forEach(([x, y], k) => expect(Math.hypot(placesOf(again.book)[k + 1]![0] - x, placesOf(again.book)[k + 1]![1] - y)).toBeLessThan(0.2));
      }),
      { seed: 3, numRuns: 200 },
    );
    const both = book([line({ p: 1, q: 2 }), line({ p: 1, q: -2 })]);
    expect(placedAs(both, 'distances')).toEqual({ cannot: expect.stringMatching(/marks A and B first/) });
    expect(placedAs({ ...both, baseM: [[0, 0], [9, 0]] }, 'distances')).toEqual({ cannot: expect.stringMatching(/both sides/) });
    expect(placedAs(book([line({}), line({ p: 1 })]), 'angle')).toEqual({ cannot: expect.stringMatching(/^Line 2 first: of its place one figure is missing/) });
    expect(placedAs(book([line({})]), 'angle')).toEqual({ book: book([line({})], { placing: 'angle' }) });
  }); // prettier-ignore
  it('of lines yet to be read are kept, and the lines left out of what is reduced', () => {
    const [first, second] = WORKED;
    expect(bookedLines([first, line({ p: 1, q: 1 }), second, line({ p: 2, q: 2 }), line({})])).toHaveLength(3);
    expect(bookedLines([line({ p: 1, q: 1 })])).toEqual([]);
    const { reduced, problems, isWhole } = lookThrough(book([...WORKED, line({ p: 1 }), line({})]));
    expect([reduced?.levelsM.length, problems.map((p) => p.line), isWhole]).toEqual([3, [3], false]);
    const broken = lookThrough(book([...WORKED.slice(0, 2), line({ interM: 1, foreM: 1 }), line({ interM: 1 })]));
    expect([broken.reduced?.levelsM.length, broken.isWhole]).toEqual([2, false]);
    expect(lookThrough(book([line({ backM: 1 })])).reduced).toBeNull();
    expect(lookThrough(book([])).reduced).toBeNull();
    expect(lookThrough(book(WORKED))).toMatchObject({ problems: [], isWhole: true });
  });
  it('of a grid are walked row by row, there and back where one walks so', () => {
    expect(gridPlaces(5, { spacingM: 6, perRow: 3, isToAndFro: false })).toEqual([[0, 0], [6, 0], [12, 0], [0, 6], [6, 6]]); // prettier-ignore
    expect(gridPlaces(5, { spacingM: 6, perRow: 3, isToAndFro: true })).toEqual([[0, 0], [6, 0], [12, 0], [12, 6], [6, 6]]); // prettier-ignore
  });
});
