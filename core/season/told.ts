// What the days of a store come to: how much of what is asked is met, how long it stands empty, and to which date it lasts.
import { dateText } from '../rain/index.ts';
import { type DayRun, type DayStore, sumsOf } from './balance.ts';
import type { Days } from './weather.ts';

export interface YearOf {
  readonly year: number;
  readonly rainMm: number;
  readonly demandM3: number;
  readonly suppliedM3: number;
  readonly spilledM3: number;
  readonly dryDays: number;
}

export interface StoreSeason {
  readonly id: string;
  readonly inM3: number;
  readonly suppliedM3: number;
  readonly demandM3: number;
  readonly toppedUpM3: number;
  readonly spilledM3: number;
  readonly soakedM3: number;
  /** Led or lifted on to other stores. */
  readonly liftedM3: number;
  readonly evaporatedM3: number;
  readonly startM3: number;
  readonly endM3: number;
  /** Of what is asked, what is met; null where nothing is asked. */
  readonly suppliedShare: number | null;
  /** Days on which less was there than asked, all of them and in a mean year; null where nothing is asked. */
  readonly dryDays: number | null;
  readonly dryDaysAYear: number | null;
  /** Longest spell with nothing left to draw [days], and when it began. */
  readonly longestEmptyDays: number;
  readonly longestEmptyFrom: string | null;
  /** Months of a mean year in which all that was asked was met; null where nothing is asked. */
  readonly monthsCarried: number | null;
  /** Share of all days it stood above half. */
  readonly aboveHalf: number;
  /** Middle of the dates to which it lasts after it last stood full, where it runs empty in half of the years at least. */
  readonly lastsTo: { readonly month: number; readonly day: number } | null;
  readonly emptyYears: number;
  readonly worst: YearOf | null;
  readonly best: YearOf | null;
  readonly years: readonly YearOf[];
}

/** Less than this is nothing: a cup [m3]. */
export const CUP_M3 = 0.00025;

/** A day on which what was asked was not there, but for a cup. */
export const isShort = (asked: number, used: number): boolean => used < asked - CUP_M3;

function yearsOf(store: DayStore, run: DayRun, { year, rainMm }: Days): YearOf[] {
  const byYear = new Map<number, { -readonly [K in keyof YearOf]: YearOf[K] }>();
  for (let i = 0; i < year.length; i++) {
    const sum = byYear.get(year[i]) ?? { year: year[i], rainMm: 0, demandM3: 0, suppliedM3: 0, spilledM3: 0, dryDays: 0 };
    sum.rainMm += rainMm[i];
    sum.demandM3 += store.asksM3[i];
    sum.suppliedM3 += run.usedM3[i];
    sum.spilledM3 += run.spilledM3[i];
    if (isShort(store.asksM3[i], run.usedM3[i])) sum.dryDays++;
    byYear.set(year[i], sum);
  }
  return [...byYear.values()];
}

/** Share of months in which all that was asked was met, of twelve. */
function monthsOf(store: DayStore, run: DayRun, { year, month }: Days): number {
  const met = new Map<number, boolean>();
  for (let i = 0; i < year.length; i++) {
    const key = year[i] * 12 + month[i];
    met.set(key, (met.get(key) ?? true) && !isShort(store.asksM3[i], run.usedM3[i]));
  }
  return (12 * [...met.values()].filter(Boolean).length) / met.size;
}

interface Spell {
  readonly days: number;
  readonly from: number;
}

/** Longest run of days that follow one another with nothing left to draw. */
function longestEmpty({ deadM3 }: DayStore, { volumeM3 }: DayRun, { day }: Days): Spell | null {
  let best: Spell | null = null;
  for (let i = 0, from = -1; i < volumeM3.length; i++) {
    const goesOn = i > 0 && day[i] === day[i - 1] + 1;
    if (volumeM3[i] > deadM3 + CUP_M3) from = -1;
    else if (from < 0 || !goesOn) from = i;
    if (from >= 0 && (!best || i - from + 1 > best.days)) best = { days: i - from + 1, from };
  }
  return best;
}

/** In each year, the first day it is empty after it stood fullest; -1 where it never is. */
function emptiesOn({ deadM3 }: DayStore, { volumeM3 }: DayRun, { year }: Days): number[] {
  const found: number[] = [];
  for (let from = 0; from < year.length;) {
    let to = from;
    let fullest = from;
    for (; to < year.length && year[to] === year[from]; to++) if (volumeM3[to] > volumeM3[fullest]) fullest = to;
    let empty = -1;
    for (let i = fullest; i < to && empty < 0; i++) if (volumeM3[i] <= deadM3 + CUP_M3) empty = i;
    found.push(volumeM3[fullest] > deadM3 + CUP_M3 ? empty : from);
    from = to;
  }
  return found;
}

/** The middle of the days it runs empty, where it does in half of the years at least. */
function lasts(store: DayStore, run: DayRun, days: Days): Pick<StoreSeason, 'lastsTo' | 'emptyYears'> {
  const on = emptiesOn(store, run, days);
  const empty = on.filter((i) => i >= 0);
  if (empty.length === 0 || 2 * empty.length < on.length) return { lastsTo: null, emptyYears: empty.length };
  const dates = empty.map((i) => dateText(days.day[i]).slice(5)).sort();
  const [month, day] = dates[(dates.length - 1) >> 1].split('-').map(Number);
  return { lastsTo: { month, day }, emptyYears: empty.length };
}

/** What all days of a store came to. */
export function seasonOf(store: DayStore, run: DayRun, days: Days): StoreSeason {
  const sums = sumsOf(run);
  const years = yearsOf(store, run, days);
  const demandM3 = years.reduce((a, y) => a + y.demandM3, 0);
  const isAsked = demandM3 > 0;
  const dryDays = years.reduce((a, y) => a + y.dryDays, 0);
  // What stores nothing is neither full nor empty.
  const holds = store.roomM3 > CUP_M3;
  const empty = holds ? longestEmpty(store, run, days) : null;
  let above = 0;
  for (let i = 0; i < run.volumeM3.length; i++) if (run.volumeM3[i] > store.roomM3 / 2) above++;
  const shareOf = (y: YearOf): number => (y.demandM3 > 0 ? y.suppliedM3 / y.demandM3 : 1);
  const ranked = isAsked ? [...years].sort((a, b) => shareOf(a) - shareOf(b) || b.dryDays - a.dryDays || a.rainMm - b.rainMm) : [];
  return {
    id: store.id,
    inM3: sums.inM3,
    suppliedM3: sums.usedM3,
    demandM3,
    toppedUpM3: sums.toppedM3,
    spilledM3: sums.spilledM3,
    soakedM3: sums.soakedM3,
    liftedM3: sums.liftedM3,
    evaporatedM3: sums.driedM3,
    startM3: sums.startM3,
    endM3: sums.endM3,
    suppliedShare: isAsked ? sums.usedM3 / demandM3 : null,
    dryDays: isAsked ? dryDays : null,
    dryDaysAYear: isAsked ? dryDays / years.length : null,
    longestEmptyDays: empty?.days ?? 0,
    longestEmptyFrom: empty ? dateText(days.day[empty.from]) : null,
    monthsCarried: isAsked ? monthsOf(store, run, days) : null,
    aboveHalf: run.volumeM3.length > 0 ? above / run.volumeM3.length : 0,
    ...(holds ? lasts(store, run, days) : { lastsTo: null, emptyYears: 0 }),
    worst: ranked.length > 0 ? ranked[0] : null,
    best: ranked.length > 0 ? ranked[ranked.length - 1] : null,
    years,
  };
}
