// Surfaces with one known answer, for tests.
import { type Flow, type Grid, type Hollow, fillDepressions, flowOf, gridFromLevels, hollowsOf } from '../terrain/index.ts';

/** Square grid over a function of position, its south-west corner at the origin. */
export function gridOf(level: (x: number, y: number) => number | null, size: { cells: number; cellM: number }): Grid {
  const { cells, cellM } = size;
  const levels: (number | null)[] = [];
  for (let row = 0; row < cells; row++) {
    for (let col = 0; col < cells; col++) levels.push(level((col + 0.5) * cellM, (cells - row - 0.5) * cellM));
  }
  return gridFromLevels({ ncols: cells, nrows: cells, cellM, west: 0, south: 0 }, levels);
}

/** Plane falling at `slope` towards `degrees`, counter-clockwise from east. */
export function plane(slope: number, degrees: number, size = { cells: 101, cellM: 2 }): Grid {
  const a = (degrees * Math.PI) / 180;
  return gridOf((x, y) => 500 - slope * (x * Math.cos(a) + y * Math.sin(a)), size);
}

/** Cone with its top in the middle of the grid. */
export function cone(slope: number, size: { cells: number; cellM: number }): Grid {
  const middle = (size.cells * size.cellM) / 2;
  return gridOf((x, y) => 500 - slope * Math.hypot(x - middle, y - middle), size);
}

/** A grid with its hollows filled and its water running. */
export function modelOf(
  grid: Grid,
  jumps?: ReadonlyMap<number, number>,
): { grid: Grid; filled: Float64Array; flow: Flow; hollows: Hollow[] } {
  const filled = fillDepressions(grid);
  const flow = flowOf(grid, filled, jumps);
  return { grid, filled, flow, hollows: hollowsOf(grid, filled, flow) };
}
