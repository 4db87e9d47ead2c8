// Levels as every reader of terrain takes them: what stands for no data, lies beyond the earth, or apart from all the rest is
// never ground.
import { LEVEL_HIGHEST_M, LEVEL_LOWEST_M } from '../terrain/index.ts';
import { refuseFile } from './imported.ts';

/** Whether a level is the file's mark for no data. Files write it in fewer digits than their header, or in single precision. */
export function isNoDataMark(level: number, mark: number | null): boolean {
  if (mark === null || !Number.isFinite(mark)) return Number.isNaN(level);
  return level === mark || Math.abs(level - mark) <= 1e-6 * Math.abs(mark) || Math.fround(level) === Math.fround(mark);
}

export const isBeyondEarth = (level: number): boolean => !(level >= LEVEL_LOWEST_M && level <= LEVEL_HIGHEST_M);

/** A gap that no slope between two cells explains [m], or twice the span of the rest where that is more. */
const LEAST_GAP_M = 50;
const SAMPLES = 50_000;
/** Fewer levels than this have no bulk that one could lie apart from. */
const LEAST_SAMPLE = 8;

/** Lowest and highest level of the bulk of the ground, by a sample. */
function bulkOf(levels: ArrayLike<number>): { readonly low: number; readonly high: number } | null {
  const step = Math.max(1, Math.floor(levels.length / SAMPLES));
  const sample: number[] = [];
  for (let i = 0; i < levels.length; i += step) if (!Number.isNaN(levels[i])) sample.push(levels[i]);
  if (sample.length < LEAST_SAMPLE) return null;
  sample.sort((a, b) => a - b);
  const last = sample.length - 1;
  return { low: sample[Math.ceil(0.02 * last)], high: sample[Math.floor(0.98 * last)] };
}

/** Levels below and above which no ground is, with a gap between that no slope explains; infinite where there is none. */
function boundsOf(levels: ArrayLike<number>): { readonly low: number; readonly high: number } {
  const bulk = bulkOf(levels);
  if (!bulk) return { low: -Infinity, high: Infinity };
  const gap = Math.max(LEAST_GAP_M, 2 * (bulk.high - bulk.low));
  const [low, high] = [bulk.low - gap, bulk.high + gap];
  // Nearest levels within and beyond: a real peak has slopes, and so levels between.
  let [under, lowest, highest, over] = [-Infinity, Infinity, -Infinity, Infinity];
  for (let i = 0; i < levels.length; i++) {
    const v = levels[i];
    if (v < low) under = Math.max(under, v);
    else if (v > high) over = Math.min(over, v);
    else if (!Number.isNaN(v)) [lowest, highest] = [Math.min(lowest, v), Math.max(highest, v)];
  }
  return { low: lowest - under >= gap ? low : -Infinity, high: over - highest >= gap ? high : Infinity };
}

/** The lowest or highest level where many cells have exactly that and all others lie far off: a filling, not ground. */
function fillingOf(levels: ArrayLike<number>, sign: 1 | -1): number | null {
  let [first, second, count] = [Infinity, Infinity, 0];
  for (let i = 0; i < levels.length; i++) {
    const v = sign * levels[i];
    if (v < first) [second, first, count] = [first, v, 1];
    else if (v === first) count++;
    else if (v < second) second = v;
  }
  return count >= 3 && Number.isFinite(second) && second - first >= LEAST_GAP_M ? sign * first : null;
}

const metres = (v: number): string => `${Number.isInteger(v) ? v : v.toPrecision(4)} m`;
const cells = (n: number): string => (n === 1 ? 'One cell' : `${n} cells`);

interface Swept {
  readonly count: number;
  readonly example: number;
  readonly kinds: number;
}

/** Takes out levels of a kind; how many, one of them, and how many different ones (up to a few). */
function sweep(levels: Float64Array, isOut: (level: number) => boolean): Swept {
  const kinds = new Set<number>();
  let [count, example] = [0, NaN];
  for (let i = 0; i < levels.length; i++) {
    const v = levels[i];
    if (Number.isNaN(v) || !isOut(v)) continue;
    if (count++ === 0) example = v;
    if (kinds.size < 5) kinds.add(v);
    levels[i] = NaN;
  }
  return { count, example, kinds: kinds.size };
}

/**
 * Turns what is no ground into no data, in place, and says so in `notes`.
 * @throws UserError when nothing is left, or when so much lies beyond the earth that the unit must be another.
 */
export function onlyGround(
  levels: Float64Array,
  on: { readonly file: string; readonly noData: number | null; readonly notes: string[] },
): void {
  const { file, noData, notes } = on;
  for (let i = 0; i < levels.length; i++) if (isNoDataMark(levels[i], noData)) levels[i] = NaN;
  const known = levels.reduce((n, v) => (Number.isNaN(v) ? n : n + 1), 0);
  const beyond = sweep(levels, isBeyondEarth);
  if (known > 0 && beyond.kinds >= 5 && beyond.count > known / 10) {
    refuseFile(file, 'terrain.levels', {
      what: `${beyond.count} of ${known} levels, such as ${metres(beyond.example)}, lie outside ${LEVEL_LOWEST_M} to ${LEVEL_HIGHEST_M} m`,
      do: 'Levels are read in metres: convert them, or check which band or column holds them.',
    });
  }
  if (beyond.count > 0)
    notes.push(`${cells(beyond.count)} with ${metres(beyond.example)} or the like, beyond any ground on earth: taken as no data.`);
  for (const sign of [1, -1] as const) {
    const filling = fillingOf(levels, sign);
    if (filling === null) continue;
    const { count } = sweep(levels, (v) => v === filling);
    notes.push(`${cells(count)} with exactly ${metres(filling)}, far from all other levels: taken as no data.`);
  }
  const { low, high } = boundsOf(levels);
  const apart = sweep(levels, (v) => v < low || v > high);
  if (apart.count > 0) notes.push(`${cells(apart.count)}, such as ${metres(apart.example)}, far from all other levels: taken as no data.`);
  if (levels.every(Number.isNaN))
    refuseFile(file, 'terrain.no-data', {
      what: 'every cell is without data',
      do: 'Check the mark for no data, or export the area of your land.',
    });
}

/** Places of a survey's levels that are no data or lie apart from all the rest. */
export function oddLevels(levels: Float64Array): { readonly marks: number[]; readonly apart: number[] } {
  const isMark = (v: number): boolean => isBeyondEarth(v) && [-9999, -99999, -999, -32768, -32767, 32767, 9999].includes(v);
  const marks = [...levels.keys()].filter((i) => isMark(levels[i]));
  const { low, high } = boundsOf(levels.filter((v) => !isMark(v)));
  return {
    marks,
    apart: [...levels.keys()].filter((i) => !isMark(levels[i]) && (isBeyondEarth(levels[i]) || levels[i] < low || levels[i] > high)),
  };
}
