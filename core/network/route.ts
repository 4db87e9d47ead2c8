// Storm routing through all stores in the order water passes them; each is a level pool (pool.ts), joined ones a group (joined.ts).
import { type Joint, JoinedGroup, fromWater, straightened } from './joined.ts';
import { groupsOf, joins } from './order.ts';
import { type OutletRun, Pool, type RoutedStore, type StoreRun } from './pool.ts';

export interface RouteResult {
  readonly stepS: number;
  readonly stores: ReadonlyMap<string, StoreRun>;
  readonly outlets: ReadonlyMap<string, OutletRun>;
  readonly balance: {
    /** What came, what stood in the stores at first included. */
    readonly inM3: number;
    readonly storedM3: number;
    readonly soakedM3: number;
    readonly leftM3: number;
    readonly errorFraction: number;
  };
}

/** Adds a hydrograph to another, a lag later; between steps it is shared so that its volume is kept. */
function arrive(into: Float64Array, flow: Float64Array, lag: { readonly s: number; readonly stepS: number }): void {
  const shift = lag.s / lag.stepS;
  const whole = Math.floor(shift);
  const share = shift - whole;
  for (let i = 0; i < flow.length; i++) {
    if (i + whole < into.length) into[i + whole] += flow[i] * (1 - share);
    if (i + whole + 1 < into.length) into[i + whole + 1] += flow[i] * share;
  }
}

/** A hydrograph as it arrives a lag later, long enough to hold all of it. */
export function delayed(flow: Float64Array, lagS: number, stepS: number): Float64Array {
  const into = new Float64Array(flow.length + Math.ceil(lagS / stepS) + 1);
  arrive(into, flow, { s: lagS, stepS });
  return into;
}

/** Where an outlet's water goes among the stores of a run, step by step. */
interface Way {
  readonly flow: Float64Array;
  readonly into: Float64Array;
  readonly whole: number;
  readonly share: number;
}

/** Stores solved as one each step: one alone, or several joined. */
interface Unit {
  readonly members: readonly Pool[];
  readonly step: (i: number) => void;
}

class Run {
  private readonly pools: ReadonlyMap<string, Pool>;
  private readonly arriving: ReadonlyMap<string, Float64Array>;
  private readonly place: ReadonlyMap<string, number>;
  onTheWayM3 = 0;
  leftM3 = 0;

  constructor(
    stores: readonly RoutedStore[],
    private readonly stepS: number,
    private readonly steps: number,
  ) {
    this.place = new Map(stores.map((s, k) => [s.id, k]));
    this.pools = new Map(stores.map((s) => [s.id, new Pool(s, steps, (o) => joins(o, this.place))]));
    this.arriving = new Map(stores.map((s) => [s.id, new Float64Array(steps)]));
    for (const group of groupsOf(stores)) this.runGroup(group);
  }

  private poolOf(id: string): Pool {
    const pool = this.pools.get(id);
    if (!pool) throw new Error(`no pool ${id}`);
    return pool;
  }

  private arrivingAt(id: string): Float64Array {
    const into = this.arriving.get(id);
    if (!into) throw new Error(`no pool ${id}`);
    return into;
  }

  /** Mean inflow of a step: its own catchment's, and what arrives from other stores. */
  private meanIn(store: RoutedStore, arriving: Float64Array, i: number): number {
    return ((i === 0 ? 0 : (store.inflow[i - 1] ?? 0)) + (store.inflow[i] ?? 0)) / 2 + arriving[i];
  }

  /** Parts of a group that joints hold together, in the order given. */
  private unitsOf(group: readonly RoutedStore[]): Unit[] {
    const root = new Map(group.map((s) => [s.id, s.id]));
    const top = (id: string): string => {
      let at = id;
      for (let up = root.get(at); up !== undefined && up !== at; up = root.get(at)) at = up;
      return at;
    };
    for (const store of group)
      for (const outlet of store.outlets) if (joins(outlet, this.place) && root.has(outlet.to)) root.set(top(outlet.to), top(store.id));
    const held = new Map<string, RoutedStore[]>();
    for (const store of group) held.set(top(store.id), [...(held.get(top(store.id)) ?? []), store]);
    return [...held.values()].map((members) => (members.length === 1 ? this.alone(members[0]) : this.joined(members)));
  }

  private alone(store: RoutedStore): Unit {
    const pool = this.poolOf(store.id);
    const arriving = this.arrivingAt(store.id);
    return { members: [pool], step: (i) => pool.step(i, this.meanIn(store, arriving, i), this.stepS) };
  }

  private joined(stores: readonly RoutedStore[]): Unit {
    const members = stores.map((s) => this.poolOf(s.id));
    const index = new Map(stores.map((s, k) => [s.id, k]));
    const joints = stores.flatMap((store, a) =>
      store.outlets.flatMap((outlet, k): Joint[] => {
        const b = index.get(outlet.to);
        if (!joins(outlet, this.place) || b === undefined || b === a) return [];
        const floors = [members[a].floorM, members[b].floorM] as const;
        return [{ a, b, outlet: k, flowAt: fromWater(straightened(outlet.flowAt), floors) }];
      }),
    );
    const group = new JoinedGroup(members, joints);
    const arriving = stores.map((s) => this.arrivingAt(s.id));
    const meanIn = new Float64Array(stores.length);
    return {
      members,
      step: (i) => {
        for (let j = 0; j < stores.length; j++) meanIn[j] = this.meanIn(stores[j], arriving[j], i);
        group.step(i, meanIn, this.stepS);
      },
    };
  }

  /** Where a unit's outflows go; within a group, a store already passed in a step is reached in the next. */
  private waysOf(unit: Unit, passed: ReadonlySet<string>): Way[] {
    return unit.members.flatMap((pool) =>
      pool.own.flatMap((k): Way[] => {
        const { to, lagS } = pool.store.outlets[k];
        const into = this.arriving.get(to);
        if (!into) return [];
        const shift = passed.has(to) ? Math.max(1, lagS / this.stepS) : lagS / this.stepS;
        const whole = Math.floor(shift);
        return [{ flow: pool.flows[k], into, whole, share: shift - whole }];
      }),
    );
  }

  private runGroup(group: readonly RoutedStore[]): void {
    const passed = new Set<string>();
    const units = this.unitsOf(group).map((unit) => {
      for (const pool of unit.members) passed.add(pool.store.id);
      return { unit, ways: this.waysOf(unit, passed) };
    });
    const { steps, stepS } = this;
    for (let i = 0; i < steps; i++) {
      for (const { unit, ways } of units) {
        unit.step(i);
        for (const { flow, into, whole, share } of ways) {
          const q = flow[i];
          if (q === 0) continue;
          const at = i + whole;
          if (at < steps) into[at] += q * (1 - share);
          else this.onTheWayM3 += q * (1 - share) * stepS;
          if (share === 0) continue;
          if (at + 1 < steps) into[at + 1] += q * share;
          else this.onTheWayM3 += q * share * stepS;
        }
      }
    }
  }

  result(stores: readonly RoutedStore[]): RouteResult {
    const { stepS, steps } = this;
    const runs = new Map<string, StoreRun>();
    const outlets = new Map<string, OutletRun>();
    let [inM3, soakedM3, storedM3] = [0, 0, 0];
    for (const store of stores) {
      const pool = this.poolOf(store.id);
      runs.set(store.id, pool.run());
      inM3 += pool.volumeM3[0];
      for (let i = 0; i < steps; i++) inM3 += (((i === 0 ? 0 : (store.inflow[i - 1] ?? 0)) + (store.inflow[i] ?? 0)) / 2) * stepS;
      soakedM3 += pool.soakedM3;
      storedM3 += pool.volumeM3[steps];
      pool.outletRuns(stepS).forEach((run, k) => {
        outlets.set(run.id, run);
        if (!this.pools.has(store.outlets[k].to)) this.leftM3 += run.volumeM3;
      });
    }
    const stored = storedM3 + this.onTheWayM3;
    const error = inM3 - stored - soakedM3 - this.leftM3;
    return {
      stepS,
      stores: runs,
      outlets,
      balance: { inM3, storedM3: stored, soakedM3, leftM3: this.leftM3, errorFraction: inM3 > 0 ? error / inM3 : 0 },
    };
  }
}

/** Routes all stores over the same steps; inflows are instants joined by straight lines. */
export function route({
  stores,
  stepS,
  steps,
}: {
  readonly stores: readonly RoutedStore[];
  readonly stepS: number;
  readonly steps: number;
}): RouteResult {
  return new Run(stores, stepS, steps).result(stores);
}
