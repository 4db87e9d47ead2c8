import { describe, expect, it } from '@jest/globals';
import { volumeAt } from '../../network/index.ts';
import { DAMS, valleyAt } from '../../testing/valley.ts';
import { gridOf } from '../../testing/grids.ts';
import { siteOf } from '../../testing/rules.ts';
import { checkDams } from '../../works/check-dams/index.ts';
import { AS_DESIGNED, storeUnder } from './conditions.ts';

const SITE = siteOf(gridOf(valleyAt, { cells: 101, cellM: 2 }));
const stores = (form: 'rock' | 'log') => checkDams.place({ ...DAMS, form }, checkDams.measure(DAMS, SITE, null), null).stores([]);

describe('a store as a case has it', () => {
  it('stays the same thing where the case leaves it alone', () => {
    for (const store of stores('log')) {
      expect(storeUnder(store, AS_DESIGNED)).toBe(store);
      expect(storeUnder(store, { ...AS_DESIGNED, blocked: new Map([['other', 1]]), silted: new Map([['other', 1]]) })).toBe(store);
    }
  });
  it('lets half as much over its notch where half of it is closed, and all over its ends', () => {
    const [store] = stores('log');
    const half = storeUnder(store, { ...AS_DESIGNED, blocked: new Map([['dams', 0.5]]) });
    const at = store.crestM + 0.1;
    expect(half.outlets.map((o, k) => o.flowAt(at) / store.outlets[k].flowAt(at))).toEqual([expect.closeTo(0.5, 12), 1]);
  });
  it('loses to silt a share of what it holds, or of what stands up to its notch where that leaks away', () => {
    const silted = new Map([['dams', 0.4]]);
    for (const form of ['log', 'rock'] as const) {
      const [store] = stores(form);
      const under = storeUnder(store, { ...AS_DESIGNED, silted });
      const room = volumeAt(store.stage, store.sillM!);
      expect(volumeAt(under.stage, store.sillM!) / room).toBeCloseTo(0.6, 2);
      expect(under.floorM).toBeGreaterThan(store.floorM);
      expect(under.heldM3).toBeCloseTo(form === 'log' ? 0.6 * store.heldM3 : 0, 1);
    }
  });
});
