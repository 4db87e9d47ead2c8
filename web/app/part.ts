// A part of a large picture of levels, as it is drawn on an overview of it.
import type { Overview } from '#core/formats';
import { type Part, cellsWithin, extentOfCells, isTerrain, MAX_CELLS } from '#core/terrain';

export type Seen = Pick<Overview, 'cells' | 'metresPer'>;
/** A place on the overview, in shares of it from its north-western corner. */
export type Share = readonly [x: number, y: number];

const clamped = (share: number): number => Math.min(1, Math.max(0, share));

/** The part between two places of the overview. */
export function partBetween({ cells }: Pick<Seen, 'cells'>, [ax, ay]: Share, [bx, by]: Share): Part {
  const { west, south, east, north } = extentOfCells(cells);
  const [x1, x2] = [clamped(Math.min(ax, bx)), clamped(Math.max(ax, bx))];
  const [y1, y2] = [clamped(Math.min(ay, by)), clamped(Math.max(ay, by))];
  const [wide, high] = [east - west, north - south];
  return { west: west + x1 * wide, east: west + x2 * wide, north: north - y1 * high, south: north - y2 * high };
}

/** Where a part lies on the overview: its north-western and south-eastern corners. */
export function sharesOf({ cells }: Pick<Seen, 'cells'>, part: Part): readonly [Share, Share] {
  const { west, south, east, north } = extentOfCells(cells);
  const [wide, high] = [east - west, north - south];
  return [
    [clamped((part.west - west) / wide), clamped((north - part.north) / high)],
    [clamped((part.east - west) / wide), clamped((north - part.south) / high)],
  ];
}

/** Cells of a part. */
export function cellsIn({ cells }: Pick<Seen, 'cells'>, part: Part): number {
  const { ncols, nrows } = cellsWithin(cells, part).cells;
  return ncols * nrows;
}

/** How wide and high a part is on the ground [m]. */
export const sizeM = ({ metresPer: [x, y] }: Seen, { west, south, east, north }: Part): readonly [wide: number, high: number] => [
  x * (east - west),
  y * (north - south),
];

/** So much of a picture is asked for at first of what is too much as a whole: a little less than the most cells, so that no rounding goes past it. */
const [NEAR_MOST, NEAR_ALL] = [0.98, 0.9];

/** As large a part of its middle as can come in; less than all of it, where all of it is known to be too much once it is laid flat. */
export function partAtFirst({ cells }: Pick<Seen, 'cells'>): Part {
  const share = Math.min(NEAR_ALL, Math.sqrt((NEAR_MOST * MAX_CELLS) / (cells.ncols * cells.nrows)));
  return partBetween({ cells }, [(1 - share) / 2, (1 - share) / 2], [(1 + share) / 2, (1 + share) / 2]);
}

/** Whether a part can be brought in. */
export const canComeIn = ({ cells }: Pick<Seen, 'cells'>, part: Part): boolean => isTerrain(cellsWithin(cells, part).cells);

/** A part moved by shares of the overview, as far as it stays within it. */
export function moved(seen: Seen, part: Part, [dx, dy]: Share): Part {
  const [[x1, y1], [x2, y2]] = sharesOf(seen, part);
  const [x, y] = [Math.min(1 - x2, Math.max(-x1, dx)), Math.min(1 - y2, Math.max(-y1, dy))];
  return partBetween(seen, [x1 + x, y1 + y], [x2 + x, y2 + y]);
}
