// Ground nobody knows: off the terrain, or where it has no data. A work on it is shown and named, and nothing is computed of it.
import { type Line, evenlyAlong, lineLength } from '../geometry/index.ts';
import { type Grid, extentOf, levelAt } from '../terrain/index.ts';
import { type Said, amount, say } from '../units/index.ts';

/** Thrown where a work is measured on ground that is not known. */
export class UnknownGround extends Error {
  readonly said: Said;
  constructor(said: Said) {
    super('unknown ground');
    this.name = 'UnknownGround';
    this.said = said;
  }
}

/** A part of a line without ground under it, by distances along it [m]. */
export interface Stretch {
  readonly fromM: number;
  readonly toM: number;
}

export interface Footing {
  readonly lengthM: number;
  /** Parts without known ground; a gap of a cell or two between known ground is bridged and not among them. */
  readonly unknown: readonly Stretch[];
  readonly bridgedM: number;
  /** From the nearest place of the line to the edge of the terrain [m]; 0 where some of it lies within. */
  readonly offM: number;
}

const MOST_STATIONS = 2000;
/** Cells in a row without data that are bridged between ground that is known: what a survey loses to a bush. */
const BRIDGED_CELLS = 2;

/** How far a point lies outside the terrain's frame [m]. */
function outsideM(grid: Grid, [x, y]: readonly [number, number]): number {
  const [west, south, east, north] = extentOf(grid);
  return Math.hypot(Math.max(west - x, 0, x - east), Math.max(south - y, 0, y - north));
}

/** What is known of the ground under a line. */
export function footingOf(line: Line, grid: Grid): Footing {
  const lengthM = lineLength(line);
  const count = Math.min(MOST_STATIONS, Math.max(4, Math.ceil((2 * lengthM) / grid.cellM)));
  const stepM = lengthM / count;
  const places = evenlyAlong(line, count);
  const isKnown = places.map((at) => !Number.isNaN(levelAt(grid, at)));
  const unknown: Stretch[] = [];
  let bridgedM = 0;
  for (let i = 0; i <= count; i++) {
    if (isKnown[i]) continue;
    let last = i;
    while (last < count && !isKnown[last + 1]) last++;
    const stretch = { fromM: Math.max(0, (i - 0.5) * stepM), toM: Math.min(lengthM, (last + 0.5) * stepM) };
    const isInside = i > 0 && last < count;
    if (isInside && stretch.toM - stretch.fromM <= BRIDGED_CELLS * grid.cellM * Math.SQRT2) bridgedM += stretch.toM - stretch.fromM;
    else unknown.push(stretch);
    i = last;
  }
  return { lengthM, unknown, bridgedM, offM: Math.min(...places.map((at) => outsideM(grid, at))) };
}

/** Where a line has no ground under it, in words; null where all of it is known. */
export function unknownUnder({ lengthM, unknown, offM }: Footing): Said | null {
  if (unknown.length === 0) return null;
  const missing = unknown.reduce((sum, { fromM, toM }) => sum + toM - fromM, 0);
  if (missing >= lengthM - 1e-6)
    return offM > 0 ? say`Off the terrain, ${amount(offM, 'distance')} beyond its edge` : 'On ground the terrain has no level for';
  const parts = unknown.slice(0, 3).map(({ fromM, toM }) => say`${amount(fromM, 'length')} to ${amount(toM, 'length')}`);
  const list = parts.reduce((all, part) => say`${all}, ${part}`);
  return say`Partly off the known ground: from ${list} along it no level is known`;
}
