// What the works take to make, and how they are made.
import type { QuantityLine, StormFacts } from '../contract/index.ts';
import type { Failures } from './standing.ts';
import type { Placed } from './stores.ts';
import type { DerivedQuantity, View } from './types.ts';

/** Units of SI by what is told. */
const UNITS: Readonly<Partial<Record<QuantityLine['kind'], string>>> = { volume: 'm3', area: 'm2', length: 'm', power: 'W', count: '1' };

/** Work by work; those that are there already, built or retired take nothing any more. */
export function makingOf(works: readonly Placed[], factsOf: (id: string) => StormFacts, failures: Failures): View['making'] {
  return Object.fromEntries(
    works.flatMap(({ bound: { work }, placed }) => {
      if (work.status !== 'planned' && work.status !== 'pegged') return [];
      const made = failures.attempt(work, () => ({ quantities: placed.quantities(factsOf(work.id)), steps: placed.buildSteps() }), null);
      return made ? [[work.id, made] as const] : [];
    }),
  );
}

/** The same as rows of the JSON. */
export const quantityRows = (making: View['making']): DerivedQuantity[] =>
  Object.entries(making).flatMap(([work, { quantities }]) =>
    quantities.map(({ item, likely, kind, low, high, from }) => ({
      work,
      item,
      quantity: likely,
      unit: UNITS[kind] ?? '',
      low,
      high,
      from,
    })),
  );
