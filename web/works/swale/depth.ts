// Depth and freeboard are views of levels: what typing them changes.
import type { Command } from '#core/commands';
import type { Swale } from '#core/works';
import { type Crest, change, firstSill, mm } from '../levels.ts';

/** A new water depth: the floor stays, all sills and the bank move together. */
export function withDepth(swale: Swale, sills: readonly Crest[], depthM: number): Command | null {
  const first = firstSill(sills);
  if (!first) return null;
  const by = swale.levels.floorM + depthM - first.levels.sillM;
  return {
    type: 'works.change',
    payload: {
      changes: [
        { id: swale.id, set: { 'levels.bankCrestM': mm(swale.levels.bankCrestM + by) } },
        ...sills.map((s) => ({ id: s.id, set: { 'levels.sillM': mm(s.levels.sillM + by) } })),
      ],
    },
  };
}

/** A new height of bank above the first sill: the crest alone moves. */
export function withBankAbove(swale: Swale, sills: readonly Crest[], heightM: number): Command | null {
  const first = firstSill(sills);
  return first ? change(swale.id, { 'levels.bankCrestM': mm(first.levels.sillM + heightM) }) : null;
}
