import type { Check, Cure, Finding, Missing, Rule } from '../contract/index.ts';
import type { Citation } from '../formula/index.ts';
import { type Amount, amount, spoken } from '../units/index.ts';

export const COMMON_PRACTICE: Citation = { key: 'common-practice' };

const GIVE: Record<Missing, string> = {
  rain: 'Give the rain: a table of depths, and the storm you design for.',
  ground: 'Describe the ground: its soil, its cover and how fast water soaks in.',
};

/** What a rule says while something it reads is not known. */
const unknownFor = (lacking: readonly Missing[]): Finding => ({
  severity: 'unknown',
  value: null,
  limit: null,
  do: lacking.map((what) => GIVE[what]).join(' '),
});

/** What one rule finds: nothing where it is about something else, unknown while what it reads is not known. */
export function judgeBy<F extends object>(rule: Rule<F>, facts: F & { readonly missing?: readonly Missing[] }): Finding | null {
  if (rule.applies && !rule.applies(facts)) return null;
  const lacking = (rule.needs ?? []).filter((what) => facts.missing?.includes(what));
  return lacking.length > 0 ? unknownFor(lacking) : rule.find(facts);
}

/** Runs rules over facts; each finding becomes a check on the named subject. */
export function runRules<F extends object>(
  rules: readonly Rule<F>[],
  facts: F & { readonly missing?: readonly Missing[] },
  on: string,
): Check[] {
  return rules.flatMap((rule): Check[] => {
    const found = judgeBy(rule, facts);
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
        sense: found.sense ?? sense,
        source,
        title: spoken(title, 'metric'),
        severity: found.severity,
        value: found.value,
        limit: found.limit,
        at: found.at ?? null,
        do: spoken(found.do, 'metric'),
        said: { title, do: found.do },
        ...(found.cure ? { cure: found.cure } : {}),
        ...(rule.isOfLevels ? { isOfLevels: true } : {}),
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

/** Of two limits a value lies between, the one it misses; as long as it misses neither, the one the rule is told by. */
export function between(
  value: number,
  [least, most]: readonly [least: number, most: number],
  usual: 'min' | 'max' = 'max',
): { readonly limit: number; readonly sense: 'min' | 'max' } {
  const isLow = value < least || (usual === 'min' && value <= most);
  return isLow ? { limit: least, sense: 'min' } : { limit: most, sense: 'max' };
}

/** The cure of a finding; none where nothing is lacking. */
export const cureBy = (isLacking: boolean, cure: Cure): { readonly cure?: Cure } => (isLacking ? { cure } : {});

/** Lengths as rules tell them: by centimetres, and by millimetres. */
export const metres = (m: number): Amount => amount(m, 'length');
export const millimetres = (m: number): Amount => amount(m, 'difference');

/** Up, or down, to the next millimetre: one that is met to a hair goes on to the next, so that the limit is surely kept. */
export const upToMm = (m: number): number => Math.ceil(m * 1000 + 1e-6) / 1000;
export const downToMm = (m: number): number => Math.floor(m * 1000 - 1e-6) / 1000;
