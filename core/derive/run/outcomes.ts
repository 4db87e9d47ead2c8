// What a routed storm did to each store, way out and pipe.
import type { ConduitStorm, Link, LinkFlow, OutletStorm, Site, Store, StoreStorm } from '../../contract/index.ts';
import { Worksheet, type WorksheetLine } from '../../formula/index.ts';
import { DRAIN_DOWN, DRAIN_DOWN_FED, SOIL_SHORT, type OutletRun, type StoreRun, leftAfter, meanWettedArea } from '../../network/index.ts';
import { type ExitFlow, exitFlow } from '../../works/index.ts';
import type { CatchmentRunoff } from './hydrology.ts';
import { readyAfter } from './ready.ts';
import type { GroundUnder } from '../water/soak.ts';
import { type Soaks, roomOf, soaksOf } from './storm-run.ts';

/** Flow over all its ways out at each instant, drowned ones too: the mouths of joined stores let none out. */
function outflows(store: Store, run: StoreRun, outlets: readonly OutletRun[]): Float64Array {
  const drowned = outlets.filter((o, k) => store.outlets[k].kind !== 'joint' && o.isJoint);
  if (drowned.length === 0) return run.outM3s;
  const sum = run.outM3s.slice();
  for (const one of drowned) for (let i = 0; i < one.flowM3s.length; i++) sum[i + 1] += one.flowM3s[i];
  return sum;
}

/** The greatest of a series, no less than a least. */
function greatestOf(series: Float64Array, least: number): number {
  let most = least;
  for (let i = 0; i < series.length; i++) if (series[i] > most) most = series[i];
  return most;
}

/** Where a series is first at its greatest. */
function topOf(series: Float64Array): number {
  let top = 0;
  for (let i = 1; i < series.length; i++) if (series[i] > series[top]) top = i;
  return top;
}

/** The first place of a series where anything runs; null where nothing ever does. */
function firstRunning(series: Float64Array): number | null {
  for (let i = 0; i < series.length; i++) if (series[i] > 0) return i;
  return null;
}

/** What the storm did to one store, and the working of how long it takes to empty. */
export interface StoreOutcome {
  readonly storm: StoreStorm;
  readonly sheet: readonly WorksheetLine[];
}

type Ran = [store: Store, run: StoreRun, outlets: readonly OutletRun[], under: GroundUnder | null, steadyM3s: number, stepS: number];

/** What a store's run comes to: with the runs of its ways out as they stand, the ground under it, and what springs bring it [m3/s]. */
export function stormOf(...[store, run, outlets, under, steadyM3s, stepS]: Ran): StoreOutcome {
  const soaks = soaksOf(store, under);
  const sheet = new Worksheet(store.id);
  const leaving = outflows(store, run, outlets);
  const top = topOf(run.levelM);
  const peakLevelM = run.levelM[top];
  const peakInM3s = greatestOf(run.inM3s, 0);
  const peakOutM3s = greatestOf(leaving, 0);
  const first = firstRunning(leaving);
  const firstSpillS = first === null ? null : first * stepS;
  let [spilledM3, spillsS] = [0, 0];
  store.outlets.forEach(({ kind }, k) => {
    const ran = outlets[k];
    if (kind === 'joint') return;
    spilledM3 += ran.volumeM3;
    spillsS = Math.max(spillsS, ran.runsS);
  });
  const { riseM, leftM } = store.tilt?.(peakLevelM) ?? { riseM: 0, leftM: store.crestM - peakLevelM };
  // Drain-down starts from what stands when the sill stops running.
  const standing = Math.min(run.mostM3, store.heldM3);
  const { mmPerHour } = soaks;
  const roomM3 = roomOf(soaks) - run.soakedM3;
  const { driesMmPerHour = 0 } = store;
  const drainDownH = emptyIn(store, standing, { mmPerHour: mmPerHour + driesMmPerHour, steadyM3s, sheet });
  const soilShortM3 = mmPerHour > 0 ? shortIn(soaks, { V: standing, s: run.soakedM3 }, sheet) : 0;
  const storm = {
    startM: run.levelM[0],
    inM3: run.inM3,
    soakedM3: run.soakedM3,
    spilledM3,
    endM3: run.endM3,
    peakLevelM,
    peakInM3s,
    peakOutM3s,
    firstSpillS,
    spillsH: spillsS / 3600,
    riseM,
    freeboardM: leftM,
    drainDownH,
    holds: spilledM3 <= 1e-6 * Math.max(1, run.inM3),
    nextDayM3: leftAfter(store.stage, standing, { hours: 24, mmPerHour, roomM3, driesMmPerHour, steadyM3s }),
    soilShortM3,
    readyH: readyAfter(store, run, { top, stepS }),
  };
  return { storm, sheet: sheet.lines };
}

/** What loses less than this keeps its water for good: 9 mm a year [mm/h]. */
const LEAST_LOSS_MM_H = 0.001;

/** Hours until what stands in a store is gone; null where it never is: nothing takes it, or as much comes in. */
export function emptyIn(
  { stage }: Pick<Store, 'stage'>,
  standingM3: number,
  on: { readonly mmPerHour: number; readonly steadyM3s: number; readonly sheet: Worksheet },
): number | null {
  if (standingM3 <= 0) return 0;
  const { mmPerHour: f, steadyM3s: q, sheet } = on;
  const A = meanWettedArea(stage, standingM3);
  if (f < LEAST_LOSS_MM_H || !(A > 0)) return null;
  if (q <= 0) return sheet.use(DRAIN_DOWN, { V: standingM3, f, A });
  return (f * A) / 1000 > 3600 * q ? sheet.use(DRAIN_DOWN_FED, { V: standingM3, f, A, q }) : null;
}

/** What of the water left the soil has no room for [m3]. */
function shortIn({ soil }: Soaks, water: { readonly V: number; readonly s: number }, sheet: Worksheet): number {
  if (!soil) return 0;
  const on = { ...water, w: soil.roomMm, A: soil.wetM2 };
  return SOIL_SHORT.evaluate(on) > 0 ? sheet.use(SOIL_SHORT, on) : 0;
}

/** Whether what an outlet's water runs on stands it; unknown where the ground there is. */
function liningUnder(peakM3s: number, flow: ExitFlow | null): OutletStorm['lining'] {
  if (!flow || flow.velocityMs === null) return 'unknown';
  if (flow.standsMs === null) return peakM3s > 0 ? 'washes' : 'unknown';
  return flow.velocityMs > flow.standsMs ? 'washes' : 'stands';
}

/** What the storm did to each way out of a store, and whether what its water runs on stands it. */
export function outletStorms(store: Store, runs: readonly OutletRun[], site: Site): OutletStorm[] {
  return store.outlets.flatMap((outlet, k): OutletStorm[] => {
    const run = runs[k];
    if (outlet.kind === 'bank' && run.volumeM3 <= 0) return [];
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
export function conduitStorm(...[store, run, runs, stepS]: [Store, StoreRun, readonly OutletRun[], number]): ConduitStorm {
  const [pipe] = store.outlets;
  const [through, over] = runs;
  const { soffitM = Infinity } = store;
  return {
    id: store.id,
    work: store.work,
    name: store.name,
    peakM3s: through?.peakM3s ?? 0,
    capacityM3s: pipe.flowAt(store.crestM),
    peakLevelM: greatestOf(run.levelM, -Infinity),
    surchargedH: (run.levelM.reduce((n, v) => n + (v > soffitM ? 1 : 0), 0) * stepS) / 3600,
    // Under a grate there is no rim: what rises there is the yard's.
    overM3: over?.volumeM3 ?? 0,
  };
}

/** A link with what the storm sends along it. */
export const flowOn = (link: Link, run: OutletRun | null): LinkFlow => ({
  ...link,
  volumeM3: run?.volumeM3 ?? null,
  peakM3s: run?.peakM3s ?? null,
});

/** Flow on each link of a store, unknown without a storm; an unused bank crest is left out, an unused sill is kept. */
export function linkFlows(store: Store, links: readonly Link[], runs: readonly OutletRun[]): LinkFlow[] {
  return links.flatMap((link, k) => {
    const { kind, levelM } = store.outlets[k];
    const isChosen = kind !== 'bank' || levelM === store.wayOutM;
    const run = runs.at(k) ?? null;
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
  const { choice, chosenPeakM3s, rarePeakM3s } = known.runoff.runoff;
  // A hydrograph is taken as it was routed, with what spills in from above.
  if (choice.peak === 'hydrograph') return storm.peakInM3s;
  if (choice.peak === 'larger') return Math.max(storm.peakInM3s, rarePeakM3s + known.fromAboveM3s);
  return chosenPeakM3s + known.fromAboveM3s;
}
