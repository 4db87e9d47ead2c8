// The pit as a store, and the pump as its way out: as much as it gives, while there is power.
import type { Intake, Outlet, Store, StormFacts } from '../../contract/index.ts';
import { type Use, plainly } from '../../formula/index.ts';
import { type Point, pointAlong, lineLength } from '../../geometry/index.ts';
import { DARCY_LOSS, PIPE_WALLS, PUMP_POWER, grassedSillLaw } from '../../hydraulics/index.ts';
import { type PoolGround, poolHolds } from '../../terrain/index.ts';
import type { Sump } from './model.ts';

export interface SumpGround {
  /** Ground at the pit, and where its water is let go [m]. */
  readonly pitM: number;
  readonly endM: number;
  /** Highest ground its pipe crosses [m]. */
  readonly highestM: number;
  /** The hollow its grate lies in; null under a lid. */
  readonly pool: PoolGround | null;
  /** Places of that hollow. */
  readonly taken: readonly Point[];
}

export interface SumpFacts extends StormFacts {
  readonly work: Sump;
  readonly ground: SumpGround;
}

export const pitM2 = ({ diameterM }: Pick<Sump, 'diameterM'>): number => (Math.PI / 4) * diameterM ** 2;
/** Where its water is let go, and a step beyond. */
export const letsGoAt = ({ line }: Pick<Sump, 'line'>): Point => line[line.length - 1];

export interface Heads {
  readonly liftM: number;
  readonly lossM: number;
  readonly velocityMs: number;
  readonly powerW: number;
}

/** Lift from where it stops, what the pipe loses, and the power that takes. */
export function headsOf(work: Sump, use: Use = plainly): Heads {
  const { flowM3s: Q, pipe, levels, efficiency: eta } = work;
  const liftM = Math.max(0, levels.deliveryM - levels.stopM);
  const lossM = use(DARCY_LOSS, { Q, D: pipe.diameterM, L: pipe.lengthM, e: PIPE_WALLS[pipe.wall] });
  return { liftM, lossM, velocityMs: Q / ((Math.PI / 4) * pipe.diameterM ** 2), powerW: use(PUMP_POWER, { Q, H: liftM + lossM, eta }) };
}

/** Ground about a pit that water spreads over once it stands out of it [m2], how high that is followed [m]. */
const [ABOUT_M2, ABOVE_M] = [4, 0.5];
const STAGES = 24;
/** Over so much edge a yard runs on [m]: common practice. */
const RUNS_ON_M = 3;

/** All that runs into the hollow of its grate comes to it. */
export const intakesOf = ({ id, line, top }: Sump, { taken }: SumpGround): readonly Intake[] =>
  top === 'grate' ? [{ store: id, points: [...taken, line[0]] }] : [];

export function storeOf(work: Sump, { pool }: Pick<SumpGround, 'pool'>): Store {
  const { floorM, stopM, startM, rimM } = work.levels;
  const area = pitM2(work);
  // Over its grate water stands in the hollow it lies in until it runs on; over a lid it runs on at once.
  const overM = Math.max(rimM, pool?.spillM ?? rimM);
  const topM = overM + ABOVE_M;
  const yard = (level: number): { readonly volumeM3: number; readonly areaM2: number } =>
    pool ? poolHolds(pool, level) : { volumeM3: 0, areaM2: 0 };
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => floorM + ((topM - floorM) * k) / STAGES);
  const over = (level: number): number => Math.max(0, level - rimM);
  const { point, direction } = pointAlong(work.line, lineLength(work.line));
  const lift: Outlet = {
    id: `${work.id}#pump`,
    role: 'lift',
    work: work.id,
    name: `${work.name}: pump`,
    kind: 'rated',
    levelM: stopM,
    dischargeAt: [point[0] + direction[0] / 2, point[1] + direction[1] / 2],
    // It starts and stops; over both it gives on average what comes, up to what it can.
    flowAt: (level) => work.flowM3s * Math.min(1, Math.max(0, (level - stopM) / (startM - stopM))),
  };
  const rim: Outlet = {
    id: `${work.id}#rim`,
    role: 'rim',
    work: work.id,
    name: `${work.name}: over its rim`,
    kind: 'bank',
    levelM: overM,
    dischargeAt: pool?.spillAt ?? [work.line[0][0], work.line[0][1]],
    flowAt: grassedSillLaw({ lengthM: pool ? RUNS_ON_M : Math.PI * work.diameterM, levelM: overM }),
  };
  return {
    id: work.id,
    work: work.id,
    name: work.name,
    floorM,
    sillM: stopM,
    wayOutM: stopM,
    crestM: rimM,
    heldM3: area * (stopM - floorM),
    waterM2: area,
    isCovered: true,
    stage: {
      levelM,
      volumeM3: levelM.map((level) => area * (level - floorM) + ABOUT_M2 * over(level) + yard(level).volumeM3),
      wettedM2: levelM.map((level) => area + (level > rimM ? ABOUT_M2 : 0) + yard(level).areaM2),
    },
    outlets: [lift, rim],
    // What it loses into the ground is nothing to count on: its walls are closed.
    seepsMmPerHour: NO_SEEPAGE,
  };
}
const NO_SEEPAGE = 0;

/** Greatest flow of a storm that comes to it [m3/s]; null where no storm tells. */
export const peakOf = ({ storm, designPeakM3s }: SumpFacts): number | null =>
  storm && Math.max(storm.peakInM3s, designPeakM3s ?? storm.peakInM3s);

/** How long after mains go until water stands at its rim, at the peak of the storm [h]; null where no storm tells, or none comes. */
export function hoursToRim(facts: SumpFacts): number | null {
  const peak = peakOf(facts);
  if (peak === null || peak <= 0) return null;
  const { levels } = facts.work;
  return (pitM2(facts.work) * (levels.rimM - levels.startM)) / peak / 3600;
}
