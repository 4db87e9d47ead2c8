// GeoPackages (OGC 12-128r18): databases of points, lines and areas in layers, each in a system of its own.
import type { Feature, Position } from 'geojson';
import type { Database } from 'sql.js/dist/sql-wasm-inline.js';
import type { Point } from '../geometry/index.ts';
import { crsOf, toLonLat } from './crs.ts';
import { type ImportedShapes, type InputFile, refuseFile } from './imported.ts';
import { shapesIn } from './shapes.ts';
import { DEGREES, datumNotes, feetSystem } from './systems.ts';
import { type Drawn, packedGeometry } from './wkb.ts';

/** Rows and layers that are read of one file. */
const [MOST_ROWS, MOST_LAYERS] = [20_000, 50];
type DrawnFeature = Feature<Drawn>;
type Row = ReturnType<ReturnType<Database['prepare']>['getAsObject']>;

/** Where the places of a layer lie: in a known system in metres, in metres of its own, or anywhere longitudes and latitudes can be had of. */
type Lies = { readonly code: string | null } | { readonly toLonLat: (place: Point) => Point };

interface Layer {
  readonly name: string;
  readonly column: string;
  readonly lies: Lies;
  /** What is told of its system. */
  readonly notes: readonly string[];
}

/** A name as it is written in a question to the database. */
const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** The rows of a question, so many at most. */
function* rowsOf(db: Database, sql: string, most: number): Generator<Row> {
  const statement = db.prepare(`${sql} LIMIT ${most}`);
  try {
    while (statement.step()) yield statement.getAsObject();
  } finally {
    statement.free();
  }
}

/** Where a system of the file is; -1 says metres of its own, 0 degrees of no datum. @throws UserError where it is not known. */
async function liesIn({ srs_id, organization, code, definition }: Row, on: { readonly file: string; readonly layer: string }): Promise<Pick<Layer, 'lies' | 'notes'>> {
  if (srs_id === -1) return { lies: { code: null }, notes: ['It does not say its system: its numbers are taken as metres.'] };
  if (srs_id === 0) return { lies: DEGREES, notes: datumNotes(null, { file: on.file, field: 'srs_id' }) };
  const number = typeof code === 'number' && /^epsg$/i.test(String(organization)) ? code : null;
  if (number !== null && /^\s*GEOG/i.test(String(definition))) return { lies: DEGREES, notes: datumNotes(number, { file: on.file, field: 'srs_id' }) };
  const crs = number === null ? null : await crsOf(`EPSG:${number}`);
  if (crs) return { lies: { code: crs.code }, notes: [] };
  const feet = number === null ? null : await feetSystem(number);
  if (feet) return { lies: feet, notes: [] };
  return refuseFile(on.file, 'crs.unknown', {
    what: `its layer "${on.layer.slice(0, 60)}" lies in ${number === null ? 'a system it does not name' : `EPSG:${number}, which is not known here`}`,
    do: 'Convert it to WGS 84, or to a system in metres.',
  });
} // prettier-ignore

/** Layers that are tables of their own: what is worked out by the file itself is not asked for. */
const LAYERS = `SELECT c.table_name AS name, c.column_name AS col, s.srs_id, s.organization, s.organization_coordsys_id AS code, s.definition
  FROM gpkg_geometry_columns c JOIN gpkg_spatial_ref_sys s ON s.srs_id = c.srs_id
  JOIN sqlite_master m ON m.name = c.table_name AND m.type = 'table' AND m.rootpage > 0 ORDER BY c.table_name`;

async function layersOf(db: Database, file: string): Promise<Layer[]> {
  const rows = [...rowsOf(db, LAYERS, MOST_LAYERS + 1)];
  if (rows.length > MOST_LAYERS)
    refuseFile(file, 'gpkg.many', { what: `it holds more than ${MOST_LAYERS} layers`, do: 'Export those that are wanted as a file of their own.' });
  const layers: Layer[] = [];
  for (const row of rows) {
    const name = String(row.name);
    layers.push({ name, column: String(row.col), ...(await liesIn(row, { file, layer: name })) });
  }
  if (layers.length > 0) return layers;
  return refuseFile(file, 'gpkg.nothing', { what: 'no layer of points, lines or areas is in it', do: 'Export what is drawn as a layer of its own.' });
} // prettier-ignore

/** Every place of a geometry turned into another. */
function turned(drawn: Drawn, turn: (place: Point) => Point): Drawn {
  const at = ([x, y, ...z]: Position): Position => [...turn([x, y]), ...z];
  switch (drawn.type) {
    case 'Point':
      return { ...drawn, coordinates: at(drawn.coordinates) };
    case 'LineString':
      return { ...drawn, coordinates: drawn.coordinates.map(at) };
    case 'Polygon':
      return { ...drawn, coordinates: drawn.coordinates.map((ring) => ring.map(at)) };
    case 'GeometryCollection':
      return { ...drawn, geometries: drawn.geometries.map((one) => turned(one, turn)) };
  }
}

/** What is drawn in one layer, filed under its name where nothing in it says more. */
function featuresOf(db: Database, { name, column }: Layer, file: string): DrawnFeature[] {
  const features: DrawnFeature[] = [];
  let k = 0;
  for (const row of rowsOf(db, `SELECT * FROM ${quoted(name)}`, MOST_ROWS + 1)) {
    if (++k > MOST_ROWS)
      refuseFile(file, 'shapes.many', { what: `its layer "${name.slice(0, 60)}" holds more than ${MOST_ROWS} rows`, do: 'Cut out the part round your land, and bring that in.' }); // prettier-ignore
    const { [column]: blob, ...told } = row;
    if (!(blob instanceof Uint8Array)) continue;
    const properties = Object.fromEntries(Object.entries(told).filter(([, value]) => !(value instanceof Uint8Array)));
    try {
      const geometry = packedGeometry(blob);
      if (geometry) features.push({ type: 'Feature', geometry, properties: { folder: name, ...properties } });
    } catch {
      refuseFile(file, 'gpkg.geometry', {
        what: `what is drawn in row ${k} of its layer "${name.slice(0, 60)}" cannot be read`,
        do: 'Export it anew, curves as lines.',
      });
    }
  }
  return features;
}

async function opened({ name, bytes }: InputFile): Promise<Database> {
  // Only who brings in such a file needs what reads it.
  const { default: open } = await import('sql.js/dist/sql-wasm-inline.js');
  try {
    const { Database } = await open();
    return new Database(bytes);
  } catch {
    return broken(name);
  }
}

const broken = (file: string): never =>
  refuseFile(file, 'gpkg.broken', { what: 'it is no GeoPackage, or it breaks off', do: 'Export it again, or as GeoJSON.' });

/** Layers of a GeoPackage as shapes. @throws UserError whatever is wrong with it. */
export async function readGeoPackage(file: InputFile, wanted: string | null): Promise<ImportedShapes> {
  const { name } = file;
  const db = await opened(file);
  try {
    const layers = await layersOf(db, name);
    const drawn = layers.map((layer) => ({ ...layer, features: featuresOf(db, layer, name) }));
    const notes = [...new Set(layers.flatMap((layer) => layer.notes))];
    const noted = (read: ImportedShapes): ImportedShapes => ({ ...read, notes: [...notes, ...read.notes] });
    const codes = new Set(drawn.map(({ lies }) => ('code' in lies ? lies.code : '')));
    const [code] = codes;
    // All in one system in metres, and that is wanted: it stays as it is. Else all go by way of longitudes and latitudes.
    if (codes.size === 1 && code !== '' && (code === null || wanted === null || wanted === code))
      return noted(await shapesIn(collected(drawn.flatMap((d) => d.features)), { file: name, wanted, inMetres: code ?? wanted ?? '' }));
    const features: DrawnFeature[] = [];
    for (const one of drawn) features.push(...(await inDegrees(one, name)));
    return noted(await shapesIn(collected(features), { file: name, wanted, inMetres: null }));
  } catch (error) {
    if (error instanceof Error && error.name === 'UserError') throw error;
    return broken(name);
  } finally {
    db.close();
  }
} // prettier-ignore

const collected = (features: DrawnFeature[]): { type: 'FeatureCollection'; features: DrawnFeature[] } => ({
  type: 'FeatureCollection',
  features,
});

async function inDegrees({ lies, features, name }: Layer & { readonly features: DrawnFeature[] }, file: string): Promise<DrawnFeature[]> {
  if ('toLonLat' in lies) return features.map((f) => ({ ...f, geometry: turned(f.geometry, lies.toLonLat) }));
  const crs = lies.code === null ? null : await crsOf(lies.code);
  if (!crs)
    return refuseFile(file, 'crs.unknown', {
      what: `its layer "${name.slice(0, 60)}" lies in metres of its own, others in a known system`,
      do: 'Bring it in as a file of its own.',
    });
  return features.map((f) => ({ ...f, geometry: turned(f.geometry, (place) => toLonLat(crs, place)) }));
}
