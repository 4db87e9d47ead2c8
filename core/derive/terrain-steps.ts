import { type Flow, type Grid, type TerrainStats, edgeCells, fillDepressions, flowOf, gridFromLevels, statsOf } from '../terrain/index.ts';
import { type Project, type Terrain, documentHash } from '../project/index.ts';
import type { Memo } from './memo.ts';

/** Gives the grid of a terrain asset or file; throws a UserError when it is not there. */
export type GridSource = (terrain: Terrain) => Grid;

export interface GroundModel {
  readonly key: string;
  readonly grid: Grid;
  readonly stats: TerrainStats;
  readonly edge: Uint8Array;
  readonly flow: Flow;
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

/** Terrain, hollows filled, and the way each cell's water runs; null while the project has no terrain. */
export function groundModel(
  project: Project,
  context: { readonly grids: GridSource; readonly memo: Memo; readonly progress?: Progress },
): GroundModel | null {
  const { terrain } = project;
  if (!terrain) return null;
  const key = terrainKey(terrain);
  return context.memo.step('ground', key, () => {
    const progress = context.progress ?? (() => undefined);
    progress('reading the terrain', 0.1);
    const grid = inlineGrid(terrain) ?? context.grids(terrain);
    progress('filling hollows', 0.3);
    const filled = fillDepressions(grid);
    progress('following the water', 0.7);
    const flow = flowOf(grid, filled);
    progress('ready', 1);
    return { key, grid, stats: statsOf(grid), edge: edgeCells(grid), flow };
  });
}
