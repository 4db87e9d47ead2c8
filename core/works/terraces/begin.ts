import type { Begun, Technique } from '../../contract/index.ts';
import { settleOnContour } from '../../terrain/index.ts';
import { type Said, amount, say } from '../../units/index.ts';
import { groundUnder, offTerrain } from '../beginning.ts';
import { riseAcross, rowsOver } from '../field/index.ts';
import { FIRST_BENCH_M, FIRST_RISER_HV, newTerraces } from './create.ts';
import { BENCH_RISE } from './formulas.ts';
import type { Terraces } from './model.ts';

/** Steeper ground holds no bench that anybody builds without being asked to [m/m]: 25 degrees (common practice). */
const STEEPEST = 0.5;
/** From one bench to the next along the ground, level, at a slope [m]. */
const apartOn = (slope: number): number =>
  FIRST_BENCH_M + FIRST_RISER_HV * BENCH_RISE.evaluate({ S: slope, Wb: FIRST_BENCH_M, U: FIRST_RISER_HV, i: LEVEL });
const LEVEL = 0;

const refused = (code: string, what: Said, advice: string): Begun => ({ ok: false, problem: { code, what, do: advice } });

const tooSteep = (slope: number): Begun =>
  refused(
    'terraces.steep',
    say`the ground there falls ${amount(slope, 'slope')}: benches so narrow between walls so high do not stand`,
    'Leave it to trees and stone lines, or draw gentler ground.',
  );

/** Benches over a slope, or one on the contour. */
export const beginTerraces: Technique<Terraces, unknown>['begin'] = ({ how, points }, land) => {
  const [id, name] = [land.idFor('terraces'), land.nameFor('Terraces')];
  if (how === 'terraces') {
    const rows = rowsOver(points, land.grid, { apart: apartOn, leastM: FIRST_BENCH_M });
    if (rows.length === 0)
      return refused(
        'terraces.none',
        'no contour long enough runs through this ground',
        'Draw round a larger piece of sloping ground inside the terrain; flat ground needs no terrace.',
      );
    const steepest = rows.reduce((a, r) => Math.max(a, r.slope), 0);
    if (steepest > STEEPEST) return tooSteep(steepest);
    const mean = rows.reduce((a, r) => a + r.slope, 0) / rows.length;
    return {
      ok: true,
      works: [newTerraces(id, name, rows.map((r) => r.line))], // prettier-ignore
      said: say`${amount(rows.length, 'count')} benches along the contour on ground of ${amount(mean, 'slope')}, ${amount(apartOn(mean), 'length')} from one to the next.`,
    };
  }
  if (!groundUnder(points, land)) return offTerrain('the terrace');
  const settled = settleOnContour(land.grid, points);
  if (!settled.ok)
    return refused('terraces.settle', 'the ground there is too flat, or the line too short, to settle on a contour', 'Start on sloping ground and draw along the slope.'); // prettier-ignore
  const rise = riseAcross(settled.line, land.grid);
  if (rise !== null && Math.abs(rise) > STEEPEST) return tooSteep(Math.abs(rise));
  return {
    ok: true,
    works: [newTerraces(id, name, [rise !== null && rise > 0 ? [...settled.line].reverse() : settled.line])],
    said: say`It settled on the ${amount(settled.levelM, 'level')} contour through your first point; your line moved ${amount(settled.movedM, 'distance')} at most.`,
  };
};
