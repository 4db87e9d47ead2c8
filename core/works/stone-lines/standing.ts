// Each line on the real ground: how far it leaves the contour, what it holds behind it, and what it lets through.
import type { Exit, Outlet, Stage, Store, StormFacts } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { GRASSED_SILL_C, ROCK_SEEPAGE, ROCK_VOIDS, Rating, VOID_RADIUS, ratedLaw, sideSlopeLaw } from '../../hydraulics/index.ts';
import { type LipGround, downhillAt } from '../lip.ts';
import { siltedStage } from '../silt.ts';
import { siltedShare, storeIdOf } from '../series.ts';
import type { StoneLines } from './model.ts';

export interface Row {
  readonly store: string;
  readonly name: string;
  readonly line: Line;
  readonly ground: LipGround;
  /** Lowest and highest ground along it, where the lowest is, and the ground at its lower end [m]. */
  readonly lowM: number;
  readonly highM: number;
  readonly lowAtM: number;
  readonly endM: number;
  /** Mean fall across it [m/m]. */
  readonly slope: number;
}

/** Water spreads no further up flatter ground than on this slope [m/m]. */
const LEAST_SLOPE = 0.003;

export function rowsOf(work: StoneLines, grounds: readonly LipGround[]): readonly Row[] {
  return work.lines.map((line, k): Row => {
    const ground = grounds[k];
    const low = ground.groundM.reduce((best, v, i) => (v < ground.groundM[best] ? i : best), 0);
    return {
      store: storeIdOf(work.id, k),
      name: work.lines.length === 1 ? work.name : `${work.name}, line ${k + 1}`,
      line,
      ground,
      lowM: ground.groundM[low],
      highM: ground.groundM.reduce((a, v) => Math.max(a, v), -Infinity),
      lowAtM: ground.atM[low],
      endM: Math.min(ground.groundM[0], ground.groundM[ground.groundM.length - 1]),
      slope: Math.max(LEAST_SLOPE, ground.meanSlope),
    };
  });
}

interface Content {
  readonly volumeM3: number;
  readonly wettedM2: number;
}

/** What each station of a line stands for [m]. */
const shareOf = ({ groundM, stepM }: LipGround, i: number): number => (i === 0 || i === groundM.length - 1 ? stepM / 2 : stepM);

/** Water behind a line at a level: a wedge behind each of its metres. */
export function behind({ ground }: Row, levelM: number): Content {
  let [volumeM3, wettedM2] = [0, 0];
  for (let i = 0; i < ground.groundM.length; i++) {
    const depth = levelM - ground.groundM[i];
    if (depth <= 0) continue;
    const slope = Math.max(LEAST_SLOPE, ground.crossSlope[i]);
    volumeM3 += (shareOf(ground, i) * depth * depth) / (2 * slope);
    wettedM2 += (shareOf(ground, i) * depth) / slope;
  }
  return { volumeM3, wettedM2 };
}

/** Room behind it to its top at its lowest place, silt and all [m3]. */
export const roomBehind = (row: Row, { dimensions }: StoneLines): number => behind(row, row.lowM + dimensions.heightM).volumeM3;

/** Sum along a line of a law by the depth of water before it. */
const along = ({ ground }: Row, levelM: number, lawOf: (depthM: number) => number): number =>
  ground.groundM.reduce((a, g, i) => (levelM > g ? a + shareOf(ground, i) * lawOf(levelM - g) : a), 0);

/** How far over its ends the tables reach [m]. */
const ABOVE_M = 0.6;

export const topOf = (row: Row, { dimensions }: StoneLines): number => row.lowM + dimensions.heightM;
/** Where water goes round it: its lower end, carried up as far as it is. */
export const roundOf = (row: Row, { dimensions }: StoneLines): number => Math.max(row.lowM + 0.01, row.endM + dimensions.endsUpM);

/** The middle of what goes through a line full to its top, along it [m]: its middle where it is level, near its lowest place where it is not. */
export function leavesAt(row: Row, work: StoneLines): number {
  const top = topOf(row, work);
  let [sum, moment] = [0, 0];
  row.ground.groundM.forEach((g, i) => {
    const weight = shareOf(row.ground, i) * Math.max(0, top - g) ** 1.5;
    sum += weight;
    moment += weight * row.ground.atM[i];
  });
  return sum > 0 ? moment / sum : row.lowAtM;
}

function outletsOf(work: StoneLines, row: Row, floorM: number): Outlet[] {
  const { heightM, baseWidthM, topWidthM, pieceM } = work.dimensions;
  const { line } = row;
  const leaves = leavesAt(row, work);
  const { point } = pointAlong(line, leaves);
  const [dx, dy] = downhillAt(line, row.ground, leaves);
  const dischargeAt: Point = [point[0] + dx * (baseWidthM + 1), point[1] + dy * (baseWidthM + 1)];
  const own = { work: work.id, dischargeAt };
  const exit: Exit = { at: dischargeAt, slope: row.slope, widthM: row.ground.lengthM, shape: 'sheet' };
  const m = VOID_RADIUS.evaluate({ D: pieceM, p: ROCK_VOIDS });
  const L = Math.max(0.05, (baseWidthM + topWidthM) / 2);
  const open = 1 - siltedShare(work);
  const perMetre = Rating.by(16, (share) => {
    const y = Math.max(1e-4, heightM * share);
    return [y, open * ROCK_SEEPAGE.evaluate({ h1: y, h2: 0, L, m, p: ROCK_VOIDS })];
  });
  const most = roundOf(row, work) + ABOVE_M - row.lowM;
  // Only what stands over the silt finds a way through.
  const siltM = floorM - row.lowM;
  const through = Rating.by(24, (share) => [
    most * share,
    along(row, floorM + most * share, (y) => perMetre.flowAt(Math.max(0, Math.min(heightM, y) - siltM))),
  ]);
  const over = Rating.by(24, (share) => [
    most * share,
    along(row, row.lowM + heightM + most * share, (y) => GRASSED_SILL_C * Math.max(0, y - heightM) ** 1.5),
  ]);
  const top = topOf(row, work);
  const round = roundOf(row, work);
  return [
    ...(open > 0
      ? [
          {
            ...own,
            id: `${row.store}#stone`,
            role: 'through' as const,
            name: `${row.name}: through its stone`,
            kind: 'rated' as const,
            levelM: floorM,
            flowAt: ratedLaw(through, floorM),
          },
        ]
      : []),
    {
      ...own,
      id: `${row.store}#top`,
      role: 'way',
      name: `${row.name}: over its top`,
      kind: 'sill',
      levelM: top,
      flowAt: ratedLaw(over, top),
      exit,
    },
    {
      ...own,
      id: `${row.store}#round`,
      role: 'round',
      name: `${row.name}: round its end`,
      kind: 'bank',
      levelM: round,
      flowAt: sideSlopeLaw({ slope: Math.max(0.01, row.slope), levelM: round }),
    },
  ];
}

function storeOf(work: StoneLines, row: Row): Store {
  const roundM = roundOf(row, work);
  const siltM3 = roomBehind(row, work) * siltedShare(work);
  const topM = Math.max(topOf(row, work), roundM) + ABOVE_M;
  const stage: Stage = siltedStage((level) => behind(row, level), { bedM: row.lowM, fullM: topOf(row, work), topM, siltM3 });
  const [floorM] = stage.levelM;
  const outlets = outletsOf(work, row, floorM).sort((a, b) => a.levelM - b.levelM);
  const isTight = outlets.every((o) => o.role !== 'through');
  return {
    id: row.store,
    work: work.id,
    name: row.name,
    floorM,
    sillM: topOf(row, work),
    wayOutM: isTight ? Math.max(floorM, Math.min(topOf(row, work), roundM)) : floorM,
    crestM: roundM,
    heldM3: 0,
    stage,
    outlets,
  };
}

/** Every line a store; where its water goes is found on the ground: over it, the next line below takes it in. */
export const storesOf = (work: StoneLines, rows: readonly Row[]): readonly Store[] => rows.map((row) => storeOf(work, row));

export interface LinesFacts extends StormFacts {
  readonly work: StoneLines;
  readonly rows: readonly Row[];
}
