// Shapefiles: the parts of one or several in a zip, with what is told of each shape and the system they lie in.
import { combine, parseDbf, parseShp } from 'shpjs';
import type { Feature, FeatureCollection } from 'geojson';
import { isMetric } from './geojson.ts';
import { type ImportedShapes, type InputFile, refuseFile } from './imported.ts';
import { shapesIn } from './shapes.ts';
import { mapParts } from './zip.ts';

type Parts = Readonly<Record<string, Uint8Array | undefined>>;

/** Parts by the name they share, in the order of the names. */
function partsIn(file: InputFile): ReadonlyMap<string, Parts> {
  const by = new Map<string, Record<string, Uint8Array>>();
  for (const [entry, bytes] of Object.entries(mapParts(file, /\.(shp|dbf|prj|cpg)$/i)).sort()) {
    const at = entry.lastIndexOf('.');
    const base = entry.slice(0, at);
    by.set(base, { ...by.get(base), [entry.slice(at + 1).toLowerCase()]: bytes });
  }
  const whole = new Map([...by].filter(([, parts]) => 'shp' in parts));
  if (whole.size > 0) return whole;
  return refuseFile(file.name, 'zip.nothing', {
    what: 'there is no shapefile in it',
    do: 'Pack the .shp with its .dbf and .prj into one zip, or bring in another kind of file.',
  });
}

/** Whether a table holds the rows its head says: the reader would go on for hours through those that are not there. */
function isWhole(dbf: Uint8Array): boolean {
  if (dbf.length < 32) return false;
  const head = new DataView(dbf.buffer, dbf.byteOffset);
  const [rows, begins, rowBytes] = [head.getUint32(4, true), head.getUint16(8, true), head.getUint16(10, true)];
  return rowBytes > 0 && begins + rows * rowBytes <= dbf.length + 1;
}

/** One of them; filed under its own name where nothing in it says more. */
function layerOf(base: string, { shp, dbf, prj, cpg }: Parts, file: string): Feature[] {
  try {
    if (!shp) return [];
    if (dbf && !isWhole(dbf)) throw new Error('the table breaks off');
    const shapes = parseShp(shp, prj && new TextDecoder().decode(prj));
    const { features } = combine(dbf ? [shapes, parseDbf(dbf, cpg)] : [shapes]);
    const layer = base.split('/').pop();
    return features.map((f) => ({ ...f, properties: { folder: layer, ...f.properties } }));
  } catch {
    return refuseFile(file, 'shp.broken', {
      what: `"${base}" breaks off, or its system cannot be read`,
      do: 'Export it anew, with its .dbf and .prj, and pack all of it into one zip.',
    });
  }
}

export async function readShapefile(file: InputFile, wanted: string | null): Promise<ImportedShapes> {
  const { name } = file;
  const parts = partsIn(file);
  const collection: FeatureCollection = {
    type: 'FeatureCollection',
    features: [...parts].flatMap(([base, own]) => layerOf(base, own, name)),
  };
  const isSaid = [...parts.values()].every((p) => p.prj);
  const inMetres = !isSaid && isMetric(collection) ? (wanted ?? '') : null;
  const read = await shapesIn(collection, { file: name, wanted, inMetres });
  if (inMetres === null) return read;
  const taken = wanted === null ? 'as local metres' : `in ${wanted}`;
  return { ...read, notes: [...read.notes, `It does not say its system: its numbers are taken as metres, ${taken}.`] };
}
