import type { PlacedWork } from '../../contract/index.ts';
import { type Line, lineLength, pointAlong } from '../../geometry/index.ts';
import { SOIL_ROOM } from '../../ground/index.ts';
import { type Graph, forAll, idsOf } from '../graph/graph.ts';
import { type SurfaceMap, groundAt } from '../world/surfaces.ts';
import type { Standing } from './standing.ts';

/** How many places of a work its ground is asked at. */
const PLACES = 24;

/** A wall stands on the ground and digs nothing away. */
const NOT_DUG_M = 0;

/** The ground under a work, along its line, since it lies in several zones at times. */
export interface GroundUnder {
  /** Mean rate it takes in water at [mm/h]. */
  readonly rateMmPerHour: number;
  /** Whether every part of it was tested. */
  readonly isTested: boolean;
  /** Mean depth of water the soil under its floor has room for [mm]. */
  readonly roomMm: number;
}

/** What water of a store lies on: a line, and how deep it is dug at places evenly along it [m]; one depth where it is the same at all. */
interface Lies {
  readonly line: Line;
  readonly dugM: number | readonly number[];
}

/** Places along a line at which its ground is asked [m]. */
function placesAlong(line: Line): readonly number[] {
  const length = lineLength(line);
  return Array.from({ length: PLACES }, (_, k) => ((k + 0.5) / PLACES) * length);
}

function liesOf(own: PlacedWork | null, store: string): Lies | null {
  const bed = own?.beds?.(store);
  if (bed) return { line: bed.line, dugM: bed.dugM };
  const host = own?.host;
  if (!host) return null;
  const { line, dugAt } = host;
  return { line, dugM: dugAt ? placesAlong(line).map((atM) => dugAt(atM)) : NOT_DUG_M };
}

function underLine(lies: Lies | null, { surfaces }: SurfaceMap): GroundUnder | null {
  if (!lies) return null;
  const { line, dugM } = lies;
  const soils = placesAlong(line).map((atM) => groundAt(surfaces, pointAlong(line, atM).point));
  const rateMmPerHour = soils.reduce((a, s) => a + s.infiltrationMmPerHour, 0) / PLACES;
  const roomMm = soils.reduce((a, s, k) => {
    const { drainable: p } = s.texture;
    return a + SOIL_ROOM.evaluate({ p, D: s.soilDepthM, c: typeof dugM === 'number' ? dugM : dugM[k] }) / PLACES;
  }, 0);
  return { rateMmPerHour, isTested: soils.every((s) => s.soil.rateFrom !== undefined), roomMm };
}

/** The ground under each store, by its id. */
export function groundUnder(
  { stores, works }: Pick<Standing, 'stores' | 'works'>,
  map: SurfaceMap,
  graph: Graph,
): ReadonlyMap<string, GroundUnder> {
  const placed = new Map(works.map((w) => [w.bound.work.id, w.placed]));
  const ids = idsOf(stores);
  // Of a work of many stores one may be made otherwise: where the others lie stays the same, and the ground under them.
  const lies = graph.each('lies', { ids, columns: [stores.map((s) => placed.get(s.work) ?? null), ids], isSettled: true }, liesOf).all;
  const { all, by } = graph.each('under', { ids, columns: [lies, forAll(map)], isSettled: true }, underLine);
  if (all.every((one) => one !== null)) return by as ReadonlyMap<string, GroundUnder>;
  return new Map(ids.flatMap((id, k): [string, GroundUnder][] => (all[k] === null ? [] : [[id, all[k]]])));
}
