// How fast a head eats its way uphill, as it was read at a fixed mark.
import { type Use, plainly } from '../../formula/index.ts';
import { REACHES_IN, RETREAT } from './formulas.ts';
import type { Headcut } from './model.ts';

export interface Pace {
  /** Between the first and the last reading [m], and the rain between them [mm]. */
  readonly movedM: number;
  readonly rainMm: number;
  /** For 100 mm of rain [mm]; null where none has fallen between them. */
  readonly per100Mm: number | null;
  /** Until it reaches what stands uphill; null where that, or the rain of a year, is not known, or it does not move. */
  readonly reachesInYears: number | null;
}

/** Its pace by readings in the order they were made; null with fewer than two. */
export function paceOf({ readings = [], threatM, yearRainMm }: Headcut, use: Use = plainly): Pace | null {
  if (readings.length < 2) return null;
  const movedM = readings[0].toLipM - readings[readings.length - 1].toLipM;
  const rainMm = readings.slice(1).reduce((a, r) => a + r.rainMm, 0);
  const per100Mm = rainMm > 0 ? use(RETREAT, { d: movedM, R: rainMm }) : null;
  const isKnown = per100Mm !== null && per100Mm > 0 && threatM !== undefined && yearRainMm !== undefined;
  return { movedM, rainMm, per100Mm, reachesInYears: isKnown ? use(REACHES_IN, { D: threatM, r: per100Mm, R: yearRainMm }) : null };
}
