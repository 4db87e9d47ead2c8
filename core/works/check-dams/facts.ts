// What rules on check dams read, and how they tell which dam is worst.
import type { Finding, StormFacts } from '../../contract/index.ts';
import { type Amount, amount } from '../../units/index.ts';
import type { Bed } from './bed.ts';
import type { CheckDams } from './model.ts';
import type { Standing } from './store.ts';

export interface DamsFacts extends StormFacts {
  readonly work: CheckDams;
  readonly bed: Bed;
  readonly dams: readonly Standing[];
  /** What one of them takes [m3]. */
  readonly needsM3: (one: Standing) => number;
}

export const metres = (m: number): Amount => amount(m, 'length');
export const step = (m: number): Amount => amount(m, 'difference');

/** The dam of which something is worst, counted from 1. */
export interface Worst {
  readonly one: Standing;
  readonly k: number;
  readonly value: number;
}

export function worstOf(dams: readonly Standing[], valueOf: (one: Standing) => number, sense: 'most' | 'least'): Worst {
  return dams
    .map((one, k) => ({ one, k: k + 1, value: valueOf(one) }))
    .reduce((a, b) => ((sense === 'most' ? b.value > a.value : b.value < a.value) ? b : a));
}

export const at = ({ bed }: DamsFacts, { one }: Worst): Finding['at'] =>
  bed.points[Math.min(bed.points.length - 1, Math.round(one.dam.atM / bed.stepM))] ?? null;

export const of = (k: number, facts: DamsFacts): string => (facts.dams.length === 1 ? '' : ` (dam ${k})`);

/** The greatest flow a dam must pass [m3/s]; null where no storm tells. */
export function peakAt({ designPeakM3s, storm, store, others = [] }: DamsFacts, { store: id }: Standing): number | null {
  if (store?.id === id) return storm && Math.max(storm.peakInM3s, designPeakM3s ?? storm.peakInM3s);
  return others.find((o) => o.store.id === id)?.storm?.peakInM3s ?? null;
}
