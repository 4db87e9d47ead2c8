// From a document to everything computed, through four rooms: the land, the water on it, a run, and what is told of it.
import type { Project } from '../project/index.ts';
import type { Registry } from '../works/index.ts';
import { Graph } from './graph/graph.ts';
import { type Run, stormRun } from './run/run.ts';
import { type Scenario, asDesigned, inCase, settled } from './scenario/scenario.ts';
import { tell, withoutGround } from './tell/tell.ts';
import type { DeriveResult } from './types.ts';
import { type Water, waterOf } from './water/water.ts';
import type { GridSource, Progress } from './world/ground-model.ts';
import { type World, worldOf } from './world/world.ts';

/** What everything computed is worked out with. */
export interface RoomContext {
  readonly registry: Registry;
  readonly grids: GridSource;
  readonly graph: Graph;
  readonly progress?: Progress;
}

export interface DeriveContext extends Omit<RoomContext, 'graph'> {
  /** Kept between calls, it makes an edit cost only what it touches. */
  readonly graph?: Graph;
  readonly option?: string;
  /** A case of the project, by its id. */
  readonly case?: string;
}

/** A scenario worked out as far as its run. */
export interface Ran {
  readonly scenario: Scenario;
  readonly world: World;
  readonly water: Water;
  readonly run: Run;
}

/** Land, water and run of a scenario, with nothing judged; null while there is no terrain. */
export function runScenario(scenario: Scenario, context: RoomContext): Ran | null {
  const { graph } = context;
  return graph.runFor(scenario.id, () => {
    const settledOn = { ...scenario, project: settled(scenario.project, graph) };
    const world = worldOf(settledOn.project, context);
    if (!world) return null;
    const water = waterOf(settledOn, world, context);
    return { scenario: settledOn, world, water, run: stormRun(settledOn, world, { water, graph }) };
  });
}

/** Everything computed of a scenario. */
export function deriveScenario(scenario: Scenario, context: RoomContext): DeriveResult {
  const { graph } = context;
  return graph.runFor(scenario.id, () => {
    const ran = runScenario(scenario, context);
    return ran ? tell(ran.scenario, { ...ran, graph }) : withoutGround(scenario);
  });
}

/** Everything computed from a document. Deterministic: same document and assets, same result. */
export function derive(project: Project, { graph = new Graph(), option, case: named, ...context }: DeriveContext): DeriveResult {
  const designed = asDesigned(project, option);
  return deriveScenario(named === undefined ? designed : inCase(designed, named), { ...context, graph });
}
