// What an answer about the land hangs on: what catches water, never the levels of works.
import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '#core/contract';
import type { Project } from '#core/project';
import { EVERY_KIND, POND, valleyProject } from '../../core/testing/valley.ts';
import { withAt } from '../../core/testing/rules.ts';
import { catchesOf, groundKey, idOf } from './ask.ts';

const with_ = (work: WorkBase): Project => valleyProject(EVERY_KIND.map((w) => (w.id === work.id ? work : w)));
const key = (project: Project): string => catchesOf(project).join('.');

describe('answers follow the document', () => {
  const base = key(with_(POND));
  it('a wall that moves, a work retired, renamed or gone asks anew', () => {
    const moved = { ...POND, wall: POND.wall?.map(([x, y]) => [x, y + 2] as const) };
    const changed = [moved, { ...POND, status: 'retired' }, { ...POND, name: 'Other' }].map((w) => key(with_(w as WorkBase)));
    expect(new Set([base, ...changed]).size).toBe(4);
    expect(key(valleyProject(EVERY_KIND.slice(1)))).not.toBe(base);
    expect(key(valleyProject([...EVERY_KIND].reverse()))).not.toBe(base);
  });
  it('a level, a size or a choice asks for nothing', () => {
    for (const [path, value] of [
      ['levels.crestM', 107],
      ['dimensions.topWidthM', 4],
      ['borrow', 'inside'],
    ] as const)
      expect(key(with_(withAt(POND, path, value)))).toBe(base);
    // Written anew, member by member, it is the same.
    expect(key(with_(structuredClone(POND)))).toBe(base);
  });
  it('parts of the document count by what they are, and nothing as nothing', () => {
    const project = with_(POND);
    expect(groundKey(project)).toBe(groundKey({ ...project, name: 'x' }));
    expect(groundKey(project)).not.toBe(groundKey({ ...project, rain: structuredClone(project.rain) }));
    expect([idOf(null), idOf(undefined), idOf(project) === idOf(project)]).toEqual([0, 0, true]);
  });
});
