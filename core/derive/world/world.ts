// The land a scenario is worked out on: its ground, what lies on it, and the property line.
import type { Site, WorkBase } from '../../contract/index.ts';
import type { Project, SurveyPart } from '../../project/index.ts';
import { type SurveyKnown, blendsOf } from '../../terrain/index.ts';
import { asItself } from '../graph/graph.ts';
import { type GroundContext, type GroundModel, groundModel } from './ground-model.ts';
import { type SurfaceMap, groundAt, surfaceMap } from './surfaces.ts';

export interface World {
  readonly model: GroundModel;
  /** Null while the ground is not described. */
  readonly map: SurfaceMap | null;
  /** The land as techniques see it. */
  readonly site: Site;
  /** How near the ground is known, by each survey it is made of. */
  readonly known: readonly SurveyKnown[];
}

/** How near the ground is known, by each survey it is made of; none where nobody kept count. */
export function knownIn({ terrain }: Project, { graph, grids }: Pick<GroundContext, 'graph' | 'grids'>): readonly SurveyKnown[] {
  const none: readonly SurveyPart[] = [];
  return graph.step('known', [terrain?.surveys ?? none], (surveys) =>
    surveys.map(({ name, levelsM = null, growsBy = null, away: sha256, featherM = 0 }): SurveyKnown => {
      const away = sha256 === undefined ? null : asItself(grids({ kind: 'asset', sha256, source: name }));
      return { levelsM, growsBy, away, blends: away && featherM > 0 ? asItself(blendsOf(away, featherM)) : null };
    }),
  );
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
  const known = knownIn(project, context);
  return graph.step('world', [model, map, { site, known }], (ground, kinds, on) => ({ model: ground, map: kinds, ...on }));
}
