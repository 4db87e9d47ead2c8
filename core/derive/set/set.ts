// The set of storms a scenario is judged by: every duration that matters, on ground and water as they may be found.
import { CONDITIONS, type Condition } from '../../contract/index.ts';
import { isNested, isSet, setDurations } from '../../rain/index.ts';
import type { Graph } from '../graph/graph.ts';
import { type Slowly, finish } from '../graph/slowly.ts';
import { askForLike, startsFound, startsFull, stoodIn } from '../run/starts.ts';
import type { Run } from '../run/run.ts';
import { raiseOf } from '../run/storm-run.ts';
import { timedIn } from '../run/watersheds.ts';
import { type Member, briefOf, greatest, rivalLengths, worstRun } from '../run/worst.ts';
import type { Scenario } from '../scenario/scenario.ts';
import { underCondition } from '../scenario/standard.ts';
import { storesOnly } from '../water/water.ts';
import { type Laid, type RoomContext, laidOut, rainOver, runOn } from './laid.ts';
import { STRICT, memberName } from './member-names.ts';
import { type AtWorst, NOTHING_AT_WORST, atWorst } from './worst-of.ts';

export interface SetAsked {
  /** Only these members, by `memberName`: those that governed last, while an answer is wanted at once. */
  readonly only?: ReadonlySet<string>;
  /** Beside `only`: what comes to a store from others may stay what it was last, as long as it is all but the same. */
  readonly isNear?: boolean;
  /** The storm to be shown, by its length; left out, the one that governs. */
  readonly shownMin?: number;
  /** Only as found. */
  readonly asFound?: boolean;
  /** Without what is raised to a chosen peak: what storms really do, not what works are made for. */
  readonly isPlain?: boolean;
  /** Only what happens in the stores: what leaves the property, and what whole catchments would bring, is not worked out. */
  readonly isInside?: boolean;
  /** Levels stores are found at; left out, they are worked out. */
  readonly startsM?: ReadonlyMap<string, number>;
}

/** Land and levels stores are found at under a condition. */
export interface Found {
  readonly laid: Laid;
  readonly startsM: ReadonlyMap<string, number>;
}

/** Everything run, with nothing judged. */
export interface SetRan extends Laid {
  /** Lengths of the storms; null where one storm was asked for, or none is known. */
  readonly durationsMin: readonly number[] | null;
  readonly conditions: readonly Condition[];
  readonly members: readonly Member[];
  /** Whether all of them were run. */
  readonly isWhole: boolean;
  /** Levels stores are found at; those left out are empty. */
  readonly startsM: ReadonlyMap<string, number>;
  /** The storm that is shown, as found. */
  readonly shown: Run;
  /** Runs by which each store's water stood highest as found, with their lengths. */
  readonly governing: ReadonlyMap<string, { readonly run: Run; readonly durationMin: number }>;
  /** The worst of all storms as found, and of all as found, full and blocked. */
  readonly asFound: Run;
  readonly worst: Run;
  /** The worst on ground found worse than usual, with that land. */
  readonly beyond: readonly { readonly condition: Condition; readonly laid: Laid; readonly worst: Run }[];
  /** Each store and way out over the whole set. */
  readonly atWorst: AtWorst;
  /** The land under each condition, and the levels stores are found at there. */
  readonly lands: ReadonlyMap<Condition, Found>;
}

/** Numbers kept for later by runs, at most; beyond them one is let go as soon as it is summed up, but for those run while something is dragged. */
const MOST_KEPT = 1.5e7;
/** Series of a store: levels, volumes, what comes and goes, and its ways out. */
const SERIES_A_STORE = 6;

/** The least time of concentration of what pins and stores catch [min]; 0 where nothing is caught: then all lengths matter. */
function leastConcentration({ world, water, scenario }: Laid, graph: Graph): number {
  const { rain, runoff } = scenario.project;
  const { model, map } = world;
  if (!rain || !map || water.catchments.length === 0) return 0;
  const weather: Parameters<typeof timedIn>[0] = { model, graph, map, rain, runoff };
  return water.catchments.reduce((least, g) => Math.min(least, timedIn(weather, g, g.catchment.of).tcMin), Infinity);
}

interface Storms {
  readonly durationsMin: readonly number[];
  readonly isSet: boolean;
}

function stormsOf(laid: Laid, graph: Graph): Storms | null {
  const { rain } = laid.scenario.project;
  if (!rain || !laid.world.map) return null;
  const one = rainOver(laid.scenario.project);
  if (!isSet(rain.storm)) return { durationsMin: one ? [one.storm.durationMin] : [], isSet: false };
  return { durationsMin: setDurations(rain.table, rain.storm, leastConcentration(laid, graph)), isSet: true };
}

/** Levels said of stores; of those that share a hollow the highest that was said of any. */
function saidStarts({ scenario, water: { instead } }: Laid): ReadonlyMap<string, number> {
  const said = new Map<string, number>();
  for (const [store, levelM] of Object.entries(scenario.option.starts ?? {})) {
    const id = instead.get(store) ?? store;
    said.set(id, Math.max(levelM, said.get(id) ?? -Infinity));
  }
  return said;
}

/** Levels stores are found at, with the run of a like storm where what it leaves must be known. */
function startsOf(laid: Laid, longestMin: number, graph: Graph): ReadonlyMap<string, number> {
  const { scenario, water } = laid;
  const { storm } = scenario.project.rain ?? {};
  const on = { water, antecedent: storm?.before ?? ('usual' as const), saidM: saidStarts(laid) };
  const asked = askForLike(on).map((s) => s.id);
  if (asked.length === 0) return startsFound({ ...on, stoodM3: new Map() });
  const name = `${scenario.id}|before`;
  const like = { name, rain: rainOver(scenario.project, longestMin), startsM: new Map<string, number>(), asked, graph };
  const before = graph.runFor(name, () => runOn(laid, like));
  const stoodM3 = stoodIn(water.stores, (id) => before.outcomes.get(id)?.storm.peakLevelM ?? null);
  return startsFound({ ...on, stoodM3 });
}

/** The run that is shown: as asked, else the one in which the store with least left stands highest; the longest without stores. */
function shownOf(found: readonly { readonly durationMin: number; readonly run: Run }[], laid: Laid, shownMin: number | undefined): Run {
  const asked = found.find((m) => m.durationMin === shownMin);
  if (asked) return asked.run;
  const left = (id: string): number => Math.min(...found.map((m) => m.run.outcomes.get(id)?.storm.freeboardM ?? Infinity));
  const stores = storesOnly(laid.water.stores);
  if (stores.length === 0) return found[found.length - 1].run;
  const { id } = greatest(stores, (s) => -left(s.id));
  return greatest(found, (m) => m.run.outcomes.get(id)?.storm.peakLevelM ?? -Infinity).run;
}

/** Land and starts of each condition that says anything of its own. */
function laidUnder(
  laid: Laid,
  context: RoomContext,
  { asFound = false, only }: SetAsked,
): { readonly condition: Condition; readonly laid: Laid }[] {
  if (asFound || laid.water.works.length === 0) return [{ condition: 'found', laid }];
  const wanted = only && new Set([...only].map((name) => name.split(':')[0]));
  return CONDITIONS.flatMap((condition): { condition: Condition; laid: Laid }[] => {
    const scenario = condition === 'found' ? laid.scenario : underCondition(laid.scenario, condition, context.registry);
    if (!scenario) return [];
    if (condition === 'found') return [{ condition, laid }];
    if (wanted && !wanted.has(condition)) return [];
    // What only begins fuller stands on the same land.
    if (condition === 'full') return [{ condition, laid: { ...laid, scenario } }];
    const own = laidOut(scenario, context);
    return own ? [{ condition, laid: own }] : [];
  });
}

/** Runs a scenario through the whole set, a pause after the land and each member. */
export function* runSetSlowly(scenario: Scenario, context: RoomContext, wanted: SetAsked = {}): Slowly<SetRan | null> {
  const { graph } = context;
  const laid = laidOut(scenario, context);
  if (!laid) return null;
  // Where all of it is asked for, what shows the ground need not wait for the first storm.
  if (!wanted.only) yield;
  const storms = graph.runFor(`${scenario.id}|storms`, () => stormsOf(laid, graph));
  if (!storms) return withoutStorm(laid, graph);
  const { durationsMin } = storms;
  // Members of another set are none of this one.
  const { only, isNear, ...rest } = wanted;
  const isAmong = only !== undefined && durationsMin.some((durationMin) => only.has(memberName({ durationMin, condition: 'found' })));
  const asked: SetAsked = isAmong ? { ...rest, only, isNear } : rest;
  const found = asked.startsM ?? startsOf(laid, durationsMin[durationsMin.length - 1], graph);
  const under = laidUnder(laid, context, asked);
  const most = asked.only?.size ?? under.length * durationsMin.length;
  const isLarge = laid.water.stores.length * SERIES_A_STORE * most * 1000 > MOST_KEPT;
  const members: Member[] = [];
  const runs: { durationMin: number; run: Run }[] = [];
  const lands = new Map<Condition, Found>();
  for (const { condition, laid: land } of under) {
    const isFull = land.scenario.conditions.startsFull;
    const startsM = isFull ? startsFull(land.water.stores, found) : found;
    lands.set(condition, { laid: land, startsM });
    for (const { durationMin, stores } of lengthsUnder(condition, laid, { durationsMin, members, asked })) {
      for (const isRaised of condition !== 'found' ? [true] : asked.isPlain ? [false] : [false, true]) {
        const by = { durationMin, condition, isRaised };
        if (asked.only && !asked.only.has(memberName(by))) continue;
        if (condition === 'found' && isRaised && !asked.only && !isRaisedIn(runs, land, durationMin)) continue;
        const name = `${scenario.id}|${memberName(by)}`;
        const rain = rainOver(land.scenario.project, durationMin);
        const isKept = !isLarge || graph.holds(name);
        const on = { name, rain, startsM, isRaised, isNear: asked.isNear, isInside: asked.isInside, asked: stores, graph };
        const run = graph.runFor(name, () => runOn(land, on));
        members.push({ ...by, brief: briefOf(run) });
        if (condition === 'found' && !isRaised) runs.push({ durationMin, run });
        else if (!isKept) graph.forget(name);
        yield;
      }
    }
  }
  return graph.runFor(`${scenario.id}|worst`, () => summed(laid, { storms, members, runs, lands, startsM: found, asked, graph }));
}

/** A length that is run, and the stores and pipes it is run for; null where it is for everything. */
interface Length {
  readonly durationMin: number;
  readonly stores: readonly string[] | null;
}

/**
 * Lengths looked at on ground worse than usual, which only asks to be weighed. A storm with its wettest in the middle holds all
 * shorter ones: beside the longest each is run only for the stores and pipes for which it came near to deciding as found. Of other shapes all.
 */
function lengthsUnder(
  condition: Condition,
  { scenario, water }: Laid,
  on: { readonly durationsMin: readonly number[]; readonly members: readonly Member[]; readonly asked: SetAsked },
): readonly Length[] {
  const { durationsMin, members, asked } = on;
  const { storm } = scenario.project.rain ?? {};
  if (STRICT.has(condition) || asked.only || !storm || !isNested(storm))
    return durationsMin.map((durationMin) => ({ durationMin, stores: null }));
  // There water and ways out are as found: what full or blocked came near to deciding is no measure.
  const found = members.filter((m) => m.condition === 'found');
  const near = new Map<number, string[]>(durationsMin.map((durationMin) => [durationMin, []]));
  for (const { id } of water.stores) for (const durationMin of rivalLengths(found, id, storm)) near.get(durationMin)?.push(id);
  return durationsMin.flatMap((durationMin, k): Length[] => {
    if (k === durationsMin.length - 1) return [{ durationMin, stores: null }];
    const stores = near.get(durationMin) ?? [];
    return stores.length > 0 ? [{ durationMin, stores }] : [];
  });
}

/** Whether any store is sent more than its hydrograph by the peak chosen for it. */
function isRaisedIn(runs: readonly { readonly durationMin: number; readonly run: Run }[], { water }: Laid, durationMin: number): boolean {
  const plain = runs.find((r) => r.durationMin === durationMin)?.run;
  return plain !== undefined && water.stores.some(({ id }) => raiseOf(plain.hydrology.runoff.get(id)) !== null);
}

interface Summed {
  readonly storms: Storms;
  readonly members: readonly Member[];
  readonly runs: readonly { readonly durationMin: number; readonly run: Run }[];
  readonly lands: ReadonlyMap<Condition, Found>;
  readonly startsM: ReadonlyMap<string, number>;
  readonly asked: SetAsked;
  readonly graph: Graph;
}

function summed(laid: Laid, { storms, members, runs, lands, startsM, asked, graph }: Summed): SetRan {
  const shown = shownOf(runs, laid, asked.shownMin);
  const found = members.filter((m) => m.condition === 'found' && !m.isRaised);
  const usual = members.filter((m) => m.condition === 'found');
  const strict = members.filter((m) => STRICT.has(m.condition));
  // Of storms that bring it as high the longest is told: one with its wettest in the middle holds the others.
  const longestFirst = [...runs].reverse();
  const governing = new Map(
    laid.water.stores.map(({ id }) => {
      const asShown = runs.find((m) => m.durationMin === asked.shownMin);
      return [id, asShown ?? greatest(longestFirst, (m) => m.run.outcomes.get(id)?.storm.peakLevelM ?? -Infinity)] as const;
    }),
  );
  let asFound: Run | null = null;
  return {
    ...laid,
    durationsMin: storms.isSet ? storms.durationsMin : null,
    conditions: [...lands.keys()],
    members,
    isWhole: asked.only === undefined,
    startsM,
    shown,
    governing,
    // While something is dragged nobody asks for it.
    get asFound() {
      return (asFound ??= graph.runFor(`${laid.scenario.id}|worst-found`, () => worstRun(shown, { all: usual, found, graph })));
    },
    worst: worstRun(shown, { all: strict, found, graph }),
    beyond: [...lands].flatMap(([condition, { laid: land }]) => {
      const own = members.filter((m) => m.condition === condition);
      if (STRICT.has(condition) || own.length === 0) return [];
      const worst = graph.runFor(`${laid.scenario.id}|${condition}`, () => worstRun(shown, { all: own, found, graph }));
      return [{ condition, laid: land, worst }];
    }),
    atWorst: atWorst(members, laid.water.stores, graph),
    lands,
  };
}

/** Without rain or ground there is one run of nothing. */
function withoutStorm(laid: Laid, graph: Graph): SetRan {
  const name = `${laid.scenario.id}|none`;
  const run = graph.runFor(name, () => runOn(laid, { name, rain: null, startsM: new Map(), graph }));
  return {
    ...laid,
    durationsMin: null,
    conditions: ['found'],
    members: [],
    isWhole: true,
    startsM: new Map(),
    shown: run,
    governing: new Map(),
    asFound: run,
    worst: run,
    beyond: [],
    atWorst: NOTHING_AT_WORST,
    lands: new Map([['found', { laid, startsM: new Map() }]]),
  };
}

/** A scenario through the whole set at once. */
export function runSet(scenario: Scenario, context: RoomContext, asked?: SetAsked): SetRan | null {
  return finish(runSetSlowly(scenario, context, asked));
}
