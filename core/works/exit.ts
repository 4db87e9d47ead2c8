// How fast water runs where it leaves a work, and whether what it runs on stands it.
import type { Exit } from '../contract/index.ts';
import { type Cover, permissibleVelocity } from '../ground/index.ts';
import { type Said, amount, capitalised, say } from '../units/index.ts';
import {
  GRAVITY,
  GRASS_ROUGHNESS,
  ISBASH,
  SHEET_VELOCITY,
  STONE_GRAVITY,
  normalDepth,
  sheetRoughness,
  trapezoid,
} from '../hydraulics/index.ts';

const LEAST_SLOPE = 0.001;

/** Roughness of a bed of stone after Strickler: D50^(1/6)/21.1 (handbook 4.1). */
export const stoneRoughness = (stoneM: number): number => stoneM ** (1 / 6) / 21.1;

/** Isbash’s factor for stone that lies loose in rough flow. */
const ISBASH_C = 0.86;
/** Velocity a bed of stone stands in rough flow: Isbash turned round [m/s]. */
export const stoneStands = (stoneM: number): number => ISBASH_C * Math.sqrt(2 * GRAVITY * (STONE_GRAVITY - 1) * stoneM);

/** Roughness of a channel's grass at a flow: the product of velocity and radius sets it, so it is found by going round. */
export function grassChannel(
  channel: { readonly widthM: number; readonly sideHV: number; readonly slope: number; readonly curveIndex: number },
  flowM3s: number,
): { readonly depthM: number; readonly velocityMs: number; readonly n: number } {
  const section = trapezoid(channel.widthM, channel.sideHV);
  const slope = Math.max(LEAST_SLOPE, channel.slope);
  let n = 0.06;
  let depthM = 0;
  for (let k = 0; k < 30; k++) {
    depthM = normalDepth(section, { slope, n }, flowM3s);
    const area = section.area(depthM);
    const next = GRASS_ROUGHNESS.evaluate({ CI: channel.curveIndex, VR: Math.max(1e-6, flowM3s / section.perimeter(depthM)) });
    if (Math.abs(next - n) < 1e-7 || area <= 0) break;
    n = (n + next) / 2;
  }
  const area = section.area(depthM);
  return { depthM, velocityMs: area > 0 ? flowM3s / area : 0, n };
}

/** What to do where nothing that grows there is to carry water on such a slope. */
export const noneCarries = (cover: Cover, slope: number): Said =>
  say`${capitalised(cover.strength.words)} is not to carry water on a slope of ${amount(slope, 'slope')}: lay stone or sod-forming turf, or let it out on gentler ground.`;

/** Stone that just stays in rough flow at a velocity: Isbash; nothing is asked of it where nothing flows [m]. */
export const stoneThatStands = (V: number): number => (V > 0 ? ISBASH.evaluate({ V, C: ISBASH_C, SG: STONE_GRAVITY }) : UNTOUCHED_M);
const UNTOUCHED_M = 0;

export interface ExitFlow {
  /** Null where the slope it runs on is not known. */
  readonly velocityMs: number | null;
  /** What the ground or stone stands; null where nothing is known of it, or it should carry no flow at all. */
  readonly standsMs: number | null;
}

/** Velocity on what an outlet's water runs on, and what that stands. */
export function exitFlow(exit: Exit, flowM3s: number, cover: Cover): ExitFlow {
  const { curveIndex } = cover.strength;
  const onCover = exit.slope === null ? null : permissibleVelocity(cover, exit.slope);
  const standsMs = exit.stoneM === undefined ? onCover : stoneStands(exit.stoneM);
  if (flowM3s <= 0) return { velocityMs: 0, standsMs };
  if (exit.shape === 'pipe') return { velocityMs: flowM3s / ((Math.PI / 4) * exit.widthM ** 2), standsMs };
  if (exit.slope === null) return { velocityMs: null, standsMs };
  const slope = Math.max(LEAST_SLOPE, exit.slope);
  const q = flowM3s / exit.widthM;
  const stoneN = exit.stoneM === undefined ? null : stoneRoughness(exit.stoneM);
  if (exit.shape === 'sheet') {
    return { velocityMs: SHEET_VELOCITY.evaluate({ q, S: slope, n: stoneN ?? sheetRoughness(curveIndex, q) }), standsMs };
  }
  // A channel said to have no sides is cut upright.
  const { sideHV = 0 } = exit;
  if (stoneN === null && curveIndex !== null) {
    return { velocityMs: grassChannel({ widthM: exit.widthM, sideHV, slope, curveIndex }, flowM3s).velocityMs, standsMs };
  }
  const section = trapezoid(exit.widthM, sideHV);
  const depthM = normalDepth(section, { slope, n: stoneN ?? sheetRoughness(null, q) }, flowM3s);
  return { velocityMs: flowM3s / section.area(depthM), standsMs };
}

/** Where water ends that nobody leads on. */
export const LET_GO: ReadonlySet<string> = new Set(['ground', 'property-edge', 'terrain-edge']);
