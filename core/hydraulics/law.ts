// Laws of flow by level that also say their form, so that a loop asked for them many thousand times may work them out in place.
import type { Rating } from './rating.ts';

/** Flow by the level of a store [m] and, for a joint, that of the store it leads to [m3/s]. */
export interface FlowLaw {
  (levelM: number, beyondM?: number): number;
  /** Where it is that of a crest: flow by each metre of head to the power of 1.5 [m^1.5/s], and its level [m]. */
  readonly crest?: { readonly perHead: number; readonly levelM: number };
  /** Where it is a table: by how high the water stands over a level [m]. */
  readonly table?: { readonly rating: Rating; readonly fromM: number };
}

/** A table of flow, read by how high water stands over a level [m]. */
export const ratedLaw = (rating: Rating, fromM: number): FlowLaw =>
  Object.assign((levelM: number) => rating.flowAt(levelM - fromM), { table: { rating, fromM } });
