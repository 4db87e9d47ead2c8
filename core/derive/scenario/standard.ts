// How ground and water may be found besides as they usually are: what every work is judged under, asked for or not.
import type { Condition } from '../../contract/index.ts';
import type { Option } from '../../project/index.ts';
import type { Registry } from '../../works/index.ts';
import { bared } from './conditions.ts';
import type { Scenario } from './scenario.ts';

/** Pipes of an option that debris can close, each wholly. */
function bores(option: Option, registry: Pick<Registry, 'bind'>): ReadonlyMap<string, number> {
  const closed = option.works.filter((work) => {
    if (work.status === 'retired') return false;
    const { traits } = registry.bind(work);
    return traits.canBlock && traits.isConduit;
  });
  return new Map(closed.map(({ id }) => [id, 1]));
}

/** A scenario under a standard condition; null where that is what it is already. */
export function underCondition(scenario: Scenario, condition: Condition, registry: Pick<Registry, 'bind'>): Scenario | null {
  const { project, conditions, id } = scenario;
  const named = `${id}|${condition}`;
  const withKey = { ...conditions, key: `${conditions.key}|${condition}` };
  switch (condition) {
    case 'full':
      return { ...scenario, id: named, conditions: { ...conditions, startsFull: true } };
    case 'blocked': {
      const closed = bores(scenario.option, registry);
      if (closed.size === 0) return null;
      return { ...scenario, id: named, conditions: { ...withKey, startsFull: true, blocked: new Map([...conditions.blocked, ...closed]) } };
    }
    case 'wet': {
      if (project.runoff?.wetness === 'wet') return null;
      return { ...scenario, id: named, project: { ...project, runoff: { ...project.runoff, wetness: 'wet' } } };
    }
    case 'bare': {
      if (!project.ground) return null;
      return { ...scenario, id: named, project: { ...project, ground: bared(project.ground) } };
    }
    default:
      return scenario;
  }
}
