// Storm routing through all stores in the order water passes them; each is a level pool (pool.ts), joined ones a group (joined.ts).
import { type Arriving, type Coming, bring, hasRun } from './arrivals.ts';
import { JoinedGroup } from './joined.ts';
import { type Joint, solvable } from './joint.ts';
import { type Linked, groupsOf, joins } from './order.ts';
import { LonePool } from './alone.ts';
import type { RoutedStore } from './pool.ts';
import { Quiet } from './quiet.ts';
import type { OutletRun, StoreRun } from './runs.ts';
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
  /** What was routed, in the order it was given. */
  readonly ids: readonly string[];
  readonly runs: readonly StoreRun[];
  /** Runs of the ways out of each store, as they stand in it. */
  readonly ways: readonly (readonly OutletRun[])[];
  /** The same by their ids. */
  readonly stores: ReadonlyMap<string, StoreRun>;
  readonly outlets: ReadonlyMap<string, OutletRun>;
  readonly balance: Balance;
}

/** What a storm did to stores that hang on one another. */
export interface GroupRun {
  readonly stores: readonly StoreRun[];
  /** Of each store its ways out, as they stand in it. */
  readonly outlets: readonly (readonly OutletRun[])[];
  /** What came to them of their own, what stood in them at first included; what stays and soaks in. */
  readonly inM3: number;
  readonly storedM3: number;
  readonly soakedM3: number;
  /** Still between two of them when the run ends. */
  readonly onTheWayM3: number;
}

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
  readonly members: readonly (LonePool | Splitter)[];
  /** `n` steps taken as one, with the mean of what comes to each member: how much they stir; more than 1, and nothing is done. One step alone is always done. */
  readonly step: (i: number, n: number, meanIn: Float64Array) => number;
  /** All steps at once, by what comes to it as laid down: of a store alone. */
  readonly whole?: (quiet: Quiet) => void;
}

/** Stores that hang on one another by joints or in a ring, or one alone: none of them can be routed without the others. */
class Group {
  private readonly nodes: ReadonlyMap<string, LonePool | Splitter>;
  private readonly place: ReadonlyMap<string, number>;
  private onTheWayM3 = 0;
  /** What comes from the catchments of its own stores. */
  private ownM3 = 0;

  constructor(
    private readonly stores: readonly RoutedStore[],
    private readonly over: Steps,
    coming: Coming,
  ) {
    const { steps } = over;
    this.place = new Map(stores.map((s, k) => [s.id, k]));
    this.nodes = new Map(stores.map((s) => [s.id, s.takes ? new Splitter(s, over) : new LonePool(s, steps, (o) => joins(o, this.place))]));
    stores.forEach((store, k) => this.layDown(store, coming[k]));
    this.run();
  }

  private nodeOf(id: string): LonePool | Splitter {
    const node = this.nodes.get(id);
    if (!node) throw new Error(`no store ${id}`);
    return node;
  }

  private poolOf(id: string): LonePool {
    const node = this.nodeOf(id);
    if (node instanceof Splitter) throw new Error(`${id} stores nothing that could be joined`);
    return node;
  }

  /** Lays down the mean of what comes to a store in each step: from other groups, and from its own catchment between the instants it is told for. */
  private layDown({ id, inflow }: RoutedStore, ways: readonly Arriving[]): void {
    const { steps, stepS } = this.over;
    const { comes } = this.nodeOf(id);
    this.onTheWayM3 += bring(ways, comes, stepS);
    let before = 0;
    let sum = 0;
    const end = Math.min(steps, inflow.length);
    for (let i = 0; i < end; i++) {
      const now = inflow[i];
      comes[i] += (before + now) / 2;
      before = now;
      sum += now;
    }
    // Each instant counts half in the step before it and half in the one after; the last only in its own.
    if (end < steps) comes[end] += before / 2;
    else sum -= before / 2;
    this.ownM3 += sum * stepS;
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
    if (node instanceof Splitter) return { members: [node], step: (i, n, meanIn) => node.step(i, n, meanIn[0]) };
    return {
      members: [node],
      step: (i) => {
        node.runThrough({ from: i, end: i + 1, stepS, quiet: null });
        return 0;
      },
      whole: (quiet) => node.runThrough({ from: 0, end: this.over.steps, stepS, quiet }),
    };
  }

  private joined(stores: readonly RoutedStore[]): Unit {
    const members = stores.map((s) => this.poolOf(s.id));
    const index = new Map(stores.map((s, k) => [s.id, k]));
    const joints = stores.flatMap((store, a) =>
      store.outlets.flatMap((outlet, k): Joint[] => {
        const b = index.get(outlet.to);
        if (!joins(outlet, this.place) || b === undefined || b === a) return [];
        const floors = [members[a].floorM, members[b].floorM] as const;
        return [{ a, b, outlet: k, flowAt: solvable(outlet.flowAt, floors) }];
      }),
    );
    const group = new JoinedGroup(members, joints);
    const { stepS } = this.over;
    const on: { meanIn: Float64Array; readonly stepS: number } = { meanIn: new Float64Array(0), stepS };
    return {
      members,
      step: (i, n, meanIn) => {
        on.meanIn = meanIn;
        return group.step(i, n, on);
      },
    };
  }

  /** Where a unit's outflows go; within a group, a store already passed in a step is reached in the next. */
  private waysOf(unit: Unit, passed: ReadonlySet<string>): Way[] {
    return unit.members.flatMap((pool) =>
      pool.own.flatMap((k): Way[] => {
        const { to, lagS, share: part = 1 } = pool.store.outlets[k];
        const into = this.nodes.get(to)?.comes;
        if (!into) return [];
        const shift = passed.has(to) ? Math.max(1, lagS / this.over.stepS) : lagS / this.over.stepS;
        const whole = Math.floor(shift);
        return [{ flow: pool.flowOf(k), into, whole, share: shift - whole, part }];
      }),
    );
  }

  private run(): void {
    const passed = new Set<string>();
    const units = this.units().map((unit) => {
      for (const pool of unit.members) passed.add(pool.store.id);
      const own = unit.members.map((node) => node.comes);
      return { unit, ways: this.waysOf(unit, passed), comes: own, meanIn: new Float64Array(unit.members.length) };
    });
    const [{ unit: first, ways: within, comes: own }] = units;
    if (units.length === 1 && within.length === 0) {
      this.runQuick(first, own);
      return;
    }
    const { steps, stepS } = this.over;
    for (let i = 0; i < steps; i++) {
      for (const { unit, ways, comes: arriving, meanIn } of units) {
        for (let j = 0; j < meanIn.length; j++) meanIn[j] = arriving[j][i];
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
  private runQuick(unit: Unit, comes: readonly Float64Array[]): void {
    const { steps } = this.over;
    const quiet = new Quiet(comes);
    if (unit.whole) {
      unit.whole(quiet);
      return;
    }
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
    const { stepS } = this.over;
    let [inM3, soakedM3, storedM3] = [this.ownM3, 0, 0];
    for (const { id } of this.stores) {
      const pool = this.nodeOf(id);
      inM3 += pool.startM3;
      soakedM3 += pool.soakedM3;
      storedM3 += pool.nowM3;
    }
    return {
      stores: this.stores.map(({ id }) => this.nodeOf(id).run()),
      outlets: this.stores.map(({ id }) => this.nodeOf(id).outletRuns(stepS)),
      inM3,
      storedM3,
      soakedM3,
      onTheWayM3: this.onTheWayM3,
    };
  }
}

/** A group that is routed, named by its first store. */
export interface GroupToRoute {
  readonly id: string;
  readonly stores: readonly RoutedStore[];
}

/** Routes a group with all that comes to it. */
export const routeComing = (stores: readonly RoutedStore[], over: Steps, coming: Coming): GroupRun =>
  new Group(stores, over, coming).result();

/** How groups are routed, one after the other: `comingOf` tells what those done already send to the next. */
export type EachGroup = (
  groups: readonly GroupToRoute[],
  over: Steps,
  comingOf: (k: number, done: readonly GroupRun[]) => Coming,
) => readonly GroupRun[];

const AFRESH: EachGroup = (groups, over, comingOf) => {
  const done: GroupRun[] = [];
  groups.forEach(({ stores }, k) => done.push(routeComing(stores, over, comingOf(k, done))));
  return done;
};
const NOTHING_COMES: readonly Arriving[] = [];

/** A store among groups: the place of its group, and its own in it. */
interface InGroup {
  readonly group: number;
  readonly member: number;
}

/** In which order stores are routed: groups of their places, each after those that spill into it, and by place the ways out that lead there. */
export interface RouteOrder {
  readonly groups: readonly (readonly number[])[];
  /** Of each group those before it that let water through to it. */
  readonly fedBy: readonly (readonly number[])[];
  /** Where each store stands among the groups. */
  readonly at: readonly InGroup[];
  /** Ways out that lead to each store, as the place of the store they are of and their own in it. */
  readonly into: readonly (readonly (readonly [store: number, outlet: number])[])[];
  /** Of each store, whether its ways out lead to none of the stores. */
  readonly leaves: readonly (readonly boolean[])[];
}

/** The order of stores by where their ways out lead. */
export function routeOrder(stores: readonly Linked[]): RouteOrder {
  const place = new Map(stores.map((s, k) => [s.id, k]));
  const into: [number, number][][] = stores.map(() => []);
  stores.forEach(({ outlets }, from) => {
    outlets.forEach(({ to }, outlet) => {
      const at = place.get(to);
      if (at !== undefined) into[at].push([from, outlet]);
    });
  });
  const groups = groupsOf(stores.map((s, k) => ({ ...s, k }))).map((group) => group.map((s) => s.k));
  const at = new Array<InGroup>(stores.length);
  groups.forEach((group, k) => group.forEach((store, member) => (at[store] = { group: k, member })));
  const fedBy = groups.map((group, k) => [...new Set(group.flatMap((store) => into[store].map(([from]) => at[from].group)))].filter((from) => from < k)); // prettier-ignore
  return { groups, fedBy, at, into, leaves: stores.map(({ outlets }) => outlets.map(({ to }) => !place.has(to))) };
}

/** Routes all stores over the same steps; inflows are instants joined by straight lines. */
export function route(
  { stores, ...over }: Steps & { readonly stores: readonly RoutedStore[] },
  { eachGroup = AFRESH, order = routeOrder(stores) }: { readonly eachGroup?: EachGroup; readonly order?: RouteOrder } = {},
): RouteResult {
  /** What has been let through to a store; outlets of the same group are not known yet: the group leads their water itself. */
  const arrivingAt = (store: number, done: readonly GroupRun[]): readonly Arriving[] => {
    const ways = order.into[store];
    if (ways.length === 0) return NOTHING_COMES;
    const arriving: Arriving[] = [];
    for (const way of ways) {
      const { group, member } = order.at[way[0]];
      const from: GroupRun | undefined = done[group];
      if (!from) continue;
      const run = from.outlets[member][way[1]];
      const { lagS, share = 1 } = stores[way[0]].outlets[way[1]];
      if (hasRun(run)) arriving.push({ run, lagS, share });
    }
    return arriving;
  };
  const groups = order.groups.map((places): GroupToRoute => ({ id: stores[places[0]].id, stores: places.map((at) => stores[at]) }));
  return new Routed(stores, order, {
    stepS: over.stepS,
    done: eachGroup(groups, over, (k, done) => order.groups[k].map((store) => arrivingAt(store, done))),
  });
}

/** What a storm did to all stores. */
class Routed implements RouteResult {
  readonly stepS: number;
  readonly ids: readonly string[];
  readonly runs: readonly StoreRun[];
  readonly ways: readonly (readonly OutletRun[])[];
  readonly balance: Balance;
  private storesBy: ReadonlyMap<string, StoreRun> | null = null;
  private outletsBy: ReadonlyMap<string, OutletRun> | null = null;

  constructor(
    stores: readonly RoutedStore[],
    { at, leaves }: RouteOrder,
    { stepS, done }: { readonly stepS: number; readonly done: readonly GroupRun[] },
  ) {
    this.stepS = stepS;
    this.ids = stores.map((s) => s.id);
    this.runs = at.map(({ group, member }) => done[group].stores[member]);
    this.ways = at.map(({ group, member }) => done[group].outlets[member]);
    let [inM3, soakedM3, storedM3, leftM3] = [0, 0, 0, 0];
    for (const run of done) {
      inM3 += run.inM3;
      soakedM3 += run.soakedM3;
      storedM3 += run.storedM3 + run.onTheWayM3;
    }
    for (let s = 0; s < stores.length; s++) {
      const { outlets } = stores[s];
      for (let k = 0; k < outlets.length; k++) leftM3 += (leaves[s][k] ? 1 : 1 - (outlets[k].share ?? 1)) * this.ways[s][k].volumeM3;
    }
    const error = inM3 - storedM3 - soakedM3 - leftM3;
    this.balance = { inM3, storedM3, soakedM3, leftM3, errorFraction: inM3 > 0 ? error / inM3 : 0 };
  }

  // Made when they are asked for: of hundreds of stores few are looked up.
  get stores(): ReadonlyMap<string, StoreRun> {
    return (this.storesBy ??= new Map(this.ids.map((id, k) => [id, this.runs[k]])));
  }

  get outlets(): ReadonlyMap<string, OutletRun> {
    return (this.outletsBy ??= new Map(this.ways.flat().map((way) => [way.id, way])));
  }
}
