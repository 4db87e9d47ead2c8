// A table from memory: the rain of a year and the wettest day anyone recalls. A guess, and told with its spread.
import { GUMBEL_FACTOR } from './frequency.ts';
import { fixedIntervalFactor } from './record.ts';
import type { RainTable } from './table.ts';
import type { TableLimits } from './which.ts';

export interface Remembered {
  readonly annualMm: number;
  /** Wettest day recalled [mm]; null when nobody knows. */
  readonly wettestDayMm: number | null;
  /** Years the memory reaches back. */
  readonly years: number;
}

/** Lowest, middle and highest of what is not known. */
export type Spread = readonly [low: number, middle: number, high: number];

/** Spread of yearly greatest days about their mean, standard deviation over mean (common practice, from memory). */
const VARIATION: Spread = [0.3, 0.4, 0.55];
/** Rain grows with the duration to this power within a day: 1/3 is a rough rule of hot, stormy places (from memory). */
export const GROWTH: Spread = [0.25, 1 / 3, 0.42];
/** Mean of yearly greatest days over the rain of a year, where no day is recalled (common practice, from memory). */
const DAY_SHARE: Spread = [0.04, 0.07, 0.14];

const DURATIONS_MIN = [15, 30, 60, 120, 360, 720, 1440];
const RETURN_YEARS = [2, 5, 10, 20, 50, 100];

/** Return period of the wettest day of n years: the middle value, and the values that bound the middle half (order statistics). */
export function returnOfWettest(years: number): Spread {
  const at = (chance: number): number => 1 / (1 - chance ** (1 / years));
  return [at(0.25), at(0.5), at(0.75)];
}

/** Depth in mm of a return period and duration for one choice of what is not known. */
function depthBy(
  remembered: Remembered,
  on: { readonly cv: number; readonly power: number; readonly share: number; readonly wettestYears: number },
  of: { readonly years: number; readonly minutes: number },
): number {
  const factor = (T: number): number => 1 + on.cv * GUMBEL_FACTOR.evaluate({ T });
  const meanDay = remembered.wettestDayMm === null ? on.share * remembered.annualMm : remembered.wettestDayMm / factor(on.wettestYears);
  return fixedIntervalFactor(1) * meanDay * factor(of.years) * (of.minutes / 1440) ** on.power;
}

export interface RememberedTable {
  readonly table: RainTable;
  readonly limits: TableLimits;
  /** What does not fit together, in words. */
  readonly notes: readonly string[];
}

const tenth = (mm: number): number => Math.round(10 * mm) / 10;

/**
 * A usable table from what is remembered: the wettest day taken for the middle of what the wettest of so many years may be,
 * Gumbel's law for other return periods and a power of the duration for shorter rain. The limits are the least and greatest
 * depth of every combination of the spreads.
 * @throws RangeError when a number is not above 0.
 */
export function tableFromMemory(remembered: Remembered): RememberedTable {
  const { annualMm, wettestDayMm, years } = remembered;
  for (const [name, value] of Object.entries({ annualMm, wettestDayMm: wettestDayMm ?? 1, years })) {
    if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`${name} must be above 0, not ${value}`);
  }
  const wettest = returnOfWettest(Math.max(1, years));
  const choices = VARIATION.flatMap((cv) =>
    GROWTH.flatMap((power) => DAY_SHARE.flatMap((share) => wettest.map((wettestYears) => ({ cv, power, share, wettestYears })))),
  );
  const middle = { cv: VARIATION[1], power: GROWTH[1], share: DAY_SHARE[1], wettestYears: wettest[1] };
  const cells = (pick: (of: { years: number; minutes: number }) => number): number[][] =>
    RETURN_YEARS.map((T) => DURATIONS_MIN.map((minutes) => tenth(pick({ years: T, minutes }))));
  const notes: string[] = [];
  if (wettestDayMm !== null && wettestDayMm > 0.5 * annualMm) notes.push('The wettest day is more than half of a year’s rain: check both.');
  if (wettestDayMm !== null && wettestDayMm < 0.02 * annualMm)
    notes.push('The wettest day is under a fiftieth of a year’s rain: check both.');
  return {
    table: { durationsMin: DURATIONS_MIN, returnYears: RETURN_YEARS, depthMm: cells((of) => depthBy(remembered, middle, of)) },
    limits: {
      lowMm: cells((of) => Math.min(...choices.map((c) => depthBy(remembered, c, of)))),
      highMm: cells((of) => Math.max(...choices.map((c) => depthBy(remembered, c, of)))),
    },
    notes,
  };
}
