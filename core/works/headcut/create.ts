// A head of a gully to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { mm } from '../beginning.ts';
import type { Headcut } from './model.ts';

export function newHead(
  id: string,
  name: string,
  on: { readonly line: Line; readonly lipM: number; readonly footM: number; readonly widthM: number },
): Headcut {
  return {
    id,
    kind: 'headcut',
    name,
    status: 'planned',
    line: on.line,
    form: 'left',
    above: 'unknown',
    soil: 'unknown',
    plug: 'bale',
    levels: { lipM: mm(on.lipM), footM: mm(on.footM) },
    dimensions: { chuteWidthM: on.widthM, sideM: 0.4, slopeHV: 3, stoneM: 0.2, apronM: 3, plugM: 0.4, heldKgM: 0 },
    labour: { m3PerDay: 2, carryM: 50 },
  };
}

export const HEAD_SAMPLE = newHead('head', 'Gully head', {
  line: [
    [0, 0],
    [6, 0],
  ],
  lipM: 101.5,
  footM: 100,
  widthM: 3,
});

export const HEAD_DRAWS: readonly DrawSpec[] = [
  {
    id: 'headcut',
    name: 'The head of a gully',
    what: 'line',
    least: 2,
    hint: 'Draw it along the lip, from one side of the drop to the other; double-click to end.',
  },
];
