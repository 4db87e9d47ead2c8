import type { Outlet, Stage, Store } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { grassedSillLaw, sideSlopeLaw } from '../../hydraulics/index.ts';
import type { BasinGround } from './ground.ts';
import type { Earthwork } from './earthwork.ts';

const STAGES = 60;
/** How far above the crest the stage table reaches, so that routing never runs off it [m]. */
const ABOVE_CREST_M = 1.5;

/** The ground of a pond as it is once wall and pit are made, lowest first, with sums up to each piece. */
export interface Basin {
  readonly levelM: Float64Array;
  /** Area of all pieces before each, and that area times their levels. */
  readonly areaBefore: Float64Array;
  readonly momentBefore: Float64Array;
  /** Farthest of the pieces before each from the wall [m]. */
  readonly reachBefore: Float64Array;
  /** Taken out of the pit [m3]. */
  readonly dugM3: number;
}

/** Ground of one piece once the pit is dug and the wall stands on its foot. */
function madeLevel(pond: Earthwork, ground: BasinGround, piece: BasinGround['pieces'][number]): number {
  const { levels, dimensions } = pond;
  let level = piece.groundM;
  if (piece.intoPitM !== null) level = Math.min(level, Math.max(levels.floorM, level - piece.intoPitM / dimensions.pitSlopeHV));
  if (ground.wall === null) return level;
  const beyond = piece.fromWallM - dimensions.topWidthM / 2;
  return Math.max(level, levels.crestM - Math.max(0, beyond) / dimensions.waterSlopeHV);
}

export function basinOf(pond: Earthwork, ground: BasinGround): Basin {
  const { pieces } = ground;
  const n = pieces.length;
  const made = Float64Array.from(pieces, (piece) => madeLevel(pond, ground, piece));
  const order = Uint32Array.from(pieces, (_, k) => k).sort((a, b) => made[a] - made[b]);
  const [levelM, areaBefore, momentBefore, reachBefore] = Array.from({ length: 4 }, () => new Float64Array(n + 1));
  let dugM3 = 0;
  for (let k = 0; k < n; k++) {
    const { areaM2, fromWallM, groundM, intoPitM } = pieces[order[k]];
    const level = made[order[k]];
    levelM[k] = level;
    areaBefore[k + 1] = areaBefore[k] + areaM2;
    momentBefore[k + 1] = momentBefore[k] + areaM2 * level;
    reachBefore[k + 1] = Math.max(reachBefore[k], fromWallM);
    if (intoPitM !== null) dugM3 += areaM2 * Math.max(0, groundM - level);
  }
  levelM[n] = Infinity;
  return { levelM, areaBefore, momentBefore, reachBefore, dugM3 };
}

/** Pieces that lie below a level. */
function below({ levelM }: Basin, level: number): number {
  let [lo, hi] = [0, levelM.length - 1];
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (levelM[mid] < level) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}

export interface WaterAtLevel {
  readonly volumeM3: number;
  readonly surfaceM2: number;
  /** From the wall to the farthest water [m]. */
  readonly reachM: number;
}

export function waterAt(basin: Basin, level: number): WaterAtLevel {
  const k = below(basin, level);
  return { volumeM3: level * basin.areaBefore[k] - basin.momentBefore[k], surfaceM2: basin.areaBefore[k], reachM: basin.reachBefore[k] };
}

/** Lowest made ground: the floor of the pit, or the foot of the wall. */
export const floorOf = (basin: Basin, pond: Earthwork): number =>
  basin.levelM.length > 1 ? Math.min(basin.levelM[0], pond.levels.crestM) : pond.levels.floorM;

/** Crest of the wall, or the lowest rim of a pit without one. */
export const crestOf = (pond: Earthwork, ground: BasinGround): number =>
  ground.wall ? pond.levels.crestM : (ground.rim?.lowestM ?? pond.levels.crestM);

function stageOf(basin: Basin, floorM: number, topM: number): Stage {
  const top = Math.max(floorM + 0.5, topM);
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => floorM + ((top - floorM) * k) / STAGES);
  const water = Array.from(levelM, (level) => waterAt(basin, level));
  // Routing needs volumes that rise: ground the terrain has nothing of holds a film.
  let least = -1e-6;
  const volumeM3 = Float64Array.from(water, ({ volumeM3: v }) => (least = Math.max(v, least + 1e-6)));
  return { levelM, volumeM3, wettedM2: Float64Array.from(water, (w) => w.surfaceM2) };
}

/** The lowest place of the wall, where water that tops it falls. */
function lowestOf({ wall, rim, bottomAt }: BasinGround): Point {
  return wall ? bottomAt : (rim?.lowestAt ?? bottomAt);
}

/** Ways out nobody made: over the wall's crest or the pit's rim, and round the ends of the wall. */
export function brimOutlets(pond: Earthwork, ground: BasinGround, outside: (at: Point) => Point): Outlet[] {
  const crestM = crestOf(pond, ground);
  const top: Outlet = {
    id: `${pond.id}#crest`,
    role: ground.wall ? 'crest' : 'rim',
    work: pond.id,
    name: ground.wall ? 'crest of the wall' : 'rim of the pit',
    kind: 'bank',
    levelM: crestM,
    ...(ground.wall && pond.levels.crestM === crestM ? { levelBy: 'levels.crestM' } : {}),
    dischargeAt: outside(lowestOf(ground)),
    flowAt: ground.wall ? grassedSillLaw({ lengthM: ground.wall.lengthM, levelM: crestM }) : sideSlopeLaw({ slope: 0.02, levelM: crestM }),
    ...(ground.wall ? { breaks: { bottomM: ground.bottomM } } : {}),
  };
  if (!ground.wall || ground.roundM >= crestM) return [top];
  const round: Outlet = {
    id: `${pond.id}#round`,
    role: 'round',
    work: pond.id,
    name: 'ground beside the wall',
    kind: 'bank',
    levelM: ground.roundM,
    dischargeAt: outside(ground.roundAt),
    flowAt: sideSlopeLaw({ slope: ground.roundSlope, levelM: ground.roundM }),
  };
  return [round, top];
}

/** The pond as a store with the ways out it hosts. */
export function storeOf(
  pond: Earthwork,
  { basin, brims }: { readonly basin: Basin; readonly brims: readonly Outlet[] },
  guests: readonly Outlet[],
): Store {
  const floorM = floorOf(basin, pond);
  const outlets = [...guests, ...brims].sort((a, b) => a.levelM - b.levelM);
  const ways = outlets.filter((o) => o.kind !== 'joint');
  const chosen = guests.filter((g) => g.kind !== 'joint');
  const crest = Math.min(...brims.map((b) => b.levelM));
  const wayOutM = Math.max(floorM, ways[0].levelM);
  const water = waterAt(basin, wayOutM);
  return {
    id: pond.id,
    work: pond.id,
    name: pond.name,
    floorM,
    sillM: chosen.length > 0 ? Math.min(...chosen.map((g) => g.levelM)) : null,
    wayOutM,
    crestM: crest,
    heldM3: water.volumeM3,
    stage: stageOf(basin, floorM, Math.max(crest, ...brims.map((b) => b.levelM)) + ABOVE_CREST_M),
    outlets,
    waterM2: water.surfaceM2,
    seepsMmPerHour: pond.seepageMmPerDay / 24,
    driesMmPerHour: pond.evaporationMmPerDay / 24,
  };
}
