// What a case does to stores and their ways out: debris closes openings, and what stands above them still lets water over.
import { describe, expect, it } from '@jest/globals';
import type { Case } from '../../project/index.ts';
import { noGrid } from '../../testing/projects.ts';
import { EVERY_KIND, PIPE, POND, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { derive, usualCases } from '../index.ts';
import type { Derived } from '../types.ts';

const under = (one: Omit<Case, 'id' | 'name'>): Derived =>
  derive(valleyProject(EVERY_KIND, { cases: [{ id: 'c', name: 'C', ...one }] }), { registry, grids: noGrid, case: 'c' }).derived;
const PLAIN = derive(valleyProject(EVERY_KIND), { registry, grids: noGrid }).derived;
const flow = (d: Derived, id: string): number => d.outlets.find((o) => o.id === id)?.volumeM3 ?? 0;

describe('a crossing whose pipe is blocked', () => {
  const [half, whole] = [50, 100].map((share) => under({ blockedPercent: { road: share } }));
  it('passes nothing through it, and all over its road', () => {
    expect([flow(PLAIN, 'road#pipe') > 1, flow(PLAIN, 'road#road')]).toEqual([true, 0]);
    expect(flow(whole, 'road#pipe')).toBe(0);
    expect(flow(whole, 'road#road')).toBeGreaterThan(1);
    const road = whole.stores.find((s) => s.id === 'road')!;
    // By hand: a sheet over the dip and the road is thin; shut altogether, water would stand two decimetres over it.
    expect(road.holds).toBe(false);
    expect(road.peakLevelM! - road.crestM).toBeGreaterThan(0);
    expect(road.peakLevelM! - road.crestM).toBeLessThan(0.05);
    expect(Math.abs(whole.balance!.errorFraction)).toBeLessThan(1e-9);
  });
  it('half blocked stands between the two', () => {
    const peak = (d: Derived): number => d.stores.find((s) => s.id === 'road')!.peakLevelM!;
    expect(peak(half)).toBeGreaterThanOrEqual(peak(PLAIN));
    expect(peak(half)).toBeLessThan(peak(whole));
  });
});

describe('a drain not cut to its end yet', () => {
  it('lets nothing out there; its bank is still passed', () => {
    const drain = under({ uncut: ['drain'], stormPercent: 300 });
    expect([flow(PLAIN, 'drain#end') > 0, flow(drain, 'drain#end')]).toEqual([true, 0]);
    expect(flow(drain, 'drain#bank')).toBeGreaterThan(0);
  });
});

describe('usual cases', () => {
  it('ask nothing of a work that is retired', () => {
    const blocked = (status: 'existing' | 'retired'): string[] =>
      usualCases(valleyProject([POND, { ...PIPE, status }]), { registry }).flatMap((c) => (c.blockedPercent ? [c.id] : []));
    expect([blocked('existing'), blocked('retired')]).toEqual([['blocked-pipe'], []]);
  });
});
