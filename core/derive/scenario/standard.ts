// How ground and water may be found besides as they usually are: what every work is judged under, asked for or not.
import type { Condition, WorkBase } from '../../contract/index.ts';
import type { Option } from '../../project/index.ts';
import type { Registry } from '../../works/index.ts';
import { bared } from './conditions.ts';
import { type Scenario, liveWorks } from './scenario.ts';

/** Works whose water goes through a bore that debris can close. */
export const boresOf = ({ works }: Option, registry: Pick<Registry, 'bind'>): readonly WorkBase[] =>
  liveWorks(works).filter((work) => {
    const { traits } = registry.bind(work);
    return traits.canBlock && traits.isConduit;
  });

/** A scenario under a standard condition; null where that is what it is already. */
export function underCondition(scenario: Scenario, condition: Condition, registry: Pick<Registry, 'bind'>): Scenario | null {
  const { project, conditions, id } = scenario;
  const named = `${id}|${condition}`;
  const withKey = { ...conditions, key: `${conditions.key}|${condition}` };
  switch (condition) {
    case 'full':
      return { ...scenario, id: named, conditions: { ...conditions, startsFull: true } };
    case 'blocked': {
      const closed = boresOf(scenario.option, registry).map((w) => [w.id, 1] as const);
      if (closed.length === 0) return null;
      return { ...scenario, id: named, conditions: { ...withKey, startsFull: true, blocked: new Map([...conditions.blocked, ...closed]) } };
    }
    case 'wet': {
      if (project.runoff?.wetness === 'wet') return null;
      return { ...scenario, id: named, project: { ...project, runoff: { ...project.runoff, wetness: 'wet' } } };
    }
    case 'bare': {
      if (!project.ground) return null;
      // Bare ground sheds more; what a way out runs on was looked after, and is judged as it is found.
      return { ...scenario, id: named, project: { ...project, ground: bared(project.ground) }, waysOn: project.ground };
    }
    default:
      return scenario;
  }
}
