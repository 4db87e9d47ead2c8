import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { AxeResults, RunOptions } from 'axe-core';
import type { Visitor } from './driver.ts';

/** What hangs on colours: all that another theme can change. */
export const BY_COLOUR = ['color-contrast', 'link-in-text-block'];

/** As the page is to run it; here it is only read. */
const source = readFileSync(join(process.cwd(), 'node_modules/axe-core/axe.min.js'), 'utf8');

type WithAxe = Window & { axe?: { run(options: RunOptions): Promise<AxeResults> } };

/** Serious findings of axe on the page as it stands. Only what fails is written out; a page at work is waited for as long as it takes. */
export async function serious({ page }: Visitor, rules?: readonly string[]): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(source);
  return page.evaluate(
    async (only) => {
      const { axe } = window as unknown as WithAxe;
      if (!axe) throw new Error('axe did not come to the page');
      const { violations } = await axe.run({ resultTypes: ['violations'], ...(only ? { runOnly: only } : {}) });
      return violations
        .filter((x) => x.impact === 'serious' || x.impact === 'critical')
        .map((x) => {
          const where = x.nodes.slice(0, 3).map((n) => n.target.join(' '));
          return `${x.id}: ${where.join(' | ')}`;
        });
    },
    rules && [...rules],
  );
}
