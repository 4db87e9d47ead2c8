// The set of storms works are judged by: one return period at every duration that matters on this land.
import { told } from '../units/index.ts';
import { type DesignStorm, type OneStorm, PATTERN_MIN, stepsOfStorm } from './design.ts';
import type { RainTable } from './table.ts';

export interface StormProblem {
  readonly code: `rain.storm${'' | `-${'duration' | 'set' | 'shape' | 'uplift' | 'again' | 'before'}`}`;
  readonly field: string;
  readonly what: string;
  readonly do: string;
}

/** Durations rain is told by, as frequency tables have them [min]. */
const USUAL_MIN: readonly number[] = [5, 10, 15, 30, 60, 120, 180, 360, 720, 1440, 2880, 4320];
/** No storm is looked at for less: in a shorter time no catchment answers as one [min]. */
const LEAST_MIN = USUAL_MIN[0];
/** Nor for longer than three days: what fills in a longer time is a matter of seasons [min]. */
const MOST_MIN = USUAL_MIN[USUAL_MIN.length - 1];
/** More members than this tell nothing more. */
const MOST_MEMBERS = 24;

/** The usual time between two storms that fill a store [h]: what takes longer to empty keeps its water (common practice). */
export const BETWEEN_STORMS_H = 240;

/** Whether a storm's length is its own: that of its steps, or a day's pattern. */
export const hasOwnLength = (storm: DesignStorm): boolean => stepsOfStorm(storm) !== null || storm.shape?.kind === 'pattern';

/** Whether a storm is to be the worst of a set: of table rain whose length was not settled. */
export const isSet = (storm: DesignStorm): boolean => storm.durationMin === undefined && !hasOwnLength(storm);

/** Whether a longer storm of a set holds all shorter ones, its wettest in the middle. */
export const isNested = ({ shape }: DesignStorm): boolean => shape === undefined || shape.kind === 'blocks';

/** The storm of one length. */
export function ofLength({ durationsMin: _, ...storm }: DesignStorm, durationMin: number): OneStorm {
  return { ...storm, durationMin };
}

/**
 * Durations of the set [min], rising: those the user named, else the usual ones from the greatest that is no longer than the
 * least time of concentration (5 min at least) to the end of the table, three days at most. What lies beyond the table is
 * not known and not in the set; shorter than the table begins is, by the rule of `depthFor`.
 */
export function setDurations(table: RainTable, storm: DesignStorm, leastTcMin: number): readonly number[] {
  if (storm.durationsMin) return storm.durationsMin;
  const last = Math.min(MOST_MIN, table.durationsMin[table.durationsMin.length - 1]);
  const first = USUAL_MIN.reduce((at, d) => (d <= leastTcMin && d <= last ? d : at), Math.min(LEAST_MIN, last));
  const within = USUAL_MIN.filter((d) => d >= first && d < last);
  return [...within, last];
}

/** Length of the longest storm that is looked at [min]: its own steps', a day for a day's pattern, as it was settled, or the set's end. */
export function longestOf(table: RainTable, storm: DesignStorm): number {
  const own = stepsOfStorm(storm);
  if (own) return own.stepMin * own.stepsMm.length;
  if (!isSet(storm)) return storm.durationMin ?? PATTERN_MIN;
  const set = setDurations(table, storm, 0);
  return set[set.length - 1];
}

/** The longest storm that is looked at, for whatever is told of one. */
export const longestStorm = (table: RainTable, storm: DesignStorm): OneStorm => ofLength(storm, longestOf(table, storm));

/** Lengths a set may be put together of: the usual ones the table tells of, and any chosen already. */
export function setChoices(table: RainTable, chosen: readonly number[]): readonly number[] {
  const last = table.durationsMin[table.durationsMin.length - 1];
  return [...new Set([...USUAL_MIN.filter((d) => d <= last), Math.min(last, MOST_MIN), ...chosen])].sort((a, b) => a - b);
}

/** Everything wrong with the durations of a set. */
export function setProblems(table: RainTable, { durationMin, durationsMin }: DesignStorm): StormProblem[] {
  if (durationsMin === undefined) return [];
  const problem = (what: string, todo: string, member = ''): StormProblem[] => [
    { code: 'rain.storm-set', field: `rain.storm.durationsMin${member}`, what, do: todo },
  ];
  if (durationMin !== undefined)
    return problem('one duration and a set of them', 'Give durationMin for one storm alone, or durationsMin for the worst of several.');
  if (!Array.isArray(durationsMin) || durationsMin.length === 0 || durationsMin.length > MOST_MEMBERS)
    return problem(
      `a set of ${Array.isArray(durationsMin) ? durationsMin.length : 'no'} durations`,
      `Give 1 to ${MOST_MEMBERS} durations in minutes.`,
    );
  const last = table.durationsMin[table.durationsMin.length - 1];
  const least = Math.min(LEAST_MIN, table.durationsMin[0]);
  const odd = durationsMin.findIndex((d: unknown) => !(typeof d === 'number' && d >= least && d <= last));
  if (odd >= 0)
    return problem(
      `duration ${odd + 1} of the set is ${told(durationsMin[odd])} min, and the rain table tells of ${least} to ${last} min`,
      'Leave it out, or find a table that reaches so far.',
      `.${odd}`,
    );
  const back = durationsMin.findIndex((d, k) => k > 0 && d <= durationsMin[k - 1]);
  return back < 0
    ? []
    : problem(
        `duration ${back + 1} of the set, ${durationsMin[back]} min, follows ${durationsMin[back - 1]} min`,
        'List them from short to long, each once.',
        `.${back}`,
      );
}
