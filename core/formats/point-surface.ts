// Scattered levels to ground: triangles, along the lines it breaks at, as far as the survey goes.
import { type Line, type ScatteredPoints, alongBreaklines, cutTo, rasterise, triangulate } from '../geometry/index.ts';
import { MAX_CELLS, awayFrom, gridFromLevels, growthOf } from '../terrain/index.ts';
import { type ImportedTerrain, refuseFile } from './imported.ts';

/** Cell sizes offered, near half the mean spacing of the points [m]. */
const CELLS = [0.1, 0.25, 0.5, 1, 2, 5, 10, 20, 50];

export function rangeOf(list: Float64Array): [number, number] {
  return list.reduce<[number, number]>(([lo, hi], v) => [Math.min(lo, v), Math.max(hi, v)], [Infinity, -Infinity]);
}

/** What a surface follows: lines it breaks along, by the places of their points in the list, and rings it is known within. */
export interface SurfaceBy {
  readonly lines?: readonly (readonly number[])[];
  readonly rings?: readonly Line[];
}

/** Sides shorter than so many to a mean distance between points are not parted for a line that crosses them. */
const LEAST_SIDES = 50;
/** Cells to a mean distance between points, and to what lies between a line and what was read beside it: a ditch narrower than that is dammed. */
const [CELLS_APART, CELLS_ACROSS] = [2.5, 2];

/** How near to a line something else was read, in the middle of all places along lines [m]; infinite without any. */
function besideLines({ x, y }: ScatteredPoints, triangles: Uint32Array, lines: readonly (readonly number[])[]): number {
  const lineOf = new Int32Array(x.length).fill(-1);
  lines.forEach((line, k) => line.forEach((point) => (lineOf[point] = k)));
  const nearest = new Float64Array(x.length).fill(Infinity);
  const beside = (a: number, b: number): void => {
    if (lineOf[a] >= 0 && lineOf[a] !== lineOf[b]) nearest[a] = Math.min(nearest[a], Math.hypot(x[a] - x[b], y[a] - y[b]));
  };
  for (let c = 0; c < triangles.length; c++) {
    const next = c % 3 === 2 ? c - 2 : c + 1;
    beside(triangles[c], triangles[next]);
    beside(triangles[next], triangles[c]);
  }
  const found = nearest.filter(Number.isFinite).sort();
  return found.length > 0 ? found[found.length >> 1] : Infinity;
}

/** Scattered levels joined into triangles and laid on square cells; what was done is added to the notes. */
export function surfaceOf(
  readings: ScatteredPoints,
  on: { readonly file: string; readonly notes: string[] },
  { lines = [], rings = [] }: SurfaceBy = {},
): Omit<ImportedTerrain, 'crs' | 'known'> & Required<Pick<ImportedTerrain, 'known'>> {
  const { file, notes } = on;
  const [[x0, x1], [y0, y1]] = [rangeOf(readings.x), rangeOf(readings.y)];
  const [width, height] = [x1 - x0, y1 - y0];
  const spacing = Math.sqrt((width * height) / readings.x.length);
  const points = lines.length > 0 && spacing > 0 ? alongBreaklines(readings, lines, spacing / LEAST_SIDES) : readings;
  const triangles = triangulate(points);
  if (triangles.length === 0 || width === 0 || height === 0) {
    refuseFile(file, 'survey.in-line', {
      what: 'all points lie in one line',
      do: 'Add points on either side of it: a surface needs width.',
    });
  }
  const fits = (cell: number): boolean => (width / cell) * (height / cell) <= MAX_CELLS / 4;
  const between = points === readings ? triangles : triangulate(readings);
  const wanted = Math.sqrt((width * height) / points.x.length) / CELLS_APART;
  const across = besideLines(readings, between, lines) / CELLS_ACROSS;
  const least = across < wanted ? Math.max(...CELLS.filter((c) => c <= across), CELLS[0]) : wanted;
  const cellM = CELLS.find((c) => c >= least && fits(c)) ?? CELLS[CELLS.length - 1];
  if (!fits(cellM))
    refuseFile(file, 'survey.too-wide', {
      what: `the points spread over ${Math.round(width)} by ${Math.round(height)} m`,
      do: 'Check for a point far away from the others, or bring in one part at a time.',
    });
  // Cell corners on multiples of the cell size, so that surveys of the same land fit together.
  const west = Math.floor(x0 / cellM) * cellM;
  const south = Math.floor(y0 / cellM) * cellM;
  const ncols = Math.max(2, Math.ceil((x1 - west) / cellM));
  const nrows = Math.max(2, Math.ceil((y1 - south) / cellM));
  const frame = { ncols, nrows, x0: west + cellM / 2, y0: south + (nrows - 0.5) * cellM, stepM: cellM };
  const levels = rasterise(points, triangles, frame);
  const cut = rings.length > 0 ? cutTo(levels, frame, rings) : 0;
  if (levels.every((v) => Number.isNaN(v)))
    refuseFile(file, 'survey.few', {
      what: cut > 0 ? 'the edge of the survey holds no whole cell' : 'the points cover no whole cell',
      do: cut > 0 ? 'Check which points are its edge, and that they go round it in order.' : 'Survey a larger area.',
    });
  notes.push(`${readings.x.length} points were joined into ${triangles.length / 3} triangles and laid on ${cellM} m cells.`);
  const put = points.x.length - readings.x.length;
  if (lines.length > 0)
    notes.push(`No triangle crosses its ${counted(lines.length, 'line')}: ${counted(put, 'place')} were put along them, straight between their points.`);
  if (rings.length > 0) notes.push(`It ends at the edge that was read: ${counted(cut, 'cell')} beyond it are no ground.`);
  const square = { ncols, nrows, cellM, west, south };
  // Along a line that was read the ground is known as at its points; how it strays between readings only readings tell.
  const growsBy = growthOf(readings, between);
  const known = { levelsM: null, growsBy, away: awayFrom(points, square, levels), blends: null };
  return { kind: 'terrain', grid: gridFromLevels(square, levels), source: file, notes, known };
} // prettier-ignore

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
