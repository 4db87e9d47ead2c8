import type { Catchment, Link, LinkFlow, Outlet, OutletStorm, Store, StoreStorm } from '../contract/index.ts';
import { Worksheet } from '../formula/index.ts';
import type { Cover } from '../ground/index.ts';
import {
  DRAIN_DOWN,
  type RouteResult,
  type RoutedOutlet,
  type RoutedStore,
  type StoreRun,
  meanWettedArea,
  route,
} from '../network/index.ts';
import type { Storm } from '../rain/index.ts';
import { type ExitFlow, exitFlow } from '../works/index.ts';
import { AS_DESIGNED, type Conditions } from './conditions.ts';
import type { CatchmentRunoff } from './hydrology.ts';

/** How long after the storm routing goes on [s], at least. */
const LEAST_TAIL_S = 6 * 3600;

export interface StormInput {
  readonly stores: readonly Store[];
  readonly links: readonly Link[];
  readonly runoff: ReadonlyMap<string, CatchmentRunoff>;
  readonly catchments: readonly Catchment[];
  /** Steady inflow from springs by work [m3/s]. */
  readonly base: ReadonlyMap<string, number>;
  readonly storm: Storm;
  /** Rate the ground under each work takes in [mm/h]. */
  readonly soaksIn: ReadonlyMap<string, number>;
  /** Whether soakage during the storm counts. */
  readonly soakage: boolean;
  readonly conditions?: Conditions;
}

/** Rate a store loses into its bed [mm/h]: its own where it was measured, else that of the ground under it. */
const seepsOf = (store: Store, soaksIn: ReadonlyMap<string, number>): number => store.seepsMmPerHour ?? soaksIn.get(store.work) ?? 0;

/** What comes to a store by itself: its catchment's runoff, rain on its open water in place of what that ground would shed, and springs. */
function inflowOf(store: Store, steps: number, input: StormInput): Float64Array {
  const { runoff, catchments, base, storm, conditions = AS_DESIGNED } = input;
  const flow = runoff.get(store.work)?.flowM3s ?? new Float64Array(0);
  const areaM2 = catchments.find((c) => c.of === store.work)?.areaM2 ?? 0;
  const waterM2 = store.waterM2 ?? 0;
  const ground = areaM2 > 0 ? Math.max(0, 1 - waterM2 / areaM2) : 1;
  const sent = conditions.sent.get(store.work) ?? 1;
  const steady = base.get(store.work) ?? 0;
  const perMm = waterM2 / 1000 / (storm.stepMin * 60);
  return Float64Array.from({ length: steps }, (_, i) => steady + sent * ground * (flow[i] ?? 0) + perMm * (storm.stepsMm[i] ?? 0));
}

/** How far under an outlet the water beyond may stay for the two to be routed apart [m]. */
const CLEAR_M = 0.3;

/** Whether the store an outlet leads to can rise to where it is felt. */
function isFelt(outlet: Outlet, to: Store | undefined): boolean {
  return outlet.drownsM !== undefined && to !== undefined && to.crestM + CLEAR_M > outlet.drownsM;
}

/** Routes the storm through all stores. */
export function runStorm(input: StormInput): RouteResult {
  const { stores, links, runoff, storm, soaksIn, conditions = AS_DESIGNED } = input;
  const stepS = storm.stepMin * 60;
  const longest = Math.max(0, ...[...runoff.values()].map((r) => r.flowM3s.length));
  const steps = Math.max(longest, storm.stepsMm.length) + Math.ceil(LEAST_TAIL_S / stepS);
  const byId = new Map(stores.map((s) => [s.work, s]));
  const linkOf = new Map(links.map((l) => [l.outlet, l]));
  const routed = stores.map((store): RoutedStore => ({
    id: store.work,
    stage: store.stage,
    inflow: inflowOf(store, steps, input),
    soakMPerS: input.soakage ? seepsOf(store, soaksIn) / 3.6e6 : 0,
    ...(conditions.startsFull ? { startM: store.wayOutM } : {}),
    outlets: store.outlets.map((outlet): RoutedOutlet => {
      const link = linkOf.get(outlet.id);
      const to = link?.to ?? 'ground';
      const isJoint = to !== store.work && isFelt(outlet, byId.get(to));
      return { id: outlet.id, to, lagS: isJoint ? 0 : (link?.lagS ?? 0), flowAt: outlet.flowAt, isJoint };
    }),
  }));
  return route({ stores: routed, stepS, steps });
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

interface StormOf {
  readonly result: RouteResult;
  readonly soaksIn: ReadonlyMap<string, number>;
  readonly sheet: Worksheet;
}

/** Flow over all its ways out at each instant, drowned ones too: the mouths of joined stores let none out. */
function outflows(store: Store, run: StoreRun, { outlets }: RouteResult): Float64Array {
  const sum = Float64Array.from(run.outM3s);
  for (const { id, kind } of store.outlets) {
    const drowned = outlets.get(id);
    if (kind === 'joint' || drowned?.isJoint !== true) continue;
    drowned.flowM3s.forEach((q, i) => (sum[i + 1] += q));
  }
  return sum;
}

/** What the storm did to one store. */
export function stormOf(store: Store, run: StoreRun, { result, soaksIn, sheet }: StormOf): StoreStorm {
  const { stepS } = result;
  const leaving = outflows(store, run, result);
  let peakLevelM = -Infinity;
  let peakInM3s = 0;
  let peakOutM3s = 0;
  let firstSpillS: number | null = null;
  let spilledM3 = 0;
  run.levelM.forEach((level, i) => {
    peakLevelM = Math.max(peakLevelM, level);
    peakInM3s = Math.max(peakInM3s, run.inM3s[i]);
  });
  leaving.forEach((q, i) => {
    peakOutM3s = Math.max(peakOutM3s, q);
    if (firstSpillS === null && q > 0) firstSpillS = i * stepS;
  });
  for (const { id, kind } of store.outlets) if (kind !== 'joint') spilledM3 += result.outlets.get(id)?.volumeM3 ?? 0;
  const endM3 = run.volumeM3[run.volumeM3.length - 1];
  // Drain-down starts from what stands when the sill stops running.
  const standing = Math.min(
    run.volumeM3.reduce((a, v) => Math.max(a, v), 0),
    store.heldM3,
  );
  const mmPerHour = seepsOf(store, soaksIn) + (store.driesMmPerHour ?? 0);
  let drainDownH: number | null = standing <= 0 ? 0 : null;
  const area = standing > 0 ? meanWettedArea(store.stage, standing) : 0;
  if (standing > 0 && mmPerHour >= LEAST_LOSS_MM_H && area > 0) drainDownH = sheet.use(DRAIN_DOWN, { V: standing, f: mmPerHour, A: area });
  return {
    inM3: run.inM3,
    soakedM3: run.soakedM3,
    spilledM3,
    endM3,
    peakLevelM,
    peakInM3s,
    peakOutM3s,
    firstSpillS,
    spillsH: Math.max(0, ...store.outlets.map((o) => (o.kind === 'joint' ? 0 : (result.outlets.get(o.id)?.runsS ?? 0)))) / 3600,
    freeboardM: store.crestM - peakLevelM,
    drainDownH,
    holds: spilledM3 <= 1e-6 * Math.max(1, run.inM3),
    nextDayM3: leftAfter(store, standing, { hours: 24, mmPerHour }),
  };
}

/** What loses less than this keeps its water for good: 9 mm a year [mm/h]. */
const LEAST_LOSS_MM_H = 0.001;

/** Whether what an outlet's water runs on stands it; unknown where the ground there is. */
function liningUnder(peakM3s: number, flow: ExitFlow | null): OutletStorm['lining'] {
  if (!flow || flow.velocityMs === null) return 'unknown';
  if (flow.standsMs === null) return peakM3s > 0 ? 'washes' : 'unknown';
  return flow.velocityMs > flow.standsMs ? 'washes' : 'stands';
}

/** What the storm did to each outlet, and whether what its water runs on stands it. */
export function outletStorms(
  stores: readonly Store[],
  result: RouteResult,
  coverAt: (at: Outlet['dischargeAt']) => Cover | null,
): OutletStorm[] {
  return stores.flatMap((store) =>
    store.outlets.flatMap((outlet): OutletStorm[] => {
      const run = result.outlets.get(outlet.id);
      if (!run || (outlet.kind === 'bank' && run.volumeM3 <= 0)) return [];
      const { exit } = outlet;
      const cover = exit && coverAt(exit.at);
      const flow = exit && cover ? exitFlow(exit, run.peakM3s, cover) : null;
      const standsMs = flow?.standsMs ?? null;
      return [
        {
          id: outlet.id,
          work: outlet.work,
          role: outlet.role,
          store: store.work,
          levelM: outlet.levelM,
          peakM3s: run.peakM3s,
          peakAtS: run.peakAtS,
          volumeM3: run.volumeM3,
          runsH: run.runsS / 3600,
          velocityMs: flow?.velocityMs ?? null,
          standsMs,
          lining: liningUnder(run.peakM3s, flow),
        },
      ];
    }),
  );
}

/** Flow on each link, unknown without a storm; an unused bank crest is left out, an unused sill is kept. */
export function linkFlows(links: readonly Link[], result: RouteResult | null, stores: readonly Store[]): LinkFlow[] {
  return links.flatMap((link) => {
    const run = result?.outlets.get(link.outlet);
    const store = stores.find((s) => s.work === link.from);
    const outlet = store?.outlets.find((o) => o.id === link.outlet);
    const isChosen = outlet?.kind !== 'bank' || outlet.levelM === store?.wayOutM;
    if (!isChosen && (run?.volumeM3 ?? 0) <= 0) return [];
    return [{ ...link, volumeM3: run?.volumeM3 ?? null, peakM3s: run?.peakM3s ?? null }];
  });
}

/** Peak a store's outlets must pass, by the method chosen; else the larger of the routed inflow and the rational peak with what arrives from above [m3/s]. */
export function designPeakOf(
  store: Store,
  storm: StoreStorm | null,
  known: {
    readonly runoff: CatchmentRunoff | undefined;
    readonly links: readonly LinkFlow[];
    readonly catchment: Catchment | undefined;
    readonly joints: ReadonlySet<string>;
  },
): number | null {
  if (!storm || !known.runoff || !known.catchment) return null;
  const fromAbove = known.links
    .filter((l) => l.to === store.work && !known.joints.has(l.outlet))
    .reduce((sum, l) => sum + (l.peakM3s ?? 0), 0);
  const { choice, chosenPeakM3s, rationalPeakM3s } = known.runoff.runoff;
  // A hydrograph is taken as it was routed, with what spills in from above.
  if (choice.peak === 'hydrograph') return storm.peakInM3s;
  if (choice.peak === 'larger') return Math.max(storm.peakInM3s, rationalPeakM3s + fromAbove);
  return chosenPeakM3s + fromAbove;
}
