// The answer for a work that makes several stores, one below the other.
import type { QuantityKind } from '../../units/index.ts';
import type { Derived, DerivedStore } from '../types.ts';

/** Whether a store is of a work, alone or with others. */
export const isOf = ({ work, alsoOf = [] }: Pick<DerivedStore, 'work' | 'alsoOf'>, id: string): boolean =>
  work === id || alsoOf.includes(id);

/** All stores of the work a store belongs to, one below the other; none where it is its only one, or one opens into another. */
export function seriesOf(
  { stores, links }: Pick<Derived, 'stores' | 'links'>,
  { work }: Pick<DerivedStore, 'work'>,
): readonly DerivedStore[] {
  const own = stores.filter((s) => s.work === work);
  const ids = new Set(own.map((s) => s.id));
  const isJoined = links.some((l) => l.role === 'mouth' && ids.has(l.from) && ids.has(l.to));
  return own.length > 1 && !isJoined ? own : [];
}

/** The word for several of a thing, as stores are called: dams, benches, stretches. */
const several = (noun: string): string => `${noun}${noun.endsWith('ch') ? 'es' : 's'}`;

/** The pieces between names and figures: how many there are, what the lowest passes on at most, and where least is left. */
export function seriesWords(
  stores: readonly DerivedStore[],
  { name, q }: { readonly name: string; readonly q: (value: number | null, kind: QuantityKind) => string },
): { readonly least: DerivedStore; readonly leftM: number; readonly before: string; readonly flow: string; readonly after: string } {
  const left = (s: DerivedStore): number => s.least?.value ?? s.freeboardM ?? Infinity;
  const least = stores.reduce((a, b) => (left(b) < left(a) ? b : a));
  const part = least.name.replace(`${name}, `, '');
  const noun = part.replace(/ \d+$/, '');
  return {
    least,
    leftM: left(least),
    before: `${name}, ${stores.length} ${several(noun)} in a row, pass on at most `,
    flow: q(stores[stores.length - 1].peakOutM3s, 'flow'),
    after: `. Least is left at ${part}: `,
  };
}
