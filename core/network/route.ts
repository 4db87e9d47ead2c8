// Storm routing. Volumes are the state and fluxes move them, so water is neither made nor lost. Each store is a level pool
// solved implicitly by the storage-indication method (Chow, Maidment & Mays 1988, section 8.2), stores in the order water
// passes them.
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

export interface RouteResult {
  readonly stepS: number;
  readonly stores: ReadonlyMap<string, StoreRun>;
  readonly outlets: ReadonlyMap<string, OutletRun>;
  readonly balance: {
    readonly inM3: number;
    readonly storedM3: number;
    readonly soakedM3: number;
    readonly leftM3: number;
    readonly errorFraction: number;
  };
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

/** Stores sorted so that each stands after those that spill into it; a loop keeps its given order. */
export function cascadeOrder(stores: readonly RoutedStore[]): RoutedStore[] {
  const byId = new Map(stores.map((s) => [s.id, s]));
  const waiting = new Map(stores.map((s) => [s.id, 0]));
  const targets = (s: RoutedStore): string[] => [...new Set(s.outlets.map((o) => o.to))].filter((id) => byId.has(id) && id !== s.id);
  for (const store of stores) for (const id of targets(store)) waiting.set(id, (waiting.get(id) ?? 0) + 1);
  const order: RoutedStore[] = [];
  const left = new Set(stores);
  while (left.size > 0) {
    const next = [...left].find((s) => waiting.get(s.id) === 0) ?? [...left][0];
    left.delete(next);
    order.push(next);
    for (const id of targets(next)) waiting.set(id, (waiting.get(id) ?? 0) - 1);
  }
  return order;
}

/** Adds a hydrograph to another, a lag later; between steps it is shared so that its volume is kept. Returns what is still on the way [m3]. */
function arrive(into: Float64Array, flow: Float64Array, lag: { readonly s: number; readonly stepS: number }): number {
  const shift = lag.s / lag.stepS;
  const whole = Math.floor(shift);
  const share = shift - whole;
  let onTheWay = 0;
  for (let i = 0; i < flow.length; i++) {
    const a = i + whole;
    if (a < into.length) into[a] += flow[i] * (1 - share);
    else onTheWay += flow[i] * (1 - share);
    if (a + 1 < into.length) into[a + 1] += flow[i] * share;
    else onTheWay += flow[i] * share;
  }
  return onTheWay * lag.stepS;
}

/**
 * Routes one store over a series of inflows given as mean flow of each step.
 * Solves V1 + θ·dt·O(V1) = V0 + dt·I − (1−θ)·dt·O(V0), O being all outlets and soakage. θ is 1/2 (storage indication)
 * while the step is short for the store; where outflow answers faster than the step it moves towards 1, so that the
 * level cannot swing about its true course.
 */
function poolRun(store: RoutedStore, meanIn: Float64Array, stepS: number): { run: StoreRun; outlets: OutletRun[] } {
  const { stage, outlets } = store;
  const { levelM: levels, volumeM3: volumes, wettedM2: wetted } = stage;
  const soak = store.soakMPerS ?? 0;
  const steps = meanIn.length;
  const level = new Float64Array(steps + 1);
  const volume = new Float64Array(steps + 1);
  const inM3s = new Float64Array(steps + 1);
  const outM3s = new Float64Array(steps + 1);
  const perOutlet = outlets.map(() => ({ volumeM3: 0, peakM3s: 0, flow: new Float64Array(steps) }));
  const flowsBefore = new Float64Array(outlets.length + 1);
  const flowsNow = new Float64Array(outlets.length + 1);
  const flowsAt = (h: number, into: Float64Array): number => {
    let sum = 0;
    for (let k = 0; k < outlets.length; k++) sum += into[k] = outlets[k].flowAt(h);
    const wet = Math.min(1, Math.max(0, (h - levels[0]) / FULL_SOAK_M));
    sum += into[outlets.length] = soak > 0 ? soak * wet * interpolate(levels, wetted, h) : 0;
    return sum;
  };
  level[0] = levels[0];
  let before = flowsAt(level[0], flowsBefore);
  let [inM3, soakedM3, outM3] = [0, 0, 0];
  for (let i = 0; i < steps; i++) {
    const add = meanIn[i] * stepS;
    inM3 += add;
    const answer = (stepS * (flowsAt(level[i] + PROBE_M, flowsNow) - flowsAt(level[i], flowsNow))) / contentOf(stage, level[i]);
    const later = Math.max(0.5, 1 - 1 / Math.max(1e-9, answer));
    const first = 1 - later;
    const target = volume[i] + add - first * stepS * before;
    const h = solveLevel(stage, target, { laterOut: (x) => later * stepS * flowsAt(x, flowsNow), guess: level[i] });
    let now = flowsAt(h, flowsNow);
    // More cannot leave than there is: an emptying store scales all its outlets.
    const wanted = stepS * (first * before + later * now);
    const scale = wanted > volume[i] + add ? (volume[i] + add) / wanted : 1;
    let left = 0;
    for (let k = 0; k < outlets.length; k++) {
      const moved = scale * stepS * (first * flowsBefore[k] + later * flowsNow[k]);
      left += moved;
      perOutlet[k].volumeM3 += moved;
      perOutlet[k].flow[i] = moved / stepS;
      if (flowsNow[k] > perOutlet[k].peakM3s) perOutlet[k].peakM3s = flowsNow[k];
    }
    const soaked = scale * stepS * (first * flowsBefore[outlets.length] + later * flowsNow[outlets.length]);
    outM3 += left;
    soakedM3 += soaked;
    volume[i + 1] = Math.max(0, volume[i] + add - left - soaked);
    level[i + 1] = interpolate(volumes, levels, volume[i + 1]);
    inM3s[i + 1] = meanIn[i];
    now = flowsAt(level[i + 1], flowsNow);
    outM3s[i + 1] = now - flowsNow[outlets.length];
    flowsBefore.set(flowsNow);
    before = now;
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

/** Depth at which the whole floor is wet; soakage rises to its full rate over it, so that it has no jump at empty [m]. */
const FULL_SOAK_M = 0.005;

/** Rise used to feel how fast outflow answers to level [m]. */
const PROBE_M = 0.001;

/** Volume a store takes for that rise [m3]. */
function contentOf({ levelM, volumeM3 }: Stage, level: number): number {
  return Math.max(1e-9, interpolate(levelM, volumeM3, level + PROBE_M) - interpolate(levelM, volumeM3, level));
}

/** Level at which volume plus the step's later outflow equals a target; both rise with level, so halving between bounds is safe. */
function solveLevel(stage: Stage, target: number, { laterOut, guess }: { laterOut: (level: number) => number; guess: number }): number {
  const { levelM, volumeM3 } = stage;
  const excess = (h: number): number => interpolate(levelM, volumeM3, h) + laterOut(h) - target;
  let lo = levelM[0];
  if (excess(lo) >= 0) return lo;
  let hi = Math.max(guess, lo + 0.01);
  for (let widen = 0.02; excess(hi) < 0; widen *= 2) {
    lo = hi;
    hi += widen;
  }
  let [fLo, fHi] = [excess(lo), excess(hi)];
  // Regula falsi with the Illinois weight: bracketed, and quick on these nearly straight curves.
  for (let k = 0, side = 0; k < 60 && hi - lo > 1e-12 * Math.max(1, Math.abs(hi)); k++) {
    const h = k % 8 === 7 ? (lo + hi) / 2 : (lo * fHi - hi * fLo) / (fHi - fLo);
    const f = excess(h);
    if (Math.abs(f) < 1e-13 * Math.max(1, Math.abs(target))) return h;
    if (f > 0) {
      [hi, fHi] = [h, f];
      if (side === 1) fLo /= 2;
      side = 1;
    } else {
      [lo, fLo] = [h, f];
      if (side === -1) fHi /= 2;
      side = -1;
    }
  }
  return (lo + hi) / 2;
}

/** Routes all stores over the same steps; inflows are instants joined by straight lines, the first from `startInM3s` 0. */
export function route(input: { readonly stores: readonly RoutedStore[]; readonly stepS: number; readonly steps: number }): RouteResult {
  const { stepS, steps } = input;
  const arriving = new Map(input.stores.map((s) => [s.id, new Float64Array(steps)]));
  const stores = new Map<string, StoreRun>();
  const outlets = new Map<string, OutletRun>();
  let [inM3, onTheWayM3, leftM3, soakedM3, storedM3] = [0, 0, 0, 0, 0];
  for (const store of cascadeOrder(input.stores)) {
    const meanIn = Float64Array.from(arriving.get(store.id) ?? []);
    for (let i = 0; i < steps; i++) {
      const own = ((i === 0 ? 0 : (store.inflow[i - 1] ?? 0)) + (store.inflow[i] ?? 0)) / 2;
      inM3 += own * stepS;
      meanIn[i] += own;
    }
    const { run, outlets: runs } = poolRun(store, meanIn, stepS);
    stores.set(store.id, run);
    storedM3 += run.volumeM3[steps];
    soakedM3 += run.soakedM3;
    runs.forEach((outlet, k) => {
      outlets.set(outlet.id, outlet);
      const { to, lagS } = store.outlets[k];
      const into = stores.has(to) ? undefined : arriving.get(to);
      if (into) onTheWayM3 += arrive(into, outlet.flowM3s, { s: lagS, stepS });
      else leftM3 += outlet.volumeM3;
    });
  }
  const stored = storedM3 + onTheWayM3;
  const error = inM3 - stored - soakedM3 - leftM3;
  return { stepS, stores, outlets, balance: { inM3, storedM3: stored, soakedM3, leftM3, errorFraction: inM3 > 0 ? error / inM3 : 0 } };
}
