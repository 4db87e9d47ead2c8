import { BETWEEN_STORMS_H } from '../../rain/index.ts';
import type { QuantityKind } from '../../units/index.ts';
import type { DerivedStore } from '../types.ts';

/** What becomes of the water left in a store: the soil below fills first, it never empties, nobody waits for it to, or it soaks away. */
export function emptiedWords(
  { drainDownH, soilShortM3 }: Pick<DerivedStore, 'drainDownH' | 'soilShortM3'>,
  q: (value: number, kind: QuantityKind) => string,
): string {
  if (soilShortM3 !== null && soilShortM3 > 0) return `fills the soil below, which has no room for ${q(soilShortM3, 'volume')} of it`;
  return drainDownH === null || drainDownH > BETWEEN_STORMS_H ? 'keeps it' : `is empty again after ${q(drainDownH, 'hours')}`;
}
