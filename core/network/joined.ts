// Stores whose levels hang on each other (joints, drowned outlets), solved together each step by Newton's method.
import { rootOf } from '../hydraulics/index.ts';
import type { Joint } from './joint.ts';
import { newMove, shareAtEnd } from './move.ts';
import type { Pool } from './pool.ts';
import { type Pattern, eliminate, patternOf } from './sparse.ts';

const FEEL_M = 1e-6;
/** Levels nearer than this to where a law was read are taken along its slope there [m]. */
const SAME_M = 1e-6;
/** Levels that moved less tell nothing of how a law answers [m]. */
const LEAST_MOVE_M = 1e-7;
/** What a look has to find less of the miss for how laws answer to be near enough. */
const WELL = 8;
const MOST_NEWTON = 40;
const MOST_SWEEPS = 100;
/** Farthest one Newton step moves a level [m]. */
const LONGEST_MOVE_M = 0.5;

/** Under so much of what it moves a joint answers within a step, it is slow for sure, though how it answers was only learned. */
const SURELY_SLOW = 0.5;

/** How far levels may be from where a step's volumes ask for them [m]: water is kept by what is moved, so only levels feel it. */
const CLOSE_M = 2e-6;
/** A miss is told as so much level over no less water than this [m2]. */
const LEAST_SURFACE_M2 = 0.05;

/** A group being solved. Levels, targets and residuals are by place in the group. */
export class JoinedGroup {
  private readonly levels: Float64Array;
  private readonly targets: Float64Array;
  private readonly later: Float64Array;
  private readonly residual: Float64Array;
  private readonly brought: Float64Array;
  private readonly trial: Float64Array;
  private readonly floors: Float64Array;
  private readonly surfaces: Float64Array;
  /** What a miss of a pool's volume is in level, about [1/m2]. */
  private readonly weights: Float64Array;
  private readonly values: Float64Array;
  private readonly moves: Float64Array;
  /** What each pool lets out and each joint carries at the levels looked at last [m3/s]. */
  private readonly out: Float64Array;
  private readonly ran: Float64Array;
  private readonly volumes: Float64Array;
  /** The same where laws were read last, and at which levels that was; NaN before the first time. */
  private readonly levelAt: Float64Array;
  private readonly volumeAt: Float64Array;
  private readonly outAt: Float64Array;
  private readonly ranAt: Float64Array;
  private readonly atA: Float64Array;
  private readonly atB: Float64Array;
  /** The same at the levels the one looked at last was come to from. */
  private readonly outThen: Float64Array;
  private readonly ranThen: Float64Array;
  /** How fast each joint answers to the levels of both its stores, and each pool's own ways out to its own, as felt last [m2/s]. */
  private readonly perA: Float64Array;
  private readonly perB: Float64Array;
  private readonly perOut: Float64Array;
  /** At which levels each joint was felt last. */
  private readonly feltA: Float64Array;
  private readonly feltB: Float64Array;
  private isFelt = false;
  /** What each joint carried at the end of the step before [m3/s]. */
  private readonly ranBefore: Float64Array;
  /** The share of a step's flow that is taken at its end. */
  private readonly ends: Float64Array;
  private readonly isEmpty: Uint8Array;
  private readonly pattern: Pattern;
  private readonly move = newMove();
  /** Stores of each joint, and where stands how what one of them holds answers to the level of the other. */
  private readonly ofA: Int32Array;
  private readonly ofB: Int32Array;
  private readonly atAB: Int32Array;
  private readonly atBA: Int32Array;

  constructor(
    readonly pools: readonly Pool[],
    private readonly joints: readonly Joint[],
  ) {
    const n = pools.length;
    const byPool = (): Float64Array => new Float64Array(n);
    const byJoint = (): Float64Array => new Float64Array(joints.length);
    [this.levels, this.targets, this.later, this.residual, this.brought, this.trial, this.moves, this.weights] = Array.from(
      { length: 8 },
      byPool,
    );
    this.surfaces = Float64Array.from(pools, (p) => p.surfaceAt(p.floorM));
    [this.out, this.outThen, this.perOut, this.volumes, this.volumeAt, this.outAt] = Array.from({ length: 6 }, byPool);
    this.floors = Float64Array.from(pools, (p) => p.floorM);
    [this.ran, this.ranThen, this.ranBefore, this.ranAt, this.perA, this.perB, this.ends] = Array.from({ length: 7 }, byJoint);
    // Before it was ever felt a joint is taken to be as fast as can be.
    this.perA.fill(Infinity);
    this.levelAt = byPool().fill(NaN);
    [this.atA, this.atB, this.feltA, this.feltB] = Array.from({ length: 4 }, () => byJoint().fill(NaN));
    this.isEmpty = new Uint8Array(n);
    this.pattern = patternOf(
      n,
      joints.map(({ a, b }) => [a, b] as const),
    );
    this.values = new Float64Array(this.pattern.size);
    const { placeOf } = this.pattern;
    this.ofA = Int32Array.from(joints, (one) => one.a);
    this.ofB = Int32Array.from(joints, (one) => one.b);
    this.atAB = Int32Array.from(joints, ({ a, b }) => placeOf(a, b));
    this.atBA = Int32Array.from(joints, ({ a, b }) => placeOf(b, a));
  }

  /** Volumes and outflows against what must be, by levels, and what joints carry there; returns the largest miss, as level [m]. */
  private miss(levels: Float64Array, stepS: number): number {
    const { floors, residual, targets, later, out, isEmpty, weights } = this;
    this.look(levels);
    for (let j = 0; j < residual.length; j++) residual[j] = this.volumes[j] + later[j] * stepS * out[j] - targets[j];
    this.carry(stepS);
    let most = 0;
    for (let j = 0; j < residual.length; j++) {
      const r = residual[j];
      // More asked of a store than it has: it stands at its floor, and gives what there is.
      isEmpty[j] = r > 0 && levels[j] <= floors[j] ? 1 : 0;
      if (isEmpty[j] === 0) most = Math.max(most, weights[j] * Math.abs(r));
    }
    return most;
  }

  /** What pools hold and let out, and what joints carry, at levels: read from their laws where a level is another, else along their slope. */
  private look(levels: Float64Array): void {
    const { pools, joints, ofA, ofB, volumes, surfaces, volumeAt, levelAt, out, outAt, perOut, ran, ranAt, atA, atB, perA, perB } = this;
    for (let j = 0; j < pools.length; j++) {
      const by = levels[j] - levelAt[j];
      if (by < SAME_M && by > -SAME_M) {
        volumes[j] = volumeAt[j] + by * surfaces[j];
        out[j] = outAt[j] + by * perOut[j];
        continue;
      }
      const pool = pools[j];
      levelAt[j] = levels[j];
      volumes[j] = volumeAt[j] = pool.volumeAt(levels[j]);
      surfaces[j] = pool.surfaceThere;
      out[j] = outAt[j] = pool.outflowAt(levels[j]);
    }
    for (let k = 0; k < ofA.length; k++) {
      const upM = levels[ofA[k]];
      const downM = levels[ofB[k]];
      const byA = upM - atA[k];
      const byB = downM - atB[k];
      if (byA < SAME_M && byA > -SAME_M && byB < SAME_M && byB > -SAME_M) {
        ran[k] = ranAt[k] + byA * perA[k] + byB * perB[k];
        continue;
      }
      atA[k] = upM;
      atB[k] = downM;
      ran[k] = ranAt[k] = joints[k].flowAt(upM, downM);
    }
  }

  /** What joints carry by the end of a step, taken from one store's miss and given to the other's. */
  private carry(stepS: number): void {
    const { ofA, ofB, residual, ran, ends } = this;
    for (let k = 0; k < ofA.length; k++) {
      const movedM3 = ends[k] * stepS * ran[k];
      residual[ofA[k]] += movedM3;
      residual[ofB[k]] -= movedM3;
    }
  }

  /** Feels where laws were read last how fast everything answers there. */
  private feel(): void {
    const { pools, levelAt, outAt, perOut } = this;
    for (let j = 0; j < pools.length; j++) {
      perOut[j] = pools[j].letsOut ? (pools[j].outflowAt(levelAt[j] + FEEL_M) - outAt[j]) / FEEL_M : 0;
    }
    for (let k = 0; k < this.joints.length; k++) this.feelJoint(k);
    this.isFelt = true;
  }

  /** The same of a joint alone, unless it was felt there already. */
  private feelJoint(k: number): void {
    const { ranAt, atA, atB, feltA, feltB, perA, perB } = this;
    if (feltA[k] === atA[k] && feltB[k] === atB[k]) return;
    const { flowAt } = this.joints[k];
    // By the level beyond first: laws keep what they worked out for a level asked last.
    perB[k] = (flowAt(atA[k], atB[k] + FEEL_M) - ranAt[k]) / FEEL_M;
    perA[k] = (flowAt(atA[k] + FEEL_M, atB[k]) - ranAt[k]) / FEEL_M;
    feltA[k] = atA[k];
    feltB[k] = atB[k];
  }

  /**
   * Learns how fast everything answers from what it did between two looks: each law by itself, as little as must be along the way
   * levels went (Broyden's rule, law by law).
   */
  private learn(): void {
    const { ofA, ofB, levels, trial, out, ran, outThen, ranThen, feltA, perA, perB, perOut } = this;
    for (let j = 0; j < out.length; j++) {
      const moved = trial[j] - levels[j];
      if (Math.abs(moved) > LEAST_MOVE_M) perOut[j] = (out[j] - outThen[j]) / moved;
    }
    for (let k = 0; k < ofA.length; k++) {
      const a = ofA[k];
      const b = ofB[k];
      const byA = trial[a] - levels[a];
      const byB = trial[b] - levels[b];
      const far = byA * byA + byB * byB;
      if (far < LEAST_MOVE_M * LEAST_MOVE_M) continue;
      const off = (ran[k] - ranThen[k] - perA[k] * byA - perB[k] * byB) / far;
      if (off === 0) continue;
      perA[k] += off * byA;
      perB[k] += off * byB;
      feltA[k] = NaN;
    }
  }

  /** How all misses answer to each level, written into the system, with the misses themselves on its right. */
  private write(stepS: number): void {
    const { ofA, ofB, atAB, atBA, values, moves, surfaces, later, residual, ends, isEmpty, perA, perB, perOut } = this;
    values.fill(0, surfaces.length);
    for (let j = 0; j < surfaces.length; j++) {
      const isOut = isEmpty[j] === 1;
      values[j] = isOut ? 1 : surfaces[j] + later[j] * stepS * perOut[j];
      moves[j] = isOut ? 0 : -residual[j];
    }
    for (let k = 0; k < ofA.length; k++) {
      const a = ofA[k];
      const b = ofB[k];
      const byA = ends[k] * stepS * perA[k];
      const byB = ends[k] * stepS * perB[k];
      if (isEmpty[a] === 0) {
        values[a] += byA;
        values[atAB[k]] += byB;
      }
      if (isEmpty[b] === 0) {
        values[atBA[k]] -= byA;
        values[b] -= byB;
      }
    }
  }

  /** Levels of the next look into `trial`, by a share of the way the system says. */
  private tryOn(share: number): void {
    const { floors, levels, trial, moves } = this;
    for (let j = 0; j < trial.length; j++) trial[j] = Math.max(floors[j], levels[j] + share * moves[j]);
  }

  /**
   * Newton's method by how laws answered when last felt, learned on from every look: felt anew only where a look finds much less
   * than it should.
   */
  private newton(stepS: number): boolean {
    const { levels, trial, moves, out, ran, outThen, ranThen } = this;
    let worst = this.miss(levels, stepS);
    let isFresh = false;
    for (let round = 0; round < MOST_NEWTON && worst > CLOSE_M; round++) {
      if (!this.isFelt) {
        this.feel();
        isFresh = true;
      }
      this.write(stepS);
      if (!eliminate(this.values, moves, this.pattern)) return false;
      outThen.set(out);
      ranThen.set(ran);
      let farthest = 0;
      for (let j = 0; j < moves.length; j++) farthest = Math.max(farthest, Math.abs(moves[j]));
      let share = farthest > LONGEST_MOVE_M ? LONGEST_MOVE_M / farthest : 1;
      let better = false;
      for (let halving = 0; halving < 12 && !better; halving++, share /= 2) {
        this.tryOn(share);
        const found = this.miss(trial, stepS);
        better = found < worst;
        // Before a shorter way is tried along what was learned, it is felt whether that is true.
        if (!better && !isFresh) break;
        if (!better) continue;
        this.learn();
        this.isFelt = found < worst / WELL;
        worst = found;
        levels.set(trial);
      }
      if (!better && isFresh) return false;
      if (!better) {
        this.miss(levels, stepS);
        this.isFelt = false;
      }
      isFresh = false;
    }
    return worst <= CLOSE_M;
  }

  /** One store after another, each exactly by its neighbours' levels: slow and sure, since no store's level lowers another's. */
  private sweep(stepS: number): void {
    const { pools, joints, levels, targets, later, ends } = this;
    const near = pools.map((_, j) => joints.flatMap(({ a, b }, k) => (a === j || b === j ? [k] : [])));
    for (let round = 0; round < MOST_SWEEPS; round++) {
      if (this.miss(levels, stepS) <= CLOSE_M) return;
      pools.forEach((pool, j) => {
        const over = (h: number): number => {
          let sum = pool.volumeAt(h) + later[j] * stepS * pool.outflowAt(h) - targets[j];
          for (const k of near[j]) {
            const { a, b, flowAt } = joints[k];
            if (a === j) sum += ends[k] * stepS * flowAt(h, levels[b]);
            else sum -= ends[k] * stepS * flowAt(levels[a], h);
          }
          return sum;
        };
        levels[j] = rootOf(over, pool.floorM, Math.max(pool.floorM, levels[j]) + 0.01);
      });
    }
    this.miss(levels, stepS);
  }

  /**
   * `n` steps of all its pools, taken as one: how much the one that stirs most does. Where that is more than may be nothing is done.
   */
  step(i: number, n: number, on: { readonly meanIn: Float64Array; readonly stepS: number }): number {
    const { move } = this;
    const { pools, joints, levels, targets, later, brought, ran, ranBefore, ends, weights } = this;
    const { meanIn } = on;
    const stepS = n * on.stepS;
    if (this.rests(i, meanIn)) {
      for (const pool of pools) pool.rest(i, n);
      this.ranBefore.fill(0);
      return 0;
    }
    for (let j = 0; j < pools.length; j++) {
      const pool = pools[j];
      const there = pool.nowM3 + stepS * meanIn[j];
      // What leaves by the flow at the beginning of the step can never be more than there is.
      const most = pool.leftBefore > 0 ? Math.max(0, 1 - there / (stepS * pool.leftBefore)) : 0;
      later[j] = pool.letsOut ? Math.max(pool.laterShare(stepS), most) : 0.5;
      targets[j] = there - (1 - later[j]) * stepS * pool.leftBefore;
      // It goes on as it came.
      levels[j] = pool.goingTo(n);
      weights[j] = 1 / Math.max(LEAST_SURFACE_M2, pool.surfaceAt(levels[j]));
    }
    this.takeEnds(stepS);
    if (!this.newton(stepS)) this.sweep(stepS);
    let stirs = 0;
    move.stepS = on.stepS;
    for (let j = 0; j < pools.length; j++) {
      move.levelM = levels[j];
      stirs = Math.max(stirs, pools[j].stirs(move, n));
    }
    if (n > 1 && stirs > 1) return stirs;
    brought.fill(0);
    for (let k = 0; k < joints.length; k++) {
      const { a, b, outlet } = joints[k];
      const q = ends[k] * ran[k] + (1 - ends[k]) * ranBefore[k];
      const flow = pools[a].flowOf(outlet);
      for (let at = i; at < i + n; at++) flow[at] = q;
      brought[a] -= q * stepS;
      brought[b] += q * stepS;
    }
    ranBefore.set(ran);
    for (let j = 0; j < pools.length; j++) {
      move.later = later[j];
      move.meanIn = meanIn[j];
      move.levelM = levels[j];
      move.jointIn = brought[j];
      pools[j].settle(i, n, move);
    }
    return stirs;
  }

  /**
   * Share of each joint's flow that is taken at the end of a step, as with a pool's own outlets: half while the joint is slow, all
   * of it where it brings levels together faster than the step, or where the flow it had could ask for more than there is. What is
   * taken at the beginning goes into the targets.
   */
  private takeEnds(stepS: number): void {
    const { ofA, ofB, targets, ranBefore, atA, ends } = this;
    for (let k = 0; k < ofA.length; k++) {
      let draws = this.drawsOf(k);
      // What was learned is not near enough to part a step by; before its law was ever read there is nothing to feel.
      if (stepS * draws > SURELY_SLOW && !Number.isNaN(atA[k])) {
        this.feelJoint(k);
        draws = this.drawsOf(k);
      }
      const asks = (stepS * ranBefore[k]) / 2;
      const gives = targets[asks >= 0 ? ofA[k] : ofB[k]];
      ends[k] = Math.abs(asks) > gives / ofA.length ? 1 : shareAtEnd(stepS * draws);
    }
    for (let k = 0; k < ofA.length; k++) {
      const movedM3 = (1 - ends[k]) * stepS * ranBefore[k];
      targets[ofA[k]] -= movedM3;
      targets[ofB[k]] += movedM3;
    }
  }

  /** How much of the difference of its levels a joint takes away in a second [1/s]. */
  private drawsOf(k: number): number {
    const { ofA, ofB, surfaces, perA, perB } = this;
    return Math.abs(perA[k]) / surfaces[ofA[k]] + Math.abs(perB[k]) / surfaces[ofB[k]];
  }

  private rests(i: number, meanIn: Float64Array): boolean {
    const { pools, joints } = this;
    return (
      pools.every((pool, j) => pool.rests(meanIn[j])) &&
      joints.every(({ a, b, flowAt }) => flowAt(pools[a].levelM[i], pools[b].levelM[i]) === 0)
    );
  }
}
