import puppeteer from 'puppeteer-core';
import { launchOptions } from './chromium.mjs';
const [url, out, sel, w = '1280', h = '800', scroll = '0'] = process.argv.slice(2);
const browser = await puppeteer.launch(launchOptions());
const page = await browser.newPage();
page.on('pageerror', (e) => console.log('ERR', e.message));
await page.setViewport({ width: +w, height: +h });
await page.goto('http://127.0.0.1:4198' + url);
await page.waitForSelector('aside');
await new Promise((r) => setTimeout(r, 6000));
if (sel) {
  await page.evaluate((name) => { const b = [...document.querySelectorAll('button[aria-haspopup="listbox"]')].find((x) => (x.getAttribute('aria-labelledby') ?? '').split(' ').some((id) => document.getElementById(id)?.textContent === 'Work') || x.getAttribute('aria-label') === 'Work'); b?.click(); }, sel);
  await page.waitForSelector(`::-p-aria([name="${sel}"][role="option"])`);
  await page.locator(`::-p-aria([name="${sel}"][role="option"])`).click();
  await new Promise((r) => setTimeout(r, 3500));
}
if (scroll !== '0') await page.evaluate((y) => { const a = document.querySelector('aside'); const s = [...document.querySelectorAll('aside, aside *')].find((e) => e.scrollHeight > e.clientHeight + 50 && getComputedStyle(e).overflowY !== 'visible'); (s ?? a).scrollTop = +y; }, scroll);
await new Promise((r) => setTimeout(r, 800));
await page.screenshot({ path: out });
if (process.env.TEXT) console.log(await page.$eval('aside', (e) => e.innerText), await page.$eval('main', (e) => e.innerText.slice(0, 1500)));
await browser.close();
