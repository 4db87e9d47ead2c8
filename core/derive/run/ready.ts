// How long after its peak a store has room again.
import type { Store } from '../../contract/index.ts';
import { type StoreRun, volumeAt } from '../../network/index.ts';

/** Water this little above a way out is as good as none [m]. */
const AT_REST_M = 0.02;

/** Hours from a store's peak, at the step `top`, until it stands at its lowest way out again; the end of the run where it does not. */
export function readyAfter(
  store: Store,
  { levelM }: StoreRun,
  { top, stepS }: { readonly top: number; readonly stepS: number },
): number | null {
  if (store.outlets.every((o) => o.kind === 'bank')) return null;
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
