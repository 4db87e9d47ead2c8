import type { Site } from '../contract/index.ts';
import { type Line, type Point, lineLength, pointAlong } from '../geometry/index.ts';
import { levelAt } from '../terrain/index.ts';
import { UnknownGround } from './unknown-ground.ts';

/** The ground along a swale's lip, at even stations. */
export interface LipGround {
  readonly lengthM: number;
  readonly stepM: number;
  readonly atM: Float64Array;
  readonly points: readonly Point[];
  readonly groundM: Float64Array;
  /** Slope across the line, uphill side up [m/m]. */
  readonly crossSlope: Float64Array;
  /** Which side of the line is downhill: 1 right of its direction, -1 left. */
  readonly downhillSide: 1 | -1;
  readonly meanGroundM: number;
  readonly meanSlope: number;
  readonly steepestSlope: number;
}

/** Right-hand normal of a direction. */
const rightOf = ([dx, dy]: Point): Point => [dy, -dx];

/**
 * Measures ground and cross slope along a line. A gap of a cell or two has the level before it.
 * @throws UnknownGround where nothing is known of the ground under it, or to both sides of it.
 */
export function measureLip(line: Line, { grid }: Pick<Site, 'grid'>): LipGround {
  const lengthM = lineLength(line);
  const count = Math.min(160, Math.max(4, Math.ceil(lengthM / Math.max(1, grid.cellM / 2))));
  const stepM = lengthM / count;
  const [atM, groundM, fall] = [new Float64Array(count + 1), new Float64Array(count + 1), new Float64Array(count + 1)];
  const points: Point[] = [];
  const reach = Math.max(3, 1.5 * grid.cellM);
  for (let i = 0; i <= count; i++) {
    atM[i] = i * stepM;
    const { point, direction } = pointAlong(line, atM[i]);
    points.push(point);
    const [nx, ny] = rightOf(direction);
    const right = levelAt(grid, [point[0] + nx * reach, point[1] + ny * reach]);
    const left = levelAt(grid, [point[0] - nx * reach, point[1] - ny * reach]);
    groundM[i] = levelAt(grid, point);
    // At the edge of what is known one side tells the slope.
    const sides = [(left - right) / (2 * reach), (left - groundM[i]) / reach, (groundM[i] - right) / reach];
    fall[i] = sides.find((v) => !Number.isNaN(v)) ?? NaN;
  }
  carryOver(groundM, 'No level is known under it');
  carryOver(fall, 'No level is known beside it: which way it falls cannot be told');
  const downhillSide = fall.reduce((a, v) => a + v, 0) >= 0 ? 1 : -1;
  const crossSlope = fall.map((v) => Math.max(0, v * downhillSide));
  const mean = (list: Float64Array): number => list.reduce((a, v) => a + v, 0) / list.length;
  return {
    lengthM,
    stepM,
    atM,
    points,
    groundM,
    crossSlope,
    downhillSide,
    meanGroundM: mean(groundM),
    meanSlope: mean(crossSlope),
    steepestSlope: crossSlope.reduce((a, v) => Math.max(a, v), 0),
  };
}

/** Fills gaps (NaN) from the nearest known value before, else after. @throws UnknownGround where none is known. */
export function carryOver(list: Float64Array, unknown: string): void {
  let last = list.find((v) => !Number.isNaN(v));
  if (last === undefined) throw new UnknownGround(unknown);
  for (let i = 0; i < list.length; i++) {
    if (Number.isNaN(list[i])) list[i] = last;
    else last = list[i];
  }
}

/** Unit vector downhill across the line at a distance along it. */
export function downhillAt(line: Line, ground: LipGround, atM: number): Point {
  const [nx, ny] = rightOf(pointAlong(line, atM).direction);
  return [nx * ground.downhillSide, ny * ground.downhillSide];
}

/** Lip ground at a distance along the line, straight between stations. */
export function groundAlong(ground: LipGround, atM: number): number {
  const place = Math.min(ground.groundM.length - 1, Math.max(0, atM / ground.stepM));
  const i = Math.min(ground.groundM.length - 2, Math.floor(place));
  return ground.groundM[i] + (ground.groundM[i + 1] - ground.groundM[i]) * (place - i);
}
