// What comes, day by day: off roofs less what is let go first, and off ground by its curve number and how wet it is.
import { defineFormula } from '../formula/index.ts';
import { curveNumberWhen, retentionOf } from '../runoff/index.ts';
import type { Days } from './weather.ts';

/** A day under this ends a wet spell: dust settles again [mm]. */
const DRY_DAY_MM = 1;

export const FIRST_FLUSH = defineFormula(
  {
    id: 'season.first-flush',
    title: 'Water let go first',
    statement: 'V = A·f',
    symbols: {
      A: { means: 'roof, from above', unit: 'm²', domain: 'nonNegative' },
      f: { means: 'depth let go: 0.5 of a clean roof, 2 under trees and dust', unit: 'mm', domain: 'nonNegative', range: [0, 3] },
    },
    result: { symbol: 'V', means: 'volume of the diverter', unit: 'L' },
    source: { key: 'common-practice', locator: '0.5 to 2 mm of the roof' },
  },
  ({ A, f }) => A * f,
);

/**
 * What a roof sends on each day, a metre of it [mm]: the first of each wet spell is let go, a share of the rest is lost on
 * the way. The diverter is drained once a dry day has passed; what it has not taken on the first day it takes on the next.
 */
export function roofDays(
  rainMm: Float64Array,
  { share, firstFlushMm }: { readonly share: number; readonly firstFlushMm: number },
): Float64Array {
  const sends = new Float64Array(rainMm.length);
  let room = firstFlushMm;
  for (let i = 0; i < sends.length; i++) {
    const mm = rainMm[i];
    if (mm < DRY_DAY_MM) room = firstFlushMm;
    const taken = Math.min(room, mm);
    room -= taken;
    sends[i] = (mm - taken) * share;
  }
  return sends;
}

/** Rain of the five days before, at which ground counts as dry or wet [mm]; in months in which plants grow, and in others (NEH-4 table 4.2, from memory). */
const GROWING = { dry: 35.6, wet: 53.3 } as const;
const RESTING = { dry: 12.7, wet: 27.9 } as const;
const DAYS_BEFORE = 5;

/** Months in which plants grow: those in which more than the mean dries off; all where nobody has said what does. */
export function growsIn(evaporationMm: readonly number[] | undefined): readonly boolean[] {
  if (!evaporationMm) return Array<boolean>(12).fill(true);
  const mean = evaporationMm.reduce((a, v) => a + v, 0) / 12;
  return evaporationMm.map((v) => v >= mean);
}

/** How wet the ground is each day by the rain before it: 0 dry, 1 as usual, 2 wet. */
export function wetnessDays({ rainMm, month }: Pick<Days, 'rainMm' | 'month'>, grows: readonly boolean[]): Uint8Array {
  const wetness = new Uint8Array(rainMm.length);
  let before = 0;
  for (let i = 0; i < wetness.length; i++) {
    const { dry, wet } = grows[month[i] - 1] ? GROWING : RESTING;
    wetness[i] = before < dry ? 0 : before > wet ? 2 : 1;
    before += rainMm[i] - (i >= DAYS_BEFORE ? rainMm[i - DAYS_BEFORE] : 0);
  }
  return wetness;
}

/** A kind of ground as a day's rain meets it. */
export interface DayGround {
  readonly curveNumber: number;
  readonly isSealed: boolean;
  readonly areaM2: number;
}

/** The first loss as a share of retention that curve numbers of the tables go with. */
const FIRST_LOSS = 0.2;

/** What kinds of ground together shed on each day [m3]: a curve number each, by how wet the ground is. */
export function shedDays(rainMm: Float64Array, wetness: Uint8Array, grounds: readonly DayGround[]): Float64Array {
  const sheds = new Float64Array(rainMm.length);
  for (const { curveNumber, isSealed, areaM2 } of grounds) {
    const by = (['dry', 'average', 'wet'] as const).map((w) => retentionOf(isSealed ? curveNumber : curveNumberWhen(w, curveNumber)));
    for (let i = 0; i < sheds.length; i++) {
      const retention = by[wetness[i]];
      const over = rainMm[i] - FIRST_LOSS * retention;
      if (over > 0) sheds[i] += ((over * over) / (over + retention)) * (areaM2 / 1000);
    }
  }
  return sheds;
}
