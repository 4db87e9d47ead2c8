// What is computed of whole projects, against what was computed when it was last looked at.
import { readFileSync } from 'node:fs';
import { expect, it } from '@jest/globals';
import { DIGESTED, digestOf } from './digest.ts';

/** Where two results differ: by the ten-millionth, by a text, by a member. */
function differences(found: unknown, kept: unknown, at = ''): string[] {
  if (typeof found === 'number' && typeof kept === 'number')
    return Math.abs(found - kept) <= 1e-7 * Math.max(1e-3, Math.abs(kept)) ? [] : [`${at}: ${found}, was ${kept}`];
  if (typeof found !== 'object' || typeof kept !== 'object' || found === null || kept === null)
    return found === kept ? [] : [`${at}: ${JSON.stringify(found)}, was ${JSON.stringify(kept)}`];
  const [a, b] = [found, kept] as Record<string, unknown>[];
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) => differences(a[key], b[key], `${at}.${key}`));
}

it.each(DIGESTED)(
  'the %s gives the answers it gave',
  async (name) => {
    const kept = JSON.parse(readFileSync(new URL(`${name}.json`, `file://${process.cwd()}/cli/digests/`), 'utf8')) as unknown;
    expect(differences(await digestOf(name), kept).slice(0, 20)).toEqual([]);
  },
  60_000,
);
