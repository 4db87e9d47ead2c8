// A weir as a store: what lies behind it, its notch, its ends, and what finds a way through or past it.
import type { Exit, Outlet, Store } from '../../contract/index.ts';
import { type Point, nearestOnLine, pointAlong } from '../../geometry/index.ts';
import {
  type FlowLaw,
  ROCK_SEEPAGE,
  ROCK_VOIDS,
  Rating,
  VOID_RADIUS,
  crestLaw,
  grassedSillLaw,
  ratedLaw,
  sideSlopeLaw,
} from '../../hydraulics/index.ts';
import { type Basin, type Earthwork, basinOf, waterAt } from '../basin/index.ts';
import { siltedStage } from '../silt.ts';
import { siltedShare } from '../series.ts';
import { isBreached } from './model.ts';
import { NOTCH_C, type Standing } from './standing.ts';

/** How far above its ends the stage table reaches [m]. */
const ABOVE_M = 1;
/** As wide as the way is that water has found past it [m]: a guess on the side of harm to what lies below. */
const GAP_M = 1;

/** Its body and the fill before it as earth that takes room from the water. */
const bodyAsEarth = ({ work, channel }: Standing): Earthwork => ({
  id: work.id,
  name: work.name,
  wall: work.line,
  levels: { crestM: work.levels.crestM, floorM: channel.bedM },
  dimensions: {
    topWidthM: work.dimensions.topWidthM,
    waterSlopeHV: Math.max(0.001, work.dimensions.rampUpHV),
    backSlopeHV: Math.max(0.001, work.dimensions.rampDownHV),
    keyDepthM: 0,
    keyWidthM: 0,
    stripM: 0,
    pitSlopeHV: 1,
  },
  settlementPercent: 0,
  seepageMmPerDay: 0,
  evaporationMmPerDay: 0,
});

export const basinBehind = (standing: Standing): Basin => basinOf(bodyAsEarth(standing), standing.ground);

/** Water it holds to its notch, as new, and what silt has taken of it [m3]. */
export function roomOf(standing: Standing, basin: Basin): { readonly allM3: number; readonly siltM3: number } {
  const { work } = standing;
  const allM3 = waterAt(basin, work.levels.notchM).volumeM3;
  return { allM3, siltM3: allM3 * siltedShare(work) };
}

/** Unit vector down the channel, away from what it holds. */
export function downstream({ work, wall }: Standing, atM: number): Point {
  const [dx, dy] = pointAlong(work.line, atM).direction;
  return wall.waterSide === 1 ? [dy, -dx] : [-dy, dx];
}

/** A place below it at its foot and so much further, square to its line. */
export function below(standing: Standing, atM: number, furtherM: number): Point {
  const { work } = standing;
  const { point } = pointAlong(work.line, atM);
  const [dx, dy] = downstream(standing, atM);
  const away = work.dimensions.baseWidthM / 2 + furtherM;
  return [point[0] + dx * away, point[1] + dy * away];
}

/** Wetted face of the wall below a level [m2]. */
function faceBelow({ work, wall }: Standing, levelM: number): number {
  return wall.groundM.reduce((a, g) => a + Math.max(0, Math.min(levelM, work.levels.crestM) - g) * wall.stepM, 0);
}

/** Flow through baskets by the level before them, free behind: the less the more silt lies there. */
function seepageLaw(standing: Standing, floorM: number): FlowLaw | null {
  const { work } = standing;
  const open = 1 - siltedShare(work);
  if (work.form !== 'gabion' || work.face !== 'open' || open <= 0 || floorM >= work.levels.crestM) return null;
  const { topWidthM, baseWidthM, pieceM } = work.dimensions;
  const m = VOID_RADIUS.evaluate({ D: pieceM, p: ROCK_VOIDS });
  const most = work.levels.crestM - floorM;
  const L = (topWidthM + baseWidthM) / 2;
  const rating = Rating.by(16, (share) => {
    const y = most * share;
    const perM = ROCK_SEEPAGE.evaluate({ h1: y, h2: 0, L, m, p: ROCK_VOIDS });
    return [y, (open * perM * (faceBelow(standing, floorM + y) - faceBelow(standing, floorM))) / y];
  });
  return ratedLaw(rating, floorM);
}

/** Length of its crest that stands above the ground, the notch left out [m]. */
function endsLength({ work, wall }: Standing): number {
  const over = wall.groundM.filter((g) => g < work.levels.crestM).length * wall.stepM;
  return Math.max(0.5, over - work.dimensions.notchWidthM);
}

/** Ways out, by the level from which water stands behind it: its bed, or the silt there. */
export function outletsOf(standing: Standing, floorM: number): Outlet[] {
  const { work, ground, fall } = standing;
  const { notchWidthM, apronM } = work.dimensions;
  const { notchM, crestM } = work.levels;
  const dischargeAt = below(standing, work.notchAtM, apronM + 0.5);
  const exit: Exit = { at: dischargeAt, slope: fall, widthM: notchWidthM, shape: 'sheet' };
  const own = { work: work.id, dischargeAt };
  const notch: Outlet = {
    ...own,
    id: `${work.id}#notch`,
    role: 'way',
    name: `${work.name}: notch`,
    kind: 'sill',
    levelM: notchM,
    levelBy: 'levels.notchM',
    flowAt: crestLaw({ C: NOTCH_C, lengthM: notchWidthM, levelM: notchM }),
    exit,
  };
  const ends: Outlet = {
    ...own,
    id: `${work.id}#ends`,
    role: 'crest',
    name: `${work.name}: its ends`,
    kind: 'bank',
    levelM: crestM,
    levelBy: 'levels.crestM',
    flowAt: grassedSillLaw({ lengthM: endsLength(standing), levelM: crestM }),
  };
  const isShort = ground.roundM < crestM;
  const { atM: roundAtM } = nearestOnLine(ground.roundAt, work.line);
  const round: Outlet = {
    ...own,
    id: `${work.id}#round`,
    role: 'round',
    name: 'ground beside the weir',
    kind: 'bank',
    levelM: ground.roundM,
    dischargeAt: below(standing, roundAtM, 1),
    flowAt: sideSlopeLaw({ slope: ground.roundSlope, levelM: ground.roundM }),
  };
  const gap: Outlet = {
    ...own,
    id: `${work.id}#gap`,
    role: work.found === 'flanked' ? 'round' : 'through',
    name: `${work.name}: where it is ${work.found}`,
    kind: 'rated',
    levelM: floorM,
    flowAt: crestLaw({ C: NOTCH_C, lengthM: GAP_M, levelM: floorM }),
  };
  const seepage = seepageLaw(standing, floorM);
  const through: Outlet[] = seepage
    ? [
        {
          ...own,
          id: `${work.id}#stone`,
          role: 'through',
          name: `${work.name}: through its baskets`,
          kind: 'rated',
          levelM: floorM,
          flowAt: seepage,
        },
      ]
    : [];
  const passes = isBreached(work) ? [gap] : through;
  return [...passes, notch, ...(isShort ? [round] : []), ends].sort((a, b) => a.levelM - b.levelM);
}

/** The weir as a store; one that is breached, or lets water through, is found empty. */
export function storeOf(standing: Standing, basin: Basin): Store {
  const { work, channel } = standing;
  const { notchM, crestM } = work.levels;
  const { allM3, siltM3 } = roomOf(standing, basin);
  const at = (levelM: number): { volumeM3: number; wettedM2: number } => {
    const { volumeM3, surfaceM2 } = waterAt(basin, levelM);
    return { volumeM3, wettedM2: surfaceM2 };
  };
  const topM = Math.max(crestM, standing.ground.roundM) + ABOVE_M;
  const stage = siltedStage(at, { bedM: channel.bedM, fullM: notchM, topM, siltM3 });
  const [floorM] = stage.levelM;
  const outlets = outletsOf(standing, floorM);
  const isTight = outlets.every((o) => o.levelM > floorM);
  const brims = outlets.filter((o) => o.kind === 'bank').map((o) => o.levelM);
  return {
    id: work.id,
    work: work.id,
    name: work.name,
    floorM,
    sillM: notchM,
    wayOutM: isTight ? Math.max(floorM, Math.min(notchM, ...brims)) : floorM,
    crestM: Math.min(...brims),
    heldM3: isTight ? allM3 - siltM3 : 0,
    waterM2: waterAt(basin, notchM).surfaceM2,
    stage,
    outlets,
  };
}
