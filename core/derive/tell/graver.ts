// Checks of the same works under several conditions, brought together: each at its gravest, with the condition that makes it so.
import type { Check, Condition, Store } from '../../contract/index.ts';

const RANK: Readonly<Record<Check['severity'], number>> = { mend: 0, weigh: 1, unknown: 2, fine: 3 };

/** The gravest check of each rule, of things that are told as one: they are filed under its id. */
export function gravestOf(checks: readonly Check[], on: string): Check[] {
  const by = new Map<string, Check>();
  for (const check of checks) {
    const known = by.get(check.id);
    if (!known || RANK[check.severity] < RANK[known.severity]) by.set(check.id, { ...check, on });
  }
  return [...by.values()];
}

/** What is asked of every store; of a work of several the gravest of each rule, told once. */
export const oncePerWork = (stores: readonly Store[], checksOf: (store: Store) => readonly Check[]): Check[] =>
  [...new Set(stores.map((s) => s.work))].flatMap((work) => {
    const own = stores.filter((s) => s.work === work);
    return own.length === 1 ? checksOf(own[0]) : gravestOf(own.flatMap(checksOf), work);
  });

/** Names each check by its rule, what it is on, where, and how often that was seen before. */
function named(checks: readonly Check[]): ReadonlyMap<string, Check> {
  const by = new Map<string, Check>();
  for (const check of checks) {
    const name = `${check.id}|${check.on}|${check.at?.join(',') ?? ''}`;
    let k = 0;
    while (by.has(`${name}|${k}`)) k++;
    by.set(`${name}|${k}`, check);
  }
  return by;
}

/** Checks of the strict part of a set; those that are milder as things are usually found say in what condition they are so grave. */
export function whenGraver(
  found: readonly Check[],
  { checks, conditionOf }: { readonly checks: readonly Check[]; readonly conditionOf: (on: string) => Condition },
): Check[] {
  const usual = named(found);
  return [...named(checks)].map(([name, check]) => {
    const before = usual.get(name);
    const isGraver = RANK[check.severity] < RANK[before?.severity ?? 'fine'];
    return isGraver ? { ...check, condition: conditionOf(check.on) } : check;
  });
}

/** The same with ground found worse than usual: what is graver only then is to be weighed, not mended. */
export function alsoWhen(checks: readonly Check[], then: readonly Check[], condition: Condition): Check[] {
  const known = named(checks);
  const graver = new Map(
    [...named(then)].flatMap(([name, check]): [string, Check][] => {
      const before = known.get(name);
      const severity = check.severity === 'mend' ? ('weigh' as const) : check.severity;
      return severity === 'weigh' && RANK[severity] < RANK[before?.severity ?? 'fine'] ? [[name, { ...check, severity, condition }]] : [];
    }),
  );
  return [
    ...[...known].map(([name, check]) => graver.get(name) ?? check),
    ...[...graver].flatMap(([name, c]) => (known.has(name) ? [] : [c])),
  ];
}
