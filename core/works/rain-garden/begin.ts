import type { Technique } from '../../contract/index.ts';
import { distance } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { begun, groundUnder, mm, offTerrain } from '../beginning.ts';
import { FIRST_AREA_M2, newGarden } from './create.ts';
import type { GardenBasin, RainGarden } from './model.ts';

/** Each this much lower than the last [m] (common practice), and the largest it is begun with beside its neighbours. */
const STEP_M = 0.05;
/** Ground left between two basins [m]. */
const BETWEEN_M = 0.6;

/** One basin for each place drawn but the last, which is where the chain lets go. */
export const beginGarden: Technique<RainGarden, unknown>['begin'] = ({ points }, land) => {
  if (!groundUnder(points, land)) return offTerrain('the garden');
  const grounds = points.map((p) => levelAt(land.grid, p));
  const rises = grounds.findIndex((g, k) => k > 0 && g > grounds[k - 1] + STEP_M);
  if (rises > 0) {
    return {
      ok: false,
      problem: {
        code: 'rain-garden.rises',
        what: say`place ${amount(rises + 1, 'count')} lies ${amount(grounds[rises] - grounds[rises - 1], 'length')} higher than the one before it`,
        field: 'line',
        do: 'Click the highest first, each next one lower.',
      },
    };
  }
  const basins: GardenBasin[] = [];
  for (let k = 0; k + 1 < points.length; k++) {
    // As large as its neighbours leave room for.
    const room = Math.min(...[points[k - 1], k + 2 < points.length ? points[k + 1] : undefined].flatMap((p) => (p ? [distance(points[k], p)] : [])), Infinity); // prettier-ignore
    const radius = Math.min(Math.sqrt(FIRST_AREA_M2 / Math.PI), Math.max(0.8, (room - BETWEEN_M) / 2));
    const above = basins[k - 1]?.overflowM ?? Infinity;
    basins.push({ areaM2: Math.floor(10 * Math.PI * radius * radius) / 10, overflowM: mm(Math.min(grounds[k], above - STEP_M)) });
  }
  return begun(newGarden(land.idFor('garden'), land.nameFor('Rain garden'), { line: points, basins }));
};
