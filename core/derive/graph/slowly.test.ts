// Answers that take long: paused, given up, and overtaken by edits.
import { describe, expect, it } from '@jest/globals';
import { context } from '../../testing/ground.ts';
import { EVERY_KIND, POND, POND_SILL, valleyProject } from '../../testing/valley.ts';
import { withAt } from '../../testing/rules.ts';
import { begunAnswer, derive, finish, finishSlowly } from '../index.ts';

const PROJECT = valleyProject([POND, POND_SILL], { cases: [{ id: 'full', name: 'Full', startsFull: true }] });
const HIGHER = valleyProject([withAt(POND, 'levels.crestM', 106.8), POND_SILL]);
const LONG = [
  ['failureOrder', {}],
  ['whichStorm', { store: 'pond', levelM: 106 }],
  ['cases', {}],
] as const;

describe.each(LONG)('%s', (name, args) => {
  const on = context();
  const begun = (): unknown => begunAnswer(name, { project: PROJECT, context: on, args });
  const at_once = finish(begun());
  it('paused between its parts answers the same, whatever is worked out meanwhile', async () => {
    let pauses = 0;
    const between = async (): Promise<void> => {
      pauses++;
      // An edit comes in and is answered at once, with the same graph.
      const project = pauses % 2 === 0 ? HIGHER : PROJECT;
      expect(derive(project, on)).toEqual(derive(project, context()));
      await Promise.resolve();
    };
    expect(await finishSlowly(begun(), between)).toEqual(at_once);
    expect(pauses).toBeGreaterThan(name === 'cases' ? 0 : 5);
  });
  it('is given up where nobody waits for it, and can be asked again', async () => {
    const giveUp = (): Promise<void> => Promise.reject(new Error('nobody waits'));
    const kept = on.graph.size;
    await expect(finishSlowly(begun(), giveUp)).rejects.toThrow('nobody waits');
    // What it held of raised storms is let go with the next run; cases stay at hand.
    derive(PROJECT, on);
    expect(on.graph.size).toBeLessThanOrEqual(kept);
    expect(finish(begun())).toEqual(at_once);
  });
});

it('an answer that is there at once takes no pause', async () => {
  const project = valleyProject(EVERY_KIND);
  const answer = begunAnswer('usualCases', { project, context: context(), args: {} });
  expect(await finishSlowly(answer, () => Promise.reject(new Error('a pause')))).toBe(answer);
  expect(() => begunAnswer('toString', { project, context: context(), args: {} })).toThrow('there is no question "toString"');
});
