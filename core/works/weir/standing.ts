// A weir as it stands in its channel: heights, its body, and what a flow over it does.
import type { StormFacts } from '../../contract/index.ts';
import { type Use, plainly } from '../../formula/index.ts';
import { DROP_LENGTH, DROP_TAIL, SCOUR_SCHOKLITSCH, SCOUR_VERONESE, normalDepth, trapezoid } from '../../hydraulics/index.ts';
import type { WallGround } from '../basin/index.ts';
import { type BodyShape, FOOTINGS, type Load, footingOf } from '../gravity/index.ts';
import {
  type Channel,
  LIFT,
  PORE_KN_M3,
  SILT_FRICTION_DEG,
  SILT_KN_M3,
  WEIGHT_KN_M3,
  type WeirGround,
  channelUnder,
  fallBelow,
} from './ground.ts';
import { type Weir, courseOf } from './model.ts';

/** Discharge of a notch over a rough crest (Heede & Mufich 1973; from memory). */
export const NOTCH_C = 1.65;
/** Roughness of a stony bed with some growth (Chow 1959, table 5-6; from memory), and its banks, out per 1 up. */
const [BED_N, BANKS_HV] = [0.04, 1];

export interface Standing {
  readonly work: Weir;
  readonly ground: WeirGround;
  readonly wall: WallGround;
  readonly channel: Channel;
  /** From the bed to the notch: what water falls. */
  readonly dropM: number;
  /** From its base to the notch. */
  readonly heightM: number;
  readonly body: BodyShape;
  readonly fall: number | null;
}

export function standingWeir(work: Weir, ground: WeirGround): Standing {
  const { wall } = ground;
  if (!wall) throw new Error(`${work.id} has no line`);
  const channel = channelUnder(wall);
  const dropM = Math.max(0, work.levels.notchM - channel.bedM);
  const { foundationM, baseWidthM: baseM, topWidthM: topM } = work.dimensions;
  const heightM = dropM + foundationM;
  return {
    work,
    ground,
    wall,
    channel,
    dropM,
    heightM,
    body: { heightM, baseM, topM, courseM: courseOf(work), steps: work.steps },
    fall: fallBelow(ground.down),
  };
}

/** Greatest flow the notch must take, and the water over it then [m3/s, m]. */
export interface Peak {
  readonly peakM3s: number;
  readonly headM: number;
}

export interface WeirFacts extends StormFacts {
  readonly standing: Standing;
  /** Null where no storm tells. */
  readonly peak: Peak | null;
  /** What the peak does below the notch; null where nothing falls, or no storm tells. */
  readonly falls: Falls | null;
}

/** What rules read, with what a flow at the peak does worked out once. */
export function weirFacts(facts: StormFacts, standing: Standing): WeirFacts {
  const peak = atPeak(facts, standing);
  return { ...facts, standing, peak, falls: peak && fallsOf(standing, peak.peakM3s) };
}

function atPeak({ storm, designPeakM3s }: StormFacts, { work }: Standing): Peak | null {
  if (!storm) return null;
  const peakM3s = Math.max(storm.peakInM3s, designPeakM3s ?? storm.peakInM3s);
  const byLaw = Math.cbrt(peakM3s / NOTCH_C / work.dimensions.notchWidthM) ** 2;
  return { peakM3s, headM: Math.max(byLaw, storm.peakLevelM - work.levels.notchM, 0) };
}

export interface Falls {
  /** Per metre of the notch [m2/s]. */
  readonly q: number;
  /** From the crest to where it lands, and how deep it must stand there [m]. */
  readonly landsM: number;
  readonly needsM: number;
  /** Depth of the water that runs on below, over the bed; null where the fall of the bed is not known [m]. */
  readonly tailM: number | null;
}

/** What a flow does that falls over the notch; null where nothing falls. */
export function fallsOf({ work, dropM, fall }: Standing, peakM3s: number, use: Use = plainly): Falls | null {
  const { notchWidthM, apronDropM, bedWidthM } = work.dimensions;
  const h = dropM + apronDropM;
  const q = peakM3s / notchWidthM;
  if (h <= 0 || q <= 0) return null;
  const on = { h, q };
  return {
    q,
    landsM: use(DROP_LENGTH, on),
    needsM: use(DROP_TAIL, on),
    tailM: fall === null ? null : normalDepth(trapezoid(bedWidthM, BANKS_HV), { slope: fall, n: BED_N }, peakM3s),
  };
}

/** A jump takes so many of the depths after it (Chow 1959, section 15-3; from memory). */
const JUMP_LONG = 6;
/** How long an apron must be: the fall and the jump [m]. */
export const apronFor = ({ landsM, needsM }: Falls): number => landsM + JUMP_LONG * needsM;

/** How deep water digs below the bed where nothing covers it, by two laws, the lesser first; null where it digs none or nothing is known [m]. */
export function scourOf(
  { work, dropM }: Standing,
  { q, tailM, headM }: Falls & { readonly headM: number },
  use: Use = plainly,
): readonly [number, number] | null {
  const footing = footingOf(work);
  if (!footing || footing.d90Mm === null || tailM === null) return null;
  const H = Math.max(0, dropM + headM - tailM);
  const both = [use(SCOUR_VERONESE, { H, q }), use(SCOUR_SCHOKLITSCH, { H, q, d90: footing.d90Mm })].map((ds) => Math.max(0, ds - tailM));
  return [Math.min(...both), Math.max(...both)];
}

/** What stands against a metre of it at its notch, silt to the crest as it will lie; null where its footing is not known. */
export function loadOf({ work, body, heightM }: Standing, water: { readonly headM: number; readonly tailM: number }): Load | null {
  if (work.ground === 'unknown') return null;
  return {
    body,
    weightKnM3: WEIGHT_KN_M3[work.form],
    poreKnM3: PORE_KN_M3[work.form],
    headM: water.headM,
    tailM: water.tailM + work.dimensions.foundationM,
    earthM: heightM,
    earthKnM3: SILT_KN_M3,
    frictionDeg: SILT_FRICTION_DEG,
    lift: LIFT[work.base],
    mu: FOOTINGS[work.ground].mu,
  };
}
