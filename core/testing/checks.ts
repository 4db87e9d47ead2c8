// Fixtures of checks: a project in which each says so, and one in which it is silent or content.
import { expect, it } from '@jest/globals';
import { applyCommand } from '../commands/index.ts';
import type { Check, Rule } from '../contract/index.ts';
import type { Project } from '../project/index.ts';
import { Graph, derive } from '../derive/index.ts';
import { registry } from '../works/index.ts';
import { noGrid } from './projects.ts';

export type Fixtures = Readonly<Record<string, readonly [bad: Project, severity: Check['severity'], good: Project]>>;

/** One memory for all fixtures: only what differs between them is worked out. */
const graph = new Graph();

export const found = (p: Project, id: string): Check[] =>
  derive(p, { registry, graph, grids: noGrid }).derived.checks.filter((c) => c.id === id);

/** Times a cure is followed at the most: raising a crest changes what comes. */
const FOLLOWED = 4;

/** A check after its cures were followed, as often as it has one; fine where nothing is said any more. */
export function cured(project: Project, check: Check): Check['severity'] {
  let [at, now]: readonly [Project, Check | undefined] = [project, check];
  for (let k = 0; k < FOLLOWED && now?.cure; k++) {
    const { work, set } = now.cure;
    at = applyCommand(at, { type: 'works.change', payload: { changes: [{ id: work, set: { ...set } }] } }, registry).project;
    now = found(at, check.id).find((c) => c.on === check.on);
  }
  return now?.severity ?? 'fine';
}

/** Each rule fires in its fixture, in words that help, and leaves the other quiet. */
export function testChecks(cases: Fixtures, all: readonly Pick<Rule<never>, 'id' | 'find'>[]): void {
  it('has a fixture that fires it and one that leaves it quiet', () => {
    expect(Object.keys(cases).sort()).toEqual(all.map((r) => r.id).sort());
    expect(new Set(all.map((r) => r.find)).size).toBe(all.length);
  });
  it.each(Object.entries(cases))('%s', (id, [bad, severity, good]) => {
    // Checks come worst first: what is expected must be the worst that is found.
    const [worst] = found(bad, id);
    expect(worst?.severity).toBe(severity);
    expect(worst.do).not.toBe('Nothing.');
    expect(worst.why.length).toBeGreaterThan(20);
    expect(worst.source.key).not.toBe('');
    // What is offered to mend it can be done, and does.
    if (worst.cure) expect([worst.cure.set, cured(bad, worst)]).toEqual([worst.cure.set, 'fine']);
    // What only happens when all is full, blocked, wet or bare is told with that condition: the fixtures are as things usually are.
    const spoken = found(good, id).filter((c) => c.condition === undefined);
    expect(spoken.filter((c) => c.severity === 'mend' || c.severity === 'weigh')).toEqual([]);
  });
}
