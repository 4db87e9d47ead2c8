// The twelve texture classes, and the ways a texture is told: percentages, feel between the fingers, layers in a jar.
import type { SoilGroup } from './groups.ts';

export const TEXTURE_IDS = [
  'sand',
  'loamy-sand',
  'sandy-loam',
  'loam',
  'silt-loam',
  'silt',
  'sandy-clay-loam',
  'clay-loam',
  'silty-clay-loam',
  'sandy-clay',
  'silty-clay',
  'clay',
] as const;
export type TextureId = (typeof TEXTURE_IDS)[number];

export interface Texture {
  readonly id: TextureId;
  readonly name: string;
  /** Share of the soil that can fill with water. */
  readonly effectivePorosity: number;
  /** Share of the soil that drains by its own weight, and so has room again a few days after rain. */
  readonly drainable: number;
  /** Suction at the wetting front [mm]. */
  readonly suctionMm: number;
  /** Effective conductivity of bare ground [mm/h]. */
  readonly conductivityMmPerHour: number;
  /** Soil group of disturbed ground of this texture. */
  readonly group: SoilGroup;
  /** Soil erodibility with 2 % of organic matter, US units x 0.1317 [t·ha·h/(ha·MJ·mm)]. */
  readonly erodibility: number;
}

/** US erodibility to SI (Foster et al. 1981; handbook 5.10). */
export const ERODIBILITY_US_TO_SI = 0.1317;

const texture = (
  id: TextureId,
  [effectivePorosity, suctionCm, conductivityCm, erodibilityUs, porosity, heldAt33kPa]: readonly [
    number,
    number,
    number,
    number,
    number,
    number,
  ],
  group: SoilGroup,
): Texture => ({
  id,
  name: id.replaceAll('-', ' '),
  effectivePorosity,
  drainable: porosity - heldAt33kPa,
  suctionMm: 10 * suctionCm,
  conductivityMmPerHour: 10 * conductivityCm,
  group,
  erodibility: ERODIBILITY_US_TO_SI * erodibilityUs,
});

/**
 * Porosity, suction and conductivity: Rawls, Brakensiek & Miller (1983), as in Chow et al. (1988) Table 4.3.1; silt, which it
 * lacks, is taken as silt loam. Soil groups of disturbed soil: TR-55 appendix A. Erodibility at 2 % organic matter: handbook 5.10,
 * where it has no figure (loamy sand to clay) a value between its neighbours; from memory. Porosity and water held at 33 kPa, a few
 * days after rain: Rawls, Brakensiek & Saxton (1982) Table 2; from memory.
 */
export const TEXTURES: readonly Texture[] = [
  texture('sand', [0.417, 4.95, 11.78, 0.03, 0.437, 0.091], 'A'),
  texture('loamy-sand', [0.401, 6.13, 2.99, 0.1, 0.437, 0.125], 'A'),
  texture('sandy-loam', [0.412, 11.01, 1.09, 0.24, 0.453, 0.207], 'A'),
  texture('loam', [0.434, 8.89, 0.34, 0.34, 0.463, 0.27], 'B'),
  texture('silt-loam', [0.486, 16.68, 0.65, 0.42, 0.501, 0.33], 'B'),
  texture('silt', [0.486, 16.68, 0.65, 0.5, 0.501, 0.33], 'B'),
  texture('sandy-clay-loam', [0.33, 21.85, 0.15, 0.25, 0.398, 0.255], 'C'),
  texture('clay-loam', [0.309, 20.88, 0.1, 0.25, 0.464, 0.318], 'D'),
  texture('silty-clay-loam', [0.432, 27.3, 0.1, 0.32, 0.471, 0.366], 'D'),
  texture('sandy-clay', [0.321, 23.9, 0.06, 0.13, 0.43, 0.339], 'D'),
  texture('silty-clay', [0.423, 29.22, 0.05, 0.23, 0.479, 0.387], 'D'),
  texture('clay', [0.385, 31.63, 0.03, 0.2, 0.475, 0.396], 'D'),
];

/** The texture of an id. @throws RangeError naming the id when there is none. */
export function textureOf(id: TextureId): Texture {
  const found = TEXTURES.find((t) => t.id === id);
  if (!found) throw new RangeError(`unknown texture "${id}"`);
  return found;
}

/** Per cent by weight of the fine earth. */
export interface Shares {
  readonly sand: number;
  readonly silt: number;
  readonly clay: number;
}

/** Percentages read from a sheet of paper add up to 100 give or take rounding. */
const SUM_SLACK = 1.5;

/** What is wrong with percentages; null when they can be used. */
export function sharesProblem({ sand, silt, clay }: Shares): string | null {
  const all = [sand, silt, clay];
  if (!all.every((v) => Number.isFinite(v) && v >= 0 && v <= 100)) return 'each share lies between 0 and 100 %';
  const sum = sand + silt + clay;
  return Math.abs(sum - 100) > SUM_SLACK ? `sand, silt and clay add up to ${Number(sum.toFixed(1))} %, not 100 %` : null;
}

/** Texture class of percentages: the USDA triangle in the order of handbook 3.4, which covers all of it. */
export function textureByShares({ sand: sa, silt: si, clay: cl }: Shares): TextureId {
  if (si + 1.5 * cl < 15) return 'sand';
  if (si + 2 * cl < 30) return 'loamy-sand';
  if ((cl >= 7 && cl < 20 && sa > 52) || (cl < 7 && si < 50)) return 'sandy-loam';
  if (cl >= 7 && cl < 27 && si >= 28 && si < 50 && sa <= 52) return 'loam';
  if ((si >= 50 && cl >= 12 && cl < 27) || (si >= 50 && si < 80 && cl < 12)) return 'silt-loam';
  if (si >= 80 && cl < 12) return 'silt';
  if (cl >= 20 && cl < 35 && si < 28 && sa > 45) return 'sandy-clay-loam';
  if (cl >= 27 && cl < 40 && sa > 20 && sa <= 45) return 'clay-loam';
  if (cl >= 27 && cl < 40 && sa <= 20) return 'silty-clay-loam';
  if (cl >= 35 && sa > 45) return 'sandy-clay';
  return cl >= 40 && si >= 40 ? 'silty-clay' : 'clay';
}

/** Layers in a jar, shaken in water and left to settle: sand first, silt within hours, clay in days [mm]. */
export interface Jar {
  readonly sandMm: number;
  readonly siltMm: number;
  readonly clayMm: number;
}

/** Shares by the height of each layer; settled clay stands looser than sand, so clay reads somewhat high (common practice). */
export function sharesByJar({ sandMm, siltMm, clayMm }: Jar): Shares {
  const whole = sandMm + siltMm + clayMm;
  return { sand: (100 * sandMm) / whole, silt: (100 * siltMm) / whole, clay: (100 * clayMm) / whole };
}

export const RIBBONS = ['no-ball', 'none', 'short', 'medium', 'long'] as const;
export const GRITS = ['gritty', 'smooth', 'neither'] as const;

/** A moist handful: does it make a ball, how long a ribbon, and how does a wet pinch feel? */
export interface Feel {
  readonly ribbon: (typeof RIBBONS)[number];
  readonly grit: (typeof GRITS)[number];
}

const BY_RIBBON: Readonly<Record<'short' | 'medium' | 'long', Readonly<Record<Feel['grit'], TextureId>>>> = {
  short: { gritty: 'sandy-loam', smooth: 'silt-loam', neither: 'loam' },
  medium: { gritty: 'sandy-clay-loam', smooth: 'silty-clay-loam', neither: 'clay-loam' },
  long: { gritty: 'sandy-clay', smooth: 'silty-clay', neither: 'clay' },
};

/** Texture by feel: ribbons under 25 mm are short, over 50 mm long (Thien 1979, flow diagram; from memory). */
export function textureByFeel({ ribbon, grit }: Feel): TextureId {
  if (ribbon === 'no-ball') return 'sand';
  return ribbon === 'none' ? 'loamy-sand' : BY_RIBBON[ribbon][grit];
}
