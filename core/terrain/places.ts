// Places that matter for water: where a valley turns gentle, where a short wall holds much, where a gully eats uphill.
import type { Point } from '../geometry/index.ts';
import type { Flow } from './kernels/flow.ts';
import { type Grid, centreOf } from './grid.ts';
import { levelAt } from './sample.ts';
import { wallSize } from './storage.ts';
import { type ValleyLine, stemOf } from './valleys.ts';

export interface Place {
  readonly kind: 'key-point' | 'choke' | 'gully-head' | 'standing-water';
  readonly at: Point;
  readonly levelM: number;
  /** Area above it [m2]. */
  readonly areaM2: number;
  /** What ranks it among its kind; the greater the better. */
  readonly score: number;
  readonly facts: Readonly<Record<string, number>>;
  /** For a choke: the line of the wall. */
  readonly wall?: readonly [Point, Point];
}

/** A stem as distances, levels and cells from its head down. */
interface Stem {
  readonly cells: readonly number[];
  readonly atM: Float64Array;
  readonly levelM: Float64Array;
}

function stemProfile(grid: Grid, cells: readonly number[]): Stem {
  const atM = new Float64Array(cells.length);
  const levelM = Float64Array.from(cells, (i) => grid.z[i] + grid.baseM);
  for (let k = 1; k < cells.length; k++) {
    const [a, b] = [centreOf(grid, cells[k - 1]), centreOf(grid, cells[k])];
    // Steps along a grid are up to 8 % longer than the way they stand for; on mean over all directions 5.5 %.
    atM[k] = atM[k - 1] + Math.hypot(b[0] - a[0], b[1] - a[1]);
  }
  return { cells, atM, levelM };
}

/** Level at a distance along a stem, NaN beyond its ends. */
function stemLevel({ atM, levelM }: Stem, at: number): number {
  if (at < 0 || at > atM[atM.length - 1]) return NaN;
  let lo = 0;
  let hi = atM.length - 1;
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (atM[mid] <= at) lo = mid;
    else hi = mid;
  }
  const span = atM[hi] - atM[lo];
  return span === 0 ? levelM[lo] : levelM[lo] + ((levelM[hi] - levelM[lo]) * (at - atM[lo])) / span;
}

/** Reach over which the slope above and below is taken: shorter is noise, longer misses it [m]. */
const keyReachM = (grid: Grid): number => Math.max(25, 10 * grid.cellM);
/** Steep above over gentle below, and their difference, from which a turn is a key point: common practice, a turn the eye sees. */
const KEY_RATIO = 1.4;
const KEY_DIFFERENCE = 0.03;

/** The place on a valley where steep turns gentle most; null when it never does. */
function keyPoint(grid: Grid, flow: Flow, { stem, leastCells }: { stem: Stem; leastCells: number }): Place | null {
  const reach = keyReachM(grid);
  let best: { k: number; above: number; below: number } | null = null;
  for (let k = 0; k < stem.cells.length; k++) {
    if (flow.cells[stem.cells[k]] < leastCells / 4) continue;
    const here = stem.levelM[k];
    const above = (stemLevel(stem, stem.atM[k] - reach) - here) / reach;
    const below = (here - stemLevel(stem, stem.atM[k] + reach)) / reach;
    if (!(above - below >= KEY_DIFFERENCE) || above < KEY_RATIO * Math.max(0, below)) continue;
    if (!best || above - below > best.above - best.below) best = { k, above, below };
  }
  if (!best) return null;
  const cell = stem.cells[best.k];
  return {
    kind: 'key-point',
    at: centreOf(grid, cell),
    levelM: stem.levelM[best.k],
    areaM2: flow.cells[cell] * grid.cellM ** 2,
    score: (best.above - best.below) * Math.sqrt(flow.cells[cell]),
    facts: { slopeAbove: best.above, slopeBelow: best.below },
  };
}

/** Height of the wall that chokes are compared by [m]. */
export const CHOKE_WALL_M = 2.5;
/** Furthest ground sought on either side [m], spacing of the walls tried, and cells flooded at most. */
const CHOKE_REACH_M = 80;
const CHOKE_EVERY_M = 8;
const CHOKE_CELLS = 60_000;
/** Water held per volume of wall from which a place is worth naming: common practice. */
const CHOKE_RATIO = 3;

/** Distance from a point to ground at or above a level, sideways; Infinity when there is none within reach. */
function sideReach(grid: Grid, [x, y]: Point, on: { dir: Point; levelM: number }): number {
  const step = grid.cellM / 2;
  for (let m = step; m <= CHOKE_REACH_M; m += step) {
    const level = levelAt(grid, [x + on.dir[0] * m, y + on.dir[1] * m]);
    if (Number.isNaN(level)) return Infinity;
    if (level >= on.levelM) return m;
  }
  return Infinity;
}

/** Volume of water upstream of a wall across a stem, to a level; NaN when it finds a way round. */
function heldAbove(grid: Grid, on: { from: number; at: Point; along: Point; levelM: number }): number {
  const { ncols, nrows, z } = grid;
  const level = on.levelM - grid.baseM;
  const isUpstream = (cell: number): boolean => {
    const [x, y] = centreOf(grid, cell);
    return (x - on.at[0]) * on.along[0] + (y - on.at[1]) * on.along[1] < 0;
  };
  const seen = new Set([on.from]);
  const list = [on.from];
  let depth = 0;
  for (let k = 0; k < list.length; k++) {
    const i = list[k];
    depth += level - z[i];
    const col = i % ncols;
    const row = (i - col) / ncols;
    if (col === 0 || row === 0 || col === ncols - 1 || row === nrows - 1 || list.length > CHOKE_CELLS) return NaN;
    for (const next of [i + 1, i - 1, i + ncols, i - ncols]) {
      if (seen.has(next) || !(z[next] < level) || !isUpstream(next)) continue;
      seen.add(next);
      list.push(next);
    }
  }
  return depth * grid.cellM ** 2;
}

function chokesOf(grid: Grid, flow: Flow, { stem, leastCells }: { stem: Stem; leastCells: number }): Place[] {
  const found: Place[] = [];
  const half = Math.max(2, Math.round(8 / grid.cellM));
  let last = -Infinity;
  for (let k = half; k < stem.cells.length - half; k++) {
    if (stem.atM[k] - last < CHOKE_EVERY_M || flow.cells[stem.cells[k]] < leastCells) continue;
    last = stem.atM[k];
    const at = centreOf(grid, stem.cells[k]);
    const [a, b] = [centreOf(grid, stem.cells[k - half]), centreOf(grid, stem.cells[k + half])];
    const run = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (run === 0) continue;
    const along: Point = [(b[0] - a[0]) / run, (b[1] - a[1]) / run];
    const levelM = stem.levelM[k] + CHOKE_WALL_M;
    const side: Point = [along[1], -along[0]];
    const right = sideReach(grid, at, { dir: side, levelM });
    const left = sideReach(grid, at, { dir: [-side[0], -side[1]], levelM });
    if (!Number.isFinite(right + left)) continue;
    const wall: [Point, Point] = [
      [at[0] - side[0] * left, at[1] - side[1] * left],
      [at[0] + side[0] * right, at[1] + side[1] * right],
    ];
    const heldM3 = heldAbove(grid, { from: stem.cells[k - 1], at, along, levelM });
    const { earthM3 } = wallSize(grid, wall, levelM);
    if (!(heldM3 > 0) || earthM3 <= 0 || heldM3 / earthM3 < CHOKE_RATIO) continue;
    found.push({
      kind: 'choke',
      at,
      levelM: stem.levelM[k],
      areaM2: flow.cells[stem.cells[k]] * grid.cellM ** 2,
      score: heldM3 / earthM3,
      facts: { heldM3, earthM3, wallM: left + right },
      wall,
    });
  }
  return found;
}

/** A head cut: drop, its steepness, and how much it must stand out from the bed above and below. */
const HEAD_DROP_M = 0.4;
const HEAD_SLOPE = 0.3;
const HEAD_TIMES = 2.5;
/** Banks stand this much above the bed just below a head, at a few metres to either side [m]. */
const HEAD_BANK_M = 0.3;

function gullyHeads(grid: Grid, flow: Flow, stem: Stem): Place[] {
  const found: Place[] = [];
  const reach = Math.max(8, 4 * grid.cellM);
  const beside = Math.max(3, 2 * grid.cellM);
  for (let k = 1; k < stem.cells.length - 2; k++) {
    const cut = 2 * grid.cellM;
    const drop = stem.levelM[k] - stemLevel(stem, stem.atM[k] + cut);
    const above = (stemLevel(stem, stem.atM[k] - reach) - stem.levelM[k]) / reach;
    const foot = stem.atM[k] + cut;
    const below = (stemLevel(stem, foot) - stemLevel(stem, foot + reach)) / reach;
    if (!(drop >= HEAD_DROP_M) || drop / cut < HEAD_SLOPE || !(drop / cut > HEAD_TIMES * Math.max(above, below, 0.02))) continue;
    const low = stem.cells[Math.min(stem.cells.length - 1, k + 2)];
    const [a, b] = [centreOf(grid, stem.cells[k]), centreOf(grid, low)];
    const run = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    const side: Point = [(b[1] - a[1]) / run, -(b[0] - a[0]) / run];
    const bank = (sign: number): number => levelAt(grid, [b[0] + sign * side[0] * beside, b[1] + sign * side[1] * beside]);
    const bedM = grid.z[low] + grid.baseM;
    if (!(Math.min(bank(1), bank(-1)) - bedM >= HEAD_BANK_M)) continue;
    const cell = stem.cells[k];
    found.push({
      kind: 'gully-head',
      at: a,
      levelM: stem.levelM[k],
      areaM2: flow.cells[cell] * grid.cellM ** 2,
      score: drop * Math.sqrt(flow.cells[cell]),
      facts: { dropM: drop, slopeAbove: above },
    });
  }
  return found;
}

/** The best of a list, none nearer than `apartM` to a better one. */
function best(list: readonly Place[], { apartM, most }: { apartM: number; most: number }): Place[] {
  const kept: Place[] = [];
  for (const place of [...list].sort((a, b) => b.score - a.score)) {
    if (kept.length === most) break;
    if (kept.every((p) => Math.hypot(p.at[0] - place.at[0], p.at[1] - place.at[1]) >= apartM)) kept.push(place);
  }
  return kept;
}

/** Cells that must drain to a place for it to be followed up towards the divide. */
const STEM_CELLS = 8;

/** Key points, choke points and gully heads along valleys, ranked within their kind. On ground with none the list is empty. */
export function placesOf(grid: Grid, flow: Flow, valleys: readonly ValleyLine[]): Place[] {
  const stems = valleys.map((line) => ({ stem: stemProfile(grid, stemOf(flow, line, STEM_CELLS)), head: line.cells[0] }));
  const keys = stems.flatMap(({ stem, head }) => keyPoint(grid, flow, { stem, leastCells: flow.cells[head] }) ?? []);
  const chokes = stems.flatMap(({ stem, head }) => chokesOf(grid, flow, { stem, leastCells: flow.cells[head] }));
  const heads = stems.flatMap(({ stem }) => gullyHeads(grid, flow, stem));
  return [
    ...best(keys, { apartM: 30, most: 5 }),
    ...best(chokes, { apartM: 40, most: 5 }),
    ...best(heads, { apartM: 6 * grid.cellM, most: 8 }),
  ];
}
