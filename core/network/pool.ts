// One store in a storm: a level pool solved implicitly by the storage-indication method (Chow, Maidment & Mays 1988,
// section 8.2). Volume is the state and fluxes move it, so water is neither made nor lost.
import type { Stage } from '../contract/index.ts';

export interface RoutedOutlet {
  readonly id: string;
  readonly to: string;
  readonly lagS: number;
  readonly flowAt: (levelM: number) => number;
}

export interface RoutedStore {
  readonly id: string;
  readonly stage: Stage;
  /** Inflow from its own catchment at the end of each step [m3/s]. */
  readonly inflow: ArrayLike<number>;
  readonly outlets: readonly RoutedOutlet[];
  /** Soakage through the wetted surface [m/s]; 0 takes no credit for it. */
  readonly soakMPerS?: number;
}

export interface StoreRun {
  readonly id: string;
  /** Level at the start and at the end of each step [m]. */
  readonly levelM: Float64Array;
  readonly volumeM3: Float64Array;
  /** All flow arriving and leaving at the same instants [m3/s]. */
  readonly inM3s: Float64Array;
  readonly outM3s: Float64Array;
  readonly inM3: number;
  readonly soakedM3: number;
  readonly outM3: number;
}

export interface OutletRun {
  readonly id: string;
  readonly volumeM3: number;
  readonly peakM3s: number;
  readonly flowM3s: Float64Array;
}

/** Value of a rising table at x; beyond its ends the last piece is continued. */
function interpolate(xs: Float64Array, ys: Float64Array, x: number): number {
  let lo = 0;
  let hi = xs.length - 1;
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (xs[mid] <= x) lo = mid;
    else hi = mid;
  }
  const span = xs[hi] - xs[lo];
  return span === 0 ? ys[lo] : ys[lo] + ((ys[hi] - ys[lo]) * (x - xs[lo])) / span;
}

/** Depth at which the whole floor is wet; soakage rises to its full rate over it, so that it has no jump at empty [m]. */
const FULL_SOAK_M = 0.005;

/** Rise used to feel how fast outflow answers to level [m]. */
const PROBE_M = 0.001;

/** A store being routed: its tables, its laws, and the flows they gave last (each outlet, then soakage). */
interface Pool {
  readonly stage: Stage;
  readonly outlets: readonly RoutedOutlet[];
  readonly soakMPerS: number;
  readonly flows: Float64Array;
}

/** All outflow at a level [m3/s]; leaves its parts in `pool.flows`. */
function outflowAt({ stage, outlets, soakMPerS, flows }: Pool, level: number): number {
  let sum = 0;
  for (let k = 0; k < outlets.length; k++) {
    const q = outlets[k].flowAt(level);
    flows[k] = q;
    sum += q;
  }
  if (soakMPerS > 0) {
    const wet = Math.min(1, Math.max(0, (level - stage.levelM[0]) / FULL_SOAK_M));
    flows[outlets.length] = soakMPerS * wet * interpolate(stage.levelM, stage.wettedM2, level);
    sum += flows[outlets.length];
  }
  return sum;
}

/** Volume a store takes for the probing rise [m3]. */
function contentOf({ levelM, volumeM3 }: Stage, level: number): number {
  return Math.max(1e-9, interpolate(levelM, volumeM3, level + PROBE_M) - interpolate(levelM, volumeM3, level));
}

interface Step {
  /** Volume plus `laterS` of outflow that the new level must make up [m3]. */
  readonly targetM3: number;
  readonly laterS: number;
  readonly guessM: number;
}

/** Level at which volume plus the step's later outflow equals the target: both rise with level, so there is one. */
function solveLevel(pool: Pool, { targetM3, laterS, guessM }: Step): number {
  const { levelM, volumeM3 } = pool.stage;
  const floor = levelM[0];
  let lo = guessM;
  let hi = guessM;
  let fLo = interpolate(levelM, volumeM3, guessM) + laterS * outflowAt(pool, guessM) - targetM3;
  let fHi = fLo;
  // Outwards from the last level until the target is bracketed: from step to step levels move by millimetres.
  for (let widen = PROBE_M; fHi < 0; widen *= 2) {
    lo = hi;
    fLo = fHi;
    hi += widen;
    fHi = interpolate(levelM, volumeM3, hi) + laterS * outflowAt(pool, hi) - targetM3;
  }
  for (let widen = PROBE_M; fLo > 0; widen *= 2) {
    if (lo <= floor) return floor;
    hi = lo;
    fHi = fLo;
    lo = Math.max(floor, lo - widen);
    fLo = interpolate(levelM, volumeM3, lo) + laterS * outflowAt(pool, lo) - targetM3;
  }
  // Regula falsi with the Illinois weight: bracketed, and quick on these nearly straight curves.
  const close = 1e-13 * Math.max(1, Math.abs(targetM3));
  for (let k = 0, side = 0; k < 60 && hi - lo > 1e-12 * Math.max(1, Math.abs(hi)); k++) {
    const h = k % 8 === 7 || fHi === fLo ? (lo + hi) / 2 : (lo * fHi - hi * fLo) / (fHi - fLo);
    const f = interpolate(levelM, volumeM3, h) + laterS * outflowAt(pool, h) - targetM3;
    if (Math.abs(f) < close) return h;
    if (f > 0) {
      hi = h;
      fHi = f;
      if (side === 1) fLo /= 2;
      side = 1;
    } else {
      lo = h;
      fLo = f;
      if (side === -1) fHi /= 2;
      side = -1;
    }
  }
  return (lo + hi) / 2;
}

/**
 * Routes one store over a series of inflows given as mean flow of each step.
 * Solves V1 + θ·dt·O(V1) = V0 + dt·I − (1−θ)·dt·O(V0), O being all outlets and soakage. θ is 1/2 (storage indication)
 * while the step is short for the store; where outflow answers faster than the step it moves towards 1, so that the
 * level cannot swing about its true course.
 */
export function poolRun(store: RoutedStore, meanIn: Float64Array, stepS: number): { run: StoreRun; outlets: OutletRun[] } {
  const { stage, outlets } = store;
  const soaking = outlets.length;
  const pool: Pool = { stage, outlets, soakMPerS: store.soakMPerS ?? 0, flows: new Float64Array(soaking + 1) };
  const steps = meanIn.length;
  const level = new Float64Array(steps + 1);
  const volume = new Float64Array(steps + 1);
  const inM3s = new Float64Array(steps + 1);
  const outM3s = new Float64Array(steps + 1);
  const perOutlet = outlets.map(() => ({ volumeM3: 0, peakM3s: 0, flow: new Float64Array(steps) }));
  const flowsBefore = new Float64Array(soaking + 1);
  level[0] = stage.levelM[0];
  let before = outflowAt(pool, level[0]);
  flowsBefore.set(pool.flows);
  let [inM3, soakedM3, outM3] = [0, 0, 0];
  for (let i = 0; i < steps; i++) {
    const add = meanIn[i] * stepS;
    inM3 += add;
    inM3s[i + 1] = meanIn[i];
    if (add === 0 && before === 0) {
      // Nothing comes and nothing leaves: water stands below its way out.
      volume[i + 1] = volume[i];
      level[i + 1] = level[i];
      continue;
    }
    const answer = (stepS * (outflowAt(pool, level[i] + PROBE_M) - before)) / contentOf(stage, level[i]);
    const later = Math.max(0.5, 1 - 1 / Math.max(1e-9, answer));
    const first = 1 - later;
    const h = solveLevel(pool, { targetM3: volume[i] + add - first * stepS * before, laterS: later * stepS, guessM: level[i] });
    const now = outflowAt(pool, h);
    // More cannot leave than there is: an emptying store scales all its outlets.
    const wanted = stepS * (first * before + later * now);
    const scale = wanted > volume[i] + add ? (volume[i] + add) / wanted : 1;
    let left = 0;
    for (let k = 0; k < soaking; k++) {
      const moved = scale * stepS * (first * flowsBefore[k] + later * pool.flows[k]);
      left += moved;
      perOutlet[k].volumeM3 += moved;
      perOutlet[k].flow[i] = moved / stepS;
      if (pool.flows[k] > perOutlet[k].peakM3s) perOutlet[k].peakM3s = pool.flows[k];
    }
    const soaked = scale * stepS * (first * flowsBefore[soaking] + later * pool.flows[soaking]);
    outM3 += left;
    soakedM3 += soaked;
    volume[i + 1] = Math.max(0, volume[i] + add - left - soaked);
    level[i + 1] = interpolate(stage.volumeM3, stage.levelM, volume[i + 1]);
    before = outflowAt(pool, level[i + 1]);
    outM3s[i + 1] = before - pool.flows[soaking];
    flowsBefore.set(pool.flows);
  }
  return {
    run: { id: store.id, levelM: level, volumeM3: volume, inM3s, outM3s, inM3, soakedM3, outM3 },
    outlets: outlets.map((o, k) => ({
      id: o.id,
      volumeM3: perOutlet[k].volumeM3,
      peakM3s: perOutlet[k].peakM3s,
      flowM3s: perOutlet[k].flow,
    })),
  };
}
