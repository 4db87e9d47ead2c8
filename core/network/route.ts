// Storm routing through all stores in the order water passes them; each is a level pool (pool.ts).
import { type OutletRun, type RoutedStore, type StoreRun, poolRun } from './pool.ts';

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

/** A hydrograph as it arrives a lag later, long enough to hold all of it. */
export function delayed(flow: Float64Array, lagS: number, stepS: number): Float64Array {
  const into = new Float64Array(flow.length + Math.ceil(lagS / stepS) + 1);
  arrive(into, flow, { s: lagS, stepS });
  return into;
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
