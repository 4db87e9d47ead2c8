// One kind of ground: what the user says of it, and what follows for water.
import { type Cover, coverOf, curveNumberOf, runoffCoefficientOf } from './cover.ts';
import type { SoilGroup } from './groups.ts';
import { type Compaction, type Healing, healedAfter } from './healing.ts';
import { type SeenGround, coverAsSeen } from './seen.ts';
import { type Feel, type Jar, type Shares, type Texture, type TextureId, textureOf } from './texture.ts';

/** How the texture was told, with what it was told by. */
export interface TextureTold {
  readonly id: TextureId;
  readonly by: 'class' | 'shares' | 'feel' | 'jar';
  readonly shares?: Shares;
  readonly feel?: Feel;
  readonly jar?: Jar;
}

export interface Soil {
  readonly soilGroup: SoilGroup;
  readonly cover: string;
  /** Null: from the table for cover and soil group. */
  readonly curveNumber: number | null;
  readonly runoffC: number | null;
  /** After its safety factor. */
  readonly infiltrationMmPerHour: number;
  /** To rock or a tight layer. */
  readonly soilDepthM: number;
  /** To water in the wet season; left out where it is deep. */
  readonly waterDepthM?: number;
  readonly texture?: TextureTold;
  readonly seen?: SeenGround;
  readonly compaction?: Compaction;
  readonly healing?: Healing;
  /** Between which the truth lies nine times in ten. */
  readonly infiltrationRange?: readonly [low: number, high: number];
  readonly curveNumberRange?: readonly [low: number, high: number];
  /** Field test the rate was taken from. */
  readonly rateFrom?: string;
}

/** Ground as it is now, or as it will be. */
export interface GroundState {
  readonly as: 'now' | 'healed';
  readonly years: number;
}

export const NOW: GroundState = { as: 'now', years: 0 };

/** What follows from a kind of ground for water. */
export interface SoilFacts {
  readonly soil: Soil;
  readonly cover: Cover;
  readonly curveNumber: number;
  readonly infiltrationMmPerHour: number;
  /** To rock, a tight layer or water, whichever is nearer. */
  readonly soilDepthM: number;
  /** Suction and porosity for water that enters; taken from the group where no texture is told. */
  readonly texture: Texture;
  readonly runoffC: (slope: number) => number;
  /** Times the present rate: 1 as it is now. */
  readonly rateFactor: number;
}

/** A texture that stands for each group where none is told: common practice. */
const GROUP_TEXTURE: Readonly<Record<SoilGroup, TextureId>> = { A: 'sandy-loam', B: 'loam', C: 'sandy-clay-loam', D: 'clay' };

export const textureFor = (soil: Soil): Texture => textureOf(soil.texture?.id ?? GROUP_TEXTURE[soil.soilGroup]);

/** What a kind of ground does with water, as it is now or healed. */
export function soilFacts(soil: Soil, state: GroundState = NOW): SoilFacts {
  const own = coverAsSeen(coverOf(soil.cover), soil.seen);
  const depths = { soilDepthM: Math.min(soil.soilDepthM, soil.waterDepthM ?? Infinity), texture: textureFor(soil), soil };
  const curveNumber = soil.curveNumber ?? curveNumberOf(own, soil.soilGroup);
  const runoffC = (slope: number): number => soil.runoffC ?? runoffCoefficientOf(own, soil.soilGroup, slope);
  const now = { ...depths, cover: own, curveNumber, runoffC, infiltrationMmPerHour: soil.infiltrationMmPerHour, rateFactor: 1 };
  if (state.as === 'now' || !soil.healing || own.isSealed) return now;
  const { rateFactor, coverShare, cover } = healedAfter(state.years, {
    healing: soil.healing,
    compaction: soil.compaction ?? 'none',
    cover: own,
  });
  const meant = Math.min(curveNumber, curveNumberOf(cover, soil.soilGroup));
  const between = (from: number, to: number): number => from + (to - from) * coverShare;
  // Beyond the halfway mark the sward of the new cover is what water meets.
  const healedCover = coverShare > 0.5 && curveNumberOf(cover, soil.soilGroup) <= curveNumber ? cover : own;
  const [was, is] = [own.surface, healedCover.surface];
  // Healing slows water and shields the soil; whatever cover is meant, it never does less than the one there now.
  const surface = {
    sheetN: Math.max(was.sheetN, is.sheetN),
    shallowK: Math.min(was.shallowK, is.shallowK),
    kerbyN: Math.max(was.kerbyN, is.kerbyN),
    standsMm: Math.max(was.standsMm, is.standsMm),
    soilC: between(was.soilC, Math.min(was.soilC, cover.surface.soilC)),
  };
  return {
    ...now,
    cover: { ...healedCover, surface },
    curveNumber: between(curveNumber, meant),
    runoffC: (slope) => between(runoffC(slope), Math.min(runoffC(slope), runoffCoefficientOf(cover, soil.soilGroup, slope))),
    infiltrationMmPerHour: soil.infiltrationMmPerHour * rateFactor,
    rateFactor,
  };
}
