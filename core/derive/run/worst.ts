// The worst of several runs: of each store, way out, pipe and exit, quantity by quantity, as if one storm had done all of it.
import type { By, ConduitStorm, LinkFlow, OutletStorm, Runoff, StoreStorm } from '../../contract/index.ts';
import { type DesignStorm, isNested } from '../../rain/index.ts';
import type { ExitFlows, LeavingFlow } from '../types.ts';
import { type Graph, areSame, asItself, asNamedBefore, byIds, columnOf, idsOf, orderOf } from '../graph/graph.ts';
import type { CatchmentRunoff } from './hydrology.ts';
import type { StoreOutcome } from './outcomes.ts';
import type { Run } from './run.ts';

/** What a run did, without its series: what is kept of the members of a set. */
export interface Brief {
  readonly outcomes: Run['outcomes'];
  readonly flows: Run['flows'];
  readonly outlets: Run['outlets'];
  readonly conduits: Run['conduits'];
  readonly exits: ReadonlyMap<string, ExitFlows>;
  readonly runoff: ReadonlyMap<string, Runoff>;
  readonly natural: ReadonlyMap<string, number>;
}

export function briefOf({ outcomes, flows, outlets, conduits, leaving, hydrology }: Run): Brief {
  const exits = leaving.map((l) => l.told);
  const shed = asNamedBefore([...hydrology.runoff.keys()]);
  return {
    outcomes,
    flows,
    outlets,
    conduits,
    exits: byIds(idsOf(exits), exits),
    runoff: byIds(
      shed,
      Array.from(hydrology.runoff.values(), ({ runoff }) => runoff),
    ),
    natural: hydrology.natural,
  };
}

/** One storm of a set, on ground and water found in one way. */
export interface Member extends By {
  readonly brief: Brief;
  /** Whether what comes was raised to the peaks chosen: for what is judged by peaks, not for what is caught. */
  readonly isRaised: boolean;
}

/**
 * A length is looked at again on other ground, or in a rarer storm, where water rose to this share of the highest: another may
 * decide there. Where the longest holds all others it does so there too, but for floods stretched to a chosen peak.
 */
const RIVALS = { nested: 0.95, other: 0.8 } as const;

/** Lengths in which a store's water rose near enough to its highest of all members. */
export function rivalLengths(members: readonly Member[], store: string, storm: DesignStorm): number[] {
  const share = isNested(storm) ? RIVALS.nested : RIVALS.other;
  const rises = members.flatMap(({ brief, durationMin }) => {
    const storm = brief.outcomes.get(store)?.storm;
    return storm ? [{ durationMin, riseM: storm.peakLevelM - storm.startM }] : [];
  });
  const most = Math.max(0, ...rises.map((r) => r.riseM));
  return [...new Set(rises.flatMap(({ durationMin, riseM }) => (riseM >= share * most ? [durationMin] : [])))];
}

/** The first of those whose value is greatest. */
export function greatest<T>(list: readonly T[], valueOf: (item: T) => number): T {
  let best = list[0];
  for (const item of list) if (valueOf(item) > valueOf(best)) best = item;
  return best;
}

const most = <T>(list: readonly T[], valueOf: (item: T) => number): number => valueOf(greatest(list, valueOf));

/** The greatest of what is known; null where nothing is. */
const mostKnown = (values: readonly (number | null)[]): number | null =>
  values.reduce((a, v) => (v === null || (a !== null && a >= v) ? a : v), null);

/** Null is never: worse than any time. */
const longest = (hours: readonly (number | null)[]): number | null =>
  hours.reduce<number | null>((a, h) => (a === null || h === null ? null : Math.max(a, h)), 0);

const earliest = (seconds: readonly (number | null)[]): number | null =>
  seconds.reduce((a, s) => (s === null || (a !== null && a <= s) ? a : s), null);

/** What a store is judged by: levels and flows of the worst of all, what it catches by the worst of those found as usual. */
export function worstStore(all: readonly StoreOutcome[], found: readonly StoreOutcome[]): StoreOutcome {
  const storms = all.map((o) => o.storm);
  const usual = found.map((o) => o.storm);
  const peakLevelM = most(storms, (s) => s.peakLevelM);
  const slowest = greatest(found, ({ storm }) => storm.drainDownH ?? Infinity);
  const storm: StoreStorm = {
    startM: most(storms, (s) => s.startM),
    inM3: most(usual, (s) => s.inM3),
    soakedM3: most(usual, (s) => s.soakedM3),
    spilledM3: most(usual, (s) => s.spilledM3),
    endM3: most(usual, (s) => s.endM3),
    peakLevelM,
    peakInM3s: most(storms, (s) => s.peakInM3s),
    peakOutM3s: most(storms, (s) => s.peakOutM3s),
    firstSpillS: earliest(usual.map((s) => s.firstSpillS)),
    spillsH: most(storms, (s) => s.spillsH),
    riseM: most(storms, (s) => s.riseM),
    freeboardM: -most(storms, (s) => -s.freeboardM),
    drainDownH: longest(usual.map((s) => s.drainDownH)),
    soilShortM3: most(usual, (s) => s.soilShortM3),
    holds: usual.every((s) => s.holds),
    nextDayM3: most(usual, (s) => s.nextDayM3),
    readyH: mostKnown(usual.map((s) => s.readyH)),
  };
  return { storm: asItself(storm), sheet: slowest.sheet };
}

/** Flows of a store's ways out: the greatest peak of all, the greatest volume of those found as usual. */
export function worstFlows(all: readonly (readonly LinkFlow[])[], found: readonly (readonly LinkFlow[])[]): readonly LinkFlow[] {
  const by = new Map<string, LinkFlow[]>();
  for (const flows of all) for (const flow of flows) by.set(flow.outlet, [...(by.get(flow.outlet) ?? []), flow]);
  const usual = new Map<string, (number | null)[]>();
  for (const flows of found) for (const { outlet, volumeM3 } of flows) usual.set(outlet, [...(usual.get(outlet) ?? []), volumeM3]);
  return [...by.values()].map((flows) => {
    const [{ outlet }] = flows;
    const peakM3s = mostKnown(flows.map((f) => f.peakM3s));
    const volumes = usual.get(outlet);
    // One that runs only when all is full or blocked lets nothing out as things usually are.
    const volumeM3 = volumes ? mostKnown(volumes) : peakM3s === null ? null : 0;
    return asItself({ ...flows[0], volumeM3, peakM3s });
  });
}

/** A way out by its greatest peak, with the volume and hours of those found as usual. */
function worstOutlet(all: readonly OutletStorm[], found: readonly OutletStorm[]): OutletStorm {
  const peak = greatest(all, (o) => o.peakM3s);
  return { ...peak, volumeM3: mostKnown(found.map((o) => o.volumeM3)) ?? 0, runsH: most(all, (o) => o.runsH) };
}

/** The ways out of a store, each at its worst. */
function worstOutlets(all: readonly (readonly OutletStorm[])[], found: readonly (readonly OutletStorm[])[]): OutletStorm[] {
  const of = (lists: typeof all, id: string): OutletStorm[] => lists.flatMap((list) => list.filter((o) => o.id === id));
  return [...new Set(all.flatMap((list) => list.map((o) => o.id)))].map((id) => asItself(worstOutlet(of(all, id), of(found, id))));
}

const worstConduit = (all: readonly ConduitStorm[]): ConduitStorm => ({
  ...greatest(all, (c) => c.peakM3s),
  peakLevelM: most(all, (c) => c.peakLevelM),
  surchargedH: most(all, (c) => c.surchargedH),
  overM3: most(all, (c) => c.overM3),
});

/** A catchment: depths and volume of the storm that brings most, peaks of whichever is greatest. */
function worstRunoff(all: readonly Runoff[]): Runoff {
  const sealed = mostKnown(all.map((r) => r.sealedPeakM3s));
  return {
    ...greatest(all, (r) => r.volumeM3),
    intensityMmPerHour: most(all, (r) => r.intensityMmPerHour),
    rationalPeakM3s: most(all, (r) => r.rationalPeakM3s),
    rarePeakM3s: most(all, (r) => r.rarePeakM3s),
    hydrographPeakM3s: most(all, (r) => r.hydrographPeakM3s),
    peakAtS: greatest(all, (r) => r.hydrographPeakM3s).peakAtS,
    sealedPeakM3s: sealed,
    chosenPeakM3s: most(all, (r) => r.chosenPeakM3s),
  };
}

const worstLeaving = (all: readonly LeavingFlow[], found: readonly LeavingFlow[]): LeavingFlow => ({
  ...greatest(all, (f) => f.peakM3s),
  volumeM3: most(found, (f) => f.volumeM3),
});

const worstExit = (all: readonly ExitFlows[], found: readonly ExitFlows[]): ExitFlows => ({
  ...all[0],
  without: worstLeaving(
    all.map((e) => e.without),
    found.map((e) => e.without),
  ),
  with: worstLeaving(
    all.map((e) => e.with),
    found.map((e) => e.with),
  ),
});

/** Ids anybody speaks of, in the order of who speaks of most. */
function idsIn(maps: readonly ReadonlyMap<string, unknown>[]): readonly string[] {
  if (maps.length === 0) return [];
  const fullest = greatest(maps, (map) => map.size);
  const order = orderOf(fullest);
  if (order && maps.every((map) => areSame(orderOf(map) ?? NOBODY, order))) return order;
  const ids = new Set<string>(fullest.keys());
  for (const map of maps) for (const id of map.keys()) ids.add(id);
  return [...ids];
}

const NOBODY: readonly string[] = [];

/** What some members say of a thing; by whom nothing is said of it left out. */
function saidIn<T>(said: readonly (T | null)[], from: number, to: number): readonly T[] {
  const known: T[] = [];
  for (let k = from; k < to; k++) {
    const one = said[k];
    if (one !== null) known.push(one);
  }
  return known;
}

/**
 * A run that was as bad as the worst of `all` in whatever can do harm, and of `found` in what is caught, kept and sent on. Series,
 * balance and working are those of the run that is shown.
 */
export function worstRun(
  shown: Run,
  on: { readonly all: readonly Member[]; readonly found: readonly Member[]; readonly graph: Graph },
): Run {
  const { all, found, graph } = on;
  const each = <T, U>(
    of: (brief: Brief) => ReadonlyMap<string, T>,
    word: string,
    worst: (a: readonly T[], f: readonly T[]) => U,
  ): ReadonlyMap<string, U> => {
    const [maps, usual] = [all.map((m) => of(m.brief)), found.map((m) => of(m.brief))];
    const ids = idsIn(maps);
    // A column for each member: what all say of a thing is brought together only where one of them differs.
    const columns = [...maps, ...usual].map((map) => columnOf(ids, map, null));
    return graph.each<(T | null)[], U>(word, { ids, columns }, (...said) =>
      worst(saidIn(said, 0, maps.length), saidIn(said, maps.length, said.length)),
    ).by;
  };
  const runoff = each((b) => b.runoff, 'worst-runoff', worstRunoff);
  const exits = each((b) => b.exits, 'worst-exit', worstExit);
  const { hydrology } = shown;
  const shed = [...hydrology.runoff.keys()];
  const naturals = [...hydrology.natural.keys()];
  const natural = (id: string): number => all.reduce((peak, m) => Math.max(peak, m.brief.natural.get(id) ?? -Infinity), -Infinity);
  const isOne = all.length > 0 && all.every((m) => m.brief.natural === hydrology.natural);
  return {
    ...shown,
    hydrology: {
      ...hydrology,
      runoff: graph.each('worst-shed', { ids: shed, columns: [[...hydrology.runoff.values()], columnOf(shed, runoff, null)] }, worstShed)
        .by,
      natural: isOne ? hydrology.natural : new Map(naturals.map((id) => [id, natural(id)])),
    },
    outcomes: each((b) => b.outcomes, 'worst', worstStore),
    flows: each((b) => b.flows, 'worst-flows', worstFlows),
    outlets: each((b) => b.outlets, 'worst-outlet', worstOutlets),
    conduits: each((b) => b.conduits, 'worst-conduit', worstConduit),
    leaving: shown.leaving.map((l) => ({ ...l, told: exits.get(l.told.id) ?? l.told })),
  };
}

const worstShed = (own: CatchmentRunoff, runoff: Runoff | null): CatchmentRunoff => (runoff ? { ...own, runoff } : own);
