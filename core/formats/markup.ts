// Tracks and maps written as XML: GPX, and KML with its folders, zipped or not.
import { DOMParser } from '@xmldom/xmldom';
import { gpx, kmlWithFolders } from '@tmcw/togeojson';
import type { Feature, FeatureCollection } from 'geojson';
import { type ImportedShapes, type InputFile, refuseFile } from './imported.ts';
import { shapesIn } from './shapes.ts';
import { textOf } from './text.ts';
import { mapParts } from './zip.ts';

/** Folders within folders that are looked into. */
const DEEPEST = 40;

type XmlDocument = Parameters<typeof gpx>[0];

/** The document of a text. @throws UserError with the line where it breaks. */
function parsed(text: string, file: string): XmlDocument {
  // Nothing a map needs is declared so, and what is could be made to fill the memory.
  if (/<!(ENTITY|DOCTYPE)/i.test(text))
    refuseFile(file, 'xml.declares', { what: 'it declares entities of its own', do: 'Write it anew without them.' });
  let line: number | null = null;
  try {
    const parser = new DOMParser({
      // The first is told, with its line; what follows from it is not.
      onError: (level, _, context: { readonly locator?: { readonly lineNumber?: number } }) => {
        if (level !== 'warning') line ??= context.locator?.lineNumber ?? NO_LINE;
      },
    });
    const document = parser.parseFromString(text, 'text/xml');
    if (line === null) return document;
  } catch {
    line ??= NO_LINE;
  }
  return refuseFile(file, 'xml.broken', {
    what: 'its XML breaks off, or is spoilt',
    ...(line === NO_LINE || line === null ? {} : { line }),
    do: 'Save it anew where it comes from: part of it is missing or spoilt.',
  });
}
/** Where no line is told. */
const NO_LINE = 0;

type Folder = ReturnType<typeof kmlWithFolders>;

/** Everything in folders, each filed under the one it lies in. */
function unfolded(folder: Folder | Folder['children'][number], group: string, depth: number): Feature[] {
  if (folder.type === 'Feature') {
    const own: unknown = folder.properties?.layer ?? folder.properties?.type;
    return [{ ...folder, properties: { ...folder.properties, layer: typeof own === 'string' ? own : group } } as Feature];
  }
  if (depth > DEEPEST) return [];
  const name: unknown = 'meta' in folder ? folder.meta.name : '';
  return folder.children.flatMap((child) => unfolded(child, typeof name === 'string' && name !== '' ? name : group, depth + 1));
}

const GPX_GROUPS: Readonly<Record<string, string>> = { wpt: 'Waypoints', rte: 'Routes', trk: 'Tracks' };

/** Waypoints under the sign they bear, tracks and routes as such. */
function gpxShapes(text: string, file: string): FeatureCollection {
  const { features } = gpx(parsed(text, file));
  return {
    type: 'FeatureCollection',
    features: features.map((f) => {
      const { _gpxType, sym, type, name } = (f.properties ?? {}) as Readonly<Record<string, unknown>>;
      const said = typeof type === 'string' ? type : typeof sym === 'string' ? sym : '';
      // A level of a track's point is its own; what else is written beside it is a matter of the walk.
      return { ...f, properties: { name, layer: said || (GPX_GROUPS[String(_gpxType)] ?? '') } };
    }),
  };
}

/** The map within a zipped one: the first that is written in it. */
function unzipped(file: InputFile): string {
  const inside = mapParts(file, /\.kml$/i);
  const [first] = Object.keys(inside).sort();
  if (first) return textOf(inside[first]);
  return refuseFile(file.name, 'kmz.empty', { what: 'there is no map in it', do: 'Save what you drew as KML or KMZ anew.' });
}

/** Added to what a walk is read as: a person who trusts its levels builds a wall by them. */
const WALKED = 'Levels walked with a phone are good to 5 or 10 m: they show the lie of the land, and set no work out.';

/** A GPX track, a KML map, or one zipped. */
export async function readMarkup(file: InputFile, wanted: string | null): Promise<ImportedShapes> {
  const { name, bytes } = file;
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const text = isZip ? unzipped(file) : textOf(bytes);
  const isGpx = /<gpx[\s>]/i.test(text.slice(0, 2000));
  const collection: FeatureCollection = isGpx
    ? gpxShapes(text, name)
    : { type: 'FeatureCollection', features: unfolded(kmlWithFolders(parsed(text, name)), '', 0) };
  const read = await shapesIn(collection, { file: name, wanted, inMetres: null });
  return isGpx && read.shapes.some((s) => s.levelsM) ? { ...read, notes: [...read.notes, WALKED] } : read;
}
