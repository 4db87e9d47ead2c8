// In which order works are placed: each after those it needs.
import type { BoundWork } from '../../contract/index.ts';

/** Ids of the works one names: its host first. */
export const needsOf = ({ hostId, refersTo }: BoundWork): readonly string[] => (hostId === null ? refersTo : [hostId, ...refersTo]);

/** A work by what it needs. */
export interface Needing {
  readonly id: string;
  readonly needs: readonly string[];
}

/** Works in an order in which each stands after those it needs; those that need one another in a ring stand at the end. */
export function dependencyOrder<N extends Needing>(works: readonly N[]): { readonly order: readonly N[]; readonly ringed: readonly N[] } {
  const waits = new Map(works.map((w) => [w.id, 0]));
  const followers = new Map<string, N[]>();
  for (const one of works) {
    const known = new Set(one.needs.filter((id) => waits.has(id)));
    waits.set(one.id, known.size);
    for (const id of known) followers.set(id, [...(followers.get(id) ?? []), one]);
  }
  const order = works.filter((w) => waits.get(w.id) === 0);
  for (let k = 0; k < order.length; k++) {
    for (const next of followers.get(order[k].id) ?? []) {
      const left = (waits.get(next.id) ?? 1) - 1;
      waits.set(next.id, left);
      if (left === 0) order.push(next);
    }
  }
  const done = new Set(order);
  return { order, ringed: works.filter((w) => !done.has(w)) };
}
