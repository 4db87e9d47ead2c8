import type { Line } from '../../geometry/index.ts';
import { mm } from '../beginning.ts';
import { type LevelSill, newSill } from '../level-sill/model.ts';
import type { Swale } from './model.ts';

// Starting dimensions: common practice for a machine-dug swale (water 0.2 to 0.5 m deep, bank 0.3 m above the sill).
const START_DEPTH_M = 0.35;
const START_BANK_M = 0.35;
const START_SILL_LENGTH_M = 4;

/**
 * A swale on a contour with its level sill at the end further from the start, cut in natural ground: the floor lies below
 * the contour, the sill on it, the bank above.
 */
export function newSwale(
  ids: { swale: string; sill: string },
  name: string,
  on: { line: Line; levelM: number; sillAtM: number },
): [Swale, LevelSill] {
  return [
    {
      id: ids.swale,
      kind: 'swale',
      name,
      status: 'planned',
      purpose: 'soak',
      line: on.line,
      levels: { floorM: mm(on.levelM - START_DEPTH_M), bankCrestM: mm(on.levelM + START_BANK_M) },
      dimensions: { floorWidthM: 0.9, sideSlopeHV: 1.5, bankTopM: 0.5, bankSlopeHV: 2 },
    },
    newSill({
      id: ids.sill,
      name: `${name} sill`,
      host: ids.swale,
      atM: mm(on.sillAtM),
      sillM: mm(on.levelM),
      dimensions: { lengthM: START_SILL_LENGTH_M, crestWidthM: 1 },
    }),
  ];
}
