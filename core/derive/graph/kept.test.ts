// Results that nobody holds on to any more leave nothing behind.
import { expect, it } from '@jest/globals';
import type { Entry } from './held.ts';
import { Kept } from './kept.ts';

it('results are found by what was read, and leave no place empty behind them', () => {
  const kept = new Kept();
  const shelf = kept.shelfOf('route');
  const entry = (id: string, read: number): Entry => ({ id, key: [read, 'as found'], shelf, value: read, parts: [], held: 1 });
  const [one, two, other] = [entry('a', 1), entry('a', 2), entry('b', 1)];
  for (const each of [one, two, other]) kept.add(each);
  expect(kept.shelfOf('route')).toBe(shelf);
  expect([kept.find(shelf, 'a', [2, 'as found']), kept.find(shelf, 'a', [3, 'as found']), kept.find(shelf, 'c', [1])]).toEqual([two, undefined, undefined]); // prettier-ignore
  kept.drop(one);
  kept.drop(one);
  expect([kept.size, kept.find(shelf, 'a', [1, 'as found']), kept.find(shelf, 'a', two.key)]).toEqual([2, undefined, two]);
  kept.drop(two);
  expect([kept.size, [...shelf.keys()]]).toEqual([1, ['b']]);
});
