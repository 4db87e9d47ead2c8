import type { Built } from '../../contract/index.ts';
import { type Line, closed, contains, nearestOnLine } from '../../geometry/index.ts';
import { boxAround, seenFrom, sideUp } from '../built.ts';
import type { Earthwork } from './earthwork.ts';
import type { BasinGround } from './ground.ts';

type LevelAt = Built['levelAt'];

/** A wall over whatever ground there is, its water side as flat as it is drawn. */
function walled({ levels, dimensions }: Earthwork, line: Line, waterSide: 1 | -1): LevelAt {
  const { topWidthM, waterSlopeHV, backSlopeHV } = dimensions;
  const see = seenFrom(line);
  return (at, { madeM }) => {
    const { asideM, beyondM } = see(at);
    const slope = asideM * waterSide > 0 ? waterSlopeHV : backSlopeHV;
    return Math.max(madeM, levels.crestM - Math.max(sideUp(Math.abs(asideM) - topWidthM / 2, slope), sideUp(beyondM, backSlopeHV)));
  };
}

/** A pit from the ground at its edge down to its floor. */
function dug({ levels, dimensions }: Earthwork, pit: Line): LevelAt {
  const ring = closed(pit);
  return (at, { groundM, madeM }) => {
    if (!contains(pit, at)) return madeM;
    const downM = sideDown(nearestOnLine(at, ring).distanceM, dimensions.pitSlopeHV);
    return Math.min(madeM, Math.max(levels.floorM, groundM - downM));
  };
}

/** How deep a side runs down so far in from its edge. */
const sideDown = (inM: number, sideHV: number): number => (sideHV > 0 ? inM / sideHV : Infinity);

/** Below a wall the ground may fall away: its foot lies so many times farther out than on level ground, at most. */
const STEEPER = 3;

/** The pit and the wall as they are made; earth beside it is not heaped up anywhere. */
export function basinBuilt(work: Earthwork, { wall, bottomM }: BasinGround): Built {
  const { topWidthM, waterSlopeHV, backSlopeHV } = work.dimensions;
  const footM = wall ? topWidthM / 2 + STEEPER * Math.max(waterSlopeHV, backSlopeHV) * Math.max(0, work.levels.crestM - bottomM) : 0;
  const parts = [...(work.pit ? [dug(work, work.pit)] : []), ...(wall && work.wall ? [walled(work, work.wall, wall.waterSide)] : [])];
  return {
    box: boxAround([...(work.pit ?? []), ...(work.wall ?? [])], footM + 1),
    levelAt: (at, { groundM, madeM }) => parts.reduce((level, part) => part(at, { groundM, madeM: level }), madeM),
  };
}
