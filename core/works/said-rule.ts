// Rules on what was said rather than measured: a choice is as it should be, or it is to be mended, weighed or found out.
import type { Rule, Severity } from '../contract/index.ts';
import type { Said } from '../units/index.ts';

export const saidRule = <F extends object>(
  card: Pick<Rule<F>, 'id' | 'title' | 'why' | 'source'> & Pick<Partial<Rule<F>>, 'applies'>,
  judge: (facts: F) => { readonly severity: Severity; readonly do: Said },
): Rule<F> => ({
  ...card,
  unit: '',
  kind: 'number',
  sense: 'min',
  find: (facts) => {
    if (card.applies?.(facts) === false) return null;
    const { severity, do: advice } = judge(facts);
    const value = severity === 'unknown' ? null : severity === 'fine' ? 1 : 0;
    return { value, limit: severity === 'unknown' ? null : 1, severity, do: advice };
  },
});

/** What is said of a choice that is as it should be. */
export const FINE = { severity: 'fine', do: 'Nothing.' } as const;
