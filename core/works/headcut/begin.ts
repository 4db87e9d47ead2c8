import type { Technique } from '../../contract/index.ts';
import { lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { begun, groundUnder, offTerrain } from '../beginning.ts';
import { newHead } from './create.ts';
import { measureHead } from './ground.ts';
import type { Headcut } from './model.ts';

/** Less is no head [m]. */
const LEAST_DROP_M = 0.3;

/** The lip as drawn, its drop by the ground below it; nothing is done about it yet. */
export const beginHead: Technique<Headcut, unknown>['begin'] = ({ points }, land) => {
  if (!groundUnder(points, land)) return offTerrain('the lip');
  const { lipM, foot } = measureHead(points, land);
  const dropM = foot ? lipM - foot.levelM : null;
  if (!foot || dropM === null || dropM < LEAST_DROP_M) {
    return {
      ok: false,
      problem: {
        code: 'headcut.no-drop',
        what:
          dropM === null
            ? 'the ground below this line is not known'
            : say`below this line the ground drops ${amount(Math.max(0, dropM), 'length')}: a head of a gully drops ${amount(LEAST_DROP_M, 'length')} at the least`,
        field: 'line',
        do: 'Draw it along the lip, where the ground breaks off; where the map is too coarse to show it, survey lip and foot first.',
      },
    };
  }
  const widthM = Math.max(1, Math.round(10 * lineLength(points)) / 10);
  return begun(newHead(land.idFor('head'), land.nameFor('Gully head'), { line: points, lipM, footM: foot.levelM, widthM }));
};
