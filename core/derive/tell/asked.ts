// Which work, and which store, a sentence is about.
import type { WorkBase } from '../../contract/index.ts';
import { type Project, optionOf } from '../../project/index.ts';
import type { Derived, DerivedStore } from '../types.ts';

interface On {
  readonly project: Project;
  readonly derived: Derived;
  readonly selected: string | null;
}

type Asked = WorkBase & { readonly host?: string };

export const workAsked = ({ project, derived, selected }: On): Asked | undefined =>
  (optionOf(project, derived.option).works as readonly Asked[]).find((w) => w.id === selected);

/** The store a work makes, or lets out; one it only stands in with others is told by the first of them. */
export const storeOf = ({ derived }: Pick<On, 'derived'>, { id, host }: Asked): DerivedStore | undefined =>
  derived.stores.find((s) => s.work === id || s.id === host);

/** The store told about: the selected one or that of a selected work, else the first. */
export function storeTold(on: On): DerivedStore | undefined {
  const { derived, selected } = on;
  const work = workAsked(on);
  return derived.stores.find((s) => s.id === selected) ?? (work && storeOf(on, work)) ?? derived.stores[0];
}

/** What comes to a store in the storm [m3]: into the pit under a grate what the yard over it lets down, too. */
export function comesIn({ stores, links }: Derived, { id, inM3 }: DerivedStore): number {
  const yards = new Set(stores.flatMap((s) => (s.hollow ? [s.id] : [])));
  const down = links.filter((l) => l.to === id && l.role === 'mouth' && yards.has(l.from));
  return down.reduce((sum, l) => sum + Math.max(0, l.volumeM3 ?? 0), inM3 ?? 0);
}
