// A soakaway in the ground: what it holds, what lets its water through, and where it lets go.
import type { Outlet, Plot, Stage, Store, StormFacts } from '../../contract/index.ts';
import { type Use, plainly } from '../../formula/index.ts';
import { type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { comesBackOf } from '../comes-back.ts';
import { type LipGround, downhillAt, groundAlong, measureLip } from '../lip.ts';
import { siltedStage } from '../silt.ts';
import { siltedShare } from '../series.ts';
import { RING_VOIDS, SOAK_FALL } from './formulas.ts';
import type { Soakaway } from './model.ts';

export interface Hole {
  readonly ground: LipGround;
  /** Where it lets go, over its lowest ground, by distance along its line. */
  readonly lowAtM: number;
  readonly rimM: number;
  readonly floorM: number;
  /** Area from above, and round it [m2, m]; the share of it that water fills. */
  readonly areaM2: number;
  readonly roundM: number;
  readonly fills: number;
  readonly slope: number;
  readonly lets: Point;
}

const LEAST_SLOPE = 0.002;

/** Across what is dug for a pit: its rings and the stone round them. */
const acrossOf = ({ fill, dimensions: { widthM, surroundM } }: Soakaway): number => widthM + (fill === 'rings' ? 2 * surroundM : 0);

const fillsOf = ({ fill, dimensions: { widthM: D, surroundM: t, voids: v } }: Soakaway): number =>
  fill === 'open' ? 1 : fill === 'stone' ? v : RING_VOIDS.evaluate({ D, t, v });

export function holeOf(work: Soakaway, ground: LipGround): Hole {
  const isTrench = work.form === 'trench';
  const length = lineLength(work.line);
  const low = ground.groundM.reduce((best, v, i) => (v < ground.groundM[best] ? i : best), 0);
  const lowAtM = isTrench ? ground.atM[low] : length / 2;
  const across = acrossOf(work);
  const rimM = groundAlong(ground, lowAtM);
  const { point } = pointAlong(work.line, lowAtM);
  const [dx, dy] = downhillAt(work.line, ground, lowAtM);
  const away = across / 2 + 1;
  return {
    ground,
    lowAtM,
    rimM,
    floorM: rimM - work.dimensions.depthM,
    areaM2: isTrench ? length * across : (Math.PI * across * across) / 4,
    roundM: isTrench ? 2 * (length + across) : Math.PI * across,
    fills: fillsOf(work),
    slope: Math.max(LEAST_SLOPE, ground.meanSlope),
    lets: [point[0] + dx * away, point[1] + dy * away],
  };
}

export const measureSoakaway = ({ line }: Soakaway, plot: Plot): LipGround => measureLip(line, plot);

interface Content {
  readonly volumeM3: number;
  readonly wettedM2: number;
}

/** Water in it up to a level, silt or not, and what lets that through. Over its rim it stands in the open. */
export function contentOf({ soaksBy }: Pick<Soakaway, 'soaksBy'>, hole: Hole, levelM: number): Content {
  const y = Math.max(0, levelM - hole.floorM);
  const inside = Math.min(y, hole.rimM - hole.floorM);
  const base = soaksBy === 'sides' ? 0 : hole.areaM2;
  const sides = soaksBy === 'base' ? 0 : (hole.roundM * inside) / 2;
  return { volumeM3: hole.areaM2 * (hole.fills * inside + (y - inside)), wettedM2: base + sides };
}

/** Room to its rim, silt and all, and without what silt takes [m3]. */
export const roomOf = (work: Soakaway, hole: Hole): number => contentOf(work, hole, hole.rimM).volumeM3;
export const openOf = (work: Soakaway, hole: Hole): number => roomOf(work, hole) * (1 - siltedShare(work));

/** Rate it was found to take in, its safety taken off; else that of the ground there, whose safety is off already; null where nobody has described it. */
export function rateOf({ work, site }: SoakawayFacts): number | null {
  if (work.testedMmPerHour !== undefined) return work.testedMmPerHour / work.dimensions.safety;
  return site.soilAt(pointAlong(work.line, lineLength(work.line) / 2).point)?.infiltrationMmPerHour ?? null;
}

/** A trace is left long after: this share of its room is as good as empty. */
export const AS_EMPTY = 0.02;

/** Hours of soaking from its rim down to a share of its open room; Infinity where nothing lets it through. */
export function hoursDownTo(
  work: Soakaway,
  hole: Hole,
  { share, rateMmPerHour: f, use = plainly }: { readonly share: number; readonly rateMmPerHour: number; readonly use?: Use },
): number {
  const d = hole.rimM - hole.floorM;
  const silted = siltedShare(work);
  const h = d * (silted + share * (1 - silted));
  const b = work.soaksBy === 'sides' ? 0 : hole.areaM2;
  const p = work.soaksBy === 'base' ? 0 : hole.roundM / 2;
  // Sides alone never let out the last of it.
  if (f <= 0 || b + p * h <= 0) return Infinity;
  return use(SOAK_FALL, { n: hole.fills, A: hole.areaM2, b, p, d, h, f });
}

/** How far over its bank the table reaches [m]. */
const ABOVE_M = 0.4;

function stageOf(work: Soakaway, hole: Hole): Stage {
  const top = hole.rimM + work.dimensions.bermM + ABOVE_M;
  const siltM3 = roomOf(work, hole) - openOf(work, hole);
  return siltedStage((level) => contentOf(work, hole, level), { bedM: hole.floorM, fullM: hole.rimM, topM: top, siltM3 });
}

function outletsOf(work: Soakaway, hole: Hole): Outlet[] {
  const { wayWidthM, bermM } = work.dimensions;
  const own = { work: work.id, dischargeAt: hole.lets };
  const bermTop = hole.rimM + bermM;
  return [
    {
      ...own,
      id: `${work.id}#way`,
      role: 'way',
      name: `${work.name}: over its lower side`,
      kind: 'sill',
      levelM: hole.rimM,
      flowAt: grassedSillLaw({ lengthM: wayWidthM, levelM: hole.rimM }),
      exit: { at: hole.lets, slope: hole.slope, widthM: wayWidthM, shape: 'sheet' },
    },
    {
      ...own,
      id: `${work.id}#bank`,
      role: 'bank',
      name: `${work.name}: its bank`,
      kind: 'bank',
      levelM: bermTop,
      flowAt: grassedSillLaw({ lengthM: hole.roundM / 2, levelM: bermTop }),
    },
  ];
}

export const storeOf = (work: Soakaway, hole: Hole): Store => {
  const stage = stageOf(work, hole);
  return {
    id: work.id,
    work: work.id,
    name: work.name,
    floorM: stage.levelM[0],
    sillM: hole.rimM,
    wayOutM: hole.rimM,
    crestM: hole.rimM + work.dimensions.bermM,
    heldM3: openOf(work, hole),
    waterM2: hole.areaM2,
    stage,
    ...comesBackOf(work),
    outlets: outletsOf(work, hole),
    ...(work.testedMmPerHour === undefined ? {} : { seepsMmPerHour: work.testedMmPerHour / work.dimensions.safety }),
  };
};

export interface SoakawayFacts extends StormFacts {
  readonly work: Soakaway;
  readonly hole: Hole;
}
