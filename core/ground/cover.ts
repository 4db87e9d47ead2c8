// Covers with their curve numbers (USDA-SCS 1986, TR-55 2nd ed., Table 2-2), rural runoff coefficients (Schwab et al.) and
// what flowing water they withstand (SCS TP-61, as in Chow 1959 Table 7-6). Values and locators from memory of the sources.

export const SOIL_GROUPS = ['A', 'B', 'C', 'D'] as const;
export type SoilGroup = (typeof SOIL_GROUPS)[number];

type RunoffUse = 'woodland' | 'pasture' | 'cultivated';

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
}

const FPS = 0.3048;
const SHORT_SOD: CoverStrength = {
  velocity: [5 * FPS, 4 * FPS, 3 * FPS],
  curveIndex: 4.44, // class D, 50-150 mm tall
  words: 'grass mixture, good sward',
};
const THIN_SOD: CoverStrength = { velocity: [4 * FPS, 3 * FPS, 2 * FPS], curveIndex: 4.44, words: 'grass mixture on easily eroded soil' };
const SPARSE: CoverStrength = {
  velocity: [2.5 * FPS, 2 * FPS, 1.5 * FPS],
  curveIndex: 2.88, // class E, under 50 mm
  words: 'sparse or annual cover',
};
const BARE: CoverStrength = {
  velocity: [1.75 * FPS, 1.5 * FPS, null],
  curveIndex: null,
  words: 'bare soil (sandy loam, clear water: Fortier & Scobey 1926)',
};
const LITTER: CoverStrength = { velocity: [3 * FPS, 2.5 * FPS, 2 * FPS], curveIndex: 4.44, words: 'woodland litter and roots' };

const cover = (id: string, name: string, more: Pick<Cover, 'curveNumber' | 'use' | 'strength'>): Cover => ({ id, name, ...more });

export const COVERS: readonly Cover[] = [
  cover('pasture-good', 'Pasture, good (over 75 % cover, lightly grazed)', {
    curveNumber: [39, 61, 74, 80],
    use: 'pasture',
    strength: SHORT_SOD,
  }),
  cover('pasture-fair', 'Pasture, fair (50 to 75 % cover)', { curveNumber: [49, 69, 79, 84], use: 'pasture', strength: THIN_SOD }),
  cover('pasture-poor', 'Pasture, poor (under 50 %, heavily grazed)', { curveNumber: [68, 79, 86, 89], use: 'pasture', strength: SPARSE }),
  cover('meadow', 'Meadow, cut for hay, not grazed', { curveNumber: [30, 58, 71, 78], use: 'pasture', strength: SHORT_SOD }),
  cover('brush-good', 'Brush, good (over 75 % cover)', { curveNumber: [30, 48, 65, 73], use: 'woodland', strength: LITTER }),
  cover('brush-fair', 'Brush, fair', { curveNumber: [35, 56, 70, 77], use: 'woodland', strength: LITTER }),
  cover('brush-poor', 'Brush, poor (under 50 %)', { curveNumber: [48, 67, 77, 83], use: 'woodland', strength: SPARSE }),
  cover('orchard-good', 'Orchard or trees over good grass', { curveNumber: [32, 58, 72, 79], use: 'woodland', strength: SHORT_SOD }),
  cover('orchard-fair', 'Orchard or trees over fair grass', { curveNumber: [43, 65, 76, 82], use: 'woodland', strength: THIN_SOD }),
  cover('woods-good', 'Woods, good (litter and brush cover the soil)', {
    curveNumber: [30, 55, 70, 77],
    use: 'woodland',
    strength: LITTER,
  }),
  cover('woods-fair', 'Woods, fair (grazed, not burned)', { curveNumber: [36, 60, 73, 79], use: 'woodland', strength: LITTER }),
  cover('woods-poor', 'Woods, poor (heavily grazed or burned)', { curveNumber: [45, 66, 77, 83], use: 'woodland', strength: SPARSE }),
  cover('row-crop', 'Row crop on the contour, good', { curveNumber: [65, 75, 82, 86], use: 'cultivated', strength: BARE }),
  cover('small-grain', 'Small grain on the contour, good', { curveNumber: [61, 73, 81, 84], use: 'cultivated', strength: SPARSE }),
  cover('bare', 'Bare, fallow or newly graded', { curveNumber: [77, 86, 91, 94], use: 'cultivated', strength: BARE }),
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
};

/** Which texture column stands for each soil group: common practice, the table itself knows textures only. */
const TEXTURE_COLUMN: Record<SoilGroup, 0 | 1 | 2> = { A: 0, B: 1, C: 1, D: 2 };

/** Rural runoff coefficient for the rational method at a mean slope [m/m]. */
export function runoffCoefficientOf(cover: Cover, group: SoilGroup, slope: number): number {
  const row = slope < 0.05 ? 0 : slope < 0.1 ? 1 : 2;
  return RURAL_C[cover.use][row][TEXTURE_COLUMN[group]];
}

/** Permissible velocity [m/s] of a cover on a slope; null where it should carry no concentrated flow. */
export function permissibleVelocity(cover: Cover, slope: number): number | null {
  return cover.strength.velocity[slope < 0.05 ? 0 : slope <= 0.1 ? 1 : 2];
}
