// The land a scenario is worked out on: its ground, what lies on it, and the property line.
import type { Site, WorkBase } from '../../contract/index.ts';
import type { Project } from '../../project/index.ts';
import { type GroundContext, type GroundModel, groundModel } from './ground-model.ts';
import { type SurfaceMap, groundAt, surfaceMap } from './surfaces.ts';

export interface World {
  readonly model: GroundModel;
  /** Null while the ground is not described. */
  readonly map: SurfaceMap | null;
  /** The land as techniques see it. */
  readonly site: Site;
}

/** With the works of an option, which may shape the ground; left out, of the active one. Null while there is no terrain. */
export function worldOf(project: Project, context: GroundContext, works?: readonly WorkBase[]): World | null {
  const { graph } = context;
  const model = groundModel(project, context, works);
  if (!model) return null;
  const map = surfaceMap(project, model, graph);
  const drawn = { outline: project.site.outline, features: project.features };
  const site = graph.step(
    'site',
    [{ grid: model.grid, surveyed: model.surveyed }, drawn, map],
    ({ grid, surveyed }, { outline, features }, kinds): Site => ({
      grid,
      ...(surveyed ? { surveyed } : {}),
      outline,
      features,
      soilAt: (at) => (kinds ? groundAt(kinds.surfaces, at) : null),
    }),
  );
  return graph.step('world', [model, map, site], (ground, kinds, land) => ({ model: ground, map: kinds, site: land }));
}
