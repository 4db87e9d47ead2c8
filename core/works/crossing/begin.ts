import type { DrawSpec, Technique } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { begun, groundUnder, mm, offTerrain } from '../beginning.ts';
import type { Crossing } from './model.ts';

/** A road on one pipe over the lowest ground, to begin with: common practice. */
const newCrossing = (id: string, name: string, on: { readonly line: Line; readonly lowestM: number }): Crossing => ({
  id,
  kind: 'crossing',
  name,
  status: 'planned',
  form: 'culvert',
  line: on.line,
  inlet: 'corrugated-projecting',
  levels: { roadM: mm(on.lowestM + 1.3), inletM: mm(on.lowestM), outletM: mm(on.lowestM - 0.1), dipM: mm(on.lowestM + 1) },
  dimensions: { roadWidthM: 4, sideSlopeHV: 2, barrels: 1, diameterM: 0.45, overhangM: 0.5, dipLengthM: 0 },
  roughness: 0.024,
  blockedPercent: 0,
});

export const CROSSING_SAMPLE = newCrossing('crossing', 'Crossing', {
  line: [
    [0, 0],
    [30, 0],
  ],
  lowestM: 100,
});

export const CROSSING_DRAWS: readonly DrawSpec[] = [
  { id: 'crossing', name: 'A crossing', what: 'line', least: 2, hint: 'Draw the road across the water, double-click to end.' },
];

export const beginCrossing: Technique<Crossing, unknown>['begin'] = ({ points }, land) => {
  const ground = groundUnder(points, land);
  if (!ground) return offTerrain('the crossing');
  return begun(newCrossing(land.idFor('crossing'), land.nameFor('Crossing'), { line: points, lowestM: Math.min(...ground) }));
};
