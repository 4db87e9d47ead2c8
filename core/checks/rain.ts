// What the rain that was given cannot tell: storms beyond the table, guesses, and shapes that hide their peak.
import type { Check, Rule, Runoff } from '../contract/index.ts';
import { type DesignStorm, type RainTable, stepsOfStorm, totalsOf } from '../rain/index.ts';
import { runRules } from '../works/rules.ts';

export interface RainGiven {
  readonly table: RainTable;
  readonly storm: DesignStorm;
  /** 'memory' for a guess. */
  readonly basis?: string;
}

export interface RainFacts {
  readonly rain: RainGiven;
  readonly runoff: Runoff;
}

/** A table that begins this soon may be carried on to shorter times [min]: rain hardly grows heavier in less (common practice). */
const SHORT_ENOUGH_MIN = 15;
const PRACTICE = { key: 'common-practice' } as const;

/** Minutes of one step of the rain as it was given: what falls within it is taken as even. */
function stepGiven({ storm }: RainGiven): number | null {
  if (storm.shape?.kind === 'uniform') return storm.durationMin;
  return stepsOfStorm(storm)?.stepMin ?? null;
}

const peakBeforeTable: Rule<RainFacts> = {
  id: 'rain.peak-before-table',
  title: 'Peak rain shorter than the table knows',
  why: 'The peak comes from rain as short as the time of concentration; what the table does not hold is carried on from its end and may be far off.',
  unit: 'min',
  kind: 'minutes',
  sense: 'min',
  source: { ...PRACTICE, locator: 'do not extrapolate a table without saying so' },
  find: ({ rain, runoff }) => {
    const [shortest] = rain.table.durationsMin;
    if (totalsOf(rain.table, rain.storm).isOwn) return null;
    const isKnown = runoff.tcMin >= shortest || shortest <= SHORT_ENOUGH_MIN;
    return {
      value: runoff.tcMin,
      // A table that begins early enough is no limit at all.
      limit: shortest <= SHORT_ENOUGH_MIN ? 0 : shortest,
      at: null,
      severity: isKnown ? 'fine' : 'weigh',
      do: isKnown ? 'Nothing.' : 'Find a table that begins at 5 to 15 minutes, or size sills with a generous addition.',
    };
  },
};

const stormBeyondTable: Rule<RainFacts> = {
  id: 'rain.storm-beyond-table',
  title: 'Storm longer or shorter than the table knows',
  why: 'The depth of the storm is carried on from the end of the table and is a guess.',
  unit: 'min',
  kind: 'minutes',
  sense: 'max',
  source: { ...PRACTICE, locator: 'do not extrapolate a table without saying so' },
  find: ({ rain }) => {
    const { durationMin, extrapolated, isOwn } = totalsOf(rain.table, rain.storm);
    if (isOwn) return null;
    const { durationsMin } = rain.table;
    return {
      value: durationMin,
      limit: durationsMin[durationsMin.length - 1],
      at: null,
      severity: extrapolated ? 'weigh' : 'fine',
      do: extrapolated ? 'Choose a duration within the table, or find a longer table.' : 'Nothing.',
    };
  },
};

const guessed: Rule<RainFacts> = {
  id: 'rain.guess',
  title: 'The rain is a guess from memory',
  why: 'Half or twice as much would be no surprise: fine to begin with, not to build a wall by.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: PRACTICE,
  find: ({ rain }) => {
    if (rain.basis !== 'memory') return null;
    return {
      value: 1,
      limit: 0,
      at: null,
      severity: 'weigh',
      do: 'Find a table for your place, or a gauge with twenty years, before anything is built.',
    };
  },
};

const evenRain: Rule<RainFacts> = {
  id: 'rain.even',
  title: 'Rain given in steps too long for its peak',
  why: 'Within a step rain is taken as even, so the peak from a catchment that answers sooner comes out too low.',
  unit: 'min',
  kind: 'minutes',
  sense: 'max',
  source: { ...PRACTICE, locator: 'steps no longer than the time of concentration' },
  find: ({ rain, runoff }) => {
    const step = stepGiven(rain);
    if (step === null) return null;
    const isFine = step <= runoff.tcMin;
    return {
      value: step,
      limit: runoff.tcMin,
      at: null,
      severity: isFine ? 'fine' : 'weigh',
      do: isFine ? 'Nothing.' : 'Use it for what is stored; size sills and spillways by the storm with its wettest in the middle.',
    };
  },
};

export const RAIN_RULES: readonly Rule<RainFacts>[] = [peakBeforeTable, stormBeyondTable, guessed, evenRain];

/** Checks on the rain as one work meets it. */
export function checkRain(facts: RainFacts): Check[] {
  return runRules(RAIN_RULES, facts, facts.runoff.of);
}
