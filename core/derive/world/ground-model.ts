import {
  type Flow,
  type Grid,
  type Hollow,
  type Reshape,
  type TerrainStats,
  breachHollows,
  edgeCells,
  fillDepressions,
  flowOf,
  gridFromLevels,
  hollowsOf,
  reshaped,
  slopesOf,
  statsOf,
} from '../../terrain/index.ts';
import { DEFAULT_LAND, type Project, type Terrain, documentHash, optionOf } from '../../project/index.ts';
import { type Roof, effectKey, ledWater, roofsOf, surfaceOf } from '../../seen/index.ts';
import type { WorkBase } from '../../contract/index.ts';
import type { Registry } from '../../works/index.ts';
import { type Graph, asItself } from '../graph/graph.ts';
import { liveWorks } from '../scenario/scenario.ts';

/** Gives the grid of a terrain asset or file; throws a UserError when it is not there. */
export type GridSource = (terrain: Terrain) => Grid;

export interface GroundModel {
  readonly key: string;
  /** Names the ground. */
  readonly ground: string;
  /** The ground, as surveyed and as works shape it. */
  readonly grid: Grid;
  /** As surveyed, where works shape it. */
  readonly surveyed: Grid | null;
  /** The surface as water meets it: with what was seen, and cut through where hollows are cut. */
  readonly surface: Grid;
  readonly filled: Float64Array;
  readonly stats: TerrainStats;
  readonly edge: Uint8Array;
  readonly flow: Flow;
  readonly roofs: readonly Roof[];
}

const inlineKeys = new WeakMap<object, string>();

/** A key that names the terrain's content; inline terrain is hashed once an object. */
export function terrainKey(terrain: Terrain): string {
  if (terrain.kind === 'asset') return terrain.sha256;
  if ('file' in terrain) return `file:${terrain.file}`;
  const known = inlineKeys.get(terrain);
  if (known !== undefined) return known;
  const key = documentHash(terrain);
  inlineKeys.set(terrain, key);
  return key;
}

/** Grid of an inline terrain. */
export function inlineGrid(terrain: Terrain): Grid | null {
  return terrain.kind === 'grid' && 'z' in terrain ? gridFromLevels(terrain, terrain.z) : null;
}

export type Progress = (part: string, share: number) => void;

export interface GroundContext {
  readonly registry: Pick<Registry, 'describe'>;
  readonly grids: GridSource;
  readonly graph: Graph;
  readonly progress?: Progress;
}

/** What water meets: the terrain with what was seen on it, and how hollows are taken. */
type Surfaced = Pick<GroundModel, 'surface' | 'filled' | 'flow' | 'roofs'>;

/** How water runs over the ground with what was seen on it. */
function runningOver(grid: Grid, features: Project['features'], hollows: (typeof DEFAULT_LAND)['hollows']): Surfaced {
  const roofs = roofsOf(grid, features);
  const led = ledWater(grid, features, roofs);
  const seen = surfaceOf(grid, features, roofs);
  const filled = fillDepressions(seen);
  const flow = flowOf(seen, filled, led);
  if (hollows === 'fill') return { surface: seen, filled, flow, roofs };
  const surface = breachHollows(seen, flow, { hollows: hollowsOf(seen, filled, flow) });
  const cut = fillDepressions(surface);
  return { surface, filled: cut, flow: flowOf(surface, cut, led), roofs };
}

/** What works that are to be made, or were since the survey, make of the ground. One that was there before shows in the survey. */
export const reshapesIn = (works: readonly WorkBase[], { describe }: Pick<Registry, 'describe'>): readonly Reshape[] =>
  liveWorks(works).flatMap((work) => (work.status === 'existing' ? [] : describe(work).reshapes));

/**
 * Terrain as works shape it, hollows filled, and the way each cell's water runs; null while the project has no terrain. Works are
 * those of the active option, or of another.
 */
export function groundModel(project: Project, context: GroundContext, works: readonly WorkBase[] = optionOf(project).works): GroundModel | null {
  const { terrain, features, land = DEFAULT_LAND } = project;
  if (!terrain) return null;
  const { graph, grids, registry, progress = () => undefined } = context;
  const survey = terrainKey(terrain);
  const found = graph.step('ground', [survey], () => {
    progress('reading the terrain', 0.1);
    const grid = inlineGrid(terrain) ?? grids(terrain);
    return { grid: asItself(grid), stats: statsOf(grid), edge: edgeCells(grid) };
  });
  const shapes = graph.same('reshapes', reshapesIn(works, registry));
  const base = graph.step('shaped', [found, { shapes }], (as, { shapes: all }) => {
    if (all.length === 0) return { ...as, surveyed: null };
    const grid = asItself(reshaped(as.grid, all));
    return { ...as, grid, stats: statsOf(grid), surveyed: as.grid };
  });
  const ground = shapes.length === 0 ? survey : `${survey}+${documentHash(shapes)}`;
  // What was seen counts by what it does to water: a note or a name changes nothing.
  const taken = { effect: effectKey(features), hollows: land.hollows };
  return graph.step('surface', [ground, base, taken], (_, { grid }, { effect, hollows }): GroundModel => {
    progress('following the water', 0.4);
    const run = runningOver(grid, features, hollows);
    progress('ready', 1);
    return { key: `${ground}|${effect}|${hollows}`, ground, ...base, ...run };
  });
} // prettier-ignore

/** Slope of the ground at each cell, worked out when a catchment first asks for it. */
export const slopesIn = (model: GroundModel, graph: Graph): Float32Array =>
  graph.step('slopes', [model.grid, model.ground], () => slopesOf(model.grid, model.edge));

/** Hollows of the surface as water meets it, noise among them. */
export const hollowsIn = (model: GroundModel, graph: Graph): Hollow[] =>
  graph.step('hollows', [model], ({ surface, filled, flow }) => hollowsOf(surface, filled, flow));
