// Ground from what is drawn with levels: spot heights, contours, a walk with a phone.
import { type DrawnShape, type ImportedShapes, type ImportedTerrain, refuseFile } from './imported.ts';
import { oddLevels } from './levels.ts';
import { surfaceOf } from './survey-csv.ts';

/** Least places a surface is made of. */
const LEAST = 3;

/** Shapes that bear levels. */
const levelled = (shapes: readonly DrawnShape[]): readonly (DrawnShape & { readonly levelsM: readonly number[] })[] =>
  shapes.flatMap((shape) => (shape.levelsM ? [{ ...shape, levelsM: shape.levelsM }] : []));

/** Whether what is drawn bears levels enough, and different ones, to be ground. */
export function canBeGround({ shapes }: Pick<ImportedShapes, 'shapes'>): boolean {
  const with_ = levelled(shapes);
  const [first] = with_[0]?.levelsM ?? [];
  return with_.reduce((n, s) => n + s.points.length, 0) >= LEAST && with_.some((s) => s.levelsM.some((z) => z !== first));
}

/** A surface through all levels that were drawn. @throws UserError where there are too few, or some are no ground. */
export function groundOfShapes({ shapes, crs, source, notes }: ImportedShapes): ImportedTerrain {
  const with_ = levelled(shapes);
  const all = with_.flatMap(({ points, levelsM }) => points.map(([x, y], k) => [x, y, levelsM[k]] as const));
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
  const kept = all.filter(([x, y, z], k) => {
    const key = `${x},${y}`;
    const before = first.get(key);
    if (before !== undefined && before !== z && !isMark.has(k)) doubled++;
    if (isMark.has(k) || before !== undefined) return false;
    first.set(key, z);
    return true;
  });
  const [x, y, z] = [0, 1, 2].map((member) => Float64Array.from(kept, (p) => p[member]));
  const said = [...notes];
  if (with_.length < shapes.length) said.push(`${shapes.length - with_.length} shapes without a level were left out.`);
  if (doubled > 0) said.push(`${doubled} places bear two levels: the one drawn first was taken. Check which is right.`);
  const surface = surfaceOf({ x, y, z }, source, said);
  if (with_.some((s) => s.form !== 'point'))
    said.push('Along lines only their corners bear levels: ground between far corners is a guess.');
  return { ...surface, crs, notes: said };
}
