// Hydrologic soil groups from how fast the tightest layer takes water and how deep the soil is.

export const SOIL_GROUPS = ['A', 'B', 'C', 'D'] as const;
export type SoilGroup = (typeof SOIL_GROUPS)[number];

/** One micrometre a second in mm/h, exact. */
const UM_PER_S = 3.6;

/** Least conductivity of groups A, B and C [mm/h] where the soil is deeper than a metre: 10, 4 and 0.4 um/s. */
export const DEEP_LIMITS = [10 * UM_PER_S, 4 * UM_PER_S, 0.4 * UM_PER_S] as const;
/** The same where rock, a tight layer or water lies between half a metre and a metre: 40, 10 and 1 um/s. */
export const SHALLOW_LIMITS = [40 * UM_PER_S, 10 * UM_PER_S, 1 * UM_PER_S] as const;
const SHALLOW_M = 0.5;
const DEEP_M = 1;
/** Water nearer than this in the wet season makes the group a double one [m]. */
const WET_M = 0.6;

export interface GroupFound {
  readonly group: SoilGroup;
  /** Group once the ground is drained, where water stands near; else null. */
  readonly drained: SoilGroup | null;
  readonly why: string;
}

/**
 * Soil group from saturated conductivity [mm/h] and depth to rock or a tight layer and to water [m] (NEH-630 chapter 7,
 * Table 7-1; from memory). Undrained ground with water near is D. Not the scale of transmission rates in TR-55 appendix A.
 */
export function groupByRate(at: {
  readonly rateMmPerHour: number;
  readonly depthM: number;
  readonly waterM?: number | undefined;
}): GroupFound {
  const water = at.waterM ?? Infinity;
  if (at.depthM < SHALLOW_M) return { group: 'D', drained: null, why: 'rock or a tight layer within half a metre' };
  const isShallow = at.depthM <= DEEP_M || water <= DEEP_M;
  const limits = isShallow ? SHALLOW_LIMITS : DEEP_LIMITS;
  const k = limits.findIndex((limit) => at.rateMmPerHour > limit);
  const group = SOIL_GROUPS[k < 0 ? 3 : k];
  const depth = isShallow ? 'half a metre to a metre of soil' : 'more than a metre of soil';
  if (water < WET_M) return { group: 'D', drained: group, why: `water within 0.6 m; ${group} once drained` };
  return { group, drained: null, why: `its rate, over ${depth}` };
}
