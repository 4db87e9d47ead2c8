// How storms, and the ways ground and water are found, are called.
import type { By, Condition } from '../../contract/index.ts';
import type { DerivedSet, DerivedStore } from '../types.ts';

/** How ground and water were found, said after a figure; nothing where it is as usual. */
export const CONDITION_WORDS: Readonly<Record<Condition, string>> = {
  found: '',
  full: 'all full when it begins',
  blocked: 'all full and pipes blocked',
  unpowered: 'all full and the mains gone',
  wet: 'on ground wet from before',
  bare: 'on bare ground',
};

/** The same in a table. */
export const CONDITION_NAMES: Readonly<Record<Condition, string>> = {
  found: 'as usually found',
  full: 'all full',
  blocked: 'full, pipes blocked',
  unpowered: 'full, mains gone',
  wet: 'wet ground',
  bare: 'bare ground',
};

/** The lengths of a set as the verdict and the header say them. */
export function spanWords({ durationsMin }: Pick<DerivedSet, 'durationsMin'>): string {
  const [first, last] = [durationsMin[0], durationsMin[durationsMin.length - 1]];
  return first === last ? hours(first) : `${hours(first)} to ${hours(last)}`;
}

/** A duration as the verdict and the header say it. */
export function hours(minutes: number): string {
  return minutes < 120 ? `${Math.round(minutes)} min` : `${Number((minutes / 60).toFixed(1))} h`;
}

/** Which storm of a set decides, how it must find things where that is not as usual, and what else there is to say; in brackets. */
export function decidedWords(set: DerivedSet | null, { durationMin, condition }: By, more: string | null): string {
  const words = [...(set ? [`${hours(durationMin)} of rain`] : []), ...(condition === 'found' ? [] : [CONDITION_WORDS[condition]])];
  const all = [...(words.length === 0 ? [] : [words.join(', ')]), ...(more === null ? [] : [more])];
  return all.length === 0 ? '' : ` (${all.join('; ')})`;
}

/** Where a store's water stands highest as found, full and blocked, in any storm of the set; null while no storm is known. */
export const highestOf = ({ crestM, least, peakLevelM }: DerivedStore): number | null => (least ? crestM - least.value : peakLevelM);
