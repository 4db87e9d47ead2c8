// Which kind of ground lies where: the ground of the property, its zones, and roofs and pools apart from soil.
import type { Feature } from '../../contract/index.ts';
import { type Line, type Point, contains } from '../../geometry/index.ts';
import { type GroundState, NOW, type Soil, type SoilFacts, soilFacts } from '../../ground/index.ts';
import { type Ground, type Project, healedYearsOf } from '../../project/index.ts';
import type { GroundPart } from '../../runoff/index.ts';
import { type Grid, cellsInside } from '../../terrain/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { GroundModel } from './ground-model.ts';

export interface Surface {
  /** 'ground', a zone's id, 'roofs' or 'pools'. */
  readonly id: string;
  readonly name: string;
  readonly rings: readonly Line[];
  /** West, south, east and north of its rings. */
  readonly box: readonly [number, number, number, number];
  readonly facts: SoilFacts;
}

const boxOf = (rings: readonly Line[]): Surface['box'] => {
  const [xs, ys] = [0, 1].map((k) => rings.flatMap((ring) => ring.map((p) => p[k])));
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
};

/** Every kind of ground, later ones over earlier ones, and which of them each cell has. */
export interface SurfaceMap {
  readonly surfaces: readonly Surface[];
  readonly index: Uint8Array;
}

/** Ground as it will be after the years of healing the project means. */
export const healedState = (ground: Ground): GroundState => ({ as: 'healed', years: healedYearsOf(ground) });

/** Ground as the project wants it worked out. */
export const stateOf = (ground: Ground): GroundState => (ground.as === 'healed' ? healedState(ground) : NOW);

/** Whether any ground has a plan for its healing. */
export const canHeal = (ground: Ground): boolean => [ground, ...(ground.zones ?? [])].some((soil) => soil.healing !== undefined);

const SEALED: Pick<Soil, 'soilGroup' | 'curveNumber' | 'runoffC' | 'infiltrationMmPerHour' | 'soilDepthM'> = {
  soilGroup: 'D',
  curveNumber: null,
  runoffC: null,
  infiltrationMmPerHour: 0,
  soilDepthM: 0,
};

const ringsOf = (features: readonly Feature[], kind: string): Line[] =>
  features.flatMap((f) => (f.kind === kind && f.ring ? [f.ring] : []));

/** All kinds of ground of a project in a state. */
export function surfacesOf({ ground, features }: Pick<Project, 'features'> & { readonly ground: Ground }, state: GroundState): Surface[] {
  const { zones = [] } = ground;
  const sealed = (id: string, name: string, [kind, cover]: readonly [string, string]): Surface[] => {
    const rings = ringsOf(features, kind);
    return rings.length === 0 ? [] : [{ id, name, rings, box: boxOf(rings), facts: soilFacts({ ...SEALED, cover }) }];
  };
  return [
    { id: 'ground', name: 'The property', rings: [], box: boxOf([]), facts: soilFacts(ground, state) },
    ...zones.map((zone) => ({ id: zone.id, name: zone.name, rings: [zone.ring], box: boxOf([zone.ring]), facts: soilFacts(zone, state) })),
    ...sealed('roofs', 'Roofs', ['building', 'paved']),
    ...sealed('pools', 'Pools', ['pool', 'water']),
  ];
}

/** The ground without what says nothing of its kinds: tests are taken by hand, and soil loss has its own figures. */
function kindsOnly({ tests: _, erosion: __, ...kinds }: Ground): Ground {
  return kinds;
}

function indexOf(grid: Grid, rings: readonly (readonly Line[])[]): Uint8Array {
  const made = new Uint8Array(grid.z.length);
  rings.forEach((own, k) => {
    for (const ring of own) for (const cell of cellsInside(grid, ring)) made[cell] = k;
  });
  return made;
}

/** Which surface each cell has, worked out anew only when an outline moves; null while the ground is not described. */
export function surfaceMap({ ground, features }: Project, { grid }: GroundModel, graph: Graph): SurfaceMap | null {
  if (!ground) return null;
  const sealed = features.filter((f) => f.kind === 'building' || f.kind === 'pool');
  const surfaces = graph.step('surfaces', [kindsOnly(ground), sealed], (kinds, seen) =>
    surfacesOf({ ground: kinds, features: seen }, stateOf(kinds)),
  );
  const rings = surfaces.map((s) => s.rings);
  const index = graph.step('surface-index', [grid, rings], indexOf);
  return graph.step('surface-map', [surfaces, index], (made, cells) => ({ surfaces: made, index: cells }));
}

/** Area of each surface among cells [m2]. */
export function sharesOf({ surfaces, index }: SurfaceMap, members: Int32Array, grid: Grid): number[] {
  const count = new Int32Array(surfaces.length);
  if (surfaces.length === 1) count[0] = members.length;
  else for (let k = 0; k < members.length; k++) count[index[members[k]]]++;
  return Array.from(count, (n) => n * grid.cellM ** 2);
}

/** A kind of ground in a catchment. */
export interface SurfacePart extends GroundPart {
  readonly soil: SoilFacts;
}

/** The kinds of ground a catchment has, with their areas; one of no cells at all is still on some ground. */
export function partsOf(surfaces: readonly Surface[], shares: readonly number[]): SurfacePart[] {
  const found = surfaces.flatMap(({ facts }, k) => (shares[k] > 0 ? [{ soil: facts, areaM2: shares[k] }] : []));
  return found.length > 0 ? found : [{ soil: surfaces[0].facts, areaM2: 0 }];
}

/** The ground at a place; what is sealed over does not count, since works are dug in soil. */
export function groundAt(surfaces: readonly Surface[], at: Point): SoilFacts {
  for (let k = surfaces.length - 1; k > 0; k--) {
    const { facts, rings, id, box } = surfaces[k];
    if (at[0] < box[0] || at[1] < box[1] || at[0] > box[2] || at[1] > box[3]) continue;
    if (id !== 'roofs' && id !== 'pools' && rings.some((ring) => contains(ring, at))) return facts;
  }
  return surfaces[0].facts;
}
