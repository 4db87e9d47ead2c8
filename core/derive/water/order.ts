// In which order works are placed: each after those it needs.
import type { BoundWork } from '../../contract/index.ts';

/** Ids of the works one names: its host first. */
export const needsOf = ({ hostId, refersTo }: BoundWork): readonly string[] => [...(hostId === null ? [] : [hostId]), ...refersTo];

/** Works in an order in which each stands after those it names; works that name one another in a ring stand at the end. */
export function dependencyOrder(bound: readonly BoundWork[]): {
  readonly order: readonly BoundWork[];
  readonly ringed: readonly BoundWork[];
} {
  const waits = new Map(bound.map((b) => [b.work.id, 0]));
  const followers = new Map<string, BoundWork[]>();
  for (const one of bound) {
    const known = new Set(needsOf(one).filter((id) => waits.has(id)));
    waits.set(one.work.id, known.size);
    for (const id of known) followers.set(id, [...(followers.get(id) ?? []), one]);
  }
  const order = bound.filter((b) => waits.get(b.work.id) === 0);
  for (let k = 0; k < order.length; k++) {
    for (const next of followers.get(order[k].work.id) ?? []) {
      const left = (waits.get(next.work.id) ?? 1) - 1;
      waits.set(next.work.id, left);
      if (left === 0) order.push(next);
    }
  }
  const done = new Set(order);
  return { order, ringed: bound.filter((b) => !done.has(b)) };
}
