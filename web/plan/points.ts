import type { Point } from '#core/geometry';

/** "431200, 4612300" as a point; null when it is not two numbers. */
export function typedPoint(text: string): Point | null {
  const parts = text
    .trim()
    .split(/[\s,;]+/)
    .map(Number);
  return parts.length === 2 && parts.every((v) => Number.isFinite(v)) ? [parts[0], parts[1]] : null;
}
