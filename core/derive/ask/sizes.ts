// How big? Size against supply, other ways to more of it, and the quick answer before anything is drawn.
import { type Project, fail } from '../../project/index.ts';
import { type DayStore, type Days, type SizeRow, bendOf, roofDays, sizesAbout, trySize, yearsIn } from '../../season/index.ts';
import { type Said, amount, say } from '../../units/index.ts';
import type { Slowly } from '../graph/slowly.ts';
import { storesOnly } from '../water/water.ts';
import { type SeasonAsked, type SeasonContext, daysFor, followed, seasonSlowly, settled } from './season.ts';

export interface SizesAsked extends Pick<SeasonAsked, 'fromYear' | 'toYear'> {
  readonly store: string;
  /** Sizes to try [L]; left out, from a tenth to ten times as much. */
  readonly litres?: readonly number[];
}

/** Another way to more supply, held against the store as it is. */
export interface Tried {
  readonly id: 'now' | 'more-roof' | 'less-use' | 'twice' | 'before';
  readonly suppliedShare: number | null;
  readonly suppliedAYearM3: number;
  readonly dryDaysAYear: number | null;
}

export interface Sizes {
  readonly store: string;
  readonly name: string;
  readonly nowM3: number;
  readonly years: number;
  readonly isMade: boolean;
  readonly demandAYearM3: number;
  readonly comesAYearM3: number;
  readonly rows: readonly SizeRow[];
  /** Place of the row beyond which more room brings little; null where there is none. */
  readonly bend: number | null;
  readonly now: SizeRow;
  readonly tried: readonly Tried[];
  /** Years until it has paid for itself against water that is bought; null where prices are not known. */
  readonly paidBackYears: number | null;
}

/** How many times more roof, and how much less use, is tried [-]. */
const [MORE_ROOF, LESS_USE] = [1.5, 0.75];

/** The largest and the most sizes that are tried. */
const [MOST_LITRES, MOST_SIZES] = [1e9, 500];

function sizesFrom(litres: readonly number[] | undefined, roomM3: number): readonly number[] {
  if (litres === undefined) return sizesAbout(roomM3);
  const isSound = Array.isArray(litres) && litres.length > 0 && litres.length <= MOST_SIZES && litres.every((v) => typeof v === 'number' && v > 0 && v <= MOST_LITRES); // prettier-ignore
  if (!isSound) fail('size.litres', 'sizes are not a list of litres', { do: 'Give one to 500 numbers over nothing, as {"litres":[1000,2000]}.' });
  return litres.map((v) => v / 1000);
} // prettier-ignore

/** Size against supply, and other ways beside it. @throws UserError where the store is not there or something is not known. */
export function* sizesSlowly(project: Project, context: SeasonContext, asked: SizesAsked): Slowly<Sizes> {
  const went = yield* followed(project, context, asked);
  const { days, stores, runs, land, order } = went;
  const k = stores.findIndex((s) => s.id === asked.store);
  const known = land.laid.water.stores.find((s) => s.id === asked.store);
  if (k < 0 || !known) return fail('size.store', `there is no store "${asked.store}"`, { do: `Name one of ${storesOnly(land.laid.water.stores).map((s) => s.id).join(', ')}.` }); // prettier-ignore
  const lacks = land.lacks.get(asked.store);
  if (lacks) return fail('size.unknown', `its ${lacks.join(' and ')} is not known`, { do: 'Describe the ground, and give what dries off in each month.' }); // prettier-ignore
  const base = stores[k];
  if (!(base.roomM3 > 0)) return fail('size.no-room', 'it stores nothing', { do: 'Name a tank, a pond or a swale.' });
  // All that came to it, rain on it with that: it comes the same whatever its size. What is led on from it is asked of it too.
  const asksM3 = base.lifts ? base.asksM3.map((v, i) => v + runs[k].liftedM3[i]) : base.asksM3;
  const store: DayStore = { ...base, comesM3: runs[k].inM3, asksM3, rainedM2: 0 };
  const years = yearsIn(days);
  const price = project.supply?.price ?? null;
  const sizing = { days, years, order, price };
  const rows: SizeRow[] = [];
  for (const roomM3 of sizesFrom(asked.litres, base.roomM3)) {
    rows.push(trySize(store, roomM3, sizing));
    if (rows.length % 10 === 0) yield;
  }
  const now = trySize(store, base.roomM3, sizing);
  const times = (series: Float64Array, by: number): Float64Array => series.map((v) => v * by);
  const tried = (
    [
      ['now', store, order],
      ['more-roof', { ...store, comesM3: times(store.comesM3, MORE_ROOF) }, order],
      ['less-use', { ...store, asksM3: times(store.asksM3, LESS_USE) }, order],
      ['before', store, 'before'],
    ] as const
  ).map(([id, one, by]) => triedAs(id, trySize(one, base.roomM3, { ...sizing, order: by }), years));
  const bought = project.supply?.boughtPer1000L;
  const saves = bought === undefined ? null : (now.suppliedM3 / years) * bought;
  let demand = 0;
  for (const v of base.asksM3) demand += v;
  return {
    store: asked.store,
    name: known.name,
    nowM3: base.roomM3,
    years,
    isMade: days.isMade,
    demandAYearM3: demand / years,
    comesAYearM3: store.comesM3.reduce((a, v) => a + v, 0) / years,
    rows,
    bend: bendOf(rows),
    now,
    tried: [...tried, triedAs('twice', trySize(store, 2 * base.roomM3, sizing), years)],
    paidBackYears: saves !== null && saves > 0 && now.cost !== null ? now.cost / saves : null,
  };
}

const triedAs = (id: Tried['id'], { suppliedShare, suppliedM3, dryDaysAYear }: SizeRow, years: number): Tried => ({
  id,
  suppliedShare,
  suppliedAYearM3: suppliedM3 / years,
  dryDaysAYear,
});

export interface QuickAsked {
  readonly roofM2: number;
  /** Of the rain on it, what runs down. */
  readonly share: number;
  readonly litresADay: number;
  readonly tankL: number;
}

export interface Quick {
  readonly years: number;
  readonly isMade: boolean;
  readonly meanYearMm: number;
  readonly comesAYearM3: number;
  readonly suppliedShare: number;
  readonly dryDaysAYear: number;
  readonly longestEmptyDays: number;
  /** The tank beyond which more room brings little [L]. */
  readonly bendL: number | null;
  readonly says: Said;
}

const QUICK_MOST: Readonly<Record<keyof QuickAsked, number>> = { roofM2: 100_000, share: 1, litresADay: 1e6, tankL: 1e8 };
/** A millimetre is let go of each rain unless somebody says otherwise: common practice. */
const QUICK_FLUSH_MM = 1;

/** A roof, a use and a tank, before anything is drawn: an answer in a sentence. */
export function quick(project: Project, context: SeasonContext, asked: QuickAsked): Quick {
  for (const [key, most] of Object.entries(QUICK_MOST)) {
    const value: unknown = (asked as unknown as Readonly<Record<string, unknown>>)[key];
    if (typeof value !== 'number' || !(value > 0) || value > most) fail('quick.value', `"${key}" is ${String(value).slice(0, 40)}`, { do: `Give a number over 0 and up to ${most}.` }); // prettier-ignore
  }
  const days = daysFor(project, context);
  const { roofM2, share, litresADay, tankL } = asked;
  const roomM3 = tankL / 1000;
  const n = days.rainMm.length;
  const comes = quickComes(days, roofM2, share);
  const bare: DayStore = { id: 'quick', roomM3, deadM3: 0, startM3: 0, volumeM3: Float64Array.of(0, roomM3), areaM2: Float64Array.of(0, 0), isCovered: true, rainedM2: 0, soaksMmPerDay: 0, comesM3: comes, asksM3: new Float64Array(n).fill(litresADay / 1000), topUp: null, spills: [{ to: -1, share: 1, lagDays: 0 }], returns: null }; // prettier-ignore
  const { order = 'after' } = project.supply ?? {};
  const [store] = settled([bare], days, order);
  const years = yearsIn(days);
  const sizing = { days, years, order, price: null };
  const now = trySize(store, roomM3, sizing);
  const rows = sizesAbout(roomM3).map((v) => trySize(store, v, sizing));
  const bend = bendOf(rows);
  const comesAYearM3 = comes.reduce((a, v) => a + v, 0) / years;
  const met = now.suppliedShare ?? 0;
  const dry = now.dryDaysAYear ?? 0;
  return {
    years,
    isMade: days.isMade,
    meanYearMm: days.rainMm.reduce((a, v) => a + v, 0) / years,
    comesAYearM3,
    suppliedShare: met,
    dryDaysAYear: dry,
    longestEmptyDays: now.longestEmptyDays,
    bendL: bend === null ? null : rows[bend].litres,
    says: say`A tank of ${amount(roomM3, 'liquid')} under ${amount(roofM2, 'area')} of roof gives ${amount(100 * met, 'percent')} of the ${amount(litresADay / 1000, 'liquid')} a day you want: dry on ${amount(dry, 'days')} of a mean year, ${amount(now.longestEmptyDays, 'days')} on end at the worst. The roof brings ${amount(comesAYearM3, 'liquid')} a year.`, // prettier-ignore
  };
}

function quickComes({ rainMm }: Days, roofM2: number, share: number): Float64Array {
  return roofDays(rainMm, { share, firstFlushMm: QUICK_FLUSH_MM }).map((mm) => (mm * roofM2) / 1000);
}

export const SEASON_QUESTIONS = { season: seasonSlowly, sizes: sizesSlowly, quick } as const;
