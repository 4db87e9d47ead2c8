// Checks of the same works under several conditions, brought together: each at its gravest, with the condition that makes it so.
import type { Check, Condition, Store } from '../../contract/index.ts';

const RANK: Readonly<Record<Check['severity'], number>> = { mend: 0, weigh: 1, unknown: 2, fine: 3 };

/** Whether one finding of a rule is graver than another: by its severity, else by how far its value is on the bad side. */
function isGraverThan(a: Check, b: Check): boolean {
  if (a.severity !== b.severity) return RANK[a.severity] < RANK[b.severity];
  if (a.value === null || b.value === null) return false;
  return a.sense === 'min' ? a.value < b.value : a.value > b.value;
}

/** The gravest check of each rule, of things that are told as one: they are filed under its id. */
export function gravestOf(checks: readonly Check[], on: string): Check[] {
  const by = new Map<string, Check>();
  for (const check of checks) {
    const known = by.get(check.id);
    if (!known || isGraverThan(check, known)) by.set(check.id, { ...check, on });
  }
  return [...by.values()];
}

/** What is asked of every store; of a work of several the gravest of each rule, told once. */
export const oncePerWork = (stores: readonly Store[], checksOf: (store: Store) => readonly Check[]): Check[] =>
  [...new Set(stores.map((s) => s.work))].flatMap((work) => {
    const own = stores.filter((s) => s.work === work);
    return own.length === 1 ? checksOf(own[0]) : gravestOf(own.flatMap(checksOf), work);
  });

const ruleOn = ({ id, on }: Check): string => `${id}|${on}`;

/** What a rule finds of a work but once in each of some lists is one finding, wherever it is worst. */
function onceIn(...lists: readonly (readonly Check[])[]): (check: Check) => boolean {
  const several = new Set<string>();
  for (const list of lists) {
    const seen = new Set<string>();
    for (const name of list.map(ruleOn)) {
      if (seen.has(name)) several.add(name);
      seen.add(name);
    }
  }
  return (check) => !several.has(ruleOn(check));
}

/** Names each check by its rule and what it is on; of several by where, and how often that was seen before. */
function named(checks: readonly Check[], isOne: (check: Check) => boolean): ReadonlyMap<string, Check> {
  const by = new Map<string, Check>();
  for (const check of checks) {
    const name = isOne(check) ? ruleOn(check) : `${ruleOn(check)}|${check.at?.join(',') ?? ''}`;
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
  const isOne = onceIn(found, checks);
  const usual = named(found, isOne);
  return [...named(checks, isOne)].map(([name, check]) => {
    const before = usual.get(name);
    const isGraver = RANK[check.severity] < RANK[before?.severity ?? 'fine'];
    return isGraver ? { ...check, condition: conditionOf(check.on) } : check;
  });
}

/** The same with ground found worse than usual: what is graver only then is to be weighed, not mended. */
export function alsoWhen(checks: readonly Check[], then: readonly Check[], condition: Condition): Check[] {
  const isOne = onceIn(checks, then);
  const known = named(checks, isOne);
  const graver = new Map(
    [...named(then, isOne)].flatMap(([name, check]): [string, Check][] => {
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
