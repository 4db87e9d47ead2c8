// A drain on its ground: the ground over it, the hollows its basins lie in, and what takes it.
import type { Plot } from '../../contract/index.ts';
import { type Line, type Point, distance, evenlyAlong, lineLength, pointAlong } from '../../geometry/index.ts';
import { type Grid, type PoolGround, centreOf, gradientAt, isSamePool, levelAt, outlineOf, poolAt, setOf } from '../../terrain/index.ts';
import { carryOver } from '../lip.ts';
import { type Basin, type PipedDrain, isOpen } from './model.ts';

/** A hollow with the basins that stand in it, by their place in the list. */
export interface Yard {
  readonly pool: PoolGround;
  readonly basins: readonly number[];
  /** Where what runs into it is taken in: every cell of it, and the basins. */
  readonly places: readonly Point[];
  /** The edge of its water when it runs on. */
  readonly ring: Line;
}

/** What takes the drain: a pipe of another at its shaft, or a store. */
export interface Taker {
  readonly name: string;
  /** The pipe or store water is led to. */
  readonly to: string;
  /** Invert of the pipe that leaves there, and that pipe’s width; of a store, where it runs over. */
  readonly levelM: number;
  readonly pipeM: number | null;
  /** How far the end of the line lies from that shaft [m]; 0 of a store. */
  readonly apartM: number;
}

export interface DrainGround {
  readonly lengthM: number;
  readonly stepM: number;
  readonly groundM: Float64Array;
  /** Ground at each basin, and at the end [m]. */
  readonly atBasins: readonly number[];
  readonly endM: number;
  /** How the ground falls at each basin [m/m]. */
  readonly falls: readonly number[];
  readonly yards: readonly Yard[];
  readonly taker: Taker | null;
}

const STEP_M = 0.5;
const MOST_PLACES = 2000;

/** The hollows basins lie in; those that lie in one hollow share it. */
export function yardsOf(grid: Grid, line: Line, basins: readonly Pick<Basin, 'atM' | 'grateLongM' | 'grateWideM'>[]): Yard[] {
  const yards: { pool: PoolGround; basins: number[] }[] = [];
  basins.forEach((basin, k) => {
    if (!isOpen(basin)) return;
    const pool = poolAt(grid, pointAlong(line, basin.atM).point);
    if (!pool) return;
    const same = yards.find((y) => isSamePool(y.pool, pool));
    if (same) same.basins.push(k);
    else yards.push({ pool, basins: [k] });
  });
  return yards.map(({ pool, basins: own }) => ({
    pool,
    basins: own,
    ring: outlineOf(grid, setOf(Int32Array.from(pool.cells), grid.z.length)),
    places: [...Array.from(pool.cells, (cell) => centreOf(grid, cell)), ...own.map((k) => pointAlong(line, basins[k].atM).point)],
  }));
}

/** The shaft of a drain nearest to a place, or the store of another work. */
function takerAt(placed: Plot['placed'], id: string, end: Point): Taker | null {
  const other = placed?.get(id);
  if (!other) return null;
  const [nearest] = [...(other.conduits ?? [])].sort((a, b) => distance(a.rimAt, end) - distance(b.rimAt, end));
  if (nearest) {
    const { name, upperM: levelM, diameterM: pipeM, rimAt } = nearest;
    return { name, to: nearest.id, levelM, pipeM, apartM: distance(rimAt, end) };
  }
  const [store] = other.stores([]);
  return store ? { name: store.name, to: store.id, levelM: store.wayOutM, pipeM: null, apartM: 0 } : null;
}

/** @throws UnknownGround where nothing is known of the ground over it. */
export function measureDrain({ line, basins, into }: PipedDrain, { grid, placed }: Plot): DrainGround {
  const lengthM = lineLength(line);
  const count = Math.max(2, Math.min(MOST_PLACES, Math.ceil(lengthM / STEP_M)));
  const stepM = lengthM / count;
  const groundM = Float64Array.from(evenlyAlong(line, count), (place) => levelAt(grid, place));
  carryOver(groundM, 'No level is known over it');
  const at = (atM: number): number => groundM[Math.min(count, Math.max(0, Math.round(atM / stepM)))];
  return {
    lengthM,
    stepM,
    groundM,
    atBasins: basins.map((b) => at(b.atM)),
    endM: groundM[count],
    falls: basins.map((b) => Math.hypot(...gradientAt(grid, pointAlong(line, b.atM).point))),
    yards: yardsOf(grid, line, basins),
    taker: into === undefined ? null : takerAt(placed, into, line[line.length - 1]),
  };
}
