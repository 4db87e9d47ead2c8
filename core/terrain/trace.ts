import type { Point } from '../geometry/index.ts';
import { type Flow, NO_GROUND, straddleOf } from './kernels/flow.ts';
import type { Grid } from './grid.ts';
import { STEP_COL, STEP_ROW, cellAt, centreOf } from './grid.ts';

export interface Trace {
  /** Points down the fall line with the filled-surface level of their cell. */
  readonly path: readonly (readonly [x: number, y: number, z: number])[];
  /** Cells passed, first to last. */
  readonly cells: readonly number[];
  /** Why it ended: water left the terrain, or the caller's stop. */
  readonly ended: 'terrain-edge' | 'stopped';
}

/**
 * Follows one drop downhill, keeping its own sideways error as small as two neighbours allow, so that on a plane it stays
 * within a cell of the true fall line. `stop` is asked at every cell after the first.
 */
export function traceDown(ground: { readonly grid: Grid; readonly flow: Flow }, from: Point, stop: (cell: number) => boolean): Trace {
  const { grid, flow } = ground;
  const path: [number, number, number][] = [];
  const cells: number[] = [];
  let cell = cellAt(grid, from);
  let drift = 0;
  if (cell < 0 || flow.receiver[cell] === NO_GROUND) return { path, cells, ended: 'terrain-edge' };
  for (;;) {
    const isFirst = cells.length === 0;
    const [x, y] = isFirst ? from : corrected(ground, cell, drift);
    path.push([x, y, grid.z[cell] + grid.baseM]);
    cells.push(cell);
    if (!isFirst && stop(cell)) return { path, cells, ended: 'stopped' };
    const led = flow.jumps.get(cell);
    if (led !== undefined) {
      cell = led;
      drift = 0;
      continue;
    }
    const { cardinal: c, diagonal: d, driftCardinal, driftDiagonal } = straddleOf(flow, cell);
    let direction = c >= 0 ? c : d;
    if (c >= 0 && d >= 0) {
      const byCardinal = drift + driftCardinal;
      const byDiagonal = drift + driftDiagonal;
      direction = Math.abs(byCardinal) <= Math.abs(byDiagonal) ? c : d;
      drift = direction === c ? byCardinal : byDiagonal;
    } else {
      drift = 0;
    }
    if (direction < 0) return { path, cells, ended: 'terrain-edge' };
    cell += STEP_ROW[direction] * grid.ncols + STEP_COL[direction];
  }
}

/** The cell's centre moved back by the sideways error, onto the fall line the drop is following. */
function corrected({ grid, flow }: { grid: Grid; flow: Flow }, cell: number, drift: number): Point {
  const [x, y] = centreOf(grid, cell);
  const { cardinal: c, diagonal, driftCardinal } = straddleOf(flow, cell);
  if (c < 0 || diagonal < 0) return [x, y];
  const turn = ((diagonal - c) & 7) === 1 ? 1 : -1;
  const angle = (c * Math.PI) / 4 + turn * Math.asin(Math.min(1, Math.abs(driftCardinal)));
  // Clockwise of the direction (rows down) lies (-sin, cos) in column and row.
  return [x + drift * Math.sin(angle) * grid.cellM, y + drift * Math.cos(angle) * grid.cellM];
}
