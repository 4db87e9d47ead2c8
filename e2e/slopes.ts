import { describe, expect, it } from '@jest/globals';
import type { Point } from '#core/geometry';
import type { CheckDams } from '#core/works';
import { bedOf } from '../demo/dry-fork-ground.ts';
import { type Bench, Visitor } from './driver.ts';
import { serious } from './views.ts';

const WORKS = '/p/dry-fork/works';
const [W, S] = [436000, 4618000];
const here = ([x, y]: readonly [number, number]): Point => [W + x, S + y];

export function slopes(open: () => Bench): void {
  describe('check dams in a gully', () => {
    it('are drawn down the bed, changed one by one, pasted as measured, spaced anew by keyboard, taken away; undo takes each back', async () => {
      const v = await Visitor.arrive(open(), WORKS);
      await v.verdict(/Upper gully, 13 in a row, pass on at most/);
      await v.reads('aside', /Lay its stone back from the apron up/);
      await v.menu('Draw another work', 'Check dams, crest level with toe');
      const bed = bedOf('main', [140, 96]);
      await v.draw([bed[0], bed[3], bed[6], bed[bed.length - 1]].map(here));
      await v.reads('aside', /Check dams 3/);
      const series = async (): Promise<CheckDams | undefined> =>
        ((await v.kept()).options[0].works as readonly CheckDams[]).find((w) => w.name === 'Check dams 3');
      const dams = async (): Promise<CheckDams['dams']> => (await series())?.dams ?? [];
      const drawn = await dams();
      expect(drawn.length).toBeGreaterThan(2);
      expect(await v.reads('aside', /Litres held for each hour, a fill\s+\d/)).toMatch(/Channels measured on the ground/);
      await v.choose('Change dam', 'Dam 2');
      await v.type('Height', '0.45');
      expect(
        await v.until(
          async () => (await dams())[1]?.heightM,
          (h) => h === 0.45,
        ),
      ).toBe(0.45);
      // What cannot be is refused, and leaves all as it was.
      const rows = 'Dams as measured, in metres: at, height, bed, between banks, depth, silted %, lost %, stone near, note';
      await v.type(rows, '6,0.5,1.4');
      await v.press('Take them in');
      await v.reads('body', /row 1: column 4 \(between banks\) is empty/);
      expect((await dams())[1].heightM).toBe(0.45);
      const five = [5, 13, 21, 29, 37].map((at, k) => `${at},0.5,${(1.4 + 0.1 * k).toFixed(1)},4.5,1.6,,,,peg ${k + 1}`).join('\n');
      await v.type(rows, five);
      await v.press('Take them in');
      const pasted = await v.until(dams, (d) => d.length === 5);
      expect(pasted.map((d) => d.atM)).toEqual([5, 13, 21, 29, 37]);
      expect(pasted[4]).toMatchObject({ bedWidthM: 1.8, isMeasured: true, note: 'peg 5' });
      // By keyboard: the button is reached and pressed without the mouse.
      await v.page.$$eval('button', (all) => all.find((b) => b.textContent === 'Space by the gully rule')?.focus());
      await v.page.keyboard.press('Enter');
      const apart = await v.until(dams, (d) => d.length !== 5);
      expect(apart.length).toBeLessThan(drawn.length);
      await v.press('Undo');
      await v.until(dams, (d) => d.length === 5);
      expect(await serious(v)).toEqual([]);
      await v.press('Remove Check dams 3');
      expect(await v.until(series, (w) => w === undefined)).toBeUndefined();
      await v.press('Undo');
      expect((await v.until(series, (w) => w !== undefined))?.dams).toHaveLength(5);
      await v.press('Undo');
      await v.press('Undo');
      await v.until(dams, (d) => d.length === drawn.length && d[1].heightM !== 0.45);
      expect(v.errors).toEqual([]);
    }, 120000);
  });
}
