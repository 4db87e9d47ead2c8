// What works along lines make of the ground: ditches, and banks and walls.
import type { Built } from '../contract/index.ts';
import { type Line, type Point, lineLength, nearestOnLine, pointAlong } from '../geometry/index.ts';
import { type LipGround, groundAlong } from './lip.ts';
import { cutWidth } from './trough.ts';

/** Where a place lies by a line: how far along it, how far beside it (left of its direction more than 0), and how far past its ends [m]. */
export interface Beside {
  readonly atM: number;
  readonly asideM: number;
  readonly beyondM: number;
}

/** Nearer to an end than this along a line a place lies past it, or at it [m]. */
const END_M = 1e-9;

/** Places seen from a line. */
export function seenFrom(line: Line): (at: Point) => Beside {
  const lengthM = lineLength(line);
  return (at) => {
    const { atM, distanceM } = nearestOnLine(at, line);
    const isEnd = atM <= END_M || atM >= lengthM - END_M;
    // At its last point the direction is that of its last piece.
    const { point, direction } = pointAlong(line, Math.min(atM, lengthM - END_M));
    const [dx, dy] = [at[0] - point[0], at[1] - point[1]];
    const left = direction[0] * dy - direction[1] * dx;
    if (!isEnd) return { atM, asideM: left >= 0 ? distanceM : -distanceM, beyondM: 0 };
    const on = direction[0] * dx + direction[1] * dy;
    return { atM, asideM: left, beyondM: Math.max(0, atM <= END_M ? -on : on) };
  };
}

/** A box round points, so much wider on every side. */
export function boxAround(points: Line, awayM: number): Built['box'] {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return [Math.min(...xs) - awayM, Math.min(...ys) - awayM, Math.max(...xs) + awayM, Math.max(...ys) + awayM];
}

/** Sides longer than this meet no ground worth following [m]. */
const FARTHEST_M = 40;

/** How far from its line a side meets ground that falls away before it, where on level ground it would so far out [m]. */
export const runsOut = (outM: number, { sideHV, slope }: { readonly sideHV: number; readonly slope: number }): number =>
  slope * sideHV < 1 ? Math.min(FARTHEST_M, outM / (1 - slope * sideHV)) : FARTHEST_M;

/** A ditch along a slope with its bank on the lip below it. */
export interface TroughBuilt {
  readonly line: Line;
  readonly ground: LipGround;
  readonly dimensions: {
    readonly floorWidthM: number;
    readonly sideSlopeHV: number;
    readonly bankTopM: number;
    readonly bankSlopeHV: number;
  };
  readonly floorM: number;
  /** Crest of its bank at a distance along it. */
  readonly crestAt: (atM: number) => number;
}

/** The ditch and the bank of a trough, each as its section is: the ditch above the lip, the bank below it. */
export function troughBuilt({ line, ground, dimensions, floorM, crestAt }: TroughBuilt): Built {
  const { floorWidthM: b, sideSlopeHV: z, bankTopM: w, bankSlopeHV: zb } = dimensions;
  const see = seenFrom(line);
  const highest = ground.groundM.reduce((a, v) => Math.max(a, v), -Infinity);
  const crests = Array.from(ground.atM, (atM, i) => crestAt(atM) - ground.groundM[i]);
  const up = cutWidth({ b, z, h: Math.max(0, highest - floorM), s: ground.steepestSlope });
  const down = runsOut(2 * zb * Math.max(0, ...crests) + w, { sideHV: zb, slope: ground.steepestSlope });
  return {
    box: boxAround(line, Math.min(FARTHEST_M, Math.max(up, down)) + 1),
    levelAt: (at, { madeM }) => {
      const { atM, asideM, beyondM } = see(at);
      const lipM = groundAlong(ground, atM);
      const upM = asideM * ground.downhillSide;
      const deep = lipM - floorM;
      let level = madeM;
      if (deep > 0) level = Math.min(level, floorM + sideUp(Math.max(Math.abs(upM - z * deep - b / 2) - b / 2, beyondM), z));
      const highM = crestAt(atM) - lipM;
      if (highM <= 0 || upM > 0) return level;
      const innerM = zb * highM;
      return Math.max(level, crestAt(atM) - Math.max(0, innerM + upM, -upM - innerM - w, beyondM) / zb);
    },
  };
}

/** How high a side stands so far out from its foot; upright ones have no end. */
export const sideUp = (outM: number, sideHV: number): number => (outM <= 0 ? 0 : sideHV > 0 ? outM / sideHV : Infinity);

/** Several made one after the other, as one. */
export function builtTogether(parts: readonly Built[]): Built {
  const corners = parts.flatMap(({ box: [west, south, east, north] }): Point[] => [[west, south], [east, north]]); // prettier-ignore
  return {
    box: boxAround(corners, 0),
    levelAt: (at, { groundM, madeM }) =>
      parts.reduce((level, part) => (isIn(part.box, at) ? part.levelAt(at, { groundM, madeM: level }) : level), madeM),
  };
}

const isIn = ([west, south, east, north]: Built['box'], [x, y]: Point): boolean => x >= west && x <= east && y >= south && y <= north;

/** Half the width of a bank that a way out in it may have to go through [m], and how the bank runs down to it from both sides. */
const [THROUGH_M, RAMP_HV] = [15, 2];

export interface Notch {
  readonly atM: number;
  readonly lengthM: number;
  readonly levelM: number;
  /** Where the ground itself stands over it: how far it is dug on, and on which side of the line (left 1, right -1) that is. */
  readonly dug?: { readonly toM: number; readonly side: 1 | -1 };
}

/** A way out in a bank: the bank is left out at its level, down to natural ground, as long as it is; ground that stands over it is dug until it comes out. */
export function notchBuilt(line: Line, { atM, lengthM, levelM, dug }: Notch): Built {
  const see = seenFrom(line);
  return {
    box: boxAround([pointAlong(line, atM).point], lengthM / 2 + (dug ? Math.max(THROUGH_M, dug.toM) : THROUGH_M)),
    levelAt: (at, { groundM, madeM }) => {
      const place = see(at);
      if (place.beyondM > 0) return madeM;
      const level = Math.min(madeM, levelM + sideUp(Math.abs(place.atM - atM) - lengthM / 2, RAMP_HV));
      const onM = dug ? place.asideM * dug.side : -1;
      if (dug && onM >= 0 && onM <= dug.toM) return level;
      return Math.abs(place.asideM) > THROUGH_M || madeM <= groundM ? madeM : Math.max(groundM, level);
    },
  };
}
