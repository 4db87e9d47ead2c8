// Takes docs/screenshots from the demo. The app must be running: npm run demo, then node scripts/screenshots.mjs
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import { launchOptions } from './chromium.mjs';

const url = process.argv[2] ?? 'http://127.0.0.1:4173';
const out = (name) => join(import.meta.dirname, '../docs/screenshots', `${name}.png`);
const browser = await puppeteer.launch(launchOptions());
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });

async function shot(name, path, act) {
  await page.goto(`${url}${path}`, { waitUntil: 'networkidle0' });
  await wait(1800);
  if (act) await act();
  await wait(700);
  await page.screenshot({ path: out(name) });
}

const P = '/p/sallow-rise';
await shot('works', `${P}/works`);
await shot('storm-in-works', `${P}/works`, () =>
  page.$eval('aside', (e) => {
    e.scrollTop = 1130;
  }),
);
await shot('land', `${P}/land`);
await shot('rain', `${P}/rain`);
await shot('ground', `${P}/ground`);
await shot('levels', `${P}/levels`);
await shot('sill', `${P}/works`, () => page.locator('::-p-aria([name="Open Orchard swale sill"])').click());
await shot('checks', `${P}/works`, () => page.locator('header button[aria-label^="Checks"]').click());
await shot('start', '/start');
await shot('pegs', `${P}/pegs`, async () => {
  const field = await page.waitForSelector('::-p-aria([name="Height of collimation"][role="textbox"])');
  await field.type('136.2');
  await page.keyboard.press('Tab');
});
await page.setViewport({ width: 390, height: 844, deviceScaleFactor: 2, isMobile: true, hasTouch: true });
await shot('pegs-phone', `${P}/pegs`, () => page.$eval('aside', (e) => e.scrollIntoView()));
await shot('works-phone', `${P}/works`);
await browser.close();
