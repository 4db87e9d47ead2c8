import { describe, expect, it } from '@jest/globals';
import { derived } from '../../testing/projects.ts';
import { ranUnfilled } from '../../testing/unfilled.ts';
import { EVERY_KIND, valleyProject } from '../../testing/valley.ts';

describe('a valley with a work of every kind', () => {
  it('lets water out only of stores that filled to their way out', () => {
    const { derived: d } = derived(valleyProject(EVERY_KIND));
    expect(d.outlets.filter((o) => o.volumeM3 > 1).length).toBeGreaterThan(15);
    expect(ranUnfilled(d)).toEqual([]);
    // What never rose to its way out would be told.
    const [ran] = d.outlets.filter((o) => o.volumeM3 > 1);
    const dry = d.stores.map((s) => (s.id === ran.store ? { ...s, peakLevelM: s.floorM } : s));
    expect(ranUnfilled({ ...d, stores: dry })).toContain(ran.id);
  });
});
