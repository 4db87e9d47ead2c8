import type { Begun, Land, Technique } from '../../contract/index.ts';
import { type Line, type Point, closed, distanceToRing, lineLength, middleOf, nearestOnLine, pointAlong } from '../../geometry/index.ts';
import { levelAt, poolAt } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { groundUnder, mm, offTerrain } from '../beginning.ts';
import { newRegrade } from './create.ts';
import type { Regrade } from './model.ts';

/** Nearer than this a wall decides which way ground falls [m]. */
const BESIDE_M = 6;
/** Least fall of a dish, and how deep it is at first [m/m, m]: common practice. */
const [DISH_FALL, DISH_M] = [0.01, 0.15];

const bearing = ([dx, dy]: Point): number => {
  const degrees = (Math.atan2(dx, dy) * 180) / Math.PI;
  return Math.round((degrees + 360) % 360);
};

/** The ring begun at another of its corners. */
const from = (ring: Line, k: number): Point[] => [...ring.slice(k), ...ring.slice(0, k)];

const bestOf = <T>(list: readonly T[], valueOf: (one: T) => number): number =>
  list.reduce((best, one, k) => (valueOf(one) < valueOf(list[best]) ? k : best), 0);

/** Falls away from the nearest wall; where none is near, the way the ground falls already. */
function plane(ring: Line, { grid, buildings = [] }: Pick<Land, 'grid' | 'buildings'>): Pick<Regrade, 'ring' | 'towardsDeg'> {
  const middle = middleOf(ring);
  const wall = buildings
    .map((b) => closed(b))
    .filter((b) => Math.min(...ring.map((p) => distanceToRing(b, p))) < BESIDE_M)
    .sort((a, b) => distanceToRing(a, middle) - distanceToRing(b, middle))[0];
  if (wall) {
    const at = pointAlong(wall, nearestOnLine(middle, wall).atM).point;
    return {
      ring: from(
        ring,
        bestOf(ring, (p) => distanceToRing(wall, p)),
      ),
      towardsDeg: bearing([middle[0] - at[0], middle[1] - at[1]]),
    };
  }
  const high = bestOf(ring, (p) => -levelAt(grid, p));
  const [top, low] = [ring[high], ring[bestOf(ring, (p) => levelAt(grid, p))]];
  return { ring: from(ring, high), towardsDeg: bearing([low[0] - top[0], low[1] - top[1]]) };
}

const mean = (list: readonly number[]): number => list.reduce((a, v) => a + v, 0) / list.length;

/** Ground within a ring, on a raster of its own; as surveyed. */
function within(ring: Line, { grid }: Pick<Land, 'grid'>): number[] {
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)];
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const [dx, dy] = [(Math.max(...xs) - x0) / RASTER, (Math.max(...ys) - y0) / RASTER];
  const all = Array.from({ length: RASTER ** 2 }, (_, k): Point => [x0 + ((k % RASTER) + 0.5) * dx, y0 + (Math.floor(k / RASTER) + 0.5) * dy]);
  const levels = all.filter((p) => distanceToRing(ring, p) === 0).map((p) => levelAt(grid, p));
  return levels.length > 0 ? levels : ring.map((p) => levelAt(grid, p));
} // prettier-ignore
const RASTER = 24;

/** First level of a shape: what balances, what a hollow is full to, the lowest of its edge. */
function levelFor(shape: Regrade['shape'], ring: Line, land: Pick<Land, 'grid'>): number {
  if (shape === 'level') return mean(within(ring, land));
  if (shape === 'cut') return Math.min(...ring.map((p) => levelAt(land.grid, p)));
  if (shape === 'fill') return poolAt(land.grid, middleOf(ring))?.spillM ?? mean(ring.map((p) => levelAt(land.grid, p)));
  return levelAt(land.grid, ring[0]);
}

const SHAPE_OF: Readonly<Record<string, Regrade['shape']>> = {
  'regrade-plane': 'plane',
  'regrade-level': 'level',
  'regrade-fill': 'fill',
  'regrade-cut': 'cut',
  'regrade-by': 'by',
  'lawn-dish': 'dish',
};

function beginDish(line: Line, ground: readonly number[], land: Land): Begun {
  const [first, last] = [ground[0], ground[ground.length - 1]];
  const down = first >= last ? line : [...line].reverse();
  const startM = Math.max(first, last) - DISH_M;
  const endM = Math.min(Math.min(first, last) - DISH_M, startM - DISH_FALL * lineLength(line));
  const work = newRegrade(land.idFor('regrade'), land.nameFor('Dish'), {
    shape: 'dish',
    line: down,
    levels: { levelM: mm(first), startM: mm(startM), endM: mm(endM) },
  });
  return { ok: true, works: [work], said: say`It is ${amount(DISH_M, 'difference')} deep and falls ${amount((startM - endM) / lineLength(line), 'slope')}.` };
} // prettier-ignore

/** Ground shaped as it was drawn, with a level that asks for little earth. */
export const beginRegrade: Technique<Regrade, unknown>['begin'] = ({ how, points }, land) => {
  const shape = SHAPE_OF[how] ?? 'plane';
  const ground = groundUnder(shape === 'dish' ? points : closed(points), land);
  if (!ground) return offTerrain('what is to be shaped');
  if (shape === 'dish') return beginDish(points, ground, land);
  const turned = shape === 'plane' ? plane(points, land) : { ring: points };
  const levelM = mm(levelFor(shape, turned.ring ?? points, land));
  const work = newRegrade(land.idFor('regrade'), land.nameFor('Shaped ground'), { shape, ...turned, levels: { levelM, startM: levelM, endM: levelM } });
  return {
    ok: true,
    works: [work],
    said: shape === 'plane' ? say`It falls ${amount(work.fall, 'slope')} towards ${String(work.towardsDeg)}°, from ${amount(levelM, 'reading')} at its first corner.` : say`At ${amount(levelM, 'reading')}, a batter of 4 to 1 down to the ground beside it.`,
  };
}; // prettier-ignore
