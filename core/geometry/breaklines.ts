// Lines a surface must not be joined across: a ditch, a bank's crest, its toe.
import type { ScatteredPoints } from './surface.ts';

/** Places by squares of the plane, so that those near a line are found without looking at all. */
class Squares {
  private readonly in = new Map<number, number[]>();

  constructor(
    private readonly x: readonly number[],
    private readonly y: readonly number[],
    private readonly sideM: number,
  ) {
    for (let k = 0; k < x.length; k++) this.add(k);
  }

  private keyOf(col: number, row: number): number {
    // Wide enough apart that no two squares of a property share a key.
    return col * 4_194_304 + row;
  }

  add(k: number): void {
    const key = this.keyOf(Math.floor((this.x[k] - this.x[0]) / this.sideM), Math.floor((this.y[k] - this.y[0]) / this.sideM));
    const there = this.in.get(key);
    if (there) there.push(k);
    else this.in.set(key, [k]);
  }

  /** One of the places within a distance of another place that passes; -1 where none does. */
  within(x: number, y: number, on: { readonly awayM: number; readonly isOne: (k: number) => boolean }): number {
    const { awayM, isOne } = on;
    const [col1, col2] = [x - awayM, x + awayM].map((at) => Math.floor((at - this.x[0]) / this.sideM));
    const [row1, row2] = [y - awayM, y + awayM].map((at) => Math.floor((at - this.y[0]) / this.sideM));
    for (let col = col1; col <= col2; col++)
      for (let row = row1; row <= row2; row++) {
        const found = this.in.get(this.keyOf(col, row))?.find(isOne);
        if (found !== undefined) return found;
      }
    return -1;
  }
}

/** A place so near a straight line, as a share of its length, lies on it. */
const ON_LINE = 1e-6;
/** More places than this put along lines tell no more than their corners do. */
const MOST_PUT = 300_000;

/**
 * Points with others put between the corners of lines, straight in plan and level, so that triangles between nearest neighbours have
 * every line among their sides: a side is one of theirs for certain when no point lies in the circle over it (Gabriel & Sokal 1969,
 * "A new statistical approach to geographic variation analysis", section on contiguous pairs; from memory). `lines` name points by
 * their place in the list. Where two lines cross, sides shorter than `leastM` are left as they are. The points given come first.
 */
export function alongBreaklines(points: ScatteredPoints, lines: readonly (readonly number[])[], leastM: number): ScatteredPoints {
  const [x, y, z] = [Array.from(points.x), Array.from(points.y), Array.from(points.z)];
  const span = (list: readonly number[]): number => list.reduce((a, v) => Math.max(a, v), -Infinity) - list.reduce((a, v) => Math.min(a, v), Infinity);
  const squares = new Squares(x, y, Math.max(leastM, Math.sqrt((span(x) * span(y)) / x.length)));
  let sides = lines.flatMap((line) => line.slice(1).map((b, k) => [line[k], b] as const)).filter(([a, b]) => a !== b);
  /** A point within the circle over a side, its own ends not counted; -1 where there is none. */
  const meddling = (a: number, b: number): number => {
    const isIn = (k: number): boolean => k !== a && k !== b && (x[a] - x[k]) * (x[b] - x[k]) + (y[a] - y[k]) * (y[b] - y[k]) < 0;
    return squares.within((x[a] + x[b]) / 2, (y[a] + y[b]) / 2, { awayM: Math.hypot(x[b] - x[a], y[b] - y[a]) / 2, isOne: isIn });
  };
  const isOn = (k: number, a: number, b: number): boolean => {
    const [dx, dy] = [x[b] - x[a], y[b] - y[a]];
    return Math.abs((x[k] - x[a]) * dy - (y[k] - y[a]) * dx) <= ON_LINE * (dx * dx + dy * dy);
  };
  const put = (a: number, b: number): number => {
    x.push((x[a] + x[b]) / 2);
    y.push((y[a] + y[b]) / 2);
    z.push((z[a] + z[b]) / 2);
    squares.add(x.length - 1);
    return x.length - 1;
  };
  // What is put along one line may lie in the circle of another: all are looked at again until nothing is put any more.
  for (let isDone = false; !isDone; ) {
    isDone = true;
    const next: (readonly [number, number])[] = [];
    for (const [a, b] of sides) {
      const k = meddling(a, b);
      const isShort = Math.hypot(x[b] - x[a], y[b] - y[a]) < 2 * leastM;
      if (k < 0 || (isShort && !isOn(k, a, b)) || x.length - points.x.length >= MOST_PUT) {
        next.push([a, b]);
        continue;
      }
      const between = isOn(k, a, b) ? k : put(a, b);
      next.push([a, between], [between, b]);
      isDone = false;
    }
    sides = next;
  }
  return { x: Float64Array.from(x), y: Float64Array.from(y), z: Float64Array.from(z) };
} // prettier-ignore
