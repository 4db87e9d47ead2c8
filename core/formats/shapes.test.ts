// What was drawn or walked elsewhere: read as it lies, told what it was called, refused in words.
import { describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { UserError } from '../project/index.ts';
import { likelyThing } from '../seen/index.ts';
import { levelAt } from '../terrain/index.ts';
import { requireCrs, toLonLat } from './crs.ts';
import { type Imported, type ImportedShapes, type ImportedTerrain, canBeGround, importFile, writePegs } from './index.ts';

const UTM = 'EPSG:32633';
/** Corners of a place of our own making, in metres of UTM zone 33 [m]. */
const [EAST, NORTH] = [500_000, 5_300_000];
const read = (name: string, text: string | Uint8Array, how: Parameters<typeof importFile>[1] = {}): Promise<Imported> =>
  importFile({ name, bytes: typeof text === 'string' ? strToU8(text) : text }, how);
const shapes = async (name: string, text: string | Uint8Array, how = {}): Promise<ImportedShapes> =>
  (await read(name, text, how)) as ImportedShapes;
const lonLat = async (x: number, y: number): Promise<[number, number]> => toLonLat(await requireCrs(UTM, 'here'), [EAST + x, NORTH + y]);
const told = async (name: string, text: string | Uint8Array, how = {}): Promise<string> => {
  const problem = await read(name, text, how).then(
    () => null,
    (error: unknown) => error,
  );
  if (!(problem instanceof UserError)) throw new Error(`${name} was not refused`);
  const [{ code, what, where }] = problem.problems;
  return `${code} ${where.line ?? ''} ${String(what)}`;
}; // prettier-ignore

const placemark = (name: string, body: string): string => `<Placemark><name>${name}</name>${body}</Placemark>`;
async function kml(): Promise<string> {
  const at = async (x: number, y: number, z?: number): Promise<string> =>
    [...(await lonLat(x, y)), ...(z === undefined ? [] : [z])].join(',');
  const corners = await Promise.all([[0, 0], [12, 0], [12, 8], [0, 8], [0, 0]].map(([x, y]) => at(x, y, 0))); // prettier-ignore
  const way = await Promise.all([[0, 20], [0, 20], [60, 25]].map(([x, y]) => at(x, y, 0))); // prettier-ignore
  return `<?xml version="1.0"?><kml xmlns="http://www.opengis.net/kml/2.2"><Document>
    <Folder><name>Houses</name>${placemark('Old barn', `<Polygon><outerBoundaryIs><LinearRing><coordinates>${corners.join(' ')}</coordinates></LinearRing></outerBoundaryIs></Polygon>`)}</Folder>
    <Folder><name>Ways</name><Folder><name>Tracks</name>${placemark('To the ford', `<LineString><coordinates>${way.join(' ')}</coordinates></LineString>`)}</Folder></Folder>
    ${placemark('Big oak tree', `<Point><coordinates>${await at(5, 30, 0)}</coordinates></Point>`)}</Document></kml>`;
}
const near = (got: readonly (readonly number[])[], wanted: readonly (readonly number[])[]): void => {
  expect(got).toHaveLength(wanted.length);
  got.forEach(([x, y], k) => expect(Math.hypot(x - EAST - wanted[k][0], y - NORTH - wanted[k][1])).toBeLessThan(0.001));
};

describe('a map or a track', () => {
  it('as KML, or zipped, lies where it was drawn, under the folder it lay in', async () => {
    const text = await kml();
    for (const file of [
      await shapes('plan.kml', text),
      await shapes('plan.kmz', zipSync({ 'doc.kml': strToU8(text), 'a.png': new Uint8Array(9) })),
    ]) {
      expect([file.kind, file.crs]).toEqual(['shapes', UTM]);
      const byName = new Map(file.shapes.map((s) => [s.name, s]));
      expect(file.shapes.map((s) => [s.group, s.form, s.levelsM])).toEqual(
        expect.arrayContaining([['Houses', 'ring', null], ['Tracks', 'line', null], ['', 'point', null]]),
      ); // prettier-ignore
      near(byName.get('Old barn')!.points, [[0, 0], [12, 0], [12, 8], [0, 8]]); // prettier-ignore
      near(byName.get('To the ford')!.points, [[0, 20], [60, 25]]); // prettier-ignore
      near(byName.get('Big oak tree')!.points, [[5, 30]]);
      expect(file.notes.join(' ')).toMatch(/level of 0 at every corner was taken as none.*laid flat in EPSG:32633/);
    }
    // In the system asked for instead: the zone next to it puts the same place elsewhere.
    const other = await shapes('plan.kml', text, { crs: 'EPSG:32632' });
    expect(other.crs).toBe('EPSG:32632');
    expect(Math.abs(other.shapes[0].points[0][0] - EAST)).toBeGreaterThan(1e5);
  });
  it('as GPX keeps waypoints by their sign, tracks and routes, with the levels walked', async () => {
    const [a, b, c] = await Promise.all([lonLat(0, 0), lonLat(40, 0), lonLat(40, 30)]);
    const point = (tag: string, [lon, lat, z]: readonly number[], more = ''): string => `<${tag} lat="${lat}" lon="${lon}"><ele>${z}</ele>${more}</${tag}>`;
    const text = `<gpx version="1.1" creator="us" xmlns="http://www.topografix.com/GPX/1/1">${point('wpt', [...a, 101], '<name>Spring head</name><sym>Spring</sym>')}
      <trk><name>Along the ditch</name><trkseg>${point('trkpt', [...a, 101])}${point('trkpt', [...b, 102.5])}</trkseg><trkseg>${point('trkpt', [...b, 102.5])}${point('trkpt', [...c, 104])}</trkseg></trk></gpx>`;
    const file = await shapes('walk.gpx', text);
    expect(file.shapes.map((s) => [s.name, s.group, s.form, s.levelsM])).toEqual([
      ['Along the ditch', 'Tracks', 'line', [101, 102.5]],
      ['Along the ditch', 'Tracks', 'line', [102.5, 104]],
      ['Spring head', 'Spring', 'point', [101]],
    ]);
    near(file.shapes[1].points, [[40, 0], [40, 30]]); // prettier-ignore
    expect(canBeGround(file)).toBe(true);
    expect(file.notes.join(' ')).toMatch(/good to 5 or 10 m/);
  }); // prettier-ignore
  it('as GeoJSON: parts of collections, holes told, metres by the system an older file names or as local', async () => {
    const [a, b, c, d] = await Promise.all([lonLat(0, 0), lonLat(10, 0), lonLat(10, 10), lonLat(0, 10)]);
    const inner = [a, b, c, a];
    const collection = {
      type: 'FeatureCollection',
      features: [
        { type: 'Feature', properties: { Layer: 'Wood', NAME: 'Upper' }, geometry: { type: 'MultiPolygon', coordinates: [[[a, b, c, d, a], inner]] } },
        { type: 'Feature', id: 7, properties: null, geometry: { type: 'GeometryCollection', geometries: [{ type: 'Point', coordinates: a }, { type: 'LineString', coordinates: [a, a] }] } },
        { type: 'Feature', properties: {}, geometry: null },
      ],
    };
    const file = await shapes('map.geojson', JSON.stringify(collection));
    expect(file.shapes.map((s) => [s.name, s.group, s.form])).toEqual([['Upper', 'Wood', 'ring'], ['7', '', 'point']]);
    near(file.shapes[0].points, [[0, 0], [10, 0], [10, 10], [0, 10]]);
    expect(file.notes.join(' ')).toMatch(/1 holes in areas were left out.*1 lines or areas with too few corners/);
    const line = { type: 'LineString', coordinates: [[EAST, NORTH], [EAST + 5, NORTH]] };
    const named = { ...line, crs: { type: 'name', properties: { name: 'urn:ogc:def:crs:EPSG::32633' } } };
    const [metric, local, said] = await Promise.all([shapes('a.geojson', JSON.stringify(named)), shapes('a.json', JSON.stringify(line)), shapes('a.geojson', JSON.stringify(line), { crs: UTM })]);
    expect([metric.crs, local.crs, said.crs]).toEqual([UTM, null, UTM]);
    for (const one of [metric, local, said]) near(one.shapes[0].points, [[0, 0], [5, 0]]);
    expect(local.notes.join(' ')).toMatch(/taken as local metres/);
  }); // prettier-ignore
  it('brings back pegs as they were written, to the millimetre', async () => {
    const crs = await requireCrs(UTM, 'here');
    const peg = { work: 'w', name: 'floor 0.0 m', role: 'floor', x: EAST + 12.345, y: NORTH + 6.789, levelM: 101.25, groundM: 101.9, cutM: 0.65, staffM: null };
    for (const format of ['gpx', 'geojson'] as const) {
      const text = writePegs([peg as never], format, { crs, workNames: new Map([['w', 'Swale']]) });
      const [shape] = (await shapes(`pegs.${format}`, text)).shapes;
      near([shape.points[0]], [[12.345, 6.789]]);
      expect(shape.levelsM).toEqual([101.25]);
    }
  }); // prettier-ignore
});

/** A drawing by hand, in feet or what else its header says. */
const dxf = (units: string, ...entities: readonly string[]): string =>
  ['0', 'SECTION', '2', 'HEADER', ...(units === '' ? [] : ['9', '$INSUNITS', '70', units]), '0', 'ENDSEC', '0', 'SECTION', '2', 'ENTITIES', ...entities.flatMap((e) => e.split(' ')), '0', 'ENDSEC', '0', 'EOF', ''].join('\n'); // prettier-ignore
const LINE = '0 LINE 8 FENCE 10 0 20 0 30 100 11 50 21 0 31 200';

describe('a drawing of a drawing program', () => {
  it('is in the unit it says: feet and survey feet become metres, none is taken as metres; a ring is closed, a face has three corners', async () => {
    for (const [units, metres, says] of [['2', 0.3048, /numbers are feet/], ['21', 1200 / 3937, /survey feet/], ['6', 1, /^It names no system/], ['', 1, /does not say its unit/]] as const) {
      const file = await shapes('a.dxf', dxf(units, LINE));
      expect(file.shapes).toEqual([{ name: '', group: 'FENCE', form: 'line', points: [[0, 0], [50 * metres, 0]], levelsM: [100 * metres, 200 * metres] }]);
      expect(file.notes.join(' ')).toMatch(says);
    }
    const { shapes: both, notes } = await shapes('a.dxf', dxf('6', '0 LWPOLYLINE 8 POND 90 3 70 1 38 101.5 10 0 20 0 10 9 20 0 10 9 20 9', '0 3DFACE 8 TIN 10 0 20 0 30 5 11 4 21 0 31 6 12 0 22 3 32 7 13 0 23 3 33 7', '0 CIRCLE 8 0 10 0 20 0 30 0 40 5'));
    expect(both.map((s) => [s.group, s.form, s.points.length, s.levelsM])).toEqual([['POND', 'ring', 3, [101.5, 101.5, 101.5]], ['TIN', 'ring', 3, [5, 6, 7]]]);
    expect(notes.join(' ')).toMatch(/1 of the kind CIRCLE were left out/);
  }); // prettier-ignore
  it('has light polylines whose corners are numbered, and whose level is told last; an unfinished corner is told by its line', async () => {
    const { shapes: drawn } = await shapes('a.dxf', dxf('6', '0 LWPOLYLINE 8 POND 90 3 70 1 10 0 20 0 91 7 10 9 20 0 42 0.5 91 8 10 9 20 9 91 9 38 101.5', LINE)); // prettier-ignore
    expect(drawn.map((s) => [s.group, s.points.length, s.levelsM])).toEqual([
      ['POND', 3, [101.5, 101.5, 101.5]],
      ['FENCE', 2, [100, 200]],
    ]);
    await expect(shapes('a.dxf', dxf('6', LINE, '0 __proto__ 8 POND', LINE))).rejects.toThrow(/breaks off, or is no drawing/);
    for (const unfinished of ['10 0 20 0 10 5 9 x 10 9 20 9', '10 0 20 0 10 5', '10 0 10 5 20 0'])
      await expect(shapes('a.dxf', dxf('6', `0 LWPOLYLINE 8 POND 90 3 70 1 ${unfinished}`))).rejects.toThrow(
        /breaks off, or is no drawing/,
      );
  });
});

const fixture = (name: string): Uint8Array => new Uint8Array(readFileSync(join(process.cwd(), 'core/formats/fixtures', `${name}.shp.zip`)));

describe('a shapefile written by another program', () => {
  it('lies where it was written, with names of any letters, filed under what tells most', async () => {
    const file = await shapes('houses.zip', fixture('houses'));
    expect([file.crs, file.shapes.map((s) => [s.name, s.group, s.form, s.levelsM])]).toEqual([UTM, [['Müllerhof', 'House', 'ring', null], ['Schuppen', 'House', 'ring', null]]]);
    near([...file.shapes[0].points].sort((a, b) => a[0] - b[0] || a[1] - b[1]), [[10, 10], [10, 18], [22, 10], [22, 18]]);
    // Without what tells its system it is metres, of the system that is said or none.
    const [local, said] = await Promise.all([shapes('h.zip', fixture('houses-no-prj')), shapes('h.zip', fixture('houses-no-prj'), { crs: UTM })]);
    expect([local.crs, said.crs]).toEqual([null, UTM]);
    expect(said.notes.join(' ')).toMatch(/taken as metres, in EPSG:32633/);
    near([...said.shapes[0].points].sort((a, b) => a[0] - b[0] || a[1] - b[1]), [[10, 10], [10, 18], [22, 10], [22, 18]]);
  }); // prettier-ignore
  it('of contours makes the plane they lie on, to the millimetre', async () => {
    const ground = (await read('c.zip', fixture('contours'), { as: 'terrain' })) as ImportedTerrain;
    for (const [x, y] of [[40, 20], [111, 60], [170, 90]] as const) expect(levelAt(ground.grid, [EAST + x, NORTH + y])).toBeCloseTo(100 + 0.05 * y, 3); // prettier-ignore
  });
  it('in part, alone or spoilt is refused in words', async () => {
    expect(await told('h.shp', Uint8Array.of(0, 0, 39, 10))).toMatch(/^shp\.alone/);
    expect(await told('h.zip', zipSync({ 'a.txt': strToU8('x') }))).toMatch(/^zip\.nothing {2}there is no shapefile/);
    expect(await told('h.zip', zipSync({ 'a.shp': new Uint8Array(60) }))).toMatch(/^(shp|shapes)\./);
    expect(await told('h.zip', Uint8Array.of(0x50, 0x4b, 3, 4, 9, 9))).toMatch(/^zip\./);
    // A table that says it has hundreds of millions of rows.
    const parts = unzipSync(new Uint8Array(readFileSync(join(import.meta.dirname, 'fixtures/houses.shp.zip'))));
    const dbf = parts['houses.dbf'].slice();
    new DataView(dbf.buffer).setUint32(4, 825_000_000, true);
    expect(await told('h.zip', zipSync({ ...parts, 'houses.dbf': dbf }))).toMatch(/^shp\.broken/);
    expect(await told('h.zip', zipSync({ ...parts, 'houses.dbf': dbf.slice(0, 20) }))).toMatch(/^shp\.broken/);
  });
});

describe('ground from what is drawn', () => {
  const contour = (y: number, level: number) => ({ type: 'Feature', properties: { ELEV: level }, geometry: { type: 'LineString', coordinates: Array.from({ length: 21 }, (_, k) => [EAST + 10 * k, NORTH + y]) } }); // prettier-ignore
  const lines = [0, 1, 2, 3, 4].map((k) => contour(50 * k, 100 + 2.5 * k));
  const file = JSON.stringify({ type: 'FeatureCollection', features: [...lines, { type: 'Feature', properties: {}, geometry: { type: 'Point', coordinates: [EAST, NORTH] } }] }); // prettier-ignore
  it('is the plane its contours lie on', async () => {
    expect(canBeGround(await shapes('lines.geojson', file, { crs: UTM }))).toBe(true);
    const ground = (await read('lines.geojson', file, { crs: UTM, as: 'terrain' })) as ImportedTerrain;
    expect([ground.kind, ground.crs]).toEqual(['terrain', UTM]);
    for (const [x, y] of [[30, 25], [111, 140], [170, 180]] as const) expect(levelAt(ground.grid, [EAST + x, NORTH + y])).toBeCloseTo(100 + 0.05 * y, 3); // prettier-ignore
    expect(ground.notes.join(' ')).toMatch(/1 shapes without a level were left out.*205 points.*Lines are followed: 100 places/);
  });
  it('runs along a bank drawn by its two ends, not across it', async () => {
    // Flat ground at 100 m on both sides, read at a few places; between them a bank's crest at 102 m, drawn as one stretch of 100 m.
    const spot = (x: number, y: number, z: number) => ({ type: 'Feature', properties: {}, geometry: { type: 'Point', coordinates: [EAST + x, NORTH + y, z] } });
    const crest = { type: 'Feature', properties: {}, geometry: { type: 'LineString', coordinates: [[EAST, NORTH + 20, 102], [EAST + 100, NORTH + 20, 103]] } };
    const foot = [0, 14, 26, 40].flatMap((y) => Array.from({ length: 11 }, (_, k) => spot(10 * k, y, 100)));
    const ground = (await read('bank.geojson', JSON.stringify({ type: 'FeatureCollection', features: [...foot, crest] }), { crs: UTM, as: 'terrain' })) as ImportedTerrain;
    for (const x of [15, 35, 55, 75]) expect(levelAt(ground.grid, [EAST + x, NORTH + 20])).toBeGreaterThan(101);
    for (const x of [15, 55, 85]) expect(levelAt(ground.grid, [EAST + x, NORTH + 8])).toBeCloseTo(100, 1);
    expect(ground.notes.join(' ')).toMatch(/Lines are followed: \d+ places/);
    // An outline is followed all round.
    const ring = { type: 'Feature', properties: {}, geometry: { type: 'Polygon', coordinates: [[[EAST, NORTH, 50], [EAST + 60, NORTH, 50], [EAST + 60, NORTH + 60, 53], [EAST, NORTH + 60, 53], [EAST, NORTH, 50]]] } };
    const round = (await read('ring.geojson', JSON.stringify({ type: 'FeatureCollection', features: [ring, { ...spot(30, 30, 51.5) }] }), { crs: UTM, as: 'terrain' })) as ImportedTerrain;
    for (const y of [11, 30, 47]) expect(levelAt(round.grid, [EAST + 3, NORTH + y])).toBeCloseTo(50 + y / 20, 1);
  }); // prettier-ignore
  it('takes a number beside an area for no level, and says where a place bears two', async () => {
    const ring = { type: 'Feature', properties: { level: 3 }, geometry: { type: 'Polygon', coordinates: [[[EAST, NORTH], [EAST + 9, NORTH], [EAST + 9, NORTH + 9], [EAST, NORTH]]] } }; // prettier-ignore
    const { shapes: drawn } = await shapes('a.geojson', JSON.stringify({ type: 'FeatureCollection', features: [ring, contour(0, 7)] }), {
      crs: UTM,
    });
    expect(drawn.map((s) => s.levelsM?.[0] ?? null)).toEqual([null, 7]);
    const twice = { type: 'FeatureCollection', features: [...lines, contour(0, 100.4), contour(50, 102.5)] };
    const ground = (await read('a.geojson', JSON.stringify(twice), { crs: UTM, as: 'terrain' })) as ImportedTerrain;
    expect(ground.notes.join(' ')).toMatch(/21 places bear two levels: the one drawn first was taken/);
  });
  it('is not made of too few, of one level, or of what no ground is', async () => {
    const flat = JSON.stringify({ type: 'FeatureCollection', features: [contour(0, 100), contour(50, 100)] });
    expect(canBeGround(await shapes('flat.geojson', flat, { crs: UTM }))).toBe(false);
    const none = JSON.stringify({ type: 'Point', coordinates: [15, 48] });
    expect(await told('one.geojson', none, { as: 'terrain' })).toMatch(/^survey\.few .*0 of its places/);
    const wild = JSON.stringify({ type: 'FeatureCollection', features: [...lines, contour(300, 99_000)] });
    expect(await told('wild.geojson', wild, { crs: UTM, as: 'terrain' })).toMatch(/^survey\.level .*99000 m/);
  });
});

describe('refused', () => {
  it('with what, where and what to do: one of each', async () => {
    const text = await kml();
    const point = (coordinates: unknown): string => JSON.stringify({ type: 'Feature', geometry: { type: 'Point', coordinates }, properties: { name: 'Gate' } });
    expect(await told('a.kml', text.slice(0, 700))).toMatch(/^xml\.broken \d* its XML breaks off/);
    expect(await told('a.kml', text.replace('</Folder>', '</Fold>'))).toMatch(/^xml\.broken \d+ /);
    expect(await told('a.kml', 'no xml at all')).toMatch(/^xml\.broken/);
    expect(await told('a.gpx', `<!DOCTYPE a [<!ENTITY x "y">]>${text}`)).toMatch(/^xml\.declares/);
    expect(await told('a.kml', '<kml><Document/></kml>')).toMatch(/^shapes\.none/);
    expect(await told('a.kmz', zipSync({ 'a.txt': strToU8('x') }))).toMatch(/^kmz\.empty {2}there is no map/);
    expect(await told('a.kmz', Uint8Array.of(0x50, 0x4b, 3, 4, 9, 9))).toMatch(/^(zip\.broken|kmz\.empty)/);
    const bomb = zipSync({ 'doc.kml': new Uint8Array(4_000_000) }, { level: 9 });
    expect(await told('a.kmz', bomb)).toMatch(/^zip\.limits .*times its size/);
    expect(await told('a.geojson', '{"type":"Nothing"}')).toMatch(/^geojson\.shape/);
    expect(await told('a.geojson', '{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Point","coordinates":["a",1]}}]}')).toMatch(/^geojson\.feature .*shape 1/);
    expect(await told('a.geojson', '{"type":"Point","coordinates":[15,48,1e400]}')).toMatch(/^(geojson|shapes)\./);
    expect(await told('a.geojson', '{"type":"Point","coordinates":[1,')).toMatch(/^json\.\w+/);
    expect(await told('a.kml', text.replace(/<coordinates>[^<]*<\/coordinates><\/Point>/, '<coordinates>400,48</coordinates></Point>'))).toMatch(/^shapes\.place .*"Big oak tree".*400, 48/);
    expect(await told('a.dxf', 'no drawing at all')).toMatch(/^dxf\.broken/);
    expect(await told('a.dxf', dxf('6', '0 CIRCLE 8 0 10 0 20 0 30 0 40 5'))).toMatch(/^shapes\.none/);
    expect(await told('a.geojson', point([15, 48]), { crs: 'EPSG:1' })).toMatch(/^crs\.unknown/);
  }); // prettier-ignore
});

describe('what a shape is likely to be', () => {
  it('by what it is called, where it is drawn so; nothing where nothing tells', () => {
    const cases = [
      ['Houses Old barn', 'ring', 'building'], ['Property boundary', 'ring', 'outline'], ['boundary', 'line', null], ['Big oak tree', 'point', 'tree'], ['Trees', 'ring', null],
      ['street', 'line', 'road'], ['farm track', 'line', 'track'], ['creek', 'line', 'flow-arrow'], ['old culvert', 'line', 'culvert'], ['Septic field', 'ring', 'septic'],
      ['Bore', 'point', 'well'], ['explored', 'point', null], ['water main', 'line', 'buried-pipe'], ['xyz', 'line', null], ['Orchard', 'ring', 'wood'], ['', 'ring', null],
    ] as const; // prettier-ignore
    for (const [words, form, kind] of cases) expect([words, likelyThing(words, form)]).toEqual([words, kind]);
  });
});
