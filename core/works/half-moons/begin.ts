import type { Technique } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { rowsOver } from '../field/index.ts';
import { FIRST, newMoons } from './create.ts';
import { type HalfMoons, countOf, pitchOf } from './model.ts';
import { basinAreaM2 } from './standing.ts';

/** Run-on ground for each part of planted ground that rows are first spaced by: what a crop asks is said later (common practice). */
const FIRST_RATIO = 3;
/** Too steep for any basin of earth [m/m]: common practice. */
const TOO_STEEP = 0.15;

/** Rows over a field, as far apart as basins with three parts of run-on ground to one of their own take. */
export const beginMoons: Technique<HalfMoons, unknown>['begin'] = ({ how, points }, land) => {
  const first = FIRST[how] ?? FIRST['half-moons'];
  const { dimensions } = first;
  // Pits are so small that as far between rows as within them feeds them well.
  const apart = Math.max(
    ((FIRST_RATIO + 1) * basinAreaM2(first)) / pitchOf({ dimensions }),
    first.form === 'pit' ? pitchOf({ dimensions }) : 0,
  );
  const rows = rowsOver(points, land.grid, { apart: () => apart, leastM: first.form === 'pit' ? 0 : 1.6 * dimensions.radiusM });
  const title = first.form === 'pit' ? 'Planting pits' : 'Half-moons';
  const refused = (code: string, what: string, advice: string) => ({ ok: false, problem: { code, what, do: advice } }) as const;
  const fits = rows.filter((row, k) => countOf({ rows: [row.line], dimensions }) > k % 2);
  if (fits.length === 0)
    return refused(
      'half-moons.none',
      'no row fits: no contour long enough runs through this field',
      'Draw round a larger piece of sloping ground inside the terrain.',
    );
  const steep = fits.reduce((a, r) => a + r.slope, 0) / fits.length;
  if (steep > TOO_STEEP)
    return {
      ok: false,
      problem: {
        code: 'half-moons.steep',
        what: say`this ground falls by ${amount(steep, 'slope')}: basins of earth hold to about ${amount(TOO_STEEP, 'slope')}, and well only to 5 %`,
        do: 'Choose gentler ground, or terraces.',
      },
    };
  const work = newMoons(land.idFor('moons'), land.nameFor(title), { ...first, rows: fits.map((r) => r.line) });
  return {
    ok: true,
    works: [work],
    said: say`${amount(countOf(work), 'count')} in ${amount(fits.length, 'count')} rows, ${amount(apart, 'length')} apart.`,
  };
};
