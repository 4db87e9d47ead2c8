// The page under load: the largest terrain there may be, and hundreds of works. How long it stands still, and how soon it lets go.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { writeProjectFile } from '#core/formats';
import { type Project, assetName, gridToBytes } from '#core/project';
import type { Grid } from '#core/terrain';
import { type LevelSill, type Swale } from '#core/works';
import { SILL, SWALE, planeProject } from '../core/testing/projects.ts';
import { type Bench, Visitor } from '../e2e/driver.ts';

export interface LargeReport {
  readonly cells: number;
  readonly importS: number;
  readonly exportS: number;
  /** From the press to the end of the work, for a file being read and for a computation [ms]. */
  readonly cancelMs: readonly number[];
  /** Longest the page stood still while it was read, worked out, shown and written [ms]. */
  readonly largeStallMs: number;
  readonly works: number;
  readonly editS: number;
  readonly editStallMs: number;
}

/** Rolling ground of any size, the same every time. */
function rolling(side: number, cellM: number): Grid {
  const z = new Float32Array(side * side);
  for (let r = 0; r < side; r++) {
    for (let c = 0; c < side; c++) {
      const [x, y] = [c * cellM, (side - r) * cellM];
      z[r * side + c] = 40 + 0.02 * y + 6 * Math.sin(x / 170 + y / 400) + 2 * Math.sin(x / 61 - y / 47) + ((r * 7 + c * 13) % 5) / 50;
    }
  }
  return { ncols: side, nrows: side, cellM, west: 0, south: 0, baseM: 100, z };
}

/** Counts how long the page's own work keeps it from answering. */
const watch = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const seen = window as { stalls?: number[] };
    seen.stalls = [];
    new PerformanceObserver((list) => seen.stalls?.push(...list.getEntries().map((e) => e.duration))).observe({ entryTypes: ['longtask'] });
  });
const longest = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const seen = window as { stalls?: number[] };
    const most = Math.max(0, ...(seen.stalls ?? []));
    seen.stalls = [];
    return Math.round(most);
  });

/** Presses a button once it is there, and gives how long what it ends goes on [ms]. */
async function cancelled(page: Page, name: string): Promise<number> {
  await page.waitForFunction(
    (text) => [...document.querySelectorAll('button')].some((b) => b.textContent === text),
    { timeout: 60_000 },
    name,
  );
  return page.evaluate(
    (text) =>
      new Promise<number>((done) => {
        const find = (): HTMLButtonElement | undefined => [...document.querySelectorAll('button')].find((b) => b.textContent === text);
        const start = performance.now();
        find()?.click();
        const look = (): void => {
          if (find()) requestAnimationFrame(look);
          else done(Math.round(performance.now() - start));
        };
        look();
      }),
    name,
  );
}

async function largest(bench: Bench): Promise<Omit<LargeReport, 'works' | 'editS' | 'editStallMs'>> {
  const side = 3999;
  const bytes = gridToBytes(rolling(side, 1));
  const sha256 = assetName(bytes);
  const project = planeProject({ id: 'large', name: 'Large', terrain: { kind: 'asset', sha256, source: 'rolling' } }, []);
  const file = join(mkdtempSync(join(tmpdir(), 'outlet-large-')), 'large.outlet');
  writeFileSync(file, writeProjectFile(project, new Map([[sha256, bytes]])));
  const v = await Visitor.arrive(bench, '/start');
  v.page.setDefaultTimeout(120_000);
  await v.give('Open a .outlet file', file);
  const reading = await cancelled(v.page, 'Cancel');
  await watch(v.page);
  let start = performance.now();
  await v.give('Open a .outlet file', file);
  await v.page.waitForFunction(() => window.location.pathname === '/p/large/works');
  const computing = await cancelled(v.page, 'Stop');
  await v.page.locator('::-p-aria([name="Work it out"][role="button"])').click();
  await v.page.waitForFunction(() => document.querySelector('[data-testid="verdict"]')?.textContent?.includes('Draw a swale'), {
    timeout: 120_000,
  });
  const importS = (performance.now() - start) / 1000;
  await new Promise((done) => setTimeout(done, 4000));
  const stall = await longest(v.page);
  start = performance.now();
  await v.page.locator('::-p-aria([name="Export the project"][role="button"])').click();
  await v.downloaded('.outlet');
  const exportS = (performance.now() - start) / 1000;
  const largeStallMs = Math.max(stall, await longest(v.page));
  await v.page.close();
  return { cells: side * side, importS, exportS, cancelMs: [reading, computing], largeStallMs };
}

/** A hillside of swales, each with its sill. */
function hillside(count: number): Project {
  const rows = Math.ceil(Math.sqrt(count));
  const side = 12 * rows;
  const z = Array.from({ length: side * side }, (_, i) => 100 + 0.1 * (side - Math.floor(i / side) - 0.5) * 2);
  const works = Array.from({ length: count }, (_, k): [Swale, LevelSill] => {
    const [x, y] = [20 + 24 * (k % rows), 20 + 24 * Math.floor(k / rows)];
    const lip = 100 + 0.1 * y;
    const swale: Swale = {
      ...SWALE,
      id: `w${k}`,
      name: `Swale ${k}`,
      line: [
        [x, y],
        [x + 18, y],
      ],
      levels: { floorM: lip - 0.35, bankCrestM: lip + 0.35 },
    };
    return [swale, { ...SILL, id: `s${k}`, name: `Sill ${k}`, host: swale.id, atM: 9, levels: { sillM: lip } }];
  }).flat();
  const outline = [
    [2, 2],
    [2 * side - 2, 2],
    [2 * side - 2, 2 * side - 2],
    [2, 2 * side - 2],
  ] as const;
  return {
    ...planeProject(
      {
        id: 'hillside',
        name: 'Hillside',
        terrain: { kind: 'grid', ncols: side, nrows: side, west: 0, south: 0, cellM: 2, rows: 'north-first', z },
      },
      works,
    ),
    site: { crs: null, outline, zeroLevelM: 0 },
  };
}

async function manyWorks(bench: Bench, count: number): Promise<Pick<LargeReport, 'works' | 'editS' | 'editStallMs'>> {
  const v = await Visitor.arrive(bench, '/start');
  v.page.setDefaultTimeout(60_000);
  await v.drop('hillside.outlet', writeProjectFile(hillside(count), new Map()));
  await v.page.waitForFunction(() => window.location.pathname === '/p/hillside/works');
  await v.verdict(/holds|lets go/);
  await new Promise((done) => setTimeout(done, 2500));
  await watch(v.page);
  const start = performance.now();
  const before = await v.text('aside[aria-label="Works sheet"]');
  await v.type('Water depth at the sill', '0.40');
  await v.until(
    () => v.text('aside[aria-label="Works sheet"]'),
    (text) => text !== before,
  );
  await v.reads('[data-testid="saved"]', /^saved$/);
  const editS = (performance.now() - start) / 1000;
  await new Promise((done) => setTimeout(done, 1500));
  const editStallMs = await longest(v.page);
  await v.page.close();
  return { works: 2 * count, editS, editStallMs };
}

export async function measureLarge(bench: Bench): Promise<LargeReport> {
  return { ...(await largest(bench)), ...(await manyWorks(bench, 200)) };
}
