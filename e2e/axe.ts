import { AxePuppeteer } from '@axe-core/puppeteer';
import type { Visitor } from './driver.ts';

/** What hangs on colours: all that another theme can change. */
export const BY_COLOUR = ['color-contrast', 'link-in-text-block'];

/** Serious findings of axe on the page as it stands. Only what fails is written out, and no second page is opened for it. */
export async function serious(v: Visitor, rules?: readonly string[]): Promise<string[]> {
  const axe = new AxePuppeteer(v.page).setLegacyMode(true).options({ resultTypes: ['violations'] });
  const { violations } = await (rules ? axe.withRules([...rules]) : axe).analyze();
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
