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
  type Traits,
  type WorkBase,
} from '../../contract/index.ts';
import { type StoreFacts, checkExit, checkHazard, checkStore } from '../../checks/index.ts';
import type { Project } from '../../project/index.ts';
import { stepsOfStorm } from '../../rain/index.ts';
import type { ExitFlows } from '../types.ts';
import type { Placed } from '../water/stores.ts';
import { storesById, storesOnly } from '../water/water.ts';
import { breachesOf } from './breach.ts';
import { stormsIn } from '../run/run.ts';
import type { Told } from './facts.ts';
import { type CheckParts, oncePerWork } from './check-parts.ts';
import { byIds, columnOf, forAll, idsOf } from '../graph/graph.ts';

/** What is asked of a work by checks of others: it stays the same while it is only made larger. */
interface WorkTold extends Pick<WorkBase, 'id' | 'status'> {
  readonly traits: Traits;
}

const workTold = ({ bound: { work, traits } }: Placed): WorkTold => ({ id: work.id, status: work.status, traits });

/** A store with the works and stores it has to do with, what is known of it, and what is known of all. */
type Around = [
  store: Store,
  works: readonly WorkTold[],
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
  const byId = new Map(works.map((one) => [one.id, one]));
  const work = byId.get(store.work);
  if (!work) return [];
  const of = { missing, store, links, storm, designPeakM3s, features };
  const facts: StoreFacts = { ...of, work, works: byId, stores: storesById(stores), readyH: storm?.readyH ?? null };
  return [...checkStore(facts), ...checkHazard({ missing, store, traits: work.traits, below, years, crest, breach })];
}

const NO_FLOWS: readonly LinkFlow[] = [];

/** A store and those its water runs to, or would: their ids. */
function nearTo({ id, outlets }: Store, links: readonly LinkFlow[]): readonly string[] {
  const ids = new Set([id]);
  for (const { to } of links) ids.add(to);
  for (const { to } of outlets) if (to !== undefined) ids.add(to);
  return [...ids];
}

/** The works of stores, and those that make the ways out of one: their ids. */
function worksOf(stores: readonly Store[], { outlets }: Store): readonly string[] {
  const ids = new Set<string>();
  for (const { work } of stores) ids.add(work);
  for (const { work } of outlets) ids.add(work);
  return [...ids];
}

export function acrossChecks(
  { water, run, works, designPeaks, crests, graph, missing, project }: Told,
  exits: readonly ExitFlows[],
): CheckParts[] {
  const byId = byIds(idsOf(water.stores), water.stores);
  const breaches = breachesOf(water.stores, graph);
  const { storm } = project.rain ?? {};
  const years = storm && !stepsOfStorm(storm) ? storm.returnYears : null;
  const stores = storesOnly(water.stores);
  const ids = idsOf(stores);
  const links = columnOf(ids, run.flows, NO_FLOWS);
  const told = graph.each('work-told', { ids: idsOf(works), columns: [works.map((w) => w.one)], isSettled: true }, workTold).by;
  const near = graph.listed('near', graph.each('near', { ids, columns: [stores, links], isSettled: true }, nearTo).all, byId);
  const worksNear = graph.listed('works-near', graph.each('works-near', { ids, columns: [near, stores], isSettled: true }, worksOf).all, told); // prettier-ignore
  const { all: lists } = graph.each(
    'across',
    {
      ids,
      columns: [
        stores,
        worksNear,
        near,
        links,
        stormsIn(run, ids),
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
