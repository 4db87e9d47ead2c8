// A weir to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import { type Line } from '../../geometry/index.ts';
import { mm } from '../beginning.ts';
import type { Weir } from './model.ts';

/** Its ends over the notch, and its base under the bed [m] (common practice). */
export const [ENDS_M, FOUNDATION_M] = [0.3, 0.5];

interface On {
  readonly line: Line;
  readonly bedM: number;
  readonly highM: number;
  readonly notchAtM: number;
  readonly bedWidthM: number;
}

export function newWeir(id: string, name: string, { line, bedM, highM, notchAtM, bedWidthM }: On): Weir {
  const base = Math.ceil(2 * (highM + FOUNDATION_M)) / 2;
  return {
    id,
    kind: 'weir',
    name,
    status: 'planned',
    line,
    form: 'gabion',
    ground: 'unknown',
    base: 'bare',
    face: 'open',
    steps: 'below',
    found: 'sound',
    levels: { notchM: mm(bedM + highM), crestM: mm(bedM + highM + ENDS_M) },
    notchAtM: mm(notchAtM),
    dimensions: {
      notchWidthM: bedWidthM,
      bedWidthM,
      topWidthM: 1,
      baseWidthM: Math.max(1, base),
      courseM: 0.5,
      foundationM: FOUNDATION_M,
      keyM: 1,
      apronM: mm(Math.ceil(4 * highM)),
      apronDropM: 0.2,
      cutoffM: 0.5,
      pieceM: 0.15,
      rampUpHV: 3,
      rampDownHV: 0,
    },
    labour: { m3PerDay: 1, carryM: 50 },
  };
}

export const WEIR_SAMPLE = newWeir('weir', 'Weir', {
  line: [
    [0, 0],
    [12, 0],
  ],
  bedM: 100,
  highM: 1,
  notchAtM: 6,
  bedWidthM: 3,
});

export const WEIR_DRAWS: readonly DrawSpec[] = [
  {
    id: 'weir',
    name: 'A weir across a gully',
    what: 'line',
    least: 2,
    hint: 'Draw it across the channel, from the top of one bank to the top of the other; double-click to end.',
  },
];
