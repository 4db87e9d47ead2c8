// What is wrong with a storm, as a reader of files or a command must refuse it.
import { told } from '../units/index.ts';
import { ANTECEDENTS, type DesignStorm, PATTERNS, PATTERN_MIN } from './design.ts';
import { type StormProblem, setProblems } from './set.ts';
import type { RainTable } from './table.ts';

/** Longest storm [min], and longest time between two [h]. */
export const LONGEST_STORM_MIN = 10080;
const LONGEST_GAP_H = 168;
/** More steps than this are no storm but a record. */
export const MOST_STEPS = 10080;
/** More in an hour than this has never been measured (about 305 mm in 42 min and 401 mm in an hour are the greatest known, from memory). */
export const MOST_MM_PER_H = 500;

const isWithin = (value: unknown, least: number, most: number): boolean => typeof value === 'number' && value >= least && value <= most;

/** Everything wrong with a design storm, as a reader of files or a command must refuse it. */
export function stormProblems(table: RainTable, storm: DesignStorm): StormProblem[] {
  const found: StormProblem[] = [];
  const add = (code: StormProblem['code'], field: string, told: Pick<StormProblem, 'what' | 'do'>): void =>
    void found.push({ code, field: `rain.storm.${field}`, ...told });
  const { returnYears, durationMin, upliftPercent: uplift = 0, againAfterH: again = 0 } = storm;
  if (!table.returnYears.includes(returnYears)) {
    add('rain.storm', 'returnYears', {
      what: `1 in ${told(returnYears)} years is not a row of the rain table`,
      do: `Choose one of ${table.returnYears.join(', ')} years.`,
    });
  }
  if (durationMin !== undefined && !isWithin(durationMin, 1, LONGEST_STORM_MIN)) {
    add('rain.storm-duration', 'durationMin', {
      what: `a storm of ${told(durationMin)} min`,
      do: `Give a duration from 1 min to ${LONGEST_STORM_MIN / 1440} days.`,
    });
  }
  if (!isWithin(uplift, -50, 200)) {
    add('rain.storm-uplift', 'upliftPercent', { what: `an uplift of ${told(uplift)} %`, do: 'Give it from -50 to 200 %.' });
  }
  if (!isWithin(again, 0, LONGEST_GAP_H)) {
    add('rain.storm-again', 'againAfterH', { what: `a second storm after ${told(again)} h`, do: `Give 0 to ${LONGEST_GAP_H} h.` });
  }
  const { before } = storm;
  if (before !== undefined && !ANTECEDENTS.includes(before)) {
    add('rain.storm-before', 'before', { what: `"${told(before)}" before the storm`, do: `Give one of ${ANTECEDENTS.join(', ')}.` });
  }
  return [...found, ...setProblems(table, storm), ...shapeProblems(storm)];
}

function shapeProblems(storm: DesignStorm): StormProblem[] {
  const { shape } = storm;
  if (shape === undefined) return [];
  const problem = (what: string, todo: string, field = 'shape'): StormProblem[] => [
    { code: 'rain.storm-shape', field: `rain.storm.${field}`, what, do: todo },
  ];
  const kinds: readonly string[] = ['blocks', 'uniform', 'pattern', 'own', 'event'];
  if (typeof shape !== 'object' || shape === null || !kinds.includes(shape.kind)) {
    return problem(`a storm shape ${told(shape)} is not known here`, `Choose one of ${kinds.join(', ')}.`);
  }
  if (shape.kind === 'pattern') {
    if (!PATTERNS.includes(shape.pattern))
      return problem(`pattern ${told(shape.pattern)} is not known`, `Choose one of ${PATTERNS.join(', ')}.`, 'shape.pattern');
    if (storm.durationMin !== undefined && storm.durationMin !== PATTERN_MIN)
      return problem(`a 24-hour pattern over ${storm.durationMin} min`, 'Make the storm 24 hours long, or choose another shape.');
  }
  if (shape.kind !== 'own' && shape.kind !== 'event') return [];
  const { stepMin, stepsMm, name } = shape;
  if (typeof name !== 'string') return problem(`the name of the storm is ${told(name)}`, 'Give it in words.', 'shape.name');
  if (!isWithin(stepMin, 1e-3, PATTERN_MIN))
    return problem(`steps of ${told(stepMin)} min`, 'Give steps above 0 and up to a day.', 'shape.stepMin');
  if (!Array.isArray(stepsMm) || stepsMm.length === 0 || stepsMm.length > MOST_STEPS) {
    return problem(`a storm of ${Array.isArray(stepsMm) ? stepsMm.length : 'no'} steps`, `Give 1 to ${MOST_STEPS} steps.`, 'shape.stepsMm');
  }
  if (stepMin * stepsMm.length > LONGEST_STORM_MIN)
    return problem(`a storm of ${stepMin * stepsMm.length} min`, `Keep it within ${LONGEST_STORM_MIN / 1440} days.`, 'shape.stepsMm');
  const bad = stepsMm.findIndex((v: unknown) => !(typeof v === 'number' && v >= 0 && Number.isFinite(v)));
  if (bad >= 0)
    return problem(
      `step ${bad + 1} is ${told(stepsMm[bad])}, not a depth of rain`,
      'Give every step in mm, 0 where it did not rain.',
      `shape.stepsMm.${bad}`,
    );
  const heavy = stepsMm.findIndex((v) => (60 * v) / stepMin > MOST_MM_PER_H);
  if (heavy >= 0)
    return problem(
      `step ${heavy + 1} brings ${stepsMm[heavy]} mm in ${stepMin} min, more than has ever been measured`,
      'Check the unit and the length of the steps.',
      `shape.stepsMm.${heavy}`,
    );
  return stepsMm.every((v) => v === 0) ? problem('the storm brings no rain', 'Give at least one step with rain.', 'shape.stepsMm') : [];
}
