// From a document to everything computed, through its rooms: the land, the water on it, a set of storms run, and what is told of it.
import type { Condition } from '../contract/index.ts';
import type { Project } from '../project/index.ts';
import { Graph } from './graph/graph.ts';
import { type Slowly, finish } from './graph/slowly.ts';
import { type Scenario, asDesigned, inCase, withSettledWorks } from './scenario/scenario.ts';
import { underCondition } from './scenario/standard.ts';
import type { RoomContext } from './set/laid.ts';
import { NO_LOOKS, bandsOf, crestsOf } from './set/rare.ts';
import { type SetAsked, runSetSlowly } from './set/set.ts';
import { tell, withoutGround } from './tell/tell.ts';
import type { DeriveResult } from './types.ts';

export type { RoomContext };

export interface DeriveContext extends Omit<RoomContext, 'graph'> {
  /** Kept between calls, it makes an edit cost only what it touches. */
  readonly graph?: Graph;
  readonly option?: string;
  /** A case of the project, by its id. */
  readonly case?: string;
  /** Ground and water found so in all storms. */
  readonly conditions?: readonly Condition[];
  /** Worked out beside the document, what is kept of it under a name of its own. */
  readonly aside?: string;
}

/** The scenario that is asked for. */
function scenarioFor(
  project: Project,
  { option, case: named, conditions = [], aside = '', registry }: Omit<DeriveContext, 'graph'>,
): Scenario {
  const own = asDesigned(project, option);
  const designed = { ...own, id: `${aside}${own.id}` };
  const cased = named === undefined ? designed : inCase(designed, named);
  return conditions.reduce((at, condition) => underCondition(at, condition, registry) ?? at, cased);
}

/** Everything computed from a document, storm by storm: between two of them others may be served. */
export function* deriveSlowly(project: Project, { graph = new Graph(), ...on }: DeriveContext, asked: SetAsked = {}): Slowly<DeriveResult> {
  // A case, and what is found otherwise than usual, is a condition of its own.
  const isOwn = on.case !== undefined || (on.conditions ?? []).length > 0;
  const said = scenarioFor(project, on);
  const scenario = graph.runFor(`${said.id}|works`, () => withSettledWorks(said, graph));
  const set = yield* runSetSlowly(scenario, { ...on, graph }, { ...asked, ...(isOwn ? { asFound: true } : {}) });
  if (!set) return withoutGround(scenario);
  const looks = isOwn ? NO_LOOKS : { crests: yield* crestsOf(set, graph), bands: yield* bandsOf(set, graph) };
  return graph.runFor(scenario.id, () => tell(set, looks, graph));
}

/** Everything computed from a document. Deterministic: same document and assets, same result; but for what is only `isNear`. */
export function derive(project: Project, context: DeriveContext, asked: SetAsked = {}): DeriveResult {
  return finish(deriveSlowly(project, context, asked));
}
