// Lines over a field by their shape alone: what of one lies inside it, and those that keep their distance from a first one.
import {
  type Line,
  type Point,
  closed,
  contains,
  crossingsAlong,
  lineLength,
  nearestOnLine,
  pointAlong,
  simplify,
  subLine,
} from '../../geometry/index.ts';

/** Shorter pieces are no row [m], as is what lies this near to a straight line. */
export const LEAST_LONG_M = 6;
const TOLERANCE_M = 0.1;

/** Stretches of a line that lie inside a ring. */
export function inside(line: Line, ring: Line): Line[] {
  const cuts = [0, ...crossingsAlong(line, closed(ring)), lineLength(line)].sort((a, b) => a - b);
  return cuts.slice(1).flatMap((to, k): Line[] => {
    const from = cuts[k];
    if (to - from < LEAST_LONG_M || !contains(ring, pointAlong(line, (from + to) / 2).point)) return [];
    return [simplify(subLine(line, from, to), TOLERANCE_M)];
  });
}

/** Looks along the first line so often [m]; what comes this much nearer to it than it should is left out. */
const [LOOK_M, NEARER_M] = [2, 0.05];

/** Stretches that lie so far from a line [m]: to its right, or to its left where less than nothing. Where it bends too sharply they break off. */
export function parallelTo(line: Line, awayM: number): readonly Line[] {
  const length = lineLength(line);
  const count = Math.max(2, Math.ceil(length / LOOK_M));
  const pieces: Point[][] = [[]];
  for (let k = 0; k <= count; k++) {
    const { point, direction } = pointAlong(line, (length * k) / count);
    const at: Point = [point[0] + direction[1] * awayM, point[1] - direction[0] * awayM];
    if (nearestOnLine(at, line).distanceM >= Math.abs(awayM) - NEARER_M) pieces[pieces.length - 1].push(at);
    else if (pieces[pieces.length - 1].length > 0) pieces.push([]);
  }
  return pieces.filter((p) => p.length > 1 && lineLength(p) >= LEAST_LONG_M).map((p) => simplify(p, TOLERANCE_M));
}
