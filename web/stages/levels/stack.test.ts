import { describe, expect, it } from '@jest/globals';
import { derived, planeProject, SILL, SWALE } from '../../../core/testing/projects.ts';
import { withLevel } from '../../works/levels.ts';
import { withBankAbove, withDepth } from '../../works/swale/depth.ts';
import { chainMarks, stackOf } from './stack.ts';

describe('the level stack', () => {
  const result = derived(planeProject());
  const marks = chainMarks(result, [SWALE, SILL], ['w1', 's1']);
  it('puts every level of the chain in true order, with the water of the storm', () => {
    // Water of the storm stands over the sill; the sill is set on the mean ground, and named after it.
    expect(marks.map((m) => m.role)).toEqual(['crest', 'water', 'ground', 'sill', 'floor']);
    for (let i = 1; i < marks.length; i++) expect(marks[i].levelM).toBeLessThanOrEqual(marks[i - 1].levelM);
  });
  it('spans the picture, keeps neighbours apart and tells the height between them', () => {
    const stack = stackOf(marks);
    expect(stack[0].place).toBe(0);
    expect(stack[stack.length - 1].place).toBeCloseTo(1, 9);
    for (let i = 0; i + 1 < stack.length; i++) {
      expect(stack[i + 1].place - stack[i].place).toBeGreaterThan(0.1);
      expect(stack[i].stepM).toBeCloseTo(stack[i].levelM - stack[i + 1].levelM, 12);
    }
  });
  it('follows the document before the result has come', () => {
    const raised = { ...SILL, levels: { sillM: 110.3 } };
    expect(chainMarks(result, [SWALE, raised], ['s1'])[0].levelM).toBe(110.3);
  });
});

describe('typing a view of levels', () => {
  it('a depth moves all sills and the bank together, the floor stays', () => {
    const second = { ...SILL, id: 's2', levels: { sillM: SILL.levels.sillM + 0.1 } };
    const command = withDepth(SWALE, [second, SILL], 0.5);
    if (command?.type !== 'works.change') throw new Error('no change');
    expect(command.payload.changes).toEqual([
      { id: 'w1', set: { 'levels.bankCrestM': 110.6 } },
      { id: 's2', set: { 'levels.sillM': 110.35 } },
      { id: 's1', set: { 'levels.sillM': 110.25 } },
    ]);
    expect(withDepth(SWALE, [], 0.5)).toBeNull();
  });
  it('a bank height moves the crest alone; a level moves itself', () => {
    expect(withBankAbove(SWALE, [SILL], 0.4)).toMatchObject({ payload: { changes: [{ id: 'w1', set: { 'levels.bankCrestM': 110.5 } }] } });
    expect(withLevel('s1', 'levels.sillM', 110.12345)).toMatchObject({
      payload: { changes: [{ id: 's1', set: { 'levels.sillM': 110.123 } }] },
    });
  });
});
