import puppeteer from 'puppeteer-core';
import { launchOptions } from './chromium.mjs';
const url = 'http://127.0.0.1:4198';
const browser = await puppeteer.launch(launchOptions());
const wait = (ms) => new Promise((r) => setTimeout(r, ms));
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });
const [W,S]=[436000,4618000];
const errors=[]; page.on('pageerror',(e)=>errors.push(String(e)));
const take = async (menu, item) => {
  await page.locator(`[role="toolbar"] ::-p-text(${menu})`).click();
  await page.locator(`::-p-aria([name="${item}"][role="menuitem"])`).click();
  await wait(600);
};
const clickAt = async ([x, y], count = 1) => {
  const [px, py] = await page.evaluate((at) => globalThis.outletPlan.pixelOf(at), [W + x, S + y]);
  const box = await page.$eval('[data-testid="plan"]', (e) => ({ x: e.getBoundingClientRect().left, y: e.getBoundingClientRect().top }));
  await page.mouse.click(px + box.x, py + box.y, { count, delay: 20 });
  await wait(450);
};
const draw = async (pts) => { for (const [k,p] of pts.entries()) await clickAt(p, k===pts.length-1?2:1); };
const shot = async (n) => { await page.screenshot({ path: `/tmp/pic-${n}.png` }); console.log(n); };
const scroll = (y) => page.$eval('aside', (e, t) => { e.scrollTop = t; }, y);
const go = async (p) => { await page.goto(url + p, { waitUntil: 'networkidle0' }); await wait(2500); };
const { run } = await import(process.argv[2]);
await run({ page, go, take, draw, shot, scroll, wait });
console.log(errors.join('\n'));
await browser.close();
