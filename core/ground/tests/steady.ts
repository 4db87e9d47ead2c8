import type { FieldTest, Interval, Reduction } from './types.ts';

/** How many of the last intervals must agree, and how closely, for a rate to be called steady: common practice. */
const STEADY_COUNT = 3;
const STEADY_SPREAD = 0.1;

/** A fall between two readings, in the units of the hole. */
export interface Fall {
  readonly minutes: number;
  readonly fromM: number;
  readonly toM: number;
}

/** Intervals of a test's readings; after a refill the water starts anew. Where water rose without one the interval is left out. */
export function intervalsOf({ readings }: FieldTest, rateOf: (fall: Fall) => number): Interval[] {
  return readings.slice(1).flatMap((to, k): Interval[] => {
    const from = readings[k];
    const fromMm = from.refilledMm ?? from.mm;
    const minutes = to.min - from.min;
    if (minutes <= 0 || to.mm > fromMm) return [];
    return [
      {
        fromMin: from.min,
        toMin: to.min,
        fromMm,
        toMm: to.mm,
        fallMmPerHour: (60 * (fromMm - to.mm)) / minutes,
        rateMmPerHour: rateOf({ minutes, fromM: fromMm / 1000, toM: to.mm / 1000 }),
      },
    ];
  });
}

const mean = (list: readonly number[]): number => list.reduce((a, v) => a + v, 0) / list.length;

/** The steady rate of intervals: the mean of the last three once they agree, until then the least of them. */
export function steadyOf(intervals: readonly Interval[]): Omit<Reduction, 'lines'> {
  const last = intervals.slice(-STEADY_COUNT).map((i) => i.rateMmPerHour);
  if (last.length === 0) return { intervals, isSteady: false, rateMmPerHour: null, says: 'Two readings at least are needed.' };
  const middle = mean(last);
  if (middle === 0) {
    return {
      intervals,
      isSteady: last.length === STEADY_COUNT,
      rateMmPerHour: 0,
      says: 'The water does not fall: this ground takes in nothing.',
    };
  }
  const spread = Math.max(...last.map((v) => Math.abs(v - middle))) / middle;
  if (last.length === STEADY_COUNT && spread <= STEADY_SPREAD) {
    return { intervals, isSteady: true, rateMmPerHour: middle, says: 'Steady: the last three readings agree within a tenth.' };
  }
  const rateMmPerHour = Math.min(...last);
  if (last.length < STEADY_COUNT) {
    return {
      intervals,
      isSteady: false,
      rateMmPerHour,
      says: `Not steady yet: at least ${STEADY_COUNT - last.length} more ${STEADY_COUNT - last.length === 1 ? 'reading' : 'readings'}.`,
    };
  }
  return {
    intervals,
    isSteady: false,
    rateMmPerHour,
    says: `Not steady yet: the last three differ by ${Math.round(100 * spread)} % from their mean. Keep reading; until then the least of them counts.`,
  };
}
