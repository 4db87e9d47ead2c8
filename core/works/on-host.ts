// A way out at a place along its host's line: what the ground is like there and below.
import type { FieldSpec, Host, PegDraft, Problem, Site } from '../contract/index.ts';
import { type Point, lineLength, pointAlong } from '../geometry/index.ts';
import { levelAt } from '../terrain/index.ts';

/** How far below a way out the slope of the ground is taken [m]. */
const REACH_M = 10;

export interface HostPlace {
  readonly at: Point;
  readonly hostLengthM: number;
  /** Natural ground at the place; null off the terrain. */
  readonly groundM: number | null;
  /** Where its water reaches the ground beyond the crest. */
  readonly dischargeAt: Point;
  /** Slope of the ground there, never under level; null where it is not known. */
  readonly slopeBelow: number | null;
}

export const NOWHERE: HostPlace = { at: [0, 0], hostLengthM: 0, groundM: null, dischargeAt: [0, 0], slopeBelow: null };

/** Place and ground `lengthM` beyond a host's line; without a host it lies nowhere. */
export function placeOnHost(
  atM: number,
  { grid }: Pick<Site, 'grid'>,
  on: { readonly host: Host | null; readonly lengthM: number },
): HostPlace {
  const { host, lengthM } = on;
  if (!host) return NOWHERE;
  const { point: at } = pointAlong(host.line, atM);
  const [dx, dy] = host.downhillAt(atM);
  const below = (m: number): Point => [at[0] + dx * m, at[1] + dy * m];
  const fall = levelAt(grid, below(lengthM)) - levelAt(grid, below(lengthM + REACH_M));
  return {
    at,
    hostLengthM: lineLength(host.line),
    groundM: host.groundAt(atM),
    dischargeAt: below(lengthM + grid.cellM),
    slopeBelow: Number.isNaN(fall) ? null : Math.max(0, fall / REACH_M),
  };
}

/** Place along the host's line, as every way out has it. */
export const AT_FIELD: FieldSpec = {
  path: 'atM',
  label: 'Place along its host',
  kind: 'length',
  min: 0,
  max: 20_000,
  help: 'Middle of it, from the start of the host’s line.',
};

/** A way out that belongs to nothing. */
export function checkHost(work: { readonly name: string; readonly host?: unknown }): Problem[] {
  if (typeof work.host === 'string' && work.host !== '') return [];
  return [
    { code: 'work.host', what: `"${work.name}" belongs to no work`, field: 'host', do: 'Give the id of the work it lets water out of.' },
  ];
}

/** A peg at a place on a host's line; none off the terrain. */
export function pegAt({ at, groundM }: HostPlace, peg: Pick<PegDraft, 'name' | 'role' | 'levelM'>): PegDraft[] {
  return groundM === null ? [] : [{ ...peg, x: at[0], y: at[1], groundM }];
}
