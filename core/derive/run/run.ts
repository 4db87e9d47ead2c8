// What a storm does to the water of a scenario. A run judges nothing.
import type { ConduitStorm, Link, LinkFlow, OutletStorm, Site, StoreStorm } from '../../contract/index.ts';
import type { WorksheetLine } from '../../formula/index.ts';
import type { OutletRun, RouteResult } from '../../network/index.ts';
import { type Each, type Graph, asItself, asNamedBefore, byIds, columnOf, forAll, idsOf, knownOf } from '../graph/graph.ts';
import type { OneRain } from '../../project/index.ts';
import type { Scenario } from '../scenario/scenario.ts';
import { leadingTo } from '../water/leading.ts';
import type { Water } from '../water/water.ts';
import { exitGrounds, insideOf } from '../world/catchments.ts';
import { baseFlows } from '../world/springs.ts';
import type { World } from '../world/world.ts';
import { type Leaving, exitFlows } from './exits.ts';
import { type StoreOutcome, conduitStorm, flowOn, linkFlows, outletStorms, stormOf } from './outcomes.ts';
import { pastRuns, runStorm } from './storm-run.ts';
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
  /** What it did to the ways out of each store. */
  readonly outlets: ReadonlyMap<string, readonly OutletStorm[]>;
  /** What it did to each pipe, by its id. */
  readonly conduits: ReadonlyMap<string, ConduitStorm>;
  readonly leaving: readonly Leaving[];
}

/** What the storm did to each of some stores; null of one nothing is known of. */
export const stormsIn = ({ outcomes }: Pick<Run, 'outcomes'>, ids: readonly string[]): readonly (StoreStorm | null)[] =>
  columnOf(ids, outcomes, null).map((outcome) => outcome && outcome.storm);

/** Working of all stores' emptying. */
export const outcomeSheets = ({ outcomes }: Run): WorksheetLine[] => [...outcomes.values()].flatMap((o) => o.sheet);

/** Flows told apart by being themselves, since works read them one by one. */
const keptFlows = (...on: Parameters<typeof linkFlows>): LinkFlow[] => linkFlows(...on).map((flow) => asItself(flow));

const keptOutlets = (...on: Parameters<typeof outletStorms>): OutletStorm[] => outletStorms(...on).map((o) => asItself(o));

function keptOutcome(...on: Parameters<typeof stormOf>): StoreOutcome {
  const outcome = stormOf(...on);
  asItself(outcome.storm);
  return outcome;
}

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
    /** Whether what comes to a store from others may stay what it was as long as it is all but the same. */
    readonly isNear: boolean;
    /** Whether only what happens in the stores is asked for: nothing leaves then, and no natural peaks are told. */
    readonly isInside: boolean;
    /** The stores that are asked for, where not all are: what bears on none of them is not routed. */
    readonly asked: readonly string[] | null;
  },
): Run {
  const { graph, rain, startsM, isRaised, isNear, isInside, asked } = on;
  const water = asked ? leadingTo(on.water, asked) : on.water;
  const weather = weatherOf(rain, { runoff: project.runoff, model, map, graph });
  const exits = weather && !isInside ? exitGrounds(model, insideOf(model, project.site.outline, graph), { met: water.met, graph }) : [];
  const natural = isInside ? [] : water.natural;
  const catchments = isInside ? ofStores(on.water) : water.catchments;
  const hydrology = hydrologyOf(weather, { catchments, natural, exits: exits.map((e) => e.whole) });
  const { storm, runoff } = hydrology;
  const soakage = rain?.storm.soakage === true;
  const result =
    storm && water.stores.length > 0
      ? runStorm({ water, catchments: water.catchments, runoff, storm, soakage, startsM, isRaised, isNear, conditions, graph })
      : null;
  const { stores, places, links } = water;
  const ids = idsOf(stores);
  const runs = result ? columnOf(ids, byIds(result.ids, result.ways), NO_RUNS) : stores.map(() => NO_RUNS);
  const flows = graph.each('flows', { ids, columns: [stores, columnOf(ids, links, NO_LINKS), runs] }, keptFlows);
  const past = graph.each(
    'past',
    { ids: idsOf(places), columns: [places.map((p) => p.past), result ? pastRuns(places, result) : places.map(() => null)] },
    flowOn,
  );
  const done = result ? whatItDid({ water, result, runs, site, graph }) : NOTHING_DONE;
  const leaving = weather && storm ? exitFlows({ weather, storm, grounds: exits, water, result, runs, isRaised }) : [];
  return { rain, hydrology, result, flows: withPasts(flows, places, past.all), leaving, ...done };
}

/** Flows of stores with those that run past some of them. */
function withPasts(flows: Each<LinkFlow[]>, places: Water['places'], pasts: readonly LinkFlow[]): Run['flows'] {
  if (places.length === 0) return flows.by;
  const ids = asNamedBefore([...flows.ids, ...places.map(({ store }) => `${store}#past`)]);
  return byIds(ids, [...flows.all, ...pasts.map((past) => [past])]);
}
const NO_LINKS: readonly Link[] = [];
/** Without a storm nothing ran. */
const NO_RUNS: readonly OutletRun[] = [];

type Done = Pick<Run, 'outcomes' | 'outlets' | 'conduits'>;
const NOTHING_DONE: Done = { outcomes: new Map(), outlets: new Map(), conduits: new Map() };

/** What a storm did to each store, to its ways out, and to pipes. */
function whatItDid(on: {
  readonly water: Water;
  readonly result: RouteResult;
  /** Runs of the ways out of each store. */
  readonly runs: readonly (readonly OutletRun[])[];
  readonly site: Site;
  readonly graph: Graph;
}): Done {
  const { water, result, runs, site, graph } = on;
  const { stores } = water;
  const ids = idsOf(stores);
  const base = baseFlows(water.springs);
  const fed = ids.map((id) => base.get(id) ?? NOT_FED);
  const stepS = forAll(result.stepS);
  const ran = knownOf(ids, byIds(result.ids, result.runs));
  const pipes = stores.flatMap((s, k) => (s.soffitM === undefined ? [] : [k]));
  const among = <T>(list: readonly T[]): T[] => pipes.map((k) => list[k]);
  return {
    outcomes: graph.each('outcome', { ids, columns: [stores, ran, runs, columnOf(ids, water.under, null), fed, stepS] }, keptOutcome).by,
    conduits: graph.each('conduit', { ids: among(ids), columns: [among(stores), among(ran), among(runs), stepS] }, conduitStorm).by,
    outlets: graph.each('outlet-storms', { ids, columns: [stores, runs, forAll(site)] }, keptOutlets).by,
  };
}
const NOT_FED = 0;
