// Depth and freeboard are views of levels: what typing them changes.
import type { Command } from '#core/commands';
import type { LevelSill, Swale } from '#core/works';

const mm = (v: number): number => Math.round(v * 1000) / 1000;

/** The sill water leaves over first. */
export function firstSill(sills: readonly LevelSill[]): LevelSill | null {
  return [...sills].sort((a, b) => a.levels.sillM - b.levels.sillM)[0] ?? null;
}

export const change = (id: string, set: Readonly<Record<string, unknown>>): Command => ({
  type: 'works.change',
  payload: { changes: [{ id, set }] },
});

/** A new water depth: the floor stays, all sills and the bank move together. */
export function withDepth(swale: Swale, sills: readonly LevelSill[], depthM: number): Command | null {
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
export function withBankAbove(swale: Swale, sills: readonly LevelSill[], heightM: number): Command | null {
  const first = firstSill(sills);
  return first ? change(swale.id, { 'levels.bankCrestM': mm(first.levels.sillM + heightM) }) : null;
}

/** A level dragged or typed in the stack: it alone moves. */
export const withLevel = (id: string, path: string, levelM: number): Command => change(id, { [path]: mm(levelM) });
