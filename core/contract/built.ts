import type { Point } from '../geometry/index.ts';

/** What a work makes of the ground: cut and fill as it is to be built, settled and by its design levels. */
export interface Built {
  /** West, south, east and north of all it may reach. */
  readonly box: readonly [west: number, south: number, east: number, north: number];
  /** Level at a place [m]: by the ground before anything was made there, and by what was made of it so far. */
  readonly levelAt: (at: Point, on: { readonly groundM: number; readonly madeM: number }) => number;
}
