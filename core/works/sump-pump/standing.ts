// The pit as a store, and the pump as its way out: as much as it gives, while there is power.
import type { Intake, Outlet, Store, StormFacts } from '../../contract/index.ts';
import { type Use, plainly } from '../../formula/index.ts';
import { type Point, pointAlong, lineLength } from '../../geometry/index.ts';
import { DARCY_LOSS, PIPE_WALLS, PUMP_POWER, grassedSillLaw } from '../../hydraulics/index.ts';
import type { PoolGround } from '../../terrain/index.ts';
import { storeIdOf } from '../series.ts';
import { type Opening, grateFlow, grateOutlet, yardStore } from '../yard.ts';
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

/** Ground about a lid that water spreads over once it stands out of the pit [m2], how high that is followed [m]. */
const [ABOUT_M2, ABOVE_M] = [4, 0.5];
const STAGES = 24;
/** Share of a grate that is open, and of that what leaves leave: common practice. */
const [OPEN_SHARE, UNCLOSED] = [0.4, 0.5];

/** The yard over its grate has a store of its own beside the pit. */
export const yardIdOf = ({ id }: Pick<Sump, 'id'>): string => storeIdOf(id, 1);

/** All that runs into the hollow of its grate comes to it. */
export const intakesOf = (work: Sump, { taken }: SumpGround): readonly Intake[] =>
  work.top === 'grate' ? [{ store: yardIdOf(work), points: [...taken, work.line[0]] }] : [];

/** Edge and opening of the grate over the pit, half of it closed by leaves. */
const openingOf = (work: Sump): Opening => ({ P: Math.PI * work.diameterM, A: OPEN_SHARE * pitM2(work), open: UNCLOSED });

/** What its grate takes with water so deep over it [m3/s]. */
export const grateTakes = (work: Sump, depthM: number): number => grateFlow(openingOf(work), 0)(depthM);

function pitOf(work: Sump, isUnderGrate: boolean): Store {
  const { floorM, stopM, startM, rimM } = work.levels;
  const area = pitM2(work);
  const topM = rimM + ABOVE_M;
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => floorM + ((topM - floorM) * k) / STAGES);
  // Over a lid water spreads at once; under a grate what stands higher is the yard's.
  const aboutM2 = isUnderGrate ? NOTHING_M2 : ABOUT_M2;
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
    levelM: rimM,
    dischargeAt: [work.line[0][0], work.line[0][1]],
    flowAt: grassedSillLaw({ lengthM: Math.PI * work.diameterM, levelM: rimM }),
  };
  return {
    id: work.id,
    work: work.id,
    name: isUnderGrate ? `${work.name}, pit` : work.name,
    floorM,
    sillM: stopM,
    wayOutM: stopM,
    crestM: rimM,
    heldM3: area * (stopM - floorM),
    waterM2: area,
    isCovered: true,
    stage: {
      levelM,
      volumeM3: levelM.map((level) => area * (level - floorM) + aboutM2 * Math.max(0, level - rimM)),
      wettedM2: levelM.map((level) => area + (level > rimM ? aboutM2 : 0)),
    },
    outlets: isUnderGrate ? [lift] : [lift, rim],
    // What it loses into the ground is nothing to count on: its walls are closed.
    seepsMmPerHour: NO_SEEPAGE,
  };
}
const [NO_SEEPAGE, NOTHING_M2] = [0, 0];

/** The pit, and under a grate the yard that lets its water into it. */
export function storesOf(work: Sump, { pool }: Pick<SumpGround, 'pool'>): readonly Store[] {
  const pit = pitOf(work, pool !== null);
  if (!pool) return [pit];
  const { rimM } = work.levels;
  const at = { work: work.id, levelM: rimM, dischargeAt: work.line[0], to: work.id };
  const grate = grateOutlet({ ...at, id: `${yardIdOf(work)}#grate`, name: `${work.name}: grate` }, openingOf(work));
  return [pit, yardStore({ id: yardIdOf(work), work: work.id, name: `${work.name}, yard`, pool, grateM: rimM, ways: [grate] })];
}

/** Greatest flow of a storm that comes to its pit, or to the yard over it where that waits for the pump [m3/s]; null where no storm tells. */
export const peakOf = ({ storm, others = [], designPeakM3s }: SumpFacts): number | null =>
  storm && Math.max(designPeakM3s ?? storm.peakInM3s, storm.peakInM3s, ...others.map((o) => o.storm?.peakInM3s ?? storm.peakInM3s));

/** How long after mains go until water stands at its rim, at the peak of the storm [h]; null where no storm tells, or none comes. */
export function hoursToRim(facts: SumpFacts): number | null {
  const peak = peakOf(facts);
  if (peak === null || peak <= 0) return null;
  const { levels } = facts.work;
  return (pitM2(facts.work) * (levels.rimM - levels.startM)) / peak / 3600;
}
