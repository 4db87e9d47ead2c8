// A notebook of staff readings: at contours with nothing else.
import { describe, expect, it } from '@jest/globals';
import { strToU8 } from 'fflate';
import { UserError } from '../project/index.ts';
import { levelAt } from '../terrain/index.ts';
import type { LevelBook } from '../survey/index.ts';
import { type ImportedTerrain, importFile, levelBookCsv, readBook } from './index.ts';

/** A plane that falls 4 % to the south and 1 % to the east. */
const ground = (x: number, y: number): number => 100 + 0.04 * y - 0.01 * x;
const places = Array.from({ length: 30 }, (_, k) => [8 * (k % 6), 8 * Math.floor(k / 6)] as const);

/** Thirty readings from two set-ups, back to the peg it began at; each set-up reads so much too low [mm]. */
function book(lowMm = 0, header = 'point;x;y;BS;IS;FS;level'): string {
  const [first, second] = [103.5, 104.2];
  const read = (hc: number, x: number, y: number): string => (hc - ground(x, y)).toFixed(4);
  const low = lowMm / 1000;
  const line = (...cells: readonly (string | number)[]): string => cells.join(';');
  return [
    header,
    line('peg', '', '', (first - 100).toFixed(4), '', '', '100.000'),
    ...places.slice(0, 15).map(([x, y], k) => line(`a${k}`, x, y, '', read(first, x, y), '', '')),
    line('turn', 20, 16, (second - ground(20, 16)).toFixed(4), '', (first - ground(20, 16) + low).toFixed(4), ''),
    ...places.slice(15).map(([x, y], k) => line(`b${k}`, x, y, '', read(second, x, y), '', '')),
    line('peg', '', '', '', '', (second - 100 + low).toFixed(4), '100'),
  ].join('\n');
}
const read = async (text: string, how = {}): Promise<ImportedTerrain> =>
  (await importFile({ name: 'book.csv', bytes: strToU8(text) }, how)) as ImportedTerrain;
const refusal = async (text: string): Promise<string> => {
  const error: unknown = await read(text).then(
    () => null,
    (e: unknown) => e,
  );
  if (!(error instanceof UserError)) throw new Error('not refused');
  return error.problems.map((p) => `${p.code} ${p.where.line ?? ''} ${String(p.what)}`).join('; ');
};

describe('a level book as a file', () => {
  it('makes the ground it was read on, says how it closes, and spreads what it is off', async () => {
    for (const lowMm of [0, 2]) {
      const { grid, crs, notes, kind } = await read(book(lowMm));
      expect([kind, crs]).toEqual(['terrain', null]);
      // Spread over the set-ups, each reading is off by at most what its own set-up was.
      for (const [x, y] of [[15, 13], [25, 18], [22, 20]] as const) expect(Math.abs(levelAt(grid, [x, y]) - ground(x, y))).toBeLessThan(0.0005 + lowMm / 1000); // prettier-ignore
      expect(notes.join(' ')).toMatch(
        new RegExp(
          `2 set-ups: .*; rises less falls -?\\d\\.\\d{3} m\\. It closes ${2 * lowMm} mm off, of 7 mm allowed, spread over the set-ups.*31 points`,
        ),
      );
    }
    expect((await read(book(), { crs: 'EPSG:32633' })).crs).toBe('EPSG:32633');
    const open = book().split('\n').slice(0, -1).join('\n');
    expect((await read(open)).notes.join(' ')).toMatch(/comes back to no known level/);
    // Decimal commas and other names of its columns are the same book.
    const commas = book(0, 'Station;E;N;Back sight;Inter sight;Fore sight;Known level').replaceAll('.', ',');
    expect(levelAt((await read(commas)).grid, [15, 13])).toBeCloseTo(ground(15, 13), 3);
  });
  it('is refused with its line where it cannot be reduced, and as a whole where it closes too far off', async () => {
    const lines = book().split('\n');
    const with_ = (k: number, line: string): string => lines.map((l, i) => (i === k ? line : l)).join('\n');
    expect(await refusal(book(4))).toMatch(/^book\.closes 34 it closes 8 mm too low; over 2 set-ups 7 mm would do/);
    expect(await refusal(with_(1, 'peg;;;1.5;;;'))).toMatch(/^book\.line 2 the book begins at no known level/);
    expect(await refusal(with_(17, 'turn;20;16;3.36;;;'))).toMatch(/^book\.line 18 the instrument moved to it without a fore-sight/);
    expect(await refusal(with_(4, 'a2;16;0;;one;;'))).toMatch(/^csv\.number 5 "one" is no number/);
    expect(await refusal('point;BS;IS;FS;level\npeg;1;;;100\na;;1;;')).toMatch(/^book\.places 1/);
    expect(await refusal('x;y;BS;IS;FS;level\n;;1;;;100\n1;1;;1;;')).toMatch(/^survey\.few .*1 of its readings/);
    expect(await refusal('x;y;BS;IS;FS;level\n;;1;;;100')).toMatch(/^book\.few/);
  });
  it('by a water tube or an A-frame makes the same ground, and a book written out reads as it was', async () => {
    const at = places.slice(0, 18);
    const legs = at.map(([x, y], k) => ground(x, y) - (k === 0 ? 100 : ground(...at[k - 1])));
    const lines = (of: (riseM: number) => object): LevelBook['lines'] => [
      { name: 'sill', knownM: 100 },
      ...at.map(([p, q], k) => ({ name: `p${k}`, p, q, ...of(legs[k]) })),
      { name: 'sill', ...of(100 - ground(...at[17])), knownM: 100, note: 'back, "dry"' },
    ];
    const shell = { id: 'b', name: 'Yard', placing: 'xy', side: 'right' } as const;
    const books: LevelBook[] = [
      { ...shell, tool: 'water-tube', lines: lines((riseM) => ({ backM: 1, foreM: 1 - riseM })) },
      { ...shell, tool: 'a-frame', lines: lines((riseM) => ({ riseM, steps: 3 })) },
    ];
    for (const one of books) {
      const csv = levelBookCsv(one);
      expect(readBook({ name: 'yard.csv', bytes: strToU8(csv) })).toMatchObject({ tool: one.tool, lines: one.lines });
      const { grid, notes } = await read(csv);
      expect(levelAt(grid, [15, 10])).toBeCloseTo(ground(15, 10), 3);
      expect(notes.join(' ')).toMatch(one.tool === 'a-frame' ? /57 set-ups: rises.*0 mm off, of 75 mm.*known to 38 mm at worst/ : /19 set-ups: behind.*of 22 mm.*known to 11 mm at worst/);
    }
    // Places measured by tape go out as coordinates.
    const tapes: LevelBook = { ...books[1], placing: 'distances', baseM: [[0, 0], [10, 0]], side: 'left', lines: [{ name: 'A', knownM: 1 }, { name: 'b', p: 6, q: 8, riseM: 0.2 }] };
    expect(levelBookCsv(tapes).split('\n')[2]).toBe('b,,3.6,4.8,0.2,,,');
    expect(() => readBook({ name: 'x.csv', bytes: strToU8('a,b\n1,2') })).toThrow(/its first line is "a, b"/);
    expect(await refusal('name,x,y,rise,level\na,,,,100\nb,1,1,0.1,')).toMatch(/^book\.line 3 it is not told over how many steps/);
    // As many lines as a book has, and one more.
    const long = (count: number): string => ['x,y,bs,is,fs,level', ',,1.5,,,100', ...Array.from({ length: count - 1 }, (_, k) => `${k % 50},${Math.floor(k / 50)},,1.2,,`)].join('\n');
    expect((await read(long(2000))).kind).toBe('terrain');
    expect(await refusal(long(2001))).toMatch(/^book\.long {2}it has 2001 lines/);
    // Each step could be read, all of them lead off the earth.
    const steep = ['name,x,y,rise,steps,level', 'a,,,,,8950', 'b,0,0,40,9,', 'c,9,0,40,9,', 'd,0,9,1,9,'];
    expect(await refusal(steep.join('\n'))).toMatch(/^book\.line 4 it comes to a level of 9030/);
    // A name a spreadsheet would run is written as text.
    expect(levelBookCsv({ ...tapes, lines: [{ name: '=1+1', knownM: 1, note: '@x' }] }).split('\n')[1]).toBe("'=1+1,,,,,,1,'@x");
    expect(await refusal('name,x,y,behind,ahead,level\na,,,,,100\nb,1,1,1,,')).toMatch(/^book\.line 3 one end of the tube/);
    expect(await refusal('name,x,y,rise,steps,level\na,,,,,100\nb,1,,0.1,2,')).toMatch(/^book\.line 3 of its place one figure/);
  }); // prettier-ignore
});
