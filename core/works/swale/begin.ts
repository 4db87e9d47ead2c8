import type { DrawSpec, Technique } from '../../contract/index.ts';
import { lineLength } from '../../geometry/index.ts';
import { settleOnContour } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { newSwale } from './create.ts';
import type { Swale } from './model.ts';

const WHY = {
  'off-terrain': 'the first point is off the terrain',
  flat: 'the ground at the first point is too flat to have a contour',
  'too-short': 'the line is too short to settle on a contour',
} as const;

/** How far in from its end a first sill stands [m]. */
const SILL_IN_M = 4;

export const [SWALE_SAMPLE] = newSwale({ swale: 'swale', sill: 'sill' }, 'Swale', {
  line: [
    [0, 0],
    [60, 0],
  ],
  levelM: 100,
  sillAtM: 56,
});

export const SWALE_DRAWS: readonly DrawSpec[] = [
  {
    id: 'swale',
    name: 'Draw a swale',
    what: 'line',
    least: 2,
    hint: 'Click along the slope, double-click to end. It settles on the contour through the first point.',
    isFirst: true,
  },
];

/** A swale drawn roughly, settled on the contour through its first point, with its sill near its end. */
export const beginSwale: Technique<Swale, unknown>['begin'] = ({ points }, land) => {
  const settled = settleOnContour(land.grid, points);
  if (!settled.ok) {
    const advice = 'Start on sloping ground inside the terrain and draw along the slope.';
    return { ok: false, problem: { code: 'swale.settle', what: WHY[settled.why], do: advice } };
  }
  const { line, levelM, movedM } = settled;
  const length = lineLength(line);
  const ids = { swale: land.idFor('swale'), sill: land.idFor('sill') };
  return {
    ok: true,
    works: newSwale(ids, land.nameFor('Swale'), { line, levelM, sillAtM: Math.max(length / 2, length - SILL_IN_M) }),
    said: say`It settled on the ${amount(levelM, 'level')} contour through your first point; your line moved ${amount(movedM, 'distance')} at most.`,
  };
};
