// Questions about the works together: in what order they fail, what storm left a mark, and what each case does.
import type { Store } from '../../contract/index.ts';
import { type Project, fail } from '../../project/index.ts';
import { type Amount, type Said, amount, say, spoken } from '../../units/index.ts';
import { asDesigned } from '../scenario/scenario.ts';
import type { RoomContext } from '../set/laid.ts';
import { type CaseRow, compareCasesSlowly, usualCases } from './cases.ts';
import { storesOnly } from '../water/water.ts';
import { breachAt } from '../tell/breach.ts';
import { adviseSlowly } from './advise.ts';
import { type OptionsCompared, optionsSlowly } from './options.ts';
import { priceSlowly } from './price.ts';
import { restingSlowly } from './resting.ts';
import { Raised, ladderOf } from './raised.ts';
import { type Slowly, finish } from '../graph/slowly.ts';

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
  /** What comes down when it is cut through [m3/s], roughly; null where nothing would. */
  readonly breachM3s: number | null;
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
export function* failureOrderSlowly(project: Project, context: RoomContext): Slowly<FailureOrder> {
  const raised = new Raised(ladderOf(project), asDesigned(project), context);
  try {
    return yield* orderIn(raised);
  } finally {
    raised.end();
  }
}

function* orderIn(raised: Raised): Slowly<FailureOrder> {
  const { ladder } = raised;
  const designed = raised.unraised();
  const stores = storesOnly(designed.water.stores);
  const traits = new Map(designed.water.works.map(({ bound }) => [bound.work.id, bound.traits]));
  const workOf = new Map(stores.map((s) => [s.id, s.work]));
  const isWall = (id: string): boolean => traits.get(workOf.get(id) ?? id)?.retains === 'wall';
  // What runs in the least storm tells which ways water takes.
  const links = [...raised.at(ladder.rungs[0]).shown.flows.values()].flat();
  const below = (id: string): string[] => {
    const found: string[] = [];
    for (let at: string | undefined = id, k = 0; k < stores.length; k++) {
      at = links.find((l) => l.from === at && workOf.has(l.to) && !found.includes(l.to) && l.to !== id)?.to;
      if (at === undefined) break;
      if (isWall(at)) found.push(at);
    }
    return found;
  };
  const ranked: Ranked[] = [];
  for (const { store, outlet } of thresholdsOf(stores)) {
    // A bank is passed first where its water stands highest.
    const rung = yield* raised.reaches(store.id, outlet.levelM + 1e-4, outlet.role === 'bank');
    const [rainMm, designMm] = [rung === null ? null : raised.rainMm(rung, store.id), raised.designMm(store.id)];
    ranked.push({
      store: store.id,
      outlet: outlet.id,
      work: outlet.work,
      name: outlet.name.startsWith(store.name) ? outlet.name : `${store.name}: ${outlet.name}`,
      kind: outlet.kind === 'bank' ? 'passed' : 'spills',
      levelM: outlet.levelM,
      rung,
      years: rung === null ? null : ladder.yearsOf(rung),
      isBeyondTable: rung !== null && ladder.isBeyond(rung),
      times: rainMm === null || designMm === null || designMm === 0 ? null : rainMm / designMm,
      breachM3s: breachAt(store, outlet)?.peakM3s ?? null,
      takes: outlet.kind === 'bank' && isWall(store.id) ? below(store.id) : [],
    });
  }
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
export function* whichStormSlowly(
  project: Project,
  context: RoomContext,
  { store, levelM, toleranceM = MARK_TOLERANCE_M }: { readonly store: string; readonly levelM: number; readonly toleranceM?: number },
): Slowly<StormThatWas> {
  const raised = new Raised(ladderOf(project), asDesigned(project), context);
  try {
    return yield* markIn(raised, { store, levelM, toleranceM });
  } finally {
    raised.end();
  }
}

function* markIn(
  raised: Raised,
  { store, levelM, toleranceM }: { readonly store: string; readonly levelM: number; readonly toleranceM: number },
): Slowly<StormThatWas> {
  const { rungs, yearsOf, isBeyond } = raised.ladder;
  const stores = storesOnly(raised.at(rungs[0]).water.stores);
  const own = stores.find((s) => s.id === store);
  if (!own) return fail('network.store', `"${store}" holds no water`, { do: `Name one of ${stores.map((s) => s.id).join(', ')}.` });
  if (!(levelM > own.floorM)) {
    return fail('network.mark', `a mark at ${levelM.toFixed(2)} m is under the floor of "${store}" (${own.floorM.toFixed(2)} m)`, {
      do: 'Level it again from the same zero.',
    });
  }
  const rung = yield* raised.reaches(store, levelM);
  const told = raised.at(rung ?? rungs[rungs.length - 1]);
  const there = told.asFound.outcomes.get(store)?.storm;
  const yearsAt = function* (level: number): Slowly<number | null> {
    const found = yield* raised.reaches(store, level);
    return found === null ? null : yearsOf(found);
  };
  return {
    store,
    levelM,
    years: rung === null ? null : yearsOf(rung),
    lowYears: yield* yearsAt(levelM - toleranceM),
    highYears: yield* yearsAt(levelM + toleranceM),
    isBeyondTable: rung !== null && isBeyond(rung),
    isUnreached: rung === null,
    peakInM3s: there?.peakInM3s ?? null,
    peakOutM3s: there?.peakOutM3s ?? null,
    rainMm: raised.rainMm(rung ?? rungs[rungs.length - 1], store),
    left: storesOnly(told.water.stores).flatMap(({ id }) => {
      const storm = told.asFound.outcomes.get(id)?.storm;
      return storm ? [{ store: id, freeboardM: storm.freeboardM }] : [];
    }),
  };
}

export const failureOrder = (...on: Parameters<typeof failureOrderSlowly>): FailureOrder => finish(failureOrderSlowly(...on));
export const whichStorm = (...on: Parameters<typeof whichStormSlowly>): StormThatWas => finish(whichStormSlowly(...on));
export const compareCases = (...on: Parameters<typeof compareCasesSlowly>): CaseRow[] => finish(compareCasesSlowly(...on));

export const compareOptions = (...on: Parameters<typeof optionsSlowly>): OptionsCompared => finish(optionsSlowly(...on));

export const NETWORK_QUESTIONS = {
  failureOrder: failureOrderSlowly,
  whichStorm: whichStormSlowly,
  cases: compareCasesSlowly,
  usualCases,
  options: optionsSlowly,
  price: priceSlowly,
  resting: restingSlowly,
  advise: adviseSlowly,
} as const;
