// A head as it is or will be: its drop, its face, and what a flow over it does.
import type { Exit, Outlet, Store, StormFacts } from '../../contract/index.ts';
import { type Use, plainly } from '../../formula/index.ts';
import { type Point, lineLength } from '../../geometry/index.ts';
import { GRASSED_SILL_C, SCOUR_SCHOKLITSCH, SCOUR_VERONESE, grassedSillLaw } from '../../hydraulics/index.ts';
import { BALE_FLOATS, CHUTE_STONE_GENTLE, CHUTE_STONE_STEEP, LOG_FLOATS, STEEP } from './formulas.ts';
import type { HeadGround } from './ground.ts';
import { type Headcut, dropOf, hasApron, isChute, plugWeight } from './model.ts';

export interface Standing {
  readonly head: Headcut;
  readonly ground: HeadGround;
  readonly dropM: number;
  /** How wide water comes over: a chute, or the lip. */
  readonly overM: number;
  /** How high the sides of a chute stand over its lip, or the ground where the lip ends [m]. */
  readonly sideM: number;
  /** Slope of its face as it will be [m/m]. */
  readonly slope: number;
}

export interface HeadFacts extends StormFacts {
  readonly standing: Standing;
}

export const standingHead = (head: Headcut, ground: HeadGround): Standing => ({
  head,
  ground,
  dropM: dropOf(head),
  overM: isChute(head) ? head.dimensions.chuteWidthM : lineLength(head.line),
  sideM: isChute(head) ? head.dimensions.sideM : Math.max(0, ground.endsM - head.levels.lipM),
  slope: 1 / head.dimensions.slopeHV,
});

/** A place down the gully from its lip. */
export const downFrom = ({ ground: { at, down } }: Standing, awayM: number): Point => [at[0] + down[0] * awayM, at[1] + down[1] * awayM];

/** From the lip to the end of its face, along the ground [m]. */
export function faceM({ head, dropM, ground }: Standing): number {
  const found = ground.foot?.awayM ?? dropM;
  return head.form === 'left' || head.form === 'plug' ? found : dropM * head.dimensions.slopeHV;
}

/** From the lip to where its apron begins, at the end of a chute or of what is laid before the face, and ends [m]; null without. */
export function apronAlong(standing: Standing): readonly [fromM: number, toM: number] | null {
  const { head } = standing;
  const { apronM, plugM } = head.dimensions;
  if (!hasApron(head) || apronM <= 0) return null;
  const fromM = faceM(standing) + (isChute(head) ? 0 : plugM);
  return [fromM, fromM + apronM];
}

/** What water runs on as it leaves: its own stone, its own grass, or the floor of the gully, of whose fall nothing is known. */
function exitOf(standing: Standing): Exit {
  const { head, slope, overM } = standing;
  const at = downFrom(standing, 1);
  if (head.form === 'rock') return { at, slope, widthM: overM, shape: 'sheet', stoneM: head.dimensions.stoneM };
  if (head.form === 'grass') return { at, slope, widthM: overM, shape: 'sheet' };
  return { at: downFrom(standing, faceM(standing) + 1), slope: null, widthM: overM, shape: 'sheet' };
}

/** Water that stands before a lip as it runs over it: so far back [m]. */
const BACK_M = 1;
const STAGES = 12;
/** How far over its sides the table reaches [m]. */
const OVER_SIDES_M = 1;

/** It stores nothing worth telling; its lip passes what comes. */
export function storeOf(standing: Standing): Store {
  const { head, overM, sideM } = standing;
  const { lipM } = head.levels;
  const crestM = lipM + sideM;
  const lipLength = lineLength(head.line);
  const own = { work: head.id, dischargeAt: downFrom(standing, faceM(standing) + 1) };
  const over: Outlet = {
    ...own,
    id: `${head.id}#lip`,
    role: 'end',
    name: `${head.name}: over its lip`,
    kind: 'sill',
    levelM: lipM,
    flowAt: grassedSillLaw({ lengthM: overM, levelM: lipM }),
    exit: exitOf(standing),
  };
  const beside: Outlet = {
    ...own,
    id: `${head.id}#sides`,
    role: 'bank',
    name: `${head.name}: over its sides`,
    kind: 'bank',
    levelM: crestM,
    flowAt: grassedSillLaw({ lengthM: Math.max(1, lipLength), levelM: crestM }),
  };
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => lipM + ((sideM + OVER_SIDES_M) * k) / STAGES);
  const areaM2 = Math.max(1, lipLength) * BACK_M;
  return {
    id: head.id,
    work: head.id,
    name: head.name,
    floorM: lipM,
    sillM: lipM,
    wayOutM: lipM,
    crestM,
    heldM3: 0,
    stage: { levelM, volumeM3: levelM.map((v) => (v - lipM) * areaM2), wettedM2: levelM.map(() => areaM2) },
    outlets: [over, beside],
  };
}

/** Greatest flow that comes over [m3/s]; null where no storm tells. */
export const peakOver = ({ storm, designPeakM3s }: HeadFacts): number | null =>
  storm && Math.max(storm.peakInM3s, designPeakM3s ?? storm.peakInM3s);

export interface Over {
  readonly peakM3s: number;
  /** For each metre [m2/s], and how deep it runs over the lip [m]. */
  readonly q: number;
  readonly headM: number;
}

export function overLip(facts: HeadFacts): Over | null {
  const peakM3s = peakOver(facts);
  if (peakM3s === null) return null;
  const q = peakM3s / facts.standing.overM;
  return { peakM3s, q, headM: Math.cbrt(q / GRASSED_SILL_C) ** 2 };
}

/** Grain of a face's soil that 90 % is finer than [mm]: typical of the words (common practice). */
const D90_MM: Readonly<Record<Exclude<Headcut['soil'], 'unknown'>, number>> = { loose: 1, firm: 3, hard: 15 };

/** How deep a free fall digs at its foot, by two laws, the lesser first, where no water stands below; null where the soil is not known [m]. */
export function dugBy({ head, dropM }: Standing, { q, headM }: Over, use: Use = plainly): readonly [number, number] | null {
  if (head.soil === 'unknown') return null;
  const H = dropM + headM;
  const both = [use(SCOUR_VERONESE, { H, q }), use(SCOUR_SCHOKLITSCH, { H, q, d90: D90_MM[head.soil] })];
  return [Math.min(...both), Math.max(...both)];
}

/** Stone a chute asks for [m]. */
export function chuteStone({ slope: S }: Standing, { q }: Over, use: Use = plainly): number {
  return use(S < STEEP ? CHUTE_STONE_GENTLE : CHUTE_STONE_STEEP, { q, S }) / 1000;
}

/** Lift on what is laid in, against what holds it, in water so deep. */
export function floatsBy({ head }: Standing, depthM: number, use: Use = plainly): number {
  const { plugM: D, heldKgM: p } = head.dimensions;
  const w = plugWeight(head);
  return use(head.plug === 'log' ? LOG_FLOATS : BALE_FLOATS, { y: depthM, D, w, p });
}
