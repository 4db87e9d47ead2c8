// Ground from what is drawn with levels: spot heights, contours, a walk with a phone.
import { closed, lineLength } from '../geometry/index.ts';
import { type DrawnShape, type ImportedShapes, type ImportedTerrain, refuseFile } from './imported.ts';
import { oddLevels } from './levels.ts';
import { surfaceOf } from './point-surface.ts';

/** Least places a surface is made of. */
const LEAST = 3;

/** Shapes that bear levels. */
const levelled = (shapes: readonly DrawnShape[]): readonly Levelled[] =>
  shapes.flatMap((shape) => (shape.levelsM ? [{ ...shape, levelsM: shape.levelsM }] : []));

/** Whether what is drawn bears levels enough, and different ones, to be ground. */
export function canBeGround({ shapes }: Pick<ImportedShapes, 'shapes'>): boolean {
  const with_ = levelled(shapes);
  const [first] = with_[0]?.levelsM ?? [];
  return with_.reduce((n, s) => n + s.points.length, 0) >= LEAST && with_.some((s) => s.levelsM.some((z) => z !== first));
}

type Levelled = DrawnShape & { readonly levelsM: readonly number[] };
/** A place with its level, and whether it was drawn or put between two that were. */
type Place = readonly [x: number, y: number, levelM: number, isCorner: boolean];

const cornersOf = ({ points, levelsM }: Levelled): Place[] => points.map(([x, y], k) => [x, y, levelsM[k], true] as const);

/** More places than this along all lines tell no more. */
const MOST_ALONG = 300_000;

/** Corners of a line or outline with places put along it, no farther apart than told: triangles then run along it, not across. */
function followed(shape: Levelled, apartM: number): Place[] {
  const corners = cornersOf(shape);
  if (shape.form === 'point') return corners;
  const round = shape.form === 'ring' ? [...corners, corners[0]] : corners;
  return round.flatMap(([x, y, levelM], k): Place[] => {
    if (k === round.length - 1) return shape.form === 'ring' ? [] : [[x, y, levelM, true]];
    const [toX, toY, toM] = round[k + 1];
    const parts = Math.max(1, Math.ceil(Math.hypot(toX - x, toY - y) / apartM));
    return Array.from({ length: parts }, (_, i): Place => [x + ((toX - x) * i) / parts, y + ((toY - y) * i) / parts, levelM + ((toM - levelM) * i) / parts, i === 0]);
  });
} // prettier-ignore

/** How close places along lines are put: half as far apart as corners lie on the whole [m]. */
function apartOn(shapes: readonly Levelled[]): number {
  const corners = shapes.flatMap(cornersOf);
  const [xs, ys] = [corners.map((p) => p[0]), corners.map((p) => p[1])];
  const span = (list: readonly number[]): number => list.reduce((a, v) => Math.max(a, v), -Infinity) - list.reduce((a, v) => Math.min(a, v), Infinity);
  const half = Math.sqrt((span(xs) * span(ys)) / corners.length) / 2;
  const lengthM = shapes.reduce((sum, { form, points }) => (form === 'point' ? sum : sum + lineLength(form === 'ring' ? closed(points) : points)), 0);
  return Math.max(half, lengthM / MOST_ALONG);
} // prettier-ignore

/** Words for a ring that is the edge of what was surveyed: beyond it nobody read anything. */
const SURVEY_EDGE = /\b(surveyed|survey[ _-]?(edge|limits?|area|extent|outline|boundary)|(edge|limits?|extent) of (the )?survey)\b/i;

/** A surface through all levels that were drawn. @throws UserError where there are too few, or some are no ground. */
export function groundOfShapes({ shapes, crs, source, notes }: ImportedShapes): ImportedTerrain {
  const with_ = levelled(shapes);
  const corners = with_.reduce((n, s) => n + s.points.length, 0);
  const apartM = corners < LEAST ? 0 : apartOn(with_);
  const all = apartM > 0 ? with_.flatMap((shape) => followed(shape, apartM)) : with_.flatMap(cornersOf);
  if (all.length < LEAST)
    refuseFile(source, 'survey.few', {
      what: `${all.length} of its places bear a level`,
      do: 'Bring it in as things on the land, or choose a file with levels.',
    });
  const { marks, apart } = oddLevels(Float64Array.from(all, (p) => p[2]));
  if (apart.length > 0)
    refuseFile(source, 'survey.level', {
      what: `a level of ${all[apart[0]][2]} m is far from all the others, or from any ground on earth`,
      do: 'Correct it where it was drawn. Levels are in metres.',
    });
  const isMark = new Set(marks);
  // Lines cross and tracks come back: a place has one level, the first that is drawn there.
  const first = new Map<string, number>();
  let doubled = 0;
  const kept = all.filter(([x, y, z, isCorner], k) => {
    const key = `${x},${y}`;
    const before = first.get(key);
    if (before !== undefined && before !== z && isCorner && !isMark.has(k)) doubled++;
    if (isMark.has(k) || before !== undefined) return false;
    first.set(key, z);
    return true;
  });
  const [x, y, z] = [0, 1, 2].map((member) => Float64Array.from(kept, (p) => Number(p[member])));
  const said = [...notes];
  if (with_.length < shapes.length) said.push(`${shapes.length - with_.length} shapes without a level were left out.`);
  if (doubled > 0) said.push(`${doubled} places bear two levels: the one drawn first was taken. Check which is right.`);
  const rings = shapes.flatMap(({ form, name, group, points }) =>
    form === 'ring' && SURVEY_EDGE.test(`${group} ${name}`) ? [points] : [],
  );
  const surface = surfaceOf({ x, y, z }, { file: source, notes: said }, { rings });
  if (all.length > corners)
    said.push(`Lines are followed: ${all.length - corners} places were put along them, straight between their corners.`);
  return { ...surface, crs, notes: said };
}
