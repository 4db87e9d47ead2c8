// Field tests of how fast ground takes in water: what is read, and what readings come to.
import type { Worksheet, WorksheetLine } from '../../formula/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { QuantityKind } from '../../units/index.ts';

/** The depth of water read at a time, and what it was filled up to straight after. */
export interface Reading {
  readonly min: number;
  readonly mm: number;
  readonly refilledMm?: number;
}

export interface FieldTest {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  /** Zone it speaks for; null for the ground of the whole property. */
  readonly zone: string | null;
  readonly at?: Point;
  /** Sizes of ring, hole or pit by name, each in the base unit of its spec. */
  readonly sizes: Readonly<Record<string, number>>;
  readonly readings: readonly Reading[];
  /** What the steady rate is divided by; left out, what is usual. */
  readonly safety?: number;
}

/** A size of a test: lengths in metres. */
export interface SizeSpec {
  readonly id: string;
  readonly label: string;
  readonly kind: QuantityKind;
  readonly start: number;
  readonly min: number;
  readonly max: number;
  readonly help: string;
}

/** Water falling between two readings. */
export interface Interval {
  readonly fromMin: number;
  readonly toMin: number;
  readonly fromMm: number;
  readonly toMm: number;
  /** Fall of the water itself. */
  readonly fallMmPerHour: number;
  /** What that says of the ground. */
  readonly rateMmPerHour: number;
}

export interface Reduction {
  readonly intervals: readonly Interval[];
  readonly isSteady: boolean;
  /** Rate of the ground, before any safety factor; null until there is one. */
  readonly rateMmPerHour: number | null;
  /** What it rests on, and what is still missing. */
  readonly says: string;
  readonly lines: readonly WorksheetLine[];
}

/** How one is made and read. */
export interface TestKind {
  readonly kind: string;
  readonly title: string;
  readonly says: string;
  /** What is read. */
  readonly reads: string;
  readonly sizes: readonly SizeSpec[];
}

/** What the readings of one kind come to. */
export type Reduce = (test: FieldTest, sheet: Worksheet) => Omit<Reduction, 'lines'>;
