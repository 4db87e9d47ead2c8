import { type Line, type Point, distance, nearestOnLine } from './line.ts';

/** Signed area of a ring [m2]; positive when counter-clockwise. */
export function signedArea(ring: Line): number {
  let twice = 0;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    twice += (ring[j][0] - ring[i][0]) * (ring[j][1] + ring[i][1]);
  }
  return twice / 2;
}

/** Whether a point lies inside a ring (even-odd rule). */
export function contains(ring: Line, [x, y]: Point): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [ax, ay] = ring[i];
    const [bx, by] = ring[j];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}

/** The ring as a line that returns to its start. */
export function closed(ring: Line): Point[] {
  return ring.length > 0 && distance(ring[0], ring[ring.length - 1]) > 0 ? [...ring, ring[0]] : [...ring];
}

/** Distance from a point to a ring's area [m]; 0 inside. */
export function distanceToRing(ring: Line, p: Point): number {
  return contains(ring, p) ? 0 : nearestOnLine(p, closed(ring)).distanceM;
}

/** Mean of a ring's corners: a place to put its name. */
export function middleOf(ring: Line): Point {
  const sum = ring.reduce<[number, number]>((s, [x, y]) => [s[0] + x, s[1] + y], [0, 0]);
  return [sum[0] / ring.length, sum[1] / ring.length];
}
