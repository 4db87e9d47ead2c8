import { describe, expect, it } from '@jest/globals';
import { strToU8 } from 'fflate';
import { writeArrayBuffer } from 'geotiff';
import { UserError, assetName, gridFromBytes, gridToBytes } from '../project/index.ts';
import { planeProject } from '../testing/projects.ts';
import { gridOf } from '../testing/grids.ts';
import { levelAt, statsOf } from '../terrain/index.ts';
import { writeGeoTiff } from './geotiff.ts';
import {
  type ImportedTerrain,
  crsOf,
  fromLonLat,
  importFile,
  openProjectFile,
  readRainTable,
  toLonLat,
  writePegs,
  writeProjectFile,
  writeRainTable,
} from './index.ts';
import { readRows } from './columns.ts';

const file = (name: string, text: string | Uint8Array) => ({ name, bytes: typeof text === 'string' ? strToU8(text) : text });
const ASC = 'ncols 3\nnrows 2\nxllcorner 100\nyllcorner 200\ncellsize 2\nNODATA_value -9999\n1 2 3\n4 5 -9999\n';
const grid = gridOf((x, y) => 100 + 0.1 * x + 0.05 * y, { cells: 12, cellM: 2 });
const tiff = (change: Record<string, unknown>, levels = Float32Array.from({ length: 16 }, (_, i) => i)): Uint8Array =>
  new Uint8Array(
    writeArrayBuffer(levels, {
      width: 4,
      height: 4,
      ModelPixelScale: [2, 2, 0],
      ModelTiepoint: [0, 0, 0, 500000, 5000008, 0],
      GTModelTypeGeoKey: 1,
      GTRasterTypeGeoKey: 1,
      ProjectedCSTypeGeoKey: 32633,
      ...change,
    }),
  );

async function refusal(name: string, data: string | Uint8Array, crs: string | null = null): Promise<string> {
  try {
    await importFile(file(name, data), { crs });
    return 'accepted';
  } catch (error) {
    expect(error).toBeInstanceOf(UserError);
    const [p] = (error as UserError).problems;
    expect(p.where.file).toBe(name);
    expect(p.do.length).toBeGreaterThan(5);
    return `${p.code}${p.where.line === undefined ? '' : ` line ${p.where.line}`}`;
  }
}

describe('bringing files in', () => {
  it('reads an ASCII grid, corner or centre', async () => {
    const read = (await importFile(file('a.asc', ASC))) as ImportedTerrain;
    expect(statsOf(read.grid)).toMatchObject({ cells: 6, noData: 1, minM: 1, maxM: 5, areaM2: 20 });
    expect(levelAt(read.grid, [101, 203])).toBeCloseTo(1, 6);
    expect(read.crs).toBeNull();
    const centred = (await importFile(
      file('a.asc', ASC.replace('xllcorner 100', 'xllcenter 101').replace('yllcorner 200', 'yllcenter 201')),
    )) as ImportedTerrain;
    expect([centred.grid.west, centred.grid.south]).toEqual([100, 200]);
  });
  it('reads a GeoTIFF with its system, as areas or as points', async () => {
    const read = (await importFile(file('t.tif', writeGeoTiff({ ...grid, west: 431000, south: 4612000 }, 32626)))) as ImportedTerrain;
    expect(read.crs).toBe('EPSG:32626');
    expect([read.grid.west, read.grid.south, read.grid.cellM]).toEqual([431000, 4612000, 2]);
    expect(levelAt(read.grid, [431011, 4612011])).toBeCloseTo(levelAt(grid, [11, 11]), 3);
    const points = (await importFile(file('p.tif', tiff({ GTRasterTypeGeoKey: 2 })))) as ImportedTerrain;
    expect([points.grid.west, points.grid.south]).toEqual([499999, 5000001]);
  });
  it('triangulates survey points onto the plane they lie on, and projects latitudes', async () => {
    const rows = Array.from({ length: 60 }, (_, i) => [((i * 37) % 61) + 0.5, ((i * 23) % 53) + 0.25]);
    const csv = `x,y,z\n${rows.map(([x, y]) => `${x},${y},${50 + 0.1 * x - 0.2 * y}`).join('\n')}`;
    const read = (await importFile(file('s.csv', csv))) as ImportedTerrain;
    expect(levelAt(read.grid, [30, 25])).toBeCloseTo(50 + 3 - 5, 3);
    const crs = await crsOf('EPSG:32626');
    if (!crs) throw new Error('no system');
    const lonLat = rows.map(([x, y]) => toLonLat(crs, [431000 + x, 4612000 + y]));
    const geo = `lat;lon;level\n${rows.map(([x, y], i) => `${lonLat[i][1]};${lonLat[i][0]};${50 + 0.1 * x - 0.2 * y}`).join('\n')}`;
    const placed = (await importFile(file('g.csv', geo))) as ImportedTerrain;
    expect(placed.crs).toBe('EPSG:32626');
    expect(levelAt(placed.grid, [431030, 4612025])).toBeCloseTo(48, 2);
    expect(fromLonLat(crs, toLonLat(crs, [431000, 4612000]))[0]).toBeCloseTo(431000, 4);
  });
  it('tells where points were read, and how much less near is known between them', async () => {
    const wavy = Array.from({ length: 90 }, (_, k) => [7 * (k % 10) + (k % 3), 7 * Math.floor(k / 10)] as const).map(([x, y]) => `${x},${y},${(50 + Math.sin(x / 9) + Math.cos(y / 8)).toFixed(3)}`); // prettier-ignore
    const { known, grid } = (await importFile(file('p.csv', strToU8(`x,y,z\n${wavy.join('\n')}`)))) as ImportedTerrain;
    expect(known?.levelsM).toBeNull();
    expect(known?.growsBy).toBeGreaterThan(0.01);
    expect([known?.away?.ncols, known?.away?.cellM]).toEqual([grid.ncols, grid.cellM]);
    expect(Math.max(...(known?.away?.z ?? []).filter((v) => !Number.isNaN(v)))).toBeLessThan(6);
    const whole = (await importFile(file('a.tif', tiff({})))) as ImportedTerrain;
    expect(whole.known).toBeUndefined();
  });
  it('reads points as instruments write them: without a header, counted, parted by spaces, with a decimal comma, with codes behind', async () => {
    const at = (i: number): readonly [number, number, number] => {
      const [x, y] = [((i * 37) % 61) + 0.5, ((i * 23) % 53) + 0.25];
      return [431000 + x, 4612000 + y, 50 + 0.1 * x - 0.2 * y];
    };
    const write = (line: (p: readonly [number, number, number], k: number) => string): string => Array.from({ length: 60 }, (_, k) => line(at(k), k)).join('\n'); // prettier-ignore
    const middle = 50 + 0.1 * 30 - 0.2 * 25;
    const files: readonly (readonly [string, string, RegExp])[] = [
      ['bare.csv', write(([x, y, z]) => `${x},${y},${z}`), /no header: the columns as easting, northing and level/],
      ['bare.xyz', write(([x, y, z]) => `${x} ${y}   ${z}`), /no header/],
      ['counted.txt', write(([x, y, z], k) => `${k + 101},${x},${y},${z},FENCE`), /first column as numbers of the points/],
      ['comma.xyz', write((p) => p.map((v) => v.toFixed(3).replace('.', ',')).join('  ')), /no header/],
      ['coded.txt', write(([x, y, z]) => `${x.toFixed(3)} ${y.toFixed(3)} ${z.toFixed(4)} TOP-BANK`), /no header/],
      ['headed.xyz', `East North Ele\n${write(([x, y, z]) => `${x} ${y} ${z}`)}`, /60 points were joined/],
      ['units.txt', `Easting (m) Northing (m) Level (m) a b\n${write(([x, y, z]) => `${x} ${y} ${z} 3 7`)}`, /60 points were joined/],
      ['blanks.csv', write(([x, y, z]) => `${x} ,${y} ,${z}`), /no header/],
      ['ele.csv', `name,E,N,ele\n${write(([x, y, z], k) => `P${k},${x},${y},${z}`)}`, /60 points were joined/],
      ['height.csv', `Easting (m);Northing (m);Height (m)\n${write(([x, y, z]) => `${x};${y};${z}`)}`, /60 points were joined/],
    ];
    for (const [name, text, note] of files) {
      const read = (await importFile(file(name, text))) as ImportedTerrain;
      expect([name, levelAt(read.grid, [431030, 4612025])]).toEqual([name, expect.closeTo(middle, 2)]);
      expect(read.notes.join(' ')).toMatch(note);
    }
    // A line that is no point is named by its place in the file; degrees without a header are not taken for metres.
    expect(await refusal('gap.xyz', `${write(([x, y, z]) => `${x} ${y} ${z}`)}\n431000 wet 3`)).toBe('csv.text line 61');
    expect(await refusal('deg.xyz', '12.5001 48.1 3\n12.5003 48.1002 6\n12.5002 48.1009 9')).toBe('crs.degrees');
  });
  it.each([
    ['empty.asc', '', 'file.empty'],
    ['short.asc', ASC.replace('4 5 -9999\n', '4 5'), 'grid.truncated line 8'],
    ['long.asc', `${ASC}7`, 'grid.too-many line 9'],
    ['text.asc', ASC.replace('4 5', '4 wet'), 'grid.text line 8'],
    ['header.asc', ASC.replace('cellsize 2\n', ''), 'grid.header-missing'],
    ['badheader.asc', ASC.replace('ncols 3', 'ncols many'), 'grid.header-value line 1'],
    ['void.asc', ASC.replace('1 2 3\n4 5 -9999', '-9999 -9999 -9999\n-9999 -9999 -9999'), 'terrain.no-data'],
    ['big.asc', ASC.replace('ncols 3', 'ncols 5000').replace('nrows 2', 'nrows 5000'), 'terrain.too-big'],
    ['cut.tif', tiff({}).slice(0, 60), 'geotiff.unreadable'],
    ['degrees.tif', tiff({ GTModelTypeGeoKey: 2, GeographicTypeGeoKey: 4326 }), 'crs.not-degrees'],
    ['unknown.tif', tiff({ ProjectedCSTypeGeoKey: 3857 }), 'crs.unknown'],
    ['void.tif', tiff({ GDAL_NODATA: '-9999' }, new Float32Array(16).fill(-9999)), 'terrain.no-data'],
    ['text.csv', 'x,y,z\n1,2,3\n4,high,6\n7,8,9', 'csv.text line 3'],
    ['gap.csv', 'x,y,z\n1,2,3\n4,,6\n7,8,9', 'csv.missing line 3'],
    ['columns.csv', 'a,b,c\n1,2,3', 'csv.columns line 1'],
    ['few.csv', 'x,y,z\n1,2,3\n4,5,6', 'survey.few'],
    ['line.csv', 'x,y,z\n1,1,3\n2,2,6\n3,3,9\n9,9,4', 'survey.in-line'],
    ['deg.csv', 'x,y,z\n12.5001,48.1,3\n12.5003,48.1002,6\n12.5002,48.1009,9', 'crs.degrees'],
    ['metres.csv', 'lat,lon,z\n431000,4612000,3\n431010,4612000,6\n431000,4612020,9', 'crs.not-degrees line 2'],
    ['wrong.doc', 'hello', 'file.kind'],
    ['depths.csv', 'duration_min,2,20\n10,5,9\n60,4,20', 'rain.monotonic-duration line 3'],
    ['years.csv', 'duration_min,often,rarely\n10,5,9', 'rain.columns line 1'],
  ])('%s is refused with its own message', async (name, data, expected) => {
    expect(await refusal(name, data)).toBe(expected);
  });
  it('refuses a system that contradicts the file or is not known', async () => {
    expect(await refusal('t.tif', tiff({}), 'EPSG:32631')).toBe('crs.mismatch');
    expect(await refusal('a.asc', ASC, 'EPSG:4326')).toBe('crs.unknown');
    expect(((await importFile(file('a.asc', ASC), { crs: '32633' })) as ImportedTerrain).crs).toBe('EPSG:32633');
  });
});

describe('keeping and handing over', () => {
  it('keeps a terrain asset bit for bit and notices damage', () => {
    const bytes = gridToBytes(grid);
    const back = gridFromBytes(bytes);
    expect(back).toEqual(grid);
    expect(assetName(gridToBytes(back))).toBe(assetName(bytes));
    expect(() => gridFromBytes(bytes.slice(0, 100))).toThrow('should hold 12 x 12 cells');
    expect(() => gridFromBytes(strToU8('x'.repeat(60)))).toThrow('not a terrain asset');
  });
  it('carries assets in the project file and refuses one that was changed', () => {
    const bytes = gridToBytes(grid);
    const zip = writeProjectFile(planeProject(), new Map([[assetName(bytes), bytes]]));
    expect(openProjectFile('p.outlet', zip).assets.get(assetName(bytes))).toEqual(bytes);
    const forged = writeProjectFile(planeProject(), new Map([['0'.repeat(64), bytes]]));
    expect(() => openProjectFile('p.outlet', forged)).toThrow('does not match its name');
    expect(() => openProjectFile('p.outlet', zip.slice(0, 200))).toThrow('cut short or damaged');
    expect(() => openProjectFile('p.json', strToU8('{"a":\n oops}'))).toThrow('not valid JSON');
  });
  it('writes a rain table that it reads again', () => {
    const { table } = planeProject().rain!;
    expect(readRainTable(readRows(file('r.csv', writeRainTable(table))), 'r.csv').table).toEqual(table);
  });
  const pegs = [
    {
      id: 'p',
      role: 'floor' as const,
      toleranceM: 0.025,
      work: 'w1',
      name: '0 <m>',
      x: 431000,
      y: 4612000,
      levelM: 119.381,
      groundM: 119.83,
      cutM: 0.449,
      staffM: 3.619,
    },
  ];
  const workNames = new Map([['w1', 'Upper, east']]);
  it('writes pegs as CSV, GPX and GeoJSON', async () => {
    const crs = await crsOf('EPSG:32626');
    expect(writePegs(pegs, 'csv', { crs: null, workNames }).split('\n')[1]).toBe(
      '"Upper, east",0 <m>,431000.000,4612000.000,119.830,119.381,0.449,3.619',
    );
    expect(writePegs(pegs, 'gpx', { crs, workNames })).toMatch(
      /<wpt lat="41\.\d{8}" lon="-27\.\d{8}"><ele>119\.381<\/ele><name>Upper, east 0 &#60;m&#62;<\/name>/,
    );
    const [feature] = (
      JSON.parse(writePegs(pegs, 'geojson', { crs, workNames })) as {
        features: { geometry: { coordinates: number[] }; properties: { staffM: number } }[];
      }
    ).features;
    expect(feature.geometry.coordinates[2]).toBe(119.381);
    expect(feature.properties.staffM).toBe(3.619);
  });
  it('says why local metres have no latitude', () => {
    expect(() => writePegs(pegs, 'gpx', { crs: null, workNames })).toThrow('local metres');
  });
});
