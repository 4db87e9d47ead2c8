// What works of several stores share: the ids of their stores, what a storm did to each, and which of them is worst.
import type { StoreStorm, StormFacts } from '../contract/index.ts';

/** The first store of a work has its id; others add their number. */
export const storeIdOf = (work: string, k: number): string => (k === 0 ? work : `${work}:${k + 1}`);

/** Share of a store's room that is silt: none where nothing was noted. */
export const siltedShare = ({ siltedPercent = NONE }: { readonly siltedPercent?: number }): number => siltedPercent / 100;
const NONE = 0;

/** What the storm did to one of its stores; null where no storm tells. */
export const stormAt = ({ store, storm, others = [] }: StormFacts, id: string): StoreStorm | null =>
  (store?.id === id ? storm : others.find((o) => o.store.id === id)?.storm) ?? null;

/** The greatest flow one of its stores must pass [m3/s]; null where no storm tells. The method chosen for a peak is asked of the first, whose catchment it is. */
export function peakAt(facts: StormFacts, id: string): number | null {
  const storm = stormAt(facts, id);
  return storm && Math.max(storm.peakInM3s, facts.store?.id === id ? (facts.designPeakM3s ?? storm.peakInM3s) : storm.peakInM3s);
}

/** One of several, counted from 1, with what it is worst in. */
export interface Worst<T> {
  readonly one: T;
  readonly k: number;
  readonly value: number;
}

/** The one of which something is most, or least. */
export function worstOf<T>(list: readonly T[], valueOf: (one: T) => number, sense: 'most' | 'least' = 'most'): Worst<T> {
  return list
    .map((one, k) => ({ one, k: k + 1, value: valueOf(one) }))
    .reduce((a, b) => ((sense === 'most' ? b.value > a.value : b.value < a.value) ? b : a));
}

/** Which of several is meant, in brackets; nothing where there is but one. */
export const whichOf = (what: string, k: number, list: readonly unknown[]): string => (list.length === 1 ? '' : ` (${what} ${k})`);

/** The one the storm leaves least under its crest, counted from 1; null where no storm tells of any. */
export function leastLeft<T extends { readonly store: string }>(
  facts: StormFacts,
  list: readonly T[],
): { readonly one: T; readonly k: number; readonly storm: StoreStorm } | null {
  const known = list.flatMap((one, k) => {
    const storm = stormAt(facts, one.store);
    return storm ? [{ one, k: k + 1, storm }] : [];
  });
  return known.length === 0 ? null : known.reduce((a, b) => (b.storm.freeboardM < a.storm.freeboardM ? b : a));
}
