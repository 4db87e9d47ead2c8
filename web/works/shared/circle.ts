import type { Point } from '#core/geometry';

const CORNERS = 24;

/** A circle as a ring that closes. */
export const circleRing = ([x, y]: Point, radiusM: number): number[][] =>
  Array.from({ length: CORNERS + 1 }, (_, k) => {
    const angle = (2 * Math.PI * k) / CORNERS;
    return [x + radiusM * Math.cos(angle), y + radiusM * Math.sin(angle)];
  });
