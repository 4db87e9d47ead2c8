declare module 'shpjs' {
  import type { FeatureCollection, Geometry, GeoJsonProperties } from 'geojson';
  /** Geometries in degrees where the text of a projection is given, else as they are written. */
  export function parseShp(shp: Uint8Array, prj?: string): Geometry[];
  export function parseDbf(dbf: Uint8Array, cpg?: Uint8Array): GeoJsonProperties[];
  export function combine(parts: readonly [Geometry[], GeoJsonProperties[]?]): FeatureCollection;
}
