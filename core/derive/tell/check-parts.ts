// Checks in parts, by what they are of: what a change does not reach is neither judged nor compared anew.
import type { Check, Condition, Store } from '../../contract/index.ts';
import { type Graph, asItself, columnOf, forAll, idsOf } from '../graph/graph.ts';
import { alsoWhen, gravestOf, whenGraver } from './graver.ts';

/** What is found of one thing. */
export interface CheckPart {
  readonly id: string;
  readonly checks: readonly Check[];
}

/** Parts of one sort, under a word of their own. */
export interface CheckParts {
  readonly word: string;
  readonly parts: readonly CheckPart[];
}

/** All findings, part by part. Written out: there are thousands. */
export function allOf(lists: readonly CheckParts[]): Check[] {
  const all: Check[] = [];
  for (const { parts } of lists) for (const { checks } of parts) for (const check of checks) all.push(check);
  return all;
}

interface OfWork {
  readonly id: string;
  /** Places of its stores among all. */
  readonly at: readonly number[];
}

const works = new WeakMap<readonly Store[], readonly OfWork[]>();

/** Stores by the work that makes them, found once for all that is told of them. */
export function placesByWork(stores: readonly Store[]): readonly OfWork[] {
  const known = works.get(stores);
  if (known) return known;
  const by = new Map<string, number[]>();
  stores.forEach(({ work }, k) => {
    const own = by.get(work);
    if (own) own.push(k);
    else by.set(work, [k]);
  });
  const found = Array.from(by, ([id, at]) => ({ id, at }));
  works.set(stores, found);
  return found;
}

/** What is asked of every store; of a work of several the gravest of each rule, told once. */
export function oncePerWork(
  word: string,
  stores: readonly Store[],
  { lists, graph }: { readonly lists: readonly (readonly Check[])[]; readonly graph: Graph },
): CheckParts {
  const all = placesByWork(stores);
  const several = all.filter(({ at }) => at.length > 1);
  const own = several.map(({ at }) => at.map((k) => lists[k]));
  const gravest = graph.each(`${word}-gravest`, { ids: idsOf(several), columns: [idsOf(several), own] }, (work, of) => asItself(gravestOf(of.flat(), work))).by; // prettier-ignore
  return { word, parts: all.map(({ id, at }) => ({ id, checks: gravest.get(id) ?? lists[at[0]] })) };
}

/** Checks under another condition than the strict part of the set. */
export interface Otherwise {
  readonly condition: Condition;
  readonly lists: readonly CheckParts[];
}

const NO_CHECKS: readonly Check[] = asItself([]);

/** Findings of one word, by the things they are of. */
const among = (lists: readonly CheckParts[], word: string): ReadonlyMap<string, readonly Check[]> =>
  new Map(lists.flatMap((l) => (l.word === word ? l.parts : [])).map(({ id, checks }) => [id, checks]));

/** Whatever is spoken of anywhere, in the order first met: what is found only on worse ground has no part among the strict. */
const metIn = <T>(lists: readonly Iterable<T>[]): readonly T[] => {
  const met = new Set<T>();
  for (const list of lists) for (const one of list) met.add(one);
  return [...met];
};

/** What findings of a part are on. */
const onsOf = (checks: readonly Check[]): readonly string[] => [...new Set(checks.map((c) => c.on))];

/**
 * Findings of the strict part of a set, part by part: those milder as found say in what condition they are so grave, and those that
 * are so only on worse ground stand at the end, to be weighed.
 */
export function broughtTogether(
  strict: readonly CheckParts[],
  on: {
    readonly asFound: readonly CheckParts[];
    readonly beyond: readonly Otherwise[];
    readonly conditionOf: (on: string) => Condition;
    readonly graph: Graph;
  },
): Check[] {
  const { asFound, beyond, conditionOf, graph } = on;
  const [own, added]: [Check[], Check[]] = [[], []];
  const under = beyond.map((b) => b.condition);
  for (const word of metIn([strict, ...beyond.map((b) => b.lists)].map((lists) => lists.map((l) => l.word)))) {
    const ofStrict = among(strict, word);
    const others = beyond.map(({ lists }) => among(lists, word));
    const ids = metIn([ofStrict.keys(), ...others.map((by) => by.keys())]);
    const checks = columnOf(ids, ofStrict, NO_CHECKS);
    const ons = graph.each(`${word}-on`, { ids, columns: [checks] }, onsOf).all;
    const conditions = ons.map((list) => list.map(conditionOf));
    const worse = ids.map((id) => others.map((by) => by.get(id) ?? NO_CHECKS));
    const found = columnOf(ids, among(asFound, word), NO_CHECKS);
    const together = graph.each(
      `${word}-together`,
      { ids, columns: [checks, found, worse, ons, conditions, forAll(under)] },
      partTogether,
    ).all;
    together.forEach((all, k) => {
      const { length } = checks[k];
      for (let i = 0; i < all.length; i++) (i < length ? own : added).push(all[i]);
    });
  }
  return [...own, ...added];
}

type PartReads = [
  checks: readonly Check[],
  found: readonly Check[],
  worse: readonly (readonly Check[])[],
  ons: readonly string[],
  conditions: readonly Condition[],
  under: readonly Condition[],
];

/** The same of one part; what is only found on worse ground comes last. */
function partTogether(...[checks, found, worse, ons, conditions, under]: PartReads): readonly Check[] {
  const conditionOf = (on: string): Condition => conditions[ons.indexOf(on)];
  return worse.reduce((all, then, k) => alsoWhen(all, then, under[k]), whenGraver(found, { checks, conditionOf }));
}
