// Nothing lost and nothing praised that is not so, with a real browser that is full, shut, killed or has no locks.
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { openProjectFile, writeProjectFile } from '#core/formats';
import { type Project, assetName, assetsOf, documentHash, gridFromBytes, gridToBytes } from '#core/project';
import type { Swale } from '#core/works';
import { type Bench, Visitor } from './driver.ts';
import { named } from './named.ts';

const demoBytes = new Uint8Array(readFileSync(join(process.cwd(), 'demo', 'demo.outlet')));
const folder = mkdtempSync(join(tmpdir(), 'outlet-abuse-'));
const fileOf = (name: string, data: string | Uint8Array): string => {
  writeFileSync(join(folder, name), data);
  return join(folder, name);
};

interface Made {
  readonly project: Project;
  readonly bytes: Uint8Array;
}

/** The demo under another name and id, on ground of its own, with a change. */
function otherProject(id: string, change: (p: Project) => Project = (p) => p): Made {
  const { json, assets } = openProjectFile('demo', demoBytes);
  const demo = json as Project;
  if (demo.terrain?.kind !== 'asset') throw new Error('the demo has its terrain as an asset');
  const grid = gridFromBytes(assets.get(demo.terrain.sha256)!);
  const ground = gridToBytes({ ...grid, z: grid.z.map((v) => v + 0.5) });
  const terrain = { ...demo.terrain, sha256: assetName(ground) };
  const project = change({ ...demo, id, name: `Other ${id}`, terrain });
  const own = new Map([...assets].filter(([name]) => name === project.gauge?.sha256));
  return { project, bytes: writeProjectFile(project, own.set(terrain.sha256, ground)) };
}

/** As in a page over plain http on a host name: the browser has no locks. */
const noLocks = (): void => {
  delete (Navigator.prototype as { locks?: unknown }).locks;
};
/** As on a full disk: nothing can be put into the store. */
const fullDisk = (): void => {
  IDBObjectStore.prototype.put = () => {
    throw new DOMException('no room', 'QuotaExceededError');
  };
};

const crestOf = (p: Project): number => (p.options[0].works.find((w) => w.name === 'Orchard swale') as Swale).levels.bankCrestM;

export function abuse(open: () => Bench): void {
  describe('a project file dropped on another project’s page', () => {
    it('is shown with its terrain and gauge, has them after a reload, and exports whole', async () => {
      const { project, bytes } = otherProject('dropped');
      const v = await Visitor.arrive(open(), '/p/sallow-rise/rain');
      await v.verdict(/storm/);
      await v.drop('other.outlet', bytes);
      await v.page.waitForFunction(() => window.location.pathname === '/p/dropped/works');
      await v.verdict(/Orchard swale/);
      // Another project and back: whatever is cleared out on the way, these stay.
      await v.go('/p/sallow-rise/works');
      await v.verdict(/Orchard swale/);
      await v.go('/p/dropped/works');
      await v.verdict(/Orchard swale/);
      await v.press('Export the project');
      const out = openProjectFile('p', await v.downloaded('.outlet'));
      expect((out.json as Project).name).toBe('Other dropped');
      expect([...out.assets.keys()].sort()).toEqual([...assetsOf(project)].sort());
      expect(v.errors).toEqual([]);
    }, 180000);

    it('an edit made while it is first worked out is kept, not overwritten', async () => {
      const v = await Visitor.arrive(open(), '/start', {
        before: () => {
          const post = Reflect.get(Worker.prototype, 'postMessage') as (this: Worker, ...args: unknown[]) => void;
          Worker.prototype.postMessage = function (this: Worker, ...args: unknown[]) {
            setTimeout(() => post.apply(this, args), 1200);
          };
        },
      });
      await v.drop('other.outlet', otherProject('slow').bytes);
      await v.page.waitForSelector('[aria-label="Project name"]');
      expect(await v.text('[data-testid="verdict"]')).toMatch(/Working it out|reading/);
      // The bar that tells it lies over the plan, and lets hands through to it.
      const words = await v.page.waitForSelector('::-p-xpath(//*[@role="status"]/span[contains(., "Working it out")])');
      const isInTheWay = await words?.evaluate((e) => {
        const { left, top, width, height } = e.getBoundingClientRect();
        return document.elementFromPoint(left + width / 2, top + height / 2)?.closest('[role="status"]') !== null;
      });
      expect(isInTheWay).toBe(false);
      await v.type('Project name', 'Named at once');
      await v.verdict(/Orchard swale/);
      expect((await v.kept()).name).toBe('Named at once');
      await v.page.reload({ waitUntil: 'networkidle0' });
      await v.verdict(/Orchard swale/);
      expect(await v.valueOf('Project name')).toBe('Named at once');
    }, 180000);
  });

  describe('a full disk', () => {
    it('still opens everything after a reload, never says “saved”, and offers each project for export', async () => {
      const context = await open().browser.createBrowserContext();
      const first = await Visitor.arrive(open(), '/p/sallow-rise/works', { context });
      await first.verdict(/Orchard swale/);
      await first.kept();
      await first.page.evaluate(fullDisk);
      await first.type('Project name', 'No room left');
      await first.reads('[data-testid="saved"]', /storage is full/);
      // Before it is told to go: a busy page may not hear it.
      expect(await first.page.evaluate(() => localStorage.getItem('outlet-unsaved:sallow-rise'))).toContain('No room left');
      await first.page.close();
      const v = await Visitor.arrive(open(), '/', { context, before: fullDisk });
      await v.verdict(/Orchard swale/);
      expect(await v.valueOf('Project name')).toBe('No room left');
      await v.reads('[data-testid="saved"]', /^not saved: .*Export the project/);
      await v.go('/projects');
      await v.reads('[role="alert"]', /cannot keep anything right now.*Do: Export/s);
      await v.press('Export No room left');
      const { json, assets } = openProjectFile('p', await v.downloaded('.outlet'));
      expect((json as Project).name).toBe('No room left');
      expect(assets.size).toBe(assetsOf(json as Project).length);
      await v.page.close();
      // With room again, what was only in the page’s last words is kept for good.
      const later = await Visitor.arrive(open(), '/p/sallow-rise/works', { context });
      await later.verdict(/Orchard swale/);
      expect((await later.kept()).name).toBe('No room left');
    }, 180000);

    it('a store that cannot be read says so and gives ways on', async () => {
      const shut = await Visitor.arrive(open(), '/p/any/works', {
        before: () => {
          IDBObjectStore.prototype.get = () => {
            throw new DOMException('shut', 'UnknownError');
          };
        },
      });
      await shut.reads('main', /cannot be opened here.*cannot read what it kept.*Do:/s);
      expect(shut.errors).toEqual([]);
    }, 180000);
  });

  describe('kept projects that cannot be opened', () => {
    it('of a newer version, with a work of a kind nobody knows or without options are told, exported as they are, and lock nobody in', async () => {
      const spoilt: readonly (readonly [id: string, spoil: (p: Project) => object, words: RegExp])[] = [
        ['newer', (p) => ({ ...p, version: 99 }), /newer version \(99/],
        [
          'geyser',
          (p) => ({ ...p, options: [{ ...p.options[0], works: [{ id: 'x', kind: 'geyser', name: 'G', status: 'planned' }] }] }),
          /"geyser", which this version does not know/,
        ],
        ['without', (p) => ({ ...p, options: undefined }), /options/],
      ];
      const v = await Visitor.arrive(open(), '/p/sallow-rise/works');
      await v.verdict(/Orchard swale/);
      const sound = await v.kept();
      for (const [id, spoil, words] of spoilt) {
        await v.keepRaw(id, JSON.parse(JSON.stringify(spoil({ ...sound, id, name: `Spoilt ${id}` }))));
        await v.go(`/p/${id}/works`);
        await v.reads('[role="alert"]', words);
        await v.press('Export what is kept');
        expect((openProjectFile('p', await v.downloaded('.outlet')).json as Project).name).toBe(`Spoilt ${id}`);
        v.forgetDownloads();
        await v.page.locator(named('Other projects', 'link')).click();
        await v.reads('main', new RegExp(`Spoilt ${id}.*Sallow Rise|Sallow Rise.*Spoilt ${id}`, 's'));
      }
      await v.go('/');
      await v.verdict(/Orchard swale/);
      expect(v.errors).toEqual([]);
    }, 180000);

    it('a part of the page that fails is told in its place, with undo, and mended by it', async () => {
      const v = await Visitor.arrive(open(), '/p/sallow-rise/works');
      await v.verdict(/Orchard swale/);
      await v.page.evaluate(() => {
        // A fault that only one value of the document brings out.
        const format: (this: unknown, digits?: number) => string = Reflect.get(Number.prototype, 'toFixed');
        Number.prototype.toFixed = function (digits?: number) {
          if (format.call(this, 2) === '0.67') throw new Error('planted');
          return format.call(this, digits);
        };
      });
      await v.type('Water depth at the sill', '0.67');
      await v.reads('aside[aria-label="Works sheet"]', /This part of the page failed.*Export the project.*Undo the last change/s);
      await v.press('Undo the last change');
      await v.reads('aside[aria-label="Works sheet"]', /Water depth at the sill/);
    }, 180000);
  });

  describe('two tabs without locks', () => {
    it('only the first writes; when it goes, the other takes up its last words and writes', async () => {
      const context = await open().browser.createBrowserContext();
      const first = await Visitor.arrive(open(), '/p/sallow-rise/works', { context, before: noLocks });
      await first.verdict(/Orchard swale/);
      await first.kept();
      const second = await Visitor.arrive(open(), '/p/sallow-rise/works', { context, before: noLocks });
      await second.reads('[data-testid="saved"]', /read-only: open in another tab/);
      await second.type('Water depth at the sill', '0.30');
      await second.reads('main', /read-only here: open in another tab/);
      await first.page.bringToFront();
      await first.type('Water depth at the sill', '0.52');
      // Gone within the quarter second in which nothing is kept yet.
      await first.page.close({ runBeforeUnload: false });
      await second.page.bringToFront();
      const kept = await second.kept();
      expect(await second.valueOf('Water depth at the sill')).toBe('0.52');
      await second.type('Water depth at the sill', '0.45');
      expect(crestOf(await second.kept())).toBeCloseTo(crestOf(kept) - 0.07, 3);
    }, 180000);

    it('with locks, too, the tab that takes over takes up the last words first', async () => {
      const context = await open().browser.createBrowserContext();
      const first = await Visitor.arrive(open(), '/p/sallow-rise/works', { context });
      await first.verdict(/Orchard swale/);
      await first.kept();
      const second = await Visitor.arrive(open(), '/p/sallow-rise/works', { context });
      await second.reads('[data-testid="saved"]', /read-only/);
      await second.verdict(/Orchard swale/);
      const hash = documentHash(await first.kept());
      await second.type('Water depth at the sill', '0.6');
      await second.reads('main', /open in another tab/);
      await first.page.bringToFront();
      expect(documentHash(await first.kept())).toBe(hash);
      // The store of the first tab never answers again: only its last words are left.
      await first.page.evaluate(fullDisk);
      await first.type('Project name', 'Last words');
      await first.page.close();
      await second.page.bringToFront();
      expect((await second.kept()).name).toBe('Last words');
      expect(await second.valueOf('Project name')).toBe('Last words');
    }, 180000);
  });

  describe('what cannot be taken as it is', () => {
    it('is told on the page: blank and spoilt files, doubtful numbers, works off the terrain', async () => {
      const v = await Visitor.arrive(open(), '/start');
      await v.give('Choose ground, a track or a map', fileOf('commas.csv', ',,,\n,,,\n'));
      await v.reads('[role="alert"]', /commas\.csv was not taken in; nothing has changed.*there is nothing in it.*Do:/s);
      await v.give(
        'Choose ground, a track or a map',
        fileOf(
          'spoilt.tif',
          Uint8Array.from({ length: 900 }, (_, i) => (i < 4 ? [0x49, 0x49, 42, 0][i] : (i * 37) % 256)),
        ),
      );
      await v.reads('[role="alert"]', /spoilt\.tif.*not a readable TIFF|cannot be read/s);
      const points = ['x;y;z', ...Array.from({ length: 20 }, (_, i) => `${(i % 5) * 10};${Math.floor(i / 5) * 10};1,${204 + i}`)].join(
        '\n',
      );
      await v.give('Choose ground, a track or a map', fileOf('doubtful.csv', points));
      await v.reads('[role="alert"]', /doubtful\.csv.*line 2.*may be 1\.204 or 1204/s);
      await v.press('The comma is for decimals');
      await v.page.waitForFunction(() => window.location.pathname.endsWith('/land'));
      await v.verdict(/from 1\.2\d m to 1\.2\d m/);
      const { bytes } = otherProject('off', (p) => ({
        ...p,
        options: [
          {
            ...p.options[0],
            works: p.options[0].works.map((w) =>
              w.name === 'Orchard swale' ? { ...w, line: (w as Swale).line.map(([x, y]) => [x + 2000, y]) } : w,
            ),
          },
        ],
      }));
      await v.drop('off.outlet', bytes);
      await v.page.waitForFunction(() => window.location.pathname === '/p/off/works');
      await v.verdict(/Orchard swale is not computed.*off the terrain, \d+ m beyond its edge/);
      expect(v.errors).toEqual([]);
    }, 180000);

    it('a large file can be given up at once, and a file dropped on the start page is taken there', async () => {
      const v = await Visitor.arrive(open(), '/start');
      const side = 1800;
      const row = Array.from({ length: side }, (_, i) => (100 + i / 100).toFixed(2)).join(' ');
      const asc = `ncols ${side}\nnrows ${side}\nxllcorner 0\nyllcorner 0\ncellsize 1\n${`${row}\n`.repeat(side)}`;
      await v.give('Choose ground, a track or a map', fileOf('large.asc', asc));
      await v.page.locator(named('Cancel', 'button')).click();
      const gone = await v.page.evaluate(
        () =>
          new Promise<number>((done) => {
            const start = performance.now();
            const look = (): void => {
              if ([...document.querySelectorAll('button')].some((b) => b.textContent === 'Cancel')) requestAnimationFrame(look);
              else done(performance.now() - start);
            };
            look();
          }),
      );
      expect(gone).toBeLessThan(200);
      expect(v.page.url()).toMatch(/\/start$/);
      await v.drop('levels.csv', new TextEncoder().encode('x,y,z\n0,0,100\n40,0,99\n0,40,98\n40,40,97.5\n'));
      await v.page.waitForFunction(() => window.location.pathname.endsWith('/land'));
      await v.verdict(/from 97\.75/);
      // A name as long as a page breaks nothing.
      await v.type('Project name', 'Bogenhausener '.repeat(57));
      await v.kept();
      expect(await v.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
      await v.go('/projects');
      await v.reads('main', /Bogenhausener/);
      expect(await v.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
      expect(v.errors).toEqual([]);
    }, 180000);
  });
}
