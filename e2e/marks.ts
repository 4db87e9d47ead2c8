// A survey brought to the zero of the ground by marks known in both.
import { expect } from '@jest/globals';
import type { Project } from '#core/project';
import { serious } from './axe.ts';
import type { Visitor } from './driver.ts';
import { named } from './named.ts';

/** Types a line into the box of marks and has the survey held against them. */
async function hold(v: Visitor, lines: readonly string[]): Promise<void> {
  await v.page.$eval(named('Marks known in both, one a line', 'textbox'), (e) => {
    (e as HTMLTextAreaElement).focus();
    (e as HTMLTextAreaElement).select();
  });
  await v.page.keyboard.type(lines.join('\n'));
  await v.press('Hold the survey against them');
}

/** On a project that has ground: the survey `yard.csv` is raised by its marks, one of them wrong at first; undone, and another time left. */
export async function byMarks(v: Visitor, csv: string, before: Project['terrain']): Promise<void> {
  const rows = csv
    .split('\n')
    .slice(1, 43)
    .map((row) => row.split(',').map(Number));
  const at = (k: number, offM: number): string => `BM${k} ${rows[k][0]} ${rows[k][1]} ${(rows[k][2] + 83 + offM).toFixed(3)} ${rows[k][2]}`;
  await v.drop('yard.csv', new TextEncoder().encode(csv));
  await v.choose('Its levels', 'by marks known in both');
  await hold(v, [at(8, 0), 'BM9 431300']);
  await v.reads('[role="dialog"]', /The marks cannot be used.*line 2.*it is no mark/s);
  await hold(v, [at(8, 0.004), at(12, -0.004), at(20, 0.002), at(30, 0.5)]);
  await v.reads('[role="dialog"]', /BM30 agrees with none of the others/);
  expect(await serious(v)).toEqual([]);
  await hold(v, [at(8, 0.004), at(12, -0.004), at(20, 0)]);
  await v.reads(
    '[role="dialog"]',
    /raised by\s83\.00 m, the mean of 3 marks; they lie within 4\smm of it in two of three\. Then it lies \d\.\d\d m above the ground there is.*BM8.*4\smm/s,
  );
  await v.press('Lay it into the ground');
  await v.reads('body', /yard\.csv is laid into the ground, raised by 83\.00 m to 3 marks known in both/);
  await v.press('Undo');
  await v.until(() => v.kept(), (p) => JSON.stringify(p.terrain) === JSON.stringify(before)); // prettier-ignore
  // Left, nothing has changed.
  await v.drop('yard.csv', new TextEncoder().encode(csv));
  await v.reads('[role="dialog"]', /Lay it into the ground/);
  await v.press('Leave it');
  expect((await v.kept()).terrain).toEqual(before);
}
