import type { Grid } from './grid.ts';

export interface TerrainStats {
  readonly cells: number;
  readonly noData: number;
  readonly areaM2: number;
  readonly minM: number | null;
  readonly maxM: number | null;
}

/** Count, area and range of the ground; levels are null when there is none. */
export function statsOf(grid: Grid): TerrainStats {
  let min = Infinity;
  let max = -Infinity;
  let noData = 0;
  const { z } = grid;
  // Every cell is looked at before anything is shown: no walk over an iterator.
  for (let i = 0; i < z.length; i++) {
    const v = z[i];
    if (Number.isNaN(v)) noData++;
    else {
      if (v < min) min = v;
      if (v > max) max = v;
    }
  }
  const cells = grid.z.length;
  const hasGround = noData < cells;
  return {
    cells,
    noData,
    areaM2: (cells - noData) * grid.cellM ** 2,
    minM: hasGround ? min + grid.baseM : null,
    maxM: hasGround ? max + grid.baseM : null,
  };
}
