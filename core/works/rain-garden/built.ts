// Basins as they are dug: a round floor, its sides, the bank round it where the ground is lower, and the rock left open in that.
import type { Built } from '../../contract/index.ts';
import { boxAround, builtTogether, runsOut, sideUp } from '../built.ts';
import type { RainGarden } from './model.ts';
import type { Basin } from './standing.ts';

/** As far from a basin as its sides are followed, where the ground is far above or below it [m]. */
const FARTHEST_M = 20;

function basinBuilt({ dimensions }: RainGarden, { at: [x0, y0], lets, radiusM, floorM, overflowM, groundM }: Basin): Built {
  const { pondM, bermM, sideHV, rockWidthM } = dimensions;
  const under = radiusM - sideHV * pondM;
  const [crestM, crestAwayM] = [overflowM + bermM, radiusM + sideHV * bermM];
  const [dx, dy] = [lets[0] - x0, lets[1] - y0];
  const toward = Math.max(1e-9, Math.hypot(dx, dy));
  const outM = runsOut(sideHV * Math.max(bermM + pondM, Math.abs(groundM - floorM)), { sideHV, slope: 0 });
  return {
    box: boxAround([[x0, y0]], crestAwayM + Math.min(FARTHEST_M, outM) + 1),
    levelAt: ([x, y], { groundM: naturalM, madeM }) => {
      const awayM = Math.hypot(x - x0, y - y0);
      const risesTo = floorM + sideUp(awayM - under, sideHV);
      const bankM = crestM - sideUp(awayM - crestAwayM, sideHV);
      // Inside of its crest the ground is cut and heaped up alike; outside both sides run out to it.
      const level = awayM <= crestAwayM ? risesTo : Math.min(Math.max(madeM, bankM), risesTo);
      const [alongM, asideM] = [((x - x0) * dx + (y - y0) * dy) / toward, Math.abs((x - x0) * dy - (y - y0) * dx) / toward];
      const isRock = alongM > 0 && asideM <= rockWidthM / 2 && awayM > radiusM;
      return isRock && level > overflowM ? Math.min(level, Math.max(naturalM, overflowM)) : level;
    },
  };
}

/** All basins, the first that is let in first. */
export const gardenBuilt = (work: RainGarden, basins: readonly Basin[]): Built =>
  builtTogether(basins.map((basin) => basinBuilt(work, basin)));
