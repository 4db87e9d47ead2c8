import type { Begun, Technique } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { groundUnder, offTerrain } from '../beginning.ts';
import { keyContour, riseAcross } from '../field/index.ts';
import { newRipping } from './create.ts';
import { slotLines } from './lines.ts';
import type { Ripping } from './model.ts';

/** A pattern beside a line reaches so far up and down at first [m]. */
const REACH_M = 20;

const begun = (work: Ripping): Begun => {
  const lines = slotLines(work);
  return {
    ok: true,
    works: [work],
    said: say`${amount(lines.length, 'count')} lines, ${amount(lines.reduce((a, l) => a + lineLength(l), 0), 'distance')} of slots.`, // prettier-ignore
  };
};

/** As far from a line as the ring goes, to be cut off by the ring itself [m]. */
const across = (ring: Line): number => {
  const [xs, ys] = [ring.map((p) => p[0]), ring.map((p) => p[1])];
  return Math.ceil(Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)));
};

/** Slots over a field beside the contour through its middle, or beside a line as it was drawn. */
export const beginRipping: Technique<Ripping, unknown>['begin'] = ({ how, points }, land) => {
  const [id, name] = [land.idFor('ripping'), land.nameFor('Ripping')];
  if (how === 'rip-line') {
    if (!groundUnder(points, land)) return offTerrain('the key line');
    const rise = riseAcross(points, land.grid);
    return begun(newRipping(id, name, { line: rise !== null && rise > 0 ? [...points].reverse() : points, reachM: REACH_M }));
  }
  if (!groundUnder([...points, points[0]], land)) return offTerrain('the field');
  const line = keyContour(points, land.grid);
  if (!line)
    return {
      ok: false,
      problem: {
        code: 'ripping.none',
        what: 'no contour long enough runs through this field',
        do: 'Draw round a larger piece of sloping ground, or draw the key line yourself.',
      },
    };
  return begun(newRipping(id, name, { line, ring: points, reachM: Math.min(160, across(points)) }));
};
