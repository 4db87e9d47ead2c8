import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { openProjectFile } from '#core/formats';
import { type Project, assetsOf, documentHash } from '#core/project';
import type { Swale } from '#core/works';
import { type Bench, Visitor } from './driver.ts';

const demo = (name: string): string => join(process.cwd(), 'demo', name);
const swaleOf = (p: Project, name: string): Swale => p.options[0].works.find((w) => w.name === name) as Swale;

interface Noted {
  readonly workers: Worker[];
}

function noteWorkers(): void {
  const on = globalThis as unknown as { workers: Worker[]; Worker: typeof Worker };
  on.workers = [];
  on.Worker = class extends Worker {
    constructor(...made: ConstructorParameters<typeof Worker>) {
      super(...made);
      on.workers.push(this);
    }
  };
}

/** Nothing a user made is lost, whatever happens to page, tab or storage. */
export function keeping(open: () => Bench): void {
  describe('an edit', () => {
    it('survives the page being closed at once, time and again', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/works');
      for (const depth of ['0.50', '0.40']) {
        await v.verdict(/Orchard swale/);
        await v.type('Water depth at the sill', depth);
        await v.page.reload({ waitUntil: 'networkidle0' });
        await v.verdict(/Orchard swale/);
        expect(await v.valueOf('Water depth at the sill')).toBe(depth);
      }
      expect(await v.page.evaluate(() => Object.keys(localStorage).filter((k) => k.startsWith('outlet-unsaved')).length)).toBe(0);
    }, 180000);

    it('made after the computation died of a fault is worked out by another, once the fault was told', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/works', { before: noteWorkers });
      await v.verdict(/Orchard swale/);
      const began = await v.page.evaluate(() => {
        const { workers } = globalThis as unknown as Noted;
        for (const worker of workers) worker.dispatchEvent(new ErrorEvent('error', { message: 'out of memory' }));
        return workers.length;
      });
      await v.type('Water depth at the sill', '0.51');
      await v.reads('main', /This could not be computed/);
      await v.type('Water depth at the sill', '0.47');
      await v.page.waitForFunction((n) => (globalThis as unknown as Noted).workers.length > n, {}, began);
      await v.verdict(/Orchard swale/);
      await v.page.waitForSelector('[data-testid="verdict"][aria-busy="false"]');
      expect(await v.page.$eval('main', (e) => e.textContent)).not.toMatch(/could not be computed/);
      expect(await v.valueOf('Water depth at the sill')).toBe('0.47');
    }, 180000);

    it('survives another project being opened in the same breath', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/works');
      await v.verdict(/Orchard swale/);
      await v.type('Water depth at the sill', '0.52');
      await v.page.locator('header a[href="/start"]').click();
      await v.page.waitForSelector('h1');
      await v.go('/p/sallow-rise/works');
      await v.verdict(/Orchard swale/);
      expect(await v.valueOf('Water depth at the sill')).toBe('0.52');
    }, 180000);

    it('left by a page of an earlier version, without its time, is taken up once', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/works');
      await v.verdict(/Orchard swale/);
      const kept = await v.kept();
      await v.page.evaluate(
        (words) => localStorage.setItem('outlet-unsaved:sallow-rise', words),
        JSON.stringify({ ...kept, name: 'Left behind' }),
      );
      await v.page.reload({ waitUntil: 'networkidle0' });
      await v.verdict(/Orchard swale/);
      expect((await v.kept()).name).toBe('Left behind');
      await v.type('Project name', 'Named since');
      await v.kept();
      await v.page.reload({ waitUntil: 'networkidle0' });
      expect(await v.valueOf('Project name')).toBe('Named since');
    }, 180000);

    it('is kept when the browser has no room left, and export still has all of it', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/land');
      await v.verdict(/Valley gate/);
      await v.page.evaluate(() => {
        IDBObjectStore.prototype.put = () => {
          throw new DOMException('no room', 'QuotaExceededError');
        };
      });
      await v.give('Choose ground, a track or a map', demo('sample-survey.csv'));
      await v.reads('[role="dialog"]', /sample-survey\.csv lies nowhere on the ground there is/);
      await v.press('Put it in place of the ground');
      await v.reads('[data-testid="saved"]', /storage is full\. Export the project/);
      await v.reads('main', /sample-survey\.csv is in/);
      await v.type('Project name', 'No room');
      await v.press('Export the project');
      const { json, assets } = openProjectFile('p', await v.downloaded('.outlet'));
      const project = json as Project;
      expect(project.name).toBe('No room');
      if (project.terrain?.kind !== 'asset') throw new Error('the terrain is not an asset');
      expect(project.terrain.source).toBe('sample-survey.csv');
      expect([...assets.keys()].sort()).toEqual([...assetsOf(project)].sort());
      // The ground, where it was read, and the record of the gauge.
      expect(assets.size).toBe(3);
      // Even the name typed without room is there after a reload.
      await v.page.reload({ waitUntil: 'networkidle0' });
      expect((await v.kept()).name).toBe('No room');
      expect(v.errors).toEqual([]);
    }, 180000);
  });

  describe('two tabs', () => {
    it('a file of a project that is open elsewhere is refused, and neither tab changes', async () => {
      const context = await open().browser.createBrowserContext();
      const first = await Visitor.arrive(open(), '/p/sallow-rise/works', { context });
      await first.verdict(/Orchard swale/);
      await first.type('Water depth at the sill', '0.51');
      const hash = documentHash(await first.kept());
      const second = await Visitor.arrive(open(), '/start', { context });
      await second.give('Open a .outlet file', demo('demo.outlet'));
      await second.reads('[role="alert"]', /open in another tab.*Do: Close that tab/s);
      await first.page.bringToFront();
      expect(documentHash(await first.kept())).toBe(hash);
      // The first tab goes on as before; once it is gone, the second may write.
      await first.type('Water depth at the sill', '0.53');
      const crest = swaleOf(await first.kept(), 'Orchard swale').levels.bankCrestM;
      await second.go('/p/sallow-rise/works');
      await second.reads('[data-testid="saved"]', /read-only: open in another tab/);
      await first.page.close();
      expect(swaleOf(await second.kept(), 'Orchard swale').levels.bankCrestM).toBe(crest);
      await second.type('Water depth at the sill', '0.45');
      expect(swaleOf(await second.kept(), 'Orchard swale').levels.bankCrestM).toBeCloseTo(crest - 0.08, 3);
    }, 180000);

    it('a terrain that only the undo of another tab still names is not thrown away', async () => {
      const context = await open().browser.createBrowserContext();
      const first = await Visitor.arrive(open(), '/p/sallow-rise/land', { context });
      await first.verdict(/Valley gate/);
      const before = documentHash(await first.kept());
      await first.give('Choose ground, a track or a map', demo('sample-survey.csv'));
      await first.press('Put it in place of the ground');
      await first.reads('main', /sample-survey\.csv is in/);
      await first.kept();
      // Another project opens in a second tab, which clears out what no kept document names.
      const second = await Visitor.arrive(open(), '/start', { context });
      await second.give('Choose ground, a track or a map', demo('sample-survey.csv'));
      await second.page.waitForSelector('aside[aria-label="Land sheet"]');
      await second.kept();
      await second.page.reload({ waitUntil: 'networkidle0' });
      await first.page.bringToFront();
      await first.press('Undo');
      await first.verdict(/152\.98 m/);
      expect(documentHash(await first.kept())).toBe(before);
      await first.page.reload({ waitUntil: 'networkidle0' });
      await first.verdict(/The ground runs from 95\.33 m to 152\.98 m/);
      expect(first.errors).toEqual([]);
    }, 180000);
  });

  describe('a project file', () => {
    it('cut short, of a later version or of no format at all is refused in words', async () => {
      const v = await Visitor.arrive(open(), '/start');
      await v.give('Choose ground, a track or a map', demo('sample-survey.csv'));
      await v.page.waitForSelector('aside[aria-label="Land sheet"]');
      const hash = documentHash(await v.kept());
      const url = new URL(v.page.url()).pathname;
      await v.press('Export the project');
      const whole = await v.downloaded('.outlet');
      for (const [name, bytes] of [
        ['short', whole.slice(0, whole.length / 2)],
        ['later', new TextEncoder().encode('{"format":"outlet-project","version":9}')],
        ['none', new TextEncoder().encode('not json')],
      ] as const) {
        const path = join(v.downloads, `${name}.outlet`);
        writeFileSync(path, bytes);
        await v.page.locator('header a[href="/start"]').click();
        await v.give('Open a .outlet file', path);
        const said = await v.reads('[role="alert"]', new RegExp(`${name}\\.outlet was not opened; nothing has changed`));
        expect(said).toMatch(/Do: \S+/);
        await v.go(url);
        expect(documentHash(await v.kept())).toBe(hash);
      }
      expect(v.errors).toEqual([]);
    }, 180000);
  });
}
