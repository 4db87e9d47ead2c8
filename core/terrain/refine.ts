// Contours made smooth to look at without leaving the surface: a point is added in the middle of each piece, moved onto it.
import type { ContourLines } from './kernels/contour.ts';
import type { Grid } from './grid.ts';
import { gradientAt, levelAt } from './sample.ts';

/** Steps towards the level; each leaves a small share of the error of the one before. */
const STEPS = 3;

/** Contours with twice the points, the new ones where the bilinear ground has exactly the level (within 0.1 mm). */
export function refineContours(grid: Grid, { xy, starts, levelM }: ContourLines): ContourLines {
  const out = new Float64Array(2 * xy.length);
  const at: number[] = [0];
  let count = 0;
  const put = (x: number, y: number): void => {
    out[2 * count] = x;
    out[2 * count + 1] = y;
    count++;
  };
  for (let k = 0; k + 1 < starts.length; k++) {
    put(xy[2 * starts[k]], xy[2 * starts[k] + 1]);
    for (let i = starts[k] + 1; i < starts[k + 1]; i++) {
      const [ax, ay, bx, by] = [xy[2 * i - 2], xy[2 * i - 1], xy[2 * i], xy[2 * i + 1]];
      const middle = onLevel(grid, { x: (ax + bx) / 2, y: (ay + by) / 2, levelM: levelM[k], within: Math.hypot(bx - ax, by - ay) / 2 });
      if (middle) put(middle[0], middle[1]);
      put(bx, by);
    }
    at.push(count);
  }
  return { xy: out.slice(0, 2 * count), starts: Int32Array.from(at), levelM };
}

/** The place nearest a point where the ground has a level; null when it is not near, as at a saddle or beside no data. */
function onLevel(grid: Grid, from: { x: number; y: number; levelM: number; within: number }): [number, number] | null {
  let { x, y } = from;
  for (let step = 0; step < STEPS; step++) {
    const error = levelAt(grid, [x, y]) - from.levelM;
    const [gx, gy] = gradientAt(grid, [x, y], grid.cellM / 50);
    const square = gx * gx + gy * gy;
    if (!(square > 1e-12)) return null;
    x -= (error * gx) / square;
    y -= (error * gy) / square;
  }
  const isNear = Math.hypot(x - from.x, y - from.y) <= from.within;
  return isNear && Math.abs(levelAt(grid, [x, y]) - from.levelM) < 1e-4 ? [x, y] : null;
}
