// Storm routing through all stores in the order water passes them; each is a level pool (pool.ts), joined ones a group (joined.ts).
import { type Joint, JoinedGroup, fromWater, straightened } from './joined.ts';
import { groupsOf, joins } from './order.ts';
import { type OutletRun, Pool, type RoutedOutlet, type RoutedStore, type StoreRun } from './pool.ts';
import { Quiet } from './quiet.ts';
import { Splitter } from './splitter.ts';
import type { Steps } from './steps.ts';

export interface Balance {
  /** What came, what stood in the stores at first included. */
  readonly inM3: number;
  readonly storedM3: number;
  readonly soakedM3: number;
  readonly leftM3: number;
  readonly errorFraction: number;
}

export interface RouteResult {
  readonly stepS: number;
  readonly stores: ReadonlyMap<string, StoreRun>;
  readonly outlets: ReadonlyMap<string, OutletRun>;
  readonly balance: Balance;
}

/** What a storm did to stores that hang on one another. */
export interface GroupRun {
  readonly stores: readonly StoreRun[];
  readonly outlets: readonly OutletRun[];
  /** What came to them of their own, what stood in them at first included; what stays and soaks in. */
  readonly inM3: number;
  readonly storedM3: number;
  readonly soakedM3: number;
  /** Still between two of them when the run ends. */
  readonly onTheWayM3: number;
}

/** Water that comes to a store over the ways out of others, step by step, and what has not come when the run ends. */
export interface Arrivals {
  readonly flowM3s: Float64Array;
  readonly onTheWayM3: number;
}

/** Adds a hydrograph to another, a lag later; between steps it is shared so that its volume is kept. */
export function addDelayed(into: Float64Array, flow: Float64Array, lag: { readonly s: number; readonly stepS: number }): void {
  const shift = lag.s / lag.stepS;
  const whole = Math.floor(shift);
  const share = shift - whole;
  for (let i = 0; i < flow.length; i++) {
    if (i + whole < into.length) into[i + whole] += flow[i] * (1 - share);
    if (i + whole + 1 < into.length) into[i + whole + 1] += flow[i] * share;
  }
}

/** Written out, as all that runs over every step of a storm. */
function sumOf(flow: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < flow.length; i++) sum += flow[i];
  return sum;
}

/** Whether a way out let anything through: most of them never do. */
export const hasRun = ({ volumeM3, peakM3s }: OutletRun): boolean => volumeM3 !== 0 || peakM3s !== 0;

/** What comes to a store over the ways out that lead to it. */
export function arrivalsOf(ways: readonly Arriving[], { stepS, steps }: Steps): Arrivals {
  const flowM3s = new Float64Array(steps);
  let sent = 0;
  for (const { run, lagS, share } of ways) {
    if (!hasRun(run)) continue;
    const flow = run.flowM3s;
    const part = share === 1 ? flow : flow.map((q) => share * q);
    addDelayed(flowM3s, part, { s: lagS, stepS });
    sent += sumOf(part);
  }
  return { flowM3s, onTheWayM3: Math.max(0, stepS * (sent - sumOf(flowM3s))) };
}

/** How many steps hold all of a hydrograph as it arrives a lag later. */
export const delayedLength = (flow: Float64Array, lagS: number, stepS: number): number => flow.length + Math.ceil(lagS / stepS) + 1;

/** Where an outlet's water goes among the stores of a run, step by step. */
interface Way {
  readonly flow: Float64Array;
  readonly into: Float64Array;
  readonly whole: number;
  readonly share: number;
  /** What of it arrives at all. */
  readonly part: number;
}

/** Stores solved as one each step: one alone, or several joined. */
interface Unit {
  readonly members: readonly (Pool | Splitter)[];
  /** `n` steps taken as one, with the mean of what comes to each member: how much they stir; more than 1, and nothing is done. One step alone is always done. */
  readonly step: (i: number, n: number, meanIn: Float64Array) => number;
}

/** Stores that hang on one another by joints or in a ring, or one alone: none of them can be routed without the others. */
class Group {
  private readonly nodes: ReadonlyMap<string, Pool | Splitter>;
  private readonly arriving: ReadonlyMap<string, Float64Array>;
  private readonly place: ReadonlyMap<string, number>;
  private onTheWayM3 = 0;

  constructor(
    private readonly stores: readonly RoutedStore[],
    private readonly over: Steps,
    arrivals: ReadonlyMap<string, Arrivals>,
  ) {
    const { steps } = over;
    this.place = new Map(stores.map((s, k) => [s.id, k]));
    this.nodes = new Map(stores.map((s) => [s.id, s.takes ? new Splitter(s, over) : new Pool(s, steps, (o) => joins(o, this.place))]));
    this.arriving = new Map(stores.map((s) => [s.id, arrivals.get(s.id)?.flowM3s.slice() ?? new Float64Array(steps)]));
    this.run();
  }

  private nodeOf(id: string): Pool | Splitter {
    const node = this.nodes.get(id);
    if (!node) throw new Error(`no store ${id}`);
    return node;
  }

  private poolOf(id: string): Pool {
    const node = this.nodeOf(id);
    if (node instanceof Splitter) throw new Error(`${id} stores nothing that could be joined`);
    return node;
  }

  private arrivingAt(id: string): Float64Array {
    const into = this.arriving.get(id);
    if (!into) throw new Error(`no store ${id}`);
    return into;
  }

  /** Mean inflow of a step: its own catchment's, and what arrives from other stores. */
  private meanIn({ inflow }: RoutedStore, arriving: Float64Array, i: number): number {
    const before = i > 0 && i <= inflow.length ? inflow[i - 1] : 0;
    return (before + (i < inflow.length ? inflow[i] : 0)) / 2 + arriving[i];
  }

  /** Parts of a group that joints hold together, in the order given. */
  private units(): Unit[] {
    const group = this.stores;
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
    const node = this.nodeOf(store.id);
    const { stepS } = this.over;
    return { members: [node], step: (i, n, meanIn) => node.step(i, n, { meanIn: meanIn[0], stepS }) };
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
    const { stepS } = this.over;
    return { members, step: (i, n, meanIn) => group.step(i, n, { meanIn, stepS }) };
  }

  /** Where a unit's outflows go; within a group, a store already passed in a step is reached in the next. */
  private waysOf(unit: Unit, passed: ReadonlySet<string>): Way[] {
    return unit.members.flatMap((pool) =>
      pool.own.flatMap((k): Way[] => {
        const { to, lagS, share: part = 1 } = pool.store.outlets[k];
        const into = this.arriving.get(to);
        if (!into) return [];
        const shift = passed.has(to) ? Math.max(1, lagS / this.over.stepS) : lagS / this.over.stepS;
        const whole = Math.floor(shift);
        return [{ flow: pool.flows[k], into, whole, share: shift - whole, part }];
      }),
    );
  }

  private run(): void {
    const passed = new Set<string>();
    const units = this.units().map((unit) => {
      for (const pool of unit.members) passed.add(pool.store.id);
      const arriving = unit.members.map(({ store }) => this.arrivingAt(store.id));
      return { unit, ways: this.waysOf(unit, passed), arriving, meanIn: new Float64Array(unit.members.length) };
    });
    const [{ unit: first, ways: within }] = units;
    if (units.length === 1 && within.length === 0) {
      this.runQuick(first);
      return;
    }
    const { steps, stepS } = this.over;
    for (let i = 0; i < steps; i++) {
      for (const { unit, ways, arriving, meanIn } of units) {
        for (let j = 0; j < meanIn.length; j++) meanIn[j] = this.meanIn(unit.members[j].store, arriving[j], i);
        unit.step(i, 1, meanIn);
        for (const { flow, into, whole, share, part } of ways) {
          const q = part * flow[i];
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

  /** All steps of a unit whose water leads nowhere within it: what comes is known at once, and where little changes steps are taken together. */
  private runQuick(unit: Unit): void {
    const { steps } = this.over;
    const comes = unit.members.map(({ store }) => {
      const arriving = this.arrivingAt(store.id);
      const comes = new Float64Array(steps);
      for (let i = 0; i < steps; i++) comes[i] = this.meanIn(store, arriving, i);
      return comes;
    });
    const quiet = new Quiet(comes);
    const meanIn = new Float64Array(comes.length);
    for (let i = 0; i < steps;) {
      let n = quiet.stepsFrom(i);
      for (;;) {
        quiet.meanOf(i, n, meanIn);
        const stirs = unit.step(i, n, meanIn);
        const next = quiet.told(n, stirs);
        if (n === 1 || stirs <= 1) break;
        n = next;
      }
      i += n;
    }
  }

  result(): GroupRun {
    const { stepS, steps } = this.over;
    let [inM3, soakedM3, storedM3] = [0, 0, 0];
    for (const { id, inflow } of this.stores) {
      const pool = this.nodeOf(id);
      inM3 += pool.volumeM3[0];
      // Each instant counts half in the step before it and half in the one after; the last only in its own.
      for (let i = 0; i < steps && i < inflow.length; i++) inM3 += (i < steps - 1 ? inflow[i] : inflow[i] / 2) * stepS;
      soakedM3 += pool.soakedM3;
      storedM3 += pool.volumeM3[steps];
    }
    return {
      stores: this.stores.map(({ id }) => this.nodeOf(id).run()),
      outlets: this.stores.flatMap(({ id }) => this.nodeOf(id).outletRuns(stepS)),
      inM3,
      storedM3,
      soakedM3,
      onTheWayM3: this.onTheWayM3,
    };
  }
}

/** Routes stores that hang on one another, with what comes to them from others. */
export const routeGroup = (stores: readonly RoutedStore[], over: Steps, arrivals: ReadonlyMap<string, Arrivals>): GroupRun =>
  new Group(stores, over, arrivals).result();

/** How the parts of a run are worked out: all of them, or only those that differ from before. */
export interface Routing {
  readonly arrivals: (to: string, ways: readonly Arriving[], over: Steps) => Arrivals;
  readonly group: (stores: readonly RoutedStore[], over: Steps, arrivals: ReadonlyMap<string, Arrivals>) => GroupRun;
}

/** A way out that leads to a store, with what it let through. */
export interface Arriving {
  readonly run: OutletRun;
  readonly lagS: number;
  readonly share: number;
}

const AFRESH: Routing = { arrivals: (_, ways, over) => arrivalsOf(ways, over), group: routeGroup };

/** Ways out of other groups by the store they lead to. */
function waysInto(stores: readonly RoutedStore[]): ReadonlyMap<string, readonly RoutedOutlet[]> {
  const into = new Map<string, RoutedOutlet[]>();
  for (const { outlets } of stores) for (const outlet of outlets) into.set(outlet.to, [...(into.get(outlet.to) ?? []), outlet]);
  return into;
}

/** Routes all stores over the same steps; inflows are instants joined by straight lines. */
export function route({ stores, ...over }: Steps & { readonly stores: readonly RoutedStore[] }, routing = AFRESH): RouteResult {
  const into = waysInto(stores);
  const runs = new Map<string, StoreRun>();
  const outlets = new Map<string, OutletRun>();
  let [inM3, soakedM3, storedM3, leftM3] = [0, 0, 0, 0];
  for (const group of groupsOf(stores)) {
    const arrivals = new Map<string, Arrivals>();
    for (const { id } of group) {
      // Outlets of the same group are not known yet: the group leads their water itself.
      const ways = (into.get(id) ?? []).flatMap(({ id: outlet, lagS, share = 1 }) => {
        const run = outlets.get(outlet);
        return run ? [{ run, lagS, share }] : [];
      });
      if (ways.length === 0) continue;
      const coming = routing.arrivals(id, ways, over);
      storedM3 += coming.onTheWayM3;
      arrivals.set(id, coming);
    }
    const run = routing.group(group, over, arrivals);
    inM3 += run.inM3;
    soakedM3 += run.soakedM3;
    storedM3 += run.storedM3 + run.onTheWayM3;
    for (const store of run.stores) runs.set(store.id, store);
    for (const outlet of run.outlets) outlets.set(outlet.id, outlet);
  }
  const ids = new Set(stores.map((s) => s.id));
  for (const store of stores)
    for (const { id, to, share = 1 } of store.outlets) leftM3 += (ids.has(to) ? 1 - share : 1) * (outlets.get(id)?.volumeM3 ?? 0);
  const error = inM3 - storedM3 - soakedM3 - leftM3;
  return {
    stepS: over.stepS,
    stores: runs,
    outlets,
    balance: { inM3, storedM3, soakedM3, leftM3, errorFraction: inM3 > 0 ? error / inM3 : 0 },
  };
}
