import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { eliminate, patternOf } from './sparse.ts';

/** The same system with every coefficient written out, by Gauss and Jordan with the largest pivot: another order, another form. */
function solved(rows: readonly (readonly number[])[], right: readonly number[]): number[] {
  const all = rows.map((row, i) => [...row, right[i]]);
  all.forEach((_, c) => {
    let best = c;
    for (let r = c; r < all.length; r++) if (Math.abs(all[r][c]) > Math.abs(all[best][c])) best = r;
    [all[c], all[best]] = [all[best], all[c]];
    all.forEach((row, r) => {
      if (r === c) return;
      const factor = row[c] / all[c][c];
      for (let k = c; k < row.length; k++) row[k] -= factor * all[c][k];
    });
  });
  return all.map((row, r) => row[row.length - 1] / row[r]);
}

const N = 12;
const pairs = fc.array(fc.tuple(fc.nat(N - 1), fc.nat(N - 1)), { maxLength: 24 });
const weights = fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 2 * N * N, maxLength: 2 * N * N });

describe('systems along the ways between stores', () => {
  it('give what the whole system gives, whoever hangs on whom', () => {
    fc.assert(
      fc.property(pairs, weights, (list, numbers) => {
        const pattern = patternOf(N, list);
        const values = new Float64Array(pattern.size);
        const rows = Array.from({ length: N }, () => new Array<number>(N).fill(0));
        let next = 0;
        for (const [a, b] of list) {
          if (a === b) continue;
          // A joint takes from one what it gives to the other.
          const [byA, byB] = [numbers[next++], numbers[next++]];
          for (const [row, column, by] of [
            [a, a, byA],
            [a, b, -byB],
            [b, a, -byA],
            [b, b, byB],
          ] as const) {
            values[pattern.placeOf(row, column)] += by;
            rows[row][column] += by;
          }
        }
        const right = Float64Array.from({ length: N }, (_, j) => numbers[numbers.length - 1 - j] - 2);
        for (let j = 0; j < N; j++) {
          values[j] += 1 + j / 7;
          rows[j][j] += 1 + j / 7;
        }
        const expected = solved(rows, [...right]);
        expect(eliminate(values, right, pattern)).toBe(true);
        for (let j = 0; j < N; j++) expect(Math.abs(right[j] - expected[j])).toBeLessThan(1e-8);
      }),
      { seed: 41, numRuns: 200 },
    );
  });
  it('keep two values for each way of a tree, whatever its order: nothing fills in', () => {
    const parents = [0, 0, 1, 1, 2, 2, 3, 3, 3, 4];
    const tree = parents.map((parent, k) => [k + 1, parent] as const);
    expect(patternOf(11, tree).size).toBe(11 + 2 * 10);
    // A ring of four asks for one pair more.
    const ring = [[0, 1], [1, 2], [2, 3], [3, 0]] as const; // prettier-ignore
    expect(patternOf(4, ring).size).toBe(4 + 2 * 5);
  });
  it('say so where a store weighs nothing, and know no place for two that never meet', () => {
    const pattern = patternOf(3, [[0, 1]]);
    expect(eliminate(Float64Array.of(1, 0, 1, 0, 0), Float64Array.of(1, 1, 1), pattern)).toBe(false);
    expect(() => pattern.placeOf(0, 2)).toThrow('0 and 2 hang on nothing in common');
  });
});
