// Corners of what was drawn, moved by hand: what stands along the line goes with its stretch of it.
import type { CornersSpec, WorkBase } from '../contract/index.ts';
import { type Line, type Point, distance, lineLength } from '../geometry/index.ts';
import { valueAt } from './fields.ts';

/** One corner: the member whose line or ring it is of, and its place in that. */
export interface Corner {
  readonly path: string;
  readonly k: number;
  readonly at: Point;
}

const lineAt = (work: WorkBase, path: string): Line => (valueAt(work, path) ?? []) as Line;

/** All corners of a work that may be moved, in the order they were drawn. */
export const cornersOf = (work: WorkBase, { paths }: CornersSpec): readonly Corner[] =>
  paths.flatMap((path) => lineAt(work, path).map((at, k) => ({ path, k, at })));

/** Where each corner lies along its line [m]. */
function alongOf(line: Line): number[] {
  let sum = 0;
  return line.map((at, k) => (sum += k === 0 ? 0 : distance(line[k - 1], at)));
}

/** A distance along a line as it is once that has been moved: it keeps its share of the stretch it lies on. */
export function keptAlong(before: Line, after: Line, atM: number): number {
  const [was, is] = [alongOf(before), alongOf(after)];
  const found = was.findIndex((v) => v >= atM - 1e-9);
  // Distances are kept to the millimetre: what stands at the end may lie a hair beyond it.
  const k = found < 0 ? was.length - 1 : Math.max(1, found);
  const share = was[k] > was[k - 1] ? (atM - was[k - 1]) / (was[k] - was[k - 1]) : 0;
  return is[k - 1] + Math.min(1, share) * (is[k] - is[k - 1]);
}

const toMm = (v: number): number => Math.round(1000 * v) / 1000;

/** What a corner that is moved changes, by path: its line, and all that stands along it. */
export function movedCorner(
  work: WorkBase,
  { along = [] }: CornersSpec,
  { path, k, to }: { readonly path: string; readonly k: number; readonly to: Point },
): Readonly<Record<string, unknown>> {
  const before = lineAt(work, path);
  const after = before.map((at, n) => (n === k ? ([toMm(to[0]), toMm(to[1])] as const) : at));
  const set: Record<string, unknown> = { [path]: after };
  const lastM = Math.floor(1000 * lineLength(after)) / 1000;
  for (const list of along)
    ((valueAt(work, list) ?? []) as readonly { readonly atM: number }[]).forEach(({ atM }, n) => {
      set[`${list}.${n}.atM`] = Math.min(toMm(keptAlong(before, after, atM)), lastM);
    });
  return set;
}
