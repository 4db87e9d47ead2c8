import type { Line } from '../../geometry/index.ts';
import { mm } from '../beginning.ts';
import type { Pond } from './model.ts';

/** A pond to begin with, of common practice, its levels set against the ground it was drawn on. */
export function newPond(
  id: string,
  name: string,
  on: { readonly wall?: Line; readonly pit?: Line; readonly crestM: number; readonly floorM: number },
): Pond {
  return {
    id,
    kind: 'pond',
    name,
    status: 'planned',
    ...(on.wall ? { wall: on.wall } : {}),
    ...(on.pit ? { pit: on.pit } : {}),
    borrow: 'inside',
    levels: { crestM: mm(on.crestM), floorM: mm(on.floorM) },
    dimensions: { topWidthM: 2.5, waterSlopeHV: 3, backSlopeHV: 2, keyDepthM: 0.8, keyWidthM: 2.4, stripM: 0.15, pitSlopeHV: 2 },
    settlementPercent: 5,
    seepageMmPerDay: 3,
    evaporationMmPerDay: 4,
  };
}
