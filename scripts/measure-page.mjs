// Measures the page while it is panned and while a level is dragged: script time a frame, and what the worker is asked. Prints
// figures and asserts nothing. The app must be running: npm run demo, then node scripts/measure-page.mjs
import puppeteer from 'puppeteer-core';
import { launchOptions } from './chromium.mjs';

const url = process.argv[2] ?? 'http://127.0.0.1:4173';
const browser = await puppeteer.launch(launchOptions());
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Median and 95th percentile of script time in a frame [ms] while something is done, from a trace. */
async function frames(act) {
  await page.tracing.start({ categories: ['devtools.timeline', 'disabled-by-default-devtools.timeline'] });
  await act();
  const trace = JSON.parse(new TextDecoder().decode(await page.tracing.stop())).traceEvents;
  // The page's own thread only, the one that hears the pointer: the worker computes beside it.
  const heard = new Map();
  for (const e of trace) if (e.name === 'EventDispatch') heard.set(`${e.pid}.${e.tid}`, (heard.get(`${e.pid}.${e.tid}`) ?? 0) + 1);
  const [thread] = [...heard].sort((a, b) => b[1] - a[1])[0] ?? [''];
  const isOwn = (e) => `${e.pid}.${e.tid}` === thread;
  const commits = trace.filter((e) => e.name === 'Commit' && isOwn(e)).sort((a, b) => a.ts - b.ts);
  const calls = ['FunctionCall', 'FireAnimationFrame', 'EventDispatch', 'TimerFire'];
  const scripts = trace.filter((e) => e.ph === 'X' && isOwn(e) && calls.includes(e.name));
  const marks = commits.map((e) => e.ts);
  const perFrame = marks.slice(0, -1).map((from, i) => {
    // Outermost calls only: a handler contains the calls it makes.
    const inside = scripts.filter((e) => e.ts >= from && e.ts < marks[i + 1]).sort((a, b) => a.ts - b.ts);
    let [sum, until] = [0, 0];
    for (const e of inside) {
      if (e.ts < until) continue;
      sum += e.dur ?? 0;
      until = e.ts + (e.dur ?? 0);
    }
    return sum / 1000;
  });
  perFrame.sort((a, b) => a - b);
  const at = (share) => Number((perFrame[Math.floor(share * (perFrame.length - 1))] ?? 0).toFixed(2));
  return { frames: perFrame.length, medianMs: at(0.5), p95Ms: at(0.95) };
}

async function drag(from, to, steps) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let k = 1; k <= steps; k++) {
    await page.mouse.move(from.x + ((to.x - from.x) * k) / steps, from.y + ((to.y - from.y) * k) / steps);
    await wait(16);
  }
  await page.mouse.up();
}

await page.goto(`${url}/p/sallow-rise/land`, { waitUntil: 'networkidle0' });
await wait(2500);
const panning = await frames(() => drag({ x: 700, y: 640 }, { x: 420, y: 480 }, 90));
await page.goto(`${url}/p/sallow-rise/levels`, { waitUntil: 'networkidle0' });
await wait(2500);
const mark = await page.$eval('[data-testid="mark-crest"]', (e) => {
  const b = e.getBoundingClientRect();
  return { x: b.left + b.width / 2, y: b.top + b.height / 2 };
});
const dragging = await frames(() => drag(mark, { x: mark.x, y: mark.y - 30 }, 60));
console.log(JSON.stringify({ panning, draggingALevel: dragging }));
await browser.close();
