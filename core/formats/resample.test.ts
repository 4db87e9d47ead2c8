// Grids of degrees, oblong cells and feet, brought onto square cells in metres; against the series of the projection itself.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { writeArrayBuffer } from 'geotiff';
import { UserError } from '../project/index.ts';
import { levelAt, statsOf } from '../terrain/index.ts';
import { type ImportedTerrain, importFile } from './index.ts';
import { latticeAt, squared } from './resample.ts';

const [NCOLS, NROWS] = [40, 30];
const tiff = (change: Record<string, unknown>, levels: Float32Array): Uint8Array =>
  new Uint8Array(writeArrayBuffer(levels, { width: NCOLS, height: NROWS, GTRasterTypeGeoKey: 1, ...change }));
const read = async (bytes: Uint8Array, crs: string | null = null): Promise<ImportedTerrain> =>
  (await importFile({ name: 't.tif', bytes }, { crs })) as ImportedTerrain;
const refusal = async (bytes: Uint8Array, crs: string | null = null): Promise<string> =>
  read(bytes, crs).then(
    () => 'accepted',
    (error: unknown) => (error as UserError).problems[0].code,
  );

/** UTM by Krüger's series to the fourth order (Karney 2011, equations 8 to 11 and 35; from memory), in place of the library's. */
function utm(lon: number, lat: number, zone: number): readonly [number, number] {
  const [a, f, k0] = [6378137, 1 / 298.257223563, 0.9996];
  const n = f / (2 - f);
  const A = (a / (1 + n)) * (1 + n ** 2 / 4 + n ** 4 / 64);
  const alpha = [
    n / 2 - (2 * n ** 2) / 3 + (5 * n ** 3) / 16 + (41 * n ** 4) / 180,
    (13 * n ** 2) / 48 - (3 * n ** 3) / 5 + (557 * n ** 4) / 1440,
    (61 * n ** 3) / 240 - (103 * n ** 4) / 140,
    (49561 * n ** 4) / 161280,
  ];
  const [phi, lambda] = [(lat * Math.PI) / 180, ((lon - (6 * zone - 183)) * Math.PI) / 180];
  const e = Math.sqrt(f * (2 - f));
  const t = Math.sinh(Math.atanh(Math.sin(phi)) - e * Math.atanh(e * Math.sin(phi)));
  const [xi, eta] = [Math.atan2(t, Math.cos(lambda)), Math.atanh(Math.sin(lambda) / Math.sqrt(1 + t * t))];
  let [x, y] = [eta, xi];
  alpha.forEach((c, k) => {
    const j = 2 * (k + 1);
    x += c * Math.cos(j * xi) * Math.sinh(j * eta);
    y += c * Math.sin(j * xi) * Math.cosh(j * eta);
  });
  return [500000 + k0 * A * x, k0 * A * y + (lat < 0 ? 10_000_000 : 0)];
}

// Thirds of an arc second, somewhere at sea; a plane in metres, told at the middle of each cell of degrees.
const [WEST, NORTH, STEP] = [-27.8, 41.65, 1 / 3600 / 3];
const [E0, N0] = utm(WEST, NORTH, 26);
const plane = ([x, y]: readonly [number, number]): number => 100 + 0.02 * (x - E0) + 0.03 * (y - N0);
const DEGREES = {
  GTModelTypeGeoKey: 2,
  GeographicTypeGeoKey: 4326,
  ModelPixelScale: [STEP, STEP, 0],
  ModelTiepoint: [0, 0, 0, WEST, NORTH, 0],
};
const inDegrees = (half = 0.5): Float32Array =>
  Float32Array.from({ length: NCOLS * NROWS }, (_, i) =>
    plane(utm(WEST + ((i % NCOLS) + half) * STEP, NORTH - (Math.floor(i / NCOLS) + half) * STEP, 26)),
  );

describe('a GeoTIFF in degrees', () => {
  it('is laid flat in the UTM zone it lies in, to the millimetre of level, and says so', async () => {
    const { crs, grid, notes } = await read(tiff(DEGREES, inDegrees()));
    expect(crs).toBe('EPSG:32626');
    expect(notes[0]).toMatch(/laid flat in EPSG:32626 .* on cells of (8\.\d|9) m/);
    let compared = 0;
    for (const u of [0.1, 0.35, 0.5, 0.82])
      for (const v of [0.12, 0.4, 0.77, 0.9]) {
        const at = utm(WEST + u * NCOLS * STEP, NORTH - v * NROWS * STEP, 26);
        // A tenth of a metre in plan is three millimetres of level on this plane.
        expect(Math.abs(levelAt(grid, at) - plane(at))).toBeLessThan(0.003);
        compared++;
      }
    expect(compared).toBe(16);
    // All of it came in, and nothing beside it.
    const stats = statsOf(grid);
    expect(stats.areaM2 / (NCOLS * NROWS * (30.85 / 3) * ((30.92 / 3) * Math.cos((41.65 * Math.PI) / 180)))).toBeCloseTo(1, 1);
  });
  it('whose places are points lies half a cell further; south of the equator it has its own zones; another system may be asked for', async () => {
    const points = await read(tiff({ ...DEGREES, GTRasterTypeGeoKey: 2 }, inDegrees(0)));
    const at = utm(WEST + 0.5 * NCOLS * STEP, NORTH - 0.5 * NROWS * STEP, 26);
    expect(Math.abs(levelAt(points.grid, at) - plane(at))).toBeLessThan(0.003);
    expect((await read(tiff({ ...DEGREES, ModelTiepoint: [0, 0, 0, 20.5, -33, 0] }, inDegrees()))).crs).toBe('EPSG:32734');
    expect((await read(tiff(DEGREES, inDegrees()), 'EPSG:32625')).crs).toBe('EPSG:32625');
  });
  it('on a near datum says so; on a far one, or beyond the poles, it is refused', async () => {
    expect((await read(tiff({ ...DEGREES, GeographicTypeGeoKey: 4258 }, inDegrees()))).notes.join(' ')).toMatch(
      /4258\) was taken as WGS 84/,
    );
    expect(await refusal(tiff({ ...DEGREES, GeographicTypeGeoKey: 4267 }, inDegrees()))).toBe('crs.datum');
    expect(await refusal(tiff({ ...DEGREES, ModelTiepoint: [0, 0, 0, 20, 89, 0] }, inDegrees()))).toBe('crs.not-degrees');
    expect(await refusal(tiff({ ...DEGREES, ModelPixelScale: [0.5, 0.5, 0] }, inDegrees()))).toMatch(/^grid\.coarse$|^crs\.not-degrees$/);
  });
  it('keeps a hole a hole, no wider than the cells about it', async () => {
    const levels = inDegrees();
    levels[15 * NCOLS + 20] = -9999;
    const { grid } = await read(tiff({ ...DEGREES, GDAL_NODATA: '-9999' }, levels));
    const at = (col: number, row: number): number => levelAt(grid, utm(WEST + (col + 0.5) * STEP, NORTH - (row + 0.5) * STEP, 26));
    expect(at(20, 15)).toBeNaN();
    for (const [c, r] of [[17, 15], [23, 15], [20, 12], [20, 18]]) expect(at(c, r)).toBeGreaterThan(0); // prettier-ignore
  });
});

describe('cells that are not square, and levels that are not metres', () => {
  const FLAT = { GTModelTypeGeoKey: 1, ProjectedCSTypeGeoKey: 32633, ModelTiepoint: [0, 0, 0, 500000, 5000090, 0] };
  const sloped = (dx: number, dy: number): Float32Array =>
    Float32Array.from({ length: NCOLS * NROWS }, (_, i) => 100 + 0.1 * ((i % NCOLS) + 0.5) * dx - 0.2 * (Math.floor(i / NCOLS) + 0.5) * dy);
  it('oblong cells are made square ones of their shorter side over the same ground', async () => {
    const { grid, notes } = await read(tiff({ ...FLAT, ModelPixelScale: [2, 3, 0] }, sloped(2, 3)));
    expect([grid.ncols, grid.nrows, grid.cellM, grid.west, grid.south]).toEqual([40, 45, 2, 500000, 5000000]);
    for (const [x, y] of [[11, 20], [40.5, 61], [70, 8]]) expect(levelAt(grid, [500000 + x, 5000000 + y])).toBeCloseTo(100 + 0.1 * x - 0.2 * (90 - y), 4); // prettier-ignore
    expect(notes.join(' ')).toMatch(/cells of 2 by 3 m were made square, 2 m/);
    expect(await refusal(tiff({ ...FLAT, ModelPixelScale: [2, 50, 0] }, sloped(2, 3)))).toBe('grid.not-square');
  });
  it('feet of both kinds become metres, and it is said; a unit nobody knows is refused', async () => {
    const metres = (await read(tiff({ ...FLAT, ModelPixelScale: [3, 3, 0] }, sloped(3, 3)))).grid;
    for (const [code, foot, name] of [[9002, 0.3048, 'feet'], [9003, 1200 / 3937, 'US survey feet']] as const) {
      const inFeet = sloped(3, 3).map((v) => v / foot);
      const { grid, notes } = await read(tiff({ ...FLAT, ModelPixelScale: [3, 3, 0], VerticalUnitsGeoKey: code }, inFeet));
      expect(levelAt(grid, [500050, 5000050])).toBeCloseTo(levelAt(metres, [500050, 5000050]), 4);
      expect(notes.join(' ')).toContain(`in ${name}; they were turned into metres`);
    } // prettier-ignore
    expect(await refusal(tiff({ ...FLAT, ModelPixelScale: [3, 3, 0], VerticalUnitsGeoKey: 9036 }, sloped(3, 3)))).toBe('levels.unit');
  });
  it('property: between four centres a plane stays a plane, and no level is above or below the four', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(fc.array(number(0, 10), { minLength: 12, maxLength: 12 }), number(-0.5, 3.5), number(-0.5, 2.5), (list, col, row) => {
        const lattice = { ncols: 4, nrows: 3, x0: 10, y0: 20, dx: 2, dy: 3, levels: Float64Array.from(list) };
        const level = latticeAt(lattice, 10 + 2 * col, 20 - 3 * row);
        expect(level).toBeGreaterThanOrEqual(Math.min(...list) - 1e-9);
        expect(level).toBeLessThanOrEqual(Math.max(...list) + 1e-9);
        const even = { ...lattice, levels: Float64Array.from(list, (_, i) => 3 * (i % 4) - 2 * Math.floor(i / 4)) };
        if (col >= 0 && col <= 3 && row >= 0 && row <= 2)
          expect(latticeAt(even, 10 + 2 * col, 20 - 3 * row)).toBeCloseTo(3 * col - 2 * row, 9);
        expect(latticeAt(lattice, 10 + 2 * 3.51, 20)).toBeNaN();
      }),
      { seed: 94, numRuns: 100 },
    );
    expect(
      squared({ ncols: 4, nrows: 3, x0: 10, y0: 20, dx: 2, dy: 3, levels: new Float64Array(12).fill(7) }).levels.every((v) => v === 7),
    ).toBe(true);
  });
});
