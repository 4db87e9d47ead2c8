// What rules on check dams read, and how they tell which dam is worst.
import type { Channel, Finding, StormFacts } from '../../contract/index.ts';
import { type Worst, peakAt as peakOfStore, whichOf } from '../series.ts';
import type { Bed } from '../bed.ts';
import type { CheckDams } from './model.ts';
import type { Standing } from './store.ts';

export interface DamsFacts extends StormFacts {
  readonly work: CheckDams;
  readonly bed: Bed;
  readonly channel: Channel | null;
  readonly dams: readonly Standing[];
  /** What one of them takes [m3]. */
  readonly needsM3: (one: Standing) => number;
}

export const at = ({ bed }: DamsFacts, { one }: Worst<Standing>): Finding['at'] =>
  bed.points[Math.min(bed.points.length - 1, Math.round(one.dam.atM / bed.stepM))] ?? null;

export const of = (k: number, { dams }: DamsFacts): string => whichOf('dam', k, dams);

/** The greatest flow a dam must pass [m3/s]; null where no storm tells. */
export const peakAt = (facts: DamsFacts, { store }: Standing): number | null => peakOfStore(facts, store);
