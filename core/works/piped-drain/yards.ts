// What rules ask of a drain's yards: where they are, and what a storm did to each.
import type { StoreStorm } from '../../contract/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { stormAt, storeIdOf } from '../series.ts';
import type { DrainFacts } from './standing.ts';

export const placeOf = ({ work }: DrainFacts, k: number): Point => pointAlong(work.line, work.basins[k].atM).point;
export const hasYard = ({ ground }: DrainFacts): boolean => ground.yards.length > 0;

export interface YardStorm {
  readonly n: number;
  readonly storm: StoreStorm;
}

/** What the storm did to each yard; none while no storm tells. */
export const stormsOf = (facts: DrainFacts): readonly YardStorm[] =>
  facts.ground.yards.flatMap((_, n): YardStorm[] => {
    const storm = stormAt(facts, storeIdOf(facts.work.id, n));
    return storm ? [{ n, storm }] : [];
  });

/** The way of what a store’s intake lets pass. */
export const pastOf = (store: string): string => `${store}#intake:past`;
