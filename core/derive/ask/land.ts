// Questions about the land that are worked out when they are asked.
import { type Line, type Point, contains, lineLength } from '../../geometry/index.ts';
import { type Project, fail, optionOf } from '../../project/index.ts';
import {
  type CatchmentShape,
  type ContourLines,
  type Departure,
  type FallLine,
  type Place,
  type RunOn,
  type Sun,
  type ValleyLine,
  type WallStorage,
  type WaterAt,
  SLOPE_CLASSES,
  areaByClass,
  catchingOn,
  cellAt,
  cellsInside,
  cellsUnder,
  centreOf,
  contourLines,
  departureOf,
  derivativesOf,
  evened,
  fallBetween,
  hillshade,
  isRidge,
  isValley,
  knownOver,
  perCell,
  levelAt,
  levelsEvery,
  outlineOf,
  placesOf,
  profile,
  refineContours,
  ridgeLines,
  runOnto,
  setOf,
  shapeOf,
  spreadArea,
  stageIn,
  storageBehind,
  traceDown,
  upstreamOf,
  valleyLines,
  waterIn,
  wetnessOf,
} from '../../terrain/index.ts';
import { shedsLayer, soilLossLayer } from './ground-questions.ts';
import { beginWorks } from './begin.ts';
import { builtGround } from './built.ts';
import { howKnown } from './known.ts';
import type { RoomContext } from '../set/laid.ts';
import { liveWorks } from '../scenario/scenario.ts';
import { compareWithout, reopen } from './compare.ts';
import { type GroundModel, groundModel, hollowsIn, slopesIn } from '../world/ground-model.ts';
import { knownIn } from '../world/world.ts';

function modelOf(project: Project, context: RoomContext): GroundModel {
  return (
    groundModel(project, context) ??
    fail('terrain.missing', 'there is no ground yet', { do: 'Bring in a terrain grid or survey points first.' })
  );
}

export const LAYERS = ['slope', 'aspect', 'profile', 'plan', 'wetness', 'area', 'hollows', 'sheds', 'soil-loss', 'known'] as const;
export type LayerName = (typeof LAYERS)[number];

/** Values of a layer, cell by cell, NaN where it has none. Units: m/m, degrees, 1/m, 1/m, ln m, m2, m, mm, t/(ha yr), m. */
export function layerOf(project: Project, context: RoomContext, { layer }: { readonly layer: LayerName }): Float32Array {
  const model = modelOf(project, context);
  const { grid, filled, surface } = model;
  if (layer === 'sheds') return shedsLayer(project, context);
  if (layer === 'soil-loss') return soilLossLayer(project, context);
  if (layer === 'known') return knownOver(knownIn(project, context), grid);
  if (layer === 'area')
    return context.graph
      .step('spread', [model], () => {
        const cells = spreadArea(surface, filled);
        return perCell(grid, (i) => (Number.isNaN(grid.z[i]) ? NaN : cells[i] * grid.cellM ** 2));
      })
      .slice();
  if (layer === 'hollows') return perCell(grid, (i) => (filled[i] - surface.z[i] > 0.02 ? filled[i] - surface.z[i] : NaN));
  const made = context.graph.step('derivatives', [grid], derivativesOf);
  if (layer !== 'wetness') return made[layer].slice();
  return wetnessOf(spreadArea(surface, filled), made.slope, grid.cellM);
}

/** Area of each slope class [m2]. */
export function slopeAreas(project: Project, context: RoomContext): { readonly id: string; readonly areaM2: number }[] {
  const model = modelOf(project, context);
  const { slope } = context.graph.step('derivatives', [model.grid], derivativesOf);
  const area = areaByClass(model.grid, slope);
  return SLOPE_CLASSES.map((c, k) => ({ id: c.id, areaM2: area[k] }));
}

export function shadeOf(project: Project, context: RoomContext, { sun }: { readonly sun: Sun }): Uint8ClampedArray {
  return hillshade(modelOf(project, context).grid, sun);
}

/** Up to this many points contours are made smoother: more are too fine on the screen for it to show. */
const REFINED_POINTS = 60_000;

/** Every so many corners of each line, its ends always: lines of more corners than are asked for are drawn with fewer. */
function thinned({ xy, starts, levelM }: ContourLines, most: number): ContourLines {
  const stride = Math.ceil(xy.length / 2 / most);
  if (stride <= 1) return { xy, starts, levelM };
  const kept: number[] = [];
  const begins = new Int32Array(starts.length);
  for (let k = 0; k + 1 < starts.length; k++) {
    for (let p = starts[k]; p < starts[k + 1]; p++)
      if ((p - starts[k]) % stride === 0 || p === starts[k + 1] - 1) kept.push(xy[2 * p], xy[2 * p + 1]);
    begins[k + 1] = kept.length / 2;
  }
  return { xy: Float64Array.from(kept), starts: begins, levelM };
}

/** Contours at an interval [m]; `most` corners in all, where a picture needs no more. */
export function contoursOf(
  project: Project,
  context: RoomContext,
  { intervalM, most = Infinity }: { readonly intervalM: number; readonly most?: number },
): ContourLines {
  const { grid } = modelOf(project, context);
  const levels = levelsEvery(grid, intervalM);
  if (levels.count > 2000) {
    return fail('contour.interval', `an interval of ${intervalM} m makes ${levels.count} contours`, { do: 'Choose a wider interval.' });
  }
  const lines = contourLines(grid, levels);
  return lines.xy.length <= 2 * REFINED_POINTS ? refineContours(grid, lines) : thinned(lines, most);
}

/** The contour through a place, the piece nearest to it; null off the ground or where it is level. */
export function contourThrough(
  project: Project,
  context: RoomContext,
  { at }: { readonly at: Point },
): { levelM: number; line: Point[] } | null {
  const { grid } = modelOf(project, context);
  const levelM = levelAt(grid, at);
  if (Number.isNaN(levelM)) return null;
  const { xy, starts } = refineContours(grid, contourLines(grid, { firstM: levelM, intervalM: 1, count: 1 }));
  let best: { line: Point[]; d: number } | null = null;
  for (let k = 0; k + 1 < starts.length; k++) {
    const line = Array.from({ length: starts[k + 1] - starts[k] }, (_, i): Point => [xy[2 * (starts[k] + i)], xy[2 * (starts[k] + i) + 1]]);
    const d = Math.min(...line.map((p) => Math.hypot(p[0] - at[0], p[1] - at[1])));
    if (line.length > 1 && (!best || d < best.d)) best = { line, d };
  }
  return best && best.d <= 2 * grid.cellM ? { levelM, line: best.line } : null;
}

export interface RunOnAnswer {
  /** Along a line; null for an area. */
  readonly run: RunOn | null;
  /** Ground whose water comes here, the place itself left out [m2]. */
  readonly aboveM2: number;
  readonly shape: CatchmentShape;
}

/** What runs onto a line (per metre) or an area (a building, a pool, a road). Water that a work meets first is not counted on a line. */
export function runOn(project: Project, context: RoomContext, place: { readonly line?: Line; readonly ring?: Line }): RunOnAnswer | null {
  const model = modelOf(project, context);
  const { grid, flow, edge } = model;
  const cells = place.ring ? cellsInside(grid, place.ring) : [...cellsUnder(grid, place.line ?? [])];
  if (cells.length === 0) return null;
  const set = upstreamOf(flow, cells);
  const shape = shapeOf(grid, flow, { ...set, edge, slopes: slopesIn(model, context.graph) });
  const aboveM2 = (set.members.length - cells.length) * grid.cellM ** 2;
  if (!place.line || place.ring) return { run: null, aboveM2, shape };
  const intakes = liveWorks(optionOf(project).works).flatMap((w) => context.registry.bind(w).intakes);
  const others = intakes.filter((i) => JSON.stringify(i.line) !== JSON.stringify(place.line));
  const owner = catchingOn(grid, [{ line: place.line, number: 1 }, ...others.map((where) => ({ ...where, number: 2 }))]);
  return {
    run: runOnto(grid, flow, { line: place.line, owner, own: 1, stepM: Math.max(5, 2 * grid.cellM, lineLength(place.line) / 40) }),
    aboveM2,
    shape,
  };
}

export function departure(project: Project, context: RoomContext, { line }: { readonly line: Line }): Departure | null {
  const { grid } = modelOf(project, context);
  return departureOf(grid, line, Math.max(grid.cellM / 2, lineLength(line) / 200));
}

export function fall(
  project: Project,
  context: RoomContext,
  ask: { readonly from: Point; readonly to: Point; readonly gradeM: number },
): FallLine | null {
  return fallBetween(modelOf(project, context).grid, ask);
}

/** What a wall along a line would hold, with the water's outline. */
export function storage(
  project: Project,
  context: RoomContext,
  { line, levelM }: { readonly line: Line; readonly levelM?: number },
): (WallStorage & { ring: readonly Point[] }) | null {
  const { grid } = modelOf(project, context);
  const found = storageBehind(grid, line, levelM);
  return found ? { ...found, ring: ringOf(grid, found.cells) } : null;
}

const ringOf = (grid: GroundModel['grid'], cells: readonly number[]): Point[] =>
  outlineOf(grid, setOf(Int32Array.from(cells), grid.z.length));

/** Stage table of the hollow at a place, and its water as an outline; null where there is none. */
export function hollowAt(
  project: Project,
  context: RoomContext,
  { at }: { readonly at: Point },
): { stage: WaterAt[]; full: WaterAt; ring: Point[] } | null {
  const model = modelOf(project, context);
  const cell = cellAt(model.grid, at);
  const hollow = hollowsIn(model, context.graph).find((h) => h.cells.includes(cell));
  if (!hollow) return null;
  return {
    stage: stageIn(model.surface, hollow, { toM: hollow.spillM }),
    full: waterIn(model.surface, hollow, { levelM: hollow.spillM }),
    ring: ringOf(model.grid, hollow.cells),
  };
}

/** Ground along a line or down a flow path. */
export interface Section {
  readonly points: readonly { readonly atM: number; readonly levelM: number; readonly at: Point }[];
  readonly lengthM: number;
  readonly fallM: number;
  readonly ends: 'property-edge' | 'terrain-edge' | 'line';
}

function sectionOf(points: Section['points'], ends: Section['ends']): Section {
  const known = points.filter((p) => !Number.isNaN(p.levelM));
  const fallM = known.length > 1 ? known[0].levelM - known[known.length - 1].levelM : 0;
  return { points: known, lengthM: points.length > 0 ? points[points.length - 1].atM : 0, fallM, ends };
}

export function sectionAlong(project: Project, context: RoomContext, { line }: { readonly line: Line }): Section {
  const { grid } = modelOf(project, context);
  const points = profile(grid, line, Math.max(grid.cellM / 2, lineLength(line) / 400));
  return sectionOf(
    points.map((p) => ({ atM: p.atM, levelM: p.levelM, at: p.point })),
    'line',
  );
}

/** The way of a drop from a place to the property line or the edge of the terrain. */
export function pathDown(project: Project, context: RoomContext, { from }: { readonly from: Point }): Section {
  const { grid, flow } = modelOf(project, context);
  const { outline } = project.site;
  const hasOutline = outline.length >= 3 && contains(outline, from);
  let ends: Section['ends'] = 'terrain-edge';
  const { path } = traceDown({ grid, flow }, from, (cell) => {
    const left = hasOutline && !contains(outline, centreOf(grid, cell));
    if (left) ends = 'property-edge';
    return left;
  });
  let atM = 0;
  const points = path.map(([x, y, levelM], k) => {
    if (k > 0) atM += Math.hypot(x - path[k - 1][0], y - path[k - 1][1]);
    return { atM, levelM, at: [x, y] as Point };
  });
  return sectionOf(points, ends);
}

/** Share of the ground that must gather for a valley to be named, and its bounds [m2]. */
const VALLEY_SHARE = 0.012;
const [LEAST_VALLEY_M2, MOST_VALLEY_M2] = [1500, 40_000];

export interface PlacesAnswer {
  readonly valleys: readonly { readonly points: readonly Point[]; readonly areaM2: number }[];
  readonly ridges: readonly { readonly points: readonly Point[] }[];
  readonly places: readonly Place[];
}

/** Valleys, ridges, key points, chokes, gully heads and standing water; empty lists on ground with none. */
export function places(project: Project, context: RoomContext): PlacesAnswer {
  const model = modelOf(project, context);
  const { grid, flow, stats } = model;
  return context.graph.step('places', [model], () => {
    const least = Math.min(MOST_VALLEY_M2, Math.max(LEAST_VALLEY_M2, VALLEY_SHARE * stats.areaM2));
    const bare = ({ points, areaM2 }: ValleyLine): { points: readonly Point[]; areaM2: number } => ({ points: evened(points), areaM2 });
    const valleys = valleyLines(grid, flow, least).filter((line) => isValley(grid, line));
    const ridges = ridgeLines(grid, least).filter((line) => isRidge(grid, line));
    const standing = hollowsIn(model, context.graph)
      .filter((h) => !h.isNoise)
      .slice(0, 8)
      .map((h): Place => ({
        kind: 'standing-water',
        at: h.at,
        levelM: h.bottomM,
        areaM2: flow.cells[h.bottom] * grid.cellM ** 2,
        score: h.volumeM3,
        facts: { depthM: h.depthM, volumeM3: h.volumeM3, spillM: h.spillM, surfaceM2: h.areaM2 },
      }));
    return {
      valleys: valleys.slice(0, 60).map(bare),
      ridges: ridges.slice(0, 60).map(bare),
      places: [...placesOf(grid, flow, valleys), ...standing],
    };
  });
}

export const LAND_QUESTIONS = {
  layer: layerOf,
  slopeAreas,
  shade: shadeOf,
  contours: contoursOf,
  contourThrough,
  runOn,
  departure,
  fall,
  storage,
  hollowAt,
  sectionAlong,
  pathDown,
  places,
  compare: compareWithout,
  reopen,
  begin: beginWorks,
  builtGround,
  known: howKnown,
} as const;
