// Files as they really arrive: cut, shuffled, with bytes changed, with the wrong ending. Each is taken in whole and sound, or
// refused in words; nothing else may come out.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { UserError, assetName, gridToBytes } from '../project/index.ts';
import { readProject } from '../project/guard.ts';
import { FULL_GROUND, planeProject } from '../testing/projects.ts';
import { type Tree, pathsIn, replacedAt } from '../testing/trees.ts';
import { gridOf } from '../testing/grids.ts';
import { statsOf } from '../terrain/index.ts';
import { registry } from '../works/index.ts';
import { checkTable } from '../rain/index.ts';
import { writeGeoTiff } from './geotiff.ts';
import { type Imported, importFile, openProjectFile, writeProjectFile } from './index.ts';

const kept = (name: string): Uint8Array => new Uint8Array(readFileSync(join(process.cwd(), 'core/formats/fixtures', name)));
const demo = (name: string): Uint8Array => new Uint8Array(readFileSync(join(process.cwd(), 'demo', name)));
const hill = gridOf((x, y) => 100 + 0.1 * x + 0.02 * (y - 11) ** 2, { cells: 11, cellM: 2 });
const ASC = [
  'ncols 5',
  'nrows 4',
  'xllcorner 1000',
  'yllcorner 2000',
  'cellsize 2.5',
  'NODATA_value -9999',
  '5 6 7 8 9',
  '4 5 6 7 8',
  '3 4 5 6 -9999',
  '2 3 4 5 6',
  '',
].join('\n');
const SURVEY = [
  'x,y,z',
  ...Array.from({ length: 24 }, (_, i) => `${100 + (i % 6) * 7.5},${200 + Math.floor(i / 6) * 8},${50 + i * 0.3}`),
  '',
].join('\n');
/** Two months of a daily gauge with a gap, a trace and a sum. */
const GAUGE = `date,rain_mm\n${Array.from({ length: 60 }, (_, i) => `2021-0${i < 31 ? 5 : 6}-${String(i < 31 ? i + 1 : i - 30).padStart(2, '0')},${['0', '3.2', 'T', '', '12.5', '7A'][(i * 7) % 6]}`).join('\n')}\n`;
const CORNERS = [[15, 48, 3], [15.001, 48, 4], [15.001, 48.001, 5.5], [15, 48, 3]]; // prettier-ignore
const GEOJSON = JSON.stringify({ type: 'FeatureCollection', features: [{ type: 'Feature', properties: { name: 'Barn', layer: 'Houses', ele: 101.5 }, geometry: { type: 'Polygon', coordinates: [CORNERS] } }, { type: 'Feature', properties: {}, geometry: { type: 'LineString', coordinates: CORNERS } }] }); // prettier-ignore
const KML = `<?xml version="1.0"?><kml xmlns="http://www.opengis.net/kml/2.2"><Document><Folder><name>Ways</name><Placemark><name>To &amp; fro</name><LineString><coordinates>${CORNERS.map((c) => c.join(',')).join(' ')}</coordinates></LineString></Placemark></Folder><Placemark><Point><coordinates>15,48</coordinates></Point></Placemark></Document></kml>`;
const GPX = `<gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><wpt lat="48" lon="15"><ele>7</ele><name>Gate</name></wpt><trk><trkseg>${CORNERS.map(([lon, lat, z]) => `<trkpt lat="${lat}" lon="${lon}"><ele>${z}</ele></trkpt>`).join('')}</trkseg></trk></gpx>`;
const DXF = ['0', 'SECTION', '2', 'ENTITIES', '0', 'LINE', '8', 'FENCE', '10', '0', '20', '0', '30', '5', '11', '9', '21', '4', '31', '7', '0', 'POINT', '8', 'SPOT', '10', '3', '20', '3', '30', '6', '0', 'ENDSEC', '0', 'EOF', ''].join('\n'); // prettier-ignore
const RAIN = new TextDecoder().decode(demo('sample-rain.csv'));

/** Ways a file is spoilt on its way: cut short, bytes changed, a piece repeated or left out. */
const spoiling = fc.array(
  fc.record({
    how: fc.constantFrom('cut', 'change', 'repeat', 'drop'),
    at: fc.double({ min: 0, max: 1, noNaN: true }),
    length: fc.integer({ min: 1, max: 40 }),
    byte: fc.integer({ min: 0, max: 255 }),
  }),
  { minLength: 1, maxLength: 4 },
);
type Spoiling = (typeof spoiling)['generate'] extends (...args: never[]) => { value: infer V } ? V : never;

function spoil(bytes: Uint8Array, steps: Spoiling): Uint8Array {
  let out = Uint8Array.from(bytes);
  for (const { how, at, length, byte } of steps) {
    const i = Math.floor(at * out.length);
    if (how === 'cut') out = out.slice(0, i);
    else if (how === 'change') out.fill(byte, i, i + 1);
    else if (how === 'repeat') out = Uint8Array.from([...out.slice(0, i + length), ...out.slice(i)]);
    else out = Uint8Array.from([...out.slice(0, i), ...out.slice(i + length)]);
  }
  return out;
}

/** A file that was taken in must be sound through and through. */
function expectSound(read: Imported): void {
  if (read.kind === 'rain') {
    expect(checkTable(read.table)).toEqual([]);
    return;
  }
  if (read.kind === 'gauge') {
    const { record } = read;
    expect(record.wet.every((v, i) => v < record.steps && (i === 0 || v > record.wet[i - 1]))).toBe(true);
    expect(record.mm.every((v) => v > 0 && Number.isFinite(v))).toBe(true);
    return;
  }
  if (read.kind === 'shapes') {
    expect(read.shapes.length).toBeGreaterThan(0);
    for (const { form, points, levelsM } of read.shapes) {
      expect(points.length).toBeGreaterThanOrEqual({ point: 1, line: 2, ring: 3 }[form]);
      expect(points.flat().every(Number.isFinite) && (levelsM ?? []).every(Number.isFinite)).toBe(true);
      expect(levelsM?.length ?? points.length).toBe(points.length);
    }
    return;
  }
  if (read.kind === 'picture') {
    expect(read.picture.widthPx * read.picture.heightPx).toBeGreaterThan(0);
    expect((read.laying ?? []).every(Number.isFinite)).toBe(true);
    return;
  }
  const { cells, noData, minM, maxM } = statsOf(read.grid);
  expect(read.grid.z).toHaveLength(read.grid.ncols * read.grid.nrows);
  expect(noData).toBeLessThan(cells);
  expect(Number.isFinite(minM ?? NaN) && Number.isFinite(maxM ?? NaN)).toBe(true);
  expect(read.grid.cellM).toBeGreaterThan(0);
  expect([read.grid.west, read.grid.south].every(Number.isFinite)).toBe(true);
}

function expectWords(error: unknown, name: string): void {
  if (!(error instanceof UserError)) throw error;
  expect(error.problems.length).toBeGreaterThan(0);
  for (const p of error.problems) {
    expect(p.code).toMatch(/^[a-z-]+\.[A-Za-z-]+$/);
    expect(p.where.file).toBe(name);
    // What the user wrote may be quoted; the rest is ours.
    expect(`${p.what} ${p.do}`.replace(/"[^"]*"/g, '')).not.toMatch(/undefined|\[object|NaN|Error:|at \w+ \(/);
    expect(p.do.length).toBeGreaterThan(5);
  }
}

async function takenOrRefused(name: string, bytes: Uint8Array): Promise<'taken' | 'refused'> {
  try {
    expectSound(await importFile({ name, bytes }));
    return 'taken';
  } catch (error) {
    expectWords(error, name);
    return 'refused';
  }
}

describe('a spoilt file', () => {
  it.each([
    ['hill.asc', strToU8(ASC)],
    ['points.csv', strToU8(SURVEY)],
    ['rain.csv', strToU8(RAIN)],
    ['gauge.csv', strToU8(GAUGE)],
    ['hill.tif', writeGeoTiff(hill, 32633)],
    ['map.geojson', strToU8(GEOJSON)],
    ['map.kml', strToU8(KML)],
    ['walk.gpx', strToU8(GPX)],
    ['plan.dxf', strToU8(DXF)],
    ['houses.zip', kept('houses.shp.zip')],
    ['air.png', unzipSync(kept('photo.zip'))['photo.png']],
    ['air.tif', kept('photo.tif')],
    ['map.kmz', zipSync({ 'doc.kml': strToU8(KML) })],
  ])('%s is taken in whole or refused in words, whatever was done to it', async (name, bytes) => {
    expect(await takenOrRefused(name, bytes)).toBe('taken');
    const seen = { taken: 0, refused: 0 };
    await fc.assert(
      fc.asyncProperty(spoiling, async (steps) => {
        seen[await takenOrRefused(name, spoil(bytes, steps))]++;
      }),
      { seed: 91, numRuns: 250 },
    );
    expect(seen.refused).toBeGreaterThan(20);
  });
  it('under any ending and of any content is refused in words', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(
          'a.asc',
          'a.tif',
          'a.csv',
          'a.txt',
          'a.xyz',
          'a.grd',
          'a.kml',
          'a.gpx',
          'a.kmz',
          'a.geojson',
          'a.dxf',
          'a.zip',
          'a.doc',
          'noending',
        ),
        fc.uint8Array({ maxLength: 300 }),
        async (name, bytes) => {
          await takenOrRefused(name, Uint8Array.from(bytes));
        },
      ),
      { seed: 92, numRuns: 300 },
    );
  });
  it('with words, empty cells or another separator among its numbers is taken in whole or refused in words', async () => {
    const cell = fc.oneof(
      fc.double({ min: -1e7, max: 1e7, noNaN: true }).map(String),
      fc.constantFrom('', 'wet', '1,5', '1e400', '-', '0x1F', 'NaN', '−3', ' 7 '),
    );
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 12 }),
        fc.constantFrom(',', ';', '\t'),
        async (rows, separator) => {
          const text = ['x', 'y', 'z'].join(separator) + '\n' + rows.map((r) => r.join(separator)).join('\n');
          await takenOrRefused('typed.csv', strToU8(text));
        },
      ),
      { seed: 93, numRuns: 250 },
    );
  });
});

const FEATURES = [
  {
    id: 'b',
    kind: 'building',
    ring: [
      [1, 1],
      [9, 1],
      [9, 9],
    ],
  },
  {
    id: 'w',
    kind: 'windrow',
    line: [
      [20, 80],
      [50, 84],
    ],
    heightM: 0.2,
    open: [[3, 5]],
  },
  { id: 's', kind: 'spring', at: [40, 40], flowM3s: 0.001 },
];

/** Every member a project's rain may have. */
const RAIN_OF_ALL = {
  ...planeProject().rain,
  basis: 'record',
  limits: {
    lowMm: [
      [7, 16, 20],
      [14, 35, 50],
    ],
    highMm: [
      [9, 20, 28],
      [18, 46, 66],
    ],
  },
  storm: {
    returnYears: 20,
    durationMin: 120,
    upliftPercent: 10,
    againAfterH: 6,
    shape: { kind: 'own', name: 'mine', stepMin: 10, stepsMm: [1, 8, 2] },
  },
};

describe('a spoilt project file', () => {
  const grid = gridToBytes(hill);
  const sha256 = assetName(grid);
  const project = { ...planeProject(), terrain: { kind: 'asset' as const, sha256, source: 'hill' } };
  const bytes = writeProjectFile(project, new Map([[sha256, grid]]));
  const open = (content: Uint8Array): 'taken' | 'refused' => {
    try {
      const { json, assets } = openProjectFile('p.outlet', content);
      const read = readProject(json, registry, 'p.outlet');
      // What is taken in is what was written: the asset is known by its hash.
      if (read.terrain?.kind === 'asset') for (const [name, data] of assets) expect(assetName(data)).toBe(name);
      return 'taken';
    } catch (error) {
      expectWords(error, 'p.outlet');
      return 'refused';
    }
  };
  it('is never half opened', () => {
    expect(open(bytes)).toBe('taken');
    let refused = 0;
    fc.assert(
      fc.property(spoiling, (steps) => {
        if (open(spoil(bytes, steps)) === 'refused') refused++;
      }),
      { seed: 94, numRuns: 250 },
    );
    expect(refused).toBeGreaterThan(100);
  });
  it('with members replaced by anything is refused in words or read', () => {
    const anything = fc.oneof(fc.anything({ maxDepth: 1 }), fc.constantFrom(null, '', -1, 1e308, [], {}, 'x'));
    const whole = JSON.parse(
      JSON.stringify({
        ...planeProject(),
        // Few cells: its thousand copies are written out and read.
        terrain: { kind: 'grid', ncols: 6, nrows: 6, west: 0, south: 0, cellM: 40, rows: 'north-first', z: Array<number>(36).fill(110) },
        land: { hollows: 'fill' },
        features: FEATURES,
        gauge: { sha256: '0'.repeat(64), source: 'g.csv' },
        rain: RAIN_OF_ALL,
        ...FULL_GROUND,
      }),
    ) as Tree;
    const paths = pathsIn(whole).filter((path) => !path.startsWith('terrain.z.') || path === 'terrain.z.7');
    fc.assert(
      fc.property(fc.constantFrom(...paths), anything, (path, value) => {
        const text = JSON.stringify(replacedAt(whole, path, value), (_k, v: unknown) => (typeof v === 'bigint' ? Number(v) : v));
        open(strToU8(text));
      }),
      { seed: 95, numRuns: 1000 },
    );
  });
});
