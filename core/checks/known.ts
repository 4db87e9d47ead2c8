// How near the ground under a work is known, against what is left under its crests.
import type { Check, Rule } from '../contract/index.ts';
import { amount, say } from '../units/index.ts';
import { COMMON_PRACTICE, runRules } from '../works/rules.ts';

export interface KnownFacts {
  /** How near the ground under it is known at its worst, two times in three [m]; null where nobody has said of some of it. */
  readonly knownM: number | null;
  /** What its water has least left under its crests [m]; null where there is none, or no storm. */
  readonly leftM: number | null;
}

/** Twice as far off is not rare: so much of what is left may go. */
const SHARE = 0.5;

const near: Rule<KnownFacts> = {
  id: 'ground.known',
  title: 'How near the ground under it is known',
  why: 'A bank is as high as it is over the ground: where levels are known less nearly than what is left under its crest, nobody knows that there is any left, nor how much earth it takes.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'levels are taken along the line of a work before it is set out' },
  applies: ({ leftM }) => leftM !== null && leftM > 0,
  find: ({ knownM, leftM }) => {
    if (leftM === null) return null;
    const limit = SHARE * leftM;
    if (knownM === null)
      return {
        severity: 'unknown',
        value: null,
        limit,
        do: 'Say under Land how near each survey is known, or take levels along its line.',
      };
    const isNear = knownM <= limit;
    return {
      severity: isNear ? 'fine' : 'weigh',
      value: knownM,
      limit,
      do: isNear
        ? 'Nothing.'
        : say`Take levels along its line with a staff before it is pegged: the ground may well lie ${amount(2 * knownM, 'difference')} off, and ${amount(leftM, 'difference')} is left under its crest.`,
    };
  },
};

export const KNOWN_RULES: readonly Rule<KnownFacts>[] = [near];

export const checkKnown = (work: string, facts: KnownFacts): Check[] => runRules(KNOWN_RULES, facts, work);
