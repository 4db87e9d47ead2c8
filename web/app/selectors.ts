import { useMemo } from 'react';
import type { Check, Figure, WorkBase } from '#core/contract';
import { type Derived, type DerivedStore, isOf } from '#core/derive';
import { type Project, optionOf } from '#core/project';
import type { QuantityKind } from '#core/units';
import { formatQuantity } from '#core/units';
import { catalogue } from '#core/works';
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

/** What a work hangs on, where it hangs on one: a sill on its swale, a pipe between two stores on the first. */
export const hostIdOf = (work: WorkBase | undefined): string | null => (work ? catalogue.describe(work).hostId : null);

export interface Chain {
  /** The work that stores water: the selected one, or the one it lets out. */
  readonly host: WorkBase | null;
  /** Everything that hangs on it. */
  readonly guests: readonly WorkBase[];
  /** Works whose water stands level with its own, with their guests. */
  readonly joined: readonly WorkBase[];
  /** All of them, the host first. */
  readonly ids: readonly string[];
  readonly selected: WorkBase | null;
}

/** The store a work opens into, where it opens into one. */
const joinsOf = (work: WorkBase): string | undefined => catalogue.describe(work).refs.find((r) => r.role === 'joins')?.id;

/** The selected work's chain: what stores the water, what lets it out, and what stands level with it. */
export function useChain(): Chain {
  const works = useWorks();
  const selectedId = useApp((s) => s.selected);
  const selected = works.find((w) => w.id === selectedId);
  const host = works.find((w) => w.id === (hostIdOf(selected) ?? selected?.id)) ?? null;
  const guestsOf = (id: string | undefined): WorkBase[] => works.filter((w) => id !== undefined && hostIdOf(w) === id);
  const guests = guestsOf(host?.id);
  const others = host ? works.filter((w) => w.id !== host.id && (joinsOf(w) === host.id || joinsOf(host) === w.id)) : [];
  const joined = others.flatMap((w) => [w, ...guestsOf(w.id)]);
  const ids = [...(host ? [host] : []), ...guests, ...joined].map((w) => w.id);
  return { host, guests, joined, ids, selected: selected ?? null };
}

export interface Named {
  readonly id: string;
  readonly name: string;
}

/** Works, and the stores of those that have several: what an id is called. */
export function useNamed(): readonly Named[] {
  const works = useWorks();
  const stores = useDerived()?.stores;
  const conduits = useDerived()?.conduits;
  return useMemo(() => [...works, ...(stores ?? []), ...(conduits ?? [])], [works, stores, conduits]);
}

/** What a work or a store is called. */
export const nameAmong = (named: readonly Named[], id: string): string => named.find((w) => w.id === id)?.name ?? id;

/** Name of where water ends: a work, a store of one, or out of what is known. */
export function endName(named: readonly Named[], to: string | undefined): string {
  const name = named.find((w) => w.id === to)?.name;
  return name ?? (to === 'property-edge' ? 'the property edge' : to === 'ground' ? 'the ground' : 'the edge of the terrain');
}

/** What is left to a crest, or by how much it is passed. */
export function useLeft(): (freeboardM: number | null | undefined) => string {
  const format = useFormat();
  return (left) => (typeof left === 'number' && left < 0 ? `OVER ${format(-left, 'difference')}` : format(left, 'difference'));
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

/** A store by its id, else that a work stands in with others. */
export const storeFor = (derived: Derived | null, id: string): DerivedStore | undefined =>
  derived?.stores.find((s) => s.id === id) ?? derived?.stores.find((s) => isOf(s, id));

/** A part of an id that nothing has yet. */
export const newPart = (): string => crypto.randomUUID().slice(0, 8);
export const newId = (prefix: string): string => `${prefix}-${newPart()}`;

/** Which of a work's several stores is meant, with its number: "swale 3: "; nothing where it has but one. */
export function partWords(derived: Derived | null, id: string): string {
  const store = derived?.stores.find((s) => s.id === id);
  const isOneOf = derived?.stores.some((s) => s.work === store?.work && s.id !== id) === true;
  const part = isOneOf ? store?.name.split(', ').pop() : undefined;
  return part === undefined ? '' : `${part}: `;
}
