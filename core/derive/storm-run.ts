import type { Catchment, Link, LinkFlow, Store, StoreStorm } from '../contract/index.ts';
import { Worksheet } from '../formula/index.ts';
import { DRAIN_DOWN, type RouteResult, type RoutedStore, type StoreRun, meanWettedArea, route } from '../network/index.ts';
import type { CatchmentRunoff } from './hydrology.ts';

/** How long after the storm routing goes on [s], at least. */
const LEAST_TAIL_S = 6 * 3600;

export interface StormInput {
  readonly stores: readonly Store[];
  readonly links: readonly Link[];
  readonly runoff: ReadonlyMap<string, CatchmentRunoff>;
  /** Steady inflow from springs by work [m3/s]. */
  readonly base: ReadonlyMap<string, number>;
  readonly stepS: number;
  readonly stormSteps: number;
  /** Rate the ground under each work takes in [mm/h]. */
  readonly soaksIn: ReadonlyMap<string, number>;
  /** Whether soakage during the storm counts. */
  readonly soakage: boolean;
}

/** A hydrograph on top of a steady flow. */
function withBase(flow: ArrayLike<number>, baseM3s: number, steps: number): ArrayLike<number> {
  return baseM3s === 0 ? flow : Float64Array.from({ length: steps }, (_, i) => baseM3s + (flow[i] ?? 0));
}

/** Routes the storm through all stores. */
export function runStorm(input: StormInput): RouteResult {
  const { stores, links, runoff, stepS } = input;
  const longest = Math.max(0, ...[...runoff.values()].map((r) => r.flowM3s.length));
  const steps = Math.max(longest, input.stormSteps) + Math.ceil(LEAST_TAIL_S / stepS);
  const routed = stores.map((store): RoutedStore => ({
    id: store.work,
    stage: store.stage,
    inflow: withBase(runoff.get(store.work)?.flowM3s ?? [], input.base.get(store.work) ?? 0, steps),
    soakMPerS: input.soakage ? (input.soaksIn.get(store.work) ?? 0) / 3.6e6 : 0,
    outlets: store.outlets.map((outlet) => {
      const link = links.find((l) => l.outlet === outlet.id);
      return { id: outlet.id, to: link?.to ?? 'ground', lagS: link?.lagS ?? 0, flowAt: outlet.flowAt };
    }),
  }));
  return route({ stores: routed, stepS, steps });
}

/** What the storm did to one store. */
export function stormOf(
  store: Store,
  run: StoreRun,
  on: { readonly stepS: number; readonly infiltrationMmPerHour: number; readonly sheet: Worksheet },
): StoreStorm {
  let peakLevelM = -Infinity;
  let peakInM3s = 0;
  let peakOutM3s = 0;
  let firstSpillS: number | null = null;
  run.levelM.forEach((level, i) => {
    peakLevelM = Math.max(peakLevelM, level);
    peakInM3s = Math.max(peakInM3s, run.inM3s[i]);
    peakOutM3s = Math.max(peakOutM3s, run.outM3s[i]);
    if (firstSpillS === null && run.outM3s[i] > 0) firstSpillS = i * on.stepS;
  });
  const endM3 = run.volumeM3[run.volumeM3.length - 1];
  // Drain-down starts from what stands when the sill stops running.
  const standing = Math.min(
    run.volumeM3.reduce((a, v) => Math.max(a, v), 0),
    store.heldM3,
  );
  let drainDownH: number | null = standing <= 0 ? 0 : null;
  const area = standing > 0 ? meanWettedArea(store.stage, standing) : 0;
  if (standing > 0 && on.infiltrationMmPerHour > 0 && area > 0) {
    drainDownH = on.sheet.use(DRAIN_DOWN, { V: standing, f: on.infiltrationMmPerHour, A: area });
  }
  return {
    inM3: run.inM3,
    soakedM3: run.soakedM3,
    spilledM3: run.outM3,
    endM3,
    peakLevelM,
    peakInM3s,
    peakOutM3s,
    firstSpillS,
    freeboardM: store.crestM - peakLevelM,
    drainDownH,
    holds: run.outM3 <= 1e-6 * Math.max(1, run.inM3),
  };
}

/** Flow on each link; an unused bank crest is left out, an unused sill is kept. */
export function linkFlows(links: readonly Link[], result: RouteResult | null, stores: readonly Store[]): LinkFlow[] {
  return links.flatMap((link) => {
    const run = result?.outlets.get(link.outlet);
    const store = stores.find((s) => s.work === link.from);
    const outlet = store?.outlets.find((o) => o.id === link.outlet);
    const isChosen = outlet?.kind === 'sill' || outlet?.levelM === store?.wayOutM;
    if (!isChosen && (run?.volumeM3 ?? 0) <= 0) return [];
    return [{ ...link, volumeM3: run?.volumeM3 ?? 0, peakM3s: run?.peakM3s ?? 0 }];
  });
}

/** Peak a store's outlets must pass, by the method chosen; else the larger of the routed inflow and the rational peak with what arrives from above [m3/s]. */
export function designPeakOf(
  store: Store,
  storm: StoreStorm | null,
  known: { readonly runoff: CatchmentRunoff | undefined; readonly links: readonly LinkFlow[]; readonly catchment: Catchment | undefined },
): number | null {
  if (!storm || !known.runoff || !known.catchment) return null;
  const fromAbove = known.links.filter((l) => l.to === store.work).reduce((sum, l) => sum + l.peakM3s, 0);
  const { choice, chosenPeakM3s, rationalPeakM3s } = known.runoff.runoff;
  // A hydrograph is taken as it was routed, with what spills in from above.
  if (choice.peak === 'hydrograph') return storm.peakInM3s;
  if (choice.peak === 'larger') return Math.max(storm.peakInM3s, rationalPeakM3s + fromAbove);
  return chosenPeakM3s + fromAbove;
}
