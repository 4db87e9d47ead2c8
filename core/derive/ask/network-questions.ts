// Questions about the works together: what each case does, in what order they fail, what storm left a mark.
import type { Store } from '../../contract/index.ts';
import { type Case, type Project, type Rain, fail, optionOf } from '../../project/index.ts';
import { type Amount, type Said, amount, say, spoken } from '../../units/index.ts';
import { type Ran, type RoomContext, runScenario } from '../derive.ts';
import { type Scenario, asDesigned, inCase, underRain } from '../scenario/scenario.ts';
import { askByName } from './questions.ts';

/** Longest return period looked at [years]: beyond it a table says nothing. */
const MOST_YEARS = 1000;
/** Rungs up to MOST_YEARS are years; above it the storm of so many years is raised in proportion, and no return period is told. */
const LADDER: readonly number[] = [1.1, 2, 5, 10, 20, 50, 100, 200, 500, MOST_YEARS, 1500, 2500, 5000, 10_000, 20_000];
/** Storms raised by a factor, where the storm is no row of a table. */
const TIMES: readonly number[] = [0.1, 0.3, 0.6, 1, 1.5, 2, 3, 5, 10, 20];

/** Depths of a table for a return period between or beyond its rows: straight over the logarithm of years. */
function rowFor({ table }: Rain, years: number): number[] {
  const { returnYears, depthMm } = table;
  const last = returnYears.length - 1;
  if (last === 0) return depthMm[0].map((d) => d * Math.max(0.05, 1 + 0.3 * Math.log10(years / returnYears[0])));
  let k = returnYears.findIndex((y) => y >= years);
  k = Math.min(last, Math.max(1, k < 0 ? last : k));
  const share = Math.log(years / returnYears[k - 1]) / Math.log(returnYears[k] / returnYears[k - 1]);
  return depthMm[k].map((d, j) => Math.max(0.05 * d, depthMm[k - 1][j] + share * (d - depthMm[k - 1][j])));
}

const isFromTable = ({ storm }: Rain): boolean => storm.shape?.kind !== 'own' && storm.shape?.kind !== 'event';

/** How a storm is raised: by years where a table gives it, else in proportion. */
interface Ladder {
  readonly rungs: readonly number[];
  readonly at: (rung: number) => Rain;
  /** Return period of a rung; null where none can be told. */
  readonly yearsOf: (rung: number) => number | null;
  /** Rungs outside what the table holds. */
  readonly isBeyond: (rung: number) => boolean;
}

function ladderOf({ rain, ground }: Project): Ladder {
  if (!rain || !ground) return fail('network.missing', 'there is no storm to raise yet', { do: 'Give rain and ground first.' });
  if (!isFromTable(rain)) {
    const base = 1 + (rain.storm.upliftPercent ?? 0) / 100;
    return {
      rungs: TIMES,
      at: (times) => ({ ...rain, storm: { ...rain.storm, upliftPercent: 100 * (base * times - 1) } }),
      yearsOf: () => null,
      isBeyond: () => false,
    };
  }
  const { returnYears } = rain.table;
  return {
    rungs: LADDER,
    at: (rung) => {
      const years = Math.min(rung, MOST_YEARS);
      const times = rung / years;
      const table = { ...rain.table, returnYears: [years], depthMm: [rowFor(rain, years).map((d) => d * times)] };
      return { ...rain, table, storm: { ...rain.storm, returnYears: years } };
    },
    yearsOf: (rung) => (rung <= MOST_YEARS ? rung : null),
    isBeyond: (rung) => rung < returnYears[0] || rung > returnYears[returnYears.length - 1],
  };
}

/** A scenario worked out as far as its run. @throws UserError without terrain. */
const ranOf = (scenario: Scenario, context: RoomContext): Ran =>
  runScenario(scenario, context) ??
  fail('terrain.missing', 'there is no ground yet', { do: 'Bring in a terrain grid or survey points first.' });

/** Rain of a run [mm]; null where nothing catches any. */
const rainOf = ({ run, water }: Ran): number | null =>
  water.catchments.flatMap((g) => run.hydrology.runoff.get(g.catchment.of)?.runoff.rainMm ?? [])[0] ?? null;

/** Runs of raised storms, each worked out once; nothing is judged in them. */
class Raised {
  private readonly known = new Map<number, Ran>();
  constructor(
    readonly ladder: Ladder,
    private readonly scenario: Scenario,
    private readonly context: RoomContext,
  ) {}

  at(rung: number): Ran {
    const known = this.known.get(rung);
    if (known) return known;
    const ran = ranOf(underRain(this.scenario, 'raised', this.ladder.at(rung)), this.context);
    this.known.set(rung, ran);
    return ran;
  }

  /** Rain of a rung [mm]. */
  rainMm(rung: number): number | null {
    return rainOf(this.at(rung));
  }

  peak(rung: number, store: string): number {
    return this.at(rung).run.outcomes.get(store)?.storm.peakLevelM ?? -Infinity;
  }

  /** The rung at which a store's water first stands at a level; null where none of the ladder brings it there. */
  reaches(store: string, levelM: number): number | null {
    const { rungs } = this.ladder;
    if (this.peak(rungs[0], store) >= levelM) return rungs[0];
    const k = rungs.findIndex((r) => this.peak(r, store) >= levelM);
    if (k < 0) return null;
    let [lo, hi] = [rungs[k - 1], rungs[k]];
    for (let half = 0; half < 3; half++) {
      const mid = Math.sqrt(lo * hi);
      if (this.peak(mid, store) >= levelM) hi = mid;
      else lo = mid;
    }
    // The rest of the way straight between the levels of both.
    const [low, high] = [this.peak(lo, store), this.peak(hi, store)];
    const share = high > low ? Math.min(1, Math.max(0, (levelM - low) / (high - low))) : 1;
    return lo * (hi / lo) ** share;
  }
}

export interface FailureStep {
  readonly store: string;
  readonly outlet: string;
  /** The work that makes it. */
  readonly work: string;
  readonly name: string;
  readonly kind: 'spills' | 'passed';
  readonly levelM: number;
  /** Return period at which it begins [years]; null where none can be told. */
  readonly years: number | null;
  /** Whether that lies outside the rain table. */
  readonly isBeyondTable: boolean;
  /** Rain of that storm, over that of the design storm; null where even the greatest storm tried does not reach it. */
  readonly times: number | null;
  /** Walls below that a failure takes with it. */
  readonly takes: readonly string[];
}

export interface WrongOrder {
  /** What goes too soon, and what should have gone before it. */
  readonly first: string;
  readonly before: string;
  readonly byM: number;
  readonly says: string;
  readonly said: Said;
}

export interface FailureOrder {
  readonly steps: readonly FailureStep[];
  readonly wrong: readonly WrongOrder[];
}

/** How much lower a crest must lie to go first beyond doubt [m]: a levelling tolerance. */
const SURE_M = 0.025;

/** A step with the rung it begins at, for putting in order. */
interface Ranked extends FailureStep {
  readonly rung: number | null;
}

interface Threshold {
  readonly store: Store;
  readonly outlet: Store['outlets'][number];
}

function thresholdsOf(stores: readonly Store[]): Threshold[] {
  return stores.flatMap((store) => store.outlets.flatMap((outlet) => (outlet.kind === 'joint' ? [] : [{ store, outlet }])));
}

/** Stores joined to one another, by any of them. */
function joinedWith(stores: readonly Store[], id: string): Set<string> {
  const group = new Set([id]);
  for (let grew = true; grew;) {
    grew = false;
    for (const store of stores)
      for (const { kind, to } of store.outlets) {
        if (kind !== 'joint' || to === undefined || group.has(store.id) === group.has(to)) continue;
        group.add(store.id);
        group.add(to);
        grew = true;
      }
  }
  return group;
}

/** The order in which ways out run and crests are passed as the storm is raised. */
export function failureOrder(project: Project, context: RoomContext): FailureOrder {
  const ladder = ladderOf(project);
  const scenario = asDesigned(project);
  const raised = new Raised(ladder, scenario, context);
  const designed = ranOf(scenario, context);
  const { stores } = designed.water;
  const design = rainOf(designed) ?? 1;
  const traits = new Map(designed.water.works.map(({ bound }) => [bound.work.id, bound.traits]));
  const workOf = new Map(stores.map((s) => [s.id, s.work]));
  const isWall = (id: string): boolean => traits.get(workOf.get(id) ?? id)?.retains === 'wall';
  // What runs in the least storm tells which ways water takes.
  const links = [...raised.at(ladder.rungs[0]).run.flows.values()].flat();
  const below = (id: string): string[] => {
    const found: string[] = [];
    for (let at: string | undefined = id, k = 0; k < stores.length; k++) {
      at = links.find((l) => l.from === at && workOf.has(l.to) && !found.includes(l.to) && l.to !== id)?.to;
      if (at === undefined) break;
      if (isWall(at)) found.push(at);
    }
    return found;
  };
  const ranked = thresholdsOf(stores).map(({ store, outlet }): Ranked => {
    const rung = raised.reaches(store.id, outlet.levelM + 1e-4);
    const rain = rung === null ? null : raised.rainMm(rung);
    return {
      store: store.id,
      outlet: outlet.id,
      work: outlet.work,
      name: outlet.name.startsWith(store.name) ? outlet.name : `${store.name}: ${outlet.name}`,
      kind: outlet.kind === 'bank' ? 'passed' : 'spills',
      levelM: outlet.levelM,
      rung,
      years: rung === null ? null : ladder.yearsOf(rung),
      isBeyondTable: rung !== null && ladder.isBeyond(rung),
      times: rain === null ? null : rain / design,
      takes: outlet.kind === 'bank' && isWall(store.id) ? below(store.id) : [],
    };
  });
  ranked.sort((a, b) => (a.rung ?? Infinity) - (b.rung ?? Infinity) || a.levelM - b.levelM);
  const wrong = wrongOrders({ steps: ranked, stores, raised, isWall });
  return { steps: ranked.map(({ rung: _, ...step }) => step), wrong };
}

/** Rank in the designed order: ways out first, then banks of swales, walls last. */
const rankOf = (step: FailureStep, isWall: (id: string) => boolean): number => (step.kind === 'spills' ? 0 : isWall(step.store) ? 2 : 1);

function wrongOrders(on: {
  readonly steps: readonly Ranked[];
  readonly stores: readonly Store[];
  readonly raised: Raised;
  readonly isWall: (id: string) => boolean;
}): WrongOrder[] {
  const { steps, stores, raised, isWall } = on;
  const wrong: WrongOrder[] = [];
  steps.forEach((sooner, k) => {
    if (sooner.rung === null) return;
    const { rung } = sooner;
    const group = joinedWith(stores, sooner.store);
    // Of a bank only the place that goes first matters: what stands above it may stay.
    const gone = new Set(steps.slice(0, k).flatMap((s) => (s.kind === 'passed' ? [s.store] : [])));
    for (const later of steps.slice(k + 1)) {
      if (later.kind === 'passed' && gone.has(later.store)) continue;
      if (later.kind === 'passed') gone.add(later.store);
      if (!group.has(later.store) || rankOf(later, isWall) >= rankOf(sooner, isWall)) continue;
      // What the water would have to reach: where it stands when the wrong one is passed.
      const reached = raised.peak(rung, later.store);
      const byM = Math.max(0, later.levelM - reached) + SURE_M;
      const step: Amount = amount(byM, 'difference');
      const said = say`${sooner.name} is passed before ${later.name}: lower ${later.name} by ${step}, or raise ${sooner.name} as much.`;
      wrong.push({ first: sooner.outlet, before: later.outlet, byM, says: spoken(said, 'metric'), said });
    }
  });
  return wrong;
}

export interface StormThatWas {
  readonly store: string;
  readonly levelM: number;
  /** Return period, most likely and by a mark a little lower and higher [years]; null where none can be told. */
  readonly years: number | null;
  readonly lowYears: number | null;
  readonly highYears: number | null;
  readonly isBeyondTable: boolean;
  /** Whether even the greatest storm tried leaves no mark so high. */
  readonly isUnreached: boolean;
  readonly peakInM3s: number | null;
  readonly peakOutM3s: number | null;
  readonly rainMm: number | null;
  /** What each crest had left. */
  readonly left: readonly { readonly store: string; readonly freeboardM: number }[];
}

/** How well a debris line can be read [m]: common practice. */
const MARK_TOLERANCE_M = 0.03;

/** What storm left its mark at a level of a store or drain. */
export function whichStorm(
  project: Project,
  context: RoomContext,
  { store, levelM, toleranceM = MARK_TOLERANCE_M }: { readonly store: string; readonly levelM: number; readonly toleranceM?: number },
): StormThatWas {
  const raised = new Raised(ladderOf(project), asDesigned(project), context);
  const { rungs, yearsOf, isBeyond } = raised.ladder;
  const { stores } = raised.at(rungs[0]).water;
  const own = stores.find((s) => s.id === store);
  if (!own) return fail('network.store', `"${store}" holds no water`, { do: `Name one of ${stores.map((s) => s.id).join(', ')}.` });
  if (!(levelM > own.floorM)) {
    return fail('network.mark', `a mark at ${levelM.toFixed(2)} m is under the floor of "${store}" (${own.floorM.toFixed(2)} m)`, {
      do: 'Level it again from the same zero.',
    });
  }
  const rung = raised.reaches(store, levelM);
  const told = raised.at(rung ?? rungs[rungs.length - 1]);
  const there = told.run.outcomes.get(store)?.storm;
  const yearsAt = (level: number): number | null => {
    const found = raised.reaches(store, level);
    return found === null ? null : yearsOf(found);
  };
  return {
    store,
    levelM,
    years: rung === null ? null : yearsOf(rung),
    lowYears: yearsAt(levelM - toleranceM),
    highYears: yearsAt(levelM + toleranceM),
    isBeyondTable: rung !== null && isBeyond(rung),
    isUnreached: rung === null,
    peakInM3s: there?.peakInM3s ?? null,
    peakOutM3s: there?.peakOutM3s ?? null,
    rainMm: rainOf(told),
    left: [...told.run.outcomes].map(([id, { storm }]) => ({ store: id, freeboardM: storm.freeboardM })),
  };
}

export interface CaseRow {
  /** Null for the works as designed. */
  readonly case: string | null;
  readonly name: string;
  readonly stores: readonly {
    readonly store: string;
    readonly peakLevelM: number | null;
    readonly freeboardM: number | null;
    readonly spillsH: number | null;
  }[];
  readonly exits: readonly { readonly exit: string; readonly isPlace: boolean; readonly peakM3s: number }[];
  /** Crests that are passed. */
  readonly passed: readonly string[];
  /** Least freeboard of all [m]. */
  readonly leastM: number | null;
}

function rowOf(name: string, id: string | null, { water, run }: Ran): CaseRow {
  const stores = water.stores.map(({ id: store }) => {
    const storm = run.outcomes.get(store)?.storm;
    return { store, peakLevelM: storm?.peakLevelM ?? null, freeboardM: storm?.freeboardM ?? null, spillsH: storm?.spillsH ?? null };
  });
  const left = stores.flatMap((s) => (s.freeboardM === null ? [] : [s.freeboardM]));
  return {
    case: id,
    name,
    stores,
    exits: run.leaving.map(({ told: e }) => ({ exit: e.id, isPlace: e.isPlace, peakM3s: e.with.peakM3s })),
    passed: stores.flatMap((s) => (s.freeboardM !== null && s.freeboardM < 0 ? [s.store] : [])),
    leastM: left.length > 0 ? Math.min(...left) : null,
  };
}

/** The works as designed and under every case of the project, side by side. */
export function compareCases(project: Project, context: RoomContext): CaseRow[] {
  const designed = asDesigned(project);
  const cases = project.cases ?? [];
  return [
    rowOf('As designed', null, ranOf(designed, context)),
    ...cases.map((one) => rowOf(one.name, one.id, ranOf(inCase(designed, one.id), context))),
  ];
}

/** Cases worth asking of these works: every pipe blocked, every way out not cut yet, and what weather and ground may do. */
export function usualCases(project: Project, { registry }: Pick<RoomContext, 'registry'>): Case[] {
  const works = optionOf(project).works.map((work) => registry.bind(work));
  const named = (list: typeof works): { id: string; name: string }[] => list.map(({ work }) => work);
  const pipes = named(works.filter(({ traits }) => traits.canBlock && traits.isConduit));
  // What holds by a wall silts up; a bank only where water is let out of it by making.
  const hosts = new Set(works.map((w) => w.hostId));
  const stores = named(works.filter(({ traits, work }) => traits.canSilt && (traits.retains === 'wall' || hosts.has(work.id))));
  return [
    ...pipes.map((w): Case => ({ id: `blocked-${w.id}`, name: `${w.name} blocked`, blockedPercent: { [w.id]: 100 } })),
    { id: 'full', name: 'All full when it begins', startsFull: true },
    { id: 'more-rain', name: 'A fifth more rain', stormPercent: 20 },
    { id: 'two-storms', name: 'Two storms, a day apart', againAfterH: 24 },
    { id: 'bare', name: 'Bare ground', ground: 'bare' },
    ...(stores.length > 0
      ? [{ id: 'silted', name: 'A third silted up', siltedPercent: Object.fromEntries(stores.map((w) => [w.id, 33])) } satisfies Case]
      : []),
  ];
}

export const NETWORK_QUESTIONS = { failureOrder, whichStorm, cases: compareCases, usualCases } as const;
export type NetworkQuestions = typeof NETWORK_QUESTIONS;

/** Answers a question by name. */
export const askNetwork = (name: string, project: Project, on: { readonly context: RoomContext; readonly args: unknown }): unknown =>
  askByName(NETWORK_QUESTIONS, name, { project, ...on });
