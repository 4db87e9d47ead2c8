import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { documentHash } from '#core/project';
import { goingOn } from './bench.ts';
import { type Bench, Visitor } from './driver.ts';
import { BY_COLOUR, serious } from './axe.ts';

const STAGES = ['Land', 'Rain', 'Ground', 'Works', 'Levels', 'Storm', 'Supply', 'Pegs'];
const folder = mkdtempSync(join(tmpdir(), 'outlet-bad-'));
const put = (name: string, text: string | Uint8Array): string => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};
const ASC = 'ncols 3\nnrows 2\nxllcorner 100\nyllcorner 200\ncellsize 2\nNODATA_value -9999\n1 2 3\n4 5 6\n';

const BAD: readonly (readonly [name: string, content: string | Uint8Array, says: RegExp])[] = [
  ['truncated.asc', ASC.replace('4 5 6\n', '4'), /line 8: it ends after 4 of 6 levels/],
  ['text.asc', ASC.replace('5', 'wet'), /line 8: "wet" is not a level/],
  ['nothing.asc', ASC.replace('1 2 3\n4 5 6', '-9999 -9999 -9999\n-9999 -9999 -9999'), /every cell is without data/],
  ['empty.csv', '', /the file is empty/],
  ['degrees.csv', 'x,y,z\n12.5001,48.1,3\n12.5003,48.1002,6\n12.5002,48.1009,9\n', /are degrees, not metres/],
  ['big.asc', ASC.replace('ncols 3', 'ncols 5000').replace('nrows 2', 'nrows 5000'), /25,000,000 cells; the limit is 16,000,000/],
  ['broken.tif', new Uint8Array([0x49, 0x49, 42, 0, 8, 0, 0, 0, 99]), /not a readable TIFF/],
];

/** What every view must hold to, whatever is in it. */
export function views(open: () => Bench): void {
  const on = goingOn(open);
  describe('every view', () => {
    on('of every stage nothing serious is found by axe, in paper and in dusk', '/p/sallow-rise/land', async (v) => {
      for (const stage of STAGES) {
        await v.stage(stage);
        await v.verdict(/\d/);
        for (const theme of ['dusk', 'paper']) {
          await v.choose('Theme', theme);
          const found = await serious(v, theme === 'dusk' ? BY_COLOUR : undefined);
          expect({ stage, theme, found }).toEqual({ stage, theme, found: [] });
        }
      }
    });
    it('start and projects have nothing serious for axe', async () => {
      const v = await Visitor.arrive(open(), '/start');
      expect(await serious(v)).toEqual([]);
      await v.go('/projects');
      expect(await serious(v)).toEqual([]);
      // It would be told of a fault that is put there.
      await v.page.evaluate(() => document.querySelector('main')?.insertAdjacentHTML('beforeend', '<button></button>'));
      expect((await serious(v)).join()).toMatch(/button-name/);
    }, 180000);
    it('each fits a phone', async () => {
      const v = await Visitor.arrive(open(), '/start', { width: 390, height: 844 });
      const fits = async (path: string): Promise<void> => {
        await new Promise((resolve) => setTimeout(resolve, 1200));
        const widths = await v.page.evaluate(() => [window.innerWidth, document.documentElement.scrollWidth]);
        expect({ path, widths }).toEqual({ path, widths: [390, 390] });
      };
      await fits('/start');
      await v.go('/projects');
      await fits('/projects');
      await v.go('/p/sallow-rise/land');
      for (const stage of STAGES) {
        await v.stage(stage);
        await fits(stage);
        // Of the strip of stages the open one is in sight, and all above the plan leaves it room.
        const at = await v.page.evaluate(() => {
          const { left = -1, right = 0 } = document.querySelector('nav a.active')?.getBoundingClientRect() ?? {};
          return { left, right, head: document.querySelector('header')?.getBoundingClientRect().height ?? 0 };
        });
        expect({ stage, isSeen: at.left >= 0 && at.right <= 391, isLow: at.head < 110 }).toEqual({ stage, isSeen: true, isLow: true });
      }
      expect(v.errors).toEqual([]);
    }, 180000);
  });

  describe('what the user made', () => {
    on('is untouched by every bad file, and the message says what, where and what to do', '/p/sallow-rise/land', async (v) => {
      await v.verdict(/Valley gate/);
      await v.type('Project name', 'Kept');
      const hash = documentHash(await v.kept());
      for (const [name, content, says] of BAD) {
        await v.give('Choose ground, a track or a map', put(name, content));
        const said = await v.reads('[role="alert"]', says);
        expect(said).toContain(`${name} was not taken in; nothing has changed`);
        expect(said).toMatch(/Do: \S+/);
        expect(documentHash(await v.kept())).toBe(hash);
      }
      await v.stage('Works');
      await v.type('Floor width', '99');
      await v.reads('[role="alert"]', /Floor width of "Orchard swale" is 99.0 m, outside 0.20 m to 20.0 m/);
      expect(documentHash(await v.kept())).toBe(hash);
      await v.page.locator('header a[href="/start"]').click();
      await v.give('Open a .outlet file', put('not.outlet', '{"format":"other"}'));
      await v.reads('[role="alert"]', /was not opened; nothing has changed/);
      await v.go('/p/sallow-rise/land');
      expect(documentHash(await v.kept())).toBe(hash);
    });
    it('keeps both when a file brings another version of the same project', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/works');
      await v.verdict(/Orchard swale/);
      // Where what reads files cannot come it is said, and the file may be dropped again.
      await v.page.setOfflineMode(true);
      await v.drop('other.outlet', new TextEncoder().encode('{}'));
      await v.reads('[role="alert"]', /Nothing was taken in; all is as it was.*did not come.*Load the page again/s);
      await v.page.setOfflineMode(false);
      await v.type('Project name', 'Changed here');
      await v.kept();
      await v.go('/start');
      await v.give('Open a .outlet file', join(process.cwd(), 'demo/demo.outlet'));
      await v.page.waitForSelector('aside[aria-label="Works sheet"]');
      await v.go('/projects');
      const list = await v.reads('main', /Sallow Rise/);
      expect(list).toContain('Changed here (kept copy)');
    }, 180000);
  });

  describe('the rainfall service', () => {
    on('is labelled simulated, and its table can be taken', '/p/sallow-rise/rain', async (v) => {
      await v.verdict(/116 mm/);
      await v.press('Table', 'tab');
      await v.press('Ask the rainfall service (simulated)');
      await v.press('Use this table');
      await v.reads('aside', /From: simulated rainfall-frequency service\. Its limits are kept/);
    });
  });
}
