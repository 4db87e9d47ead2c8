// What is known of each work once its water has run: what its checks and figures may read.
import type { ConduitStorm, CrestStorm, LinkFlow, Missing, Store, StoreStorm, StormFacts } from '../../contract/index.ts';
import type { Project } from '../../project/index.ts';
import { depthFor } from '../../rain/index.ts';
import { type Graph, columnOf, forAll, idsOf } from '../graph/graph.ts';
import type { CatchmentRunoff } from '../run/hydrology.ts';
import { type Run, stormsIn } from '../run/run.ts';
import { designPeakOf } from '../run/outcomes.ts';
import type { Placed } from '../water/stores.ts';
import { placesByWork } from './check-parts.ts';
import { type Water, storesOnly } from '../water/water.ts';
import type { World } from '../world/world.ts';

/** What the project does not say yet. */
export const missingIn = ({ rain, ground }: Pick<Project, 'rain' | 'ground'>): Missing[] => [
  ...(rain ? [] : (['rain'] as const)),
  ...(ground ? [] : (['ground'] as const)),
];

/** Everything a telling reads, with what is asked often found once. */
export interface Told {
  readonly project: Project;
  /** Told beside another telling of the same works, for what is graver in it: checks alone. */
  readonly isAside: boolean;
  /** Lengths of the storms of the set; null for one storm alone. */
  readonly durationsMin: readonly number[] | null;
  /** How crests stand the storms they must hold, by store. */
  readonly crests: ReadonlyMap<string, CrestStorm>;
  readonly world: World;
  readonly water: Water;
  readonly run: Run;
  readonly graph: Graph;
  readonly missing: readonly Missing[];
  readonly placed: ReadonlyMap<string, Placed>;
  readonly guests: ReadonlyMap<string, readonly Placed[]>;
  /** The works, by their ids. */
  readonly works: readonly { readonly id: string; readonly one: Placed }[];
  /** Stores by the work that makes them. */
  readonly stores: ReadonlyMap<string, readonly Store[]>;
  readonly facts: ReadonlyMap<string, StormFacts>;
  /** Peak the ways out of each store must pass [m3/s], by store; null where it is not known. */
  readonly designPeaks: ReadonlyMap<string, number | null>;
}

const grouped = <T>(list: readonly T[], keyOf: (item: T) => string | null): ReadonlyMap<string, readonly T[]> => {
  const by = new Map<string, T[]>();
  for (const item of list) {
    const key = keyOf(item);
    if (key === null) continue;
    const own = by.get(key);
    if (own) own.push(item);
    else by.set(key, [item]);
  }
  return by;
};

/** What hangs on the works and stores alone, whatever runs. */
interface Ties extends Pick<Told, 'placed' | 'guests' | 'stores' | 'works'> {
  readonly workOf: ReadonlyMap<string, string>;
  /** Mouths of joined stores. */
  readonly joints: ReadonlySet<string>;
  readonly catchments: ReadonlyMap<string, Water['catchments'][number]>;
}

const ties = new WeakMap<Water, Ties>();

/** Found once for all tellings of one water. */
function tiesOf(water: Water): Ties {
  const known = ties.get(water);
  if (known) return known;
  const { works, stores, catchments } = water;
  const joints = new Set<string>();
  for (const { outlets } of stores) for (const { id, kind } of outlets) if (kind === 'joint') joints.add(id);
  const found: Ties = {
    works: works.map((one) => ({ id: one.bound.work.id, one })),
    placed: new Map(works.map((w) => [w.bound.work.id, w])),
    guests: grouped(works, (w) => w.bound.hostId),
    stores: storesByWork(water),
    workOf: new Map(stores.map((s) => [s.id, s.work])),
    joints,
    catchments: new Map(catchments.map((g) => [g.catchment.of, g])),
  };
  ties.set(water, found);
  return found;
}

/** Stores by each work that makes them, in its order: what several stand in is of all of them. */
function storesByWork({ stores, made, instead }: Water): ReadonlyMap<string, readonly Store[]> {
  const byId = new Map(storesOnly(stores).map((s) => [s.id, s]));
  return new Map(
    [...made].flatMap(([work, ids]): [string, readonly Store[]][] => {
      const own = ids.flatMap((id) => byId.get(instead.get(id) ?? id) ?? []);
      return own.length > 0 ? [[work, own]] : [];
    }),
  );
}

/** Flow that arrives at each store over ways out of others, mouths of joined stores left out [m3/s]. */
function arrivingPeaks(flows: readonly (readonly LinkFlow[])[], joints: ReadonlySet<string>): ReadonlyMap<string, number> {
  const sums = new Map<string, number>();
  for (const list of flows)
    for (const { to, outlet, peakM3s, share = 1 } of list)
      if (!joints.has(outlet)) sums.set(to, (sums.get(to) ?? 0) + share * (peakM3s ?? 0));
  return sums;
}

/** What leaves the stores of each work, and what runs past them. */
function ownFlows(
  { stores, places }: Water,
  on: { readonly flows: readonly (readonly LinkFlow[])[]; readonly pasts: readonly (readonly LinkFlow[])[]; readonly graph: Graph },
): ReadonlyMap<string, readonly LinkFlow[]> {
  const { flows, pasts, graph } = on;
  const works = placesByWork(stores);
  const lists = works.map(({ id, at }) => [...at.map((k) => flows[k]), ...pasts.filter((_, k) => places[k].work === id)]);
  return graph.each('own-flows', { ids: idsOf(works), columns: [lists] }, (of) => of.flat()).by;
}

/** Of the ways out of a store those that other works make. */
const ofGuests = (flows: readonly LinkFlow[], work: string): readonly LinkFlow[] =>
  flows.every((l) => l.work === work) ? NO_FLOWS : flows.filter((l) => l.work !== work);

const designPeak = (
  ...[storm, runoff, hasCatchment, fromAboveM3s]: [StoreStorm | null, CatchmentRunoff | null, boolean, number]
): number | null => designPeakOf(storm, { runoff, hasCatchment, fromAboveM3s });

/** A burst that roofs are made for [min]. */
const BURST_MIN = 5;
const NO_UPLIFT = 0;

/** Rain of five minutes at the return period designed for [mm/h]; null while none is known. */
export function burstOf({ rain }: Pick<Project, 'rain'>): number | null {
  if (!rain) return null;
  const { returnYears, upliftPercent } = rain.storm;
  const { depthMm } = depthFor(rain.table, returnYears, BURST_MIN);
  return (depthMm * (1 + (upliftPercent ?? NO_UPLIFT) / 100) * 60) / BURST_MIN;
}

export function toldOf(
  project: Project,
  on: {
    readonly isAside: boolean;
    readonly durationsMin: readonly number[] | null;
    readonly crests: ReadonlyMap<string, CrestStorm>;
    readonly world: World;
    readonly water: Water;
    readonly run: Run;
    readonly graph: Graph;
  },
): Told {
  const { isAside, durationsMin, crests, world, water, run, graph } = on;
  const missing = missingIn(project);
  const { site } = world;
  const { workOf, joints, catchments, ...tied } = tiesOf(water);
  const { stores } = tied;
  const ran = idsOf(water.stores);
  const flows = columnOf(ran, run.flows, NO_FLOWS);
  const pasts = water.places.map(({ store }) => run.flows.get(`${store}#past`) ?? NO_FLOWS);
  const all = [...flows, ...pasts];
  const fromAbove = arrivingPeaks(all, joints);
  const own = ownFlows(water, { flows, pasts, graph });
  const made = grouped(graph.each('guest-flows', { ids: ran, columns: [flows, water.stores.map((s) => s.work)] }, ofGuests).all.flat(), (l) => l.work); // prettier-ignore
  const led = run.conduits.size === 0 ? NOBODYS : grouped(all.flat(), (l) => (workOf.get(l.to) === workOf.get(l.from) ? null : (workOf.get(l.to) ?? null))); // prettier-ignore
  const { runoff } = run.hydrology;
  const peaksBy = [
    stormsIn(run, ran),
    columnOf(ran, runoff, null),
    ran.map((id) => catchments.has(id)),
    ran.map((id) => fromAbove.get(id) ?? 0),
  ] as const;
  const designPeaks = graph.each('design-peak', { ids: ran, columns: peaksBy }, designPeak).by;
  const burstMmPerHour = burstOf(project);
  // A work knows its stores by their own ids, whichever stands in for them.
  const asOwn = (store: Store, work: string): Store => {
    const id = store.work === work ? store.id : water.made.get(work)?.find((own) => water.instead.get(own) === store.id);
    return id === undefined || id === store.id ? store : graph.step(`own:${id}`, [store], (shared) => ({ ...shared, id }));
  };
  const laid = run.conduits.size === 0 ? NOBODYS : grouped(water.stores, (s) => (run.conduits.has(s.id) ? s.work : null));
  const ids = idsOf(tied.works);
  const mine = ids.map((work) => (stores.get(work) ?? NO_STORES).map((store) => asOwn(store, work)));
  const storms = ids.map((work) => (stores.get(work) ?? NO_STORES).map((store) => run.outcomes.get(store.id)?.storm ?? null));
  const links = ids.map((work) => {
    const [owned, others] = [own.get(work) ?? NO_FLOWS, made.get(work) ?? NO_FLOWS];
    return others.length === 0 ? owned : [...owned, ...others];
  });
  const firsts = ids.map((work) => stores.get(work)?.[0]?.id ?? work);
  const conduits = ids.map((work) => laid.get(work)?.flatMap((s) => run.conduits.get(s.id) ?? []) ?? null);
  const ledTo = ids.map((work, k) => conduits[k] && [...new Set((led.get(work) ?? []).map((l) => l.to))]);
  const facts = graph.each(
    'facts',
    {
      ids,
      columns: [
        forAll(missing),
        forAll(site),
        mine,
        storms,
        links,
        columnOf(firsts, catchments, null),
        columnOf(firsts, runoff, null),
        columnOf(firsts, designPeaks, null),
        forAll(burstMmPerHour),
        conduits,
        ledTo,
      ],
    },
    factsOf,
  ).by;
  return { ...tied, project, isAside, durationsMin, crests, world, water, run, graph, missing, facts, designPeaks };
}
const NO_FLOWS: readonly LinkFlow[] = [];
const NO_STORES: readonly Store[] = [];
const NOBODYS: ReadonlyMap<string, never> = new Map<string, never>();

type FactsReads = [
  missing: readonly Missing[],
  site: World['site'],
  stores: readonly Store[],
  storms: readonly (StoreStorm | null)[],
  links: readonly LinkFlow[],
  gathered: Water['catchments'][number] | null,
  runoff: CatchmentRunoff | null,
  designPeakM3s: number | null,
  burstMmPerHour: number | null,
  conduits: readonly ConduitStorm[] | null,
  ledTo: readonly string[] | null,
];

function factsOf(
  ...[missing, site, stores, storms, links, gathered, runoff, designPeakM3s, burstMmPerHour, conduits, ledTo]: FactsReads
): StormFacts {
  const [first, ...rest] = stores.map((store, k) => ({ store, storm: storms[k] }));
  return {
    missing,
    site,
    store: first?.store ?? null,
    storm: first?.storm ?? null,
    ...(rest.length > 0 ? { others: rest } : {}),
    catchment: gathered?.catchment ?? null,
    runoff: runoff?.runoff ?? null,
    links,
    designPeakM3s,
    burstMmPerHour,
    ...(conduits ? { conduits } : {}),
    ...(ledTo ? { ledTo } : {}),
  };
}
