import { describe, expect, it } from '@jest/globals';
import { UserError } from '../project/index.ts';
import { readReadings } from './index.ts';

const read = (text: string) => readReadings({ name: 'ring.csv', bytes: new TextEncoder().encode(text) });
const problem = (text: string) => {
  try {
    read(text);
  } catch (error) {
    if (error instanceof UserError) return error.problems[0];
    throw error;
  }
  throw new Error('it was read');
};

describe('readings of a test', () => {
  it('are minutes, depth and refill, with or without a header', () => {
    const expected = [
      { min: 0, mm: 100 },
      { min: 10, mm: 86, refilledMm: 100 },
      { min: 25, mm: 88.5 },
    ];
    expect(read('0,100\n10,86,100\n25,88.5')).toEqual(expected);
    expect(read('time (min);depth mm;refilled\n0;100;\n10;86;100\n25;88,5;\n')).toEqual(expected);
  });
  it('are clock times, past midnight too, in centimetres or inches', () => {
    expect(read('time,cm\n23:50,10\n0:05,8.6').map((r) => [r.min, Number(r.mm.toFixed(6))])).toEqual([
      [0, 100],
      [15, 86],
    ]);
    expect(read('clock\tin\n9:00:30\t4\n9:10\t3').map((r) => [r.min, r.mm])).toEqual([
      [0, 101.6],
      [9.5, 76.19999999999999],
    ]);
  });
  it.each([
    ['file.empty', '  \n', undefined],
    ['readings.none', 'time,depth', undefined],
    ['readings.columns', '0,100\n10', 2],
    ['readings.time', '0,100\nten,90', 2],
    ['readings.time', '9:00,100\n25:10,90', 2],
    ['readings.depth', 'min,mm\n0,100\n10,wet', 3],
    ['readings.refill', '0,100\n10,90,full', 2],
  ])('%s is told with its line', (code, text, line) => {
    const told = problem(text);
    expect(told.code).toBe(code);
    if (line !== undefined) expect(told.where).toMatchObject({ file: 'ring.csv', line });
    expect(told.do.length).toBeGreaterThan(8);
  });
});
