// Sound files and the ways they are spoilt: by bytes, by words, by lines, by members. The same seed spoils in the same way.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8 } from 'fflate';
import { gridToBytes, assetName, type Project } from '#core/project';
import { writeProjectFile } from '#core/formats';
import { gridOf } from '../core/testing/grids.ts';
import { FULL_GROUND, SILL, SWALE, planeProject } from '../core/testing/projects.ts';
import { PLACED, tiffOf } from '../core/testing/tiff.ts';
import { type Tree, pathsIn, replacedAt } from '../core/testing/trees.ts';
import { BACKUP, BACKUP_SILL, CUT, DRAIN, PIPE, POND, POND_SILL, PUMP, ROAD, TRENCH, valleyProject } from '../core/testing/valley.ts';

export const FORMATS = [
  'asc',
  'tif',
  'survey',
  'rain',
  'gauge',
  'readings',
  'geojson',
  'kml',
  'gpx',
  'dxf',
  'shapefile',
  'zipped-grid',
  'picture',
  'photo',
  'colours',
  'geopackage',
  'book',
  'project',
  'outlet',
  'commands',
] as const;
export type Format = (typeof FORMATS)[number];

export type Chance = () => number;

/** A small seeded generator (mulberry32). */
export function chanceOf(seed: number): Chance {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const pick = <T>(list: readonly T[], chance: Chance): T => list[Math.floor(chance() * list.length)];
const demo = (name: string): Uint8Array => new Uint8Array(readFileSync(join(import.meta.dirname, '../demo', name)));

const ASC = [
  'ncols 12',
  'nrows 9',
  'xllcorner 1000',
  'yllcorner 2000',
  'cellsize 2.5',
  'NODATA_value -9999',
  ...Array.from({ length: 9 }, (_, r) => Array.from({ length: 12 }, (_, c) => 100 + r / 2 + c / 10).join(' ')),
  '',
].join('\n');
const SURVEY = [
  'x,y,z',
  ...Array.from({ length: 24 }, (_, i) => `${100 + (i % 6) * 7.5},${200 + Math.floor(i / 6) * 8},${50 + i * 0.3}`),
  '',
].join('\n');
const CODES = ['toe', 'top', 'limit', 'roof', ''];
const CODED = ['x,y,z,code', ...Array.from({ length: 40 }, (_, i) => `${100 + (i % 8) * 5},${200 + Math.floor(i / 8) * 6},${50 + i * 0.2},${CODES[i % 5]}`), ''].join('\n'); // prettier-ignore
const GAUGE = `date,rain_mm\n${Array.from({ length: 60 }, (_, i) => `2021-0${i < 31 ? 5 : 6}-${String(i < 31 ? i + 1 : i - 30).padStart(2, '0')},${['0', '3.2', 'T', '', '12.5', '7A'][(i * 7) % 6]}`).join('\n')}\n`;
const BOOK = ['name,x,y,bs,is,fs,level', 'peg,,,1.5,,,100', ...Array.from({ length: 12 }, (_, i) => `${i},${6 * (i % 4)},${7 * Math.floor(i / 4)},,${(1 + i / 10).toFixed(3)},,`), 'turn,3,3,1.2,,1.4,', 'peg,,,,,1.3,100', ''].join('\n'); // prettier-ignore
const READINGS = 'time,depth mm,refilled\n9:00,100\n9:10,91\n9:20,83,100\n9:30,92.5\n9:45,81\n';

const kept = (name: string): Uint8Array => new Uint8Array(readFileSync(join(import.meta.dirname, '../core/formats/fixtures', name)));
const CORNERS = [[15, 48, 3], [15.001, 48, 4], [15.001, 48.001, 5.5], [15, 48.001, 6], [15, 48, 3]]; // prettier-ignore
const GEOJSON = {
  type: 'FeatureCollection',
  features: [
    { type: 'Feature', properties: { name: 'Barn', layer: 'Houses' }, geometry: { type: 'Polygon', coordinates: [CORNERS] } },
    { type: 'Feature', properties: { ele: 101.5 }, geometry: { type: 'MultiLineString', coordinates: [CORNERS, CORNERS] } },
    { type: 'Feature', properties: null, geometry: { type: 'GeometryCollection', geometries: [{ type: 'Point', coordinates: [15, 48] }] } },
  ],
};
const KML = `<?xml version="1.0"?>\n<kml xmlns="http://www.opengis.net/kml/2.2"><Document>\n<Folder><name>Ways</name>\n<Placemark><name>To &amp; fro</name>\n<LineString><coordinates>\n${CORNERS.map((c) => c.join(',')).join('\n')}\n</coordinates></LineString></Placemark>\n</Folder>\n<Placemark><Point><coordinates>15,48</coordinates></Point></Placemark>\n</Document></kml>\n`;
const GPX = `<gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1">\n<wpt lat="48" lon="15"><ele>7</ele><name>Gate</name></wpt>\n<trk><trkseg>\n${CORNERS.map(([lon, lat, z]) => `<trkpt lat="${lat}" lon="${lon}"><ele>${z}</ele></trkpt>`).join('\n')}\n</trkseg></trk>\n</gpx>\n`;
const DXF = ['0 SECTION 2 ENTITIES', '0 LINE 8 FENCE 10 0 20 0 30 5 11 9 21 4 31 7', '0 LWPOLYLINE 8 POND 90 3 70 1 10 0 20 0 10 9 20 0 10 9 20 9', '0 POINT 8 SPOT 10 3 20 3 30 6', '0 ENDSEC 0 EOF'].flatMap((l) => l.split(' ')).join('\n'); // prettier-ignore

const VALLEY = valleyProject([POND, POND_SILL, CUT, TRENCH, PIPE, ROAD, DRAIN, PUMP, BACKUP, BACKUP_SILL]);
const PLANE: Project = {
  ...planeProject({
    ...FULL_GROUND,
    pins: [{ id: 'k', at: [100, 40] }],
    cases: [{ id: 'c', name: 'C', blockedPercent: { s1: 50 }, startsFull: true }],
  }),
  features: [
    {
      id: 'f1',
      kind: 'building',
      ring: [
        [20, 60],
        [30, 60],
        [30, 70],
        [20, 70],
      ],
    },
    {
      id: 'f2',
      kind: 'windrow',
      line: [
        [40, 150],
        [120, 150],
      ],
      heightM: 0.4,
    },
    { id: 'f3', kind: 'spring', at: [90, 170], flowM3s: 0.0005 },
  ],
};
const COMMANDS: readonly unknown[] = [
  { type: 'pin.add', payload: { pin: { id: 'k2', at: [50, 50] } } },
  { type: 'works.change', payload: { changes: [{ id: 'w1', set: { 'levels.floorM': 109.7, name: 'Other' } }] } },
  {
    type: 'works.add',
    payload: {
      works: [
        { ...SWALE, id: 'w2' },
        { ...SILL, id: 's2', host: 'w2' },
      ],
    },
  },
  { type: 'feature.add', payload: { feature: { id: 'f9', kind: 'spring', at: [9, 9], flowM3s: 0.001 } } },
  { type: 'rain.set-storm', payload: { storm: { returnYears: 2, durationMin: 60 } } },
  { type: 'case.add', payload: { case: { id: 'c2', name: 'D', siltedPercent: { w1: 20 } } } },
  { type: 'zone.change', payload: { id: 'z1', set: { cover: 'bare', soilDepthM: 0.5 } } },
  { type: 'link.set', payload: { outlet: 's1', to: 'ground' } },
  {
    type: 'site.set',
    payload: {
      outline: [
        [5, 5],
        [190, 5],
        [190, 190],
      ],
      zeroLevelM: 1,
    },
  },
  { type: 'works.remove', payload: { ids: ['s1'] } },
];
export const COMMANDS_ON = PLANE;

function outletFile(): Uint8Array {
  const bytes = gridToBytes(gridOf((x, y) => 100 + 0.05 * y + 0.01 * x, { cells: 40, cellM: 2 }));
  const sha256 = assetName(bytes);
  return writeProjectFile(planeProject({ terrain: { kind: 'asset', sha256, source: 'a' } }), new Map([[sha256, bytes]]));
}

const packed = Int16Array.from({ length: 64 }, (_, i) => 1000 + i);
const GDAL = '<GDALMetadata><Item name="SCALE" sample="0" role="scale">0.1</Item></GDALMetadata>';

/** Sound files of each format; a mutation begins from one of them. */
const SOUND: Readonly<Record<Format, readonly (Uint8Array | string | object)[]>> = {
  asc: [ASC],
  tif: [
    tiffOf(packed, 8, [...PLACED, { id: 42112, type: 2, values: GDAL }, { id: 42113, type: 2, values: '-32768' }]),
    demo('sallow-rise.tif').slice(0, 40_000),
    tiffOf(packed, 8, PLACED),
  ],
  survey: [SURVEY, CODED, new TextDecoder().decode(demo('sample-survey.csv')).slice(0, 3000)],
  rain: [new TextDecoder().decode(demo('sample-rain.csv'))],
  gauge: [GAUGE, new TextDecoder().decode(demo('sample-gauge.csv')).slice(0, 4000)],
  readings: [READINGS],
  geojson: [GEOJSON],
  kml: [KML],
  gpx: [GPX],
  dxf: [DXF],
  shapefile: [kept('houses.shp.zip'), kept('contours.shp.zip')],
  'zipped-grid': [kept('grid-utm.zip'), kept('grid-degrees.zip'), kept('grid-bare.zip')],
  picture: [kept('grid-bands.tif')],
  photo: [kept('photo.zip'), kept('photo-degrees.zip')],
  colours: [kept('photo.tif'), kept('photo-degrees.tif')],
  geopackage: [kept('map.gpkg')],
  book: [
    BOOK,
    'name,from,x,y,behind,ahead,level\nsill,,,,,,100\na,,0,0,1,0.9,\nb,,9,0,1,1.2,\nc,a,0,9,1,0.7,\n',
    'name,x,y,rise,steps,level\nsill,,,,,100\na,0,0,0.1,2,\nb,9,0,-0.2,3,\nc,0,9,0.3,2,\n',
  ],
  project: [PLANE, VALLEY, PLANE],
  outlet: [outletFile()],
  commands: [COMMANDS],
};

const NAMES: Readonly<Record<Format, string>> = {
  asc: 'a.asc',
  tif: 't.tif',
  survey: 's.csv',
  rain: 'r.csv',
  gauge: 'g.csv',
  readings: 'n.txt',
  geojson: 'm.geojson',
  kml: 'm.kml',
  gpx: 'w.gpx',
  dxf: 'd.dxf',
  shapefile: 's.zip',
  'zipped-grid': 'z.zip',
  picture: 'p.tif',
  photo: 'p.zip',
  colours: 'c.tif',
  geopackage: 'm.gpkg',
  book: 'b.csv',
  project: 'project.json',
  outlet: 'p.outlet',
  commands: 'commands.json',
};

const WORDS = [
  '',
  '-',
  '1e999',
  '-1e999',
  'NaN',
  'Infinity',
  '-9999',
  '-32768',
  '3.4e38',
  '1,204',
  '1.204,5',
  '=1+1',
  '99999999999999999999',
  '0',
  '-0',
  '1e-300',
  'ncols',
  '\u0000',
  '"',
  ';',
  '\t',
  '日本',
  '__proto__',
  'x'.repeat(5000),
];
const VALUES: readonly unknown[] = [
  null,
  true,
  false,
  0,
  -1,
  1e300,
  -1e300,
  5e-324,
  1.5,
  '',
  'x',
  '__proto__',
  'constructor',
  'property-edge',
  'ground',
  [],
  {},
  [[1, 2]],
  [
    [1, 2],
    [3, 4],
  ],
  [null],
  'planned',
  'swale',
  'x'.repeat(900),
  [1, 2],
  { toString: 1 },
  Array.from({ length: 6000 }, (_, i) => [i, i % 9]),
];

function spoilBytes(bytes: Uint8Array, chance: Chance): Uint8Array {
  const at = Math.floor(chance() * bytes.length);
  const length = 1 + Math.floor(chance() * 40);
  const kind = Math.floor(chance() * 5);
  const out = Uint8Array.from(bytes);
  if (kind === 0) return out.slice(0, at);
  if (kind === 1) return Uint8Array.from([...out.subarray(0, at + length), ...out.subarray(at)]);
  if (kind === 2) return Uint8Array.from([...out.subarray(0, at), ...out.subarray(at + length)]);
  if (kind === 3) out.fill(Math.floor(chance() * 256), at, at + 1);
  else for (let i = at; i < Math.min(out.length, at + 4); i++) out[i] = pick([0, 255, 127, 128], chance);
  return out;
}

function spoilText(text: string, chance: Chance): string {
  const kind = Math.floor(chance() * 7);
  if (kind <= 2) {
    const words = [...text.matchAll(/[^\s,;]+/g)];
    const word = pick(words, chance);
    return word ? text.slice(0, word.index) + pick(WORDS, chance) + text.slice(word.index + word[0].length) : text;
  }
  const lines = text.split('\n');
  const at = Math.floor(chance() * lines.length);
  if (kind === 3) lines.splice(at, 1);
  else if (kind === 4) lines.splice(at, 0, pick(lines, chance));
  else if (kind === 5) lines.splice(at, 0, pick(WORDS, chance).repeat(1 + Math.floor(chance() * 20)));
  else return text.replace(/\n/g, pick(['\r', '\r\n', '\n\n'], chance)).replace(/,/g, pick([',', ';', '\t', ', '], chance));
  return lines.join('\n');
}

const deep = (n: number): unknown => Array.from({ length: n }).reduce<unknown>((inner) => [inner], 1);

/** A path of the tree, seldom one of the terrain's levels: there are so many that nothing else would be met. */
function pathIn(tree: Tree, chance: Chance): string {
  const paths = pathsIn(tree);
  const few = paths.filter((p) => !p.includes('terrain.z.'));
  return pick(chance() < 0.05 ? paths : few, chance);
}

function spoilTree(tree: Tree, chance: Chance): string {
  const path = pathIn(tree, chance);
  const kind = Math.floor(chance() * 8);
  if (kind === 0) {
    const text = JSON.stringify(tree);
    return text.replace(/"(id|name|kind|levels|line)":/, pick(['"__proto__":', '"constructor":', '"x":', '"id":1,"id":'], chance));
  }
  if (kind === 1) return JSON.stringify(replacedIn(tree, path, deep(60)));
  if (kind === 2) return JSON.stringify(replacedIn(tree, path, undefined));
  if (kind === 3) return spoilText(JSON.stringify(tree, null, 1).slice(0, 60_000), chance);
  return JSON.stringify(replacedIn(tree, path, pick(VALUES, chance)));
}

/** Keys with points in them cannot be reached by a path: then the tree stays as it is. */
function replacedIn(tree: Tree, path: string, value: unknown): Tree {
  try {
    return replacedAt(tree, path, value);
  } catch {
    return tree;
  }
}

/** A file of a format, spoilt as the seed says, one to three times. */
export function spoilt(format: Format, seed: number): { readonly name: string; readonly bytes: Uint8Array } {
  const chance = chanceOf(seed);
  const sound = pick(SOUND[format], chance);
  const name = NAMES[format];
  if (sound instanceof Uint8Array) {
    let bytes = sound;
    for (let k = 0; k <= Math.floor(chance() * 3); k++) bytes = spoilBytes(bytes, chance);
    return { name, bytes };
  }
  let text: string;
  if (typeof sound === 'string') {
    text = sound;
    for (let k = 0; k <= Math.floor(chance() * 3); k++) text = spoilText(text, chance);
  } else text = spoilTree(sound as Tree, chance);
  const bytes = strToU8(text);
  return { name, bytes: chance() < 0.1 ? spoilBytes(bytes, chance) : bytes };
}
