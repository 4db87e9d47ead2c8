// What the graph keeps, and for whom.
import type { Key } from './alike.ts';
import type { Column, Each } from './rows.ts';

/** A result, kept as long as a user holds on to it, or another that was worked out from it is kept. */
export interface Entry {
  /** Of what it is, among alike steps. */
  readonly id: string;
  /** What was read. */
  readonly key: Key;
  /** Where it stands; nowhere where it is the results of many steps as one. */
  readonly shelf: Shelf | null;
  readonly value: unknown;
  /** Results of the steps worked out within it. */
  readonly parts: readonly Entry[];
  /** How many users and results hold on to it; none once it is let go. */
  held: number;
}

/** Results of alike steps: by what each is of, the few that are kept of it. */
export type Shelf = Map<string, Entry[]>;

/** What a user of the graph holds on to of one step. */
export interface Slot {
  /** The last first. */
  readonly entries: Entry[];
  /** What the step read when the last of them was asked for. */
  reads: readonly unknown[];
  run: number;
}

/** What a user of the graph holds on to of alike steps of many things. */
export interface Row {
  run: number;
  /** Where the results stand. */
  readonly shelf: Shelf;
  /** Slots of all things, those that are asked for no longer too; and of those asked for last, in their order. */
  readonly slots: Map<string, Slot>;
  last: readonly Slot[];
  made: Each<unknown>;
  /** The results before them: what an undo goes back to. */
  before: Each<unknown> | null;
  /** What was read last, where that stands in columns. */
  columns: readonly Column<unknown>[] | null;
  /** What was read last in turn, where that is told beforehand. */
  hung: Hung | null;
  /** The results as one, where a step is made of them. */
  entry: Entry | null;
}

/** One user of the graph: the document, or a scenario beside it. */
export interface Holder {
  run: number;
  readonly slots: Map<string, Slot>;
  readonly rows: Map<string, Row>;
  /** Lists found by ids when they were last asked for. */
  readonly lists: Map<string, { readonly run: number; readonly found: readonly (readonly unknown[])[] }>;
}

/** All that things in turn read, where it is known beforehand: what all read, each its own, and the results before it by their places. */
export interface Hung {
  readonly all: readonly unknown[];
  readonly own: readonly (readonly unknown[])[];
  readonly before: readonly (readonly number[])[];
}
