// Slope classes with what may be built and driven there.
import type { Grid } from './grid.ts';

export interface SlopeClass {
  readonly id: string;
  /** Steepest slope in the class [m/m]; Infinity for the last. */
  readonly toSlope: number;
  readonly says: string;
}

/**
 * Limits of methods and machines by slope. Methods: common practice (handbook 5.1, 5.7). Machines across a slope: from
 * memory, common practice; the machine's own manual decides.
 */
export const SLOPE_CLASSES: readonly SlopeClass[] = [
  { id: 'level', toSlope: 0.02, says: 'Large half-moons, level basins; water stands. Machines go anywhere when it is dry.' },
  { id: 'gentle', toSlope: 0.05, says: 'Small half-moons, stone lines and contour bunds, swales.' },
  { id: 'moderate', toSlope: 0.15, says: 'Swales up to 15 %. Wheeled machines across the slope with care.' },
  { id: 'steep', toSlope: 0.2, says: 'Terraces or many small basins. Wheeled machines up and down only.' },
  { id: 'very-steep', toSlope: 0.3, says: 'Nothing that soaks water in without a geotechnical look. Tracked machines only.' },
  { id: 'leave', toSlope: Infinity, says: 'Leave it covered: trees and grass. No machine across the slope.' },
];

/** Index of the class of a slope. */
export function classOf(slope: number): number {
  return SLOPE_CLASSES.findIndex((c) => slope <= c.toSlope);
}

/** Area in each slope class [m2]; no data is in none. */
export function areaByClass(grid: Grid, slope: ArrayLike<number>): Float64Array {
  const area = new Float64Array(SLOPE_CLASSES.length);
  for (let i = 0; i < slope.length; i++) if (slope[i] === slope[i]) area[classOf(slope[i])] += grid.cellM ** 2;
  return area;
}
