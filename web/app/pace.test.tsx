// What a hand drags is shown at each step; what is read beside it follows a few times a second, and at once when the hand lets go.
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import { type ReactNode, useLayoutEffect } from 'react';
import { type Paced, Read, paced } from './pace.tsx';

interface Shown {
  readonly levelM: number;
  readonly name: string;
}
let useIt: Paced<Shown>;
let drawn = 0;
/** How long it takes to draw what is read [ms]. */
let drawsFor = 0;

function Level({ label }: { readonly label: string }): ReactNode {
  const levelM = useIt((s) => s.levelM);
  if (label === 'read') drawn++;
  useLayoutEffect(() => {
    for (const start = performance.now(); label === 'read' && performance.now() - start < drawsFor;);
  });
  return <p>{`${label} ${levelM}`}</p>;
}
const shown = (): readonly (string | null)[] => ['held', 'read'].map((label) => screen.getByText(new RegExp(label)).textContent);
const put = (levelM: number): void => act(() => useIt.setState({ levelM }));
const passes = (ms: number): void => act(() => jest.advanceTimersByTime(ms));

beforeEach(() => {
  jest.useFakeTimers();
  useIt = paced<Shown>(() => ({ levelM: 1, name: 'dam' }));
  render(
    <>
      <Level label="held" />
      <Read>
        <Level label="read" />
      </Read>
    </>,
  );
  drawn = 0;
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

describe('a store followed at two paces', () => {
  it('says at once what it holds while nothing is dragged, and draws only what reads what changed', () => {
    put(2);
    expect(shown()).toEqual(['held 2', 'read 2']);
    act(() => useIt.setState({ name: 'weir' }));
    expect([useIt.getState(), drawn]).toEqual([{ levelM: 2, name: 'weir' }, 1]);
  });

  it('shows each step of a drag under the hand, and a few a second beside it, the newest each time', () => {
    for (let k = 0; k < 60; k++) {
      useIt.drags();
      put(10 + k);
      expect(shown()[0]).toBe(`held ${10 + k}`);
      passes(16);
    }
    // A second of sixty steps.
    expect(drawn).toBeGreaterThanOrEqual(3);
    expect(drawn).toBeLessThanOrEqual(5);
    act(() => useIt.letsGo());
    expect(shown()).toEqual(['held 69', 'read 69']);
    put(3);
    expect(shown()).toEqual(['held 3', 'read 3']);
  });

  it('leaves the time to the hand where drawing what is read takes long, and yet follows once a second', async () => {
    jest.useRealTimers();
    const on = globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean };
    on.IS_REACT_ACT_ENVIRONMENT = false;
    try {
      drawsFor = 90;
      const start = performance.now();
      for (let k = 0; performance.now() - start < 2600; k++) {
        useIt.drags();
        useIt.setState({ levelM: 10 + k });
        await new Promise((resolve) => setTimeout(resolve, 10));
      }
      // After a quarter of a second and then every nine tenths of one, not seven times as otherwise; on a slow machine fewer.
      expect(drawn).toBeGreaterThanOrEqual(2);
      expect(drawn).toBeLessThanOrEqual(4);
    } finally {
      drawsFor = 0;
      on.IS_REACT_ACT_ENVIRONMENT = true;
    }
  });

  it('catches up with a hand that only stops, and follows at once after it', () => {
    useIt.drags();
    put(5);
    expect(shown()).toEqual(['held 5', 'read 1']);
    passes(300);
    expect(shown()).toEqual(['held 5', 'read 5']);
    passes(200);
    put(6);
    expect(shown()).toEqual(['held 6', 'read 6']);
  });

  it('waits for the hand to rest: for nothing where nothing is dragged, till it lets go, or has not moved for a while', async () => {
    const rested = async (): Promise<{ done: boolean }> => {
      const state = { done: false };
      void useIt.rests().then(() => (state.done = true));
      await Promise.resolve();
      await Promise.resolve();
      return state;
    };
    expect((await rested()).done).toBe(true);
    useIt.drags();
    const waits = await rested();
    expect(waits.done).toBe(false);
    await jest.advanceTimersByTimeAsync(300);
    useIt.drags();
    await jest.advanceTimersByTimeAsync(300);
    // It has moved since.
    expect(waits.done).toBe(false);
    await jest.advanceTimersByTimeAsync(150);
    expect(waits.done).toBe(true);
    useIt.drags();
    const held = await rested();
    expect(held.done).toBe(false);
    act(() => useIt.letsGo());
    await jest.advanceTimersByTimeAsync(0);
    expect(held.done).toBe(true);
  });
});
