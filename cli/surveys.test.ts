// Surveys on the command line: what a table of points holds is said, and one from a peg of its own is brought to the zero of the ground.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { UserError } from '#core/project';
import { lasOf } from '../core/testing/las.ts';
import { planeProject } from '../core/testing/projects.ts';
import { COMMANDS } from './commands.ts';

const folder = mkdtempSync(join(tmpdir(), 'outlet-surveys-'));
const put = (name: string, lines: readonly string[]): string => {
  writeFileSync(join(folder, name), `${lines.join('\n')}\n`);
  return join(folder, name);
};
const run = async <T>(command: string, ...words: readonly string[]): Promise<T> => JSON.parse(await COMMANDS[command](words)) as T;
const refusal = (command: string, ...words: readonly string[]): Promise<string> =>
  run(command, ...words).then(
    () => 'taken',
    (error: unknown) => (error instanceof UserError ? error.problems.map((p) => p.code).join(' ') : String(error)),
  );

describe('a table of points', () => {
  const rows = ['0;0;100;bank', '40;0;101;bank', '0;30;102;', '40;30;103;', '20;15;90;pole'];
  const points = put('odd.csv', ['rechts;hoch;hoehe;was', ...rows]);

  it('is read by what its columns and its words are said to be', async () => {
    const said = ['--columns', 'x,y,z,code', '--codes', 'bank=line,pole=leave'];
    const { minM, warnings } = await run<{ minM: number; warnings: string[] }>('import', points, ...said);
    expect(minM).toBeGreaterThan(100);
    expect(warnings.join(' ')).toMatch(/1 point that is no ground was left out: pole\..*No triangle crosses its 1 line/);
    expect(await refusal('import', points)).toBe('csv.columns');
    const bad = [['--columns', 'x,y,up'], ['--columns', 'x,y,z,code', '--codes', 'bank'], ['--columns', 'x,y,z,code', '--codes', 'bank=wall'], ['--columns', 'x,x,z,code']]; // prettier-ignore
    expect(await Promise.all(bad.map((words) => refusal('import', points, ...words)))).toEqual(['cli.columns', 'cli.codes', 'cli.codes', 'csv.columns']); // prettier-ignore
  });
});

describe('a survey laid into the ground by marks', () => {
  const project = join(folder, 'plane.json');
  writeFileSync(project, JSON.stringify(planeProject()));
  const survey = put('yard.csv', ['x,y,z', ...Array.from({ length: 36 }, (_, k) => `${30 + 4 * (k % 6)},${30 + 4 * Math.floor(k / 6)},7`)]);
  const marks = put('marks.txt', ['Well 30 30 12.010 7', 'Gate 46 30 11.990 7']);

  it('is raised by what they differ by in the mean, with what is left over at each', async () => {
    const laid = await run<{ shiftM: number; marks: { spreadM: number; held: { name: string; offM: number }[] } }>('patch', project, survey, '--marks', marks); // prettier-ignore
    expect(laid.shiftM).toBeCloseTo(5, 9);
    expect(laid.marks.held.map((h) => [h.name, Number(h.offM.toFixed(6))])).toEqual([['Well', 0.01], ['Gate', -0.01]]); // prettier-ignore
    expect(await refusal('patch', project, survey, '--marks', marks, '--shift', '2')).toBe('cli.shift');
    expect(await refusal('patch', project, survey, '--marks', put('bad.txt', ['Well 30']))).toBe('marks.line');
    expect(await refusal('patch', project, survey, '--marks', put('off.txt', ['Well -900 -900 12']))).toBe('marks.none');
  });
});

it('a point cloud is ground; a packed one says what to do', async () => {
  const points = Array.from({ length: 100 }, (_, k) => ({
    x: k % 10,
    y: Math.floor(k / 10),
    z: 50 + (k % 10) / 10,
    kind: k % 9 === 4 ? 6 : 2,
  }));
  const bytes = lasOf({ minor: 2, format: 0, points });
  writeFileSync(join(folder, 'hill.las'), bytes);
  expect(await run('import', join(folder, 'hill.las'))).toMatchObject({
    kind: 'terrain',
    crs: null,
    minM: expect.closeTo(50, 0) as unknown as number,
  });
  bytes[104] = 0x80;
  writeFileSync(join(folder, 'hill.laz'), bytes);
  expect(await refusal('import', join(folder, 'hill.laz'))).toBe('las.packed');
});
