// The ground of an invented small plot: a school between streets, its yard lower than all round it, an old pool behind.
import { uneven } from './surface.ts';

export const WIDE_M = 62;
export const LONG_M = 46;

/** 1 well within a rounded patch whose edge wanders, 0 well outside, with banks so wide. */
function within(
  x: number,
  y: number,
  on: {
    readonly at: readonly [number, number];
    readonly half: readonly [number, number];
    readonly bankM: number;
    readonly wander?: number;
  },
): number {
  // prettier-ignore
  const { at, half, bankM, wander = 0 } = on;
  const [u, v] = [(x - at[0]) / half[0], (y - at[1]) / half[1]];
  const turn = Math.atan2(v, u);
  const edge = 1 + wander * (0.6 * Math.sin(2 * turn + 0.7) + 0.4 * Math.sin(3 * turn + 2.1) + 0.25 * Math.sin(5 * turn));
  const out = ((u ** 4 + v ** 4) ** 0.25 - edge) * Math.min(...half);
  return 1 / (1 + Math.exp((6 * out) / bankM));
}

/** The old pool: its middle, half its width and length, and how deep its two ends are. */
export const POOL = { at: [49.2, 33.6], half: [2.3, 4.1], shallowM: 0.9, deepM: 1.5 } as const;

/** Level at a place measured from the south-west corner [m]. */
export function plotLevel(x: number, y: number): number {
  // The street falls to the west; the plot falls to it from behind.
  const open = 41.2 + 0.021 * y + 0.008 * x + 0.0012 * (x - 28) * Math.sin(y / 17);
  // Neighbours filled their ground; the school's yard was left, and settled.
  const north = 0.55 / (1 + Math.exp(-(y - 42.2 + 0.8 * Math.sin(x / 9)) / 0.35));
  const east = 0.4 / (1 + Math.exp(-(x - 58.6 + 0.5 * Math.sin(y / 7)) / 0.3));
  const yard = 0.34 * within(x, y, { at: [24.5, 23.5], half: [10.5, 5.6], bankM: 3.4, wander: 0.16 });
  const bed = -0.28 * within(x, y, { at: [10.4, 36.2], half: [6.2, 3.4], bankM: 1.4, wander: 0.1 });
  const street = 0.16 / (1 + Math.exp((y - 3.1) / 0.12));
  const along = (y - POOL.at[1] + POOL.half[1]) / (2 * POOL.half[1]);
  const pool = (POOL.shallowM + (POOL.deepM - POOL.shallowM) * Math.min(1, Math.max(0, along))) * within(x, y, { ...POOL, bankM: 0.5 });
  const rough = 0.06 * uneven(x, y, { wave: 11, seed: 51 }) + 0.03 * uneven(x, y, { wave: 3.4, seed: 52 });
  return open + north + east - yard - bed - street - pool + rough;
}
