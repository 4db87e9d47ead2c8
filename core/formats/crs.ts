import proj4 from 'proj4';
import type { Point } from '../geometry/index.ts';
import { refuseFile } from './imported.ts';

export interface Crs {
  readonly code: string;
  readonly name: string;
  readonly proj4: string;
}

/** The code without its "EPSG:", null when it is not one. */
function bareCode(code: string): string | null {
  const match = /^\s*(?:EPSG:)?(\d{4,6})\s*$/i.exec(code);
  return match ? match[1] : null;
}

/** The system of a code like "EPSG:32633"; null when it is not a projected metric system Outlet knows. */
export async function crsOf(code: string): Promise<Crs | null> {
  const bare = bareCode(code);
  const { CRS_TABLE } = await import('./crs-table.ts');
  const entry = bare === null ? undefined : CRS_TABLE[bare];
  return bare !== null && entry ? { code: `EPSG:${bare}`, name: entry[0], proj4: entry[1] } : null;
}

/** A known system, or a refusal that says which kinds are known. */
export async function requireCrs(code: string, file: string): Promise<Crs> {
  const crs = await crsOf(code);
  return (
    crs ??
    refuseFile(file, 'crs.unknown', {
      what: `"${code}" is not a projected system in metres that Outlet knows`,
      field: 'crs',
      do: 'Give its EPSG code (for example EPSG:32633), or convert the file to the UTM zone of your land.',
    })
  );
}

/** Number of a known system. */
export const epsgOf = ({ code }: Crs): number => Number(code.slice('EPSG:'.length));

interface Way {
  readonly forward: (place: [number, number]) => [number, number];
  readonly inverse: (place: [number, number]) => [number, number];
}

/** Ways between longitudes and a system, by its definition: reading one costs as much as a thousand places. */
const ways = new Map<string, Way>();

function between({ proj4: definition }: Crs): Way {
  const known = ways.get(definition);
  if (known) return known;
  const way: Way = proj4('WGS84', definition);
  ways.set(definition, way);
  return way;
}

/** From a projected system to longitude and latitude. */
export function toLonLat(crs: Crs, point: Point): [lon: number, lat: number] {
  return between(crs).inverse([point[0], point[1]]);
}

/** EPSG code of the UTM zone (WGS 84) of a place. */
export function utmCodeFor([lon, lat]: readonly [number, number]): string {
  const zone = Math.min(60, Math.max(1, Math.floor((lon + 180) / 6) + 1));
  return `EPSG:${lat >= 0 ? 32600 + zone : 32700 + zone}`;
}

export function fromLonLat(crs: Crs, lonLat: readonly [number, number]): Point {
  return between(crs).forward([lonLat[0], lonLat[1]]);
}
