// How a picture lies on a plan.
import type { Point } from './line.ts';

/**
 * Six numbers by which a picture lies on a plan: u to the right and v down from its upper left corner [px] lie at
 * x = a u + b v + c and y = d u + e v + f [m].
 */
export type Laying = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** A place seen in a picture [px], and where it is on the ground [m]. */
export interface Pinned {
  readonly px: Point;
  readonly at: Point;
}

/** Where a place of a picture lies [m]. */
export const laidAt = ([a, b, c, d, e, f]: Laying, [u, v]: Point): Point => [a * u + b * v + c, d * u + e * v + f];

/** A laying told from the middle of the first pixel, as world files do, told from its corner. */
export const fromCorner = ([a, b, c, d, e, f]: Laying): Laying => [a, b, c - (a + b) / 2, d, e, f - (d + e) / 2];

/** How a picture lies when it has so many times fewer pixels across and down. */
export const withFewer = ([a, b, c, d, e, f]: Laying, [across, down]: readonly [across: number, down: number]): Laying => [
  a * across,
  b * down,
  c,
  d * across,
  e * down,
  f,
];

/** The corners of a picture [px]: the first pixel's, the other upper one, the lower one, the last. */
export const cornersOf = ({
  widthPx,
  heightPx,
}: {
  readonly widthPx: number;
  readonly heightPx: number;
}): readonly [Point, Point, Point, Point] => [
  [0, 0],
  [widthPx, 0],
  [0, heightPx],
  [widthPx, heightPx],
];

/** Ground one pixel covers [m2]. */
export const pixelAreaM2 = ([a, b, , d, e]: Laying): number => Math.abs(a * e - b * d);

/** The laying that brings three places to where they are; null where they stand in one line. */
export function layingThrough([p, q, r]: readonly [Pinned, Pinned, Pinned]): Laying | null {
  const [du1, dv1, du2, dv2] = [q.px[0] - p.px[0], q.px[1] - p.px[1], r.px[0] - p.px[0], r.px[1] - p.px[1]];
  const area = du1 * dv2 - du2 * dv1;
  if (area === 0) return null;
  const along = (k: 0 | 1): [number, number, number] => {
    const [d1, d2] = [q.at[k] - p.at[k], r.at[k] - p.at[k]];
    const [byU, byV] = [(d1 * dv2 - d2 * dv1) / area, (d2 * du1 - d1 * du2) / area];
    return [byU, byV, p.at[k] - byU * p.px[0] - byV * p.px[1]];
  };
  return [...along(0), ...along(1)];
}

const middleOf = (places: readonly Point[]): Point => [
  places.reduce((sum, [x]) => sum + x, 0) / places.length,
  places.reduce((sum, [, y]) => sum + y, 0) / places.length,
];

/**
 * The laying that brings places nearest to where they are when a picture may only be turned, moved and scaled alike both ways
 * (least squares, in closed form: Helmert's four). Null with fewer than two places apart, in the picture or on the ground.
 */
export function layingBy(pins: readonly Pinned[]): Laying | null {
  if (pins.length < 2) return null;
  const [cu, cv] = middleOf(pins.map((p) => p.px));
  const [cx, cy] = middleOf(pins.map((p) => p.at));
  let [spread, along, across] = [0, 0, 0];
  for (const { px, at } of pins) {
    // A picture's rows go down, the plan's norths up.
    const [u, v, x, y] = [px[0] - cu, cv - px[1], at[0] - cx, at[1] - cy];
    spread += u * u + v * v;
    along += u * x + v * y;
    across += u * y - v * x;
  }
  if (spread === 0 || (along === 0 && across === 0)) return null;
  const [m, n] = [along / spread, across / spread];
  return [m, n, cx - m * cu - n * cv, n, -m, cy - n * cu + m * cv];
}

/** How far each place comes to lie from where it is [m]. */
export const offsOf = (laying: Laying, pins: readonly Pinned[]): number[] =>
  pins.map(({ px, at }) => {
    const [x, y] = laidAt(laying, px);
    return Math.hypot(x - at[0], y - at[1]);
  });
