// Earth of a wall by sections on the real ground.
import { type Line, type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { type Grid, levelAt } from '../../terrain/index.ts';
import { carryOver } from '../lip.ts';
import type { Earthwork } from './earthwork.ts';

/** Ground along a wall and square to it, at even stations. */
export interface WallGround {
  readonly lengthM: number;
  readonly stepM: number;
  readonly atM: Float64Array;
  readonly groundM: Float64Array;
  /** Which side holds water: 1 left of its direction, -1 right. */
  readonly waterSide: 1 | -1;
  /** Ground square to the line, from the outer side (-REACH) to the water side, by station; even steps, NaN where unknown. */
  readonly across: readonly Float64Array[];
  readonly acrossStepM: number;
}

/** How far to either side the ground of a section is known [m]: a wall of 8 m with sides of 4 to 1. */
const REACH_M = 36;
const ACROSS_STEP_M = 0.5;
const MOST_STATIONS = 160;

const leftOf = ([dx, dy]: Point): Point => [-dy, dx];

/** Measures the ground a wall stands on. Beside it unknown ground stays unknown. @throws UnknownGround with none under it. */
export function measureWall(grid: Grid, line: Line): WallGround {
  const lengthM = lineLength(line);
  const count = Math.min(MOST_STATIONS, Math.max(8, Math.ceil(lengthM / Math.max(0.5, grid.cellM / 2))));
  const stepM = lengthM / count;
  const atM = Float64Array.from({ length: count + 1 }, (_, i) => i * stepM);
  const half = Math.round(REACH_M / ACROSS_STEP_M);
  const groundM = Float64Array.from(atM, (at) => levelAt(grid, pointAlong(line, at).point));
  carryOver(groundM, 'No level is known under its wall');
  const left = Array.from(atM, (at, i) => {
    const { point, direction } = pointAlong(line, at);
    const [nx, ny] = leftOf(direction);
    return Float64Array.from({ length: 2 * half + 1 }, (_, k) => {
      const d = (k - half) * ACROSS_STEP_M;
      return d === 0 ? groundM[i] : levelAt(grid, [point[0] + nx * d, point[1] + ny * d]);
    });
  });
  // Water stands on the side the ground rises to, as seen from the lowest places of the wall.
  const lowest = groundM.reduce((a, v) => Math.min(a, v), Infinity);
  let lean = 0;
  left.forEach((ground, i) => {
    const weight = 1 / (0.5 + groundM[i] - lowest) ** 2;
    // Where a side is not known the middle stands for it.
    const [high, low] = [half + 20, half - 20].map((k) => (Number.isNaN(ground[k]) ? groundM[i] : ground[k]));
    lean += weight * (high - low);
  });
  const waterSide = lean >= 0 ? 1 : -1;
  return {
    lengthM,
    stepM,
    atM,
    groundM,
    waterSide,
    across: waterSide === 1 ? left : left.map((g) => g.slice().reverse()),
    acrossStepM: ACROSS_STEP_M,
  };
}

/** Ground under a wall at a distance along it, straight between stations. */
export function wallGroundAt({ groundM, stepM }: WallGround, atM: number): number {
  const place = Math.min(groundM.length - 1, Math.max(0, atM / stepM));
  const i = Math.min(groundM.length - 2, Math.floor(place));
  return groundM[i] + (groundM[i + 1] - groundM[i]) * (place - i);
}

export interface WallEarth {
  /** In place, with what it is built higher for settling. */
  readonly earthM3: number;
  readonly keyM3: number;
  readonly stripM3: number;
  /** Greatest height over the ground under its middle. */
  readonly heightM: number;
  /** Greatest height of the crest over the foot of the outer side. */
  readonly toeHeightM: number;
  /** Part of the line that really carries wall. */
  readonly lengthM: number;
  readonly baseM2: number;
}

type WallShape = Pick<Earthwork, 'levels' | 'dimensions' | 'settlementPercent'>;

/** Area of one section between the ground and the wall's outline, the width it stands on, and the level of its outer foot; null where it stands on unknown ground. */
function sectionOf(
  { levels, dimensions }: WallShape,
  ground: Float64Array,
  stepM: number,
): { areaM2: number; widthM: number; toeM: number } | null {
  const half = (ground.length - 1) / 2;
  const { topWidthM, waterSlopeHV, backSlopeHV } = dimensions;
  const outline = (k: number): number => {
    const d = (k - half) * stepM;
    const beyond = Math.abs(d) - topWidthM / 2;
    return beyond <= 0 ? levels.crestM : levels.crestM - beyond / (d > 0 ? waterSlopeHV : backSlopeHV);
  };
  const above = (k: number): number => outline(k) - ground[k];
  if (above(half) <= 0) return { areaM2: 0, widthM: 0, toeM: ground[half] };
  let [areaM2, widthM] = [0, 0];
  let toeM = ground[half];
  for (const side of [1, -1]) {
    let before = above(half);
    // A great dam's foot lies farther out than sections reach: its earth is counted that far, so that its height is still judged.
    for (let k = half + side; k >= 0 && k < ground.length; k += side) {
      const here = above(k);
      if (Number.isNaN(here)) return null;
      // To the place where the side meets the ground, straight between samples.
      const share = here >= 0 ? 1 : before / (before - here);
      areaM2 += ((before + Math.max(0, here)) / 2) * share * stepM;
      widthM += share * stepM;
      if (side === -1) toeM = ground[k];
      if (here < 0) break;
      before = here;
    }
  }
  return { areaM2, widthM, toeM };
}

/** Earth, key and topsoil of a wall, section by section; null where a foot of it stands on unknown ground. */
export function wallEarth(pond: WallShape, ground: WallGround): WallEarth | null {
  const { keyDepthM, keyWidthM, stripM } = pond.dimensions;
  let [earth, lengthM, baseM2, heightM, toeHeightM] = [0, 0, 0, 0, 0];
  const last = ground.atM.length - 1;
  for (let i = 0; i <= last; i++) {
    const height = pond.levels.crestM - ground.groundM[i];
    if (height <= 0) continue;
    const share = (i === 0 || i === last ? 0.5 : 1) * ground.stepM;
    const section = sectionOf(pond, ground.across[i], ground.acrossStepM);
    if (!section) return null;
    const { areaM2, widthM, toeM } = section;
    earth += areaM2 * share;
    baseM2 += widthM * share;
    lengthM += share;
    heightM = Math.max(heightM, height);
    toeHeightM = Math.max(toeHeightM, pond.levels.crestM - toeM);
  }
  const stripM3 = baseM2 * stripM;
  // Topsoil taken off under the wall is made good with earth that holds water.
  return {
    earthM3: earth * (1 + pond.settlementPercent / 100) + stripM3,
    keyM3: lengthM * keyDepthM * (keyWidthM + keyDepthM),
    stripM3,
    heightM,
    toeHeightM: Math.max(heightM, toeHeightM),
    lengthM,
    baseM2,
  };
}
