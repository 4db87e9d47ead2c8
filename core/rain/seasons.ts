// When it rains: months, wet season, dry spells, how bunched, and when the first rains come.
import { type DailyRain, LEAST_KNOWN, WET_DAY_MM, civil, daysTo, yearsOf } from './record.ts';
import { atShare } from './bootstrap.ts';

export interface MonthRain {
  /** 1 to 12. */
  readonly month: number;
  readonly meanMm: number;
  /** Least and greatest total of that month in any year known whole [mm]. */
  readonly leastMm: number;
  readonly mostMm: number;
  readonly wetDays: number;
  /** A month with more than a twelfth of the year's mean (common practice). */
  readonly isWet: boolean;
}

export interface DrySpell {
  readonly days: number;
  readonly fromDay: number;
}

export interface Onset {
  readonly year: number;
  /** First day of the first rains [days from 1970-01-01]. */
  readonly day: number;
}

export interface Seasons {
  readonly yearsKnown: number;
  readonly meanYearMm: number;
  readonly leastYear: { readonly year: number; readonly totalMm: number } | null;
  readonly mostYear: { readonly year: number; readonly totalMm: number } | null;
  readonly months: readonly MonthRain[];
  readonly wettestDay: { readonly day: number; readonly mm: number } | null;
  readonly longestDry: DrySpell | null;
  /** Longest dry spell of each year that is known, their middle value [days]. */
  readonly usualDryDays: number | null;
  /** Share of all rain that falls on the wettest tenth of the wet days. */
  readonly bunched: number | null;
  /** Wet days that together bring half of a year's rain, on average. */
  readonly halfInDays: number | null;
  readonly onsets: readonly Onset[];
  /** Day of the year by which works should be finished: a tenth of the first rains come sooner. Month and day; null where no season is dry. */
  readonly finishBy: { readonly month: number; readonly day: number } | null;
}

/** First rains: at least this much in three days together, after the dry season (common practice: enough to run off raw earth). */
export const ONSET_MM = 20;
const ONSET_DAYS = 3;
/** The dry season is told apart only where its three driest months bring less than this share of the year (a quarter would be even). */
const DRY_QUARTER = 0.12;

function monthsOf({ firstDay, mm, known }: DailyRain): MonthRain[] {
  const sums = new Map<string, { month: number; mm: number; wetDays: number; known: number; days: number }>();
  for (let i = 0; i < mm.length; i++) {
    const { year, month } = civil(firstDay + i);
    const key = `${year}-${month}`;
    const sum = sums.get(key) ?? {
      month,
      mm: 0,
      wetDays: 0,
      known: 0,
      days: daysTo(month === 12 ? year + 1 : year, (month % 12) + 1, 1) - daysTo(year, month, 1),
    };
    sum.mm += mm[i];
    sum.known += known[i];
    if (mm[i] >= WET_DAY_MM) sum.wetDays++;
    sums.set(key, sum);
  }
  const whole = [...sums.values()].filter((s) => s.known >= LEAST_KNOWN * s.days);
  const months = Array.from({ length: 12 }, (_, k) => {
    const own = whole.filter((s) => s.month === k + 1);
    const mean = (list: number[]): number => (list.length === 0 ? NaN : list.reduce((a, v) => a + v, 0) / list.length);
    return {
      month: k + 1,
      meanMm: mean(own.map((s) => s.mm)),
      leastMm: Math.min(...own.map((s) => s.mm)),
      mostMm: Math.max(...own.map((s) => s.mm)),
      wetDays: mean(own.map((s) => s.wetDays)),
    };
  });
  const year = months.reduce((a, m) => a + m.meanMm, 0);
  return months.map((m) => ({ ...m, isWet: m.meanMm > year / 12 }));
}

/** Longest run of days known to be dry, within a range of days. */
function longestDryIn({ firstDay, mm, known }: DailyRain, from: number, to: number): DrySpell | null {
  let best: DrySpell | null = null;
  let run = 0;
  for (let i = Math.max(0, from - firstDay); i < Math.min(mm.length, to - firstDay); i++) {
    run = mm[i] < WET_DAY_MM && known[i] >= LEAST_KNOWN ? run + 1 : 0;
    if (run > (best?.days ?? 0)) best = { days: run, fromDay: firstDay + i - run + 1 };
  }
  return best;
}

/** The middle month of the three driest in a row, where they are dry enough to be a season; null otherwise. */
function driestMonth(months: readonly MonthRain[]): number | null {
  const year = months.reduce((a, m) => a + m.meanMm, 0);
  if (!(year > 0)) return null;
  const three = months.map((_, k) => [k + 11, k, k + 1].reduce((a, j) => a + months[j % 12].meanMm, 0));
  const k = three.indexOf(Math.min(...three));
  return three[k] < DRY_QUARTER * year ? k + 1 : null;
}

/** First rains of each year: searched from the middle of the dry season to its next. */
function onsetsOf({ firstDay, mm, known }: DailyRain, driest: number): Onset[] {
  const out: Onset[] = [];
  const years = [civil(firstDay).year - 1, civil(firstDay + mm.length - 1).year];
  for (let year = years[0]; year <= years[1]; year++) {
    const from = daysTo(year, driest, 15) - firstDay;
    const to = daysTo(year + 1, driest, 15) - firstDay;
    if (from < 0 || from >= mm.length) continue;
    for (let i = from; i < Math.min(to, mm.length - ONSET_DAYS + 1); i++) {
      // A gap may hide the first rains: nothing is said of that year.
      if (known[i] < LEAST_KNOWN) break;
      let sum = 0;
      for (let d = 0; d < ONSET_DAYS; d++) sum += mm[i + d];
      if (sum >= ONSET_MM && mm[i] >= WET_DAY_MM) {
        out.push({ year, day: firstDay + i });
        break;
      }
    }
  }
  return out;
}

/** What a record says of the seasons. Months and years known in part are left out of means and extremes. */
export function seasonsOf(daily: DailyRain): Seasons {
  const { firstDay, mm } = daily;
  const years = yearsOf(daily).filter((y) => y.known >= LEAST_KNOWN);
  const byTotal = [...years].sort((a, b) => a.totalMm - b.totalMm);
  const months = monthsOf(daily);
  const wet = Array.from(mm).filter((v) => v >= WET_DAY_MM);
  const falling = [...wet].sort((a, b) => b - a);
  const total = falling.reduce((a, v) => a + v, 0);
  const tenth = falling.slice(0, Math.ceil(falling.length / 10)).reduce((a, v) => a + v, 0);
  const halves = years.map(({ year }) => {
    const own = Array.from(mm.subarray(Math.max(0, daysTo(year, 1, 1) - firstDay), Math.max(0, daysTo(year + 1, 1, 1) - firstDay))).sort(
      (a, b) => b - a,
    );
    const half = own.reduce((a, v) => a + v, 0) / 2;
    let [sum, days] = [0, 0];
    while (sum < half) sum += own[days++];
    return days;
  });
  const wettest = mm.reduce((best, v, i) => (v > mm[best] ? i : best), 0);
  const driest = months.some((m) => Number.isNaN(m.meanMm)) ? null : driestMonth(months);
  // Years that begin half a year from the driest month: one that turns in a dry season would cut its spell in two.
  const firstMonth = driest === null ? 1 : ((driest + 5) % 12) + 1;
  const dries = yearsOf(daily, firstMonth)
    .filter((y) => y.known >= LEAST_KNOWN)
    .map(({ year }) => longestDryIn(daily, daysTo(year, firstMonth, 1), daysTo(year + 1, firstMonth, 1))?.days ?? 0)
    .sort((p, q) => p - q);
  const onsets = driest === null ? [] : onsetsOf(daily, driest);
  return {
    yearsKnown: years.length,
    meanYearMm: years.length === 0 ? NaN : years.reduce((a, y) => a + y.totalMm, 0) / years.length,
    leastYear: byTotal[0] ?? null,
    mostYear: byTotal[byTotal.length - 1] ?? null,
    months,
    wettestDay: mm.length > 0 && mm[wettest] > 0 ? { day: firstDay + wettest, mm: mm[wettest] } : null,
    longestDry: longestDryIn(daily, firstDay, firstDay + mm.length),
    usualDryDays: dries.length === 0 ? null : atShare(dries, 0.5),
    bunched: total > 0 ? tenth / total : null,
    halfInDays: halves.length === 0 ? null : halves.reduce((a, v) => a + v, 0) / halves.length,
    onsets,
    finishBy: driest === null ? null : finishBy(onsets, driest),
  };
}

/** Day by which nine of ten first rains have not yet come, counted from the middle of the dry season. */
function finishBy(onsets: readonly Onset[], driest: number): Seasons['finishBy'] {
  if (onsets.length === 0) return null;
  const waits = onsets.map(({ year, day }) => day - daysTo(year, driest, 15)).sort((a, b) => a - b);
  // The day before the soonest tenth, in a year of 365 days.
  const { month, day } = civil(daysTo(2001, driest, 15) + Math.floor(atShare(waits, 0.1)) - 1);
  return { month, day };
}
