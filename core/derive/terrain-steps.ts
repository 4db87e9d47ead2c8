import {
  type Flow,
  type Grid,
  type Hollow,
  type TerrainStats,
  breachHollows,
  edgeCells,
  fillDepressions,
  flowOf,
  gridFromLevels,
  hollowsOf,
  slopesOf,
  statsOf,
} from '../terrain/index.ts';
import { DEFAULT_LAND, type Project, type Terrain, documentHash } from '../project/index.ts';
import { type Roof, effectKey, ledWater, roofsOf, surfaceOf } from '../seen/index.ts';
import type { Memo } from './memo.ts';

/** Gives the grid of a terrain asset or file; throws a UserError when it is not there. */
export type GridSource = (terrain: Terrain) => Grid;

export interface GroundModel {
  readonly key: string;
  /** Names the ground as surveyed. */
  readonly ground: string;
  /** The ground as surveyed. */
  readonly grid: Grid;
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
  readonly grids: GridSource;
  readonly memo: Memo;
  readonly progress?: Progress;
}

/** What a surface is known by: the terrain, what was seen on it, and how hollows are taken. */
function surfaceKey({ terrain, features, land = DEFAULT_LAND }: Project): string {
  return terrain ? `${terrainKey(terrain)}|${effectKey(features)}|${land.hollows}` : '';
}

interface Running {
  readonly surface: Grid;
  readonly filled: Float64Array;
  readonly flow: Flow;
  readonly roofs: readonly Roof[];
}

/** How water runs over the ground with what was seen on it. */
function runningOver(grid: Grid, { features, land = DEFAULT_LAND }: Project): Running {
  const roofs = roofsOf(grid, features);
  const led = ledWater(grid, features, roofs);
  const seen = surfaceOf(grid, features, roofs);
  const filled = fillDepressions(seen);
  const flow = flowOf(seen, filled, led);
  if (land.hollows === 'fill') return { surface: seen, filled, flow, roofs };
  const surface = breachHollows(seen, flow, { hollows: hollowsOf(seen, filled, flow) });
  const cut = fillDepressions(surface);
  return { surface, filled: cut, flow: flowOf(surface, cut, led), roofs };
}

/**
 * Terrain, hollows filled, and the way each cell's water runs; null while the project has no terrain. `slot` names the
 * place its result is kept in, so that a model made for a question does not push out the one in use.
 */
export function groundModel(project: Project, context: GroundContext, slot = 'surface'): GroundModel | null {
  const { terrain } = project;
  if (!terrain) return null;
  const progress = context.progress ?? (() => undefined);
  const base = context.memo.step('ground', terrainKey(terrain), () => {
    progress('reading the terrain', 0.1);
    const grid = inlineGrid(terrain) ?? context.grids(terrain);
    return { grid, stats: statsOf(grid), edge: edgeCells(grid) };
  });
  const key = surfaceKey(project);
  const running = context.memo.step(slot, key, () => {
    progress('following the water', 0.4);
    const run = runningOver(base.grid, project);
    progress('ready', 1);
    return run;
  });
  return { key, ground: terrainKey(terrain), ...base, ...running };
}

/** Slope of the ground at each cell, worked out when a catchment first asks for it. */
export function slopesIn({ grid, edge, ground }: GroundModel, memo: Memo): Float32Array {
  return memo.step('slopes', ground, () => slopesOf(grid, edge));
}

/** Hollows of the surface as water meets it, noise among them. */
export function hollowsIn(model: GroundModel, memo: Memo): Hollow[] {
  return memo.step('hollows', model.key, () => hollowsOf(model.surface, model.filled, model.flow));
}
