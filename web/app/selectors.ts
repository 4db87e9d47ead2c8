import type { Check, Figure, WorkBase } from '#core/contract';
import type { Derived } from '#core/derive';
import { type Project, optionOf } from '#core/project';
import type { QuantityKind } from '#core/units';
import { formatQuantity } from '#core/units';
import type { LevelSill, Swale } from '#core/works';
import { type AppState, useApp } from './store.ts';

const NO_WORKS: readonly WorkBase[] = [];

/** The open project. Only used below the shell, which is shown once there is one. */
export function useProject(): Project {
  const project = useApp((s) => s.history?.project);
  if (!project) throw new Error('no project is open');
  return project;
}

export const useDerived = (): Derived | null => useApp((s) => s.result?.derived ?? null);
export const useView = (): NonNullable<AppState['result']>['view'] | null => useApp((s) => s.result?.view ?? null);

export function useWorks(): readonly WorkBase[] {
  return useApp((s) => (s.history ? optionOf(s.history.project).works : NO_WORKS));
}

export const asSwale = (work: WorkBase | undefined): Swale | null => (work?.kind === 'swale' ? (work as Swale) : null);
export const asSill = (work: WorkBase | undefined): LevelSill | null => (work?.kind === 'level-sill' ? (work as LevelSill) : null);

/** The selected work's chain: the hosting swale and the sills it hosts. */
export function useChain(): { readonly swale: Swale | null; readonly sills: readonly LevelSill[]; readonly selected: WorkBase | null } {
  const works = useWorks();
  const selectedId = useApp((s) => s.selected);
  const selected = works.find((w) => w.id === selectedId);
  const swale = asSwale(selected) ?? asSwale(works.find((w) => w.id === asSill(selected)?.host));
  const sills = works.map((w) => asSill(w)).filter((w): w is LevelSill => w !== null && w.host === swale?.id);
  return { swale, sills, selected: selected ?? null };
}

/** Formats in the unit system of the page. */
export function useFormat(): (value: number | null | undefined, kind: QuantityKind) => string {
  const system = useApp((s) => s.system);
  return (value, kind) => formatQuantity(value, kind, system);
}

export function checksOf(derived: Derived | null, ids: readonly string[]): readonly Check[] {
  return derived?.checks.filter((c) => ids.includes(c.on)) ?? [];
}

export function figureOf(figures: readonly Figure[] | undefined, id: string): number | null {
  return figures?.find((f) => f.id === id)?.value ?? null;
}

export const newId = (prefix: string): string => `${prefix}-${crypto.randomUUID().slice(0, 8)}`;
