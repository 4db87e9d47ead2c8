// Valley and ridge lines: where water gathers, and where it parts.
import type { Point } from '../geometry/index.ts';
import { fillDepressions } from './kernels/fill.ts';
import { type Flow, flowOf, receiverOf, stepsOf } from './kernels/flow.ts';
import { type Grid, centreOf } from './grid.ts';

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
