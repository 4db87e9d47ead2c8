// Day by day: how much of what is asked each store gives, how long it stands empty, what runs over, and how large it should be.
import { type Project, fail } from '../../project/index.ts';
import { type DailyRain, dailyOf, dateText } from '../../rain/index.ts';
import {
  type DayRun,
  type DayStore,
  type Days,
  type Need,
  type NoDays,
  type StoreSeason,
  type UseOrder,
  asksDays,
  balanceJoined,
  daysOf,
  errorOf,
  isShort,
  seasonOf,
  sumsOf,
  yearsIn,
} from '../../season/index.ts';
import type { Slowly } from '../graph/slowly.ts';
import type { RoomContext } from '../set/laid.ts';
import { storesOnly } from '../water/water.ts';
import type { RainContext } from './gauge.ts';
import { type Lacks, type SeasonLand, seasonLand } from './season-land.ts';

export type SeasonContext = RoomContext & RainContext;

export interface SeasonAsked {
  readonly fromYear?: number;
  readonly toYear?: number;
  /** A year whose days are wanted one by one; with `daily` all are. */
  readonly year?: number;
  readonly daily?: boolean;
}

export interface NeedMet {
  readonly id: string;
  readonly name: string;
  readonly store: string;
  /** Null where its store is not there, or not known. */
  readonly demandM3: number | null;
  readonly suppliedM3: number | null;
  readonly suppliedShare: number | null;
  readonly dryDays: number | null;
}

/** A store through the seasons; its figures are null while something they hang on is not known. */
export interface StoreThrough {
  readonly id: string;
  readonly work: string;
  readonly name: string;
  readonly roomM3: number;
  readonly deadM3: number;
  readonly lacks: readonly Lacks[];
  /** A roof: it keeps nothing, and sends on what it catches. */
  readonly isRoof: boolean;
  readonly told: StoreSeason | null;
}

/** What leaves the property at a place, with the works and with nothing built. */
export interface ExitSeason {
  readonly id: string;
  /** Null while something is not known of a store that spills here. */
  readonly withM3: number | null;
  readonly withoutM3: number;
  /** Days on which more than a cubic metre leaves. */
  readonly flowDaysWith: number | null;
  readonly flowDaysWithout: number;
}

export interface SeasonSeries {
  readonly dates: readonly string[];
  readonly rainMm: readonly number[];
  /** Evening volumes by store [m3]; none of a store of which something is not known. */
  readonly volumeM3: Readonly<Record<string, readonly number[]>>;
}

export interface Season {
  readonly fromYear: number;
  readonly toYear: number;
  readonly years: number;
  readonly days: number;
  readonly meanYearMm: number;
  readonly isMade: boolean;
  readonly unknownDays: number;
  readonly leftOut: readonly number[];
  readonly order: UseOrder;
  /** No terrain is known: only what hangs on none is told. */
  readonly isApart: boolean;
  readonly stores: readonly StoreThrough[];
  readonly demands: readonly NeedMet[];
  readonly exits: readonly ExitSeason[];
  readonly balance: { readonly errorM3: number };
  readonly series: SeasonSeries | null;
}

const NO_DAYS: Readonly<Record<NoDays, readonly [code: string, what: string, hint: string]>> = {
  'no-rain': ['season.no-rain', 'there is no rain to go by day by day', 'Bring in a gauge’s record, or give rain and wet days for each month.'],
  'no-whole-year': ['season.short-record', 'the gauge’s record has no whole year', 'Bring in a longer record, or take it out and give monthly figures.'],
  'no-such-years': ['season.years', 'none of those years is known whole', 'Ask for other years.'],
}; // prettier-ignore

function recordOf({ gauge }: Project, { records, graph }: SeasonContext): DailyRain | null {
  if (!gauge) return null;
  const record = records(gauge);
  return graph.step('gauge-daily', [gauge.sha256], () => dailyOf(record));
}

/** The days a project goes by. @throws UserError saying what is missing. */
export function daysFor(project: Project, context: SeasonContext, wanted: Pick<SeasonAsked, 'fromYear' | 'toYear'> = {}): Days {
  const days = daysOf(recordOf(project, context), project.climate ?? {}, wanted);
  if (typeof days !== 'string') return days;
  const [code, what, hint] = NO_DAYS[days];
  return fail(code, what, { do: hint });
}

/** What is asked of each store on each day, all needs together. */
function asksOf(
  needs: readonly Need[],
  days: Days,
): { readonly each: readonly Float64Array[]; readonly byStore: ReadonlyMap<string, Float64Array> } {
  const each = needs.map((need) => asksDays(need, days));
  const byStore = new Map<string, Float64Array>();
  needs.forEach(({ store }, k) => {
    const sum = byStore.get(store) ?? new Float64Array(days.rainMm.length);
    for (let i = 0; i < sum.length; i++) sum[i] += each[k][i];
    byStore.set(store, sum);
  });
  return { each, byStore };
}

/** The first year of the days, to find how stores stand when they begin. */
function firstYear(store: DayStore, n: number): DayStore {
  return { ...store, comesM3: store.comesM3.subarray(0, n), asksM3: store.asksM3.subarray(0, n) };
}

/** Stores begin as the first year, run before all others, leaves them. */
export function settled(stores: readonly DayStore[], days: Days, order: UseOrder): DayStore[] {
  const n = days.year.findIndex((y) => y !== days.year[0]);
  const first = n < 0 ? days.rainMm.length : n;
  const weather = { rainMm: days.rainMm.subarray(0, first), evaporationMm: days.evaporationMm?.subarray(0, first) ?? null };
  const { runs } = balanceJoined(stores.map((s) => firstYear(s, first)), weather, order); // prettier-ignore
  return stores.map((s, k) => ({ ...s, startM3: runs[k].volumeM3[first - 1] }));
}

/** Everything followed through the days. */
export interface Followed {
  readonly days: Days;
  readonly order: UseOrder;
  readonly land: SeasonLand;
  readonly stores: readonly DayStore[];
  readonly runs: readonly DayRun[];
  readonly leftM3: readonly Float64Array[];
  readonly onTheWayM3: number;
  readonly asks: ReturnType<typeof asksOf>;
}

/** Runs all stores of a project through the days. @throws UserError where there are none, or no days. */
export function* followed(project: Project, context: SeasonContext, wanted: SeasonAsked): Slowly<Followed> {
  const days = daysFor(project, context, wanted);
  const { needs = [], order = 'after' } = project.supply ?? {};
  const asks = asksOf(needs, days);
  yield;
  const land = seasonLand(project, context, { days, asks: asks.byStore });
  if (!land || land.stores.length === 0)
    return fail('season.no-store', 'there is nothing yet that stores water', { do: 'Draw a roof and a tank, a pond or a swale first.' });
  yield;
  const stores = settled(land.stores, days, order);
  yield;
  const { runs, leftM3, onTheWayM3 } = balanceJoined(stores, days, order);
  return { days, order, land, stores, runs, leftM3, onTheWayM3, asks };
}

/** How much of each need is met: the first of those that draw from one store comes first. */
function needsMet(project: Project, { land, stores, runs, asks }: Followed): NeedMet[] {
  const needs = project.supply?.needs ?? [];
  const left = new Map(stores.map(({ id }, k) => [id, Float64Array.from(runs[k].usedM3)]));
  return needs.map(({ id, name, store }, k) => {
    const own = left.get(store);
    const none = { id, name, store, demandM3: null, suppliedM3: null, suppliedShare: null, dryDays: null };
    if (!own || land.lacks.has(store)) return none;
    let [asked, got, dry] = [0, 0, 0];
    asks.each[k].forEach((want, i) => {
      const takes = Math.min(want, own[i]);
      own[i] -= takes;
      asked += want;
      got += takes;
      if (isShort(want, takes)) dry++;
    });
    return { id, name, store, demandM3: asked, suppliedM3: got, suppliedShare: asked > 0 ? got / asked : null, dryDays: dry };
  });
}

const FLOWS_M3 = 1;

function exitsTold({ land, stores, leftM3 }: Followed): ExitSeason[] {
  return land.exits.map(({ id }, k) => {
    const over = leftM3[1 + k] as Float64Array | undefined;
    const isKnown = !stores.some((s) => land.lacks.has(s.id) && s.spills.some((w) => w.to === -2 - k));
    let [withM3, withoutM3, daysWith, daysWithout] = [0, 0, 0, 0];
    land.openM3[k].forEach((open, i) => {
      const now = open + (over ? over[i] : 0);
      const bare = land.wholeM3[k][i];
      withM3 += now;
      withoutM3 += bare;
      if (now > FLOWS_M3) daysWith++;
      if (bare > FLOWS_M3) daysWithout++;
    });
    return { id, withM3: isKnown ? withM3 : null, withoutM3, flowDaysWith: isKnown ? daysWith : null, flowDaysWithout: daysWithout };
  });
}

/** What is not accounted for [m3]: in any store, or of what went from one to another. */
function errorIn({ runs, stores, days, leftM3, onTheWayM3 }: Followed): number {
  const sums = runs.map(sumsOf);
  const sum = (list: Float64Array): number => list.reduce((a, v) => a + v, 0);
  const rainM = sum(days.rainMm) / 1000;
  let sent = -onTheWayM3 - leftM3.reduce((a, left) => a + sum(left), 0);
  stores.forEach(({ comesM3, rainedM2, spills, returns }, k) => {
    const { inM3, spilledM3, soakedM3 } = sums[k];
    const away = spills.reduce((a, w) => a + w.share, 0) * spilledM3 + (returns?.share ?? 0) * soakedM3 + sums[k].liftedM3;
    const fromOthers = inM3 - sum(comesM3) - rainM * rainedM2;
    sent += away - fromOthers;
  });
  return sums.reduce((worst, one) => Math.max(worst, Math.abs(errorOf(one))), Math.abs(sent));
}

function seriesOf({ days, runs, land }: Followed, { year, daily }: SeasonAsked): SeasonSeries | null {
  if (year === undefined && daily !== true) return null;
  const at = [...days.day.keys()].filter((i) => daily === true || days.year[i] === year);
  const known = land.laid.water.stores;
  return {
    dates: at.map((i) => dateText(days.day[i])),
    rainMm: at.map((i) => days.rainMm[i]),
    volumeM3: Object.fromEntries(
      known.flatMap(({ id }, k) => (land.lacks.has(id) ? [] : [[id, at.map((i) => runs[k].volumeM3[i])] as const])),
    ),
  };
}

/** Every store through the days of the record, or of days made from monthly figures. */
export function* seasonSlowly(project: Project, context: SeasonContext, wanted: SeasonAsked): Slowly<Season> {
  const went = yield* followed(project, context, wanted);
  yield;
  const { days, order, land, stores, runs } = went;
  const names = new Map(land.laid.water.works.map(({ bound: { work } }) => [work.id, work.name]));
  const years = yearsIn(days);
  return {
    fromYear: days.year[0],
    toYear: days.year[days.year.length - 1],
    years,
    days: days.day.length,
    meanYearMm: days.rainMm.reduce((a, v) => a + v, 0) / years,
    isMade: days.isMade,
    unknownDays: days.unknownDays,
    leftOut: days.leftOut,
    order,
    isApart: land.isApart,
    stores: storesOnly(land.laid.water.stores).map((store) => {
      const k = stores.findIndex((s) => s.id === store.id);
      const lacks = land.lacks.get(store.id) ?? [];
      const { roomM3, deadM3 } = stores[k];
      const told = lacks.length === 0 ? seasonOf(stores[k], runs[k], days) : null;
      return { id: store.id, work: store.work, name: store.id === store.work ? (names.get(store.work) ?? store.name) : store.name, roomM3, deadM3, lacks, isRoof: store.sheds !== undefined, told }; // prettier-ignore
    }),
    demands: needsMet(project, went),
    exits: exitsTold(went),
    balance: { errorM3: errorIn(went) },
    series: seriesOf(went, wanted),
  };
}
