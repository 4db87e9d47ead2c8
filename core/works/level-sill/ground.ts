import type { Host, Site } from '../../contract/index.ts';
import { type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import type { LevelSill } from './model.ts';

/** How far below the sill the slope of the ground is taken [m]. */
const REACH_M = 10;

export interface SillGround {
  readonly at: Point;
  readonly ends: readonly [Point, Point];
  readonly hostLengthM: number;
  /** Natural ground at the sill; null off the terrain. */
  readonly groundM: number | null;
  /** Where its water reaches the ground beyond the crest. */
  readonly dischargeAt: Point;
  readonly slopeBelow: number;
}

/** Place, natural ground and slope below a sill on its host's line; without a host it lies nowhere. */
export function measureSill(sill: LevelSill, { grid }: Pick<Site, 'grid'>, host: Host | null): SillGround {
  if (!host) {
    return {
      at: [0, 0],
      ends: [
        [0, 0],
        [0, 0],
      ],
      hostLengthM: 0,
      groundM: null,
      dischargeAt: [0, 0],
      slopeBelow: 0,
    };
  }
  const half = sill.dimensions.lengthM / 2;
  const { point: at } = pointAlong(host.line, sill.atM);
  const [dx, dy] = host.downhillAt(sill.atM);
  const below = (m: number): Point => [at[0] + dx * m, at[1] + dy * m];
  const dischargeAt = below(sill.dimensions.crestWidthM + grid.cellM);
  const fall = levelAt(grid, below(1)) - levelAt(grid, below(1 + REACH_M));
  return {
    at,
    ends: [pointAlong(host.line, sill.atM - half).point, pointAlong(host.line, sill.atM + half).point],
    hostLengthM: lineLength(host.line),
    groundM: host.groundAt(sill.atM),
    dischargeAt,
    slopeBelow: Number.isNaN(fall) ? 0 : Math.max(0, fall / REACH_M),
  };
}
