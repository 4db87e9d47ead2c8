// What techniques share in telling how they are made: how sure an amount is, and steps one after the other.
import type { BuildStep, QuantityLine } from '../contract/index.ts';

/** How far an amount may be off either way, by what it is: common practice for ground between survey points and hand placing. */
export const SPREAD = { earth: 0.15, stone: 0.2, surface: 0.1, made: 0.05 } as const;

/** An amount with how far it may be off. */
export const line = (
  what: Pick<QuantityLine, 'item' | 'label' | 'kind' | 'from'>,
  likely: number | null,
  sure: keyof typeof SPREAD,
): QuantityLine => ({
  ...what,
  low: likely === null ? null : likely * (1 - SPREAD[sure]),
  likely,
  high: likely === null ? null : likely * (1 + SPREAD[sure]),
});

/** Things that are counted are what they are. */
export const counted = (what: Pick<QuantityLine, 'item' | 'label' | 'from'>, count: number): QuantityLine => ({
  ...what,
  kind: 'count',
  low: count,
  likely: count,
  high: count,
});

/** A working day [h]; loose stone with a third of gaps [t/m3]; what a barrow carries, and how fast it goes [t, km/h]: common practice. */
export const DAY_H = 8;
export const STONE_T_M3 = 1.72;
const [BARROW_T, BARROW_KMH] = [0.06, 2.5];

/** Hours of one person who moves or lays so much in a day. */
export const layingHours = (m3: number, m3PerDay: number): number => (m3 / m3PerDay) * DAY_H;
/** Hours of walking with a barrow, there and back. */
export const carryHours = (tonnes: number, carryM: number): number => ((tonnes / BARROW_T) * 2 * carryM) / 1000 / BARROW_KMH;

export type Draft = Pick<BuildStep, 'id' | 'does'> & Partial<Omit<BuildStep, 'after'>>;

/** Steps that follow one another as listed. */
export const inOrder = (...drafts: readonly Draft[]): BuildStep[] =>
  drafts.map((draft, k) => ({ levels: [], cautions: [], ...draft, after: k === 0 ? [] : [drafts[k - 1].id] }));

/** Before anything is dug: common practice, and the law in many places. */
export const BEFORE_DIGGING = 'Ask for buried cables and pipes before anything is dug.';
/** A trench this deep is no place to stand in [m]: common practice. */
const DEEP_M = 1.2;
export const OPEN_TRENCH = 'Nobody stands in a trench deeper than 1.2 m with upright sides.';
/** What is said of a trench so deep, or of one whose depth is not known; nothing of a shallow one. */
export const standingIn = (depthM: number | null): string[] => (depthM === null || depthM > DEEP_M ? [OPEN_TRENCH] : []);
export const SEED_AT_ONCE = 'Seed and mulch within the week: bare earth runs off with the first rain.';
