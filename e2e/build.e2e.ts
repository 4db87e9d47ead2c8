// What the browser is sent before it can show anything, and what it is never sent.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { describe, expect, it } from '@jest/globals';

const DIST = join(__dirname, '../dist');
const ASSETS = join(DIST, 'assets');
const size = (name: string): number => gzipSync(readFileSync(join(ASSETS, name))).length / 1000;
const html = readFileSync(join(DIST, 'index.html'), 'utf8');
/** The script of the page and all it needs at once. */
const first = [...html.matchAll(/(?:src|href)="\/assets\/([^"]+\.js)"/g)].map((m) => m[1]);
const scripts = readdirSync(ASSETS).filter((name) => name.endsWith('.js'));
const ofPage = scripts.filter((name) => !name.includes('worker'));
const holding = (names: readonly string[], text: string): string[] =>
  names.filter((name) => readFileSync(join(ASSETS, name), 'utf8').includes(text));

describe('the page as it is built', () => {
  it('begins with less than 300 kB of script, packed; the plan and charts come by themselves', () => {
    expect(first.length).toBeGreaterThan(1);
    expect(first.reduce((sum, name) => sum + size(name), 0)).toBeLessThan(300);
    for (const part of ['Plan-', 'RainSheet-', 'GroundSheet-', 'StormSheet-', 'PegsSheet-', 'LandSheet-', 'CartesianChart-']) {
      expect(scripts.filter((name) => name.startsWith(part))).toHaveLength(1);
      expect(first.filter((name) => name.startsWith(part))).toEqual([]);
    }
  });
  it('has what a work is, and not what works it out', () => {
    // The name of a field is in both; a rule and a formula only where they are used.
    expect(holding(ofPage, 'Bottom of the trench at its outer end').length).toBe(1);
    for (const text of ['pond.foot-unknown', 'swale.bank-freeboard', 'pond.wall-section']) {
      expect(holding(ofPage, text)).toEqual([]);
      expect(holding(scripts, text).length).toBeGreaterThan(0);
    }
  });
  it('keeps the table of coordinate systems once', () => {
    expect(scripts.filter((name) => name.startsWith('crs-table'))).toHaveLength(1);
  });
});
