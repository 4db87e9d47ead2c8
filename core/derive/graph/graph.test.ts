import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Column, Graph, asItself, columnOf, forAll, idsOf, knownOf, orderOf } from './graph.ts';

/** A chain of two steps, with how often each ran. */
function chain(graph = new Graph()): { graph: Graph; ask: (a: number, b: unknown) => string } {
  const ask = (a: number, b: unknown): string => {
    const first = graph.step('first', [a], (n) => ({ doubled: 2 * n }));
    return graph.step('second', [first, b], ({ doubled }, data) => `${doubled} ${JSON.stringify(data)}`);
  };
  return { graph, ask };
}
const runs = ({ runs: r }: Graph): Record<string, number> => Object.fromEntries(r);

describe('steps', () => {
  it('run once for what they read: data by what it says, results by being themselves', () => {
    const { graph, ask } = chain();
    expect([ask(1, { x: 1 }), ask(1, { x: 1 })]).toEqual(['2 {"x":1}', '2 {"x":1}']);
    expect(runs(graph)).toEqual({ first: 1, second: 1 });
    ask(1, { x: 2 });
    expect(runs(graph)).toEqual({ first: 1, second: 2 });
    ask(2, { x: 2 });
    expect(runs(graph)).toEqual({ first: 2, second: 3 });
    const thing = asItself({ x: 1 });
    ask(2, thing);
    ask(2, asItself({ x: 1 }));
    expect(runs(graph)).toEqual({ first: 2, second: 5 });
  });
  it('never take a copy of a thing for the thing, whatever it was copied with', () => {
    const graph = new Graph();
    const ask = (read: { readonly n: number }): number => graph.step('one', [read], ({ n }) => n);
    const thing = asItself(Object.freeze({ n: 1 }));
    expect(ask(thing)).toBe(1);
    for (const copy of [
      { ...thing, n: 2 },
      Object.assign({}, thing, { n: 3 }),
      Object.create(thing, { n: { value: 4, enumerable: true } }),
    ])
      expect(ask(copy as typeof thing)).toBe((copy as typeof thing).n);
    expect(ask(structuredClone({ ...thing, n: 5 }))).toBe(5);
    // Lists, maps and rows of numbers too are told apart by being themselves.
    for (const make of [() => [1], () => new Map([['a', 1]]), () => new Float64Array(2)]) {
      const kept = asItself<object>(make());
      const before = graph.runs.get('any') ?? 0;
      for (const read of [kept, kept, asItself<object>(make()), kept]) graph.step('any', [read], () => 0);
      expect(graph.runs.get('any')).toBe(before + 2);
    }
  });
  it('tell apart what JSON does not: nothing, what is no number, lists within maps', () => {
    const graph = new Graph();
    const keys = [undefined, null, 'null', NaN, 'NaN', Infinity, -Infinity, true, 'true', [], {}, '', 1, '1', [1], [[1]], [1, 1], { a: 1 }];
    for (const read of [...keys, new Map([['a', 1]]), new Map([['a', 2]]), new Set([2])]) graph.step('one', [read], () => 0);
    expect(runs(graph)).toEqual({ one: keys.length + 3 });
    // The same again, now that each is looked into before it is written out; a member more, less or other is another.
    const shapes = [
      { a: 1 },
      { a: 1, b: 2 },
      { a: 1 },
      { a: 1, b: 3 },
      { b: 3 },
      [1],
      [1, 2],
      [1],
      [{ a: 1 }],
      [{ a: 1, b: 1 }],
      { c: { a: 1 } },
      { c: { a: 1, b: 1 } },
    ];
    const texts = shapes.map((read) => graph.step('shape', [{ read }], (on) => JSON.stringify(on.read)));
    expect(texts).toEqual(shapes.map((read) => JSON.stringify(read)));
    // A member's name is not taken for what it holds.
    for (const read of [{ a: 1, b: 2 }, { 'a:1,b': 2 }, { 'a":1,"b': 2 }]) graph.step('name', [read], () => 0);
    expect(graph.runs.get('name')).toBe(3);
    // A member that is undefined is one that is not there.
    for (const read of [{ a: 1 }, { a: 1, b: undefined }]) graph.step('two', [read], () => 0);
    expect(graph.runs.get('two')).toBe(1);
  });
  it('that settle give what they gave before where it says the same, and nothing after them runs again', () => {
    const graph = new Graph();
    const ask = (a: number): object => {
      const size = graph.settled('size', [a], (n) => ({ isBig: n > 10, path: [[n > 10 ? 1 : 0, 2]] }));
      return graph.step('after', [size], ({ path }) => ({ path }));
    };
    const small = ask(1);
    expect([ask(2), ask(3)]).toEqual([small, small]);
    expect(ask(3)).toBe(small);
    expect(runs(graph)).toEqual({ size: 3, after: 1 });
    const big = ask(11);
    expect(big).toEqual({ path: [[1, 2]] });
    expect(ask(12)).toBe(big);
    expect(runs(graph)).toEqual({ size: 5, after: 2 });
    // One that differs deep within, in a list's length or by a member more, is another; functions are by being themselves.
    const results = [[[1, [2]]], [[1, [3]]], [[1]], [{ a: 1 }], [{ a: 1, b: 2 }], [{ b: 2 }], [NaN], [NaN], [null], [() => 0], [() => 0]];
    const given = results.map((made, k) => graph.settled('one', [k], () => made));
    expect(given.map((g) => results.indexOf(g))).toEqual([0, 1, 2, 3, 4, 5, 6, 6, 8, 9, 10]);
  });
  it('refuse to read what cannot be told apart', () => {
    const graph = new Graph();
    expect(() => graph.step('law', [{ law: () => 1 }], () => 0)).toThrow('no function');
    expect(() => graph.step('array', [Float64Array.of(1)], () => 0)).toThrow('flat arrays');
    expect(() => graph.step('array', [{ list: Float64Array.of(1) }], () => 0)).toThrow('flat arrays');
    const kept = graph.step('made', [1], () => Float64Array.of(1));
    expect(graph.step('array', [kept], (list) => list[0])).toBe(1);
  });
  it('that fail are tried again', () => {
    const graph = new Graph();
    let isBad = true;
    const ask = (): number =>
      graph.step('step', [1], () => {
        if (isBad) throw new Error('not now');
        return 7;
      });
    expect(ask).toThrow('not now');
    isBad = false;
    expect(ask()).toBe(7);
  });
});

describe('alike steps of many things', () => {
  /** Sums of what each reads and what all read, with how often one was worked out. */
  const sums = (graph: Graph, ids: readonly string[], [own, all]: readonly [readonly number[], number]): ReturnType<typeof graph.each> =>
    graph.each('sum', { ids, columns: [own, forAll(all)] }, (a: number, b: number) => ({ sum: a + b }));

  it('work out what differs, and stay one thing as long as nothing does', () => {
    const graph = new Graph();
    const ask = (own: readonly number[], all = 10): ReturnType<typeof sums> =>
      graph.runFor('', () => sums(graph, ['a', 'b', 'c'].slice(0, own.length), [own, all]));
    const first = ask([1, 2, 3]);
    expect(first.all).toEqual([{ sum: 11 }, { sum: 12 }, { sum: 13 }]);
    expect(ask([1, 2, 3])).toBe(first);
    expect(graph.runs.get('sum')).toBe(3);
    const then = ask([1, 5, 3]);
    expect(then.all).toEqual([{ sum: 11 }, { sum: 15 }, { sum: 13 }]);
    expect([then.all[0], then.all[2]]).toEqual([first.all[0], first.all[2]]);
    expect(then.all[0]).toBe(first.all[0]);
    expect(graph.runs.get('sum')).toBe(4);
    // What an undo goes back to is the very thing it was.
    expect(ask([1, 2, 3])).toBe(first);
    expect(graph.runs.get('sum')).toBe(4);
    // What all read differs for all.
    expect(ask([1, 2, 3], 20).all).toEqual([{ sum: 21 }, { sum: 22 }, { sum: 23 }]);
    expect(graph.runs.get('sum')).toBe(7);
    // One thing less, and back: it is found again.
    expect(ask([1, 2], 20).ids).toEqual(['a', 'b']);
    expect(ask([1, 2, 3], 20).by.get('c')).toEqual({ sum: 23 });
    expect(graph.runs.get('sum')).toBe(7);
  });
  it('come to what single steps come to, whatever comes, goes, moves and changes', () => {
    const item = fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd', 'e'), n: fc.nat(3), list: fc.array(fc.nat(2), { maxLength: 2 }) });
    const lists = fc.array(fc.uniqueArray(item, { selector: (i) => i.id, maxLength: 5 }), { minLength: 2, maxLength: 12 });
    fc.assert(
      fc.property(lists, fc.array(fc.nat(1), { minLength: 12, maxLength: 12 }), (rounds, alls) => {
        const [rows, single] = [new Graph(), new Graph()];
        rounds.forEach((items, round) => {
          const all = { of: alls[round] };
          const made = rows.runFor('', () =>
            rows.each(
              'x',
              { ids: idsOf(items), columns: [items.map((i) => i.n), items.map((i) => i.list), forAll(all)] },
              (n, list, { of }) => ({ text: `${n} ${list.join()} ${of}` }),
            ),
          );
          const known = single.runFor('', () =>
            items.map(({ id, n, list }) => single.step(`x:${id}`, [n, list, all], (a, b, { of }) => ({ text: `${a} ${b.join()} ${of}` }))),
          );
          expect(made.all).toEqual(known);
          expect([...made.by]).toEqual(items.map(({ id }, k) => [id, known[k]]));
        });
        expect(rows.runs.get('x')).toBe(single.runs.get('x'));
      }),
      { seed: 20261130, numRuns: 300 },
    );
  });
  it('settle, look into copies to the end, and are a part of the step they are in', () => {
    const graph = new Graph();
    const deep = (n: number): readonly object[] => [{ a: { b: { c: { d: n } } } }];
    const copy = (n: number): unknown => graph.each('copy', { ids: ['a'], columns: [deep(n)], isCopied: true }, (own) => own).all[0];
    const kept = copy(1);
    expect(copy(1)).toBe(kept);
    expect(copy(2)).not.toBe(kept);
    const big = (n: number): unknown =>
      graph.each('big', { ids: ['a'], columns: [[n]], isSettled: true }, (own) => ({ isBig: own > 10 })).all[0];
    expect(big(3)).toBe(big(2));
    expect(big(30)).toEqual({ isBig: true });
    const inner = (): unknown => graph.each('inner', { ids: ['a', 'b'], columns: [[1, 2]] }, (n) => n + 1).all;
    const outer = (): unknown => graph.runFor('', () => graph.step('outer', [1], () => inner()));
    for (let k = 0; k < 5; k++) outer();
    expect([graph.runs.get('outer'), graph.runs.get('inner')]).toEqual([1, 2]);
    graph.runFor('', inner);
    expect(graph.runs.get('inner')).toBe(2);
  });
  it('one of which fails are all asked for again, and none is taken for another', () => {
    const graph = new Graph();
    const ask = (own: readonly number[]): readonly number[] =>
      graph.each('half', { ids: ['a', 'b'], columns: [own] }, (n) => {
        if (n % 2 === 1) throw new Error(`${n} is odd`);
        return n / 2;
      }).all;
    expect(ask([2, 4])).toEqual([1, 2]);
    expect(() => ask([6, 5])).toThrow('5 is odd');
    expect(ask([2, 4])).toEqual([1, 2]);
    expect(ask([6, 4])).toEqual([3, 2]);
  });
  it('in turn read what came before them', () => {
    const graph = new Graph();
    const ask = (steps: readonly number[]): readonly number[] => {
      const items = steps.map((n, k) => ({ id: `s${k}`, n }));
      return graph.inTurn('run', { items, readsOf: ({ n }, k, before): [number, number] => [n, k > 0 ? before[k - 1] : 0] }, (n: number, sum: number) => n + sum).all; // prettier-ignore
    };
    expect(ask([1, 2, 3, 4])).toEqual([1, 3, 6, 10]);
    expect(graph.runs.get('run')).toBe(4);
    // From where it differs on all is worked out anew; where it comes to the same nothing is.
    expect(ask([1, 2, 4, 4])).toEqual([1, 3, 7, 11]);
    expect(graph.runs.get('run')).toBe(6);
    expect(ask([2, 1, 4, 4])).toEqual([2, 3, 7, 11]);
    expect(graph.runs.get('run')).toBe(8);
  });
  it('in turn are passed over where it is known beforehand what they hang on, and nothing of it changed', () => {
    const graph = new Graph();
    const read: string[] = [];
    const ask = (steps: readonly number[], { after = [[], [0], [1], []], all = 1 }: { readonly after?: readonly (readonly number[])[]; readonly all?: number } = {}): readonly number[] => {
      const items = steps.map((n, k) => ({ id: `s${k}`, n }));
      const hung = { all: [all], own: steps.map((n) => [n]), before: after };
      const readsOf = ({ id, n }: { readonly id: string; readonly n: number }, k: number, before: readonly number[]): [number, number] => {
        read.push(id);
        return [all * n, after[k].reduce((sum, at) => sum + before[at], 0)];
      };
      return graph.inTurn('run', { items, readsOf, hung }, (n: number, sum: number) => {
        if (n < 0) throw new Error('less than nothing');
        return Math.max(n + sum, 3);
      }).all;
    }; // prettier-ignore
    const again = (...on: Parameters<typeof ask>): [readonly number[], string] => {
      read.length = 0;
      return [ask(...on), read.join(' ')];
    };
    expect(again([1, 2, 3, 4])).toEqual([[3, 5, 8, 4], 's0 s1 s2 s3']);
    expect(again([1, 2, 3, 4])).toEqual([[3, 5, 8, 4], '']);
    // What hangs on one that changed is asked; what hangs on one that came to the same is not.
    expect(again([1, 3, 3, 4])).toEqual([[3, 6, 9, 4], 's1 s2']);
    expect(again([2, 3, 3, 4])).toEqual([[3, 6, 9, 4], 's0']);
    // What all read, and another order of what hangs on what.
    expect(again([2, 3, 3, 4], { all: 2 })).toEqual([[4, 10, 16, 8], 's0 s1 s2 s3']);
    expect(again([2, 3, 3, 4], { all: 2, after: [[], [0], [0], []] })).toEqual([[4, 10, 10, 8], 's2']);
    // One of which fails are all asked again.
    expect(() => ask([2, 3, -1, 4], { all: 2 })).toThrow('less than nothing');
    expect(again([2, 3, 3, 4], { all: 2 })).toEqual([[4, 10, 16, 8], 's0 s1 s2 s3']);
    // More of them, or others.
    expect(again([2, 3, 3], { all: 2 })).toEqual([[4, 10, 16], 's0 s1 s2']);
  });
  it('lists found by ids stay what they were as long as they hold the same', () => {
    const graph = new Graph();
    const [a, b, c] = ['a', 'b', 'c'].map((id) => ({ id }));
    const ask = (lists: readonly (readonly string[])[], known: readonly { readonly id: string }[]): readonly (readonly object[])[] =>
      graph.runFor('', () => graph.listed('near', lists, new Map(known.map((one) => [one.id, one]))));
    const first = ask([['a', 'b'], ['c'], ['x', 'b']], [a, b, c]);
    expect(first).toEqual([[a, b], [c], [b]]);
    const then = ask([['a', 'b'], ['c'], ['b', 'x']], [a, b, { id: 'c' }]);
    expect(then).toEqual(first);
    expect(then.map((list, k) => list === first[k])).toEqual([true, false, true]);
    // Fewer, more, none, and others in their place.
    expect(ask([['a'], ['c', 'a'], []], [a, b, c])).toEqual([[a], [c, a], []]);
    expect(ask([['b'], ['c', 'a'], ['a']], [a, b, c])).toEqual([[b], [c, a], [a]]);
    expect(ask([['b', 'a']], [a])).toEqual([[a]]);
  });
  it('are let go of a run after nobody asks for them', () => {
    const graph = new Graph();
    const ask = (ids: readonly string[]): unknown => graph.runFor('', () => graph.each('one', { ids, columns: [ids] }, (id) => id));
    ask(['a', 'b', 'c']);
    expect(graph.size).toBe(3);
    ask(['a', 'b']);
    expect(graph.size).toBe(3);
    ask(['b', 'a']);
    expect(graph.size).toBe(2);
    for (let k = 0; k < 2; k++) graph.runFor('', () => graph.step('other', [1], () => 1));
    expect(graph.size).toBe(1);
    graph.runFor('beside', () => graph.each('one', { ids: ['a'], columns: [['a']] }, (id) => id));
    graph.forget('beside');
    expect(graph.size).toBe(1);
  });
  it('tell columns by the things: from results in their order as they are, else one by one', () => {
    const graph = new Graph();
    const { by, all } = graph.each('one', { ids: ['a', 'b'], columns: [[1, 2]] }, (n) => n);
    expect(columnOf(['a', 'b'], by, 0)).toBe(all);
    expect(columnOf(['b', 'c', 'a'], by, 0)).toEqual([2, 0, 1]);
    expect(knownOf(['b'], by)).toEqual([2]);
    expect(knownOf(['a', 'b'], by)).toBe(all);
    expect(() => knownOf(['c'], by)).toThrow('nothing is known of c');
    // A column that all read alike is another than one of their own.
    const of = (column: Column<number>): readonly number[] => graph.each('mixed', { ids: ['a', 'b'], columns: [column] }, (n) => n).all;
    expect([of([7, 8]), of(forAll(9)), of([7, 8])]).toEqual([[7, 8], [9, 9], [7, 8]]); // prettier-ignore
    // As many columns as there are to read, now more and now fewer.
    const most = (...columns: readonly number[][]): readonly number[] =>
      graph.each<number[], number>('most', { ids: ['a', 'b'], columns }, (...said) => Math.max(...said)).all;
    expect([most([1, 5]), most([1, 5], [3, 2]), most([1, 5]), most([1, 5], [0, 9])]).toEqual([[1, 5], [3, 5], [1, 5], [1, 9]]); // prettier-ignore
    expect([orderOf(by), orderOf(new Map([['a', 1]]))]).toEqual([['a', 'b'], null]);
  });
  it('are read by their ids as from any map, and stay one thing to a step as long as they do', () => {
    const graph = new Graph();
    const ask = (...own: number[]): ReadonlyMap<string, number> =>
      graph.each('own', { ids: ['a', 'b', 'c'], columns: [own] }, (n) => 10 * n).by;
    const [by, same] = [ask(1, 2, 3), new Map([['a', 10], ['b', 20], ['c', 30]])]; // prettier-ignore
    expect([[...by], [...by.keys()], [...by.values()], [...by.entries()], by.size]).toEqual([
      [...same],
      [...same.keys()],
      [...same.values()],
      [...same.entries()],
      3,
    ]);
    for (const id of ['a', 'c', 'd', '']) expect([by.get(id), by.has(id)]).toEqual([same.get(id), same.has(id)]);
    const told: unknown[] = [];
    by.forEach((value, id, map) => told.push([id, value, map === by]));
    expect(told).toEqual([['a', 10, true], ['b', 20, true], ['c', 30, true]]); // prettier-ignore
    const sum = (map: ReadonlyMap<string, number>): number => graph.step('sum', [map], (m) => [...m.values()].reduce((a, v) => a + v, 0));
    expect([sum(by), sum(ask(1, 2, 3)), sum(ask(1, 4, 3))]).toEqual([60, 60, 80]);
    expect(graph.runs.get('sum')).toBe(2);
  });
});

describe('what is kept', () => {
  it('is what is now and what an undo goes back to, for each scenario by itself', () => {
    const { graph, ask } = chain();
    const run = (scenario: string, a: number): unknown => graph.runFor(scenario, () => ask(a, null));
    run('', 1);
    run('', 2);
    for (const a of [10, 11, 12, 13]) run('case', a);
    const before = runs(graph);
    run('', 1);
    run('', 2);
    expect(runs(graph)).toEqual(before);
    run('', 3);
    run('', 1);
    expect(runs(graph)).toEqual({ first: before.first + 2, second: before.second + 2 });
    expect(graph.size).toBe(8);
    graph.forget('case');
    run('', 1);
    expect(graph.size).toBe(4);
  });
  it('keeps the parts of a step as long as the step', () => {
    const graph = new Graph();
    const outer = (n: number): number => graph.step('outer', [1], () => graph.step('inner', [n], (v) => v + 1));
    for (let k = 0; k < 5; k++) graph.runFor('', () => outer(5));
    expect(runs(graph)).toEqual({ outer: 1, inner: 1 });
    graph.runFor('', () => graph.step('inner', [5], (v) => v + 1));
    expect(runs(graph)).toEqual({ outer: 1, inner: 1 });
  });
  it('lets go of what is asked for no longer, a run after', () => {
    const graph = new Graph();
    const used = (): unknown => graph.step('used', [1], () => 1);
    graph.runFor('', () => [used(), graph.step('gone', [1], () => 1)]);
    expect(graph.size).toBe(2);
    graph.runFor('', used);
    expect(graph.size).toBe(2);
    graph.runFor('', used);
    expect(graph.size).toBe(1);
  });
  it('forgets a scenario with all that goes on from its name, and nothing another holds', () => {
    const graph = new Graph();
    const ask = (holder: string, n: number): unknown => graph.runFor(holder, () => graph.step('one', [n], (v) => v));
    ask('a|x', 1);
    ask('a|y', 2);
    ask('ab', 2);
    expect(['a|x', 'a', 'ab'].map((name) => graph.holds(name))).toEqual([true, false, true]);
    graph.forget('a');
    expect(['a|x', 'a|y', 'ab'].map((name) => graph.holds(name))).toEqual([false, false, true]);
    expect(graph.size).toBe(1);
    ask('', 2);
    expect(runs(graph)).toEqual({ one: 2 });
  });
  it('what another scenario works out within a step is no part of it', () => {
    const graph = new Graph();
    const inner = (): unknown => graph.runFor('other', () => graph.step('inner', [1], () => 1));
    graph.runFor('', () => graph.step('outer', [1], () => inner()));
    graph.forget('other');
    expect(graph.size).toBe(1);
  });
  it('counts what a scenario runs within itself as one run', () => {
    const graph = new Graph();
    const both = (): unknown =>
      graph.runFor('', () => [graph.runFor('', () => graph.step('a', [1], () => 1)), graph.step('b', [1], () => 1)]);
    for (let k = 0; k < 4; k++) both();
    expect(runs(graph)).toEqual({ a: 1, b: 1 });
  });
});
