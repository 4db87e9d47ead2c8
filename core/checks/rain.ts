// What the rain that was given cannot tell: storms beyond the table, guesses, and shapes that hide their peak.
import type { Check, Rule, Runoff } from '../contract/index.ts';
import { DAY_MIN, type OneStorm, type RainTable, isInvented, stepsOfStorm, totalsOf } from '../rain/index.ts';
import { between, runRules } from '../works/rules.ts';
import { notYours } from './not-yours.ts';

export interface RainGiven {
  readonly table: RainTable;
  /** The storm of the set that governs, or the one asked for. */
  readonly storm: OneStorm;
  /** 'memory' for a guess. */
  readonly basis?: string;
}

export interface RainFacts {
  readonly rain: RainGiven;
  readonly runoff: Runoff;
  /** Lengths of the storms it is judged by; null for one storm alone. */
  readonly durationsMin: readonly number[] | null;
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
    // A table that begins early enough is carried on without harm to half its shortest duration.
    const limit = shortest <= SHORT_ENOUGH_MIN ? shortest / 2 : shortest;
    const isKnown = runoff.tcMin >= limit;
    return {
      value: runoff.tcMin,
      limit,
      at: null,
      severity: isKnown ? 'fine' : runoff.tcMin < shortest / 2 ? 'mend' : 'weigh',
      do: isKnown
        ? 'Nothing.'
        : 'Find a table that begins at 5 to 15 minutes: what is shorter is carried on by a rough rule, and no sill or spillway should be made by it.',
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
      ...between(durationMin, [durationsMin[0], durationsMin[durationsMin.length - 1]]),
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

const invented = notYours<RainFacts>(
  {
    id: 'rain.not-yours',
    title: 'This rain is not yours yet',
    why: 'The table is invented: it says nothing of your place, and neither does anything worked out from it.',
  },
  {
    isIt: ({ rain }) => isInvented(rain),
    mend: 'Type the depths of your place over it, or bring in a table or a gauge of your own, under Rain.',
  },
);

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

const oneStorm: Rule<RainFacts> = {
  id: 'rain.one-storm',
  title: 'Judged by one storm alone',
  why: 'Short storms bring the greatest flow and long ones the most water: which is worse differs from work to work, and one length finds only one of them.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { ...PRACTICE, locator: 'a range of durations is tried, and the worst designed for' },
  find: ({ durationsMin }) => ({
    value: durationsMin === null ? 1 : 0,
    limit: 0,
    at: null,
    severity: durationsMin === null ? 'weigh' : 'fine',
    ...(durationsMin === null ? {} : { title: 'Judged by the worst of storms of all lengths' }),
    do: durationsMin === null ? 'Let the storm be the worst of all lengths before anything is built by it.' : 'Nothing.',
  }),
};

const setTooShort: Rule<RainFacts> = {
  id: 'rain.set-too-short',
  title: 'Longest storm the rain table tells',
  why: 'What is longer than the table tells is not known and not looked at: a day of rain may fill what two hours do not.',
  unit: 'min',
  kind: 'minutes',
  sense: 'min',
  source: { ...PRACTICE, locator: 'storms up to a day for works that store' },
  applies: ({ durationsMin }) => durationsMin !== null,
  find: ({ durationsMin }) => {
    if (durationsMin === null) return null;
    const longest = durationsMin[durationsMin.length - 1];
    return {
      value: longest,
      limit: DAY_MIN,
      at: null,
      severity: longest >= DAY_MIN ? 'fine' : 'weigh',
      do: longest >= DAY_MIN ? 'Nothing.' : 'Find a table that reaches to a day, and let the set reach so far.',
    };
  },
};

export const RAIN_RULES: readonly Rule<RainFacts>[] = [
  oneStorm,
  setTooShort,
  peakBeforeTable,
  stormBeyondTable,
  guessed,
  invented,
  evenRain,
];

/** Checks on the rain as one work meets it. */
export function checkRain(facts: RainFacts): Check[] {
  return runRules(RAIN_RULES, facts, facts.runoff.of);
}
