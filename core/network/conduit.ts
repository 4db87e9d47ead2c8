// A gravity pipe as the network has it: water stands in the pipe and in the shaft above its upper end, runs out at its lower
// end by a culvert's law, and over the shaft's rim where more comes than the pipe takes.
import type { Conduit, Outlet, Stage, Store } from '../contract/index.ts';
import { circle, culvertLaw, grassedSillLaw } from '../hydraulics/index.ts';

/** Levels a pipe's storage is tabulated at between its invert and its rim. */
const TABLE = 40;
/** Water stands this much higher at most than the rim before all of it runs away over the ground [m]. */
const ABOVE_RIM_M = 0.5;

/** Volume of water in pipe and shaft by its level at the upper end: the pipe as full along its length as it is there. */
function stageOf({ diameterM, lengthM, upperM, rimM, shaftM2 }: Conduit): Stage {
  const { area } = circle(diameterM);
  const top = rimM + ABOVE_RIM_M;
  const soffitM = upperM + diameterM;
  const share = (k: number): number => (k / TABLE) ** 1.5;
  const levelM = Float64Array.from({ length: TABLE + 1 }, (_, k) => upperM + share(k) * (top - upperM));
  // The soffit itself is in the table: there the pipe is full and only the shaft fills on.
  const near = levelM.findIndex((level) => level >= soffitM);
  if (near > 0) levelM[near] = soffitM;
  const volumeM3 = levelM.map((level) => lengthM * area(Math.min(diameterM, level - upperM)) + shaftM2 * (level - upperM));
  return { levelM, volumeM3, wettedM2: levelM.map(() => 0) };
}

/** The pipe as a store: its invert is its way out, its rim what must not be passed. */
export function conduitStore(conduit: Conduit): Store {
  const {
    id,
    work,
    name,
    diameterM,
    lengthM,
    n,
    inlet,
    upperM,
    lowerM,
    rimM,
    rimLengthM,
    outletAt,
    rimAt,
    to,
    exit,
    closed = 0,
    isUnder = false,
  } = conduit;
  const own = { work, name };
  const pipe: Outlet = {
    ...own,
    id: `${id}#pipe`,
    role: 'pipe',
    kind: 'rated',
    levelM: Math.max(upperM, lowerM),
    dischargeAt: outletAt,
    flowAt: culvertLaw({
      barrels: 1,
      diameterM,
      lengthM,
      n,
      inlet,
      slope: (upperM - lowerM) / lengthM,
      inletM: upperM,
      outletM: lowerM,
      blocked: closed,
    }),
    drownsM: lowerM,
    ...(to === undefined ? {} : { to }),
    ...(exit ? { exit } : {}),
  };
  const rim: Outlet = {
    ...own,
    id: `${id}#rim`,
    role: 'rim',
    kind: 'bank',
    levelM: rimM,
    dischargeAt: rimAt,
    flowAt: grassedSillLaw({ lengthM: rimLengthM, levelM: rimM }),
  };
  return {
    id,
    work,
    name,
    soffitM: upperM + diameterM,
    floorM: upperM,
    sillM: pipe.levelM,
    wayOutM: pipe.levelM,
    crestM: rimM,
    heldM3: 0,
    stage: stageOf(conduit),
    outlets: isUnder ? [pipe] : [pipe, rim],
  };
}

/** What a pipe passes with water at the rim of its shaft and its lower end free [m3/s]. */
export const capacityOf = (conduit: Conduit): number => conduitStore(conduit).outlets[0].flowAt(conduit.rimM);
