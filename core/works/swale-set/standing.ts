// Each swale of a set on the real ground: its levels, what it holds, and where it lets go.
import type { Outlet, Stage, Store, StormFacts } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { type LipGround, downhillAt, groundAlong } from '../lip.ts';
import { storeIdOf } from '../series.ts';
import { SHRINK, type Trough, addWater, bankArea, cutArea, troughOf } from '../trough.ts';
import type { SwaleSet } from './model.ts';

export interface Row {
  readonly store: string;
  readonly name: string;
  readonly line: Line;
  readonly ground: LipGround;
  readonly slices: readonly Slice[];
  readonly slope: number;
  /** Mean ground at its lip, and its levels by that. */
  readonly lipM: number;
  readonly floorM: number;
  readonly spillM: number;
  readonly crestM: number;
  /** Where it spills, by distance along its line: well in from its end, so that the next one below takes it. */
  readonly spillAtM: number;
}

/** Its trough at a station, and how much of its length that stands for [m]. */
interface Slice {
  readonly trough: Trough;
  readonly share: number;
}

/** What each station of a line stands for [m]. */
const shareOf = ({ groundM, stepM }: LipGround, i: number): number => (i === 0 || i === groundM.length - 1 ? stepM / 2 : stepM);

const slicesOf = (work: SwaleSet, ground: LipGround, floorM: number): readonly Slice[] =>
  Array.from(ground.groundM, (level, i) => ({
    trough: troughOf({ ...work.dimensions, lipDepthM: level - floorM, crossSlope: ground.crossSlope[i] }),
    share: shareOf(ground, i),
  }));

/** A spill lies so far in from an end, by the length of its swale. */
const IN_FROM_END = 0.2;

const atStart = (spills: SwaleSet['spills'], k: number): boolean => spills === 'start' || (spills === 'in-turn' && k % 2 === 1);

export function rowsOf(work: SwaleSet, grounds: readonly LipGround[]): readonly Row[] {
  const { depthM, bankM, spillM, spillLengthM } = work.dimensions;
  return work.lines.map((line, k): Row => {
    const ground = grounds[k];
    const lipM = ground.meanGroundM;
    const half = Math.min(ground.lengthM / 2, Math.max(spillLengthM / 2, IN_FROM_END * ground.lengthM));
    return {
      store: storeIdOf(work.id, k),
      name: work.lines.length === 1 ? work.name : `${work.name}, swale ${k + 1}`,
      line,
      ground,
      slices: slicesOf(work, ground, lipM - depthM),
      slope: ground.meanSlope,
      lipM,
      floorM: lipM - depthM,
      spillM: lipM + spillM,
      crestM: lipM + bankM,
      spillAtM: atStart(work.spills, k) ? half : ground.lengthM - half,
    };
  });
}

interface Content {
  readonly volumeM3: number;
  readonly wettedM2: number;
}

/** Water in one up to a level, as if nothing filled it. */
function openAt({ slices, floorM }: Row, levelM: number): Content {
  const sum = new Float64Array(2);
  for (const { trough, share } of slices) addWater(sum, trough, { depthM: levelM - floorM, share });
  return { volumeM3: sum[0], wettedM2: sum[1] };
}

/** Water in one up to a level: what fills it leaves a share of its room. */
export function contentAt(work: SwaleSet, row: Row, levelM: number): Content {
  const open = openAt(row, levelM);
  if (work.fill === 'none') return open;
  const { fillM, fillVoids } = work.dimensions;
  const filled = openAt(row, Math.min(levelM, row.floorM + fillM)).volumeM3;
  return { volumeM3: open.volumeM3 - (1 - fillVoids) * filled, wettedM2: open.wettedM2 };
}

export const heldIn = (work: SwaleSet, row: Row): number => contentAt(work, row, row.spillM).volumeM3;
/** What fills one [m3]. */
export const fillOf = (work: SwaleSet, row: Row): number =>
  work.fill === 'none' ? NOTHING_M3 : openAt(row, row.floorM + work.dimensions.fillM).volumeM3;
const NOTHING_M3 = 0;

/** Earth dug, and earth of the bank as it is trodden in [m3]; null where the ground is too steep for its sides. */
export function earthOf(work: SwaleSet, row: Row): { readonly cutM3: number; readonly bankM3: number } | null {
  const { floorWidthM: b, sideSlopeHV: z, bankTopM: w, bankSlopeHV: zb } = work.dimensions;
  if (row.ground.steepestSlope * Math.max(z, zb) >= 1) return null;
  let [cutM3, bankM3] = [0, 0];
  row.ground.groundM.forEach((g, i) => {
    const share = shareOf(row.ground, i);
    const s = row.ground.crossSlope[i];
    cutM3 += share * cutArea({ b, z, h: Math.max(0, g - row.floorM), s });
    bankM3 += share * bankArea({ B: Math.max(0, row.crestM - g), w, zb, s });
  });
  return { cutM3, bankM3 };
}
/** Height of bank that takes just what is dug, on average along a set [m]; null where the ground is too steep. */
export function balancedBank(work: SwaleSet, rows: readonly Row[]): number | null {
  let [low, high] = [0.05, 2];
  for (let k = 0; k < 30; k++) {
    const bankM = (low + high) / 2;
    let [cut, bank] = [0, 0];
    for (const row of rows) {
      const earth = earthOf(work, { ...row, crestM: row.lipM + bankM });
      if (!earth) return null;
      cut += earth.cutM3;
      bank += earth.bankM3;
    }
    if (bank < cut * SHRINK) low = bankM;
    else high = bankM;
  }
  return low;
}

const STAGES = 30;
/** How far over its bank the table reaches [m]. */
const ABOVE_M = 0.5;

function stageOf(work: SwaleSet, row: Row): Stage {
  const top = row.crestM + ABOVE_M;
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => row.floorM + ((top - row.floorM) * k) / STAGES);
  const content = Array.from(levelM, (level) => contentAt(work, row, level));
  let least = 0;
  const volumeM3 = Float64Array.from(content, (c) => (least = Math.max(least + 1e-9, c.volumeM3)) - 1e-9);
  return { levelM, volumeM3, wettedM2: Float64Array.from(content, (c) => Math.max(1e-3, c.wettedM2)) };
}

/** A step downhill of its bank at a distance along it. */
function outside(work: SwaleSet, row: Row, atM: number): Point {
  const { point } = pointAlong(row.line, atM);
  const [dx, dy] = downhillAt(row.line, row.ground, atM);
  const { bankTopM, bankSlopeHV, bankM } = work.dimensions;
  const away = bankTopM + 2 * bankSlopeHV * bankM + 0.5;
  return [point[0] + dx * away, point[1] + dy * away];
}

function outletsOf(work: SwaleSet, row: Row): Outlet[] {
  const lowest = row.ground.groundM.reduce((best, v, i) => (v < row.ground.groundM[best] ? i : best), 0);
  const at = outside(work, row, row.spillAtM);
  return [
    {
      work: work.id,
      id: `${row.store}#spill`,
      role: 'way',
      name: `${row.name}: its spill`,
      kind: 'sill',
      levelM: row.spillM,
      dischargeAt: at,
      flowAt: grassedSillLaw({ lengthM: work.dimensions.spillLengthM, levelM: row.spillM }),
      exit: { at, slope: row.slope, widthM: work.dimensions.spillLengthM, shape: 'sheet', isFelt: true },
    },
    {
      work: work.id,
      id: `${row.store}#bank`,
      role: 'bank',
      name: `${row.name}: its bank`,
      kind: 'bank',
      levelM: row.crestM,
      dischargeAt: outside(work, row, row.ground.atM[lowest]),
      flowAt: grassedSillLaw({ lengthM: row.ground.lengthM, levelM: row.crestM }),
      breaks: { bottomM: groundAlong(row.ground, row.ground.atM[lowest]) },
    },
  ];
}

/** Every swale a store; what one spills the next one below takes in. */
export const storesOf = (work: SwaleSet, rows: readonly Row[]): readonly Store[] =>
  rows.map((row): Store => {
    const full = contentAt(work, row, row.spillM);
    return {
      id: row.store,
      work: work.id,
      name: row.name,
      floorM: row.floorM,
      sillM: row.spillM,
      wayOutM: row.spillM,
      crestM: row.crestM,
      heldM3: full.volumeM3,
      waterM2: full.wettedM2,
      stage: stageOf(work, row),
      outlets: outletsOf(work, row),
    };
  });

export interface SetFacts extends StormFacts {
  readonly work: SwaleSet;
  readonly rows: readonly Row[];
}
