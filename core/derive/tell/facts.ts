// What is known of each work once its water has run: what its checks and figures may read.
import type { CrestStorm, LinkFlow, Missing, Outlet, Store, StormFacts } from '../../contract/index.ts';
import type { Project } from '../../project/index.ts';
import { depthFor } from '../../rain/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { CatchmentRunoff } from '../run/hydrology.ts';
import type { Run } from '../run/run.ts';
import { type StoreOutcome, designPeakOf } from '../run/outcomes.ts';
import type { Placed } from '../water/stores.ts';
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
    if (key !== null) by.set(key, [...(by.get(key) ?? []), item]);
  }
  return by;
};

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
function arrivingPeaks(flows: readonly LinkFlow[], joints: ReadonlySet<string>): ReadonlyMap<string, number> {
  const sums = new Map<string, number>();
  for (const { to, outlet, peakM3s, share = 1 } of flows)
    if (!joints.has(outlet)) sums.set(to, (sums.get(to) ?? 0) + share * (peakM3s ?? 0));
  return sums;
}

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
  const stores = storesByWork(water);
  const flows = [...run.flows.values()].flat();
  const workOf = new Map(water.stores.map((s) => [s.id, s.work]));
  const isJoint = ({ kind }: Outlet): boolean => kind === 'joint';
  const joints = new Set(water.stores.flatMap((s) => s.outlets.filter(isJoint).map((o) => o.id)));
  const fromAbove = arrivingPeaks(flows, joints);
  const own = grouped(flows, (l) => workOf.get(l.from) ?? l.work);
  const made = grouped(flows, (l) => (l.work === workOf.get(l.from) ? null : l.work));
  const led = grouped(flows, (l) => (workOf.get(l.to) === workOf.get(l.from) ? null : (workOf.get(l.to) ?? null)));
  const catchments = new Map(water.catchments.map((g) => [g.catchment.of, g]));
  const { runoff } = run.hydrology;
  const designPeaks = new Map(
    water.stores.map(({ id }) => {
      const known = { runoff: runoff.get(id) ?? null, hasCatchment: catchments.has(id), fromAboveM3s: fromAbove.get(id) ?? 0 };
      return [id, designPeakOf(run.outcomes.get(id)?.storm ?? null, known)] as const;
    }),
  );
  const burstMmPerHour = burstOf(project);
  // A work knows its stores by their own ids, whichever stands in for them.
  const asOwn = (store: Store, work: string): Store => {
    const id = store.work === work ? store.id : water.made.get(work)?.find((own) => water.instead.get(own) === store.id);
    return id === undefined || id === store.id ? store : graph.step(`own:${id}`, [store], (shared) => ({ ...shared, id }));
  };
  const laid = grouped(water.stores, (s) => (run.conduits.has(s.id) ? s.work : null));
  const facts = water.works.map(({ bound: { work } }): [string, StormFacts] => {
    const pipes = (laid.get(work.id) ?? []).flatMap((s) => run.conduits.get(s.id) ?? []);
    const mine = (stores.get(work.id) ?? []).map((store) => ({
      store: asOwn(store, work.id),
      outcome: run.outcomes.get(store.id) ?? null,
    }));
    const links = [...(own.get(work.id) ?? []), ...(made.get(work.id) ?? [])];
    const id = stores.get(work.id)?.[0]?.id ?? work.id;
    const known = {
      missing,
      site,
      mine,
      links,
      gathered: catchments.get(id) ?? null,
      runoff: runoff.get(id) ?? null,
      designPeakM3s: designPeaks.get(id) ?? null,
      burstMmPerHour,
      ...(pipes.length > 0 ? { conduits: pipes, ledTo: [...new Set((led.get(work.id) ?? []).map((l) => l.to))] } : {}),
    };
    return [work.id, graph.step(`facts:${work.id}`, [known], factsOf)];
  });
  const placed = new Map(water.works.map((w) => [w.bound.work.id, w]));
  const guests = grouped(water.works, (w) => w.bound.hostId);
  return {
    project,
    isAside,
    durationsMin,
    crests,
    world,
    water,
    run,
    graph,
    missing,
    placed,
    guests,
    stores,
    facts: new Map(facts),
    designPeaks,
  };
}

interface Known extends Pick<StormFacts, 'missing' | 'site' | 'links' | 'designPeakM3s' | 'burstMmPerHour' | 'conduits' | 'ledTo'> {
  readonly mine: readonly { readonly store: Store; readonly outcome: StoreOutcome | null }[];
  readonly gathered: Water['catchments'][number] | null;
  readonly runoff: CatchmentRunoff | null;
}

function factsOf({ missing, site, mine, links, gathered, runoff, designPeakM3s, burstMmPerHour, conduits, ledTo }: Known): StormFacts {
  const [first, ...rest] = mine.map(({ store, outcome }) => ({ store, storm: outcome?.storm ?? null }));
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
