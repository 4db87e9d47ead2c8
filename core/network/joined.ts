// Stores whose levels hang on each other (joints, drowned outlets), solved together each step by Newton's method.
import { rootOf } from '../hydraulics/index.ts';
import { type Pool, shareAtEnd } from './pool.ts';
import { type Pattern, clear, eliminate, patternOf } from './sparse.ts';

/** A way between two pools of one group: flow by both levels, positive from `a` to `b`. */
export interface Joint {
  readonly a: number;
  readonly b: number;
  /** Its place among the outlets of `a`. */
  readonly outlet: number;
  readonly flowAt: (aM: number, bM: number) => number;
}

/** Difference of levels under which a joint's flow falls off in a straight line: root laws are infinitely steep at nothing [m]. */
const STRAIGHT_M = 0.005;

/** A joint's law made straight where levels are nearly equal. */
export function straightened(law: (upM: number, downM: number) => number): (upM: number, downM: number) => number {
  return (upM, downM) => {
    const difference = upM - downM;
    if (difference >= STRAIGHT_M || difference <= -STRAIGHT_M) return law(upM, downM);
    const high = Math.max(upM, downM);
    const whole = difference >= 0 ? law(high, high - STRAIGHT_M) : law(high - STRAIGHT_M, high);
    return (whole * Math.abs(difference)) / STRAIGHT_M;
  };
}

/** Depth over which a store's joints come to their full flow, so that an empty one gives nothing [m]. */
const FULL_JOINT_M = 0.01;

/** A joint's law that takes nothing from the store on either side that has nothing. */
export function fromWater(
  law: (upM: number, downM: number) => number,
  floors: readonly [aM: number, bM: number],
): (upM: number, downM: number) => number {
  return (upM, downM) => {
    const q = law(upM, downM);
    const depth = q >= 0 ? upM - floors[0] : downM - floors[1];
    return depth >= FULL_JOINT_M ? q : (q * Math.max(0, depth)) / FULL_JOINT_M;
  };
}

const FEEL_M = 1e-6;
const MOST_NEWTON = 40;
const MOST_SWEEPS = 100;
/** Farthest one Newton step moves a level [m]. */
const LONGEST_MOVE_M = 0.5;

/** Share of the water at hand by which a step's volumes may miss: water is kept by what is moved, so only levels feel it. */
const CLOSE = 1e-8;

/** A group being solved. Levels, targets and residuals are by place in the group. */
export class JoinedGroup {
  private readonly levels: Float64Array;
  private readonly targets: Float64Array;
  private readonly later: Float64Array;
  private readonly residual: Float64Array;
  private readonly rows: Float64Array;
  private readonly brought: Float64Array;
  private readonly trial: Float64Array;
  /** What each pool lets out and each joint carries at the levels looked at last [m3/s]. */
  private readonly out: Float64Array;
  private readonly ran: Float64Array;
  /** What each joint carried at the end of the step before [m3/s]. */
  private readonly ranBefore: Float64Array;
  /** How fast each joint brought levels together, as felt last [1/s], and the share of a step's flow that is taken at its end. */
  private readonly draws: Float64Array;
  private readonly ends: Float64Array;
  private readonly isEmpty: Uint8Array;
  private readonly pattern: Pattern;

  constructor(
    readonly pools: readonly Pool[],
    private readonly joints: readonly Joint[],
  ) {
    const n = pools.length;
    [this.levels, this.targets, this.later, this.residual, this.brought, this.trial, this.out] = Array.from(
      { length: 7 },
      () => new Float64Array(n),
    );
    this.ran = new Float64Array(joints.length);
    this.ranBefore = new Float64Array(joints.length);
    this.draws = new Float64Array(joints.length).fill(Infinity);
    this.ends = new Float64Array(joints.length);
    this.isEmpty = new Uint8Array(n);
    this.rows = new Float64Array(n * (n + 1));
    this.pattern = patternOf(
      n,
      joints.map(({ a, b }) => [a, b] as const),
    );
  }

  /** Volumes and outflows against what must be, by levels, and what joints carry there; returns the largest miss [m3]. */
  private miss(levels: Float64Array, stepS: number): number {
    const { pools, joints, residual, targets, later, out, ran, ends, isEmpty } = this;
    for (let j = 0; j < pools.length; j++) {
      out[j] = pools[j].outflowAt(levels[j]);
      residual[j] = pools[j].volumeAt(levels[j]) + later[j] * stepS * out[j] - targets[j];
    }
    for (let k = 0; k < joints.length; k++) {
      const { a, b, flowAt } = joints[k];
      ran[k] = flowAt(levels[a], levels[b]);
      residual[a] += ends[k] * stepS * ran[k];
      residual[b] -= ends[k] * stepS * ran[k];
    }
    let most = 0;
    for (let j = 0; j < residual.length; j++) {
      // More asked of a store than it has: it stands at its floor, and gives what there is.
      isEmpty[j] = residual[j] > 0 && levels[j] <= pools[j].floorM ? 1 : 0;
      if (isEmpty[j] === 0) most = Math.max(most, Math.abs(residual[j]));
    }
    return most;
  }

  /** How all misses answer to each level, written into the rows, with the misses themselves behind. */
  private write(stepS: number): void {
    const { pools, joints, levels, rows, later, residual, out, ran, ends, draws, isEmpty } = this;
    const n = pools.length;
    const width = n + 1;
    clear(rows, this.pattern);
    for (let j = 0; j < n; j++) {
      if (isEmpty[j] === 1) {
        rows[j * width + j] = 1;
        continue;
      }
      const more = pools[j].letsOut ? pools[j].outflowAt(levels[j] + FEEL_M) - out[j] : 0;
      rows[j * width + j] = pools[j].surfaceAt(levels[j]) + (later[j] * stepS * more) / FEEL_M;
      rows[j * width + n] = -residual[j];
    }
    for (let k = 0; k < joints.length; k++) {
      const { a, b, flowAt } = joints[k];
      if (isEmpty[a] === 1 && isEmpty[b] === 1) continue;
      // By the level beyond first: laws keep what they worked out for a level asked last.
      const perB = (flowAt(levels[a], levels[b] + FEEL_M) - ran[k]) / FEEL_M;
      const perA = (flowAt(levels[a] + FEEL_M, levels[b]) - ran[k]) / FEEL_M;
      draws[k] = Math.abs(perA) / pools[a].surfaceAt(levels[a]) + Math.abs(perB) / pools[b].surfaceAt(levels[b]);
      const [byA, byB] = [ends[k] * stepS * perA, ends[k] * stepS * perB];
      if (isEmpty[a] === 0) {
        rows[a * width + a] += byA;
        rows[a * width + b] += byB;
      }
      if (isEmpty[b] === 0) {
        rows[b * width + a] -= byA;
        rows[b * width + b] -= byB;
      }
    }
  }

  private newton(stepS: number, close: number): boolean {
    const { pools, levels, rows, trial } = this;
    const n = pools.length;
    const width = n + 1;
    let worst = this.miss(levels, stepS);
    for (let round = 0; round < MOST_NEWTON && worst > close; round++) {
      this.write(stepS);
      if (!eliminate(rows, this.pattern)) return false;
      let share = 1;
      for (let j = 0; j < n; j++) share = Math.min(share, LONGEST_MOVE_M / Math.max(1e-12, Math.abs(rows[j * width + n])));
      let better = false;
      for (let halving = 0; halving < 12 && !better; halving++, share /= 2) {
        for (let j = 0; j < n; j++) trial[j] = Math.max(pools[j].floorM, levels[j] + share * rows[j * width + n]);
        const found = this.miss(trial, stepS);
        better = found < worst;
        if (better) {
          worst = found;
          levels.set(trial);
        }
      }
      if (!better) return false;
    }
    return worst <= close;
  }

  /** One store after another, each exactly by its neighbours' levels: slow and sure, since no store's level lowers another's. */
  private sweep(stepS: number, close: number): void {
    const { pools, joints, levels, targets, later, ends } = this;
    for (let round = 0; round < MOST_SWEEPS; round++) {
      if (this.miss(levels, stepS) <= close) return;
      for (let j = 0; j < pools.length; j++) {
        const pool = pools[j];
        const over = (h: number): number => {
          let sum = pool.volumeAt(h) + later[j] * stepS * pool.outflowAt(h) - targets[j];
          for (let k = 0; k < joints.length; k++) {
            const { a, b, flowAt } = joints[k];
            if (a === j) sum += ends[k] * stepS * flowAt(h, levels[b]);
            else if (b === j) sum -= ends[k] * stepS * flowAt(levels[a], h);
          }
          return sum;
        };
        levels[j] = rootOf(over, pool.floorM, Math.max(pool.floorM, levels[j]) + 0.01);
      }
    }
    this.miss(levels, stepS);
  }

  /**
   * `n` steps of all its pools, taken as one: how much the one that stirs most does. Where that is more than may be nothing is done.
   */
  step(i: number, n: number, on: { readonly meanIn: Float64Array; readonly stepS: number }): number {
    const { pools, joints, levels, targets, later, brought, ran, ranBefore, ends } = this;
    const { meanIn } = on;
    const stepS = n * on.stepS;
    if (this.rests(i, meanIn)) {
      for (const pool of pools) pool.rest(i, n);
      this.ranBefore.fill(0);
      return 0;
    }
    let scale = 1;
    for (let j = 0; j < pools.length; j++) {
      const pool = pools[j];
      const there = pool.volumeM3[i] + stepS * meanIn[j];
      // What leaves by the flow at the beginning of the step can never be more than there is.
      const most = pool.leftBefore > 0 ? Math.max(0, 1 - there / (stepS * pool.leftBefore)) : 0;
      later[j] = pool.letsOut ? Math.max(pool.laterShare(i, stepS), most) : 0.5;
      targets[j] = there - (1 - later[j]) * stepS * pool.leftBefore;
      // It goes on as it came.
      levels[j] = Math.max(pool.floorM, pool.levelM[i] + (i === 0 ? 0 : n * (pool.levelM[i] - pool.levelM[i - 1])));
      scale = Math.max(scale, Math.abs(there));
    }
    this.takeEnds(stepS);
    const close = CLOSE * scale;
    if (!this.newton(stepS, close)) this.sweep(stepS, close);
    let stirs = 0;
    for (let j = 0; j < pools.length; j++) stirs = Math.max(stirs, pools[j].stirs(i, levels[j], { n, stepS }));
    if (n > 1 && stirs > 1) return stirs;
    brought.fill(0);
    for (let k = 0; k < joints.length; k++) {
      const { a, b, outlet } = joints[k];
      const q = ends[k] * ran[k] + (1 - ends[k]) * ranBefore[k];
      if (n === 1) pools[a].flows[outlet][i] = q;
      else pools[a].flows[outlet].fill(q, i, i + n);
      brought[a] -= q * stepS;
      brought[b] += q * stepS;
    }
    ranBefore.set(ran);
    for (let j = 0; j < pools.length; j++) {
      pools[j].settle(i, n, { stepS: on.stepS, later: later[j], meanIn: meanIn[j], levelM: levels[j], jointIn: brought[j] });
    }
    return stirs;
  }

  /**
   * Share of each joint's flow that is taken at the end of a step, as with a pool's own outlets: half while the joint is slow, all
   * of it where it brings levels together faster than the step, or where the flow it had could ask for more than there is. What is
   * taken at the beginning goes into the targets.
   */
  private takeEnds(stepS: number): void {
    const { joints, targets, ranBefore, draws, ends } = this;
    for (let k = 0; k < joints.length; k++) {
      const { a, b } = joints[k];
      const asks = (stepS * ranBefore[k]) / 2;
      const gives = asks >= 0 ? targets[a] : targets[b];
      ends[k] = Math.abs(asks) > gives / joints.length ? 1 : shareAtEnd(stepS * draws[k]);
    }
    for (let k = 0; k < joints.length; k++) {
      const { a, b } = joints[k];
      const movedM3 = (1 - ends[k]) * stepS * ranBefore[k];
      targets[a] -= movedM3;
      targets[b] += movedM3;
    }
  }

  private rests(i: number, meanIn: Float64Array): boolean {
    const { pools, joints } = this;
    return (
      pools.every((pool, j) => pool.rests(meanIn[j])) &&
      joints.every(({ a, b, flowAt }) => flowAt(pools[a].levelM[i], pools[b].levelM[i]) === 0)
    );
  }
}
