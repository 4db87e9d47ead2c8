// Checks across works, and at the places where water leaves.
import {
  type Below,
  type Check,
  type CrestStorm,
  type LinkFlow,
  type Missing,
  NOBODY_KNOWS,
  type Store,
  type StoreBreach,
  type StoreStorm,
} from '../../contract/index.ts';
import { type StoreFacts, checkExit, checkHazard, checkStore } from '../../checks/index.ts';
import type { Project } from '../../project/index.ts';
import { stepsOfStorm } from '../../rain/index.ts';
import type { ExitFlows } from '../types.ts';
import type { Placed } from '../water/stores.ts';
import { storesById, storesOnly } from '../water/water.ts';
import { breachesOf } from './breach.ts';
import type { Told } from './facts.ts';
import { type CheckParts, oncePerWork } from './check-parts.ts';
import { columnOf, forAll, idsOf } from '../graph/graph.ts';

/** A store with the works and stores it has to do with, what is known of it, and what is known of all. */
type Around = [
  store: Store,
  works: readonly Placed[],
  stores: readonly Store[],
  links: readonly LinkFlow[],
  storm: StoreStorm | null,
  designPeakM3s: number | null,
  below: Below,
  crest: CrestStorm | null,
  breach: StoreBreach | null,
  all: { readonly missing: readonly Missing[]; readonly features: Project['features']; readonly years: number | null },
];

function judgeStore(...[store, works, stores, links, storm, designPeakM3s, below, crest, breach, all]: Around): Check[] {
  const { missing, features, years } = all;
  const byId = new Map(works.map(({ bound: { work, traits } }) => [work.id, { status: work.status, traits }]));
  const work = byId.get(store.work);
  if (!work) return [];
  const of = { missing, store, links, storm, designPeakM3s, features };
  const facts: StoreFacts = { ...of, work, works: byId, stores: storesById(stores), readyH: storm?.readyH ?? null };
  return [...checkStore(facts), ...checkHazard({ missing, store, traits: work.traits, below, years, crest, breach })];
}

const NO_FLOWS: readonly LinkFlow[] = [];

/** A store and those its water runs to, or would. */
function storesNear(
  id: string,
  on: { readonly links: readonly LinkFlow[]; readonly outlets: Store['outlets']; readonly byId: ReadonlyMap<string, Store> },
): readonly Store[] {
  const ids = new Set([id]);
  for (const { to } of on.links) ids.add(to);
  for (const { to } of on.outlets) if (to !== undefined) ids.add(to);
  return [...ids].flatMap((one) => on.byId.get(one) ?? []);
}

/** The works of stores, and those that make the ways out of one. */
function worksNear(stores: readonly Store[], outlets: Store['outlets'], placed: ReadonlyMap<string, Placed>): readonly Placed[] {
  const ids = new Set<string>();
  for (const { work } of stores) ids.add(work);
  for (const { work } of outlets) ids.add(work);
  return [...ids].flatMap((id) => placed.get(id) ?? []);
}

export function acrossChecks(
  { water, run, placed, designPeaks, crests, graph, missing, project }: Told,
  exits: readonly ExitFlows[],
): CheckParts[] {
  const byId = storesById(water.stores);
  const breaches = breachesOf(water.stores, graph);
  const { storm } = project.rain ?? {};
  const years = storm && !stepsOfStorm(storm) ? storm.returnYears : null;
  const stores = storesOnly(water.stores);
  const ids = idsOf(stores);
  const links = columnOf(ids, run.flows, NO_FLOWS);
  const near = stores.map(({ id, outlets }, k) => storesNear(id, { links: links[k], outlets, byId }));
  const works = stores.map(({ outlets }, k) => worksNear(near[k], outlets, placed));
  const { all: lists } = graph.each(
    'across',
    {
      ids,
      columns: [
        stores,
        works,
        near,
        links,
        ids.map((id) => run.outcomes.get(id)?.storm ?? null),
        columnOf(ids, designPeaks, null),
        columnOf(ids, water.below, NOBODY_KNOWS),
        columnOf(ids, crests, null),
        columnOf(ids, breaches, null),
        forAll({ missing, features: project.features, years }),
      ],
    },
    judgeStore,
  );
  const own = oncePerWork('across', stores, { lists, graph });
  if (water.works.length === 0) return [own];
  return [own, { word: 'exit', parts: exits.map((exit) => ({ id: exit.id, checks: exitJudged(exit) })) }];
}

const exitJudged = ({ id, at, without, with: now }: ExitFlows): Check[] =>
  checkExit({ id, at: [at[0], at[1]], withoutM3s: without.peakM3s, withM3s: now.peakM3s });
