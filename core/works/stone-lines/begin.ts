import type { Technique } from '../../contract/index.ts';
import { settleOnContour } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { begun, groundUnder, offTerrain } from '../beginning.ts';
import { rowsOver } from '../field/index.ts';
import { newLines } from './create.ts';
import type { StoneLines } from './model.ts';
import { spacingFor } from './formulas.ts';

const refused = (
  code: string,
  what: string,
  advice: string,
): { readonly ok: false; readonly problem: { readonly code: string; readonly what: string; readonly do: string } } => ({
  ok: false,
  problem: { code, what, do: advice },
});

/** Lines over a field, one on the contour, or one as it was drawn. */
export const beginLines: Technique<StoneLines, unknown>['begin'] = ({ how, points }, land) => {
  const [id, name] = [land.idFor('lines'), land.nameFor('Stone lines')];
  if (how === 'stone-lines') {
    const rows = rowsOver(points, land.grid, { apart: spacingFor });
    if (rows.length === 0) {
      return refused(
        'stone-lines.none',
        'no contour long enough runs through this field',
        'Draw round a larger piece of sloping ground inside the terrain; on flat ground water has nowhere to be slowed.',
      );
    }
    const apart = rows.length > 1 ? (rows[0].levelM - rows[rows.length - 1].levelM) / (rows.length - 1) : null;
    return {
      ok: true,
      works: [
        newLines(
          id,
          name,
          rows.map((r) => r.line),
        ),
      ],
      said:
        apart === null
          ? 'One line fits.'
          : say`${amount(rows.length, 'count')} lines along the contour, ${amount(apart, 'length')} of fall between them on average.`,
    };
  }
  if (!groundUnder(points, land)) return offTerrain('the line');
  if (how === 'stone-row') return begun(newLines(id, name, [points]));
  const settled = settleOnContour(land.grid, points);
  if (!settled.ok)
    return refused(
      'stone-lines.settle',
      'the ground there is too flat, or the line too short, to settle on a contour',
      'Start on sloping ground and draw along the slope, or draw it as it is to lie.',
    );
  return {
    ok: true,
    works: [newLines(id, name, [settled.line])],
    said: say`It settled on the ${amount(settled.levelM, 'level')} contour through your first point; your line moved ${amount(settled.movedM, 'distance')} at most.`,
  };
};
