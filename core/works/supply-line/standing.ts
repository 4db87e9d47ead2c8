// What runs through a water line: its losses, the flow it gives, the head along it, where air and water stay in it.
import type { StormFacts } from '../../contract/index.ts';
import { DARCY_LOSS, PIPE_WALLS, PUMP_POWER, SOLAR_ARRAY, rootOf } from '../../hydraulics/index.ts';
import { DRIPPER, FITTING_LOSS, MANY_OUTLETS } from './formulas.ts';
import type { LineGround } from './ground.ts';
import type { SupplyLine } from './model.ts';

export interface SupplyLineFacts extends StormFacts {
  readonly work: SupplyLine;
  readonly ground: LineGround;
}

/** Loss of one bend or fitting, in velocity heads. */
export const FITTING_K = 0.9;

export const areaOf = (diameterM: number): number => (Math.PI / 4) * diameterM ** 2;
export const velocityAt = (Q: number, { pipe }: Pick<SupplyLine, 'pipe'>): number => Q / areaOf(pipe.diameterM);

/** Head lost by a flow from end to end [m]. */
export function lossAt(Q: number, { pipe }: Pick<SupplyLine, 'pipe'>, lengthM: number): number {
  const along = DARCY_LOSS.evaluate({ Q, D: pipe.diameterM, L: lengthM, e: PIPE_WALLS[pipe.wall] });
  return along + FITTING_LOSS.evaluate({ n: pipe.bends, k: FITTING_K, V: Q / areaOf(pipe.diameterM) });
}

/** Flow at which a head is lost from end to end [m3/s]; none where there is no head. */
export function flowBy(headM: number, work: Pick<SupplyLine, 'pipe'>, lengthM: number): number {
  if (!(headM > 0)) return 0;
  // Faster than 20 m/s no water runs in a pipe.
  return rootOf((Q) => lossAt(Q, work, lengthM) - headM, 0, areaOf(work.pipe.diameterM) * 20);
}

/** Fall from the lowest water to its end [m]: less than nothing where it ends higher. */
export const fallOf = ({ levels }: Pick<SupplyLine, 'levels'>): number => levels.drawM - levels.endM;

/** Flow it gives by its fall, with the head wanted left at its end: from the lowest water, or from a level [m3/s]. */
export const gives = (work: SupplyLine, { lengthM }: LineGround, fromM = work.levels.drawM): number =>
  flowBy(fromM - work.levels.endM - work.endHeadM, work, lengthM);

/** Flow it gives freely, its end open: what a bucket is filled with when it is tried [m3/s]. */
export const givesOpen = (work: SupplyLine, { lengthM }: LineGround): number => flowBy(fallOf(work), work, lengthM);

/** Widths pipes come in, inside [m]: common ones, smallest first. */
export const USUAL_PIPES_M = [0.012, 0.016, 0.02, 0.026, 0.033, 0.041, 0.052, 0.066, 0.079, 0.097, 0.15, 0.2, 0.3] as const;

/** The narrowest usual pipe that gives a flow by a head; null where none does. */
export function pipeFor(
  Q: number,
  headM: number,
  { pipe, lengthM }: Pick<SupplyLine, 'pipe'> & { readonly lengthM: number },
): number | null {
  const fits = (diameterM: number): boolean => lossAt(Q, { pipe: { ...pipe, diameterM } }, lengthM) <= headM;
  return headM > 0 ? (USUAL_PIPES_M.find(fits) ?? null) : null;
}

/** Whole head a pump works against: lift, losses, and what is wanted at the end [m]. */
export const pumpHead = (work: SupplyLine, { lengthM }: LineGround): number =>
  Math.max(0, -fallOf(work)) + lossAt(work.flowM3s, work, lengthM) + work.endHeadM;

export const pumpPower = (work: SupplyLine, ground: LineGround): number =>
  PUMP_POWER.evaluate({ Q: work.flowM3s, H: pumpHead(work, ground), eta: work.pump.efficiency });

/** Water a day [m3]. */
export const dayM3 = ({ flowM3s, pump }: Pick<SupplyLine, 'flowM3s' | 'pump'>): number => flowM3s * 3600 * pump.hoursADay;

export const panelsFor = (work: SupplyLine, ground: LineGround): number =>
  SOLAR_ARRAY.evaluate({
    V: dayM3(work),
    H: pumpHead(work, ground),
    eta: work.pump.efficiency,
    h: work.pump.hoursADay,
    PR: work.pump.panelShare,
  });

/** Level of the pipe at each place: under the ground by its cover, and at its ends where water is taken and wanted [m]. */
export function pipeLevels({ levels, pipe }: SupplyLine, { groundM }: LineGround): Float64Array {
  const at = groundM.map((g) => g - pipe.coverM);
  at[0] = levels.drawM;
  at[at.length - 1] = levels.endM;
  return at;
}

/** Head over the pipe at each place, at the flow wanted or, by its fall, at what it gives if that is less [m]. */
export function headsAlong(work: SupplyLine, ground: LineGround): Float64Array {
  const at = pipeLevels(work, ground);
  const last = at.length - 1;
  const Q = work.drive === 'pump' ? work.flowM3s : Math.min(work.flowM3s, givesOpen(work, ground));
  const start = work.drive === 'pump' ? work.levels.drawM + pumpHead(work, ground) : work.levels.drawM;
  const lost = lossAt(Q, work, ground.lengthM);
  return at.map((level, k) => start - (lost * k) / last - level);
}

export interface Spot {
  readonly k: number;
  readonly atM: number;
  readonly value: number;
}

/** The least head along it between its ends, and where. */
export function leastHead(work: SupplyLine, ground: LineGround): Spot {
  const heads = headsAlong(work, ground);
  let k = 1;
  for (let i = 1; i < heads.length - 1; i++) if (heads[i] < heads[k]) k = i;
  return { k, atM: k * ground.stepM, value: heads[k] };
}

/** The greatest head water at rest presses with anywhere: from the fullest source, or from the pump with its end closed [m]. */
export function restHead(work: SupplyLine, ground: LineGround): Spot {
  const at = pipeLevels(work, ground);
  const top =
    work.drive === 'pump' ? work.levels.drawM + pumpHead(work, ground) : Math.max(work.levels.drawM, ground.from?.fullM ?? -Infinity);
  let k = 0;
  for (let i = 1; i < at.length; i++) if (at[i] < at[k]) k = i;
  return { k, atM: k * ground.stepM, value: top - at[k] };
}

/** A rise between two dips, or a dip between two rises, is one from here on [m]. */
const STANDS_OUT_M = 0.3;

/** Tops (or, turned over, dips) that stand out on both sides. */
function topsOf(levels: Float64Array, sign: 1 | -1): number[] {
  const found: number[] = [];
  let low = 0;
  let top: number | null = null;
  const v = (k: number): number => sign * levels[k];
  for (let k = 1; k < levels.length; k++) {
    if (top === null) {
      if (v(k) < v(low)) low = k;
      else if (v(k) >= v(low) + STANDS_OUT_M) top = k;
      continue;
    }
    if (v(k) > v(top)) top = k;
    else if (v(k) <= v(top) - STANDS_OUT_M) {
      found.push(top);
      [low, top] = [k, null];
    }
  }
  return found;
}

/** A vent or a drain serves a top or a dip this near to it [m]. */
export const SERVES_M = 5;

const notServed = (places: readonly number[], by: SupplyLine['vents'], { stepM }: LineGround): readonly number[] =>
  places.map((k) => k * stepM).filter((atM) => !(by ?? []).some((p) => Math.abs(p.atM - atM) <= SERVES_M));

/** Tops or dips along the pipe itself: what stands up at its ends, a tap or a strainer, opens there. */
const along = (work: SupplyLine, ground: LineGround, sign: 1 | -1): number[] =>
  topsOf(pipeLevels(work, ground).slice(1, -1), sign).map((k) => k + 1);

/** Tops without a vent, and dips that cannot be emptied, by distance along it [m]. */
export const unvented = (work: SupplyLine, ground: LineGround): readonly number[] => notServed(along(work, ground, 1), work.vents, ground);
export const undrained = (work: SupplyLine, ground: LineGround): readonly number[] =>
  notServed(along(work, ground, -1), work.drains, ground);

/** Water that stays in it when nothing runs: all that lies under the lower of its ends, and under every top before a dip [m3]. */
export function staysM3(work: SupplyLine, ground: LineGround): number {
  const at = pipeLevels(work, ground);
  const last = at.length - 1;
  // As in a valley, water stands to the lower of what is highest on its two sides.
  const left = new Float64Array(at.length);
  let high = -Infinity;
  for (let k = 0; k <= last; k++) left[k] = high = Math.max(high, at[k]);
  high = -Infinity;
  let wet = 0;
  for (let k = last; k >= 0; k--) {
    high = Math.max(high, at[k]);
    if (Math.min(left[k], high) > at[k] + 1e-9) wet++;
  }
  return areaOf(work.pipe.diameterM) * ((wet * ground.lengthM) / last);
}

export const drippersOf = ({ drip }: Pick<SupplyLine, 'drip'>): number =>
  drip.lines * Math.max(1, Math.floor(drip.lengthM / drip.apartM + 1e-9));

export interface Drips {
  /** What all let out with the head wanted at their beginning [m3/s]. */
  readonly allM3s: number;
  /** Head lost along one line, and by how much the last lets out less than the first. */
  readonly lostM: number;
  readonly less: number;
}

/** What drip lines let out with a head at their beginning: solved for the loss that their own flow brings about. */
export function dripsOf(work: SupplyLine, headM = work.endHeadM): Drips {
  const { drip } = work;
  const each = drippersOf(work) / drip.lines;
  const share = MANY_OUTLETS.evaluate({ N: each });
  const lostBy = (Q: number): number => share * DARCY_LOSS.evaluate({ Q, D: drip.diameterM, L: drip.lengthM, e: PIPE_WALLS.plastic });
  // Three quarters of what a line loses is lost before its middle: its drippers let out as under that head.
  const lets = (lostM: number): number =>
    (each * DRIPPER.evaluate({ q10: drip.litresAnHour, h: Math.max(0, headM - 0.75 * lostM) })) / 3.6e6;
  const lostM = Math.min(
    headM,
    rootOf((lost) => lost - lostBy(lets(lost)), 0, Math.max(0.01, headM)),
  );
  const last = Math.sqrt(Math.max(0, headM - lostM) / Math.max(1e-9, headM));
  return { allM3s: drip.lines * lets(lostM), lostM, less: headM > 0 ? 1 - last : 1 };
}
