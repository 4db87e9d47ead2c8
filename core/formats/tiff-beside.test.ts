// TIFFs that do not say where they lie, with a world file and a .prj beside them.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import type { UserError } from '../project/index.ts';
import { PLACED, tiffOf } from '../testing/tiff.ts';
import { type Imported, importFile, overviewOf } from './index.ts';

const kept = (name: string): Uint8Array => new Uint8Array(readFileSync(join(import.meta.dirname, 'fixtures', name)));
const text = (words: string): Uint8Array => new TextEncoder().encode(words);
const read = (name: string, bytes: Uint8Array): Promise<Imported> => importFile({ name, bytes });
async function refusal(bytes: Uint8Array): Promise<string> {
  try {
    return (await read('a.zip', bytes)).kind;
  } catch (error) {
    const [problem] = (error as UserError).problems;
    return `${problem.code} ${problem.what}`;
  }
}

/** Levels of 8 columns and 4 rows, 2 m apart, that differ everywhere. */
const LEVELS = Int16Array.from({ length: 32 }, (_, k) => 100 + 3 * k);
const UTM =
  'PROJCS["WGS_1984_UTM_Zone_33N",GEOGCS["GCS_WGS_1984",DATUM["D_WGS_1984",SPHEROID["WGS_1984",6378137,298.257223563]],PRIMEM["Greenwich",0],UNIT["Degree",0.017453292519943295]],PROJECTION["Transverse_Mercator"],PARAMETER["central_meridian",15],UNIT["Meter",1]]';
const DEGREES =
  'GEOGCS["GCS_WGS_1984",DATUM["D_WGS_1984",SPHEROID["WGS_1984",6378137,298.257223563]],PRIMEM["Greenwich",0],UNIT["Degree",0.017453292519943295]]';
/** The middle of the first cell of `PLACED`, whose corner stands at 500000, 5000008. */
const WORLD = '2\n0\n0\n-2\n500001\n5000007\n';
const zipOf = (tags: typeof PLACED, beside: Readonly<Record<string, string>>): Uint8Array =>
  zipSync({
    'a.tif': tiffOf(LEVELS, 8, tags),
    ...Object.fromEntries(Object.entries(beside).map(([ending, words]) => [`a.${ending}`, text(words)])),
  });

describe('a TIFF with a world file and a .prj beside it', () => {
  it('written by an independent program, is the ground and the picture it was made of', async () => {
    const [bare, whole] = [await read('bare.zip', kept('grid-bare.zip')), await read('utm.zip', kept('grid-utm.zip'))];
    if (bare.kind !== 'terrain' || whole.kind !== 'terrain') throw new Error('no ground');
    expect(bare.crs).toBe('EPSG:32610');
    const { z, ...frame } = bare.grid;
    expect(frame).toEqual({ ...whole.grid, z: undefined, baseM: frame.baseM });
    expect(z.reduce((most, level, k) => Math.max(most, Math.abs(level + frame.baseM - whole.grid.z[k] - whole.grid.baseM) || 0), 0)).toBeLessThan(1e-4);
    const [photo, told] = [await read('photo.zip', kept('photo-bare.zip')), await read('photo.tif', kept('photo.tif'))];
    if (photo.kind !== 'picture' || told.kind !== 'picture') throw new Error('no picture');
    expect([photo.crs, photo.laying]).toEqual([told.crs, told.laying]);
    // Looked over before it comes in, it lies there too.
    const seen = await overviewOf({ name: 'bare.zip', bytes: kept('grid-bare.zip') });
    expect([seen.cells.x0, seen.cells.y0, seen.cells.dx]).toEqual([410002.5, 4095147.5, 5]);
  });

  it('lies as one that says it all itself; what it says itself goes before what lies beside it', async () => {
    const own = await read('a.tif', tiffOf(LEVELS, 8, PLACED));
    for (const made of [zipOf([], { tfw: WORLD, prj: UTM }), zipOf(PLACED, { tfw: WORLD.replace('500001', '9') }), zipOf([PLACED[2]], { tifw: WORLD })]) {
      const beside = await read('a.zip', made);
      if (beside.kind !== 'terrain' || own.kind !== 'terrain') throw new Error('no ground');
      expect([beside.crs, beside.grid]).toEqual([own.crs, own.grid]);
    }
    // Its middle is told where its keys say that places are middles of cells.
    const middles = PLACED.map((tag) => (tag.id === 34735 ? { ...tag, values: [1, 1, 0, 3, 1024, 0, 1, 1, 1025, 0, 1, 2, 3072, 0, 1, 32633] } : tag));
    const point = await read('a.zip', zipOf([middles[2]], { tfw: WORLD }));
    if (point.kind !== 'terrain' || own.kind !== 'terrain') throw new Error('no ground');
    expect(point.grid).toEqual(own.grid);
  });

  it('in degrees is laid flat in its zone', async () => {
    const found = await read('a.zip', zipOf([], { tfw: '0.0001\n0\n0\n-0.0001\n15.00005\n47.99995', prj: DEGREES }));
    if (found.kind !== 'terrain') throw new Error('no ground');
    expect(found.crs).toBe('EPSG:32633');
    // On the zone's middle meridian.
    expect(found.grid.west).toBeGreaterThan(499_980);
    expect(found.grid.west).toBeLessThan(500_010);
  });

  it('is refused in words where what lies beside it cannot be used, or turns it', async () => {
    expect(await refusal(zipOf([], { tfw: '2\n0.5\n0.5\n-2\n0\n0', prj: UTM }))).toMatch(/^geotiff\.turned it lies turned/);
    expect(await refusal(zipOf([], { tfw: '2\n0\n0\n2\n0\n0', prj: UTM }))).toMatch(/^geotiff\.turned/);
    expect(await refusal(zipOf([], { tfw: '2\n0\n0\n-2\n0', prj: UTM }))).toMatch(/^world\.numbers it holds 5 words/);
    expect(await refusal(zipOf([], { tfw: WORLD, prj: 'LOCAL_CS["yard"]' }))).toMatch(/^prj\.unknown/);
    const feet = UTM.replace('WGS_1984_UTM_Zone_33N', 'of our own').replace('UNIT["Meter",1]', 'UNIT["Foot_US",0.3048006096012192]');
    expect(await refusal(zipOf([], { tfw: WORLD, prj: feet }))).toMatch(/^prj\.tiff its \.prj says places in of our own/);
    expect(await refusal(zipOf([], { prj: UTM }))).toMatch(/^geotiff\.no-position/);
    // Of the form for files over 4 GB: one directory of one tag.
    const large = new Uint8Array(64);
    const view = new DataView(large.buffer);
    [0x4949, 43, 8, 0].forEach((v, k) => view.setUint16(2 * k, v, true));
    view.setBigUint64(8, 16n, true);
    view.setBigUint64(16, 1n, true);
    [256, 3].forEach((v, k) => view.setUint16(24 + 2 * k, v, true));
    view.setBigUint64(28, 1n, true);
    expect(await refusal(zipSync({ 'a.tif': large, 'a.tfw': text(WORLD) }))).toMatch(/^geotiff\.large it is of the form for files over 4 GB/);
  });

  it('a matrix of its own that turns it, or has it stand on its head, is refused, never read as north up', async () => {
    const by = (m: readonly number[]): Promise<string> => refusal(zipSync({ 'a.tif': tiffOf(LEVELS, 8, [{ id: 34264, type: 12, values: [...m, 0, 0, 0, 0, 0, 0, 0, 1] }, PLACED[2]]) }));
    expect(await by([2, 0, 0, 500_000, 0, -2, 0, 5_000_008])).toBe('terrain');
    expect(await by([2, 0.01, 0, 500_000, 0, -2, 0, 5_000_008])).toMatch(/^geotiff\.turned/);
    expect(await by([2, 0, 0, 500_000, -0.01, -2, 0, 5_000_008])).toMatch(/^geotiff\.turned/);
    expect(await by([2, 0, 0, 500_000, 0, 2, 0, 5_000_000])).toMatch(/^geotiff\.turned/);
    expect(await by([-2, 0, 0, 500_016, 0, -2, 0, 5_000_008])).toMatch(/^geotiff\.turned/);
  });

  it('property: whatever is in the TIFF, its world file and its .prj, it is taken or refused in words that somebody thought of', async () => {
    const byte = fc.tuple(fc.double({ min: 0, max: 0.9999, noNaN: true }), fc.nat(255));
    const sound = { 'a.tif': tiffOf(LEVELS, 8, [PLACED[2]]), 'a.tfw': text(WORLD), 'a.prj': text(UTM) };
    const seen = { terrain: 0, refused: 0 };
    await fc.assert(
      fc.asyncProperty(fc.array(byte, { minLength: 1, maxLength: 6 }), fc.constantFrom('a.tif', 'a.tif', 'a.tfw', 'a.prj'), async (bytes, of) => {
        const part = sound[of].slice();
        for (const [at, to] of bytes) part[Math.floor(at * part.length)] = to;
        const said = await refusal(zipSync({ ...sound, [of]: part }));
        expect(said).not.toMatch(/^outlet\.internal/);
        seen[said === 'terrain' ? 'terrain' : 'refused']++;
      }),
      { numRuns: 400, seed: 17 },
    );
    expect(Math.min(seen.terrain, seen.refused)).toBeGreaterThan(60);
  });
}); // prettier-ignore
