import type { Technique } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { measureWall } from '../basin/index.ts';
import { begun, groundUnder, mm, offTerrain } from '../beginning.ts';
import { ENDS_M, newWeir } from './create.ts';
import { channelUnder } from './ground.ts';
import type { Weir } from './model.ts';

/** Height of a first notch over the bed, and bank left above its ends [m] (common practice). */
const [FIRST_HIGH_M, BANK_LEFT_M] = [1, 0.1];
/** A channel this shallow is none [m]. */
const LEAST_DEEP_M = 0.7;

/** A weir of baskets over the middle of the bed, no higher than its banks let it be. */
export const beginWeir: Technique<Weir, unknown>['begin'] = ({ points }, land) => {
  if (!groundUnder(points, land)) return offTerrain('the weir');
  const ground = measureWall(land.grid, points);
  const { bedM, depthM, middleM, widthM } = channelUnder(ground);
  if (depthM < LEAST_DEEP_M) {
    return {
      ok: false,
      problem: {
        code: 'weir.no-channel',
        what: say`the ground under this line is cut ${amount(depthM, 'length')} deep: a weir needs ${amount(LEAST_DEEP_M, 'length')}`,
        field: 'line',
        do: 'Draw it across the gully where it is deeper, from bank to bank; in a shallow channel check dams do.',
      },
    };
  }
  const highM = mm(Math.min(FIRST_HIGH_M, depthM - ENDS_M - BANK_LEFT_M));
  const reach = Math.min(middleM, ground.lengthM - middleM);
  const bedWidthM = Math.max(0.5, Math.floor(10 * Math.min(widthM, 2 * reach)) / 10);
  return begun(newWeir(land.idFor('weir'), land.nameFor('Weir'), { line: points, bedM, highM, notchAtM: middleM, bedWidthM }));
};
