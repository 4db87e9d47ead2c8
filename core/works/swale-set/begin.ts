import type { Begun, Land, Technique } from '../../contract/index.ts';
import { type Line, middleOf } from '../../geometry/index.ts';
import { type Said, amount, say } from '../../units/index.ts';
import { type FieldRow, rowsOver } from '../field/index.ts';
import { waterSection } from '../trough.ts';
import { newSet } from './create.ts';
import { STORAGE_APART, apartByInterval } from './formulas.ts';
import type { SwaleSet } from './model.ts';

const WAYS: Readonly<Record<string, SwaleSet['by']>> = {
  'swales-interval': 'interval',
  'swales-even': 'even',
  'swales-storage': 'storage',
};
/** Ground above each where all have as much [m]; no swale lies nearer to the next, or further, than these [m]; none on steeper ground. */
const [EVEN_M, NEAREST_M, FURTHEST_M, STEEPEST] = [12, 5, 80, 0.25];
/** The shape all are begun with. */
const SHAPE = newSet('shape', 'shape', { lines: [], by: 'interval' }).dimensions;

const refused = (code: string, what: Said, advice: string): Begun => ({ ok: false, problem: { code, what, do: advice } });

/** How far apart along the ground, by its slope; null where nobody knows what runs off. */
function apartFor(by: SwaleSet['by'], ring: Line, land: Land): ((slope: number) => number) | null {
  if (by === 'even') return () => EVEN_M;
  const within = (m: number): number => Math.min(FURTHEST_M, Math.max(NEAREST_M, m));
  if (by === 'interval') return (slope) => within(apartByInterval(slope));
  const Q = land.runsMm?.(middleOf(ring)) ?? null;
  if (Q === null) return null;
  const section = { ...SHAPE, lipDepthM: SHAPE.depthM };
  return (slope) =>
    within(
      Q > 0
        ? STORAGE_APART.evaluate({ A: waterSection({ ...section, crossSlope: slope }, SHAPE.depthM + SHAPE.spillM).areaM2, Q })
        : FURTHEST_M,
    );
}

const fallBetween = (rows: readonly FieldRow[]): number => (rows[0].levelM - rows[rows.length - 1].levelM) / (rows.length - 1);

/** Swales over a field, laid apart by one of three rules. */
export const beginSet: Technique<SwaleSet, unknown>['begin'] = ({ how, points }, land) => {
  const by = WAYS[how] ?? 'interval';
  const apart = apartFor(by, points, land);
  if (!apart)
    return refused(
      'swale-set.unknown',
      'nobody knows yet what runs off this field',
      'Give the rain and describe the ground first, or lay them by the fall between them.',
    );
  const rows = rowsOver(points, land.grid, { apart, leastM: NEAREST_M });
  if (rows.length === 0)
    return refused(
      'swale-set.none',
      'no contour long enough runs through this field',
      'Draw round a larger piece of sloping ground inside the terrain; flat ground needs no swale.',
    );
  const steepest = rows.reduce((a, r) => Math.max(a, r.slope), 0);
  if (steepest > STEEPEST)
    return refused(
      'swale-set.steep',
      say`the ground there falls ${amount(steepest, 'slope')}: banks on it slide, and hold little`,
      'Draw gentler ground, or lay terraces or lines of stone there.',
    );
  const work = newSet(land.idFor('set'), land.nameFor('Swales'), { lines: rows.map((r) => r.line), by });
  return {
    ok: true,
    works: [work],
    said:
      rows.length === 1
        ? 'One swale fits.'
        : say`${amount(rows.length, 'count')} swales along the contour, ${amount(fallBetween(rows), 'length')} of fall between them on average.`,
  };
};
