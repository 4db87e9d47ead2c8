// The ground with the works of an option built into it: what a machine is steered by, or another program models on.
import type { Built } from '../../contract/index.ts';
import { type Project, fail } from '../../project/index.ts';
import { type Grid, centreOf, levelAt } from '../../terrain/index.ts';
import { asDesigned, liveWorks } from '../scenario/scenario.ts';
import { type RoomContext, laidOut } from '../set/laid.ts';

/** Cells no wider than a ditch has floor, as long as there are not too many of them [m]. */
const FINE_M = 0.5;
const MOST_CELLS = 4_000_000;

export interface GroundBuilt {
  readonly grid: Grid;
  /** Works that are cut and filled into it. */
  readonly made: readonly string[];
  /** Works that are to be made and change nothing of it, or stand on ground that is not known. */
  readonly left: readonly string[];
}

/** A grid of cells so many times narrower, straight between the middles of the cells there were. */
function finer(grid: Grid): Grid {
  const { ncols, nrows, cellM } = grid;
  const most = Math.floor(Math.sqrt(MOST_CELLS / (ncols * nrows)));
  const parts = Math.max(1, Math.min(most, Math.ceil(cellM / FINE_M - 1e-9)));
  if (parts === 1) return grid;
  const fine: Grid = { ...grid, ncols: ncols * parts, nrows: nrows * parts, cellM: cellM / parts, z: new Float32Array(ncols * nrows * parts * parts) };
  for (let cell = 0; cell < fine.z.length; cell++) fine.z[cell] = levelAt(grid, centreOf(fine, cell)) - grid.baseM;
  return fine;
} // prettier-ignore

/** Lays what a work makes on a grid, cell by cell, in place. Returns whether that changed any of it. */
function layOn(made: Grid, ground: Grid, { box, levelAt: madeAt }: Built): boolean {
  let isChanged = false;
  const { ncols, nrows, cellM, west, south, baseM, z } = made;
  const [first, last] = [Math.floor((box[0] - west) / cellM), Math.floor((box[2] - west) / cellM)];
  const [top, bottom] = [Math.floor(nrows - (box[3] - south) / cellM), Math.floor(nrows - (box[1] - south) / cellM)];
  for (let row = Math.max(0, top); row <= Math.min(nrows - 1, bottom); row++)
    for (let col = Math.max(0, first); col <= Math.min(ncols - 1, last); col++) {
      const cell = row * ncols + col;
      if (Number.isNaN(z[cell])) continue;
      const madeM = z[cell] + baseM;
      const level = madeAt(centreOf(made, cell), { groundM: ground.z[cell] + baseM, madeM });
      if (level === madeM) continue;
      z[cell] = level - baseM;
      isChanged = true;
    }
  return isChanged;
}

/**
 * The ground with all works of the active option that are to be made, or were since the survey, cut and filled into it by their
 * design levels: each with its ways out, which go through its bank or wall. @throws UserError without terrain.
 */
export function builtGround(project: Project, context: RoomContext): GroundBuilt {
  const laid =
    laidOut(asDesigned(project), context) ?? fail('terrain.missing', 'there is no ground yet', { do: 'Bring in terrain first.' });
  const { works } = laid.water;
  const ground = finer(laid.world.model.grid);
  const grid: Grid = { ...ground, z: Float32Array.from(ground.z) };
  const toMake = works.filter(({ bound }) => bound.work.status !== 'existing');
  const made: string[] = [];
  const lay = ({ bound, placed }: (typeof works)[number], before: Grid): void => {
    const built = placed.built?.();
    const shows = built !== undefined && layOn(grid, before, built);
    if (shows || bound.reshapes.length > 0) made.push(bound.work.id);
  };
  for (const work of toMake.filter(({ bound }) => bound.hostId === null)) {
    const guests = toMake.filter(({ bound }) => bound.hostId === work.bound.work.id);
    // What lets it out goes through what it heaps up, and through nothing of another's.
    const before = guests.length > 0 ? { ...grid, z: grid.z.slice() } : ground;
    lay(work, ground);
    for (const guest of guests) lay(guest, before);
  }
  // What lets out a work that stands already: the survey has its bank as it is.
  const isToMake = new Set(toMake.map(({ bound }) => bound.work.id));
  for (const guest of toMake.filter(({ bound }) => bound.hostId !== null && !isToMake.has(bound.hostId)))
    lay(guest, { ...grid, z: grid.z.slice() });
  const left = liveWorks(laid.scenario.option.works).flatMap(({ id, status }) => (status === 'existing' || made.includes(id) ? [] : [id]));
  return { grid, made, left };
}
