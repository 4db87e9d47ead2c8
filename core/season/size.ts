// How big? The same days on one store of many sizes: what each supplies, how often it is dry, what runs over, what it costs.
import { type DayRun, type DayStore, type UseOrder, balanceOne } from './balance.ts';
import { CUP_M3, isShort } from './told.ts';
import type { Days } from './weather.ts';

/** What a store costs: so much to begin with, and for each cubic metre of room. */
export interface Price {
  readonly fixed: number;
  readonly perM3: number;
}

export interface SizeRow {
  readonly roomM3: number;
  readonly litres: number;
  readonly suppliedShare: number | null;
  readonly suppliedM3: number;
  readonly dryDays: number | null;
  readonly dryDaysAYear: number | null;
  readonly spilledM3: number;
  readonly longestEmptyDays: number;
  /** For each 1000 L it supplies in a year; null where nobody has said what it costs, or it supplies nothing. */
  readonly costPer1000L: number | null;
  readonly cost: number | null;
}

/** A store of another size: its shape kept, its dead volume with it. */
export function resized(store: DayStore, roomM3: number): DayStore {
  const times = store.roomM3 > 0 ? roomM3 / store.roomM3 : 1;
  return { ...store, roomM3, deadM3: store.deadM3 * times, startM3: store.startM3 * times, volumeM3: store.volumeM3.map((v) => v * times) };
}

/** What a run supplied, by one pass over its days. */
function suppliedBy(
  { deadM3, asksM3 }: DayStore,
  run: DayRun,
  { day }: Pick<Days, 'day'>,
): Pick<SizeRow, 'suppliedM3' | 'spilledM3' | 'longestEmptyDays'> & { readonly short: number; readonly asked: number } {
  let [used, over, asked, short, spell, longest] = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < asksM3.length; i++) {
    used += run.usedM3[i];
    over += run.spilledM3[i];
    asked += asksM3[i];
    if (isShort(asksM3[i], run.usedM3[i])) short++;
    const isEmpty = run.volumeM3[i] <= deadM3 + CUP_M3;
    spell = isEmpty ? (i > 0 && day[i] === day[i - 1] + 1 ? spell + 1 : 1) : 0;
    longest = Math.max(longest, spell);
  }
  return { suppliedM3: used, spilledM3: over, short, asked, longestEmptyDays: longest };
}

export interface Sizing {
  readonly days: Days;
  readonly years: number;
  readonly order: UseOrder;
  readonly price: Price | null;
}

/** The run of the size tried before: many are tried after each other, and fresh memory for each costs more than its days. */
let last: DayRun | undefined;

/** One size tried. */
export function trySize(store: DayStore, roomM3: number, { days, years, order, price }: Sizing): SizeRow {
  const one = resized(store, roomM3);
  last = balanceOne(one, days, { order, into: last?.inM3.length === days.rainMm.length ? last : undefined });
  const { short, asked, ...came } = suppliedBy(one, last, days);
  const cost = price ? price.fixed + price.perM3 * roomM3 : null;
  return {
    roomM3,
    litres: 1000 * roomM3,
    ...came,
    suppliedShare: asked > 0 ? came.suppliedM3 / asked : null,
    dryDays: asked > 0 ? short : null,
    dryDaysAYear: asked > 0 ? short / years : null,
    cost,
    costPer1000L: cost !== null && came.suppliedM3 > 0 ? cost / (came.suppliedM3 / years) : null,
  };
}

/** Sizes to try round one: from a tenth to ten times as much, evenly by ratio, that one among them. */
export function sizesAbout(roomM3: number, count = 25): number[] {
  const half = (count - 1) / 2;
  return Array.from({ length: count }, (_, k) => {
    const raw = roomM3 * 10 ** ((k - half) / half);
    if (k === half) return roomM3;
    const step = 10 ** (Math.floor(Math.log10(raw)) - 1);
    return Math.round(raw / step) * step;
  });
}

/** Beyond the bend each further litre brings little: the place farthest above the straight line between both ends. */
export function bendOf(rows: readonly Pick<SizeRow, 'roomM3' | 'suppliedM3'>[]): number | null {
  if (rows.length < 3) return null;
  const [a, b] = [rows[0], rows[rows.length - 1]];
  const [wide, high] = [b.roomM3 - a.roomM3, b.suppliedM3 - a.suppliedM3];
  if (!(wide > 0) || !(high > 0)) return null;
  const above = rows.map((r) => (r.suppliedM3 - a.suppliedM3) / high - (r.roomM3 - a.roomM3) / wide);
  const best = above.reduce((top, v, k) => (v > above[top] ? k : top), 0);
  return above[best] > 0 ? best : null;
}
