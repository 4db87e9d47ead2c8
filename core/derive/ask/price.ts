// What it would cost, and bring, to change a decision: everything worked out with it, held against everything as it is.
import type { WorkBase } from '../../contract/index.ts';
import { type Option, type Project, UserError, fail, isForbiddenKey, optionOf, problemOf } from '../../project/index.ts';
import type { Registry } from '../../works/index.ts';
import { type Said, amount, say, spoken } from '../../units/index.ts';
import { deriveSlowly } from '../derive.ts';
import type { Slowly } from '../graph/slowly.ts';
import type { RoomContext } from '../set/laid.ts';
import type { Derived } from '../types.ts';

export interface PriceAsked {
  readonly work: string;
  /** Decisions by dotted path. */
  readonly set: Readonly<Record<string, number>>;
}

/** How one store changes [m3, m]; null where no storm is known. */
export interface StorePrice {
  readonly store: string;
  readonly heldM3: number;
  readonly leftM: number | null;
}

export interface Price {
  readonly stores: readonly StorePrice[];
  /** How many more are to mend and to weigh. */
  readonly mends: number;
  readonly weighs: number;
  readonly says: string;
  readonly said: Said;
}

/** What is worked out with the change is kept beside the document, and let go. */
const ASIDE = 'price';
/** Less than this is no change worth telling [m3, m]. */
const [LEAST_M3, LEAST_M, LEAST_ELSEWHERE_M] = [0.5, 0.0005, 0.005];
/** Other stores told of at most. */
const MOST_OTHERS = 2;

const counted = ({ checks }: Derived, severity: 'mend' | 'weigh'): number => checks.filter((c) => c.severity === severity).length;

function changes(before: Derived, after: Derived): StorePrice[] {
  return after.stores.flatMap((now): StorePrice[] => {
    const then = before.stores.find((s) => s.id === now.id);
    if (!then) return [];
    const leftM = now.least && then.least ? now.least.value - then.least.value : null;
    return [{ store: now.id, heldM3: now.heldM3 - then.heldM3, leftM }];
  });
}

const more = (value: number): string => (value > 0 ? 'more' : 'less');

/** All of it in a row, parted by commas. */
const inRow = (parts: readonly Said[]): Said => parts.reduce<Said>((row, part, k) => (k === 0 ? part : say`${row}, ${part}`), '');

/** The store a work is judged with: its host's, or its own. */
function storeOf(project: Project, id: string, registry: Registry): string {
  const work = optionOf(project).works.find((w) => w.id === id);
  return (work && registry.bind(work).hostId) ?? id;
}

function wordsFor(on: Omit<Price, 'says' | 'said'>, store: string, named: Derived['stores']): Said {
  const nameOf = (id: string): string => named.find((s) => s.id === id)?.name ?? id;
  const own = on.stores.find((s) => s.store === store);
  const others = on.stores
    .filter((s) => s !== own && Math.abs(s.leftM ?? 0) >= LEAST_ELSEWHERE_M)
    .sort((a, b) => (a.leftM ?? 0) - (b.leftM ?? 0))
    .slice(0, MOST_OTHERS);
  const left = (m: number): Said => say`${amount(Math.abs(m), 'difference')} ${more(m)} freeboard`;
  const count = (n: number, words: string): Said[] => (n === 0 ? [] : [`${Math.abs(n)} ${n > 0 ? 'more' : 'fewer'} ${words}`]);
  const parts: Said[] = [
    ...(own && Math.abs(own.heldM3) >= LEAST_M3 ? [say`holds ${amount(Math.abs(own.heldM3), 'volume')} ${more(own.heldM3)}`] : []),
    ...(own && own.leftM !== null && Math.abs(own.leftM) >= LEAST_M ? [left(own.leftM)] : []),
    ...others.flatMap((o) => (o.leftM === null ? [] : [say`${nameOf(o.store)} ${left(o.leftM)}`])),
    ...count(on.mends, 'to mend'),
    ...count(on.weighs, 'to weigh'),
  ];
  return parts.length === 0 ? 'changes nothing that is judged' : inRow(parts);
}

/** A copy of an object with a number at a dotted path whose parents exist. */
function withAt(target: object, [key, ...rest]: readonly string[], value: number): object {
  const there = (target as Readonly<Record<string, unknown>>)[key];
  const noPath = (): never => fail('work.path', `there is no "${key}" to change`, { do: 'Check the name of the field.' });
  if (key === '' || isForbiddenKey(key)) noPath();
  const next = rest.length === 0 ? value : typeof there === 'object' && there !== null ? withAt(there, rest, value) : noPath();
  if (!Array.isArray(target)) return { ...target, [key]: next };
  // Of a list only a place it has.
  return there === undefined ? noPath() : target.map((item: unknown, k) => (String(k) === key ? next : item));
}

/** The document with the change made. @throws UserError where it does not take it. */
function withChange(project: Project, { work: id, set }: PriceAsked, registry: Registry): Project {
  const { works } = optionOf(project);
  const work =
    works.find((w) => w.id === id) ?? fail('id.missing', `there is nothing with the id "${id}"`, { do: 'It may have been removed.' });
  const next = Object.entries(set).reduce<object>((at, [path, value]) => withAt(at, path.split('.'), value), work) as WorkBase;
  const problems = registry.bind(next).validate();
  if (problems.length > 0) throw new UserError(problems.map(problemOf));
  const inOption = (option: Option): Option =>
    option.id === project.activeOption ? { ...option, works: works.map((w) => (w === work ? next : w)) } : option;
  return { ...project, options: project.options.map(inOption) };
}

/** The price of a change. @throws UserError where the document does not take it. */
export function* priceSlowly(project: Project, context: RoomContext, asked: PriceAsked): Slowly<Price> {
  const changed = withChange(project, asked, context.registry);
  try {
    const before = (yield* deriveSlowly(project, context)).derived;
    const after = (yield* deriveSlowly(changed, { ...context, aside: ASIDE })).derived;
    const found = {
      stores: changes(before, after),
      mends: counted(after, 'mend') - counted(before, 'mend'),
      weighs: counted(after, 'weigh') - counted(before, 'weigh'),
    };
    const said = wordsFor(found, storeOf(project, asked.work, context.registry), after.stores);
    return { ...found, said, says: spoken(said, 'metric') };
  } finally {
    // Given up half way, it lets go of what it held.
    context.graph.forget(ASIDE);
  }
}
