// Two grounds made one: a finer survey laid into a coarser ground, so that one passes into the other.
import { type Grid, extentOf, gridFromLevels } from './grid.ts';
import { levelAt } from './sample.ts';

/** How a finer ground lies against the one it is laid into, by all its cells where both are known. */
export interface Differs {
  readonly cells: number;
  /** The survey above the ground in the middle of all cells, and how far it is from that in two cells of three [m]. */
  readonly medianM: number;
  readonly spreadM: number;
  /** The farthest of all from that middle [m]. */
  readonly mostM: number;
}

/** Shares of a normal spread that lie within one standard deviation of its middle. */
const [LOWER, UPPER] = [0.16, 0.84];

/** Differences of two grounds; null where they share no cell. */
export function differsFrom(ground: Grid, survey: Grid): Differs | null {
  const { ncols, nrows, cellM, west, south, z, baseM } = survey;
  const found: number[] = [];
  for (let row = 0, i = 0; row < nrows; row++) {
    const y = south + (nrows - row - 0.5) * cellM;
    for (let col = 0; col < ncols; col++, i++) {
      const difference = z[i] + baseM - levelAt(ground, [west + (col + 0.5) * cellM, y]);
      if (!Number.isNaN(difference)) found.push(difference);
    }
  }
  if (found.length === 0) return null;
  found.sort((a, b) => a - b);
  const at = (share: number): number => found[Math.min(found.length - 1, Math.floor(share * found.length))];
  const medianM = at(0.5);
  return {
    cells: found.length,
    medianM,
    spreadM: (at(UPPER) - at(LOWER)) / 2,
    mostM: Math.max(found[found.length - 1] - medianM, medianM - found[0]),
  };
}

/** More cells than this make every answer slow; then cells are made larger, as little as will do. */
const MOST_CELLS = 4_000_000;
/** Cells of the coarser ground over which one passes into the other, unless the user says else, and of the survey's shorter side at most. */
const FEATHER_CELLS = 2;
const MOST_FEATHER = 0.25;

/** Over how far the survey's edge passes into the ground, where the user does not say [m]. */
export function usualFeather(ground: Grid, survey: Grid): number {
  const shorter = Math.min(survey.ncols, survey.nrows) * survey.cellM;
  return Math.min(FEATHER_CELLS * Math.max(ground.cellM, survey.cellM), MOST_FEATHER * shorter);
}

/** Cells over both grounds, those of the finer one among them where there are not too many. */
function frameOver(ground: Grid, survey: Grid, mostCells: number): Omit<Grid, 'z' | 'baseM'> {
  const [w1, s1, e1, n1] = extentOf(ground);
  const [w2, s2, e2, n2] = extentOf(survey);
  const [west, south, east, north] = [Math.min(w1, w2), Math.min(s1, s2), Math.max(e1, e2), Math.max(n1, n2)];
  const fine = survey.cellM <= ground.cellM ? survey : ground;
  for (let times = 1; ; times++) {
    const cellM = times * fine.cellM;
    const cellsTo = (from: number, to: number): number => Math.ceil((to - from) / cellM - 1e-6);
    const [left, below] = [cellsTo(west, fine.west), cellsTo(south, fine.south)];
    const frame = { cellM, west: fine.west - left * cellM, south: fine.south - below * cellM };
    const [ncols, nrows] = [cellsTo(frame.west, east), cellsTo(frame.south, north)];
    if (ncols * nrows <= mostCells) return { ...frame, ncols, nrows };
  }
}

/** How many cells each marked cell lies from the nearest that is none: along rows, columns and diagonals, in two passes. */
function depthIn(isMarked: Uint8Array, ncols: number, nrows: number): Float32Array {
  const far = ncols + nrows;
  // A rim of cells that are none: no bounds are looked at within.
  const wide = ncols + 2;
  const depth = new Float32Array(wide * (nrows + 2));
  for (let row = 0, i = 0; row < nrows; row++)
    for (let col = 0; col < ncols; col++, i++) if (isMarked[i] === 1) depth[(row + 1) * wide + col + 1] = far;
  const pass = (from: number, to: number, step: number): void => {
    for (let i = from; i !== to; i += step) {
      if (depth[i] === 0) continue;
      const straight = Math.min(depth[i - step], depth[i - step * wide]) + 1;
      const slanting = Math.min(depth[i - step * (wide + 1)], depth[i - step * (wide - 1)]) + Math.SQRT2;
      depth[i] = Math.min(depth[i], straight, slanting);
    }
  };
  const last = depth.length - wide - 1;
  pass(wide, last + 1, 1);
  pass(last, wide - 1, -1);
  const found = new Float32Array(ncols * nrows);
  for (let row = 0; row < nrows; row++) found.set(depth.subarray((row + 1) * wide + 1, (row + 1) * wide + 1 + ncols), row * ncols);
  return found;
}

/** 1 for cells of a survey so near its edge that it passes into the ground it was laid into. */
export function blendsOf({ z, ncols, nrows, cellM }: Grid, featherM: number): Uint8Array {
  const isSurveyed = Uint8Array.from(z, (level) => (Number.isNaN(level) ? 0 : 1));
  return Uint8Array.from(depthIn(isSurveyed, ncols, nrows), (depth) => (depth > 0 && (depth - 0.5) * cellM < featherM ? 1 : 0));
}

/** A smooth way from 0 to 1, level at both ends. */
const eased = (t: number): number => t * t * (3 - 2 * t);

export interface PatchHow {
  /** Added to every level of the survey. */
  readonly shiftM: number;
  readonly featherM: number;
  readonly mostCells?: number;
}

/**
 * The ground with the survey laid into it, raised by `shiftM`: the survey's own level farther than `featherM` within its edge, the
 * ground's outside, and between them one passing into the other. Where one of them is not known the other stands alone.
 */
export function patched(ground: Grid, survey: Grid, { shiftM, featherM, mostCells = MOST_CELLS }: PatchHow): Grid {
  const frame = frameOver(ground, survey, mostCells);
  const { ncols, nrows, cellM, west, south } = frame;
  const levels = new Float64Array(ncols * nrows);
  const surveyed = new Float64Array(ncols * nrows);
  const isSurveyed = new Uint8Array(ncols * nrows);
  for (let row = 0, i = 0; row < nrows; row++) {
    const y = south + (nrows - row - 0.5) * cellM;
    for (let col = 0; col < ncols; col++, i++) {
      const at = [west + (col + 0.5) * cellM, y] as const;
      levels[i] = levelAt(ground, at);
      surveyed[i] = levelAt(survey, at) + shiftM;
      isSurveyed[i] = Number.isNaN(surveyed[i]) ? 0 : 1;
    }
  }
  const depth = depthIn(isSurveyed, ncols, nrows);
  for (let i = 0; i < levels.length; i++) {
    if (isSurveyed[i] === 0) continue;
    const inM = (depth[i] - 0.5) * cellM;
    const weight = Number.isNaN(levels[i]) || inM >= featherM ? 1 : eased(inM / featherM);
    levels[i] = weight === 1 ? surveyed[i] : weight * surveyed[i] + (1 - weight) * levels[i];
  }
  return gridFromLevels(frame, levels);
}
