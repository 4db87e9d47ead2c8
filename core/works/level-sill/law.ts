// The head on a sill, by its crest and by the grass its sheet runs on over.
import type { Worksheet } from '../../formula/index.ts';
import type { Cover } from '../../ground/index.ts';
import {
  BROAD_CREST,
  GRASSED_SILL_C,
  SHEET_DEPTH,
  SHEET_ENERGY,
  SILL_HEAD,
  type SheetGround,
  grassedHead,
  grassedRating,
  isTranquil,
  sheetBelow,
  tallerIndex,
} from '../../hydraulics/index.ts';
import { type LevelSill, isGrassed } from './model.ts';

/** What a grassed sill's sheet runs on, its grass as tall as it may be found; null where that is not felt at the crest, or not known. */
export const groundBelow = (sill: Pick<LevelSill, 'crest'>, slope: number | null, cover: Cover | null): SheetGround | null =>
  isGrassed(sill) && slope !== null && cover ? { slope, curveIndex: tallerIndex(cover.strength.curveIndex) } : null;

/** Head on a sill that passes a flow alone [m]. */
export const headOn = (lengthM: number, flowM3s: number, below: SheetGround | null): number =>
  below ? grassedHead(below, flowM3s / lengthM) : SILL_HEAD.evaluate({ Q: flowM3s, C: GRASSED_SILL_C, L: lengthM });

/** Length over which a flow leaves within a head [m]. */
export const lengthFor = (flowM3s: number, headM: number, below: SheetGround): number => flowM3s / grassedRating(below).flowAt(headM);

/** The same head with its working: the crest's own, and that of the sheet below where it is felt. */
export function workedHead(
  sheet: Worksheet,
  on: { readonly lengthM: number; readonly flowM3s: number; readonly below: SheetGround | null },
): number {
  const { lengthM, flowM3s: Q, below } = on;
  const own = sheet.use(SILL_HEAD, { Q, C: GRASSED_SILL_C, L: lengthM });
  sheet.use(BROAD_CREST, { C: GRASSED_SILL_C, L: lengthM, H: own });
  const q = Q / lengthM;
  if (!below || q <= 0) return own;
  const { n, S } = sheetBelow(below, q);
  const y = sheet.use(SHEET_DEPTH, { q, n, S });
  return isTranquil(y, q) ? Math.max(own, sheet.use(SHEET_ENERGY, { y, q })) : own;
}
