import type {
  Begun,
  BoundWork,
  DescribedWork,
  Descriptor,
  DrawSpec,
  Drawn,
  Host,
  Land,
  Family,
  Place,
  Plot,
  RuleCard,
  Suit,
  Technique,
  WorkBase,
} from '../contract/index.ts';
import type { AnyFormula } from '../formula/index.ts';

/** The work type of one technique of the list. */
type WorkOf<T> = T extends { readonly refs: (work: infer W) => unknown } ? W : never;

/** What every kind of work is, without what works it out. */
export interface Catalogue<W extends WorkBase = WorkBase> {
  readonly kinds: readonly string[];
  readonly has: (kind: string) => boolean;
  /** Erased closures over one work. @throws RangeError for an unknown kind. */
  readonly describe: (work: WorkBase) => DescribedWork;
  readonly title: (kind: string) => string;
  /** Every way to draw a work, with its kind. */
  readonly draws: readonly (DrawSpec & { readonly kind: string; readonly family: Family })[];
  /** For types only: what a work of this list can be. */
  readonly workType: () => W;
}

/** One kind as it is listed. */
export type KindCard = Pick<
  Technique<WorkBase, unknown>,
  'kind' | 'title' | 'family' | 'fields' | 'draws' | 'formulas' | 'rules' | 'sample'
> & { readonly choices: DescribedWork['choices'] };

export interface Registry<W extends WorkBase = WorkBase> extends Catalogue<W> {
  /** Erased closures over one work. @throws RangeError for an unknown kind. */
  readonly bind: (work: WorkBase) => BoundWork;
  /** @throws RangeError for an unknown kind. */
  readonly card: (kind: string) => KindCard;
  /** The first works of a kind as drawn. @throws RangeError for an unknown kind. */
  readonly begin: (kind: string, drawn: Drawn, land: Land) => Begun;
  /** What each kind that is ever offered by itself says of a place, in the order of the kinds. */
  readonly suits: (place: Place) => readonly (Suit & { readonly kind: string; readonly title: string })[];
  readonly formulas: readonly AnyFormula[];
  readonly rules: readonly RuleCard[];
}

/** Looks things up by the kind of the work they are then given, so that their own types hold. */
function byKind<T extends { readonly kind: string }>(list: readonly T[]): (kind: string) => T {
  const found = new Map(list.map((one) => [one.kind, one]));
  return (kind) => {
    const one = found.get(kind);
    if (!one) throw new RangeError(`unknown kind of work "${kind}"`);
    return one;
  };
}

/** What is made of a work, made once of each: documents are never changed, only replaced. */
function once<T>(make: (work: WorkBase) => T): (work: WorkBase) => T {
  const made = new WeakMap<WorkBase, T>();
  return (work) => {
    const known = made.get(work);
    if (known !== undefined) return known;
    const one = make(work);
    made.set(work, one);
    return one;
  };
}

/** One work as its descriptor has it, with what else is bound to it. */
function described<M extends object>(of: Descriptor<WorkBase>, work: WorkBase, more: M): DescribedWork & M {
  const refs = of.refs(work);
  let intakes: DescribedWork['intakes'] | undefined;
  return {
    ...more,
    work,
    title: of.titleOf?.(work) ?? of.title,
    fields: of.fields,
    choices: of.choices ?? [],
    references: of.references ?? [],
    lists: (of.lists ?? []).map((list) => ({
      ...list,
      start: () => (list.start as (of: WorkBase) => Readonly<Record<string, number>>)(work),
    })),
    // A work so spoilt that it cannot be looked at is still bound: its problems are told member by member.
    get traits() {
      return of.traits(work);
    },
    refs,
    hostId: refs.find((r) => r.role === 'host')?.id ?? null,
    refersTo: refs.filter((r) => r.role !== 'host' && r.role !== 'back').map((r) => r.id),
    footprint: of.footprint(work),
    // Asked for of few of the works that are looked at, and long to write out.
    get intakes() {
      return (intakes ??= of.intakes(work));
    },
    corners: of.corners ?? null,
    reshapes: of.reshapes?.(work) ?? [],
    groundKey: of.groundKey(work),
    validate: () => of.validate(work),
  };
}

export function createCatalogue<const T extends readonly unknown[]>(descriptors: T): Catalogue<WorkOf<T[number]> & WorkBase> {
  // The one cast: what is looked up is given only works of its own kind.
  const list = descriptors as unknown as readonly Descriptor<WorkBase>[];
  const of = byKind(list);
  const kinds = list.map((d) => d.kind);
  return {
    kinds,
    has: (kind) => kinds.includes(kind),
    describe: once((work) => described(of(work.kind), work, {})),
    title: (kind) => of(kind).title,
    draws: list.flatMap(({ kind, family, draws }) => draws.map((draw) => ({ ...draw, kind, family }))),
    workType: () => {
      throw new Error('workType is for the type checker');
    },
  };
}

export function createRegistry<const T extends readonly unknown[]>(techniques: T): Registry<WorkOf<T[number]> & WorkBase> {
  const list = techniques as unknown as readonly Technique<WorkBase, unknown>[];
  const of = byKind(list);
  return {
    ...createCatalogue(techniques),
    card: (kind) => {
      const { title, family, fields, choices = [], draws, formulas, rules, sample } = of(kind);
      return { kind, title, family, fields, choices, draws, formulas, rules, sample };
    },
    begin: (kind, drawn, land) => of(kind).begin(drawn, land),
    suits: (place) =>
      list.flatMap(({ kind, title, suits }) => {
        const suit = suits?.(place);
        return suit ? [{ kind, title, ...suit }] : [];
      }),
    formulas: [...new Set(list.flatMap((t) => t.formulas))],
    rules: list.flatMap((t) => t.rules),
    bind: once((work) => {
      const technique = of(work.kind);
      return described(technique, work, {
        measure: (plot: Plot, host: Host | null) => technique.measure(work, plot, host),
        place: (ground: unknown, host: Host | null) => technique.place(work, ground, host),
      });
    }),
  };
}
