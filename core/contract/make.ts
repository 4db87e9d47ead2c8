// What it takes to make a work: how much of what, and in what order.
import type { QuantityKind, Said } from '../units/index.ts';

/** How much of one thing a work takes. */
export interface QuantityLine {
  /** What it is, the same word in every work: 'cut', 'bank', 'stone', 'pipe', 'turf' ... */
  readonly item: string;
  readonly label: string;
  readonly kind: QuantityKind;
  /** As little as it may be, as likely as not, as much as it may be; null where its ground is not known. */
  readonly low: number | null;
  readonly likely: number | null;
  readonly high: number | null;
  /** The geometry it is worked out from. */
  readonly from: string;
}

/** What each of several things a work is made of takes or holds: a line for each. */
export interface EachTable {
  readonly title: string;
  /** What one of them is. */
  readonly of: string;
  readonly columns: readonly { readonly label: string; readonly kind: QuantityKind }[];
  /** Values by the columns; null where one is not known. */
  readonly rows: readonly { readonly name: string; readonly values: readonly (number | null)[] }[];
}

/** A part of a sheet that is left with whoever lives with a work. */
export interface SheetPart {
  readonly title: string;
  readonly says: readonly Said[];
}

/** One step of the work on the ground. */
export interface BuildStep {
  readonly id: string;
  readonly does: Said;
  /** Steps of this work that come before. */
  readonly after: readonly string[];
  /** Look at this before going on: what is covered up next, or cannot be mended later. */
  readonly hold?: string;
  /** Levels it is set to. */
  readonly levels: readonly { readonly name: string; readonly levelM: number }[];
  readonly cautions: readonly string[];
}
