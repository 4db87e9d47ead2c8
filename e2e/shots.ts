import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openProjectFile, writeProjectFile } from '#core/formats';
import { openBench, Visitor } from './driver.ts';
const b = await openBench();
const demo = new Uint8Array(readFileSync(join(process.cwd(), 'demo/demo.outlet')));
const { json, assets } = openProjectFile('d', demo);
const p = json as any;
const off = { ...p, id: 'off', name: 'Sallow Rise, moved', options: [{ ...p.options[0], works: p.options[0].works.map((w: any) => (w.name === 'Orchard swale' ? { ...w, line: w.line.map(([x, y]: number[]) => [x + 400, y]) } : w)) }] };
const v = await Visitor.arrive(b, '/start');
await v.drop('off.outlet', writeProjectFile(off, new Map(assets)));
await v.page.waitForFunction(() => location.pathname === '/p/off/works');
await v.verdict(/not computed/);
await new Promise((r) => setTimeout(r, 1500));
for (let k=0;k<2;k++){ await v.page.locator('button.ol-zoom-out').click().catch(()=>v.page.locator('::-p-text(−)').click()); await new Promise((r) => setTimeout(r, 600)); }
await v.page.screenshot({ path: '/tmp/s-off.png' });
await b.close();
