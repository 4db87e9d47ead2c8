// The ground written and read again; its triangles held against the ground by another way of looking at them.
import { describe, expect, it } from '@jest/globals';
import { DOMParser } from '@xmldom/xmldom';
import fc from 'fast-check';
import { type Grid, extentOf, gridFromLevels, levelAt } from '../terrain/index.ts';
import { type GroundMesh, type ImportedTerrain, importFile, meshOf, prjOf, requireCrs, withPrj, writeGround } from './index.ts';
import { systemOfPrj } from './systems.ts';

const WHEN = new Date('2026-05-04T03:02:01Z');
const rolling = (x: number, y: number): number => 120 + 0.03 * x - 0.02 * y + 1.5 * Math.sin(x / 17) * Math.cos(y / 23);
const gridOf = (law: (x: number, y: number) => number, { ncols, nrows } = { ncols: 60, nrows: 45 }): Grid =>
  gridFromLevels(
    { ncols, nrows, cellM: 2, west: 431_000, south: 4_612_000 },
    Float64Array.from({ length: ncols * nrows }, (_, i) => law(2 * (i % ncols), 2 * Math.floor(i / ncols))),
  );
const GRID = gridOf(rolling);
const HOLED = gridOf((x, y) => (x > 40 && x < 60 && y > 20 && y < 50 ? NaN : rolling(x, y)));

/** Area of a triangle on the plan, more than nothing where its corners turn to the left. */
const turn = (a: readonly number[], b: readonly number[], c: readonly number[]): number => ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2; // prettier-ignore

/** Level of a mesh at a place, by the triangle it lies in; NaN where it lies in none. */
function meshLevel({ places, triangles }: GroundMesh, at: readonly [number, number]): number {
  for (const corners of triangles) {
    const [a, b, c] = corners.map((k) => places[k]);
    const whole = turn(a, b, c);
    const [u, v, w] = [turn(b, c, at as never), turn(c, a, at as never), turn(a, b, at as never)].map((part) => part / whole);
    if (Math.min(u, v, w) >= -1e-9) return u * a[2] + v * b[2] + w * c[2];
  }
  return NaN;
}

describe('the ground written and read again', () => {
  it.each(['tif', 'asc'] as const)('as %s is the same to a millimetre, in its system', async (format) => {
    for (const grid of [GRID, HOLED]) {
      const bytes = writeGround(grid, format, { name: 'Ground', epsg: 32633, when: WHEN });
      const read = (await importFile({ name: `g.${format}`, bytes }, format === 'asc' ? { crs: 'EPSG:32633' } : {})) as ImportedTerrain;
      expect([read.crs, extentOf(read.grid), read.grid.ncols]).toEqual(['EPSG:32633', extentOf(grid), grid.ncols]);
      for (let i = 0; i < grid.z.length; i++) {
        if (Number.isNaN(grid.z[i])) expect(read.grid.z[i]).toBeNaN();
        else expect(Math.abs(read.grid.z[i] + read.grid.baseM - grid.z[i] - grid.baseM)).toBeLessThan(0.0006);
      }
    }
    const local = (await importFile({ name: `g.${format}`, bytes: writeGround(GRID, format, { name: 'Ground', epsg: null, when: WHEN }) })) as ImportedTerrain;
    expect([local.crs, extentOf(local.grid)]).toEqual([null, extentOf(GRID)]);
  }); // prettier-ignore
});

describe('the .prj beside a grid in text', () => {
  // Places by an independent program (Debian's gdal-bin 3.6.2): `gdaltransform -s_srs EPSG:4326 -t_srs` the .prj, which gives what
  // its own EPSG code gives there to all these digits.
  it.each([
    { code: '32633', at: [15.5, 48], lies: [537297.7029, 5316421.1667] },
    { code: '32733', at: [15.5, -20], lies: [552303.1258, 7788440.6366] },
    { code: '2154', at: [4, 47], lies: [775984.4645, 6656012.0097] },
    { code: '2180', at: [20, 52], lies: [568629.1017, 459781.1717] },
    { code: '3112', at: [140, -30], lies: [572328.7735, -3402976.8902] },
    { code: '2193', at: [174, -40], lies: [1685360.4618, 5571763.9355] },
  ] as const)(
    'of EPSG:$code lays places where they lie by its numbers alone, and is known by its code',
    async ({ code, at, lies: [x, y] }) => {
      const crs = await requireCrs(`EPSG:${code}`, 'here');
      const prj = prjOf(crs) ?? '';
      const by = await systemOfPrj(prj, 'g.prj');
      expect('crs' in by && by.crs.code).toBe(`EPSG:${code}`);
      // Without its code, under a name nobody knows, on a datum that is taken as WGS 84.
      const unknown = prj.replace(/,AUTHORITY\[[^\]]*\]/, '').replace(/PROJCS\["[^"]*"/, 'PROJCS["of our own"').replace(/DATUM\["[^"]*"/, 'DATUM["D_WGS_1984"'); // prettier-ignore
      const own = await systemOfPrj(unknown, 'g.prj');
      const [east, north] = 'from' in own ? own.from.fromLonLat([at[0], at[1]]) : [NaN, NaN];
      expect(Math.hypot(east - x, north - y)).toBeLessThan(0.002);
    },
  );
  it('is none where a projection or a meridian is not written; with it a grid is at home', async () => {
    expect(prjOf(await requireCrs('EPSG:3577', 'here'))).toBeNull();
    expect(prjOf({ code: 'EPSG:1', name: 'by another meridian', proj4: '+proj=tmerc +lat_0=0 +lon_0=0 +pm=paris +ellps=GRS80 +units=m' })).toBeNull(); // prettier-ignore
    const bytes = withPrj(writeGround(GRID, 'asc', { name: 'Ground', epsg: 32633, when: WHEN }), prjOf(await requireCrs('EPSG:32633', 'here')) ?? ''); // prettier-ignore
    const read = (await importFile({ name: 'ground.zip', bytes })) as ImportedTerrain;
    expect([read.crs, extentOf(read.grid)]).toEqual(['EPSG:32633', extentOf(GRID)]);
  });
});

describe('the ground as triangles', () => {
  it('is nowhere farther off than it says, with far fewer places than cells, and makes up nothing where none is known', () => {
    const mesh = meshOf(GRID, 0.05);
    expect(mesh.withinM).toBeLessThanOrEqual(0.05);
    expect(mesh.places.length).toBeLessThan(GRID.z.length / 4);
    for (let i = 0; i < GRID.z.length; i += 7) {
      const at = [431_000 + 2 * ((i % 60) + 0.5), 4_612_000 + 2 * (45 - Math.floor(i / 60) - 0.5)] as const;
      expect(Math.abs(meshLevel(mesh, at) - (GRID.z[i] + GRID.baseM))).toBeLessThanOrEqual(0.05 + 1e-4);
    }
    // Together they cover the plan once.
    const area = mesh.triangles.reduce((sum, corners) => sum + Math.abs(turn(mesh.places[corners[0]], mesh.places[corners[1]], mesh.places[corners[2]])), 0);
    expect(area).toBeCloseTo(59 * 2 * (44 * 2), 3);
    const holed = meshOf(HOLED, 0.05);
    expect(meshLevel(holed, [431_050, 4_612_055])).toBeNaN();
    expect(holed.places.every(([x, y]) => !Number.isNaN(levelAt(HOLED, [x, y])))).toBe(true);
    expect(meshLevel(holed, [431_021, 4_612_055])).toBeCloseTo(levelAt(HOLED, [431_021, 4_612_055]), 1);
  }); // prettier-ignore
  it('is as near as it says for any ground, and says how near where it may have no more places', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 10, noNaN: true }), { minLength: 48, maxLength: 48 }), (levels) => {
        const grid = gridOf((x, y) => levels[(y / 2) * 8 + x / 2], { ncols: 8, nrows: 6 });
        const [fine, rough] = [meshOf(grid, 0.01), meshOf(grid, 0.01, 12)];
        expect(rough.places.length).toBeLessThanOrEqual(13);
        for (const mesh of [fine, rough])
          for (let i = 0; i < 48; i++) {
            const at = [431_000 + 2 * ((i % 8) + 0.5), 4_612_000 + 2 * (6 - Math.floor(i / 8) - 0.5)] as const;
            expect(Math.abs(meshLevel(mesh, at) - (grid.z[i] + grid.baseM))).toBeLessThanOrEqual(mesh.withinM + 1e-3);
          }
      }),
      { seed: 11, numRuns: 40 },
    );
  });
  it('goes out as a surface of machine control, and as faces of a drawing', () => {
    const mesh = meshOf(GRID);
    const xml = new TextDecoder().decode(writeGround(GRID, 'landxml', { name: 'Sallow & Rise', epsg: 32633, when: WHEN }));
    const document = new DOMParser().parseFromString(xml, 'text/xml');
    const all = (tag: string): string[] => Array.from(document.getElementsByTagName(tag), (e) => e.textContent ?? '');
    expect(xml).toMatch(/date="2026-05-04" time="03:02:01"[\s\S]*epsgCode="32633"[\s\S]*name="Sallow &#38; Rise"/);
    expect([all('P').length, all('F').length]).toEqual([mesh.places.length, mesh.triangles.length]);
    // North first, then east, then up; faces name places that are there.
    const [north, east, up] = all('P')[0].split(' ').map(Number);
    expect([east, north, up]).toEqual(mesh.places[0].map((v) => expect.closeTo(v, 3)));
    expect(all('F').every((f) => f.split(' ').every((k) => Number(k) >= 1 && Number(k) <= mesh.places.length))).toBe(true);
    expect(new TextDecoder().decode(writeGround(GRID, 'landxml', { name: 'x', epsg: null, when: WHEN }))).not.toMatch(/epsgCode/);
    const dxf = new TextDecoder().decode(writeGround(GRID, 'faces', { name: 'x', epsg: null, when: WHEN }));
    expect(dxf.match(/^3DFACE\s*$/gm)).toHaveLength(mesh.triangles.length);
    expect(dxf).toMatch(/GROUND[\s\S]*EOF\s*$/);
  });
});
