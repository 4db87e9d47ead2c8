// What is painted on a canvas of the plan stays while nothing of it is another, and is moved as a picture while painting it takes long.
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';
import type OlMap from 'ol/Map.js';
import type { FrameState } from 'ol/Map.js';
import type Layer from 'ol/layer/Layer.js';
import { Painted, type Seen, movedTo } from './painted.ts';

type Names = NonNullable<FrameState['declutter']>[string];

/** A layer that counts its paintings. */
class Counting {
  revision = 0;
  isShown = true;
  painted = 0;
  noted = 0;
  deferred = 0;
  readonly canvas = document.createElement('div');
  render: () => HTMLElement | null = () => {
    this.painted++;
    return this.canvas;
  };
  getDeclutter = (): string => 'names';
  renderDeclutter = (on: FrameState): void => {
    this.noted++;
    if (on.declutter) on.declutter.names = { of: this.noted } as unknown as Names;
  };
  renderDeferred = (): void => void this.deferred++;
  getRevision = (): number => this.revision;
  getVisible = (): boolean => this.isShown;
}

let begin: (event: { readonly frameState: FrameState }) => void;
let clockMs = 0;
let layers: Counting[] = [];
const VIEW = { center: [0, 0], resolution: 1, rotation: 0, hints: [0, 0], size: [800, 600] };

/** One frame of the map, so long after the last; the view as it was but for what is said. */
function frame(change: Partial<typeof VIEW> = {}, afterMs = 16): FrameState['declutter'] {
  clockMs += afterMs;
  const { size, hints, ...viewState } = { ...VIEW, ...change };
  const frameState = { viewState, viewHints: hints, size, pixelRatio: 1, declutter: {} } as unknown as FrameState;
  begin({ frameState });
  for (const layer of layers) layer.render();
  for (const layer of layers) layer.renderDeclutter(frameState);
  for (const layer of layers) layer.renderDeferred();
  return frameState.declutter;
}
const paintings = (): number[] => layers.map(({ painted }) => painted);
const laid = (): string => layers[0].canvas.style.transform;

beforeEach(() => {
  jest.spyOn(performance, 'now').mockImplementation(() => clockMs);
  layers = [new Counting(), new Counting()];
  const map = { on: (_: string, told: typeof begin) => (begin = told) };
  void new Painted(map as unknown as OlMap, layers as unknown as Layer[]);
});
afterEach(() => {
  jest.restoreAllMocks();
});

describe('a canvas of the plan', () => {
  it('is painted once while nothing of it is another, and whole where one of its layers is', () => {
    for (let k = 0; k < 5; k++) frame();
    expect([paintings(), layers[0].noted, layers[1].deferred]).toEqual([[1, 1], 1, 1]);
    expect(layers[0].render()).toBe(layers[0].canvas);
    // Names that are seen are known in frames that paint nothing too.
    expect(frame()).toEqual({ names: { of: 1 } });
    layers[1].revision++;
    frame();
    layers[0].isShown = false;
    frame();
    expect(paintings()).toEqual([3, 3]);
    for (const change of [{ size: [801, 600] }, { rotation: 1 }, { resolution: 2 }, { center: [1, 0] }, { center: [0, 1] }]) {
      const [before] = paintings();
      frame(change);
      frame(change);
      expect(paintings()[0]).toBe(before + 1);
    }
  });

  it('is painted at every frame of a moving view as long as that is quick, and once more when the view rests', () => {
    for (let k = 1; k <= 5; k++) frame({ center: [k, 0], hints: [0, 1] });
    expect([paintings(), laid()]).toEqual([[5, 5], '']);
    // Long after, it is not the time nobody moved it that is taken for painting.
    frame({ center: [9, 0] }, 9000);
    for (let k = 1; k <= 5; k++) frame({ center: [k, 0], hints: [0, 1] }, k === 1 ? 9000 : 16);
    expect([paintings(), laid()]).toEqual([[11, 11], '']);
    // The same place, but what comes into view while it is moved was not there yet.
    frame({ center: [5, 0] });
    frame({ center: [5, 0] });
    expect(paintings()).toEqual([12, 12]);
  });

  it('is moved as a picture where painting takes long, for three times as long as that takes', () => {
    let at = 0;
    const move = (afterMs: number): FrameState['declutter'] => frame({ center: [at++, 0], hints: [0, 1] }, afterMs);
    move(16);
    // It took 50 ms till the next frame could begin.
    move(50);
    expect([paintings(), laid()]).toEqual([[1, 1], 'translate(-1px, 0px) scale(1)']);
    for (let k = 0; k < 9; k++) move(16);
    expect([paintings()[0], laid()]).toEqual([1, 'translate(-10px, 0px) scale(1)']);
    // Begun 50 + 9 * 16 + 8 ms ago: four times as long.
    move(8);
    expect([paintings()[0], laid()]).toEqual([2, '']);
    move(50);
    expect([paintings()[0], laid()]).toEqual([2, 'translate(-1px, 0px) scale(1)']);
    // Something on it is another.
    layers[0].revision++;
    move(16);
    expect(paintings()[0]).toBe(3);
    // At rest it is painted as it is, however long that takes.
    frame({ center: [at, 0] });
    expect([paintings()[0], laid()]).toEqual([4, '']);
  });

  it('shows every place where the view shows it', () => {
    const seen = (size: readonly number[]): fc.Arbitrary<Seen> =>
      fc.record({
        center: fc.tuple(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 })),
        resolution: fc.integer({ min: 1, max: 80 }).map((r) => r / 10),
        size: fc.constant(size),
      });
    const pixel = ({ center, resolution, size }: Seen, [x, y]: readonly number[]): number[] => [
      size[0] / 2 + (x - center[0]) / resolution,
      size[1] / 2 - (y - center[1]) / resolution,
    ];
    const place = fc.tuple(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 }));
    fc.assert(
      fc.property(seen([800, 600]), seen([800, 600]), place, (was, now, at) => {
        const [, x, y, scale] = (/translate\((.*)px, (.*)px\) scale\((.*)\)/.exec(movedTo(was, now)) ?? []).map(Number);
        const [px, py] = pixel(was, at);
        const [wanted, got] = [pixel(now, at), [x + scale * px, y + scale * py]];
        expect(Math.hypot(got[0] - wanted[0], got[1] - wanted[1])).toBeLessThan(1e-6 * (1 + Math.hypot(...wanted)));
      }),
      { seed: 7, numRuns: 200 },
    );
  });
});
