import type { Point } from '../geometry/index.ts';
import { type Grid, cellAt } from './grid.ts';
import { type Flow, JUMPS, facetLength, stepLength, stepsOf } from './kernels/flow.ts';

/** A way water takes, cell by cell. */
export interface FlowPath {
  readonly cells: readonly number[];
  /** Distance run to each cell [m]. */
  readonly atM: readonly number[];
  readonly levelM: readonly number[];
}

/** The way of a cell's water down the receivers, as long as `isInside` holds. */
export function flowPath(ground: { readonly grid: Grid; readonly flow: Flow }, from: Point, isInside: (cell: number) => boolean): FlowPath {
  const { grid, flow } = ground;
  const off = stepsOf(flow.ncols);
  const [cells, atM, levelM]: [number[], number[], number[]] = [[], [], []];
  let atCells = 0;
  let cell = cellAt(grid, from);
  while (cell >= 0 && isInside(cell)) {
    cells.push(cell);
    atM.push(atCells * grid.cellM);
    levelM.push(grid.z[cell] + grid.baseM);
    const d = flow.receiver[cell];
    if (d < 0) break;
    atCells += d === JUMPS ? stepLength(flow, cell) : facetLength(flow.facet[cell], d);
    cell = d === JUMPS ? (flow.jumps.get(cell) ?? -1) : cell + off[d];
  }
  return { cells, atM, levelM };
}
