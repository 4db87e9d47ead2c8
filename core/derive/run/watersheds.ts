// Runoff of every catchment in a storm: the hydrology of one run.
import { Worksheet, type WorksheetLine } from '../../formula/index.ts';
import type { OneRain, Project } from '../../project/index.ts';
import type { Storm } from '../../rain/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { Gathered } from '../world/catchments.ts';
import { type FlowParts, flowParts } from '../world/flow-parts.ts';
import type { GroundModel } from '../world/ground-model.ts';
import { type SurfaceMap, sharesOf } from '../world/surfaces.ts';
import {
  type CatchmentRunoff,
  type Choice,
  type Watershed,
  choiceFor,
  concentrationOf,
  runoffOf,
  stepFor,
  stormFor,
  watershedOf,
} from './hydrology.ts';

/** What is needed to work out runoff: rain, ground, and how. */
export interface Weather {
  readonly model: GroundModel;
  readonly graph: Graph;
  readonly map: SurfaceMap;
  readonly rain: OneRain;
  readonly runoff: Project['runoff'];
}

/** Null while rain or ground is not known. */
export function weatherOf(
  rain: OneRain | null,
  on: { readonly runoff: Project['runoff']; readonly model: GroundModel; readonly graph: Graph; readonly map: SurfaceMap | null },
): Weather | null {
  const { map } = on;
  return rain && map ? { ...on, map, rain } : null;
}

/** A catchment with its kinds of ground and the way its water takes, found when it is asked for. */
export function watershedIn({ model, graph, map }: Omit<Weather, 'rain' | 'runoff'>, gathered: Gathered, slot: string): Watershed {
  return graph.step(`watershed:${slot}`, [model, gathered, map], ({ grid }, own, { surfaces, index }) => {
    const flow = (): FlowParts => graph.step(`path:${slot}`, [model, own, map], flowParts);
    return watershedOf(own, surfaces, { shares: sharesOf({ surfaces, index }, own.members, grid), flow });
  });
}

export interface Timed {
  readonly watershed: Watershed;
  readonly choice: Choice;
  readonly tcMin: number;
  /** Why the chosen way to the time should not be used here; empty where it may. */
  readonly unfit: readonly string[];
  readonly timing: readonly WorksheetLine[];
}

/** A catchment's time of concentration by the method chosen for it. */
export function timedIn(
  weather: Omit<Weather, 'rain'> & { readonly rain: Pick<OneRain, 'table'> },
  gathered: Gathered,
  slot: string,
): Timed {
  const { graph, rain, runoff } = weather;
  const { of } = gathered.catchment;
  const watershed = watershedIn(weather, gathered, slot);
  return graph.step(`timed:${slot}`, [watershed, rain.table, choiceFor({ runoff }, of)], (shed, table, choice): Timed => {
    const sheet = new Worksheet(of);
    return { watershed: shed, choice, ...concentrationOf(shed, { table, choice, sheet }), timing: sheet.lines };
  });
}

/** Runoff of a catchment in a storm. */
export const runoffIn = ({ graph, rain }: Weather, timed: Timed, on: { readonly storm: Storm; readonly slot: string }): CatchmentRunoff =>
  graph.step(`runoff:${on.slot}`, [timed, rain, on.storm], ({ watershed, choice, tcMin }, by, storm) =>
    runoffOf(watershed, { rain: by, storm, choice, tcMin }),
  );

export interface Hydrology {
  readonly weather: Weather | null;
  readonly storm: Storm | null;
  readonly runoff: ReadonlyMap<string, CatchmentRunoff>;
  readonly timed: ReadonlyMap<string, Timed>;
  /** Peak of each store's whole natural catchment [m3/s]. */
  readonly natural: ReadonlyMap<string, number>;
}

export const NO_HYDROLOGY: Hydrology = { weather: null, storm: null, runoff: new Map(), timed: new Map(), natural: new Map() };

interface Caught {
  readonly catchments: readonly Gathered[];
  readonly natural: readonly Gathered[];
  readonly exits: readonly Gathered[];
}

/** Storm and runoff of every catchment; nothing while rain or ground is not known. */
export function hydrologyOf(weather: Weather | null, { catchments, natural, exits }: Caught): Hydrology {
  if (!weather) return NO_HYDROLOGY;
  const { graph, model, map, rain, runoff } = weather;
  return graph.step(
    'hydrology',
    [model, map, { rain, runoff, catchments, natural, exits }],
    (ground, kinds, { rain: by, runoff: how, ...on }) => shedOn({ graph, model: ground, map: kinds, rain: by, runoff: how }, on),
  );
}

function shedOn(weather: Weather, on: Caught): Hydrology {
  const { graph, rain } = weather;
  const timed = on.catchments.map((gathered) => timedIn(weather, gathered, gathered.catchment.of));
  // With neither pin nor work what leaves the property is still told, in steps fit for it.
  const leading = timed.length > 0 ? timed : on.exits.map((gathered) => timedIn(weather, gathered, `exit-all:${gathered.catchment.of}`));
  const storm = graph.step('storm', [rain, stepFor(leading.map((t) => t.tcMin))], stormFor);
  const of = (t: Timed): string => t.watershed.gathered.catchment.of;
  const peakOf = (whole: Gathered): number => {
    const slot = `natural:${whole.catchment.of}`;
    return runoffIn(weather, timedIn(weather, whole, slot), { storm, slot }).runoff.hydrographPeakM3s;
  };
  return {
    weather,
    storm,
    natural: new Map(on.natural.map((whole) => [whole.catchment.of, peakOf(whole)])),
    runoff: new Map(timed.map((t) => [of(t), runoffIn(weather, t, { storm, slot: of(t) })])),
    timed: new Map(timed.map((t) => [of(t), t])),
  };
}

/** The working of all runoff. */
export const hydrologySheets = ({ timed, runoff }: Hydrology): WorksheetLine[] =>
  [...timed].flatMap(([of, { timing }]) => [...timing, ...(runoff.get(of)?.lines ?? [])]);
