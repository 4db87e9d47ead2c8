// How near the ground is known: what was read at a place is known as its readings are, what lies between two of them less well.
import { type Line, type Point, type ScatteredPoints, evenlyAlong, lineLength } from '../geometry/index.ts';
import { type Grid, cellAt, gridFromLevels, perCell } from './grid.ts';

/** How near the levels of one survey are known, and where it has a say. */
export interface SurveyKnown {
  /** How near its readings are known, two times in three [m]; null where nobody has said. */
  readonly levelsM: number | null;
  /** How much less near a place is known for each metre from the nearest reading [m/m]; null where its readings do not tell. */
  readonly growsBy: number | null;
  /** Distance to the nearest reading, cell by cell [m], NaN where it has no say; null where every cell is a reading. */
  readonly away: Grid | null;
  /** 1 for cells of those in which it passes into what lies under it; null where it stands alone in all of them. */
  readonly blends: Uint8Array | null;
}

type Frame = Omit<Grid, 'z' | 'baseM'>;

/**
 * Distance of the middle of each cell from the nearest reading [m]; NaN where `covered` has no level. The nearest reading of a cell
 * is looked for among those of the cells around it, over and over in two passes: it may now and then be one that lies a little
 * farther, never one that does not exist.
 */
export function awayFrom({ x, y }: Pick<ScatteredPoints, 'x' | 'y'>, frame: Frame, covered: ArrayLike<number>): Grid {
  const { ncols, nrows, cellM, west, south } = frame;
  // A rim of cells without readings: no bounds are looked at within.
  const wide = ncols + 2;
  const nearest = new Int32Array(wide * (nrows + 2)).fill(-1);
  const best = new Float64Array(nearest.length).fill(Infinity);
  const middleX = (col: number): number => west + (col + 0.5) * cellM;
  const middleY = (row: number): number => south + (nrows - row - 0.5) * cellM;
  for (let k = 0; k < x.length; k++) {
    // One on the very edge belongs to the last cell.
    const col = Math.min(ncols - 1, Math.max(0, Math.floor((x[k] - west) / cellM)));
    const row = Math.min(nrows - 1, Math.max(0, nrows - 1 - Math.floor((y[k] - south) / cellM)));
    const cell = (row + 1) * wide + col + 1;
    const away = (x[k] - middleX(col)) ** 2 + (y[k] - middleY(row)) ** 2;
    if (away < best[cell]) [best[cell], nearest[cell]] = [away, k];
  }
  /** Along a row: what the cells at some steps from each have found. */
  const alongRow = (row: number, forward: boolean, steps: Int32Array): void => {
    const atY = middleY(row);
    for (let k = 0; k < ncols; k++) {
      const col = forward ? k : ncols - 1 - k;
      const cell = (row + 1) * wide + col + 1;
      const atX = middleX(col);
      for (let s = 0; s < steps.length; s++) {
        const reading = nearest[cell + steps[s]];
        if (reading < 0) continue;
        const dx = x[reading] - atX;
        const dy = y[reading] - atY;
        const away = dx * dx + dy * dy;
        if (away >= best[cell]) continue;
        best[cell] = away;
        nearest[cell] = reading;
      }
    }
  };
  const [left, right] = [Int32Array.of(-1), Int32Array.of(1)];
  const [above, below] = [Int32Array.of(-1, -wide - 1, -wide, -wide + 1), Int32Array.of(1, wide - 1, wide, wide + 1)];
  for (let row = 0; row < nrows; row++) {
    alongRow(row, true, above);
    alongRow(row, false, right);
  }
  for (let row = nrows - 1; row >= 0; row--) {
    alongRow(row, false, below);
    alongRow(row, true, left);
  }
  const levels = new Float64Array(ncols * nrows);
  for (let row = 0, i = 0; row < nrows; row++)
    for (let col = 0; col < ncols; col++, i++) levels[i] = Number.isNaN(covered[i]) ? NaN : Math.sqrt(best[(row + 1) * wide + col + 1]);
  return gridFromLevels(frame, levels);
}

/** Where a survey reaches whose every cell is a reading: nothing away from one there. */
export const everyCellRead = ({ z, ...frame }: Grid): Grid => ({
  ...frame,
  baseM: 0,
  z: z.map((level) => (Number.isNaN(level) ? NaN : 0)),
});

/** As many readings as are left out, one at a time, and fewer than this tell nothing. */
const [MOST_TRIED, LEAST_TRIED] = [2000, 8];
/** The spread of a normal law over the median of what it strays. */
const SPREAD_OF_MEDIAN = 1.4826;
/** Nearer or less near than this nobody knows levels [m]. */
export const SURVEY_KNOWN_M = [0.001, 100] as const;
/** No ground strays so much in a metre [m/m]: readings that say so tell of themselves, not of the ground. */
export const MOST_GROWTH = 10;

/** For every so many readings the others they share a triangle with; those at the rim are left out: from them a place can only be guessed outwards. */
function neighboursOf(count: number, triangles: Uint32Array, stride: number): ReadonlyMap<number, readonly number[]> {
  const around = new Map<number, { readonly others: Set<number>; corners: number }>();
  for (let k = 0; k < count; k += stride) around.set(k, { others: new Set(), corners: 0 });
  for (let c = 0; c < triangles.length; c++) {
    const found = triangles[c] % stride === 0 ? around.get(triangles[c]) : undefined;
    if (!found) continue;
    const first = c - (c % 3);
    found.corners++;
    for (let k = first; k < first + 3; k++) if (k !== c) found.others.add(triangles[k]);
  }
  // Within the rim there are as many triangles round a reading as neighbours.
  return new Map([...around].flatMap(([k, { others, corners }]) => (others.size === corners ? [[k, [...others]] as const] : [])));
}

/** The level a plane through readings has at a place, the nearer ones counting more; NaN where they lie in one line. */
function planeAt({ x, y, z }: ScatteredPoints, others: readonly number[], at: number): number {
  // Normal equations of level = a + b dx + c dy, weighed by one over the square of the distance.
  const s = new Float64Array(9);
  for (const k of others) {
    const [dx, dy, dz] = [x[k] - x[at], y[k] - y[at], z[k] - z[at]];
    const w = 1 / (dx * dx + dy * dy);
    [w, w * dx, w * dy, w * dx * dx, w * dx * dy, w * dy * dy, w * dz, w * dx * dz, w * dy * dz].forEach((v, i) => (s[i] += v));
  }
  const [n, sx, sy, sxx, sxy, syy, sz, sxz, syz] = s;
  const determinant = n * (sxx * syy - sxy * sxy) - sx * (sx * syy - sxy * sy) + sy * (sx * sxy - sxx * sy);
  if (!(Math.abs(determinant) > 1e-9 * n * sxx * syy)) return NaN;
  return z[at] + (sz * (sxx * syy - sxy * sxy) - sx * (sxz * syy - sxy * syz) + sy * (sxz * sxy - sxx * syz)) / determinant;
}

/**
 * How much less near a place is known for each metre from the nearest reading [m/m], as the readings themselves tell: each in turn is
 * left out, its level told by those around it, and what that strays is held against how far they lie. Null where too few can be.
 */
export function growthOf(points: ScatteredPoints, triangles: Uint32Array): number | null {
  const stride = Math.max(1, Math.floor(points.x.length / MOST_TRIED));
  const strays: number[] = [];
  for (const [k, others] of neighboursOf(points.x.length, triangles, stride)) {
    if (others.length < 3) continue;
    const strayM = Math.abs(planeAt(points, others, k) - points.z[k]);
    const awayM = Math.min(...others.map((o) => Math.hypot(points.x[o] - points.x[k], points.y[o] - points.y[k])));
    if (Number.isFinite(strayM)) strays.push(strayM / awayM);
  }
  if (strays.length < LEAST_TRIED) return null;
  strays.sort((a, b) => a - b);
  const middle = strays.length >> 1;
  const growsBy = SPREAD_OF_MEDIAN * (strays.length % 2 === 1 ? strays[middle] : (strays[middle - 1] + strays[middle]) / 2);
  return growsBy <= MOST_GROWTH ? growsBy : null;
}

/** How near a place is known [m], by the last survey that has a say there; null where nobody knows. */
export function knownAt(surveys: readonly SurveyKnown[], at: Point): number | null {
  for (let k = surveys.length - 1; k >= 0; k--) {
    const { away, blends } = surveys[k];
    const cell = away === null ? -1 : cellAt(away, at);
    const awayM = away === null ? 0 : cell < 0 ? NaN : away.z[cell] + away.baseM;
    if (Number.isNaN(awayM)) continue;
    const own = knownBy(surveys[k], awayM);
    if (blends === null || blends[cell] !== 1 || own === null) return own;
    // Made of both, it is known no nearer than the one of them that is known less.
    const under = knownAt(surveys.slice(0, k), at);
    return under === null ? null : Math.max(own, under);
  }
  return null;
}

/** How near one survey is known so far from its nearest reading [m]; null where nobody knows. */
function knownBy({ levelsM, growsBy, away }: SurveyKnown, awayM: number): number | null {
  if (levelsM === null || away === null) return levelsM;
  // Within the cell of a reading that reading speaks for itself.
  if (growsBy === null) return awayM <= away.cellM ? levelsM : null;
  return Math.hypot(levelsM, growsBy * awayM);
}

/** How near the ground is known cell by cell [m]; NaN where nobody knows, and off the ground. */
export function knownOver(surveys: readonly SurveyKnown[], grid: Grid): Float32Array {
  const { ncols, nrows, cellM, west, south, z } = grid;
  return perCell(grid, (i) => {
    if (Number.isNaN(z[i])) return NaN;
    const col = i % ncols;
    const row = (i - col) / ncols;
    return knownAt(surveys, [west + (col + 0.5) * cellM, south + (nrows - row - 0.5) * cellM]) ?? NaN;
  });
}

/** Places along a line, no farther apart than told [m], both ends among them. */
function placesOn(line: Line, stepM: number): readonly Point[] {
  const lengthM = lineLength(line);
  if (!(lengthM > 0)) return line.slice(0, 1);
  const parts = Math.ceil(lengthM / stepM);
  return evenlyAlong(line, parts);
}

/** How near the ground is known under lines at its worst [m]; null where some of it nobody knows, or there are no lines. */
export function knownUnder(surveys: readonly SurveyKnown[], lines: readonly Line[], stepM: number): number | null {
  let worst: number | null = null;
  for (const line of lines)
    for (const at of placesOn(line, stepM)) {
      const known = knownAt(surveys, at);
      if (known === null) return null;
      worst = Math.max(worst ?? 0, known);
    }
  return worst;
}
