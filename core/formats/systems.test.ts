// Grids that say their system in a .prj, or lie in degrees or in feet: written by an independent program (fixtures/README.md).
import { describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { UserError } from '../project/index.ts';
import { levelAt } from '../terrain/index.ts';
import { type ImportHow, type ImportedTerrain, findSystems, importFile } from './index.ts';

const kept = (name: string): Uint8Array => new Uint8Array(readFileSync(join(import.meta.dirname, 'fixtures', name)));
const read = async (name: string, how: ImportHow = {}, bytes = kept(name)): Promise<ImportedTerrain> => (await importFile({ name, bytes }, how)) as ImportedTerrain; // prettier-ignore
const refusal = async (name: string, bytes?: Uint8Array, how: ImportHow = {}): Promise<string> => {
  const error: unknown = await read(name, how, bytes).then(
    () => new Error('accepted'),
    (e: unknown) => e,
  );
  return error instanceof UserError ? error.problems.map((p) => `${p.code} ${String(p.what)}`).join('; ') : String(error);
};

/** The plane the fixtures were made of, in EPSG:32610. */
const [X0, Y0] = [410_000, 4_095_000];
const plane = (x: number, y: number): number => 100 + 0.02 * (x - X0) + 0.03 * (y - Y0);
const PLACES = [[60, 50], [100, 75], [150, 110]] as const; // prettier-ignore
/** How far levels may be off where places may be off by a tenth of a metre, on this plane [m]. */
const NEAR_M = 0.1 * Math.hypot(0.02, 0.03);

const expectPlane = ({ grid, crs }: ImportedTerrain, nearM = NEAR_M): void => {
  expect(crs).toBe('EPSG:32610');
  for (const [x, y] of PLACES) expect(Math.abs(levelAt(grid, [X0 + x, Y0 + y]) - plane(X0 + x, Y0 + y))).toBeLessThan(nearM);
};
const withPrj = (grid: string, prj: string): Uint8Array => {
  const [text] = Object.entries(unzipSync(kept(grid))).flatMap(([n, b]) => (n.endsWith('.asc') ? [b] : []));
  return zipSync({ 'g.asc': text, 'g.prj': strToU8(prj) });
};
const prjOf = (grid: string): string =>
  new TextDecoder().decode(Object.entries(unzipSync(kept(grid))).find(([n]) => n.endsWith('.prj'))?.[1]);

describe('a grid with its .prj', () => {
  it('is in the system that names, by its name or its code', async () => {
    const utm = await read('grid-utm.zip');
    expectPlane(utm, 1e-3);
    expect(utm.grid).toMatchObject({ ncols: 40, nrows: 30, cellM: 5, west: X0, south: Y0 });
    expect((await read('grid-utm.zip', { crs: 'EPSG:32610' })).crs).toBe('EPSG:32610');
    const coded = prjOf('grid-utm.zip')
      .replace('WGS_1984_UTM_Zone_10N', 'of our own')
      .replace(/\]\s*$/, ',AUTHORITY["EPSG","32610"]]');
    expectPlane(await read('coded.zip', {}, withPrj('grid-utm.zip', coded)), 1e-3);
    expect(await refusal('grid-utm.zip', undefined, { crs: 'EPSG:32633' })).toMatch(/^crs\.mismatch its \.prj says EPSG:32610/);
    // Of a name nobody knows the numbers themselves are reckoned with, and laid flat again.
    expectPlane(await read('own.zip', {}, withPrj('grid-utm.zip', prjOf('grid-utm.zip').replace('WGS_1984_UTM_Zone_10N', 'of our own'))));
  });
  it('in degrees is laid flat in metres, and without a .prj by its numbers', async () => {
    const degrees = await read('grid-degrees.zip');
    expectPlane(degrees);
    expect(degrees.notes.join(' ')).toMatch(/longitudes and latitudes were laid flat in EPSG:32610/);
    const [text] = Object.entries(unzipSync(kept('grid-degrees.zip'))).flatMap(([n, b]) => (n.endsWith('.asc') ? [b] : []));
    const alone = await read('degrees.asc', {}, text);
    expectPlane(alone);
    expect(alone.notes.join(' ')).toMatch(/names no datum: WGS 84 was taken/);
    expect((await read('degrees.asc', { crs: 'EPSG:32611' }, text)).crs).toBe('EPSG:32611');
  });
  it('in feet is asked about its levels, then laid flat: by its .prj and by its code alike', async () => {
    expect(await refusal('grid-feet.zip')).toMatch(/^levels\.doubtful its plan is in feet/);
    expect(await refusal('grid-feet.tif')).toMatch(/^levels\.doubtful/);
    const [byText, byCode] = [await read('grid-feet.zip', { levelsIn: 'm' }), await read('grid-feet.tif', { levelsIn: 'm' })];
    for (const one of [byText, byCode]) {
      expectPlane(one);
      expect(one.notes.join(' ')).toMatch(/places in NAD.*California.* were laid flat in EPSG:32610/);
    }
    const inFeet = await read('grid-feet.tif', { levelsIn: 'ft' });
    const [[x, y]] = PLACES;
    expect(levelAt(inFeet.grid, [X0 + x, Y0 + y])).toBeCloseTo(0.3048 * plane(X0 + x, Y0 + y), 2);
    expect(inFeet.notes.join(' ')).toMatch(/taken as feet, as you said/);
  });
  it('in feet is so whatever its system is called', async () => {
    const prj = prjOf('grid-utm.zip').replace('UNIT["Meter",1.0]', 'UNIT["Foot_US",0.3048006096012192]');
    expect(await refusal('odd.zip', withPrj('grid-utm.zip', prj))).toMatch(/^levels\.doubtful/);
    const { grid, notes } = await read('odd.zip', { levelsIn: 'm' }, withPrj('grid-utm.zip', prj));
    expect(grid.cellM).toBeCloseTo(5 * 0.3048, 1);
    expect(notes.join(' ')).toMatch(/places in WGS_1984_UTM_Zone_10N were laid flat/);
  });
  it('is refused where its system stands on a datum far off, or is none', async () => {
    const other = (change: (prj: string) => string): Uint8Array => withPrj('grid-utm.zip', change(prjOf('grid-utm.zip')));
    const far = other((prj) => prj.replace('WGS_1984_UTM_Zone_10N', 'of our own').replace('D_WGS_1984', 'D_North_American_1927'));
    expect(await refusal('far.zip', far)).toMatch(/^crs\.datum its system, of our own, stands on the datum "D_North_American_1927"/);
    expect(
      await refusal(
        'none.zip',
        other(() => 'hello'),
      ),
    ).toMatch(/^prj\.unknown/);
    expect(await refusal('odd.zip', other((prj) => prj.replace('WGS_1984_UTM_Zone_10N', 'own').replace('Transverse_Mercator', 'Bent_Sheet')))).toMatch(/^prj\.unknown its system, own/); // prettier-ignore
    const two = zipSync({ 'a.asc': strToU8('ncols 2'), 'b.asc': strToU8('ncols 2') });
    expect(await refusal('two.zip', two)).toMatch(/^zip\.several there are 2 grids in it: a\.asc, b\.asc/);
  });
});

describe('an ASCII grid of oblong cells', () => {
  const grid = (head: string): Uint8Array => strToU8(`ncols 3\nnrows 4\nxllcorner 100\nyllcorner 200\n${head}\n${'1 2 3\n'.repeat(4)}`);
  it('is made square', async () => {
    const { grid: made, notes } = await read('oblong.asc', {}, grid('dx 4\ndy 2'));
    expect(made).toMatchObject({ cellM: 2, ncols: 6, nrows: 4, west: 100, south: 200 });
    expect(levelAt(made, [106, 204])).toBeCloseTo(2, 6);
    expect(notes.join(' ')).toMatch(/cells of 4 by 2 m were made square/);
    expect((await read('square.asc', {}, grid('dx 2\ndy 2'))).grid.cellM).toBe(2);
    expect(await refusal('flat.asc', grid('dx 4\ndy 0'))).toMatch(/^grid\.size 3 columns, 4 rows of 4 by 0 m/);
  });
});

describe('a system asked for in plain words', () => {
  const codes = async (text: string): Promise<string[]> => (await findSystems(text)).map((s) => s.code);
  it('is found by country, zone, name, code, or where the land is', async () => {
    expect((await codes('germany 33'))[0]).toMatch(/^EPSG:(25833|32633)$/);
    expect(await codes('France lambert')).toContain('EPSG:2154');
    expect((await codes('utm zone 10N wgs'))[0]).toBe('EPSG:32610');
    expect(await codes('2154')).toEqual(['EPSG:2154']);
    expect(await codes('EPSG:32633')).toEqual(['EPSG:32633']);
    expect(await codes('36.99, -124.0')).toEqual(['EPSG:32610']);
    expect(await codes('-36.99 174.1')).toEqual(['EPSG:32760']);
    expect(await codes('metropolitaine')).toContain('EPSG:2154');
    expect([await codes(''), await codes('nowhere at all')]).toEqual([[], []]);
    expect((await codes('a')).length).toBeLessThanOrEqual(30);
  });
});
