// A storm routed through all stores, and what it did to each of them.
import type { ConduitStorm, Link, LinkFlow, Outlet, OutletStorm, Site, Stage, Store, StoreStorm } from '../../contract/index.ts';
import { Worksheet, type WorksheetLine } from '../../formula/index.ts';
import {
  type Arrivals,
  DRAIN_DOWN,
  type GroupRun,
  type OutletRun,
  type RouteResult,
  type RoutedOutlet,
  type RoutedStore,
  type Steps,
  type StoreRun,
  arrivalsOf,
  meanWettedArea,
  route,
  routeGroup,
} from '../../network/index.ts';
import type { Storm } from '../../rain/index.ts';
import { type ExitFlow, exitFlow } from '../../works/index.ts';
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
  readonly conditions: Conditions;
  readonly graph: Graph;
}

/** Rate a store loses into its bed [mm/h]: its own where it was measured, else that of the ground under it, where that is known. */
export const seepsOf = (store: Store, under: GroundUnder | null): number => store.seepsMmPerHour ?? under?.rateMmPerHour ?? 0;

interface Comes {
  readonly storm: Storm;
  readonly flowM3s: Float64Array | null;
  readonly areaM2: number;
  /** Steady inflow from springs [m3/s]. */
  readonly steadyM3s: number;
  readonly sent: number;
  readonly steps: number;
}

/** What comes to a store by itself: its catchment's runoff, rain on its open water in place of what that ground would shed, and springs. */
function inflowOf({ waterM2 }: { readonly waterM2: number }, { storm, flowM3s, areaM2, steadyM3s, sent, steps }: Comes): Float64Array {
  const ground = areaM2 > 0 ? Math.max(0, 1 - waterM2 / areaM2) : 1;
  const perMm = waterM2 / 1000 / (storm.stepMin * 60);
  return Float64Array.from({ length: steps }, (_, i) => steadyM3s + sent * ground * (flowM3s?.[i] ?? 0) + perMm * (storm.stepsMm[i] ?? 0));
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

/** What comes to each store by itself. */
function comingTo({ water, runoff, storm, catchments, conditions }: StormInput, steps: number): (id: string) => Comes {
  const areas = new Map(catchments.map(({ catchment }) => [catchment.of, catchment.areaM2]));
  const base = baseFlows(water.springs);
  return (id) => {
    const flow = runoff.get(id)?.flowM3s;
    return {
      storm,
      flowM3s: flow ? asItself(flow) : null,
      areaM2: areas.get(id) ?? 0,
      steadyM3s: base.get(id) ?? 0,
      sent: conditions.sent.get(id) ?? 1,
      steps,
    };
  };
}

/** How a store is routed, beside its ways out. */
interface Filled {
  readonly inflow: Float64Array;
  readonly soakMPerS: number;
  readonly startsFull: boolean;
}

const routedStore = (
  { id, stage, wayOutM }: Store,
  { inflow, soakMPerS, startsFull }: Filled,
  outlets: readonly RoutedOutlet[],
): RoutedStore => ({ id, stage, inflow, soakMPerS, ...(startsFull ? { startM: wayOutM } : {}), outlets });

/** All stores as they are routed, each with the place before it where its water is parted. */
function routedStores(input: StormInput, steps: number): RoutedStore[] {
  const { water, conditions, graph } = input;
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
    const own = place ? { ...comes, flowM3s: null, areaM2: 0, steadyM3s: 0 } : comes;
    const filled: Filled = {
      inflow: graph.step(`inflow:${id}`, [{ waterM2 }, own], inflowOf),
      soakMPerS: input.soakage ? seepsOf(store, water.under.get(id) ?? null) / 3.6e6 : 0,
      startsFull: conditions.startsFull,
    };
    const routed = graph.step(`routed:${id}`, [store, filled, outlets], routedStore);
    if (!place) return [routed];
    const before = graph.step(`parted:${id}`, [{ waterM2: 0 }, comes], inflowOf);
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

/** Volume left of a standing one after so many hours of seeping and drying. */
function leftAfter(store: Store, standingM3: number, on: { readonly hours: number; readonly mmPerHour: number }): number {
  let volume = standingM3;
  for (let h = 0; h < on.hours && volume > 0; h++) {
    const area = meanWettedArea(store.stage, volume);
    volume = Math.max(0, volume - (on.mmPerHour / 1000) * area);
  }
  return volume;
}

/** Flow over all its ways out at each instant, drowned ones too: the mouths of joined stores let none out. */
function outflows(store: Store, run: StoreRun, outlets: readonly (OutletRun | null)[]): Float64Array {
  const sum = Float64Array.from(run.outM3s);
  store.outlets.forEach(({ kind }, k) => {
    const drowned = outlets[k];
    if (kind === 'joint' || drowned?.isJoint !== true) return;
    drowned.flowM3s.forEach((q, i) => (sum[i + 1] += q));
  });
  return sum;
}

/** What the storm did to one store, and the working of how long it takes to empty. */
export interface StoreOutcome {
  readonly storm: StoreStorm;
  readonly sheet: readonly WorksheetLine[];
}

/** What a store's run comes to; `outlets` are the runs of its ways out as they stand, `seepsMmPerHour` what its bed takes in. */
export function stormOf(
  store: Store,
  run: StoreRun,
  on: { readonly outlets: readonly (OutletRun | null)[]; readonly stepS: number; readonly seepsMmPerHour: number },
): StoreOutcome {
  const { outlets, stepS } = on;
  const sheet = new Worksheet(store.id);
  const leaving = outflows(store, run, outlets);
  let peakLevelM = -Infinity;
  let peakInM3s = 0;
  let peakOutM3s = 0;
  let firstSpillS: number | null = null;
  let [spilledM3, spillsS] = [0, 0];
  run.levelM.forEach((level, i) => {
    peakLevelM = Math.max(peakLevelM, level);
    peakInM3s = Math.max(peakInM3s, run.inM3s[i]);
  });
  leaving.forEach((q, i) => {
    peakOutM3s = Math.max(peakOutM3s, q);
    if (firstSpillS === null && q > 0) firstSpillS = i * stepS;
  });
  store.outlets.forEach(({ kind }, k) => {
    const ran = outlets[k];
    if (kind === 'joint' || !ran) return;
    spilledM3 += ran.volumeM3;
    spillsS = Math.max(spillsS, ran.runsS);
  });
  const endM3 = run.volumeM3[run.volumeM3.length - 1];
  // Drain-down starts from what stands when the sill stops running.
  const standing = Math.min(
    run.volumeM3.reduce((a, v) => Math.max(a, v), 0),
    store.heldM3,
  );
  const mmPerHour = on.seepsMmPerHour + (store.driesMmPerHour ?? 0);
  let drainDownH: number | null = standing <= 0 ? 0 : null;
  const area = standing > 0 ? meanWettedArea(store.stage, standing) : 0;
  if (standing > 0 && mmPerHour >= LEAST_LOSS_MM_H && area > 0) drainDownH = sheet.use(DRAIN_DOWN, { V: standing, f: mmPerHour, A: area });
  const storm = {
    inM3: run.inM3,
    soakedM3: run.soakedM3,
    spilledM3,
    endM3,
    peakLevelM,
    peakInM3s,
    peakOutM3s,
    firstSpillS,
    spillsH: spillsS / 3600,
    freeboardM: store.crestM - peakLevelM,
    drainDownH,
    holds: spilledM3 <= 1e-6 * Math.max(1, run.inM3),
    nextDayM3: leftAfter(store, standing, { hours: 24, mmPerHour }),
  };
  return { storm, sheet: sheet.lines };
}

/** What loses less than this keeps its water for good: 9 mm a year [mm/h]. */
const LEAST_LOSS_MM_H = 0.001;

/** Whether what an outlet's water runs on stands it; unknown where the ground there is. */
function liningUnder(peakM3s: number, flow: ExitFlow | null): OutletStorm['lining'] {
  if (!flow || flow.velocityMs === null) return 'unknown';
  if (flow.standsMs === null) return peakM3s > 0 ? 'washes' : 'unknown';
  return flow.velocityMs > flow.standsMs ? 'washes' : 'stands';
}

/** What the storm did to each way out of a store, and whether what its water runs on stands it. */
export function outletStorms(store: Store, runs: readonly (OutletRun | null)[], site: Site): OutletStorm[] {
  return store.outlets.flatMap((outlet, k): OutletStorm[] => {
    const run = runs[k];
    if (!run || (outlet.kind === 'bank' && run.volumeM3 <= 0)) return [];
    const { exit } = outlet;
    const cover = exit && site.soilAt(exit.at)?.cover;
    const flow = exit && cover ? exitFlow(exit, run.peakM3s, cover) : null;
    return [
      {
        id: outlet.id,
        work: outlet.work,
        role: outlet.role,
        store: store.id,
        levelM: outlet.levelM,
        peakM3s: run.peakM3s,
        peakAtS: run.peakAtS,
        volumeM3: run.volumeM3,
        runsH: run.runsS / 3600,
        velocityMs: flow?.velocityMs ?? null,
        standsMs: flow?.standsMs ?? null,
        lining: liningUnder(run.peakM3s, flow),
      },
    ];
  });
}

/** What the storm did to a pipe. */
export function conduitStorm(
  store: Store,
  run: StoreRun,
  { outlets: runs, stepS }: { readonly outlets: readonly (OutletRun | null)[]; readonly stepS: number },
): ConduitStorm {
  const [pipe, rim] = store.outlets.map((outlet, k) => ({ outlet, run: runs[k] }));
  const { soffitM = Infinity } = store;
  return {
    id: store.id,
    work: store.work,
    peakM3s: pipe.run?.peakM3s ?? 0,
    capacityM3s: pipe.outlet.flowAt(rim.outlet.levelM),
    peakLevelM: run.levelM.reduce((a, v) => Math.max(a, v), -Infinity),
    surchargedH: (run.levelM.reduce((n, v) => n + (v > soffitM ? 1 : 0), 0) * stepS) / 3600,
    overM3: rim.run?.volumeM3 ?? 0,
  };
}

/** A link with what the storm sends along it. */
export const flowOn = (link: Link, run: OutletRun | null): LinkFlow => ({
  ...link,
  volumeM3: run?.volumeM3 ?? null,
  peakM3s: run?.peakM3s ?? null,
});

/** Flow on each link of a store, unknown without a storm; an unused bank crest is left out, an unused sill is kept. */
export function linkFlows(store: Store, links: readonly Link[], runs: readonly (OutletRun | null)[]): LinkFlow[] {
  return links.flatMap((link, k) => {
    const { kind, levelM } = store.outlets[k];
    const isChosen = kind !== 'bank' || levelM === store.wayOutM;
    const run = runs[k];
    if (!isChosen && (run?.volumeM3 ?? 0) <= 0) return [];
    return [flowOn(link, run)];
  });
}

/** Peak a store's outlets must pass, by the method chosen; else the larger of the routed inflow and the rational peak with what arrives from above [m3/s]. */
export function designPeakOf(
  storm: StoreStorm | null,
  known: { readonly runoff: CatchmentRunoff | null; readonly hasCatchment: boolean; readonly fromAboveM3s: number },
): number | null {
  if (!storm || !known.runoff || !known.hasCatchment) return null;
  const { choice, chosenPeakM3s, rationalPeakM3s } = known.runoff.runoff;
  // A hydrograph is taken as it was routed, with what spills in from above.
  if (choice.peak === 'hydrograph') return storm.peakInM3s;
  if (choice.peak === 'larger') return Math.max(storm.peakInM3s, rationalPeakM3s + known.fromAboveM3s);
  return chosenPeakM3s + known.fromAboveM3s;
}
