// What a work of several stores passes on: all that leaves any of them, however it may be found.
import { describe, expect, it } from '@jest/globals';
import type { Derived, DerivedLink, DerivedStore } from '../types.ts';
import { leavesMost, partsOf, runsPast } from './series.ts';

const store = (id: string): DerivedStore => ({ id, work: 'w' }) as DerivedStore;
const link = (from: string, to: string, mostM3s: number | null): DerivedLink =>
  ({ from, to, outlet: `${from}#${to}`, mostM3s }) as DerivedLink;
const ROWS = ['w', 'w:2', 'w:3'].map(store);

describe('what leaves a series', () => {
  it('is what leaves any of them, not what the lowest lets out, and not what one sends to the next', () => {
    const links = [link('w', 'w:2', 9), link('w:2', 'property-edge', 0.3), link('w:3', 'pond', 0.1), link('pond', 'property-edge', 7)];
    expect(leavesMost(ROWS, links)).toBeCloseTo(0.4, 12);
    expect(leavesMost(ROWS, [...links, link('w:2', 'terrain-edge', 0.05)])).toBeCloseTo(0.45, 12);
  });
  it('takes nothing off for what runs back, and is not known where any of it is not', () => {
    expect(leavesMost(ROWS, [link('w:2', 'creek', -2), link('w:3', 'creek', 1)])).toBe(1);
    expect(leavesMost(ROWS, [link('w:2', 'creek', 1), link('w:3', 'creek', null)])).toBeNull();
    expect(leavesMost(ROWS, [])).toBe(0);
  });
});

describe('what runs past a work', () => {
  const past = (to: string, [volumeM3, mostM3s]: readonly [number | null, number | null], change: Partial<DerivedLink> = {}): DerivedLink =>
    ({ from: 'w', work: 'w', role: 'past', to, volumeM3, mostM3s, ...change }) as DerivedLink;
  const of = (...links: DerivedLink[]) => runsPast(links, { work: 'w', inside: new Set(['w', 'w:2']) });
  it('is told once for each place it runs to, what its next row meets and what others let by left out', () => {
    const links = [past('edge', [3, 0.1]), past('w:2', [9, 9]), past('pond', [1, 0.2]), past('edge', [4, 0.3]), past('edge', [9, 9], { work: 'v' }), past('edge', [9, 9], { role: 'way' })]; // prettier-ignore
    expect(of(...links)).toEqual([{ to: 'edge', volumeM3: 7, mostM3s: 0.4 }, { to: 'pond', volumeM3: 1, mostM3s: 0.2 }]); // prettier-ignore
  });
  it('is nothing where none does, or no storm is known', () => expect(of(past('edge', [0, 0]), past('edge', [null, null]))).toEqual([]));
});

it('the parts of a work are its stores, one it shares with another too, and its pipes', () => {
  const stores = [{ id: 'a', work: 'w' }, { id: 'b', work: 'v', alsoOf: ['w'] }, { id: 'c', work: 'v' }]; // prettier-ignore
  const conduits = [{ id: 'p', work: 'w' }, { id: 'q', work: 'v' }]; // prettier-ignore
  expect([...partsOf({ stores, conduits } as unknown as Derived, 'w')]).toEqual(['a', 'b', 'p']);
});
