import { describe, expect } from '@jest/globals';
import type { Bench } from './driver.ts';
import { goingOn } from './bench.ts';
import { serious } from './axe.ts';
import { named } from './named.ts';

const WORKS = '/p/sallow-rise/works';
const [W, S] = [431000, 4612000];
const here = (x: number, y: number): readonly [number, number] => [W + x, S + y];
const TABS = ['What if', 'What goes first', 'What storm was that'];

export function network(open: () => Bench): void {
  const on = goingOn(open);
  describe('ponds and the network', () => {
    on(
      'a pond drawn across the valley has a sill, a second way out stands higher, a swale opens into it, and undo takes each back',
      WORKS,
      async (v) => {
        await v.menu('Draw another work', 'A pond behind a wall');
        await v.draw([here(290, 318), here(355, 312), here(424, 318)]);
        await v.reads('aside', /Pond sill|Ways out, lowest first/);
        await v.verdict(/Pond 1/);
        const project = await v.kept();
        const pond = project.options[0].works.find((w) => w.name === 'Pond 1') as { id: string; levels: { crestM: number } } | undefined;
        expect(pond).toBeDefined();
        expect(project.options[0].works.some((w) => (w as { host?: string }).host === pond?.id && w.kind === 'level-sill')).toBe(true);
        await v.press('Add a way out');
        await v.page.locator(named('Cut spillway', 'menuitem')).click();
        await v.reads('aside', /Cut spillway\s+of/);
        // It is kept a moment after it is shown.
        const sillOf = async (kind: string): Promise<number> => {
          const own = (await v.kept()).options[0].works.find((w) => w.kind === kind && (w as { host?: string }).host === pond?.id);
          return (own as { levels?: { sillM: number } } | undefined)?.levels?.sillM ?? NaN;
        };
        await v.until(
          async () => (await sillOf('cut-spillway')) - (await sillOf('level-sill')),
          (over) => over >= 0.05 - 1e-9,
        );
        await v.press('Draw a swale');
        await v.draw([here(404, 330), here(412, 314), here(422, 300), here(436, 288)]);
        await v.press('Open it into Gate pond');
        await v.choose('Opens into', 'Pond 1');
        await v.press('Choose where its bank goes first');
        await v.reads('aside', /Fuse crest level/);
        const joined = (await v.kept()).options[0].works.find((w) => (w as { joins?: { store?: string } }).joins?.store === pond?.id);
        expect(joined).toMatchObject({ kind: 'swale', purpose: 'spillway', fuse: {} });
        const isThere = async (): Promise<boolean> => (await v.kept()).options[0].works.some((w) => w.name === 'Pond 1');
        for (let k = 0; k < 12 && (await isThere()); k++) await v.press('Undo');
        expect(await isThere()).toBe(false);
      },
    );
    on('a crossing is drawn, and its pipe blocked as a case: what is left falls', WORKS, async (v) => {
      await v.menu('Draw another work', 'A crossing');
      await v.draw([here(318, 150), here(345, 150), here(380, 150)]);
      await v.reads('aside', /Length of each pipe/);
      await v.stage('Storm');
      await v.press('What if', 'tab');
      const before = await v.reads('aside', /As designed[\s\S]*A fifth more rain/);
      expect(before).toMatch(/Valley track blocked/);
      await v.press('A case of your own');
      await v.type('Crossing 1 blocked', '100');
      await v.reads('aside', /Case 1\s+[\d,over ]/);
      const kept = (await v.kept()) as unknown as { cases: { name: string; blockedPercent?: Record<string, number> }[] };
      expect(Object.values(kept.cases.find((c) => c.name === 'Case 1')?.blockedPercent ?? {})).toEqual([100]);
    });
    on('the wrong order of failure is told in millimetres, and mended by typing a level', '/p/sallow-rise/storm', async (v) => {
      await v.press('What goes first', 'tab');
      const wrong = await v.reads(
        'aside',
        /Gate pond: crest of the wall is passed before Back-up swale: fuse in the bank: lower .* by (\d+)\smm/,
      );
      const mm = Number(/fuse in the bank by (\d+)\smm/.exec(wrong)?.[1]);
      expect(mm).toBeGreaterThan(20);
      await v.press('Open Back-up swale: fuse in the bank');
      await v.stage('Works');
      await v.reads('aside', /Fuse crest level/);
      await v.type('Fuse crest level', (108.95 - mm / 1000).toFixed(3));
      await v.stage('Storm');
      await v.press('What goes first', 'tab');
      await v.reads('aside', /As the storm is raised/);
      await v.page.waitForFunction(
        () => !/Gate pond: crest of the wall is passed before/.test(document.querySelector('aside')?.textContent ?? ''),
        { timeout: 45000 },
      );
    });
    on('an outlet leads where the user says, and where the ground does again', WORKS, async (v) => {
      await v.choose('Work', 'Emergency sill');
      await v.reads('aside', /Its water runs to Valley track/);
      await v.choose('Its water leads', 'Back-up swale');
      await v.reads('aside', /Its water runs to Back-up swale/);
      expect((await v.kept()).options[0].links).toMatchObject({ emergency: 'back-up' });
      await v.choose('Its water leads', 'where the ground takes it');
      await v.reads('aside', /Its water runs to Valley track/);
    });
    on('a debris mark tells its storm; one under the floor is refused in words', '/p/sallow-rise/storm', async (v) => {
      await v.press('What storm was that', 'tab');
      await v.choose('Found at', 'Gate pond');
      await v.reads('aside', /About a 1 in (19|20|21)\syr storm left it, between/);
      await v.type('Level of the mark', '100');
      await v.reads('aside', /under the floor of Gate pond/);
    });
    on('axe finds nothing serious on the sheet of any work, nor on any part of Storm', WORKS, async (v) => {
      for (const work of ['Gate pond', 'Old pipe', 'Emergency sill', 'Back-up swale', 'Valley track']) {
        await v.choose('Work', work);
        await v.reads('aside', /To mend and to weigh/);
        expect({ work, found: await serious(v) }).toEqual({ work, found: [] });
      }
      await v.stage('Storm');
      for (const tab of TABS) {
        await v.press(tab, 'tab');
        expect({ tab, found: await serious(v) }).toEqual({ tab, found: [] });
      }
    });
  });
}
