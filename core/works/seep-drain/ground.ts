// A seepage drain on its ground: the ground over it, the hollow it lies in, what takes it.
import type { Plot } from '../../contract/index.ts';
import { type Point, evenlyAlong, lineLength } from '../../geometry/index.ts';
import { type PoolGround, centreOf, levelAt, poolAt, poolHolds } from '../../terrain/index.ts';
import { carryOver } from '../lip.ts';
import type { SeepDrain } from './model.ts';

export interface SeepGround {
  readonly lengthM: number;
  readonly stepM: number;
  readonly groundM: Float64Array;
  /** The deepest hollow it lies in, what stands there before it runs on, and how much of the drain lies under that; null on a slope. */
  readonly yard: { readonly deepM: number; readonly holdsM3: number; readonly underM: number; readonly pool: PoolGround } | null;
  /** Places of that hollow. */
  readonly taken: readonly Point[];
  /** What takes it, and where its water stands there. */
  readonly taker: { readonly name: string; readonly levelM: number } | null;
}

const STEP_M = 0.5;
const MOST_PLACES = 2000;
/** Hollows are looked for so far apart [m]; shallower ones are rough ground [m]. */
const [LOOK_M, LEAST_DEEP_M] = [3, 0.04];

function deepestPool(work: SeepDrain, { grid }: Plot, lengthM: number): PoolGround | null {
  const looks = Math.max(1, Math.min(60, Math.ceil(lengthM / LOOK_M)));
  const pools = evenlyAlong(work.line, looks).map((at) => poolAt(grid, at));
  const deep = (p: PoolGround): number => p.spillM - p.lowM;
  return pools.reduce<PoolGround | null>((best, p) => (p && (!best || deep(p) > deep(best)) ? p : best), null);
}

/** @throws UnknownGround where nothing is known of the ground over it. */
export function measureSeep(work: SeepDrain, plot: Plot): SeepGround {
  const lengthM = lineLength(work.line);
  const count = Math.max(2, Math.min(MOST_PLACES, Math.ceil(lengthM / STEP_M)));
  const stepM = lengthM / count;
  const groundM = Float64Array.from(evenlyAlong(work.line, count), (at) => levelAt(plot.grid, at));
  carryOver(groundM, 'No level is known over it');
  const pool = deepestPool(work, plot, lengthM);
  const other = work.into === undefined ? undefined : plot.placed?.get(work.into);
  const store = other?.stores([])[0];
  const pipe = other?.conduits?.[0];
  return {
    lengthM,
    stepM,
    groundM,
    yard:
      pool && pool.spillM - pool.lowM >= LEAST_DEEP_M
        ? {
            deepM: pool.spillM - pool.lowM,
            holdsM3: poolHolds(pool, pool.spillM).volumeM3,
            underM: groundM.reduce((m, level) => (level < pool.spillM ? m + stepM : m), 0),
            pool,
          }
        : null,
    taken: pool ? Array.from(pool.cells, (cell) => centreOf(plot.grid, cell)) : [],
    taker: pipe ? { name: pipe.name, levelM: pipe.lowerM } : store ? { name: store.name, levelM: store.wayOutM } : null,
  };
}
