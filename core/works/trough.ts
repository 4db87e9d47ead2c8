// The cross section of a ditch along a slope: cut below natural ground with its downhill lip at the origin, bank standing on the lip.
import { type Formula, defineFormula } from '../formula/index.ts';

/** Below this cross slope the water spread above the uphill cut edge is taken as on this slope: flatter, it has no end. */
export const LEAST_CROSS_SLOPE = 0.005;

/** Compacted bank per bank-measure cut (loam 0.85 to 0.90): common practice, handbook range. */
export const SHRINK = 0.9;

export interface Section {
  readonly floorWidthM: number;
  /** Ditch sides, horizontal per vertical. */
  readonly sideSlopeHV: number;
  readonly bankTopM: number;
  readonly bankSlopeHV: number;
  /** Depth of the floor below the lip [m]. */
  readonly lipDepthM: number;
  /** Ground slope across the line [m/m]. */
  readonly crossSlope: number;
}

const b = { means: 'floor width', unit: 'm', domain: 'positive' } as const;
const z = { means: 'ditch side slope, horizontal per vertical', unit: '', domain: 'nonNegative' } as const;
const h = { means: 'depth of the floor below the downhill lip', unit: 'm', domain: 'nonNegative' } as const;
const s = { means: 'ground slope across the swale', unit: 'm/m', domain: 'nonNegative', range: [0, 0.3] } as const;

/** Horizontal distance from lip to uphill cut edge; Infinity when the cut side never meets the ground. */
export function cutWidth({ b: floor, z: side, h: depth, s: slope }: { b: number; z: number; h: number; s: number }): number {
  const open = 1 - slope * side;
  return open > 0 ? (2 * side * depth + floor) / open : Infinity;
}

/** Area of the cut [m2]: the bare law, for loops; the caller has made sure that s·z < 1. */
export function cutArea({ b: floor, z: side, h: depth, s: slope }: { b: number; z: number; h: number; s: number }): number {
  const x = (2 * side * depth + floor) / (1 - slope * side);
  const y = depth + slope * x;
  return depth * x + (slope * x * x) / 2 - (side * depth * depth) / 2 - (side * y * y) / 2;
}

/** Area of the bank [m2]: the bare law, for loops; the caller has made sure that s·zb < 1. */
export function bankArea({ B, w, zb, s: slope }: { B: number; w: number; zb: number; s: number }): number {
  const u2 = zb * B + w;
  const u3 = (zb * B + u2) / (1 - slope * zb);
  return (zb * B * B) / 2 + w * B + B * (u3 - u2) - (u3 - u2) ** 2 / (2 * zb) + (slope * u3 * u3) / 2;
}

export const SWALE_CUT: Formula<'b' | 'z' | 'h' | 's'> = defineFormula(
  {
    id: 'works.swale-cut-area',
    title: 'Cut of a swale on a slope',
    statement: 'A = h·x + s·x²/2 − z·h²/2 − z·y²/2;  x = (2·z·h + b)/(1 − s·z);  y = h + s·x',
    symbols: { b, z, h, s },
    result: { symbol: 'A', means: 'area of the cut', unit: 'm²' },
    source: { key: 'geometry', locator: 'section of a trapezoid in a sloping plane' },
    limits: 'Needs s·z < 1, or the cut side never meets the ground.',
  },
  (i) => {
    if (i.s * i.z >= 1) throw new RangeError(`works.swale-cut-area: s·z must be < 1, got ${i.s * i.z}`);
    return cutArea(i);
  },
);

export const SWALE_BANK = defineFormula(
  {
    id: 'works.swale-bank-area',
    title: 'Fill of a bank on a slope',
    statement: 'A = zb·B²/2 + w·B + B·(u3 − u2) − (u3 − u2)²/(2·zb) + s·u3²/2;  u2 = zb·B + w;  u3 = (zb·B + u2)/(1 − s·zb)',
    symbols: {
      B: { means: 'bank crest above the lip', unit: 'm', domain: 'nonNegative' },
      w: { means: 'bank top width', unit: 'm', domain: 'nonNegative' },
      zb: { means: 'bank side slope, horizontal per vertical', unit: '', domain: 'positive' },
      s,
    },
    result: { symbol: 'A', means: 'area of the bank', unit: 'm²' },
    source: { key: 'geometry', locator: 'section of a bank on a sloping plane' },
    limits: 'Needs s·zb < 1, or the outer side never meets the ground.',
  },
  (i) => {
    if (i.s * i.zb >= 1) throw new RangeError(`works.swale-bank-area: s·zb must be < 1, got ${i.s * i.zb}`);
    return bankArea(i);
  },
);

/** What filling a section needs of it, worked out once. */
export interface Trough {
  readonly floorWidthM: number;
  readonly side: number;
  readonly bankSide: number;
  readonly lipM: number;
  readonly slope: number;
  /** Height of the uphill cut edge above the floor; Infinity when the cut side never meets the ground. */
  readonly edgeM: number;
}

export function troughOf({ floorWidthM, sideSlopeHV: side, bankSlopeHV: bankSide, lipDepthM, crossSlope }: Section): Trough {
  const lipM = Math.max(0, lipDepthM);
  const slope = Math.max(LEAST_CROSS_SLOPE, crossSlope);
  const width = cutWidth({ b: floorWidthM, z: side, h: lipM, s: slope });
  return { floorWidthM, side, bankSide, lipM, slope, edgeM: Number.isFinite(width) ? lipM + slope * width : Infinity };
}

/** Adds a trough's water area [m2] and surface width [m], each times `share`, to `sum`; filled to `depthM` above its floor. */
export function addWater(sum: Float64Array, trough: Trough, { depthM, share }: { readonly depthM: number; readonly share: number }): void {
  if (depthM < 0) return;
  const { floorWidthM, side, bankSide, lipM, slope, edgeM } = trough;
  const below = depthM < lipM ? depthM : lipM;
  const above = depthM - below;
  const inCut = depthM < edgeM ? depthM : edgeM;
  const spread = depthM - inCut;
  const areaM2 =
    floorWidthM * depthM +
    (side * below * below) / 2 +
    side * below * above +
    (bankSide * above * above) / 2 +
    (side * inCut * inCut) / 2 +
    side * inCut * spread +
    (spread * spread) / (2 * slope);
  sum[0] += share * areaM2;
  sum[1] += share * (floorWidthM + side * below + bankSide * above + side * inCut + spread / slope);
}

/** Water area [m2] and surface width [m] of a section filled to `depthM` above its floor. */
export function waterSection(section: Section, depthM: number): { areaM2: number; widthM: number } {
  const sum = new Float64Array(2);
  addWater(sum, troughOf(section), { depthM, share: 1 });
  return { areaM2: sum[0], widthM: sum[1] };
}

export const SWALE_WATER = defineFormula(
  {
    id: 'works.swale-water-area',
    title: 'Water in a swale section',
    statement: 'A = b·Hw + z·Hw²/2 + (Hw ≤ h: z·Hw²/2; above: z·h·(Hw − h/2) + zb·(Hw − h)²/2)',
    symbols: {
      b,
      z,
      h,
      s,
      zb: { means: 'bank side slope, horizontal per vertical', unit: '', domain: 'positive' },
      Hw: { means: 'water depth above the floor', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'A', means: 'water area', unit: 'm²' },
    source: { key: 'geometry', locator: 'section of a trapezoid in a sloping plane' },
    limits: 'Above the uphill cut edge the water spreads over the ground and is counted on its slope.',
  },
  (i) => waterSection({ floorWidthM: i.b, sideSlopeHV: i.z, bankTopM: 0, bankSlopeHV: i.zb, lipDepthM: i.h, crossSlope: i.s }, i.Hw).areaM2,
);

/** Corners of the section for drawing, x downhill-positive from the lip [m], y in absolute level [m]. */
export interface SectionOutline {
  readonly ground: readonly (readonly [number, number])[];
  readonly cut: readonly (readonly [number, number])[];
  readonly bank: readonly (readonly [number, number])[];
}

/** The drawn section at a mean lip level; `aroundM` is how much ground to show beyond cut and bank. */
export function sectionOutline(section: Section, levels: { lipM: number; crestM: number; aroundM: number }): SectionOutline {
  const { floorWidthM, sideSlopeHV: side, bankSlopeHV, bankTopM } = section;
  const slope = Math.max(LEAST_CROSS_SLOPE, section.crossSlope);
  const depth = Math.max(0, section.lipDepthM);
  const rise = Math.max(0, levels.crestM - levels.lipM);
  const cutX = Math.min(cutWidth({ b: floorWidthM, z: side, h: depth, s: slope }), floorWidthM + 4 * side * (depth + 0.5));
  const u2 = bankSlopeHV * rise + bankTopM;
  const u3 = slope * bankSlopeHV < 1 ? (bankSlopeHV * rise + u2) / (1 - slope * bankSlopeHV) : u2 + 6 * rise;
  const at = (x: number): readonly [number, number] => [x, levels.lipM - slope * x];
  const floor = levels.lipM - depth;
  return {
    ground: [at(-cutX - levels.aroundM), at(-cutX), at(0), at(u3), at(u3 + levels.aroundM)],
    cut: [at(0), [-side * depth, floor], [-side * depth - floorWidthM, floor], at(-cutX)],
    bank: [at(0), [bankSlopeHV * rise, levels.crestM], [u2, levels.crestM], at(u3)],
  };
}
