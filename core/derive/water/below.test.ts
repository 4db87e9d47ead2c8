// Who lies below, on ground that falls evenly to the south: how far down, how far to the side, and where the map ends.
import { describe, expect, it } from '@jest/globals';
import type { Below, Feature } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { gridOf, modelOf } from '../../testing/grids.ts';
import { Graph, asItself } from '../graph/graph.ts';
import { belowOf } from './below.ts';

// 820 m square: from 780 m up the map goes further down than people are looked for, from 400 m it does not.
const model = asItself(modelOf(gridOf((_x, y) => 100 + 0.1 * y, { cells: 205, cellM: 4 })));
const [HIGH, LOW]: readonly Point[] = [[410, 780], [410, 400]]; // prettier-ignore
const box = (x: number, y: number): Feature => ({
  id: 'house',
  kind: 'building',
  name: 'Mill',
  ring: [[x, y], [x + 8, y], [x + 8, y + 8], [x, y + 8]], // prettier-ignore
});
const below = (features: readonly Feature[], { from = HIGH, retains = 'wall', kind = 'bank' } = {}): Below | undefined =>
  belowOf(
    {
      stores: [{ id: 'w', work: 'w', outlets: [{ kind, dischargeAt: from }] }],
      works: [{ bound: { work: { id: 'w' }, traits: { retains } } }],
    } as never,
    { model: model as never, features, option: { id: 'o', name: 'O', works: [] }, graph: new Graph() },
  ).get('w');

describe('who is met on the way of a flood', () => {
  it('is looked for 600 m down', () => {
    // Within 40 m of the house’s upper side at y + 8: 582 m down the way, and 622 m.
    expect(below([box(406, 150)])?.seen).toMatchObject({ hazard: 'building', feature: 'house' });
    expect(below([box(406, 150)])!.seen!.alongM).toBeLessThan(600);
    expect(below([box(406, 110)])?.seen).toMatchObject({ hazard: 'nobody', feature: null });
  });
  it('and 40 m to the side', () => {
    expect(below([box(410 + 34, 500)])?.seen?.hazard).toBe('building');
    expect(below([box(410 + 46, 500)])?.seen?.hazard).toBe('nobody');
  });
  it('is not known where the way runs off the map first, unless somebody was met before', () => {
    const away = box(20, 20);
    expect(below([away])?.seen?.hazard).toBe('nobody');
    expect(below([away], { from: LOW })?.seen).toBeNull();
    expect(below([away, box(406, 100)], { from: LOW })?.seen?.hazard).toBe('building');
    expect(below([away], { from: [-50, -50] })?.seen).toBeNull();
  });
  it('is nobody that anything drawn could be taken for by its name', () => {
    for (const kind of ['well', 'constructor', 'toString', '__proto__']) expect(below([{ ...box(406, 500), kind }])?.seen).toBeNull();
  });
  it('is not asked of what holds nothing back', () => {
    expect(below([box(406, 500)], { retains: 'none' })).toBeUndefined();
  });
});
