import type { SwaleGround } from './ground.ts';
import type { Swale } from './model.ts';
import { SWALE_BANK, SWALE_CUT } from './section.ts';
import { sectionAt } from './store.ts';

/** Compacted bank per bank-measure cut (loam 0.85 to 0.90): common practice, handbook range. */
export const SHRINK = 0.9;

export interface Earth {
  /** Null when the ground is too steep for the side slopes somewhere. */
  readonly cutM3: number | null;
  readonly bankM3: number | null;
}

/** Cut and bank over the whole swale, by sections on the real ground. */
export function earthOf(swale: Swale, ground: SwaleGround): Earth {
  const last = ground.atM.length - 1;
  let cutM3: number | null = 0;
  let bankM3: number | null = 0;
  for (let i = 0; i <= last; i++) {
    const share = (i === 0 || i === last ? 0.5 : 1) * ground.stepM;
    const section = sectionAt(swale, ground, i);
    const s = section.crossSlope;
    const isCuttable = s * section.sideSlopeHV < 1;
    const isBankable = s * section.bankSlopeHV < 1;
    if (cutM3 !== null) {
      cutM3 = isCuttable
        ? cutM3 + share * SWALE_CUT.evaluate({ b: section.floorWidthM, z: section.sideSlopeHV, h: Math.max(0, section.lipDepthM), s })
        : null;
    }
    if (bankM3 !== null) {
      const B = Math.max(0, swale.levels.bankCrestM - ground.groundM[i]);
      bankM3 = isBankable ? bankM3 + share * SWALE_BANK.evaluate({ B, w: section.bankTopM, zb: section.bankSlopeHV, s }) : null;
    }
  }
  return { cutM3, bankM3 };
}

/** Bank crest above mean lip at which the bank takes just the earth the cut gives [m]; null when either cannot be built. */
export function balancedCrest(swale: Swale, ground: SwaleGround): number | null {
  const cut = earthOf(swale, ground).cutM3;
  if (cut === null) return null;
  let lo = ground.meanGroundM;
  let hi = lo + 3;
  for (let k = 0; k < 40; k++) {
    const crest = (lo + hi) / 2;
    const bank = earthOf({ ...swale, levels: { ...swale.levels, bankCrestM: crest } }, ground).bankM3;
    if (bank === null) return null;
    if (bank < cut * SHRINK) lo = crest;
    else hi = crest;
  }
  return lo;
}
