// A hollow of the ground as a store: what stands in it, what lets it out, and where it runs on.
import type { Outlet, Store } from '../contract/index.ts';
import { GRATE_HOLE, GRATE_WEIR, GRAVITY, grassedSillLaw } from '../hydraulics/index.ts';
import { type PoolGround, poolHolds } from '../terrain/index.ts';

/** Over how much edge water runs on from a yard, and how high over that it is followed [m]: common practice. */
const [RUNS_ON_M, ABOVE_M] = [3, 0.6];
/** Over a grate the ground is led to it: a dish no smaller than a pace across [m2]; water stands so deep over it before it runs past [m]. */
const [DISH_M2, LEAST_DEEP_M] = [1, 0.02];
/** Ground about a yard stands so much over where it runs on that more than wet feet come of it [m]: where no sill is known. */
const ABOUT_M = 0.15;
const STAGES = 32;

export interface YardOf {
  readonly id: string;
  readonly work: string;
  readonly name: string;
  readonly pool: PoolGround;
  /** Where its lowest grate lets it out; null where nothing made does. */
  readonly grateM: number | null;
  /** The lowest sill that must stay dry, by the owner’s word. */
  readonly thresholdM?: number;
  readonly ways: readonly Outlet[];
  /** On a slope nothing stands, and nothing is shared. */
  readonly isOnSlope?: boolean;
}

/** The store of a hollow: all of it that fills, let out by what is given, over its edge beyond. */
export function yardStore({ id, work, name, pool, grateM, thresholdM, ways, isOnSlope = false }: YardOf): Store {
  const past = grateM === null ? -Infinity : grateM + LEAST_DEEP_M;
  const spillM = Math.max(pool.spillM, past);
  const floorM = Math.min(pool.lowM, grateM ?? pool.lowM);
  const topM = Math.max(spillM, thresholdM ?? spillM) + ABOVE_M;
  const besides = (level: number): { readonly volumeM3: number; readonly areaM2: number } =>
    grateM === null || level <= grateM ? NOTHING : { volumeM3: DISH_M2 * (level - grateM), areaM2: DISH_M2 };
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => floorM + (k / STAGES) ** 2 * (topM - floorM));
  const wayOutM = Math.max(floorM, grateM ?? spillM);
  const over: Outlet = {
    id: `${id}#on`,
    role: 'on',
    work,
    name: `${name}: over the ground`,
    kind: 'bank',
    levelM: spillM,
    dischargeAt: pool.spillAt,
    flowAt: grassedSillLaw({ lengthM: RUNS_ON_M, levelM: spillM }),
  };
  return {
    id,
    work,
    name,
    floorM,
    sillM: grateM,
    wayOutM,
    crestM: Math.max(thresholdM ?? pool.spillM + ABOUT_M, past),
    heldM3: poolHolds(pool, wayOutM).volumeM3,
    stage: {
      levelM,
      volumeM3: levelM.map((level) => poolHolds(pool, level).volumeM3 + besides(level).volumeM3),
      wettedM2: levelM.map((level) => Math.max(besides(level).areaM2, poolHolds(pool, level).areaM2)),
    },
    outlets: [...ways, over],
    ...(isOnSlope ? {} : { hollow: { pool, besides, ...(thresholdM === undefined ? {} : { saidM: thresholdM }) } }),
  };
}
const NOTHING = { volumeM3: 0, areaM2: 0 };

/** Edge and opening of a grate, and the share of both that leaves leave open. */
export interface Opening {
  readonly P: number;
  readonly A: number;
  readonly open: number;
}

/** Water both ways through a grate: into the shaft below, or up out of it where that stands higher. */
export function grateFlow({ P, A, open }: Opening, grateM: number): (levelM: number, beyondM?: number) => number {
  // The formula's two parts at a depth of a metre: it is asked millions of times.
  const [weir, hole] = [GRATE_WEIR * open * P, GRATE_HOLE * open * A * Math.sqrt(2 * GRAVITY)];
  const down = (high: number, low: number): number => {
    const depth = high - (low > grateM ? low : grateM);
    if (depth <= 0) return 0;
    const root = Math.sqrt(depth);
    return Math.min(weir * depth * root, hole * root);
  };
  return (levelM, beyondM = -Infinity) => (levelM >= beyondM ? down(levelM, beyondM) : -down(beyondM, levelM));
}

/** A grate as a way out of the yard it lies in, into what stands below it. */
export const grateOutlet = (
  on: Pick<Outlet, 'id' | 'work' | 'name' | 'levelM' | 'dischargeAt'> & { readonly to: string },
  opening: Opening,
): Outlet => ({ ...on, role: 'mouth', kind: 'joint', drownsM: -Infinity, flowAt: grateFlow(opening, on.levelM) });
