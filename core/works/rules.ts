import type { Check, Rule } from '../contract/index.ts';
import type { Citation } from '../formula/index.ts';
import { spoken } from '../units/index.ts';

export const COMMON_PRACTICE: Citation = { key: 'common-practice' };

/** Runs rules over facts; each finding becomes a check on the named subject. */
export function runRules<F>(rules: readonly Rule<F>[], facts: F, on: string): Check[] {
  return rules.flatMap((rule): Check[] => {
    const found = rule.find(facts);
    if (!found) return [];
    const { id, why, unit, kind, sense, source } = rule;
    const title = found.title ?? rule.title;
    return [
      {
        id,
        on,
        why,
        unit,
        kind,
        sense,
        source,
        title: spoken(title, 'metric'),
        severity: found.severity,
        value: found.value,
        limit: found.limit,
        at: found.at ?? null,
        do: spoken(found.do, 'metric'),
        said: { title, do: found.do },
      },
    ];
  });
}

/** Grades a value against a limit to keep and a nearer limit to think about. Both are inclusive. */
export function gradeMin(value: number, mendBelow: number, weighBelow: number): 'mend' | 'weigh' | 'fine' {
  return value < mendBelow ? 'mend' : value < weighBelow ? 'weigh' : 'fine';
}

export function gradeMax(value: number, weighAbove: number, mendAbove: number): 'mend' | 'weigh' | 'fine' {
  return value > mendAbove ? 'mend' : value > weighAbove ? 'weigh' : 'fine';
}
