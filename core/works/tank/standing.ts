// A vessel on its ground: what it holds at each height, and where it runs over.
import type { Outlet, Plot, Stage, Store, StormFacts } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { GRAVITY, ORIFICE_C, crestLaw } from '../../hydraulics/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { UnknownGround } from '../unknown-ground.ts';
import { CONE_VOLUME, LYING_VOLUME, OVERFLOW_PASSES, UPRIGHT_VOLUME, overflowLaw } from './formulas.ts';
import { type Tank, rimHeight } from './model.ts';

export interface TankGround {
  readonly groundM: number;
  /** The vessel it is joined to: its floor, and where it runs over [m]. */
  readonly beside?: { readonly name: string; readonly floorM: number; readonly fullM: number };
}

export function measureTank({ at, levelsWith }: Tank, { grid, placed }: Plot): TankGround {
  const groundM = levelAt(grid, at);
  if (Number.isNaN(groundM)) throw new UnknownGround('the ground under the tank is not known');
  const other = levelsWith === undefined ? undefined : placed?.get(levelsWith)?.stores([])[0];
  // Water stands level with water in a vessel: a roof keeps none.
  return other && !other.sheds ? { groundM, beside: { name: other.name, floorM: other.floorM, fullM: other.wayOutM } } : { groundM };
}

/** Water in a shape measured at heights: areas are straight between them, the top one goes on upwards. */
function measuredM3(ledges: NonNullable<Tank['ledges']>, hM: number): number {
  let volume = 0;
  for (let k = 1; k < ledges.length; k++) {
    const [a, b] = [ledges[k - 1], ledges[k]];
    const top = Math.min(hM, b.heightM);
    if (top <= a.heightM) return volume;
    const at = a.areaM2 + ((b.areaM2 - a.areaM2) * (top - a.heightM)) / (b.heightM - a.heightM);
    volume += ((a.areaM2 + at) / 2) * (top - a.heightM);
  }
  const last = ledges[ledges.length - 1];
  return volume + Math.max(0, hM - last.heightM) * last.areaM2;
}

/** Water in one vessel with water so high over its floor [m3]. */
export function oneM3({ form, dimensions, ledges = [] }: Tank, hM: number): number {
  const { diameterM: d, topM: t, lengthM: L, widthM, heightM: H } = dimensions;
  const h = Math.max(0, hM);
  if (form === 'upright') return UPRIGHT_VOLUME.evaluate({ d, h });
  if (form === 'lying') return LYING_VOLUME.evaluate({ d, L, h: Math.min(h, d) });
  if (form === 'box') return L * widthM * h;
  return form === 'cone' ? CONE_VOLUME.evaluate({ d, t, H, h: Math.min(h, H) }) : measuredM3(ledges, h);
}

/** Water in all of them, and the surface of it by a small step of height. */
export const holdsM3 = (tank: Tank, hM: number): number => tank.count * fillsOf(tank) * oneM3(tank, hM);

/** Share of its inside that water fills: crates stand in the rest. */
export const fillsOf = ({ made, crates }: Pick<Tank, 'made' | 'crates'>): number => (made === 'crates' ? crates.voids : 1);

/** Area of the foot of one of them [m2]: of one that lies, of what it lies on. */
export function footM2({ form, dimensions, ledges = [] }: Tank): number {
  const { diameterM: d, lengthM, widthM } = dimensions;
  if (form === 'box') return lengthM * widthM;
  // A saddle holds about half of its width.
  if (form === 'lying') return (lengthM * d) / 2;
  return form === 'measured' ? Math.max(0.01, ledges[0].areaM2) : (Math.PI * d * d) / 4;
}

/** Least width of its foot [m]. */
export function baseM(tank: Tank): number {
  const { diameterM, lengthM, widthM } = tank.dimensions;
  if (tank.form === 'box') return Math.min(lengthM, widthM);
  return tank.form === 'measured' ? Math.sqrt(footM2(tank)) : diameterM;
}

/** What its overflow passes with water at the rim [m3/s]. */
export const overflowPasses = (tank: Tank, headM = rimHeight(tank) - tank.dimensions.overflowM): number =>
  OVERFLOW_PASSES.evaluate({ D: tank.dimensions.overflowPipeM, H: Math.max(0, headM) });

/** Room over its overflow that an overflow just under the rim would give [m3]: the pipe itself needs its width, and a finger. */
const FINGER_M = 0.02;
export const lostM3 = (tank: Tank): number => {
  const { overflowM, overflowPipeM } = tank.dimensions;
  return Math.max(0, holdsM3(tank, rimHeight(tank) - overflowPipeM - FINGER_M) - holdsM3(tank, overflowM));
};

const ROWS = 24;
/** How far over its rim the table reaches [m]. */
const OVER_M = 0.1;

function stageOf(tank: Tank, floorM: number): Stage {
  const rim = rimHeight(tank);
  const inside = Array.from({ length: ROWS + 1 }, (_, k) => (k / ROWS) * rim);
  const heights = [...new Set([...inside, tank.dimensions.overflowM])].sort((a, b) => a - b);
  const volumes = heights.map((hM) => holdsM3(tank, hM));
  const full = volumes[volumes.length - 1];
  // Over the rim it falls off: a surface as wide as its foot stands for that.
  const over = full + tank.count * footM2(tank) * OVER_M;
  return {
    levelM: Float64Array.from([...heights, rim + OVER_M], (hM) => floorM + hM),
    volumeM3: Float64Array.from([...volumes, over]),
    wettedM2: new Float64Array(heights.length + 1).fill(full / rim),
  };
}

/** Round its rim it runs over as over a crest. */
const RIM_C = 1.7;

/** Clear of the vessel, downhill or not: where its overflow lets go. */
const lets = (tank: Tank): Point => [tank.at[0] + baseM(tank) / 2 + 0.3, tank.at[1]];

/** How high over both floors a pipe between two vessels lies [m]: common practice. */
const FOOT_M = 0.05;

/** Water that runs through a pipe between two vessels, from the higher to the lower [m3/s]. */
export function joinFlow(pipeM: number, soleM: number): (highM: number, lowM: number) => number {
  const perRoot = ORIFICE_C * (Math.PI / 4) * pipeM ** 2 * Math.sqrt(2 * GRAVITY);
  return (highM, lowM) => perRoot * Math.sqrt(Math.max(0, highM - Math.max(lowM, soleM)));
}

/** The pipe to another vessel as a way between both; none while it is not known how wide it is. */
function joinOf({ id, name, levelsWith, joinPipeM, at }: Tank, floorM: number, { beside }: TankGround): Outlet[] {
  if (levelsWith === undefined || joinPipeM === undefined || !beside) return [];
  const soleM = Math.max(floorM, beside.floorM) + FOOT_M;
  const flow = joinFlow(joinPipeM, soleM);
  return [
    {
      id: `${id}#join`,
      role: 'mouth',
      work: id,
      name: `${name}: pipe to ${beside.name}`,
      kind: 'joint',
      levelM: soleM,
      dischargeAt: at,
      to: levelsWith,
      drownsM: -Infinity,
      flowAt: (levelM, beyondM = -Infinity) => (levelM >= beyondM ? flow(levelM, beyondM) : -flow(beyondM, levelM)),
    },
  ];
}

function outletsOf(tank: Tank, floorM: number, ground: TankGround): Outlet[] {
  const own = { work: tank.id, dischargeAt: lets(tank) };
  const { overflowM } = tank.dimensions;
  const rimM = floorM + rimHeight(tank);
  const over = overflowLaw(tank.dimensions.overflowPipeM);
  const roundM = tank.count * Math.PI * baseM(tank);
  return [
    {
      ...own,
      id: `${tank.id}#over`,
      role: 'over',
      name: `${tank.name}: its overflow`,
      kind: 'rated',
      levelM: floorM + overflowM,
      flowAt: (levelM) => tank.count * over(Math.max(0, levelM - floorM - overflowM)),
    },
    {
      ...own,
      id: `${tank.id}#rim`,
      role: 'rim',
      name: `${tank.name}: its rim`,
      kind: 'bank',
      levelM: rimM,
      flowAt: crestLaw({ C: RIM_C, lengthM: roundM, levelM: rimM }),
    },
    ...joinOf(tank, floorM, ground),
  ];
}

export const floorOf = ({ dimensions }: Tank, { groundM }: TankGround): number => groundM + dimensions.standM;

/** Rain on open water, or on paving that drains into it: nothing dries off what lies under a lid or the ground. */
function openOf(tank: Tank): Pick<Store, 'isCovered' | 'waterM2'> {
  if (tank.made === 'crates') return { isCovered: true, ...(tank.crates.pavedM2 > 0 ? { waterM2: tank.crates.pavedM2 } : {}) };
  return tank.lid === 'closed' ? { isCovered: true } : { waterM2: tank.count * footM2(tank) };
}

export function storeOf(tank: Tank, ground: TankGround): Store {
  const floorM = floorOf(tank, ground);
  const { overflowM, tapM } = tank.dimensions;
  return {
    id: tank.id,
    work: tank.id,
    name: tank.name,
    floorM,
    sillM: floorM + overflowM,
    wayOutM: floorM + overflowM,
    crestM: floorM + rimHeight(tank),
    heldM3: holdsM3(tank, overflowM),
    deadM3: holdsM3(tank, tapM),
    stage: stageOf(tank, floorM),
    seepsMmPerHour: 0,
    keeps: true,
    ...openOf(tank),
    outlets: outletsOf(tank, floorM, ground),
  };
}

export interface TankFacts extends StormFacts {
  readonly tank: Tank;
  readonly ground: TankGround;
}
