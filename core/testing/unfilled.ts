// What water may never do.
import type { Derived } from '../derive/index.ts';

/** Ways out that ran, though the water of their store never rose to them. */
export const ranUnfilled = ({ stores, outlets }: Pick<Derived, 'stores' | 'outlets'>): string[] =>
  outlets.flatMap(({ id, store, levelM, volumeM3 }) => {
    const of = stores.find((s) => s.id === store);
    return of && Math.abs(volumeM3) > 1e-6 && (of.peakLevelM ?? -Infinity) <= levelM ? [id] : [];
  });
