// A part of a large GeoTIFF and one of its bands: of a file of three bands in tiles written by an independent program
// (fixtures/README.md), and of one too large to come in whole.
import { describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeArrayBuffer } from 'geotiff';
import { zipSync } from 'fflate';
import { UserError } from '../project/index.ts';
import { extentOfCells, levelAt } from '../terrain/index.ts';
import { type ImportHow, type ImportedTerrain, importFile, overviewOf } from './index.ts';
import { cutTo } from './tiff-place.ts';

const kept = (name: string): Uint8Array => new Uint8Array(readFileSync(join(import.meta.dirname, 'fixtures', name)));
const BANDS = kept('grid-bands.tif');
const read = async (how: ImportHow, bytes = BANDS): Promise<ImportedTerrain> => (await importFile({ name: 'b.tif', bytes }, how)) as ImportedTerrain; // prettier-ignore
const told = async (of: Promise<unknown>): Promise<string> =>
  of.then(
    () => 'accepted',
    (e: unknown) => (e instanceof UserError ? e.problems.map((p) => `${p.code}: ${String(p.what)}. ${p.do}`).join('; ') : String(e)),
  );

/** The levels of the second band: packed to a centimetre, none in its north-western corner. */
const [X0, Y0] = [410_000, 4_095_000];
const plane = (x: number, y: number): number => 100 + 0.02 * (x - X0) + 0.03 * (y - Y0);
const isNowhere = (x: number, y: number): boolean => x - X0 < 200 && y - Y0 > 3800;
const part = { west: X0 + 1000, south: Y0 + 2000, east: X0 + 1500, north: Y0 + 2250 };

describe('one of several bands', () => {
  it('is asked for, and read by its own scale and offset', async () => {
    expect(await told(read({}))).toMatch(/^bands\.doubtful: it has 3 bands\. Say which/);
    expect(await told(read({ band: 4 }))).toMatch(/^bands\.none: it has no band 4: there are 3/);
    expect(await told(read({ band: 0 }))).toMatch(/^bands\.none/);
    const { grid, notes, crs } = await read({ band: 2 });
    expect([crs, grid.ncols, grid.nrows, grid.cellM]).toEqual(['EPSG:32610', 1000, 800, 5]);
    for (const [x, y] of [[X0 + 2502.5, Y0 + 52.5], [X0 + 4902.5, Y0 + 3902.5]] as const) expect(Math.abs(levelAt(grid, [x, y]) - plane(x, y))).toBeLessThan(0.0051); // prettier-ignore
    expect(levelAt(grid, [X0 + 50, Y0 + 3950])).toBeNaN();
    expect(notes.join(' ')).toMatch(/times 0\.01, plus 100.*Band 2 was read as levels/);
    // A slope is no level, but nobody but the user knows: it is what was asked for.
    expect(levelAt((await read({ band: 1 })).grid, [X0 + 500, Y0 + 500])).toBeCloseTo(5, 6);
  });
});

describe('a part of a picture', () => {
  it('holds the same levels at the same places as the whole, and no cell more than lies in it', async () => {
    const [whole, cut] = [await read({ band: 2 }), await read({ band: 2, part })];
    expect(cut.grid).toMatchObject({ ncols: 100, nrows: 50, cellM: 5, west: part.west, south: part.south });
    for (let k = 0; k < 200; k++) {
      const [x, y] = [part.west + 5 + ((k * 37) % 490), part.south + 5 + ((k * 61) % 240)];
      expect(levelAt(cut.grid, [x, y])).toBeCloseTo(levelAt(whole.grid, [x, y]), 4);
    }
    expect(cut.notes.join(' ')).toMatch(/100 by 50 of its 1000 by 800 cells were read/);
    // A cell is in it by its middle; beyond the picture there is none.
    const edged = await read({ band: 2, part: { west: X0 - 999, south: Y0 - 999, east: X0 + 12.4, north: Y0 + 12.6 } });
    expect([edged.grid.ncols, edged.grid.nrows, edged.grid.west, edged.grid.south]).toEqual([2, 3, X0, Y0]);
  });
  it('is no more than may come in, and the whole neither', () => {
    const of = (ncols: number, nrows: number, cut: Partial<typeof part> | null = null): number | string => {
      const all = { ncols, nrows, x0: 0.5, y0: nrows - 0.5, dx: 1, dy: 1 };
      try {
        return cutTo(all, cut && { ...extentOfCells(all), ...cut }, 'x.tif').cells.ncols;
      } catch (error) {
        return (error as UserError).problems[0].code;
      }
    };
    expect([of(4000, 4000), of(4001, 4000)]).toEqual([4000, 'terrain.too-big']);
    expect([of(9000, 4000, { east: 4000 }), of(9000, 4000, { east: 4001 }), of(9000, 4000, { east: 2 }), of(9000, 4000, { east: 1 })]).toEqual([4000, 'terrain.too-big', 2, 'grid.part']); // prettier-ignore
  });
  it('that holds nothing of it is refused with what it covers', async () => {
    const beside = { ...part, west: X0 + 5001, east: X0 + 5500 };
    expect(await told(read({ band: 2, part: beside }))).toMatch(
      /^grid\.part: hardly a cell.*it covers 410000 to 415000 and 4095000 to 4099000/,
    );
    expect(await told(read({ band: 2, part: { ...part, east: part.west + 7 } }))).toMatch(/^grid\.part/);
    expect(await told(read({ band: 2, part: { ...part, east: NaN } }))).toMatch(/^grid\.part/);
  });
  it('comes in from a picture that is too large as a whole, in metres or in degrees', async () => {
    // Whole numbers that rise by one every hundred cells, up to 163.
    const [metres, degrees] = [kept('grid-wide.tif'), kept('grid-wide-degrees.tif')];
    expect(await told(read({}, metres))).toMatch(
      /^terrain\.too-big: it has 16,400,000 cells.*Bring in a part of it.*It covers 410000 to 442800 and 4095000 to 4097000/,
    );
    const { grid } = await read({ part: { west: X0 + 20_000, south: Y0, east: X0 + 21_000, north: Y0 + 1000 } }, metres);
    expect([grid.ncols, grid.nrows, levelAt(grid, [X0 + 20_101, Y0 + 500])]).toEqual([500, 500, 100]);
    expect(await told(read({ part: { west: X0, south: Y0, east: X0 + 40_000, north: Y0 + 2000 } }, metres))).toMatch(/smaller part/);
    const laid = await read({ part: { west: -27.5, south: 41.63, east: -27.48, north: 41.64 } }, degrees);
    expect(laid.crs).toBe('EPSG:32626');
    // 0.02 degrees of longitude here are 1664 m, 0.01 of latitude 1111 m; turned by its distance from the middle of the zone it reaches a little farther.
    const [wideM, highM] = [laid.grid.ncols * laid.grid.cellM, laid.grid.nrows * laid.grid.cellM];
    expect([Math.abs(wideM - 1664), Math.abs(highM - 1111)].every((m) => m < 40)).toBe(true);
    expect(laid.grid.ncols * laid.grid.nrows).toBeLessThan(400_000);
  });
});

describe('an overview', () => {
  it('tells the bands by name, what is covered, and shows the one asked for where it lies', async () => {
    const seen = await overviewOf({ name: 'b.tif', bytes: BANDS }, { band: 2 });
    expect(seen.bands).toEqual(['slope in percent', 'elevation', 'surveyed']);
    expect(seen).toMatchObject({ band: 2, isDegrees: false, metresPer: [1, 1], cells: { ncols: 1000, nrows: 800, dx: 5, dy: 5 } });
    expect(extentOfCells(seen.cells)).toEqual({ west: X0, south: Y0, east: X0 + 5000, north: Y0 + 4000 });
    // The band whose name speaks of levels is shown first; one that is not there is refused.
    expect((await overviewOf({ name: 'b.tif', bytes: BANDS })).levels).toEqual(seen.levels);
    expect(await told(overviewOf({ name: 'b.tif', bytes: BANDS }, { band: 4 }))).toMatch(/^bands\.none/);
    // From the copy of 500 by 400 that is in the file, every second.
    expect([seen.ncols, seen.nrows]).toEqual([250, 200]);
    for (let i = 0; i < seen.levels.length; i += 997) {
      const [x, y] = [X0 + ((i % 250) + 0.5) * 20, Y0 + (200 - Math.floor(i / 250) - 0.5) * 20];
      if (isNowhere(x - 20, y + 20) !== isNowhere(x + 20, y - 20)) continue;
      if (isNowhere(x, y)) expect(seen.levels[i]).toBeNaN();
      // Within half a cell of the overview, on a plane of 2 and 3 %.
      else expect(Math.abs(seen.levels[i] - plane(x, y))).toBeLessThan(0.51);
    }
    expect((await overviewOf({ name: 'b.tif', bytes: BANDS }, { band: 1 })).levels[0]).toBe(5);
    const zipped = zipSync({ 'b.tif': BANDS });
    expect((await overviewOf({ name: 'b.zip', bytes: zipped }, { band: 2 })).levels).toEqual(seen.levels);
  });
  it('tells how large a unit is on the ground, of degrees and of feet', async () => {
    const degrees = await overviewOf({ name: 'd.tif', bytes: kept('grid-wide-degrees.tif') });
    // On the ellipsoid at 41.636 degrees: 83 322 and 111 056 m (meridian and parallel arcs by the formulas of Snyder 1987, (4-18) and (4-21); from memory).
    const [phi, a, e2] = [(41.636 * Math.PI) / 180, 6378137, 0.00669437999];
    const w = 1 - e2 * Math.sin(phi) ** 2;
    const arcs = [((Math.PI / 180) * a * Math.cos(phi)) / Math.sqrt(w), ((Math.PI / 180) * a * (1 - e2)) / w ** 1.5];
    degrees.metresPer.forEach((m, k) => expect(Math.abs(m / arcs[k] - 1)).toBeLessThan(0.0006));
    const feet = await overviewOf({ name: 'f.tif', bytes: kept('grid-feet.tif') });
    for (const m of feet.metresPer) expect(Math.abs(m / 0.3048006 - 1)).toBeLessThan(0.0006);
  });
  it('is made of strips and of a picture without copies alike, and of nothing else', async () => {
    const [wide, high] = [900, 700];
    const levels = Float32Array.from({ length: wide * high }, (_, i) => (i % wide) + 1000 * Math.floor(i / wide));
    const bytes = new Uint8Array(writeArrayBuffer(levels, { width: wide, height: high, GTModelTypeGeoKey: 1, ProjectedCSTypeGeoKey: 32610, ModelPixelScale: [1, 1, 0], ModelTiepoint: [0, 0, 0, X0, Y0, 0] })); // prettier-ignore
    const seen = await overviewOf({ name: 's.tif', bytes });
    expect([seen.ncols, seen.nrows, seen.bands]).toEqual([300, 234, ['']]);
    // The middle one of every three by three; of the last row the last there is.
    expect([seen.levels[0], seen.levels[301], seen.levels[300 * 233]]).toEqual([1001, 4004, 699_001]);
    expect(seen.levels.some(Number.isNaN)).toBe(false);
    expect(await told(overviewOf({ name: 's.asc', bytes: new TextEncoder().encode('ncols 2') }))).toMatch(/^geotiff\.none|^zip/);
    expect(await told(overviewOf({ name: 'c.tif', bytes: BANDS.slice(0, 9000) }))).toMatch(/^geotiff\.(truncated|unreadable)/);
  });
});
