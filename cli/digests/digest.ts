// What is computed, short enough to be kept beside the code: long lists by their sums, words of checks left out.

import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { EVERY_KIND, valleyProject } from '../../core/testing/valley.ts';
import { COMMANDS } from '../commands.ts';

const LONG = 12;
/** Texts that say why and where a limit comes from: told by the rules, not computed. */
const WORDS = new Set(['why', 'source', 'said']);
const isNumbers = (list: readonly unknown[]): boolean => list.flat(2).every((v) => typeof v === 'number' || v === null);

/** A number to ten figures: what differs beyond them is the order of a sum. */
const short = (v: number): number => Number(v.toPrecision(10));

/** A copy in which lists of places and levels are told by how many, their sum and what they end with. */
export function digest(value: unknown): unknown {
  if (typeof value === 'number') return short(value);
  if (Array.isArray(value)) {
    if (!isNumbers(value) || value.length <= LONG) return value.map(digest);
    const flat = (value as unknown[]).flat(2).map((v) => (typeof v === 'number' ? v : 0));
    return { count: value.length, sum: short(flat.reduce((a, v) => a + v, 0)), last: digest(value[value.length - 1]) };
  }
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).flatMap(([k, v]) => (WORDS.has(k) ? [] : [[k, digest(v)]])));
}

/** What is kept: the demo, and a valley with a work of every kind. */
export const DIGESTED = ['demo', 'valley'] as const;

/** What the command line derives of a kept project, in short. */
export async function digestOf(name: (typeof DIGESTED)[number]): Promise<unknown> {
  const folder = mkdtempSync(join(tmpdir(), 'outlet-digest-'));
  const path = name === 'demo' ? fileURLToPath(new URL('../../demo/demo.outlet', import.meta.url)) : join(folder, 'valley.json');
  if (name === 'valley') writeFileSync(path, JSON.stringify(valleyProject(EVERY_KIND)));
  return digest(JSON.parse(await COMMANDS.derive([path, '--json'])));
}
