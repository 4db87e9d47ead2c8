import { describe, expect, it } from '@jest/globals';
import type { Check } from '../../contract/index.ts';
import { alsoWhen, gravestOf, whenGraver } from './graver.ts';

const check = (change: Partial<Check>): Check => ({
  id: 'rule',
  on: 'work',
  title: '',
  why: '',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { key: 'geometry' },
  severity: 'fine',
  value: 1,
  limit: 1,
  at: null,
  do: '',
  said: { title: '', do: '' },
  ...change,
});

describe('the gravest of a rule', () => {
  it('is that of the worst severity, of equals the one whose value is worst', () => {
    const of = (sense: Check['sense'], ...values: (number | null)[]) =>
      gravestOf(
        values.map((value) => check({ value, sense })),
        'all',
      )[0];
    expect(of('min', 3, 2, 5)).toMatchObject({ value: 2, on: 'all' });
    expect(of('max', 3, 2, 5).value).toBe(5);
    expect(of('max', null, 2).value).toBeNull();
    expect(gravestOf([check({ value: 1 }), check({ value: 9, severity: 'weigh' })], 'all')).toMatchObject([{ value: 9 }]);
    // One too small by 0.5 and one too great by 0.2, in either order.
    const [low, high] = [check({ value: 0.5, limit: 1, sense: 'min' }), check({ value: 3.2, limit: 3, sense: 'max' })];
    for (const both of [[low, high], [high, low]]) expect(gravestOf(both, 'all')[0].value).toBe(0.5); // prettier-ignore
  });
});

describe('one finding of a rule, worst at another place in another condition', () => {
  const [here, there] = [check({ severity: 'mend', at: [0, 0] }), check({ severity: 'mend', at: [9, 9], value: 0 })];
  const blocked = { conditionOf: () => 'blocked' as const };
  it('is the same finding: no graver, and told once', () => {
    expect(whenGraver([here], { checks: [there], ...blocked })).toEqual([there]);
    expect(alsoWhen([here], [{ ...there, severity: 'weigh' }], 'wet')).toEqual([here]);
    const fine = check({ at: [0, 0] });
    expect(whenGraver([fine], { checks: [there], ...blocked })).toEqual([{ ...there, condition: 'blocked' }]);
    // What is graver only on wet ground is to be weighed.
    expect(alsoWhen([fine], [there], 'wet')).toEqual([{ ...there, severity: 'weigh', condition: 'wet' }]);
  });
  it('but where a rule finds several places they are told apart by where', () => {
    expect(alsoWhen([here, check({ at: [5, 5] })], [check({ severity: 'weigh', at: [5, 5] })], 'wet').map((c) => c.severity)).toEqual(['mend', 'weigh']);
  });
}); // prettier-ignore
