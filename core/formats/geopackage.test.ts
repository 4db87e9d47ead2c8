// GeoPackages: one written by an independent program (fixtures/README.md), and geometries written out byte by byte.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import open from 'sql.js/dist/sql-wasm-inline.js';
import { UserError } from '../project/index.ts';
import { levelAt } from '../terrain/index.ts';
import { type ImportHow, type ImportedShapes, type ImportedTerrain, fromLonLat, importFile, requireCrs } from './index.ts';
import { packedGeometry } from './wkb.ts';

const MAP = new Uint8Array(readFileSync(join(import.meta.dirname, 'fixtures', 'map.gpkg')));
const read = async (how: ImportHow = {}, bytes: Uint8Array = MAP): Promise<ImportedShapes> => (await importFile({ name: 'map.gpkg', bytes }, how)) as ImportedShapes; // prettier-ignore
const refusal = async (bytes: Uint8Array, how: ImportHow = {}): Promise<string> =>
  read(how, bytes).then(
    () => 'accepted',
    (e: unknown) => (e instanceof UserError ? `${e.problems[0].code} ${String(e.problems[0].what)}` : String(e)),
  );
/** The file with something in it changed. */
async function altered(...statements: readonly string[]): Promise<Uint8Array> {
  const { Database } = await open();
  const db = new Database(MAP);
  for (const sql of statements) db.run(sql);
  return db.export();
}

describe('a GeoPackage', () => {
  it('is read layer by layer, each from its own system, with names, groups and levels', async () => {
    const { shapes, crs } = await read();
    // Two layers lie in a zone, one in degrees: all are laid flat in the zone of their middle.
    expect(crs).toBe('EPSG:32633');
    expect(shapes.map((s) => [s.group, s.name, s.form, s.points.length])).toEqual([
      ['contours', '1', 'line', 3],
      ['contours', '2', 'line', 3],
      ['contours', '3', 'line', 3],
      ['barn', 'Nordhüll', 'ring', 4],
      ['houses', 'Shed', 'ring', 4],
      ['houses', 'Shed', 'ring', 4],
      ['wells', 'Old well', 'point', 1],
    ]);
    expect(shapes[1].levelsM).toEqual([102.5, 102.5, 102.5]);
    const [[x, y]] = shapes[3].points;
    expect(Math.hypot(x - 500_000, y - 5_300_000)).toBeLessThan(0.001);
    const well = fromLonLat(await requireCrs('EPSG:32633', 'here'), [15.0005, 47.8533]);
    expect(Math.hypot(shapes[6].points[0][0] - well[0], shapes[6].points[0][1] - well[1])).toBeLessThan(0.001);
  });
  it('is put into the system wanted, and makes ground of its levels', async () => {
    const { shapes, crs } = await read({ crs: 'EPSG:25833' });
    expect(crs).toBe('EPSG:25833');
    expect(Math.hypot(shapes[3].points[0][0] - 500_000, shapes[3].points[0][1] - 5_300_000)).toBeLessThan(0.01);
    const { grid } = (await importFile({ name: 'map.gpkg', bytes: MAP }, { as: 'terrain' })) as ImportedTerrain;
    expect(levelAt(grid, [500_050, 5_300_026])).toBeCloseTo(101.2, 1);
  });
  it('says what it took for granted of a system, and refuses what may lie far off', async () => {
    // The well's layer on another datum, on none, and on one far off: its definition stays that of degrees.
    const on = async (sql: string): Promise<ImportedShapes | string> =>
      read({}, await altered(sql)).catch((e: unknown) => (e as UserError).problems[0].code);
    const datum = (code: number): Promise<ImportedShapes | string> =>
      on(`UPDATE gpkg_spatial_ref_sys SET organization_coordsys_id = ${code} WHERE srs_id = 4326`);
    expect(await datum(4326)).toMatchObject({ notes: [expect.not.stringMatching(/datum/)] });
    expect(await datum(4258)).toMatchObject({
      notes: [expect.stringMatching(/Its datum \(4258\) was taken as WGS 84/), expect.anything()],
    });
    expect(await datum(4314)).toBe('crs.datum');
    const moved = (srs: number): Promise<ImportedShapes | string> => on(`UPDATE gpkg_geometry_columns SET srs_id = ${srs}`);
    const local = await moved(-1);
    expect(local).toMatchObject({ crs: null, notes: [expect.stringMatching(/numbers are taken as metres/)] });
    // Metres of a zone are no degrees: that is refused, not laid anywhere.
    expect(await moved(0)).toBe('shapes.place');
    expect(await moved(4326)).toBe('shapes.place');
  });
  it('of more layers or rows than are read is refused, not cut', async () => {
    const layer = (k: number): string =>
      `CREATE TABLE l${k} (fid INTEGER, geom BLOB); INSERT INTO gpkg_geometry_columns VALUES ('l${k}', 'geom', 'POINT', 4326, 0, 0)`;
    expect(await refusal(await altered(...Array.from({ length: 47 }, (_, k) => layer(k))))).toBe('accepted');
    expect(await refusal(await altered(...Array.from({ length: 48 }, (_, k) => layer(k))))).toMatch(
      /^gpkg\.many it holds more than 50 layers/,
    );
    // The rows of a layer, none of which draws anything: they are counted all the same.
    const rows = (count: number): Promise<Uint8Array> =>
      altered(
        layer(0),
        `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${count}) INSERT INTO l0 (fid) SELECT i FROM n`,
      );
    expect(await refusal(await rows(20_000))).toBe('accepted');
    expect(await refusal(await rows(20_001))).toMatch(/^shapes\.many its layer "l0" holds more than 20000 rows/);
  });
  it('that is cut short, is none, names no system or holds no layer is refused in words', async () => {
    expect(await refusal(MAP.slice(0, 3000))).toMatch(/^gpkg\.(broken|nothing)/);
    expect(await refusal(new TextEncoder().encode('SQLite format 3\0 but no more of it'))).toMatch(/^gpkg\.broken it is no GeoPackage/);
    expect(await refusal(await altered('DROP TABLE gpkg_spatial_ref_sys'))).toMatch(/^gpkg\.broken/);
    expect(await refusal(await altered('DELETE FROM gpkg_geometry_columns'))).toMatch(/^gpkg\.nothing/);
    expect(await refusal(new Uint8Array(0))).toMatch(/^file\.empty/);
  });
  it('spoilt anywhere never does more than refuse', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.nat(MAP.length - 1), fc.nat(255)), { minLength: 1, maxLength: 40 }), async (spots) => {
        const bytes = MAP.slice();
        for (const [at, to] of spots) bytes[at] = to;
        expect(await refusal(bytes)).toMatch(/^(accepted$|[a-z]+\.[a-z-]+ )/);
      }),
      { seed: 17, numRuns: 60 },
    );
  }, 60_000);
});

describe('a geometry in bytes', () => {
  /** Numbers one after the other: bytes as 'b', whole numbers as 'i', others as 'd'. */
  const bytesOf = (...parts: readonly (readonly ['b' | 'i' | 'd', number])[]): Uint8Array => {
    const view = new DataView(new ArrayBuffer(parts.reduce((n, [kind]) => n + { b: 1, i: 4, d: 8 }[kind], 0)));
    let at = 0;
    for (const [kind, value] of parts) {
      if (kind === 'b') view.setUint8(at, value);
      else if (kind === 'i') view.setUint32(at, value, true);
      else view.setFloat64(at, value, true);
      at += { b: 1, i: 4, d: 8 }[kind];
    }
    return new Uint8Array(view.buffer);
  };
  const HEAD = [['b', 0x47], ['b', 0x50], ['b', 0], ['b', 1], ['i', 4326]] as const; // prettier-ignore
  const point = (kind: number, ...at: readonly number[]): Uint8Array => bytesOf(...HEAD, ['b', 1], ['i', kind], ...at.map((v) => ['d', v] as const)); // prettier-ignore

  it('holds its levels and not its measures, told in the older way or the newer', () => {
    expect(packedGeometry(point(1, 15, 48))).toEqual({ type: 'Point', coordinates: [15, 48] });
    expect(packedGeometry(point(1001, 15, 48, 210))).toEqual({ type: 'Point', coordinates: [15, 48, 210] });
    expect(packedGeometry(point(2001, 15, 48, 7))).toEqual({ type: 'Point', coordinates: [15, 48] });
    expect(packedGeometry(point(3001, 15, 48, 210, 7))).toEqual({ type: 'Point', coordinates: [15, 48, 210] });
    expect(packedGeometry(point(0x80000001, 15, 48, 210))).toEqual({ type: 'Point', coordinates: [15, 48, 210] });
    expect(packedGeometry(point(1, NaN, NaN))).toBeNull();
  });
  it('is passed over where it is empty, its box skipped, and refused where it claims more than it holds', () => {
    const empty = point(1, 1, 2);
    empty[3] |= 16;
    expect(packedGeometry(empty)).toBeNull();
    const boxed = bytesOf(...HEAD.slice(0, 3), ['b', 1 | (1 << 1)], ['i', 4326], ['d', 0], ['d', 1], ['d', 0], ['d', 1], ['b', 1], ['i', 1], ['d', 3], ['d', 4]); // prettier-ignore
    expect(packedGeometry(boxed)).toEqual({ type: 'Point', coordinates: [3, 4] });
    const long = bytesOf(...HEAD, ['b', 1], ['i', 2], ['i', 0xffffffff], ['d', 1], ['d', 2]);
    expect(() => packedGeometry(long)).toThrow('claims more than it holds');
    const nested = bytesOf(...HEAD, ...Array.from({ length: 12 }, () => [['b', 1], ['i', 7], ['i', 1]] as const).flat()); // prettier-ignore
    expect(() => packedGeometry(nested)).toThrow('too deep');
    for (const bad of [point(9, 1, 2), point(4001, 1, 2), bytesOf(['b', 1], ['i', 1]), point(1, 1, 2).slice(0, 20)])
      expect(() => packedGeometry(bad)).toThrow(RangeError);
    const odd = point(1, 1, 2);
    odd[3] = 1 | (6 << 1);
    expect(() => packedGeometry(odd)).toThrow('its head is none');
  });
  it('draws lines, rings and several of them', () => {
    const place = (x: number, y: number): readonly ['d', number][] => [['d', x], ['d', y]]; // prettier-ignore
    const ring = [['i', 4], ...place(0, 0), ...place(1, 0), ...place(1, 1), ...place(0, 0)] as const; // prettier-ignore
    const several = bytesOf(...HEAD, ['b', 1], ['i', 6], ['i', 1], ['b', 1], ['i', 3], ['i', 1], ...ring);
    expect(packedGeometry(several)).toEqual({
      type: 'GeometryCollection',
      geometries: [{ type: 'Polygon', coordinates: [[[0, 0], [1, 0], [1, 1], [0, 0]]] }], // prettier-ignore
    });
    // The other way round, the most significant byte first.
    const view = new DataView(new ArrayBuffer(21));
    view.setUint8(0, 0);
    view.setUint32(1, 1, false);
    view.setFloat64(5, 15, false);
    view.setFloat64(13, 48, false);
    expect(packedGeometry(Uint8Array.from([...bytesOf(...HEAD), ...new Uint8Array(view.buffer)]))).toEqual({ type: 'Point', coordinates: [15, 48] }); // prettier-ignore
  });
});
