import type { WorkBase } from '#core/contract';
import type { WorkUi } from './types.ts';

export interface WorkUis {
  readonly kinds: readonly string[];
  /** The interface of a kind of work. @throws RangeError for a kind without one. */
  readonly workUi: (kind: string) => WorkUi<WorkBase>;
}

/** The interfaces of techniques by kind, their own types erased. */
export function createWorkUis<const T extends readonly unknown[]>(list: T): WorkUis {
  // The one cast: an interface is looked up by the kind of the work it is then given, so its own types hold.
  const byKind = new Map((list as unknown as readonly WorkUi<WorkBase>[]).map((ui) => [ui.kind, ui]));
  return {
    kinds: [...byKind.keys()],
    workUi: (kind) => {
      const ui = byKind.get(kind);
      if (!ui) throw new RangeError(`no interface for "${kind}"`);
      return ui;
    },
  };
}
