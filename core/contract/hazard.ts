import type { Point } from '../geometry/index.ts';
import type { Breach } from '../hydraulics/index.ts';
import type { By } from './water.ts';

/** Who lies below a store if it fails: nobody · a track or a shed · a building or a road · people sleep there. */
export const HAZARDS = ['nobody', 'track', 'building', 'homes'] as const;
export type Hazard = (typeof HAZARDS)[number];

/** What was found below a store on the map. */
export interface SeenBelow {
  readonly hazard: Hazard;
  /** The feature by which it is so, how far down the way of the flood, and where; null where there is none. */
  readonly feature: string | null;
  readonly name: string;
  readonly alongM: number;
  readonly at: Point | null;
}

/** Who lies below a store: by the user's word, and as the map shows it. */
export interface Below {
  readonly said: Hazard | null;
  /** Null where nothing is drawn to judge by. */
  readonly seen: SeenBelow | null;
}

/** Nobody has said, and the map does not show. */
export const NOBODY_KNOWS: Below = { said: null, seen: null };

/** The class a store is judged by; null while nobody has said and the map does not show. */
export const hazardOf = ({ said, seen }: Below): Hazard | null => said ?? seen?.hazard ?? null;

/** What comes down when a bank goes: rough, as breaches are; and the crest by which it does. */
export interface StoreBreach extends Breach {
  readonly outlet: string;
}

/** Between what a crest has least left nine times in ten, by the limits of the rain [m]. */
export interface LeftBand {
  readonly lowM: number;
  readonly highM: number;
}

/** How a store stands the storm its crest must hold. */
export interface CrestStorm {
  readonly years: number;
  /** What is left under its crest in the worst of the storms looked at [m], and in which; null where the rain does not tell. */
  readonly leftM: number | null;
  readonly by: By | null;
}
