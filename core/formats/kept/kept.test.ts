// Project files as they were written by every version so far: each opens, and means what it meant.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { derive } from '../../derive/index.ts';
import { readProject } from '../../project/guard.ts';
import { noGrid } from '../../testing/projects.ts';
import { registry } from '../../works/index.ts';

interface Kept {
  readonly project: { readonly version: number };
  readonly means: {
    readonly stores: readonly (readonly [string, number, number | null, number | null])[];
    readonly links: readonly (readonly [string, string])[];
    readonly severities: readonly string[];
    readonly pegs: number;
    readonly verdict: string;
  };
}

const FOLDER = __dirname;
const FILES = readdirSync(FOLDER).filter((name) => name.endsWith('.json'));
/** Routing may take other steps than it did: a tenth of a litre in a hundred cubic metres is the same water. */
const round = (v: number | null): number | null => (v === null ? null : Number(v.toPrecision(6)));

describe('a file of every version', () => {
  it('is kept from the first on', () => {
    expect(FILES).toContain('version-1.json');
  });
  it.each(FILES)('%s opens and means what it meant', (name) => {
    const kept = JSON.parse(readFileSync(join(FOLDER, name), 'utf8')) as Kept;
    expect(name).toBe(`version-${kept.project.version}.json`);
    const { derived: d } = derive(readProject(kept.project, registry), { registry, grids: noGrid });
    expect(d.uncomputed).toEqual([]);
    expect({
      stores: d.stores.map((s) => [s.id, round(s.heldM3), round(s.peakLevelM), round(s.spilledM3)]),
      links: d.links.map((l) => [l.outlet, l.to]),
      severities: d.checks.map((c) => `${c.severity} ${c.id} ${c.on}`).sort(),
      pegs: d.pegs.length,
      verdict: d.verdicts.storm,
    }).toEqual({ ...kept.means, stores: kept.means.stores.map(([id, ...amounts]) => [id, ...amounts.map(round)]) });
  });
});
