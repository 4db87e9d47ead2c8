// Valley and ridge lines: where water gathers, and where it parts.
import type { Point } from '../geometry/index.ts';
import { fillDepressions } from './kernels/fill.ts';
import { type Flow, flowOf, receiverOf, stepsOf } from './kernels/flow.ts';
import { type Grid, centreOf } from './grid.ts';
import { levelAt } from './sample.ts';

/** Cells of one line, from its head down. */
export interface ValleyLine {
  readonly cells: readonly number[];
  readonly points: readonly Point[];
  /** Area above its lower end [m2]. */
  readonly areaM2: number;
}

/**
 * Lines along which at least `leastAreaM2` gathers, each from its head to where it joins one already listed, longest
 * first: the first of a valley is its main stem.
 */
export function valleyLines(grid: Grid, flow: Flow, leastAreaM2: number): ValleyLine[] {
  const least = Math.max(2, leastAreaM2 / grid.cellM ** 2);
  const { cells: above, order } = flow;
  const isFed = new Uint8Array(above.length);
  const length = new Int32Array(above.length);
  const heads: number[] = [];
  for (const i of order) {
    if (above[i] < least) continue;
    if (isFed[i] === 0) heads.push(i);
    const next = receiverOf(flow, i);
    if (next >= 0) isFed[next] = 1;
  }
  // Length of the way down from each valley cell, lowest first.
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k];
    const next = receiverOf(flow, i);
    if (above[i] >= least) length[i] = 1 + (next >= 0 ? length[next] : 0);
  }
  const taken = new Uint8Array(above.length);
  return heads
    .sort((a, b) => length[b] - length[a] || a - b)
    .flatMap((head): ValleyLine[] => {
      const cells: number[] = [];
      let i = head;
      for (; i >= 0 && taken[i] === 0; i = receiverOf(flow, i)) {
        taken[i] = 1;
        cells.push(i);
      }
      if (cells.length < 2) return [];
      const last = cells[cells.length - 1];
      // Joined to the line it meets, so that the picture has no gaps.
      const drawn = i >= 0 ? [...cells, i] : cells;
      return [{ cells, points: drawn.map((c) => centreOf(grid, c)), areaM2: above[last] * grid.cellM ** 2 }];
    });
}

/** How far to either side the ground is compared with a line [m], and how much it must stand above or below on mean [m/m]. */
const ACROSS_M = 20;
const LEAST_RELIEF = 0.012;

/** Mean height of the ground to either side above a line [m/m of the distance looked]: above zero in a valley, about zero on a plain slope. */
export function reliefAcross(grid: Grid, { points }: Pick<ValleyLine, 'points'>): number {
  const reach = Math.max(ACROSS_M, 3 * grid.cellM);
  const span = Math.max(2, Math.round(8 / grid.cellM));
  let [sum, count] = [0, 0];
  for (let k = 0; k < points.length; k++) {
    const [a, b] = [points[Math.max(0, k - span)], points[Math.min(points.length - 1, k + span)]];
    const run = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (run === 0) continue;
    const [nx, ny] = [(b[1] - a[1]) / run, -(b[0] - a[0]) / run];
    const [x, y] = points[k];
    const sides = levelAt(grid, [x + nx * reach, y + ny * reach]) + levelAt(grid, [x - nx * reach, y - ny * reach]);
    const relief = sides / 2 - levelAt(grid, [x, y]);
    if (Number.isNaN(relief)) continue;
    sum += relief;
    count++;
  }
  return count === 0 ? 0 : sum / count / reach;
}

/** Whether a line runs in a real valley, not down a plain slope where water gathers by the noise of the survey. */
export const isValley = (grid: Grid, line: ValleyLine): boolean => reliefAcross(grid, line) >= LEAST_RELIEF;
export const isRidge = (grid: Grid, line: ValleyLine): boolean => reliefAcross(grid, line) <= -LEAST_RELIEF;

/** A stepped line evened out for drawing: each point the mean of its neighbours, both ends kept. */
export function evened(points: readonly Point[], reach = 3): Point[] {
  return points.map((p, k): Point => {
    const r = Math.min(reach, k, points.length - 1 - k);
    if (r === 0) return p;
    const near = points.slice(k - r, k + r + 1);
    return [near.reduce((s, q) => s + q[0], 0) / near.length, near.reduce((s, q) => s + q[1], 0) / near.length];
  });
}

/** Ridge lines: the valley lines of the ground turned upside down. */
export function ridgeLines(grid: Grid, leastAreaM2: number): ValleyLine[] {
  const turned: Grid = { ...grid, z: grid.z.map((v) => -v), baseM: -grid.baseM };
  return valleyLines(turned, flowOf(turned, fillDepressions(turned)), leastAreaM2);
}

/** A valley's line carried up from its head through the largest donor of each cell, so that the slopes above the head count too; head first. */
export function stemOf(flow: Flow, line: ValleyLine, leastCells: number): number[] {
  const { ncols, receiver, cells, jumps } = flow;
  const off = stepsOf(ncols);
  const up: number[] = [];
  for (let i = line.cells[0]; ;) {
    let best = -1;
    for (let d = 0; d < 8; d++) {
      const k = i + off[d];
      if (k < 0 || k >= receiver.length || receiver[k] !== ((d + 4) & 7) || jumps.has(k)) continue;
      if (best < 0 || cells[k] > cells[best]) best = k;
    }
    if (best < 0 || cells[best] < leastCells) break;
    up.push(best);
    i = best;
  }
  return [...up.reverse(), ...line.cells];
}
