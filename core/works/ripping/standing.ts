// What rules on a ripping pattern read.
import type { StormFacts } from '../../contract/index.ts';
import type { RipGround } from './ground.ts';
import type { Ripping } from './model.ts';

export interface RipFacts extends StormFacts {
  readonly work: Ripping;
  readonly ground: RipGround;
}

/** How hard each soil pulls, beside clay (ASAE D497; from memory). */
export const SOILS: Readonly<Record<Exclude<Ripping['texture'], 'unknown'>, number>> = { fine: 1, medium: 0.7, coarse: 0.45 };
/** What of an engine's power reaches the ground on firm soil. */
export const REACHES = 0.6;
