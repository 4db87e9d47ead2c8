// Cover and condition as they are seen standing on the ground.
import { defineFormula } from '../formula/index.ts';
import { COVERS, type Condition, type Cover } from './cover.ts';

/** What a walk over the ground tells. All may be left out. */
export interface SeenGround {
  /** Share of the soil that is bare, looked at from above [%]. */
  readonly barePercent?: number;
  readonly grassMm?: number;
  /** Dead grass and litter lying on the soil [mm]. */
  readonly thatchMm?: number;
  readonly crackWidthMm?: number;
  readonly crackDepthMm?: number;
  readonly crackSpacingMm?: number;
}

/** Condition by the share of soil covered: over 75 % good, 50 to 75 % fair, under 50 % poor (TR-55 Table 2-2 notes). */
export function conditionBy(barePercent: number): Condition {
  const covered = 100 - barePercent;
  return covered > 75 ? 'good' : covered >= 50 ? 'fair' : 'poor';
}

/** Least height of grass in retardance classes A to D [mm], with their curve index (SCS TP-61; Temple et al. 1987); shorter is E. */
const RETARDANCE: readonly (readonly [fromMm: number, index: number])[] = [
  [750, 10],
  [280, 7.64],
  [150, 5.6],
  [50, 4.44],
  [0, 2.88],
];

/** Curve index of standing grass of a height. */
export const retardanceOf = (grassMm: number): number => (RETARDANCE.find(([from]) => grassMm >= from) ?? RETARDANCE[4])[1];

/** A mat of dead grass this thick makes the sheet as slow as dense grass does (common practice) [mm]. */
const THICK_THATCH_MM = 20;
const DENSE_N = 0.24;

/** The cover with what was seen of it: its condition from the bare share, its resistance from grass and thatch. */
export function coverAsSeen(cover: Cover, seen: SeenGround | undefined): Cover {
  if (!seen || cover.isSealed) return cover;
  const { barePercent, grassMm, thatchMm } = seen;
  const condition = barePercent === undefined ? null : conditionBy(barePercent);
  const own = condition === null ? cover : (COVERS.find((c) => c.family === cover.family && c.condition === condition) ?? cover);
  const hasSod = own.strength.curveIndex !== null;
  const curveIndex = hasSod && grassMm !== undefined ? retardanceOf(grassMm) : own.strength.curveIndex;
  const isMatted = thatchMm !== undefined && thatchMm >= THICK_THATCH_MM;
  const sheetN = isMatted ? Math.max(DENSE_N, own.surface.sheetN) : own.surface.sheetN;
  const soilC = barePercent === undefined ? own.surface.soilC : SOIL_SHIELD.evaluate({ cover: 100 - barePercent });
  return { ...own, strength: { ...own.strength, curveIndex }, surface: { ...own.surface, sheetN, soilC } };
}

export const SOIL_SHIELD = defineFormula(
  {
    id: 'ground.soil-shield',
    title: 'How cover shields the soil',
    statement: 'C = exp(−0.035 · cover)',
    symbols: {
      cover: { means: 'share of the soil covered by plants, litter or stones', unit: '%', domain: 'nonNegative', range: [0, 100] },
    },
    result: { symbol: 'C', means: 'cover factor of soil loss', unit: '' },
    source: { key: 'rusle', locator: 'surface-cover subfactor with b = 0.035', fromMemory: true },
    limits: 'b runs from 0.025 to 0.05; roots and roughness lower C further.',
  },
  ({ cover }) => Math.exp(-0.035 * cover),
);

export const CRACK_STORE = defineFormula(
  {
    id: 'ground.crack-store',
    title: 'Water open cracks can take',
    statement: 'd = w · h / s',
    symbols: {
      w: { means: 'width of the cracks at the top, closing to nothing below', unit: 'mm', domain: 'nonNegative' },
      h: { means: 'depth of the cracks', unit: 'mm', domain: 'nonNegative' },
      s: { means: 'distance between cracks', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 'd', means: 'depth of rain they hold', unit: 'mm' },
    source: {
      key: 'geometry',
      locator: 'wedges w·h/2 along a mesh of squares: 2/s of crack a unit of ground, each side of a square shared',
    },
    limits: 'Cracks close within the first wetting: no storm is designed with them open.',
  },
  ({ w, h, s }) => ((w * h) / 2) * (2 / s),
);
