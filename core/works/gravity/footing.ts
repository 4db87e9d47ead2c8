// What a wall may stand on.
import type { Citation } from '../../formula/index.ts';

export const FOOTING_NAMES = ['soft', 'firm', 'stiff', 'sand', 'gravel', 'rock'] as const;
export type FootingName = (typeof FOOTING_NAMES)[number];

export interface Footing {
  /** Pressure it bears [kPa], friction under a rough base, and grain that 90 % of it is finer than [mm]; null where water digs none. */
  readonly bearsKpa: number;
  readonly mu: number;
  readonly d90Mm: number | null;
  /** Weighed way of seepage asked for each metre of head (Lane 1935). */
  readonly creep: number;
}

/** Common practice for bearing and friction; creep from memory of Lane's table; grains typical of the name. */
export const FOOTINGS: Readonly<Record<FootingName, Footing>> = {
  soft: { bearsKpa: 50, mu: 0.35, d90Mm: 1, creep: 3 },
  firm: { bearsKpa: 100, mu: 0.45, d90Mm: 2, creep: 2 },
  stiff: { bearsKpa: 150, mu: 0.5, d90Mm: 4, creep: 1.8 },
  sand: { bearsKpa: 100, mu: 0.5, d90Mm: 1, creep: 7 },
  gravel: { bearsKpa: 200, mu: 0.6, d90Mm: 40, creep: 3.5 },
  rock: { bearsKpa: 1000, mu: 0.65, d90Mm: null, creep: 0 },
};

export const FOOTING_SOURCE: Citation = {
  key: 'common-practice',
  locator: 'soft 50, firm 100, stiff 150, dense gravel 200 kPa: have it proved',
};

/** What a wall stands on; null while nobody has dug. */
export const footingOf = ({ ground }: { readonly ground: FootingName | 'unknown' }): Footing | null =>
  ground === 'unknown' ? null : FOOTINGS[ground];

/** Base no wall is widened past for the asking [m]. */
const WIDEST_M = 12;

/** Width of base with which `holds` is so, to the decimetre; null where none within reach is. */
export function baseFor(from: number, holds: (baseM: number) => boolean): number | null {
  for (let tenths = Math.ceil(10 * from); tenths <= 10 * WIDEST_M; tenths++) if (holds(tenths / 10)) return tenths / 10;
  return null;
}
