// The answer for a work that makes several stores, one below the other.
import type { QuantityKind } from '../../units/index.ts';
import type { Derived, DerivedStore } from '../types.ts';

/** Whether a store is of a work, alone or with others. */
export const isOf = ({ work, alsoOf = [] }: Pick<DerivedStore, 'work' | 'alsoOf'>, id: string): boolean =>
  work === id || alsoOf.includes(id);

/** Stores and pipes of a work: what goes from one to another of them stays in it. */
export const partsOf = ({ stores, conduits }: Pick<Derived, 'stores' | 'conduits'>, id: string): ReadonlySet<string> =>
  new Set([...stores.filter((s) => isOf(s, id)), ...conduits.filter((c) => c.work === id)].map((part) => part.id));

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

/** What leaves all of them at most, over whichever of their ways and past them [m3/s]; null while no storm is known. */
export function leavesMost(stores: readonly DerivedStore[], links: Derived['links']): number | null {
  const own = new Set(stores.map((s) => s.id));
  const peaks = links.flatMap((l) => (own.has(l.from) && !own.has(l.to) ? [l.mostM3s] : []));
  // They need not come at one time: it is no more than this.
  return peaks.reduce((sum, m3s) => (sum === null || m3s === null ? null : sum + Math.max(0, m3s)), 0);
}

/** What runs past a work, caught by none of its own stores and pipes: to each place, in this storm [m3] and at its worst [m3/s]. */
export function runsPast(
  links: Derived['links'],
  { work, inside }: { readonly work: string; readonly inside: ReadonlySet<string> },
): readonly { readonly to: string; readonly volumeM3: number; readonly mostM3s: number }[] {
  const by = new Map<string, { to: string; volumeM3: number; mostM3s: number }>();
  for (const { work: of, role, to, volumeM3, mostM3s } of links) {
    if (of !== work || role !== 'past' || inside.has(to) || volumeM3 === null || mostM3s === null || mostM3s <= 0) continue;
    const all = by.get(to);
    by.set(to, { to, volumeM3: (all ? all.volumeM3 : 0) + volumeM3, mostM3s: (all ? all.mostM3s : 0) + mostM3s });
  }
  return [...by.values()];
}

/** The pieces between names and figures: how many there are, what they pass on at most, and where least is left. */
export function seriesWords(
  stores: readonly DerivedStore[],
  {
    name,
    links,
    q,
  }: { readonly name: string; readonly links: Derived['links']; readonly q: (value: number | null, kind: QuantityKind) => string },
): { readonly least: DerivedStore; readonly leftM: number; readonly before: string; readonly flow: string; readonly after: string } {
  const left = (s: DerivedStore): number => s.least?.value ?? s.freeboardM ?? Infinity;
  const least = stores.reduce((a, b) => (left(b) < left(a) ? b : a));
  const part = least.name.replace(`${name}, `, '');
  const noun = part.replace(/ \d+$/, '');
  return {
    least,
    leftM: left(least),
    before: `${name}, ${stores.length} ${several(noun)}, pass on at most `,
    flow: q(leavesMost(stores, links), 'flow'),
    after: `. Least is left at ${part}: `,
  };
}
