// What a storm does to the water of a scenario. A run judges nothing.
import type { ConduitStorm, LinkFlow, OutletStorm, Store } from '../../contract/index.ts';
import type { WorksheetLine } from '../../formula/index.ts';
import type { OutletRun, RouteResult } from '../../network/index.ts';
import { type Graph, asItself } from '../graph/graph.ts';
import type { OneRain } from '../../project/index.ts';
import type { Scenario } from '../scenario/scenario.ts';
import type { Water } from '../water/water.ts';
import { exitGrounds, insideOf } from '../world/catchments.ts';
import { baseFlows } from '../world/springs.ts';
import type { World } from '../world/world.ts';
import { type Leaving, exitFlows } from './exits.ts';
import { type StoreOutcome, conduitStorm, flowOn, linkFlows, outletStorms, stormOf } from './outcomes.ts';
import { runStorm, soaksOf } from './storm-run.ts';
import { type Hydrology, hydrologyOf, weatherOf } from './watersheds.ts';

export interface Run {
  /** The storm it is of; null where none is known. */
  readonly rain: OneRain | null;
  readonly hydrology: Hydrology;
  /** Null while rain or ground is not known, or there is nothing to route. */
  readonly result: RouteResult | null;
  /** What the storm did to each store; empty without a result. */
  readonly outcomes: ReadonlyMap<string, StoreOutcome>;
  /** Ways out by store: where they lead and, where a storm is known, what runs there. */
  readonly flows: ReadonlyMap<string, readonly LinkFlow[]>;
  readonly outlets: readonly OutletStorm[];
  /** What it did to each pipe, by its id. */
  readonly conduits: ReadonlyMap<string, ConduitStorm>;
  readonly leaving: readonly Leaving[];
}

/** Working of all stores' emptying. */
export const outcomeSheets = ({ outcomes }: Run): WorksheetLine[] => [...outcomes.values()].flatMap((o) => o.sheet);

/** Flows told apart by being themselves, since works read them one by one. */
const keptFlows = (...on: Parameters<typeof linkFlows>): LinkFlow[] => linkFlows(...on).map((flow) => asItself(flow));

const keptOutlets = (...on: Parameters<typeof outletStorms>): OutletStorm[] => outletStorms(...on).map((o) => asItself(o));

/** Runs of a store's ways out, as they stand in it. */
const runsOf = (store: Store, result: RouteResult | null): (OutletRun | null)[] =>
  store.outlets.map((o) => result?.outlets.get(o.id) ?? null);

/** Catchments of stores, without those of pins. */
function ofStores({ stores, catchments }: Water): Water['catchments'] {
  const ids = new Set(stores.map((s) => s.id));
  return catchments.filter((g) => ids.has(g.catchment.of));
}

export function stormRun(
  { project, conditions }: Scenario,
  { model, map, site }: World,
  on: {
    readonly water: Water;
    readonly graph: Graph;
    /** One storm; null where none is known. */
    readonly rain: OneRain | null;
    /** Where the water of each store stands when it begins; those left out are empty. */
    readonly startsM: ReadonlyMap<string, number>;
    /** Whether what comes is raised to the peaks chosen. */
    readonly isRaised: boolean;
    /** Whether only what happens in the stores is asked for: nothing leaves then, and no natural peaks are told. */
    readonly isInside: boolean;
  },
): Run {
  const { water, graph, rain, startsM, isRaised, isInside } = on;
  const weather = weatherOf(rain, { runoff: project.runoff, model, map, graph });
  const exits = weather && !isInside ? exitGrounds(model, insideOf(model, project.site.outline, graph), { met: water.met, graph }) : [];
  const natural = isInside ? [] : water.natural;
  const catchments = isInside ? ofStores(water) : water.catchments;
  const hydrology = hydrologyOf(weather, { catchments, natural, exits: exits.map((e) => e.whole) });
  const { storm, runoff } = hydrology;
  const soakage = rain?.storm.soakage === true;
  const result =
    storm && water.stores.length > 0
      ? runStorm({ water, catchments: water.catchments, runoff, storm, soakage, startsM, isRaised, conditions, graph })
      : null;
  const outcomes = new Map<string, StoreOutcome>();
  const flows = new Map<string, readonly LinkFlow[]>();
  const outlets: OutletStorm[] = [];
  const conduits = new Map<string, ConduitStorm>();
  const base = baseFlows(water.springs);
  for (const store of water.stores) {
    const { id } = store;
    const runs = runsOf(store, result);
    const run = result?.stores.get(id);
    flows.set(id, graph.step(`flows:${id}`, [store, water.links.get(id) ?? [], runs], keptFlows));
    if (!run || !result) continue;
    const soaks = soaksOf(store, water.under.get(id) ?? null);
    const over = { outlets: runs, stepS: result.stepS };
    outcomes.set(id, graph.step(`outcome:${id}`, [store, run, { ...over, soaks, steadyM3s: base.get(id) ?? 0 }], stormOf));
    if (store.soffitM !== undefined) conduits.set(id, graph.step(`conduit:${id}`, [store, run, over], conduitStorm));
    outlets.push(...graph.step(`outlet-storms:${id}`, [store, runs, site], keptOutlets));
  }
  const leaving = weather && storm ? exitFlows({ weather, storm, grounds: exits, water, result, isRaised }) : [];
  for (const { store, past } of water.places) {
    const run = result?.outlets.get(past.outlet) ?? null;
    flows.set(`${store}#past`, [graph.step(`past:${store}`, [past, run], flowOn)]);
  }
  return { rain, hydrology, result, outcomes, flows, outlets, conduits, leaving };
}
