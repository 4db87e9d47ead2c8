import type { Formula } from '../formula/index.ts';
import { BROAD_CREST, GRASS_ROUGHNESS, MANNING, SHALLOW_FLOW, SHEET_VELOCITY, SILL_HEAD, SILL_LENGTH } from '../hydraulics/index.ts';
import { DRAIN_DOWN } from '../network/index.ts';
import {
  AREAL_REDUCTION,
  BUCKET_RAIN,
  CHANCE,
  DEPTH_BETWEEN,
  GEV_DEPTH,
  GUMBEL_DEPTH,
  GUMBEL_FACTOR,
  GUMBEL_LOCATION,
  GUMBEL_SCALE,
  PARTIAL_RETURN,
  SHERMAN_INTENSITY,
  UPLIFT,
  WENZEL_INTENSITY,
} from '../rain/index.ts';
import { CONCENTRATION_FROM_LAG, CURVE_NUMBER_RUNOFF, NRCS_LAG, RATIONAL_PEAK, UNIT_PEAK, UNIT_TIME_TO_PEAK } from '../runoff/index.ts';
import { STAFF_READING } from '../survey/index.ts';
import { SWALE_BANK, SWALE_CUT, SWALE_WATER } from '../works/index.ts';

/** Every formula the product computes with, in the order water meets them. */
export const FORMULAS: readonly Formula<never>[] = [
  DEPTH_BETWEEN,
  SHERMAN_INTENSITY,
  WENZEL_INTENSITY,
  GUMBEL_FACTOR,
  GUMBEL_SCALE,
  GUMBEL_LOCATION,
  GUMBEL_DEPTH,
  GEV_DEPTH,
  PARTIAL_RETURN,
  CHANCE,
  AREAL_REDUCTION,
  BUCKET_RAIN,
  UPLIFT,
  CURVE_NUMBER_RUNOFF,
  NRCS_LAG,
  CONCENTRATION_FROM_LAG,
  RATIONAL_PEAK,
  UNIT_TIME_TO_PEAK,
  UNIT_PEAK,
  SWALE_CUT,
  SWALE_BANK,
  SWALE_WATER,
  DRAIN_DOWN,
  BROAD_CREST,
  SILL_HEAD,
  SILL_LENGTH,
  SHEET_VELOCITY,
  GRASS_ROUGHNESS,
  MANNING,
  SHALLOW_FLOW,
  STAFF_READING,
] as unknown as readonly Formula<never>[];
