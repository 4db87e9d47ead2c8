export type Point = readonly [x: number, y: number];
export type Line = readonly Point[];

/** Horizontal distance between two points [m]. */
export function distance(a: Point, b: Point): number {
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  // Several times as fast as Math.hypot, which guards against sizes no land has.
  return Math.sqrt(dx * dx + dy * dy);
}

/** Length of a line [m]. */
export function lineLength(line: Line): number {
  let total = 0;
  for (let i = 1; i < line.length; i++) total += distance(line[i - 1], line[i]);
  return total;
}

/** Point at a distance along the line, clamped to its ends, with the unit direction of the piece it is on. */
export function pointAlong(line: Line, atM: number): { point: Point; direction: Point } {
  let left = Math.max(0, atM);
  for (let i = 1; i < line.length; i++) {
    const a = line[i - 1];
    const b = line[i];
    const piece = distance(a, b);
    const isLast = i === line.length - 1;
    if (piece > 0 && (left <= piece || isLast)) {
      const t = Math.min(1, left / piece);
      return { point: [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t], direction: [(b[0] - a[0]) / piece, (b[1] - a[1]) / piece] };
    }
    left -= piece;
  }
  return { point: line[line.length - 1] ?? [0, 0], direction: [1, 0] };
}

/** Places at even distances along a line, from its start to its end, so many pieces: those of `pointAlong`, found in one walk. */
export function evenlyAlong(line: Line, pieces: number): Point[] {
  const stepM = lineLength(line) / pieces;
  const places: Point[] = [];
  let [piece, walked] = [1, 0];
  let length = line.length > 1 ? distance(line[0], line[1]) : 0;
  for (let k = 0; k <= pieces; k++) {
    while (piece < line.length - 1 && (length === 0 || k * stepM - walked > length)) {
      walked += length;
      piece++;
      length = distance(line[piece - 1], line[piece]);
    }
    const a = line[piece - 1];
    const b = line[Math.min(piece, line.length - 1)];
    const t = length > 0 ? Math.min(1, Math.max(0, (k * stepM - walked) / length)) : 1;
    places.push([a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]);
  }
  return places;
}

/** Nearest place on a segment, as fraction along it and distance from it. */
export function nearestOnSegment(p: Point, a: Point, b: Point): { t: number; distanceM: number } {
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const squared = dx * dx + dy * dy;
  const t = squared === 0 ? 0 : Math.min(1, Math.max(0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / squared));
  return { t, distanceM: distance(p, [a[0] + t * dx, a[1] + t * dy]) };
}

/** Nearest place on a line: distance along it and distance from it [m]. Written out: it is asked of every way for every thing near it. */
export function nearestOnLine(p: Point, line: Line): { atM: number; distanceM: number } {
  const [x, y] = p;
  let atM = 0;
  let nearest = line.length === 1 ? (x - line[0][0]) ** 2 + (y - line[0][1]) ** 2 : Infinity;
  let walked = 0;
  for (let i = 1; i < line.length; i++) {
    const [ax, ay] = line[i - 1];
    const dx = line[i][0] - ax;
    const dy = line[i][1] - ay;
    const squared = dx * dx + dy * dy;
    const t = squared === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / squared));
    const offX = x - (ax + t * dx);
    const offY = y - (ay + t * dy);
    const piece = Math.sqrt(squared);
    const off = offX * offX + offY * offY;
    if (off < nearest) {
      nearest = off;
      atM = walked + t * piece;
    }
    walked += piece;
  }
  return { atM, distanceM: Math.sqrt(nearest) };
}

/** The part of a line between two distances along it, in the order asked for. */
export function subLine(line: Line, fromM: number, toM: number): Point[] {
  const [lo, hi] = fromM <= toM ? [fromM, toM] : [toM, fromM];
  const out: Point[] = [pointAlong(line, lo).point];
  let walked = 0;
  for (let i = 1; i < line.length - 1; i++) {
    walked += distance(line[i - 1], line[i]);
    if (walked > lo && walked < hi) out.push(line[i]);
  }
  out.push(pointAlong(line, hi).point);
  return fromM <= toM ? out : out.reverse();
}

/** Where two segments cross, as the fraction along the first; null when they do not. */
export function crossing(first: readonly [Point, Point], second: readonly [Point, Point]): number | null {
  const [[ax, ay], [bx, by]] = first;
  const [[cx, cy], [dx, dy]] = second;
  const det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
  if (det === 0) return null;
  const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det;
  const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / det;
  return t >= 0 && t <= 1 && u >= 0 && u <= 1 ? t : null;
}

/** Distances along `line` at which it crosses `other` [m]. */
export function crossingsAlong(line: Line, other: Line): number[] {
  const found: number[] = [];
  let walked = 0;
  for (let i = 1; i < line.length; i++) {
    for (let j = 1; j < other.length; j++) {
      const t = crossing([line[i - 1], line[i]], [other[j - 1], other[j]]);
      if (t !== null) found.push(walked + t * distance(line[i - 1], line[i]));
    }
    walked += distance(line[i - 1], line[i]);
  }
  return found.sort((a, b) => a - b);
}

/** Drops points that lie within `toleranceM` of the line through the points kept (Douglas & Peucker 1973). */
export function simplify(line: Line, toleranceM: number): Point[] {
  if (line.length < 3) return [...line];
  const keep = new Uint8Array(line.length);
  keep[0] = keep[line.length - 1] = 1;
  const spans: [number, number][] = [[0, line.length - 1]];
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [from, to] = span;
    let worst = toleranceM;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const { distanceM } = nearestOnSegment(line[i], line[from], line[to]);
      if (distanceM > worst) [worst, at] = [distanceM, i];
    }
    if (at > 0) {
      keep[at] = 1;
      spans.push([from, at], [at, to]);
    }
  }
  return line.filter((_, i) => keep[i] === 1);
}

/** Least distance between two lines [m], 0 where they cross, and the place on the first line where it is. */
export function nearestBetween(line: Line, other: Line): { readonly distanceM: number; readonly point: Point } {
  const [crossed] = crossingsAlong(line, other);
  if (crossed !== undefined) return { distanceM: 0, point: pointAlong(line, crossed).point };
  // Between lines that do not cross, one end of the shortest way is a corner of either.
  let best: { distanceM: number; point: Point } = { distanceM: Infinity, point: line[0] };
  for (const point of line) {
    const { distanceM } = nearestOnLine(point, other);
    if (distanceM < best.distanceM) best = { distanceM, point };
  }
  for (const corner of other) {
    const { distanceM, atM } = nearestOnLine(corner, line);
    if (distanceM < best.distanceM) best = { distanceM, point: pointAlong(line, atM).point };
  }
  return best;
}
