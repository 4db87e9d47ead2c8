// Cures that set the crest of a store.
import type { Cure, Outlet, Store } from '../contract/index.ts';
import { rootOf } from '../hydraulics/index.ts';
import { type Said, amount, say } from '../units/index.ts';
import { cureBy, upToMm } from '../works/rules.ts';

/** The crest water passes first, where somebody set its level. */
export function lowestCrest({ outlets }: Pick<Store, 'outlets'>): Outlet | null {
  const [lowest] = outlets.filter((o) => o.kind === 'bank').sort((a, b) => a.levelM - b.levelM);
  return lowest?.levelBy === undefined ? null : lowest;
}

/** The cure that sets a crest to a level; none where there is no crest to set. */
export const setLevel = (crest: Outlet | null, { toM, says }: { readonly toM: number; readonly says: Said }): { readonly cure?: Cure } =>
  crest?.levelBy === undefined ? {} : cureBy(true, { work: crest.work, set: { [crest.levelBy]: toM }, says });

/** As much as a crest is ever told to be raised [m]: beyond that it is another work. */
const MOST_RAISED_M = 3;

/**
 * Its crest raised until its ways out pass what ran over it too: water that no longer runs over the bank stands higher in them.
 * Not a stretch that is to go before the rest; nothing where no such crest is near.
 */
export function raiseCrest(store: Store, passedByM: number): { readonly cure?: Cure } {
  const crest = lowestCrest(store);
  if (!crest || crest.role === 'fuse') return {};
  const peakM = store.crestM + passedByM;
  const through = (levelM: number, kinds: readonly Outlet['kind'][]): number =>
    store.outlets.reduce((sum, o) => sum + (kinds.includes(o.kind) ? Math.max(0, o.flowAt(levelM)) : 0), 0);
  const flowM3s = through(peakM, ['sill', 'rated', 'bank']);
  const toM = upToMm(peakM + rootOf((rise) => through(peakM + rise, ['sill', 'rated']) - flowM3s, 0, MOST_RAISED_M));
  if (toM > peakM + MOST_RAISED_M) return {};
  return setLevel(crest, { toM, says: say`Raise the crest by ${amount(toM - crest.levelM, 'difference')}` });
}
