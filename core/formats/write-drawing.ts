// A drawing written in open formats: for maps in degrees, for phones, for drawing programs in metres, for tables.
import { DxfWriter, LWPolylineFlags, Units, point2d, point3d } from '@tarikjabiri/dxf';
import Papa from 'papaparse';
import { fail } from '../project/index.ts';
import { type Crs, toLonLat } from './crs.ts';
import type { DrawnThing } from './drawing.ts';
import { escapeXml, gpxFile, harmless } from './marked-up.ts';

export const DRAWING_FORMATS = ['geojson', 'kml', 'gpx', 'dxf', 'csv'] as const;
export type DrawingFormat = (typeof DRAWING_FORMATS)[number];

type Place = DrawnThing['places'][number];

/** Longitude, latitude and, where one is told, the level: to a hundredth of a millimetre, and to a millimetre. */
function degrees(crs: Crs, [x, y, levelM]: Place): number[] {
  const lonLat = toLonLat(crs, [x, y]).map((v) => Number(v.toFixed(9)));
  return levelM === null ? lonLat : [...lonLat, Number(levelM.toFixed(3))];
}

function geoJson(things: readonly DrawnThing[], crs: Crs): string {
  const features = things.map(({ layer, name, form, places, says }) => {
    const corners = places.map((p) => degrees(crs, p));
    const geometry =
      form === 'point'
        ? { type: 'Point', coordinates: corners[0] }
        : form === 'line'
          ? { type: 'LineString', coordinates: corners }
          : { type: 'Polygon', coordinates: [[...corners, corners[0]]] };
    return { type: 'Feature', geometry, properties: { layer, name, ...says } };
  });
  return `${JSON.stringify({ type: 'FeatureCollection', features })}\n`;
}

const byLayer = (things: readonly DrawnThing[]): ReadonlyMap<string, readonly DrawnThing[]> => {
  const by = new Map<string, DrawnThing[]>();
  for (const thing of things) {
    const own = by.get(thing.layer);
    if (own) own.push(thing);
    else by.set(thing.layer, [thing]);
  }
  return by;
};

const told = (says: DrawnThing['says']): string =>
  Object.entries(says)
    .flatMap(([key, value]) => (value === null ? [] : [`${key} ${typeof value === 'number' ? Number(value.toPrecision(6)) : value}`]))
    .join(', ');

function kml(things: readonly DrawnThing[], crs: Crs): string {
  const shapeOf = ({ form, places }: DrawnThing): string => {
    const corners = places.map((p) => degrees(crs, p).join(','));
    // Levels are those of the project; a globe that has other ground draws on its own.
    const mode = '<altitudeMode>clampToGround</altitudeMode>';
    if (form === 'point') return `<Point>${mode}<coordinates>${corners[0]}</coordinates></Point>`;
    if (form === 'line') return `<LineString>${mode}<coordinates>${corners.join(' ')}</coordinates></LineString>`;
    return `<Polygon>${mode}<outerBoundaryIs><LinearRing><coordinates>${[...corners, corners[0]].join(' ')}</coordinates></LinearRing></outerBoundaryIs></Polygon>`;
  };
  const placemark = (thing: DrawnThing): string =>
    `<Placemark><name>${escapeXml(thing.name)}</name><description>${escapeXml(told(thing.says))}</description>${shapeOf(thing)}</Placemark>`;
  const folders = [...byLayer(things)].map(([layer, own]) => `<Folder><name>${escapeXml(layer)}</name>\n${own.map(placemark).join('\n')}\n</Folder>`);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<kml xmlns="http://www.opengis.net/kml/2.2"><Document>\n${folders.join('\n')}\n</Document></kml>\n`;
} // prettier-ignore

function gpx(things: readonly DrawnThing[], crs: Crs): string {
  const point = (tag: string, place: Place, more = ''): string => {
    const [lon, lat, levelM] = degrees(crs, place);
    return `<${tag} lat="${lat}" lon="${lon}">${levelM === undefined ? '' : `<ele>${levelM}</ele>`}${more}</${tag}>`;
  };
  const named = ({ name, layer, says }: DrawnThing): string => `<name>${escapeXml(name)}</name><desc>${escapeXml(told(says))}</desc><type>${escapeXml(layer)}</type>`;
  const points = things.filter((t) => t.form === 'point').map((t) => point('wpt', t.places[0], named(t)));
  const tracks = things
    .filter((t) => t.form !== 'point')
    .map((t) => {
      const round = t.form === 'ring' ? [...t.places, t.places[0]] : t.places;
      return `<trk>${named(t)}<trkseg>${round.map((p) => point('trkpt', p)).join('')}</trkseg></trk>`;
    });
  return gpxFile([...points, ...tracks]);
} // prettier-ignore

/** A layer's name as drawing programs allow it; what bears no level lies in a layer that says so, since they know no missing one. */
function layerName({ layer, places }: Pick<DrawnThing, 'layer' | 'places'>): string {
  const plain = layer
    .replace(/[^A-Za-z0-9 _-]+/g, '')
    .trim()
    .replaceAll(' ', '_')
    .toUpperCase()
    .slice(0, LONGEST_LAYER);
  return `${plain || 'LAYER'}${hasLevels(places) ? '' : '_2D'}`;
}
const LONGEST_LAYER = 60;
const hasLevels = (places: DrawnThing['places']): boolean => places.every((p) => p[2] !== null);

/** Colours of the usual palette, one a layer in turn: black on white is left to the program. */
const COLOURS = [5, 30, 3, 1, 140, 34, 94, 8];
/** Height of a written name on the ground [m]. */
const LETTERS_M = 0.5;

function dxf(things: readonly DrawnThing[]): string {
  const writer = new DxfWriter();
  // Metres.
  writer.setUnits(Units.Meters);
  const layers = [...new Set(things.map(layerName))];
  layers.forEach((name, k) => writer.addLayer(name, COLOURS[k % COLOURS.length], 'CONTINUOUS'));
  for (const thing of things) {
    const { form, places, name: called } = thing;
    const on = { layerName: layerName(thing) };
    const corners = places.map(([x, y, levelM]) => point3d(x, y, levelM ?? NO_LEVEL));
    const [first] = corners;
    if (form === 'point') {
      writer.addPoint(first.x, first.y, first.z, on);
      writer.addText(first, LETTERS_M, called.replace(/[\r\n]/g, ' '), on);
    } else if (hasLevels(places)) {
      const round = form === 'ring' ? [...corners, first] : corners;
      writer.addPolyline3D(round.map((point) => ({ point })), on); // prettier-ignore
    } else {
      const flags = form === 'ring' ? LWPolylineFlags.Closed : LWPolylineFlags.None;
      writer.addLWPolyline(corners.map(({ x, y }) => ({ point: point2d(x, y) })), { ...on, flags }); // prettier-ignore
    }
  }
  return writer.stringify();
}
/** Where a level must be written and none is told. */
const NO_LEVEL = 0;

function csv(things: readonly DrawnThing[]): string {
  const rows = things.flatMap(({ layer, name, form, places, says }, k) =>
    places.map(([x, y, levelM], corner) => ({
      layer: harmless(layer),
      name: harmless(name),
      drawn_as: form === 'ring' ? 'area' : form,
      number: k + 1,
      corner: corner + 1,
      x_m: x.toFixed(3),
      y_m: y.toFixed(3),
      level_m: levelM === null ? '' : levelM.toFixed(3),
      told: harmless(corner === 0 ? told(says) : ''),
    })),
  );
  return `${Papa.unparse(rows, { newline: '\n' })}\n`;
}

const IN_METRES = { dxf, csv } as const;
const IN_DEGREES = { geojson: geoJson, kml, gpx } as const;

/** Whether a format is written in degrees, and so needs a coordinate system. */
export const needsCrs = (format: DrawingFormat): format is keyof typeof IN_DEGREES => format in IN_DEGREES;

/** A drawing in a format. @throws UserError where it needs degrees and the project is in local metres. */
export function writeDrawing(things: readonly DrawnThing[], format: DrawingFormat, crs: Crs | null): string {
  if (!needsCrs(format)) return IN_METRES[format](things);
  if (crs) return IN_DEGREES[format](things, crs);
  return fail('crs.none', 'the project is in local metres, so its plan has no latitude and longitude', {
    where: { field: 'site.crs' },
    do: 'Export DXF or CSV, or give the project its coordinate system.',
  });
}
