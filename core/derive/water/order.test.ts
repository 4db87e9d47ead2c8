import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { noGrid } from '../../testing/projects.ts';
import { EVERY_KIND, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { derive } from '../index.ts';
import type { Derived } from '../types.ts';
import { type Needing, dependencyOrder } from './order.ts';

const work = (id: string, ...needs: readonly string[]): Needing => ({ id, needs });
const ids = (list: readonly Needing[]): string[] => list.map((w) => w.id);

describe('the order works are placed in', () => {
  it('keeps that of the document where nothing needs another, and puts each after what it needs', () => {
    const { order, ringed } = dependencyOrder([work('c', 'b'), work('a'), work('b', 'a'), work('d', 'c', 'a'), work('e')]);
    expect([ids(order), ringed]).toEqual([['a', 'e', 'b', 'c', 'd'], []]);
  });
  it('leaves out works that need one another in a ring, and those that hang on them; a need that is not there is none', () => {
    const { order, ringed } = dependencyOrder([work('a', 'b'), work('b', 'a'), work('c', 'a'), work('d', 'gone')]);
    expect([ids(order), ids(ringed)]).toEqual([['d'], ['a', 'b', 'c']]);
  });
  it('holds for any works that need only earlier ones, however they stand in the document', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(19), { maxLength: 3 }), { minLength: 1, maxLength: 20 }), fc.nat(), (needs, turn) => {
        const works = needs.map((list, k) => work(`w${k}`, ...list.filter((n) => n < k).map((n) => `w${n}`)));
        const shuffled = works.map((_, k) => works[(k * 7 + turn) % works.length]).filter((w, k, all) => all.indexOf(w) === k);
        const { order, ringed } = dependencyOrder(shuffled);
        const at = new Map(order.map((w, k) => [w.id, k]));
        expect(order.length + ringed.length).toBe(shuffled.length);
        expect(ringed).toEqual([]);
        for (const one of order) for (const need of one.needs) expect(at.get(need) ?? -1).toBeLessThan(at.get(one.id) ?? -1);
      }),
      { seed: 11, numRuns: 100 },
    );
  });
});

describe('a document whose works stand the other way round', () => {
  it('comes to the same, guests before their hosts', () => {
    const of = (works: typeof EVERY_KIND): Derived => derive(valleyProject([...works]), { registry, grids: noGrid }).derived;
    const [there, back] = [of(EVERY_KIND), of([...EVERY_KIND].reverse())];
    const byId = <T extends { readonly id: string }>(list: readonly T[]): T[] => [...list].sort((a, b) => (a.id < b.id ? -1 : 1));
    expect(back.uncomputed).toEqual([]);
    expect(byId(back.stores).map((st) => [st.id, st.heldM3, st.sillM, st.crestM])).toEqual(
      byId(there.stores).map((st) => [st.id, st.heldM3, st.sillM, st.crestM]),
    );
    // A cell two works share belongs to the one that stands first: it is worth a millimetre.
    const peaks = new Map(there.stores.map((st) => [st.id, st.peakLevelM!]));
    for (const st of back.stores) expect(Math.abs(st.peakLevelM! - peaks.get(st.id)!)).toBeLessThan(0.001);
    expect(byId(back.outlets).map((o) => [o.id, o.levelM])).toEqual(byId(there.outlets).map((o) => [o.id, o.levelM]));
  });
});
