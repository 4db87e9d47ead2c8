// The ground of a second invented holding: a dry hillside cut by a gully that forks.
import { uneven } from './surface.ts';

export const WIDE_M = 264;
export const LONG_M = 342;

/** The gully breaks off here. */
export const HEAD_Y = 268;
/** Where the gully runs at a height up the hill, and how far it is cut there: its head near the top, a wash at the bottom. */
export const mainAt = (y: number): number => 128 + 21 * Math.sin(y / 47 + 0.6) + 6.5 * Math.sin(y / 19 + 2.1) + 2 * Math.sin(y / 7.3);
const mainDepth = (y: number): number => 2.3 / (1 + Math.exp((y - HEAD_Y) / 1.6)) - 0.9 / (1 + Math.exp((y - 62) / 16));
/** The fork comes in from the east at this height. */
const FORK_Y = 148;
const forkAt = (y: number): number => mainAt(FORK_Y) + (y - FORK_Y) * 0.62 + 7 * Math.sin((y - FORK_Y) / 21) + 2.2 * Math.sin(y / 8.1);
const forkDepth = (y: number): number => (y < FORK_Y ? 0 : 1.5 / (1 + Math.exp((y - 226) / 8)));

/** A trench with a rounded bed and steep sides, so wide at its bed, by the distance from its middle. */
const trench = (off: number, wide: number): number => 1 / (1 + (off / wide) ** 6);

/** Level at a place measured from the south-west corner [m]. */
export function dryForkLevel(x: number, y: number): number {
  const v = y / LONG_M;
  const hill = 812 + 27 * v + 4.5 * v * v;
  const [main, fork] = [x - mainAt(y), x - forkAt(y)];
  // The hillside leans towards the gully from both sides, more so where it is old.
  const lean = 5.2 * (1 - Math.exp(-((main / 95) ** 2))) + 0.9 * (1 - Math.exp(-((fork / 40) ** 2))) * v;
  const rough =
    1.5 * uneven(x, y, { wave: 70, seed: 31 }) + 0.45 * uneven(x, y, { wave: 26, seed: 32 }) + 0.09 * uneven(x, y, { wave: 6, seed: 33 });
  // An old field on the west side lies far gentler than the hill about it.
  const within = Math.exp(-(((x - 62) / 44) ** 4) - ((y - 58) / 36) ** 4);
  const field = 817.4 + 0.031 * (y - 58) - 0.012 * (x - 62) + 0.25 * uneven(x, y, { wave: 48, seed: 34 });
  const cut = mainDepth(y) * trench(main, 2.6 - 0.6 * v) + forkDepth(y) * trench(fork, 1.9);
  const open = hill + lean + rough;
  return open + within * (field - open) - Math.max(cut, 0);
}

/** The bed of the gully or of its fork from one height down to another, as one would walk it. */
export const bedOf = (which: 'main' | 'fork', [from, to]: readonly [number, number]): (readonly [number, number])[] => {
  const at = which === 'main' ? mainAt : forkAt;
  const count = Math.max(2, Math.round((from - to) / 4));
  return Array.from({ length: count + 1 }, (_, k) => {
    const y = from - ((from - to) * k) / count;
    return [Math.round(100 * at(y)) / 100, Math.round(100 * y) / 100];
  });
};
