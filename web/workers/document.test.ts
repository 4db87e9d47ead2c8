// Documents cross in parts, edit by edit, and come out as they went in; what stays is one thing on the other side too.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Command, execute, redo, startHistory, undo } from '#core/commands';
import type { Project } from '#core/project';
import { catalogue } from '#core/works';
import { SWALE, planeProject } from '../../core/testing/projects.ts';
import { FOUR_DAMS, valleyProject } from '../../core/testing/valley.ts';
import { Receiver, Sender } from './document.ts';

/** A message is cloned on its way. */
function ways(): { readonly crosses: (project: Project) => Project; readonly sent: () => number; readonly kept: () => number } {
  const [sender, receiver] = [new Sender(), new Receiver()];
  let count = 0;
  return {
    crosses: (project) => {
      const sending = sender.send(project);
      count = sending.fresh.length;
      return receiver.receive(structuredClone(sending)) as Project;
    },
    sent: () => count,
    kept: () => receiver.size,
  };
}

const begun = planeProject({ pins: [{ id: 'k', at: [101, 31] }] }, [SWALE, FOUR_DAMS]);
const change = (id: string, set: Readonly<Record<string, unknown>>): Command => ({
  type: 'works.change',
  payload: { changes: [{ id, set }] },
});
const edits: fc.Arbitrary<Command | 'undo' | 'redo'> = fc.oneof(
  fc
    .tuple(fc.nat({ max: 3 }), fc.integer({ min: 1, max: 9 }))
    .map(([k, by]) => change(FOUR_DAMS.id, { [`dams.${k}.heightM`]: 0.4 + 0.02 * by })),
  fc.integer({ min: 1, max: 40 }).map((by) => change('w1', { 'levels.floorM': 109.5 + by / 100 })),
  fc.integer({ min: 60, max: 140 }).map((x): Command => ({ type: 'pin.move', payload: { id: 'k', at: [x, 31] } })),
  fc.string({ minLength: 1, maxLength: 6 }).map((name): Command => ({ type: 'project.rename', payload: { name: `n${name}` } })),
  fc.constant('undo' as const),
  fc.constant('redo' as const),
);

describe('documents in parts', () => {
  it('come out as they went in after any edits, undone and redone', () => {
    fc.assert(
      fc.property(fc.array(edits, { minLength: 1, maxLength: 25 }), (all) => {
        const { crosses } = ways();
        let history = startHistory(begun);
        expect(crosses(history.project)).toEqual(history.project);
        for (const edit of all) {
          history = edit === 'undo' ? undo(history) : edit === 'redo' ? redo(history) : execute(history, edit, { registry: catalogue });
          expect(crosses(history.project)).toEqual(history.project);
        }
      }),
      { seed: 61, numRuns: 60 },
    );
  });

  it('leave what was not edited the thing it was, and send little of a large one', () => {
    const { crosses, sent } = ways();
    const history = startHistory(begun);
    const before = crosses(history.project);
    const whole = sent();
    const now = crosses(execute(history, change(FOUR_DAMS.id, { 'dams.1.heightM': 0.45 }), { registry: catalogue }).project);
    expect([now.rain === before.rain, now.ground === before.ground, now.terrain === before.terrain]).toEqual([true, true, true]);
    const [[swale, series], [swaleWas, seriesWas]] = [now, before].map((p) => p.options[0].works) as unknown as [
      [typeof SWALE, typeof FOUR_DAMS],
      [typeof SWALE, typeof FOUR_DAMS],
    ];
    expect([swale === swaleWas, series === seriesWas, series.line === seriesWas.line]).toEqual([true, false, true]);
    expect(series.dams.map((dam, k) => dam === seriesWas.dams[k])).toEqual([true, false, true, true]);
    // The dam, its list, its series, the works, the option, the options and the document.
    expect([sent(), whole > 30]).toEqual([7, true]);
    crosses(history.project);
    expect(sent()).toBe(0);
  });

  it('take nothing of another document for their own', () => {
    const { crosses } = ways();
    for (const project of [begun, valleyProject([FOUR_DAMS]), begun, planeProject({ rain: null, terrain: null }), begun]) {
      expect(crosses(project)).toEqual(project);
    }
  });

  it('are sent anew before too much of what is gone is kept, and the other side forgets it', () => {
    const { crosses, sent, kept } = ways();
    let history = startHistory(begun);
    crosses(history.project);
    const whole = sent();
    let most = 0;
    let anew = 0;
    for (let k = 0; k < 900; k++) {
      history = execute(history, change('w1', { 'levels.floorM': 109.5 + (k % 40) / 100 }), { registry: catalogue });
      const now = crosses(history.project);
      if (sent() >= whole) anew++;
      most = Math.max(most, kept());
      if (k % 100 === 0 || sent() >= whole) expect(now).toEqual(history.project);
    }
    expect(anew).toBeGreaterThan(0);
    expect(most).toBeLessThan(2500);
  });
});
