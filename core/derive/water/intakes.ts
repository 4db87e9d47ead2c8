// Where a store takes only part of the water that meets it, or holds up what it lets pass: a place between the two.
import type { Intake, Link } from '../../contract/index.ts';
import { type Grid, catchingCells, centreOf } from '../../terrain/index.ts';
import { forAll, idsOf } from '../graph/graph.ts';
import { type FollowOn, type Start, type WaysDown, waysDown } from './ways.ts';

/** A place where water is parted between a store and the ground below it. */
export interface IntakePlace {
  readonly id: string;
  readonly store: string;
  readonly work: string;
  /** What it takes of a flow that comes [m3/s]. */
  readonly takes: (comesM3s: number) => number;
  /** The way of what it lets pass. */
  readonly past: Link;
}

/** What is taken by a table of a law, straight between its rows and by the last beyond them. */
export function takenBy(rows: NonNullable<Intake['takes']>, comesM3s: number): number {
  const k = rows.findIndex(([comes]) => comes >= comesM3s);
  if (k < 0) return rows.length === 0 ? 0 : rows[rows.length - 1][1];
  const [c1, t1] = rows[k];
  const [c0, t0] = k === 0 ? [0, 0] : rows[k - 1];
  return c1 === c0 ? t1 : t0 + ((comesM3s - c0) / (c1 - c0)) * (t1 - t0);
}

/** The lowest cell of a store's intakes: from there runs what passes them. */
function lowestOf(grid: Grid, intakes: readonly Intake[]): readonly [number, number] | null {
  let lowest = -1;
  for (const cell of intakes.flatMap((i) => catchingCells(grid, i))) if (lowest < 0 || grid.z[cell] < grid.z[lowest]) lowest = cell;
  return lowest < 0 ? null : centreOf(grid, lowest);
}

/** Where what a store's intakes let pass begins to run; null where they lie off the ground. */
function pastFrom(grid: Grid, intakes: readonly Intake[], work: string): readonly (Start | null)[] {
  const at = lowestOf(grid, intakes);
  return [at && { id: `${intakes[0].store}#intake:past`, work, role: 'past', dischargeAt: at }];
}

/** Its way, held up as long as the store's intakes hold it up. */
const pastOf = ([way]: WaysDown, intakes: readonly Intake[]): Link | null =>
  way && { ...way, lagS: way.lagS + Math.max(...intakes.map((i) => i.delayS ?? 0)) };

function placeOf(...[past, store, work, share, takes]: [Link | null, string, string, number, Intake['takes'] | null]): IntakePlace | null {
  return past && { id: `${store}#intake`, store, work, takes: (comes) => (takes ? takenBy(takes, share * comes) : share * comes), past };
}

/** Places of all stores that do not simply take all that meets them; a store has one law, told by any of its intakes. */
export function intakePlaces(
  lists: readonly (readonly Intake[])[],
  { workOf, ...on }: FollowOn & { readonly workOf: ReadonlyMap<string, string> },
): IntakePlace[] {
  const { met, graph } = on;
  const byStore = new Map<string, Intake[]>();
  for (const list of lists)
    for (const intake of list) {
      const own = byStore.get(intake.store);
      if (own) own.push(intake);
      else byStore.set(intake.store, [intake]);
    }
  const parted = [...byStore].flatMap(([id, intakes]) => {
    const share = met.shares.get(id) ?? 1;
    const work = workOf.get(id);
    if (work === undefined || (share === 1 && intakes.every((i) => i.takes === undefined && (i.delayS ?? 0) === 0))) return [];
    return [{ id, work, intakes, share }];
  });
  const ids = idsOf(parted);
  const works = parted.map((p) => p.work);
  const own = parted.map((p) => p.intakes);
  const starts = graph.each('past-from', { ids, columns: [forAll(on.plan.grid), own, works], isSettled: true }, pastFrom).all;
  const past = graph.each('intake-past', { ids, columns: [waysDown('past-ways', { ids, starts }, on), own], isSettled: true }, pastOf).all;
  const takes = parted.map(({ intakes }) => intakes.find((i) => i.takes !== undefined)?.takes ?? null);
  const places = graph.each('intake', { ids, columns: [past, ids, works, parted.map((p) => p.share), takes] }, placeOf).all;
  return places.flatMap((place) => place ?? []);
}
