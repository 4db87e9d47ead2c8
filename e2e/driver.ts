// One server and one browser for a file of interface tests, and the gestures a person would make.
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type BrowserContext, type ElementHandle, type Page } from 'puppeteer-core';
import type { Point } from '#core/geometry';
import type { Project } from '#core/project';
import { createApp, createLimited } from '../server/app.ts';
import { afterAClick, isUncovered, keptProject, stillFor, textOnce, undoAll } from './in-page.ts';
import { named } from './named.ts';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // The browser's own pages behind its address line, made anew for each window.
  '--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup,PreloadTopChromeWebUI',
  // The last of the browser's compilers pays for itself in minutes; a page here lives for seconds, on two cores.
  '--js-flags=--no-turbofan',
];

/** Chromium on this machine; without it the tests fail with a clear line. */
function chromium(): string {
  const chosen = process.env.CHROMIUM_PATH;
  const places = chosen ? [chosen] : ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
  const found = places.find((p) => existsSync(p));
  if (!found) throw new Error(`No Chromium at ${places.join(' or ')}: install it or set CHROMIUM_PATH. The interface tests need it.`);
  return found;
}

/** What the plan leaves on the page for measuring. */
interface MapWindow {
  readonly outletPlan?: { readonly pixelOf: (at: [number, number]) => [number, number] };
}

export interface Bench {
  readonly url: string;
  readonly browser: Browser;
  /** Closes every page that was opened, but for those of contexts that are kept for the next test. */
  readonly tidy: () => Promise<void>;
  readonly kept: Set<BrowserContext>;
  readonly close: () => Promise<void>;
}

export async function openBench(): Promise<Bench> {
  const server = await new Promise<Server>((resolve) => {
    const s = createLimited(createApp()).listen(0, '127.0.0.1', () => resolve(s));
  });
  const browser = await puppeteer.launch({
    executablePath: chromium(),
    headless: true,
    args: FLAGS,
    userDataDir: mkdtempSync(join(tmpdir(), 'outlet-chromium-')),
  });
  const kept = new Set<BrowserContext>();
  return {
    kept,
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    browser,
    tidy: async () => {
      for (const context of browser.browserContexts())
        if (context !== browser.defaultBrowserContext() && !kept.has(context)) await context.close();
    },
    close: async () => {
      await browser.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

/** A page on a desk. */
const DESK = { width: 1280, height: 800 };
/** How long what is waited for may take, looked at every so often: a slow machine takes its time. */
const [WAIT_MS, LOOKS] = [45000, 450];

/** A page of its own context, speaking in the words on the screen. Page errors fail the test that caused them. */
export class Visitor {
  readonly errors: string[] = [];
  private constructor(
    readonly page: Page,
    private readonly url: string,
    readonly downloads: string,
  ) {}

  static async arrive(
    bench: Bench,
    path: string,
    how: { width?: number; height?: number; context?: BrowserContext; before?: () => void } = {},
  ): Promise<Visitor> {
    const context = how.context ?? (await bench.browser.createBrowserContext());
    const page = await context.newPage();
    const downloads = mkdtempSync(join(tmpdir(), 'outlet-downloads-'));
    const visitor = new Visitor(page, bench.url, downloads);
    page.on('pageerror', (e) => visitor.errors.push(e instanceof Error ? e.message : String(e)));
    page.setDefaultTimeout(45000);
    const isPhone = (how.width ?? DESK.width) < 700;
    await page.setViewport({
      ...DESK,
      ...(how.width === undefined ? {} : { width: how.width }),
      ...(how.height === undefined ? {} : { height: how.height }),
      ...(isPhone ? { isMobile: true, hasTouch: true, deviceScaleFactor: 2 } : {}),
    });
    const session = await page.createCDPSession();
    await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: downloads, browserContextId: context.id });
    // Functions sent to the page by a loader that keeps their names call a helper of that loader.
    await page.evaluateOnNewDocument('globalThis.__name = (f) => f');
    if (how.before) await page.evaluateOnNewDocument(how.before);
    await visitor.go(path);
    return visitor;
  }

  async go(path: string): Promise<void> {
    await this.page.goto(`${this.url}${path}`, { waitUntil: 'networkidle0' });
  }

  /** As if it had just arrived: what was done is undone, what lies over the page closed, and the page goes on to the path without being loaded. */
  async again(path: string): Promise<void> {
    this.errors.length = 0;
    this.forgetDownloads();
    for (let k = 0; k < 2; k++) await this.page.keyboard.press('Escape');
    await this.uncovered();
    await this.page.setViewport(DESK);
    await this.page.evaluate(undoAll);
    await this.page.evaluate((to) => {
      history.pushState(null, '', to);
      dispatchEvent(new PopStateEvent('popstate', { state: null }));
    }, path);
    await this.page.mouse.move(2, 2);
    await this.settled();
  }

  /** Waits until nothing on the page has moved for a moment, as a person does before reaching for a thing; two seconds at most. */
  private async settled(): Promise<void> {
    await this.page.evaluate(stillFor, 120, 2000);
  }

  /** Clicks what has this accessible name. */
  async press(name: string, role = 'button'): Promise<void> {
    await this.settled();
    await this.page.locator(named(name, role)).click();
  }

  /** Opens a part of a sheet that is folded until it is looked up; it stays open for all that follows. */
  async unfold(title: string): Promise<void> {
    await this.settled();
    const folder = await this.page.waitForSelector(`section[aria-label="${title}"] button[aria-expanded]`);
    if (await folder?.evaluate((button) => button.ariaExpanded === 'false')) await folder?.click();
  }

  /** Opens a menu of the plan and takes an item. */
  async menu(label: string, item: string): Promise<void> {
    const handle = await this.page.waitForFunction(
      (name) => [...document.querySelectorAll('[role="toolbar"] button')].find((b) => b.textContent?.startsWith(name)),
      {},
      label,
    );
    await (handle as unknown as ElementHandle<HTMLButtonElement>).click();
    await this.page.locator(named(item, 'menuitem')).click();
    await this.page.waitForFunction(() => document.querySelector('[role="menu"]') === null);
  }

  /** Clicks places of the land one by one, slowly enough that no two make a double click. */
  async clickPlaces(points: readonly Point[]): Promise<void> {
    await this.settled();
    for (const p of points) {
      const { x, y } = await this.onPage(p);
      await this.page.mouse.click(x, y);
      await this.page.evaluate(afterAClick);
    }
  }

  async stage(name: string): Promise<void> {
    await this.page.locator(`nav[aria-label="Stages"] a[href$="/${name.toLowerCase()}"]`).click();
    await this.page.waitForSelector(`aside[aria-label="${name} sheet"]`);
  }

  /** Types into the field with this label and leaves it. */
  async type(label: string, text: string): Promise<void> {
    const field = await this.page.waitForSelector(named(label, 'textbox'));
    await this.settled();
    await field?.click();
    // All of it, whatever was drawn again between two clicks: what is typed takes its place.
    await field?.evaluate((e) => (e as HTMLInputElement).select());
    await field?.type(text);
    await this.page.keyboard.press('Tab');
  }

  async valueOf(label: string): Promise<string> {
    const field = await this.page.waitForSelector(named(label, 'textbox'));
    return (await field?.evaluate((e) => (e as HTMLInputElement).value)) ?? '';
  }

  /** Chooses from a list by its label and the option's name. */
  async choose(label: string, option: string): Promise<void> {
    const handle = await this.page.waitForFunction(
      (name) => {
        // The button of a list is labelled by its value and by the list's own label.
        const says = (b: Element): boolean =>
          b.getAttribute('aria-label') === name ||
          (b.getAttribute('aria-labelledby') ?? '').split(' ').some((id) => document.getElementById(id)?.textContent === name);
        return [...document.querySelectorAll('button[aria-haspopup="listbox"]')].find(says);
      },
      {},
      label,
    );
    await this.settled();
    const wanted = named(option, 'option');
    // A sheet's drawing stays in sight over what is scrolled under it: there a click would meet the drawing.
    await (handle as unknown as ElementHandle<HTMLButtonElement>).evaluate((e) => e.scrollIntoView({ block: 'center' }));
    for (let again = 0; ; again++) {
      // As a locator it waits until the button holds still: a handle alone would click where it was.
      await (handle as unknown as ElementHandle<HTMLButtonElement>).asLocator().click();
      // A list that opens while the page is drawn again may close at once: a person opens it once more.
      const isOpen = await this.page.waitForSelector(wanted, { timeout: 8000 }).then(
        () => true,
        () => false,
      );
      if (isOpen || again > 2) break;
    }
    await this.page.locator(wanted).click();
    // Until the list has let go of the page it takes the next click for itself.
    await this.page.waitForSelector(wanted, { hidden: true });
  }

  /** Gives a file to the button that asks for one. */
  async give(button: string, path: string): Promise<void> {
    const [chooser] = await Promise.all([this.page.waitForFileChooser(), this.press(button)]);
    await chooser.accept([path]);
  }

  /** Drops a file on the page, wherever that is. */
  drop(name: string, bytes: Uint8Array): Promise<void> {
    return this.dropAll({ [name]: bytes });
  }

  /** Drops several files at once. */
  async dropAll(files: Readonly<Record<string, Uint8Array>>): Promise<void> {
    await this.page.evaluate(
      (list) => {
        const data = new DataTransfer();
        for (const [called, base64] of list) data.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], called));
        document.body.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
      },
      Object.entries(files).map(([name, bytes]) => [name, Buffer.from(bytes).toString('base64')] as const),
    );
  }

  /** Puts anything into the browser's store as if a project had been kept so. */
  async keepRaw(id: string, project: unknown): Promise<void> {
    await this.page.evaluate(
      (key, value) =>
        new Promise<void>((resolve, reject) => {
          const request = indexedDB.open('outlet');
          request.onerror = () => reject(new Error('no storage'));
          request.onsuccess = () => {
            const put = request.result
              .transaction('projects', 'readwrite')
              .objectStore('projects')
              .put({ project: value, savedAt: Date.now() }, key);
            put.onsuccess = () => {
              request.result.close();
              resolve();
            };
          };
        }),
      id,
      project as object,
    );
  }

  /** Text of a region once it matches: looked at where it stands, and only when something on the page has changed. */
  async reads(selector: string, pattern: RegExp): Promise<string> {
    const until = Date.now() + WAIT_MS;
    while (Date.now() < until) {
      // A page that goes, or is loaded anew, ends its own waiting: the next one is asked.
      const found = await this.page
        .evaluate(textOnce, selector, [pattern.source, pattern.flags] as const, until - Date.now())
        .catch(() => null);
      if (found !== null) return found;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error(`${selector} does not read ${String(pattern)}, but: ${await this.text(selector)}`);
  }

  /** A figure once it is right: what is computed follows an edit a moment later. */
  async until<T>(read: () => Promise<T>, isRight: (value: T) => boolean): Promise<T> {
    let value = await read();
    for (let i = 0; i < LOOKS && !isRight(value); i++) {
      await new Promise((resolve) => setTimeout(resolve, 100));
      value = await read();
    }
    if (!isRight(value)) throw new Error(`it stays ${JSON.stringify(value)}`);
    return value;
  }

  /** What a region says, with plain spaces. */
  async text(selector: string): Promise<string> {
    const text = await this.page
      .$eval(selector, (e) => (e instanceof HTMLElement ? e.innerText : (e.textContent ?? '')))
      .catch(() => '(nothing there)');
    return text.replace(/[\u00a0\u202f]/g, ' ');
  }

  verdict(pattern: RegExp): Promise<string> {
    return this.reads('[data-testid="verdict"]', pattern);
  }

  /** Where a place of the land lies on the page. */
  async onPage(at: Point): Promise<{ x: number; y: number }> {
    await this.page.waitForFunction(() => (window as unknown as MapWindow).outletPlan !== undefined);
    return this.page.evaluate(
      (p) => {
        const box = document.querySelector('[data-testid="plan"]')?.getBoundingClientRect();
        const [x, y] = (window as unknown as MapWindow).outletPlan?.pixelOf(p) ?? [0, 0];
        return { x: x + (box?.left ?? 0), y: y + (box?.top ?? 0) };
      },
      at as [number, number],
    );
  }

  /** Waits until no list or menu lies over the page any more: one that is closing takes a click for itself. */
  private async uncovered(): Promise<void> {
    await this.page.waitForFunction(isUncovered);
  }

  /** Waits until the plan holds still: what is told beside it may take room from it. */
  private async planStill(at: Point): Promise<void> {
    for (let k = 0, before = await this.onPage(at); k < 20; k++) {
      await new Promise((resolve) => setTimeout(resolve, 150));
      const now = await this.onPage(at);
      if (now.x === before.x && now.y === before.y) return;
      before = now;
    }
  }

  /** Draws through places of the land and ends with a double click. */
  async draw(points: readonly Point[]): Promise<void> {
    // The first answer takes room from the plan: a hand that draws before it would find the land moved under it.
    await this.page.waitForFunction(
      () => !/…(\s\d+\s%)?$/.test(document.querySelector('[data-testid="verdict"] p')?.textContent?.trim() ?? ''),
    );
    // A tool that was just taken up is in hand once the page has said so.
    await this.uncovered();
    await this.settled();
    await this.planStill(points[0]);
    for (const [i, p] of points.entries()) {
      const { x, y } = await this.onPage(p);
      await this.page.mouse.move(x, y, { steps: 3 });
      await this.page.mouse.click(x, y, { count: i === points.length - 1 ? 2 : 1, delay: 20 });
      await this.page.evaluate(afterAClick);
    }
  }

  async dragFrom(from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    await this.page.mouse.move(to.x, to.y, { steps: 6 });
    await this.page.mouse.up();
  }

  middleOf(selector: string): Promise<{ x: number; y: number }> {
    return this.page.$eval(selector, (e) => {
      const b = e.getBoundingClientRect();
      return { x: b.left + b.width / 2, y: b.top + b.height / 2 };
    });
  }

  /** The project as the browser keeps it. */
  async kept(): Promise<Project> {
    await this.reads('[data-testid="saved"]', /^saved$/);
    const id = /\/p\/([^/]+)/.exec(this.page.url())?.[1] ?? '';
    return this.page.evaluate(keptProject, id) as Promise<Project>;
  }

  /** What was downloaded is put away, so that the next file of its kind is the one found. */
  forgetDownloads(): void {
    for (const name of readdirSync(this.downloads)) rmSync(join(this.downloads, name));
  }

  /** Waits for a downloaded file and gives its bytes. */
  async downloaded(ending: string): Promise<Uint8Array> {
    for (let i = 0; i < 200; i++) {
      const name = readdirSync(this.downloads).find((n) => n.endsWith(ending));
      if (name) return new Uint8Array(readFileSync(join(this.downloads, name)));
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error(`nothing ending in ${ending} was downloaded; the page says: ${await this.text('main')}`);
  }
}
