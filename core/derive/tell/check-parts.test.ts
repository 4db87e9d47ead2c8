// Findings brought together part by part, against all of them paired in one list; and none of them lost.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Check, Store } from '../../contract/index.ts';
import { Graph } from '../graph/graph.ts';
import { type CheckParts, allOf, broughtTogether, oncePerWork } from './check-parts.ts';
import { alsoWhen, gravestOf, whenGraver } from './graver.ts';

const SEVERITIES = ['mend', 'weigh', 'unknown', 'fine'] as const;
const check = (id: string, on: string, change: Partial<Check> = {}): Check => ({
  ...{ id, on, title: '', why: '', unit: '', kind: 'number', sense: 'min', source: { key: 'geometry' }, severity: 'fine' },
  ...{ value: 1, limit: 1, at: null, do: '', said: { title: '', do: '' } },
  ...change,
});

/** Lists of two words over a few things, each with rules of its own. */
const lists = fc
  .array(
    fc.record({ word: fc.constantFrom('work', 'ways'), id: fc.constantFrom('a', 'b', 'c'), rule: fc.nat(2), severity: fc.constantFrom(...SEVERITIES) }), // prettier-ignore
    { maxLength: 14 },
  )
  .map((found): CheckParts[] =>
    ['work', 'ways'].map((word) => ({
      word,
      parts: ['a', 'b', 'c'].flatMap((id) => {
        const own = new Map(found.filter((f) => f.word === word && f.id === id).map((f) => [f.rule, f.severity]));
        return own.size === 0 ? [] : [{ id, checks: [...own].map(([rule, severity]) => check(`${word}-${rule}`, id, { severity })) }];
      }),
    })),
  );
const told = (checks: readonly Check[]): string[] => checks.map((c) => `${c.id} ${c.on} ${c.severity} ${c.condition ?? ''}`).sort();

describe('findings brought together', () => {
  it('are those of the whole lists paired at once, whatever is found under which condition', () => {
    fc.assert(
      fc.property(fc.tuple(lists, lists, lists, lists), ([strict, asFound, wet, bare]) => {
        const conditionOf = (): 'blocked' => 'blocked';
        const beyond = [{ condition: 'wet', lists: wet }, { condition: 'bare', lists: bare }] as const; // prettier-ignore
        const graver = whenGraver(allOf(asFound), { checks: allOf(strict), conditionOf });
        const once = alsoWhen(alsoWhen(graver, allOf(wet), 'wet'), allOf(bare), 'bare');
        expect(told(broughtTogether(strict, { asFound, beyond, conditionOf, graph: new Graph() }))).toEqual(told(once));
      }),
      { seed: 30, numRuns: 400 },
    );
  });
  it('keep what is found only on worse ground, of a thing of which the strict part says nothing', () => {
    const wet: CheckParts[] = [{ word: 'exit', parts: [{ id: 'e', checks: [check('peak', 'e', { severity: 'mend' })] }] }];
    const beyond = [{ condition: 'wet', lists: wet }] as const;
    const together = broughtTogether([], { asFound: [], beyond, conditionOf: () => 'full', graph: new Graph() });
    expect(together).toEqual([check('peak', 'e', { severity: 'weigh', condition: 'wet' })]);
  });
  it('say in what condition what they are on is at its worst, and stay the same where nothing differs', () => {
    const strict: CheckParts[] = [{ word: 'across', parts: [{ id: 'w', checks: [check('left', 'w#1', { severity: 'mend' }), check('left', 'w#2', { severity: 'weigh' })] }] }]; // prettier-ignore
    const asFound: CheckParts[] = [{ word: 'across', parts: [{ id: 'w', checks: [check('left', 'w#1'), check('left', 'w#2')] }] }];
    const graph = new Graph();
    const on = { asFound, beyond: [], conditionOf: (of: string) => (of === 'w#1' ? ('blocked' as const) : ('full' as const)), graph };
    const first = graph.runFor('', () => broughtTogether(strict, on));
    expect(first.map((c) => c.condition)).toEqual(['blocked', 'full']);
    const runs = new Map(graph.runs);
    const again = graph.runFor('', () => broughtTogether(strict, on));
    again.forEach((one, k) => expect(one).toBe(first[k]));
    expect(graph.runs).toEqual(runs);
  });
});

describe('what is asked of every store', () => {
  it('is told once of a work of several, by the gravest of each rule, and of others as it is', () => {
    const store = (id: string, work: string): Store => ({ id, work }) as unknown as Store;
    const own = [[check('left', 'd#1')], [check('left', 'p', { severity: 'weigh' })], [check('left', 'd#2', { severity: 'mend' })]];
    const { parts } = oncePerWork('across', [store('d#1', 'd'), store('p', 'p'), store('d#2', 'd')], { lists: own, graph: new Graph() });
    expect(parts.map((p) => p.id)).toEqual(['d', 'p']);
    expect(parts[0].checks).toEqual(gravestOf([...own[0], ...own[2]], 'd'));
    expect(parts[1].checks).toBe(own[1]);
  });
});
