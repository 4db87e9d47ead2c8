// A scenario laid out on its land, and one storm run on it, with nothing judged.
import type { OneRain, Project } from '../../project/index.ts';
import { longestOf, ofLength } from '../../rain/index.ts';
import type { Registry } from '../../works/index.ts';
import type { Graph } from '../graph/graph.ts';
import { type Run, stormRun } from '../run/run.ts';
import { type Scenario, settled } from '../scenario/scenario.ts';
import { type Water, waterOf } from '../water/water.ts';
import type { GroundContext } from '../world/ground-model.ts';
import { type World, worldOf } from '../world/world.ts';

/** What everything computed is worked out with. */
export interface RoomContext extends GroundContext {
  readonly registry: Registry;
  readonly graph: Graph;
}

/** A scenario with its land and the works on it. */
export interface Laid {
  readonly scenario: Scenario;
  readonly world: World;
  readonly water: Water;
  /** The same thing as long as a run on it comes to the same. */
  readonly same: object;
}

/** A world whose ways out run on the ground of another. */
function onLookedAfter(found: World, kept: Scenario, context: RoomContext): World {
  const { graph } = context;
  const other = worldOf(settled(kept.project, graph), context, kept.option.works);
  return other ? graph.step('world-looked-after', [found, other.site], (at, site) => ({ ...at, site })) : found;
}

/** Land and water of a scenario; null while there is no terrain. */
export function laidOut(scenario: Scenario, context: RoomContext): Laid | null {
  const { graph } = context;
  return graph.runFor(`${scenario.id}|laid`, () => {
    const own = { ...scenario, project: settled(scenario.project, graph) };
    const found = worldOf(own.project, context, own.option.works);
    if (!found) return null;
    const world = own.waysOn ? onLookedAfter(found, { ...own, project: { ...own.project, ground: own.waysOn } }, context) : found;
    const { failures, ...water } = waterOf(own, world, context);
    const { site, runoff } = own.project;
    // One thing as long as nothing differs that water runs by.
    const same = graph.step('laid', [world, water, { site, runoff, key: own.conditions.key }], (land, { stores }) => ({ land, stores }));
    return { scenario: own, world, water: { ...water, failures }, same };
  });
}

/** Rains of one storm by the rain they are of and its length: each is written out only once. */
const rains = new WeakMap<object, Map<number, OneRain>>();

/** The rain of one storm: of the length given, else of the longest that is looked at. */
export function rainOver({ rain }: Pick<Project, 'rain'>, durationMin?: number): OneRain | null {
  if (!rain) return null;
  const lengthMin = durationMin ?? longestOf(rain.table, rain.storm);
  const known = rains.get(rain) ?? new Map<number, OneRain>();
  rains.set(rain, known);
  const one = known.get(lengthMin) ?? { ...rain, storm: ofLength(rain.storm, lengthMin) };
  known.set(lengthMin, one);
  return one;
}

/** A run of one storm, what is worked out for it kept under a name of its own. */
export function runOn(
  { scenario, world, water, same }: Laid,
  on: {
    readonly name: string;
    readonly rain: OneRain | null;
    readonly startsM: ReadonlyMap<string, number>;
    /** Whether what comes is raised to the peaks chosen. */
    readonly isRaised?: boolean;
    /** Whether what comes to a store from others may stay what it was as long as it is all but the same. */
    readonly isNear?: boolean;
    /** Whether only what happens in the stores is asked for. */
    readonly isInside?: boolean;
    /** The stores that are asked for, inside alone: what bears on none of them is not routed. */
    readonly asked?: readonly string[] | null;
    readonly graph: Graph;
  },
): Run {
  const { name, rain, startsM, isRaised = false, isNear = false, asked = null, graph } = on;
  const isInside = on.isInside === true || asked !== null;
  // One thing as long as it says the same, whoever made it.
  const by = graph.same('rain-run', rain);
  // The land a way out runs on may be another than that of the run: bare ground sheds more, and the way out was looked after.
  const reads = [same, world.site, by, scenario.conditions.sent, startsM, { isRaised, isNear, isInside, asked }] as const;
  return graph.step(`run:${name}`, reads, () =>
    graph.runFor(name, () => stormRun(scenario, world, { water, graph, rain: by, startsM, isRaised, isNear, isInside, asked })),
  );
}
