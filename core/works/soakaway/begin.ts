import type { Technique } from '../../contract/index.ts';
import { type Line, type Point } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { begun, groundUnder, offTerrain } from '../beginning.ts';
import { LED_M, newSoakaway } from './create.ts';
import type { Soakaway } from './model.ts';

const FORMS: Readonly<Record<string, readonly [Soakaway['form'], string]>> = {
  'soak-trench': ['trench', 'Soak trench'],
  'soak-pit': ['pit', 'Soak pit'],
  'soak-shaft': ['shaft', 'Recharge shaft'],
};
/** A trench lies level: more fall than this along it leaves its upper end without water [m]. */
const MOST_FALL_M = 1;

/** Along the slope through a place, so that what comes down is led to it. */
function alongSlope([x, y]: Point, levelOf: (at: Point) => number): Line {
  const reach = LED_M / 2;
  const [ex, ey] = [levelOf([x + reach, y]) - levelOf([x - reach, y]), levelOf([x, y + reach]) - levelOf([x, y - reach])];
  const steep = Math.hypot(ex, ey);
  const [dx, dy] = steep > 1e-6 ? [-ey / steep, ex / steep] : [1, 0];
  return [
    [x - dx * reach, y - dy * reach],
    [x + dx * reach, y + dy * reach],
  ];
}

/** A trench as it was drawn, or a pit or shaft where it was clicked. */
export const beginSoakaway: Technique<Soakaway, unknown>['begin'] = ({ how, points }, land) => {
  const [form, title] = FORMS[how] ?? FORMS['soak-trench'];
  const line = form === 'trench' ? points : alongSlope(points[0], (at) => levelAt(land.grid, at));
  const ground = groundUnder(line, land);
  if (!ground) return offTerrain('the soakaway');
  const fall = Math.max(...ground) - Math.min(...ground);
  if (form === 'trench' && fall > MOST_FALL_M) {
    return {
      ok: false,
      problem: {
        code: 'soakaway.falls',
        what: say`the ground along the trench falls ${amount(fall, 'length')}: water would stand in its lower end alone`,
        field: 'line',
        do: 'Draw it along the slope, or several short ones one below the other.',
      },
    };
  }
  return begun(newSoakaway(land.idFor('soakaway'), land.nameFor(title), { form, line }));
};
