// Each bench on the real ground: its levels, the wall that holds it, the water it holds and how that leaves.
import type { Outlet, Stage, Store, StormFacts } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { type BodyShape, type Load, footingOf } from '../gravity/index.ts';
import { type LipGround, downhillAt } from '../lip.ts';
import { storeIdOf } from '../series.ts';
import { BENCH_RISE, BENCH_WATER, RISER_HEIGHT } from './formulas.ts';
import { type Terraces, inwardOf } from './model.ts';

export interface Bench {
  readonly store: string;
  readonly name: string;
  readonly line: Line;
  readonly ground: LipGround;
  /** Mean fall across it, and rise from one bench to the next at that [m/m, m]. */
  readonly slope: number;
  readonly riseM: number;
  readonly riserM: number;
  /** Levels of its middle, its inner and its outer side. */
  readonly middleM: number;
  readonly innerM: number;
  readonly outerM: number;
}

const LEAST_SLOPE = 0.005;

export function benchesOf(work: Terraces, grounds: readonly LipGround[]): readonly Bench[] {
  const { benchM: Wb, riserHV: U } = work.dimensions;
  const i = inwardOf(work);
  return work.lines.map((line, k): Bench => {
    const ground = grounds[k];
    const slope = Math.max(LEAST_SLOPE, ground.meanSlope);
    const riseM = Math.max(0, BENCH_RISE.evaluate({ S: slope, Wb, U, i }));
    const middleM = ground.meanGroundM;
    return {
      store: storeIdOf(work.id, k),
      name: work.lines.length === 1 ? work.name : `${work.name}, bench ${k + 1}`,
      line,
      ground,
      slope,
      riseM,
      riserM: Math.max(0, RISER_HEIGHT.evaluate({ VI: riseM, i, Wb })),
      middleM,
      innerM: middleM - (i * Wb) / 2,
      outerM: middleM + (i * Wb) / 2,
    };
  });
}

/** Where its water lies lowest. */
export const floorOf = ({ innerM, outerM }: Bench): number => Math.min(innerM, outerM);
/** Where it begins to leave over its inlets, and over its edge. */
export const wayOf = ({ outerM }: Bench, { dimensions }: Terraces): number => outerM + dimensions.holdM;
export const edgeOf = ({ outerM }: Bench, { dimensions }: Terraces): number => outerM + dimensions.lipM;

/** Water on a bench up to a level [m3], and what it wets [m2]. */
export function waterOn(work: Terraces, bench: Bench, levelM: number): { readonly volumeM3: number; readonly wettedM2: number } {
  const y = Math.max(0, levelM - floorOf(bench));
  const { benchM: Wb } = work.dimensions;
  const i = inwardOf(work);
  // A level bench is wet all over with its first water.
  const across = i === 0 ? Wb : Math.min(Wb, y / Math.abs(i));
  return { volumeM3: bench.ground.lengthM * BENCH_WATER.evaluate({ y, i, Wb }), wettedM2: bench.ground.lengthM * across };
}

/** Water it holds to its inlets [m3]. */
export const heldOn = (work: Terraces, bench: Bench): number => waterOn(work, bench, wayOf(bench, work)).volumeM3;

const STAGES = 24;
/** How far over its edge the table reaches [m]. */
const ABOVE_M = 0.4;

function stageOf(work: Terraces, bench: Bench): Stage {
  const [low, top] = [floorOf(bench), edgeOf(bench, work) + ABOVE_M];
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => low + ((top - low) * k) / STAGES);
  const on = Array.from(levelM, (level) => waterOn(work, bench, level));
  let least = 0;
  const volumeM3 = Float64Array.from(on, (w) => (least = Math.max(least + 1e-9, w.volumeM3)) - 1e-9);
  return { levelM, volumeM3, wettedM2: Float64Array.from(on, (w) => Math.max(1e-3, w.wettedM2)) };
}

/** Below its outer edge at a distance along it, a step out on the bench below. */
function below(work: Terraces, bench: Bench, atM: number): Point {
  const { point } = pointAlong(bench.line, atM);
  const [dx, dy] = downhillAt(bench.line, bench.ground, atM);
  const away = work.dimensions.benchM / 2 + work.dimensions.riserHV * bench.riserM + 0.5;
  return [point[0] + dx * away, point[1] + dy * away];
}

function outletsOf(work: Terraces, bench: Bench): Outlet[] {
  const { inletM, inlets, stoneM } = work.dimensions;
  const wide = inletM * inlets;
  const [way, edge] = [wayOf(bench, work), edgeOf(bench, work)];
  const at = below(work, bench, bench.ground.lengthM / 2);
  const own = { work: work.id, dischargeAt: at };
  return [
    {
      ...own,
      id: `${bench.store}#inlet`,
      role: 'way',
      name: `${bench.name}: over its inlets`,
      kind: 'sill',
      levelM: way,
      flowAt: grassedSillLaw({ lengthM: wide, levelM: way }),
      exit: { at, slope: bench.slope, widthM: wide, shape: 'sheet', stoneM },
    },
    {
      ...own,
      id: `${bench.store}#edge`,
      role: 'crest',
      name: `${bench.name}: over its edge`,
      kind: 'bank',
      levelM: edge,
      flowAt: grassedSillLaw({ lengthM: bench.ground.lengthM, levelM: edge }),
    },
  ];
}

/** Every bench a store; what runs over lands on the next. */
export const storesOf = (work: Terraces, benches: readonly Bench[]): readonly Store[] =>
  benches.map((bench): Store => ({
    id: bench.store,
    work: work.id,
    name: bench.name,
    floorM: floorOf(bench),
    sillM: wayOf(bench, work),
    wayOutM: wayOf(bench, work),
    crestM: edgeOf(bench, work),
    heldM3: heldOn(work, bench),
    stage: stageOf(work, bench),
    outlets: outletsOf(work, bench),
  }));

/** Weight of a wall of dry stone: 26·(1 − 0.3) [kN/m3]. */
export const WALL_KN_M3 = 18;
/** Weight and friction of the earth behind it, and how much less water leaves of it: common practice. */
const EARTHS: Readonly<Record<Exclude<Terraces['earth'], 'unknown'>, { readonly knM3: number; readonly frictionDeg: number }>> = {
  sand: { knM3: 18, frictionDeg: 32 },
  loam: { knM3: 18, frictionDeg: 28 },
  clay: { knM3: 19, frictionDeg: 24 },
};
const LIFTED_KN_M3 = 9.81;
/** Gravel this thick to the foot of a wall takes the water away [m]: common practice. */
export const DRAINS_M = 0.3;

export const bodyOf = ({ dimensions: { baseM, topM, foundationM } }: Terraces, riserM: number): BodyShape => ({
  heightM: riserM + foundationM,
  baseM,
  topM,
  courseM: null,
  steps: 'below',
});

/** What a wall of such a height bears: earth to its top, with water in it where nothing drains it. Null while nobody has dug. */
export function loadOf(work: Terraces, riserM: number): Load | null {
  const footing = footingOf(work);
  if (!footing || work.earth === 'unknown') return null;
  const { knM3, frictionDeg } = EARTHS[work.earth];
  const body = bodyOf(work, riserM);
  const isDry = work.dimensions.drainM >= DRAINS_M;
  return {
    body,
    weightKnM3: WALL_KN_M3,
    poreKnM3: 0,
    headM: 0,
    // Water as high before it as behind it pushes nothing: a wall that is drained is reckoned so.
    tailM: isDry ? body.heightM : 0,
    earthM: body.heightM,
    earthKnM3: isDry ? knM3 : knM3 - LIFTED_KN_M3,
    frictionDeg,
    // Water leaves through its gaps: nothing lifts it.
    lift: 0,
    mu: footing.mu,
  };
}

export interface TerracesFacts extends StormFacts {
  readonly work: Terraces;
  readonly benches: readonly Bench[];
}
