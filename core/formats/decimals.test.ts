// One mark for decimals a file: found from all its numbers, or asked; never guessed silently.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { strToU8 } from 'fflate';
import { UserError } from '../project/index.ts';
import { statsOf } from '../terrain/index.ts';
import { type ImportHow, type ImportedTerrain, importFile, readTable } from './index.ts';

const cellsOf = (text: string, decimal?: ',' | '.'): string[][] =>
  readTable({ name: 't.csv', bytes: strToU8(text) }, decimal).rows.map((r) => [...r.cells]);
const refusal = (text: string): string => {
  try {
    return JSON.stringify(cellsOf(text));
  } catch (error) {
    const [p] = (error as UserError).problems;
    return `${p.code} line ${p.where.line ?? '-'}`;
  }
};

describe('the mark for decimals', () => {
  it.each([
    ['x;y\n1,5;2', 'x y 1.5 2'],
    ['x;y\n1.204;0,5', 'x y 1204 0.5'],
    ['x;y\n1,204;0.5', 'x y 1204 0.5'],
    ['x;y\n1.234,5;7', 'x y 1234.5 7'],
    ['x\ty\n1,234,567\t7', 'x y 1234567 7'],
    ['x;y\n131.204;131.187', 'x y 131.204 131.187'],
    ['x;y\n0,125;7', 'x y 0.125 7'],
    ['x;y\n-1,5e3;+2', 'x y -1.5e3 +2'],
    ['a;b\n2,5 h;12,4A', 'a b 2.5 h 12.4A'],
    ['day;v\n03.05.2014;1,5', 'day v 03.05.2014 1.5'],
  ])('%j', (text, cells) => {
    expect(cellsOf(text).flat().join(' ')).toBe(cells);
  });
  it('mixed or doubtful is refused with the line; the user’s word settles it', () => {
    expect(refusal('x;y\n1,204;7\n1,300;8')).toBe('number.doubtful line 2');
    expect(refusal('x;y\n1,5;7\n3;1.25')).toBe('number.mixed line 3');
    expect(cellsOf('x;y\n1,204;7', ',').flat()).toContain('1.204');
    expect(cellsOf('x;y\n1,204;7', '.').flat()).toContain('1204');
  });
  it('a survey whose levels may be a thousand times off is not taken until it is said', async () => {
    const text = ['x;y;z', ...Array.from({ length: 12 }, (_, i) => `${(i % 4) * 10};${Math.floor(i / 4) * 10};1,${204 + i}`)].join('\n');
    const read = async (how: ImportHow): Promise<[number | null, string[]]> => {
      const { grid, notes } = (await importFile({ name: 's.csv', bytes: strToU8(text) }, how)) as ImportedTerrain;
      return [Math.round((statsOf(grid).minM ?? NaN) * 10) / 10, [...notes]];
    };
    await expect(read({})).rejects.toMatchObject({ problems: [{ code: 'number.doubtful', where: { file: 's.csv', line: 2 } }] });
    expect((await read({ decimal: ',' }))[0]).toBe(1.2);
    expect((await read({ decimal: '.' }))[0]).toBeGreaterThan(1203);
  });
  it('numbers written in one style come out as they went in, or the file is refused, never another number', () => {
    const styles = [
      { decimal: '.', thousands: '' },
      { decimal: ',', thousands: '' },
      { decimal: '.', thousands: ',' },
      { decimal: ',', thousands: '.' },
    ] as const;
    const write = (v: number, s: (typeof styles)[number]): string => {
      const [whole, part] = Math.abs(v).toFixed(2).split('.');
      return `${v < 0 ? '-' : ''}${whole.replace(/\B(?=(\d{3})+$)/g, s.thousands)}${s.decimal}${part}`;
    };
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -99_999_999, max: 99_999_999 }), { minLength: 1, maxLength: 12 }),
        fc.constantFrom(...styles),
        (cents, style) => {
          const numbers = cents.map((c) => c / 100);
          const text = `a;b\n${numbers.map((v) => `${write(v, style)};1`).join('\n')}`;
          const read = cellsOf(text)
            .slice(1)
            .map((row) => Number(row[0]));
          expect(read).toEqual(numbers.map((v) => Number(v.toFixed(2))));
        },
      ),
      { seed: 9, numRuns: 300 },
    );
  });
});
