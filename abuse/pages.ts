// Pages killed while they save, doubled, and starved of storage: what a real browser keeps of it all.
import type { Page } from 'puppeteer-core';
import { type Bench, Visitor } from '../e2e/driver.ts';
import { type Chance, chanceOf } from './mutate.ts';

export interface PagesReport {
  readonly kills: number;
  /** Edits older than a second that were gone after a kill. */
  readonly lost: number;
  readonly pairs: number;
  /** Times two tabs could write at once, or none could. */
  readonly notOneWriter: number;
  readonly starved: number;
  /** Times a page said "saved" of what was not, or could not open what was kept. */
  readonly falseWords: number;
}

const LEVELS = 'x,y,z\n0,0,100\n40,0,99\n0,40,98\n40,40,97.5\n';
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Comes to a page; a busy machine may need a second try, which says nothing of what is kept. */
async function arrive(...[bench, path, how]: Parameters<typeof Visitor.arrive>): Promise<Visitor> {
  for (let tries = 0; ; tries++) {
    try {
      return await Visitor.arrive(bench, path, how);
    } catch (error) {
      if (tries === 2) throw error;
      await pause(1000);
    }
  }
}

/** A project of four levels: it opens at once. */
async function smallProject(v: Visitor): Promise<string> {
  await v.drop('levels.csv', new TextEncoder().encode(LEVELS));
  await v.page.waitForFunction(() => window.location.pathname.endsWith('/land'));
  await v.reads('[data-testid="saved"]', /^saved$/);
  return new URL(v.page.url()).pathname;
}

const nameOn = (page: Page): Promise<string> => page.$eval('[aria-label="Project name"]', (e) => (e as HTMLInputElement).value);

async function rename(v: Visitor, name: string): Promise<void> {
  await v.page.waitForSelector('[aria-label="Project name"]');
  await v.page.click('[aria-label="Project name"]', { count: 3 });
  await v.page.keyboard.type(name);
  await v.page.keyboard.press('Tab');
}

const until = async (holds: () => Promise<boolean>, ms = 12_000): Promise<boolean> => {
  for (const end = Date.now() + ms; Date.now() < end; await pause(60)) if (await holds().catch(() => false)) return true;
  return false;
};

/** Ends a page without a word: its renderer crashes, or its tab is closed. */
async function kill(page: Page, chance: Chance): Promise<'crashed' | 'closed'> {
  if (chance() < 0.5) {
    await page.close();
    return 'closed';
  }
  const session = await page.createCDPSession();
  await Promise.race([session.send('Page.crash').catch(() => undefined), pause(300)]);
  await page.close().catch(() => undefined);
  return 'crashed';
}

async function killed(
  bench: Bench,
  count: number,
  on: { readonly chance: Chance; readonly untilMs: number },
): Promise<[kills: number, lost: number]> {
  const context = await bench.browser.createBrowserContext();
  let v = await arrive(bench, '/start', { context });
  const path = await smallProject(v);
  let [kills, lost] = [0, 0];
  // Names that must still be known: the last one older than a second, and all typed since.
  let known: string[] = ['My land'];
  while (kills < count && performance.now() < on.untilMs) {
    const edits = 1 + Math.floor(on.chance() * 3);
    let last = 0;
    for (let k = 0; k < edits; k++) {
      const name = `name ${kills}.${k}`;
      await rename(v, name);
      const now = performance.now();
      known = now - last > 1000 && last > 0 ? [known[known.length - 1], name] : [...known, name];
      last = now;
    }
    await pause(on.chance() * 1600);
    if (performance.now() - last > 1000) known = known.slice(-1);
    const how = await kill(v.page, on.chance);
    // A page that is closed has a moment to write its last words: nothing of it may be lost.
    if (how === 'closed') known = known.slice(-1);
    kills++;
    v = await arrive(bench, path, { context });
    const isThere = await until(async () => known.includes(await nameOn(v.page)));
    if (!isThere) lost++;
    await until(async () => /^saved$/.test(await v.text('[data-testid="saved"]')));
    known = [await nameOn(v.page).catch(() => '')];
  }
  await context.close();
  return [kills, lost];
}

/** Two tabs at one moment: exactly one may write, and the other may once it is gone. */
async function paired(
  bench: Bench,
  rounds: number,
  on: { readonly chance: Chance; readonly untilMs: number },
): Promise<[pairs: number, wrong: number]> {
  let [pairs, wrong] = [0, 0];
  while (pairs < rounds && performance.now() < on.untilMs) {
    const before = pairs % 2 === 0 ? (): void => void delete (Navigator.prototype as { locks?: unknown }).locks : undefined;
    const how = before ? { before } : {};
    const context = await bench.browser.createBrowserContext();
    const first = await arrive(bench, '/start', { context, ...how });
    const path = await smallProject(first);
    await first.page.close();
    const tabs = await Promise.all([0, 1].map(() => arrive(bench, path, { context, ...how })));
    const says = (v: Visitor): Promise<string> => v.text('[data-testid="saved"]');
    const settled = await until(async () => (await Promise.all(tabs.map(says))).filter((t) => t.startsWith('read-only')).length === 1);
    const [a, b] = await Promise.all(tabs.map(says));
    const [writer, reader] = a.startsWith('read-only') ? [tabs[1], tabs[0]] : [tabs[0], tabs[1]];
    await writer.page.bringToFront();
    const name = `pair ${pairs}`;
    await rename(writer, name);
    await pause(on.chance() * 400);
    await writer.page.close();
    await reader.page.bringToFront();
    const took = await until(async () => /^saved$/.test(await says(reader)) && (await nameOn(reader.page)) === name);
    if (!settled || a.startsWith('read-only') === b.startsWith('read-only') || !took) wrong++;
    pairs++;
    await context.close();
  }
  return [pairs, wrong];
}

/** Storage that refuses now and then: never "saved" of what is not, and all of it kept once there is room again. */
async function starved(
  bench: Bench,
  rounds: number,
  on: { readonly chance: Chance; readonly untilMs: number },
): Promise<[rounds: number, wrong: number]> {
  let [done, wrong] = [0, 0];
  while (done < rounds && performance.now() < on.untilMs) {
    const context = await bench.browser.createBrowserContext();
    const v = await arrive(bench, '/start', { context });
    const path = await smallProject(v);
    await v.page.evaluate(() => {
      const put = Reflect.get(IDBObjectStore.prototype, 'put') as (this: IDBObjectStore, ...args: unknown[]) => IDBRequest<IDBValidKey>;
      (window as { isFull?: boolean }).isFull = true;
      IDBObjectStore.prototype.put = function (...args) {
        if ((window as { isFull?: boolean }).isFull) throw new DOMException('no room', 'QuotaExceededError');
        return put.apply(this, args);
      };
    });
    await rename(v, `full ${done}`);
    const told = await until(async () => /not saved/.test(await v.text('[data-testid="saved"]')));
    const heals = on.chance() < 0.5;
    if (heals) {
      await v.page.evaluate(() => ((window as { isFull?: boolean }).isFull = false));
      await rename(v, `room ${done}`);
      if (!(await until(async () => /^saved$/.test(await v.text('[data-testid="saved"]'))))) wrong++;
    }
    await v.page.close();
    const again = await arrive(bench, path, { context });
    const kept = await until(async () => (await nameOn(again.page)) === `${heals ? 'room' : 'full'} ${done}`);
    if (!told || !kept) wrong++;
    done++;
    await context.close();
  }
  return [done, wrong];
}

/** Rounds shared among browsers of their own, side by side. */
async function shared(
  benches: readonly Bench[],
  count: number,
  run: (bench: Bench, count: number, lane: number) => Promise<[done: number, wrong: number]>,
): Promise<[done: number, wrong: number]> {
  const each = benches.map((bench, lane) => run(bench, Math.ceil((count - lane) / benches.length), lane));
  return (await Promise.all(each)).reduce(([a, b], [done, wrong]) => [a + done, b + wrong], [0, 0]);
}

export async function abusePages(
  benches: readonly Bench[],
  on: { readonly kills: number; readonly rounds: number; readonly seed: number; readonly forMs: number },
): Promise<PagesReport> {
  const share = (part: number): number => performance.now() + part * on.forMs;
  const lane = (k: number, untilMs: number): { chance: Chance; untilMs: number } => ({ chance: chanceOf(on.seed + k), untilMs });
  let until = share(0.7);
  const [kills, lost] = await shared(benches, on.kills, (bench, count, k) => killed(bench, count, lane(k, until)));
  console.log(`kills: ${kills}, lost ${lost}`);
  until = share(0.2);
  const [pairs, notOneWriter] = await shared(benches, on.rounds, (bench, count, k) => paired(bench, count, lane(k, until)));
  console.log(`pairs: ${pairs}, wrong ${notOneWriter}`);
  until = share(0.2);
  const [full, falseWords] = await shared(benches, on.rounds, (bench, count, k) => starved(bench, count, lane(k, until)));
  return { kills, lost, pairs, notOneWriter, starved: full, falseWords };
}
