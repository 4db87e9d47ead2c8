// The ground a pond lies in: what its wall would hold, and what its pit is dug from. Measured once, whatever its levels.
import type { Site } from '../../contract/index.ts';
import { type Line, type Point, closed, contains, nearestOnLine, signedArea } from '../../geometry/index.ts';
import { type Grid, basinBehind, centreOf, contourLines, levelAt } from '../../terrain/index.ts';
import { UnknownGround } from '../unknown-ground.ts';
import type { Earthwork } from './earthwork.ts';
import { type WallGround, measureWall } from './wall.ts';

/** A piece of ground the pond may cover. */
export interface Piece {
  readonly at: Point;
  readonly groundM: number;
  readonly areaM2: number;
  /** From the wall; 0 without one. */
  readonly fromWallM: number;
  /** From the edge of the pit inwards; null outside it. */
  readonly intoPitM: number | null;
}

export interface BasinGround {
  readonly wall: WallGround | null;
  readonly pieces: readonly Piece[];
  /** Level at which water goes round the wall's ends, or over the lowest place of the pit's rim. */
  readonly roundM: number;
  readonly roundAt: Point;
  /** Slope of the ground to the side where water goes round [m/m]. */
  readonly roundSlope: number;
  /** Lowest natural ground it may cover. */
  readonly bottomM: number;
  readonly bottomAt: Point;
  /** The ground the wall closes in, alone on a grid of its own; null without a wall. */
  readonly window: Grid | null;
  /** Ground along the pit's rim: lowest and mean. */
  readonly rim: { readonly lowestM: number; readonly lowestAt: Point; readonly meanM: number } | null;
}

/** Pieces a pit is cut into, about: enough for its volume within a hundredth. */
const PIT_PIECES = 6000;
const RIM_PLACES = 64;

function pitPieces(grid: Grid, pit: Line): Piece[] {
  const xs = pit.map((p) => p[0]);
  const ys = pit.map((p) => p[1]);
  const [west, east, south, north] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const stepM = Math.max(0.1, Math.sqrt(Math.abs(signedArea(pit)) / PIT_PIECES));
  const ring = closed(pit);
  const pieces: Piece[] = [];
  for (let y = south + stepM / 2; y < north; y += stepM) {
    for (let x = west + stepM / 2; x < east; x += stepM) {
      const at: Point = [x, y];
      if (!contains(pit, at)) continue;
      const groundM = levelAt(grid, at);
      if (!Number.isNaN(groundM))
        pieces.push({ at, groundM, areaM2: stepM * stepM, fromWallM: 0, intoPitM: nearestOnLine(at, ring).distanceM });
    }
  }
  // The grid of pieces spans the ring only about: their sum is made its area.
  const sum = pieces.length * stepM * stepM;
  const scale = sum > 0 ? Math.abs(signedArea(pit)) / sum : 1;
  return pieces.map((p) => ({ ...p, areaM2: p.areaM2 * scale }));
}

function rimOf(grid: Grid, pit: Line): BasinGround['rim'] {
  const ring = closed(pit);
  const places: { at: Point; levelM: number }[] = [];
  for (let i = 1; i < ring.length; i++) {
    const [a, b] = [ring[i - 1], ring[i]];
    const count = Math.max(2, Math.ceil(RIM_PLACES / pit.length));
    for (let k = 0; k < count; k++) {
      const at: Point = [a[0] + ((b[0] - a[0]) * k) / count, a[1] + ((b[1] - a[1]) * k) / count];
      const levelM = levelAt(grid, at);
      if (!Number.isNaN(levelM)) places.push({ at, levelM });
    }
  }
  if (places.length === 0) return null;
  const lowest = places.reduce((a, b) => (b.levelM < a.levelM ? b : a));
  return { lowestM: lowest.levelM, lowestAt: lowest.at, meanM: places.reduce((a, p) => a + p.levelM, 0) / places.length };
}

/** Measures everything a pond's levels are then set against. */
export function measureBasin({ wall: line, pit }: Pick<Earthwork, 'wall' | 'pit'>, { grid }: Pick<Site, 'grid'>): BasinGround {
  const dug = pit ? pitPieces(grid, pit) : [];
  const rim = pit ? rimOf(grid, pit) : null;
  const basin = line ? basinBehind(grid, line) : null;
  const wall = line ? measureWall(grid, line) : null;
  const natural = (basin?.cells ?? []).flatMap((cell): Piece[] => {
    const at = centreOf(grid, cell);
    if (pit && contains(pit, at)) return [];
    return [
      {
        at,
        groundM: grid.z[cell] + grid.baseM,
        areaM2: grid.cellM ** 2,
        fromWallM: line ? nearestOnLine(at, line).distanceM : 0,
        intoPitM: null,
      },
    ];
  });
  const pieces = [...natural, ...dug.map((p) => (line ? { ...p, fromWallM: nearestOnLine(p.at, line).distanceM } : p))];
  const lowest = pieces.length > 0 ? pieces.reduce((a, b) => (b.groundM < a.groundM ? b : a)) : null;
  const middle: Point = line ? line[Math.floor(line.length / 2)] : (pit?.[0] ?? [0, 0]);
  const ends = wall && line ? endsOf(wall, line) : null;
  return {
    wall,
    pieces,
    window: basin ? windowOf(grid, basin.cells, basin.fullM) : null,
    rim,
    roundM: known(basin?.fullM ?? ends?.levelM ?? rim?.lowestM),
    roundAt: ends?.at ?? rim?.lowestAt ?? middle,
    // A pit's water goes over its whole rim: nothing is led round.
    roundSlope: ends?.slope ?? RIM_SLOPE,
    bottomM: known(lowest?.groundM ?? wall?.groundM.reduce((a, v) => Math.min(a, v), Infinity)),
    bottomAt: lowest?.at ?? middle,
  };
}

/** Slope to the side taken for a pit without a wall: common practice for gentle ground. */
const RIM_SLOPE = 0.02;

function known(level: number | undefined): number {
  if (level === undefined || !Number.isFinite(level)) throw new UnknownGround('No level is known under it');
  return level;
}

/** Only the cells of a basin, with a rim of high ground round them so that every contour closes. */
function windowOf(grid: Grid, cells: readonly number[], fullM: number): Grid | null {
  if (cells.length === 0) return null;
  const { ncols, nrows, cellM } = grid;
  let [left, right, top, bottom] = [ncols, 0, nrows, 0];
  for (const i of cells) {
    const col = i % ncols;
    const row = (i - col) / ncols;
    [left, right, top, bottom] = [Math.min(left, col), Math.max(right, col), Math.min(top, row), Math.max(bottom, row)];
  }
  [left, right, top, bottom] = [left - 1, right + 1, top - 1, bottom + 1];
  const [width, height] = [right - left + 1, bottom - top + 1];
  const z = new Float32Array(width * height).fill(fullM + 5 - grid.baseM);
  for (const i of cells) {
    const col = i % ncols;
    z[((i - col) / ncols - top) * width + col - left] = grid.z[i];
  }
  return { ...grid, ncols: width, nrows: height, west: grid.west + left * cellM, south: grid.south + (nrows - 1 - bottom) * cellM, z };
}

/** The edge of the water at a level: contours of the ground it stands on, and the pit where it has no wall. */
export function waterRings({ window }: Pick<BasinGround, 'window'>, levelM: number): Line[] {
  if (!window) return [];
  const { xy, starts } = contourLines(window, { firstM: levelM, intervalM: 1000, count: 1 });
  return Array.from({ length: starts.length - 1 }, (_, k) =>
    Array.from({ length: starts[k + 1] - starts[k] }, (__, p): Point => [xy[2 * (starts[k] + p)], xy[2 * (starts[k] + p) + 1]]),
  ).filter((ring) => ring.length >= 4);
}

/** The lower end of a wall, and how fast the ground rises along it there. */
function endsOf({ groundM, stepM }: WallGround, line: Line): { at: Point; levelM: number; slope: number } {
  const last = groundM.length - 1;
  const isFirst = groundM[0] <= groundM[last];
  const [end, inner] = isFirst ? [0, Math.min(last, 4)] : [last, Math.max(0, last - 4)];
  const slope = Math.abs(groundM[end] - groundM[inner]) / Math.max(1e-6, Math.abs(end - inner) * stepM);
  return { at: isFirst ? line[0] : line[line.length - 1], levelM: groundM[end], slope: Math.max(0.01, slope) };
}
