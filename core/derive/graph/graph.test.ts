import { describe, expect, it } from '@jest/globals';
import { Graph, asItself } from './graph.ts';

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
