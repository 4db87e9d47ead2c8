import type { DrawSpec, Technique } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { begun, groundUnder, mm, offTerrain } from '../beginning.ts';
import type { Diversion } from './model.ts';

/** Depth of a first drain's floor under the ground [m]: common practice. */
const UNDER_M = 0.4;

const newDrain = (id: string, name: string, on: { readonly line: Line; readonly highM: number; readonly lowM: number }): Diversion => ({
  id,
  kind: 'diversion',
  name,
  status: 'planned',
  lining: 'grass',
  line: on.line,
  levels: { startM: mm(on.highM - UNDER_M), endM: mm(on.lowM - UNDER_M) },
  dimensions: { floorWidthM: 1, sideSlopeHV: 3, depthM: 0.5, stoneM: 0.1 },
});

export const DIVERSION_SAMPLE = newDrain('drain', 'Drain', {
  line: [
    [0, 0],
    [100, 0],
  ],
  highM: 101,
  lowM: 100.5,
});

export const DIVERSION_DRAWS: readonly DrawSpec[] = [
  {
    id: 'diversion',
    name: 'A diversion drain',
    what: 'line',
    least: 2,
    hint: 'Draw it from its upper to its lower end, nearly along the contour; double-click to end.',
  },
];

/** A graded drain along a line from its upper to its lower end, whichever end was drawn first. */
export const beginDiversion: Technique<Diversion, unknown>['begin'] = ({ points }, land) => {
  const ground = groundUnder(points, land);
  if (!ground) return offTerrain('the drain');
  const [first, last] = [ground[0], ground[ground.length - 1]];
  const line = first >= last ? points : [...points].reverse();
  const on = { line, highM: Math.max(first, last), lowM: Math.min(first, last) };
  return begun(newDrain(land.idFor('drain'), land.nameFor('Drain'), on));
};
