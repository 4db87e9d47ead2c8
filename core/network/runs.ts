// What a storm did to a store and to its ways out, step by step, and what that comes to.

export interface StoreRun {
  readonly id: string;
  /** Level at the start and at the end of each step [m]. */
  readonly levelM: Float64Array;
  /** Mean of all flow that arrives in the step up to the same instants, what joints bring included [m3/s]. */
  readonly inM3s: Float64Array;
  /** Flow over its own outlets at those instants; what joints carry away is told by them. */
  readonly outM3s: Float64Array;
  readonly inM3: number;
  readonly soakedM3: number;
  readonly outM3: number;
  /** Most that it held at any of those instants, and what it holds at the last [m3]. */
  readonly mostM3: number;
  readonly endM3: number;
}

export interface OutletRun {
  readonly id: string;
  /** What it passed on, less what came back through it. */
  readonly volumeM3: number;
  /** Greatest flow, whichever way it ran. */
  readonly peakM3s: number;
  /** When that peak passed [s]. */
  readonly peakAtS: number;
  /** How long it ran [s]. */
  readonly runsS: number;
  readonly flowM3s: Float64Array;
  /** Whether it was solved with the store it leads to. */
  readonly isJoint: boolean;
}

/** Flow under which an outlet is not said to run [m3/s]: a cup in ten seconds. */
const TRICKLE_M3S = 2e-5;

/** How a way out is told: of a joint the mean of each step is known, of others the greatest flow at any instant, and when. */
interface ToldBy {
  readonly stepS: number;
  readonly isJoint: boolean;
  readonly peak?: { readonly m3s: number; readonly atS: number };
}

/** What a way out let through, by the mean of each step. Every run is laid out alike: they are read in great numbers. */
export function outletRun(id: string, flowM3s: Float64Array, { stepS, isJoint, peak }: ToldBy): OutletRun {
  let volumeM3 = 0;
  let peakM3s = 0;
  let peakAt = 0;
  let running = 0;
  for (let i = 0; i < flowM3s.length; i++) {
    const q = flowM3s[i];
    volumeM3 += q * stepS;
    const size = Math.abs(q);
    if (size > TRICKLE_M3S) running++;
    if (size <= peakM3s) continue;
    peakM3s = size;
    peakAt = i + 1;
  }
  return { id, volumeM3, peakM3s: peak?.m3s ?? peakM3s, peakAtS: peak?.atS ?? peakAt * stepS, runsS: running * stepS, flowM3s, isJoint };
}

const still = new Map<number, Float64Array>();

/** Of a way out that never ran: all of as many steps share one series, which nobody writes into. */
export function nothingRan(id: string, steps: number, isJoint: boolean): OutletRun {
  const flowM3s = still.get(steps) ?? new Float64Array(steps);
  still.set(steps, flowM3s);
  return { id, volumeM3: 0, peakM3s: 0, peakAtS: 0, runsS: 0, flowM3s, isJoint };
}

/** A flow over several steps taken as one, each with the mean of its own time. */
export function spread(
  flow: Float64Array,
  i: number,
  { n, mean, rise }: { readonly n: number; readonly mean: number; readonly rise: number },
): void {
  for (let k = 0; k < n; k++) flow[i + k] = mean + rise * ((k + 0.5) / n - 0.5);
}

/** Three series of one length, in one room: there are very many stores to make them for. */
export function threeSeries(length: number): readonly [Float64Array, Float64Array, Float64Array] {
  const room = new Float64Array(3 * length);
  return [room.subarray(0, length), room.subarray(length, 2 * length), room.subarray(2 * length)];
}

/** A series within several steps taken as one, straight between their ends. */
export function drawStraight(series: Float64Array, i: number, n: number): void {
  const rise = (series[i + n] - series[i]) / n;
  for (let k = 1; k < n; k++) series[i + k] = series[i] + k * rise;
}
