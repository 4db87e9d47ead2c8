import type { LipGround } from '../lip.ts';
import type { Swale } from './model.ts';
import { SHRINK, bankArea, cutArea } from '../trough.ts';

export interface Earth {
  /** Null when the ground is too steep for the side slopes somewhere. */
  readonly cutM3: number | null;
  readonly bankM3: number | null;
}

const shareAt = (ground: LipGround, i: number): number => (i === 0 || i === ground.atM.length - 1 ? 0.5 : 1) * ground.stepM;

function cutOf(swale: Swale, ground: LipGround): number | null {
  const { floorWidthM: b, sideSlopeHV: z } = swale.dimensions;
  if (ground.steepestSlope * z >= 1) return null;
  let sum = 0;
  for (let i = 0; i < ground.atM.length; i++) {
    sum += shareAt(ground, i) * cutArea({ b, z, h: Math.max(0, ground.groundM[i] - swale.levels.floorM), s: ground.crossSlope[i] });
  }
  return sum;
}

function bankOf(swale: Swale, ground: LipGround, crestM: number): number | null {
  const { bankTopM: w, bankSlopeHV: zb } = swale.dimensions;
  if (ground.steepestSlope * zb >= 1) return null;
  let sum = 0;
  for (let i = 0; i < ground.atM.length; i++) {
    sum += shareAt(ground, i) * bankArea({ B: Math.max(0, crestM - ground.groundM[i]), w, zb, s: ground.crossSlope[i] });
  }
  return sum;
}

/** Cut and bank over the whole swale, by sections on the real ground. */
export function earthOf(swale: Swale, ground: LipGround): Earth {
  return { cutM3: cutOf(swale, ground), bankM3: bankOf(swale, ground, swale.levels.bankCrestM) };
}

/** Crest level at which the bank takes just the earth the cut gives [m]; null when either cannot be built. */
export function balancedCrest(swale: Swale, ground: LipGround): number | null {
  const cut = cutOf(swale, ground);
  if (cut === null) return null;
  let lo = ground.meanGroundM;
  let hi = lo + 3;
  for (let k = 0; k < 30; k++) {
    const crest = (lo + hi) / 2;
    const bank = bankOf(swale, ground, crest);
    if (bank === null) return null;
    if (bank < cut * SHRINK) lo = crest;
    else hi = crest;
  }
  return lo;
}
