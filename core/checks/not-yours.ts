// What stands for something of one's own until that is known: whatever hangs on it is to be mended first.
import type { Check, Rule } from '../contract/index.ts';
import { COMMON_PRACTICE } from '../works/rules.ts';

/** A rule that speaks as long as something is not one's own. */
export const notYours = <F>(
  card: Pick<Rule<F>, 'id' | 'title' | 'why'>,
  { isIt, mend }: { readonly isIt: (facts: F) => boolean; readonly mend: Check['do'] },
): Rule<F> => ({
  ...card,
  unit: '',
  kind: 'number',
  sense: 'max',
  source: COMMON_PRACTICE,
  applies: isIt,
  find: () => ({ value: 1, limit: 0, severity: 'mend', do: mend }),
});
