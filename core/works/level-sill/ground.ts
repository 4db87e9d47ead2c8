import type { Host, Site } from '../../contract/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { type HostPlace, NOWHERE, placeOnHost } from '../on-host.ts';
import type { LevelSill } from './model.ts';

export interface SillGround extends HostPlace {
  readonly ends: readonly [Point, Point];
}

/** Place, natural ground and slope below a sill on its host's line; without a host it lies nowhere. */
export function measureSill({ atM, dimensions }: LevelSill, site: Pick<Site, 'grid'>, host: Host | null): SillGround {
  if (!host) return { ...NOWHERE, ends: [NOWHERE.at, NOWHERE.at] };
  const half = dimensions.lengthM / 2;
  return {
    ...placeOnHost(atM, site, { host, lengthM: dimensions.crestWidthM }),
    ends: [pointAlong(host.line, atM - half).point, pointAlong(host.line, atM + half).point],
  };
}
