import { Worksheet } from '../../formula/index.ts';
import { type Cover, permissibleVelocity } from '../../ground/index.ts';
import { GRASSED_SILL_C, SILL_LENGTH, type SheetGround, flowPerMetreWithin } from '../../hydraulics/index.ts';
import { lengthFor } from './law.ts';

/** Greatest head a level sill is sized for [m]: common practice for a thin even sheet. */
export const MAX_SILL_HEAD_M = 0.1;
/** Shortest useful sill [m]: common practice. */
export const LEAST_SILL_LENGTH_M = 2;

export interface SillSize {
  readonly lengthM: number;
  readonly headM: number;
  readonly byHeadM: number;
  /** By the grass its sheet runs on over; null where that is not felt. */
  readonly byGrassM: number | null;
  /** Null when no velocity can be told or the cover should carry no flow. */
  readonly byVelocityM: number | null;
  readonly permissibleMs: number | null;
  readonly governs: 'head' | 'grass' | 'velocity' | 'least';
}

/**
 * Length of a sill for a peak: enough for a head of at most 0.10 m and at most half the height from sill to bank, by its crest and
 * by the grass below it, the wider of both; enough to keep the sheet below within what its cover stands; and never under 2 m.
 */
export function sizeSill(
  ask: {
    readonly peakM3s: number;
    readonly sillToBankM: number;
    readonly slopeBelow: number;
    readonly cover: Cover;
    readonly below: SheetGround | null;
  },
  sheet = new Worksheet('sill'),
): SillSize {
  const headM = Math.max(0.01, Math.min(MAX_SILL_HEAD_M, ask.sillToBankM / 2));
  const byHeadM = sheet.use(SILL_LENGTH, { Q: ask.peakM3s, C: GRASSED_SILL_C, H: headM });
  const byGrassM = ask.below && ask.peakM3s > 0 ? lengthFor(ask.peakM3s, headM, ask.below) : null;
  const permissibleMs = permissibleVelocity(ask.cover, ask.slopeBelow);
  const slope = Math.max(0.001, ask.slopeBelow);
  const byVelocityM = permissibleMs === null ? null : ask.peakM3s / flowPerMetreWithin(permissibleMs, slope, ask.cover.strength.curveIndex);
  const asked = ([['least', LEAST_SILL_LENGTH_M], ['head', byHeadM], ['grass', byGrassM], ['velocity', byVelocityM]] as const).flatMap(([by, m]) => (m === null ? [] : [{ by, m }])); // prettier-ignore
  const { by: governs, m: lengthM } = asked.reduce((a, b) => (b.m > a.m ? b : a));
  return { lengthM, headM, byHeadM, byGrassM, byVelocityM, permissibleMs, governs };
}
