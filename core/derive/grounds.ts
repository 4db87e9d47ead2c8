// What the design storm does on each kind of ground of the property.
import type { Project } from '../project/index.ts';
import type { Storm } from '../rain/index.ts';
import { partRain } from '../runoff/index.ts';
import { cellsInside } from '../seen/index.ts';
import { choiceFor } from './hydrology.ts';
import type { Memo } from './memo.ts';
import { type Surface, surfaceMap } from './surfaces.ts';
import type { GroundModel } from './terrain-steps.ts';
import type { DerivedGround } from './types.ts';

export interface GroundsInput {
  readonly model: GroundModel;
  readonly memo: Memo;
  readonly surfaces: readonly Surface[];
  readonly storm: Storm | null;
}

/** Area of each surface within the property line, or on the whole map without one [m2]. */
export function surfaceAreas(project: Project, { model, memo }: Pick<GroundsInput, 'model' | 'memo'>): readonly number[] {
  const map = surfaceMap(project, { grid: model.grid, groundKey: model.ground, memo });
  if (!map) return [];
  const { outline } = project.site;
  return memo.step('surface-areas', `${memo.stamp('surfaces')}|${JSON.stringify(outline)}`, () => {
    const count = new Float64Array(map.surfaces.length);
    const add = (i: number): void => {
      if (!Number.isNaN(model.grid.z[i])) count[map.index[i]] += model.grid.cellM ** 2;
    };
    if (outline.length >= 3) for (const i of cellsInside(model.grid, outline)) add(i);
    else for (let i = 0; i < map.index.length; i++) add(i);
    return Array.from(count);
  });
}

export function groundsOf(project: Project, on: GroundsInput): DerivedGround[] {
  const { surfaces, storm } = on;
  const areas = surfaceAreas(project, on);
  const choice = choiceFor(project, '');
  return surfaces.map(({ id, name, facts }, k) => {
    const { curveNumber, infiltrationMmPerHour, soilDepthM } = facts;
    const told = { id, name, areaM2: areas[k] ?? 0, curveNumber, infiltrationMmPerHour, soilDepthM };
    if (!storm) return { ...told, rainMm: null, soaksMm: null, standsMm: null, runsMm: null };
    const key = JSON.stringify([project.rain, storm.stepMin, facts, project.runoff]);
    const parted = on.memo.step(`ground-storm:${id}`, key, () => {
      const { runsMm, ...rest } = partRain(storm.stepsMm, storm.stepMin / 60, { soil: facts, choice });
      return { ...rest, runsMm: runsMm.reduce((a, v) => a + v, 0) };
    });
    return { ...told, ...parted };
  });
}
