// What a weir may stand on, and the channel it stands in.
import type { Site } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { type Grid, levelAt } from '../../terrain/index.ts';
import { type BasinGround, type WallGround, measureBasin } from '../basin/index.ts';
import { UnknownGround } from '../unknown-ground.ts';
import type { Weir } from './model.ts';

/** Share of the lift under a base, by what lies there: half over a drain (common practice). */
export const LIFT: Readonly<Record<Weir['base'], number>> = { bare: 1, drained: 0.5, sealed: 0 };

/** Weight with its gaps [kN/m3]: baskets 26·(1 − 0.38); masonry of stone in mortar. */
export const WEIGHT_KN_M3: Readonly<Record<Weir['form'], number>> = { gabion: 16, masonry: 22 };

/** Water in the gaps of baskets; masonry has none worth counting [kN/m3]. */
export const PORE_KN_M3: Readonly<Record<Weir['form'], number>> = { gabion: 3.7, masonry: 0 };

/** Silt that comes to lie behind it: its weight under water and its friction (common practice). */
export const [SILT_KN_M3, SILT_FRICTION_DEG] = [9, 30];

/** So far over its lowest is still bed [m]. */
const FLAT_M = 0.12;

export interface Channel {
  readonly bedM: number;
  readonly bedAtM: number;
  /** Bed by the terrain, its middle along the line, and how deep it is cut below its lower bank. */
  readonly widthM: number;
  readonly middleM: number;
  readonly depthM: number;
}

/** The channel a line crosses, by the ground along it. */
export function channelUnder({ groundM, stepM }: Pick<WallGround, 'groundM' | 'stepM'>): Channel {
  const lowest = groundM.reduce((best, v, i) => (v < groundM[best] ? i : best), 0);
  const bedM = groundM[lowest];
  const most = (from: number, to: number): number => groundM.slice(from, to).reduce((a, v) => Math.max(a, v), bedM);
  /** Where the bed ends on one side: between the last station on it and the first on the bank. */
  const edge = (side: 1 | -1): number => {
    let at = lowest;
    while (at + side >= 0 && at + side < groundM.length && groundM[at + side] <= bedM + FLAT_M) at += side;
    const next = groundM[at + side];
    return next === undefined ? at : at + (side * (bedM + FLAT_M - groundM[at])) / (next - groundM[at]);
  };
  const [left, right] = [edge(-1), edge(1)];
  return {
    bedM,
    bedAtM: lowest * stepM,
    widthM: Math.max(0.5, (right - left) * stepM),
    middleM: ((left + right) / 2) * stepM,
    depthM: Math.min(most(0, lowest + 1), most(lowest, groundM.length)) - bedM,
  };
}

/** How far the bed is followed below and above a weir, and how far its fall is read [m]; the least that is taken for that [m/m]. */
const [FOLLOWED_M, BELOW_M, LEAST_FALL] = [36, 15, 0.002];
/** Looks to both sides at each step, and how far they turn: a gully bends, but not back. */
const [LOOKS, TURN] = [5, Math.PI / 3];

/** The bed along the flow from under a weir: how far away, and its level. */
export interface Thalweg {
  readonly awayM: readonly number[];
  readonly levelM: readonly number[];
}

/** Follows the lowest of the ground from a place, step by step, in about a direction, until it is not known any more. */
export function followBed(grid: Grid, from: Point, direction: Point): Thalweg {
  const step = Math.max(1, 0.75 * grid.cellM);
  const [awayM, levelM] = [[0], [levelAt(grid, from)]];
  let [at, way] = [from, Math.atan2(direction[1], direction[0])];
  for (let away = step; away <= FOLLOWED_M; away += step) {
    let best: { readonly to: Point; readonly level: number; readonly angle: number } | null = null;
    for (let k = -LOOKS; k <= LOOKS; k++) {
      const angle = way + (TURN * k) / LOOKS;
      const to: Point = [at[0] + step * Math.cos(angle), at[1] + step * Math.sin(angle)];
      const level = levelAt(grid, to);
      if (!Number.isNaN(level) && (best === null || level < best.level)) best = { to, level, angle };
    }
    if (!best) break;
    // Half of the turn is kept, so that one pit to a side does not lead it astray.
    way += (best.angle - way) / 2;
    at = best.to;
    awayM.push(away);
    levelM.push(best.level);
  }
  return { awayM, levelM };
}

/** Fall of the bed below; null where the ground there is not known. */
export function fallBelow({ awayM, levelM }: Thalweg): number | null {
  const k = awayM.findIndex((away) => away >= BELOW_M);
  return k < 0 ? null : Math.max(LEAST_FALL, (levelM[0] - levelM[k]) / awayM[k]);
}

/** What a weir is measured by: the ground it closes in, and the bed down and up the flow from it. */
export interface WeirGround extends BasinGround {
  readonly down: Thalweg;
  readonly up: Thalweg;
}

/** @throws UnknownGround where nothing is known of the ground under it. */
export function measureWeir(line: Line, { grid }: Pick<Site, 'grid'>): WeirGround {
  const basin = measureBasin({ wall: line }, { grid });
  const { wall } = basin;
  if (!wall) throw new UnknownGround('No level is known under it');
  const { bedAtM } = channelUnder(wall);
  const { point, direction } = pointAlong(line, bedAtM);
  // Water stands on the side the bed rises to: where a gully bends, ground straight ahead may be its bank.
  const left = followBed(grid, point, [-direction[1], direction[0]]);
  const right = followBed(grid, point, [direction[1], -direction[0]]);
  const far = Math.min(left.levelM.length, right.levelM.length) - 1;
  const waterSide = left.levelM[far] >= right.levelM[far] ? 1 : -1;
  const seen = waterSide === wall.waterSide ? wall : { ...wall, waterSide, across: wall.across.map((g) => g.slice().reverse()) };
  const [up, down] = waterSide === 1 ? [left, right] : [right, left];
  return { ...basin, wall: { ...seen, waterSide }, down, up };
}
