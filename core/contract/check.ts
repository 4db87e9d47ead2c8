import type { Citation } from '../formula/index.ts';
import type { Point } from '../geometry/index.ts';
import type { QuantityKind, Said } from '../units/index.ts';
import type { Condition } from './water.ts';

export type Severity = 'mend' | 'weigh' | 'fine' | 'unknown';

/** What mends a judgement, where it can be worked out: decisions of a work, by dotted path. */
export interface Cure {
  readonly work: string;
  readonly set: Readonly<Record<string, number>>;
  /** What it does, as one would say it to somebody who is to do it. */
  readonly says: Said;
}

/** One judgement: a value against a limit, why it matters, where the limit comes from and what to do. */
export interface Check {
  readonly id: string;
  readonly on: string;
  readonly title: string;
  readonly severity: Severity;
  readonly value: number | null;
  readonly limit: number | null;
  readonly unit: string;
  /** How value and limit are shown. */
  readonly kind: QuantityKind;
  /** Whether the limit is the least or the greatest the value may be. */
  readonly sense: 'min' | 'max';
  readonly at: Point | null;
  readonly why: string;
  readonly source: Citation;
  /** What to do, in metric words. */
  readonly do: string;
  /** Title and advice with their amounts still to be put in the reader's units. */
  readonly said: { readonly title: Said; readonly do: Said };
  readonly cure?: Cure;
  /** It is about how levels stand to each other. */
  readonly isOfLevels?: true;
  /** How ground or water must be found for it to be so grave, where it is less so as they usually are. */
  readonly condition?: Condition;
}

/** What a rule finds; the engine adds the rule's own words. Null: the rule does not apply here. */
export interface Finding {
  readonly severity: Severity;
  readonly value: number | null;
  readonly limit: number | null;
  /** Replaces the rule's sense where it is told of the other of two limits. */
  readonly sense?: Rule<never>['sense'];
  readonly at?: Point | null;
  /** Replaces the rule's title where the place or the number says it better. */
  readonly title?: Said;
  readonly do: Said;
  readonly cure?: Cure;
}

/** What a project may not say yet; nothing is judged by a zero or a guess in its place. */
export type Missing = 'rain' | 'ground';

/** What a rule reads when it reads what the storm does: it falls on ground. */
export const NEEDS_STORM: readonly Missing[] = ['rain', 'ground'];

export interface Rule<Facts> {
  readonly id: string;
  readonly title: string;
  readonly why: string;
  readonly unit: string;
  readonly kind: QuantityKind;
  readonly sense: 'min' | 'max';
  readonly source: Citation;
  /** What must be known before it can judge: while some of it is not, the rule says so and judges nothing. */
  readonly needs?: readonly Missing[];
  /** Whether it is about this work at all; left out, it is about all of its kind. */
  readonly applies?: (facts: Facts) => boolean;
  /** It is about how levels stand to each other. */
  readonly isOfLevels?: true;
  readonly find: (facts: Facts) => Finding | null;
}
