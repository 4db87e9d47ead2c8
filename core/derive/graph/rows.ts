// Alike steps of many things: what each reads stands in columns, so that what stayed is passed over at the cost of a glance.
import { asItself, isSurelySame } from './alike.ts';

/** What all things read alike. */
export class ForAll<T> {
  constructor(readonly value: T) {}
}

/** One thing that all read. */
export const forAll = <T>(value: T): ForAll<T> => new ForAll(value);

/** What each thing reads, in the order of the things; or what all of them read. */
export type Column<T> = readonly T[] | ForAll<T>;

/** A column for each thing that is read. */
export type Columns<C extends unknown[]> = { readonly [K in keyof C]: Column<C[K]> };

const places = new WeakMap<readonly string[], ReadonlyMap<string, number>>();

/** The place of each id in a list: found once for all that is kept in its order. */
function placesOf(ids: readonly string[]): ReadonlyMap<string, number> {
  const known = places.get(ids);
  if (known) return known;
  const found = new Map(ids.map((id, k) => [id, k]));
  places.set(ids, found);
  return found;
}

/** Whether an id is among others. */
export const isAmong = (id: string, ids: readonly string[]): boolean => placesOf(ids).has(id);

/** Results of alike steps by the id of what each is of, for reading: laid out in their order, so that making it costs nothing. */
class ById<T> implements ReadonlyMap<string, T> {
  constructor(readonly each: Each<T>) {
    asItself(this);
  }

  get size(): number {
    return this.each.ids.length;
  }

  has(id: string): boolean {
    return placesOf(this.each.ids).has(id);
  }

  get(id: string): T | undefined {
    const at = placesOf(this.each.ids).get(id);
    return at === undefined ? undefined : this.each.all[at];
  }

  keys(): MapIterator<string> {
    return this.each.ids[Symbol.iterator]();
  }

  values(): MapIterator<T> {
    return this.each.all[Symbol.iterator]();
  }

  *entries(): MapIterator<[string, T]> {
    const { ids, all } = this.each;
    for (let k = 0; k < ids.length; k++) yield [ids[k], all[k]];
  }

  [Symbol.iterator](): MapIterator<[string, T]> {
    return this.entries();
  }

  forEach(run: (value: T, id: string, map: ReadonlyMap<string, T>) => void): void {
    this.each.ids.forEach((id, k) => run(this.each.all[k], id, this));
  }
}

/** Results of alike steps, in the order of what they are of: one thing as long as all of them stay. */
export class Each<T> {
  private map: ById<T> | null = null;

  constructor(
    readonly ids: readonly string[],
    readonly all: readonly T[],
  ) {}

  /** By the id of what each is of. */
  get by(): ReadonlyMap<string, T> {
    return (this.map ??= new ById(this));
  }
}

/** What stands in the order of ids, by them: making it costs nothing. */
export const byIds = <T>(ids: readonly string[], all: readonly T[]): ReadonlyMap<string, T> => new Each(ids, all).by;

/** The steps a map was made of; null of any other map. */
const eachOf = <T>(map: ReadonlyMap<string, T>): Each<T> | null => (map instanceof ById ? (map as ById<T>).each : null);

/** Whether two lists name the same things in the same order. */
export function areSame(a: readonly unknown[], b: readonly unknown[]): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
  return true;
}

/** The ids of a map of alike steps, in the order of the steps; null of any other. */
export const orderOf = (map: ReadonlyMap<string, unknown>): readonly string[] | null => eachOf(map)?.ids ?? null;

/** What a map holds of each thing, in the order of the things. */
export function columnOf<T, U>(ids: readonly string[], map: ReadonlyMap<string, T>, otherwise: U): readonly (T | U)[] {
  const each = eachOf(map);
  if (each && areSame(each.ids, ids)) return each.all;
  const column = new Array<T | U>(ids.length);
  for (let k = 0; k < ids.length; k++) column[k] = map.get(ids[k]) ?? otherwise;
  return column;
}

/** The same where all things are known. @throws Error naming one that is not. */
export function knownOf<T>(ids: readonly string[], map: ReadonlyMap<string, T>): readonly T[] {
  const each = eachOf(map);
  if (each && areSame(each.ids, ids)) return each.all;
  return ids.map((id) => {
    const known = map.get(id);
    if (known === undefined) throw new Error(`nothing is known of ${id}`);
    return known;
  });
}

const ids = new WeakMap<readonly object[], readonly string[]>();

/** How many lists of ids are remembered. */
const LISTS = 32;
const lists: (readonly string[])[] = [];

/** A list that names the same in the same order is the one it was: what is kept in its order is found by it at once. */
export function asNamedBefore(found: readonly string[]): readonly string[] {
  const at = lists.findIndex((list) => areSame(list, found));
  if (at === 0) return lists[0];
  const list = at < 0 ? found : lists[at];
  if (at > 0) lists.splice(at, 1);
  lists.unshift(list);
  lists.length = Math.min(lists.length, LISTS);
  return list;
}

/** The ids of things. */
export function idsOf(things: readonly { readonly id: string }[]): readonly string[] {
  const known = ids.get(things);
  if (known) return known;
  const found = asNamedBefore(things.map((t) => t.id));
  ids.set(things, found);
  return found;
}

/** What the k-th thing reads. */
export const readsAt = (columns: readonly Column<unknown>[], k: number): unknown[] =>
  columns.map((column) => (column instanceof ForAll ? column.value : column[k]));

/** Places at which columns differ from what they were; null where all must be looked at. */
export function changedIn(was: readonly Column<unknown>[], are: readonly Column<unknown>[], deep: number): readonly number[] | null {
  if (was.length !== are.length) return null;
  const changed = new Set<number>();
  for (let c = 0; c < are.length; c++) {
    const before = was[c];
    const now = are[c];
    if (now instanceof ForAll) {
      if (!(before instanceof ForAll) || !isSurelySame(before.value, now.value, deep)) return null;
    } else {
      if (before instanceof ForAll) return null;
      differing(before, now, { deep, into: changed });
    }
  }
  return [...changed].sort((a, b) => a - b);
}

function differing(
  before: readonly unknown[],
  now: readonly unknown[],
  { deep, into }: { readonly deep: number; readonly into: Set<number> },
): void {
  if (before === now) return;
  for (let k = 0; k < now.length; k++) if (before[k] !== now[k] && !isSurelySame(before[k], now[k], deep)) into.add(k);
}

/** What is known under ids, in the list of before where that holds the same. */
export function asListed<T>(ids: readonly string[], known: ReadonlyMap<string, T>, before: readonly T[]): readonly T[] {
  const found: T[] = [];
  for (const id of ids) {
    const one = known.get(id);
    if (one !== undefined) found.push(one);
  }
  return areSame(found, before) ? before : found;
}
