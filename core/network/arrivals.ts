// What comes to a store over the ways out of others, each after its lag.
import type { OutletRun } from './runs.ts';

/** A way out that leads to a store, with what it let through. */
export interface Arriving {
  readonly run: OutletRun;
  readonly lagS: number;
  readonly share: number;
}

/** What comes to each store of a group over the ways out of others, where any lead to it. */
export type Coming = readonly (readonly Arriving[])[];

/** Adds a hydrograph to another, a lag later and in part; between steps it is shared so that its volume is kept. */
export function addDelayed(
  into: Float64Array,
  flow: Float64Array,
  lag: { readonly s: number; readonly stepS: number; readonly part?: number },
): void {
  const { part = 1 } = lag;
  const shift = lag.s / lag.stepS;
  const whole = Math.floor(shift);
  const second = part * (shift - whole);
  const first = part - second;
  const end = Math.min(flow.length, into.length - whole);
  for (let i = 0; i < end; i++) into[i + whole] += flow[i] * first;
  if (second === 0) return;
  const last = Math.min(flow.length, into.length - whole - 1);
  for (let i = 0; i < last; i++) into[i + whole + 1] += flow[i] * second;
}

/** Written out, as all that runs over every step of a storm. */
function sumOf(flow: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < flow.length; i++) sum += flow[i];
  return sum;
}

/** Whether a way out let anything through: most of them never do. */
export const hasRun = ({ volumeM3, peakM3s }: OutletRun): boolean => volumeM3 !== 0 || peakM3s !== 0;

/** Lays what comes to a store over the ways out that lead to it `into` its steps, where nothing is yet; what has not come when they end [m3]. */
export function bring(ways: readonly Arriving[], into: Float64Array, stepS: number): number {
  let sentM3 = 0;
  for (const { run, lagS, share } of ways) {
    if (!hasRun(run)) continue;
    addDelayed(into, run.flowM3s, { s: lagS, stepS, part: share });
    sentM3 += share * run.volumeM3;
  }
  return sentM3 === 0 ? 0 : Math.max(0, sentM3 - stepS * sumOf(into));
}

/** How many steps hold all of a hydrograph as it arrives a lag later. */
export const delayedLength = (flow: Float64Array, lagS: number, stepS: number): number => flow.length + Math.ceil(lagS / stepS) + 1;
