import { Worksheet } from '../../formula/index.ts';
import { type Cover, permissibleVelocity } from '../../ground/index.ts';
import { GRASSED_SILL_C, SILL_LENGTH, flowPerMetreWithin } from '../../hydraulics/index.ts';

/** Greatest head a level sill is sized for [m]: common practice for a thin even sheet. */
export const MAX_SILL_HEAD_M = 0.1;
/** Shortest useful sill [m]: common practice. */
export const LEAST_SILL_LENGTH_M = 2;

export interface SillSize {
  readonly lengthM: number;
  readonly headM: number;
  readonly byHeadM: number;
  /** Null when no velocity can be told or the cover should carry no flow. */
  readonly byVelocityM: number | null;
  readonly permissibleMs: number | null;
  readonly governs: 'head' | 'velocity' | 'least';
}

/**
 * Length of a sill for a peak: enough for a head of at most 0.10 m and at most half the height from sill to bank, enough
 * to keep the sheet below within what its cover stands, and never under 2 m.
 */
export function sizeSill(
  ask: { readonly peakM3s: number; readonly sillToBankM: number; readonly slopeBelow: number; readonly cover: Cover },
  sheet = new Worksheet('sill'),
): SillSize {
  const headM = Math.max(0.01, Math.min(MAX_SILL_HEAD_M, ask.sillToBankM / 2));
  const byHeadM = sheet.use(SILL_LENGTH, { Q: ask.peakM3s, C: GRASSED_SILL_C, H: headM });
  const permissibleMs = permissibleVelocity(ask.cover, ask.slopeBelow);
  const slope = Math.max(0.001, ask.slopeBelow);
  const byVelocityM = permissibleMs === null ? null : ask.peakM3s / flowPerMetreWithin(permissibleMs, slope, ask.cover.strength.curveIndex);
  const lengthM = Math.max(byHeadM, byVelocityM ?? LEAST_SILL_LENGTH_M, LEAST_SILL_LENGTH_M);
  const governs = lengthM === LEAST_SILL_LENGTH_M ? 'least' : lengthM === byHeadM ? 'head' : 'velocity';
  return { lengthM, headM, byHeadM, byVelocityM, permissibleMs, governs };
}
