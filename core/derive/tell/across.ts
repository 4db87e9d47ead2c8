// Checks across works, and at the places where water leaves.
import type { Check, LinkFlow, Missing, Store, StoreStorm } from '../../contract/index.ts';
import { type StoreFacts, checkExit, checkStore } from '../../checks/index.ts';
import { type StoreRun, volumeAt } from '../../network/index.ts';
import type { Project } from '../../project/index.ts';
import type { DerivedExit } from '../types.ts';
import type { Placed } from '../water/stores.ts';
import { storesById, storesOnly } from '../water/water.ts';
import type { Told } from './facts.ts';

/** Water this little above a way out is as good as none [m]. */
const AT_REST_M = 0.02;

/** Hours from a store's peak until it stands at its lowest way out again; the end of the run where it does not. */
function readyAfter(store: Store, run: StoreRun | null, stepS: number): number | null {
  if (!run || store.outlets.every((o) => o.kind === 'bank')) return null;
  const { levelM } = run;
  let top = 0;
  for (let i = 1; i < levelM.length; i++) if (levelM[i] > levelM[top]) top = i;
  if (levelM[top] <= store.wayOutM + AT_REST_M) return null;
  let i = top;
  while (i < levelM.length - 1 && levelM[i] > store.wayOutM + AT_REST_M) i++;
  const ran = ((i - top) * stepS) / 3600;
  return i < levelM.length - 1 ? ran : Math.min(LONGEST_H, ran + fallsIn(store, levelM[i]));
}

/** Longest time told [h]. */
const LONGEST_H = 240;
const SLICES = 20;

/** Hours a store takes from a level down to its lowest way out, by its ways out and what it seeps and dries, with nothing coming. */
function fallsIn(store: Store, fromM: number): number {
  const to = store.wayOutM + AT_REST_M;
  const lost = ((store.seepsMmPerHour ?? 0) + (store.driesMmPerHour ?? 0)) / 3.6e6;
  let seconds = 0;
  for (let k = 0; k < SLICES; k++) {
    const high = fromM - ((fromM - to) * k) / SLICES;
    const low = fromM - ((fromM - to) * (k + 1)) / SLICES;
    const middle = (high + low) / 2;
    const volume = volumeAt(store.stage, high) - volumeAt(store.stage, low);
    const flow = store.outlets.reduce((sum, o) => sum + (o.kind === 'joint' ? 0 : Math.max(0, o.flowAt(middle))), 0);
    seconds += volume / Math.max(1e-9, flow + (lost * volume) / Math.max(1e-9, high - low));
  }
  return seconds / 3600;
}

/** A store with the works and stores it has to do with. */
interface Around {
  readonly missing: readonly Missing[];
  readonly store: Store;
  readonly run: StoreRun | null;
  readonly stepS: number;
  readonly works: readonly Placed[];
  readonly stores: readonly Store[];
  readonly storm: StoreStorm | null;
  readonly designPeakM3s: number | null;
  readonly links: readonly LinkFlow[];
  readonly features: Project['features'];
}

function judgeStore({ run, stepS, works, stores, ...on }: Around): Check[] {
  const byId = new Map(works.map(({ bound: { work, traits } }) => [work.id, { status: work.status, traits }]));
  const work = byId.get(on.store.work);
  if (!work) return [];
  const facts: StoreFacts = { ...on, work, works: byId, stores: storesById(stores), readyH: readyAfter(on.store, run, stepS) };
  return checkStore(facts);
}

export function acrossChecks({ water, run, placed, designPeaks, graph, missing, project }: Told, exits: readonly DerivedExit[]): Check[] {
  const byId = storesById(water.stores);
  const own = storesOnly(water.stores).flatMap((store) => {
    const links = run.flows.get(store.id) ?? [];
    const leads = [...links.map((l) => l.to), ...store.outlets.flatMap((o) => (o.to === undefined ? [] : [o.to]))];
    const stores = [...new Set([store.id, ...leads])].flatMap((id) => byId.get(id) ?? []);
    const works = [...new Set([...stores.map((s) => s.work), ...store.outlets.map((o) => o.work)])].flatMap((id) => placed.get(id) ?? []);
    const around: Around = {
      missing,
      store,
      run: run.result?.stores.get(store.id) ?? null,
      stepS: run.result?.stepS ?? 0,
      works,
      stores,
      storm: run.outcomes.get(store.id)?.storm ?? null,
      designPeakM3s: designPeaks.get(store.id) ?? null,
      links,
      features: project.features,
    };
    return graph.step(`across:${store.id}`, [around], judgeStore);
  });
  if (water.works.length === 0) return own;
  const leaving = exits.flatMap(({ id, at, without, with: now }) =>
    checkExit({ id, at: [at[0], at[1]], withoutM3s: without.peakM3s, withM3s: now.peakM3s }),
  );
  return [...own, ...leaving];
}
