import type { Line } from '../geometry/index.ts';

/** A channel as it was measured, for what stands in it: distances along its line, from its upper end. */
export interface Channel {
  readonly work: string;
  readonly line: Line;
  /** Where it is known: from its first to its last section. */
  readonly fromM: number;
  readonly toM: number;
  /** Whether somebody taped it; else it is read off the terrain. */
  readonly isMeasured: boolean;
  readonly bedAt: (atM: number) => number;
  /** Its bed, from bank to bank, and to its lower bank. */
  readonly acrossAt: (atM: number) => { readonly bedWidthM: number; readonly bankWidthM: number; readonly depthM: number };
}
