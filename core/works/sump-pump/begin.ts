import type { Technique } from '../../contract/index.ts';
import { distance, lineLength } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { groundUnder, mm, offTerrain } from '../beginning.ts';
import { newSump } from './create.ts';
import type { Sump } from './model.ts';

/** A pit so deep under its lowest pipe, or under the ground where none comes in; of that so much for silt, and so much between start and stop [m]. */
const [UNDER_PIPE_M, DEEP_M, SILT_M, BETWEEN_M] = [0.75, 1.2, 0.2, 0.45];
/** Its rim stands proud of the ground, a grate in it; its pipe rises over the ground it crosses [m]. */
const [UNDER_GROUND_M, OVER_GROUND_M] = [0.02, 0.1];
/** So near to the end of a drain it is that drain's [m]. */
const NEAR_M = 4;

/** A pit deep enough for what comes in, and a pipe over the highest ground on its way. */
export const beginSump: Technique<Sump, unknown>['begin'] = ({ points }, land) => {
  const ground = groundUnder(points, land);
  if (!ground) return offTerrain('the sump or its pipe');
  const [at] = points;
  const rimM = levelAt(land.grid, at) - UNDER_GROUND_M;
  // Of drains, the one whose lowest shaft is nearest: what it brings comes in at its end.
  const drain = (land.waters ?? [])
    .flatMap((w) => (w.shafts && Math.min(...w.lines.map((l) => distance(l[l.length - 1], at))) < NEAR_M ? [w] : []))
    .sort((a, b) => a.floorM - b.floorM)[0];
  const inletM = drain ? mm(drain.floorM) : undefined;
  const floorM = inletM === undefined ? rimM - DEEP_M : inletM - UNDER_PIPE_M;
  const stopM = floorM + SILT_M;
  const work = newSump(land.idFor('sump-pump'), land.nameFor('Sump'), {
    line: points,
    levels: { floorM: mm(floorM), stopM: mm(stopM), startM: mm(stopM + BETWEEN_M), rimM: mm(rimM), deliveryM: mm(Math.max(...ground) + OVER_GROUND_M) },
    lengthM: mm(lineLength(points) + DEEP_M),
    ...(inletM === undefined ? {} : { inletM }),
  });
  return {
    ok: true,
    works: [work],
    said: say`Its pit is ${amount(rimM - floorM, 'length')} deep, its pump lifts ${amount(work.flowM3s, 'tapFlow')}${drain ? `; ${drain.name} comes in where it ends: lead it here` : ''}. Mains that go are counted on: it stands still then.`,
  };
}; // prettier-ignore
