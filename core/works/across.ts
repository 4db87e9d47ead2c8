// From bank to bank: geometry alone, since descriptors have it.
import { type Line, type Point, lineLength, pointAlong } from '../geometry/index.ts';

/** As wide as what stands in a channel reaches at the least where it takes in what comes down [m]: a line drawn by hand misses the bed by as much. */
const LEAST_ACROSS_M = 6;

/** From bank to bank across the channel. */
export function across(line: Line, { atM, bankWidthM }: { readonly atM: number; readonly bankWidthM: number }): readonly [Point, Point] {
  const { point, direction } = pointAlong(line, Math.min(atM, lineLength(line)));
  const reach = Math.max(LEAST_ACROSS_M, bankWidthM) / 2;
  const [nx, ny] = [-direction[1] * reach, direction[0] * reach];
  return [
    [point[0] - nx, point[1] - ny],
    [point[0] + nx, point[1] + ny],
  ];
}
