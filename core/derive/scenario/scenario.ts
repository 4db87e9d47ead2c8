// The only way inputs vary: a document as it is to be taken, and what is done to stores and their ways out.
import type { WorkBase } from '../../contract/index.ts';
import { type Option, type Project, type Rain, optionOf } from '../../project/index.ts';
import { type Graph, idsOf } from '../graph/graph.ts';
import { AS_DESIGNED, type Conditions, caseOf, underCase } from './conditions.ts';

export interface Scenario {
  /** Names it, and what is kept of it; '' is the document as it stands. */
  readonly id: string;
  readonly project: Project;
  readonly option: Option;
  readonly conditions: Conditions;
  /** Ground that ways out run on, where it is looked after better than the rest; left out, the same. */
  readonly waysOn?: Project['ground'];
}

/** Works that stand or are to be made: a retired one is of the past. */
export const liveWorks = <W extends Pick<WorkBase, 'status'>>(works: readonly W[]): readonly W[] =>
  works.filter((w) => w.status !== 'retired');

/** The works of an option as they are designed; of the active one where none is named. */
export const asDesigned = (project: Project, option?: string): Scenario => ({
  id: option === undefined || option === project.activeOption ? '' : `option:${option}`,
  project,
  option: optionOf(project, option),
  conditions: AS_DESIGNED,
});

/** The same under a case of the project. @throws UserError naming those there are. */
export function inCase(scenario: Scenario, id: string): Scenario {
  const one = caseOf(scenario.project, id);
  const { project, conditions } = underCase(scenario.project, one);
  // Nothing grows on the rest; what a way out runs on was looked after.
  const kept = one.ground === 'bare' ? { waysOn: scenario.project.ground } : {};
  return { ...scenario, id: `${scenario.id}case:${id}`, project, conditions, ...kept };
}

/** The document with its large parts as the things they were before, as long as they say the same. */
export function settled(project: Project, graph: Graph): Project {
  const { rain, ground, features, site, survey } = project;
  return {
    ...project,
    rain: graph.same('rain', rain),
    ground: graph.same('ground', ground),
    features: graph.same('features', features),
    site: graph.same('site', site),
    ...(survey ? { survey: graph.same('survey', survey) } : {}),
  };
}

/** The same with works that say what they said before as the things they were: a copy of all comes with every message. */
export function withSettledWorks(scenario: Scenario, graph: Graph): Scenario {
  const { option } = scenario;
  const works = graph.each('work', { ids: idsOf(option.works), columns: [option.works], isCopied: true }, (own) => own).all;
  return { ...scenario, option: { ...option, works } };
}

/** The same under another rain; all rains of one name share what is kept. */
export const underRain = (scenario: Scenario, name: string, rain: Rain): Scenario => ({
  ...scenario,
  id: `${scenario.id}rain:${name}`,
  project: { ...scenario.project, rain },
});
