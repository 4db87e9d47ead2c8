// Checks of the same works under several conditions, brought together: each at its gravest, with the condition that makes it so.
import type { Check, Condition } from '../../contract/index.ts';

const RANK: Readonly<Record<Check['severity'], number>> = { mend: 0, weigh: 1, unknown: 2, fine: 3 };

/** By how much a value misses its limit; less than nothing where it keeps it. */
const missOf = ({ value, limit, sense }: Check): number =>
  value === null || limit === null ? -Infinity : sense === 'min' ? limit - value : value - limit;

/** Whether one finding of a rule is graver than another: by its severity, else by how far its value is on the bad side. */
function isGraverThan(a: Check, b: Check): boolean {
  if (a.severity !== b.severity) return RANK[a.severity] < RANK[b.severity];
  if (a.value === null || b.value === null) return false;
  // One too small and one too great: whichever is farther off.
  if (a.sense !== b.sense) return missOf(a) > missOf(b);
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

const isSamePlace = (a: Check['at'], b: Check['at']): boolean => a === b || (a?.[0] === b?.[0] && a?.[1] === b?.[1]);

/** Whether two lists tell of the same findings one by one, as they mostly do: then nothing need be named. */
function isAligned(a: readonly Check[], b: readonly Check[]): boolean {
  if (a.length !== b.length) return false;
  const moved = new Set<string>();
  for (let k = 0; k < a.length; k++) {
    if (a[k].id !== b[k].id || a[k].on !== b[k].on) return false;
    if (!isSamePlace(a[k].at, b[k].at)) moved.add(a[k].id);
  }
  // Rules that find several places are paired by where.
  const isOne = onceIn(a.filter((check) => moved.has(check.id)));
  return moved.size === 0 || a.every((check) => !moved.has(check.id) || isOne(check));
}

/** Pairs findings of one list with those of another: the place in the other of each, and what is only there. */
function paired(
  a: readonly Check[],
  b: readonly Check[],
): { readonly before: (k: number) => Check | undefined; readonly onlyInB: readonly Check[] } {
  if (isAligned(a, b)) return { before: (k) => b[k], onlyInB: [] };
  const isOne = onceIn(a, b);
  const known = named(b, isOne);
  const names = [...named(a, isOne).keys()];
  const own = new Set(names);
  return { before: (k) => known.get(names[k]), onlyInB: [...known].flatMap(([name, check]) => (own.has(name) ? [] : [check])) };
}

/** Checks of the strict part of a set; those that are milder as things are usually found say in what condition they are so grave. */
export function whenGraver(
  found: readonly Check[],
  { checks, conditionOf }: { readonly checks: readonly Check[]; readonly conditionOf: (on: string) => Condition },
): Check[] {
  const { before } = paired(checks, found);
  return checks.map((check, k) => {
    const isGraver = RANK[check.severity] < RANK[before(k)?.severity ?? 'fine'];
    return isGraver ? { ...check, condition: conditionOf(check.on) } : check;
  });
}

/** The same with ground found worse than usual: what is graver only then is to be weighed, not mended. */
export function alsoWhen(checks: readonly Check[], then: readonly Check[], condition: Condition): Check[] {
  const { before: worse, onlyInB } = paired(checks, then);
  const graver = (check: Check | undefined, known: Check['severity']): Check | null => {
    const severity = check?.severity === 'mend' ? 'weigh' : check?.severity;
    return check && severity === 'weigh' && RANK[severity] < RANK[known] ? { ...check, severity, condition } : null;
  };
  return [
    ...checks.map((check, k) => graver(worse(k), check.severity) ?? check),
    ...onlyInB.flatMap((check) => graver(check, 'fine') ?? []),
  ];
}
