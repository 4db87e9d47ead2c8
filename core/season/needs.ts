// What is drawn from a store day by day: by people and animals alike every day, by gardens as the weather asks.
import type { Days } from './weather.ts';

/** daily: so much a day for each · garden: a depth a day over an area, less what rains. */
export const NEED_KINDS = ['daily', 'garden'] as const;

/** What needs water, as the user says it. */
export interface Need {
  readonly id: string;
  readonly name: string;
  /** The store it is drawn from. */
  readonly store: string;
  readonly kind: (typeof NEED_KINDS)[number];
  /** How many, or an area [m2]. */
  readonly count: number;
  /** For each in a day [L], or depth over its area in a day [mm]. */
  readonly each: number;
  /** Months in which it is needed, 1 to 12; left out, all. */
  readonly months?: readonly number[];
}

/** Rain a garden keeps for later days [mm]: what a hand's depth of soil holds, common practice. */
const KEEPS_MM = 20;

/** What one need asks for on each day [m3]. */
export function asksDays({ kind, count, each, months }: Need, { month, rainMm }: Pick<Days, 'month' | 'rainMm'>): Float64Array {
  const asked = new Set(months ?? [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);
  const asks = new Float64Array(month.length);
  if (kind === 'daily') {
    for (let i = 0; i < asks.length; i++) if (asked.has(month[i])) asks[i] = (count * each) / 1000;
    return asks;
  }
  let kept = 0;
  for (let i = 0; i < asks.length; i++) {
    const wants = asked.has(month[i]) ? each : 0;
    kept += rainMm[i];
    const fromRain = Math.min(kept, wants);
    kept = Math.min(KEEPS_MM, kept - fromRain);
    asks[i] = (count * (wants - fromRain)) / 1000;
  }
  return asks;
}
