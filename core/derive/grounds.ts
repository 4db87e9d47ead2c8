// What the design storm does on each kind of ground of the property.
import { NOW, type SoilFacts } from '../ground/index.ts';
import { DEFAULT_HEALED_YEARS, type Ground, type Project } from '../project/index.ts';
import type { Storm } from '../rain/index.ts';
import { type Parted, partRain } from '../runoff/index.ts';
import { insideOf } from './catchments.ts';
import { choiceFor } from './hydrology.ts';
import type { Memo } from './memo.ts';
import { type Surface, surfaceMap, surfacesOf } from './surfaces.ts';
import type { GroundModel } from './terrain-steps.ts';
import type { DerivedGround } from './types.ts';

export interface GroundsInput {
  readonly model: GroundModel;
  readonly memo: Memo;
  readonly surfaces: readonly Surface[];
  readonly storm: Storm | null;
}

/** Area of each surface within the property line, or on the whole map without one [m2]. */
function surfaceAreas(project: Project, { model, memo }: GroundsInput): readonly number[] {
  const map = surfaceMap(project, { grid: model.grid, groundKey: model.ground, memo });
  if (!map) return [];
  const inside = insideOf(model, project, memo);
  return memo.step('surface-areas', `${memo.stamp('surfaces')}|${memo.stamp('inside')}`, () => {
    const count = new Float64Array(map.surfaces.length);
    for (let i = 0; i < inside.length; i++) if (inside[i] === 1) count[map.index[i]]++;
    return Array.from(count, (n) => n * model.grid.cellM ** 2);
  });
}

export function groundsOf(project: Project & { readonly ground: Ground }, on: GroundsInput): DerivedGround[] {
  const { surfaces, storm, memo } = on;
  const { ground, features } = project;
  const areas = surfaceAreas(project, on);
  const choice = choiceFor(project, '');
  const parted = (id: string, facts: SoilFacts, mm: Storm): Omit<Parted, 'runsMm'> & { readonly runsMm: number } => {
    const key = JSON.stringify([project.rain, mm.stepMin, facts, project.runoff]);
    return memo.step(id, key, () => {
      const { runsMm, ...rest } = partRain(mm.stepsMm, mm.stepMin / 60, { soil: facts, choice });
      return { ...rest, runsMm: runsMm.reduce((a, v) => a + v, 0) };
    });
  };
  const healed = surfacesOf({ ground, features }, { as: 'healed', years: ground.healedYears ?? DEFAULT_HEALED_YEARS });
  const now = surfacesOf({ ground, features }, NOW);
  return surfaces.map(({ id, name, facts }, k) => {
    const { curveNumber, infiltrationMmPerHour, soilDepthM } = facts;
    const told = { id, name, areaM2: areas[k] ?? 0, curveNumber, infiltrationMmPerHour, soilDepthM };
    if (!storm) return { ...told, rainMm: null, soaksMm: null, standsMm: null, runsMm: null, runsNowMm: null, runsHealedMm: null };
    const heals = facts.soil.healing !== undefined;
    return {
      ...told,
      ...parted(`ground-storm:${id}`, facts, storm),
      runsNowMm: heals ? parted(`ground-now:${id}`, now[k].facts, storm).runsMm : null,
      runsHealedMm: heals ? parted(`ground-healed:${id}`, healed[k].facts, storm).runsMm : null,
    };
  });
}
