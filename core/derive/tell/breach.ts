// What comes down when the bank of a store goes.
import type { Outlet, Store, StoreBreach } from '../../contract/index.ts';
import { breachOf } from '../../hydraulics/index.ts';
import { levelAt, volumeAt } from '../../network/index.ts';
import { type Graph, idsOf } from '../graph/graph.ts';
import { storesOnly } from '../water/water.ts';

/** The breach of one stretch of earth, from water as high as its crest; null where none is held above the ground there. */
export function breachAt({ stage }: Pick<Store, 'stage'>, { id, levelM, breaks }: Outlet): StoreBreach | null {
  if (!breaks) return null;
  const breach = breachOf({
    topM: levelM,
    ...breaks,
    volumeAt: (level) => volumeAt(stage, level),
    levelOf: (volume) => levelAt(stage, volume),
  });
  return breach && { outlet: id, ...breach };
}

/** The worst breach of each store; null where no bank of it holds water that could come down. */
export function breachesOf(stores: readonly Store[], graph: Graph): ReadonlyMap<string, StoreBreach | null> {
  const held = storesOnly(stores);
  return graph.each('breach', { ids: idsOf(held), columns: [held] }, worstBreach).by;
}

const worstBreach = (store: Store): StoreBreach | null =>
  store.outlets.reduce<StoreBreach | null>((most, outlet) => {
    const found = breachAt(store, outlet);
    return found && found.peakM3s > (most?.peakM3s ?? 0) ? found : most;
  }, null);
