// Tables of points as people write them: what their columns hold, and what words beside the points make of them.
import { describe, expect, it } from '@jest/globals';
import type { UserError } from '../project/index.ts';
import { levelAt } from '../terrain/index.ts';
import { type Imported, type ImportHow, type ImportedTerrain, importFile, pointTable, readMarks } from './index.ts';
import { codesOf, linesIn } from './point-codes.ts';

const file = (name: string, lines: readonly string[]): { name: string; bytes: Uint8Array } => ({
  name,
  bytes: new TextEncoder().encode(`${lines.join('\n')}\n`),
});
const holds = (lines: readonly string[], decimal?: ',' | '.'): string =>
  pointTable(file('points.txt', lines), decimal).columns.map((c) => c.holds).join(' '); // prettier-ignore

async function read(lines: readonly string[], how: ImportHow = {}): Promise<ImportedTerrain> {
  const imported: Imported = await importFile(file('points.csv', lines), how);
  if (imported.kind !== 'terrain') throw new Error(`it is ${imported.kind}`);
  return imported;
}

describe('what the columns of a table of points hold', () => {
  it.each([
    ['names people use', ['E,N,Elev,Code', '500,600,12.5,TOE', '510,600,12.7,TOE', '510,610,13,top'], 'x y z code'],
    ['degrees in any order', ['ele;lon;lat', '310;11.5;48.1', '312;11.6;48.2', '309;11.7;48.3'], 'z lon lat'],
    ['no header', ['500 600 12.5', '510 600 12.7', '510 610 13.1'], 'x y z'],
    ['no header, counted, words behind', ['1,500,600,12.5,toe', '2,510,600,12.7,toe', '3,510,610,13,bank'], 'none x y z code'],
    ['names nobody here knows', ['punkt;rechts;hoch;hoehe;was', 'P1;500;600;12.5;zaun', 'P2;510;600;12.7;zaun', 'P3;510;610;13;baum'], 'none x y z code'],
    ['a remark of its own for each point is no code', ['x,y,z,seen', '0,0,1,by the gate', '9,0,2,below it', '0,9,3,far off'], 'x y z none'],
  ] as const)('%s', (_, lines, found) => expect(holds(lines)).toBe(found)); // prettier-ignore

  it('a comma may be for decimals', () => {
    expect(holds(['x;y;z', '500,5;600,25;12,5', '510,5;600,25;12,75', '510,5;610,5;13,125'])).toBe('x y z');
  });

  it('refuses what has no three columns of numbers, and says so', () => {
    expect(() => holds(['name,level', 'a,1', 'b,2', 'c,3'])).toThrow(/fewer than three of its columns are numbers/);
  });
});

describe('what words make of points', () => {
  it('a line by its word, a line a run where points go on in runs, an edge, what stands above ground; else single levels', () => {
    const words = [
      'TOE',
      'TOE',
      'TOE',
      'top 1',
      'top 1',
      'TOE',
      'toe',
      'toe',
      'EDGE',
      '',
      'limit',
      'limit',
      'limit',
      'roof',
      'fence',
      'bed',
    ];
    expect(codesOf(words).map(({ code, count, runs, likely }) => [code, count, runs, likely])).toEqual([
      ['TOE', 6, 2, 'runs'],
      ['top 1', 2, 1, 'line'],
      // One point is no line, two are no ring.
      ['EDGE', 1, 1, 'spot'],
      ['limit', 3, 1, 'outline'],
      ['roof', 1, 1, 'leave'],
      ['fence', 1, 1, 'spot'],
      ['bed', 1, 1, 'spot'],
    ]);
    expect(codesOf(['limit', 'limit']).map((c) => c.likely)).toEqual(['spot']);
    // Five points in two runs are fewer than three a run: one line through all.
    expect(codesOf(['toe', 'toe', 'x', 'toe', 'toe', 'toe'])[0].likely).toBe('line');
    expect(codesOf(['topsoil', 'topsoil'])[0].likely).toBe('spot');
    // On a roof or along a road, of a ditch or of a pipe: nobody knows.
    expect(codesOf(['gutter', 'gutter', 'invert', 'invert']).map((c) => c.likely)).toEqual(['spot', 'spot']);
  });

  it('lines follow the order of the file, through all points of a code or a run of them', () => {
    const words = ['A', 'b', 'a', 'c', 'c', 'b', 'c', 'c', '', 'd', 'd', 'd'];
    expect(linesIn(words, { a: 'line', B: 'spot', c: 'runs', d: 'outline' })).toEqual({ lines: [[0, 2], [3, 4], [6, 7]], rings: [[9, 10, 11]] }); // prettier-ignore
    expect(linesIn(words, { b: 'outline', a: 'leave' })).toEqual({ lines: [], rings: [] });
  });
});

describe('ground of points with codes', () => {
  // A ditch a metre deep with a bed at 9 m, read down its bed every 25 m and zigzag along its banks; a roof, and the edge of what was read.
  const bed = [0, 25, 50, 75, 100].map((x) => `${x},10,9,BED`);
  const banks = Array.from({ length: 41 }, (_, k) => `${2.5 * k},${20 * (k % 2)},10,spot`);
  const near = Array.from({ length: 20 }, (_, k) => `${5 * k + 2.5},${k % 2 === 0 ? 8 : 12},9.2,spot`);
  const edge = ['10,3,9.7,EXTENT', '90,3,9.7,EXTENT', '90,17,9.7,EXTENT', '10,17,9.7,EXTENT'];
  const lines = ['x,y,z,code', ...banks, ...bed, '50,4,14,ROOF', ...near, ...edge];

  it('breaks along its lines, ends at its edge, and leaves out what is no ground', async () => {
    const { grid, notes } = await read(lines);
    const said = notes.join(' ');
    expect(said).toMatch(/1 point that is no ground was left out: ROOF/);
    expect(said).toMatch(/70 points were joined.*No triangle crosses its 1 line: \d+ places were put along them.*It ends at the edge that was read/);
    for (let x = 12; x <= 88; x += 0.5) expect(levelAt(grid, [x, 10])).toBeLessThan(9.06);
    expect([levelAt(grid, [5, 10]), levelAt(grid, [50, 1])]).toEqual([NaN, NaN]);
    // Everything as single levels: banks are joined across the bed, ground goes on to the rim, and a roof stands in it.
    const plain = (await read(lines, { points: { codes: { bed: 'spot', extent: 'spot', roof: 'spot' } } })).grid;
    const along = Array.from({ length: 150 }, (_, k) => levelAt(plain, [12 + k / 2, 10]));
    expect(Math.max(...along)).toBeGreaterThan(9.1);
    expect(levelAt(plain, [5, 10])).toBeGreaterThan(8.9);
    expect(levelAt(plain, [50, 4])).toBeGreaterThan(11);
  }); // prettier-ignore

  it('along a line it is known as at its points; what it strays between them is told by what was read alone', async () => {
    const { known } = await read(lines);
    const plain = (await read(lines, { points: { codes: { bed: 'spot', extent: 'spot' } } })).known;
    const away = (k: typeof known): number => (k?.away ? levelAt(k.away, [62.5, 10]) : NaN);
    expect(away(known)).toBeLessThan(1.5);
    expect(away(plain)).toBeGreaterThan(2.4);
    expect(known?.growsBy).toBe(plain?.growsBy);
  });

  it('columns are taken as they are said to be, levels in feet turned into metres', async () => {
    const odd = ['hoch;hoehe;rechts', '0;100;0', '0;100;40', '30;110;0', '30;110;40'];
    const { grid } = await read(odd, { points: { columns: ['y', 'z', 'x'] }, levelsIn: 'ft' });
    // A plane that rises 10 ft over 30 m northwards.
    expect(levelAt(grid, [20, 15])).toBeCloseTo(105 * 0.3048, 6);
    await expect(read(odd, {})).rejects.toThrow(/its header is/);
  });

  it.each([
    ['a code that is not there', { codes: { KERB: 'line' } }, /no point of it bears the code "kerb".*Say what its codes are: spot, BED, ROOF, EXTENT/s],
    ['codes where no column holds any', { columns: ['x', 'y', 'z', 'none'], codes: { bed: 'line' } }, /none of its columns holds words/],
    ['two columns of levels', { columns: ['x', 'z', 'z', 'code'] }, /its columns are said to be x, z, z, code/],
    ['no level', { columns: ['x', 'y', 'none', 'code'] }, /One column each holds x, y and z/],
    ['an edge that goes round nothing', { codes: { bed: 'outline', extent: 'spot' } }, /the edge of the survey holds no whole cell/],
  ] as const)('refuses %s, in words', async (_, points, says) => {
    const [problem] = await read(lines, { points }).then(() => [], (error: UserError) => error.problems);
    expect(`${problem.what}. ${problem.do}`).toMatch(says);
  }); // prettier-ignore

  it('asks before it guesses, where that is wanted: for words that change the ground, and columns without usual names', async () => {
    const asked = async (rows: readonly string[]): Promise<string> => {
      try {
        return (await read(rows, { asks: true })).kind;
      } catch (error) {
        return (error as { problems: readonly { code: string }[] }).problems[0].code;
      }
    };
    const grid = ['0,0,1', '40,0,2', '0,30,3', '40,30,4'];
    expect(await asked(lines)).toBe('points.doubtful');
    expect(await asked(grid)).toBe('points.doubtful');
    expect(await asked(['rechts,hoch,hoehe', ...grid])).toBe('points.doubtful');
    expect(await asked(['x,y,hoehe', ...grid])).toBe('points.doubtful');
    expect(await asked(['x,y,z', ...grid])).toBe('terrain');
    expect(await asked(['x,y,z,code', ...grid.map((row) => `${row},fence`)])).toBe('terrain');
    expect(await asked(['a,b', '1,2', '3,4'])).toBe('csv.columns');
  });
});

describe('marks known in two grounds, as typed', () => {
  it('a name, where, and the levels that are known; spaces, commas or tabs; a first line of words', () => {
    expect(readMarks('name, east, north, level\nBM1, 500.5, 600, 12.34\nwell head,510,610,13,2.5\n520,620\n')).toEqual([
      { name: 'BM1', at: [500.5, 600], groundM: 12.34, surveyM: null },
      { name: 'well head', at: [510, 610], groundM: 13, surveyM: 2.5 },
      { name: 'Mark 4', at: [520, 620], groundM: null, surveyM: null },
    ]);
    expect(readMarks('A 1 2 3\nB 4 5 6').map((m) => m.name)).toEqual(['A', 'B']);
    // A level left empty stays so: the next is not taken for it.
    expect(readMarks('A,1,2,,3\nB,4,5,6,').map((m) => [m.groundM, m.surveyM])).toEqual([[null, 3], [6, null]]); // prettier-ignore
  });

  it.each(['BM1,500', 'BM1,500,600,12,13,14', 'BM1,500,x', 'BM1,,600,12', 'name,east,north'])('refuses "%s"', (text) => {
    expect(() => readMarks(text)).toThrow(/it is no mark|fewer/);
  });
});
