// How ground and water may be found besides as they usually are: what every work is judged under, asked for or not.
import type { Condition, Traits, WorkBase } from '../../contract/index.ts';
import type { Option } from '../../project/index.ts';
import type { Registry } from '../../works/index.ts';
import { type Conditions, bared } from './conditions.ts';
import { type Scenario, liveWorks } from './scenario.ts';

const worksThat = ({ works }: Option, registry: Pick<Registry, 'bind'>, are: (traits: Traits) => boolean): readonly WorkBase[] =>
  liveWorks(works).filter((work) => are(registry.bind(work).traits));

/** Works whose water goes through a bore that debris can close. */
export const boresOf = (option: Option, registry: Pick<Registry, 'bind'>): readonly WorkBase[] =>
  worksThat(option, registry, ({ canBlock, isConduit }) => canBlock && isConduit);

/** Some works closed altogether, all stores full when it begins. */
const closed = (conditions: Conditions, works: readonly WorkBase[]): Conditions => ({
  ...conditions,
  startsFull: true,
  blocked: new Map([...conditions.blocked, ...works.map((w) => [w.id, 1] as const)]),
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
      const bores = boresOf(scenario.option, registry);
      return bores.length === 0 ? null : { ...scenario, id: named, conditions: closed(withKey, bores) };
    }
    case 'unpowered': {
      const still = worksThat(scenario.option, registry, (t) => t.needsMains === true);
      // Where nothing else could close it is the same as blocked.
      const isOwn = still.length > 0 && still.length < boresOf(scenario.option, registry).length;
      return isOwn ? { ...scenario, id: named, conditions: closed(withKey, still) } : null;
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
