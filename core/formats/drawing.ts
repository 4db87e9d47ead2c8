// The whole plan as one drawing for other programs: layers of points, lines and areas, each with its levels and what it is.
import type { Derived } from '../derive/index.ts';
import type { Line, Point } from '../geometry/index.ts';
import { type Project, optionOf } from '../project/index.ts';
import { THINGS } from '../seen/index.ts';
import type { ContourLines } from '../terrain/index.ts';
import type { Catalogue } from '../works/index.ts';

export interface DrawnThing {
  readonly layer: string;
  readonly name: string;
  readonly form: 'point' | 'line' | 'ring';
  /** East, north and level; null where no level is told [m]. */
  readonly places: readonly (readonly [x: number, y: number, levelM: number | null])[];
  /** What else is told of it, by name with its unit. */
  readonly says: Readonly<Record<string, string | number | null>>;
}

const flat = (line: Line): DrawnThing['places'] => line.map(([x, y]) => [x, y, null]);
const at = ([x, y]: Point): DrawnThing['places'] => [[x, y, null]];

const titleOf = new Map(THINGS.map(({ kind, title }) => [kind, title]));

function thingsOf({ site, features, pins }: Project): DrawnThing[] {
  const outline: DrawnThing = { layer: 'Property line', name: 'Property line', form: 'ring', places: flat(site.outline), says: {} };
  return [
    ...(site.outline.length > 2 ? [outline] : []),
    ...features.flatMap(({ kind, name, ring, line, at: place }): DrawnThing[] => {
      const told = { layer: titleOf.get(kind) ?? kind, name: name ?? titleOf.get(kind) ?? kind, says: {} };
      if (ring) return [{ ...told, form: 'ring', places: flat(ring) }];
      if (line) return [{ ...told, form: 'line', places: flat(line) }];
      return place ? [{ ...told, form: 'point', places: at(place) }] : [];
    }),
    ...pins.map((pin): DrawnThing => ({ layer: 'Pins', name: pin.name ?? pin.id, form: 'point', places: at(pin.at), says: {} })),
  ];
}

/** What a work holds in all its stores and keeps free at the least; its levels where it has one store alone. */
function heldBy(stores: Derived['stores']): DrawnThing['says'] {
  if (stores.length === 0) return {};
  const left = stores.map((s) => s.least?.value ?? null);
  const [{ crestM, wayOutM }] = stores;
  return {
    heldM3: stores.reduce((sum, s) => sum + s.heldM3, 0),
    ...(stores.length === 1 ? { crestM, wayOutM } : { stores: stores.length }),
    leastFreeboardM: left.some((v) => v === null) ? null : Math.min(...left.map(Number)),
  };
}

/** Works that stand or are to be made, by their own lines; what hangs on another by the place its water leaves at. */
function worksOf(project: Project, { stores, links, outlets }: Derived, { describe }: Pick<Catalogue, 'describe'>): DrawnThing[] {
  const live = optionOf(project).works.filter((w) => w.status !== 'retired');
  return live.flatMap((work): DrawnThing[] => {
    const { title, footprint } = describe(work);
    const held = heldBy(stores.filter((s) => s.work === work.id));
    const told = { layer: `Works: ${title}`, name: work.name, says: { status: work.status, ...held } };
    const start = links.find((l) => l.work === work.id)?.path[0];
    if (footprint.length === 0) {
      const levelM = outlets.find((o) => o.work === work.id)?.levelM ?? null;
      return start ? [{ ...told, form: 'point', places: [[start[0], start[1], levelM]] }] : [];
    }
    return footprint.map((line): DrawnThing => ({ ...told, form: line.length > 1 ? 'line' : 'point', places: flat(line) }));
  });
}

function waterOf(project: Project, { stores, links, catchments, pegs }: Derived): DrawnThing[] {
  const names = new Map([...project.pins.map((p) => [p.id, p.name ?? p.id] as const), ...optionOf(project).works.map((w) => [w.id, w.name] as const), ...stores.map((s) => [s.id, s.name] as const)]);
  return [
    ...links.flatMap(({ work, to, path, peakM3s, volumeM3 }): DrawnThing[] =>
      path.length < 2 ? [] : [{ layer: 'Ways of water', name: names.get(work) ?? work, form: 'line', places: path, says: { to, peakM3s, volumeM3 } }],
    ),
    ...catchments.map(({ of, ring, areaM2, meanSlope }): DrawnThing => ({ layer: 'Catchments', name: names.get(of) ?? of, form: 'ring', places: flat(ring), says: { areaM2, meanSlope } })),
    ...pegs.map((p): DrawnThing => ({ layer: 'Pegs', name: `${names.get(p.work) ?? p.work}: ${p.name}`, form: 'point', places: [[p.x, p.y, p.levelM]], says: { sets: p.role, levelM: p.levelM, cutM: p.cutM } })),
  ];
} // prettier-ignore

function contoursOf({ xy, starts, levelM }: ContourLines): DrawnThing[] {
  return Array.from({ length: Math.max(0, starts.length - 1) }, (_, k): DrawnThing => {
    const places = Array.from({ length: starts[k + 1] - starts[k] }, (__, i) => [xy[2 * (starts[k] + i)], xy[2 * (starts[k] + i) + 1], levelM[k]] as const);
    return { layer: 'Contours', name: `${levelM[k]} m`, form: 'line', places, says: { levelM: levelM[k] } };
  }).filter(({ places }) => places.length > 1);
} // prettier-ignore

/** Everything there is to draw of a project as it was worked out. */
export const drawingOf = (
  project: Project,
  derived: Derived,
  on: { readonly catalogue: Pick<Catalogue, 'describe'>; readonly contours: ContourLines | null },
): readonly DrawnThing[] => [
  ...thingsOf(project),
  ...worksOf(project, derived, on.catalogue),
  ...waterOf(project, derived),
  ...(on.contours ? contoursOf(on.contours) : []),
];
