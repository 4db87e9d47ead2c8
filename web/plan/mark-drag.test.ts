import { describe, expect, it } from '@jest/globals';
import Feature from 'ol/Feature.js';
import type MapBrowserEvent from 'ol/MapBrowserEvent.js';
import Point from 'ol/geom/Point.js';
import { markDrag } from './mark-drag.ts';

/** A plan with one mark at ten, ten, taken within three. */
function plan() {
  const mark = new Feature(new Point([10, 10]));
  mark.setId('sill');
  const viewport = document.createElement('div');
  const said: (readonly [string, number, number, string])[] = [];
  const interaction = markDrag({
    near: ([x, y]) => (Math.hypot(x - 10, y - 10) <= 3 ? mark : undefined),
    tell: (id, [x, y], phase) => said.push([id, x, y, phase]),
  });
  const does = (type: string, coordinate: readonly [number, number], button = 0): boolean => {
    const originalEvent = new MouseEvent(type, { button, cancelable: true });
    const activePointers = type === 'pointerup' ? [] : [originalEvent];
    return interaction.handleEvent({
      type,
      coordinate,
      originalEvent,
      activePointers,
      map: { getViewport: () => viewport },
    } as unknown as MapBrowserEvent);
  };
  return { does, said, at: () => (mark.getGeometry() as Point).getCoordinates(), cursor: () => viewport.style.cursor };
}

describe('a mark that is moved by hand', () => {
  it('is shown to be one, taken by its place, goes with the pointer, and is let go', () => {
    const { does, said, at, cursor } = plan();
    does('pointermove', [20, 20]);
    expect(cursor()).toBe('');
    does('pointermove', [11, 11]);
    expect(cursor()).toBe('grab');
    // What is taken is not moved about with the plan.
    expect(does('pointerdown', [11, 11])).toBe(false);
    expect(cursor()).toBe('grabbing');
    does('pointerdrag', [13, 12]);
    does('pointerdrag', [15, 11]);
    // It keeps its distance to where it was taken.
    expect(at()).toEqual([14, 10]);
    does('pointerup', [15, 11]);
    expect(said).toEqual([
      ['sill', 11, 11, 'start'],
      ['sill', 13, 12, 'move'],
      ['sill', 15, 11, 'move'],
      ['sill', 15, 11, 'end'],
    ]);
    does('pointerdrag', [30, 30]);
    expect([at(), said.length]).toEqual([[14, 10], 4]);
  });
  it('stays where it is when pressed elsewhere, or by another button', () => {
    const { does, said, at } = plan();
    expect(does('pointerdown', [20, 20])).toBe(true);
    does('pointerdrag', [30, 30]);
    does('pointerup', [30, 30]);
    expect(does('pointerdown', [10, 10], 2)).toBe(true);
    does('pointerdrag', [12, 12]);
    expect([said, at()]).toEqual([[], [10, 10]]);
  });
});
