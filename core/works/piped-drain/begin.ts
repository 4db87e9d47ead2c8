// A drain as it was drawn: basins at its corners, on the lowest ground about them, its falls between them, and what takes it.
import type { Begun, Technique, WaterSeen } from '../../contract/index.ts';
import { type Line, type Point, distance, lineLength, nearestOnLine } from '../../geometry/index.ts';
import { type Grid, poolAt } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { groundUnder, mm, offTerrain } from '../beginning.ts';
import { newDrain } from './create.ts';
import { endsOver, fallsFor } from './falls.ts';
import { type DrainGround, type Taker, measureDrain } from './ground.ts';
import type { Basin, PipedDrain } from './model.ts';

/** An end so near to a shaft or a store is at it, and a basin is set on lower ground so near [m]. */
const [AT_M, LOWER_M] = [6, 2];
/** First pipe, grate and sump [m]: common practice. */
const [PIPE_M, GRATE_M, SUMP_M] = [0.1, 0.3, 0.15];

interface Joined {
  readonly id: string;
  readonly at: Point | null;
  readonly taker: Taker;
}

/** What its lower end lies at: the nearest shaft of a drain, else a store. */
function joinedAt(end: Point, waters: readonly WaterSeen[]): Joined | null {
  let best: Joined | null = null;
  let least = AT_M;
  for (const { id, name, shafts = [] } of waters)
    for (const { at, invertM: levelM, pipeM, to } of shafts) {
      const apart = distance(at, end);
      if (apart < least) [best, least] = [{ id, at, taker: { name, to, levelM, pipeM, apartM: 0 } }, apart];
    }
  if (best) return best;
  for (const { id, name, lines, fullM: levelM, roofM2, shafts } of waters) {
    if (roofM2 !== null || shafts) continue;
    const apart = Math.min(...lines.map((l) => nearestOnLine(end, l).distanceM));
    if (apart < least) [best, least] = [{ id, at: null, taker: { name, to: id, levelM, pipeM: null, apartM: 0 } }, apart];
  }
  return best;
}

/** The lowest ground near a place, where it lies in a hollow; else the place itself. */
function lowNear(grid: Grid, at: Point): Point {
  const pool = poolAt(grid, at);
  return pool && pool.spillM - pool.lowM > 0.01 && distance(pool.lowAt, at) <= LOWER_M ? [mm(pool.lowAt[0]), mm(pool.lowAt[1])] : at;
}

function laid(work: PipedDrain, ground: DrainGround): { readonly work: PipedDrain; readonly lowM: number } {
  const { invertsM, outletM, lowM } = fallsFor(work, ground);
  return { work: { ...work, basins: work.basins.map((b, k) => ({ ...b, invertM: invertsM[k] })), levels: { outletM } }, lowM };
}

const tooLow = (lowM: number, name: string): Begun => ({
  ok: false,
  problem: {
    code: 'piped-drain.too-low',
    what: say`laid as shallow as it may be it would come out ${amount(lowM, 'difference')} under ${name}`,
    field: 'line',
    do: 'End it on lower ground, begin it higher, or lead it to a sump with a pump.',
  },
});

export const beginDrain: Technique<PipedDrain, unknown>['begin'] = ({ how, points }, land) => {
  const levels = groundUnder(points, land);
  if (!levels) return offTerrain('the drain');
  const { waters = [] } = land;
  // Whichever end was drawn first: water runs to what takes it, else from the higher.
  const back = [...points].reverse();
  const isShaft = (line: Line): boolean => joinedAt(line[line.length - 1], waters)?.at != null;
  const down = isShaft(points) ? points : isShaft(back) ? back : levels[0] >= levels[levels.length - 1] ? points : back;
  const joined = joinedAt(down[down.length - 1], waters);
  const isOpen = how !== 'closed-drain';
  const corners = down.slice(0, -1).map((at) => (isOpen ? lowNear(land.grid, at) : at));
  const line: Line = [...corners, joined?.at ?? down[down.length - 1]];
  const places = corners.map((_, k) => lineLength(line.slice(0, k + 1)));
  const grateM = isOpen ? GRATE_M : 0;
  const basins = places
    .filter((atM, k) => k === 0 || atM - places[k - 1] > 0.3)
    .map((atM): Basin => ({ atM: mm(atM), invertM: 0, pipeM: PIPE_M, grateLongM: grateM, grateWideM: grateM, sumpM: isOpen ? SUMP_M : 0 }))
    .map((basin, k): Basin => (isOpen || k > 0 ? basin : { ...basin, spouts: 1 }));
  const first = newDrain(land.idFor('drain'), land.nameFor('Drain'), {
    line,
    basins,
    levels: { outletM: 0 },
    ...(joined ? { into: joined.id } : {}),
    ends: how === 'street-drain' ? 'street' : 'daylight',
  });
  const ground = { ...measureDrain(first, { grid: land.grid }), taker: joined?.taker ?? null };
  const { work, lowM } = laid(first, ground);
  if (lowM > 0.001) return tooLow(lowM, joined ? `“${joined.taker.name}”` : 'the ground where it ends');
  const fall = work.basins[0].invertM - work.levels.outletM;
  const whither = joined ? ` into ${joined.taker.name}` : '';
  const above = work.levels.outletM - endsOver(work, ground, PIPE_M);
  return {
    ok: true,
    works: [work],
    said: say`It falls ${amount(fall, 'difference')} over ${amount(ground.lengthM, 'length')}${whither}${Number.isFinite(above) && above > 0.3 && !joined ? say`, and comes out ${amount(above, 'length')} over the ground` : ''}. Sizes are first guesses: see what comes to it.`,
  };
};
