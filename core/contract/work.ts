import type { QuantityKind, Said } from '../units/index.ts';

export const WORK_STATUSES = ['existing', 'planned', 'pegged', 'built', 'retired'] as const;
export type WorkStatus = (typeof WORK_STATUSES)[number];

/** What all works have in common in the document. */
export interface WorkBase {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  readonly status: WorkStatus;
}

/**
 * A number the user decides, at a dotted path in the work: it drives validation and forms. Values are SI.
 */
export interface FieldSpec {
  readonly path: string;
  readonly label: string;
  readonly kind: QuantityKind;
  readonly min: number;
  readonly max: number;
  readonly help: string;
  /** It may be left out: what the form offers to note, and a number to begin with. */
  readonly optional?: { readonly offer: string; readonly start: number };
  readonly shownWhen?: ShownWhen;
}

/** Shown only while another member has one of some values, is there, or is not. */
export interface ShownWhen {
  readonly path: string;
  readonly is?: readonly unknown[];
  readonly isNot?: readonly unknown[];
}

/** Another work this one names, chosen among those that store water, or that are channels. */
export interface ReferenceSpec {
  readonly path: string;
  readonly title: string;
  readonly label: string;
  readonly among?: 'channels';
  readonly shownWhen?: ShownWhen;
  /** What it is when none is named; left out, one must be. */
  readonly none?: string;
}

/** Things noted along a work, each with the same few numbers; left out while there are none. */
export interface ListSpec {
  readonly path: string;
  readonly title: string;
  /** What each of them is called, with its number; left out, by its number. */
  readonly each?: string;
  /** What it says while nothing is noted, what adds one, what takes one away. */
  readonly words: { readonly none: string; readonly add: string; readonly remove: string };
  readonly fields: readonly FieldSpec[];
  /** Many of many numbers: told as a table under these short heads, one to a field and none where it is empty, one entry to change at a time. */
  readonly heads?: readonly string[];
  /** One to begin with, of the work as it is. */
  readonly start: (work: never) => Readonly<Record<string, number>>;
}

export interface Problem {
  readonly code: string;
  readonly what: Said;
  readonly field?: string;
  readonly do: Said;
}
