// What leaves the property, place by place, with the works and without them.
import type { Link } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { type OutletRun, type RouteResult, addDelayed, delayedLength, hasRun } from '../../network/index.ts';
import type { Storm } from '../../rain/index.ts';
import { type Exit, type Grid, nearestExit } from '../../terrain/index.ts';
import { type Graph, asItself, columnOf, forAll, idsOf } from '../graph/graph.ts';
import type { Water } from '../water/water.ts';
import type { ExitFlows, FlowSeries, LeavingFlow } from '../types.ts';
import type { ExitGround } from '../world/catchments.ts';
import { type CatchmentRunoff, peakOf } from './hydrology.ts';
import { pastRuns, raiseOf, raised } from './storm-run.ts';
import { type Timed, type Weather, runoffIn, timedIn } from './watersheds.ts';

const NOTHING: LeavingFlow = { volumeM3: 0, peakM3s: 0, peakAtS: null };

function told(flowM3s: Float64Array, stepS: number): LeavingFlow {
  const { peakM3s, peakAtS } = peakOf(flowM3s, stepS);
  if (peakM3s === 0) return NOTHING;
  let sum = 0;
  for (let i = 0; i < flowM3s.length; i++) sum += flowM3s[i];
  return { volumeM3: stepS * sum, peakM3s, peakAtS };
}

/** What ground sheds here, and what ways out bring after their lags. */
function arrivingAt({ open, ways, stepS }: Pick<Came, 'open' | 'ways' | 'stepS'>): Float64Array {
  const last = ways.map(({ run, lagS }) => delayedLength(run.flowM3s, lagS, stepS));
  const sum = new Float64Array(Math.max(0, open?.length ?? 0, ...last));
  if (open) sum.set(open);
  for (const { run, lagS } of ways) addDelayed(sum, run.flowM3s, { s: lagS, stepS });
  return sum;
}

export interface ExitsInput {
  readonly weather: Weather;
  readonly storm: Storm;
  readonly grounds: readonly ExitGround[];
  readonly water: Pick<Water, 'stores' | 'links' | 'places'>;
  readonly result: RouteResult | null;
  /** Runs of the ways out of each store. */
  readonly runs: readonly (readonly OutletRun[])[];
  /** Whether what ground sheds is raised to the peak chosen for it, as what comes to stores is: else the two could not be compared. */
  readonly isRaised: boolean;
}

export interface Leaving {
  readonly told: ExitFlows;
  readonly series: FlowSeries;
}

/** Where links that leave the property end, of each; null of one that does not. */
const endsOf = (links: readonly Link[]): (Point | null)[] =>
  links.map(({ path, to }) => {
    // A place off the terrain has no way to be followed along.
    const end = path[path.length - 1] as Link['path'][number] | undefined;
    return end && (to === 'property-edge' || to === 'terrain-edge') ? [end[0], end[1]] : null;
  });

/** The exit at which each of them leaves. */
const exitsAt = (grid: Grid, ends: readonly (Point | null)[], exits: readonly Exit[]): (number | null)[] =>
  ends.map((end) => end && nearestExit(grid, exits, end));

/** Volume, peak and its time at each exit: of all its ground with nothing built, and of uncaught ground and overflows as it is. */
export function exitFlows({ weather, storm, grounds, isRaised, ...on }: ExitsInput): Leaving[] {
  const { model, graph } = weather;
  const stepS = storm.stepMin * 60;
  const exits = grounds.map((g) => g.exit);
  const over = waysOver(exits, { grid: model.grid, graph, ...on });
  return grounds.map(({ exit, id, whole, uncaught }, k) => {
    const flowIn = (timed: Timed, slot: string): Float64Array => {
      const shed = runoffIn(weather, timed, { storm, slot });
      return isRaised ? graph.step(`raised:${slot}`, [shed], raisedFlow) : asItself(shed.flowM3s);
    };
    const all = timedIn(weather, whole, `exit-all:${id}`);
    const without = flowIn(all, `exit-all:${id}`);
    const openFlow = (): Float64Array => {
      const slot = `exit-open:${id}`;
      return flowIn(graph.step(`exit-timed:${id}`, [timedIn(weather, uncaught, slot), all], asItRan), slot);
    };
    const open = uncaught === whole ? without : uncaught.members.length === 0 ? null : openFlow();
    const unbuilt = graph.step(`unbuilt:${id}`, [without, stepS], told);
    return graph.step(`leaving:${id}`, [exit, { without, unbuilt, open, ways: over.get(k) ?? [], stepS }], (place, came) =>
      leavingAt(place, id, came),
    );
  });
}

/** What ways out let through to each exit, by its number. */
function waysOver(
  exits: readonly Exit[],
  on: { readonly grid: Grid; readonly graph: Graph } & Pick<ExitsInput, 'water' | 'result' | 'runs'>,
): ReadonlyMap<number, Came['ways']> {
  const { grid, water, result, runs, graph } = on;
  const over = new Map<number, { readonly run: OutletRun; readonly lagS: number }[]>();
  if (!result) return over;
  const { stores, places } = water;
  const ids = [...idsOf(stores), ...idsOf(places)];
  const links = [...columnOf(idsOf(stores), water.links, NO_LINKS), ...places.map((p) => [p.past])];
  const ran = places.length === 0 ? runs : [...runs, ...pastRuns(places, result).map((run) => [run])];
  const { all: ends } = graph.each('ends-of', { ids, columns: [links], isSettled: true }, endsOf);
  const { all: to } = graph.each('exits-of', { ids, columns: [forAll(grid), ends, forAll(exits)] }, exitsAt);
  for (let at = 0; at < to.length; at++) {
    for (let k = 0; k < to[at].length; k++) {
      const exit = to[at][k];
      const run = exit === null ? undefined : ran[at][k];
      if (exit === null || !run || !hasRun(run)) continue;
      const one = { run, lagS: links[at][k].lagS };
      const known = over.get(exit);
      if (known) known.push(one);
      else over.set(exit, [one]);
    }
  }
  return over;
}

const NO_LINKS: readonly Link[] = [];

/** Ground that no work catches sheds its water the ways it did: no sooner than all of it, though the longest way is caught. */
const asItRan = (open: Timed, all: Timed): Timed => (open.tcMin >= all.tcMin ? open : { ...open, tcMin: all.tcMin });

/** What ground sheds, its flood stretched to the peak chosen for it. */
const raisedFlow = (shed: CatchmentRunoff): Float64Array => {
  const by = raiseOf(shed);
  return asItself(by ? shed.flowM3s.map((q) => raised(q, by)) : shed.flowM3s);
};

interface Came {
  readonly without: Float64Array;
  readonly unbuilt: LeavingFlow;
  readonly open: Float64Array | null;
  readonly ways: readonly { readonly run: OutletRun; readonly lagS: number }[];
  readonly stepS: number;
}

function leavingAt({ at, isPlace, areaM2 }: Exit, id: string, came: Came): Leaving {
  const { without, unbuilt, stepS } = came;
  // Where no way out runs and all ground is open, the two are one.
  const flowM3s = came.ways.length === 0 && came.open === without ? without : arrivingAt(came);
  return {
    told: asItself({ id, at, isPlace, areaM2, without: unbuilt, with: flowM3s === without ? unbuilt : told(flowM3s, stepS) }),
    series: { id, stepS, flowM3s, withoutM3s: without },
  };
}
