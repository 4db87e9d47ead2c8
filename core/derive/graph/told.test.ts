// By what steps know again what they read: things by themselves, data by its text, as long as that is remembered.
import { describe, expect, it } from '@jest/globals';
import { Graph, asItself } from './graph.ts';

/** Longer than two of these no texts are remembered at once: see `MOST_TOLD`. */
const LONG = 1_500_000;
let other = 0;
/** Long texts that are read meanwhile, each another. */
const readsLong = (graph: Graph, count: number): void => {
  for (let k = 0; k < count; k++) graph.runFor('others', () => graph.step('other', [{ n: other++, long: 'x'.repeat(LONG) }], ({ n }) => n));
};

describe('what steps read', () => {
  it('is known again: a number that is none, and a thing beside words and numbers that sound like it', () => {
    const graph = new Graph();
    const thing = asItself({});
    const counts = [[NaN], [NaN], [thing], ['@1'], [1], ['1']].map((reads) => {
      graph.step('one', reads, () => 0);
      return graph.runs.get('one');
    });
    expect(counts).toEqual([1, 1, 2, 3, 4, 5]);
    for (const reads of [[1], [1, undefined], [undefined, 1]]) graph.step('two', reads, () => 0);
    expect(graph.runs.get('two')).toBe(3);
  });

  it('is known by its text from scenario to scenario, till as long texts came as are remembered', () => {
    const graph = new Graph();
    const ask = (scenario: string, n: number): number =>
      graph.runFor(scenario, () => graph.step(`one:${scenario}`, [n], () => graph.step('shared', [{ n }], ({ n: own }) => own)));
    const shared = (): number | undefined => graph.runs.get('shared');
    expect([ask('a', 1), ask('b', 1), shared()]).toEqual([1, 1, 1]);
    // Met again after as many as are remembered, and again after as many: it was met meanwhile.
    for (const [scenario, count] of [
      ['c', 3],
      ['d', 2],
      ['e', 2],
    ] as const) {
      readsLong(graph, count);
      expect([ask(scenario, 1), shared()]).toEqual([1, 1]);
    }
    // Not met for twice as many it is worked out again, and comes to the same.
    readsLong(graph, 5);
    expect([ask('f', 1), shared()]).toEqual([1, 2]);
  });
});
