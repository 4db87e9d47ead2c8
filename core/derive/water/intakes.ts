// Where a store takes only part of the water that meets it, or holds up what it lets pass: a place between the two.
import type { Intake, Link } from '../../contract/index.ts';
import { type Plan, linkOf } from '../../network/index.ts';
import { catchingCells, centreOf } from '../../terrain/index.ts';
import { type Graph, forAll, idsOf } from '../graph/graph.ts';
import type { Interception } from '../world/catchments.ts';

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
function lowestOf({ grid }: Plan, intakes: readonly Intake[]): readonly [number, number] | null {
  let lowest = -1;
  for (const cell of intakes.flatMap((i) => catchingCells(grid, i))) if (lowest < 0 || grid.z[cell] < grid.z[lowest]) lowest = cell;
  return lowest < 0 ? null : centreOf(grid, lowest);
}

/** The way of what a store's intakes let pass; null where they lie off the ground. */
function pastOf(plan: Plan, intakes: readonly Intake[], work: string): Link | null {
  const [{ store }] = intakes;
  const at = lowestOf(plan, intakes);
  if (!at) return null;
  const past = linkOf(plan, store, { id: `${store}#intake:past`, work, role: 'past', dischargeAt: at });
  return { ...past, lagS: past.lagS + Math.max(...intakes.map((i) => i.delayS ?? 0)) };
}

function placeOf(...[past, store, work, share, takes]: [Link | null, string, string, number, Intake['takes'] | null]): IntakePlace | null {
  return past && { id: `${store}#intake`, store, work, takes: (comes) => (takes ? takenBy(takes, share * comes) : share * comes), past };
}

/** Places of all stores that do not simply take all that meets them; a store has one law, told by any of its intakes. */
export function intakePlaces(
  lists: readonly (readonly Intake[])[],
  {
    met,
    plan,
    graph,
    workOf,
  }: { readonly met: Interception; readonly plan: Plan; readonly graph: Graph; readonly workOf: ReadonlyMap<string, string> },
): IntakePlace[] {
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
  const past = graph.each(
    'intake-past',
    { ids, columns: [forAll(plan), parted.map((p) => p.intakes), works], isSettled: true },
    pastOf,
  ).all;
  const takes = parted.map(({ intakes }) => intakes.find((i) => i.takes !== undefined)?.takes ?? null);
  const places = graph.each('intake', { ids, columns: [past, ids, works, parted.map((p) => p.share), takes] }, placeOf).all;
  return places.flatMap((place) => place ?? []);
}
