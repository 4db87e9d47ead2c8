// How a technique weighs a place: reasons with their weight, some of which rule it out.
import { FITS_WELL, type Place, type Suit } from '../contract/index.ts';
import { GRAVITY } from '../hydraulics/index.ts';
import { stoneThatStands } from './exit.ts';
import { type QuantityKind, type Said, amount, say } from '../units/index.ts';

export interface Reason {
  /** Whether it is so; null while nobody knows. */
  readonly is: boolean | null;
  /** What it adds or takes away; left out, it rules the technique out. */
  readonly worth?: number;
  readonly says: Said;
  /** What would tell. */
  readonly ask?: string;
}

/** Weighs the reasons of a technique from a first opinion of it. */
export function suited(first: number, reasons: readonly Reason[], on: { readonly school?: string; readonly draw: Suit['draw'] }): Suit {
  const so = reasons.filter((r) => r.is === true);
  const never = so.find((r) => r.worth === undefined);
  const worth = (r: Reason): number => r.worth ?? RULES_OUT;
  const sum = so.reduce((a, r) => a + worth(r), first);
  // What may rule it out and nobody knows lets it fit perhaps, never well.
  const most = reasons.some((r) => r.worth === undefined && r.is === null) ? FITS_WELL - 1 : Infinity;
  return {
    score: never || !on.draw ? RULES_OUT : Math.min(most, Math.max(RULES_OUT, sum)),
    speaksFor: so.filter((r) => worth(r) > 0).map((r) => r.says),
    against: so.filter((r) => worth(r) < 0).map((r) => r.says),
    asks: reasons.flatMap((r) => (r.is === null && r.ask !== undefined ? [r.ask] : [])),
    not: never ? never.says : on.draw ? null : 'nothing of it can be drawn there',
    school: on.school ?? null,
    draw: on.draw,
  };
}
const RULES_OUT = 0;

/** A figure over or under a limit; null where it is not known. */
export const over = (value: number | null, limit: number): boolean | null => (value === null ? null : value > limit);
export const under = (value: number | null, limit: number): boolean | null => (value === null ? null : value < limit);

/** A figure as it is told in a reason: only one that is known is. */
export const told = (value: number | null, kind: QuantityKind): Said =>
  value === null ? 'it is not known how much' : say`${amount(value, kind)}`;

/** Something said is one of these; null while nobody has said. */
export const isOne = <T extends string>(said: T, ...these: readonly T[]): boolean | null =>
  said === 'unknown' ? null : these.includes(said);

export const STONE_NEAR = 'Look for loose stone within a barrow’s way.';
export const SOIL_DEPTH = 'Describe the ground: how deep its soil is.';
export const RATE = 'Describe the ground, or test how fast water soaks in.';
export const PEAK = 'Give the rain and describe the ground: what comes down it at its peak.';
export const MACHINE = 'Say whether a machine comes there.';

/** Stone that just stays in a channel at its peak, at the velocity of critical depth [m]; null while peak or width are not known. */
export function stoneThatStays({ peakM3s, widthM }: Pick<Place, 'peakM3s' | 'widthM'>): number | null {
  if (peakM3s === null || widthM === null) return null;
  return stoneThatStands(Math.cbrt((GRAVITY * peakM3s) / widthM));
}
