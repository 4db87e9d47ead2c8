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
await shot('land', `${P}/land`);
const W = 431000;
const S = 4612000;
const take = async (menu, item) => {
  const name = `[role="toolbar"] ::-p-text(${menu})`;
  await page.locator(name).click();
  await page.locator(`::-p-aria([name="${item}"][role="menuitem"])`).click();
  await wait(400);
};
const clickAt = async ([x, y], count = 1) => {
  const [px, py] = await page.evaluate((at) => globalThis.outletPlan.pixelOf(at), [W + x, S + y]);
  const box = await page.$eval('[data-testid="plan"]', (e) => ({ x: e.getBoundingClientRect().left, y: e.getBoundingClientRect().top }));
  await page.mouse.click(px + box.x, py + box.y, { count, delay: 20 });
  await wait(420);
};
await shot('land-places', `${P}/land`, async () => {
  await page.locator('aside ::-p-text(Find and show them)').click();
  await wait(1500);
});
await page.locator('aside ::-p-text(Find and show them)').click();
await shot('supply', `${P}/supply`, async () => {
  await wait(2500);
  await page.evaluate(() =>
    globalThis.document.querySelector('[role="img"][aria-label^="Barn cistern through"]')?.scrollIntoView({ block: 'end' }),
  );
});
await shot('rain', `${P}/rain`);
await shot('ground', `${P}/ground`, async () => {
  await page.locator('[role="tab"]::-p-text(Rain on it)').click();
  await wait(1500);
});
await shot('levels', `${P}/levels`);
await shot('checks', `${P}/works`, () => page.locator('header button[aria-label^="Checks"]').click());
await shot('yard', '/p/quill-lane/works', async () => {
  await wait(3500);
  // The first list is of options.
  const [, works] = await page.$$('aside button[aria-haspopup="listbox"]');
  await works.click();
  await page.locator('::-p-aria([name="Yard drain"][role="option"])').click();
  await wait(3000);
});
await shot('options', '/p/quill-lane/works', async () => {
  await wait(3500);
  await page.locator('aside ::-p-text(Set them side by side)').click();
  await wait(12000);
  await page.evaluate(() =>
    [...globalThis.document.querySelectorAll('aside p')]
      .find((p) => p.textContent.startsWith('“Drained”'))
      ?.scrollIntoView({ block: 'center' }),
  );
});
await shot('storm-cases', `${P}/storm`, async () => {
  await page.locator('[role="tab"]::-p-text(What if)').click();
  await wait(4000);
});
await shot('storm-order', `${P}/storm`, async () => {
  await page.locator('[role="tab"]::-p-text(What goes first)').click();
  await wait(5000);
});
await shot('start', '/start');
await shot('pegs', `${P}/pegs`, async () => {
  const field = await page.waitForSelector('::-p-aria([name="Height of collimation"][role="textbox"])');
  await field.type('136.2');
  await page.keyboard.press('Tab');
});
await page.setViewport({ width: 390, height: 844, deviceScaleFactor: 2, isMobile: true, hasTouch: true });
await shot('pegs-phone', `${P}/pegs`, () => page.$eval('aside', (e) => e.scrollIntoView()));
await shot('works-phone', `${P}/works`);
await page.setViewport({ width: 1280, height: 800 });
await shot('check-dams', '/p/dry-fork/works', () => wait(3000));
const DRY_FORK = [436000, 4618000];
await shot('advice', '/p/dry-fork/works', async () => {
  await wait(2500);
  await take('What suits here?', 'What suits this field?');
  const ring = [[176, 30], [226, 34], [222, 66], [178, 62]]; // prettier-ignore
  for (const [k, [x, y]] of ring.entries()) await clickAt([DRY_FORK[0] - W + x, DRY_FORK[1] - S + y], k === ring.length - 1 ? 2 : 1);
  await wait(8000);
  const stone = await page.evaluateHandle(() =>
    [...globalThis.document.querySelectorAll('aside button[aria-haspopup="listbox"]')].find((b) => /not said/.test(b.textContent)),
  );
  await stone.click();
  await page.locator('::-p-aria([name="plenty"][role="option"])').click();
  await wait(9000);
  await page.$eval('aside', (e) => {
    e.scrollTop = 0;
  });
});
// Sections of works of every sort, from their sheets, side by side.
await shot('sections', '/p/dry-fork/works', async () => {
  await wait(2500);
  const at = ([x, y]) => [DRY_FORK[0] - W + x, DRY_FORK[1] - S + y];
  const found = [];
  const keep = async () => {
    await wait(3500);
    found.push(
      await page.evaluate(() => {
        const { document } = globalThis;
        const drawing = document.querySelector('aside figure');
        return {
          name: document.querySelector('aside button[aria-haspopup="listbox"]')?.textContent.replace('▾', '').trim() ?? '',
          html: drawing?.outerHTML ?? '',
        };
      }),
    );
  };
  for (const name of ['Upper gully', 'Old weir', 'Gully head', 'Field moons', 'Field lines']) {
    await page.locator('aside button[aria-haspopup="listbox"]').click();
    await page.locator(`::-p-aria([name="${name}"][role="option"])`).click();
    await keep();
  }
  const field = [[176, 90], [226, 94], [222, 126], [178, 122]]; // prettier-ignore
  const drawn = [
    ['Swales over a field, even ground above each', field],
    ['Terraces over a slope', field],
    ['Ripping over a field', field],
    ['Soak trench', [[186, 60], [200, 62]]], // prettier-ignore
    ['Rain gardens in a chain', [[206, 150], [205, 143], [204, 132]]], // prettier-ignore
  ];
  for (const [name, points] of drawn) {
    await take('Draw another work', name);
    for (const [k, p] of points.entries()) await clickAt(at(p), k === points.length - 1 ? 2 : 1);
    await keep();
    await page.locator('button[aria-label="Undo"]').click();
    await wait(2500);
  }
  await page.evaluate((all) => {
    const { document } = globalThis;
    const one = ({ name, html }) =>
      `<figure style="margin:0;padding:10px 14px;border:1px solid var(--line);overflow:hidden"><figcaption style="font-weight:700;margin-bottom:6px">${name}</figcaption>${html}</figure>`;
    document.body.innerHTML = `<main style="display:grid;grid-template-columns:repeat(4,1fr);gap:10px;padding:14px;height:100vh;box-sizing:border-box;align-content:start">${all.map(one).join('')}</main>`;
  }, found);
});
await browser.close();
