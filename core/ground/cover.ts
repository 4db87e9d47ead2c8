// Covers with their curve numbers (USDA-SCS 1986, TR-55 2nd ed., Table 2-2), rural runoff coefficients (Schwab et al.) and
// what flowing water they withstand (SCS TP-61, as in Chow 1959 Table 7-6). Values and locators from memory of the sources.

import { SOIL_GROUPS, type SoilGroup } from './groups.ts';

type RunoffUse = 'woodland' | 'pasture' | 'cultivated' | 'sealed' | 'track';

/** How a cover behaves under a thin sheet of flowing water. */
export interface CoverStrength {
  /** Permissible velocity [m/s] on slopes under 5 %, 5 to 10 %, above 10 %; null where it should carry no flow. */
  readonly velocity: readonly [number | null, number | null, number | null];
  /** Curve index of the grass retardance class (Temple et al. 1987); null for bare ground. */
  readonly curveIndex: number | null;
  readonly words: string;
}

export interface Cover {
  readonly id: string;
  readonly name: string;
  /** Curve number for groups A, B, C, D, average wetness. */
  readonly curveNumber: readonly [number, number, number, number];
  readonly use: RunoffUse;
  readonly strength: CoverStrength;
  /** Covers that differ only in how well they stand share a family. */
  readonly family: string;
  readonly condition: Condition | null;
  /** How it slows a thin sheet and a shallow stream, and how it shields the soil. */
  readonly surface: Surface;
  /** Whether rain cannot soak in at all. */
  readonly isSealed: boolean;
}

export type Condition = 'poor' | 'fair' | 'good';

export interface Surface {
  /** Manning roughness of sheet flow (TR-55 Table 3-1). */
  readonly sheetN: number;
  /** Velocity over the square root of slope in shallow concentrated flow [m/s] (NEH-630 Table 15-3). */
  readonly shallowK: number;
  /** Retardance of overland flow after Kerby (1959). */
  readonly kerbyN: number;
  /** Cover factor of soil loss where nothing more is known (common ranges; from memory). */
  readonly soilC: number;
  /** What lies in small hollows before water runs on [mm]; from memory, common practice. */
  readonly standsMm: number;
}

const FPS = 0.3048;
const SHORT_SOD: CoverStrength = {
  velocity: [5 * FPS, 4 * FPS, 3 * FPS],
  curveIndex: 4.44, // class D, 50-150 mm tall
  words: 'sod-forming grass (bluegrass, brome) on easily eroded soil',
};
const THIN_SOD: CoverStrength = { velocity: [4 * FPS, 3 * FPS, null], curveIndex: 4.44, words: 'grass mixture on easily eroded soil' };
const SPARSE: CoverStrength = {
  velocity: [2.5 * FPS, null, null],
  curveIndex: 2.88, // class E, under 50 mm
  words: 'bunch grass, annuals or sparse cover on easily eroded soil',
};
const BARE: CoverStrength = {
  velocity: [1.75 * FPS, 1.5 * FPS, null],
  curveIndex: null,
  words: 'bare soil (sandy loam, clear water: Fortier & Scobey 1926)',
};
const LITTER: CoverStrength = { velocity: [3 * FPS, 2.5 * FPS, 2 * FPS], curveIndex: 4.44, words: 'woodland litter and roots' };

const HARD: CoverStrength = { velocity: [3, 3, 3], curveIndex: null, words: 'paving or roof' };

const surface = (sheetN: number, shallowFps: number, [kerbyN, soilC, standsMm]: readonly [number, number, number]): Surface => ({
  sheetN,
  shallowK: shallowFps * FPS,
  kerbyN,
  soilC,
  standsMm,
});
const GRASS = surface(0.15, 6.962, [0.4, 0.01, 5]);
const DENSE_GRASS = surface(0.24, 6.962, [0.4, 0.004, 6]);
const THIN_GRASS = surface(0.13, 6.962, [0.2, 0.1, 3]);
const HAY = surface(0.24, 2.516, [0.4, 0.005, 6]);
const BRUSH = surface(0.4, 5.032, [0.6, 0.01, 6]);
const WOODS = surface(0.4, 5.032, [0.6, 0.002, 8]);
const OPEN_WOODS = surface(0.4, 5.032, [0.6, 0.01, 6]);
const CROP = surface(0.17, 8.762, [0.2, 0.25, 4]);
/** Cultivated in straight rows: what runs down them runs fast. */
const STRAIGHT = surface(0.06, 8.762, [0.2, 0.3, 3]);
const SOIL = surface(0.05, 9.965, [0.1, 1, 2.5]);
const YARD = surface(0.05, 9.965, [0.1, 0.3, 2.5]);
const STONY = surface(0.011, 16.135, [0.1, 0.3, 2]);
const SMOOTH = surface(0.011, 20.328, [0.02, 0, 1.5]);

const CONDITIONS: readonly Condition[] = ['poor', 'fair', 'good'];

const cover = (id: string, name: string, more: Pick<Cover, 'curveNumber' | 'use' | 'strength' | 'surface'>): Cover => {
  const condition = CONDITIONS.find((c) => id.endsWith(`-${c}`)) ?? null;
  return { id, name, ...more, condition, family: condition ? id.slice(0, -condition.length - 1) : id, isSealed: more.use === 'sealed' };
};

export const COVERS: readonly Cover[] = [
  cover('pasture-good', 'Pasture, good (over 75 % cover, lightly grazed)', {
    curveNumber: [39, 61, 74, 80],
    use: 'pasture',
    strength: SHORT_SOD,
    surface: DENSE_GRASS,
  }),
  cover('pasture-fair', 'Pasture, fair (50 to 75 % cover)', {
    curveNumber: [49, 69, 79, 84],
    use: 'pasture',
    strength: THIN_SOD,
    surface: GRASS,
  }),
  cover('pasture-poor', 'Pasture, poor (under 50 %, heavily grazed)', {
    curveNumber: [68, 79, 86, 89],
    use: 'pasture',
    strength: SPARSE,
    surface: THIN_GRASS,
  }),
  cover('meadow', 'Meadow, cut for hay, not grazed', { curveNumber: [30, 58, 71, 78], use: 'pasture', strength: SHORT_SOD, surface: HAY }),
  cover('brush-good', 'Brush, good (over 75 % cover)', {
    curveNumber: [30, 48, 65, 73],
    use: 'woodland',
    strength: LITTER,
    surface: BRUSH,
  }),
  cover('brush-fair', 'Brush, fair', { curveNumber: [35, 56, 70, 77], use: 'woodland', strength: LITTER, surface: BRUSH }),
  cover('brush-poor', 'Brush, poor (under 50 %)', { curveNumber: [48, 67, 77, 83], use: 'woodland', strength: SPARSE, surface: BRUSH }),
  cover('orchard-good', 'Orchard or trees over good grass', {
    curveNumber: [32, 58, 72, 79],
    use: 'woodland',
    strength: SHORT_SOD,
    surface: GRASS,
  }),
  cover('orchard-fair', 'Orchard or trees over fair grass', {
    curveNumber: [43, 65, 76, 82],
    use: 'woodland',
    strength: THIN_SOD,
    surface: GRASS,
  }),
  cover('woods-good', 'Woods, good (litter and brush cover the soil)', {
    curveNumber: [30, 55, 70, 77],
    use: 'woodland',
    strength: LITTER,
    surface: WOODS,
  }),
  cover('woods-fair', 'Woods, fair (grazed, not burned)', {
    curveNumber: [36, 60, 73, 79],
    use: 'woodland',
    strength: LITTER,
    surface: OPEN_WOODS,
  }),
  cover('woods-poor', 'Woods, poor (heavily grazed or burned)', {
    curveNumber: [45, 66, 77, 83],
    use: 'woodland',
    strength: SPARSE,
    surface: OPEN_WOODS,
  }),
  cover('row-crop', 'Row crop on the contour, good', { curveNumber: [65, 75, 82, 86], use: 'cultivated', strength: BARE, surface: CROP }),
  cover('small-grain', 'Small grain on the contour, good', {
    curveNumber: [61, 73, 81, 84],
    use: 'cultivated',
    strength: SPARSE,
    surface: CROP,
  }),
  cover('row-straight-good', 'Row crop in straight rows, good', {
    curveNumber: [67, 78, 85, 89],
    use: 'cultivated',
    strength: BARE,
    surface: STRAIGHT,
  }),
  cover('row-straight-poor', 'Row crop in straight rows, poor', {
    curveNumber: [72, 81, 88, 91],
    use: 'cultivated',
    strength: BARE,
    surface: STRAIGHT,
  }),
  cover('row-contour-poor', 'Row crop on the contour, poor', {
    curveNumber: [70, 79, 84, 88],
    use: 'cultivated',
    strength: BARE,
    surface: CROP,
  }),
  cover('grain-straight-good', 'Small grain in straight rows, good', {
    curveNumber: [63, 75, 83, 87],
    use: 'cultivated',
    strength: SPARSE,
    surface: STRAIGHT,
  }),
  cover('grain-straight-poor', 'Small grain in straight rows, poor', {
    curveNumber: [65, 76, 84, 88],
    use: 'cultivated',
    strength: SPARSE,
    surface: STRAIGHT,
  }),
  cover('grain-contour-poor', 'Small grain on the contour, poor', {
    curveNumber: [63, 74, 82, 85],
    use: 'cultivated',
    strength: SPARSE,
    surface: CROP,
  }),
  cover('legume-straight-good', 'Legumes or rotation meadow in straight rows, good', {
    curveNumber: [58, 72, 81, 85],
    use: 'cultivated',
    strength: THIN_SOD,
    surface: HAY,
  }),
  cover('legume-straight-poor', 'Legumes or rotation meadow in straight rows, poor', {
    curveNumber: [66, 77, 85, 89],
    use: 'cultivated',
    strength: SPARSE,
    surface: CROP,
  }),
  cover('fallow-residue-good', 'Fallow under residue, good', {
    curveNumber: [74, 83, 88, 90],
    use: 'cultivated',
    strength: BARE,
    surface: CROP,
  }),
  cover('fallow-residue-poor', 'Fallow under residue, poor', {
    curveNumber: [76, 85, 90, 93],
    use: 'cultivated',
    strength: BARE,
    surface: SOIL,
  }),
  cover('bare', 'Bare, fallow or newly graded', { curveNumber: [77, 86, 91, 94], use: 'cultivated', strength: BARE, surface: SOIL }),
  cover('lawn-good', 'Lawn, good (over 75 % grass)', {
    curveNumber: [39, 61, 74, 80],
    use: 'pasture',
    strength: SHORT_SOD,
    surface: GRASS,
  }),
  cover('lawn-fair', 'Lawn, fair (50 to 75 % grass)', {
    curveNumber: [49, 69, 79, 84],
    use: 'pasture',
    strength: THIN_SOD,
    surface: GRASS,
  }),
  cover('lawn-poor', 'Lawn, poor (under 50 % grass)', {
    curveNumber: [68, 79, 86, 89],
    use: 'pasture',
    strength: SPARSE,
    surface: THIN_GRASS,
  }),
  cover('desert-good', 'Desert shrub, good (over 70 % cover)', {
    curveNumber: [49, 68, 79, 84],
    use: 'pasture',
    strength: SPARSE,
    surface: THIN_GRASS,
  }),
  cover('desert-fair', 'Desert shrub, fair', { curveNumber: [55, 72, 81, 86], use: 'pasture', strength: SPARSE, surface: THIN_GRASS }),
  cover('desert-poor', 'Desert shrub, poor (under 30 %)', {
    curveNumber: [63, 77, 85, 88],
    use: 'pasture',
    strength: BARE,
    surface: THIN_GRASS,
  }),
  cover('farmyard', 'Farmyard, its buildings and lanes', { curveNumber: [59, 74, 82, 86], use: 'track', strength: BARE, surface: YARD }),
  cover('gravel', 'Gravel road or yard', { curveNumber: [76, 85, 89, 91], use: 'track', strength: BARE, surface: STONY }),
  cover('dirt', 'Dirt road or trodden yard', { curveNumber: [72, 82, 87, 89], use: 'track', strength: BARE, surface: SOIL }),
  cover('paved', 'Paving or roof', { curveNumber: [98, 98, 98, 98], use: 'sealed', strength: HARD, surface: SMOOTH }),
  cover('water', 'Open water', { curveNumber: [98, 98, 98, 98], use: 'sealed', strength: HARD, surface: SMOOTH }),
];

/** The cover of an id. @throws RangeError naming the id when there is none. */
export function coverOf(id: string): Cover {
  const found = COVERS.find((c) => c.id === id);
  if (!found) throw new RangeError(`unknown cover "${id}"`);
  return found;
}

/** Table curve number of a cover on a soil group. */
export function curveNumberOf(cover: Cover, group: SoilGroup): number {
  return cover.curveNumber[SOIL_GROUPS.indexOf(group)];
}

/** Columns open sandy loam, clay and silt loam, tight clay; rows slopes 0-5, 5-10, 10-30 % (Schwab et al., from memory). */
const RURAL_C: Record<RunoffUse, readonly (readonly [number, number, number])[]> = {
  woodland: [
    [0.1, 0.3, 0.4],
    [0.25, 0.35, 0.5],
    [0.3, 0.5, 0.6],
  ],
  pasture: [
    [0.1, 0.3, 0.4],
    [0.16, 0.36, 0.55],
    [0.22, 0.42, 0.6],
  ],
  cultivated: [
    [0.3, 0.5, 0.6],
    [0.4, 0.6, 0.7],
    [0.52, 0.72, 0.82],
  ],
  // Roofs and paving 0.70 to 0.95 (ASCE/WPCF 1969); roads of earth and gravel between those and bare crops, common practice.
  sealed: [
    [0.9, 0.9, 0.9],
    [0.9, 0.9, 0.9],
    [0.95, 0.95, 0.95],
  ],
  track: [
    [0.5, 0.6, 0.7],
    [0.55, 0.65, 0.75],
    [0.6, 0.75, 0.85],
  ],
};

/** Which texture column stands for each soil group: common practice, the table itself knows textures only. */
const TEXTURE_COLUMN: Record<SoilGroup, 0 | 1 | 2> = { A: 0, B: 1, C: 1, D: 2 };

/** Rural runoff coefficient for the rational method at a mean slope [m/m]. */
export function runoffCoefficientOf(cover: Cover, group: SoilGroup, slope: number): number {
  const row = slope < 0.05 ? 0 : slope < 0.1 ? 1 : 2;
  return RURAL_C[cover.use][row][TEXTURE_COLUMN[group]];
}

/** Slopes measured on a grid are no surer than this [m/m]. */
const EVEN = 1e-6;

/** Permissible velocity [m/s] of a cover on a slope; null where it should carry no concentrated flow. */
export function permissibleVelocity(cover: Cover, slope: number): number | null {
  return cover.strength.velocity[slope < 0.05 ? 0 : slope <= 0.1 + EVEN ? 1 : 2];
}
