import type { WorkBase } from '../contract/index.ts';
import type { Catalogue } from '../works/index.ts';
import { type UserProblem, problemOf } from './problem.ts';

/** What its technique finds wrong with a work by itself; a work so spoilt that it cannot even be looked at is refused whole. */
function shapeProblems(work: WorkBase, registry: Catalogue): UserProblem[] {
  try {
    return registry.describe(work).validate().map(problemOf);
  } catch {
    return [
      {
        code: 'work.shape',
        what: `"${work.name}", a ${work.kind}, lacks members it cannot be without`,
        where: {},
        do: 'Take it out and draw it again, or open an earlier copy of the project.',
      },
    ];
  }
}

/** Problems of one work among the works of its option. */
export function workProblems(work: WorkBase, works: readonly WorkBase[], registry: Catalogue): UserProblem[] {
  if (!registry.has(work.kind)) {
    return [
      {
        code: 'work.unknown-kind',
        what: `"${work.name}" is a "${work.kind}", which this version does not know`,
        where: { field: 'kind' },
        do: `Update Outlet, or use one of ${registry.kinds.join(', ')}.`,
      },
    ];
  }
  const own = shapeProblems(work, registry);
  if (own.length > 0) return own;
  const bound = registry.describe(work);
  const isThere = (id: string): boolean => works.some((other) => other.id === id);
  if (bound.hostId !== null && !isThere(bound.hostId)) {
    own.push({
      code: 'work.no-host',
      what: `"${work.name}" belongs to "${bound.hostId}", which is not in this option`,
      where: { field: 'host' },
      do: 'Name a work of the same option, or remove it.',
    });
  }
  for (const { role, id } of bound.refs) {
    if (role === 'host' || isThere(id)) continue;
    own.push({
      code: 'work.no-other',
      what: `"${work.name}" leads to "${id}", which is not in this option`,
      where: {},
      do: 'Name a work of the same option.',
    });
  }
  return own;
}
