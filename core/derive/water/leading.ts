// The part of the water that bears on some of its stores: all that leads there, and all whose level is felt on the way.
import type { Link, Outlet, Store } from '../../contract/index.ts';
import { type Water, storesById } from './water.ts';

/** How far under an outlet the water beyond may stay for the two to be routed apart [m]. */
const CLEAR_M = 0.3;

/** Whether the store an outlet leads to can rise to where it is felt. */
export const isFelt = ({ drownsM }: Pick<Outlet, 'drownsM'>, to: Pick<Store, 'crestM'> | null): boolean =>
  drownsM !== undefined && to !== null && to.crestM + CLEAR_M > drownsM;

/** What is read of the water to find it. */
type Led = Pick<Water, 'stores' | 'places' | 'links'>;

/** For each store, those that bear on it at once: whose water comes to it, over the ground or led, and whose level its ways out may feel. */
function bearing({ stores, places, links }: Led): ReadonlyMap<string, readonly string[]> {
  const on = new Map<string, string[]>(stores.map((s) => [s.id, []]));
  const byId = storesById(stores);
  const leads = (from: string, { to }: Pick<Link, 'to'>): void => void on.get(to)?.push(from);
  for (const { id, outlets } of stores) {
    const own = links.get(id) ?? [];
    own.forEach((link, k) => {
      leads(id, link);
      if (isFelt(outlets[k], byId.get(link.to) ?? null)) leads(link.to, { to: id });
    });
  }
  // What runs past a store has come to the place before it.
  for (const { store, past } of places) leads(store, past);
  return on;
}

/** The water with no more stores than bear on those that are asked for: to these it does what it does with all of them. */
export function leadingTo<W extends Led>(water: W, asked: readonly string[]): W {
  const on = bearing(water);
  const wanted = new Set<string>();
  const open = asked.filter((id) => on.has(id));
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (wanted.has(id)) continue;
    wanted.add(id);
    open.push(...(on.get(id) ?? []));
  }
  if (wanted.size === on.size) return water;
  return { ...water, stores: water.stores.filter((s) => wanted.has(s.id)), places: water.places.filter((p) => wanted.has(p.store)) };
}
