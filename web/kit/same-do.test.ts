import { describe, expect, it } from '@jest/globals';
import type { Check, Cure } from '#core/contract';
import { saidOnce } from './same-do.ts';

const check = (id: string, what: string, change: Partial<Check> = {}): Check =>
  ({ id, on: 'wall', severity: 'mend', said: { title: id, do: what }, ...change }) as Check;
const told = (checks: readonly Check[]): string[] => saidOnce(checks).map((l) => `${l.check.id}${l.isSaidBelow ? '…' : ''}`);

describe('what several checks ask to be done', () => {
  it('is said once, below the last of those that ask the same, where the first of them stood', () => {
    const pit = 'Dig a pit.';
    expect(told([check('overturns', pit), check('drain', 'Lay gravel.'), check('slides', pit), check('presses', pit)])).toEqual([
      'overturns…',
      'slides…',
      'presses',
      'drain',
    ]);
  });
  it('is said of each where anything of it is another: whose it is, how grave, what mends it', () => {
    const cure = (m: number): Cure => ({ work: 'wall', set: { 'dimensions.baseM': m }, says: 'Make it wider' });
    const all = [
      check('a', 'Widen it.', { cure: cure(1) }),
      check('b', 'Widen it.', { cure: cure(2) }),
      check('c', 'Widen it.', { cure: cure(1), on: 'other' }),
      check('d', 'Widen it.', { cure: cure(1), severity: 'weigh' }),
      check('e', 'Widen it.'),
    ];
    expect(saidOnce(all)).toEqual(all.map((one) => ({ check: one, isSaidBelow: false })));
    expect(told([...all, check('f', 'Widen it.', { cure: cure(2) })])).toEqual(['a', 'b…', 'f', 'c', 'd', 'e']);
  });
});
