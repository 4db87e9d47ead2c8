import puppeteer from 'puppeteer-core';
import { launchOptions } from './chromium.mjs';
const wait = (ms) => new Promise(r => setTimeout(r, ms));
const b = await puppeteer.launch(launchOptions());
const p = await b.newPage(); await p.setViewport({ width: 1280, height: 800 });
await p.goto('http://127.0.0.1:4198/p/quill-lane/works', { waitUntil: 'networkidle0' });
await wait(6000);
const [px, py] = await p.evaluate((at) => globalThis.outletPlan.pixelOf(at), [440000 + 45.2, 4606000 + 28.83]);
const box = await p.$eval('[data-testid="plan"]', (e) => ({ x: e.getBoundingClientRect().left, y: e.getBoundingClientRect().top }));
await p.mouse.click(px + box.x, py + box.y); await wait(1500);
await p.screenshot({ path: '/tmp/shot1.png' });
for (let k = 0; k < 4; k++) { await p.evaluate(() => { const a = document.querySelector('aside'); const s = [...a.querySelectorAll('*'), a].find((e) => e.scrollHeight > e.clientHeight + 40 && getComputedStyle(e).overflowY !== 'visible'); s?.scrollBy(0, 640); }); await wait(400); await p.screenshot({ path: `/tmp/shot${k + 2}.png`, clip: { x: 860, y: 0, width: 420, height: 800 } }); }
await b.close();
