import type { Begun, BoundWork, DrawSpec, Drawn, Land, RuleCard, Technique, WorkBase } from '../contract/index.ts';
import type { AnyFormula } from '../formula/index.ts';

/** The work type of one technique of the list. */
type WorkOf<T> = T extends { readonly refs: (work: infer W) => unknown } ? W : never;

/** One kind as it is listed. */
export type KindCard = Pick<
  Technique<WorkBase, unknown>,
  'kind' | 'title' | 'family' | 'fields' | 'draws' | 'formulas' | 'rules' | 'sample'
> & { readonly choices: BoundWork['choices'] };

export interface Registry<W extends WorkBase = WorkBase> {
  readonly kinds: readonly string[];
  readonly has: (kind: string) => boolean;
  /** Erased closures over one work. @throws RangeError for an unknown kind. */
  readonly bind: (work: WorkBase) => BoundWork;
  /** @throws RangeError for an unknown kind. */
  readonly card: (kind: string) => KindCard;
  /** Every way to draw a work, with its kind. */
  readonly draws: readonly (DrawSpec & { readonly kind: string })[];
  /** The first works of a kind as drawn. @throws RangeError for an unknown kind. */
  readonly begin: (kind: string, drawn: Drawn, land: Land) => Begun;
  readonly formulas: readonly AnyFormula[];
  readonly rules: readonly RuleCard[];
  /** For types only: what a work of this registry can be. */
  readonly workType: () => W;
}

export function createRegistry<const T extends readonly unknown[]>(techniques: T): Registry<WorkOf<T[number]> & WorkBase> {
  type Erased = Technique<WorkBase, unknown>;
  // The one cast: a technique is looked up by the kind of the work it is then given, so its own types hold.
  const list = techniques as unknown as readonly Erased[];
  const byKind = new Map(list.map((t) => [t.kind, t]));
  const of = (kind: string): Erased => {
    const technique = byKind.get(kind);
    if (!technique) throw new RangeError(`unknown kind of work "${kind}"`);
    return technique;
  };
  return {
    kinds: [...byKind.keys()],
    has: (kind) => byKind.has(kind),
    workType: () => {
      throw new Error('workType is for the type checker');
    },
    card: (kind) => {
      const { title, family, fields, choices = [], draws, formulas, rules, sample } = of(kind);
      return { kind, title, family, fields, choices, draws, formulas, rules, sample };
    },
    draws: list.flatMap(({ kind, draws }) => draws.map((draw) => ({ ...draw, kind }))),
    begin: (kind, drawn, land) => of(kind).begin(drawn, land),
    formulas: [...new Set(list.flatMap((t) => t.formulas))],
    rules: list.flatMap((t) => t.rules),
    bind: (work) => {
      const technique = of(work.kind);
      const refs = technique.refs(work);
      return {
        work,
        title: technique.title,
        fields: technique.fields,
        choices: technique.choices ?? [],
        references: technique.references ?? [],
        lists: (technique.lists ?? []).map((list) => ({
          ...list,
          start: () => (list.start as (of: WorkBase) => Readonly<Record<string, number>>)(work),
        })),
        // A work so spoilt that it cannot be looked at is still bound: its problems are told member by member.
        get traits() {
          return technique.traits(work);
        },
        refs,
        hostId: refs.find((r) => r.role === 'host')?.id ?? null,
        refersTo: refs.filter((r) => r.role !== 'host').map((r) => r.id),
        footprint: technique.footprint(work),
        intakes: technique.intakes(work),
        groundKey: technique.groundKey(work),
        validate: () => technique.validate(work),
        measure: (site, host) => technique.measure(work, site, host),
        place: (ground, host) => technique.place(work, ground, host),
      };
    },
  };
}
