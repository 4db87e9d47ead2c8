// A storm routed through all stores.
import type { Link, Outlet, Stage, Store } from '../../contract/index.ts';
import {
  type Coming,
  type EachGroup,
  type GroupRun,
  type GroupToRoute,
  type Linked,
  type OutletRun,
  type RouteResult,
  type RoutedOutlet,
  type RoutedStore,
  type Steps,
  asItCame,
  route,
  routeComing,
  routeOrder,
  wettedAt,
} from '../../network/index.ts';
import type { Storm } from '../../rain/index.ts';
import { type Columns, type Graph, type InTurn, asItself, byIds, columnOf, forAll, idsOf, knownOf } from '../graph/graph.ts';
import type { Conditions } from '../scenario/conditions.ts';
import type { IntakePlace } from '../water/intakes.ts';
import { isFelt } from '../water/leading.ts';
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
  /** Whether what comes to a store from others may stay what it was as long as it is all but the same. */
  readonly isNear: boolean;
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

type Comes = [
  /** Open water that catches rain of its own [m2]. */
  rainedM2: number,
  flowM3s: Float64Array | null,
  /** Share of the catchment that is ground: the rest is the store's open water. */
  ground: number,
  /** Steady inflow from springs [m3/s]. */
  steadyM3s: number,
  sent: number,
  raise: Raise | null,
  storm: Storm,
  steps: number,
];

/** What comes to a store by itself: its catchment's runoff without its own open water's, rain on that water, and springs. */
function inflowOf(...[rainedM2, flowM3s, ground, steadyM3s, sent, raise, { stepsMm, stepMin }, steps]: Comes): Float64Array {
  const perMm = rainedM2 / 1000 / (stepMin * 60);
  const inflow = new Float64Array(steps).fill(steadyM3s);
  // What is shed and what falls end before the run does.
  const shed = Math.min(steps, flowM3s?.length ?? 0);
  for (let i = 0; flowM3s && i < shed; i++) inflow[i] += sent * ground * raised(flowM3s[i], raise);
  const rained = Math.min(steps, stepsMm.length);
  for (let i = 0; i < rained; i++) inflow[i] += perMm * stepsMm[i];
  return inflow;
}

/** A store's ways out as they are routed. */
function routedOutlets(
  ...[store, links, below, comesTo]: [Store, readonly Link[], readonly (Store | null)[] | null, readonly string[] | null]
): RoutedOutlet[] {
  return store.outlets.map((outlet, k): RoutedOutlet => {
    const { lagS, share = 1 } = links[k];
    const to = comesTo ? comesTo[k] : links[k].to;
    const isJoint = to !== store.id && isFelt(outlet, below && below[k]);
    return { id: outlet.id, to, lagS: isJoint ? 0 : lagS, share, flowAt: outlet.flowAt, fromM: outlet.levelM, isJoint };
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

/** What catchments send, in the order of the stores they are of. */
interface Sent {
  readonly flows: readonly (Float64Array | null)[];
  readonly raises: readonly (Raise | null)[];
}

const sentBy = new WeakMap<StormInput['runoff'], Map<readonly string[], Sent>>();

/** The same for all runs of one rain. */
function sentIn(runoff: StormInput['runoff'], ids: readonly string[]): Sent {
  const known = sentBy.get(runoff) ?? new Map<readonly string[], Sent>();
  sentBy.set(runoff, known);
  const before = known.get(ids);
  if (before) return before;
  const shed = ids.map((id) => runoff.get(id));
  const sent = { flows: shed.map((s) => (s ? asItself(s.flowM3s) : null)), raises: shed.map(raiseOf) };
  known.set(ids, sent);
  return sent;
}

/** What comes to stores by themselves; what their catchments send and springs bring only to those that are brought it. */
function comingTo(
  { water, runoff, catchments, storm, conditions, isRaised }: StormInput,
  steps: number,
): (stores: readonly Store[], isBrought: ((id: string) => boolean) | null) => Columns<Comes> {
  const areas = new Map(catchments.map(({ catchment }) => [catchment.of, catchment.areaM2]));
  const base = baseFlows(water.springs);
  return (stores, isBrought) => {
    const ids = idsOf(stores);
    const { flows, raises } = sentIn(runoff, ids);
    return [
      stores.map((s) => s.waterM2 ?? NO_WATER_M2),
      isBrought ? flows.map((flow, k) => (isBrought(ids[k]) ? flow : null)) : flows,
      stores.map((s) => shareOfGround(areas.get(s.id) ?? 0, s.waterM2 ?? NO_WATER_M2)),
      base.size === 0 ? forAll(0) : ids.map((id) => (isBrought?.(id) === false ? 0 : (base.get(id) ?? 0))),
      conditions.sent.size === 0 ? forAll(1) : ids.map((id) => conditions.sent.get(id) ?? 1),
      isRaised ? raises : forAll(null),
      forAll(storm),
      forAll(steps),
    ];
  };
}

/** A store as it is routed: with what comes to it, the ground under it, and the level it is found at where it is not empty. */
function routedStore(
  ...[store, inflow, under, startM, outlets, isSoaking]: [
    Store,
    Float64Array,
    GroundUnder | null,
    number | null,
    readonly RoutedOutlet[],
    boolean,
  ]
): RoutedStore {
  const soaks = soaksOf(store, under);
  const { id, stage } = store;
  const soakMPerS = isSoaking ? soaks.mmPerHour / 3.6e6 : 0;
  return { id, stage, inflow, soakMPerS, soakRoomM3: roomOf(soaks), ...(startM === null ? {} : { startM }), outlets };
}

/** All stores as they are routed, each with the place before it where its water is parted. */
function routedStores(input: StormInput, steps: number): readonly RoutedStore[] {
  const { water, graph, startsM, soakage } = input;
  const { stores, places } = water;
  const ids = idsOf(stores);
  const { below, to, placeTo } = ledIn(water);
  const outlets = graph.each('outlets', { ids, columns: [stores, columnOf(ids, water.links, NO_LINKS), below, to] }, routedOutlets).all;
  const columns = comingTo(input, steps);
  const placeOf = new Map(places.map((p) => [p.store, p]));
  // What is parted before it comes to a store comes to that place: only rain on its own water is the store's own.
  const own = columns(stores, places.length === 0 ? null : (id) => !placeOf.has(id));
  const inflow = graph.each('inflow', { ids, columns: own }, inflowOf).all;
  const under = columnOf(ids, water.under, null);
  const starts = columnOf(ids, startsM, null);
  const routed = graph.each('routed', { ids, columns: [stores, inflow, under, starts, outlets, forAll(soakage)] }, routedStore).all;
  if (places.length === 0) return routed;
  const parted = knownOf(places.map((p) => p.store), byIds(ids, stores)); // prettier-ignore
  const [, ...brought] = columns(parted, null);
  const inflows = graph.each('parted', { ids: idsOf(places), columns: [forAll(NO_WATER_M2), ...brought] }, inflowOf).all;
  const parting = graph.each('parting', { ids: idsOf(places), columns: [places, inflows, placeTo] }, routedPlace).by;
  return stores.flatMap(({ id }, k) => {
    const place = placeOf.get(id);
    const before = place && parting.get(place.id);
    return before ? [before, routed[k]] : [routed[k]];
  });
}
const NO_WATER_M2 = 0;

/** Where the water of ways out comes to, in the order of the stores: found once for all runs of one water. */
interface Led {
  /** The stores there, where their level may be felt; null of one that feels none. */
  readonly below: readonly (readonly (Store | null)[] | null)[];
  /** The stores, or the places before them where their water is parted; null of one whose water comes where its links lead. */
  readonly to: readonly (readonly string[] | null)[];
  /** The same of what runs past each place. */
  readonly placeTo: readonly string[];
}

const ledBy = new WeakMap<StormInput['water'], Led>();

function ledIn(water: StormInput['water']): Led {
  const known = ledBy.get(water);
  if (known) return known;
  const { stores, links, led } = water;
  const byId = byIds(idsOf(stores), stores);
  const places = new Map(water.places.map((p) => [p.store, p.id]));
  /** Over the ground water comes to the place before a store; led there, to the store itself. */
  const comesTo = ({ to, outlet }: Link): string => (led.has(outlet) ? to : (places.get(to) ?? to));
  const ways = columnOf(idsOf(stores), links, NO_LINKS);
  const feels = ({ drownsM }: Outlet): boolean => drownsM !== undefined;
  const found: Led = {
    below: stores.map(({ outlets }, k) =>
      outlets.some(feels) ? outlets.map((o, j) => (feels(o) ? (byId.get(ways[k][j].to) ?? null) : null)) : null,
    ),
    to: places.size === 0 ? stores.map(() => null) : ways.map((own) => own.map(comesTo)),
    placeTo: water.places.map((p) => comesTo(p.past)),
  };
  ledBy.set(water, found);
  return found;
}
const NO_LINKS: readonly Link[] = [];

/** Routes the storm through all stores: what a change does not reach stays as it was worked out. */
export function runStorm(input: StormInput): RouteResult {
  const { graph, isNear } = input;
  const over = stepsOf(input);
  const stores = routedStores(input, over.steps);
  // Where ways out lead changes seldom; what they pass does with every touch.
  const ties = graph.each('tied', { ids: idsOf(stores), columns: [stores], isSettled: true }, tiesOf);
  const order = graph.step('route-order', [ties.all], routeOrder);
  const eachGroup: EachGroup = (groups, by, comingOf) => {
    // What each reads hangs on whether it may stay, too: whoever asks for the very same is not given what was near it.
    const hung = { all: [by.stepS, by.steps, order, isNear], own: groups.map((g) => g.stores), before: order.fedBy };
    const readsOf: Reading['readsOf'] = ({ stores }, k, done) => [by, comingOf(k, done), ...stores];
    const asRead: Reading['asRead'] = isNear ? ([steps, now, ...own], last) => [steps, asItCame(last?.[1], now), ...own] : undefined;
    return graph.inTurn('route', { items: groups, readsOf, asRead, hung }, keptRun).all;
  };
  return route({ stores, ...over }, { order, eachGroup });
}

/** How a group's route says what it reads. */
type Reading = InTurn<GroupToRoute, Parameters<typeof keptRun>, GroupRun>;

/** A store by where its ways out lead. */
const tiesOf = ({ id, outlets }: RoutedStore): Linked => ({ id, outlets: outlets.map(({ to, isJoint = false }) => ({ to, isJoint })) });

/** A group's run whose parts are told apart by being themselves, since others read them one by one. */
function keptRun(over: Steps, coming: Coming, ...stores: readonly RoutedStore[]): GroupRun {
  const run = routeComing(stores, over, coming);
  for (const part of [...run.stores, ...run.outlets, ...run.outlets.flat()]) asItself(part);
  return run;
}

/** Runs of what passed places, in their order: the second way out of each. */
export const pastRuns = (places: Water['places'], { ids, ways }: Pick<RouteResult, 'ids' | 'ways'>): readonly OutletRun[] =>
  knownOf(idsOf(places), byIds(ids, ways)).map(([, past]) => past);
