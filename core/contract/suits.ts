// A place somebody asks about, and what a technique says of it.
import type { Line } from '../geometry/index.ts';
import type { Said } from '../units/index.ts';

export const PURPOSES = ['any', 'slow', 'soak', 'grow', 'hold', 'lead-off'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** A work fits well from this score on. */
export const FITS_WELL = 55;

/** What only somebody who stands there can say. */
export interface PlaceSaid {
  /** Loose stone at hand. */
  readonly stone: 'unknown' | 'none' | 'some' | 'plenty';
  /** What a channel is cut into. */
  readonly bed: 'unknown' | 'soil' | 'rock';
  readonly machine: 'unknown' | 'no' | 'yes';
  readonly purpose: Purpose;
  /** Weeks until the rains; left out, nobody knows. */
  readonly weeks?: number;
  /** What an hour of work costs, in whatever money; left out, nobody knows. */
  readonly hourCosts?: number;
}

/** A place as it was measured, with what was said of it. Null where nobody knows. */
export interface Place extends PlaceSaid {
  readonly form: 'field' | 'channel';
  /** Of a field; none of a channel [m2]. */
  readonly areaM2: number;
  readonly lengthM: number;
  /** Mean fall of the ground; along its bed, of a channel [m/m]. */
  readonly slope: number;
  /** Of a field, the ground outside it whose water comes to it; of a channel, all that drains to its lowest place [m2]. */
  readonly aboveM2: number;
  /** Whether that reaches the edge of the terrain, so that more may lie beyond. */
  readonly aboveIsCut: boolean;
  /** Most that drains to any one place of it, its own ground with it [m2]. */
  readonly gathersM2: number;
  readonly runsMm: number | null;
  readonly soilDepthM: number | null;
  readonly rateMmPerHour: number | null;
  /** Nothing grows on it. */
  readonly isBare: boolean | null;
  /** Of a channel: its width, its greatest drop within a few metres, and what comes down it at its peak. */
  readonly widthM: number | null;
  readonly dropM: number;
  readonly peakM3s: number | null;
  /** To the nearest building [m]; null where none is drawn. */
  readonly houseM: number | null;
  /** Something that must not be flooded or iced lies right below it. */
  readonly driveBelow: boolean;
  /** What works would be drawn along: its outline or bed, the contour through its middle, a line down it, one that falls gently, across its bed, over its drop. */
  readonly shapes: {
    readonly own: Line;
    readonly contour: Line | null;
    readonly down: Line | null;
    readonly falling: Line | null;
    readonly across: Line | null;
    readonly lip: Line | null;
    /** Round its lowest ground, a pond's size. */
    readonly low: Line | null;
  };
}

/** What a technique says of a place. */
export interface Suit {
  /** How well it fits, as the trade weighs it: 40 and more is worth a thought. */
  readonly score: number;
  readonly speaksFor: readonly Said[];
  readonly against: readonly Said[];
  /** What would have to be found out. */
  readonly asks: readonly string[];
  /** Why it is not for this place at all; null where it may be. */
  readonly not: Said | null;
  /** The school of practice that would begin with it. */
  readonly school: string | null;
  /** How it would be drawn there; null where it cannot be. */
  readonly draw: { readonly how: string; readonly points: Line } | null;
}
