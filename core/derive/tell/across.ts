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
import { oncePerWork } from './graver.ts';

/** A store with the works and stores it has to do with. */
interface Around {
  readonly missing: readonly Missing[];
  readonly store: Store;
  readonly works: readonly Placed[];
  readonly stores: readonly Store[];
  readonly storm: StoreStorm | null;
  readonly designPeakM3s: number | null;
  readonly links: readonly LinkFlow[];
  readonly features: Project['features'];
  readonly below: Below;
  readonly years: number | null;
  readonly crest: CrestStorm | null;
  readonly breach: StoreBreach | null;
}

function judgeStore({ works, stores, below, years, crest, breach, ...on }: Around): Check[] {
  const byId = new Map(works.map(({ bound: { work, traits } }) => [work.id, { status: work.status, traits }]));
  const work = byId.get(on.store.work);
  if (!work) return [];
  const facts: StoreFacts = { ...on, work, works: byId, stores: storesById(stores), readyH: on.storm?.readyH ?? null };
  const { missing, store } = on;
  return [...checkStore(facts), ...checkHazard({ missing, store, traits: work.traits, below, years, crest, breach })];
}

export function acrossChecks(
  { water, run, placed, designPeaks, crests, graph, missing, project }: Told,
  exits: readonly ExitFlows[],
): Check[] {
  const byId = storesById(water.stores);
  const breaches = breachesOf(water.stores, graph);
  const { storm } = project.rain ?? {};
  const years = storm && !stepsOfStorm(storm) ? storm.returnYears : null;
  const own = oncePerWork(storesOnly(water.stores), (store) => {
    const links = run.flows.get(store.id) ?? [];
    const leads = [...links.map((l) => l.to), ...store.outlets.flatMap((o) => (o.to === undefined ? [] : [o.to]))];
    const stores = [...new Set([store.id, ...leads])].flatMap((id) => byId.get(id) ?? []);
    const works = [...new Set([...stores.map((s) => s.work), ...store.outlets.map((o) => o.work)])].flatMap((id) => placed.get(id) ?? []);
    const around: Around = {
      missing,
      store,
      works,
      stores,
      storm: run.outcomes.get(store.id)?.storm ?? null,
      designPeakM3s: designPeaks.get(store.id) ?? null,
      links,
      features: project.features,
      below: water.below.get(store.id) ?? NOBODY_KNOWS,
      years,
      crest: crests.get(store.id) ?? null,
      breach: breaches.get(store.id) ?? null,
    };
    return graph.step(`across:${store.id}`, [around], judgeStore);
  });
  if (water.works.length === 0) return own;
  const leaving = exits.flatMap(({ id, at, without, with: now }) =>
    checkExit({ id, at: [at[0], at[1]], withoutM3s: without.peakM3s, withM3s: now.peakM3s }),
  );
  return [...own, ...leaving];
}
