// What the hill full of works costs where it is worked out for people: in a worker of a page, which is compiled otherwise than here.
import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { launch } from 'puppeteer-core';
import { launchOptions } from '../../scripts/chromium.mjs';
import type { FieldWorks } from './field-works.ts';

/** Runs of it, each in a worker of its own: machines are noisy. */
const RUNS = 3;
const WORKER = '/field-page.js';

/** Figures of each run; null where there is no browser to run it. */
export async function fieldWorksInPage(): Promise<readonly FieldWorks[] | null> {
  const options = launchOptions();
  if (!existsSync(options.executablePath)) return null;
  // Compiled beside this.
  const code = readFileSync(new URL('./field-page.js', import.meta.url));
  const server = createServer((asked, answer) => {
    const isCode = asked.url === WORKER;
    answer.setHeader('content-type', isCode ? 'text/javascript' : 'text/html');
    answer.end(isCode ? code : '<!doctype html><title>Bench</title>');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const browser = await launch({ ...options, protocolTimeout: 300_000 });
  try {
    const page = await browser.newPage();
    await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    const runs: FieldWorks[] = [];
    for (let n = 0; n < RUNS; n++) runs.push((await page.evaluate(IN_WORKER)) as FieldWorks);
    return runs;
  } finally {
    await browser.close();
    server.close();
  }
}

/** What the page does: starts the worker and waits for its figures. */
const IN_WORKER = `new Promise((resolve, reject) => {
  const worker = new Worker('${WORKER}');
  worker.onmessage = ({ data }) => { worker.terminate(); resolve(data); };
  worker.onerror = ({ message }) => reject(new Error(message));
})`;
