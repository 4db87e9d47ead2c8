import { describe, expect, it } from '@jest/globals';
import type { OutletRole } from '../../contract/index.ts';
import { formatQuantity } from '../../units/index.ts';
import type { Derived, DerivedStore } from '../types.ts';
import { WAY_WORDS, leavesFirst } from './way-words.ts';

const STORE = { id: 's', sillM: 10, wayOutM: 10, crestM: 10.3 } as DerivedStore;
const told = (change: Partial<DerivedStore>, lowest: OutletRole = 'way') => {
  const store = { ...STORE, ...change };
  const outlets = [
    { store: 's', levelM: 10.2, role: 'bank' },
    { store: 's', levelM: store.wayOutM, role: lowest },
    { store: 'other', levelM: store.wayOutM, role: 'eaves' },
  ] as unknown as Derived['outlets'];
  const pieces = leavesFirst(store, { outlets, name: 'Fork', q: (v, kind) => formatQuantity(v, kind, 'metric').replace('\u00a0', ' ') });
  return { words: pieces.map((p) => p.text).join(''), isAlarm: pieces.some((p) => p.tone === 'alarm') };
};

describe('where water leaves first', () => {
  it('is over the sill, with what the crest stands over it', () => {
    expect(told({})).toEqual({ words: 'In Fork water leaves first at 10.00 m, over its sill; the bank crest stands 300 mm above it.', isAlarm: false }); // prettier-ignore
    expect(told({ sillM: null }).words).toMatch(/^Fork has no sill: water would leave over the bank at 10\.00 m\.$/);
  });
  it.each<readonly [OutletRole, string, boolean]>([
    ['through', 'through it', false],
    ['pipe', 'through its pipe', false],
    ['low', 'over its low bank', true],
    ['round', 'round its wall', true],
  ])('lower than the sill is by the way that lies there: %s', (role, by, isAlarm) => {
    expect(told({ wayOutM: 9.975 }, role)).toEqual({ words: `In Fork water leaves first at 9.97 m, ${by}, 25 mm below its sill.`, isAlarm }); // prettier-ignore
  });
  it('reads as a sentence for every way there is', () => {
    for (const { by, name } of Object.values(WAY_WORDS)) {
      expect(by).toMatch(/^(over|out of|through|round|by|past|down) \S/);
      expect(name.length).toBeGreaterThan(2);
    }
  });
});
