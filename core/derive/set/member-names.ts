// How the storms of a set are told apart.
import type { By, Condition } from '../../contract/index.ts';

/** Conditions in which water or works are found worse than made: what is fine must be fine in them too. */
export const STRICT: ReadonlySet<Condition> = new Set(['found', 'full', 'blocked', 'unpowered']);

/** Names a member; as found there are two where a peak was chosen that is more than the hydrograph's. */
export const memberName = ({ durationMin, condition, isRaised = false }: By & { readonly isRaised?: boolean }): string =>
  `${condition}:${durationMin}${condition === 'found' && isRaised ? ':raised' : ''}`;
