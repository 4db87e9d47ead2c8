// A storm routed through all stores.
import type { Link, Outlet, Stage, Store } from '../../contract/index.ts';
import {
  type Arrivals,
  type GroupRun,
  type RouteResult,
  type RoutedOutlet,
  type RoutedStore,
  type Steps,
  arrivalsOf,
  route,
  routeGroup,
  wettedAt,
} from '../../network/index.ts';
import type { Storm } from '../../rain/index.ts';
import { type Graph, asItself } from '../graph/graph.ts';
import type { Conditions } from '../scenario/conditions.ts';
import type { IntakePlace } from '../water/intakes.ts';
import type { GroundUnder } from '../water/soak.ts';
import type { Water } from '../water/water.ts';
import type { Gathered } from '../world/catchments.ts';
import { baseFlows } from '../world/springs.ts';
import type { CatchmentRunoff } from './hydrology.ts';

/** How long after the storm routing goes on [s], at least. */
const LEAST_TAIL_S = 6 * 3600;

/** What a storm needs of the land and the works. */
export interface StormInput {
  readonly water: Pick<Water, 'stores' | 'links' | 'led' | 'places' | 'springs' | 'under'>;
  readonly catchments: readonly Gathered[];
  readonly runoff: ReadonlyMap<string, CatchmentRunoff>;
  readonly storm: Storm;
  /** Whether soakage during the storm counts. */
  readonly soakage: boolean;
  /** Where the water of each store stands when the storm begins; those left out are empty. */
  readonly startsM: ReadonlyMap<string, number>;
  /** Whether what each catchment sends is raised to the peak chosen for it. */
  readonly isRaised: boolean;
  readonly conditions: Conditions;
  readonly graph: Graph;
}

/** What a store loses into its bed [mm/h], and the soil that takes it until it is full; null where that never ends. */
export interface Soaks {
  readonly mmPerHour: number;
  /** Depth of water the soil has room for, and the area it lies under [mm, m2]. */
  readonly soil: { readonly roomMm: number; readonly wetM2: number } | null;
}

/** What can soak in before the soil is full [m3]. */
export const roomOf = ({ soil }: Soaks): number => (soil ? (soil.roomMm * soil.wetM2) / 1000 : Infinity);

/** By its own rate where that was measured, without an end; else by the ground under what it wets when full, where that is known. */
export function soaksOf(store: Store, under: GroundUnder | null): Soaks {
  if (store.seepsMmPerHour !== undefined) return { mmPerHour: store.seepsMmPerHour, soil: null };
  if (!under) return { mmPerHour: 0, soil: null };
  return { mmPerHour: under.rateMmPerHour, soil: { roomMm: under.roomMm, wetM2: wettedAt(store.stage, store.heldM3) } };
}

interface Comes {
  readonly storm: Storm;
  readonly flowM3s: Float64Array | null;
  /** Share of the catchment that is ground: the rest is the store's open water. */
  readonly ground: number;
  /** Steady inflow from springs [m3/s]. */
  readonly steadyM3s: number;
  readonly sent: number;
  readonly raise: Raise | null;
  readonly steps: number;
}

/** What comes to a store by itself: its catchment's runoff without its own open water's, rain on that water, and springs. */
function inflowOf(
  { rainedM2 }: { readonly rainedM2: number },
  { storm, flowM3s, ground, steadyM3s, sent, raise, steps }: Comes,
): Float64Array {
  const perMm = rainedM2 / 1000 / (storm.stepMin * 60);
  const { stepsMm } = storm;
  const inflow = new Float64Array(steps).fill(steadyM3s);
  // What is shed and what falls end before the run does.
  const shed = Math.min(steps, flowM3s?.length ?? 0);
  for (let i = 0; flowM3s && i < shed; i++) inflow[i] += sent * ground * raised(flowM3s[i], raise);
  const rained = Math.min(steps, stepsMm.length);
  for (let i = 0; i < rained; i++) inflow[i] += perMm * stepsMm[i];
  return inflow;
}

/** How far under an outlet the water beyond may stay for the two to be routed apart [m]. */
const CLEAR_M = 0.3;

/** Whether the store an outlet leads to can rise to where it is felt. */
function isFelt(outlet: Outlet, to: Store | undefined): boolean {
  return outlet.drownsM !== undefined && to !== undefined && to.crestM + CLEAR_M > outlet.drownsM;
}

/** A way out with where its water comes to. */
interface Led {
  readonly link: Link;
  /** The store there, where its level may be felt. */
  readonly below: Store | null;
  /** The store, or the place before it where its water is parted. */
  readonly to: string;
}

/** A store's ways out as they are routed. */
function routedOutlets(store: Store, ways: readonly Led[]): RoutedOutlet[] {
  return store.outlets.map((outlet, k): RoutedOutlet => {
    const { link, below, to } = ways[k];
    const { lagS, share = 1 } = link;
    const isJoint = to !== store.id && isFelt(outlet, below ?? undefined);
    return { id: outlet.id, to, lagS: isJoint ? 0 : lagS, share, flowAt: outlet.flowAt, isJoint };
  });
}

/** A place that stores nothing stands at no level. */
const NO_STAGE: Stage = { levelM: Float64Array.of(0, 1), volumeM3: Float64Array.of(0, 1), wettedM2: Float64Array.of(0, 0) };

/** A place where water is parted, as it is routed: what the store takes, and what runs past it. */
const routedPlace = ({ id, store, takes, past }: IntakePlace, inflow: Float64Array, to: string): RoutedStore => ({
  id,
  stage: NO_STAGE,
  inflow,
  takes,
  outlets: [
    { id: `${id}:in`, to: store, lagS: 0, flowAt: () => 0 },
    { id: past.outlet, to, lagS: past.lagS, flowAt: () => 0 },
  ],
});

/** A run's own clock: how long its steps are, and how many. */
function stepsOf({ runoff, storm }: Pick<StormInput, 'runoff' | 'storm'>): Steps {
  const stepS = storm.stepMin * 60;
  const longest = Math.max(0, ...[...runoff.values()].map((r) => r.flowM3s.length));
  return { stepS, steps: Math.max(longest, storm.stepsMm.length) + Math.ceil(LEAST_TAIL_S / stepS) };
}

/** How a hydrograph is raised: what is above a flow is stretched so many times. */
interface Raise {
  readonly fromM3s: number;
  readonly times: number;
}

/** Share of a hydrograph's peak from which it is stretched: the flood about its peak, not the hours of rain round it. */
const RAISED_FROM = 0.5;

/** How a catchment's hydrograph is raised to the peak chosen for it; null where that is no more: it is never lowered. */
export function raiseOf(shed: CatchmentRunoff | undefined): Raise | null {
  if (!shed) return null;
  const { hydrographPeakM3s: peak, chosenPeakM3s: chosen } = shed.runoff;
  if (!(peak > 0) || chosen <= peak * (1 + 1e-9)) return null;
  const fromM3s = RAISED_FROM * peak;
  return { fromM3s, times: (chosen - fromM3s) / (peak - fromM3s) };
}

/** A flow of a hydrograph as it is raised. */
export const raised = (flowM3s: number, by: Raise | null): number =>
  by && flowM3s > by.fromM3s ? by.fromM3s + by.times * (flowM3s - by.fromM3s) : flowM3s;

const shareOfGround = (areaM2: number, waterM2: number): number => (areaM2 > 0 ? Math.max(0, 1 - waterM2 / areaM2) : 1);

/** What comes to each store by itself. */
function comingTo({ water, runoff, storm, catchments, conditions, isRaised }: StormInput, steps: number): (id: string) => Comes {
  const waterM2 = new Map(water.stores.map((s) => [s.id, s.waterM2 ?? 0]));
  const areas = new Map(catchments.map(({ catchment }) => [catchment.of, catchment.areaM2]));
  const base = baseFlows(water.springs);
  return (id) => {
    const flow = runoff.get(id)?.flowM3s;
    return {
      storm,
      flowM3s: flow ? asItself(flow) : null,
      ground: shareOfGround(areas.get(id) ?? 0, waterM2.get(id) ?? 0),
      steadyM3s: base.get(id) ?? 0,
      sent: conditions.sent.get(id) ?? 1,
      raise: isRaised ? raiseOf(runoff.get(id)) : null,
      steps,
    };
  };
}

/** How a store is routed, beside its ways out. */
interface Filled {
  readonly inflow: Float64Array;
  readonly soakMPerS: number;
  readonly soakRoomM3: number;
  readonly startM: number | null;
}

const routedStore = (
  { id, stage }: Store,
  { inflow, soakMPerS, soakRoomM3, startM }: Filled,
  outlets: readonly RoutedOutlet[],
): RoutedStore => ({ id, stage, inflow, soakMPerS, soakRoomM3, ...(startM === null ? {} : { startM }), outlets });

/** All stores as they are routed, each with the place before it where its water is parted. */
function routedStores(input: StormInput, steps: number): RoutedStore[] {
  const { water, graph } = input;
  const byId = new Map(water.stores.map((s) => [s.id, s]));
  const places = new Map(water.places.map((p) => [p.store, p]));
  const comesFor = comingTo(input, steps);
  /** Over the ground water comes to the place before a store; led there, to the store itself. */
  const comesTo = ({ to, outlet }: Link): string => (water.led.has(outlet) ? to : (places.get(to)?.id ?? to));
  return water.stores.flatMap((store): RoutedStore[] => {
    const { id, waterM2 = 0 } = store;
    const ways = (water.links.get(id) ?? []).map((link, k) => ({
      link,
      below: store.outlets[k].drownsM === undefined ? null : (byId.get(link.to) ?? null),
      to: comesTo(link),
    }));
    const outlets = graph.step(`outlets:${id}`, [store, ways], routedOutlets);
    const place = places.get(id);
    const comes = comesFor(id);
    // What is parted before it comes to the store comes to that place; only rain on its own water is its own.
    const own = place ? { ...comes, flowM3s: null, steadyM3s: 0 } : comes;
    const soaks = soaksOf(store, water.under.get(id) ?? null);
    const filled: Filled = {
      inflow: graph.step(`inflow:${id}`, [{ rainedM2: waterM2 }, own], inflowOf),
      soakMPerS: input.soakage ? soaks.mmPerHour / 3.6e6 : 0,
      soakRoomM3: roomOf(soaks),
      startM: input.startsM.get(id) ?? null,
    };
    const routed = graph.step(`routed:${id}`, [store, filled, outlets], routedStore);
    if (!place) return [routed];
    const before = graph.step(`parted:${id}`, [{ rainedM2: 0 }, comes], inflowOf);
    return [graph.step(`parting:${id}`, [place, before, comesTo(place.past)], routedPlace), routed];
  });
}

/** Routes the storm through all stores: what a change does not reach stays as it was worked out. */
export function runStorm(input: StormInput): RouteResult {
  const { graph } = input;
  const over = stepsOf(input);
  return route(
    { stores: routedStores(input, over.steps), ...over },
    {
      arrivals: (to, ways, by) => graph.step(`arrivals:${to}`, [ways, by], arrivalsOf),
      group: (group, by, arrivals) => graph.step(`route:${group[0].id}`, [group, by, arrivals], keptRun),
    },
  );
}

/** A group's run whose parts are told apart by being themselves, since others read them one by one. */
function keptRun(stores: readonly RoutedStore[], over: Steps, arrivals: ReadonlyMap<string, Arrivals>): GroupRun {
  const run = routeGroup(stores, over, arrivals);
  for (const part of [...run.stores, ...run.outlets]) asItself(part);
  return run;
}
