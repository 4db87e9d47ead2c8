// What a rain gauge wrote down, and what years of it say: completeness, yearly maxima, seasons, single rains.

/** Minutes in a day. */
export const DAY_MIN = 1440;

/**
 * Rain in equal steps. Times are minutes from 1970-01-01 00:00 on the gauge's own clock. Only steps with rain are kept;
 * `missing` are half-open ranges of steps for which nothing is known.
 */
export interface RainRecord {
  readonly startMin: number;
  readonly stepMin: number;
  /** Steps from the first to the last, with those missing. */
  readonly steps: number;
  /** Steps with rain, rising. */
  readonly wet: Uint32Array;
  /** Rain of each of them [mm]. */
  readonly mm: Float32Array;
  /** First step and first step after it, pair by pair, rising. */
  readonly missing: Uint32Array;
}

/** Calendar day of a time: days from 1970-01-01. */
export const dayOf = (minutes: number): number => Math.floor(minutes / DAY_MIN);

/** Year, month (1-12) and day of a day count, by the civil calendar (Hinnant's days-from-civil, inverted). */
export function civil(day: number): { readonly year: number; readonly month: number; readonly day: number } {
  const z = day + 719468;
  const era = Math.floor(z / 146097);
  const doe = z - era * 146097;
  const yoe = Math.floor((doe - Math.floor(doe / 1460) + Math.floor(doe / 36524) - Math.floor(doe / 146096)) / 365);
  const doy = doe - (365 * yoe + Math.floor(yoe / 4) - Math.floor(yoe / 100));
  const mp = Math.floor((5 * doy + 2) / 153);
  const month = mp < 10 ? mp + 3 : mp - 9;
  return { year: yoe + era * 400 + (month <= 2 ? 1 : 0), month, day: doy - Math.floor((153 * mp + 2) / 5) + 1 };
}

/** Days from 1970-01-01 to a civil date; NaN when there is no such date. */
export function daysTo(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yoe = y - era * 400;
  const doy = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const days = era * 146097 + yoe * 365 + Math.floor(yoe / 4) - Math.floor(yoe / 100) + doy - 719468;
  const back = civil(days);
  return back.year === year && back.month === month && back.day === day ? days : NaN;
}

/** A date as the reader's files have it, year first. */
export function dateText(day: number): string {
  const { year, month, day: d } = civil(day);
  return `${year}-${String(month).padStart(2, '0')}-${String(d).padStart(2, '0')}`;
}

/** The year a day counts to when years begin with `firstMonth`; named by the year it begins in. */
export function yearOf(day: number, firstMonth: number): number {
  const { year, month } = civil(day);
  return month >= firstMonth ? year : year - 1;
}

export interface YearSummary {
  readonly year: number;
  /** Days of it within the record. */
  readonly days: number;
  /** Share of the whole year for which something is known. */
  readonly known: number;
  readonly totalMm: number;
  readonly wetDays: number;
}

/** A day with at least this much counts as wet [mm]: below it is dew or a drop left in the funnel (common practice). */
export const WET_DAY_MM = 1;

/** Rain and known share of each day of the record, first day first. */
export interface DailyRain {
  readonly firstDay: number;
  readonly mm: Float64Array;
  readonly known: Float64Array;
}

/** The record day by day. A step longer than a day is not taken (the importer makes none). */
export function dailyOf(record: RainRecord): DailyRain {
  const firstDay = dayOf(record.startMin);
  const lastDay = dayOf(record.startMin + record.steps * record.stepMin - 1e-6);
  const mm = new Float64Array(lastDay - firstDay + 1);
  const known = new Float64Array(mm.length);
  const perDay = DAY_MIN / record.stepMin;
  const at = (step: number): number => dayOf(record.startMin + step * record.stepMin) - firstDay;
  for (let k = 0; k < record.wet.length; k++) mm[at(record.wet[k])] += record.mm[k];
  for (let step = 0; step < record.steps;) {
    const day = at(step);
    const next = Math.min(record.steps, Math.ceil(((firstDay + day + 1) * DAY_MIN - record.startMin) / record.stepMin));
    known[day] += (next - step) / perDay;
    step = next;
  }
  for (let k = 0; k < record.missing.length; k += 2) {
    for (let step = record.missing[k]; step < record.missing[k + 1];) {
      const day = at(step);
      const next = Math.min(record.missing[k + 1], Math.ceil(((firstDay + day + 1) * DAY_MIN - record.startMin) / record.stepMin));
      known[day] -= (next - step) / perDay;
      step = next;
    }
  }
  return { firstDay, mm, known };
}

const daysInYear = (year: number, firstMonth: number): number => daysTo(year + 1, firstMonth, 1) - daysTo(year, firstMonth, 1);

/** Each year of the record, the first and last perhaps in part. */
export function yearsOf({ firstDay, mm, known }: DailyRain, firstMonth = 1): YearSummary[] {
  const out = new Map<number, { days: number; known: number; totalMm: number; wetDays: number }>();
  for (let i = 0; i < mm.length; i++) {
    const year = yearOf(firstDay + i, firstMonth);
    const sum = out.get(year) ?? { days: 0, known: 0, totalMm: 0, wetDays: 0 };
    sum.days++;
    sum.known += known[i];
    sum.totalMm += mm[i];
    if (mm[i] >= WET_DAY_MM) sum.wetDays++;
    out.set(year, sum);
  }
  return [...out].map(([year, s]) => ({ year, ...s, known: s.known / daysInYear(year, firstMonth) }));
}

/** Rain about the turn of the calendar year is a wet season cut in two when it is this many times that about the driest turn of months. */
const CUT_SEASON = 2;

/**
 * Month a year of yearly maxima begins with: January, or the driest turn of months where the wet season lies about the new year,
 * so that one season's storms are not counted to two years (common practice: water years).
 */
export function firstMonthOf({ firstDay, mm, known }: DailyRain): number {
  const sums = Array.from({ length: 12 }, () => ({ mm: 0, known: 0 }));
  for (let i = 0; i < mm.length; i++) {
    const sum = sums[civil(firstDay + i).month - 1];
    sum.mm += mm[i];
    sum.known += known[i];
  }
  if (sums.some((s) => s.known < 1)) return 1;
  const daily = sums.map((s) => s.mm / s.known);
  const about = daily.map((d, m) => daily[(m + 11) % 12] + d);
  const driest = about.indexOf(Math.min(...about));
  return about[0] > CUT_SEASON * about[driest] ? driest + 1 : 1;
}

/** A year with less of it known is left out of the yearly maxima (common practice: one month missing may hide the greatest). */
export const LEAST_KNOWN = 0.9;

export interface YearMaximum {
  readonly year: number;
  /** As the gauge has it, in whole steps [mm]. */
  readonly measuredMm: number;
  /** With the fixed-interval correction [mm]. */
  readonly mm: number;
  /** Time the wettest run of steps began [minutes]. */
  readonly fromMin: number;
}

/**
 * Factor from the greatest fall in whole observing steps to that in any run of the same length, by how many steps it spans
 * (WMO-168, Guide to Hydrological Practices; 1.13 for one step: Hershfield 1961).
 */
export function fixedIntervalFactor(steps: number): number {
  if (steps < 1.5) return 1.13;
  if (steps < 2.5) return 1.04;
  if (steps < 4.5) return 1.03;
  if (steps < 8.5) return 1.02;
  return steps < 24.5 ? 1.01 : 1;
}

/**
 * Greatest rain of each sufficiently known year in any run of steps of `durationMin`. A run counts to the year it begins in.
 * @throws RangeError when the duration is no whole number of steps.
 */
export function yearlyMaxima(
  record: RainRecord,
  {
    durationMin,
    years,
    firstMonth = 1,
  }: { readonly durationMin: number; readonly years: readonly YearSummary[]; readonly firstMonth?: number },
): YearMaximum[] {
  const span = durationMin / record.stepMin;
  if (!Number.isInteger(span) || span < 1) {
    throw new RangeError(`${durationMin} min is no whole number of the record's steps of ${record.stepMin} min`);
  }
  const { wet, mm, startMin, stepMin } = record;
  const factor = fixedIntervalFactor(span);
  const best = new Map<number, { measuredMm: number; fromMin: number }>();
  let [year, yearEnds] = [0, -Infinity];
  let sum = 0;
  let last = 0;
  // The wettest run begins with a wet step: one window for each.
  for (let k = 0; k < wet.length; k++) {
    while (last < wet.length && wet[last] < wet[k] + span) sum += mm[last++];
    const fromMin = startMin + wet[k] * stepMin;
    if (fromMin >= yearEnds) {
      year = yearOf(dayOf(fromMin), firstMonth);
      yearEnds = daysTo(year + 1, firstMonth, 1) * DAY_MIN;
    }
    const kept = best.get(year);
    if (!kept || sum > kept.measuredMm) best.set(year, { measuredMm: sum, fromMin });
    sum -= mm[k];
  }
  return years
    .filter((y) => y.known >= LEAST_KNOWN)
    .flatMap(({ year: y }) => {
      const found = best.get(y);
      // A year without any rain has a greatest of 0, which says nothing of storms.
      return found ? [{ year: y, ...found, mm: factor * found.measuredMm }] : [];
    });
}
