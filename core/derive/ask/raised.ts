// Storms raised step by step, each run once and nothing judged in them.
import { type Project, type Rain, fail } from '../../project/index.ts';
import { isNested, stepsOfStorm, tableAt, totalsOf } from '../../rain/index.ts';
import { type Scenario, underRain } from '../scenario/scenario.ts';
import type { Brief } from '../run/worst.ts';
import { type RoomContext, rainOver } from '../set/laid.ts';
import { memberName } from '../set/member-names.ts';
import { type SetAsked, type SetRan, runSet } from '../set/set.ts';
import type { Slowly } from '../graph/slowly.ts';

/** Longest return period looked at [years]: beyond it a table says nothing. */
const MOST_YEARS = 1000;
/** Rungs up to MOST_YEARS are years; above it the storm of so many years is raised in proportion, and no return period is told. */
const LADDER: readonly number[] = [1.1, 2, 5, 10, 20, 50, 100, 200, 500, MOST_YEARS, 1500, 2500, 5000, 10_000, 20_000];
/** Storms raised by a factor, where the storm is no row of a table. */
const TIMES: readonly number[] = [0.1, 0.3, 0.6, 1, 1.5, 2, 3, 5, 10, 20];

/** How a storm is raised: by years where a table gives it, else in proportion. */
export interface Ladder {
  readonly rungs: readonly number[];
  readonly at: (rung: number) => Rain;
  /** Return period of a rung; null where none can be told. */
  readonly yearsOf: (rung: number) => number | null;
  /** Rungs outside what the table holds. */
  readonly isBeyond: (rung: number) => boolean;
}

export function ladderOf({ rain, ground }: Project): Ladder {
  if (!rain || !ground) return fail('network.missing', 'there is no storm to raise yet', { do: 'Give rain and ground first.' });
  if (stepsOfStorm(rain.storm)) {
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
      const { depthMm, ...row } = tableAt(rain.table, years);
      const table = { ...row, depthMm: depthMm.map((depths) => depths.map((d) => d * times)) };
      return { ...rain, table, storm: { ...rain.storm, returnYears: years } };
    },
    yearsOf: (rung) => (rung <= MOST_YEARS ? rung : null),
    isBeyond: (rung) => rung < returnYears[0] || rung > returnYears[returnYears.length - 1],
  };
}

/** A scenario through its set, as found and as it runs off. @throws UserError without terrain. */
export const setOf = (scenario: Scenario, context: RoomContext, asked: SetAsked = {}): SetRan =>
  runSet(scenario, context, { ...asked, asFound: true, isPlain: true }) ??
  fail('terrain.missing', 'there is no ground yet', { do: 'Bring in a terrain grid or survey points first.' });

/** Levels this near are the same: storms of different lengths fall in steps of slightly different length [m]. */
const AS_HIGH_M = 0.002;

/** Rungs this near to one another need no storm between them: what lies there is straight enough. */
const NEAR = 1.06;
/** A step from a side that was nearly met: a little less than is near enough. */
const STEP = 1.055;

/** All raised storms share what is kept of them. */
const RAISED = 'raised';

/** Sets of raised storms, each worked out once; nothing is judged in them. All find stores as the design storms do. */
export class Raised {
  private readonly known = new Map<number, SetRan>();
  private readonly designed: SetRan;
  constructor(
    readonly ladder: Ladder,
    private readonly scenario: Scenario,
    private readonly context: RoomContext,
  ) {
    this.designed = setOf(scenario, context);
  }

  at(rung: number): SetRan {
    const known = this.known.get(rung);
    if (known) return known;
    const { startsM } = this.designed;
    const ran = setOf(underRain(this.scenario, RAISED, this.ladder.at(rung)), this.context, { startsM, isInside: true, ...this.lengths() });
    this.known.set(rung, ran);
    return ran;
  }

  /**
   * Lengths looked at in every rung: a storm with its wettest in the middle holds all shorter ones, so that beside the longest only
   * those are asked that brought some store's water truly higher; of other shapes all.
   */
  private lengths(): SetAsked {
    const { governing, durationsMin, members, scenario } = this.designed;
    const { storm } = scenario.project.rain ?? {};
    if (!durationsMin || !storm || !isNested(storm)) return {};
    const longestMin = durationsMin[durationsMin.length - 1];
    const inLongest = members.find((m) => m.durationMin === longestMin && m.condition === 'found' && !m.isRaised)?.brief.outcomes;
    const peakIn = (outcomes: Brief['outcomes'] | undefined, id: string): number => outcomes?.get(id)?.storm.peakLevelM ?? -Infinity;
    const higher = [...governing].filter(([id, { run }]) => peakIn(run.outcomes, id) > peakIn(inLongest, id) + AS_HIGH_M);
    const asked = [longestMin, ...higher.map(([, { durationMin }]) => durationMin)];
    return { only: new Set(asked.map((durationMin) => memberName({ durationMin, condition: 'found' }))) };
  }

  /** The storms as they are designed for. */
  unraised(): SetRan {
    return this.designed;
  }

  /** Lets go of what the raised storms held in the graph. */
  end(): void {
    this.context.graph.forget(underRain(this.scenario, RAISED, this.ladder.at(this.ladder.rungs[0])).id);
  }

  /** Rain of a rung, of the length by which a store's water stands highest in the storms that are designed for [mm]; null without rain. */
  rainMm(rung: number, store: string): number | null {
    return depthOf(this.ladder.at(rung), this.designed.governing.get(store)?.durationMin);
  }

  /** Rain of the design storm of that length [mm]. */
  designMm(store: string): number | null {
    return depthOf(this.scenario.project.rain, this.designed.governing.get(store)?.durationMin);
  }

  /** The highest a store's water stands in any storm of a rung, at its ways out or where it stands highest. */
  peak(rung: number, store: string, isHighest = false): number {
    const storm = this.at(rung).asFound.outcomes.get(store)?.storm;
    return storm ? storm.peakLevelM + (isHighest ? storm.riseM : 0) : -Infinity;
  }

  /** A rung, a pause after it where it had to be worked out. */
  private *tried(rung: number): Slowly<number> {
    if (!this.known.has(rung)) {
      this.at(rung);
      yield;
    }
    return rung;
  }

  /**
   * The rung at which a store's water first stands at a level, at its ways out or anywhere; null where none of the ladder brings it there.
   * Whatever was run for other stores narrows where it lies; then storms are run where a straight line between both sides meets the level,
   * and half way where that took off too little.
   */
  *reaches(store: string, levelM: number, isHighest = false): Slowly<number | null> {
    const { rungs } = this.ladder;
    const overM = (rung: number): number => this.peak(rung, store, isHighest) - levelM;
    const [least, most] = [rungs[0], rungs[rungs.length - 1]];
    if (overM(yield* this.tried(least)) >= 0) return least;
    if (overM(yield* this.tried(most)) < 0) return null;
    let [lo, hi] = [least, most];
    for (const rung of [...this.known.keys()].sort((a, b) => a - b)) {
      if (rung > lo && rung < hi && overM(rung) < 0) lo = rung;
      else if (rung > lo && rung < hi) hi = rung;
    }
    for (let isHalf = false; hi / lo > NEAR;) {
      const width = Math.log(hi / lo);
      // Met close to one side it is tried a step from there, so that the next side lies near enough.
      const met = isHalf ? Math.sqrt(lo * hi) : straight([lo, overM(lo)], [hi, overM(hi)]);
      const at = yield* this.tried(Math.min(hi / STEP, Math.max(lo * STEP, met)));
      if (overM(at) >= 0) hi = at;
      else lo = at;
      isHalf = Math.log(hi / lo) > width / 2;
    }
    return straight([lo, overM(lo)], [hi, overM(hi)]);
  }
}

type Side = readonly [rung: number, overM: number];

/** Where a straight line between a rung under a level and one over it meets that, by the logarithm of the rung. */
function straight([lo, under]: Side, [hi, over]: Side): number {
  return over > under ? lo * (hi / lo) ** Math.min(1, Math.max(0, -under / (over - under))) : hi;
}

/** Rain of a storm of a length, else of the longest that is looked at, with one that follows it [mm]; null without rain. */
function depthOf(rain: Rain | null, durationMin?: number): number | null {
  const one = rainOver({ rain }, durationMin);
  if (!one) return null;
  const { depthMm, times } = totalsOf(one.table, one.storm);
  return depthMm * times;
}
