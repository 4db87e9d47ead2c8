import type { BoundWork, Technique, WorkBase } from '../contract/index.ts';

/** The work type of one technique of the list. */
type WorkOf<T> = T extends { readonly hostOf: (work: infer W) => unknown } ? W : never;

export interface Registry<W extends WorkBase = WorkBase> {
  readonly kinds: readonly string[];
  readonly has: (kind: string) => boolean;
  /** Erased closures over one work. @throws RangeError for an unknown kind. */
  readonly bind: (work: WorkBase) => BoundWork;
  /** For types only: what a work of this registry can be. */
  readonly workType: () => W;
}

export function createRegistry<const T extends readonly unknown[]>(techniques: T): Registry<WorkOf<T[number]> & WorkBase> {
  type Erased = Technique<WorkBase, unknown>;
  // The one cast: a technique is looked up by the kind of the work it is then given, so its own types hold.
  const byKind = new Map((techniques as unknown as readonly Erased[]).map((t) => [t.kind, t]));
  return {
    kinds: [...byKind.keys()],
    has: (kind) => byKind.has(kind),
    workType: () => {
      throw new Error('workType is for the type checker');
    },
    bind: (work) => {
      const technique = byKind.get(work.kind);
      if (!technique) throw new RangeError(`unknown kind of work "${work.kind}"`);
      return {
        work,
        title: technique.title,
        fields: technique.fields,
        choices: technique.choices ?? [],
        hostId: technique.hostOf(work),
        refersTo: technique.refersTo?.(work) ?? [],
        footprint: technique.footprint(work),
        interceptor: technique.interceptor(work),
        groundKey: technique.groundKey(work),
        validate: () => technique.validate(work),
        measure: (site, host) => technique.measure(work, site, host),
        place: (ground, host) => technique.place(work, ground, host),
      };
    },
  };
}
