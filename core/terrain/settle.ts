import type { Line, Point } from '../geometry/index.ts';
import { lineLength, nearestOnLine, pointAlong, simplify, subLine } from '../geometry/index.ts';
import type { Grid } from './grid.ts';
import { contourLines } from './kernels/contour.ts';
import { levelAt } from './sample.ts';

export type Settled =
  | { readonly ok: true; readonly line: Point[]; readonly levelM: number; readonly movedM: number }
  | { readonly ok: false; readonly why: 'off-terrain' | 'flat' | 'too-short' };

/** Points this close to the straight line between their neighbours are dropped from a settled line [m]. */
const SIMPLIFY_TOLERANCE_M = 0.05;

/**
 * Moves a roughly drawn line onto the contour through its first point, from there to the place on that contour nearest the
 * last drawn point. `movedM` is the furthest a drawn point had to move.
 */
export function settleOnContour(grid: Grid, drawn: Line): Settled {
  const levelM = levelAt(grid, drawn[0]);
  if (Number.isNaN(levelM)) return { ok: false, why: 'off-terrain' };
  const { xy, starts } = contourLines(grid, { firstM: levelM, intervalM: 1, count: 1 });
  let best: { line: Point[]; atM: number; distanceM: number } | null = null;
  for (let k = 0; k + 1 < starts.length; k++) {
    const line: Point[] = [];
    for (let i = starts[k]; i < starts[k + 1]; i++) line.push([xy[2 * i], xy[2 * i + 1]]);
    if (line.length < 2) continue;
    const near = nearestOnLine(drawn[0], line);
    if (!best || near.distanceM < best.distanceM) best = { line, ...near };
  }
  if (!best || best.distanceM > grid.cellM) return { ok: false, why: 'flat' };
  const wanted = lineLength(drawn);
  const isRing = best.line.length > 3 && samePoint(best.line[0], best.line[best.line.length - 1]);
  const { line, startM } = isRing ? opened(best.line, best.atM) : { line: best.line, startM: best.atM };
  // Look no further along the contour than the drawn line could mean: a contour may come back close on the other bank.
  const total = lineLength(line);
  const reach = 1.6 * wanted + 4 * grid.cellM;
  const [lo, hi] = [Math.max(0, startM - reach), Math.min(total, startM + reach)];
  const near = nearestOnLine(drawn[drawn.length - 1], subLine(line, lo, hi));
  const settled = simplify(subLine(line, startM, lo + near.atM), SIMPLIFY_TOLERANCE_M);
  if (lineLength(settled) < grid.cellM) return { ok: false, why: 'too-short' };
  const movedM = Math.max(...drawn.map((p) => nearestOnLine(p, settled).distanceM));
  return { ok: true, line: settled, levelM, movedM };
}

/** A closed contour cut open opposite the start, so that either way round can be taken from it. */
function opened(ring: Point[], atM: number): { line: Point[]; startM: number } {
  const total = lineLength(ring);
  const cut = (atM + total / 2) % total;
  const line = [...subLine(ring, cut, total), ...subLine(ring, 0, cut).slice(1)];
  return { line, startM: nearestOnLine(pointAlong(ring, atM).point, line).atM };
}

function samePoint(a: Point, b: Point): boolean {
  return a[0] === b[0] && a[1] === b[1];
}
