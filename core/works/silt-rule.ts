// What is asked of everything silt comes to lie in.
import type { Rule } from '../contract/index.ts';
import { COMMON_PRACTICE } from './rules.ts';

/** Room taken by silt, weighed over a limit [%]: full is no fault, but it holds no flood. */
export const siltedRule = <F extends object>(
  kind: string,
  on: { readonly why: string; readonly limit: number; readonly shareOf: (facts: F) => number; readonly does: string },
): Rule<F> => ({
  id: `${kind}.silted`,
  title: 'Room taken by silt',
  why: on.why,
  unit: '%',
  kind: 'percent',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: (facts) => {
    const value = 100 * on.shareOf(facts);
    const isOver = value > on.limit;
    return { value, limit: on.limit, severity: isOver ? 'weigh' : 'fine', do: isOver ? on.does : 'Nothing.' };
  },
});
