import type { PlacedWork } from '../../contract/index.ts';
import { type Line, lineLength, pointAlong } from '../../geometry/index.ts';
import { SOIL_ROOM } from '../../ground/index.ts';
import { type Columns, type Graph, forAll, idsOf } from '../graph/graph.ts';
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

/** What water of a store lies on: a line, and how deep it is dug along it. */
interface Lies {
  readonly line: Line;
  readonly dugAt: (atM: number) => number;
}

function liesOf({ host, beds }: PlacedWork, store: string): Lies | null {
  const bed = beds?.(store);
  if (bed) return { line: bed.line, dugAt: () => bed.dugM };
  return host && { line: host.line, dugAt: (atM) => host.dugAt?.(atM) ?? NOT_DUG_M };
}

function underLine(placed: PlacedWork, { surfaces }: SurfaceMap, store: string): GroundUnder | null {
  const lies = liesOf(placed, store);
  if (!lies) return null;
  const { line, dugAt } = lies;
  const length = lineLength(line);
  const places = Array.from({ length: PLACES }, (_, k) => ((k + 0.5) / PLACES) * length);
  const soils = places.map((atM) => groundAt(surfaces, pointAlong(line, atM).point));
  const rateMmPerHour = soils.reduce((a, s) => a + s.infiltrationMmPerHour, 0) / PLACES;
  const roomMm = soils.reduce((a, s, k) => {
    const { drainable: p } = s.texture;
    return a + SOIL_ROOM.evaluate({ p, D: s.soilDepthM, c: dugAt(places[k]) }) / PLACES;
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
  // Of a work of many stores one may be made otherwise: the ground under the others stays the same thing, and they are not routed anew.
  const columns: Columns<Parameters<typeof underStore>> = [stores.map((s) => placed.get(s.work) ?? null), forAll(map), ids];
  const { all } = graph.each('under', { ids, columns, isSettled: true }, underStore);
  return new Map(ids.flatMap((id, k): [string, GroundUnder][] => (all[k] === null ? [] : [[id, all[k]]])));
}

const underStore = (own: PlacedWork | null, map: SurfaceMap, id: string): GroundUnder | null => own && underLine(own, map, id);
