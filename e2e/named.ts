// Finding what is on the page by its role and the name assistive technology gives it. The browser's own search for that works out
// the names of all there is at every frame it waits, which took the page more time than the page itself.
import { buildSync } from 'esbuild';
import { Puppeteer } from 'puppeteer-core';

const source = buildSync({
  stdin: {
    contents: `
      import { computeAccessibleName, getRole } from 'dom-accessibility-api';
      const plain = (text) => text.replace(/\\s+/g, ' ').trim();
      const LIKELY = { button: 'button, summary, input, [role="button"]', textbox: 'input, textarea, [role="textbox"]', link: 'a, [role="link"]' };
      const isThere = (e) => e.checkVisibility({ visibilityProperty: true }) && e.closest('[aria-hidden="true"], [inert]') === null;
      export function all(root, selector) {
        const cut = selector.indexOf('/');
        const [role, name] = [selector.slice(0, cut), plain(selector.slice(cut + 1))];
        const list = role === '' ? '*' : (LIKELY[role] ?? '[role="' + role + '"], input, option');
        return [...root.querySelectorAll(list)].filter((e) => (role === '' || getRole(e) === role) && isThere(e) && plain(computeAccessibleName(e)) === name);
      }`,
    resolveDir: import.meta.dirname,
  },
  bundle: true,
  format: 'iife',
  globalName: 'found',
  minify: true,
  write: false,
}).outputFiles[0].text;

Puppeteer.registerCustomQueryHandler('named', {
  // It is sent to the page as text, with all it needs in it.
  // oxlint-disable-next-line typescript/no-implied-eval
  queryAll: new Function('root', 'selector', `${source}; return found.all(root, selector);`) as (root: Node, selector: string) => Node[],
});

/** A selector of what has this name, and this role where one is told. */
export const named = (name: string, role = ''): string => `named/${role}/${name}`;
