// Day by day: the rain of a record, or one made from monthly figures, and what dries off open water.
import { type DailyRain, LEAST_KNOWN, civil, daysTo, randomFrom, yearsOf } from '../rain/index.ts';

/** What is known of the place beyond storms, by calendar month. */
export interface Climate {
  /** What dries off open water [mm in each month]. */
  readonly evaporationMm?: readonly number[];
  /** Rain and days with rain, for a place without a record. */
  readonly rainMm?: readonly number[];
  readonly wetDays?: readonly number[];
  /** Amounts of rain times this: an assumption on what is to come. */
  readonly rainTimes?: number;
  readonly source?: string;
}

/** Days that follow one another, though years left out may lie between them. */
export interface Days {
  /** Of each day: days from 1970-01-01, its month (1 to 12), and the year it counts to. */
  readonly day: Int32Array;
  readonly month: Uint8Array;
  readonly year: Int16Array;
  readonly rainMm: Float64Array;
  /** What dries off open water; null while nobody has said. */
  readonly evaporationMm: Float64Array | null;
  /** Rain made up from monthly figures, as no record is there. */
  readonly isMade: boolean;
  /** Days of it nothing is known of, which count as dry. */
  readonly unknownDays: number;
  /** Years of the record left out, since too little of them is known. */
  readonly leftOut: readonly number[];
}

/** Why there are no days to go by. */
export type NoDays = 'no-rain' | 'no-whole-year' | 'no-such-years';

const MONTH_DAYS = [31, 28.25, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;
const isLeap = (year: number): boolean => !Number.isNaN(daysTo(year, 2, 29));
const daysIn = (month: number, year: number): number => (month === 2 ? (isLeap(year) ? 29 : 28) : MONTH_DAYS[month - 1]);

/** Monthly amounts spread evenly over the days of each month. */
const spread = (monthly: readonly number[], month: Uint8Array, year: Int16Array): Float64Array =>
  Float64Array.from(month, (m, i) => monthly[m - 1] / daysIn(m, year[i]));

function calendarOf(days: readonly number[]): Pick<Days, 'day' | 'month' | 'year'> {
  const at = days.map((d) => civil(d));
  return { day: Int32Array.from(days), month: Uint8Array.from(at, (c) => c.month), year: Int16Array.from(at, (c) => c.year) };
}

export interface Wanted {
  readonly fromYear?: number;
  readonly toYear?: number;
}

const within = (year: number, { fromYear = -Infinity, toYear = Infinity }: Wanted): boolean => year >= fromYear && year <= toYear;

function drawn(
  rainMm: Float64Array,
  on: Pick<Days, 'day' | 'month' | 'year'>,
  { evaporationMm, rainTimes = 1 }: Climate,
): Pick<Days, 'rainMm' | 'evaporationMm'> {
  return {
    rainMm: rainTimes === 1 ? rainMm : rainMm.map((v) => v * rainTimes),
    evaporationMm: evaporationMm ? spread(evaporationMm, on.month, on.year) : null,
  };
}

/** Days of the whole years of a record: years of which too little is known are left out, single unknown days count as dry. */
function recorded({ firstDay, mm, known }: DailyRain, climate: Climate, wanted: Wanted): Days | NoDays {
  const years = yearsOf({ firstDay, mm, known });
  const whole = new Set(years.filter((y) => y.days >= 365 && y.known >= LEAST_KNOWN).map((y) => y.year));
  if (whole.size === 0) return 'no-whole-year';
  const days: number[] = [];
  const rain: number[] = [];
  let unknownDays = 0;
  for (let i = 0; i < mm.length; i++) {
    const { year } = civil(firstDay + i);
    if (!whole.has(year) || !within(year, wanted)) continue;
    days.push(firstDay + i);
    rain.push(mm[i]);
    unknownDays += 1 - known[i];
  }
  if (days.length === 0) return 'no-such-years';
  const on = calendarOf(days);
  const leftOut = years.map((y) => y.year).filter((y) => !whole.has(y) && within(y, wanted));
  return { ...on, ...drawn(Float64Array.from(rain), on, climate), isMade: false, unknownDays: Math.round(unknownDays), leftOut };
}

/** Seed of all days that are made up. */
const SEED = 20010101;
/** Years that are made up, by the year they would begin with. */
const [MADE_FROM, MADE_YEARS] = [2001, 30];

/** A day of rain follows a day of rain so much more often than chance (Geng et al. 1986, from memory). */
const DRY_TO_WET = 0.75;

/** Draws from a gamma of a shape and a mean (Marsaglia and Tsang 2000; shapes under one by their power rule). */
export function gammaFrom(random: () => number, shape: number, mean: number): number {
  const up = shape < 1 ? shape + 1 : shape;
  const d = up - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  for (;;) {
    const x = normal();
    const v = (1 + c * x) ** 3;
    if (v <= 0 || Math.log(1 - random()) >= 0.5 * x * x + d - d * v + d * Math.log(v)) continue;
    const drawnAt = shape < 1 ? d * v * (1 - random()) ** (1 / shape) : d * v;
    return (drawnAt * mean) / shape;
  }
}

/** Of many small rains and few large ones (from memory: shapes of daily rain lie about 0.6 to 0.9). */
const RAIN_SHAPE = 0.75;

/**
 * Thirty years of days from monthly rain and days with rain: wet days follow wet days, amounts are drawn, and each calendar
 * month is then brought to its own figure over all years. The same figures give the same days.
 */
function made(climate: Climate & Required<Pick<Climate, 'rainMm' | 'wetDays'>>, wanted: Wanted): Days | NoDays {
  const { rainMm, wetDays } = climate;
  const days: number[] = [];
  const [first, last] = [daysTo(MADE_FROM, 1, 1), daysTo(MADE_FROM + MADE_YEARS, 1, 1)];
  for (let d = first; d < last; d++) days.push(d);
  const all = calendarOf(days);
  const random = randomFrom(SEED);
  const rain = new Float64Array(days.length);
  let wasWet = false;
  for (let i = 0; i < rain.length; i++) {
    const k = all.month[i] - 1;
    const share = Math.min(1, wetDays[k] / MONTH_DAYS[k]);
    const chance: number = wasWet ? 1 - DRY_TO_WET + DRY_TO_WET * share : DRY_TO_WET * share;
    wasWet = share > 0 && random() < chance;
    if (wasWet) rain[i] = gammaFrom(random, RAIN_SHAPE, 1);
  }
  const sums = new Float64Array(12);
  for (let i = 0; i < rain.length; i++) sums[all.month[i] - 1] += rain[i];
  for (let i = 0; i < rain.length; i++) {
    const k = all.month[i] - 1;
    if (sums[k] > 0) rain[i] *= (rainMm[k] * MADE_YEARS) / sums[k];
  }
  const kept = days.flatMap((_, i) => (within(all.year[i], wanted) ? [i] : []));
  if (kept.length === 0) return 'no-such-years';
  const on = calendarOf(kept.map((i) => days[i]));
  return {
    ...on,
    ...drawn(
      Float64Array.from(kept, (i) => rain[i]),
      on,
      climate,
    ),
    isMade: true,
    unknownDays: 0,
    leftOut: [],
  };
}

/** Days to go by: of the record where there is one, else made from monthly figures, else none and why. */
export function daysOf(record: DailyRain | null, climate: Climate, wanted: Wanted = {}): Days | NoDays {
  if (record) return recorded(record, climate, wanted);
  const { rainMm, wetDays } = climate;
  return rainMm && wetDays ? made({ ...climate, rainMm, wetDays }, wanted) : 'no-rain';
}

/** How many years the days make. */
export const yearsIn = ({ year }: Pick<Days, 'year'>): number => new Set(year).size;
