// Falls a drain is laid to: as shallow as its cover and its least fall let it, and no shallower.
import type { DrainGround } from './ground.ts';
import type { Basin, PipedDrain } from './model.ts';

/** Least fall by the width of a pipe [m/m] (IPC 704.1; handbook 4.6; from memory). */
export const leastFall = (pipeM: number): number => (pipeM <= 0.065 ? 0.02 : pipeM < 0.2 ? 0.01 : 0.005);

/** Earth over a pipe by what goes over it: to weigh under the first, to mend under the second [m] (common practice). */
export const COVERS: Readonly<Record<PipedDrain['over'], readonly [weighM: number, mendM: number]>> = {
  grass: [0.3, 0.15],
  paving: [0.3, 0.15],
  wheels: [0.75, 0.45],
};

type Laid = Pick<PipedDrain, 'basins' | 'over' | 'ends'>;

/** One pipe before it has levels. */
interface Stretch {
  readonly fromM: number;
  readonly lengthM: number;
  readonly pipeM: number;
}

/** Ground over a stretch: how far along it, and its level [m]. */
function* groundOver({ stepM, groundM }: DrainGround, { fromM, lengthM }: Stretch): Generator<readonly [atM: number, levelM: number]> {
  for (let k = Math.ceil(fromM / stepM - 1e-9); k <= Math.floor((fromM + lengthM) / stepM + 1e-9); k++)
    yield [k * stepM - fromM, groundM[k]];
}

/** Whether its water leaves on the ground at its end, where a pipe comes out of it. */
export const comesOut = ({ ends }: Pick<PipedDrain, 'ends'>, { taker }: DrainGround): boolean => taker === null && ends === 'daylight';

/** Whether a pipe that ends on the ground can have its earth over it at a place: nearer to its end the ground has fallen too far. */
export const canBeCovered = (
  { lengthM, pipeM, endM, coverM }: { readonly lengthM: number; readonly pipeM: number; readonly endM: number; readonly coverM: number },
  atM: number,
  groundM: number,
): boolean => groundM - (endM + leastFall(pipeM) * (lengthM - atM)) >= coverM + pipeM;

/** As high as the upper end of a pipe may lie that falls as little as it must. */
function highest(work: Laid, ground: DrainGround, stretch: Stretch): number {
  const [cover] = COVERS[work.over];
  let best = Infinity;
  for (const [at, level] of groundOver(ground, stretch))
    best = Math.min(best, level - cover - stretch.pipeM + leastFall(stretch.pipeM) * at);
  return best;
}

/** As high as the upper end of a pipe may lie that runs straight to where it comes out of the ground. */
function highestTo(work: Laid, ground: DrainGround, stretch: Stretch): number {
  const [coverM] = COVERS[work.over];
  const { lengthM, pipeM } = stretch;
  const { endM } = ground;
  let best = Infinity;
  for (const [at, level] of groundOver(ground, stretch)) {
    const left = 1 - at / lengthM;
    if (left <= 1e-9 || !canBeCovered({ lengthM, pipeM, endM, coverM }, at, level)) continue;
    best = Math.min(best, (level - coverM - pipeM - (endM * at) / lengthM) / left);
  }
  const [[, first]] = [...groundOver(ground, stretch)];
  return Math.min(best, first - coverM - pipeM);
}

export interface Falls {
  readonly invertsM: readonly number[];
  readonly outletM: number;
  /** How much lower than what takes it, or than the ground where it ends, it would come out [m]; nothing where it comes out above. */
  readonly lowM: number;
}

/** As low as a drain may end: at the invert of what takes it, soffit to soffit, or on the ground it runs onto. */
export function endsOver(work: Pick<PipedDrain, 'ends'>, { taker, endM }: DrainGround, lastM: number): number {
  if (taker?.pipeM !== null && taker !== null) return Math.max(taker.levelM, taker.levelM + taker.pipeM - lastM);
  if (taker) return taker.levelM;
  return work.ends === 'daylight' ? endM : -Infinity;
}

const mm = (v: number): number => Math.round(1000 * v) / 1000;
const upMm = (v: number): number => Math.ceil(1000 * v - 1e-6) / 1000;
/** No last pipe is laid steeper than this by itself: what lies lower is met by a drop [m/m]. */
const MOST_DROP = 0.25;

/**
 * Inverts from the upper end down, each pipe at its least fall at the least and under its cover everywhere, as high as both let it.
 * The last runs steeper where what takes it, or the ground it comes out on, lies deeper.
 */
export function fallsFor(work: Laid, ground: DrainGround): Falls {
  const { basins } = work;
  const ends = [...basins.slice(1).map((b) => b.atM), ground.lengthM];
  const inverts: number[] = [];
  let next = Infinity;
  basins.forEach(({ atM, pipeM }: Basin, k) => {
    const stretch = { fromM: atM, lengthM: ends[k] - atM, pipeM };
    const isLast = k === basins.length - 1;
    const high = isLast && comesOut(work, ground) ? highestTo(work, ground, stretch) : highest(work, ground, stretch);
    inverts.push(Math.floor(1000 * Math.min(next, high) + 1e-6) / 1000);
    next = inverts[k] - leastFall(pipeM) * stretch.lengthM;
  });
  const last = basins[basins.length - 1];
  const level = endsOver(work, ground, last.pipeM);
  if (!Number.isFinite(level) || level >= next) return { invertsM: inverts, outletM: mm(next), lowM: Math.max(0, level - next) };
  const steepest = inverts[inverts.length - 1] - MOST_DROP * (ground.lengthM - last.atM);
  return { invertsM: inverts, outletM: Math.min(mm(next), Math.max(upMm(level), mm(steepest))), lowM: 0 };
}
