import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { RAIN_RULES, WAY_RULES } from '../checks/index.ts';
import { FORMULAS } from '../derive/index.ts';
import { SILL_RULES } from '../works/level-sill/index.ts';
import { SWALE_RULES } from '../works/swale/index.ts';

describe('references', () => {
  it('every cited key stands in docs/references.md', () => {
    const known = new Set(
      [...readFileSync(join(process.cwd(), 'docs/references.md'), 'utf8').matchAll(/^\| `([^`]+)` \|/gm)].map((m) => m[1]),
    );
    const cited = [...FORMULAS, ...SWALE_RULES, ...SILL_RULES, ...WAY_RULES, ...RAIN_RULES].map((c) => c.source.key);
    expect(cited.filter((key) => !known.has(key))).toEqual([]);
    expect(known.size).toBeGreaterThan(5);
  });
});
