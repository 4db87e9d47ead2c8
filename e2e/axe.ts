import { AxePuppeteer } from '@axe-core/puppeteer';
import type { Visitor } from './driver.ts';

/** Serious findings of axe on the page as it stands. Only what fails is written out, and no second page is opened for it. */
export async function serious(v: Visitor): Promise<string[]> {
  const { violations } = await new AxePuppeteer(v.page)
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .analyze();
  return violations
    .filter((x) => x.impact === 'serious' || x.impact === 'critical')
    .map(
      (x) =>
        `${x.id}: ${x.nodes
          .map((n) => n.target.join(' '))
          .slice(0, 3)
          .join(' | ')}`,
    );
}
