import type { Check } from '#core/contract';

/** A check, and whether what it asks to be done is said below it, of the next as well. */
export interface Listed {
  readonly check: Check;
  readonly isSaidBelow: boolean;
}

const wordsOf = ({ on, severity, said, cure }: Check): string => JSON.stringify([on, severity, said.do, cure ?? null]);

/** Checks as given, those that ask for the very same thing under the first of them: it is said once, below the last. */
export function saidOnce(checks: readonly Check[]): readonly Listed[] {
  const groups = new Map<string, Check[]>();
  for (const check of checks) {
    const key = wordsOf(check);
    const known = groups.get(key);
    if (known) known.push(check);
    else groups.set(key, [check]);
  }
  return [...groups.values()].flatMap((group) => group.map((check, k) => ({ check, isSaidBelow: k < group.length - 1 })));
}
