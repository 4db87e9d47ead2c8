// What stands for no data, or cannot be ground, is never ground: in every reader of terrain alike, and always told.
import { describe, expect, it } from '@jest/globals';
import { strToU8 } from 'fflate';
import { UserError, gridFromBytes, gridToBytes } from '../project/index.ts';
import { readProject } from '../project/guard.ts';
import { type Grid, statsOf } from '../terrain/index.ts';
import { gridOf } from '../testing/grids.ts';
import { planeProject } from '../testing/projects.ts';
import { PLACED, tiffOf } from '../testing/tiff.ts';
import { registry } from '../works/index.ts';
import { type ImportedTerrain, importFile } from './index.ts';

const CELLS = 12;
/** A hillside from 120 to 131 m, some of its cells given other levels. */
const levels = (odd: Readonly<Record<number, number>> = {}): number[] =>
  Array.from({ length: CELLS * CELLS }, (_, i) => odd[i] ?? 120 + (i % CELLS) + i / 1000);
const asc = (list: readonly (number | string)[], noData = 'NODATA_value -9999'): string =>
  ['ncols 12', 'nrows 12', 'xllcorner 100', 'yllcorner 200', 'cellsize 2', noData, list.join(' '), ''].join('\n');
const read = async (name: string, data: string | Uint8Array): Promise<ImportedTerrain> =>
  (await importFile({ name, bytes: typeof data === 'string' ? strToU8(data) : data })) as ImportedTerrain;
const refusal = (name: string, data: string): Promise<string> =>
  read(name, data).then(
    () => 'taken',
    (e: UserError) => `${e.problems[0].code} line ${e.problems[0].where.line ?? '-'}`,
  );
const ground = (grid: Grid): [lowest: number, highest: number, missing: number] => {
  const { minM, maxM, noData } = statsOf(grid);
  return [Math.round(minM ?? NaN), Math.round(maxM ?? NaN), noData];
};

describe('no data', () => {
  it('is known by its mark written in fewer digits than the header, or in single precision', async () => {
    for (const [mark, cell] of [
      ['-3.40282346638529e+38', '-3.402823e+38'],
      ['-3.4028234663852886e+38', '-3.40282347e38'],
      ['-99.99', '-99.9900000001'],
      ['0.1', String(Math.fround(0.1))],
    ]) {
      const { grid } = await read('a.asc', asc([cell, ...levels().slice(1)], `NODATA_value ${mark}`));
      expect(ground(grid)).toEqual([120, 131, 1]);
    }
  });
  it.each([-32768, -32767, -9999, 1e30, -3.4e38, 1e308, 99999])(
    '%s beside a header that says something else is none, and is told',
    async (odd) => {
      const { grid, notes } = await read('a.asc', asc(levels({ 5: odd, 40: odd }), 'NODATA_value -1'));
      expect(ground(grid)).toEqual([120, 131, 2]);
      expect(notes.join(' ')).toMatch(/2 cells .*beyond any ground on earth: taken as no data/);
      // The same in a project's own terrain, and in an asset kept from before.
      const inline = planeProject({
        terrain: { kind: 'grid', ncols: CELLS, nrows: CELLS, west: 0, south: 0, cellM: 2, rows: 'north-first', z: levels({ 5: odd }) },
      });
      expect(() => readProject(JSON.parse(JSON.stringify(inline)), registry)).toThrow(
        /level 5 of the terrain is .*, not a level from -500 to 9000 m/,
      );
      const kept = gridFromBytes(gridToBytes(gridOf((x) => (x < 2 ? odd : 120), { cells: 4, cellM: 2 })));
      // Beside a mark this large single precision has lost the others: then none of it is ground.
      expect(statsOf(kept).noData).toBe(odd < -1e9 ? 16 : 4);
    },
  );
  it('a filling far from all other levels is none; a peak with slopes, a pit and a cliff of less are ground', async () => {
    const zeros = levels(Object.fromEntries(Array.from({ length: 30 }, (_, i) => [i, 0])));
    const filled = await read('a.asc', asc(zeros));
    expect(ground(filled.grid)[2]).toBe(30);
    expect(filled.notes.join(' ')).toMatch(/30 cells with exactly 0 m, far from all other levels/);
    const spike = await read('a.asc', asc(levels({ 70: 412 })));
    expect(ground(spike.grid)).toEqual([120, 131, 1]);
    const peak = levels({ 70: 260, 71: 220, 69: 210, 58: 190, 82: 175, 57: 150, 59: 160 });
    expect(ground((await read('a.asc', asc(peak))).grid)).toEqual([120, 260, 0]);
    const quarry = levels(Object.fromEntries(Array.from({ length: 30 }, (_, i) => [i, 75])));
    expect(ground((await read('a.asc', asc(quarry))).grid)).toEqual([75, 131, 0]);
  });
  it('ground may lie from -500 to 9000 m, and not a step beyond', () => {
    const inline = (level: number): unknown =>
      JSON.parse(
        JSON.stringify(
          planeProject({
            terrain: {
              kind: 'grid',
              ncols: CELLS,
              nrows: CELLS,
              west: 0,
              south: 0,
              cellM: 2,
              rows: 'north-first',
              z: levels({ 5: level }),
            },
          }),
        ),
      );
    for (const level of [-500, 9000]) expect(() => readProject(inline(level), registry)).not.toThrow();
    for (const level of [-500.1, 9000.1]) expect(() => readProject(inline(level), registry)).toThrow(/not a level from -500 to 9000 m/);
  });
  it('levels mostly beyond the earth are refused: they are in another unit', async () => {
    expect(await refusal('a.asc', asc(levels().map((v) => 1000 * v)))).toBe('terrain.levels line -');
    expect(await refusal('a.asc', asc(levels().map(() => -9999)))).toBe('terrain.no-data line -');
    expect(await refusal('a.asc', asc(levels().map(() => 1e30)))).toBe('terrain.no-data line -');
  });
});

describe('a GeoTIFF of packed numbers', () => {
  const packed = Int16Array.from({ length: 16 }, (_, i) => (i === 3 ? -32768 : 1000 + i));
  const metadata = (scale: string, offset: string): string =>
    `<GDALMetadata><Item name="SCALE" sample="0" role="scale">${scale}</Item><Item name="OFFSET" sample="0" role="offset">${offset}</Item></GDALMetadata>`;
  it('is read by its scale and offset, its mark being one of the packed numbers', async () => {
    const { grid, notes } = await read(
      'p.tif',
      tiffOf(packed, 4, [...PLACED, { id: 42112, type: 2, values: metadata('0.1', '20') }, { id: 42113, type: 2, values: '-32768' }]),
    );
    // 1000·0.1 + 20 = 120.0 m to 1015·0.1 + 20 = 121.5 m.
    const { minM, maxM, noData } = statsOf(grid);
    expect([minM, maxM, noData]).toEqual([expect.closeTo(120, 4), expect.closeTo(121.5, 4), 1]);
    expect(notes.join(' ')).toMatch(/times 0\.1, plus 20/);
  });
  it('without them is read as it stands, its unmarked -32768 told and taken as none', async () => {
    const { grid, notes } = await read('p.tif', tiffOf(packed, 4, PLACED));
    expect(ground(grid)).toEqual([1000, 1015, 1]);
    expect(notes.join(' ')).toMatch(/One cell with -32768 m/);
  });
});

describe('survey points', () => {
  const csv = (change: Readonly<Record<number, string>> = {}): string =>
    ['x,y,z', ...Array.from({ length: 30 }, (_, i) => change[i] ?? `${(i % 6) * 5},${Math.floor(i / 6) * 5},${50 + i / 10}`), ''].join(
      '\n',
    );
  it('leave out marks for no level and say so; a level far from the rest is a slip, refused with its line', async () => {
    const { notes } = await read('s.csv', csv({ 7: '5,5,-9999' }));
    expect(notes.join(' ')).toMatch(/1 points with -9999, a mark for no level, were left out/);
    expect(await refusal('s.csv', csv({ 7: '5,5,507' }))).toBe('survey.level line 9');
    expect(await refusal('s.csv', csv({ 7: '5,5,50700' }))).toBe('survey.level line 9');
  });
  it('two at one place with different levels are told, with their lines', async () => {
    const { notes, grid } = await read('s.csv', csv({ 9: '10,5,51.4', 8: '10,5,50.8' }));
    expect(notes.join(' ')).toMatch(
      /1 point at the place of another with a different level \(lines 10 and 11: 50\.8 and 51\.4 m\): the mean was taken/,
    );
    expect(statsOf(grid).maxM).toBeLessThan(54);
    expect((await read('s.csv', csv({ 9: '10,5,50.8', 8: '10,5,50.8' }))).notes.join(' ')).not.toMatch(/at the place of another/);
  });
});
