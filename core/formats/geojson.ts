// Shapes written as JSON (RFC 7946), and as older files wrote them, with the system they are in.
import type { Feature, FeatureCollection, Geometry } from 'geojson';
import { parseJson } from './project-file.ts';
import { type ImportedShapes, type InputFile, refuseFile } from './imported.ts';
import { shapesIn } from './shapes.ts';

const GEOMETRIES: ReadonlySet<unknown> = new Set(['Point', 'MultiPoint', 'LineString', 'MultiLineString', 'Polygon', 'MultiPolygon', 'GeometryCollection']); // prettier-ignore

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** How deep lists of places stand in each other, by what they draw. */
const DEPTHS: Readonly<Record<string, number>> = {
  Point: 1,
  MultiPoint: 2,
  LineString: 2,
  MultiLineString: 3,
  Polygon: 3,
  MultiPolygon: 4,
};
/** Collections within collections that are looked into. */
const DEEPEST = 8;

function isPlaces(value: unknown, depth: number): boolean {
  if (!Array.isArray(value)) return false;
  return depth === 1 ? value.length >= 2 && value.every((v) => typeof v === 'number') : value.every((v) => isPlaces(v, depth - 1));
}

function isGeometry(value: unknown, depth = 0): value is Geometry {
  if (!isRecord(value) || !GEOMETRIES.has(value.type) || depth > DEEPEST) return false;
  if (value.type === 'GeometryCollection')
    return Array.isArray(value.geometries) && value.geometries.every((g) => isGeometry(g, depth + 1));
  return isPlaces(value.coordinates, DEPTHS[value.type as string]);
}

/** Whether a parsed file is drawn shapes rather than a document of ours. */
export const isGeoJson = (json: unknown): boolean =>
  isRecord(json) && (json.type === 'FeatureCollection' || json.type === 'Feature' || GEOMETRIES.has(json.type));

function featureOf(value: unknown, k: number, file: string): Feature {
  const isFeature = isRecord(value) && value.type === 'Feature' && (value.geometry === null || isGeometry(value.geometry));
  if (isFeature) return value as unknown as Feature;
  return refuseFile(file, 'geojson.feature', {
    what: `shape ${k + 1} has no geometry that can be read`,
    field: `features.${k}`,
    do: 'Write it anew: a Feature with a geometry of points, lines or polygons.',
  });
}

function collectionOf(json: Readonly<Record<string, unknown>>, file: string): FeatureCollection {
  if (json.type === 'FeatureCollection' && Array.isArray(json.features))
    return { type: 'FeatureCollection', features: json.features.map((f, k) => featureOf(f, k, file)) };
  if (json.type === 'Feature') return { type: 'FeatureCollection', features: [featureOf(json, 0, file)] };
  return { type: 'FeatureCollection', features: [featureOf({ type: 'Feature', geometry: json, properties: {} }, 0, file)] };
}

/** The system an older file names; '' where it names one for degrees, or none. */
function namedSystem({ crs }: Readonly<Record<string, unknown>>): string {
  const name = isRecord(crs) && isRecord(crs.properties) && typeof crs.properties.name === 'string' ? crs.properties.name : '';
  const code = /EPSG:+:?(\d{4,6})$/i.exec(name)?.[1] ?? '';
  return code === '4326' || code === '4979' ? '' : code && `EPSG:${code}`;
}

/** Whether any number is too large for a degree: then all are metres. */
const hasMetres = (value: unknown): boolean =>
  Array.isArray(value)
    ? typeof value[0] === 'number'
      ? Math.abs(value[0]) > 180 || Math.abs(value[1] as number) > 90
      : value.some(hasMetres)
    : false;

/** Whether anything in it lies where no degrees are. */
export const isMetric = ({ features }: FeatureCollection): boolean =>
  features.some(({ geometry }) => (geometry as Geometry | null) !== null && 'coordinates' in geometry && hasMetres(geometry.coordinates));

export async function readGeoJson({ name, bytes }: InputFile, wanted: string | null): Promise<ImportedShapes> {
  const json = parseJson(name, bytes);
  if (!isRecord(json) || !isGeoJson(json))
    return refuseFile(name, 'geojson.shape', { what: 'it draws nothing', do: 'Choose a file that begins with a FeatureCollection.' });
  const collection = collectionOf(json, name);
  const system = namedSystem(json);
  const isInMetres = system !== '' || isMetric(collection);
  const read = await shapesIn(collection, { file: name, wanted, inMetres: isInMetres ? (system || (wanted ?? '')) : null });
  return isInMetres && read.crs === null
    ? { ...read, notes: [...read.notes, 'Its numbers are metres, and it names no system: positions are taken as local metres.'] }
    : read;
} // prettier-ignore
