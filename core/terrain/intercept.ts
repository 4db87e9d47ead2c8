import type { Line, Point } from '../geometry/index.ts';
import { contains, distance, lineLength, signedArea, subLine } from '../geometry/index.ts';
import { type Flow, JUMPS, NO_GROUND, sourcesOf, stepsOf } from './kernels/flow.ts';
import { type Renumbered, Rewritten } from './cell-numbers.ts';
import type { Grid } from './grid.ts';
import { cellAt, centreOf, extentOf } from './grid.ts';

/** The part of a segment within a cell of the grid; null when there is none (Liang & Barsky 1984, ACM Transactions on Graphics 3(1)). */
function clipped(a: Point, b: Point, grid: Grid): readonly [Point, Point] | null {
  const [west, south, east, north] = extentOf(grid);
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const margin = grid.cellM;
  let [from, to] = [0, 1];
  const sides = [
    [-dx, a[0] - (west - margin)],
    [dx, east + margin - a[0]],
    [-dy, a[1] - (south - margin)],
    [dy, north + margin - a[1]],
  ] as const;
  for (const [towards, room] of sides) {
    if (towards === 0 && room < 0) return null;
    if (towards < 0) from = Math.max(from, room / towards);
    else if (towards > 0) to = Math.min(to, room / towards);
  }
  if (from > to) return null;
  const at = (t: number): Point => (t === 0 ? a : t === 1 ? b : [a[0] + t * dx, a[1] + t * dy]);
  return [at(from), at(to)];
}

/** Cells under a line, 4-connected so that diagonal flow cannot slip between them. Off-grid parts are left out. */
export function cellsUnder(grid: Grid, line: Line): Int32Array {
  const found = new Set<number>();
  const step = grid.cellM / 16;
  let previous = -1;
  for (let i = 1; i < line.length; i++) {
    // Only the part over the grid is walked: a corner a thousand kilometres off must cost nothing.
    const part = clipped(line[i - 1], line[i], grid);
    if (!part) continue;
    const [a, b] = part;
    const count = Math.max(1, Math.ceil(distance(a, b) / step));
    for (let k = 0; k <= count; k++) {
      const t = k / count;
      const cell = cellAt(grid, [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]);
      if (cell < 0 || cell === previous) continue;
      if (previous >= 0) {
        const columnMoved = (cell % grid.ncols) - (previous % grid.ncols);
        const isDiagonal = columnMoved !== 0 && Math.abs(cell - previous) !== 1;
        // Through a corner: take the cell beside it on the same row as well.
        if (isDiagonal && Math.abs(columnMoved) === 1) found.add(previous + columnMoved);
      }
      found.add(cell);
      previous = cell;
    }
  }
  return Int32Array.from(found);
}

/** Cells whose centre lies in a ring; the cell of its middle when it is smaller than a cell. */
export function cellsInside(grid: Grid, ring: readonly Point[]): number[] {
  if (ring.length < 3) return [];
  const xs = ring.map((p) => p[0]);
  const ys = ring.map((p) => p[1]);
  const cells: number[] = [];
  // Only where the grid is: a corner may lie anywhere.
  const [west, south, east, north] = extentOf(grid);
  const [left, right] = [Math.max(west, Math.min(...xs)), Math.min(east, Math.max(...xs) + grid.cellM)];
  const [low, high] = [Math.max(south, Math.min(...ys)), Math.min(north, Math.max(...ys) + grid.cellM)];
  for (let y = low; y <= high; y += grid.cellM) {
    for (let x = left; x <= right; x += grid.cellM) {
      const cell = cellAt(grid, [x, y]);
      if (cell >= 0 && !Number.isNaN(grid.z[cell]) && contains(ring, centreOf(grid, cell))) cells.push(cell);
    }
  }
  if (cells.length > 0) return cells;
  const middle = cellAt(grid, [xs.reduce((a, v) => a + v, 0) / xs.length, ys.reduce((a, v) => a + v, 0) / ys.length]);
  return middle >= 0 ? [middle] : [];
}

/** Something that catches water: across a line, over a ring, or at single places; it has a number from 1 up. */
export interface Catching {
  readonly number: number;
  readonly line?: Line;
  readonly ring?: Line;
  readonly points?: readonly Point[];
}

/** Cells by what they were found for, on the grid they were found on last: thousands of small intakes are asked about several times. */
type Found = WeakMap<Line, { readonly grid: Grid; readonly cells: ArrayLike<number> }>;
const [underLines, withinRings]: readonly [Found, Found] = [new WeakMap(), new WeakMap()];

function foundOnce(
  found: Found,
  { grid, drawn }: { readonly grid: Grid; readonly drawn: Line },
  find: (grid: Grid, drawn: Line) => ArrayLike<number>,
): ArrayLike<number> {
  const known = found.get(drawn);
  if (known?.grid === grid) return known.cells;
  const cells = find(grid, drawn);
  found.set(drawn, { grid, cells });
  return cells;
}

/** Half a cell off either end: the cells counted then span the line's length on average, not a cell more. */
function underShortened(grid: Grid, line: Line): Int32Array {
  const length = lineLength(line);
  const half = Math.min(grid.cellM, length / 2) / 2;
  return cellsUnder(grid, subLine(line, half, length - half));
}

/** Cells something catches water at: those under its line, those within its ring, those of its places. */
export function catchingCells(grid: Grid, { line, ring, points = [] }: Omit<Catching, 'number'>): number[] {
  const cells: number[] = [];
  const take = (found: ArrayLike<number>): void => {
    for (let k = 0; k < found.length; k++) cells.push(found[k]);
  };
  if (line) take(foundOnce(underLines, { grid, drawn: line }, underShortened));
  if (ring) take(foundOnce(withinRings, { grid, drawn: ring }, cellsInside));
  for (const at of points) if (cellAt(grid, at) >= 0) cells.push(cellAt(grid, at));
  return cells;
}

/** What something no wider than a cell takes of the water of its cell: its width across the flow; all where it is wider. */
export function shareOfCell(
  { cellM }: Grid,
  { line, ring, points, widthM }: Omit<Catching, 'number'> & { readonly widthM?: number },
): number {
  const wide = line ? lineLength(line) : ring ? Math.sqrt(Math.abs(signedArea(ring))) : points ? (widthM ?? cellM) : cellM;
  return Math.min(1, wide / cellM);
}

/** Number of what catches water at each cell of a grid, 0 for nothing, by the cells each catches at; where two share a cell the earlier keeps it. */
export function numberedAt(grid: Grid, caughtAt: readonly (readonly number[])[], numbers: readonly number[]): Int16Array {
  const owner = new Int16Array(grid.z.length);
  for (let k = 0; k < caughtAt.length; k++) {
    const cells = caughtAt[k];
    for (let j = 0; j < cells.length; j++) if (owner[cells[j]] === 0) owner[cells[j]] = numbers[k];
  }
  return owner;
}

/** The same written into `owner`, where only what catches at some cells (`at`) may be another than it was. */
export function numberedAgain(
  owner: Int16Array,
  on: { readonly caughtAt: readonly (readonly number[])[]; readonly numbers: readonly number[] },
  { at, mask }: { readonly at: readonly number[]; readonly mask: Uint8Array },
): Renumbered {
  const { caughtAt, numbers } = on;
  const rewritten = new Rewritten(owner, mask);
  for (const i of at) {
    rewritten.keep(i);
    owner[i] = 0;
  }
  for (let k = 0; k < caughtAt.length; k++) {
    const cells = caughtAt[k];
    for (let j = 0; j < cells.length; j++) if (mask[cells[j]] === 1 && owner[cells[j]] === 0) owner[cells[j]] = numbers[k];
  }
  return rewritten.finish();
}

/** The same by what catches. */
export const catchingOn = (grid: Grid, catching: readonly Catching[]): Int16Array =>
  numberedAt(
    grid,
    catching.map((one) => catchingCells(grid, one)),
    catching.map((one) => one.number),
  );

/** The same for lines alone, numbered as they stand. */
export const interceptorCells = (grid: Grid, lines: readonly Line[]): Int16Array =>
  catchingOn(
    grid,
    lines.map((line, k) => ({ number: k + 1, line })),
  );

/** First interceptor each cell's water meets (its own included), 0 when it meets none: one pass down the receivers. */
export function firstInterceptor(flow: Flow, owner: Int16Array): Int16Array {
  const { order, receiver, ncols, jumps } = flow;
  const off = stepsOf(ncols);
  const label = new Int16Array(owner.length);
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k];
    const d = receiver[i];
    label[i] = owner[i] !== 0 ? owner[i] : d < 0 ? 0 : label[d === JUMPS ? (jumps.get(i) ?? i) : i + off[d]];
  }
  return label;
}

/**
 * The same as `firstInterceptor` written into `label`, where what catches water is another at some cells (`at`) than it was: only
 * these, and what runs to them, are looked at. What catches at each cell is given by `owner`.
 */
export function interceptedAgain(
  flow: Flow,
  label: Int16Array,
  { owner, at, mask }: { readonly owner: Int16Array; readonly at: Iterable<number>; readonly mask: Uint8Array },
): Renumbered {
  const { receiver, ncols, jumps } = flow;
  const off = stepsOf(ncols);
  const led = sourcesOf(jumps);
  const rewritten = new Rewritten(label, mask);
  const waiting = [...at];
  // Those above are looked at again whenever the one below them has changed: what is changed twice is right the last time.
  for (let i = waiting.pop(); i !== undefined; i = waiting.pop()) {
    const d = receiver[i];
    if (d <= NO_GROUND) continue;
    const now = owner[i] !== 0 ? owner[i] : d < 0 ? 0 : label[d === JUMPS ? (jumps.get(i) ?? i) : i + off[d]];
    if (now === label[i]) continue;
    rewritten.keep(i);
    label[i] = now;
    for (let k = 0; k < 8; k++) {
      const above = i + off[k];
      if (above >= 0 && above < receiver.length && receiver[above] === ((k + 4) & 7) && owner[above] === 0) waiting.push(above);
    }
    const from = led?.get(i);
    if (from) waiting.push(...from);
  }
  return rewritten.finish();
}
