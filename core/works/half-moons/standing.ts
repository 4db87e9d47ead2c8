// Each row on the real ground: the slope under its basins, what they hold together, and how they let go.
import type { Exit, Outlet, Stage, Store, StormFacts } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { type LipGround, downhillAt, groundAlong } from '../lip.ts';
import { siltedStage } from '../silt.ts';
import { siltedShare, storeIdOf } from '../series.ts';
import { type HalfMoons, brokenIn, pitchOf, placesIn } from './model.ts';

export interface Row {
  readonly store: string;
  readonly name: string;
  readonly line: Line;
  readonly ground: LipGround;
  /** How many there are, and how many of them hold. */
  readonly count: number;
  readonly sound: number;
  /** Mean ground under its line, and mean fall across it [m, m/m]. */
  readonly tipsM: number;
  readonly slope: number;
  /** Most that the two tips of one differ in level, and where [m]. */
  readonly unevenM: number;
  readonly unevenAt: Point;
}

/** Planted ground of one [m2]. */
export const basinAreaM2 = ({ form, dimensions: { radiusM: r } }: Pick<HalfMoons, 'form' | 'dimensions'>): number =>
  form === 'pit' ? Math.PI * r * r : (Math.PI * r * r) / 2;

export function rowsOf(work: HalfMoons, grounds: readonly LipGround[]): readonly Row[] {
  const { radiusM } = work.dimensions;
  return work.rows.map((line, k): Row => {
    const ground = grounds[k];
    const places = placesIn(work, k);
    const uneven = places.map((at) => Math.abs(groundAlong(ground, at - radiusM) - groundAlong(ground, at + radiusM)));
    const worst = uneven.reduce((best, v, i) => (v > uneven[best] ? i : best), 0);
    return {
      store: storeIdOf(work.id, k),
      name: work.rows.length === 1 ? work.name : `${work.name}, row ${k + 1}`,
      line,
      ground,
      count: places.length,
      sound: Math.max(0, places.length - brokenIn(work, k)),
      tipsM: ground.meanGroundM,
      slope: ground.meanSlope,
      unevenM: uneven[worst],
      unevenAt: pointAlong(line, places[worst]).point,
    };
  });
}

interface Content {
  readonly volumeM3: number;
  readonly wettedM2: number;
}

const STRIPS = 48;

/** What one holds with its water so far under or over the level of its tips, strip by strip downhill from the line through them. */
export function heldBy({ form, dimensions }: Pick<HalfMoons, 'form' | 'dimensions'>, slope: number, overTipsM: number): Content {
  const { radiusM: r, dugM } = dimensions;
  if (form === 'pit') {
    // Level inside: its first water wets all of it.
    const wettedM2 = Math.PI * r * r;
    return { volumeM3: wettedM2 * Math.max(0, overTipsM + dugM), wettedM2 };
  }
  let [volumeM3, wettedM2] = [0, 0];
  for (let k = 0; k < STRIPS; k++) {
    // Strips narrow towards the far side, where the disc does.
    const [near, far] = [r * Math.sin((Math.PI / 2) * (k / STRIPS)), r * Math.sin((Math.PI / 2) * ((k + 1) / STRIPS))];
    const u = (near + far) / 2;
    const depth = overTipsM + slope * u + dugM;
    if (depth <= 0) continue;
    const area = 2 * Math.sqrt(Math.max(0, r * r - u * u)) * (far - near);
    volumeM3 += area * depth;
    wettedM2 += area;
  }
  return { volumeM3, wettedM2 };
}

/** Lowest ground in one under the level of its tips [m]. */
export const deepestM = ({ form, dimensions: { radiusM, dugM } }: HalfMoons, { slope }: Row): number =>
  dugM + (form === 'pit' ? 0 : slope * radiusM);

/** How far over their bunds the tables reach [m]; and a bund that is none: a pit's spoil lies loose. */
const [ABOVE_M, SPOIL_M] = [0.4, 0.05];
/** How wide water leaves past each tip [m]: common practice for half a metre of stone. */
const TIP_M = 0.5;

const overTips = ({ form, dimensions }: HalfMoons): number => (form === 'pit' ? SPOIL_M : dimensions.overTipsM);

/** Room of a row to the tips, silt and all, of those that hold [m3]. */
export const roomOf = (work: HalfMoons, row: Row): number => row.sound * heldBy(work, row.slope, 0).volumeM3;

function outletsOf(work: HalfMoons, row: Row): Outlet[] {
  const { radiusM, gapM } = work.dimensions;
  const middle = row.ground.lengthM / 2;
  const { point } = pointAlong(row.line, middle);
  const [dx, dy] = downhillAt(row.line, row.ground, middle);
  const dischargeAt: Point = [point[0] + dx * (radiusM + 1), point[1] + dy * (radiusM + 1)];
  const own = { work: work.id, dischargeAt };
  const passes = row.sound * (work.form === 'pit' ? 2 * radiusM : Math.max(0.1, Math.min(2 * TIP_M, gapM)));
  const exit: Exit = { at: dischargeAt, slope: row.slope, widthM: Math.max(0.1, passes), shape: 'sheet' };
  const bundM = row.tipsM + overTips(work);
  return [
    {
      ...own,
      id: `${row.store}#tips`,
      role: 'way',
      name: `${row.name}: past their tips`,
      kind: 'sill',
      levelM: row.tipsM,
      flowAt: grassedSillLaw({ lengthM: passes, levelM: row.tipsM }),
      exit,
    },
    {
      ...own,
      id: `${row.store}#bunds`,
      role: 'bank',
      name: `${row.name}: over their bunds`,
      kind: 'bank',
      levelM: bundM,
      flowAt: grassedSillLaw({ lengthM: Math.max(0.1, row.sound * Math.PI * radiusM), levelM: bundM }),
    },
  ];
}

function storeOf(work: HalfMoons, row: Row): Store {
  const floor = row.tipsM - deepestM(work, row);
  const full = roomOf(work, row);
  const at = (levelM: number): Content => {
    const { volumeM3, wettedM2 } = heldBy(work, row.slope, levelM - row.tipsM);
    return { volumeM3: row.sound * volumeM3, wettedM2: row.sound * wettedM2 };
  };
  const stage: Stage = siltedStage(at, {
    bedM: floor,
    fullM: row.tipsM,
    topM: row.tipsM + overTips(work) + ABOVE_M,
    siltM3: full * siltedShare(work),
  });
  const [floorM] = stage.levelM;
  return {
    id: row.store,
    work: work.id,
    name: row.name,
    floorM,
    sillM: row.tipsM,
    wayOutM: Math.max(floorM, row.tipsM),
    crestM: row.tipsM + overTips(work),
    heldM3: full * (1 - siltedShare(work)),
    waterM2: row.sound * heldBy(work, row.slope, 0).wettedM2,
    stage,
    outlets: outletsOf(work, row),
  };
}

/** Every row a store; what leaves it is followed downhill, where the next row takes its share. */
export const storesOf = (work: HalfMoons, rows: readonly Row[]): readonly Store[] => rows.map((row) => storeOf(work, row));

/** Run-on ground of one, up to the row above, its own left out [m2]; null with one row alone, where nobody has said how far it reaches. */
export function runOnM2(work: HalfMoons, rows: readonly Row[]): number | null {
  if (rows.length < 2) return null;
  const order = [...rows].sort((a, b) => b.tipsM - a.tipsM);
  const slope = order.reduce((a, r) => a + r.slope, 0) / order.length;
  const levels = [...new Set(order.map((r) => Math.round(1000 * r.tipsM)))].length;
  const apart = (order[0].tipsM - order[order.length - 1].tipsM) / Math.max(1e-6, slope) / Math.max(1, levels - 1);
  return Math.max(0, apart * pitchOf(work) - basinAreaM2(work));
}

export interface MoonsFacts extends StormFacts {
  readonly work: HalfMoons;
  readonly rows: readonly Row[];
}
