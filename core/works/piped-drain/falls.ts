// Falls a drain is laid to: as shallow as its cover and its least fall let it, and no shallower.
import type { Basin, PipedDrain } from './model.ts';
import type { DrainGround } from './ground.ts';

/** Least fall by the width of a pipe [m/m] (IPC 704.1; handbook 4.6; from memory). */
export const leastFall = (pipeM: number): number => (pipeM <= 0.065 ? 0.02 : pipeM < 0.2 ? 0.01 : 0.005);

/** Earth over a pipe by what goes over it: to weigh under the first, to mend under the second [m] (common practice). */
export const COVERS: Readonly<Record<PipedDrain['over'], readonly [weighM: number, mendM: number]>> = {
  grass: [0.3, 0.15],
  paving: [0.3, 0.15],
  wheels: [0.75, 0.45],
};

/** Lowest ground over each pipe less the earth it wants over it: as high as its soffit may lie at each place. */
function highest(work: Pick<PipedDrain, 'over'>, { stepM, groundM }: DrainGround, on: { readonly fromM: number; readonly toM: number; readonly pipeM: number; readonly fall: number }): number {
  const [cover] = COVERS[work.over];
  let best = Infinity;
  const first = Math.ceil(on.fromM / stepM - 1e-9);
  const last = Math.floor(on.toM / stepM + 1e-9);
  for (let k = first; k <= last; k++) best = Math.min(best, groundM[k] - cover - on.pipeM + on.fall * (k * stepM - on.fromM));
  return best;
} // prettier-ignore

export interface Falls {
  readonly invertsM: readonly number[];
  readonly outletM: number;
  /** How much lower than what takes it, or than the ground where it ends, it would come out [m]; nothing where it comes out above. */
  readonly lowM: number;
}

/** As high as a drain may end: over the invert of what takes it, or a hand over the ground it runs onto. */
export function endsOver(work: Pick<PipedDrain, 'ends'>, { taker, endM }: DrainGround, lastM: number): number {
  if (taker?.pipeM !== null && taker !== null) return Math.max(taker.levelM, taker.levelM + taker.pipeM - lastM);
  if (taker) return taker.levelM;
  return work.ends === 'daylight' ? endM : -Infinity;
}

const mm = (v: number): number => Math.round(1000 * v) / 1000;

/**
 * Inverts from the upper end down, each pipe at its least fall at the least and under its cover everywhere, as high as both let it.
 * The last runs steeper where what takes it lies deeper.
 */
export function fallsFor(work: Pick<PipedDrain, 'basins' | 'over' | 'ends'>, ground: DrainGround): Falls {
  const { basins } = work;
  const ends = [...basins.slice(1).map((b) => b.atM), ground.lengthM];
  const inverts: number[] = [];
  let next = Infinity;
  basins.forEach(({ atM, pipeM }: Basin, k) => {
    const fall = leastFall(pipeM);
    const invert = Math.min(next, highest(work, ground, { fromM: atM, toM: ends[k], pipeM, fall }));
    inverts.push(Math.floor(1000 * invert + 1e-6) / 1000);
    next = inverts[k] - fall * (ends[k] - atM);
  });
  const last = basins[basins.length - 1];
  const level = endsOver(work, ground, last.pipeM);
  const outletM = Number.isFinite(level) && level < next ? Math.max(level, mm(next - MOST_DROP * (ground.lengthM - last.atM))) : next;
  return { invertsM: inverts, outletM: mm(Math.min(outletM, next)), lowM: Math.max(0, level - next) };
}
/** No last pipe is laid steeper than this by itself: what lies lower is met by a drop [m/m]. */
const MOST_DROP = 0.25;
