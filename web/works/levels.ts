// What typing or dragging a level changes.
import type { Command } from '#core/commands';
import type { WorkBase } from '#core/contract';
import { catalogue, valueAt } from '#core/works';

export const mm = (v: number): number => Math.round(v * 1000) / 1000;

/** A crest water leaves over: a way out at a level of its own. */
export interface Crest extends WorkBase {
  readonly levels: { readonly sillM: number };
}

/** Crests among the ways out of a work, whatever their kind. */
export const crestsAmong = (works: readonly WorkBase[]): Crest[] =>
  works.filter((w): w is Crest => catalogue.describe(w).traits.wayOut === 'crest' && typeof valueAt(w, 'levels.sillM') === 'number');

/** The crest water leaves over first. */
export function firstSill(sills: readonly Crest[]): Crest | null {
  return [...sills].sort((a, b) => a.levels.sillM - b.levels.sillM)[0] ?? null;
}

export const change = (id: string, set: Readonly<Record<string, unknown>>): Command => ({
  type: 'works.change',
  payload: { changes: [{ id, set }] },
});

/** A level dragged or typed in the stack: it alone moves. */
export const withLevel = (id: string, path: string, levelM: number): Command => change(id, { [path]: mm(levelM) });
