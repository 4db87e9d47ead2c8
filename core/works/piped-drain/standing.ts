// A drain as the network has it: water over its grates, shafts and pipes below them, and where it ends.
import type { Conduit, Exit, Intake, Outlet, Store, StormFacts } from '../../contract/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { GRATE, type InletId, culvertLaw } from '../../hydraulics/index.ts';
import { storeIdOf } from '../series.ts';
import { type Opening, grateFlow, grateOutlet, yardStore } from '../yard.ts';
import { onSlope, takenOnSlope } from './slope.ts';
import type { DrainGround, Yard } from './ground.ts';
import { type Basin, type PipedDrain, ROUGHNESS, isOpen } from './model.ts';

/** How each wall takes water in at a shaft. */
const INLETS: Readonly<Record<PipedDrain['wall'], InletId>> = {
  smooth: 'concrete-square-headwall',
  ribbed: 'corrugated-headwall',
  concrete: 'concrete-square-headwall',
};

/** Room about a pipe in its shaft, and the least of it [m]. */
const [SHAFT_ROOM_M, SHAFT_M] = [0.1, 0.25];

/** What rules and figures read. */
export interface DrainFacts extends StormFacts {
  readonly work: PipedDrain;
  readonly ground: DrainGround;
}

/** One pipe between two places, as it is laid. */
export interface Pipe {
  readonly k: number;
  readonly fromM: number;
  readonly lengthM: number;
  readonly upperM: number;
  readonly lowerM: number;
  readonly diameterM: number;
  readonly slope: number;
}

export const pipesOf = ({ basins, levels }: Pick<PipedDrain, 'basins' | 'levels'>, { lengthM }: Pick<DrainGround, 'lengthM'>): readonly Pipe[] =>
  basins.map((basin, k): Pipe => {
    const below = basins[k + 1] as Basin | undefined;
    const length = (below?.atM ?? lengthM) - basin.atM;
    const lowerM = below?.invertM ?? levels.outletM;
    return { k, fromM: basin.atM, lengthM: length, upperM: basin.invertM, lowerM, diameterM: basin.pipeM, slope: (basin.invertM - lowerM) / length };
  }); // prettier-ignore

/** Level of a grate: under the ground at its place. */
export const grateLevel = (work: PipedDrain, ground: DrainGround, k: number): number => ground.atBasins[k] - work.dimensions.setM;

/** The lowest of several grates: where their yard’s water begins to leave. */
export const lowestGrate = (work: PipedDrain, ground: DrainGround, basins: readonly number[]): number =>
  Math.min(...basins.map((k) => grateLevel(work, ground, k)));

/** Water into a grate by its depth over it, as much of it closed as leaves are counted on to close [m3/s]. */
export function grateTakes(work: PipedDrain, basin: Basin, depthM: number): number {
  const { P, A, open } = openingOf(work, basin);
  return GRATE.evaluate({ P, A, d: Math.max(0, depthM), c: 1 - open });
}

/** Edge and opening of a grate, and the share of both that is not closed by leaves. */
const openingOf = ({ dimensions }: PipedDrain, { grateLongM: L, grateWideM: W }: Basin): Opening => ({
  P: 2 * (L + W),
  A: dimensions.openShare * L * W,
  open: 1 - dimensions.closedPercent / 100,
});

/** Pipe by its place: the work’s own id where there is no yard over it. */
export const pipeId = (work: PipedDrain, ground: DrainGround, k: number): string =>
  ground.yards.length === 0 && k === 0 ? work.id : `${work.id}:pipe${k + 1}`;

/** The yard a basin stands in; null for a joint under a lid. */
export const yardOver = ({ yards }: DrainGround, k: number): { readonly yard: Yard; readonly n: number } | null => {
  const n = yards.findIndex((y) => y.basins.includes(k));
  return n < 0 ? null : { yard: yards[n], n };
};

const shaftSide = ({ pipeM }: Basin): number => Math.max(SHAFT_M, pipeM + SHAFT_ROOM_M);

function conduitOf(work: PipedDrain, ground: DrainGround, { k, fromM, lengthM, upperM, lowerM, diameterM }: Pipe): Conduit {
  const last = k === work.basins.length - 1;
  const { point: rimAt } = pointAlong(work.line, fromM);
  const { point: outletAt, direction } = pointAlong(work.line, fromM + lengthM);
  const isUnder = yardOver(ground, k) !== null;
  const side = shaftSide(work.basins[k]);
  const to = last ? (ground.taker?.to ?? (work.ends === 'street' ? 'property-edge' : undefined)) : pipeId(work, ground, k + 1);
  return {
    id: pipeId(work, ground, k),
    work: work.id,
    name: `${work.name}, pipe ${k + 1}`,
    diameterM,
    lengthM,
    n: ROUGHNESS[work.wall],
    ...closedOf(work, ground),
    inlet: INLETS[work.wall],
    upperM,
    lowerM,
    rimM: isUnder ? grateLevel(work, ground, k) : Math.max(ground.atBasins[k], upperM + diameterM),
    rimLengthM: 4 * side,
    shaftM2: side * side,
    outletAt: last && to === undefined ? beyond(outletAt, direction) : outletAt,
    rimAt,
    ...(isUnder ? { isUnder } : {}),
    ...(to === undefined ? {} : { to }),
    ...(last && to === undefined ? { exit: exitOf(work, ground) } : {}),
  };
}

/** Where its water reaches the ground beyond its end [m]. */
const BEYOND_M = 0.5;
const beyond = ([x, y]: Point, [dx, dy]: Point): Point => [x + BEYOND_M * dx, y + BEYOND_M * dy];

/** What its water runs on where it ends in the open: the fall of the ground over its last metres. */
export function exitOf(work: PipedDrain, { groundM, stepM, lengthM }: DrainGround): Exit & { readonly slope: number } {
  const { point, direction } = pointAlong(work.line, lengthM);
  const back = Math.min(groundM.length - 1, Math.max(1, Math.round(4 / stepM)));
  const slope = Math.max(0.005, (groundM[groundM.length - 1 - back] - groundM[groundM.length - 1]) / (back * stepM));
  const widthM = work.basins[work.basins.length - 1].pipeM;
  const { stoneM } = work.dimensions;
  return { at: beyond(point, direction), slope, widthM, shape: 'pipe', ...(stoneM > 0 ? { stoneM } : {}) };
}

/** What the least of its pipes passes, whole and clean [m3/s]. */
export const leastTakes = (work: PipedDrain, ground: DrainGround): number =>
  Math.min(...pipesOf(work, ground).map((p) => pipeTakes(work, ground, p)));

/** Share of its pipes that is closed, by what it let through when it was tried against what the least of them would. */
function closedOf(work: PipedDrain, ground: DrainGround): { readonly closed?: number } {
  const { passesM3s } = work;
  if (passesM3s === undefined) return {};
  const whole = leastTakes(work, ground);
  return whole > passesM3s ? { closed: 1 - passesM3s / whole } : {};
}

export const conduitsOf = (work: PipedDrain, ground: DrainGround): readonly Conduit[] =>
  pipesOf(work, ground).map((pipe) => conduitOf(work, ground, pipe));

/** Water both ways through one of its grates. */
export const grateLaw = (work: PipedDrain, basin: Basin, grateM: number): ReturnType<typeof grateFlow> =>
  grateFlow(openingOf(work, basin), grateM);

export const yardName = (work: PipedDrain, ground: DrainGround, n: number): string =>
  ground.yards.length === 1 ? work.name : `${work.name}, yard ${n + 1}`;

function storeOf(work: PipedDrain, ground: DrainGround, n: number): Store {
  const { pool, basins } = ground.yards[n];
  const id = storeIdOf(work.id, n);
  const ways = basins.map((k): Outlet =>
    grateOutlet(
      {
        id: `${id}#grate${k + 1}`,
        work: work.id,
        name: `${work.name}: grate ${k + 1}`,
        levelM: grateLevel(work, ground, k),
        dischargeAt: pointAlong(work.line, work.basins[k].atM).point,
        to: pipeId(work, ground, k),
      },
      openingOf(work, work.basins[k]),
    ),
  );
  const { thresholdM } = work;
  return yardStore({
    id,
    work: work.id,
    name: yardName(work, ground, n),
    pool,
    grateM: lowestGrate(work, ground, basins),
    ...(thresholdM === undefined ? {} : { thresholdM }),
    ways,
    isOnSlope: onSlope(ground, n) !== null,
  });
}

export const storesOf = (work: PipedDrain, ground: DrainGround): readonly Store[] => ground.yards.map((_, n) => storeOf(work, ground, n));

/** What comes to each yard: all that runs into its hollow; of what passes a grate on a slope its share. */
export const intakesOf = (work: PipedDrain, ground: DrainGround): readonly Intake[] =>
  ground.yards.map(({ places }, n): Intake => ({ store: storeIdOf(work.id, n), points: places, ...takenOnSlope(work, ground, n) }));

/** What a pipe passes with water at the grate or lid over it and its lower end free [m3/s]. */
export function pipeTakes(work: PipedDrain, ground: DrainGround, { k, lengthM, slope, upperM, lowerM, diameterM }: Pipe): number {
  const rimM = isOpen(work.basins[k]) ? grateLevel(work, ground, k) : ground.atBasins[k];
  const law = culvertLaw({ barrels: 1, diameterM, lengthM, slope, n: ROUGHNESS[work.wall], inlet: INLETS[work.wall], inletM: upperM, outletM: lowerM });
  return law(Math.max(rimM, upperM));
} // prettier-ignore
