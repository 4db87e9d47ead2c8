// Places where water leaves a property for good.
import { type Point, distance } from '../geometry/index.ts';
import { type Grid, centreOf } from './grid.ts';
import { type Flow, JUMPS, NO_GROUND, stepsOf } from './kernels/flow.ts';

export interface Exit {
  /** Where most of it leaves. */
  readonly at: Point;
  /** Cells it leaves from. */
  readonly cells: readonly number[];
  readonly areaM2: number;
  /** False for water that leaves here and there along the line. */
  readonly isPlace: boolean;
}

/** Smallest share of all that leaves for a place to be told by itself, and how many are. */
const LEAST_SHARE = 0.05;
const MOST_PLACES = 8;
/** Crossings nearer than this to a larger one are one place with it [m]. */
const NEAR_M = 15;

/** The cell water goes to from a cell; -1 where it leaves the ground. */
function next({ receiver, jumps }: Flow, off: Int32Array, i: number): number {
  const d = receiver[i];
  return d < 0 ? -1 : d === JUMPS ? (jumps.get(i) ?? -1) : i + off[d];
}

/** Cells inside whose water leaves and does not come back, lowest last. */
function lastCrossings(flow: Flow, inside: Uint8Array): number[] {
  const off = stepsOf(flow.ncols);
  // Whether water leaving a cell comes inside again: told from the lowest cell up.
  const returns = new Uint8Array(inside.length);
  const crossings: number[] = [];
  for (let k = flow.order.length - 1; k >= 0; k--) {
    const i = flow.order[k];
    const to = next(flow, off, i);
    returns[i] = to >= 0 && (inside[to] === 1 || returns[to] === 1) ? 1 : 0;
    if (inside[i] === 1 && returns[i] === 0 && flow.receiver[i] !== NO_GROUND) crossings.push(i);
  }
  return crossings;
}

/**
 * Where water leaves the cells marked `inside`: the places that gather a twentieth or more of it, largest first, and the rest
 * of the line as one.
 */
export function exitsOf(grid: Grid, flow: Flow, inside: Uint8Array): Exit[] {
  const { cells } = flow;
  const left = lastCrossings(flow, inside).sort((a, b) => cells[b] - cells[a] || a - b);
  const all = left.reduce((a, i) => a + cells[i], 0);
  const areaOf = (list: readonly number[]): number => list.reduce((a, i) => a + cells[i], 0) * grid.cellM ** 2;
  const reach = Math.max(NEAR_M, 3 * grid.cellM);
  const places: Exit[] = [];
  let rest = left;
  while (rest.length > 0 && places.length < MOST_PLACES && cells[rest[0]] >= LEAST_SHARE * all) {
    const at = centreOf(grid, rest[0]);
    const [near, far]: [number[], number[]] = [[], []];
    for (const i of rest) (distance(centreOf(grid, i), at) <= reach ? near : far).push(i);
    places.push({ at, cells: near, areaM2: areaOf(near), isPlace: true });
    rest = far;
  }
  if (rest.length > 0) places.push({ at: centreOf(grid, rest[0]), cells: rest, areaM2: areaOf(rest), isPlace: false });
  return places;
}

/** Which of several exits a point lies nearest to; -1 with none. */
export function nearestExit(grid: Grid, exits: readonly Exit[], to: Point): number {
  let [best, least] = [-1, Infinity];
  exits.forEach((exit, k) => {
    for (const i of exit.cells) {
      const d = distance(centreOf(grid, i), to);
      if (d < least) [best, least] = [k, d];
    }
  });
  return best;
}
