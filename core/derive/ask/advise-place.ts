// A place somebody asks about, measured: its fall, its ground, what drains to it, and along what works would be drawn there.
import type { Feature, Place, PlaceSaid } from '../../contract/index.ts';
import {
  type Line,
  type Point,
  closed,
  contains,
  distance,
  lineLength,
  middleOf,
  nearestBetween,
  nearestOnLine,
  pointAlong,
  signedArea,
  simplify,
} from '../../geometry/index.ts';
import { type Project, fail } from '../../project/index.ts';
import { type Grid, STEP_COL, STEP_ROW, cellAt, cellsInside, centreOf, gradientAt, levelAt, upstreamOf } from '../../terrain/index.ts';
import { keyContour } from '../../works/index.ts';
import type { RoomContext } from '../set/laid.ts';
import { type GroundModel, groundModel } from '../world/ground-model.ts';
import { groundAt, stateOf, surfacesOf } from '../world/surfaces.ts';
import { layerOf } from './land.ts';
import { runsAt } from './place.ts';

export interface PlaceAsked extends Partial<PlaceSaid> {
  /** A field by its outline, or a channel along its bed. */
  readonly ring?: Line;
  readonly line?: Line;
}

const SAID: PlaceSaid = { stone: 'unknown', bed: 'unknown', machine: 'unknown', purpose: 'any' };
/** What lies within this of a place, and lower, lies right below it [m]. */
const BELOW_M = 25;
const MUST_STAY_DRY: ReadonlySet<string> = new Set(['building', 'paved', 'road', 'track']);

type Shapes = Place['shapes'];
const NO_SHAPES: Omit<Shapes, 'own'> = { contour: null, down: null, falling: null, across: null, lip: null, low: null };

const shapeOf = ({ ring, line, at }: Feature): Line | null => (ring ? closed(ring) : (line ?? (at ? [at, at] : null)));
const isKnown = (grid: Grid, line: Line): boolean => line.every((p) => !Number.isNaN(levelAt(grid, p)));

/** What stands near, and lower. */
function nearTo(own: Line, project: Project, grid: Grid): Pick<Place, 'houseM' | 'driveBelow'> {
  const ring = own.length > 2 ? closed(own) : own;
  // A corner off the terrain tells nothing.
  const lowest = ring.map((p) => levelAt(grid, p)).reduce((a, v) => (v < a ? v : a), Infinity);
  let houseM: number | null = null;
  let driveBelow = false;
  for (const feature of project.features) {
    const shape = MUST_STAY_DRY.has(feature.kind) ? shapeOf(feature) : null;
    if (!shape || shape.length < 2) continue;
    const near = nearestBetween(ring, shape);
    const away = contains(own, shape[0]) ? INSIDE_M : near.distanceM;
    if (feature.kind === 'building') houseM = houseM === null ? away : Math.min(houseM, away);
    if (away <= BELOW_M && levelAt(grid, near.point) < lowest + LEVEL_WITH_M) driveBelow = true;
  }
  return { houseM, driveBelow };
}
const INSIDE_M = 0;
/** So little over the lowest ground of a place is as low [m]. */
const LEVEL_WITH_M = 0.2;

/** Soil and cover there; null while nobody has described the ground. */
function groundOf(project: Project, at: Point): Pick<Place, 'soilDepthM' | 'rateMmPerHour' | 'isBare'> {
  const { ground } = project;
  if (!ground) return { soilDepthM: null, rateMmPerHour: null, isBare: null };
  const { soilDepthM, infiltrationMmPerHour, cover } = groundAt(surfacesOf({ ...project, ground }, stateOf(ground)), at);
  return { soilDepthM, rateMmPerHour: infiltrationMmPerHour, isBare: cover.strength.curveIndex === null && !cover.isSealed };
}

/** A chain of basins goes down in steps of so much; a drain falls so steeply; a first pond is as wide as this [m, m/m, m]. */
const [STEP_M, DRAIN_FALL, POND_M] = [5, 0.006, 14];

/** Along what works would be drawn in a field. */
function fieldShapes(ring: Line, grid: Grid, slope: number): Shapes {
  const contour = keyContour(ring, grid);
  const middle = contour ? pointAlong(contour, lineLength(contour) / 2).point : middleOf(ring);
  const [gx, gy] = gradientAt(grid, middle, Math.max(4, 1.5 * grid.cellM));
  const steep = Math.hypot(gx, gy);
  const to = (away: number): Point => [middle[0] - (gx / steep) * away, middle[1] - (gy / steep) * away];
  const chain = steep > 1e-4 ? [to(-STEP_M), to(0), to(STEP_M)] : [];
  const falling =
    contour && slope > DRAIN_FALL
      ? Array.from({ length: 9 }, (_, k): Point => {
          const atM = (lineLength(contour) * k) / 8;
          const { point, direction } = pointAlong(contour, atM);
          const down = (DRAIN_FALL * atM) / slope;
          return [point[0] + direction[1] * down, point[1] - direction[0] * down];
        })
      : null;
  const cells = cellsInside(grid, ring).filter((c) => !Number.isNaN(grid.z[c]));
  const lowest = cells.reduce((best, c) => (grid.z[c] < grid.z[best] ? c : best), cells[0]);
  const [lx, ly] = centreOf(grid, lowest);
  const half = POND_M / 2;
  // As much of it lies in the field as there is room for.
  const [mx, my] = middleOf(ring);
  const [cx, cy] = [lx + Math.sign(mx - lx) * half, ly + Math.sign(my - ly) * half];
  const low: Line = [[cx - half, cy - half], [cx + half, cy - half], [cx + half, cy + half], [cx - half, cy + half]]; // prettier-ignore
  return {
    ...NO_SHAPES,
    own: ring,
    contour: contour && isKnown(grid, contour) ? contour : null,
    down: chain.length > 0 && isKnown(grid, chain) ? chain : null,
    falling: falling && isKnown(grid, falling) ? falling : null,
    low: isKnown(grid, low) ? low : null,
  };
}

/** Mean fall of the ground in a ring [m/m]. */
function slopeIn(cells: readonly number[], slopes: Float32Array): number {
  const known = cells.filter((c) => !Number.isNaN(slopes[c]));
  return known.length > 0 ? known.reduce((a, c) => a + slopes[c], 0) / known.length : NaN;
}

/** How many cells drain to some of them, these with them, and whether that reaches the edge of what is known. */
function upstream({ flow, edge }: GroundModel, cells: readonly number[]): { readonly count: number; readonly isCut: boolean } {
  const { members } = upstreamOf(flow, cells);
  return { count: members.length, isCut: members.some((c) => edge[c] === 1) };
}

function fieldOf(project: Project, context: RoomContext, ring: Line): Omit<Place, keyof PlaceSaid> {
  const model = modelOf(project, context);
  const { grid } = model;
  const cells = cellsInside(grid, ring).filter((c) => !Number.isNaN(grid.z[c]));
  const slope = slopeIn(cells, layerOf(project, context, { layer: 'slope' }));
  if (cells.length < 4 || Number.isNaN(slope))
    fail('advise.empty', 'no ground is known inside that outline', { do: 'Draw it larger, inside the terrain.' });
  const area = layerOf(project, context, { layer: 'area' });
  const above = upstream(model, cells);
  const middle = middleOf(ring);
  return {
    form: 'field',
    areaM2: Math.abs(signedArea(ring)),
    lengthM: lineLength(closed(ring)),
    slope,
    aboveM2: (above.count - cells.length) * grid.cellM ** 2,
    aboveIsCut: above.isCut,
    gathersM2: cells.reduce((a, c) => Math.max(a, area[c]), 0),
    runsMm: runsAt(project, middle),
    ...groundOf(project, middle),
    widthM: null,
    dropM: NO_DROP_M,
    peakM3s: null,
    ...nearTo(ring, project, grid),
    shapes: fieldShapes(ring, grid, slope),
  };
}
const NO_DROP_M = 0;

/** Ground this much over the bed is bank; a channel is looked at so far to each side; a drop is told over so far [m]. */
const [BANK_M, LOOK_M, DROP_OVER_M] = [0.4, 12, 3];

/** So far to both sides along it the direction of a bed is told by [m]. */
const TURNS_M = 3;

interface Cross {
  readonly atM: number;
  readonly widthM: number;
  readonly deepM: number;
  readonly line: Line;
}

/** The channel across at a distance along it; null where its banks are not known. */
function crossAt(line: Line, grid: Grid, atM: number): Cross | null {
  const { point } = pointAlong(line, atM);
  // A way told cell by cell turns at every step: its direction is that of some metres.
  const [before, after] = [atM - TURNS_M, atM + TURNS_M].map((m) => pointAlong(line, Math.min(lineLength(line), Math.max(0, m))).point);
  const run = Math.max(1e-9, distance(before, after));
  const direction: Point = [(after[0] - before[0]) / run, (after[1] - before[1]) / run];
  const at = (away: number): Point => [point[0] - direction[1] * away, point[1] + direction[0] * away];
  const step = Math.min(0.5, grid.cellM / 2);
  const count = Math.round(LOOK_M / step);
  const levels = Array.from({ length: 2 * count + 1 }, (_, k) => levelAt(grid, at((k - count) * step)));
  if (levels.some((v) => Number.isNaN(v))) return null;
  const near = Math.round(3 / step);
  let bed = count;
  for (let k = count - near; k <= count + near; k++) if (levels[k] < levels[bed]) bed = k;
  const edge = (side: 1 | -1): number => {
    let k = bed;
    while (k + side >= 0 && k + side < levels.length && levels[k + side] <= levels[bed] + BANK_M) k += side;
    return k;
  };
  const [left, right] = [edge(-1), edge(1)];
  const rim = Math.min(Math.max(...levels.slice(0, bed + 1)), Math.max(...levels.slice(bed)));
  const reach = 4;
  return {
    atM,
    widthM: Math.max(step, (right - left) * step),
    deepM: rim - levels[bed],
    line: [at((left - count) * step - reach), at((right - count) * step + reach)],
  };
}

/** The greatest drop along a bed over what it usually falls [m], and where it begins. */
function dropAlong(line: Line, grid: Grid): { readonly dropM: number; readonly atM: number } {
  const length = lineLength(line);
  const over = Math.max(DROP_OVER_M, 1.5 * grid.cellM);
  const count = Math.max(0, Math.floor((length - over) / DROP_STEP_M) + 1);
  const falls = Array.from({ length: count }, (_, k) => {
    const at = k * DROP_STEP_M;
    return levelAt(grid, pointAlong(line, at).point) - levelAt(grid, pointAlong(line, at + over).point);
  });
  const usual = [...falls].sort((a, b) => a - b)[Math.floor(falls.length / 2)];
  const most = falls.reduce((best, v, k) => (v > falls[best] ? k : best), 0);
  return falls.length > 0 ? { dropM: Math.max(NO_DROP_M, falls[most] - usual), atM: most * DROP_STEP_M } : { dropM: NO_DROP_M, atM: 0 };
}
const DROP_STEP_M = 0.5;

/** A bed is looked for so far to the sides of a rough line [m]. */
const ASIDE_M = 7;

/** The cell near a place to which most drains. */
function gathersNear([x, y]: Point, grid: Grid, area: Float32Array): number {
  let best = cellAt(grid, [x, y]);
  for (let dx = -ASIDE_M; dx <= ASIDE_M; dx += grid.cellM)
    for (let dy = -ASIDE_M; dy <= ASIDE_M; dy += grid.cellM) {
      const cell = cellAt(grid, [x + dx, y + dy]);
      if (cell >= 0 && area[cell] > area[best]) best = cell;
    }
  return best;
}

/** Of the higher cells beside one that to which most drains, seen before or not; -1 where there is none. */
function mostFrom(cell: number, seen: ReadonlySet<number>, on: { readonly grid: Grid; readonly area: Float32Array }): number {
  const { grid, area } = on;
  let best = -1;
  for (let d = 0; d < STEP_COL.length; d++) {
    const beside = cell + STEP_ROW[d] * grid.ncols + STEP_COL[d];
    if (beside < 0 || beside >= grid.z.length || seen.has(beside) || !(grid.z[beside] > grid.z[cell] - FLAT_M)) continue;
    if (best < 0 || area[beside] > area[best]) best = beside;
  }
  return best;
}
/** A bed rises by no less than this from cell to cell on its way up: ground told by cells is rough [m]. */
const FLAT_M = 0.03;

/** The bed a rough line, high to low, was drawn along, followed up from its foot by where most comes from; the line itself where that goes elsewhere. */
function bedUnder(line: Line, grid: Grid, area: Float32Array): Line {
  const [top] = line;
  const most = (1.6 * lineLength(line)) / grid.cellM;
  const way: Point[] = [];
  const seen = new Set<number>();
  let cell = gathersNear(line[line.length - 1], grid, area);
  while (cell >= 0 && way.length < most) {
    const at = centreOf(grid, cell);
    if (nearestOnLine(at, line).distanceM > 2 * ASIDE_M) break;
    way.push(at);
    if (distance(top, at) <= grid.cellM) break;
    seen.add(cell);
    cell = mostFrom(cell, seen, { grid, area });
  }
  // Beyond the upper end of the line it is no more of what was asked about.
  const nearest = way.reduce((best, p, k) => (distance(p, top) < distance(way[best], top) ? k : best), 0);
  const bed = way.slice(0, nearest + 1).reverse();
  return bed.length > 1 && distance(bed[0], top) <= 1.5 * ASIDE_M ? bed : line;
}

function channelOf(project: Project, context: RoomContext, drawn: Line): Omit<Place, keyof PlaceSaid> {
  const model = modelOf(project, context);
  const { grid } = model;
  if (!isKnown(grid, drawn)) fail('advise.empty', 'part of that line lies off the ground', { do: 'Draw it inside the terrain.' });
  const [first, last] = [levelAt(grid, drawn[0]), levelAt(grid, drawn[drawn.length - 1])];
  const area = layerOf(project, context, { layer: 'area' });
  const line = bedUnder(first >= last ? drawn : [...drawn].reverse(), grid, area);
  const [top, foot] = [levelAt(grid, line[0]), levelAt(grid, line[line.length - 1])];
  const length = lineLength(line);
  const slope = Math.abs(top - foot) / Math.max(1, length);
  const crosses = Array.from({ length: 9 }, (_, k) => crossAt(line, grid, (length * (k + 0.5)) / 9)).flatMap((c) => (c ? [c] : []));
  const widths = crosses.map((c) => c.widthM).sort((a, b) => a - b);
  // A weir stands where the channel is narrowest and deep enough.
  const choke = crosses.filter((c) => c.deepM >= 0.8).reduce<Cross | null>((best, c) => (best && best.widthM <= c.widthM ? best : c), null);
  const { dropM, atM } = dropAlong(line, grid);
  const lip = crossAt(line, grid, atM);
  const round = line
    .flatMap((p) => NEAR.map(([dx, dy]) => cellAt(grid, [p[0] + dx * grid.cellM, p[1] + dy * grid.cellM])))
    .filter((c) => c >= 0);
  const middle = pointAlong(line, length / 2).point;
  const lowest = round.reduce((best, c) => (area[c] > area[best] ? c : best), round[0]);
  return {
    form: 'channel',
    areaM2: NO_FIELD_M2,
    lengthM: length,
    slope,
    aboveM2: area[lowest],
    aboveIsCut: upstream(model, [lowest]).isCut,
    gathersM2: area[lowest],
    runsMm: runsAt(project, middle),
    ...groundOf(project, middle),
    widthM: widths.length > 0 ? widths[Math.floor(widths.length / 2)] : null,
    dropM,
    peakM3s: null,
    ...nearTo(line, project, grid),
    shapes: {
      ...NO_SHAPES,
      own: simplify(line, Math.max(NEARLY_M, grid.cellM / 2)),
      across: choke?.line ?? null,
      lip: lip && dropM > 0 ? trimmed(lip) : null,
    },
  };
}
/** A channel has no area of its own. */
const NO_FIELD_M2 = 0;
const NEAR = [-1, 0, 1].flatMap((dx) => [-1, 0, 1].map((dy) => [dx, dy] as const));
/** A bed is drawn to so much [m]. */
const NEARLY_M = 0.3;
/** A lip as wide as the channel, without its banks. */
const trimmed = ({ line: [a, b], widthM }: Cross): Line => {
  const whole = distance(a, b);
  const cut = Math.max(0, (whole - Math.max(1.5, widthM)) / 2 / whole);
  const at = (t: number): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
  return [at(cut), at(1 - cut)];
};

const modelOf = (project: Project, context: RoomContext): GroundModel =>
  groundModel(project, context) ??
  fail('terrain.missing', 'there is no ground yet', { do: 'Bring in a terrain grid or survey points first.' });

/** A place as it is asked about. @throws UserError where nothing is known of it. */
export function placeOf(project: Project, context: RoomContext, { ring, line, ...said }: PlaceAsked): Place {
  const own = ring ?? line;
  if (!Array.isArray(own) || own.length < (ring ? 3 : 2))
    fail('advise.place', 'no place is told', { do: 'Give a ring of three corners and more, or a line of two points and more.' });
  const measured = ring ? fieldOf(project, context, ring) : channelOf(project, context, own as Line);
  return { ...SAID, ...said, ...measured };
}
